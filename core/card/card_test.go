package card

import (
	"strings"
	"testing"

	"rutile/core/craft"
	"rutile/core/drying"
	"rutile/core/measure"
	"rutile/core/quantity"
	"rutile/core/surface"
)

// us are the units of the cards.
var us measure.Units

// coats are the cards of a plan: of product, method and wait, as "paint_chalk spray x2 thin10".
func coats(t *testing.T, substrate, look string, air drying.Climate, plan string) (mix []Mixing, lay []Laying) {
	t.Helper()
	c := craft.Default()
	sub, ok := c.Substrate(substrate)
	if !ok {
		t.Fatal(substrate)
	}
	fin, _ := c.Finish("none")
	f := &surface.Facts{Substrate: sub, Finish: fin, Moisture: -1, AgeDays: -1, Area: 1.2, Climate: air}
	var steps []surface.Step
	for _, clause := range strings.Split(plan, ";") {
		w := strings.Fields(clause)
		s := surface.Step{Do: surface.Coat, Method: "brush", Auto: true}
		if w[0] == "effect" {
			steps = append(steps, surface.Step{Do: surface.Effect, Effect: w[1]})
			continue
		}
		if s.Product, ok = c.Product(w[0]); !ok {
			t.Fatal(w[0])
		}
		for _, x := range w[1:] {
			switch x {
			case "x2":
				s.Coats = 2
			case "thin10":
				s.ThinPct = 10
			case "thin150":
				s.ThinPct = 150
			case "add":
				s.Additive = .5
			default:
				s.Method = x
			}
		}
		steps = append(steps, s)
	}
	w := surface.Walk(c, f, steps)
	all := quantity.Coats(c, &quantity.Zone{Facts: f, Trace: &w}, 0)
	n := 0
	for i := range w.Events {
		if w.Events[i].Doing.Do != surface.Coat {
			continue
		}
		k := &Coat{Craft: c, Facts: f, Trace: &w, At: i, Air: air, Units: us, Flat: true, Parts: true}
		if e, ok := c.Effect(look); ok {
			k.Look = &c.Effects[e]
		}
		b := quantity.BatchOf(&all[n], quantity.Mixing{Craft: c, Facts: f, Step: w.Events[i].Doing, Air: air, Measures: measure.UsualMeasures(measure.Metric)})
		n++
		mix, lay = append(mix, Mix(k, &b)), append(lay, Lay(k, &b))
	}
	return mix, lay
}

// text is all that a laying card says.
func (l *Laying) text() string {
	out := []string{l.Tool, l.Why, l.Load, l.Stroke, l.StrokeWhy, l.SectionSays, l.Wipe, l.Cloth, l.Little, l.Runs, l.Clean, l.Keep, l.Waste}
	out = append(out, l.Setup...)
	out = append(out, l.Before...)
	out = append(out, l.Protect...)
	for _, s := range l.Steps {
		out = append(out, s.Says)
	}
	for _, f := range l.Faults {
		out = append(out, f.Wet, f.Dry)
	}
	return strings.Join(out, "\n")
}

func has(t *testing.T, what, text string, want ...string) {
	t.Helper()
	for _, w := range want {
		if !strings.Contains(text, w) {
			t.Errorf("%s does not say %q:\n%s", what, w, text)
		}
	}
}

func lacks(t *testing.T, what, text string, not ...string) {
	t.Helper()
	for _, w := range not {
		if strings.Contains(text, w) {
			t.Errorf("%s says %q:\n%s", what, w, text)
		}
	}
}

func TestTheCardsOfACrackle(t *testing.T) {
	_, lay := coats(t, "beech", "crackle", drying.Usual, "paint_acrylic x2; crackle_medium; paint_chalk; clear_wb")
	base, medium, over, seal := &lay[1], &lay[2], &lay[3], &lay[4]
	has(t, "the base", base.text(), "Across the grain", "cracks")
	has(t, "the medium", medium.text(), "thickness", "window")
	if medium.Clocks[len(medium.Clocks)-1].Timer != craft.TimeLatest {
		t.Errorf("the window of the medium has no clock: %+v", medium.Clocks)
	}
	has(t, "the coat over it", over.text(), "One stroke", "With the grain", "along the stroke", "back to the ground")
	// What is said of a second stroke elsewhere would spoil it.
	lacks(t, "the coat over it", over.text(), "lay it off", "Lay it off", "dampen the brush")
	if !over.Once || over.Section != 0 {
		t.Errorf("it is laid in sections of %v m², once %v", over.Section, over.Once)
	}
	has(t, "the seal", seal.text(), "Roll or dab")
}

