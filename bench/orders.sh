#!/usr/bin/env bash
# Judges a file of orders: bench/orders.sh FILE (without one: the orders the tests use). Each line of the file is run dry on
# its engine; printed is whether it comes out as the file says, and the laws that answer. Exits with 1 where a line does not.
set -euo pipefail
rights=$(cd "$(dirname "$0")/.." && pwd)/core/src/test/resources/orders.md
file=$(realpath "${1:-$rights}")
cd "$(dirname "$0")/.."
mvn -B -q -ntp -pl core compile
exec java -cp core/target/classes bench/src/main/java/knollfield/bench/OrdersCheck.java "$file" "$rights"
