package quantity

import (
	"math"
	"strings"
	"testing"

	"rutile/core/craft"
	"rutile/core/drying"
	"rutile/core/measure"
	"rutile/core/surface"
)

func zone(t testing.TB, c *craft.Craft, substrate, finish string, m2, relief float64, steps ...surface.Step) Zone {
	t.Helper()
	f := &surface.Facts{Moisture: -1, AgeDays: -1, Area: m2, Climate: drying.Usual, Wear: craft.Handled}
	var ok1, ok2 bool
	f.Substrate, ok1 = c.Substrate(substrate)
	f.Finish, ok2 = c.Finish(finish)
	if !ok1 || !ok2 {
		t.Fatalf("no %s with %s", substrate, finish)
	}
	w := surface.Walk(c, f, steps)
	return Zone{f, ReliefOf(c, f, relief), &w}
}

func coat(t testing.TB, c *craft.Craft, id, method string, n int, more ...func(*surface.Step)) surface.Step {
	t.Helper()
	p, ok := c.Product(id)
	if !ok {
		t.Fatalf("no product %s", id)
	}
	s := surface.Step{Do: surface.Coat, Product: p, Coats: n, Method: method, Auto: true}
	for _, f := range more {
		f(&s)
	}
	return s
}

func additive(ratio float64) func(*surface.Step) {
	return func(s *surface.Step) { s.Additive = ratio }
}
func thinned(pct float64) func(*surface.Step) { return func(s *surface.Step) { s.ThinPct = pct } }
func onSpots(s *surface.Step)                 { s.Scope = surface.Spots }

// Ten pieces worked out by hand: litres of a coat = area x relief / cover / (1 - loss), the first coat on an
// absorbent ground x (1 + .35 x absorbency), and then split into what goes into the pot.
func TestTenPiecesWorkedOutByHand(t *testing.T) {
	c := craft.Default()
	type want struct{ mixed, paint, thinner, additive float64 } // ml
	for _, x := range []struct {
		name string
		z    Zone
		want []want
	}{
		// 2.5 m² of varnished beech, chalk paint by brush: 2.5 / 11 / .95 = 239 ml, twice.
		{"chest of drawers", zone(t, c, "beech", "varnish_oil", 2.5, 1, coat(t, c, "paint_chalk", "brush", 2)), []want{{239, 239, 0, 0}, {239, 239, 0, 0}}},
		// 1 m² of bare birch (absorbency .4): 1 / 11 / .95 = 95.7; first coat x 1.14 = 109.1.
		{"bare birch shelf", zone(t, c, "birch", "none", 1, 1, coat(t, c, "paint_acrylic", "brush", 2)), []want{{109, 109, 0, 0}, {96, 96, 0, 0}}},
		// 4 m² sprayed: 4 / 10 / .7 = 571 ml.
		{"sprayed wardrobe doors", zone(t, c, "beech", "varnish_oil", 4, 1, coat(t, c, "primer_bond_wb", "spray", 1)), []want{{571, 571, 0, 0}}},
		// A panelled door, 1.8 m² x 1.2: 2.16 / 12 / .9 = 200 ml with a roller.
		{"panelled door", zone(t, c, "beech", "varnish_oil", 1.8, 1.2, coat(t, c, "paint_trim", "roller", 1)), []want{{200, 200, 0, 0}}},
		// 2 m², thinned by 10 %: 2 / 11 / .95 = 191.4 ml, of which 174.0 of paint and 17.4 of water.
		{"thinned by a tenth", zone(t, c, "beech", "varnish_oil", 2, 1, coat(t, c, "paint_chalk", "brush", 1, thinned(10))), []want{{191, 174, 17, 0}}},
		// Powder on 1.5 m² of old varnish: 1.5 / 10 / .95 = 157.9 ml. With half the additive 105.3 ml are paint and
		// 52.6 additive; one to one that paint takes 105.3 / 1.55 = 67.9 ml of powder and as much water.
		{"powder with additive", zone(t, c, "beech", "varnish_oil", 1.5, 1, coat(t, c, "paint_milk", "brush", 1, additive(.5))), []want{{158, 68, 68, 53}}},
		// The same with one and a half of water: 157.9 / (.55 + 1.5) = 77.0 of powder, 115.5 of water.
		{"thin powder", zone(t, c, "beech", "varnish_oil", 1.5, 1, coat(t, c, "paint_milk", "brush", 1, func(s *surface.Step) { s.WaterRatio = 1.5 })), []want{{158, 77, 116, 0}}},
		// Shellac on spots: a twentieth of 3 m²: .15 / 9 / .95 = 17.5 ml, twice.
		{"knots", zone(t, c, "beech", "varnish_oil", 3, 1, coat(t, c, "shellac_clear", "brush", 2, onSpots)), []want{{18, 18, 0, 0}, {18, 18, 0, 0}}},
		// A cane screen, .9 m² x 1.4 in the weave: 1.26 / 4 / .6 = 525 ml from a can.
		{"cane screen", zone(t, c, "rattan", "lacquer", .9, 1, coat(t, c, "paint_aerosol", "aerosol", 1)), []want{{525, 525, 0, 0}}},
		// Two-part epoxy on .8 m² of steel: .8 / 8 / .95 = 105.3 ml, four parts to one: 84.2 and 21.1.
		{"steel locker door", zone(t, c, "steel", "none", .8, 1, coat(t, c, "primer_epoxy", "brush", 1)), []want{{105, 84, 21, 0}}},
	} {
		got := Coats(c, &x.z, 0)
		if len(got) != len(x.want) {
			t.Errorf("%s: %d coats", x.name, len(got))
			continue
		}
		for i, w := range x.want {
			ml := func(l Litres) float64 { return math.Round(l.Likely * 1000) }
			g := got[i]
			if is := (want{ml(g.Mixed), ml(g.Paint), ml(g.Thinner), ml(g.Additive)}); is != w {
				t.Errorf("%s, coat %d: %+v, by hand %+v (soaks %.3f, relief %.2f)", x.name, i+1, is, w, g.Soaks, g.Relief)
			}
			if !(g.Mixed.Least < g.Mixed.Likely && g.Mixed.Likely < g.Mixed.Most) {
				t.Errorf("%s: %+v is no range", x.name, g.Mixed)
			}
		}
	}
}

