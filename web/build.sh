#!/usr/bin/env bash
# Called by Maven: `site` builds the screens, `check` lints them and runs their tests.
set -euo pipefail
cd "$(dirname "$0")"

# npm ci takes half a minute; it is skipped while the lock file is the one that was installed
stamp=node_modules/.installed-lock
if ! cmp -s package-lock.json "$stamp"; then
  npm ci --no-audit --no-fund
  cp package-lock.json "$stamp"
fi

case "$1" in
  site)
    made=target/site/.made-from
    inputs=$(find src public index.html openapi.json package-lock.json vite.config.ts tsconfig.json compress.js -type f \
      ! -name schema.ts -print0 | sort -z | xargs -0 sha256sum | sha256sum)
    if [ -f "$made" ] && [ "$(cat "$made")" = "$inputs" ]; then
      echo "web: nothing changed"
    else
      npm run --silent site
      echo "$inputs" >"$made"
    fi
    ;;
  check)
    npm run --silent lint
    npm run --silent test
    ;;
esac
