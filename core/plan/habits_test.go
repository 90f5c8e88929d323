package plan

import (
	"slices"
	"strings"
	"testing"

	"rutile/core/check"
	"rutile/core/craft"
	"rutile/core/surface"
)

// Each habit shows in the plan of a zone where it has a place; switched off, that plan is another one that
// does not keep it and says so, or nothing speaks for leaving it out.
func TestHabits(t *testing.T) {
	c := craft.Default()
	for _, x := range []struct {
		habit Habit
		facts string
		has   string // in the plan that keeps it
		off   bool   // whether switching it off changes the plan
	}{
		{WashFirst, "beech varnish_oil satin; target satin", "Detergent wash", true},
		{ScuffFilms, "beech varnish_oil satin; soils grime1; target satin", "Sand with 220", true},
		{ScuffFilms, "pine paint_alkyd_old gloss; made 1950; soils grime1; target satin", "220, wet", true}, // where there may be lead
		{SandBare, "birch; target matt", "Sand with 220", true},
		{Denib, "mdf; target satin; colour #f2f0ea", "Sand with 320", true},
		{SpiritWipe, "steel gloss; soils grime1; target satin", "Alcohol wipe", true},
		{SpiritWipe, "teak; target satin; colour #2b3a44", "Alcohol wipe", true},
		{BlockTwice, "oak varnish_oil satin; soils grime1; target satin; colour #f2f0ea", "2 coats of", true},
		{HardLast, "beech varnish_oil satin; soils grime1; wear tabletop; target satin", "clear coat", false},
		{NoShellacOutside, "pine varnish_oil satin; use damp; target satin", "primer", false},
		{SealKnots, "birch; knots; bleed resin2; target satin", "on the knots", false},
		{RightPrimer, "glass; soils grime1; wear display; target satin", "Glass primer", true},
	} {
		row := &Habits[x.habit]
		kit := Together(Kits)
		kit.Products = append(kit.Products, "primer_glass", "paint_aerosol", "primer_aerosol")
		kit.Choice = [numPaintUses]string{}
		a := findIn(t, x.facts, kit, nil)
		if a.Best == nil {
			t.Errorf("%s: %s has no plan", row.ID, x.facts)
			continue
		}
		if !strings.Contains(words(c, a.Best), x.has) {
			t.Errorf("%s: no %q\n%s", row.ID, x.has, words(c, a.Best))
		}
		if a.Best.Leaves != 0 {
			t.Errorf("%s: it leaves out %q\n%s", row.ID, a.Best.Leaves.Leaves(), words(c, a.Best))
		}
		b := findIn(t, x.facts, kit, func(r *Request) { r.HabitsOff = HabitSet(0).Add(x.habit) })
		if b.Best == nil || b.Best.Points > a.Best.Points+1e-9 {
			t.Errorf("%s: without it the best plan is worse", row.ID)
			continue
		}
		if x.off && !b.Best.Leaves.Has(x.habit) {
			t.Errorf("%s: switched off, it is kept all the same, or nobody says so: %q\n%s", row.ID, b.Best.Leaves.Leaves(), words(c, b.Best))
		}
		if b.Best.Leaves.Has(x.habit) && !slices.Contains(b.Best.Leaves.Leaves(), row.Risk) {
			t.Errorf("%s: nobody says what that risks", row.ID)
		}
	}
	for h := range NumHabits {
		row := &Habits[h]
		if got, ok := HabitNamed(row.ID); !ok || got != h || row.Name == "" || row.Says == "" || row.Risk == "" {
			t.Errorf("%+v", row)
		}
	}
	if _, ok := HabitNamed("no such habit"); ok {
		t.Error("a habit that there is not was found")
	}
}

// Cans are for small things: with nothing else to paint with, a lamp foot is sprayed from them as ever, and a
// cabinet only by leaving the habit out.
func TestSmallCans(t *testing.T) {
	cans := func(r *Request) {
		r.Way = Way{ID: "own", Shelf: []string{"primer_metal", "primer_aerosol", "paint_aerosol"}}
	}
	for area, large := range map[string]bool{".2": false, ".5": false, "3": true} {
		a := findIn(t, "steel gloss; soils grime1; target gloss; wear display; colour #c02a24; area "+area, nil, cans)
		if a.Best == nil || !stepsIn(craft.Default(), a.Best, "erosol paint") || a.Best.Leaves.Has(SmallCans) != large {
			t.Errorf("%s m²: %+v", area, a.Best)
		}
	}
}

