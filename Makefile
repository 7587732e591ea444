# Two commands do all set-up: `make demo` and `make test`.

CHROMIUM ?= /usr/lib/chromium/chromium-headless-shell
UI := internal/webui/dist/index.html
WEB := $(shell find web/src web/public web/index.html web/vite.config.ts web/coasts.ts web/package.json -type f 2>/dev/null)
GO := go
PACKAGES := ./cmd/... ./core/... ./internal/... ./e2e/...
export CGO_ENABLED := 0

.PHONY: demo build test test-go test-web race soak lint lint-go lint-web dev bench bench-ui proof recovery screenshots rules generate chromium fuzz clean

## demo: build everything and start with the demonstration data (DATA=DIR keeps it)
demo: build
	./bin/mnemos demo $(if $(DATA),--data $(DATA)) $(if $(ADDRESS),--address $(ADDRESS))

## build: the binary, with the interface inside
build: $(UI)
	$(GO) build -o bin/mnemos ./cmd/mnemos

web/node_modules/.package-lock.json: web/package-lock.json
	cd web && npm ci --no-audit --no-fund
	@touch $@

$(UI): web/node_modules/.package-lock.json $(WEB)
	cd web && npm run build
	@touch internal/webui/dist/.keep

## test: everything that CI checks: what needs one core beside what needs one, and the tests with the browser last
test: $(UI) chromium
	$(MAKE) -j2 --output-sync=target lint-go lint-web test-web race
	$(MAKE) test-go

test-go: $(UI) chromium
	MNEMOS_CHROMIUM=$(CHROMIUM) $(GO) test -timeout 30m -parallel 3 $(PACKAGES)

test-web: $(UI)
	cd web && npm test

## race: the race detector over what many use at once (it needs a C compiler)
race: $(UI)
	@command -v gcc >/dev/null || { apt-get update -qq && apt-get install -y -qq --no-install-recommends gcc libc6-dev; }
	CGO_ENABLED=1 $(GO) test -race -count 1 ./internal/job ./internal/live ./internal/root
	CGO_ENABLED=1 $(GO) test -race -count 1 -run 'Import' ./internal/importing
	CGO_ENABLED=1 $(GO) test -race -count 1 -run 'Snapshot|Confined' ./internal/catalog
	CGO_ENABLED=1 $(GO) test ./internal/plan -race -count 1 -run 'Commands|AtOnce' -rapid.checks=10

## soak: kills under ten editors (KILLS), and logs that are cut off or garbled (CUTS)
KILLS ?= 200
CUTS ?= 500
soak: $(UI)
	MNEMOS_KILLS=$(KILLS) MNEMOS_CUTS=$(CUTS) $(GO) test -count 1 -timeout 60m -v -run 'KilledUnderEditors|LogCutOff' ./internal/cli

lint: lint-go lint-web

lint-go: $(UI)
	@out="$$($(GO) tool gofumpt -l core internal cmd e2e)"; test -z "$$out" || { echo "gofumpt would change:"; echo "$$out"; exit 1; }
	$(GO) vet $(PACKAGES)
	$(GO) tool staticcheck $(PACKAGES)
	@out="$$(grep -rnE '^[[:space:]]*go (func|[a-zA-Z_.]+\()' --include='*.go' core internal cmd | grep -v _test.go | grep -v '^internal/root/')"; test -z "$$out" || { echo "a goroutine without a root (use root.Go):"; echo "$$out"; exit 1; }

lint-web: $(UI)
	cd web && npm run check && npm run lint
	@cd web && npx openapi-typescript ../internal/api/openapi.yaml -o node_modules/.schema.d.ts >/dev/null && \
		cmp -s node_modules/.schema.d.ts src/lib/api/schema.d.ts || { echo "web/src/lib/api/schema.d.ts is stale: run make generate"; exit 1; }

chromium:
	@test -x $(CHROMIUM) || { apt-get update -qq && apt-get install -y -qq --no-install-recommends chromium-headless-shell; }

## dev: the interface by Vite, with reloading, and the API behind it
dev: build
	./bin/mnemos demo & trap "kill $$!" EXIT; cd web && npm run dev

## bench: what things cost, as ratios to a named baseline in the same run
bench: $(UI) chromium
	@command -v sqlite3 >/dev/null || { apt-get update -qq && apt-get install -y -qq --no-install-recommends sqlite3; }
	$(GO) test -run '^$$' -bench . -benchtime 2s ./internal/bench
	$(GO) test -run '^$$' -bench 'Names|PlanFiles|Order|PDF|Reckon|Reach|TenMinutes|Propose|Look|Decode|Track' ./core/naming ./internal/exchange ./core/walk ./core/scan ./core/rf ./core/relay ./core/aprs ./internal/print
	MNEMOS_CHROMIUM=$(CHROMIUM) MNEMOS_BENCH=1 $(GO) test -count 1 -v -run TestMapCost ./e2e