func TestTheCardsOfAGlaze(t *testing.T) {
	mix, lay := coats(t, "beech", "glaze", drying.Usual, "paint_acrylic; clear_wb; glaze_wb; effect glaze; clear_wb")
	g := &lay[2]
	has(t, "the glaze", g.text(), "small section", "cheesecloth", "A veil", "recesses", "Judge it dry")
	if !strings.Contains(strings.ToLower(g.Cloth), "cheesecloth") || g.Wipe == "" {
		t.Errorf("it is wiped %q with %q", g.Wipe, g.Cloth)
	}
	lacks(t, "a water-based glaze", g.text(), "catch fire")
	var seconds float64
	for _, s := range g.Steps {
		if s.Clock != nil && s.Clock.Timer == craft.TimeWipe {
			seconds = s.Clock.Seconds
		}
	}
	if seconds < 20 || seconds > 60 {
		t.Errorf("it is wiped after %v s", seconds)
	}
	// Warm, dry air shortens it.
	_, warm := coats(t, "beech", "glaze", drying.Climate{TempC: 32, RH: 30}, "paint_acrylic; clear_wb; glaze_wb; effect glaze; clear_wb")
	for _, s := range warm[2].Steps {
		if s.Clock != nil && s.Clock.Timer == craft.TimeWipe && s.Clock.Seconds >= seconds {
			t.Errorf("at 32 C it is wiped after %v s", s.Clock.Seconds)
		}
	}
	has(t, "its mixing", mix[2].text(), "medium", "colour", "trial board")
	has(t, "the clear over it", lay[3].text(), "drags the glaze")
	_, stained := coats(t, "beech", "glaze", drying.Usual, "paint_acrylic; clear_wb; glaze_stain; effect glaze; clear_wb")
	has(t, "a glaze with drying oil", stained[2].text(), "catch fire by themselves")
}

func (m *Mixing) text() string {
	var out []string
	for _, s := range m.Steps {
		out = append(out, s.Says)
	}
	return strings.Join(append(append(out, m.Keeps...), m.TooThick, m.TooThin, m.Left, m.Foam), "\n")
}

func TestTheCardsOfACloth(t *testing.T) {
	mix, lay := coats(t, "fabric_woven", "fabric_dye", drying.Usual, "fabric_wash foam x2 thin150; wax_clear rag")
	has(t, "the first wash", lay[0].text(), "Mist the cloth", "seam", "weave", "Bend it", "sponge")
	lacks(t, "the first wash", lay[0].text(), "grain", "Sand softly with 320 until it is supple again", "moulding")
	has(t, "the second", lay[1].text(), "Sand softly with 320 until it is supple again")
	has(t, "its mixing", mix[0].text(), "as thin as milk", "Strain")
	has(t, "the wax", lay[2].text(), "circles, into the weave", "white paper")
}

func TestTheCardsOfASprayedDoor(t *testing.T) {
	mix, lay := coats(t, "mdf", "", drying.Usual, "primer_bond_wb spray; paint_trim spray x2 thin10")
	p := lay[2].text()
	has(t, "the sprayed coat", p, "Gun: nozzle", "Thinned with 10 % of water", "Each pass half over the last", "within 3 m", "400")
	lacks(t, "the sprayed coat", p, "bristle", "Lay on, spread across", "lap", "Dip ")
	has(t, "its mixing", mix[1].text(), "Strain it for the gun", "of water")
	if lay[1].SectionSays != "" {
		t.Errorf("it is sprayed in sections: %s", lay[1].SectionSays)
	}
	has(t, "the first, not thinned", lay[0].text(), "does not thin it")
}

func TestTheCardsOfPowderPaint(t *testing.T) {
	mix, lay := coats(t, "beech", "", drying.Usual, "paint_milk add; paint_milk; wax_clear rag")
	has(t, "with additive", mix[0].text(), "dust mask", "Whisk", "rest", "Strain", "bonding additive, slowly", "Closed and chilled: 2 days")
	lacks(t, "with additive", mix[0].text(), "No bonding additive")
	has(t, "without", mix[1].text(), "No bonding additive")
	if e := lay[0].Edge; e == nil || e.Seconds < 200 || e.Seconds > 320 {
		t.Errorf("the clock of its edge is %+v", e)
	}
	has(t, "laid", lay[0].text(), "streaky", "one direction", "stays wet for 4 min")
	for _, timer := range []craft.Timer{craft.TimeWhisk, craft.TimeRest} {
		found := false
		for _, s := range mix[0].Steps {
			found = found || s.Clock != nil && s.Clock.Timer == timer
		}
		if !found {
			t.Errorf("no clock for %s", craft.Timers[timer].ID)
		}
	}
	// What is meant to flake is told another thing.
	_, chippy := coats(t, "beech", "chippy", drying.Usual, "shellac_clear; paint_milk x2; effect chippy; wax_clear rag")
	has(t, "meant to flake", chippy[1].text(), "able to come off", "can catch fire")
	has(t, "its seal", chippy[3].text(), "Vacuum the loose chips", "no water")
}

