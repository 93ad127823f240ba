#!/usr/bin/env bash
# Plans instances with the product's planner and lets the referee judge. See bench/README.md.
#   bench/planner.sh plan INSTANCE.json PLAN.json SEED 10s|STEPS    one plan file
#   bench/planner.sh greedy INSTANCE.json PLAN.json                 the baseline's
#   bench/planner.sh cpsat INSTANCE.json PLAN.json SECONDS          the outside reference's, with its bound
#   bench/planner.sh generate JOBS SEED INSTANCE.json [BAYS]        an instance of our own; BAYS per ten technicians, usually 10
#   bench/planner.sh all [SECONDS]                                  every instance, five seeds each, as a table
set -euo pipefail
cd "$(dirname "$0")/.."
given=${KNOLLFIELD_INSTANCES:-../shared/bench/planner}
if [ ! -d bench/target/lib ] || [ -n "$(find core/src/main bench/src -newer bench/target/lib -name '*.java' | head -1)" ]; then
  mvn -B -ntp -q package -DskipTests -Dexec.skip=true -pl core,bench \
    org.apache.maven.plugins:maven-dependency-plugin:copy-dependencies -DincludeScope=runtime -DoutputDirectory=target/lib
  touch bench/target/lib
fi
run() {
  local main=$1
  shift
  java -cp "bench/target/classes:core/target/classes:bench/target/lib/*" "knollfield.bench.planner.$main" "$@"
}
judge() { python3 "$given/referee.py" "$1" "$2" | tail -1; }
cost() { judge "$1" "$2" | awk '$1 == "OK" { print $3; next } { print "INVALID" }'; }

case ${1:-} in
plan) shift; run PlanInstance "$@"; judge "$1" "$2" ;;
greedy) shift; run Greedy "$@"; judge "$1" "$2" ;;
cpsat) shift; run CpSatReference "$@"; if [ -f "$2" ]; then judge "$1" "$2"; fi ;;
generate) shift; run Generate "$@" ;;
all)
  seconds=${2:-10}
  out=$(mktemp -d)
  trap 'rm -rf "$out"' EXIT
  for jobs in 20 60 150 500; do run Generate "$jobs" 1 "$out/G-$jobs.json"; done
  echo "| instance | seeds 1 to 5, ${seconds} s each | median | earliest due first | median / baseline |"
  echo "| --- | --- | --- | --- | --- |"
  for file in "$given"/[SML]-*.json "$out"/G-*.json; do
    costs=()
    for seed in 1 2 3 4 5; do
      run PlanInstance "$file" "$out/plan.json" "$seed" "${seconds}s" > /dev/null
      costs+=("$(cost "$file" "$out/plan.json")")
    done
    run Greedy "$file" "$out/plan.json"
    base=$(cost "$file" "$out/plan.json")
    median=$(printf '%s\n' "${costs[@]}" | sort -n | sed -n 3p)
    echo "| $(basename "$file" .json) | ${costs[*]} | $median | $base | $(awk "BEGIN { printf \"%.3f\", $median / $base }") |"
  done
  run PlanInstance "$out/G-500.json" "$out/plan.json" 1 60s > /dev/null
  echo "500 jobs, 60 s, seed 1: $(cost "$out/G-500.json" "$out/plan.json")"
  ;;
*) sed -n '2,7p' "$0"; exit 2 ;;
esac
