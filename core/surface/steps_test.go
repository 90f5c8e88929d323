package surface

import (
	"math"
	"testing"

	"rutile/core/craft"
)

func worked(id string, change func(*Step)) Step {
	s := Step{Do: Effect, Effect: id}
	if change != nil {
		change(&s)
	}
	return s
}

// Every kind of step leaves its mark on the surface or on the clock, and none is
// passed over.
func TestEveryKindOfStepIsWalked(t *testing.T) {
	f := facts(t, "birch", "varnish_oil", func(f *Facts) { f.Area = 1; f.Soils[craft.Grime] = 1 })
	for k := range Kinds {
		s := Step{Do: StepKind(k), Hours: 1, Grit: 220, How: craft.Hand, StripHow: "scrape", With: "filler_fine", Effect: "stencil"}
		if s.Do == Coat {
			s = coat("paint_acrylic", 1)
		}
		w := Walk(c, f, []Step{s})
		if len(w.Events) != 1 {
			t.Fatalf("%s: %d events", Kinds[k].ID, len(w.Events))
		}
		if same := w.End == w.Start; same != (s.Do == Test) {
			t.Errorf("%s: the surface and the clock stay as they were: %v", Kinds[k].ID, same)
		}
	}
}

func TestStrippingByHand(t *testing.T) {
	f := facts(t, "oak", "varnish_oil", func(f *Facts) {
		f.Loose = craft.LooseFlakes | craft.LooseJoint
		f.Soils[craft.Grease] = 2
		f.Moisture = -1
	})
	for _, x := range []struct {
		how  string
		soil craft.Soil
		lv   uint8
		grit uint16
	}{{"chemical", craft.StripperResidue, 2, 0}, {"scrape", craft.Dust, 1, 0}, {"heat", craft.Dust, 1, 0}, {"sand", craft.Dust, 2, 80}} {
		p := Walk(c, f, []Step{coat("paint_acrylic", 2), {Do: Strip, StripHow: x.how}}).End.Regions[Field]
		if !p.Bare || p.Top != craft.WoodBare || p.Coats != 0 || p.Film != 0 || p.Soils[x.soil] != x.lv || p.Soils[craft.Grease] != 0 || p.Grit != x.grit {
			t.Errorf("%s: %+v", x.how, p)
		}
		// What flakes comes off, a joint is not closed by it; and tannin lies open.
		if p.Loose != craft.LooseJoint {
			t.Errorf("%s leaves %v loose", x.how, p.Loose)
		}
		near(t, "tannin after "+x.how, p.Stain(craft.Tannin), 7)
	}
	// Under foil and printed paper lies board, and nothing softens from below.
	for _, id := range []string{"vinyl_wrap", "paper_foil_board"} {
		p := Walk(c, facts(t, id, "none", nil), []Step{{Do: Strip, StripHow: "heat"}}).End.Regions[Field]
		if p.Top != craft.BoardRaw || p.Key != 1 || p.Stain(craft.Plasticiser) != 0 {
			t.Errorf("%s: %+v", id, p)
		}
	}
}

func TestFillingRepairingAndMasking(t *testing.T) {
	f := facts(t, "birch", "none", func(f *Facts) { f.Loose = craft.LooseVeneer | craft.LooseFlakes })
	w := Walk(c, f, []Step{{Do: Fill, With: "filler_two_part"}, {Do: Repair}, {Do: Mask}})
	p := w.End.Regions[Field]
	if p.FilledStep != 1 || p.Loose != craft.LooseFlakes || !w.End.Cleared || w.Start.Cleared {
		t.Errorf("%+v, cleared %v", p, w.End.Cleared)
	}
	// Two-part filler hardens twice as fast for every ten degrees more.
	at := func(temp float64) float64 {
		g := *f
		g.Climate.TempC = temp
		return Walk(c, &g, []Step{{Do: Fill, With: "filler_two_part"}}).End.Hours
	}
	near(t, "filler at 20", at(20), .35)
	near(t, "filler at 30", at(30), .175)
	// Any coat closes what was filled; one on the spots closes it there alone.
	if p := Walk(c, f, []Step{{Do: Fill}, coat("shellac_clear", 1)}).End.Regions[Field]; p.FilledStep != 0 {
		t.Error("shellac leaves the filler open")
	}
	end := Walk(c, f, []Step{{Do: Fill}, spot("shellac_clear", Spots)}).End
	if end.Regions[Field].FilledStep != 1 || end.Region(SpotRegion).FilledStep != 0 {
		t.Error("a coat on the spots closes other than the spots")
	}
}

