package e2e

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"image"
	"image/color"
	"image/jpeg"
	"net/http"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"sync/atomic"
	"testing"
	"time"

	"github.com/chromedp/chromedp"

	"rutile/internal/wire"
)

// lapse is the application with a clock that a test turns: the server's, and that of the browser.
type lapse struct {
	*app
	t    *testing.T
	ns   atomic.Int64
	tabs []context.Context
}

func startLapse(t *testing.T) *lapse {
	t.Helper()
	l := &lapse{t: t}
	l.ns.Store(noon.UnixNano())
	l.app = unstarted(t)
	l.now = func() time.Time { return time.Unix(0, l.ns.Load()).UTC() }
	l.begin(false)
	return l
}

// tab opens a browser whose clock shows the same as the server's.
func (l *lapse) tab(width, height int) context.Context {
	ctx := browser(l.t, width, height)
	l.tabs = append(l.tabs, ctx)
	do(l.t, ctx, chromedp.Func(func(ctx context.Context, tab *chromedp.Target) error {
		return tab.Call(ctx, "Page.addScriptToEvaluateOnNewDocument", map[string]any{"source": `(() => {
			const Real = Date;
			const ahead = () => globalThis.lapse === undefined ? 0 : globalThis.lapse - globalThis.lapseAt;
			globalThis.Date = class extends Real {
				constructor(...a) { if (a.length) super(...a); else super(Real.now() + ahead()); }
				static now() { return Real.now() + ahead(); }
			};
			globalThis.realNow = Real.now;
		})()`}, nil)
	}))
	l.told(ctx)
	return ctx
}

// told tells a browser what the server's clock shows, from its next page on.
func (l *lapse) told(ctx context.Context) {
	do(l.t, ctx, chromedp.Func(func(ctx context.Context, tab *chromedp.Target) error {
		return tab.Call(ctx, "Page.addScriptToEvaluateOnNewDocument", map[string]any{"source": fmt.Sprintf("globalThis.lapse = %d; globalThis.lapseAt = %d;", l.now().UnixMilli(), time.Now().UnixMilli())}, nil)
	}))
}

// pass lets time pass, and opens a page anew: whatever was on the screen is gone, and must be there again.
func (l *lapse) pass(ctx context.Context, d time.Duration, path, wait string) {
	l.t.Helper()
	l.ns.Add(int64(d))
	for _, x := range l.tabs {
		l.told(x)
	}
	do(l.t, ctx, chromedp.Navigate(l.url(path)), shows(wait))
}

func (l *lapse) post(path string, body any) []byte {
	l.t.Helper()
	b, err := json.Marshal(body)
	if err != nil {
		l.t.Fatal(err)
	}
	r, err := http.Post(l.url(path), "application/json", bytes.NewReader(b))
	if err != nil {
		l.t.Fatal(err)
	}
	defer r.Body.Close()
	var out bytes.Buffer
	if _, err := out.ReadFrom(r.Body); err != nil || r.StatusCode >= 300 {
		l.t.Fatalf("%d %s %v", r.StatusCode, out.String(), err)
	}
	return out.Bytes()
}

func (l *lapse) due() wire.Due {
	l.t.Helper()
	r, err := http.Get(l.url("/api/today"))
	if err != nil {
		l.t.Fatal(err)
	}
	defer r.Body.Close()
	var t wire.Today
	if err := json.NewDecoder(r.Body).Decode(&t); err != nil || len(t.Items) == 0 {
		l.t.Fatalf("%+v %v", t, err)
	}
	return t.Items[0].Due
}

// state waits until the open card is of a step in a state.
func state(s, title string) act {
	return chromedp.Func(func(ctx context.Context, tab *chromedp.Target) error {
		js := fmt.Sprintf(`(() => {
			const card = document.querySelector("[data-card]");
			return card?.closest("[data-state]")?.dataset.state === %q && card.querySelector("[data-title]").textContent.includes(%q);
		})()`, s, title)
		return until(ctx, tab, js, title+" "+s)
	})
}

