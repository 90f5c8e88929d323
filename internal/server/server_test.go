package server

import (
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"log/slog"
	"net"
	"net/http"
	"net/http/httptest"
	"net/url"
	"os"
	"reflect"
	"slices"
	"strings"
	"testing"
	"testing/fstest"
	"time"

	"rutile/core/check"
	"rutile/core/craft"
	"rutile/core/drying"
	"rutile/internal/app"
	"rutile/internal/demo"
	"rutile/internal/store"
	"rutile/internal/wire"

	"github.com/danielgtaylor/huma/v2"
)

var builtPage = fstest.MapFS{
	"index.html":      {Data: []byte("<!doctype html><title>Rutile</title>")},
	"assets/index.js": {Data: []byte(strings.Repeat("console.log('rutile');", 500))},
	"app.webmanifest": {Data: []byte("{}")},
	"rutile.svg":      {Data: []byte("<svg xmlns='http://www.w3.org/2000/svg'/>")},
}

func handler(t testing.TB) http.Handler { return handlerWith(t, app.StudioOptions{}) }

// handlerWith is a server on the demo data with instruments or a clock beside.
func handlerWith(t testing.TB, o app.StudioOptions) http.Handler {
	t.Helper()
	return New(Options{Studio: studioWith(t, o), Page: builtPage})
}

func studioWith(t testing.TB, o app.StudioOptions) *app.Studio {
	t.Helper()
	s, err := store.Open(t.TempDir())
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { _ = s.Close() })
	if err := demo.Fill(context.Background(), s, demoNow(o)); err != nil {
		t.Fatal(err)
	}
	o.Store, o.Site, o.Demo = s, demo.Site, true
	return app.NewStudio(app.NewEngine(craft.Default()), o)
}

// demoNow is the moment as of which the demo studio stands: that of the clock it gets.
func demoNow(o app.StudioOptions) time.Time {
	if o.Now != nil {
		return o.Now()
	}
	return time.Now()
}

// empty is a studio without a store, for what needs none.
func empty() *app.Studio { return app.NewStudio(app.NewEngine(craft.Default()), app.StudioOptions{}) }

func example(t testing.TB) string {
	t.Helper()
	data, err := os.ReadFile("../../examples/programme-rack.json")
	if err != nil {
		t.Fatal(err)
	}
	return string(data)
}

type call struct {
	method, path, body string
	header             map[string]string
	host               string
	unsized            bool // it does not say how long it is
}

func (c call) to(h http.Handler) *httptest.ResponseRecorder {
	r := httptest.NewRequest(c.method, c.path, strings.NewReader(c.body))
	r.Host = "127.0.0.1:8733"
	if c.host != "" {
		r.Host = c.host
	}
	if c.body != "" {
		r.Header.Set("Content-Type", "application/json")
	}
	for k, v := range c.header {
		r.Header.Set(k, v)
	}
	if c.unsized {
		r.ContentLength = -1
	}
	w := httptest.NewRecorder()
	h.ServeHTTP(w, r)
	return w
}

func decode[T any](t *testing.T, w *httptest.ResponseRecorder) T {
	t.Helper()
	var v T
	if err := json.Unmarshal(w.Body.Bytes(), &v); err != nil {
		t.Fatalf("%d %s: %v", w.Code, w.Body, err)
	}
	return v
}

type problemBody struct {
	Status int
	Detail string
	Errors []struct{ Location, Message string }
}

func TestCheckIsOneCall(t *testing.T) {
	w := call{method: "POST", path: "/api/check", body: example(t)}.to(handler(t))
	if w.Code != 200 {
		t.Fatal(w.Code, w.Body)
	}
	r := decode[wire.CheckResult](t, w)
	if r.Verdict != "sound" || r.Zones[0].Section == nil || len(r.Zones[0].Section.Layers) != 7 {
		t.Errorf("%+v", r)
	}
}

func TestTheSameAnswerAsTheCommand(t *testing.T) {
	p, err := wire.Decode([]byte(example(t)))
	if err != nil {
		t.Fatal(err)
	}
	want, err := app.NewEngine(craft.Default()).Job(p, app.Workshop{Air: drying.Usual}).Check(context.Background(), app.Want{Repairs: true})
	if err != nil {
		t.Fatal(err)
	}
	got := decode[wire.CheckResult](t, call{method: "POST", path: "/api/check", body: example(t)}.to(handler(t)))
	for i := range got.Zones {
		got.Zones[i].Section = nil
	}
	got.Overview = nil
	a, _ := json.Marshal(want)
	b, _ := json.Marshal(got)
	if !bytes.Equal(a, b) {
		t.Errorf("the server says\n%s\nthe command\n%s", b, a)
	}
}

