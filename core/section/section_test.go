package section

import (
	"math"
	"slices"
	"testing"

	"rutile/core/check"
	"rutile/core/colour"
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
		return colour.Ground(row, &c.Finishes[f]).Light()
	}
	if bare := lightness("none"); lightness("varnish_oil") >= bare || lightness("wax") >= bare {
		t.Error("a finish does not darken the wood")
	}
	if f, _ := c.Finish("paint_alkyd_old"); colour.Ground(row, &c.Finishes[f]).Hex() != c.Finishes[f].Colour {
		t.Error("old paint has not its own colour")
	}
}

// A stain comes with time and never goes back, and what a blocker holds does not
// reach the face.
func TestStainsComeOverTime(t *testing.T) {
	open := draw(t, "oak", "none", nil, coatOf(t, "paint_chalk", 2, 4))
	held := draw(t, "oak", "none", nil, coatOf(t, "shellac_pigmented", 2, 12), coatOf(t, "paint_chalk", 2, 4))
	if len(open.Faces) != len(Moments) {
		t.Fatalf("%d faces", len(open.Faces))
	}
	for i := range open.Faces {
		f, h := open.Faces[i], held.Faces[i]
		if i == 0 && f.DeltaE != 0 || i > 0 && (f.Of != "tannin" || f.DeltaE <= open.Faces[i-1].DeltaE || h.DeltaE >= f.DeltaE/5) {
			t.Errorf("%s: %+v, held %+v", Moments[i].Name, f, h)
		}
		fresh, _ := colour.Parse(held.Faces[0].Colour)
		now, _ := colour.Parse(f.Colour)
		if d := colour.Difference(fresh, now); math.Abs(d-f.DeltaE) > 1 {
			t.Errorf("%s: drawn %.1f off, and it is %.1f", Moments[i].Name, d, f.DeltaE)
		}
	}
	top := open.Layers[len(open.Layers)-1]
	if top.Over[1] >= top.Over[4] || top.Over[4] > top.Stain {
		t.Errorf("the layer: %v of %v", top.Over, top.Stain)
	}
}

func TestWearLaysOpenWhatIsBelow(t *testing.T) {
	dark := coatOf(t, "paint_chalk", 2, 4)
	dark.Colour = "#332a24"
	d := draw(t, "oak", "varnish_oil", nil, dark, coatOf(t, "paint_chalk", 2, 4), coatOf(t, "wax_clear", 1, 24))
	var got []string
	for _, w := range d.Worn {
		got = append(got, w.Colour)
	}
	if len(got) != 4 || got[0] != "#e4e8df" || got[1] != "#332a24" || d.Worn[1].Difference < check.Contrasting || d.Worn[0].Difference != 0 {
		t.Errorf("%+v", d.Worn)
	}
}

// An effect that lays something over all of it is a layer, and what is stripped
// is gone.
func TestEffectsAndStripping(t *testing.T) {
	d := draw(t, "birch", "varnish_oil", nil, surface.Step{Do: surface.Strip, StripHow: "scrape"}, dust, coatOf(t, "paint_acrylic", 2, 4), coatOf(t, "clear_wb", 1, 30),
		surface.Step{Do: surface.Effect, Effect: "glaze"}, surface.Step{Do: surface.Effect, Effect: "stencil"})
	top := d.Layers[len(d.Layers)-1]
	if len(d.Layers) != 5 || d.Layers[1].Kind != Laid || top.Name != "Glazed" || top.Microns != 8 {
		t.Errorf("%+v", d.Layers)
	}
	if m := d.Marks[len(d.Marks)-1]; m.Do != surface.Effect || m.On != 4 {
		t.Errorf("%+v", m)
	}
	board := draw(t, "vinyl_wrap", "none", nil, surface.Step{Do: surface.Strip, StripHow: "heat"}, coatOf(t, "paint_acrylic", 2, 4))
	if board.Layers[0].Family != craft.BoardRaw {
		t.Errorf("%+v", board.Layers[0])
	}
}

func TestTheFaceAndTheEdgeInWords(t *testing.T) {
	for _, x := range []struct {
		f    Face
		want string
	}{
		{Face{}, "no visible change."},
		{Face{DeltaE: .04, Of: "tannin"}, "no visible change."},
		{Face{DeltaE: .4, Of: "tannin"}, "no visible change."},
		{Face{DeltaE: 1, Of: "knot resin", Spots: true, by: craft.Resin}, "knot resin shows through in spots: faint yellow-brown spots over knots."},
		{Face{DeltaE: 9.31, Of: "dye", by: craft.Dye}, "dye shows through all over: a strong pink or brown cast."},
	} {
		if got := x.f.Says(); got != x.want {
			t.Errorf("%q, want %q", got, x.want)
		}
	}
	d := Drawing{Layers: []Layer{{Name: "Oak"}, {Name: "Bonding primer"}, {Name: "Chalk paint"}}, Worn: []Exposed{{2, "#e4e8df", 0}, {1, "#f1f0ec", 4}, {0, "#c09a66", 30}}}
	if got := d.WearSays(); got != "In worn places: chalk paint, then bonding primer (hardly different in colour), then oak." {
		t.Errorf("%q", got)
	}
	if got := (&Drawing{Worn: d.Worn[:1]}).WearSays(); got != "" {
		t.Errorf("of one colour: %q", got)
	}
}

// A coat in its window is told from one outside it, and labels are rounded.
func TestWindowsInTheCut(t *testing.T) {
	for _, x := range []struct {
		wait float64
		in   bool
	}{{2, true}, {1.5, true}, {1.3, false}, {20, true}, {40, false}} {
		d := draw(t, "birch", "none", nil, coatOf(t, "paint_acrylic", 1, 8), coatOf(t, "clear_wb", 2, x.wait))
		l := d.Layers[2]
		if l.InTime != x.in || l.From != 2 || l.To != 24 {
			t.Errorf("after %v h: in time %v, window %v to %v", x.wait, l.InTime, l.From, l.To)
		}
	}
}
