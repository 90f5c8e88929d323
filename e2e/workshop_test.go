package e2e

import (
	"context"
	"encoding/pem"
	"fmt"
	"io/fs"
	"net/http"
	"net/url"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strings"
	"sync/atomic"
	"testing"
	"testing/fstest"
	"time"

	"github.com/chromedp/chromedp"

	usecases "rutile/internal/app"
	"rutile/internal/server"
	"rutile/internal/wire"
	"rutile/web"
)

// opened is the application as it is open to the workshop.
func (a *app) opened(s *usecases.Studio, o *server.Options) (here, workshop http.Handler) {
	a.t.Helper()
	made, _, err := s.Authority(context.Background(), nil, false)
	if err != nil {
		a.t.Fatal(err)
	}
	if _, err := s.HoldDevices(context.Background()); err != nil {
		a.t.Fatal(err)
	}
	a.authority = made
	o.Workshop = &server.Workshop{Authority: made, Addresses: func() []string { return []string{"https://" + a.workshop} }}
	return server.Both(*o)
}

// startWorkshop starts the application open to the workshop.
func startWorkshop(t testing.TB, withDemo bool) *app {
	t.Helper()
	a := unstarted(t)
	a.workshop = "127.0.0.1:0"
	a.begin(withDemo)
	return a
}

// startWithAStool starts it with one piece, of which nothing is done yet.
func startWithAStool(t testing.TB) (*app, wire.Saved) {
	t.Helper()
	a := startWorkshop(t, false)
	return a, answered[wire.Saved](a, "POST", "/api/pieces", stool, http.StatusCreated)
}

// withAPhone is startWithAStool with a phone that is paired and has taken everything along.
func withAPhone(t testing.TB) (*app, wire.Saved, *profile) {
	t.Helper()
	a, saved := startWithAStool(t)
	phone := a.phone(true)
	phone.pair("Phone")
	phone.do(shows(`[data-offline="ready"]`))
	return a, saved, phone
}

func (a *app) at(path string) string { return "https://" + a.workshop + path }

// profile is a phone's browser with what it keeps; it may be closed and opened again.
type profile struct {
	a    *app
	home string
	ctx  context.Context
	stop func()
}

// phone is a browser that trusts the studio's certificate authority, or does not.
func (a *app) phone(trusts bool) *profile {
	a.t.Helper()
	p := &profile{a: a, home: a.t.TempDir()}
	if trusts {
		p.trust()
	}
	p.open()
	return p
}

// trust installs the authority, as a person would in the settings.
func (p *profile) trust() {
	t := p.a.t
	t.Helper()
	db := filepath.Join(p.home, ".pki", "nssdb")
	if err := os.MkdirAll(db, 0o700); err != nil {
		t.Fatal(err)
	}
	crt := filepath.Join(p.home, "authority.pem")
	if err := os.WriteFile(crt, pem.EncodeToMemory(&pem.Block{Type: "CERTIFICATE", Bytes: p.a.authority.Certificate()}), 0o600); err != nil {
		t.Fatal(err)
	}
	for _, args := range [][]string{{"-N", "-d", "sql:" + db, "--empty-password"}, {"-A", "-d", "sql:" + db, "-n", "studio", "-t", "C,,", "-i", crt}} {
		if out, err := exec.Command("certutil", args...).CombinedOutput(); err != nil {
			t.Fatalf("certutil (make test installs it): %v %s", err, out)
		}
	}
}

// open opens the browser with what it has kept.
func (p *profile) open() {
	p.a.t.Helper()
	p.ctx, p.stop = ownBrowser(p.a.t, 390, 844, chromedp.UserDataDir(filepath.Join(p.home, "profile")), chromedp.Env("HOME="+p.home))
}

func (p *profile) do(acts ...act) {
	p.a.t.Helper()
	do(p.a.t, p.ctx, acts...)
}

// pair pairs a phone by a code that is made on the computer.
func (p *profile) pair(name string) {
	t := p.a.t
	t.Helper()
	p.do(chromedp.Navigate(p.a.at("/pair#"+p.a.code(""))), shows("#name"), fill("[name=name]", name), click("form button"), shows("[data-phone]"))
}