func TestPieceLifeOverTheAPI(t *testing.T) {
	h := handler(t)
	w := call{method: "POST", path: "/api/pieces", body: example(t)}.to(h)
	if w.Code != 201 || w.Header().Get("ETag") != `"1"` {
		t.Fatal(w.Code, w.Header(), w.Body)
	}
	s := decode[wire.Saved](t, w)
	path := fmt.Sprintf("/api/pieces/%d", s.ID)

	renamed := strings.Replace(example(t), "Programme rack", "Rack", 1)
	w = call{method: "PUT", path: path, body: renamed, header: map[string]string{"If-Match": `"1"`}}.to(h)
	if w.Code != 200 || w.Header().Get("ETag") != `"2"` {
		t.Fatal(w.Code, w.Body)
	}
	// A second tab that still holds the first revision.
	third := strings.Replace(example(t), "Programme rack", "Shelf", 1)
	w = call{method: "PUT", path: path, body: third, header: map[string]string{"If-Match": `"1"`}}.to(h)
	p := decode[problemBody](t, w)
	if w.Code != 409 || len(p.Errors) != 1 || p.Errors[0].Message != `The piece is now called "Rack".` {
		t.Errorf("%d %+v", w.Code, p)
	}
	got := decode[wire.Saved](t, call{method: "GET", path: path}.to(h))
	if got.Rev != 2 || got.Piece.Name != "Rack" {
		t.Errorf("%+v", got)
	}
	if w = (call{method: "DELETE", path: path}).to(h); w.Code != 204 {
		t.Error(w.Code, w.Body)
	}
	if w = (call{method: "GET", path: path}).to(h); w.Code != 404 || !strings.Contains(w.Body.String(), "This piece does not exist") {
		t.Error(w.Code, w.Body)
	}
}

func TestListTellsHowEachStands(t *testing.T) {
	list := decode[[]wire.Summary](t, call{method: "GET", path: "/api/pieces"}.to(handler(t)))
	if len(list) != 28 || list[0].Name != "Playbill box" {
		t.Fatalf("%d pieces", len(list))
	}
	verdicts := map[string]int{}
	zones := 0
	for _, p := range list {
		if p.Says == "" {
			t.Errorf("%s says nothing", p.Name)
		}
		for _, z := range p.Zones {
			verdicts[z.Verdict]++
			zones++
		}
	}
	if zones != 119 || verdicts["sound"] < 30 || verdicts["fails"] < 30 || verdicts["watch"] < 20 {
		t.Errorf("%d zones: %v", zones, verdicts)
	}
}

// What holds a piece up, what is next, and where: the worst fail first, or else
// the first stage of the work with something unfinished.
func TestListTellsWhatIsNext(t *testing.T) {
	by := map[string]wire.Summary{}
	for _, p := range decode[[]wire.Summary](t, call{method: "GET", path: "/api/pieces"}.to(handler(t))) {
		by[p.Name] = p
	}
	for _, x := range []struct{ name, stage, holds, next, in string }{
		{"Ticket booth", "prepare", "Chalk paint on high-pressure laminate that was not scuffed", "Sand with 220 and dust off, then prime with bonding primer", "fronts"},
		{"Lectern", "coats", "Dye will show through the coats", "Block it with 2 coats of pigmented shellac", "column"},
		{"Programme rack", "work", "", "Start with: alkaline degreaser, rinsed", "uprights"},
		{"Property chest", "coats", "It will hardly chip", "Seal the surface with two coats of clear shellac first", "lid"},
		{"Cane screen", "identify", "", "Not certain yet: Cane or wicker, very likely; bare, more likely than not", "panels"},
		{"Prompter's stool", "look_over", "", "Missing: dirt on it, wanted colour", "seat"},
		{"Poster frames", "look_over", "", "Choose what its parts are made of", ""},
		{"Puppet chest", "work", "", "Start with: raise the grain", "outside"},
	} {
		p := by[x.name]
		if p.Stage != x.stage || p.Blocked != x.holds || p.Next != x.next || p.NextIn != x.in {
			t.Errorf("%s: %q, %q, %q, %q", x.name, p.Stage, p.Blocked, p.Next, p.NextIn)
		}
	}
}