// The resist is worked while it is tacky: its minutes have a clock, shorter where it is warm.
func TestTackHasItsClock(t *testing.T) {
	tack := func(air drying.Climate) float64 {
		_, lay := coats(t, "beech", "crackle", air, "paint_acrylic; crackle_medium; paint_chalk; size_leaf; effect gild")
		for _, s := range lay[3].Steps {
			if s.Clock != nil {
				return s.Clock.Seconds
			}
		}
		return 0
	}
	usual, cold := tack(drying.Standard), tack(drying.Climate{TempC: 8, RH: 70})
	if usual < 1000 || cold <= usual {
		t.Errorf("size comes to tack after %v s, and in the cold after %v s", usual, cold)
	}
}

// No card of any product in any method leaves a place unfilled or a list empty.
func TestAllCardsAreWhole(t *testing.T) {
	c := craft.Default()
	for i := range c.Products {
		p := &c.Products[i]
		for _, method := range p.Methods {
			for _, sub := range []string{"beech", "mdf", "steel", "fabric_woven", "rattan", "terracotta", "laminate_hpl"} {
				mix, lay := coats(t, sub, "", drying.Usual, p.ID+" "+method)
				if s := mix[0].text() + lay[0].text(); strings.ContainsAny(s, "{}") || strings.Contains(s, "  ") || strings.Contains(s, "..") {
					t.Errorf("%s by %s: %s", p.ID, method, s)
				}
				if len(mix[0].Steps) < 2 || len(lay[0].Steps) == 0 || len(lay[0].Faults) == 0 || lay[0].Tool == "" || lay[0].Clean == "" {
					t.Errorf("%s by %s on %s is not whole: %+v %+v", p.ID, method, sub, mix[0], lay[0])
				}
				if sub != "beech" && strings.Contains(lay[0].Stroke, "grain") {
					t.Errorf("%s has no grain: %s", sub, lay[0].Stroke)
				}
			}
		}
	}
}

func TestTurnedPartsAreDabbed(t *testing.T) {
	c := craft.Default()
	sub, _ := c.Substrate("beech")
	fin, _ := c.Finish("none")
	p, _ := c.Product("paint_chalk")
	f := &surface.Facts{Substrate: sub, Finish: fin, Moisture: -1, AgeDays: -1, Area: 1, Climate: drying.Usual}
	w := surface.Walk(c, f, []surface.Step{{Do: surface.Coat, Product: p, Method: "brush", Auto: true}})
	b := quantity.Batch{Row: craft.MixingNamed("matt"), Pots: 1}
	legs := Lay(&Coat{Craft: c, Facts: f, Trace: &w, Air: drying.Usual, Turned: true}, &b)
	both := Lay(&Coat{Craft: c, Facts: f, Trace: &w, Air: drying.Usual, Turned: true, Flat: true}, &b)
	has(t, "legs", legs.Stroke, "Short dabbing strokes")
	has(t, "a table", both.Stroke, "the long way", "short dabs")
}

func BenchmarkCard(b *testing.B) {
	c := craft.Default()
	sub, _ := c.Substrate("beech")
	p, _ := c.Product("paint_milk")
	f := &surface.Facts{Substrate: sub, Moisture: -1, AgeDays: -1, Area: 2, Climate: drying.Usual}
	steps := []surface.Step{{Do: surface.Coat, Product: p, Method: "brush", Auto: true, Coats: 3, Additive: .5}}
	w := surface.Walk(c, f, steps)
	all := quantity.Coats(c, &quantity.Zone{Facts: f, Trace: &w}, 0)
	m := quantity.Mixing{Craft: c, Facts: f, Step: &steps[0], Air: drying.Usual, Measures: measure.Measures{By: measure.Cups, CupML: measure.MetricCup}}
	for b.Loop() {
		for i := range all {
			k := Coat{Craft: c, Facts: f, Trace: &w, At: i, Air: drying.Usual}
			batch := quantity.BatchOf(&all[i], m)
			Mix(&k, &batch)
			Lay(&k, &batch)
		}
	}
}

// In US units brushes are in inches, and the mist travels in feet.
func TestCardsInUSUnits(t *testing.T) {
	_, lay := coats(t, "mdf", "", drying.Usual, "primer_bond_wb spray; paint_chalk")
	has(t, "metric", lay[0].text()+lay[1].text(), "within 3 m", "20 cm off", "40 to 50 mm", "2 bar")
	us = measure.US
	defer func() { us = measure.Metric }()
	_, lay = coats(t, "mdf", "", drying.Usual, "primer_bond_wb spray; paint_chalk")
	has(t, "US", lay[0].text()+lay[1].text(), "within 10 ft", "8 in off", "1 1/2 to 2 in", "29 psi")
	lacks(t, "US", lay[0].text()+lay[1].text(), " cm", " bar")
}
