package e2e

import (
	"bytes"
	"context"
	"fmt"
	"net/http"
	"os"
	"regexp"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
)

// The screens, each as it stands in the demo studio.
var views = []struct{ name, path, says string }{
	{"bench", "/", "Terracotta planters"},
	{"plan that fails", "/pieces/11/column/plan", "Dye will show through the coats"},
	{"plan that is sound", "/pieces/12/uprights/plan", "Nothing to mend"},
	{"look over", "/pieces/13/fronts/look-over", "What it is to become"},
	{"dialogue", "/pieces/4/panels/identify", "What it probably is"},
	{"contradiction", "/pieces/4/rails/identify", "This contradicts"},
	{"lead suspect", "/pieces/8/straps/lead", "decides nothing"},
	{"patch tests", "/pieces/13/counter/patches", "Plan a patch test"},
	{"empty plan", "/pieces/4/panels/plan", "Nothing is planned yet"},
	{"job sheet", "/pieces/12/uprights/sheet", "job sheet"},
	{"parts", "/pieces/13/-/parts", "drawn to scale"},
	{"parts without a zone", "/pieces/1", "What are they made of"},
	{"take apart", "/pieces/13/-/apart", "What comes off"},
	{"photographs", "/pieces/8/-/photos", "Marker 1 points at"},
	{"its past", "/pieces/8/-/past", "Where it comes from"},
	{"ways side by side", "/pieces/12/uprights/ways", "Take it"},
	{"no way passes", "/pieces/19/back/ways", "What would open the way"},
	{"plan it all", "/pieces/19/-/plan", "5 of 5 zones have no plan yet"},
	{"nothing yet", "/pieces/21", "What is it?"},
	{"cut over time", "/pieces/17/outside/cut", "over time"},
	{"rule book", "/rules#film.thirsty", "speak now"},
	{"nowhere", "/nowhere", "There is nothing here"},
}

// bare puts a piece of which nothing is known yet beside those of the demo.
func (a *app) bare() {
	a.t.Helper()
	r, err := http.Post(a.url("/api/pieces"), "application/json", strings.NewReader(`{"format": "rutile/piece", "version": 1, "name": "Hall mirror"}`))
	if err != nil || r.StatusCode != http.StatusCreated {
		a.t.Fatal(r, err)
	}
	_ = r.Body.Close()
}

// keys presses one key after the other, or types words; each waits a moment
// for the page, as a hand does.
func keys(words ...string) act {
	return chromedp.Func(func(ctx context.Context, tab *chromedp.Target) error {
		for _, w := range words {
			if _, err := chromedp.KeyEvent(w)(ctx, tab); err != nil {
				return err
			}
			time.Sleep(60 * time.Millisecond)
		}
		return nil
	})
}

func ctrl(key string, shift bool) act {
	m := []chromedp.Modifier{chromedp.ModifierCtrl}
	if shift {
		m = append(m, chromedp.ModifierShift)
	}
	return chromedp.KeyEvent(key, chromedp.KeyModifiers(m...))
}

func alt(key string) act {
	return chromedp.KeyEvent(key, chromedp.KeyModifiers(chromedp.ModifierAlt))
}

// gone waits until words stand on the page no more.
func gone(words string) act {
	return chromedp.Func(func(ctx context.Context, tab *chromedp.Target) error {
		return until(ctx, tab, fmt.Sprintf(`!document.body.innerText.replace(/\s+/g, " ").includes(%q)`, words), "the page to say no more "+words)
	})
}

// focused waits until the focus stands on what a selector names.
func focused(css string) act {
	return chromedp.Func(func(ctx context.Context, tab *chromedp.Target) error {
		return until(ctx, tab, fmt.Sprintf(`!!document.activeElement?.matches(%q)`, css), "the focus on "+css)
	})
}