func TestStudioIsKeptAndUsed(t *testing.T) {
	h := handler(t)
	put := func(body string) *httptest.ResponseRecorder {
		return call{method: "PUT", path: "/api/studio", body: body, header: map[string]string{"If-Match": "*"}}.to(h)
	}
	for _, x := range []struct{ body, says string }{
		{`{"name": "A", "units": "imperial", "site": {"temp_c": 20, "rh_pct": 50}}`, "known are metric, us"},
		{`{"name": "A", "units": "us", "site": {"temp_c": 200, "rh_pct": 50}}`, "$.site.temp_c: 200: too large, at most 50"},
		{`{"name": "A", "units": "us", "site": {"temp_c": 20, "rh_pct": 101}}`, "$.site.rh_pct: 101: too large, at most 100"},
		{`{"name": "` + strings.Repeat("ä", 201) + `", "units": "us", "site": {"temp_c": 20, "rh_pct": 50}}`, "201 characters: too long, at most 200"},
		{`{"name": "A", "units": "us", "site": {"temp_c": 20, "rh_pct": 50}, "nom": "A"}`, "$.nom: there is no such field"},
		{`{`, "not valid JSON"},
	} {
		if w := put(x.body); w.Code != 422 && w.Code != 400 || !strings.Contains(w.Body.String(), x.says) {
			t.Errorf("%.40s: %d %s", x.body, w.Code, w.Body)
		}
	}
	if s := decode[wire.Studio](t, call{method: "GET", path: "/api/studio"}.to(h)); s.Name != "Lantern Yard" || s.Air.DewPointC != 10.1 {
		t.Errorf("refused settings were kept: %+v", s)
	}
	if w := put(`{"name": " Yard ", "units": "us", "site": {"temp_c": 4, "rh_pct": 40}}`); w.Code != 200 {
		t.Fatal(w.Code, w.Body)
	}
	if s := decode[wire.Studio](t, call{method: "GET", path: "/api/studio"}.to(h)); s.Name != "Yard" || s.Units != "us" || s.Site.TempC != 4 {
		t.Errorf("kept: %+v", s)
	}
	// The air judges pieces that name none, and the units word what is said.
	var p wire.Piece
	if err := json.Unmarshal([]byte(example(t)), &p); err != nil {
		t.Fatal(err)
	}
	p.Site = nil
	body, _ := json.Marshal(p)
	r := decode[wire.CheckResult](t, call{method: "POST", path: "/api/check", body: string(body)}.to(h))
	said := ""
	for _, f := range r.Zones[0].Findings {
		said += f.Title + ". " + f.Why + " "
	}
	if r.Air.TempC != 4 || r.Air.Own || !strings.Contains(said, "39 °F") || strings.Contains(said, "°C") {
		t.Errorf("%+v: %s", r.Air, said)
	}
}

func TestAreaIsRead(t *testing.T) {
	h := handler(t)
	get := func(text string) *httptest.ResponseRecorder {
		return call{method: "GET", path: "/api/area?text=" + url.QueryEscape(text)}.to(h)
	}
	if a := decode[wire.Area](t, get("120 x 45 cm")); a.AreaM2 != .54 || a.Says != "0.54 m²" {
		t.Errorf("%+v", a)
	}
	for text, says := range map[string]string{"": "Nothing is typed", "tall": "cannot be read", "1 x 1 mm": "smaller than a square centimetre"} {
		if w := get(text); w.Code != 422 || !strings.Contains(w.Body.String(), says) {
			t.Errorf("%q: %d %s", text, w.Code, w.Body)
		}
	}
}

func TestWhatCouldComeNext(t *testing.T) {
	h := handler(t)
	body := strings.Replace(example(t), `"id": "uprights"`, `"id": "u"`, 1)
	os := decode[[]wire.NextStep](t, call{method: "POST", path: "/api/next?zone=u&at=1", body: body}.to(h))
	if len(os) < 60 || os[0].Why == "" || os[0].Step.Do != "abrade" {
		t.Errorf("%d offers, first %+v", len(os), os[0])
	}
	if w := (call{method: "POST", path: "/api/next?zone=nowhere&at=0", body: body}).to(h); w.Code != 404 {
		t.Error(w.Code, w.Body)
	}
	if w := (call{method: "POST", path: "/api/next?zone=u&at=-1", body: body}).to(h); w.Code != 422 {
		t.Error(w.Code, w.Body)
	}
}