// code makes a pairing code on the computer.
func (a *app) code(device string) string {
	a.t.Helper()
	d := answered[wire.Devices](a, "POST", "/api/devices/code", fmt.Sprintf(`{"device": %q}`, device), http.StatusOK)
	if d.Code == nil {
		a.t.Fatal("there is no code")
	}
	return d.Code.Code
}

// devices are the devices that the computer lists.
func (a *app) devices() wire.Devices {
	a.t.Helper()
	return answered[wire.Devices](a, "GET", "/api/devices", "", http.StatusOK)
}

// log is the log of a piece, the oldest first.
func (a *app) log(piece uint) []wire.LogLine {
	a.t.Helper()
	l := answered[wire.PieceLog](a, "GET", fmt.Sprintf("/api/pieces/%d/log", piece), "", http.StatusOK)
	out := make([]wire.LogLine, 0, len(l.Lines))
	for i := len(l.Lines) - 1; i >= 0; i-- {
		out = append(out, l.Lines[i])
	}
	return out
}

// arrived is the log of a piece once it has so many entries, or after a while.
func (a *app) arrived(piece uint, n int) []wire.LogLine {
	a.t.Helper()
	for range 150 {
		if all := a.log(piece); len(all) >= n {
			return all
		}
		time.Sleep(100 * time.Millisecond)
	}
	return a.log(piece)
}

// fill puts a text into a plain field.
func fill(css, text string) act { return set("HTMLInputElement", "input", css, text) }

// says has an expression worked out in the page; promises are waited for.
func says[T any](t testing.TB, ctx context.Context, js string) T {
	t.Helper()
	limited, stop := context.WithTimeout(ctx, 30*time.Second)
	defer stop()
	x, err := chromedp.Run(limited, chromedp.Evaluate[T](js, chromedp.EvalAwaitPromise))
	if err != nil {
		t.Fatalf("%s: %v", js, err)
	}
	return x
}

