#!/usr/bin/env bash
# Makes what is made from the code: schemas, and the browser's types from them. With --check: says whether it is stale.
set -euo pipefail
cd "$(dirname "$0")/.."
[ -x .run/node/bin/node ] && export PATH="$PWD/.run/node/bin:$PATH"
out=$(mktemp -d); trap 'rm -rf "$out"' EXIT
PYTHONPATH=. .venv/bin/python -W ignore -m scripts.schemas "$out"
npx --no-install json2ts --no-additionalProperties --ignoreMinAndMaxItems --unreachableDefinitions --bannerComment '/* Made from intavo/visitor/wire.py by scripts/generate.sh. */' -i "$out/wire.json" -o "$out/wire.ts"
npx --no-install openapi-typescript "$out/openapi.json" -o "$out/schema.d.ts" >/dev/null
place() {
  if [ "${1:-}" = --check ]; then
    cmp -s "$out/$2" "$3" || { echo "$3 is stale: run make generate"; exit 1; }
  else
    mkdir -p "$(dirname "$3")"; cp "$out/$2" "$3"
  fi
}
place "${1:-}" touchpoint.schema.json docs/touchpoint.schema.json
place "${1:-}" openapi.json docs/openapi.json
place "${1:-}" wire.json docs/wire.schema.json
place "${1:-}" wire.ts visitor-script/src/generated/wire.ts
place "${1:-}" words.json visitor-script/src/generated/words.json
place "${1:-}" schema.d.ts console/src/api/schema.d.ts
place "${1:-}" parts.json console/src/api/parts.json
place "${1:-}" names.json console/src/api/names.json