func TestSinceTellsWhatAnotherHasDone(t *testing.T) {
	h := handler(t)
	was := decode[wire.Since](t, call{method: "GET", path: "/api/pieces/12/since/1"}.to(h))
	if was.Rev != 1 || len(was.Changes) != 0 {
		t.Errorf("%d, %v", was.Rev, was.Changes)
	}
	was.Piece.Name = "Rack"
	body, _ := json.Marshal(was.Piece)
	if w := (call{method: "PUT", path: "/api/pieces/12", body: string(body), header: map[string]string{"If-Match": `"1"`}}).to(h); w.Code != 200 {
		t.Fatal(w.Code, w.Body)
	}
	now := decode[wire.Since](t, call{method: "GET", path: "/api/pieces/12/since/1"}.to(h))
	if now.Rev != 2 || now.Piece.Name != "Rack" || !slices.Equal(now.Changes, []string{`The piece is now called "Rack".`}) {
		t.Errorf("%d, %v", now.Rev, now.Changes)
	}
	if w := (call{method: "GET", path: "/api/pieces/99/since/1"}).to(h); w.Code != 404 {
		t.Error(w.Code, w.Body)
	}
}

func TestRefusals(t *testing.T) {
	h := handler(t)
	put := func(match string) map[string]string {
		if match == "" {
			return nil
		}
		return map[string]string{"If-Match": match}
	}
	many := `{"format": "rutile/piece", "version": 1, "zones": [{"id": "a", "substrate": "oak", "steps": [` + strings.Repeat(`{"do": "dust"},`, 999) + `{"do": "dust"}]}]}`
	for _, x := range []struct {
		name string
		call call
		code int
		says string
	}{
		{"malformed", call{method: "POST", path: "/api/check", body: `{"format":`}, 400, "ends too early"},
		{"no body", call{method: "POST", path: "/api/check"}, 400, ""},
		{"an unknown id", call{method: "POST", path: "/api/check", body: strings.Replace(example(t), `"oak"`, `"oka"`, 1)}, 422, `$.zones[0].substrate: \"oka\": not a known id; did you mean oak?`},
		{"an unknown field", call{method: "POST", path: "/api/pieces", body: strings.Replace(example(t), `"made"`, `"maid"`, 1)}, 422, "$.maid: there is no such field"},
		{"a negative area", call{method: "POST", path: "/api/pieces", body: strings.Replace(example(t), `1.9`, `-1.9`, 1)}, 422, "too small"},
		{"a level of 7", call{method: "POST", path: "/api/pieces", body: strings.Replace(example(t), `"grease", "level": 2`, `"grease", "level": 7`, 1)}, 422, "7: too large, at most 3"},
		{"a thousand steps", call{method: "POST", path: "/api/pieces", body: many}, 422, "1000 entries: too many"},
		{"50 MB", call{method: "POST", path: "/api/pieces", body: `{"name": "` + strings.Repeat("x", 50<<20) + `"}`}, 413, "larger than 8 MB, the limit for a piece"},
		{"50 MB unannounced", call{method: "POST", path: "/api/pieces", body: `{"name": "` + strings.Repeat("x", 50<<20) + `"}`, unsized: true}, 413, "too large"},
		{"another format", call{method: "POST", path: "/api/pieces", body: `{"format": "rutile/check", "version": 1}`}, 422, "not a piece file"},
		{"a newer version", call{method: "POST", path: "/api/pieces", body: `{"format": "rutile/piece", "version": 9}`}, 422, "newer version of Rutile"},
		{"This piece does not exist", call{method: "GET", path: "/api/pieces/999"}, 404, "This piece does not exist"},
		{"piece nought", call{method: "GET", path: "/api/pieces/0"}, 422, ""},
		{"a piece called abc", call{method: "GET", path: "/api/pieces/abc"}, 422, ""},
		{"saving what is not there", call{method: "PUT", path: "/api/pieces/999", body: example(t), header: put(`"1"`)}, 404, "This piece does not exist"},
		{"saving without a revision", call{method: "PUT", path: "/api/pieces/1", body: example(t)}, 422, "If-Match"},
		{"saving over nonsense", call{method: "PUT", path: "/api/pieces/1", body: example(t), header: put("latest")}, 400, "If-Match"},
		{"saving rubbish", call{method: "PUT", path: "/api/pieces/1", body: `[]`, header: put(`"1"`)}, 422, "JSON object"},
		{"nothing there", call{method: "GET", path: "/api/nothing"}, 404, "nothing at this address"},
		{"another host", call{method: "GET", path: "/api/pieces", host: "evil.example"}, 421, "does not accept that host name"},
		{"another site's form", call{method: "POST", path: "/api/pieces", body: example(t), header: map[string]string{"Origin": "http://evil.example"}}, 403, "own page"},
		{"another site's script", call{method: "DELETE", path: "/api/pieces/1", header: map[string]string{"Sec-Fetch-Site": "cross-site"}}, 403, "own page"},
	} {
		t.Run(x.name, func(t *testing.T) {
			w := x.call.to(h)
			if w.Code != x.code || !strings.Contains(w.Body.String(), x.says) {
				t.Errorf("%d %.300s, want %d with %q", w.Code, w.Body, x.code, x.says)
			}
			if ct := w.Header().Get("Content-Type"); ct != "application/problem+json" {
				t.Errorf("it is told as %s", ct)
			}
			if p := decode[problemBody](t, w); p.Status != x.code {
				t.Errorf("the problem says %d", p.Status)
			}
		})
	}
	// And after all of it the server is alive and nothing was half-saved.
	list := decode[[]wire.Summary](t, call{method: "GET", path: "/api/pieces"}.to(h))
	if len(list) != 28 {
		t.Errorf("%d pieces are there now", len(list))
	}
	for _, p := range list {
		if p.Rev != 1 {
			t.Errorf("%s was changed", p.Name)
		}
	}
}