// An evening's work on a phone, the server gone in the middle of it, and the phone taken off at the end.
func TestAnEveningOutOfReach(t *testing.T) {
	t.Parallel()
	a, _ := startWithAStool(t)
	computer := browser(t, 1280, 800)
	phone := a.phone(true)

	// Paired by the code that the computer shows.
	phone.do(chromedp.Navigate(a.at("/today")), shows("form #code"))
	do(t, computer, chromedp.Navigate(a.url("/devices")), shows("[data-opened]"), click(`[data-do="pair"]`), shows("[data-code] svg path"))
	code := says[string](t, computer, `document.querySelector("[data-code]").dataset.code`)
	phone.do(fill("[name=code]", "AAAA-AAAA"), click("form button"), contains("[data-says]", "not right"), shows("form #code"),
		fill("[name=code]", strings.ToLower(strings.ReplaceAll(code, "-", " "))), fill("[name=name]", "Phone by the window"), click("form button"), shows(`[data-phone="Phone by the window"]`), shows(`[data-offline="ready"]`))
	do(t, computer, shows("[data-device]"), hides("[data-code]"), contains("[data-device]", "Phone by the window"))

	// In reach: what is logged carries the phone's name.
	const today = "[data-today]"
	const piece, zone = 1, "seat"
	phone.do(chromedp.Navigate(a.at("/today")), shows("[data-card]"))
	first := says[string](t, phone.ctx, `document.querySelector("[data-card] [data-title]").innerText`)
	pressed := says[float64](t, phone.ctx, `Date.now()`)
	phone.do(logs(`[data-do="done"]`))
	logged := says[float64](t, phone.ctx, `Date.now()`)
	before := a.log(piece)
	last := before[len(before)-1]
	if last.Entry.By != "Phone by the window" || !strings.Contains(strings.Join(last.How, "; "), "on Phone by the window") {
		t.Errorf("%+v", last)
	}
	phone.took(pressed, "/api/today")
	phone.took(logged, fmt.Sprintf("/api/pieces/%d/log", piece))

	// Out of reach: Today, the log, the cards and the clocks are there; what comes next goes by the plan.
	a.down()
	title := func() string {
		return says[string](t, phone.ctx, `document.querySelector("[data-card] [data-title]").innerText`)
	}
	phone.do(chromedp.Navigate(a.at("/today")), shows("[data-card]"), shows("[data-out-of-reach]"))
	was := title()
	if was == first {
		t.Errorf("out of reach, what was logged is still next: %s", was)
	}
	phone.do(click(`[data-do="done"]`), shows(`[data-waits="1"]`), differs("[data-card] [data-title]", was), contains("[data-card] [data-says]", "By the plan"))
	phone.do(click(`[data-do="note"]`), shows("dialog textarea"), note("no draught here"), chromedp.SetUploadFiles(chromedp.CSS(`input[data-file="log-photo"]`), []string{camera(t)}),
		shows("[data-pictures-wait]"), click(`[data-do="log"]`), hides("dialog"), shows(`[data-waits="2"]`))
	phone.do(chromedp.Navigate(a.at(fmt.Sprintf("/pieces/%d/%s/work", piece, zone))), shows("[data-work]"), shows(`[data-waits="2"]`), shows("[data-entry]"))
	phone.do(chromedp.Navigate(a.at("/pieces/1/seat/mix?coat=5-1&card=lay")), shows("[data-cardscreen]"), click(`[data-do="next"]`))

	// The browser is closed and opened again: all of it is still there.
	phone.stop()
	phone.open()
	phone.do(chromedp.Navigate(a.at("/today")), shows(`[data-waits="2"]`), click("[data-waits] summary"), counts("[data-waiting]", 2), contains("[data-waiting-list]", "no draught here"))

	// Back in reach: everything goes over, once.
	a.up(false)
	phone.do(hides("[data-waits]"), hides("[data-out-of-reach]"))
	after := a.log(piece)
	if n := len(after) - len(before); n != 2 {
		t.Errorf("%d entries arrived: %+v", n, after[len(before):])
	}
	for _, l := range after[len(before):] {
		if l.Entry.By != "Phone by the window" || l.Entry.What == "note" && len(l.Entry.Photos) != 1 {
			t.Errorf("%+v", l.Entry)
		}
	}

	// Taken off: nothing is readable any more, on the phone neither.
	do(t, computer, chromedp.Navigate(a.url("/devices")), click(`[data-do="off"]`), click(`[data-do="remove-now"]`), shows("[data-off]"), hides(`[data-device]:not([data-revoked])`))
	phone.do(chromedp.Navigate(a.at("/today")), shows(`[data-denied="revoked"]`), hides(today))
	if text := says[string](t, phone.ctx, `Promise.all(["/", "/api/pieces", "/api/today", "/api/pieces/1", "/photos/small/x.jpg"].map((u) => fetch(u, {headers: {accept: "application/json"}}).then((r) => r.status + " " + r.headers.get("X-Rutile-Device")))).then((a) => a.slice(1).join())`); strings.Count(text, "401 revoked") != 4 {
		t.Errorf("%s", text)
	}
	if n := says[int](t, phone.ctx, `caches.keys().then((all) => all.filter((c) => c.startsWith("rutile-")).length)`); n != 0 {
		t.Errorf("%d stores of answers are still there", n)
	}
	a.down()
	phone.do(chromedp.Navigate(a.at(fmt.Sprintf("/pieces/%d", piece))), contains("main", "the server does not answer"), hides("[data-zone]"), hides("[data-verdict]"))
	a.up(false)
}

// took waits until the phone has taken answers along that are younger than a moment of its clock.
func (p *profile) took(since float64, paths ...string) {
	p.a.t.Helper()
	for _, path := range paths {
		p.do(chromedp.Func(func(ctx context.Context, tab *chromedp.Target) error {
			deadline := time.Now().Add(20 * time.Second)
			for time.Now().Before(deadline) {
				at, err := chromedp.Evaluate[float64](fmt.Sprintf(`caches.open("rutile-answers").then((c) => c.match(%q)).then((r) => Number(r?.headers.get("X-Kept-At") ?? 0))`, path), chromedp.EvalAwaitPromise)(ctx, tab)
				if err == nil && at >= since {
					return nil
				}
				time.Sleep(50 * time.Millisecond)
			}
			return fmt.Errorf("%s was not taken along", path)
		}))
	}
}

