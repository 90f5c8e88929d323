package e2e

import (
	"bytes"
	"context"
	"fmt"
	"net/http"
	"os"
	"regexp"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
)

// The screens, each as it stands in the demo studio, and what is there once it is drawn.
var views = []struct {
	name, path, there string
	fewer             act // leaves a few of many that are alike, for the audit
}{
	{"pieces", "/", "[data-zone]", nil},
	{"plan that fails", "/pieces/11/column/plan", `[data-code="bleed.dye"]`, nil},
	{"plan that is sound", "/pieces/12/uprights/plan", `[data-verdict="sound"]`, nil},
	{"survey", "/pieces/13/fronts/survey", `[data-field="soils"]`, nil},
	{"dialogue", "/pieces/4/panels/identify", "[data-made]", nil},
	{"contradiction", "/pieces/4/rails/identify", "[data-against]", nil},
	{"lead suspect", "/pieces/8/straps/lead", "[data-lead]", nil},
	{"patch tests", "/pieces/13/counter/patches", `[data-field="test"]`, nil},
	{"empty plan", "/pieces/4/panels/plan", "[data-add]", nil},
	{"job sheet", "/pieces/12/uprights/sheet", "article", nil},
	{"parts", "/pieces/13/-/parts", "svg [data-part]", nil},
	{"parts without a zone", "/pieces/1", "svg [data-part]", nil},
	{"disassembly", "/pieces/13/-/disassembly", "[data-fitting]", nil},
	{"photographs", "/pieces/8/-/photos", `[data-field="photo.caption"]`, nil},
	{"history", "/pieces/8/-/history", `[data-field="history.found"]`, nil},
	{"compare ways", "/pieces/12/uprights/compare", "[data-take]", nil},
	{"no way passes", "/pieces/19/back/compare", "[data-stuck] [data-open-field]", nil},
	{"plan it all", "/pieces/19/-/plan", `[data-do="plan-all"]`, nil},
	{"nothing surveyed yet", "/pieces/29", "[data-template]", nil},
	{"cut over time", "/pieces/17/outside/section", "[data-moment]", nil},
	{"rule book", "/rules#film.thirsty", `[id="film.thirsty"]`, typeIn("[type=search]", "film.")},
	{"shelf", "/shelf", "[data-can]", typeIn("[data-find]", "fog")},
	{"colours", "/colours?want=%236f8474", "[data-blend]", nil},
	{"mix", "/pieces/24/outside/mix", "[data-portions]", nil},
	{"mixing card", "/pieces/24/outside/mix?coat=4-1&card=mix", "[data-leaf-now] [data-portions]", nil},
	{"laying card", "/pieces/15/doors/mix?coat=4-1&card=lay", "[data-leaf-now]", nil},
	{"clocks", "/clocks", "[data-clocks]", nil},
	{"devices", "/devices", "[data-opened]", nil},
	{"today", "/today", "[data-card]", nil},
	{"work", "/pieces/26/table/work", "[data-entry]", nil},
	{"work that is handed over", "/pieces/28/outside/work", "[data-finished]", nil},
	{"a plan half done", "/pieces/27/chest/plan", "[data-done]", nil},
	{"look back", "/pieces/27/-/back", "[data-compare]", nil},
	{"colour and amounts", "/pieces/24/outside/amounts", "[data-item]", nil},
	{"labels for tins", "/shelf/labels", "[data-tin-label]", nil},
	{"nowhere", "/nowhere", `main a[href="/"]`, nil},
}

