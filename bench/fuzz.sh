#!/usr/bin/env bash
# Requests at random, made from the server's own OpenAPI document, against a demo of its own: none may be answered with a
# 5xx or after more than two seconds, and afterwards every page answers. Usage: bench/fuzz.sh [requests] [seed]
set -euo pipefail
cd "$(dirname "$0")/.."
mvn -B -ntp -pl core,app -am test -Dexec.skip=true -Dweb.check.skip=true -Dsurefire.failIfNoSpecifiedTests=false \
  -Dtest=FuzzTest -Dknollfield.fuzz.requests="${1:-100000}" -Dknollfield.fuzz.seed="${2:-17}" -Dknollfield.fuzz.slow=2 |
  grep --line-buffered "^fuzz:\|ERROR\|Tests run:"
