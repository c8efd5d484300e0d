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

check: setup-test quick ## the quick part of the tests: style, types, layers, core, browser code

quick:
	@$(PY) -m ruff check . && $(PY) -m ruff format --check .
	@$(PY) -m scripts.with_settings mypy
	@.venv/bin/lint-imports --no-cache >/dev/null || .venv/bin/lint-imports --no-cache
	@$(PY) -m deptry . --config requirements/deptry.toml >/dev/null 2>&1 || $(PY) -m deptry . --config requirements/deptry.toml
	@scripts/generate.sh --check
	@$(PY) -m scripts.words --check
	@$(NODE) npm run --silent lint
	@$(NODE) npm run --silent types
	@$(NODE) npm run --silent imports
	@$(NODE) npm run --silent used
	@$(NODE) npm run --silent test
	@$(PY) -m scripts.budgets
	@$(PY) -m pytest tests/core

test: setup-test ## everything: the quick part, server and browser tests
	@scripts/everything.sh

bench: setup-test ## speed, as ratios measured in one run
	@$(PY) -m tests.bench.run

restore-check: setup-demo ## save the demo business and bring it back elsewhere; everything is the same
	@$(PY) -m scripts.restore_check

fuzz: setup-test ## odd requests at every address, over the wire, ten rounds
	@$(PY) -m tests.fuzz 10

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

.PHONY: help setup-demo setup-test setup-shots demo demo-reset check quick test bench restore-check fuzz hosts fmt generate shots hooks