// A zone planned from nothing by the keyboard alone, a mistake made and
// undone, moved, reloaded: all of it is there.
func TestAZonePlannedWithTheKeyboardOnly(t *testing.T) {
	t.Parallel()
	a := start(t, false)
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/")), sees("Nothing is on the bench yet"),
		keys("n"), sees("Name of the piece"), focused("form input"), keys("Hall chest", kb.Enter),
		sees("Hall chest"), focused("#work"), chromedp.Focus(chromedp.CSS(`[data-field="zone_name"]`)), keys("Front", kb.Tab), focused("[role=combobox]"),
		keys("worktop"), sees("High-pressure laminate"), keys(kb.Enter),
		verdict("watch"), focused(`input[data-field="finish"]`),
		keys("bare", kb.Enter), focused(`button[data-field="finish"]`),
		chromedp.Focus(chromedp.CSS(`[data-field="area_m2"]`)), focused(`[data-field="area_m2"]`), keys("60 x 40"), sees("That is 0.24 m²"),
		keys("2"), saved(), // a figure, not a shortcut
		sees("That is 2.41 m²"), keys(kb.Backspace), sees("That is 0.24 m²"))
	// The soils, then the plan, one offer after the other.
	do(t, ctx, chromedp.Focus(chromedp.CSS(`[data-field="soils"]`)), keys(kb.Tab, kb.Enter), sees("Looked: nothing"), keys("3"), sees("Nothing is planned yet"),
		keys("n"), sees("Makes sense next"), keys(kb.Enter), sees("1 Sand"), focused("[data-add]"),
		keys(kb.Enter), sees("Dust lies on it"), keys(kb.Enter), sees("2 Dust off"), focused("[data-add]"),
		keys(kb.Enter), sees("Paint alone reaches"), keys(kb.Enter), sees("3 Bonding primer"), focused("[data-add]"),
		keys(kb.Enter), sees("The colour itself"), keys("mineral", kb.Enter), sees("4 Mineral paint"), focused("[data-add]"),
		verdict("sound"))
	// A mistake: the primer taken away, seen, and undone; a step moved and back.
	do(t, ctx, keys(kb.ArrowUp), focused(`[data-row="4"]`), keys(kb.ArrowDown), focused(`[data-row="3"]`),
		keys(kb.Delete), verdict("watch"), sees("3 Mineral paint"), ctrl("z", false), verdict("sound"), sees("3 Bonding primer"),
		keys(kb.ArrowDown), focused(`[data-row="2"]`), alt(kb.ArrowUp), sees("2 Bonding primer"), ctrl("z", false), sees("3 Bonding primer"),
		ctrl("z", true), sees("2 Bonding primer"), ctrl("z", false), sees("3 Bonding primer"), saved())
	want := "abrade ; dust ; coat primer_bond_wb; coat paint_mineral"
	if s := a.stored("1"); does(s.Piece.Zones[0].Steps) != want || s.Piece.Name != "Hall chest" || s.Piece.Zones[0].AreaM2 != .24 {
		t.Errorf("kept: %s, %s, %v m²", s.Piece.Name, does(s.Piece.Zones[0].Steps), s.Piece.Zones[0].AreaM2)
	}
	// The server killed in mid-edit, and started again.
	a.down()
	do(t, ctx, keys(kb.ArrowUp), keys("d"), sees("Not saved yet"))
	a.up(false)
	do(t, ctx, saved(), chromedp.Reload(), sees("Hall chest"), sees("5 Mineral paint"), ctrl("z", false), gone("5 Mineral paint"), saved())
	if got := does(a.stored("1").Piece.Zones[0].Steps); got != want {
		t.Errorf("after the server came back and undo: %s", got)
	}
}

func TestTheCutIsWalkedAndPressed(t *testing.T) {
	t.Parallel()
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/pieces/12/uprights/plan")), verdict("sound"),
		chromedp.Focus(chromedp.CSS(`[data-band="0"]`)), sees("Oak; what it is made of"),
		keys(kb.ArrowUp), sees("Oil varnish; on it now"), keys(kb.ArrowUp), sees("Pigmented shellac; 30 µm; holds at"),
		sees("12 h until the next"), keys(kb.Enter), sees("Wait after each coat"),
		typeIn("Wait after each coat", "0.5"), sees("too soon after pigmented shellac"), press("Undo"), verdict("sound"),
		chromedp.Focus(chromedp.CSS(`[data-band="1"]`)), keys(kb.Enter), sees("What it is to become"), focused(`[data-field="finish"]`))
	list, err := chromedp.Run(ctx, chromedp.Evaluate[string](`(location.href = location.href.replace("look-over", "plan"), "")`))
	if err != nil {
		t.Fatal(list, err)
	}
	do(t, ctx, sees("7 Water-based clear coat"))
	n, err := chromedp.Run(ctx, chromedp.Evaluate[int](`document.querySelectorAll('ol[aria-label^="The cut as a list"] li').length`))
	if err != nil || n != 7 {
		t.Errorf("the list of the cut has %d layers, %v", n, err)
	}
}