const stool = `{"format": "rutile/piece", "version": 1, "name": "Stool", "made": 2005, "use": ["indoor"],
	"take_apart": [{"kind": "knob", "count": 2, "where": "front", "zone": "seat"}],
	"zones": [{"id": "seat", "name": "Seat", "substrate": "beech", "finish": "varnish_oil", "gloss": "satin", "colour": "#6b4a2b", "soils": [], "area_m2": 0.8, "wear": "display",
		"target": {"colour": "#c9d2c4", "sheen": "matt", "look": "chippy"},
		"steps": [{"do": "clean", "with": "detergent", "rinse": true}, {"do": "abrade", "grit": 220, "how": "hand"}, {"do": "dust"},
			{"do": "coat", "product": "shellac_clear", "scope": "spots", "wait_h": 0.3, "method": "brush"}, {"do": "coat", "product": "paint_milk", "coats": 2, "method": "brush"},
			{"do": "effect", "effect": "chippy"}, {"do": "dust"}, {"do": "wait", "hours": 48},
			{"do": "coat", "product": "shellac_clear", "method": "brush"}, {"do": "coat", "product": "clear_wb", "coats": 2, "sheen": "matt", "method": "brush"}]}]}`

// logs presses what logs something, and waits until the server has it.
func logs(css string) act {
	return chromedp.Func(func(ctx context.Context, tab *chromedp.Target) error {
		const last = `document.querySelector("[data-logged]")?.dataset.logged ?? ""`
		before, err := chromedp.Evaluate[string](last)(ctx, tab)
		if err != nil {
			return err
		}
		if _, err := click(css)(ctx, tab); err != nil {
			return err
		}
		return until(ctx, tab, fmt.Sprintf(`![%q, ""].includes(%s)`, before, last), "something that was logged")
	})
}

// A flaking piece from the first wash to putting back, in time-lapse, on a phone.
func TestAFlakingPieceInTimeLapse(t *testing.T) {
	t.Parallel()
	l := startLapse(t)
	l.post("/api/pieces", json.RawMessage(stool))
	ctx := l.tab(390, 844)
	const today, card = "/today", "[data-card]"
	done := []act{logs(`[data-do="done"]`)}

	// Begun, and the page opened anew: it is still being worked on.
	do(t, ctx, chromedp.Navigate(l.url(today)), shows(`[data-group="later"]`), state("not_begun", "Detergent wash"), click(`[data-do="start"]`), state("working", "Detergent wash"))
	l.pass(ctx, 20*time.Minute, today, card)
	do(t, ctx, state("working", "Detergent wash"))
	do(t, ctx, done...)
	do(t, ctx, state("waiting", "Sand with 220"))
	l.pass(ctx, 4*time.Hour, today, card)
	do(t, ctx, state("ready", "Sand with 220"))
	do(t, ctx, done...)
	do(t, ctx, state("ready", "Dust off"))
	do(t, ctx, done...)
	do(t, ctx, state("ready", "Clear shellac"))
	// A mistake: it was not done yet. Taken back, it is next again.
	do(t, ctx, done...)
	do(t, ctx, state("waiting", "Milk paint"), click(`[data-do="undo"]`), state("ready", "Clear shellac"))
	do(t, ctx, done...)
	do(t, ctx, state("waiting", "Milk paint"))

	// The tack is timed by a clock, and by the card.
	tacky := time.Until(wire.Instant(l.due().To)) + time.Since(l.now())
	if tacky < 5*time.Minute || tacky > 3*time.Hour {
		t.Fatalf("tacky for %v", tacky)
	}
	do(t, ctx, shows(`[data-strip-clocks]`))
	l.pass(ctx, tacky*9/10, today, card)
	do(t, ctx, state("closing", "Milk paint"), contains("[data-says]", "while it is tacky"))
	do(t, ctx, done...)

	// It is colder than planned: the same coat takes longer.
	warm := l.due().From
	do(t, ctx, click(`[data-do="air"]`), shows(of("air-temp")), put("air-temp", "9"), put("air-rh", "70"), click(`[data-do="save-air"]`), hides("dialog"), contains(`[data-do="air"]`, "9 °C"))
	if cold := l.due().From; cold <= warm {
		t.Errorf("in the cold the second coat comes %s, in the warm %s", cold, warm)
	}
	do(t, ctx, state("waiting", "Milk paint"))
	l.pass(ctx, 30*time.Hour, today, card)
	do(t, ctx, state("ready", "Milk paint"))
	do(t, ctx, done...)
	l.pass(ctx, 12*time.Hour, today, card)

	// Not quite as planned: warmed, what is seen, a photograph; nothing is typed.
	do(t, ctx, state("ready", "Chippy"), click(`[data-do="otherwise"]`), shows("[data-otherwise]"), click(`[data-chip="heat"]`), click("details summary"), click(`[data-scale="chips"] [data-level="3"]`),
		chromedp.SetUploadFiles(chromedp.CSS(`input[data-file="log-photo"]`), []string{camera(t)}), shows(`dialog img`), click(`[data-do="log"]`), hides("dialog"), shows("[data-logged]"))
	do(t, ctx, state("ready", "Dust off"))
	do(t, ctx, done...)
	l.pass(ctx, 50*time.Hour, today, card)
	do(t, ctx, state("ready", "Clear shellac"))
	do(t, ctx, done...)

	l.pass(ctx, 5*time.Hour, today, card)
	do(t, ctx, state("ready", "Water-based clear"))
	do(t, ctx, done...)

	// Three days later the clear has hardened: too late for the next coat without a scuff. It is said, and what to do.
	l.pass(ctx, 72*time.Hour, today, card)
	do(t, ctx, state("missed", "Water-based clear"), contains("[data-says]", "scuff it first"))
	// It is laid all the same; the plan says what is wrong with it, and it is taken back.
	do(t, ctx, done...)
	do(t, ctx, chromedp.Navigate(l.url("/pieces/1/seat/plan")), shows(`[data-done="2"]`), shows(`[data-code="adhesion.missed_window"]`))
	do(t, ctx, chromedp.Navigate(l.url("/pieces/1/seat/work")), shows("[data-work]"), click(`[data-entry]:first-child [data-do="take-back"]`), click(`[data-entry]:first-child [data-do="take-back"]`), contains("[data-card] [data-says]", "scuff it first"))
	// The fix puts a scuff before it, and leaves what was done alone.
	do(t, ctx, chromedp.Navigate(l.url("/pieces/1/seat/plan")), shows(`[data-code="adhesion.missed_window"] [data-repair]`), click(`[data-code="adhesion.missed_window"] [data-repair]`), shows(`[data-row="11"][data-is="abrade"]`), saved(),
		chromedp.Navigate(l.url(today)), shows(card), state("ready", "Sand"))
	for range 5 { // scuff, dust, coat, and whatever the fix put between
		if l.due().State == "hardening" {
			break
		}
		do(t, ctx, done...)
		l.pass(ctx, 3*time.Hour, today, card)
	}
	do(t, ctx, state("hardening", "All steps are done"))

	// It goes back together once it is hard, and is handed over.
	do(t, ctx, click(`[data-do="put-back"]`), shows("[data-back]"), contains("[data-back]", "from"))
	l.pass(ctx, 20*24*time.Hour, "/pieces/1/seat/work", "[data-back]")
	do(t, ctx, contains("[data-back]", "may go back now"), click(`[data-do="back"]`), contains("[data-back]", "It is back"), click(`[data-do="hand-over"]`), shows("[data-finished]"),
		click(`[data-do="look-back"]`), shows("[data-look-back]"), shows("[data-compare]"), contains("[data-look-back]", "of work where"))
	// It is found again, and its plan used for another.
	do(t, ctx, chromedp.Navigate(l.url("/")), shows("[data-zone]"), contains("main", "Handed over"))
	l.post("/api/pieces", json.RawMessage(strings.Replace(stool[:strings.Index(stool, `"steps"`)]+`"steps": []}]}`, "Stool", "Bench", 1)))
	do(t, ctx, chromedp.Navigate(l.url("/pieces/2/seat/plan")), shows("[data-add]"), click(`[data-do="like"]`), click(`[data-like="1/seat"]`), shows(`[data-use="sound"], [data-use="watch"]`), click(`[data-do="use"]`), shows(`[data-row="5"][data-is="paint_milk"]`), saved())
}

