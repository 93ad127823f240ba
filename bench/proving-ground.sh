#!/usr/bin/env bash
# Ten years on a simulated island under many ways of deciding: frontiers, then early against careful in paired seeds.
# Usage: bench/proving-ground.sh [vehicles of the frontiers] [of the pair] [seeds] [picture.svg]
set -euo pipefail
cd "$(dirname "$0")/.."
mvn -B -ntp -q package -DskipTests -Dexec.skip=true -Dweb.check.skip=true -pl core,bench
exec java -cp bench/target/classes:core/target/classes knollfield.bench.proving.ProvingGround "$@"