// Whatever the plan, what goes into the pot adds up to it, and more area never takes less.
func TestAmountsAddUp(t *testing.T) {
	c := craft.Default()
	for i := range c.Kinds() {
		row := &c.Products[i]
		for _, m := range craft.Methods {
			last := 0.
			for _, m2 := range []float64{1e-6, .2, 1, 7, 7140} { // a square millimetre, and a football field
				z := zone(t, c, "pine", "none", m2, 1.1, coat(t, c, row.ID, m.ID, 2, additive(.25), thinned(5)))
				for _, k := range Coats(c, &z, 0) {
					sum := k.Paint.Likely + k.Thinner.Likely + k.Additive.Likely
					if row.Powder() { // a volume of powder adds only about half of it
						sum -= k.Paint.Likely * (1 - powderYield)
					}
					if math.Abs(sum-k.Mixed.Likely) > 1e-9*max(1, k.Mixed.Likely) || !(k.Mixed.Likely > 0) || math.IsInf(k.Mixed.Likely, 0) {
						t.Fatalf("%s by %s: %+v", row.ID, m.ID, k)
					}
					if k.CoatNo == 2 {
						if k.Mixed.Likely <= last {
							t.Errorf("%s: %v m² take no more than less", row.ID, m2)
						}
						last = k.Mixed.Likely
					}
				}
			}
		}
	}
	z := zone(t, c, "pine", "none", 0, 1, coat(t, c, "paint_chalk", "brush", 2))
	if got := Coats(c, &z, 0); got != nil {
		t.Errorf("an unknown area takes %+v", got)
	}
}

func TestTins(t *testing.T) {
	sizes := []float64{.5, 1, 2.5}
	for _, x := range []struct {
		need float64
		want []Tin
	}{
		{0, nil}, {.01, []Tin{{.5, 1}}}, {.5, []Tin{{.5, 1}}}, {.6, []Tin{{1, 1}}}, {1.2, []Tin{{2.5, 1}}}, {2.5, []Tin{{2.5, 1}}},
		{2.8, []Tin{{2.5, 1}, {.5, 1}}}, {4.9, []Tin{{2.5, 2}}}, {7.6, []Tin{{2.5, 3}, {.5, 1}}}, {-1, nil}, {math.NaN(), nil},
	} {
		got := Tins(sizes, x.need)
		if len(got) != len(x.want) {
			t.Errorf("%v: %v, want %v", x.need, got, x.want)
			continue
		}
		for i := range got {
			if got[i] != x.want[i] {
				t.Errorf("%v: %v, want %v", x.need, got, x.want)
			}
		}
	}
}