// note types into the note of an entry.
func note(text string) act { return set("HTMLTextAreaElement", "input", "log-note", text) }

// camera is a photograph as a phone takes it.
func camera(t *testing.T) string {
	t.Helper()
	m := image.NewRGBA(image.Rect(0, 0, 1200, 900))
	for i := range m.Pix {
		m.Pix[i] = byte(i * 31)
	}
	m.Set(3, 3, color.White)
	var b bytes.Buffer
	if err := jpeg.Encode(&b, m, nil); err != nil {
		t.Fatal(err)
	}
	path := filepath.Join(t.TempDir(), "phone.jpg")
	if err := os.WriteFile(path, b.Bytes(), 0o600); err != nil {
		t.Fatal(err)
	}
	return path
}

// Two tabs on one piece, and a server that goes away: every tap counts once, and none is lost.
func TestTapsAreNeverLost(t *testing.T) {
	t.Parallel()
	l := startLapse(t)
	l.post("/api/pieces", json.RawMessage(stool))
	ctx := l.tab(390, 844)
	// Something is logged in another tab while something is typed here: the card moves, and what was typed stays.
	do(t, ctx, chromedp.Navigate(l.url("/today")), shows(`[data-group="later"] [data-card]`), click(`[data-do="note"]`), shows("dialog textarea"), note("typed meanwhile"))
	l.post("/api/pieces/1/log", json.RawMessage(`{"entries": [{"id": "elsewhere", "at": "2026-11-24T11:20:00Z", "what": "began", "zone": "seat", "planned": {"step": 1}}]}`))
	says[bool](t, ctx, `(new BroadcastChannel("rutile.log").postMessage("sent"), true)`)
	do(t, ctx, shows(`[data-group="now"] [data-card]`), hides(`[data-group="later"]`))
	if typed := value(t, ctx, "dialog textarea"); typed != "typed meanwhile" {
		t.Errorf("the note is %q", typed)
	}
	do(t, ctx, click(`[data-do="log"]`), hides("dialog"), shows("[data-logged]"), chromedp.Sleep(300*time.Millisecond))
	// A tap asks for what comes next once: its own answer has it.
	tap := says[float64](t, ctx, `performance.now()`)
	do(t, ctx, logs(`[data-do="done"]`), chromedp.Sleep(300*time.Millisecond))
	asked := fmt.Sprintf(`performance.getEntriesByType("resource").filter((r) => r.startTime > %f && r.name.includes("today")).map((r) => r.name)`, tap)
	if all := says[[]string](t, ctx, asked); len(all) != 1 || !strings.Contains(all[0], "/log?") {
		t.Errorf("asked for %q", all)
	}
	// What a card opens is at hand a moment later. The server is gone: taps are kept, over a reload as well.
	do(t, ctx, chromedp.Func(func(ctx context.Context, tab *chromedp.Target) error {
		return until(ctx, tab, `performance.getEntriesByType("resource").some((r) => r.name.includes("OtherwiseSheet"))`, "what a card opens")
	}))
	time.Sleep(300 * time.Millisecond)
	l.down()
	do(t, ctx, click(`[data-do="note"]`), shows("dialog textarea"), note("dries fast"), click(`[data-do="log"]`), shows(`[data-waits="1"]`))
	// It says that an entry waits once it is stored, and not before: the page may be closed then.
	do(t, ctx, click(`[data-do="note"]`), shows("dialog textarea"), note("still fast"))
	says[bool](t, ctx, `new Promise((done) => {
		const open = indexedDB.open("rutile", 1);
		open.onsuccess = () => {
			const store = open.result.transaction("log", "readwrite").objectStore("log");
			const hold = () => { done(true); if (!window.let) store.get("nothing").onsuccess = hold; else open.result.close(); };
			hold();
		};
	})`)
	do(t, ctx, click(`[data-do="log"]`), hides("dialog"), chromedp.Sleep(300*time.Millisecond), hides(`[data-waits="2"]`))
	says[bool](t, ctx, `(window.let = true)`)
	do(t, ctx, shows(`[data-waits="2"]`))
	l.up(false)
	do(t, ctx, chromedp.Navigate(l.url("/today")), shows("[data-card]"), hides("[data-waits]"))
	do(t, ctx, chromedp.Navigate(l.url("/pieces/1/seat/work")), counts("[data-entry]", 5), contains("[data-work]", "still fast"))

	// A second tab of the same browser stands on what was due before: what it logs twice is said.
	other := l.tab(390, 844)
	do(t, other, chromedp.Navigate(l.url("/today")), shows("[data-card]"))
	l.ns.Add(int64(5 * time.Hour))
	do(t, ctx, chromedp.Navigate(l.url("/today")), shows("[data-card]"), click(`[data-do="done"]`), shows("[data-logged]"))
	do(t, other, click(`[data-do="done"]`), shows("[data-note]"), contains("[data-logged]", "logged before"), click(`[data-do="undo"]`), contains("[data-logged]", "Taken back"))
	do(t, ctx, chromedp.Navigate(l.url("/pieces/1/seat/work")), counts(`[data-entry][data-what="done"]`, 2),
		// A correction stands in the place of what it corrects, with its time, and can be corrected again.
		click(`[data-what="note"] [data-do="correct"]`), shows("dialog textarea"), note("dries slowly"), click(`[data-do="log"]`), hides("dialog"), contains("[data-work]", "dries slowly"), counts("[data-entry]", 6),
		click(`[data-what="note"] [data-do="correct"]`), shows("dialog textarea"), note("dries in an hour"), click(`[data-do="log"]`), hides("dialog"), contains("[data-work]", "dries in an hour"), counts("[data-entry]", 6),
		click(`[data-what="done"] [data-do="correct"]`), shows(`[data-chips="When it was finished"]`), put("minutes", "45"), click(`[data-do="log"]`), hides("dialog"), contains(`[data-what="done"]`, "45 min"), counts("[data-entry]", 6))

	// What the server refuses is told and can be given up; nothing else waits for it.
	do(t, ctx, chromedp.Func(func(ctx context.Context, tab *chromedp.Target) error {
		_, err := chromedp.Evaluate[bool](`(localStorage.setItem("rutile.log", JSON.stringify([{piece: 1, entry: {id: "odd", at: new Date().toISOString(), what: "done", zone: "lid", planned: {step: 1}}}])), true)`)(ctx, tab)
		return err
	}), chromedp.Navigate(l.url("/today")), shows(`[data-refused="odd"]`), contains("[data-refused]", "no such zone"), click(`[data-do="drop"]`), hides("[data-refused]"))
}