// A way of working leaves out the habits that it contradicts, and says what that risks.
func TestWaysLeaveHabitsOut(t *testing.T) {
	facts := "beech varnish_oil gloss; soils grime1; target satin; wear display"
	a := findIn(t, facts, nil, func(r *Request) { r.Way = Way{ID: "own", Sand: SandNever} })
	if a.Best == nil || slices.ContainsFunc(a.Best.Steps, func(s surface.Step) bool { return s.Do == surface.Abrade }) {
		t.Errorf("never sanded: %+v", a.Best)
	}
	a = findIn(t, facts, nil, func(r *Request) { r.Way = Way{ID: "own", Sand: SandNever, NoSmell: true} }) // nor deglossed
	if a.Best == nil || !a.Best.Leaves.Has(ScuffFilms) {
		t.Errorf("never sanded, and nobody says what that risks: %+v", a.Best)
	}
	a = findIn(t, facts, nil, func(r *Request) { r.Way = Way{ID: "own", HabitsOff: HabitSet(0).Add(WashFirst)} })
	if a.Best == nil || !a.Best.Leaves.Has(WashFirst) && !stepsIn(craft.Default(), a.Best, "wash") {
		t.Errorf("a way without washing: %+v", a.Best)
	}
	// A habit that no plan can keep is left out, and no other with it.
	a = findIn(t, "oak varnish_oil satin; soils silicone3 grime1; use damp; target satin; colour #202830", nil, nil)
	if a.Best == nil || a.Best.Leaves != HabitSet(0).Add(NoShellacOutside) {
		t.Errorf("silicone in the damp wants a barrier of shellac: %+v", a.Best)
	}
	if got := FillerFor(craft.Default(), zoneOf(t, "steel").Substrate, craft.FillerFine, 0); got != craft.FillerTwoPart {
		t.Errorf("steel is filled with %s", got)
	}
	if got := FillerFor(craft.Default(), zoneOf(t, "oak").Substrate, craft.FillerFine, 0); got != craft.FillerFine {
		t.Errorf("oak is filled with %s", got)
	}
}

// Looks as painters make them: powder paint in as many coats as its colour needs, old coats that show where
// a look is worn, and cloth by its own recipe.
func TestLooks(t *testing.T) {
	c := craft.Default()
	coats := func(p *Plan, id string) int {
		n := 0
		for i := range p.Steps {
			if s := &p.Steps[i]; s.Do == surface.Coat && c.Products[s.Product].ID == id {
				n += s.NumCoats()
			}
		}
		return n
	}
	pale := findIn(t, "walnut varnish_oil gloss; soils grime1; look chippy; colour #efe9dc", nil, nil)
	dark := findIn(t, "walnut varnish_oil gloss; soils grime1; look chippy; colour #3a2c24; ground #efe9dc", nil, nil)
	if n := coats(pale.Best, "paint_milk"); n != 3 {
		t.Errorf("pale over dark in %d coats\n%s", n, words(c, pale.Best))
	}
	if n := coats(dark.Best, "paint_milk"); n < 2 || n > 3 {
		t.Errorf("dark over pale in %d coats", n)
	}
	for facts, under := range map[string]int{
		"pine paint_alkyd_old satin; made 2000; soils grime1; ground #2f3a3f; look distress_dry; colour #dfe3d6": 0, // it contrasts
		"pine paint_alkyd_old satin; made 2000; soils grime1; ground #e4e8df; look distress_dry; colour #dfe3d6": 1,
	} {
		a := findIn(t, facts, nil, nil)
		n := 0
		for i := range a.Best.Steps {
			if s := &a.Best.Steps[i]; s.Do == surface.Coat && s.Colour != "" {
				n++
			}
		}
		if min(n, 1) != under {
			t.Errorf("%s has %d coats of another colour\n%s", facts, n, words(c, a.Best))
		}
	}
	cloth := findIn(t, "fabric_woven; wear seat; look fabric_dye; ground #cfc6b4; colour #4a5a6b", nil, nil)
	if !stepsIn(c, cloth.Best, "Fabric wash", "Sand", "abric wash", "ax") {
		t.Errorf("cloth: %s", words(c, cloth.Best))
	}
	for i := range cloth.Best.Steps {
		if s := &cloth.Best.Steps[i]; s.Do == surface.Coat && c.Products[s.Product].Coat == craft.TX && s.ThinPct < 100 {
			t.Errorf("cloth is painted with %v %% of water", s.ThinPct)
		}
	}
}

