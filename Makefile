# `make demo` serves the app with its demo data, `make test` runs every test, `make quick` what a change needs at once.
# Stamps under build/ and .venv/ keep what has not changed from being done again.

SHELL := /bin/bash
PYTHON ?= python3
PORT ?= 8750
WORKERS ?= $(shell n=$$(nproc); echo $$((n < 4 ? n : 4))) # tests side by side
DATA ?= var/demo
MINUTES ?= 30
BIN := .venv/bin
PYTHON_FILES := src tests bench scripts
STATIC := src/sewn_garland/server/static/index.html
FRONT := $(shell find frontend/src frontend/public -type f) frontend/index.html frontend/vite.config.ts frontend/tsconfig.json

# for what loads numpy before the package does
export OPENBLAS_NUM_THREADS := 1

.PHONY: demo test quick soon install fuzz bench lint style types docs screenshots clean

demo: install
	$(BIN)/sewn-garland serve --demo --data $(DATA) --port $(PORT)

# lint goes on beside the tests with what time they leave, which is as much as it takes
test: install .venv/.dev build/.headless
	@nice -n 10 $(MAKE) --no-print-directory -j2 --output-sync=target lint > build/lint.log 2>&1 & lint=$$!; \
	(cd frontend && npx vitest run) && $(BIN)/python -m pytest -n $(WORKERS) --dist worksteal; tests=$$?; \
	wait $$lint || { cat build/lint.log; exit 1; }; exit $$tests

quick: install .venv/.dev
	$(MAKE) --no-print-directory -j2 --output-sync=target soon style types

soon: .venv/.dev
	FEWER_EXAMPLES=5 $(BIN)/python -m pytest -n $(WORKERS) --ignore tests/browser -m "not thorough"

install: .venv/.app .venv/.compiled $(STATIC)

# random settings on nasty lines for as many MINUTES, from another seed each time, which is printed
fuzz: install .venv/.dev
	PYTHONPATH=tests $(BIN)/python tests/fuzzing.py $(MINUTES)

bench: install .venv/.dev build/.chromium
	$(BIN)/python bench/run.py

lint: build/.types style

style: .venv/.dev frontend/node_modules/.stamp
	$(BIN)/ruff check $(PYTHON_FILES) && $(BIN)/ruff format --check --quiet $(PYTHON_FILES)
	cd frontend && npm run -s lint && npm run -s types

# of what has changed since all was last found in order, which takes a tenth of the time; `make lint` looks at every file
types: .venv/.app frontend/node_modules/.stamp
	@changed=$$(find src -name '*.py' -newer build/.types 2>/dev/null || find src -name '*.py'); \
	test -z "$$changed" || frontend/node_modules/.bin/pyright $$changed

build/.types: .venv/.app frontend/node_modules/.stamp pyrightconfig.json $(shell find src -name '*.py')
	cd frontend && npm run -s types:python
	mkdir -p build && touch $@

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

# what is compiled when first called, for nobody to wait for it then
.venv/.compiled: .venv/.app $(shell grep -lr --include='*.py' '^@compiled' src)
	$(BIN)/python -m sewn_garland.workshop.compiling
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

build/.headless:
	test -x "$${CHROMIUM:-/usr/bin/chromium-headless-shell}" || scripts/system-packages chromium-headless-shell || $(MAKE) build/.chromium
	mkdir -p build && touch $@

clean:
	rm -rf .venv build var frontend/node_modules src/sewn_garland/server/static