// differs waits until what an element says is something else.
func differs(css, from string) act {
	return chromedp.Func(func(ctx context.Context, tab *chromedp.Target) error {
		return until(ctx, tab, fmt.Sprintf(`(document.querySelector(%q)?.innerText ?? %[2]q) !== %[2]q`, css, from), css+" says something else than "+from)
	})
}

// A phone is lost while it is out of reach: what it had sent stays, what it had not is named when it comes back; paired
// again by somebody who has found it, it sends the rest.
func TestALostPhone(t *testing.T) {
	t.Parallel()
	a, saved := startWithAStool(t)
	phone := a.phone(true)
	phone.pair("Old phone")
	phone.do(shows(`[data-offline="ready"]`), chromedp.Navigate(a.at("/today")), logs(`[data-do="done"]`))
	a.down()
	// At once out of reach, what was logged is not next again.
	says[bool](t, phone.ctx, `(new BroadcastChannel("rutile.log").postMessage("sent"), true)`)
	phone.do(shows("[data-out-of-reach]"), hides(`[data-state="not_begun"]`))
	phone.do(click(`[data-do="note"]`), shows("dialog textarea"), note("left in the yard"), click(`[data-do="log"]`), hides("dialog"), shows(`[data-waits="1"]`))
	phone.stop()
	a.up(false)
	d := a.devices()
	a.call("DELETE", "/api/devices/"+d.Devices[0].ID, "", http.StatusOK)
	phone.open()
	phone.do(chromedp.Navigate(a.at("/today")), shows(`[data-denied="revoked"]`), shows(`[data-unsent="1"]`), contains("[data-waiting-list]", "left in the yard"), hides("[data-card]"))
	if n := len(a.log(saved.ID)); n != 1 {
		t.Errorf("%d entries are in the log", n)
	}
	// Closed and opened, with the computer out of reach and in reach: no piece can be read.
	a.down()
	phone.do(chromedp.Navigate(a.at("/pieces/1/seat/work")), contains("main", "the server does not answer"), hides("[data-entry]"), hides("[data-verdict]"))
	a.up(false)
	phone.do(chromedp.Navigate(a.at("/pair#"+a.code(d.Devices[0].ID)+"&")), shows("form button"), hides("#named:not([hidden])"), click("form button"), shows(`[data-phone="Old phone"]`))
	phone.do(chromedp.Navigate(a.at("/today")), shows("[data-card]"))
	log := a.arrived(saved.ID, 2)
	if len(log) != 2 || log[0].Entry.Device != log[1].Entry.Device || log[0].Entry.Device != d.Devices[0].ID {
		t.Errorf("%+v", log)
	}
}

// The computer gets another address: the phone stays the same device, and what waits at the old address goes over.
func TestAnotherAddress(t *testing.T) {
	t.Parallel()
	a, saved, phone := withAPhone(t)
	phone.do(chromedp.Navigate(a.at("/today")), shows("[data-card]"))
	a.down()
	phone.do(click(`[data-do="done"]`), shows(`[data-waits="1"]`), click(`[data-do="done"]`), shows(`[data-waits="2"]`))

	a.workshop = "127.0.0.2:0"
	a.up(false)
	computer := browser(t, 1280, 800)
	do(t, computer, chromedp.Navigate(a.url("/devices")), shows("[data-moved]"), click(`[data-do="again"]`), shows("[data-code] svg path"))
	d := a.devices()
	phone.do(chromedp.Navigate(d.Code.URL), shows("form button"), click("form button"), shows(`[data-move="fetch"]`), click(`[data-do="move"]`),
		shows(`[data-move="take"]`), contains("[data-move]", a.workshop), click(`[data-do="move"]`), shows(`[data-move="keep"]`), contains("[data-move]", "2 entries"), click(`[data-do="move"]`), hides("[data-move]"))
	phone.do(chromedp.Navigate(a.at("/today")), shows("[data-card]"))
	if log := a.arrived(saved.ID, 2); len(log) != 2 || log[0].Entry.By != "Phone" {
		t.Errorf("%+v", log)
	}
	d = a.devices()
	if len(d.Devices) != 1 || d.Devices[0].Moved {
		t.Errorf("%+v", d.Devices)
	}
	// An address that somebody made up takes nothing anywhere.
	for _, to := range []string{"http://127.0.0.9:1", "javascript:alert(1)", "https://127.0.0.2:1/path"} {
		phone.do(chromedp.Navigate("about:blank"), chromedp.Navigate(a.at("/phone#to="+url.QueryEscape(to))), shows("[data-phone]"), hides("[data-move]"))
	}
}