## bench-ui: what Plan costs with 1,000 channels, and events to 20 clients
bench-ui: $(UI) chromium
	MNEMOS_CHROMIUM=$(CHROMIUM) MNEMOS_BENCH=1 $(GO) test -count 1 -v -run 'TestUICost|TestScriptSize' ./e2e
	$(GO) test -run '^$$' -bench Events -benchtime 1x ./internal/bench

## recovery: how often a slip on the entry line is found and put right (docs/recovery.md; CORPUS=FILE, ARGS=...)
recovery: build
	$(GO) run ./cmd/recovery $(if $(CORPUS),--corpus $(CORPUS)) $(ARGS)

## proof: what make test samples, in large numbers (PROOF channels into every radio, TABLES tables of clubs, LINES searches, SETUPS scans)
PROOF ?= 5000
TABLES ?= 10000
LINES ?= 10000
SETUPS ?= 600
proof:
	MNEMOS_PROOF=$(PROOF) $(GO) test -count 1 -timeout 120m -v -run 'Followed|Spoiled' ./core/keypad
	@command -v pdftotext >/dev/null || { apt-get update -qq && apt-get install -y -qq --no-install-recommends poppler-utils; }
	MNEMOS_PROOF=1 $(GO) test -count 1 -timeout 30m -v -run PaperByAnother ./internal/print
	MNEMOS_STORM=30 $(GO) test -count 1 -timeout 60m -v -run Storm ./internal/api
	MNEMOS_RESTORES=500 $(GO) test -count 1 -timeout 60m -v -run Restore ./internal/store
	MNEMOS_LINES=$(LINES) $(GO) test -count 1 -timeout 30m -v -run PlainScan ./core/find
	MNEMOS_SETUPS=$(SETUPS) $(GO) test -count 1 -timeout 60m -v -run 'WithStops|Smallest' ./core/scan
	MNEMOS_WORLDS=5000 $(GO) test -count 1 -timeout 30m -v -run "Lead|Optimal" ./core/trial
	MNEMOS_WORLDS=5000 $(GO) test -count 1 -timeout 30m -v -run "Topologies|TwoRepeaters" ./core/rf
	@command -v multimon-ng >/dev/null || { apt-get update -qq && apt-get install -y -qq --no-install-recommends multimon-ng; }
	MNEMOS_DECODER=1 $(GO) test -count 1 -v -run AnotherDecoder ./core/aprs
	MNEMOS_TABLES=$(TABLES) $(GO) test -count 1 -timeout 120m -v -run Generated ./core/intake
	MNEMOS_ROUNDS=50 $(GO) test -count 1 -timeout 30m -v -run TwoProcesses ./internal/cli
	@command -v soffice >/dev/null && /usr/bin/python3 -c 'import openpyxl' 2>/dev/null || { apt-get update -qq && apt-get install -y -qq --no-install-recommends libreoffice-calc python3-openpyxl; }
	MNEMOS_SPREADSHEETS=1 $(GO) test -count 1 -timeout 30m -v -run Spreadsheets ./internal/exchange

## screenshots: the pictures in docs/screenshots
screenshots: $(UI) chromium
	MNEMOS_CHROMIUM=$(CHROMIUM) MNEMOS_SCREENSHOTS=$(CURDIR)/docs/screenshots $(GO) test -count 1 -run TestScreenshots ./e2e

## rules: docs/rules.md from the rules, docs/limits.md from the limits, docs/entry-line.md from the grammar
rules:
	$(GO) run ./cmd/mnemos words --write docs/entry-line.md
	$(GO) run ./cmd/mnemos rules --write docs/rules.md
	$(GO) run ./cmd/mnemos limits --write docs/limits.md

## generate: the server and the types of the interface from the contract
generate:
	$(GO) generate ./internal/api
	cd web && npm run types

## fuzz: every parser for a while (FUZZTIME=1m)
FUZZTIME ?= 1m
fuzz:
	@for p in core/freq core/tone core/geo core/entry core/listing core/radio core/handset core/intake core/table core/document core/template core/scan core/adif core/ax25 core/aprs internal/exchange; do for f in $$($(GO) test -list '^Fuzz' ./$$p | grep '^Fuzz'); do \
		echo "$$p $$f"; $(GO) test -run '^$$' -fuzz "^$$f$$" -fuzztime $(FUZZTIME) -fuzzminimizetime 20x ./$$p || exit 1; done; done

clean:
	rm -rf bin web/node_modules internal/webui/dist/*
