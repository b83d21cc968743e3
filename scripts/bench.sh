# Benchmarks, each beside its yardstick in the same run. Sourced by ./haycart.

run_bench() {
  case "${1:-}" in '' | accept | route | rehearse | lists | form | match | scan | quality | import | read | grow | deliver | follow | decide | report) ;; *) fail "bench takes accept, route, rehearse, lists, form, match, scan, quality, import, read, grow, deliver, follow, decide or report, not “$1”." ;; esac
  need_postgresql
  need_wrk
  need_chromium
  need_build
  npx rolldown -c bench/rolldown.config.ts >/dev/null
  mkdir -p "$data"
  trap 'cluster_stop "$data/bench"; rm -rf "$(cluster_home "$data/bench")"' EXIT
  HAYCART_BENCH_CLUSTER=$(cluster_start "$data/bench") || fail 'the database could not be started; see above.'
  export HAYCART_BENCH_CLUSTER
  PATH=$PATH:$(cluster_bin)
  for bench in ${1:-accept route rehearse lists form match scan quality import read grow deliver follow decide report}; do node "bench/dist/$bench.js" || fail "bench $bench ended early; see above."; done
}
