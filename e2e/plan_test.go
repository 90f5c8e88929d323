package e2e

import (
	"context"
	"encoding/json"
	"fmt"
	"net/http"
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"

	"rutile/internal/wire"
)

// first waits until the card of a way stands first.
func first(way string) act {
	return chromedp.Func(func(ctx context.Context, tab *chromedp.Target) error {
		return until(ctx, tab, fmt.Sprintf(`document.querySelector("[data-way]")?.dataset.way === %q`, way), "the way "+way+" first")
	})
}

// card is something in the card of a way.
func card(way, css string) string { return fmt.Sprintf("[data-way=%q] %s", way, css) }

// A new user presses for plans, reads two, takes one, spoils it, sees the check
// object and repairs it.
func TestAPlanIsFoundTakenSpoiledAndRepaired(t *testing.T) {
	t.Parallel()
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/")), click(`[data-zone="19/doors"]`), shows(`[data-stage="prepare"]`), chromedp.Navigate(a.url("/pieces/19/doors/plan")), click("[data-ways]"),
		click(card("prime", `[data-do="its-steps"]`)), click(card("chemical", `[data-do="its-steps"]`)), click(card("prime", `[data-do="rests-on"]`)), shows(card("prime", "details[open] li")),
		click(card("prime", "[data-take]")), verdict("sound"), shows("[data-row]"), saved())
	z := a.stored("19").Piece.Zones[2]
	if z.Way != "prime" || !strings.Contains(does(z.Steps), "primer_bond_wb") {
		t.Fatalf("kept: %q, %s", z.Way, does(z.Steps))
	}
	// For the worse: the primer goes, and the check objects.
	do(t, ctx, click(`[data-row][data-is="primer_bond_wb"]`), click(`[data-do="remove"]`), verdict("watch"), shows(`[data-code^="adhesion."]`), saved(), click(primed), verdict("sound"), saved())
	if s := does(a.stored("19").Piece.Zones[2].Steps); !strings.Contains(s, "primer_bond_wb") {
		t.Errorf("repaired: %s", s)
	}
	// Reloaded it is there; undone to the very beginning there is no plan.
	do(t, ctx, chromedp.Reload(), verdict("sound"), ctrl("z", false), verdict("watch"), ctrl("z", false), verdict("sound"), ctrl("z", false), hides("[data-row]"), saved())
	if z := a.stored("19").Piece.Zones[2]; len(z.Steps) != 0 || z.Way != "" {
		t.Errorf("undone: %q, %s", z.Way, does(z.Steps))
	}
}

// A flaking look is planned, and sealed so that it stays; another seal is objected
// to.
func TestAFlakingLookIsPlanned(t *testing.T) {
	inSoak(t)
	t.Parallel()
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/pieces/19/plinth/plan")), click("[data-ways]"), shows("[data-take]"), chromedp.Focus(chromedp.CSS(`[data-take="1"]`)), keys(kb.Enter), shows("[data-row]"), saved())
	steps := a.stored("19").Piece.Zones[3].Steps
	all := does(steps)
	if !strings.Contains(all, "paint_milk") || !strings.Contains(all, "wait") || !strings.HasPrefix(steps[len(steps)-1].Product, "wax") || strings.Contains(all, "clear_") {
		t.Fatalf("a flaking look is planned as %s", all)
	}
	n := len(steps)
	do(t, ctx, click(fmt.Sprintf(`[data-row="%d"]`, n)), click(`[data-do="remove"]`), hides(fmt.Sprintf(`[data-row="%d"]`, n)))
	do(t, ctx, append(addStep("water-based clear"), verdict("watch"), shows(`[data-code="film.reactivate"]`), ctrl("z", false), ctrl("z", false), hides(`[data-code="film.reactivate"]`), saved())...)
}

