.DEFAULT_GOAL := help
PY := .venv/bin/python

help: ## what each command does
	@awk -F ':.*## ' '/^[a-z-]+:.*## / {printf "  make %-12s %s\n", $$1, $$2}' $(MAKEFILE_LIST)

setup-demo: 
	@scripts/setup.sh demo

setup-test:
	@scripts/setup.sh test

demo: setup-demo ## start everything with the demo data (Ctrl C stops it)
	@$(PY) -m scripts.demo

demo-reset: setup-demo ## the same, with the demo data loaded anew
	@$(PY) -m scripts.demo --reset

.PHONY: help setup-demo setup-test demo demo-reset
