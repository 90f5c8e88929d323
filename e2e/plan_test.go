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

// within presses what says words in the card of a way.
func within(way, words string) act {
	return chromedp.Func(func(ctx context.Context, tab *chromedp.Target) error {
		return until(ctx, tab, fmt.Sprintf(`(() => {
			const card = document.querySelector('[data-way=%q]');
			const e = [...(card?.querySelectorAll("button, summary") ?? [])].find((e) => e.innerText.includes(%q));
			e?.click();
			return !!e;
		})()`, way, words), words+" in the card of "+way)
	})
}

// A new user presses for plans, reads two, takes one, spoils it, sees the check
// object and repairs it.
func TestAPlanIsFoundTakenSpoiledAndRepaired(t *testing.T) {
	t.Parallel()
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/")), press("Cloakroom dresser"), press("Doors"), sees("No cleaning or sanding is planned yet"), chromedp.Navigate(a.url("/pieces/19/doors/plan")),
		sees("Nothing is planned yet"), press("Find plans"), sees("Ways to do it"), sees("Sound"),
		within("prime", "Its steps"), sees("Bonding primer"), within("chemical", "Its steps"), sees("Liquid deglosser"), within("prime", "What it rests on"), sees("how"),
		within("prime", "Take it"), sees("Taken: Prime. Undo takes it back."), verdict("sound"), saved())
	z := a.stored("19").Piece.Zones[2]
	if z.Way != "prime" || !strings.Contains(does(z.Steps), "primer_bond_wb") {
		t.Fatalf("kept: %q, %s", z.Way, does(z.Steps))
	}
	// For the worse: the primer goes, and the check objects.
	do(t, ctx, press("4 Bonding primer"), press("Remove"), verdict("fails"), sees("will not hold on"), saved(),
		press("Prime with bonding primer"), verdict("sound"), saved())
	if s := does(a.stored("19").Piece.Zones[2].Steps); !strings.Contains(s, "primer_bond_wb") {
		t.Errorf("repaired: %s", s)
	}
	// Reloaded it is there; undone to the very beginning there is no plan.
	do(t, ctx, chromedp.Reload(), verdict("sound"), ctrl("z", false), verdict("fails"), ctrl("z", false), verdict("sound"), ctrl("z", false), sees("Nothing is planned yet"), saved())
	if z := a.stored("19").Piece.Zones[2]; len(z.Steps) != 0 || z.Way != "" {
		t.Errorf("undone: %q, %s", z.Way, does(z.Steps))
	}
}

// A flaking look is planned, and sealed so that it stays; another seal is objected
// to.
func TestAFlakingLookIsPlanned(t *testing.T) {
	t.Parallel()
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/pieces/19/plinth/plan")), press("Find plans"), sees("Lets go"), press("5 of 11 ways"), press("A way of your own"), sees("Name"), press("Leave it"),
		chromedp.Focus(chromedp.CSS(`[data-take="1"]`)), keys(kb.Enter), sees("Taken:"), saved())
	steps := a.stored("19").Piece.Zones[3].Steps
	all := does(steps)
	if !strings.Contains(all, "paint_milk") || !strings.Contains(all, "wait") || !strings.HasPrefix(steps[len(steps)-1].Product, "wax") || strings.Contains(all, "clear") {
		t.Fatalf("a flaking look is planned as %s", all)
	}
	n := len(steps)
	do(t, ctx, press(fmt.Sprintf("%d ", n)), press("Remove"), press("Add the next step"), sees("Makes sense next"), keys("water-based clear"), keys(kb.Enter), sees("over paint that is meant to flake"), verdict("fails"),
		ctrl("z", false), ctrl("z", false), gone("over paint that is meant to flake"), saved())
}

// A piece of five zones is planned at one press: four are, one says why not, and
// all of it is taken back at one press.
func TestAWholePieceIsPlanned(t *testing.T) {
	t.Parallel()
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/pieces/19/-/parts")), press("Plan it all"), sees("5 of 5 zones have no plan yet"), press("Plan what is not planned"),
		sees("trips to the bench instead of"), sees("Suspected lead must not be disturbed dry"), sees("A laboratory or a licensed assessor who finds no lead"),
		sees("The same paint and sheen as"), press("Take these 4 plans"), sees("Taken. Undo takes it back."), saved())
	p := a.stored("19").Piece
	for i, z := range p.Zones {
		if planned := len(z.Steps) > 0; planned != (z.ID != "back") || planned && z.Way == "" {
			t.Errorf("zone %d, %s, by %q: %s", i, z.ID, z.Way, does(z.Steps))
		}
	}
	// Those that are to match have the same paint.
	for _, z := range p.Zones[:3] {
		if !strings.Contains(does(z.Steps), "paint_mineral") {
			t.Errorf("%s: %s", z.ID, does(z.Steps))
		}
	}
	do(t, ctx, press("Plan what is not planned"), sees("It has a plan already"), ctrl("z", false), sees("5 of 5 zones have no plan yet"), saved())
	for _, z := range a.stored("19").Piece.Zones {
		if len(z.Steps) > 0 || z.Way != "" {
			t.Errorf("undone, %s has %s", z.ID, does(z.Steps))
		}
	}
	// What would open the way leads to its field.
	do(t, ctx, chromedp.Navigate(a.url("/pieces/19/back/ways")), press("A laboratory or a licensed assessor who finds no lead"), sees("As it stands in the report"))
}