// drawnAt has every page note when something of it was first drawn, in ms since it was asked for.
const drawnAt = `(() => {
	const watch = () => {
		const found = document.querySelector("[data-card], [data-clocks='0']");
		if (!found) return false;
		requestAnimationFrame(() => {
			const drawn = new MessageChannel();
			drawn.port1.onmessage = () => { window.drawn = performance.now(); };
			drawn.port2.postMessage(0);
		});
		return true;
	};
	new MutationObserver((_, o) => watch() && o.disconnect()).observe(document, {childList: true, subtree: true});
})()`

// tapped notes how long it takes from a tap until what comes next is drawn.
const tapped = `(() => {
	const now = () => document.querySelector("[data-card]")?.closest("[data-state]")?.dataset.state;
	window.taps = [];
	addEventListener("click", (e) => {
		const before = now();
		const o = new MutationObserver(() => {
			if (now() === before) return;
			o.disconnect();
			requestAnimationFrame(() => {
				const drawn = new MessageChannel();
				drawn.port1.onmessage = () => window.taps.push(performance.now() - e.timeStamp);
				drawn.port2.postMessage(0);
			});
		});
		o.observe(document.body, {childList: true, subtree: true, attributes: true});
	}, {capture: true});
	return true;
})()`

// BenchmarkTap measures from a tap to the frame that shows what comes next, with the processor slowed to a quarter, as
// BenchmarkRedraw measures an edit of a plan.
func BenchmarkTap(b *testing.B) {
	a := start(b, true)
	ctx := browser(b, 390, 844)
	do(b, ctx, chromedp.Navigate(a.url("/today")), shows("[data-card]"), chromedp.Sleep(time.Second), slowed(4))
	if _, err := chromedp.Run(ctx, chromedp.Evaluate[bool](tapped)); err != nil {
		b.Fatal(err)
	}
	n := 0
	for b.Loop() {
		n++
		do(b, ctx, click(`[data-do="start"]`), state("working", ""), hides(`[data-do="start"]`), click(`[data-do="undo"]`), shows(`[data-do="start"]`))
	}
	times, err := chromedp.Run(ctx, chromedp.Evaluate[[]float64](`window.taps`))
	if err != nil || len(times) < n {
		b.Fatal(times, err)
	}
	b.ReportMetric(times[0], "ms-first")
	slices.Sort(times)
	b.ReportMetric(times[len(times)/2], "ms-median")
	b.ReportMetric(times[len(times)*95/100], "ms-p95")
	b.ReportMetric(0, "ns/op")
}

