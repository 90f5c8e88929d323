package e2e

import (
	"context"
	"fmt"
	"math/rand/v2"
	"net/http"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/chromedp"

	"rutile/internal/wire"
)

// An entry's time is that of the clock it was made by, whatever that clock shows when it is sent.
func TestTimesOfAClockThatIsOff(t *testing.T) {
	t.Parallel()
	ctx := modules(t)
	const (
		year   = 366 * 24 * time.Hour
		minute = time.Minute
	)
	contact := time.Date(2026, 11, 24, 8, 0, 0, 0, time.UTC) // the last answer before
	logged, sent := contact.Add(3*time.Hour), contact.Add(10*time.Hour)
	for _, x := range []struct {
		what      string
		then, now time.Duration // how far the device's clock was ahead when the entry was made, and is when it is sent
		stale     bool          // it was put right after the last answer and before the entry was made
	}{
		{"a clock that is right", 0, 0, false},
		{"one that is a year behind, before and after", -year, -year, false},
		{"one that is a year ahead, before and after", year, year, false},
		{"one a year behind, put right before it is sent", -year, 0, false},
		{"one a year ahead, put right before it is sent", year, 0, false},
		{"one a year behind, put right before the entry was made", 0, 0, true},
		{"one set a year ahead after the entry", 0, year, false},
		{"one that is a minute off", minute, 0, false},
	} {
		made := logged.Add(x.then)
		known := x.then
		if x.stale {
			known = -year
		}
		ms := func(t time.Time) int64 { return t.UnixMilli() }
		got := ask[string](t, ctx, fmt.Sprintf(`modules.righted(%q, %d, {off: %d, at: %d}, {off: %d, at: %d})`,
			made.Format(time.RFC3339Nano), ms(made), -known.Milliseconds(), ms(contact), -x.now.Milliseconds(), ms(sent)))
		at, err := time.Parse(time.RFC3339Nano, got)
		if err != nil {
			t.Fatal(err)
		}
		// The server takes off what the device's clock is off now.
		if off := at.Add(-x.now).Sub(logged); off.Abs() > 2*time.Minute {
			t.Errorf("%s: %v off", x.what, off)
		}
	}
	// Without an answer before there is nothing to go by.
	if got := ask[string](t, ctx, `modules.righted("2026-11-24T11:00:00Z", 5, undefined, {off: 1e9, at: 5})`); got != "2026-11-24T11:00:00Z" {
		t.Error(got)
	}
}

// What comes next goes on by the plan while entries wait, and back when one is taken back.
func TestOnward(t *testing.T) {
	t.Parallel()
	ctx := modules(t)
	const item = `{piece_id: 1, zone_id: "seat", piece: "Stool", zone: "Seat", past: 2, steps: 5, begun: true, open: [{step: 2, title: "dust"}], fails: "x", created: "",
		due: {state: "ready", now: "", step: 3, coat: 1, of: 2, title: "Paint 1", says: "now"},
		then: [{state: "ahead", now: "", step: 3, coat: 2, of: 2, title: "Paint 2", says: "after 2 h"}, {state: "ahead", now: "", step: 4, title: "Sand", says: "after 4 h"}, {state: "ahead", now: "", step: 5, coat: 1, of: 1, title: "Clear", says: "right after"}]}`
	entry := func(id, what string, step, coat int) string {
		return fmt.Sprintf(`{n: 1, piece: 1, written: 0, entry: {id: %q, at: "2026-11-24T10:00:00Z", what: %q, zone: "seat", planned: {step: %d, coat: %d || undefined}}}`, id, what, step, coat)
	}
	next := func(waiting string) wire.TodayItem {
		return ask[wire.TodayItem](t, ctx, fmt.Sprintf(`modules.onward(%s, [%s])`, item, waiting))
	}
	for _, x := range []struct {
		waiting, state string
		step, coat     int
		past           int
	}{
		{"", "ready", 3, 1, 2},
		{entry("a", "began", 3, 1), "working", 3, 1, 2},
		{entry("a", "done", 3, 1), "ahead", 3, 2, 2},
		{entry("a", "done", 3, 0), "ahead", 4, 0, 3}, // the step as a whole
		{entry("a", "done", 3, 1) + "," + entry("b", "done", 3, 2), "ahead", 4, 0, 3},
		{entry("a", "done", 3, 1) + "," + entry("b", "done", 3, 2) + "," + entry("c", "skipped", 4, 0), "ahead", 5, 1, 4},
		{entry("a", "done", 3, 1) + "," + entry("b", "began", 3, 2), "working", 3, 2, 2},
		{entry("a", "done", 3, 1) + `, {n: 2, piece: 1, written: 0, entry: {id: "v", at: "", what: "done", zone: "seat", void: true, corrects: "a"}}`, "ready", 3, 1, 2},
		{`{n: 1, piece: 1, written: 0, refused: "no", entry: {id: "a", at: "", what: "done", zone: "seat", planned: {step: 3, coat: 1}}}`, "ready", 3, 1, 2},
		{`{n: 1, piece: 2, written: 0, entry: {id: "a", at: "", what: "done", zone: "seat", planned: {step: 3, coat: 1}}}`, "ready", 3, 1, 2},
		{entry("a", "note", 0, 0), "ready", 3, 1, 2},
	} {
		got := next(x.waiting)
		if got.Due.State != x.state || got.Due.Step != x.step || got.Due.Coat != x.coat || got.Past != x.past {
			t.Errorf("%s\n%+v", x.waiting, got)
		}
	}
	all := entry("a", "done", 3, 0) + "," + entry("b", "done", 4, 0) + "," + entry("c", "done", 5, 0)
	if got := next(all); got.Due.Step != 0 || got.Due.State != "ahead" || got.Due.Says == "" {
		t.Errorf("all done: %+v", got)
	}
	if got := next(entry("a", "skipped", 2, 0)); len(got.Open) != 0 || got.Due.Step != 3 {
		t.Errorf("an open step: %+v", got)
	}
}

