#!/usr/bin/env bash
# How long a dry run takes on each of the twelve kinds, with laying the same card as the baseline in the same run.
set -euo pipefail
cd "$(dirname "$0")/.."
mvn -B -q -ntp -pl core compile
exec java -cp core/target/classes bench/src/main/java/knollfield/bench/DryRunTime.java
