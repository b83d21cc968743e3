# Starting and stopping the application. Sourced by ./haycart.

check_port() {
  case $port in '' | *[!0-9]*) fail "HAYCART_PORT is “$port”; it takes a port from 1 to 65000." ;; esac
  if [ "$port" -lt 1 ] || [ "$port" -gt 65000 ]; then fail "HAYCART_PORT is “$port”; it takes a port from 1 to 65000."; fi
}

# Says so at once when the port is taken, before anything is installed, built or seeded.
check_port_free() {
  node -e 'require("net").createServer().on("error",()=>process.exit(1)).listen(Number(process.argv[1]),process.argv[2],function(){this.close()})' "$1" "$host" ||
    fail "port $1 is taken, perhaps by another Hay Cart. Stop that one, or choose another port with HAYCART_PORT."
}

# Takes the data folder for this process, so that two starts never share one by accident.
take_data() {
  mkdir -p "$data"
  if [ -f "$data/pid" ] && kill -0 "$(cat "$data/pid")" 2>/dev/null; then
    fail "another Hay Cart (process $(cat "$data/pid")) uses the data in $data. Stop it, or choose another folder with HAYCART_DATA."
  fi
  echo $$ > "$data/pid"
}

say_out() { printf '%s\n' "$*"; }

started=''
# Stops all that was started. A second Ctrl-C does not interrupt it: the database would be left running.
stop_all() {
  trap - EXIT
  trap '' INT TERM
  for process in $started; do kill "$process" 2>/dev/null || true; done
  for process in $started; do wait "$process" 2>/dev/null || true; done
  [ -z "${DATABASE_URL_OWN:-}" ] || cluster_stop "$data/database"
  rm -f "$data/pid"
}

# Sets DATABASE_URL: the one given, or a database of our own.
need_database() {
  if [ -z "${DATABASE_URL:-}" ]; then
    need_postgresql
    DATABASE_URL_OWN=yes
    cluster=$(cluster_start "$data/database") || fail 'the database could not be started; see above.'
    DATABASE_URL=$(cluster_database "$cluster" haycart) || fail 'the database could not be made; see above.'
    export DATABASE_URL
  fi
}

# wait_until_ready PID: until the server answers; it may also have ended, having said why.
wait_until_ready() {
  node -e '
    const [url, pid] = process.argv.slice(1), until = Date.now() + 60000;
    const ask = () => fetch(url).then((r) => r.ok ? process.exit(0) : again(), again);
    const again = () => {
      try { process.kill(Number(pid), 0); } catch { process.exit(1); }
      if (Date.now() > until) process.exit(1);
      setTimeout(ask, 100);
    };
    ask();' "http://$host:$port/readyz" "$1" || fail 'the server did not get ready; see above.'
}

start_server() {
  export HAYCART_KEY_FILE="${HAYCART_KEY_FILE:-$data/secret-key}"
  HAYCART_PORT=$port HAYCART_HOST=$host node --enable-source-maps apps/server/dist/main.js >>"$data/server.log" &
  server=$!
  started="$started $server"
  wait_until_ready "$server"
}

