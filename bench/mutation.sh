#!/usr/bin/env bash
# Changes one room of core a line at a time and looks whether tests go red. Usage: bench/mutation.sh ROOM [ROOM…]
# The tests are those of the room and of any others named after it, whose tests reach it, such as: completion jobcard
# Prints what was killed, and each change that no test saw (class, line, what was changed).
set -euo pipefail
cd "$(dirname "$0")/.."
room=${1:?name a room of core, such as due}
tests=
for each in "$@"; do tests+=",knollfield.core.$each.*"; done
mvn -B -ntp -q -pl core test-compile
mvn -B -ntp -pl core -Pmutation -Droom="$room" -DtargetTests="${tests#,}" org.pitest:pitest-maven:mutationCoverage >core/target/mutation.log 2>&1 ||
  { tail -30 core/target/mutation.log >&2; exit 1; }
awk -F, '{ n[$6]++; all++; if ($6 == "SURVIVED" || $6 == "NO_COVERAGE") print $6, $2 ":" $5, $4, $3 }
  END { printf "%d changes: %d killed or timed out (%.0f %%), %d survived, %d in lines no test reaches\n", all,
        n["KILLED"] + n["TIMED_OUT"], 100 * (n["KILLED"] + n["TIMED_OUT"]) / all, n["SURVIVED"], n["NO_COVERAGE"] }' \
  core/target/pit-reports/mutations.csv
