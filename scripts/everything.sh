#!/usr/bin/env bash
# Everything: the visits in real browsers, which need no server, beside the quick checks; then the server tests, two at a
# time; then, with the machine to themselves, those that kill and flood a whole stack, and the rest of the browser tests.
# At the end it says how long each took, and which tests were the slowest.
set -uo pipefail
cd "$(dirname "$0")/.."
said=$(mktemp) slow=$(mktemp) took=()
DATABASE_URL=postgres://nobody@127.0.0.1/none .venv/bin/python -m pytest -n 2 tests/browser/test_vectors.py >"$said" 2>&1 &
visits=$!
summary() {
  echo "How long it took, in seconds: ${took[*]:-} all $SECONDS"
  echo "The five slowest tests:"
  sort -rn "$slow" | head -5
}
trap 'kill "$visits" 2>/dev/null; summary; rm -f "$said" "$slow"' EXIT
# A part of it by its name; what pytest says of its slowest is kept.
part() {
  local name=$1 begun=$SECONDS; shift
  "$@" --durations=5 --durations-min=5 2>&1 | tee >(grep -E '^[0-9.]+s (call|setup)' >>"$slow")
  local ended=${PIPESTATUS[0]}
  took+=("$name $((SECONDS - begun)),")
  return "$ended"
}
begun=$SECONDS
make --no-print-directory quick || exit 1
took+=("quick $((SECONDS - begun)),")
wait "$visits" && failed=0 || failed=1
took+=("visits beside it $((SECONDS - begun)),")
cat "$said"
[ "$failed" = 0 ] || exit 1
alone=(tests/server/test_nothing_is_lost.py tests/server/test_no_5xx.py)
part server .venv/bin/python -m pytest -n 2 --create-db tests/server "${alone[@]/#/--ignore=}" || exit 1
part "kill and flood" .venv/bin/python -m pytest --create-db "${alone[@]}" || exit 1
part browser .venv/bin/python -m pytest tests/browser --ignore tests/browser/test_vectors.py || exit 1