// Clocks that were started, silenced and stopped out of reach, over those that were there.
func TestClocksThatWait(t *testing.T) {
	t.Parallel()
	ctx := modules(t)
	const there = `[{id: "a", left_s: 60, name: "A", touches: []}, {id: "b", left_s: -5, name: "B", touches: []}]`
	got := ask[[]wire.Clock](t, ctx, fmt.Sprintf(`modules.withDoing(%s, performance.now(), [
		{n: 1, at: Date.now() - 10000, do: "start", id: "c", name: "Rest", seconds: 40, clock: {id: "c", kind: "rest", for: "Paint"}},
		{n: 2, at: 0, do: "stop", id: "a"}, {n: 3, at: 0, do: "silence", id: "b"},
		{n: 4, at: Date.now(), do: "start", id: "d", name: "D", seconds: 5, clock: {id: "d", kind: "rest"}}, {n: 5, at: 0, do: "stop", id: "d"}])`, there))
	if len(got) != 2 || got[0].ID != "b" || !got[0].Silent || got[1].ID != "c" || got[1].LeftS < 28 || got[1].LeftS > 30.5 || got[1].Name != "Rest" || got[1].For != "Paint" {
		t.Errorf("%+v", got)
	}
	// One that the server has no room for runs on here, and says so.
	got = ask[[]wire.Clock](t, ctx, `modules.withDoing([], performance.now(), [{n: 1, at: Date.now(), do: "start", id: "c", name: "Rest", seconds: 40, refused: "200 clocks run already.", clock: {id: "c", kind: "rest"}}])`)
	if len(got) != 1 || !strings.Contains(got[0].Said, "200 clocks") {
		t.Errorf("%+v", got)
	}
}

// A clock rings by a notification while the page is not seen; through the service worker, as phones want it.
func TestAClockRingsOnThePhone(t *testing.T) {
	t.Parallel()
	a := startWorkshop(t, false)
	phone := a.phone(true)
	phone.do(chromedp.Func(func(ctx context.Context, tab *chromedp.Target) error {
		return tab.Call(ctx, "Page.addScriptToEvaluateOnNewDocument", map[string]any{"source": `
			window.shown = [];
			Object.defineProperty(Notification, "permission", {get: () => "granted"});
			ServiceWorkerRegistration.prototype.showNotification = async function (title, o) { window.shown.push(title + ": " + o.body); };
			Object.defineProperty(document, "visibilityState", {get: () => window.unseen ? "hidden" : "visible"});
			navigator.wakeLock.request = async () => { window.awake = (window.awake ?? 0) + 1; return new class extends EventTarget { async release() { window.awake--; } }(); };`}, nil)
	}))
	phone.pair("Phone")
	phone.do(shows(`[data-offline="ready"]`), shows(`[data-ringer="granted"]`), click(of("awake")))
	if n := says[int](t, phone.ctx, `window.awake ?? 0`); n != 1 {
		t.Errorf("the screen is kept on %d times", n)
	}
	a.call("POST", "/api/clocks", `{"id": "rest", "kind": "own", "need_s": 4, "for": "Paint rests"}`, http.StatusOK)
	phone.do(chromedp.Navigate(a.at("/clocks")), shows(`[data-clock="rest"]`))
	says[bool](t, phone.ctx, `(window.unseen = true)`)
	phone.do(chromedp.Func(func(ctx context.Context, tab *chromedp.Target) error {
		return until(ctx, tab, `window.shown.some((s) => s.includes("Paint rests"))`, "a notification")
	}))
}