// The cut stands at the lower end of what scrolls: when the window grows or
// shrinks it moves, and the ties between rows and layers move with it.
func TestRowsStayTiedToTheirLayers(t *testing.T) {
	t.Parallel()
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	tied := chromedp.Func(func(ctx context.Context, tab *chromedp.Target) error {
		return until(ctx, tab, `(() => {
			const middle = e => { const r = e.getBoundingClientRect(); return (r.top + r.bottom) / 2; };
			const material = document.querySelector('[data-band="0"]').getBoundingClientRect();
			const tie = document.querySelector('[data-step="substrate"]').closest("ol").parentElement.querySelector("svg circle");
			return middle(tie) > material.bottom - 24 && middle(tie) < material.bottom - 8;
		})()`, "the lowest row to be tied to the material")
	})
	do(t, ctx, chromedp.Navigate(a.url("/pieces/17/outside/plan")), verdict("fails"), tied,
		chromedp.EmulateViewport(1280, 640), tied, chromedp.EmulateViewport(1280, 900), tied)
}

// Behind every figure of the verdict stands what it is made of.
func TestTheVerdictsFiguresOpen(t *testing.T) {
	t.Parallel()
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/pieces/12/uprights/plan")), verdict("sound"),
		press("Risk of peeling"), sees("What the risk of peeling is made of"), sees("Pigmented shellac holds at 0.90"), sees("how well chalk paint takes to pigmented shellac"), press("Close"),
		press("Stain to come"), sees("what tannin would show through nothing"), press("Close"),
		press("Time"), sees("Alkaline degreaser, rinsed: "), sees("2 coats of chalk paint: "), press("Close"), gone("Where the time goes"))
}

// What this browser kept of another piece that once had the same number is not
// taken for this one's.
func TestADraftOfAnotherPieceIsLeftAlone(t *testing.T) {
	t.Parallel()
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/pieces/12/uprights/plan")), verdict("sound"))
	if _, err := chromedp.Run(ctx, chromedp.Evaluate[bool](`(localStorage.setItem("rutile.draft.12", JSON.stringify({rev: 1, created: "2020-01-01T00:00:00Z", piece: {format: "rutile/piece", version: 1, name: "Yesterday's"}})), true)`)); err != nil {
		t.Fatal(err)
	}
	do(t, ctx, chromedp.Reload(), verdict("sound"), sees("Programme rack"), saved())
	if s := a.stored("12"); s.Rev != 1 || s.Piece.Name != "Programme rack" {
		t.Errorf("revision %d is called %q", s.Rev, s.Piece.Name)
	}
}

func TestKeysAreShownAndCanBeTurnedOff(t *testing.T) {
	t.Parallel()
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/pieces/12/uprights/plan")), verdict("sound"),
		keys("?"), sees("Add the next step on top"), sees("Redo, too"), press("Close"),
		keys("t"), chromedp.Func(func(ctx context.Context, tab *chromedp.Target) error {
			return until(ctx, tab, `document.documentElement.dataset.theme === "evening"`, "the evening bench")
		}),
		keys("?"), chromedp.Click(chromedp.CSS(`dialog [type=checkbox]`)), keys(kb.Escape),
		keys("n"), chromedp.Sleep(200*time.Millisecond))
	if body := text(t, ctx); strings.Contains(body, "Find a step") || strings.Contains(body, "Makes sense next") {
		t.Error("a letter still works as a key")
	}
	do(t, ctx, chromedp.Reload(), verdict("sound"))
	theme, err := chromedp.Run(ctx, chromedp.Evaluate[string](`document.documentElement.dataset.theme`))
	if err != nil || theme != "evening" {
		t.Errorf("after a reload the bench is %q, %v", theme, err)
	}
}

