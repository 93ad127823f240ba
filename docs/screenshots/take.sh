#!/usr/bin/env bash
# Takes the pictures in this folder anew, from a demo that was just started: docs/screenshots/take.sh [port]
set -euo pipefail
here=$(cd "$(dirname "$0")" && pwd)
work=$(mktemp -d)
trap 'rm -rf "$work"' EXIT
cd "$work"
npm init -y >/dev/null
npm install --silent playwright-core@1.62.0 >/dev/null
cp "$here/take.mjs" .
node take.mjs "http://localhost:${1:-8080}" "$here"
