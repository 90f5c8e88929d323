package e2e

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"math"
	"net/http"
	"slices"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"

	"rutile/core/clock"
	"rutile/internal/wire"
	"rutile/web"
)

// bench is the machine's clocks, set by hand: time passes in a moment.
type bench struct {
	mu sync.Mutex
	clock.Moment
}

func newBench() *bench {
	return &bench{Moment: clock.Moment{Wall: float64(noon.Unix()), Steady: 1000, Run: "boot-1"}}
}

func (b *bench) now() clock.Moment {
	b.mu.Lock()
	defer b.mu.Unlock()
	return b.Moment
}

// does changes the clocks: time passes, one is set, the machine sleeps.
func (b *bench) does(change func(m *clock.Moment)) act {
	return chromedp.Func(func(ctx context.Context, tab *chromedp.Target) error {
		b.mu.Lock()
		change(&b.Moment)
		b.mu.Unlock()
		// The page looks when it comes to the front.
		_, err := chromedp.Evaluate[bool](`dispatchEvent(new Event("pageshow"))`)(ctx, tab)
		return err
	})
}

func (b *bench) passes(d time.Duration) act {
	return b.does(func(m *clock.Moment) { m.Wall += d.Seconds(); m.Steady += d.Seconds() })
}

// lefts waits until a clock of a kind, on a card or on the page of clocks, has about so many seconds left.
func lefts(kind string, want, off float64) act {
	return chromedp.Func(func(ctx context.Context, tab *chromedp.Target) error {
		js := fmt.Sprintf(`(() => {
			const e = [...document.querySelectorAll('[data-kind=%q]')].map((x) => x.matches("[data-left]") ? x : x.querySelector("[data-left]")).find(Boolean);
			return !!e && Math.abs(Number(e.dataset.left) - %v) <= %v;
		})()`, kind, want, off)
		return until(ctx, tab, js, fmt.Sprintf("%v s left of %s", want, kind))
	})
}

// leaf waits for a page of a card.
func leaf(id string) act { return shows(fmt.Sprintf(`[data-leaf=%q][data-leaf-now]`, id)) }

// turned turns the pages of a card until one is there.
func turned(id string) act {
	return chromedp.Func(func(ctx context.Context, tab *chromedp.Target) error {
		for range 30 {
			if there, err := chromedp.Evaluate[bool](fmt.Sprintf(`!!document.querySelector('[data-leaf=%q][data-leaf-now]')`, id))(ctx, tab); err == nil && there {
				return nil
			}
			if _, err := click(`[data-do="next"]`)(ctx, tab); err != nil {
				return err
			}
		}
		return fmt.Errorf("no page %s", id)
	})
}

// darkTrunk is a trunk with two drawers, dark under old varnish, and its plan.
const darkTrunk = `{"format":"rutile/piece","version":1,"name":"Sea trunk","made":1998,"zones":[{"id":"outside","name":"Outside","substrate":"beech","finish":"varnish_oil","gloss":"satin","soils":[],
	"colour":"#2a1c14","wear":"handled","target":{"colour":"#ccd5c8","sheen":"matt","look":"solid"},"steps":[{"do":"clean","with":"detergent","rinse":true},{"do":"abrade","grit":220,"how":"hand"},{"do":"dust"},
	{"do":"coat","product":"paint_milk","coats":3,"method":"brush"},{"do":"wait","hours":24},{"do":"coat","product":"clear_acrylic_varnish","coats":2}]}],
	"parts":[{"kind":"carcass","name":"Trunk","width_cm":120,"height_cm":75,"depth_cm":60,"faces":["sides","edges"],"zone":"outside"},{"kind":"drawer_front","count":2,"width_cm":114,"height_cm":32,"relief":"moulded","zone":"outside"},
	{"kind":"top","name":"Lid","width_cm":124,"depth_cm":63,"zone":"outside"}]}`