func TestHosts(t *testing.T) {
	h := New(Options{Studio: empty(), Hosts: []string{"bench.local"}, Page: builtPage})
	for host, code := range map[string]int{
		"localhost": 200, "localhost:8733": 200, "127.0.0.1": 200, "[::1]:8733": 200, "192.168.1.20:8733": 200,
		"bench.local:8733": 200, "LOCALHOST:1": 200, "evil.example": 421, "localhost.evil.example": 421, "bench.local.evil.example:8733": 421,
	} {
		if w := (call{method: "GET", path: "/", host: host}).to(h); w.Code != code {
			t.Errorf("%s: %d, want %d", host, w.Code, code)
		}
	}
}

func TestOwnPageMayWrite(t *testing.T) {
	h := handler(t)
	w := call{method: "POST", path: "/api/check", body: example(t), host: "localhost:8733", header: map[string]string{"Origin": "http://localhost:8733", "Sec-Fetch-Site": "same-origin"}}.to(h)
	if w.Code != 200 {
		t.Error(w.Code, w.Body)
	}
}

func TestSecurityHeaders(t *testing.T) {
	h := handler(t)
	for _, path := range []string{"/", "/pieces/3/top", "/assets/index.js", "/api/pieces", "/api/nothing"} {
		w := call{method: "GET", path: path}.to(h)
		csp := w.Header().Get("Content-Security-Policy")
		for _, want := range []string{"default-src 'none'", "script-src 'self'", "style-src 'self'", "frame-ancestors 'none'"} {
			if !strings.Contains(csp, want) {
				t.Errorf("%s: policy %q lacks %q", path, csp, want)
			}
		}
		if strings.Contains(csp, "unsafe") {
			t.Errorf("%s: policy %q", path, csp)
		}
		if w.Header().Get("X-Content-Type-Options") != "nosniff" || w.Header().Get("Referrer-Policy") != "no-referrer" {
			t.Errorf("%s: headers %v", path, w.Header())
		}
	}
}

