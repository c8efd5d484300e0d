.DEFAULT_GOAL := help
PY := .venv/bin/python
NODE := scripts/node.sh

help: ## what each command does
	@awk -F ':.*## ' '/^[a-z-]+:.*## / {printf "  make %-12s %s\n", $$1, $$2}' $(MAKEFILE_LIST)

setup-demo:
	@scripts/setup.sh demo

setup-test:
	@scripts/setup.sh test

setup-shots:
	@scripts/setup.sh shots

demo: setup-demo ## start everything with the demo data (Ctrl C stops it)
	@$(PY) -m scripts.demo

demo-reset: setup-demo ## the same, with the demo data loaded anew
	@$(PY) -m scripts.demo --reset

check: setup-test ## the quick part of the tests: style, types, layers, core, browser code
	@$(MAKE) --no-print-directory -j2 -k --output-sync=target quick

# Each by itself, so that two run at a time; those that take longest stand first.
QUICK := quick-types quick-core quick-components quick-lint quick-vue-types quick-style quick-stale quick-rest
quick: $(QUICK)

quick-types:
	@$(PY) -m scripts.with_settings mypy
quick-core:
	@DATABASE_URL=postgres://nobody@127.0.0.1/none $(PY) -m pytest tests/core
quick-components:
	@$(NODE) npm run --silent test
	@$(PY) -m scripts.budgets
quick-lint:
	@$(NODE) npm run --silent lint
quick-vue-types:
	@$(NODE) npm run --silent types
	@$(NODE) npm run --silent imports
	@$(NODE) npm run --silent used
quick-style:
	@$(PY) -m ruff check . && $(PY) -m ruff format --check .
	@.venv/bin/lint-imports --no-cache >/dev/null || .venv/bin/lint-imports --no-cache
	@$(PY) -m scripts.unused
quick-stale:
	@scripts/generate.sh --check
quick-rest:
	@$(PY) -m deptry . --config requirements/deptry.toml >/dev/null 2>&1 || $(PY) -m deptry . --config requirements/deptry.toml
	@$(PY) -m scripts.words --check

test: setup-test ## everything: the quick part, server, running stacks and browser tests
	@$(PY) -m scripts.everything

test-of: setup-test ## what one change needs: make test-of PATHS="tests/core/test_hours.py"
	@$(PY) -m scripts.test_of $(PATHS)

recorded: setup-test ## write down anew what the API answers, for the component tests
	@$(PY) -m tests.recording

bench: setup-test ## speed, as ratios measured in one run
	@$(PY) -m tests.bench.run

restore-check: setup-demo ## save the demo business and bring it back elsewhere; everything is the same
	@$(PY) -m scripts.restore_check

fuzz: setup-test ## odd requests at every address, over the wire, ten rounds
	@$(PY) -m tests.running.fuzz 10

hosts: setup-test ## the visitor's script on published templates and frameworks, which are fetched for it
	@$(NODE) npm ci --silent --ignore-scripts --prefix tests/browser/hosts
	@$(PY) -m tests.browser.hosts

hooks: setup-test ## check style, layers and words before each commit
	@git config core.hooksPath scripts/hooks

fmt: setup-test ## put all code into shape
	@$(PY) -m ruff check --fix --quiet . ; $(PY) -m ruff format --quiet .
	@$(NODE) npx --no-install prettier --write --log-level warn console visitor-script tests/vectors

generate: setup-test ## make schemas and types anew from the code
	@scripts/generate.sh

shots: setup-shots ## take the pictures in docs/screenshots from the demo data
	@$(PY) -m scripts.shots

.PHONY: help setup-demo setup-test setup-shots demo demo-reset check quick $(QUICK) test test-of recorded bench restore-check fuzz hosts fmt generate shots hooks
