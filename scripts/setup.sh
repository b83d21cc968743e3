# Set-up steps, each of which does nothing when its work is done already. Sourced by ./haycart.

say() { printf '%s\n' "$*" >&2; }
fail() { say "haycart: $*"; exit 1; }

need_node() {
  command -v node >/dev/null 2>&1 || fail 'Node.js is missing. Install version 20.19 or later.'
  node -e 'const [a,b]=process.versions.node.split(".").map(Number);process.exit(a>20||(a===20&&b>=19)?0:1)' ||
    fail "Node.js $(node --version) is too old. Install version 20.19 or later."
}

# need_debian COMMAND PACKAGE...: installs Debian packages where the command is missing.
need_debian() {
  wanted=$1
  shift
  case $wanted in
    initdb) [ -z "$(cluster_bin)" ] || return 0 ;;
    *) ! command -v "$wanted" >/dev/null 2>&1 || return 0 ;;
  esac
  [ "$(id -u)" = 0 ] || fail "$wanted is missing. Install it first: sudo apt-get install $*"
  say "Installing $* ..."
  { apt-get update -qq && DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends "$@"; } >/dev/null 2>&1 ||
    fail "$* could not be installed. Try: apt-get update && apt-get install $*"
}

# Installs the npm packages when they are missing or the lock file has changed since.
need_packages() {
  need_node
  stamp=node_modules/.haycart-lock
  if ! cmp -s package-lock.json "$stamp" 2>/dev/null; then
    say 'Installing packages ...'
    # npm ci refuses a lock file from a registry that lacks some binaries for other systems; npm install takes the same versions.
    npm ci --loglevel=error >/dev/null 2>&1 || npm install --no-save --loglevel=error >&2 || fail 'the packages could not be installed; see above.'
    cp package-lock.json "$stamp"
  fi
}

# Builds the applications when a source is newer than the last build.
need_build() {
  need_packages
  built=node_modules/.haycart-built
  if [ ! -f "$built" ] || [ ! -d apps/web/dist ] || [ ! -d apps/server/dist ] ||
    [ -n "$(find apps packages demo/src package-lock.json -newer "$built" \( -name node_modules -o -name dist -o -name .tsc \) -prune -o -newer "$built" -type f -print 2>/dev/null | grep -v -e /dist/ -e /.tsc/ | head -n 1)" ]; then
    say 'Building ...'
    npm run --silent build >"$root/node_modules/.haycart-build.log" 2>&1 || { cat "$root/node_modules/.haycart-build.log" >&2; fail 'the build failed; see above.'; }
    touch "$built"
  fi
}

need_postgresql() { need_debian initdb postgresql; }
# The journeys take the one without a monitor where it can be had; either will do.
need_chromium() {
  need_debian chromium chromium
  [ "$(id -u)" != 0 ] || need_debian chromium-headless-shell chromium-headless-shell
}
need_wrk() { need_debian wrk wrk; }