// bare puts a piece of which nothing is known yet beside those of the demo.
func (a *app) bare() {
	a.t.Helper()
	a.call(http.MethodPost, "/api/pieces", `{"format": "rutile/piece", "version": 1, "name": "Hall mirror"}`, 201)
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
	do(t, ctx, chromedp.Navigate(a.url("/")), shows(`[data-do="new-piece"]`), keys("n"), focused(of("piece.name")), keys("Hall chest", kb.Enter), focused("#work"),
		chromedp.Focus(chromedp.CSS(of("zone_name"))), keys("Front", kb.Tab), pick("worktop"), verdict("watch"), focused(`input[data-field="finish"]`),
		pick("bare"), focused(`button[data-field="finish"]`), chromedp.Focus(chromedp.CSS(of("area_m2"))), keys("60 x 40"), shows(`[data-typed="read"]`),
		keys("2"), saved(), keys(kb.Backspace), saved()) // a figure, not a shortcut
	// The soils, then the plan, one offer after the other.
	do(t, ctx, chromedp.Focus(chromedp.CSS(of("soils"))), keys(kb.Tab, kb.Enter), shows(`[data-nothing="soils"][aria-pressed="true"]`), keys("3"), shows("[data-add]"), keys("n"))
	for _, is := range []string{"abrade", "dust", "primer_bond_wb"} {
		do(t, ctx, focused("[role=combobox]"), shows(`[data-picker] [aria-selected="true"]`), keys(kb.Enter), shows(fmt.Sprintf(`[data-is=%q]`, is)), focused("[data-add]"), keys(kb.Enter))
	}
	do(t, ctx, pick("mineral"), shows(row(4, "paint_mineral")), focused("[data-add]"), verdict("sound"))
	// A mistake: the primer taken away, seen, and undone; a step moved and back.
	do(t, ctx, keys(kb.ArrowUp), focused(row(4, "paint_mineral")), keys(kb.ArrowDown), focused(row(3, "primer_bond_wb")),
		keys(kb.Delete), verdict("watch"), shows(row(3, "paint_mineral")), ctrl("z", false), verdict("sound"), shows(row(3, "primer_bond_wb")),
		keys(kb.ArrowDown), focused(`[data-row="2"]`), alt(kb.ArrowUp), shows(row(2, "primer_bond_wb")), ctrl("z", false), shows(row(3, "primer_bond_wb")),
		ctrl("z", true), shows(row(2, "primer_bond_wb")), ctrl("z", false), shows(row(3, "primer_bond_wb")), saved())
	want := "abrade ; dust ; coat primer_bond_wb; coat paint_mineral"
	if s := a.stored("1"); does(s.Piece.Zones[0].Steps) != want || s.Piece.Name != "Hall chest" || s.Piece.Zones[0].AreaM2 != .24 {
		t.Errorf("kept: %s, %s, %v m²", s.Piece.Name, does(s.Piece.Zones[0].Steps), s.Piece.Zones[0].AreaM2)
	}
	// The server killed in mid-edit, and started again.
	a.down()
	do(t, ctx, keys(kb.ArrowUp), keys("d"), shows(`[data-save="unsent"]`))
	a.up(false)
	do(t, ctx, saved(), chromedp.Reload(), shows(row(5, "paint_mineral")), ctrl("z", false), hides(`[data-row="5"]`), saved())
	if got := does(a.stored("1").Piece.Zones[0].Steps); got != want {
		t.Errorf("after the server came back and undo: %s", got)
	}
}

func TestTheCutIsWalkedAndPressed(t *testing.T) {
	t.Parallel()
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/pieces/12/uprights/plan")), verdict("sound"), chromedp.Focus(chromedp.CSS(`[data-band="0"]`)),
		keys(kb.ArrowUp), focused(`[data-band="1"]`), keys(kb.ArrowUp), focused(`[data-band="2"]`), keys(kb.Enter), shows(`[data-step="4"] `+of("coat.wait_h")),
		typeIn("coat.wait_h", "0.5"), shows(`[data-code="adhesion.too_soon"]`), click("[data-undo]"), verdict("sound"),
		chromedp.Focus(chromedp.CSS(`[data-band="1"]`)), keys(kb.Enter), focused(of("finish")))
	// For whoever cannot see it, the cut is a list.
	do(t, ctx, keys("3"), shows(row(7, "clear_wb")), counts("ol.sr-only li", 7))
	// Behind every figure of the verdict stands what it is made of.
	for i := range 3 {
		do(t, ctx, click(fmt.Sprintf("[data-figure]:nth-of-type(%d)", i+1)), shows("dialog[open] :is(dl, table, ul, details)"), click("[data-close]"), hides("dialog"))
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
	do(t, ctx, chromedp.Navigate(a.url("/pieces/17/outside/plan")), verdict("watch"), tied,
		chromedp.EmulateViewport(1280, 640), tied, chromedp.EmulateViewport(1280, 900), tied)
}