// Tonight's pot, as a new user: half additive, in cups, the card followed to its end with its clocks, the drawer
// fronts in the order shown, and what keeps until tomorrow.
func TestTonightsPot(t *testing.T) {
	t.Parallel()
	m := newBench()
	a := &app{t: t, dir: t.TempDir(), addr: "127.0.0.1:0", page: web.Dist(), times: m.now}
	a.begin(false)
	a.call("POST", "/api/pieces", darkTrunk, 201)
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/pieces/1/outside/plan")), shows("[data-verdict]"), keys("m"), shows(`[data-batch="4-1"]`), contains("[data-batch]", "powder"),
		click(`[data-choose="additive half"]`), shows(`[data-portion="additive"]`), shows(`[data-choose="additive half"][aria-pressed="true"]`),
		choose("settings.measure", "cups"), contains("[data-portions]", "cup"), saved())
	if s := a.stored("1").Piece.Zones[0].Steps[3]; s.Additive == nil || s.Additive.Ratio != .5 {
		t.Errorf("the plan keeps %+v", s.Additive)
	}
	// A mistake, and back.
	do(t, ctx, click(`[data-choose="water_ratio wash"]`), shows(`[data-choose="water_ratio wash"][aria-pressed="true"]`), click("[data-undo]"), shows(`[data-choose="water_ratio equal"][aria-pressed="true"]`))
	c := a.cards("1", "outside").Cards[0]
	if got := c.Batch.MakesL; got < c.Batch.NeedL || got > 1.25*c.Batch.NeedL {
		t.Errorf("%v l are mixed for %v", got, c.Batch.NeedL)
	}
	for _, p := range c.Batch.Portions {
		if !strings.Contains(p.Says, "cup") && !strings.Contains(p.Says, "tbsp") {
			t.Errorf("%s of %s in cups", p.Says, p.Name)
		}
	}
	// The card, followed with the clocks: whisk three minutes, rest twenty.
	do(t, ctx, click(`[data-open="mix"]`), leaf("in"), shows(`[data-leaf-now] [data-portion="base"]`), turned("mix4"), click(`[data-leaf-now] [data-start="whisk"]`), lefts("whisk", 180, 1),
		m.passes(100*time.Second), lefts("whisk", 80, 2), m.passes(81*time.Second), contains(`[data-leaf-now] [data-started]`, "Mixed long enough"),
		turned("mix5"), click(`[data-leaf-now] [data-start="rest"]`), lefts("rest", 1200, 1))
	// A reload in the middle: the same page of the card, and the clock runs on.
	do(t, ctx, m.passes(300*time.Second), chromedp.Reload(), leaf("mix5"), lefts("rest", 900, 2), m.passes(901*time.Second), contains(`[data-leaf-now] [data-started]`, "It has rested"),
		turned("ready"), contains("[data-leaf-now]", "Closed and chilled"), contains("[data-leaf-now]", "trial board"), click(`[data-leaf-now] [data-start="pot"]`), lefts("pot", 8*3600*math.Exp2(6./12), 5),
		click(`[data-do="next"]`), hides("dialog"), contains("[data-note]", "may be left"))
	// The laying card: what comes off first, field, moulding, rails, stiles, edges; then the body, the lid last.
	do(t, ctx, click(`[data-open="lay"]`), leaf("before"), turned("order"), shows("[data-leaf-now] svg[data-order]"))
	order := a.cards("1", "outside").Order
	var says []string
	for _, x := range order {
		says = append(says, x.Says)
	}
	want := []string{"Drawer fronts, each: the field of the panel", "Drawer fronts, each: the moulding around it, into the corners", "Drawer fronts, each: its rails, the cross members", "Drawer fronts, each: its stiles, the uprights",
		"Drawer fronts, each: the edges all round", "Trunk: the front edges between the openings", "Trunk: both sides", "Lid: the edges", "Lid: the upper face"}
	if !slices.Equal(says, want) {
		t.Errorf("the order is %q", says)
	}
	for n, x := range want {
		do(t, ctx, click(fmt.Sprintf(`[data-turn-row="%d"]`, n+1)), shows(fmt.Sprintf(`[data-turn-row="%d"][aria-current]`, n+1)), contains(fmt.Sprintf(`[data-turn-row="%d"]`, n+1), x))
	}
	do(t, ctx, turned("after"), click(`[data-leaf-now] [data-start="next"]`), lefts("next", 3600, 3600), shows("[data-leaf-now] [data-started]"), keys(kb.Escape), hides("dialog"),
		// The clocks stand on the strip, and on a page of their own, with what they are for.
		shows("[data-strip-clocks]"), chromedp.Navigate(a.url("/clocks")), counts("[data-clock][data-kind]", 4), contains("[data-clocks]", "Milk paint, coat 1 of 3"), contains("[data-clocks]", "Sea trunk"),
		click(`[data-kind="next"] [data-do="sticky"]`), contains(`[data-kind="next"]`, "as expected"), m.passes(3*time.Hour), shows(`[data-kind="next"][data-state="past"], [data-kind="next"][data-state="rings"]`))
}

