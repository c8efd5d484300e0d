#!/usr/bin/env bash
# Everything: the visits in real browsers, which need no server, beside the quick checks; then the server tests, two at a
# time; then, with the machine to themselves, those that kill and flood a whole stack, and the rest of the browser tests.
set -uo pipefail
cd "$(dirname "$0")/.."
said=$(mktemp)
DATABASE_URL=postgres://nobody@127.0.0.1/none .venv/bin/python -m pytest -n 2 tests/browser/test_vectors.py >"$said" 2>&1 &
visits=$!
trap 'kill "$visits" 2>/dev/null; rm -f "$said"' EXIT
make --no-print-directory quick || exit 1
wait "$visits" && failed=0 || failed=1
cat "$said"
[ "$failed" = 0 ] || exit 1
alone=(tests/server/test_nothing_is_lost.py tests/server/test_no_5xx.py)
.venv/bin/python -m pytest -n 2 --create-db tests/server "${alone[@]/#/--ignore=}" || exit 1
.venv/bin/python -m pytest --create-db "${alone[@]}" || exit 1
.venv/bin/python -m pytest tests/browser --ignore tests/browser/test_vectors.py
