#!/usr/bin/env bash
# How much sooner the demo answers from the extracted layout with its class archive than from the plain fat jar, in the
# same run and on the same data. Usage: bench/startup.sh [rounds]; needs `./knollfield demo` to have built once.
set -euo pipefail
cd "$(dirname "$0")/.."
rounds=${1:-3}
port=${KNOLLFIELD_PORT:-8099}
data=$(mktemp -d)
trap 'rm -rf "$data"' EXIT

fat=app/target/knollfield-app-0.1.0-boot.jar
laid_out=.build/app/knollfield.jar
[ -f "$fat" ] && [ -f .build/app/knollfield.jsa ] || { echo "build first: ./knollfield demo" >&2; exit 1; }

# Milliseconds from starting java to the first answer of the server.
answer_ms() {
  local from pid ms
  from=$(date +%s%N)
  java "$@" --knollfield.demo=true --knollfield.data="$data/demo" --knollfield.port="$port" >"$data/log" 2>&1 &
  pid=$!
  until curl -s -o /dev/null "http://localhost:$port/api/me"; do
    kill -0 $pid 2>/dev/null || { cat "$data/log" >&2; exit 1; }
    sleep 0.05
  done
  ms=$((($(date +%s%N) - from) / 1000000))
  kill $pid
  wait $pid 2>/dev/null || true
  echo "$ms"
}

# once for the data, so that no measured start has to make the island
answer_ms -jar $fat >/dev/null
for round in $(seq "$rounds"); do
  plain=$(answer_ms -jar $fat)
  quick=$(answer_ms -XX:TieredStopAtLevel=1 -XX:+UseSerialGC -XX:SharedArchiveFile=.build/app/knollfield.jsa \
    -jar $laid_out)
  echo "round $round: fat jar ${plain} ms, extracted with archive ${quick} ms, ratio $(awk "BEGIN{printf \"%.2f\", $plain/$quick}")"
done