// cards are the cards of a zone as the server has them.
func (a *app) cards(id, zone string) wire.ZoneCards {
	a.t.Helper()
	p := a.stored(id).Piece
	body, err := json.Marshal(p)
	if err != nil {
		a.t.Fatal(err)
	}
	r, err := http.Post(a.url("/api/cards?zone="+zone), "application/json", bytes.NewReader(body))
	if err != nil {
		a.t.Fatal(err)
	}
	defer r.Body.Close()
	var out wire.ZoneCards
	if err := json.NewDecoder(r.Body).Decode(&out); err != nil || r.StatusCode != http.StatusOK {
		a.t.Fatal(r.Status, err)
	}
	return out
}

// The clocks through everything: a reload, an hour's sleep, a restart of the server, a changed system clock, each
// within a second; and where nothing can tell, they ask.
func TestClocksOnThePage(t *testing.T) {
	t.Parallel()
	m := newBench()
	a := &app{t: t, dir: t.TempDir(), addr: "127.0.0.1:0", page: web.Dist(), times: m.now}
	a.begin(false)
	ctx := browser(t, 1280, 800)
	// What is no time is said so, and what was typed stays.
	do(t, ctx, chromedp.Navigate(a.url("/clocks")), shows(`[data-clocks="0"]`), typeIn("clock.for", "Shellac on the lid"), typeIn("clock.time", "1 year"), click(`[data-do="set-clock"]`), contains("form", "30 days at the most"),
		chromedp.Reload(), shows(`[data-clocks="0"]`))
	if got := value(t, ctx, "clock.for"); got != "Shellac on the lid" {
		t.Errorf("after the error and a reload the field says %q", got)
	}
	do(t, ctx, typeIn("clock.time", "2 h"), click(`[data-do="set-clock"]`), lefts("own", 7200, 1), contains("[data-clock]", "Shellac on the lid"))
	do(t, ctx, m.passes(10*time.Minute), lefts("own", 6600, 2), chromedp.Reload(), lefts("own", 6600, 3),
		// An hour's sleep, a clock set a day ahead and one set a year back.
		m.passes(time.Hour), lefts("own", 3000, 4),
		m.does(func(m *clock.Moment) { m.Wall += 86400 }), chromedp.Sleep(200*time.Millisecond), lefts("own", 3000, 5), hides("[data-doubt]"),
		m.does(func(m *clock.Moment) { m.Wall -= 366 * 86400 }), chromedp.Sleep(200*time.Millisecond), lefts("own", 3000, 5), hides("[data-doubt]"))
	// The server started again, two minutes later.
	a.down()
	m.mu.Lock()
	m.Wall, m.Steady = m.Wall+120, m.Steady+120
	m.mu.Unlock()
	a.up(false)
	do(t, ctx, chromedp.Reload(), lefts("own", 2880, 6), hides("[data-doubt]"))
	// The machine started again, and its clock went back: it asks, and takes the answer.
	a.down()
	m.mu.Lock()
	m.Wall, m.Steady, m.Run = m.Wall-5000, 3, "boot-2"
	m.mu.Unlock()
	a.up(false)
	do(t, ctx, chromedp.Reload(), shows(`section[data-doubt="0"]`), contains("section[data-doubt]", "please say"), typeIn("clock.passed", "soon"), click(`[data-do="settle"]`), contains("section[data-doubt]", "cannot be read"),
		typeIn("clock.passed", "10 min"), click(`[data-do="settle"]`), hides("section[data-doubt]"), lefts("own", 2280, 8))
	// It rings on every screen, by shape and words, until it is stopped.
	do(t, ctx, m.passes(2290*time.Second), shows(`[data-kind="own"][data-state="rings"]`), chromedp.Navigate(a.url("/")), shows("[role=alert] [data-rings]"), click(`[data-do="silence"]`), hides("[data-rings]"),
		chromedp.Navigate(a.url("/clocks")), shows(`[data-kind="own"][data-state="past"]`), click(`[data-do="stop"]`), shows(`[data-clocks="0"]`))
}

