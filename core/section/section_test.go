package section

import (
	"math"
	"slices"
	"testing"

	"rutile/core/check"
	"rutile/core/craft"
	"rutile/core/drying"
	"rutile/core/surface"
)

func draw(t *testing.T, sub, fin string, soils map[craft.Soil]uint8, steps ...surface.Step) Drawing {
	t.Helper()
	c := craft.Default()
	z := check.Zone{Facts: surface.Facts{Moisture: -1, Area: 1, Wear: craft.Handled, Climate: drying.Standard}, SoilsKnown: true, Look: craft.LookSolid, Colour: "#e4e8df", Steps: steps}
	z.Substrate, _ = c.Substrate(sub)
	z.Finish, _ = c.Finish(fin)
	for s, lv := range soils {
		z.Soils[s] = lv
	}
	r := check.Check(c, &z, check.Options{NoRepairs: true})
	return Draw(c, &z, "", &r)
}

func coatOf(t *testing.T, id string, coats int, wait float64) surface.Step {
	t.Helper()
	p, ok := craft.Default().Product(id)
	if !ok {
		t.Fatal(id)
	}
	return surface.Step{Do: surface.Coat, Product: p, Coats: coats, WaitH: wait}
}

func cleaning(t *testing.T, id string) surface.Step {
	t.Helper()
	cl, ok := craft.Default().Cleaner(id)
	if !ok {
		t.Fatal(id)
	}
	return surface.Step{Do: surface.Clean, Cleaner: cl, Rinse: true}
}

var (
	sand = surface.Step{Do: surface.Abrade, Grit: 220, How: craft.Hand}
	dust = surface.Step{Do: surface.Dust}
)

func TestEveryStepHasItsPlaceInTheCut(t *testing.T) {
	d := draw(t, "oak", "varnish_oil", map[craft.Soil]uint8{craft.Grease: 2},
		cleaning(t, "degreaser_alkaline"), sand, dust, coatOf(t, "shellac_pigmented", 1, 12), surface.Step{Do: surface.Abrade, Grit: 320, How: craft.Hand}, dust, coatOf(t, "paint_chalk", 2, 4))
	var kinds []LayerKind
	for _, l := range d.Layers {
		kinds = append(kinds, l.Kind)
	}
	if !slices.Equal(kinds, []LayerKind{Substrate, Finish, Laid, Laid, Laid}) {
		t.Fatalf("layers are %v", kinds)
	}
	if !slices.Equal(d.Marks, []Mark{{1, surface.Clean, 1}, {2, surface.Abrade, 1}, {3, surface.Dust, 1}, {5, surface.Abrade, 2}, {6, surface.Dust, 2}}) {
		t.Errorf("marks are %+v", d.Marks)
	}
	old, shellac, one, two := d.Layers[1], d.Layers[2], d.Layers[3], d.Layers[4]
	if d.Grit != 220 || old.Grit != 220 || shellac.Grit != 320 || one.Grit != 0 {
		t.Errorf("scratches %d %d %d %d", d.Grit, old.Grit, shellac.Grit, one.Grit)
	}
	if shellac.Waits < 12 || shellac.From <= 0 || shellac.To < shellac.From || !math.IsInf(two.To, 1) && two.To != 0 {
		t.Errorf("waits %+v", shellac)
	}
	if one.Waits != 4 && one.Waits < 4 || one.CoatNo != 1 || two.CoatNo != 2 || two.Waits != 4 {
		t.Errorf("first coat waits %v, the last %v", one.Waits, two.Waits)
	}
	if len(old.Soils) != 0 || len(shellac.Soils) != 0 {
		t.Error("grease is left though it was washed off")
	}
}

func TestGreaseRubbedInIsToldFromGreaseLeft(t *testing.T) {
	grease := map[craft.Soil]uint8{craft.Grease: 2}
	left := draw(t, "oak", "varnish_oil", grease, coatOf(t, "paint_chalk", 1, 4)).Layers[2]
	driven := draw(t, "oak", "varnish_oil", grease, sand, dust, coatOf(t, "paint_chalk", 1, 4)).Layers[2]
	if !slices.Equal(left.Soils, []string{"grease"}) || left.Driven != nil {
		t.Errorf("left: %v, driven %v", left.Soils, left.Driven)
	}
	if !slices.Contains(driven.Soils, "grease") || !slices.Equal(driven.Driven, []string{"grease"}) {
		t.Errorf("sanded: %v, driven %v", driven.Soils, driven.Driven)
	}
}

// What is cut away takes the marks on it down to what is left.
func TestSandingThroughLeavesTheBareMaterial(t *testing.T) {
	through := sand
	through.Through = true
	d := draw(t, "oak", "varnish_oil", nil, cleaning(t, "detergent"), through, dust, coatOf(t, "clear_wb", 1, 4))
	if len(d.Layers) != 2 || d.Layers[1].Step != 4 || !d.Layers[1].Clear {
		t.Fatalf("layers %+v", d.Layers)
	}
	for _, m := range d.Marks {
		if m.On != 0 {
			t.Errorf("step %d is marked on layer %d", m.Step, m.On)
		}
	}
}

func TestOldWaxComesOffTheDrawing(t *testing.T) {
	d := draw(t, "pine", "wax", nil, cleaning(t, "white_spirit"), cleaning(t, "detergent"), coatOf(t, "paint_chalk", 1, 4))
	if len(d.Layers) != 2 || d.Layers[0].Kind != Substrate || d.Layers[1].Kind != Laid {
		t.Errorf("layers %+v", d.Layers)
	}
	if len(d.Source) == 0 {
		t.Error("pine has nothing that may rise")
	}
}

func TestSpotCoatsAreSpots(t *testing.T) {
	spot := coatOf(t, "shellac_clear", 1, 2)
	spot.Scope = surface.Knots
	d := draw(t, "pine", "none", nil, spot, coatOf(t, "paint_chalk", 1, 4))
	if !d.Layers[1].Spots || d.Layers[2].Spots || d.Layers[1].Waits < 2 {
		t.Errorf("layers %+v", d.Layers[1:])
	}
}

// A darker ground under an old clear finish, a paint's own colour under paint.
func TestGround(t *testing.T) {
	c := craft.Default()
	oak, _ := c.Substrate("oak")
	row := &c.Substrates[oak]
	lightness := func(fin string) float64 {
		f, _ := c.Finish(fin)
		return check.Lightness(Ground(row, &c.Finishes[f]))
	}
	if bare := lightness("none"); lightness("varnish_oil") >= bare || lightness("wax") >= bare {
		t.Error("a finish does not darken the wood")
	}
	if f, _ := c.Finish("paint_alkyd_old"); Ground(row, &c.Finishes[f]) != c.Finishes[f].Colour {
		t.Error("old paint has not its own colour")
	}
}
