#!/usr/bin/env bash
# Counts the checks against things outside the project: comments that begin "Source:" beside tests, by file.
# Usage: bench/outside-checks.sh
set -euo pipefail
cd "$(dirname "$0")/.."
grep -rc --include='*Test.java' --include='*.test.ts' --include='*.test.tsx' 'Source: ' core/src/test app/src/test e2e/src/test web/src |
  awk -F: '$2 > 0 { all += $2; files++; print $2, $1 } END { printf "%d checks in %d files\n", all, files }' | sort -n
