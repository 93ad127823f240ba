#!/usr/bin/env bash
# Cuts the power under the server: it writes on a file system in an image (loop device), the image is copied as the device
# has it at that moment, and the copy is mounted and opened. Counts writes that were answered and are gone.
# Usage: bench/power-cut.sh JAR [cuts]; needs root for mounting.
set -euo pipefail
cd "$(dirname "$0")/.."
jar=$1
cuts=${2:-10}
top=$(mktemp -d)
cleanup() {
  [ -z "${pid:-}" ] || kill -9 "$pid" 2>/dev/null || true
  sleep 0.3
  umount "$top/live" 2>/dev/null || true
  umount "$top/left" 2>/dev/null || true
  rm -rf "$top"
}
trap cleanup EXIT TERM INT
mkdir "$top/live" "$top/left"
lost=0
answered=0
for cut in $(seq "$cuts"); do
  dd if=/dev/zero of="$top/live.img" bs=1M count=160 status=none
  mkfs.ext4 -q "$top/live.img"
  mount -o loop "$top/live.img" "$top/live"
  java -XX:TieredStopAtLevel=1 -jar "$jar" --knollfield.data="$top/live/workshop" \
    --knollfield.first-run-code=24682468 --server.port=8195 --knollfield.disk.reserve-mb=5 >"$top/log" 2>&1 &
  pid=$!
  # writes until the copy is begun; what was answered before that is what must be there
  node bench/write-notes.mjs 8195 "$top/answered" "$top/stop" &
  writer=$!
  : >"$top/answered"
  until [ "$(wc -l <"$top/answered")" -ge 60 ]; do sleep 0.05; done
  cp "$top/answered" "$top/before"
  cp --sparse=always "$top/live.img" "$top/left.img"
  touch "$top/stop"
  wait $writer || true
  kill -9 $pid
  wait $pid 2>/dev/null || true
  umount "$top/live"
  mount -o loop "$top/left.img" "$top/left"
  java -XX:TieredStopAtLevel=1 -jar "$jar" --knollfield.data="$top/left/workshop" --server.port=8195 \
    --knollfield.disk.reserve-mb=5 >"$top/log" 2>&1 &
  pid=$!
  gone=$(node bench/write-notes.mjs 8195 "$top/before") || { cat "$top/log" >&2; exit 1; }
  kill -9 $pid
  wait $pid 2>/dev/null || true
  umount "$top/left"
  lost=$((lost + gone))
  answered=$((answered + $(wc -l <"$top/before")))
  rm -f "$top"/answered "$top"/before "$top"/stop "$top"/*.img
done
pid=
echo "$cuts cuts: $answered writes answered before them, $lost lost"