func TestPage(t *testing.T) {
	h := handler(t)
	for _, x := range []struct {
		path, method string
		code         int
		says, cache  string
	}{
		{"/", "GET", 200, "<title>Rutile", "no-cache"},
		{"/pieces/3/column", "GET", 200, "<title>Rutile", "no-cache"},
		{"/index.html", "GET", 200, "<title>Rutile", "no-cache"},
		{"/assets/index.js", "GET", 200, "rutile", "public, max-age=31536000, immutable"},
		{"/rutile.svg", "GET", 200, "<svg", "no-cache"},
		{"/app.webmanifest", "GET", 200, "{}", "no-cache"},
		{"/assets/gone.js", "GET", 404, "no such file", ""},
		{"/assets/../../etc/passwd", "GET", 200, "<title>Rutile", "no-cache"},
		{"/", "POST", 405, "read-only", ""},
	} {
		w := call{method: x.method, path: x.path}.to(h)
		if w.Code != x.code || !strings.Contains(w.Body.String(), x.says) || w.Header().Get("Cache-Control") != x.cache {
			t.Errorf("%s %s: %d %q %.60s", x.method, x.path, w.Code, w.Header().Get("Cache-Control"), w.Body)
		}
	}
	unbuilt := New(Options{Studio: empty(), Page: fstest.MapFS{}})
	if w := (call{method: "GET", path: "/"}).to(unbuilt); w.Code != 404 || !strings.Contains(w.Body.String(), "make build") {
		t.Error(w.Code, w.Body)
	}
}

func TestCompression(t *testing.T) {
	w := call{method: "GET", path: "/assets/index.js", header: map[string]string{"Accept-Encoding": "gzip"}}.to(handler(t))
	if w.Header().Get("Content-Encoding") != "gzip" || w.Body.Len() > 2000 {
		t.Errorf("%v, %d bytes", w.Header(), w.Body.Len())
	}
}

func TestVocabAndStudio(t *testing.T) {
	h := handler(t)
	v := decode[wire.Vocab](t, call{method: "GET", path: "/api/vocab"}.to(h))
	if len(v.Products) < 45 || len(v.Rules) < 25 {
		t.Errorf("%d products, %d rules", len(v.Products), len(v.Rules))
	}
	s := decode[wire.Studio](t, call{method: "GET", path: "/api/studio"}.to(h))
	if !s.Demo || s.Site.TempC != 17 {
		t.Errorf("%+v", s)
	}
}

// A page that goes away while its answer is written is no fault of the server's, and a question that
// was given up before it was answered is told so.
func TestAPageThatGoesAway(t *testing.T) {
	h := handler(t)
	gone, stop := context.WithCancel(context.Background())
	stop()
	for _, path := range []string{"/api/check", "/api/next?zone=uprights&at=0", "/api/identify?zone=uprights"} {
		w := httptest.NewRecorder()
		r := httptest.NewRequestWithContext(gone, "POST", "http://localhost"+path, strings.NewReader(example(t)))
		r.Header.Set("Content-Type", "application/json")
		h.ServeHTTP(w, r)
		if w.Code != statusGone {
			t.Errorf("%s: %d %.100s", path, w.Code, w.Body)
		}
	}
	w := httptest.NewRecorder()
	oneStatus(http.HandlerFunc(func(w http.ResponseWriter, _ *http.Request) {
		w.WriteHeader(http.StatusTeapot)
		w.WriteHeader(statusGone)
	})).ServeHTTP(w, httptest.NewRequest("GET", "/", nil))
	if w.Code != http.StatusTeapot {
		t.Error(w.Code)
	}
}

// A change of one zone is answered with that zone and the token of the next change; one that starts from
// nothing that is kept is told to send the whole piece.
func TestChangesOverTheAPI(t *testing.T) {
	h := handler(t)
	first := call{method: "POST", path: "/api/check", body: example(t)}.to(h)
	change := func(token, body string) *httptest.ResponseRecorder {
		return call{method: "PATCH", path: "/api/check", body: body, header: map[string]string{"If-Match": token}}.to(h)
	}
	const zone = `{"zones": [{"id": "uprights", "substrate": "oak", "finish": "none", "soils": [], "steps": [{"do": "coat", "product": "paint_chalk"}]}]}`
	w := change(first.Header().Get("ETag"), zone)
	c := decode[wire.CheckChange](t, w)
	if w.Code != 200 || c.Verdict != "fails" || len(c.Zones) != 1 || c.Zones[0].Section == nil || w.Header().Get("ETag") == first.Header().Get("ETag") {
		t.Fatalf("%d %s: %s, %d zones", w.Code, w.Header().Get("ETag"), c.Verdict, len(c.Zones))
	}
	if again := change(w.Header().Get("ETag"), `{"zones": [{"id": "uprights", "substrate": "glass"}]}`); again.Code != 200 {
		t.Error(again.Code, again.Body)
	}
	for token, want := range map[string]int{`"nobody"`: 412, "": 422} {
		if w := change(token, zone); w.Code != want {
			t.Errorf("from %q: %d %s", token, w.Code, w.Body)
		}
	}
	if w := change(first.Header().Get("ETag"), `{"zones": [{"id": "uprights", "substrate": "oka"}]}`); w.Code != 422 || !strings.Contains(w.Body.String(), "$.zones[0].substrate") {
		t.Error(w.Code, w.Body)
	}
}

