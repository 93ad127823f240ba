#!/usr/bin/env bash
# Fleets made level, beside an outside solver. Usage: bench/level.sh
set -euo pipefail
cd "$(dirname "$0")/.."
mvn -B -ntp -q package -DskipTests -Dexec.skip=true -pl core,bench \
  org.apache.maven.plugins:maven-dependency-plugin:copy-dependencies -DincludeScope=runtime -DoutputDirectory=target/lib
java ${LEVEL_JAVA:-} -cp "bench/target/classes:core/target/classes:bench/target/lib/*" knollfield.bench.LevelOptimum