// What this browser kept of another piece that once had the same number is not
// taken for this one's, and not forgotten.
func TestADraftOfAnotherPieceIsLeftAlone(t *testing.T) {
	inSoak(t)
	t.Parallel()
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/pieces/12/uprights/plan")), verdict("sound"))
	const key = "rutile.draft.12.gone.2020-01-01T00:00:00Z"
	if _, err := chromedp.Run(ctx, chromedp.Evaluate[bool](fmt.Sprintf(`(localStorage.setItem(%q, JSON.stringify({rev: 1, created: "2020-01-01T00:00:00Z", piece: {format: "rutile/piece", version: 1, name: "Yesterday's"}})), true)`, key))); err != nil {
		t.Fatal(err)
	}
	do(t, ctx, chromedp.Reload(), verdict("sound"), saved(), chromedp.Navigate(a.url("/")), shows(`[data-zone="12/uprights"]`), chromedp.Sleep(300*time.Millisecond), hides("[data-left]"))
	if s := a.stored("12"); s.Rev != 1 || s.Piece.Name != "Programme rack" {
		t.Errorf("revision %d is called %q", s.Rev, s.Piece.Name)
	}
	if kept, err := chromedp.Run(ctx, chromedp.Evaluate[bool](fmt.Sprintf(`!!localStorage.getItem(%q)`, key))); err != nil || !kept {
		t.Error("what was kept of the other piece is gone", err)
	}
}

func TestKeysAreShownAndCanBeTurnedOff(t *testing.T) {
	t.Parallel()
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/pieces/12/uprights/plan")), verdict("sound"), keys("?"), shows("dialog[open] kbd"), click("[data-close]"),
		keys("t"), shows(`[data-theme="dark"]`), keys("?"), click(`dialog [type=checkbox]`), keys(kb.Escape), keys("n"), chromedp.Sleep(200*time.Millisecond), hides("[data-picker]"),
		chromedp.Reload(), verdict("sound"), shows(`[data-theme="dark"]`))
}

// fits tells that a view that is drawn is not wider than the screen.
func fits(t *testing.T, ctx context.Context, name string) {
	t.Helper()
	over, err := chromedp.Run(ctx, chromedp.Evaluate[int](`document.documentElement.scrollWidth - document.documentElement.clientWidth`))
	if err != nil || over > 0 {
		t.Errorf("%s is %d pixels too wide, %v", name, over, err)
	}
}

// still tells that nothing on a view that is drawn has moved by itself.
func still(t *testing.T, ctx context.Context, name string) {
	t.Helper()
	moved, err := chromedp.Run(ctx, chromedp.Evaluate[[]string](`new Promise((done) => {
		const out = [];
		new PerformanceObserver((l) => {
			for (const e of l.getEntries()) if (!e.hadRecentInput) out.push(e.value.toFixed(4) + " " + e.sources.map((s) => s.node?.outerHTML?.slice(0, 90) ?? s.node?.textContent).join(" | "));
		}).observe({type: "layout-shift", buffered: true});
		setTimeout(() => done(out), 100);
	})`, chromedp.EvalAwaitPromise))
	if err != nil {
		t.Fatal(err)
	}
	for _, m := range moved {
		t.Errorf("%s: %s", name, m)
	}
}