// BenchmarkLoadToday loads Today, and an empty page of the same stack: the clocks, of which none runs.
func BenchmarkLoadToday(b *testing.B) {
	a := start(b, true)
	ctx := browser(b, 390, 844)
	do(b, ctx, slowed(4), chromedp.Func(func(ctx context.Context, tab *chromedp.Target) error {
		return tab.Call(ctx, "Page.addScriptToEvaluateOnNewDocument", map[string]any{"source": drawnAt}, nil)
	}))
	load := func(path string) float64 {
		do(b, ctx, chromedp.Navigate(a.url(path)), chromedp.Func(func(ctx context.Context, tab *chromedp.Target) error {
			return until(ctx, tab, `window.drawn > 0`, path)
		}))
		ms, err := chromedp.Run(ctx, chromedp.Evaluate[float64](`window.drawn`))
		if err != nil {
			b.Fatal(err)
		}
		return ms
	}
	var today, empty []float64
	for b.Loop() {
		today, empty = append(today, load("/today")), append(empty, load("/clocks"))
	}
	slices.Sort(today)
	slices.Sort(empty)
	b.ReportMetric(today[len(today)/2], "ms-today")
	b.ReportMetric(empty[len(empty)/2], "ms-empty")
	b.ReportMetric(today[len(today)/2]/empty[len(empty)/2], "ratio")
	b.ReportMetric(0, "ns/op")
}
