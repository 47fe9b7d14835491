# Two commands do everything on a fresh machine: `make demo` and `make test`.
SHELL := /bin/bash
PY := .venv/bin/python
PYTHON ?= python3.11
DEMO_DB := var/demo.sqlite3
KITCHEN_DB := var/kitchen.sqlite3
WEB_SOURCES := $(shell find web/src web/public -type f 2>/dev/null) web/index.html web/vite.config.ts web/package.json
# Node from the environment where a new enough one had to be put there (tools/need).
export PATH := $(CURDIR)/.venv/bin:$(PATH)

.PHONY: demo run test lint lint-python lint-web types bench stand-ins pots followed evenings cuts crowd lost fuzz kitchens trial trials export-kitchen import-kitchen backup restore mutants screenshots setup fmt lock hooks release clean

demo: setup var/.static ## set up, build, load the demo kitchen, serve it
	@KESTREL_DB=$(DEMO_DB) $(PY) manage.py migrate --verbosity 0
	@KESTREL_DB=$(DEMO_DB) $(PY) manage.py load_demo
	@echo "Sign in as “refectory” with the password “fog-over-the-ridge”."
	@KESTREL_DB=$(DEMO_DB) exec $(PY) -m kestrel.serve

run: setup var/.static ## an empty kitchen for real use; the first visit makes the account
	@KESTREL_DB=$(KITCHEN_DB) $(PY) manage.py migrate --verbosity 0
	@KESTREL_DB=$(KITCHEN_DB) exec $(PY) -m kestrel.serve

test: setup web/dist/.built ## core, API, interface and browser tests
	@tools/need browser
	@$(PY) -m tools.run_tests $(SUITE)

lint: setup ## style, types, import contracts, stale generated files
	@$(MAKE) --no-print-directory -j2 -O lint-python lint-web

lint-python: setup
	.venv/bin/ruff check .
	.venv/bin/ruff format --check .
	.venv/bin/mypy
	.venv/bin/lint-imports
	$(PY) manage.py makemigrations --check --dry-run
	$(PY) -m tools.generate --check

lint-web: setup
	cd web && npm run --silent lint
	cd web && npm run --silent typecheck

types: setup ## regenerate the JSON Schema and the API types
	$(PY) -m tools.generate

bench: setup var/.static ## the figures to hold, measured
	@tools/need browser
	@tools/need spreadsheet
	@$(PY) -m tools.bench

stand-ins: setup ## simulated pots with a scale and a probe, beside a kitchen that runs
	@$(PY) -m standins --app http://127.0.0.1:$(or $(KESTREL_PORT),8000)

pots: setup ## simulated reductions, followed with readings, with looks, with nothing, and disturbed: MANY=200
	@$(PY) -m tools.pots $(or $(MANY),200)
	@$(PY) -m tools.pots $(or $(MANY),200) disturbed

followed: setup ## simulated sheets with amounts by eye: whether the weight that is believed covers the true one: MANY=300
	@$(PY) -m tools.followed $(or $(MANY),300)

evenings: setup ## evenings of a simulated kitchen, judged by who knows the truth: N=20 SEED=1
	@$(PY) -m tools.evenings $(or $(N),20) $(or $(SEED),1)

cuts: setup var/.static ## three pots, twenty kills, twenty cuts: what is lost, what is doubled
	@tools/need browser
	@$(PY) -m tools.cuts $(or $(TIMES),20)

lost: setup var/.static ## sauces made while the server is killed and answers are cut: what is lost, what is doubled
	@$(PY) -m tools.lost $(or $(TIMES),20)

fuzz: setup ## requests made up from the API's description, and bodies with one thing wrong: EXAMPLES=100
	@FUZZ_EXAMPLES=$(or $(EXAMPLES),100) FUZZ_MUTATIONS=$(or $(MUTATIONS),10000) FUZZ_SEED=$${RANDOM} \
	  $(PY) manage.py test kestrel.tests.test_fuzz --settings kestrel.test_settings

crowd: setup var/.static ## strangers at the door, and twenty cooks for a minute
	@$(PY) -m tools.crowd

kitchens: setup ## simulated kitchens: whether what is learned covers what is true, and the grades hit: MANY=200
	@$(PY) -m tools.kitchens $(or $(MANY),200)

export-kitchen: setup ## the whole kitchen of COOK=… (a user name) into FILE=…
	@KESTREL_DB=$(KITCHEN_DB) $(PY) manage.py export_kitchen "$(FILE)" --username "$(COOK)"

