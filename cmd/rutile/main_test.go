package main

import (
	"bytes"
	"context"
	"encoding/json"
	"io"
	"net/http"
	"os"
	"path/filepath"
	"regexp"
	"strings"
	"testing"
	"time"

	"rutile/core/check"
	"rutile/internal/wire"
)

const examplePath = "../../examples/programme-rack.json"

// rutile runs a command and returns what it wrote and its exit code.
func rutile(stdin string, args ...string) (stdout, stderr string, code int) {
	cmd := root()
	var out, errs bytes.Buffer
	cmd.SetOut(&out)
	cmd.SetErr(&errs)
	cmd.SetIn(strings.NewReader(stdin))
	cmd.SetArgs(args)
	code = run(context.Background(), cmd)
	return out.String(), errs.String(), code
}

func example(t testing.TB) string {
	t.Helper()
	data, err := os.ReadFile(examplePath)
	if err != nil {
		t.Fatal(err)
	}
	return string(data)
}

func write(t *testing.T, name, text string) string {
	t.Helper()
	path := filepath.Join(t.TempDir(), name)
	if err := os.WriteFile(path, []byte(text), 0o600); err != nil {
		t.Fatal(err)
	}
	return path
}

func TestCheckSound(t *testing.T) {
	out, errs, code := rutile("", "check", examplePath)
	if code != 0 || errs != "" {
		t.Fatal(code, errs)
	}
	var r wire.CheckResult
	if err := json.Unmarshal([]byte(out), &r); err != nil {
		t.Fatal(err)
	}
	if r.Format != "rutile/check" || r.Version != 1 || r.Verdict != "sound" || r.Zones[0].ID != "uprights" {
		t.Errorf("%+v", r)
	}
}

// The example sanded through to the oak and without its blocker.
func spoilt(t *testing.T) string {
	s := strings.Replace(example(t), `{"do": "abrade", "grit": 220, "how": "hand"}`, `{"do": "abrade", "grit": 220, "how": "hand", "through": true}`, 1)
	return strings.Replace(s, `      {"do": "coat", "product": "shellac_pigmented", "coats": 1, "wait_h": 12},`+"\n", "", 1)
}

func TestCheckFails(t *testing.T) {
	out, errs, code := rutile(spoilt(t), "check", "-")
	if code != 1 || errs != "" {
		t.Fatal(code, errs)
	}
	var r wire.CheckResult
	if err := json.Unmarshal([]byte(out), &r); err != nil {
		t.Fatal(err)
	}
	if r.Verdict != "fails" || r.Zones[0].Findings[0].Code != "bleed.tannin" {
		t.Errorf("%s, %+v", r.Verdict, r.Zones[0].Findings)
	}
}

func TestCheckGlossLaminate(t *testing.T) {
	s := strings.NewReplacer(
		`"substrate": "oak"`, `"substrate": "laminate_hpl"`, `"finish": "varnish_oil", "gloss": "satin"`, `"finish": "none", "gloss": "gloss"`,
		`"bleeders": [{"id": "tannin", "level": 2}],`, "",
		`      {"do": "abrade", "grit": 220, "how": "hand"},`+"\n", "", `      {"do": "dust"},`+"\n", "",
		`      {"do": "coat", "product": "shellac_pigmented", "coats": 1, "wait_h": 12},`+"\n", "",
	).Replace(example(t))
	out, _, code := rutile(s, "check", "-")
	if code != 1 || !strings.Contains(out, `"adhesion.weakest"`) || !strings.Contains(out, `"adhesion.key"`) {
		t.Errorf("%d %s", code, out)
	}
}

func TestCheckText(t *testing.T) {
	out, _, code := rutile("", "check", "--text", examplePath)
	if code != 0 || !strings.Contains(out, "Programme rack: sound") || !strings.Contains(out, "tannin, no visible stain (ΔE 0.2)") || strings.Contains(out, "{") {
		t.Errorf("%d %s", code, out)
	}
}