// auditor looks at what is on the screen: accessibility, contrast in the light theme and in the dark one, and no raw ids; in
// short tests in one of the two.
func auditor(t *testing.T, ctx context.Context) func(name string) {
	t.Helper()
	axe, err := os.ReadFile("../web/node_modules/axe-core/axe.min.js")
	if err != nil {
		t.Fatal(err)
	}
	run := func(name, rules string) {
		t.Helper()
		found, err := chromedp.Run(ctx, chromedp.Evaluate[[]string](`axe.run(document, {resultTypes: ["violations"], preload: false, runOnly: `+rules+`})
			.then((r) => r.violations.flatMap((v) => v.nodes.map((n) => v.id + ": " + n.target + " " + n.failureSummary.replace(/\s+/g, " ").slice(0, 220))))`, chromedp.EvalAwaitPromise))
		if err != nil {
			t.Fatal(name, err)
		}
		for _, f := range found {
			t.Errorf("%s: %s", name, f)
		}
	}
	theme := func(name string) act {
		return chromedp.Func(func(ctx context.Context, tab *chromedp.Target) error {
			_, err := chromedp.Evaluate[bool](fmt.Sprintf(`(() => {
				const atOnce = new CSSStyleSheet();
				atOnce.replaceSync("*, ::before, ::after { transition: none !important; }");
				document.adoptedStyleSheets = [atOnce];
				document.documentElement.dataset.theme = %q;
				return true;
			})()`, name))(ctx, tab)
			return err
		})
	}
	n := 0
	return func(name string) {
		t.Helper()
		n++
		do(t, ctx, chromedp.Sleep(250*time.Millisecond), chromedp.Func(func(ctx context.Context, tab *chromedp.Target) error {
			there, err := chromedp.Evaluate[bool](`typeof axe !== "undefined"`)(ctx, tab)
			if err == nil && !there {
				_, err = chromedp.Evaluate[bool](string(axe)+";true")(ctx, tab)
			}
			return err
		}))
		ids, err := chromedp.Run(ctx, chromedp.Evaluate[[]string](`document.body.innerText.match(/\b[a-z]+_[a-z_0-9]+\b|\b(walk|adhesion|bleed|prep|effect|film|use|site|mix|safety)\.[a-z_]+\b/g) ?? []`))
		if err != nil || len(ids) > 0 {
			t.Errorf("%s shows ids: %v, %v", name, ids, err)
		}
		const all = `["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa", "best-practice"]`
		dark := []act{theme("dark"), chromedp.Sleep(50 * time.Millisecond)}
		switch {
		case !testing.Short():
			run(name, all)
			do(t, ctx, dark...)
			run(name+" in the dark theme", `{type: "rule", values: ["color-contrast"]}`)
		case n%2 == 0:
			do(t, ctx, dark...)
			run(name+" in the dark theme", all)
		default:
			run(name, all)
			return
		}
		do(t, ctx, theme("light"))
	}
}

