#!/usr/bin/env bash
# How long the optimum of a bundle takes. Usage: bench/bundle.sh [candidates ...]
set -euo pipefail
cd "$(dirname "$0")/.."
mvn -B -ntp -q package -DskipTests -Dexec.skip=true -pl core,bench
java -cp bench/target/classes:core/target/classes knollfield.bench.BundleOptimum "$@"