func TestUnusableInputIsOneLine(t *testing.T) {
	for _, x := range []struct{ name, text, says string }{
		{"malformed.json", `{"format": "rutile/piece",,}`, "not valid JSON at line 1, column 27"},
		{"unknown.json", strings.Replace(example(t), `"paint_chalk"`, `"paint_cahlk"`, 1), `$.zones[0].steps[4].product: "paint_cahlk": not a known id; did you mean paint_chalk?`},
		{"negative.json", strings.Replace(example(t), `1.9`, `-1`, 1), "$.zones[0].area_m2: -1: too small, more than 0"},
		{"newer.json", strings.Replace(example(t), `"version": 1`, `"version": 3`, 1), "$.version: 3: written by a newer version of Rutile"},
		{"empty.json", "", "ends too early"},
	} {
		path := write(t, x.name, x.text)
		out, errs, code := rutile("", "check", path)
		if code != 2 || out != "" {
			t.Errorf("%s: exit %d, stdout %q", x.name, code, out)
		}
		if !strings.HasPrefix(errs, path+": ") || !strings.Contains(errs, x.says) || strings.Count(errs, "\n") != 1 {
			t.Errorf("%s: %q", x.name, errs)
		}
	}
	_, errs, code := rutile("", "check", "/no/such/file.json")
	if code != 2 || errs != "/no/such/file.json: it cannot be opened: no such file or directory\n" {
		t.Errorf("%d %q", code, errs)
	}
	_, errs, code = rutile("", "check", t.TempDir())
	if code != 2 || !strings.Contains(errs, "cannot be read") {
		t.Errorf("a folder: %d %q", code, errs)
	}
	if _, errs, code = rutile("", "check"); code != 2 || !strings.Contains(errs, "at least 1 arg") {
		t.Errorf("no file: %d %q", code, errs)
	}
	if _, _, code = rutile("", "paint"); code != 2 {
		t.Errorf("an unknown command exits with %d", code)
	}
}

func TestSeveralFiles(t *testing.T) {
	bad, fails := write(t, "bad.json", "{"), write(t, "fails.json", spoilt(t))
	for _, x := range []struct {
		files []string
		code  int
		said  int
	}{
		{[]string{examplePath, examplePath}, 0, 2},
		{[]string{fails, examplePath}, 1, 2},
		{[]string{examplePath, bad, fails}, 2, 2},
	} {
		out, _, code := rutile("", append([]string{"check"}, x.files...)...)
		if n := strings.Count(out, `"format": "rutile/check"`); code != x.code || n != x.said {
			t.Errorf("%v: exit %d with %d results", x.files, code, n)
		}
	}
}

func TestAreas(t *testing.T) {
	file := write(t, "bench.json", `{"format": "rutile/piece", "version": 1, "name": "Foyer bench",
		"zones": [{"id": "seat", "substrate": "oak"}], "parts": [{"kind": "top", "width_cm": 120, "depth_cm": 35, "thick_cm": 3, "zone": "seat"}]}`)
	out, errs, code := rutile("", "areas", file)
	if code != 0 || errs != "" || !strings.Contains(out, "Foyer bench") || !strings.Contains(out, "Top   1      120 × 35 × 3 cm  0.513 m²") {
		t.Errorf("%d %q\n%s", code, errs, out)
	}
	if out, _, _ := rutile("", "areas", "--units", "us", file); !strings.Contains(out, "47 1/4 × 13 3/4 × 1 3/16 in  5.52 sq ft") {
		t.Error(out)
	}
	out, _, code = rutile("", "areas", "--json", file)
	var l wire.Overview
	if err := json.Unmarshal([]byte(out), &l); err != nil || code != 0 || l.Zones[0].AreaM2 != .513 {
		t.Errorf("%d %v %s", code, err, out)
	}
	_, errs, code = rutile(`{"format": "rutile/piece", "version": 1, "parts": [{"kind": "top", "width_cm": 0, "depth_cm": 35}]}`, "areas", "-")
	if code != 2 || errs != "-: $.parts[0].width_cm: 0: too small, more than 0\n" {
		t.Errorf("%d %q", code, errs)
	}
	if _, errs, code := rutile("", "areas", "--units", "ells", file); code != 2 || !strings.Contains(errs, "units are metric or us") {
		t.Errorf("%d %q", code, errs)
	}
}

