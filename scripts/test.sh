# All checks and tests, or some. Sourced by ./haycart. The last line says `N passed, N failed`.

passed=0
failed=0
results=node_modules/.cache/haycart-results

# count NAME COMMAND...: one check that passes or fails as a whole.
count() {
  name=$1
  shift
  if "$@"; then passed=$((passed + 1)); say "passed: $name"; else failed=$((failed + 1)); say "FAILED: $name"; fi
}

# add_results FILE: adds what a test runner counted; a runner that wrote nothing counts as one failure, and so does a journey
# that passed only when it was tried again.
add_results() {
  counts=$(node -e '
    const result = JSON.parse(require("fs").readFileSync(process.argv[1], "utf8"));
    const { stats } = result;
    if (stats) console.log(stats.expected, stats.unexpected + stats.flaky + result.errors.length);
    else console.log(result.numPassedTests, result.numFailedTests + result.numRuntimeErrorTestSuites);' "$1" 2>/dev/null) || counts='0 1'
  passed=$((passed + ${counts% *}))
  failed=$((failed + ${counts#* }))
}

# Two checks at a time, since each keeps one core busy; what one says is shown once all have ended.
run_lint() {
  checks='types code format imports unused'
  rm -f "$results"/lint-*
  # The checks are words.
  # shellcheck disable=SC2086
  printf '%s\n' $checks | xargs -P 2 -I '{}' sh -c 'npm run --silent "lint:$2" >"$1/lint-$2.log" 2>&1 && : >"$1/lint-$2.ok"' lint "$results" '{}' || true
  for check in $checks; do count "lint: $check" shown_lint "$check"; done
}

# shown_lint CHECK: what a check said, and whether it passed.
shown_lint() {
  cat "$results/lint-$1.log"
  [ -f "$results/lint-$1.ok" ]
}

# run_jest PROJECTS WORKERS [PATTERN...]: tests of the core and of components, or the server's against a PostgreSQL of their own;
# files whose path fits.
run_jest() {
  projects=$1
  workers=$2
  shift 2
  rm -f "$results/jest.json"
  # The projects are words.
  # shellcheck disable=SC2086
  NODE_OPTIONS='--experimental-vm-modules --no-warnings' npx jest "$@" --selectProjects $projects --maxWorkers="$workers" --testTimeout=90000 --json --outputFile="$results/jest.json" >/dev/null || true
  add_results "$results/jest.json"
}

# run_e2e [PATTERN...]: journeys through the real interface; files whose path fits.
run_e2e() {
  rm -f "$results/e2e.json"
  PLAYWRIGHT_JSON_OUTPUT_NAME="$root/$results/e2e.json" npx playwright test "$@" --config e2e/playwright.config.ts >&2 || true
  add_results "$results/e2e.json"
}

run_tests() {
  kind=${1:-all}
  [ $# -eq 0 ] || shift
  case $kind in all | lint | unit | server | e2e) ;; *) fail "test takes lint, unit, server or e2e, not “$kind”." ;; esac
  need_packages
  mkdir -p "$results"
  case $kind in all | lint) run_lint ;; esac
  case $kind in all | unit) run_jest 'unit web' 100% "$@" ;; esac
  case $kind in all | server)
    need_postgresql
    need_build
    # Two, on however many cores: they share one PostgreSQL and its connections.
    rm -rf "$results/rows"
    HAYCART_ROWS="$root/$results/rows" run_jest server 2 "$@"
    # Of all statements only where all tests asked for them.
    [ $# -gt 0 ] || count 'server: rows of statements' node scripts/check-rows.mjs "$results/rows"
    ;;
  esac
  case $kind in all | e2e)
    need_postgresql
    need_chromium
    need_build
    run_e2e "$@"
    ;;
  esac
  echo "$passed passed, $failed failed"
  [ "$failed" -eq 0 ] && [ "$passed" -gt 0 ]
}