// A piece of five zones is planned at one press: four are, one says why not, and
// all of it is taken back at one press.
func TestAWholePieceIsPlanned(t *testing.T) {
	t.Parallel()
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	const all = `[data-do="plan-all"]`
	// What counts as lead is told apart from what only has no date.
	do(t, ctx, chromedp.Navigate(a.url("/pieces/19/-/parts")), shows(`[data-lead="suspect"]`), shows(`[data-lead="undated"]`), click(`[data-side="plan"]`), click(all), shows("tbody tr"), counts(`[data-state="planned"]`, 4), shows(`[data-zone="back"] [data-stuck] [data-open-field="lead_test"]`),
		click("[data-take-all]"), shows("[data-take-all]:disabled"), saved())
	p := a.stored("19").Piece
	for i, z := range p.Zones {
		if planned := len(z.Steps) > 0; planned != (z.ID != "back") || planned && z.Way == "" {
			t.Errorf("zone %d, %s, by %q: %s", i, z.ID, z.Way, does(z.Steps))
		}
	}
	// Those that are to match have the same paint.
	for _, z := range p.Zones[:3] {
		if !strings.Contains(does(z.Steps), "paint_enamel_wb") {
			t.Errorf("%s: %s", z.ID, does(z.Steps))
		}
	}
	do(t, ctx, click(all), shows(`[data-zone="top"]:not([data-state="planned"])`), ctrl("z", false), saved())
	for _, z := range a.stored("19").Piece.Zones {
		if len(z.Steps) > 0 || z.Way != "" {
			t.Errorf("undone, %s has %s", z.ID, does(z.Steps))
		}
	}
	// What would open the way leads to its field.
	do(t, ctx, chromedp.Navigate(a.url("/pieces/19/back/compare")), click(`[data-open-field="lead_test"]`), focused(of("lead_test")))
}

// Ways are compared, weighed, taken and undone by the keyboard alone.
func TestWaysByTheKeyboardOnly(t *testing.T) {
	inSoak(t)
	t.Parallel()
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/pieces/19/top/plan")), shows("[data-add]"), keys("w"), shows("[data-take]"), keys("t"), focused(`[data-take="1"]`),
		keys(kb.ArrowRight), focused(`[data-take="2"]`), keys(kb.ArrowLeft), focused(`[data-take="1"]`), keys(kb.Enter), shows("[data-row]"), saved())
	z := a.stored("19").Piece.Zones[1]
	if len(z.Steps) < 4 || z.Way == "" {
		t.Fatalf("kept: %q, %s", z.Way, does(z.Steps))
	}
	do(t, ctx, keys("w"), shows(`[data-way="own"]`), keys(kb.Escape), shows("[data-add]"), ctrl("z", false), hides("[data-row]"), saved())
	if z := a.stored("19").Piece.Zones[1]; len(z.Steps) != 0 {
		t.Errorf("undone: %s", does(z.Steps))
	}
}

// Moving what counts changes the order at once, and is kept from zone to zone.
func TestWeightsChangeTheOrder(t *testing.T) {
	inSoak(t)
	t.Parallel()
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	weigh := func(term, key string) act {
		return chromedp.Func(func(ctx context.Context, tab *chromedp.Target) error {
			if err := chromedp.Do(ctx, chromedp.Focus(chromedp.CSS(fmt.Sprintf(`[data-weight=%q]`, term)))); err != nil {
				return err
			}
			_, err := chromedp.KeyEvent(key)(ctx, tab)
			return err
		})
	}
	at := func(term string, n int) act {
		return chromedp.Func(func(ctx context.Context, tab *chromedp.Target) error {
			return until(ctx, tab, fmt.Sprintf(`document.querySelector('[data-weight=%q]')?.value === "%d"`, term, n), fmt.Sprintf("%s at %d", term, n))
		})
	}
	do(t, ctx, chromedp.Navigate(a.url("/pieces/20/best/compare")), first("prime"))
	// Only smell counts: what has none comes first.
	for _, term := range []string{"peel", "stain", "elapsed", "hands", "cost"} {
		do(t, ctx, weigh(term, kb.Home), at(term, 0))
	}
	do(t, ctx, weigh("smell", kb.End), at("smell", 5), first("straight_on"))
	// The last weight cannot be taken away.
	do(t, ctx, weigh("smell", kb.Home), at("smell", 5), chromedp.Reload(), at("smell", 5), first("straight_on"),
		chromedp.Navigate(a.url("/pieces/20/-/plan")), at("smell", 5), chromedp.Navigate(a.url("/pieces/20/best/compare")), first("straight_on"), click(`[data-do="as-usual"]`), first("prime"), hides(`[data-do="as-usual"]`))
}