// Nothing is wider than the screen, at any of the widths it is made for.
func TestNothingIsWiderThanTheScreen(t *testing.T) {
	t.Parallel()
	a := start(t, true)
	a.bare()
	for _, width := range []int{1280, 768, 390} {
		ctx := browser(t, width, 844)
		for _, v := range views {
			do(t, ctx, chromedp.Navigate(a.url(v.path)), sees(v.says))
			over, err := chromedp.Run(ctx, chromedp.Evaluate[int](`document.documentElement.scrollWidth - document.documentElement.clientWidth`))
			if err != nil || over > 0 {
				t.Errorf("%s at %d is %d pixels too wide, %v", v.name, width, over, err)
			}
		}
	}
}

// Every view, in both themes, with its dialogs and lists open too, passes the
// automated audit.
func TestAccessibilityAudit(t *testing.T) {
	t.Parallel()
	for _, theme := range []string{"titanium", "evening"} {
		t.Run(theme, func(t *testing.T) {
			t.Parallel()
			a := start(t, true)
			a.bare()
			axe, err := os.ReadFile("../web/node_modules/axe-core/axe.min.js")
			if err != nil {
				t.Fatal(err)
			}
			ctx := browser(t, 1280, 800)
			audit := func(name string) {
				t.Helper()
				do(t, ctx, chromedp.Sleep(250*time.Millisecond), chromedp.Func(func(ctx context.Context, tab *chromedp.Target) error {
					_, err := chromedp.Evaluate[bool](string(axe)+";true")(ctx, tab)
					return err
				}))
				found, err := chromedp.Run(ctx, chromedp.Evaluate[[]string](`axe.run(document, {runOnly: ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa", "best-practice"]})
					.then((r) => r.violations.flatMap((v) => v.nodes.map((n) => v.id + ": " + n.target + " " + n.failureSummary.replace(/\s+/g, " ").slice(0, 220))))`, chromedp.EvalAwaitPromise))
				if err != nil {
					t.Fatal(name, err)
				}
				for _, f := range found {
					t.Errorf("%s: %s", name, f)
				}
			}
			do(t, ctx, chromedp.Navigate(a.url("/")), sees("Terracotta planters"))
			if _, err := chromedp.Run(ctx, chromedp.Evaluate[bool](fmt.Sprintf(`(localStorage.setItem("rutile.theme", %q), true)`, theme))); err != nil {
				t.Fatal(err)
			}
			for _, v := range views {
				do(t, ctx, chromedp.Navigate(a.url(v.path)), sees(v.says))
				audit(theme + ", " + v.name)
			}
			do(t, ctx, chromedp.Navigate(a.url("/pieces/13/fronts/plan")), verdict("fails"), press("The figures behind it"),
				press("1 Detergent wash"), press("Add after it"), sees("Makes sense next"))
			audit(theme + ", choosing a step")
			do(t, ctx, keys(kb.Escape), press("See it first: Sand with 220 and dust off, then prime with bonding primer"), verdict("sound"))
			audit(theme + ", looking at a repair")
			do(t, ctx, keys(kb.Escape), verdict("fails"), press("Copy to another zone"), sees("with this plan:"))
			audit(theme + ", copying a plan")
			do(t, ctx, press("Leave it"), press("Risk of peeling"), sees("What the risk of peeling is made of"))
			audit(theme + ", the figures of the verdict")
			do(t, ctx, press("Close"), keys("?"), sees("Add the next step on top"))
			audit(theme + ", keys")
			do(t, ctx, press("Close"), press("Lantern Yard"), sees("Piece files are metric"))
			audit(theme + ", studio")
			do(t, ctx, press("Leave it"), keys("1"), press("Made of"), sees("Close"))
			audit(theme + ", choosing a material")
			do(t, ctx, chromedp.Navigate(a.url("/pieces/13/-/parts")), sees("drawn to scale"), part(1), press("2 × Drawer fronts"), sees("Painted are"))
			audit(theme + ", a part open and chosen")
			do(t, ctx, press("Join Laminate fronts with another zone"), sees("Undo brings it back"))
			audit(theme + ", joining zones")
			do(t, ctx, press("Close"), press("New zone of it"), sees("Of: body"))
			audit(theme + ", a zone of parts")
			do(t, ctx, press("Not now"), keys("6"), press("4 × Handles"), sees("Old holes"))
			audit(theme + ", a fitting open")
			do(t, ctx, chromedp.Navigate(a.url("/pieces/21")), press("Chest of drawers"), sees("Make its parts"))
			audit(theme + ", a template")
			do(t, ctx, press("Close"), chromedp.Navigate(a.url("/pieces/8/body/look-over")), sees("Press what you find"))
			audit(theme + ", damage")
		})
	}
}