// A touch test, and new air, as a painter tells them.
func TestClocksAreCorrected(t *testing.T) {
	t.Parallel()
	m := newBench()
	a := &app{t: t, dir: t.TempDir(), addr: "127.0.0.1:0", page: web.Dist(), times: m.now}
	a.begin(false)
	a.call("POST", "/api/clocks", `{"id":"coat","kind":"next","need_s":7200,"least_s":7200,"product":"paint_chalk","for":"Chalk paint","temp_c":20,"rh_pct":50}`, 200)
	a.call("POST", "/api/clocks", `{"id":"pot","kind":"pot","need_s":7200,"for":"Epoxy"}`, 200)
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/clocks")), lefts("next", 7200, 2), hides(`[data-kind="pot"] [data-do="dry"]`), m.passes(time.Hour), lefts("next", 3600, 3),
		click(`[data-kind="next"] [data-do="dry"]`), contains(`[data-kind="next"]`, "the label asks for"), lefts("next", 3600, 4),
		// The heating fails: 8 C and 70 % are 2.4 * 1.29 = 3.07 of the time, 2.36 of it beyond the ordinary.
		typeIn("clock.temp_c", "8"), typeIn("clock.rh_pct", "70"), click(`[data-do="air"]`), contains("form", "Done"), lefts("next", 3600*math.Exp2(15./12)*math.Sqrt(.5/.3)/1.3, 30), lefts("pot", 3600, 6),
		m.passes(5*time.Hour), shows(`[data-kind="next"][data-state="past"]`), click(`[data-kind="next"] [data-do="sticky"]`), contains(`[data-kind="next"]`, "Slower than expected"), shows(`[data-kind="next"][data-state="runs"]`),
		click(`[data-kind="next"] [data-do="dry"]`), contains(`[data-kind="next"]`, "Dry already"))
}

// A crackle base, a glaze, a cloth seat: their cards on a phone, turned by the keyboard, print and all.
func TestCardsOnAPhone(t *testing.T) {
	t.Parallel()
	a := start(t, true)
	ctx := browser(t, 390, 844)
	for _, x := range []struct {
		path, card, which string
		says              []string
		never             []string
	}{
		{"/pieces/15/carcass/mix", "6-1", "lay", []string{"One stroke, end to end", "along the stroke", "drags the cracks together"}, []string{"lay it off"}},
		{"/pieces/15/carcass/mix", "4-1", "lay", []string{"cross", "shows in every crack"}, nil},
		{"/pieces/16/shelf/mix", "7-1", "mix", []string{"glaze medium", "trial board"}, []string{"powder"}},
		{"/pieces/16/shelf/mix", "7-1", "lay", []string{"small section", "cheesecloth", "Judge it dry"}, []string{"lap of the brush"}},
		{"/pieces/14/cushion/mix", "2-1", "lay", []string{"Mist the cloth", "seam", "Bend it"}, []string{"with the grain"}},
	} {
		do(t, ctx, chromedp.Navigate(a.url(x.path)), click(fmt.Sprintf(`[data-card=%q]`, x.card)), shows(fmt.Sprintf(`[data-batch=%q]`, x.card)), click(fmt.Sprintf(`[data-open=%q]`, x.which)), shows("[data-leaf-now]"), focused(`[data-do="next"]`))
		text, err := chromedp.Run(ctx, chromedp.Evaluate[string](`dispatchEvent(new Event("beforeprint")), [...document.querySelectorAll("dialog [data-leaf]")].map((e) => e.textContent).join("\n")`))
		if err != nil {
			t.Fatal(err)
		}
		for _, s := range x.says {
			if !strings.Contains(text, s) {
				t.Errorf("%s %s does not say %q:\n%s", x.path, x.which, s, text)
			}
		}
		for _, s := range x.never {
			if strings.Contains(text, s) {
				t.Errorf("%s %s says %q", x.path, x.which, s)
			}
		}
		// To the end and back by the keyboard; nothing wider than the phone, and what is pressed is large.
		wide, err := chromedp.Run(ctx, chromedp.Evaluate[float64](`document.querySelector("dialog").scrollWidth`))
		if err != nil || wide > 390 {
			t.Errorf("%s is %v px wide, %v", x.path, wide, err)
		}
		if p := place(t, ctx, `[data-do="next"]`); p[3] < 60 {
			t.Errorf("the button is %v px high", p[3])
		}
		do(t, ctx, keys(kb.End), shows(`[data-at]`), chromedp.Func(func(ctx context.Context, tab *chromedp.Target) error {
			return until(ctx, tab, `(() => { const e = document.querySelector("[data-at]"); return e.dataset.at === e.dataset.of; })()`, "the last page")
		}), keys(kb.ArrowLeft, kb.Home), shows(`[data-at="1"]`), keys(kb.ArrowRight), shows(`[data-at="2"]`), keys(kb.Escape), hides("dialog"))
	}
}