func TestIdentify(t *testing.T) {
	const table = "../../examples/brown-table.json"
	out, errs, code := rutile("", "identify", table)
	var r wire.IdentifyResult
	if err := json.Unmarshal([]byte(out), &r); err != nil || code != 0 || errs != "" {
		t.Fatal(code, errs, err)
	}
	if z := r.Zones[0]; r.Format != "rutile/identify" || z.On[0].ID != "shellac" || z.Made[0].ID != "oak" {
		t.Errorf("%+v", z)
	}
	out, _, code = rutile("", "identify", "--text", "--zone", "top", table)
	if code != 0 || !strings.Contains(out, "under shellac, almost certain") || !strings.Contains(out, "licensed people decide") || strings.Contains(out, "{") {
		t.Errorf("%d %s", code, out)
	}
	if _, errs, code := rutile("", "identify", "--zone", "leg", table); code != 2 || errs != table+": $.zones: \"leg\": the piece has no such zone\n" {
		t.Errorf("%d %q", code, errs)
	}
	twice := `{"format": "rutile/piece", "version": 1, "zones": [{"id": "a", "substrate": "oak", "evidence": [{"test": "uv", "outcome": "none"}, {"test": "uv", "outcome": "green"}]}]}`
	if _, errs, code := rutile(twice, "identify", "-"); code != 2 || !strings.HasPrefix(errs, `-: $.zones[0].evidence[1].test: "uv": evidence[0] already answers this test`) {
		t.Errorf("%d %q", code, errs)
	}
}

func TestRules(t *testing.T) {
	out, _, code := rutile("", "rules")
	if code != 0 || !strings.HasPrefix(out, "# The rule book\n") || strings.Count(out, "\n### `") != len(check.Standard().Rules) {
		t.Errorf("code %d, %d rules in %d characters", code, strings.Count(out, "\n### `"), len(out))
	}
	out, _, code = rutile("", "rules", "--json")
	var words []wire.RuleWord
	if err := json.Unmarshal([]byte(out), &words); err != nil || code != 0 || len(words) != len(check.Standard().Rules) {
		t.Errorf("as JSON: code %d, %v, %d rules", code, err, len(words))
	}
	if _, says, code := rutile("", "rules", "extra"); code != 2 || says == "" {
		t.Error("rules took an argument")
	}
}

func TestVocabIsJSON(t *testing.T) {
	out, _, code := rutile("", "vocab")
	var v wire.Vocab
	if err := json.Unmarshal([]byte(out), &v); err != nil || code != 0 || len(v.Substrates) < 50 {
		t.Errorf("%d %v %d", code, err, len(v.Substrates))
	}
	if _, _, code := rutile("", "vocab", "extra"); code != 2 {
		t.Error("vocab took an argument")
	}
}

func TestSchemaPrints(t *testing.T) {
	out, _, code := rutile("", "schema")
	if code != 0 || out != string(wire.Schema()) {
		t.Error("the schema printed is another")
	}
}

var address = regexp.MustCompile(`Rutile is at (http://127\.0\.0\.1:\d+)\n`)