// A plan is changed on the phone out of reach, and on the computer meanwhile: the painter chooses, as with a second tab.
func TestAPlanChangedInTwoPlaces(t *testing.T) {
	t.Parallel()
	a, was, phone := withAPhone(t)
	a.down()
	phone.do(chromedp.Navigate(a.at("/pieces/1/seat/plan")), shows(`[data-row="3"]`), click(`[data-row="3"]`), click(`[data-do="remove"]`), shows(`[data-save="unsent"][data-kept="yes"]`), shows("[data-stale]"), contains("[data-out-of-reach]", "new verdicts wait for the computer"))
	a.up(false)
	a.call("PUT", "/api/pieces/1", strings.Replace(stool, `"name": "Stool"`, `"name": "Stool by the door"`, 1), http.StatusOK, "If-Match", `"1"`)
	phone.do(shows(`[data-elsewhere="conflict"]`), contains("[data-elsewhere]", "Stool by the door"), click(`[data-do="keep-mine"]`), saved())
	if got := a.stored("1").Piece; len(got.Zones[0].Steps) != len(was.Piece.Zones[0].Steps)-1 {
		t.Errorf("%d steps are kept", len(got.Zones[0].Steps))
	}
}

// The phone's storage is full: it says so, gives up what it took along before what waits, and sends it all the same.
func TestAFullPhone(t *testing.T) {
	t.Parallel()
	a, saved, phone := withAPhone(t)
	phone.do(chromedp.Navigate(a.at("/today")), shows("[data-card]"))
	a.down()
	quota := func(bytes int) act {
		return chromedp.Func(func(ctx context.Context, tab *chromedp.Target) error {
			return tab.Call(ctx, "Storage.overrideQuotaForOrigin", map[string]any{"origin": a.at(""), "quotaSize": bytes}, nil)
		})
	}
	phone.do(quota(1), click(`[data-do="done"]`), shows(`[data-waits="1"]`), shows("[data-no-room]"))
	a.up(false)
	phone.do(hides("[data-waits]"), hides("[data-no-room]"))
	if log := a.log(saved.ID); len(log) != 1 {
		t.Errorf("%+v", log)
	}
}

// overlay is a page of which some files are others.
type overlay struct {
	fs.FS
	files fstest.MapFS
}

func (o overlay) Open(name string) (fs.File, error) {
	if f, err := o.files.Open(name); err == nil {
		return f, nil
	}
	return o.FS.Open(name)
}

// A newer page comes while something waits: it is used when the painter says so, and what waits is still there.
func TestANewerPage(t *testing.T) {
	t.Parallel()
	a, _, phone := withAPhone(t)
	var busy atomic.Bool
	a.refuse = func(r *http.Request) int {
		if busy.Load() && r.Method == "POST" && strings.HasSuffix(r.URL.Path, "/log") {
			return http.StatusServiceUnavailable
		}
		return 0
	}
	busy.Store(true)
	phone.do(chromedp.Navigate(a.at("/today")), click(`[data-do="done"]`), shows(`[data-waits="1"]`))
	read := func(name string) string {
		b, err := fs.ReadFile(web.Dist(), name)
		if err != nil {
			t.Fatal(err)
		}
		return string(b)
	}
	worker := regexp.MustCompile("(url:[`\"]/index.html[`\"],revision:[`\"])[0-9a-f]+").ReplaceAllString(read("sw.js"), "${1}0123")
	if worker == read("sw.js") {
		t.Fatal("the service worker does not list the page")
	}
	a.down()
	a.page = overlay{web.Dist(), fstest.MapFS{"sw.js": {Data: []byte(worker)}, "index.html": {Data: []byte(strings.Replace(read("index.html"), "<body>", `<body data-newer="">`, 1))}}}
	a.up(false)
	phone.do(chromedp.Navigate(a.at("/phone")), shows(`[data-do="update"]`), hides("[data-newer]"), shows(`[data-waits="1"]`), click(`[data-do="update"]`), shows("[data-newer]"), shows(`[data-waits="1"]`))
	busy.Store(false)
	phone.do(hides("[data-waits]"))
	if log := a.log(1); len(log) != 1 {
		t.Errorf("%+v", log)
	}
}

