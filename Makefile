# Two commands: `make demo` serves the app with its demo data, `make test` runs every test.
# Stamps under build/ and .venv/ keep what has not changed from being done again.

SHELL := /bin/bash
PYTHON ?= python3
PORT ?= 8750
DATA ?= var/demo
BIN := .venv/bin
STATIC := src/sewn_garland/server/static/index.html
FRONT := $(shell find frontend/src frontend/public -type f) frontend/index.html frontend/vite.config.ts frontend/tsconfig.json

.PHONY: demo test install bench lint docs screenshots clean

demo: install
	$(BIN)/sewn-garland serve --demo --data $(DATA) --port $(PORT)

test: install .venv/.dev build/.chromium
	cd frontend && npm run -s lint && npx vitest run
	$(BIN)/ruff check src tests bench scripts
	$(BIN)/python -m pytest

install: .venv/.app $(STATIC)

bench: install .venv/.dev build/.chromium
	$(BIN)/python bench/run.py

lint: .venv/.dev
	$(BIN)/ruff check src tests bench scripts
	cd frontend && npm run -s lint

docs: .venv/.app frontend/node_modules/.stamp
	$(BIN)/python scripts/publish.py
	cd frontend && npm run -s api

screenshots: install .venv/.dev build/.chromium
	$(BIN)/python scripts/screenshots.py

.venv/.made:
	$(PYTHON) -m venv .venv || { rm -rf .venv; scripts/system-packages python3-venv && $(PYTHON) -m venv .venv; }
	touch $@

.venv/.app: .venv/.made requirements/build.txt requirements/app.txt pyproject.toml
	$(BIN)/pip install --quiet --disable-pip-version-check --require-hashes -r requirements/build.txt -r requirements/app.txt
	$(BIN)/pip install --quiet --disable-pip-version-check --no-deps --no-build-isolation --editable .
	touch $@

.venv/.dev: .venv/.app requirements/dev.txt
	$(BIN)/pip install --quiet --disable-pip-version-check --require-hashes -r requirements/dev.txt
	touch $@

frontend/node_modules/.stamp: frontend/package-lock.json
	cd frontend && npm ci --no-fund --no-audit --loglevel=error
	touch $@

$(STATIC): frontend/node_modules/.stamp $(FRONT)
	cd frontend && npm run -s build
	touch $@

build/.chromium:
	test -x "$${CHROMIUM:-/usr/bin/chromium}" || scripts/system-packages chromium
	mkdir -p build && touch $@

clean:
	rm -rf .venv build var frontend/node_modules src/sewn_garland/server/static