// A question for plans that finds no room is told so, and when to come again.
func TestBusyIsSaid(t *testing.T) {
	err := (newHandlers(empty(), nil)).problemOf(fmt.Errorf("plan: %w", app.ErrBusy))
	var status huma.StatusError
	var headers huma.HeadersError
	if !errors.As(err, &status) || status.GetStatus() != 503 || !strings.Contains(status.Error(), "Try again") || !errors.As(err, &headers) || headers.GetHeaders().Get("Retry-After") == "" {
		t.Errorf("%v", err)
	}
}

func TestAPanicIsAProblem(t *testing.T) {
	h := recoverer(slog.New(slog.DiscardHandler))(http.HandlerFunc(func(http.ResponseWriter, *http.Request) { panic("boom") }))
	w := call{method: "GET", path: "/boom"}.to(h)
	if w.Code != 500 || !strings.Contains(w.Body.String(), "Nothing was saved") {
		t.Error(w.Code, w.Body)
	}
}

// The page's types are made from this description: it must be the committed
// one, or the two have drifted apart.
func TestCommittedDescriptionIsCurrent(t *testing.T) {
	spec, err := Spec()
	if err != nil {
		t.Fatal(err)
	}
	committed, err := os.ReadFile("../../web/openapi.json")
	if err != nil {
		t.Fatal(err)
	}
	var a, b any
	if json.Unmarshal(spec, &a) != nil || json.Unmarshal(committed, &b) != nil {
		t.Fatal("a description is no JSON")
	}
	if !reflect.DeepEqual(a, b) {
		t.Error("web/openapi.json is not what the handlers say: run make types")
	}
	if strings.Contains(string(spec), "$schema") {
		t.Error("the answers carry links to schemas")
	}
}

func TestServeStopsWithGrace(t *testing.T) {
	l, err := net.Listen("tcp", "127.0.0.1:0")
	if err != nil {
		t.Fatal(err)
	}
	begun, finish := make(chan bool), make(chan bool)
	h := http.HandlerFunc(func(w http.ResponseWriter, _ *http.Request) {
		close(begun)
		<-finish
		fmt.Fprint(w, "done")
	})
	ctx, stop := context.WithCancel(context.Background())
	end := make(chan error, 1)
	go func() { end <- Serve(ctx, l, h) }()
	got := make(chan string, 1)
	go func() {
		r, err := http.Get("http://" + l.Addr().String())
		if err != nil {
			got <- err.Error()
			return
		}
		defer r.Body.Close()
		b, _ := io.ReadAll(r.Body)
		got <- string(b)
	}()
	<-begun
	stop()
	time.Sleep(10 * time.Millisecond)
	close(finish)
	if s := <-got; s != "done" {
		t.Errorf("what had begun ended as %q", s)
	}
	if err := <-end; err != nil {
		t.Error(err)
	}
	if _, err := net.DialTimeout("tcp", l.Addr().String(), time.Second); err == nil {
		t.Error("it still listens")
	}
}

// A live check of a 12-step zone over HTTP on loopback.
// The book lists every rule once, and the places it names are in the studio.
func TestRuleBookOverTheWire(t *testing.T) {
	h := handler(t)
	book := decode[[]wire.RuleEntry](t, call{method: "GET", path: "/api/rules"}.to(h))
	if len(book) != len(check.Standard().Rules) {
		t.Fatalf("%d rules of %d", len(book), len(check.Standard().Rules))
	}
	speaking := 0
	for _, e := range book {
		if e.Inputs == "" || e.Fix == "" || e.Group == "" {
			t.Errorf("%s is not filled in", e.Code)
		}
		if len(e.Findings) > 0 {
			speaking++
		}
		last := 2
		for _, s := range e.Findings {
			now := map[string]int{"note": 0, "watch": 1, "fail": 2}[s.Severity]
			if now > last || s.Piece == 0 || s.Name == "" {
				t.Errorf("%s: %+v after something milder, or nowhere", e.Code, s)
			}
			last = now
		}
	}
	if speaking < 45 {
		t.Errorf("only %d speak", speaking)
	}
}