// The folder is brought back from a copy: the phone says so, keeps what waits, and goes on once it is let in again. What
// it had logged about a piece that the copy does not have goes to no other piece of the same number.
func TestTheFolderFromACopy(t *testing.T) {
	t.Parallel()
	a := startWorkshop(t, false)
	phone := a.phone(true)
	phone.pair("Phone")
	phone.do(shows(`[data-offline="ready"]`))
	a.down()
	copied := t.TempDir()
	if err := os.CopyFS(copied, os.DirFS(a.dir)); err != nil {
		t.Fatal(err)
	}
	a.up(false)
	a.call("POST", "/api/pieces", stool, http.StatusCreated)
	phone.do(chromedp.Navigate(a.at("/phone")), shows(`[data-offline="ready"]`), chromedp.Navigate(a.at("/today")), shows("[data-card]"))
	a.down()
	phone.do(click(`[data-do="done"]`), shows(`[data-waits="1"]`))

	a.dir = copied
	a.up(false)
	saved := answered[wire.Saved](a, "POST", "/api/pieces", strings.Replace(stool, `"name": "Stool"`, `"name": "Another"`, 1), http.StatusCreated)
	phone.do(shows(`[data-denied="held"]`), shows(`[data-unsent="1"]`))
	computer := browser(t, 1280, 800)
	do(t, computer, chromedp.Navigate(a.url("/devices")), shows("[data-held]"), click(`[data-do="let-in"]`), hides("[data-held]"))
	phone.do(chromedp.Navigate(a.at("/today")), shows("[data-card]"), shows("[data-refused]"), contains("[data-refused]", "another one here"))
	if log := a.log(saved.ID); saved.ID != 1 || len(log) != 0 {
		t.Errorf("piece %d: %+v", saved.ID, log)
	}
}

// A browser that does not trust the computer says that it works in reach only, and how to change that.
func TestAPhoneThatDoesNotTrust(t *testing.T) {
	t.Parallel()
	a := startWorkshop(t, false)
	// Without the authority a browser stops before anything is shown.
	stranger := a.phone(false)
	limited, stop := context.WithTimeout(stranger.ctx, 30*time.Second)
	defer stop()
	if err := chromedp.Do(limited, chromedp.Navigate(a.at("/pair"))); err == nil || !strings.Contains(err.Error(), "ERR_CERT_AUTHORITY_INVALID") {
		t.Errorf("%v", err)
	}
	// A person goes on all the same; the browser then lets no service worker in. That is what is played here.
	phone := a.phone(true)
	phone.do(chromedp.Func(func(ctx context.Context, tab *chromedp.Target) error {
		return tab.Call(ctx, "Page.addScriptToEvaluateOnNewDocument", map[string]any{"source": `ServiceWorkerContainer.prototype.register = () => Promise.reject(new DOMException("An SSL certificate error occurred", "SecurityError"));`}, nil)
	}))
	phone.pair("Phone")
	phone.do(shows(`[data-offline="untrusted"]`), shows("[data-install]"), contains("[data-install]", a.authority.Fingerprint()), contains("[data-install]", a.authority.Name()))
	if got := says[string](t, phone.ctx, `fetch("/authority.crt").then((r) => r.status + " " + r.headers.get("Content-Type"))`); got != "200 application/x-x509-ca-cert" {
		t.Error(got)
	}
	// In reach it works as anywhere.
	a.call("POST", "/api/pieces", stool, http.StatusCreated)
	phone.do(chromedp.Navigate(a.at("/today")), logs(`[data-do="done"]`))
}