serve_demo() {
  check_port
  need_node
  check_port_free "$port"
  check_port_free $((port + 1))
  check_port_free $((port + 2))
  check_port_free $((port + 3))
  check_port_free $((port + 4))
  check_port_free $((port + 5))
  check_port_free $((port + 6))
  check_port_free $((port + 9))
  take_data
  trap stop_all EXIT
  trap 'exit 130' INT TERM
  need_build
  need_database
  export HAYCART_DEMO=1
  # The stand-ins are on this machine.
  export HAYCART_PRIVATE_TARGETS="${HAYCART_PRIVATE_TARGETS:-127.0.0.0/8}"
  export HAYCART_DNS="${HAYCART_DNS:-$host:$((port + 2))}"
  export HAYCART_RETURN_PORT=$((port + 6))
  export HAYCART_KEY_FILE="${HAYCART_KEY_FILE:-$data/secret-key}"
  HAYCART_PORT=$port node --enable-source-maps apps/server/dist/seed.js || fail 'the demo data could not be made; see above.'
  HAYCART_PORT=$port HAYCART_HOST=$host node apps/stand-ins/src/landing-site.mjs &
  started="$started $!"
  HAYCART_PORT=$port HAYCART_HOST=$host node apps/stand-ins/src/name-server.mjs >/dev/null &
  started="$started $!"
  HAYCART_PORT=$port HAYCART_HOST=$host node apps/stand-ins/src/mail.mjs >/dev/null &
  started="$started $!"
  HAYCART_PORT=$port HAYCART_HOST=$host node apps/stand-ins/src/messages.mjs >/dev/null &
  started="$started $!"
  HAYCART_PORT=$port HAYCART_HOST=$host node apps/stand-ins/src/receive.mjs >/dev/null &
  started="$started $!"
  start_server
  cat <<TXT
The landing site: http://$host:$((port + 1))/glasshouses/schools?utm_source=spring-newsletter&utm_medium=email&utm_campaign=spring-2026
The stand-in for domain names: http://$host:$((port + 2))
The stand-in for mail: http://$host:$((port + 3))
The stand-in for chat and text messages: http://$host:$((port + 5))
The stand-in that is posted to: http://$host:$((port + 9))
Sign in: open the address below and choose Robin Nye; one click, no password.
Hay Cart is ready: http://$host:$port
TXT
  wait "$server"
}

serve_start() {
  check_port
  need_node
  check_port_free "$port"
  take_data
  trap stop_all EXIT
  trap 'exit 130' INT TERM
  need_build
  need_database
  # For its owner alone; the server removes it once it was used.
  [ -f "$data/setup-code" ] || (umask 077 && node -e 'console.log(require("crypto").randomBytes(9).toString("base64url"))' > "$data/setup-code")
  HAYCART_SETUP_CODE=$(cat "$data/setup-code")
  HAYCART_SETUP_CODE_FILE=$data/setup-code
  export HAYCART_SETUP_CODE HAYCART_SETUP_CODE_FILE
  start_server
  needs_code=$(node -e 'fetch(process.argv[1]).then((r) => r.json()).then((o) => console.log(o.firstStart ? "yes" : ""))' "http://$host:$port/api/v1/session/options")
  if [ -n "$needs_code" ]; then say_out "Set-up code, asked for at the first start only: $HAYCART_SETUP_CODE"; else rm -f "$data/setup-code"; fi
  say_out "Hay Cart is ready: http://$host:$port"
  wait "$server"
}

# run_command NAME ARGUMENT...: one of the server's commands, on the database as it is.
run_command() {
  command=$1
  shift
  need_build
  stop_after=''
  export HAYCART_KEY_FILE="${HAYCART_KEY_FILE:-$data/secret-key}"
  if [ -z "${DATABASE_URL:-}" ]; then
    need_postgresql
    [ -d "$data" ] || fail "there is no data in $data yet. Start Hay Cart first."
    cluster_running "$(cluster_home "$data/database")" || stop_after=yes
    cluster=$(cluster_start "$data/database") || fail 'the database could not be started; see above.'
    DATABASE_URL=$(cluster_database "$cluster" haycart)
    export DATABASE_URL
  fi
  status=0
  HAYCART_PORT=$port HAYCART_HOST=$host node "apps/server/dist/$command.js" "$@" || status=$?
  [ -z "$stop_after" ] || cluster_stop "$data/database"
  return $status
}

reset_data() {
  if [ -f "$data/pid" ] && kill -0 "$(cat "$data/pid")" 2>/dev/null; then fail "Hay Cart (process $(cat "$data/pid")) is running. Stop it first."; fi
  if [ "${1:-}" != --yes ]; then
    printf 'Delete all data in %s? This cannot be undone. [y/N] ' "$data"
    read -r reply
    case $reply in y | Y | yes) ;; *) say 'Nothing was deleted.'; return 1 ;; esac
  fi
  cluster_stop "$data/database" immediate
  rm -rf "$(cluster_home "$data/database")" "$data/database" "$data/setup-code" "$data/server.log" "$data/pid" "$data/secret-key"
  say 'The local data is deleted.'
}
