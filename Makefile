# Stair Path. `make help` lists what can be done.
PY := .venv/bin/python
# Where a machine forbids Python to keep what it compiled, every process would compile all libraries again (16 s, not 3).
unexport PYTHONDONTWRITEBYTECODE
WEB_SOURCES := $(shell find web/src -type f 2>/dev/null) web/index.html web/vite.config.ts web/package.json

.PHONY: help demo dev setup check soak roam test lint lint-py lint-web types types-py types-web imports core api e2e trial web-test bench screenshots lock schema bcf-classes licences licences-same clean

help: ## this list
	@grep -E '^[a-z-]+:.*## ' Makefile | sed -E 's/:.*## /\t/' | expand -t 14

demo: setup web/dist/index.html ## start everything with the demo building and print the address
	@$(PY) -m stairpath.start.demo

dev: setup web/dist/index.html ## the same, reloading server, worker and page on change
	@$(PY) -m stairpath.start.demo --reload

setup: .venv/.ready web/node_modules/.ready ## install what is missing

.venv/.ready: requirements-dev.lock pyproject.toml scripts/system.sh
	@bash scripts/system.sh
	@python3 -m venv .venv
	@$(PY) -m pip install -q --disable-pip-version-check --no-compile --require-hashes -r requirements-dev.lock
	@$(PY) -m pip install -q --disable-pip-version-check --no-deps --no-build-isolation -e .
	@touch $@

web/node_modules/.ready: web/package.json web/package-lock.json
	@cd web && npm ci --no-audit --no-fund --loglevel=error
	@touch $@

web/dist/index.html: web/node_modules/.ready $(WEB_SOURCES)
	@cd web && npm run --silent build -- --logLevel warn
	@! grep -l "window\.stairpath" web/dist/assets/*.js  # what tests reach is not shipped

# The same page, with what tests and benches reach from outside.
web/dist-test/index.html: web/node_modules/.ready $(WEB_SOURCES)
	@cd web && npm run --silent build -- --logLevel warn --mode test --outDir dist-test

LOCKED := .venv/bin/uv pip compile -q --generate-hashes --no-header --no-annotate --no-emit-index-url --strip-extras
lock: setup ## write both lock files anew from what pyproject.toml declares; UPGRADE=--upgrade for newer versions
	@$(LOCKED) $(UPGRADE) --extra dev -o requirements-dev.lock pyproject.toml
	@$(LOCKED) -c requirements-dev.lock -o requirements.lock pyproject.toml

licences: setup ## write the lists of what is shipped with its licences; stops at one that may not be
	@$(PY) scripts/licences.py

schema: setup ## write the browser's types and constants anew from the server and the core
	@$(PY) scripts/schema.py > web/openapi.json
	@cd web && npx openapi-typescript openapi.json -o src/api/schema.d.ts && rm openapi.json
	@$(PY) scripts/constants.py > web/src/api/constants.ts
	@$(PY) scripts/constants.py style > web/src/style/tone.ts
	@cd web && npx biome format --write --log-level=error src/api/constants.ts src/style/tone.ts

BCF := stairpath/core/exchange/bcf
bcf-classes: setup ## write the classes of topic files anew from the standard's schemas
	@for v in v2_1 v3_0; do PATH=$$PWD/.venv/bin:$$PATH xsdata generate $(BCF)/schemas/$$v --package stairpath.core.exchange.bcf.$$v --structure-style filenames --docstring-style Google --unnest-classes; done

lint: lint-py lint-web

lint-py: .venv/.ready
	@.venv/bin/ruff check stairpath tests bench scripts
	@.venv/bin/ruff format --check -q stairpath tests bench scripts

lint-web: web/node_modules/.ready
	@cd web && npm run --silent lint
	@! grep -rn "as unknown as" web/src web/bench  # nothing fakes a type

types: types-py types-web

types-py: setup
	@.venv/bin/mypy
	@$(PY) scripts/schema.py > web/openapi.json
	@cd web && npx openapi-typescript openapi.json -o schema.now.d.ts > /dev/null && rm openapi.json
	@cd web && cmp schema.now.d.ts src/api/schema.d.ts && rm schema.now.d.ts
	@$(PY) scripts/constants.py > web/src/api/constants.now.ts
	@$(PY) scripts/constants.py style > web/src/style/tone.now.ts
	@cd web && npx biome format --write --log-level=error src/api/constants.now.ts src/style/tone.now.ts
	@cd web && cmp src/api/constants.now.ts src/api/constants.ts && rm src/api/constants.now.ts
	@cd web && cmp src/style/tone.now.ts src/style/tone.ts && rm src/style/tone.now.ts

types-web: web/node_modules/.ready
	@cd web && npm run --silent types

licences-same: setup
	@$(PY) scripts/licences.py --check

imports: .venv/.ready
	@.venv/bin/lint-imports

core: setup
	@.venv/bin/pytest -n 2 --dist loadgroup --doctest-modules stairpath/core stairpath/work tests/core

api: setup
	@.venv/bin/pytest -n 2 tests/api

web-test: web/node_modules/.ready
	@cd web && npm test --silent

e2e: setup web/dist-test/index.html
	@.venv/bin/pytest -n 2 --dist worksteal --durations 25 tests/e2e

trial: setup web/dist-test/index.html ## walk the whole demo by the keys, from the entrance to the roof plant and back
	@.venv/bin/pytest -m trial tests/core tests/e2e

soak: setup ## kills, damaged files, many pages and people, made-up requests; about half an hour
	@SOAK=long .venv/bin/pytest -s tests/soak tests/api/test_anything.py tests/api/test_anything_signed_in.py

roam: setup web/dist-test/index.html ## strangers who do anything by chance, for ten minutes (ROAM_MINUTES), each from another seed
	@ROAM=long .venv/bin/pytest -s tests/e2e/test_roam.py

check: lint types imports licences-same core ## lint, types, imports and core tests, under a minute

test: ## everything, in one command
	@$(MAKE) -j2 setup lint-web types-web web-test web/dist/index.html web/dist-test/index.html lint-py imports licences-same types-py
	@.venv/bin/pytest -n 2 --dist loadgroup --durations 25 --doctest-modules stairpath/core stairpath/work tests/core tests/api tests/soak/test_mutations.py
	@$(MAKE) e2e

bench: setup web/dist-test/index.html ## measure speed against named references (BENCH=stage for a part), and write docs/performance.md
	@$(PY) -m bench $(BENCH)

screenshots: setup web/dist-test/index.html ## take the pictures in docs/screenshots anew
	@PYTHONPATH=. $(PY) scripts/screenshots.py

clean: ## stop nothing, delete what can be made again
	@rm -rf web/dist web/dist-test .mypy_cache .ruff_cache .pytest_cache
