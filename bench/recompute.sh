#!/usr/bin/env bash
# Judging 100,000 vehicles anew, beside LibreOffice Calc recalculating the two clocks of 20,000, in the same run.
# Needs Debian's libreoffice-calc and python3-uno. Usage: bench/recompute.sh
set -euo pipefail
cd "$(dirname "$0")/.."
mvn -B -ntp -q package -DskipTests -Dexec.skip=true -pl core,bench
classes=bench/target/classes:core/target/classes
ours=$(java -cp "$classes" knollfield.bench.Recompute 100000 | tee /dev/stderr | tail -1)
calc=$(/usr/bin/python3 bench/calc.py 20000)
echo "LibreOffice Calc, 20,000 rows of eight items: median $calc ms"
awk -v o="$ours" -v c="$calc" 'BEGIN {
  printf "per vehicle: ours %.2f µs, Calc %.2f µs; ratio ours to Calc %.2f\n", o * 1000 / 100000, c * 1000 / 20000, (o / 100000) / (c / 20000)
}'
