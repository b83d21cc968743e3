# A PostgreSQL cluster of our own, on loopback. Sourced by ./haycart, or called: cluster.sh start|stop|crash DIR
# It keeps in DIR: data/ (the cluster), password, url, and the logs. As root the database runs as the postgres user.

cluster_bin() {
  for folder in /usr/lib/postgresql/*/bin; do bin=$folder; done
  [ -x "$bin/initdb" ] && echo "$bin"
}

# PostgreSQL refuses to run as root, so then its user must reach the folder.
cluster_as() {
  if [ "$(id -u)" = 0 ]; then (cd / && runuser -u postgres -- "$@"); else "$@"; fi
}

free_port() {
  node -e 'const s=require("net").createServer().listen(0,"127.0.0.1",()=>{process.stdout.write(String(s.address().port));s.close()})'
}

# cluster_home DIR: DIR itself, or as root, where the postgres user cannot reach it, a folder that it can.
cluster_home() {
  mkdir -p "$(dirname "$1")"
  if [ "$(id -u)" != 0 ] || cluster_as test -x "$(dirname "$1")" 2>/dev/null; then echo "$1"; else
    echo "/var/lib/postgresql/haycart-$(echo "$1" | cksum | cut -d' ' -f1)"
  fi
}

cluster_running() {
  cluster_as "$(cluster_bin)/pg_ctl" -D "$1/data" status >/dev/null 2>&1
}

# cluster_start DIR: makes the cluster if there is none, starts it if it does not run, and prints its address.
cluster_start() {
  dir=$(cluster_home "$1")
  if [ ! -s "$dir/data/PG_VERSION" ]; then
    rm -rf "$dir"
    mkdir -p "$dir"
    chmod 700 "$dir"
    node -e 'console.log(require("crypto").randomBytes(24).toString("hex"))' > "$dir/password"
    chmod 600 "$dir/password"
    [ "$(id -u)" != 0 ] || chown -R postgres: "$dir"
    cluster_as "$(cluster_bin)/initdb" -D "$dir/data" -U haycart -A scram-sha-256 --pwfile="$dir/password" -E UTF8 --locale=C.UTF-8 >"$dir/log" 2>&1 ||
      { cat "$dir/log" >&2; return 1; }
  fi
  if ! cluster_running "$dir"; then
    tries=0
    while :; do
      port=$(free_port)
      # The log goes to a file: a server that held our output open would keep whoever reads it waiting.
      if cluster_as "$(cluster_bin)/pg_ctl" -D "$dir/data" -l "$dir/server.log" -w -t 60 \
        -o "-p $port -h 127.0.0.1 -c unix_socket_directories= -c max_connections=120 -c shared_buffers=256MB -c random_page_cost=1.1 -c max_locks_per_transaction=256" start >/dev/null 2>&1; then break; fi
      tries=$((tries + 1))
      if [ "$tries" -ge 3 ]; then tail -n 20 "$dir/server.log" >&2; return 1; fi
    done
    echo "postgresql://haycart:$(cat "$dir/password")@127.0.0.1:$port" > "$dir/url"
  fi
  cat "$dir/url"
}

# cluster_stop DIR [fast|immediate]
cluster_stop() {
  dir=$(cluster_home "$1")
  [ -d "$dir/data" ] || return 0
  cluster_as "$(cluster_bin)/pg_ctl" -D "$dir/data" -m "${2:-fast}" -w stop >/dev/null 2>&1 || true
}

# cluster_database URL NAME: makes a database if it is not there, and prints its address.
cluster_database() {
  psql -qtAX -d "$1/postgres" -c "select 1 from pg_database where datname = '$2'" | grep -q 1 ||
    psql -qX -d "$1/postgres" -c "create database \"$2\"" >&2
  echo "$1/$2"
}

case "${0##*/}" in
  cluster.sh)
    case "${1:-}" in
      start) cluster_start "$2" ;;
      stop) cluster_stop "$2" fast ;;
      crash) cluster_stop "$2" immediate ;;
      remove) cluster_stop "$2" immediate; rm -rf "$(cluster_home "$2")" ;;
      *) echo "cluster.sh start|stop|crash|remove DIR" >&2; exit 2 ;;
    esac
    ;;
esac