// A recipe that foams is refused with its reason, another is taken; an own amount is read as people write it; a blend
// stands in the batch with its parts.
func TestRecipesInThePlan(t *testing.T) {
	inSoak(t)
	t.Parallel()
	a := start(t, true)
	a.call("POST", "/api/pieces", `{"format":"rutile/piece","version":1,"name":"Trial","made":2015,"zones":[{"id":"a","substrate":"birch","finish":"none","soils":[],"area_m2":1,"target":{"colour":"#d3d8d8"},
		"steps":[{"do":"abrade","grit":180,"how":"hand"},{"do":"dust"},{"do":"coat","product":"paint_diy_chalk","coats":2},{"do":"coat","product":"paint_chalk"},{"do":"coat","product":"wax_clear"}]}]}`, 201)
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/pieces/29/a/mix")), shows(`[data-batch="3-1"]`), contains("[data-portions]", "calcium carbonate"), click(`[data-choose="recipe baking_powder"]`), shows("[data-refused]"), contains("[data-refused]", "foams in the pot"), hides(`[data-open="mix"]`),
		saved(), keys("3"), shows(`[data-code="mix.recipe"]`), keys("m"), click(`[data-choose="recipe plaster"]`), hides("[data-refused]"), contains("[data-batch]", "chalkiest"),
		// An own amount: what cannot be mixed is said, what can is kept.
		put("mix.paint_l", "40 l"), contains("[data-batch]", "more than anybody mixes by hand"), put("mix.paint_l", "a third of a litre"), contains("[data-batch]", "= 333"), saved(), click(`[data-stage="coats"]`), shows("[data-row]"))
	if s := a.stored("29").Piece.Zones[0].Steps[2]; s.Mix == nil || s.Mix.Recipe != "plaster" || math.Abs(s.Mix.PaintL-1./3) > 1e-3 {
		t.Errorf("kept: %+v", s.Mix)
	}
	// What was typed survives a reload, and an undo is not undone.
	do(t, ctx, click(`[data-stage="mix"]`), shows(`[data-batch="3-1"]`), chromedp.Reload(), shows(`[data-do="as-needed"]`))
	if got := value(t, ctx, "mix.paint_l"); got != "a third of a litre" {
		t.Errorf("after a reload the field says %q", got)
	}
	do(t, ctx, click("[data-undo]"), hides(`[data-do="as-needed"]`), chromedp.Sleep(400*time.Millisecond), hides(`[data-do="as-needed"]`))
	if got := value(t, ctx, "mix.paint_l"); got != "" {
		t.Errorf("after the undo the field says %q", got)
	}
	do(t, ctx, typeIn("mix.paint_l", "1/2 l"), shows(`[data-do="as-needed"]`), click(`[data-do="as-needed"]`), hides(`[data-do="as-needed"]`), click(`[data-card="4-1"]`), shows(`[data-batch="4-1"]`), shows(`[data-field="mix.blend"] option:nth-child(2)`))
	blend, err := chromedp.Run(ctx, chromedp.Evaluate[string](`document.querySelector('[data-field="mix.blend"] option:nth-child(2)')?.value ?? ""`))
	if err != nil || blend == "" {
		t.Fatal("no blend can be chosen: ", err)
	}
	do(t, ctx, choose("mix.blend", blend), contains("[data-portions]", "×"), saved())
	if s := a.stored("29").Piece.Zones[0].Steps[3]; s.Mix == nil || len(s.Mix.Blend) < 2 {
		t.Errorf("kept: %+v", s.Mix)
	}
	// Without an area there are cards and no amounts, and the way to it.
	a.call("POST", "/api/pieces", `{"format":"rutile/piece","version":1,"name":"Bare","zones":[{"id":"a","substrate":"birch","finish":"none","steps":[{"do":"coat","product":"paint_chalk"}]}]}`, 201)
	do(t, ctx, chromedp.Navigate(a.url("/pieces/30/a/mix")), shows("[data-refused]"), shows(`[data-open="lay"]`), click(`[data-do="to-area"]`), focused(of("area_m2")))
}

