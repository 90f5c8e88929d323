# Two commands set everything up on a fresh machine: make demo, make test.
export CGO_ENABLED := 0
# HEIC is unpacked by the decoder that ships with the program, not by one that happens to be installed.
# The same flags for all, so that nothing is compiled twice.
export GOFLAGS := -tags=nodynamic -trimpath
NPM := npm --prefix web
WEB_SOURCES := $(shell find web/src web/public web/index.html web/vite.config.ts web/vite.worker.config.ts web/tsconfig.json -type f)
BENCHED := $(sort $(dir $(shell grep -rl --include=*_test.go '^func Benchmark' ./cmd ./core ./e2e ./internal)))

.PHONY: demo test core soak build audit page types bench shots dev lint vet docs browser fuzz clean

## demo: build and start the demo studio on http://127.0.0.1:8733
demo: build
	bin/rutile serve --demo

## build: the one static binary, bin/rutile
build: page
	go build -ldflags "-s -w" -o bin/rutile ./cmd/rutile

page: web/dist/index.html

web/node_modules/.installed: web/package.json web/package-lock.json
	$(NPM) ci --no-audit --no-fund
	touch $@

web/dist/index.html: web/node_modules/.installed $(WEB_SOURCES) go.mod internal/licences/main.go
	$(NPM) run build
	go run ./internal/licences > web/dist/licences.txt.new
	mv web/dist/licences.txt.new web/dist/licences.txt
	touch web/dist/.keep $@

# The page is fetched and built while Go compiles, and tests what needs no page. Lint has vetted everything. The browser waits
# now and then: a third test uses that time. The tests in the browser take longest and start first; all others run beside them.
## test: what tests need, then build, vet, lint and test everything; benchmarks run once, so that none rots
test: browser
	$(MAKE) -j2 page core
	$(MAKE) build lint
	$(SHORT) ./e2e ./...
	$(ONCE) -vet=off -short $(filter-out $(WHOLE),$(BENCHED))

core: vet
	$(SHORT) ./core/...

SHORT := go test -vet=off -parallel 3 -short
# The benchmarks that start programs and browsers take long: they run in the soak.
WHOLE := ./cmd/rutile/ ./e2e/
ONCE := go test -run '^$$' -bench . -benchtime 1x

## soak: every test over all its random cases, and a long look for trouble in what comes from outside
soak: browser build fuzz
	go test -count 1 -timeout 60m ./...
	$(ONCE) -timeout 60m $(WHOLE)

## lint: formatting, vet, staticcheck, the page's lint, and what is generated
lint: web/node_modules/.installed vet
	go tool staticcheck ./...
	$(NPM) run lint
	$(NPM) run --silent types -- --check

## vet: formatting and go vet
vet:
	test -z "$$(gofmt -l cmd core e2e internal web/*.go)"
	go vet ./...

## browser: Chromium from Debian's packages, where it is missing: the shell without windows starts three times as fast; and
## what makes it trust a studio's certificate authority
INSTALL := DEBIAN_FRONTEND=noninteractive apt-get install -y -q --no-install-recommends
browser:
	@command -v chromium-headless-shell >/dev/null || command -v chromium >/dev/null || \
		{ apt-get update -q && { $(INSTALL) chromium-headless-shell || $(INSTALL) chromium; }; }
	@command -v certutil >/dev/null || $(INSTALL) libnss3-tools || { apt-get update -q && $(INSTALL) libnss3-tools; }

## types: the API's description and the page's types from it
types: web/node_modules/.installed
	go run ./cmd/rutile openapi > web/openapi.json
	$(NPM) run types

## docs: the published schema, the tables of fields and the rule book, from the tables and the entries
docs:
	go run ./cmd/rutile docs docs

## bench: the figures of speed
bench:
	go test -run '^$$' -bench . -benchmem $(BENCHED)

## shots: one picture of each main view, into docs/screenshots
shots: browser page
	go test ./e2e -count 1 -run TestShots -shots $(CURDIR)/docs/screenshots

## fuzz: half a minute of each fuzz target
fuzz:
	for p in $(sort $(dir $(shell grep -rl --include=*_test.go '^func Fuzz' ./cmd ./core ./internal))); do \
		for f in $$(grep -h -o '^func Fuzz[A-Za-z]*' $$p*_test.go | sed 's/^func //'); do \
			echo "$$p $$f"; \
			go test $$p -run '^$$' -fuzz "^$$f\$$" -fuzztime 30s -fuzzminimizetime 10x || exit 1; \
		done; \
	done

## audit: known vulnerabilities of what ships; where the data on them cannot be reached, it says so
audit: web/node_modules/.installed
	@go run golang.org/x/vuln/cmd/govulncheck@latest ./... ; \
		case $$? in 0) ;; 3) exit 1 ;; *) echo "audit: the Go modules were NOT checked: the vulnerability data cannot be reached" ;; esac
	@out=$$($(NPM) audit --omit=dev 2>&1) || { echo "$$out"; \
		echo "$$out" | grep -q 'vulnerabilit' && exit 1 || echo "audit: the page's packages were NOT checked: the vulnerability data cannot be reached"; }

## dev: the page with live reload, beside a demo server
dev: build
	bin/rutile serve --demo & trap "kill $$!" EXIT; $(NPM) run dev

clean:
	rm -rf bin web/node_modules web/dist/assets web/dist/index.html web/dist/licences.txt
