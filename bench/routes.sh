#!/usr/bin/env bash
# Works out jobs on random books and runs every card dry: bench/routes.sh [HOW MANY], 10,000 where nothing is said.
# Then leaves out every operation of proven cards and swaps every pair that an arrow binds, and counts what the dry run catches.
set -euo pipefail
cd "$(dirname "$0")/.."
mvn -B -q -ntp -pl core test-compile
java -cp core/target/classes:core/target/test-classes knollfield.core.route.RandomRoutes "${1:-10000}"
java -cp core/target/classes:core/target/test-classes knollfield.core.route.Mutations