// The screens that only a phone has.
func TestScreensOfAPhone(t *testing.T) {
	t.Parallel()
	a, _ := startWithAStool(t)
	phone := a.phone(true)
	audit := auditor(t, phone.ctx)
	look := func(name string, acts ...act) {
		t.Helper()
		phone.do(acts...)
		for _, w := range []int64{390, 1280} {
			phone.do(chromedp.EmulateViewport(w, 844))
			fits(t, phone.ctx, fmt.Sprintf("%s, %d px wide,", name, w))
		}
		phone.do(chromedp.EmulateViewport(390, 844))
	}
	// The pairing page lets no script in, not even that of a test.
	look("pairing", chromedp.Navigate(a.at("/pair")), shows("form button"))
	phone.pair("Phone by the window")
	look("this device", shows(`[data-offline="ready"]`))
	audit("this device")
	a.down()
	look("Today out of reach", chromedp.Navigate(a.at("/today")), shows("[data-card]"), click(`[data-do="done"]`), shows(`[data-waits="1"]`), click("[data-waits] summary"))
	audit("Today out of reach")
	look("a plan out of reach", chromedp.Navigate(a.at("/pieces/1/seat/plan")), shows("[data-row]"))
	audit("a plan out of reach")
	phone.do(chromedp.Navigate("about:blank"))
	a.up(false)
	d := a.devices()
	a.call("DELETE", "/api/devices/"+d.Devices[0].ID, "", http.StatusOK)
	look("a device that was taken off", chromedp.Navigate(a.at("/today")), shows(`[data-denied="revoked"]`))
	audit("a device that was taken off")
}

// Clocks go on without the computer: one that a card starts, one that is stopped, as they would have.
func TestClocksOutOfReach(t *testing.T) {
	t.Parallel()
	a, _ := startWithAStool(t)
	a.call("POST", "/api/clocks", `{"id": "kettle", "kind": "own", "need_s": 1800, "for": "Kettle"}`, http.StatusOK)
	phone := a.phone(true)
	phone.pair("Phone")
	phone.do(shows(`[data-offline="ready"]`), shows("[data-strip-clocks]"))
	a.down()
	phone.do(chromedp.Navigate(a.at("/clocks")), shows(`[data-clock="kettle"]`), click(`li[data-clock="kettle"] [data-do="stop"]`), click(`li[data-clock="kettle"] [data-do="stop"]`), hides(`li[data-clock="kettle"]`))
	phone.do(chromedp.Navigate(a.at("/pieces/1/seat/mix?coat=5-1&card=lay")), shows("[data-cardscreen]"))
	for n := 1; !says[bool](t, phone.ctx, `!!document.querySelector("[data-leaf-now] [data-start]")`); n++ {
		phone.do(shows(fmt.Sprintf(`[data-at="%d"]`, n)), click(`[data-do="next"]`), shows(fmt.Sprintf(`[data-at="%d"]`, n+1)))
	}
	phone.do(click("[data-leaf-now] [data-start]"), shows("[data-started]"), chromedp.Navigate(a.at("/clocks")), counts("li[data-clock]", 1))
	time.Sleep(2 * time.Second)
	a.up(false)
	phone.do(chromedp.Navigate(a.at("/clocks")), hides("[data-out-of-reach]"), counts("li[data-clock]", 1))
	var all wire.Clocks
	deadline := time.Now().Add(15 * time.Second)
	for len(all.Clocks) != 1 || all.Clocks[0].ID == "kettle" {
		if time.Now().After(deadline) {
			t.Fatalf("%+v", all.Clocks)
		}
		time.Sleep(100 * time.Millisecond)
		all = answered[wire.Clocks](a, "GET", "/api/clocks", "", http.StatusOK)
	}
	if c := all.Clocks[0]; c.TotalS-c.LeftS < 2 {
		t.Errorf("it began anew: %+v", c)
	}
}
