# Verjuice. Everything a fresh Debian machine with Go, Node, npm and make needs
# is installed by these targets themselves.
.PHONY: demo run demo-reset check test test-go test-days test-pages torture fuzz bench bench-page bench-pit bench-book screenshots lint build types check-types need clean

BIN := bin/verjuice
WEB := $(shell find web/src web/public -type f 2>/dev/null) web/index.html web/vite.config.ts web/package-lock.json
GO  := $(shell find cmd internal web -name node_modules -prune -o \( -name '*.go' -o -name '*.csv' -o -name '*.sql' \) -print) go.mod go.sum

demo: build need        ## the program with the demo data
	@exec $(BIN) serve --demo

run: build need         ## the program with your own cooks
	@exec $(BIN) serve

demo-reset: build need  ## the demo as on the first day; your own cooks are not touched
	@exec $(BIN) serve --demo --reset

build: $(BIN)           ## the program in bin/

check: build            ## the daily loop: every check and every test that needs no browser and no database
	@$(MAKE) --no-print-directory -j2 lint check-types test-pages
	go test $$($(UNAIDED))
# The packages whose tests start neither.
UNAIDED = go list -f '{{.ImportPath}} {{.TestImports}} {{.XTestImports}}' ./... | grep -vE 'internal/(testdb|apptest)[] ]|/(localdb|e2e|cmd/verjuice) ' | cut -d' ' -f1

test: build need-tests  ## everything that must hold, with one database server for all of it
	@$(MAKE) --no-print-directory -j2 lint check-types test-pages
	go run ./internal/testdb/withdb $(MAKE) --no-print-directory test-go test-days

test-go: web/dist
	go test -timeout 20m -parallel 4 ./...

test-days: web/dist     ## the tests that know dates, on the days of internal/testclock
	go run ./internal/testclock/eachday

test-pages: web/node_modules  ## the tests of what the pages keep and send
	cd web && npm run --silent test

TIME := 10m
torture: web/dist need-tests  ## kill the program and the database while people save and strangers attack, for TIME each; prints what was acknowledged and lost
	VERJUICE_TORTURE=$(TIME) go test -count=1 -timeout 24h -v -run 'TestTheProgramOutlivesItsKills' ./cmd/verjuice
	VERJUICE_TORTURE=$(TIME) go test -count=1 -timeout 24h -v -run 'TestSavesOutliveKills' ./internal/store

fuzz: need-tests        ## every fuzz target for TIME each, or so many times: TIME=2000x (their seeds run with the tests)
	@grep -rl --include='*_test.go' '^func Fuzz' internal | while read -r f; do for t in $$(sed -n 's/^func \(Fuzz[A-Za-z]*\).*/\1/p' $$f); do go test -run '^$$' -fuzz "^$$t$$" -fuzztime $(TIME) -fuzzminimizetime 10x ./$$(dirname $$f) || exit 1; done; done

bench: web/dist         ## how fast the core is
	go test -run '^$$' -bench . -benchmem ./internal/...

bench-page: build need-tests  ## how quick the pages are on a slow phone
	go test -tags benchpage -count=1 -v -run TestBenchPage ./e2e

bench-pit: build need-tests  ## sixteen hours at the pit, 240 times as fast: what the program and a page need
	go test -tags benchpage -count=1 -timeout 30m -v -run TestBenchPit ./e2e

COOKS := 10000
bench-book: web/dist need-tests  ## a book of COOKS cooks with two thousand readings each: finding, opening, carrying away, taking in
	VERJUICE_COOKS=$(COOKS) go test -tags benchbook -count=1 -timeout 4h -v -run TestBenchBook ./internal/api

screenshots: build need-tests  ## draw docs/screenshots/ anew from the demo
	VERJUICE_SCREENSHOTS=$(CURDIR)/docs/screenshots go test -tags screenshots -count=1 -run TestScreenshots ./e2e

lint: web/dist          ## formatting and static checks of Go and TypeScript
	@go tool goimports -local verjuice -l cmd internal e2e web/*.go | { ! grep .; }  # formatted, imports in groups
	go vet -tags screenshots,benchpage,benchbook ./...
	go tool staticcheck ./...
	@go tool lll -g -l 120 -w 1 -e '"[^"]{40,}"|\x60' cmd internal e2e | { ! grep .; }  # long texts aside
	@go tool gocyclo -over 25 cmd internal e2e  # what is more says why, and //gocyclo:ignore
	cd web && npm run --silent check

types: web/node_modules ## the TypeScript types of the API, from its description
	go run ./cmd/verjuice openapi > web/openapi.json
	cd web && npm run --silent types

check-types: $(BIN) web/node_modules
	@$(BIN) openapi | diff -q - web/openapi.json >/dev/null || { echo "web/openapi.json is stale: run make types"; exit 1; }
	@cd web && npx openapi-typescript openapi.json -o node_modules/.schema.d.ts >/dev/null 2>&1 && diff -q node_modules/.schema.d.ts src/api/schema.d.ts >/dev/null || { echo "src/api/schema.d.ts is stale: run make types"; exit 1; }

need:
	@scripts/need.sh mariadb
need-tests:
	@scripts/need.sh mariadb chromium

$(BIN): $(GO) web/dist
	go build -o $@ ./cmd/verjuice

web/node_modules: web/package-lock.json
	cd web && npm ci --no-audit --no-fund --loglevel=error
	@touch $@

web/dist: $(WEB) web/node_modules go.sum scripts/licences.sh
	cd web && npm run --silent build
	@scripts/licences.sh
	@touch $@

clean:                  ## what can be built again; never your data
	rm -rf bin web/dist web/node_modules