func TestRaisedGrain(t *testing.T) {
	f := facts(t, "birch", "none", nil)
	for _, x := range []struct {
		name  string
		steps []Step
		rough uint8
	}{
		{"water on bare wood", []Step{coat("paint_acrylic", 2)}, 1},
		{"raised before", []Step{{Do: RaiseGrain}, dust, coat("paint_acrylic", 2)}, 0},
		{"sanded after the first", []Step{coat("paint_acrylic", 1), sand(320), dust, coat("paint_acrylic", 1)}, 0},
		{"alcohol first", []Step{coat("shellac_clear", 1), coat("paint_acrylic", 2)}, 0},
		{"sanded before, not after", []Step{sand(220), dust, coat("paint_acrylic", 2)}, 3},
	} {
		if got := Walk(c, f, x.steps).End.Regions[Field].RoughStep; got != x.rough {
			t.Errorf("%s: %d, want %d", x.name, got, x.rough)
		}
	}
	if Walk(c, facts(t, "mdf", "none", nil), []Step{coat("paint_acrylic", 2)}).End.Regions[Field].RoughStep != 0 {
		t.Error("board has no grain")
	}
}

// Dry wear lays open what the material holds, at the worn places alone; what is
// laid afterwards counts from there. Light wear and water stay in the paint.
func TestWearHasAPatchOfItsOwn(t *testing.T) {
	f := facts(t, "oak", "none", nil)
	plan := func(s Step) *State {
		w := Walk(c, f, []Step{coat("shellac_pigmented", 2), coat("paint_chalk", 2), s, dust, coat("shellac_clear", 1)})
		return &w.End
	}
	deep := plan(worked("distress_dry", func(s *Step) { s.Share = .25 }))
	w := deep.Region(Worn)
	if w == nil || deep.N != 2 {
		t.Fatal("there is no worn patch")
	}
	near(t, "share that is worn", w.Share, .25)
	near(t, "share that is not", deep.Regions[Field].Share, .75)
	if s := w.Stain(craft.Tannin); math.Abs(s-7*.22) > 1e-6 {
		t.Errorf("tannin at the edges: %v", s)
	}
	if s := deep.Regions[Field].Stain(craft.Tannin); s > .1 {
		t.Errorf("tannin on the face: %v", s)
	}
	for name, s := range map[string]Step{"with 320": worked("distress_dry", func(s *Step) { s.Grit = 320 }), "with a cloth": worked("distress_wet", nil)} {
		if w := plan(s).Region(Worn); w.Stain(craft.Tannin) > .1 {
			t.Errorf("%s tannin lies open: %v", name, w.Stain(craft.Tannin))
		}
	}
	if plan(worked("stencil", nil)).Region(Worn) != nil {
		t.Error("a stencil wears")
	}
}

