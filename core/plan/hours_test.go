package plan

import (
	"testing"

	"rutile/core/craft"
	"rutile/core/parts"
	"rutile/core/surface"
)

// Hours of hands as small studios report them, for plans of that kind. The furniture is known by its
// kind and area alone.
func TestHoursThatAreTrue(t *testing.T) {
	c := craft.Default()
	coat := func(id string, n int, method string) surface.Step {
		p, ok := c.Product(id)
		if !ok {
			t.Fatal(id)
		}
		return surface.Step{Do: surface.Coat, Product: p, Coats: n, Auto: true, Method: method}
	}
	wash := surface.Step{Do: surface.Clean, Cleaner: c.CleanersFor(craft.ForWash)[0], Rinse: true}
	scuff := surface.Step{Do: surface.Abrade, Grit: 220, How: craft.Hand}
	off, back := surface.Step{Do: surface.Remove, What: "handles"}, surface.Step{Do: surface.Reassemble}
	work := func(id string) surface.Step { return surface.Step{Do: surface.Effect, Effect: id} }
	for _, x := range []struct {
		name, kind  string
		area        float64
		least, most float64
		steps       []surface.Step
	}{
		{"chest of drawers, three coats", "chest", 2.5, 6, 10, []surface.Step{off, wash, scuff, dust, coat("primer_bond_wb", 1, "brush"), coat("paint_enamel_wb", 2, "brush"), back}},
		{"four plain chairs", "chair", 3.6, 9, 12, []surface.Step{wash, scuff, dust, coat("primer_bond_wb", 1, "brush"), coat("paint_trim", 2, "brush")}},
		{"four spindled chairs", "spindle_chair", 3.6, 14, 18, []surface.Step{wash, scuff, dust, coat("primer_bond_wb", 1, "brush"), coat("paint_trim", 2, "brush")}},
		{"wardrobe, rolled", "wardrobe", 8, 13, 17, []surface.Step{off, wash, scuff, dust, coat("primer_bond_wb", 1, "roller"), coat("paint_trim", 2, "roller"), back}},
		{"side table with a marbled top", "side_table", .9, 5, 8, []surface.Step{wash, scuff, dust, coat("primer_stainblock_wb", 1, "brush"), coat("paint_acrylic", 2, "brush"), work("marble"), coat("clear_wb_hard", 3, "brush")}},
		{"mirror frame with lift-off and glaze", "frame", .5, 3, 5, []surface.Step{{Do: surface.Mask, What: "the mirror"}, wash, scuff, dust, coat("paint_chalk", 1, "brush"), coat("lift_medium", 1, "brush"), coat("paint_chalk", 1, "brush"), work("lift_off"), coat("glaze_stain", 1, "brush"), coat("wax_clear", 1, "rag")}},
		{"chair in two colours of powder paint with oil", "chair", 1, 7, 9, []surface.Step{wash, scuff, dust, coat("shellac_clear", 1, "brush"), coat("paint_milk", 2, "brush"), coat("paint_milk", 3, "brush"), work("layered_chippy"), dust, coat("oil_penetrating", 1, "rag")}},
	} {
		kind := parts.FurnitureNamed(x.kind)
		f := surface.Facts{Area: x.area, Work: kind.Work, EdgesM: kind.Edges * x.area, Moisture: -1, AgeDays: -1}
		f.Climate.TempC, f.Climate.RH = 20, 50
		f.Finish, _ = c.Finish("varnish_oil")
		h := surface.Walk(c, &f, x.steps).End.Minutes / 60
		low, high := surface.HoursRange(h)
		if h < x.least || h > x.most {
			t.Errorf("%s: %.1f h (%.1f to %.1f), painters say %v to %v", x.name, h, low, high, x.least, x.most)
		} else {
			t.Logf("%s: %.1f h (%.1f to %.1f), painters say %v to %v", x.name, h, low, high, x.least, x.most)
		}
	}
}