// Ways are compared, weighed, taken and undone by the keyboard alone.
func TestWaysByTheKeyboardOnly(t *testing.T) {
	t.Parallel()
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/pieces/19/top/plan")), sees("Nothing is planned yet"), keys("w"), sees("Take it"), keys("t"), focused(`[data-take="1"]`),
		keys(kb.ArrowRight), focused(`[data-take="2"]`), keys(kb.ArrowLeft), focused(`[data-take="1"]`), keys(kb.Enter), sees("Taken:"), saved())
	z := a.stored("19").Piece.Zones[1]
	if len(z.Steps) < 4 || z.Way == "" {
		t.Fatalf("kept: %q, %s", z.Way, does(z.Steps))
	}
	do(t, ctx, keys("w"), sees("The plan it has"), keys(kb.Escape), sees("The plan, from below"), ctrl("z", false), sees("Nothing is planned yet"), saved())
	if z := a.stored("19").Piece.Zones[1]; len(z.Steps) != 0 {
		t.Errorf("undone: %s", does(z.Steps))
	}
}

// Moving what counts changes the order at once, and is kept from zone to zone.
func TestWeightsChangeTheOrder(t *testing.T) {
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
	do(t, ctx, chromedp.Navigate(a.url("/pieces/20/best/ways")), sees("Take it"), first("prime"))
	// Only smell counts: what has none comes first.
	for _, term := range []string{"peel", "stain", "elapsed", "hands", "cost"} {
		do(t, ctx, weigh(term, kb.Home))
	}
	do(t, ctx, weigh("smell", kb.End), sees("most of all"), sees("not at all"), first("straight_on"))
	// The last weight cannot be taken away.
	do(t, ctx, weigh("smell", kb.Home), sees("most of all"), chromedp.Reload(), sees("most of all"), first("straight_on"),
		chromedp.Navigate(a.url("/pieces/20/-/plan")), sees("Plan the whole piece"), sees("most of all"), chromedp.Navigate(a.url("/pieces/20/best/ways")), first("straight_on"), press("All as usual"), first("prime"), gone("most of all"))
}

// A way of one's own is made, compared, taken, changed and removed; a plan made by
// it stays.
func TestAWayOfOnesOwn(t *testing.T) {
	t.Parallel()
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/pieces/20/best/ways")), sees("Take it"), press("5 of 11 ways"), press("A way of your own"), sees("Only these paints"), typeIn("Name", "Clay and wax"), choose("What closes an everyday paint", "wax"),
		press("Save"), first("prime"), sees("Clay and wax"), within("clay-and-wax", "Take it"), sees("Taken: Clay and wax"), saved())
	if z := a.stored("20").Piece.Zones[0]; z.Way != "clay-and-wax" || !strings.HasPrefix(z.Steps[len(z.Steps)-1].Product, "wax") {
		t.Errorf("kept: %q, %s", z.Way, does(z.Steps))
	}
	do(t, ctx, keys("w"), sees("Clay and wax"), press("5 of 12 ways"), press("Change Clay and wax"), press("Remove it"), press("of 11 ways"), gone("Change Clay and wax"))
	if z := a.stored("20").Piece.Zones[0]; z.Way != "clay-and-wax" {
		t.Errorf("the plan follows %q", z.Way)
	}
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

// A way may keep to what is on the shelf; what it makes flake over is a choice.
func TestAShelfIsKeptTo(t *testing.T) {
	t.Parallel()
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/pieces/20/best/ways")), sees("Take it"), press("5 of 11 ways"), press("A way of your own"), typeIn("Name", "My shelf"), gone("On my shelf"),
		mark("Only what is on my shelf"), sees("On my shelf: "), choose("What makes paint flake in patches", "shellac"), choose("Bonding additive in powder paint", "1"), press("Save"), gone("Only what is on my shelf"), sees("My shelf"))
	if ways := a.ways(); len(ways) != 1 || len(ways[0].Shelf) < 40 || ways[0].Resist != "shellac" || ways[0].Additive != 1 {
		t.Errorf("kept: %+v", ways)
	}
	do(t, ctx, press("of 12 ways"), press("Change My shelf"), sees("On my shelf: "), mark("Only what is on my shelf"), gone("On my shelf: "), press("Save"), gone("Only what is on my shelf"))
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
	do(t, ctx, chromedp.Navigate(a.url("/pieces/20/best/plan")), verdict("sound"), press("What would change this plan?"), sees("This plan fails"), sees("If the old finish is wax"),
		press("What does a rag of white spirit take off?"), sees("What it probably is"))
}