// Once a view is loaded nothing on it moves by itself.
func TestNothingMovesAfterLoad(t *testing.T) {
	t.Parallel()
	a := start(t, true)
	a.bare()
	for _, width := range []int{1280, 390} {
		ctx := browser(t, width, 800)
		for _, v := range views {
			do(t, ctx, chromedp.Navigate(a.url(v.path)), sees(v.says), chromedp.Sleep(400*time.Millisecond))
			moved, err := chromedp.Run(ctx, chromedp.Evaluate[[]string](`new Promise((done) => {
				const out = [];
				new PerformanceObserver((l) => {
					for (const e of l.getEntries()) if (!e.hadRecentInput) out.push(e.value.toFixed(4) + " " + e.sources.map((s) => s.node?.outerHTML?.slice(0, 90) ?? s.node?.textContent).join(" | "));
				}).observe({type: "layout-shift", buffered: true});
				setTimeout(() => done(out), 150);
			})`, chromedp.EvalAwaitPromise))
			if err != nil {
				t.Fatal(err)
			}
			for _, m := range moved {
				t.Errorf("%s at %d: %s", v.name, width, m)
			}
		}
	}
}

var onePage = regexp.MustCompile(`/Type\s*/Page[^s]`)

// A zone's plan prints as a sheet of its own: no buttons, no bench strip.
func TestAPlanIsPrinted(t *testing.T) {
	t.Parallel()
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/pieces/12/uprights/sheet")), sees("Alkaline degreaser"))
	pdf, err := chromedp.Run(ctx, chromedp.PrintToPDF())
	if err != nil || !bytes.HasPrefix(pdf, []byte("%PDF-")) {
		t.Fatalf("%d bytes, %v", len(pdf), err)
	}
	if n := len(onePage.FindAll(pdf, -1)); n != 1 {
		t.Errorf("a plan of seven steps takes %d pages", n)
	}
	shown, err := chromedp.Run(ctx, chromedp.Evaluate[[]string](`(() => {
		const hidden = [];
		for (const sheet of document.styleSheets) for (const r of sheet.cssRules)
			if (r instanceof CSSMediaRule && r.conditionText === "print")
				for (const p of r.cssRules) if (p.style?.display === "none") hidden.push(p.selectorText);
		return [...document.querySelectorAll("header, footer, nav, button")].filter((e) => !hidden.some((h) => e.closest(h))).map((e) => e.outerHTML.slice(0, 80));
	})()`))
	if err != nil || len(shown) > 0 {
		t.Errorf("printed as well: %v, %v", shown, err)
	}
}

// A browser that keeps nothing is told the truth: there is no copy in it.
func TestABrowserWithoutStorageIsToldSo(t *testing.T) {
	t.Parallel()
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/pieces/11/column")), verdict("fails"))
	if _, err := chromedp.Run(ctx, chromedp.Evaluate[bool](`(Storage.prototype.setItem = () => { throw new DOMException("full", "QuotaExceededError"); }, true)`)); err != nil {
		t.Fatal(err)
	}
	a.down()
	do(t, ctx, press("5 Mineral paint"), press("Remove"), sees("This browser keeps no copy either"))
	a.up(true)
	do(t, ctx, saved())
}