// serving starts the server and returns its address and what stops it.
func serving(t *testing.T, args ...string) (url string, stop func() int) {
	t.Helper()
	ctx, cancel := context.WithCancel(context.Background())
	cmd := root()
	r, w := io.Pipe()
	cmd.SetOut(w)
	cmd.SetErr(io.Discard)
	cmd.SetArgs(append([]string{"serve", "--addr", "127.0.0.1:0"}, args...))
	done := make(chan int, 1)
	go func() {
		code := run(ctx, cmd)
		w.Close()
		done <- code
	}()
	buf := make([]byte, 200)
	n, err := r.Read(buf)
	m := address.FindSubmatch(buf[:n])
	if err != nil || m == nil {
		cancel()
		t.Fatalf("it says %q, %v", buf[:n], err)
	}
	return string(m[1]), func() int {
		cancel()
		select {
		case code := <-done:
			return code
		case <-time.After(10 * time.Second):
			t.Fatal("it does not stop")
			return -1
		}
	}
}

func get(t *testing.T, url string) string {
	t.Helper()
	r, err := http.Get(url)
	if err != nil {
		t.Fatal(err)
	}
	defer r.Body.Close()
	b, err := io.ReadAll(r.Body)
	if err != nil || r.StatusCode != 200 {
		t.Fatal(r.Status, err, string(b))
	}
	return string(b)
}

func TestServeDemoTouchesNothingElse(t *testing.T) {
	home := t.TempDir()
	t.Setenv("HOME", home)
	t.Setenv("XDG_CONFIG_HOME", filepath.Join(home, "config"))
	t.Setenv("TMPDIR", t.TempDir())
	url, stop := serving(t, "--demo")
	if s := get(t, url+"/api/pieces"); !strings.Contains(s, "Terracotta planters") {
		t.Error(s)
	}
	if code := stop(); code != 0 {
		t.Errorf("exit %d", code)
	}
	for _, dir := range []string{home, os.Getenv("TMPDIR")} {
		left, err := os.ReadDir(dir)
		if err != nil || len(left) != 0 {
			t.Errorf("%v is left in %s, %v", left, dir, err)
		}
	}
}

func TestServeKeepsItsData(t *testing.T) {
	dir := filepath.Join(t.TempDir(), "studio")
	url, stop := serving(t, "--data", dir)
	if s := get(t, url+"/api/pieces"); strings.TrimSpace(s) != "[]" {
		t.Errorf("a new studio holds %s", s)
	}
	r, err := http.Post(url+"/api/pieces", "application/json", strings.NewReader(example(t)))
	if err != nil || r.StatusCode != 201 {
		t.Fatal(r, err)
	}
	r.Body.Close()
	if code := stop(); code != 0 {
		t.Fatal(code)
	}
	url, stop = serving(t, "--data", dir)
	defer stop()
	if s := get(t, url+"/api/pieces"); !strings.Contains(s, "Programme rack") {
		t.Errorf("after a restart it holds %s", s)
	}
}

func TestServeSaysWhatIsInTheWay(t *testing.T) {
	url, stop := serving(t, "--demo")
	defer stop()
	_, errs, code := rutile("", "serve", "--demo", "--addr", strings.TrimPrefix(url, "http://"))
	if code != 2 || !strings.Contains(errs, "--addr") {
		t.Errorf("%d %q", code, errs)
	}
	if _, errs, code = rutile("", "serve", "--demo", "--data", "x"); code != 2 || !strings.Contains(errs, "demo") {
		t.Errorf("%d %q", code, errs)
	}
	file := write(t, "file", "")
	if _, errs, code = rutile("", "serve", "--addr", "127.0.0.1:0", "--data", file); code != 2 || !strings.Contains(errs, "data folder") {
		t.Errorf("%d %q", code, errs)
	}
}

// Another address than this computer's own is refused, unless somebody else guards it.
func TestServeIsForThisComputer(t *testing.T) {
	for _, addr := range []string{"0.0.0.0:0", ":0", "[::]:0", "192.0.2.7:8733", "workshop.example:8733"} {
		_, errs, code := rutile("", "serve", "--demo", "--addr", addr)
		if code != 2 || !strings.Contains(errs, "other computers could reach Rutile") || !strings.Contains(errs, "--behind-proxy") {
			t.Errorf("%s: %d %q", addr, code, errs)
		}
	}
	for _, addr := range []string{"127.0.0.1:1", "localhost:1", "[::1]:1", "127.9.9.9:1"} {
		if err := guarded(addr, false); err != nil {
			t.Errorf("%s: %v", addr, err)
		}
	}
	if err := guarded("0.0.0.0:1", true); err != nil {
		t.Errorf("behind a proxy: %v", err)
	}
	if err := guarded("8733", false); err == nil || !strings.Contains(err.Error(), "an address is written as") {
		t.Error(err)
	}
}