// The wait for hardness does not choose the paint, and hardware may go back the next day, with care.
func TestWaitingForHardness(t *testing.T) {
	c := craft.Default()
	kit := DefaultKit()
	kit.Choice = [numPaintUses]string{}
	back := func(r *Request) { r.PutBack = true }
	for _, facts := range []string{"beech varnish_oil satin; soils grime1; target satin", "laminate_hpl satin; target satin", "oak varnish_oil satin; target gloss; colour #202830"} {
		a, b := findIn(t, facts, kit, nil), findIn(t, facts, kit, back)
		x, y := finish(c, a.Best.Steps), finish(c, b.Best.Steps)
		if !slices.Equal(x.paints, y.paints) || x.seal != y.seal {
			t.Errorf("%s: %s, and %s where parts go back", facts, Finish(c, a.Best.Steps), Finish(c, b.Best.Steps))
		}
		if h := idle(b.Best.Steps); h <= 24 || b.Best.Amounts[Elapsed] > b.Best.Judged.Hours-h+1e-9 {
			t.Errorf("%s waits %v h for hardness, of which count: %v of %v", facts, h, b.Best.Amounts[Elapsed], b.Best.Judged.Hours)
		}
		z := zoneOf(t, facts)
		if says := Refit(z, b.Best.Steps); !strings.Contains(says, "next day") {
			t.Errorf("%s: %q", facts, says)
		}
		z.Touching = true
		if says := Refit(z, b.Best.Steps); says != "" {
			t.Errorf("doors that close on each other: %q", says)
		}
		if says := Refit(zoneOf(t, facts+"; use child"), b.Best.Steps); says != "" {
			t.Errorf("for a child: %q", says)
		}
	}
}

// How two plans differ is said by what a painter would say first.
func TestPlansInWords(t *testing.T) {
	c := craft.Default()
	const facts = "oak varnish_oil gloss; soils grime1; target satin; colour #f2f0ea"
	z := zoneOf(t, facts)
	plan := func(change func(*Request)) *Plan {
		a := findIn(t, facts, DefaultKit(), change)
		if a.Best == nil {
			t.Fatal("no plan")
		}
		return a.Best
	}
	usual := plan(nil)
	for _, x := range []struct {
		is   *Plan
		says string
	}{
		{plan(func(r *Request) { r.Way = wayOf(t, "careful") }), "longer"},
		{plan(func(r *Request) { r.Way = Way{ID: "own", Sand: SandNever} }), "othing to sand"},
		{usual, "Much the same"},
	} {
		if says := Differ(c, z, UsualBench, usual, x.is); !strings.Contains(says, x.says) || strings.ToUpper(says[:1]) != says[:1] || !strings.HasSuffix(says, ".") {
			t.Errorf("%q, without %q", says, x.says)
		}
	}
	for risk, says := range map[float64]string{.02: "", .12: "one face in eight", .34: "one face in three", .26: "one face in four", .07: ""} {
		if got := Front(risk); (says == "") != (got == "") || !strings.Contains(got, says) {
			t.Errorf("%v: %q", risk, got)
		}
	}
	for hours, says := range map[float64]string{.3: "about 0.5 h", 1: "1 to 1.5 h", 7: "6 to 9 h", 14: "12 to 18 h"} {
		if got := WorkHours(hours); got != says {
			t.Errorf("%v h is %q", hours, got)
		}
	}
	if got := Buying([]Item{{Product: "a", Name: "Glass primer"}, {Tool: "b", Name: "Spray gun", Borrow: true}}); got != "buy glass primer, and borrow spray gun" {
		t.Errorf("%q", got)
	}
	if check.RiskVerdict(.34) == check.Sound {
		t.Error("one face in three is sound")
	}
}