// While a card is open the rest of the page is neither on paper nor in reach, and it is there again afterwards.
func TestACardHasTheScreenAndThePaperToItself(t *testing.T) {
	t.Parallel()
	a := start(t, true)
	ctx := browser(t, 794, 1123)
	is := func(js, what string) {
		t.Helper()
		do(t, ctx, chromedp.Func(func(ctx context.Context, tab *chromedp.Target) error { return until(ctx, tab, js, what) }))
	}
	do(t, ctx, chromedp.Navigate(a.url("/pieces/15/carcass/mix?coat=6-1&card=lay")), shows("[data-leaf-now]"))
	for range 12 {
		do(t, ctx, keys(kb.Tab))
		is(`document.activeElement === document.body || !!document.activeElement.closest("dialog")`, "the focus in the card")
	}
	do(t, ctx, emulates("setEmulatedMedia", map[string]any{"media": "print"}))
	is(`document.querySelector("dialog").getBoundingClientRect().top < 60 && document.getElementById("root").offsetHeight === 0`, "the card alone on the paper, from its top")
	do(t, ctx, emulates("setEmulatedMedia", map[string]any{"media": ""}), chromedp.Focus(chromedp.CSS(`[data-do="next"]`)), keys(kb.Escape), hides("dialog"), shows("[data-portions]"))
	is(`document.getElementById("root").checkVisibility({contentVisibilityAuto: true}) && document.querySelector("[data-portions]").checkVisibility() && document.getElementById("root").style.contentVisibility === ""`, "the page behind")
}

// BenchmarkCards measures from a key to the frame that shows the next page of a card, and the card itself, as it is
// and with the processor slowed to a quarter.
func BenchmarkCards(b *testing.B) {
	for _, x := range []struct {
		name       string
		ready      []act
		turn, back act
	}{
		{"turning", []act{click(`[data-open="lay"]`), shows("[data-leaf-now]")}, keyOf(kb.ArrowRight), keyOf(kb.ArrowLeft)},
		{"opening", []act{chromedp.Focus(chromedp.CSS(`[data-open="mix"]`))}, keyOf(kb.Enter), chromedp.Func(func(ctx context.Context, tab *chromedp.Target) error {
			for _, a := range []act{keyOf(kb.Escape), shows("[data-batch]"), chromedp.Focus(chromedp.CSS(`[data-open="mix"]`))} {
				if _, err := a(ctx, tab); err != nil {
					return err
				}
			}
			return nil
		})},
	} {
		for _, slow := range []float64{4, 1} {
			if slow == 1 && testing.Short() {
				continue
			}
			b.Run(fmt.Sprintf("%s/slow=%.0f", x.name, slow), func(b *testing.B) {
				a := start(b, true)
				ctx := browser(b, 1280, 800)
				do(b, ctx, chromedp.Navigate(a.url("/pieces/24/outside/mix")), shows("[data-portions]"))
				do(b, ctx, x.ready...)
				do(b, ctx, chromedp.Sleep(500*time.Millisecond), slowed(slow))
				if _, err := chromedp.Run(ctx, chromedp.Evaluate[bool](frames)); err != nil {
					b.Fatal(err)
				}
				for b.Loop() {
					do(b, ctx, x.turn, chromedp.Sleep(150*time.Millisecond), x.back, chromedp.Sleep(150*time.Millisecond))
				}
				drawn, err := chromedp.Run(ctx, chromedp.Evaluate[[]float64](`window.framesDrawn`))
				if err != nil || len(drawn) == 0 {
					b.Fatal(drawn, err)
				}
				var there []float64 // of every other key: the way back is another screen
				for i := 0; i < len(drawn); i += 2 {
					there = append(there, drawn[i])
				}
				first := there[0]
				slices.Sort(there)
				b.ReportMetric(first, "ms-first")
				b.ReportMetric(there[len(there)/2], "ms-median")
				b.ReportMetric(there[len(there)*95/100], "ms-p95")
				b.ReportMetric(0, "ns/op")
			})
		}
	}
}

func keyOf(key string) act { return chromedp.KeyEvent(key) }