func TestEffectsLayWhatTheyLay(t *testing.T) {
	f := facts(t, "birch", "varnish_oil", nil)
	sealed := []Step{sand(220), dust, coat("paint_acrylic", 2), coatWait("clear_wb", 1, 30)}
	// A glaze is laid where none is, and worked where one is.
	w := Walk(c, f, append(sealed, worked("glaze", nil)))
	if p := w.End.Regions[Field]; c.Products[p.Product].ID != "glaze_wb" || p.Coats != 4 {
		t.Errorf("after glazing: %s, %d coats", c.Products[p.Product].ID, p.Coats)
	}
	w = Walk(c, f, append(append([]Step{}, sealed...), coat("glaze_wb", 1), worked("glaze", nil)))
	if e := w.Events[len(w.Events)-1]; e.NBounds != 0 || w.End.Regions[Field].Coats != 4 {
		t.Errorf("worked glaze: %d boundaries, %d coats", e.NBounds, w.End.Regions[Field].Coats)
	}
	// A stencil lands on what lies there and leaves the face as it was.
	w = Walk(c, f, []Step{sand(220), dust, coat("paint_chalk", 2), coat("wax_clear", 1), worked("stencil", nil)})
	e := w.Events[len(w.Events)-1]
	if e.NBounds != 1 || e.Bounds[0].On != craft.WaxFilm || w.End.Regions[Field].Top != craft.WaxFilm {
		t.Errorf("a stencil on wax: %+v", e.Boundaries())
	}
	// A resist is remembered until a coat covers it.
	w = Walk(c, f, []Step{worked("chippy", func(s *Step) { s.Resist = "wax" }), coat("paint_milk", 1)})
	if w.Events[0].After.Regions[Field].Resist != ResistWax || w.End.Regions[Field].Resist != NoResist {
		t.Error("the resist is lost or never covered")
	}
	// Leaf waits for its size, and its face is no longer tacky.
	w = Walk(c, f, []Step{coat("shellac_clear", 1), coat("size_leaf", 1), worked("gild", nil)})
	gild := w.Events[2]
	near(t, "size until it is tacky", gild.Begun-w.Events[1].Begun, .3)
	if w.End.Regions[Field].Top != craft.PrimerFilm {
		t.Errorf("leaf is %v", w.End.Regions[Field].Top)
	}
}

// What follows decides how long a clear is left, and how a glaze is covered.
func TestWaitsKnowWhatFollows(t *testing.T) {
	f := facts(t, "birch", "none", nil)
	begun := func(steps ...Step) float64 {
		w := Walk(c, f, steps)
		n := len(w.Events)
		return w.Events[n-1].Begun - w.Events[n-2].Begun
	}
	near(t, "clear under clear", begun(coat("clear_wb", 1), coat("clear_wb_hard", 1)), 2)
	near(t, "clear under wax", begun(coat("clear_wb", 1), coat("wax_clear", 1)), 4)
	near(t, "clear under glaze", begun(coat("clear_wb", 1), coat("glaze_wb", 1)), 16)
	spray := coat("clear_wb", 1)
	spray.Method = "spray"
	w := Walk(c, f, []Step{coat("clear_wb", 1), coatWait("glaze_wb", 1, 13), spray})
	if b := w.Events[2].Bounds[0]; b.Timing != Inside || math.Abs(b.Earliest-12) > 1e-9 {
		t.Errorf("sprayed over a glaze of last night: %v, from %v", b.Timing, b.Earliest)
	}
	brush := coat("clear_wb", 1)
	w = Walk(c, f, []Step{coat("clear_wb", 1), coatWait("glaze_wb", 1, 13), brush})
	if b := w.Events[2].Bounds[0]; b.Timing != TooSoon {
		t.Errorf("brushed over a glaze of last night: %v", b.Timing)
	}
}

func TestThinnedCoatsAreThinner(t *testing.T) {
	f := facts(t, "birch", "none", nil)
	s := coat("paint_acrylic", 2)
	s.ThinPct = 40
	near(t, "film", Walk(c, f, []Step{s}).End.Regions[Field].Film, 2*35/1.4)
}

func TestClearOnKindredClear(t *testing.T) {
	f := facts(t, "birch", "none", nil)
	near(t, "while it is open", bounds(f, coat("clear_wb", 1), coat("clear_wb_hard", 1))[1].Strength, .9)
	if late := bounds(f, coatWait("clear_wb", 1, 100), coat("clear_wb_hard", 1))[1]; late.Strength >= .78 {
		t.Errorf("long after: %v", late.Strength)
	}
}
