#!/usr/bin/env bash
# Ten years on a simulated island under several ways of deciding. Usage: bench/proving-ground.sh [vehicles]
set -euo pipefail
cd "$(dirname "$0")/.."
mvn -B -ntp -q package -DskipTests -Dexec.skip=true -pl core,bench
java -cp bench/target/classes:core/target/classes knollfield.bench.ProvingGround "${1:-5000}"
