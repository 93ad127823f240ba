#!/bin/sh
# More found in the middle of N seeded jobs; what hands then did is run dry. Prints how many were refused with their law.
set -eu
cd "$(dirname "$0")/.."
mvn -B -ntp -q -pl core test -Dtest=WidenedTest -Dknollfield.jobs="${1:-3000}" | grep refused
