#!/usr/bin/env bash
# Writes NOTICE anew: what is shipped with Knollfield and under which licence, from the dependencies themselves.
set -euo pipefail
cd "$(dirname "$0")/.."
work=$(mktemp -d)
trap 'rm -rf "$work"' EXIT
mvn -B -ntp -q -pl core,web,app -am compile org.codehaus.mojo:license-maven-plugin:2.7.0:add-third-party -DskipTests \
  -Dlicense.includedScopes=compile,runtime -Dlicense.outputDirectory="$work" -Dlicense.thirdPartyFilename=java.txt \
  -Dlicense.excludedGroups=knollfield -Dlicense.force=true -Dexec.skip=true -Dweb.check.skip=true >"$work/log" 2>&1 || { tail -20 "$work/log" >&2; exit 1; }
(cd web && npm query ':not(.dev)' 2>/dev/null) >"$work/web.json"
{
  echo "Knollfield"
  echo
  echo "Shipped with it, each under its own licence. Written by docs/notice.sh from the dependencies; do not edit."
  echo
  echo "Java libraries"
  echo
  # a licence or several, the library, its coordinates; addresses are left out
  sed -nE 's/^ +(\(.*\)) (.*) \(([^ ]+:[^ ]+:[^ ]+) - .*\)$/\3 \1/p' "$work/java.txt" | LC_ALL=C sort -u
  echo
  echo "In the browser: scripts and typefaces"
  echo
  node -e '
    const all = JSON.parse(require("fs").readFileSync(process.argv[1], "utf8"));
    const lines = all.filter((p) => p.name && p.location.startsWith("node_modules/"))
      .map((p) => `${p.name}:${p.version} (${typeof p.license === "string" ? p.license : p.license?.type ?? "see its files"})`);
    console.log([...new Set(lines)].sort().join("\n"));
  ' "$work/web.json"
} >NOTICE
wc -l NOTICE
