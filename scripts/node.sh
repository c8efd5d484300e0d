#!/usr/bin/env bash
# Runs a command with the Node that setup.sh found or installed.
cd "$(dirname "$0")/.."
[ -x .run/node/bin/node ] && export PATH="$PWD/.run/node/bin:$PATH"
exec "$@"