import-kitchen: setup ## FILE=… into a new kitchen with the sign-in COOK=…
	@KESTREL_DB=$(KITCHEN_DB) $(PY) manage.py migrate --verbosity 0
	@KESTREL_DB=$(KITCHEN_DB) $(PY) manage.py import_kitchen "$(FILE)" --username "$(COOK)"

backup: setup ## a copy of the kitchen's file while it is in use; DAILY=1 keeps one a day, for a week
	@KESTREL_DB=$(KITCHEN_DB) $(PY) manage.py backup $(if $(DAILY),--daily)

restore: setup ## the copy FILE=… into an empty place (KITCHEN_DB=… for another one)
	@KESTREL_DB=$(KITCHEN_DB) $(PY) manage.py restore "$(FILE)"
	@KESTREL_DB=$(KITCHEN_DB) $(PY) manage.py migrate --verbosity 0

trial: setup ## the planner on random services, looked over and set beside a cook's rule: SERVICES=300
	@$(PY) -m tools.trial $(or $(SERVICES),40)

trials: setup web/dist/.built ## the trials of the tests whole; the tests take a sample of each
	@tools/need browser
	@KESTREL_TRIALS=full $(PY) -m unittest saucier.service.tests.test_guests saucier.service.tests.test_any_service \
	  saucier.rescue.tests.test_random_pots saucier.tests.test_random_sheets saucier.sure.tests.test_sure \
	  saucier.keeping.tests.test_facts saucier.keeping.tests.test_forecast saucier.service.tests.test_identity \
	  saucier.tests.test_as_it_is saucier.tests.test_remarks_right saucier.rescue.tests.test_in_grade saucier.watch.tests.test_watch \
	  saucier.timing.tests.test_planner saucier.run_up.tests.test_planned saucier.exchange.tests.test_recipes \
	  saucier.exchange.tests.test_made_up saucier.rescue.tests.test_remedies saucier.watch.tests.test_ahead \
	  saucier.tests.test_swaps_and_what_if saucier.tests.test_schools saucier.watch.tests.test_begun
	@KESTREL_TRIALS=full $(PY) manage.py test browser_tests.test_whole_sauce --settings kestrel.test_settings

screenshots: setup var/.static ## docs/screenshots from the demo kitchen
	@tools/need browser
	@$(PY) -m tools.screenshots

mutants: setup ## slips in one room of the core that no test notices: ROOM=heat SAMPLE=60
	@$(PY) -m tools.mutants $(or $(ROOM),pot) --sample $(or $(SAMPLE),0)

fmt: setup ## put style right
	.venv/bin/ruff check --fix .
	.venv/bin/ruff format .
	cd web && npm run --silent format

hooks: setup ## have git run the fast checks before each commit
	@.venv/bin/pre-commit install

release: setup ## check, date the changes, commit and tag: VERSION=0.2.0
	@$(PY) -m tools.release "$(VERSION)"

lock: ## pin what requirements.in names
	.venv/bin/pip-compile -q --strip-extras --no-emit-index-url --no-emit-find-links --no-emit-trusted-host --no-header -o requirements.txt requirements.in

setup: .venv/.installed web/node_modules/.installed
	@mkdir -p var

.venv/.made:
	@command -v $(PYTHON) >/dev/null || { echo "Python 3.11 is missing. On Debian: sudo apt-get install python3.11 python3.11-venv"; exit 1; }
	@test -x $(PY) || $(PYTHON) -m venv .venv
	@touch $@

.venv/.installed: requirements.txt .venv/.made
	@echo "Installing the Python packages …"
	@.venv/bin/pip install --quiet --disable-pip-version-check -r requirements.txt 2>&1 | grep -v '^WARNING: Location' || true
	@$(PY) -c "import django, pint, pydantic"
	@touch $@

web/node_modules/.installed: web/package-lock.json .venv/.made
	@tools/need node
	@echo "Installing the interface's packages …"
	@cd web && npm ci --silent --no-audit --no-fund
	@touch $@

web/dist/.built: $(WEB_SOURCES) web/node_modules/.installed
	@echo "Building the interface …"
	@cd web && npm run --silent build -- --logLevel warn
	@touch $@

var/.static: web/dist/.built .venv/.installed
	@mkdir -p var
	@$(PY) manage.py collectstatic --noinput --clear --verbosity 0
	@touch $@

clean: ## built and installed things; never what a user entered
	rm -rf .venv web/node_modules web/dist var/static var/.static