// BenchmarkLoadOnADevice loads Today from nothing, over the listener for this computer and over the one for devices; and
// once more, from the server with what the browser has kept, and from the service worker.
func BenchmarkLoadOnADevice(b *testing.B) {
	a := startWorkshop(b, true)
	phone := a.phone(true)
	phone.pair("Phone")
	phone.do(shows(`[data-offline="ready"]`), slowed(4), network("enable", nil), chromedp.Func(func(ctx context.Context, tab *chromedp.Target) error {
		return tab.Call(ctx, "Page.addScriptToEvaluateOnNewDocument", map[string]any{"source": drawnAt}, nil)
	}))
	b.Run("first", func(b *testing.B) {
		benchLoads(b, phone, loading{"computer", a.url, false, true}, loading{"device", a.at, false, true})
	})
	b.Run("again", func(b *testing.B) {
		benchLoads(b, phone, loading{"server", a.at, false, false}, loading{"worker", a.at, true, false})
	})
}

// loading is a way to load a page: from where, through the service worker or not, with what the browser has kept or not.
type loading struct {
	name          string
	url           func(string) string
	worker, fresh bool
}

// benchLoads times two ways to load Today in turn, and reports their medians and the second over the first.
func benchLoads(b *testing.B, phone *profile, ways ...loading) {
	times := make([][]float64, len(ways))
	for b.Loop() {
		for i, w := range ways {
			// From another page of the same site, so that no process is started.
			acts := []act{chromedp.Navigate(w.url("/clocks")), shows("[data-clocks]"), network("setBypassServiceWorker", map[string]any{"bypass": !w.worker})}
			if w.fresh {
				acts = append(acts, network("clearBrowserCache", nil))
			}
			phone.do(append(acts, chromedp.Navigate(w.url("/today")), chromedp.Func(func(ctx context.Context, tab *chromedp.Target) error {
				return until(ctx, tab, `window.drawn > 0`, "Today")
			}))...)
			times[i] = append(times[i], says[float64](b, phone.ctx, `window.drawn`))
		}
	}
	median := make([]float64, len(ways))
	for i, all := range times {
		slices.Sort(all)
		median[i] = all[len(all)/2]
		b.ReportMetric(median[i], "ms-"+ways[i].name)
	}
	b.ReportMetric(median[1]/median[0], "ratio")
	b.ReportMetric(0, "ns/op")
}

// network tells the browser something about its network.
func network(what string, params any) act {
	return chromedp.Func(func(ctx context.Context, tab *chromedp.Target) error {
		return tab.Call(ctx, "Network."+what, params, nil)
	})
}

// The page is closed in the middle of sending, again and again: each entry counts once, and none is lost.
func TestAPageClosedWhileItSends(t *testing.T) {
	t.Parallel()
	times, each := 100, 10
	if testing.Short() {
		times = 3
	}
	a, saved := startWithAStool(t)
	a.refuse = func(r *http.Request) int {
		if r.Method == "POST" && strings.HasSuffix(r.URL.Path, "/log") {
			time.Sleep(60 * time.Millisecond)
		}
		return 0
	}
	phone := a.phone(true)
	phone.pair("Phone")
	phone.do(shows(`[data-offline="ready"]`))
	pause := rand.New(rand.NewPCG(25, 2))
	for k := range times {
		says[bool](t, phone.ctx, fmt.Sprintf(`new Promise((done, failed) => {
			const open = indexedDB.open("rutile", 1);
			open.onerror = failed;
			open.onsuccess = () => {
				const tx = open.result.transaction("log", "readwrite");
				for (let i = 0; i < %[2]d; i++) tx.objectStore("log").put({n: %[1]d * 1000 + i, piece: %[3]d, created: %[4]q, written: Date.now(), entry: {id: "k%[1]d-" + i, at: new Date().toISOString(), what: "note", note: String(i)}});
				tx.oncomplete = () => { open.result.close(); done(true); };
				tx.onerror = failed;
			};
		})`, k, each, saved.ID, saved.Created.Format(time.RFC3339Nano)))
		phone.do(chromedp.Navigate(a.at("/today")))
		time.Sleep(time.Duration(pause.Int64N(int64(700 * time.Millisecond))))
		phone.do(chromedp.Navigate(a.at("/licences.txt"))) // of the same site, and no page that sends
	}
	inTime := len(a.log(saved.ID))
	phone.do(chromedp.Navigate(a.at("/today")), shows("[data-card]"))
	log := a.arrived(saved.ID, times*each)
	seen := map[string]bool{}
	for _, l := range log {
		seen[l.Entry.ID] = true
	}
	if len(log) != times*each || len(seen) != times*each {
		t.Errorf("%d entries, %d of them different, of %d", len(log), len(seen), times*each)
	}
	t.Logf("closed %d times; %d of %d entries were there by then", times, inTime, times*each)
}