// Every screen fits the widths that it is made for, moves nothing by itself, and passes the automated audit, with its
// dialogs and lists open too; in the other theme, in which nothing but colours differs, that of contrast. Short tests take
// every second one.
func TestScreens(t *testing.T) {
	t.Parallel()
	a := startWorkshop(t, true)
	a.bare()
	const phone, tablet, wide, height = 390, 768, 1280, 800
	ctx := browser(t, wide, height)
	audit := auditor(t, ctx)
	for i, v := range views {
		loaded := []int64{phone, wide}
		if testing.Short() {
			if i%2 > 0 {
				continue
			}
			loaded = loaded[i/2%2:][:1]
		}
		for _, w := range loaded {
			do(t, ctx, chromedp.EmulateViewport(w, height), chromedp.Navigate(a.url(v.path)), shows(v.there), chromedp.Sleep(300*time.Millisecond))
			still(t, ctx, v.name)
		}
		for _, w := range []int64{phone, tablet, wide} {
			do(t, ctx, chromedp.EmulateViewport(w, height))
			fits(t, ctx, fmt.Sprintf("%s, %d px wide,", v.name, w))
		}
		if v.fewer != nil {
			do(t, ctx, v.fewer)
		}
		audit(v.name)
	}
	const esc = kb.Escape
	for i, x := range []struct {
		name, path string
		acts       []act
	}{
		{"choosing a step", "/pieces/13/fronts/plan", []act{verdict("fails"), click(`[data-do="figures"]`), click(row(1, "detergent")), click(`[data-do="after"]`), shows("[data-picker] [data-option]")}},
		{"looking at a repair", "", []act{keys(esc), click(`[data-see~="primer_bond_wb"]`), verdict("sound")}},
		{"copying a plan", "", []act{keys(esc), verdict("fails"), click(`[data-do="copy"]`), shows("[data-copy][data-verdict-is]")}},
		{"the figures of the verdict", "", []act{keys(esc), hides("dialog"), click("[data-figure]"), shows("dialog[open]")}},
		{"keys", "", []act{click("[data-close]"), keys("?"), shows("dialog[open] kbd")}},
		{"studio", "", []act{click("[data-close]"), click(`[data-do="studio"]`), shows(of("settings.units"))}},
		{"choosing a material", "", []act{click("[data-close]"), keys("1"), click(of("substrate")), shows("[data-option]")}},
		{"a part open and chosen", "/pieces/13/-/parts", []act{shows("svg [data-part]"), part(1), click(`[data-open-part="2"]`), shows(of("part.name"))}},
		{"joining zones", "", []act{click(`[data-join="fronts"]`), shows("[data-join-to]")}},
		{"a zone of parts", "", []act{click("[data-close]"), click(`[data-do="new-zone"]`), shows(of("material"))}},
		{"a fitting open", "", []act{click(`[data-do="not-now"]`), keys("6"), click(`[data-fitting="0"]`), shows(of("fitting.do"))}},
		{"a template", "/pieces/29", []act{click(`[data-template="chest"]`), shows(`[data-do="make"]`)}},
		{"a can open", "/shelf", []act{click(`[data-can="yard-foyer-cream"]`), click(`[data-do="weigh"]`), typeIn("weigh.grams", "900"), shows(`[data-do="take-weight"]`)}},
		{"a blend", "/colours?want=%236f8474", []act{scrolled(`[data-recipe="yard-blend-green"]`), click(`[data-recipe="yard-blend-green"] [data-do="make-again"]`), shows("[data-result]"), click(`[data-from="palette"]`), shows("[data-pick]")}},
		{"not quite as planned", "/today", []act{shows("[data-card]"), click(`[data-do="otherwise"]`), shows("[data-otherwise]"), click("details summary"), shows("[data-scale]")}},
		{"a finished piece's plan", "/pieces/12/uprights/plan", []act{verdict("sound"), click(`[data-do="like"]`), click("[data-like] button"), shows("[data-use]")}},
		{"pairing a device", "/devices", []act{click(`[data-do="pair"]`), shows("[data-code] svg path")}},
		{"damage", "/pieces/8/body/survey", []act{shows(of("defect.place"))}},
	} {
		if x.path != "" {
			do(t, ctx, chromedp.Navigate(a.url(x.path)))
		}
		do(t, ctx, x.acts...)
		if i%2 == 0 || !testing.Short() {
			audit(x.name)
		}
	}
}

var onePage = regexp.MustCompile(`/Type\s*/Page[^s]`)

// A zone's plan prints as a sheet of its own: no buttons, no status strip.
func TestAPlanIsPrinted(t *testing.T) {
	t.Parallel()
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/pieces/12/uprights/sheet")), shows("article"))
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
	do(t, ctx, click(`[data-row="5"]`), click(`[data-do="remove"]`), shows(`[data-save="unsent"][data-kept="no"]`))
	a.up(true)
	do(t, ctx, saved())
}
