package e2e

import (
	"context"
	"encoding/json"
	"fmt"
	"net/http"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"

	"rutile/internal/wire"
)

// settings are those of the studio.
func (a *app) settings() wire.Settings {
	a.t.Helper()
	res, err := http.Get(a.url("/api/studio"))
	if err != nil {
		a.t.Fatal(err)
	}
	defer res.Body.Close()
	var s wire.Settings
	if err := json.NewDecoder(res.Body).Decode(&s); err != nil {
		a.t.Fatal(err)
	}
	return s
}

// A plan names what the kit lacks and what that gains; once it is in the kit, nobody speaks of it. With
// the mouse.
func TestTheKit(t *testing.T) {
	t.Parallel()
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	const buys = `[data-way="prime"] [data-buys]`
	do(t, ctx, chromedp.Navigate(a.url("/pieces/19/plinth/compare")), contains(buys, "Buy milk paint"), contains(buys, "With your kit alone"),
		click(`[data-do="to-kit"]`), click(`[data-tick-kit="powder"]`), shows(`[data-tick-kit="powder"]:checked`))
	if kits := a.settings().Kits; !slices.Equal(kits, []string{"brush", "spray", "powder"}) {
		t.Errorf("kits %q", kits)
	}
	do(t, ctx, chromedp.Navigate(a.url("/pieces/19/plinth/compare")), shows(`[data-way="prime"] [data-take]`), hides(buys))
	// A kit is edited, and brought back to what it was.
	do(t, ctx, chromedp.Navigate(a.url("/kit")), click(`[data-edit-kit="powder"]`), click(of("kit.tool.gun")), click(`dialog [type="submit"]`), hides("dialog"), contains(`[data-kit="powder"]`, "spray gun"))
	if own := a.settings().OwnKits; len(own) != 1 || own[0].ID != "powder" || !slices.Contains(own[0].Tools, "gun") {
		t.Errorf("own kits %+v", own)
	}
	do(t, ctx, click(`[data-edit-kit="powder"]`), click(`[data-do="drop-kit"]`), hides("dialog"), lacks(`[data-kit="powder"]`, "spray gun"))
	// A new one is in use at once.
	do(t, ctx, click(`[data-do="new-kit"]`), put("kit.name", "Van"), click(`dialog [type="submit"]`), hides("dialog"), shows(`[data-tick-kit="van"]:checked`), chromedp.Reload(), shows(`[data-tick-kit="van"]:checked`))
	if s := a.settings(); len(s.OwnKits) != 1 || !slices.Contains(s.Kits, "van") {
		t.Errorf("%q, %+v", s.Kits, s.OwnKits)
	}
}

// A habit is switched off by the keyboard, and a plan without it says what that risks; a plan is taken; a
// studio that works in the evening gets its trips in the evening.
func TestHabitsAndHours(t *testing.T) {
	t.Parallel()
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	steps := func() string { return does(a.stored("19").Piece.Zones[1].Steps) }
	blocks := func() int {
		n := 0
		for _, s := range a.stored("19").Piece.Zones[1].Steps {
			if strings.HasPrefix(s.Product, "shellac_pigmented") {
				n += max(1, s.Coats)
			}
		}
		return n
	}
	do(t, ctx, chromedp.Navigate(a.url("/pieces/19/top/compare")), shows("[data-take]"), lacks(`[data-way="prime"] [data-leaves]`, "Blocked once"), keys("t"), focused(`[data-take="1"]`), keys(kb.Enter), shows("[data-row]"), saved())
	if !strings.Contains(steps(), "abrade") || blocks() != 2 {
		t.Fatalf("%d blocking coats: %s", blocks(), steps())
	}
	do(t, ctx, ctrl("z", false), hides("[data-row]"), saved(), keys("w"), shows("[data-take]"), keys("k"), shows(`[data-habit="block_twice"]`), chromedp.Focus(chromedp.CSS(`[data-habit="block_twice"]`)), keys(" "), shows(`[data-habit="block_twice"]:not(:checked)`))
	if off := a.settings().HabitsOff; !slices.Equal(off, []string{"block_twice"}) {
		t.Errorf("off: %q", off)
	}
	do(t, ctx, chromedp.NavigateBack(), contains(`[data-way="prime"] [data-leaves]`, "Blocked once"), keys("t"), focused(`[data-take="1"]`), keys(kb.Enter), shows("[data-row]"), saved())
	if blocks() != 1 {
		t.Errorf("%d blocking coats: %s", blocks(), steps())
	}
	// Only hours that make a day can be chosen.
	do(t, ctx, chromedp.Navigate(a.url("/kit")), choose("bench.to_h", "22"), shows(of("bench.from_h")+` option[value="20"]`), hides(of("bench.from_h")+` option[value="22"]`), choose("bench.from_h", "18"), hides(of("bench.to_h")+` option[value="18"]`), click(of("bench.sat")))
	eventually(t, func() bool {
		b := a.settings().Bench
		return b != nil && b.FromH == 18 && b.ToH == 22 && len(b.Days) == 5
	})
	do(t, ctx, chromedp.Navigate(a.url("/pieces/19/-/plan")), click(`[data-do="plan-all"]`), contains(`[data-day="1"]`, "Day 1, "), contains(`[data-day="1"] td`, "18:00"))
}

// A look that the wood does not take is refused in a line, with what opens the way; that leads to its field,
// and then there is a plan.
func TestARefusalOpensTheWay(t *testing.T) {
	t.Parallel()
	a := start(t, true)
	a.call("POST", "/api/pieces", `{"format":"rutile/piece","version":1,"name":"Limed","kind":"table","made":2015,"zones":[{"id":"top","substrate":"maple","finish":"none","soils":[],"area_m2":1.2,"wear":"handled","target":{"look":"limed","colour":"#d8cdb9"}}]}`, 201)
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/pieces/29/top/compare")), contains("[data-stuck]", "Maple has no open pores"), counts(`[data-stuck] [data-open-field]`, 1),
		click(`[data-open-field="look"]`), focused(of("look")), choose("look", "solid"), saved(), chromedp.Navigate(a.url("/pieces/29/top/compare")), shows("[data-take]"), hides("[data-way] [data-stuck] ul"), keys("t"), keys(kb.Enter), shows("[data-row]"), saved())
	if z := a.stored("25").Piece.Zones[0]; len(z.Steps) < 4 || z.Target.Look != "solid" {
		t.Errorf("%s as %q", does(z.Steps), z.Target.Look)
	}
}

// contains waits until an element holds some words, and lacks until none does.
func contains(css, words string) act { return holding(css, words, true) }
func lacks(css, words string) act    { return holding(css, words, false) }

func holding(css, words string, wanted bool) act {
	return chromedp.Func(func(ctx context.Context, tab *chromedp.Target) error {
		return until(ctx, tab, fmt.Sprintf(`[...document.querySelectorAll(%q)].some((e) => e.textContent.includes(%q)) === %v`, css, words, wanted), fmt.Sprintf("%q in %s: %v", words, css, wanted))
	})
}

// eventually waits until something is so on the server.
func eventually(t *testing.T, is func() bool) {
	t.Helper()
	for range 100 {
		if is() {
			return
		}
		time.Sleep(50 * time.Millisecond)
	}
	t.Fatal("it never came to that")
}