// A second server on one folder is refused, and a folder to be read only changes nothing.
func TestServeOneFolderOnce(t *testing.T) {
	dir := filepath.Join(t.TempDir(), "studio")
	url, stop := serving(t, "--data", dir)
	r, err := http.Post(url+"/api/pieces", "application/json", strings.NewReader(example(t)))
	if err != nil || r.StatusCode != 201 {
		t.Fatal(r, err)
	}
	r.Body.Close()
	for _, more := range [][]string{nil, {"--read-only"}} {
		_, errs, code := rutile("", append([]string{"serve", "--addr", "127.0.0.1:0", "--data", dir}, more...)...)
		if code != 2 || !strings.Contains(errs, "Another Rutile is already running on the folder") {
			t.Errorf("%v: %d %q", more, code, errs)
		}
	}
	if code := stop(); code != 0 {
		t.Fatal(code)
	}
	url, stop = serving(t, "--data", dir, "--read-only")
	defer stop()
	if s := get(t, url+"/api/pieces"); !strings.Contains(s, "Programme rack") {
		t.Errorf("it holds %s", s)
	}
	if s := get(t, url+"/api/studio"); !strings.Contains(s, `"read_only":true`) {
		t.Errorf("it does not say so: %s", s)
	}
	r, err = http.Post(url+"/api/pieces", "application/json", strings.NewReader(example(t)))
	if err != nil || r.StatusCode != 403 {
		t.Errorf("a save: %v, %v", r.Status, err)
	}
	r.Body.Close()
}

func TestLogOfAFile(t *testing.T) {
	const table = "../../examples/side-table.json"
	out, errs, code := rutile("", "log", "--text", table)
	if code != 0 || !strings.Contains(out, "Water-borne enamel, coat 1 (Table): 25 min, 11 °C, 74 %. Cold this morning") {
		t.Errorf("%d %s %s", code, out, errs)
	}
	out, _, code = rutile("", "log", "--csv", table)
	if rows := strings.Split(strings.TrimSpace(out), "\n"); code != 0 || len(rows) != 6 || !strings.HasPrefix(rows[0], "at,zone,what") {
		t.Errorf("%d %s", code, out)
	}
	out, _, code = rutile("", "log", table)
	if code != 0 || !strings.Contains(out, `"planned": "3"`) {
		t.Errorf("%d %s", code, out)
	}
	if _, errs, code = rutile(`{"format": "rutile/piece", "version": 1, "log": [{"id": "a", "at": "yesterday", "what": "note"}]}`, "log", "-"); code != 2 || !strings.Contains(errs, "$.log[0].at") {
		t.Errorf("%d %s", code, errs)
	}
}

func TestAClockThatRunsFaster(t *testing.T) {
	real := time.Date(2026, 1, 1, 0, 0, 0, 0, time.UTC)
	now, err := lapse("2026-11-28T09:00:00Z", 60, func() time.Time { return real })
	if err != nil {
		t.Fatal(err)
	}
	real = real.Add(time.Minute)
	if got := now(); !got.Equal(time.Date(2026, 11, 28, 10, 0, 0, 0, time.UTC)) {
		t.Errorf("a minute later it is %v", got)
	}
	for from, pace := range map[string]float64{"noon": 1, "2026-11-28T09:00": 0, "": -1} {
		if _, err := lapse(from, pace, time.Now); err == nil {
			t.Errorf("--from %q --pace %v is taken", from, pace)
		}
	}
}