func TestStockReachesSoFar(t *testing.T) {
	c := craft.Default()
	chalk, _ := c.Product("paint_chalk")
	names := []string{"Drawers", "Carcass"}
	drawers := zone(t, c, "beech", "varnish_oil", 1.045, 1, coat(t, c, "paint_chalk", "brush", 3)) // 100 ml a coat
	carcass := zone(t, c, "beech", "varnish_oil", 2.09, 1, coat(t, c, "paint_chalk", "brush", 2))  // 200 ml a coat
	all := append(Coats(c, &drawers, 0), Coats(c, &carcass, 1)...)
	white := func(*Coat) string { return "#e4e8df" }
	says := func(stock ...Stock) (Item, string) {
		t.Helper()
		items := Items(c, all, stock, white)
		if len(items) != 1 {
			t.Fatalf("%+v", items)
		}
		return items[0], items[0].Says(measure.Metric.Volume, names)
	}
	for _, x := range []struct {
		left  float64
		state State
		says  string
	}{
		{2, Enough, "Enough for all 5 coats: 700 ml needed, 2 l there."},
		{.72, Tight, "Just enough for all 5 coats: 700 ml needed, 720 ml there. A full brush takes up to 880 ml."},
		{.62, Short, "Enough for two coats of the drawers and two coats of the carcass; a third coat of the drawers needs 80 ml more."},
		{.41, Short, "Enough for two coats of the drawers and one coat of the carcass; the other 2 coats need 290 ml more."},
		{.05, Short, "50 ml there, not enough for one coat: the other 5 coats need 650 ml more."},
		{0, None, "Not on the shelf: 700 ml needed for 5 coats."},
	} {
		got, words := says(Stock{Kind: chalk, Colour: "#e4e8df", Left: x.left})
		if got.State != x.state || words != x.says {
			t.Errorf("%v l: %s, %q; want %s, %q", x.left, got.State, words, x.state, x.says)
		}
		if got.State == Short && len(got.Buy) == 0 {
			t.Errorf("%v l: nothing to buy", x.left)
		}
	}
	// Another colour, another kind and what is kept for another piece do not count.
	acrylic, _ := c.Product("paint_acrylic")
	if got, words := says(Stock{Kind: chalk, Colour: "#203040", Left: 5}, Stock{Kind: acrylic, Colour: "#e4e8df", Left: 5}, Stock{Kind: chalk, Colour: "#e4e8df", Left: 5, For: "the lectern"}); got.State != None || !strings.Contains(words, "Not on the shelf") {
		t.Errorf("%s, %q", got.State, words)
	}
	// Two cans together, the open one first.
	got, _ := says(Stock{Kind: chalk, Colour: "#e4e8df", Left: .5, Name: "full"}, Stock{Kind: chalk, Colour: "#e4e8df", Left: .5, Name: "open", Open: true})
	if got.State != Enough || len(got.From) != 2 || got.From[0].Name != "open" {
		t.Errorf("%+v", got)
	}
}

// A can that one coat names is not there a second time for another that names none.
func TestNoCanIsCountedTwice(t *testing.T) {
	base := craft.Default()
	chalk, _ := base.Product("paint_chalk")
	c, can := base.WithCans([]craft.Can{{Kind: chalk}})
	z := zone(t, c, "beech", "varnish_oil", 1.045, 1, coat(t, c, "paint_chalk", "brush", 2))
	named := z.Trace.Events[0].Doing
	first := *named
	first.Product, first.Coats = can[0], 1
	rest := coat(t, c, "paint_chalk", "brush", 1)
	w := surface.Walk(c, z.Facts, []surface.Step{first, rest})
	z.Trace = &w
	items := Items(c, Coats(c, &z, 0), []Stock{{Can: 1, Kind: chalk, Left: .15}}, func(*Coat) string { return "" })
	if len(items) != 2 {
		t.Fatalf("%+v", items)
	}
	for _, x := range items {
		if x.Can == 1 && x.State != Enough || x.Can == 0 && x.State == Enough {
			t.Errorf("%+v", x)
		}
	}
}

func TestSupplies(t *testing.T) {
	c := craft.Default()
	wash, _ := c.Cleaner("detergent")
	z := zone(t, c, "beech", "varnish_oil", 2.5, 1,
		surface.Step{Do: surface.Clean, Cleaner: wash, Rinse: true},
		surface.Step{Do: surface.Abrade, Grit: 220, How: craft.Hand}, surface.Step{Do: surface.Dust},
		coat(t, c, "paint_milk", "brush", 2, additive(.5)), coat(t, c, "wax_clear", "rag", 1))
	got := map[string]int{}
	for _, s := range Supplies(c, []Zone{z}, 2) {
		got[s.ID] = s.Amount
	}
	// 2.5 m²: one sheet of 220, two washing cloths, one tack cloth, four for waxing, a filter for each pot of
	// powder, gloves for the wash and three coats, 3 m of tape for each of two things.
	want := map[string]int{"sheet_220": 1, "wash_cloth": 2, "tack_cloth": 1, "rag": 4, "filter": 2, "gloves": 4, "tape": 6}
	for id, n := range want {
		if got[id] != n {
			t.Errorf("%s: %d, want %d", id, got[id], n)
		}
	}
	if len(got) != len(want) {
		t.Errorf("%v", got)
	}
}