// ways are the studio's own ways, as they are kept.
func (a *app) ways() []wire.Way {
	a.t.Helper()
	r, err := http.Get(a.url("/api/studio"))
	if err != nil {
		a.t.Fatal(err)
	}
	defer r.Body.Close()
	var s struct{ Ways []wire.Way }
	if err := json.NewDecoder(r.Body).Decode(&s); err != nil || r.StatusCode != 200 {
		a.t.Fatal(r.Status, err)
	}
	return s.Ways
}

// A way of one's own is made, compared, taken, changed and removed; a plan made by it stays. It may
// keep to what is on the shelf.
func TestAWayOfOnesOwn(t *testing.T) {
	inSoak(t)
	t.Parallel()
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	own := []act{click(of("way")), click(`[data-do="own-way"]`), shows("dialog[open]")}
	do(t, ctx, chromedp.Navigate(a.url("/pieces/20/best/compare")), shows("[data-take]"))
	do(t, ctx, append(own, typeIn("way.name", "Clay and wax"), choose("way.seal", "wax"), click("[type=submit]"), hides("dialog"), shows(`[data-way="clay-and-wax"]`), click(card("clay-and-wax", "[data-take]")), shows("[data-row]"), saved())...)
	if z := a.stored("20").Piece.Zones[0]; z.Way != "clay-and-wax" || !strings.HasPrefix(z.Steps[len(z.Steps)-1].Product, "wax") {
		t.Errorf("kept: %q, %s", z.Way, does(z.Steps))
	}
	do(t, ctx, keys("w"), shows(`[data-way="clay-and-wax"]`), click(of("way")), click(`[data-change-way="clay-and-wax"]`), click(`[data-do="remove-way"]`), hides("dialog"), hides(`[data-way="clay-and-wax"]`))
	if z := a.stored("20").Piece.Zones[0]; z.Way != "clay-and-wax" {
		t.Errorf("the plan follows %q", z.Way)
	}
	shelf := of("way.shelf")
	do(t, ctx, append(own, typeIn("way.name", "My shelf"), hides(shelf+":checked"), click(shelf), shows(shelf+":checked"), choose("way.resist", "shellac"), choose("way.additive", "1"), click("[type=submit]"), hides("dialog"))...)
	if ways := a.ways(); len(ways) != 1 || len(ways[0].Shelf) < 40 || ways[0].Resist != "shellac" || ways[0].Additive != 1 {
		t.Errorf("kept: %+v", ways)
	}
	do(t, ctx, click(of("way")), click(`[data-change-way="my-shelf"]`), shows(shelf+":checked"), click(shelf), hides(shelf+":checked"), click("[type=submit]"), hides("dialog"))
	if ways := a.ways(); len(ways) != 1 || ways[0].Shelf != nil {
		t.Errorf("kept: %+v", ways)
	}
}

// What would change a plan is said with the test that tells, which opens where its
// result is entered.
func TestWhatWouldChangeThePlanIsOffered(t *testing.T) {
	t.Parallel()
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/pieces/20/best/plan")), verdict("sound"), click("[data-minds] summary"), click(`[data-minds] [data-open-field="evidence"]`), focused(of("identify")))
}
