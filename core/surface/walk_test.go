package surface

import (
	"math"
	"reflect"
	"testing"

	"rutile/core/craft"
	"rutile/core/drying"
)

// The cases here are worked by hand from the tables; the air is the standard
// one, so that every time is the label's.

var c = craft.Default()

func facts(t *testing.T, substrate, finish string, change func(*Facts)) *Facts {
	t.Helper()
	f := &Facts{Moisture: -1, Wear: craft.Handled, Climate: drying.Standard}
	var ok bool
	if f.Substrate, ok = c.Substrate(substrate); !ok {
		t.Fatalf("no substrate %s", substrate)
	}
	if f.Finish, ok = c.Finish(finish); !ok {
		t.Fatalf("no finish %s", finish)
	}
	if change != nil {
		change(f)
	}
	return f
}

func clean(id string, rinse bool) Step {
	x, ok := c.Cleaner(id)
	if !ok {
		panic("no cleaner " + id)
	}
	return Step{Do: Clean, Cleaner: x, Rinse: rinse}
}

func sand(grit int) Step { return Step{Do: Abrade, Grit: grit, How: craft.Hand} }

func coat(id string, n int) Step {
	p, ok := c.Product(id)
	if !ok {
		panic("no product " + id)
	}
	return Step{Do: Coat, Product: p, Coats: n, Auto: true}
}

func coatWait(id string, n int, wait float64) Step {
	s := coat(id, n)
	s.Auto, s.WaitH = false, wait
	return s
}

var dust = Step{Do: Dust}

// bounds gathers the boundaries of a walk on the field.
func bounds(f *Facts, steps ...Step) []Boundary {
	t := Walk(c, f, steps)
	var out []Boundary
	for i := range t.Events {
		for _, b := range t.Events[i].Boundaries() {
			if b.Region == Field {
				out = append(out, b)
			}
		}
	}
	return out
}

func near(t *testing.T, what string, got, want float64) {
	t.Helper()
	if math.IsNaN(got) || math.Abs(got-want) > 1e-9 {
		t.Errorf("%s is %v, want %v", what, got, want)
	}
}

func TestStrengthByHand(t *testing.T) {
	gloss := func(s craft.Sheen) func(*Facts) { return func(f *Facts) { f.Gloss = s } }
	soil := func(s craft.Soil, n uint8) func(*Facts) { return func(f *Facts) { f.Soils[s] = n } }
	for _, x := range []struct {
		name      string
		f         *Facts
		steps     []Step
		at        int // which boundary
		want      float64
		reasoning string
	}{
		{"chalk on gloss laminate", facts(t, "laminate_hpl", "none", gloss(craft.Gloss)), []Step{coat("paint_chalk", 1)}, 0, .57 * (1 - .9*.8*.45), "grip .57, need .9, key .2, sensitivity .45"},
		{"chalk on scuffed laminate", facts(t, "laminate_hpl", "none", gloss(craft.Gloss)), []Step{sand(220), dust, coat("paint_chalk", 1)}, 0, .57, "a full key"},
		{"chalk on laminate, dust left", facts(t, "laminate_hpl", "none", nil), []Step{sand(220), coat("paint_chalk", 1)}, 0, .57 * (1 - .15), "dust 2 harms by .15"},
		{"bonding primer on laminate keyed with 320", facts(t, "laminate_hpl", "none", gloss(craft.Gloss)), []Step{sand(320), dust, coat("primer_bond_wb", 1)}, 0, .88 * (1 - .9*.25*.45), "320 gives .75"},
		{"shellac on satin varnish", facts(t, "oak", "varnish_oil", gloss(craft.Satin)), []Step{coat("shellac_clear", 1)}, 0, .90 * (1 - .6*.6*.3), "need .6, key .4, sensitivity .3"},
		{"unrecorded sheen counts as satin", facts(t, "oak", "varnish_oil", nil), []Step{coat("shellac_clear", 1)}, 0, .90 * (1 - .6*.6*.3), ""},
		{"matt film offers .7", facts(t, "oak", "varnish_oil", gloss(craft.Matt)), []Step{coat("paint_acrylic", 1)}, 0, .65 * (1 - .6*.3*.75), ""},
		{"soft vinyl, matt, best allowed .7", facts(t, "vinyl_fabric", "none", gloss(craft.Matt)), []Step{coat("paint_flexible", 1)}, 0, .88, ".7 of .7 is a full key"},
		{"soft vinyl, satin", facts(t, "vinyl_fabric", "none", gloss(craft.Satin)), []Step{coat("paint_flexible", 1)}, 0, .88 * (1 - .4*(1-.4/.7)*.6), ""},
		{"soft vinyl, pad", facts(t, "vinyl_fabric", "none", gloss(craft.Gloss)), []Step{{Do: Abrade, How: craft.Pad}, dust, coat("paint_flexible", 1)}, 0, .88, ""},
		{"bare steel unabraded", facts(t, "steel", "none", nil), []Step{coat("primer_metal", 1)}, 0, .95 * (1 - .6*.3*.5), "bare metal is keyed by .7"},
		{"chrome sheds", facts(t, "chrome", "none", nil), []Step{sand(240), dust, coat("primer_epoxy", 1)}, 0, .65, "abraded, and with epoxy"},
		{"glass under its own primer", facts(t, "glass", "none", gloss(craft.Gloss)), []Step{coat("primer_glass", 1)}, 0, .92, "counts as keyed"},
		{"glass under acrylic", facts(t, "glass", "none", gloss(craft.Gloss)), []Step{coat("paint_acrylic", 1)}, 0, .22 * (1 - .3*.8*.75), ""},
		{"bare wood is keyed by nature", facts(t, "birch", "none", nil), []Step{coat("paint_acrylic", 1)}, 0, .90, ""},
		{"bare wood polished with 400", facts(t, "birch", "none", nil), []Step{sand(400), dust, coat("paint_acrylic", 1)}, 0, .90 * .9, "closed by a tenth"},
		{"grease 2 left", facts(t, "birch", "none", soil(craft.Grease, 2)), []Step{coat("paint_acrylic", 1)}, 0, .90 * .45, ""},
		{"grease 2 under shellac", facts(t, "birch", "none", soil(craft.Grease, 2)), []Step{coat("shellac_clear", 1)}, 0, .95 * (1 - .6*.55), "shellac suffers six tenths of it"},
		{"two soils", facts(t, "birch", "none", func(f *Facts) { f.Soils[craft.Grease] = 1; f.Soils[craft.Grime] = 2 }), []Step{coat("paint_acrylic", 1)}, 0, .90 * (1 - .275) * (1 - .35), ""},
		{"a lot of silicone", facts(t, "birch", "none", func(f *Facts) { f.Soils[craft.Silicone] = 3; f.Soils[craft.WaxPolish] = 3 }), []Step{coat("paint_acrylic", 1)}, 0, .90 * .1, "cleanness has a floor of .1"},
		{"same product inside its window", facts(t, "birch", "none", nil), []Step{coat("paint_chalk", 2)}, 1, .95, ""},
		{"shellac on itself", facts(t, "birch", "none", nil), []Step{coat("shellac_clear", 2)}, 1, 1, "it redissolves"},
		{"milk paint on itself", facts(t, "birch", "none", nil), []Step{coat("paint_milk", 2)}, 1, .85, ""},
		{"chalk on shellac", facts(t, "birch", "none", nil), []Step{coat("shellac_clear", 1), coat("paint_chalk", 1)}, 1, .85, "new shellac is a tie coat, and fresh it needs no key"},
		{"too soon by half", facts(t, "birch", "none", nil), []Step{coatWait("paint_chalk", 1, 1), coat("clear_wb", 1)}, 1, .90 * (.6 + .4*.1/.3), "half is a quarter of the way from .4 to .7"},
		{"near enough", facts(t, "birch", "none", nil), []Step{coatWait("paint_chalk", 1, 1.5), coat("clear_wb", 1)}, 1, .90, "three quarters of the wait are"},
		{"oil enamel on bare zinc", facts(t, "galvanised", "none", nil), []Step{{Do: Abrade, How: craft.Pad}, dust, coat("paint_enamel_oil", 1)}, 0, .35 * .25, "its binder turns to soap"},
		{"can over oil enamel of yesterday", facts(t, "birch", "none", nil), []Step{coatWait("paint_enamel_oil", 1, 24), coat("paint_aerosol", 1)}, 1, .80 * .5, "it wrinkles"},
		{"can over oil enamel of last month", facts(t, "birch", "none", nil), []Step{coatWait("paint_enamel_oil", 1, 24*31), sand(220), dust, coat("paint_aerosol", 1)}, 1, .80, ""},
		{"chrome unabraded", facts(t, "chrome", "none", gloss(craft.Gloss)), []Step{coat("primer_epoxy", 1)}, 0, .65 * (1 - .8*.5), "and never above .4"},
		{"below the dew point", facts(t, "birch", "none", func(f *Facts) { f.SurfaceRead, f.SurfaceC = true, 9 }), []Step{coat("paint_acrylic", 1)}, 0, .90 * .6, ""},
		{"near the dew point", facts(t, "birch", "none", func(f *Facts) { f.SurfaceRead, f.SurfaceC = true, 14 }), []Step{coat("paint_acrylic", 1)}, 0, .90 * .8, "12 C"},
		{"cold", facts(t, "birch", "none", func(f *Facts) { f.Climate.TempC = 9 }), []Step{coat("paint_acrylic", 1)}, 0, .90 * .8, "below its 10 C"},
		{"damp air", facts(t, "birch", "none", func(f *Facts) { f.Climate.RH = 81 }), []Step{coat("paint_acrylic", 1)}, 0, .90 * .8, "over its 80 %"},
		{"wood at 16 %", facts(t, "birch", "none", func(f *Facts) { f.Moisture = 16 }), []Step{coat("paint_acrylic", 1)}, 0, .90 * .85, ""},
		{"wood at 20 %", facts(t, "birch", "none", func(f *Facts) { f.Moisture = 20 }), []Step{coat("paint_acrylic", 1)}, 0, .90 * .6, ""},
		{"wood at 20 %, stained first", facts(t, "birch", "none", func(f *Facts) { f.Moisture = 20 }), []Step{coat("stain_water", 1), coat("paint_acrylic", 1)}, 0, .90 * .6, "a stain is no film"},
		{"wood at 14 %", facts(t, "birch", "none", func(f *Facts) { f.Moisture = 14 }), []Step{coat("paint_acrylic", 1)}, 0, .90, "not over 14"},
		{"terracotta outdoors", facts(t, "terracotta", "none", func(f *Facts) { f.Uses = craft.UseOutdoor }), []Step{coat("paint_masonry", 1)}, 0, .90 * .7, ""},
		{"terracotta outdoors, sealed", facts(t, "terracotta", "none", func(f *Facts) { f.Uses = craft.UseOutdoor }), []Step{coat("sealer_masonry", 1)}, 0, .92 * .9, ""},
		{"terracotta indoors", facts(t, "terracotta", "none", nil), []Step{coat("paint_masonry", 1)}, 0, .90, ""},
		{"flaking caps", facts(t, "birch", "paint_acrylic_old", func(f *Facts) { f.Loose = craft.LooseFlakes; f.Gloss = craft.Matt }), []Step{coat("primer_bond_wb", 1)}, 0, .2, ""},
		{"powdery caps", facts(t, "birch", "paint_porous_old", nil), []Step{coat("paint_acrylic", 1)}, 0, .5, ""},
		{"powdery, bound by shellac", facts(t, "birch", "paint_porous_old", nil), []Step{coat("shellac_clear", 1)}, 0, .85, ""},
		{"over what bound it", facts(t, "birch", "paint_porous_old", nil), []Step{coat("shellac_clear", 1), coat("paint_acrylic", 1)}, 1, .85, ""},
		{"over crackle medium", facts(t, "birch", "none", nil), []Step{coat("paint_acrylic", 1), coat("crackle_medium", 1), coat("paint_chalk", 1)}, 2, .35, "made to let go"},
		{"promoter, then a can within the hour", facts(t, "plastic_polyolefin", "none", gloss(craft.Matt)), []Step{coatWait("primer_plastic", 1, .5), coat("paint_aerosol", 1)}, 1, .85, ""},
		{"aerosol between its windows", facts(t, "birch", "none", nil), []Step{coatWait("paint_aerosol", 1, 6), coat("paint_aerosol", 1)}, 1, .60 * .55, "it wrinkles"},
		{"aerosol in its first window", facts(t, "birch", "none", nil), []Step{coatWait("paint_aerosol", 1, .5), coat("paint_aerosol", 1)}, 1, .95, ""},
		{"acrylic over a day-old aerosol", facts(t, "birch", "none", nil), []Step{coatWait("paint_aerosol", 1, 30), coat("paint_acrylic", 1)}, 1, .60, "by then it is alkyd paint"},
	} {
		t.Run(x.name, func(t *testing.T) {
			bs := bounds(x.f, x.steps...)
			if len(bs) <= x.at {
				t.Fatalf("only %d boundaries", len(bs))
			}
			near(t, "strength ("+x.reasoning+")", bs[x.at].Strength, x.want)
		})
	}
}

func TestMissedWindowByHand(t *testing.T) {
	f := facts(t, "birch", "none", nil)
	// Bonding primer closes at 168 h; at 252 h it is half way to its floor of
	// .65. A key is not counted as well. Deglossed it counts by its key: need .6, matt .7.
	k := 1 - .6*.3*.75
	shellac := 1 - .3*(1-.3)*.75
	for _, x := range []struct {
		name  string
		steps []Step
		want  float64
		at    Timing
	}{
		{"inside", []Step{coatWait("primer_bond_wb", 1, 160), coat("paint_acrylic", 1)}, .92, Inside},
		{"half way", []Step{coatWait("primer_bond_wb", 1, 252), coat("paint_acrylic", 1)}, .92 * .825, Missed},
		{"at the floor", []Step{coatWait("primer_bond_wb", 1, 336), coat("paint_acrylic", 1)}, .92 * .65, Missed},
		{"long after", []Step{coatWait("primer_bond_wb", 1, 5000), coat("paint_acrylic", 1)}, .92 * .65, Missed},
		{"scuffed", []Step{coatWait("primer_bond_wb", 1, 5000), sand(240), dust, coat("paint_acrylic", 1)}, .92, Scuffed},
		{"deglossed", []Step{coatWait("primer_bond_wb", 1, 5000), clean("deglosser_liquid", false), coat("paint_acrylic", 1)}, .92 * k, Scuffed},
		{"no latest", []Step{coatWait("paint_chalk", 1, 50000), coat("paint_acrylic", 1)}, .85, Inside},
		{"shellac, no longer fresh", []Step{coatWait("shellac_clear", 1, 50), coat("paint_acrylic", 1)}, .85 * shellac, OldSurface},
	} {
		bs := bounds(f, x.steps...)
		b := bs[len(bs)-1]
		near(t, x.name, b.Strength, x.want)
		if b.Timing != x.at {
			t.Errorf("%s: timing %v, want %v", x.name, b.Timing, x.at)
		}
	}
	// A promoter's missed window no scuff brings back.
	bs := bounds(facts(t, "plastic_abs", "none", nil), coatWait("primer_plastic", 1, 5), sand(320), dust, coat("paint_acrylic", 1))
	if b := bs[1]; b.Timing != Missed || b.Factors[Window] != .55 {
		t.Errorf("a scuff brought the promoter back: %v %v", b.Timing, b.Factors[Window])
	}
}

func TestWindowsFollowTheWeather(t *testing.T) {
	cold := func(f *Facts) { f.Climate = drying.Climate{TempC: 11, RH: 50} }
	hot := func(f *Facts) { f.Climate = drying.Climate{TempC: 35, RH: 50} }
	bs := bounds(facts(t, "birch", "none", cold), coat("primer_bond_wb", 1), coat("paint_acrylic", 1))
	near(t, "earliest in the cold, from the edge of the ordinary", bs[1].Earliest, 8/1.3)
	near(t, "latest in the cold", bs[1].Latest, 336)
	near(t, "waited", bs[1].Waited, 8/1.3)
	bs = bounds(facts(t, "birch", "none", hot), coat("primer_bond_wb", 1), coat("paint_acrylic", 1))
	near(t, "earliest in the heat is still the label's", bs[1].Earliest, 4)
	near(t, "latest in the heat", bs[1].Latest, 84)
	// Shellac is left for an hour under paint, two under clear, and four once there are two coats of it.
	std := facts(t, "birch", "none", nil)
	bs = bounds(std, coat("shellac_clear", 2), coat("paint_chalk", 1))
	near(t, "shellac on shellac", bs[1].Waited, .75)
	near(t, "paint on two coats of shellac", bs[2].Waited, 4)
	bs = bounds(std, coat("shellac_clear", 1), coat("clear_oil", 1))
	near(t, "clear on shellac", bs[1].Waited, 2)
	bs = bounds(std, coat("shellac_pigmented", 1), coat("paint_enamel_oil", 1))
	near(t, "enamel on shellac", bs[1].Waited, 1)
	bs = bounds(std, coat("shellac_clear", 1), coat("clear_wb_hard", 1))
	near(t, "floor clear on shellac: overnight", bs[1].Waited, 12)
}

func TestHoursAndMinutes(t *testing.T) {
	f := facts(t, "birch", "none", func(f *Facts) { f.Area = 2 })
	w := Walk(c, f, []Step{sand(220), dust, coatWait("paint_acrylic", 2, 5), {Do: Wait, Hours: 10}})
	const setUp, brush = 8., 20. // of a visit, and of a brush; the second coat is sanded between
	minutes := setUp + 16*2. + setUp + 4*2. + 2*(brush+17*2.) + 4*2
	near(t, "minutes", w.End.Minutes, minutes)
	near(t, "of which setting up", w.Events[2].SetUp, brush)
	near(t, "hours", w.End.Hours, minutes/60+5+5+10)
	// Left to the check, the last coat waits until it could be coated again.
	f.Area = 0
	w = Walk(c, f, []Step{coat("paint_acrylic", 2)})
	near(t, "hours without an area", w.End.Hours, 6)
	near(t, "minutes without an area", w.End.Minutes, 0)
	// Sanding waits until the coat may be sanded.
	w = Walk(c, f, []Step{coat("primer_bond_wb", 1), sand(240), dust, coatWait("paint_acrylic", 1, 0)})
	near(t, "hours to sanding", w.End.Hours, 6)
}

func field(s *State) *Region { return &s.Regions[Field] }

func TestCleaning(t *testing.T) {
	for _, x := range []struct {
		name   string
		soil   craft.Soil
		level  uint8
		steps  []Step
		want   uint8
		driven bool
	}{
		{"detergent on grime", craft.Grime, 3, []Step{clean("detergent", true)}, 1, false},
		{"detergent on grime twice", craft.Grime, 3, []Step{{Do: Clean, Cleaner: mustCleaner("detergent"), Rinse: true, Passes: 2}}, 0, false},
		{"detergent on grease", craft.Grease, 2, []Step{clean("detergent", true)}, 2, false},
		{"degreaser on grease", craft.Grease, 2, []Step{clean("degreaser_alkaline", true)}, 0, false},
		{"white spirit on wax polish", craft.WaxPolish, 3, []Step{clean("white_spirit", false)}, 1, false},
		{"and detergent after", craft.WaxPolish, 3, []Step{clean("white_spirit", false), clean("detergent", true)}, 0, false},
		{"detergent on wax polish alone", craft.WaxPolish, 1, []Step{clean("detergent", true)}, 1, false},
		{"white spirit on silicone", craft.Silicone, 2, []Step{clean("white_spirit", false)}, 1, false},
		{"white spirit on a trace of silicone", craft.Silicone, 1, []Step{clean("white_spirit", false)}, 0, false},
		{"alcohol on a little grease", craft.Grease, 1, []Step{clean("alcohol", false)}, 0, false},
		{"alcohol on marked grease", craft.Grease, 2, []Step{clean("alcohol", false)}, 2, false},
		{"sanded in, then degreased", craft.Grease, 3, []Step{sand(220), clean("degreaser_alkaline", true), clean("degreaser_alkaline", true)}, 1, true},
		{"grime is not driven in", craft.Grime, 2, []Step{sand(220), clean("detergent", true)}, 0, false},
		{"salts brushed off", craft.SaltsSoil, 2, []Step{clean("dry_brush", false)}, 0, false},
		{"mould", craft.Mould, 2, []Step{clean("biocide_wash", false)}, 0, false},
		{"loose rust sanded", craft.RustLoose, 1, []Step{sand(120)}, 0, false},
	} {
		w := Walk(c, facts(t, "birch", "none", func(f *Facts) { f.Soils[x.soil] = x.level }), x.steps)
		p := field(&w.End)
		if p.Soils[x.soil] != x.want || p.driven(x.soil) != x.driven {
			t.Errorf("%s: level %d driven %v, want %d %v", x.name, p.Soils[x.soil], p.driven(x.soil), x.want, x.driven)
		}
	}
}

func mustCleaner(id string) craft.Cleaner {
	x, ok := c.Cleaner(id)
	if !ok {
		panic(id)
	}
	return x
}

func TestResidue(t *testing.T) {
	f := facts(t, "birch", "none", nil)
	for _, x := range []struct {
		name  string
		steps []Step
		want  uint8
	}{
		{"degreaser unrinsed", []Step{clean("degreaser_alkaline", false)}, 2},
		{"degreaser rinsed", []Step{clean("degreaser_alkaline", true)}, 0},
		{"detergent unrinsed", []Step{clean("detergent", false)}, 1},
		{"rinsed by the next wash", []Step{clean("degreaser_alkaline", false), clean("detergent", true)}, 0},
		{"neutralised", []Step{clean("degreaser_alkaline", false), clean("vinegar_water", false)}, 0},
		{"alcohol does not rinse", []Step{clean("degreaser_alkaline", false), clean("alcohol", false)}, 2},
		{"white spirit leaves none", []Step{clean("white_spirit", false)}, 0},
	} {
		w := Walk(c, f, x.steps)
		if got := field(&w.End).Soils[craft.CleanerResidue]; got != x.want {
			t.Errorf("%s: residue %d, want %d", x.name, got, x.want)
		}
	}
}

func TestWaxComesOff(t *testing.T) {
	w := Walk(c, facts(t, "oak", "wax", nil), []Step{clean("white_spirit", false)})
	p := field(&w.End)
	if p.Top != craft.WoodBare || !p.Bare || p.Soils[craft.WaxPolish] != 1 || p.Key != 1 {
		t.Errorf("below the wax is %v bare %v, wax polish %d, key %v", p.Top, p.Bare, p.Soils[craft.WaxPolish], p.Key)
	}
	w = Walk(c, facts(t, "oak", "wax", nil), []Step{clean("white_spirit", false), clean("detergent", true)})
	if field(&w.End).Soils[craft.WaxPolish] != 0 {
		t.Error("the wash left wax polish")
	}
	w = Walk(c, facts(t, "oak", "paint_porous_waxed", nil), []Step{clean("white_spirit", false)})
	if p := field(&w.End); p.Top != craft.PorousPaint || p.Bare {
		t.Errorf("below waxed paint is %v, bare %v", p.Top, p.Bare)
	}
	w = Walk(c, facts(t, "oak", "wax", nil), []Step{sand(220), clean("white_spirit", false), clean("detergent", true)})
	if p := field(&w.End); p.Soils[craft.WaxPolish] != 1 || !p.driven(craft.WaxPolish) {
		t.Error("wax that was sanded in washed out")
	}
	w = Walk(c, facts(t, "birch", "none", nil), []Step{coat("paint_chalk", 1), coat("wax_clear", 1), clean("white_spirit", false)})
	if p := field(&w.End); p.Top != craft.PorousPaint || p.Bare {
		t.Errorf("below the plan's own wax is %v", p.Top)
	}
	// However much wax there is, old or the plan's own, solvent takes all of it.
	for _, x := range []struct {
		name   string
		f      *Facts
		before []Step
		top    craft.Family
		bare   bool
		coats  uint8
	}{
		{"two coats of wax over paint", facts(t, "birch", "none", nil), []Step{coat("paint_chalk", 1), coat("wax_clear", 1), coat("wax_dark", 1)}, craft.PorousPaint, false, 1},
		{"wax over old wax", facts(t, "oak", "wax", nil), []Step{coat("wax_clear", 2)}, craft.WoodBare, true, 0},
		{"wax over bare wood", facts(t, "oak", "none", nil), []Step{coat("wax_clear", 1)}, craft.WoodBare, true, 0},
	} {
		w := Walk(c, x.f, append(x.before, clean("white_spirit", false)))
		if p := field(&w.End); p.Top != x.top || p.Bare != x.bare || p.Coats != x.coats {
			t.Errorf("%s: below it is %v, bare %v, %d coats", x.name, p.Top, p.Bare, p.Coats)
		}
	}
}

func TestShellacShutsSoilsIn(t *testing.T) {
	for _, x := range []struct {
		soil  craft.Soil
		level uint8
		coat  string
		want  uint8
	}{
		{craft.WaxPolish, 1, "shellac_clear", 0},
		{craft.WaxPolish, 2, "shellac_clear", 2},
		{craft.Silicone, 1, "shellac_pigmented", 0},
		{craft.Grease, 3, "shellac_clear", 0},
		{craft.WaxPolish, 3, "paint_acrylic", 0}, // counted at that boundary, and covered
	} {
		w := Walk(c, facts(t, "birch", "none", func(f *Facts) { f.Soils[x.soil] = x.level }), []Step{coat(x.coat, 1)})
		if got := field(&w.End).Soils[x.soil]; got != x.want {
			t.Errorf("%s %d under %s: %d left in play, want %d", x.soil, x.level, x.coat, got, x.want)
		}
	}
}

func TestStainByHand(t *testing.T) {
	sqrt := math.Sqrt
	for _, x := range []struct {
		name    string
		f       *Facts
		steps   []Step
		bleeder craft.Bleeder
		patch   RegionKind
		want    float64
	}{
		{"oak under chalk", facts(t, "oak", "none", nil), []Step{coat("paint_chalk", 2)}, craft.Tannin, Field, 7 * 1.2 * .82 * sqrt(.82)},
		{"oak under oil enamel", facts(t, "oak", "none", nil), []Step{coat("paint_enamel_oil", 2)}, craft.Tannin, Field, 7 * .55 * sqrt(.55)},
		{"oak under pigmented shellac", facts(t, "oak", "none", nil), []Step{coat("shellac_pigmented", 2), coat("paint_chalk", 1)}, craft.Tannin, Field, 7 * .10 * .10 * .82},
		{"blockers count in full after a paint too", facts(t, "oak", "none", nil), []Step{coat("paint_chalk", 1), coat("shellac_pigmented", 1), coat("paint_chalk", 1)}, craft.Tannin, Field, 7 * 1.2 * .82 * .10 * sqrt(.82)},
		{"varnish holds back", facts(t, "oak", "varnish_oil", nil), []Step{coat("paint_chalk", 1)}, craft.Tannin, Field, 7 * .35 * .82},
		{"until sanded through", facts(t, "oak", "varnish_oil", nil), []Step{{Do: Abrade, Grit: 120, How: craft.Hand, Through: true}, dust, coat("paint_chalk", 1)}, craft.Tannin, Field, 7 * 1.2 * .82},
		{"old alkyd holds back", facts(t, "oak", "paint_alkyd_old", nil), []Step{coat("paint_chalk", 1)}, craft.Tannin, Field, 7 * .4 * .82},
		{"water-based clear does not", facts(t, "oak", "finish_wb", nil), []Step{coat("paint_chalk", 1)}, craft.Tannin, Field, 7 * .82},
		{"dye under varnish", facts(t, "birch", "varnish_oil", func(f *Facts) { f.GivenBleeders = true; f.Bleeders[craft.Dye] = 2 }), []Step{coat("paint_chalk", 1)}, craft.Dye, Field, 12 * .6 * .88},
		{"dye woken by alcohol", facts(t, "birch", "stain_only", nil), []Step{coat("shellac_pigmented", 1)}, craft.Dye, Field, 12 * 1.3 * .12},
		{"dye under old shellac, woken", facts(t, "birch", "shellac", func(f *Facts) { f.GivenBleeders = true; f.Bleeders[craft.Dye] = 2 }), []Step{coat("shellac_pigmented", 1)}, craft.Dye, Field, 12 * .6 * 1.3 * .12},
		{"dye under old varnish, not woken", facts(t, "birch", "varnish_oil", func(f *Facts) { f.GivenBleeders = true; f.Bleeders[craft.Dye] = 2 }), []Step{coat("shellac_pigmented", 1)}, craft.Dye, Field, 12 * .6 * .12},
		{"pine without knots", facts(t, "pine", "none", nil), []Step{coat("paint_acrylic", 1)}, craft.Resin, Field, 4 * .92},
		{"pine at its knots", facts(t, "pine", "none", func(f *Facts) { f.Knots = 3 }), []Step{coat("paint_acrylic", 1)}, craft.Resin, SpotRegion, 8 * .92},
		{"between the knots", facts(t, "pine", "none", func(f *Facts) { f.Knots = 3 }), []Step{coat("paint_acrylic", 1)}, craft.Resin, Field, 4 * .92},
		{"knots sealed alone", facts(t, "pine", "none", func(f *Facts) { f.Knots = 3 }), []Step{spot("shellac_pigmented", Knots), coat("paint_acrylic", 1)}, craft.Resin, SpotRegion, 8 * .08 * .92},
		{"the field then is not", facts(t, "pine", "none", func(f *Facts) { f.Knots = 3 }), []Step{spot("shellac_pigmented", Knots), coat("paint_acrylic", 1)}, craft.Resin, Field, 4 * .92},
		{"smoke lies on the film", facts(t, "oak", "varnish_oil", func(f *Facts) { f.Soils[craft.NicotineSoil] = 3 }), []Step{coat("paint_acrylic", 1)}, craft.Nicotine, Field, 9 * .82},
		{"bare steel", facts(t, "steel", "none", nil), []Step{coat("primer_metal", 1)}, craft.Rust, Field, 5 * .10},
		{"steel under sound paint does not rust", facts(t, "steel", "powder", nil), []Step{coat("paint_acrylic", 1)}, craft.Rust, Field, 0},
		{"entered bleeders replace the implied", facts(t, "oak", "none", func(f *Facts) { f.GivenBleeders = true }), []Step{coat("paint_chalk", 1)}, craft.Tannin, Field, 0},
		{"iron stain uses tannin's column", facts(t, "oak", "none", func(f *Facts) { f.GivenBleeders = true; f.Bleeders[craft.IronTannin] = 1 }), []Step{coat("paint_chalk", 1)}, craft.IronTannin, SpotRegion, 5 * 1.2 * .82},
		{"bleached out", facts(t, "oak", "none", func(f *Facts) { f.GivenBleeders = true; f.Bleeders[craft.IronTannin] = 3 }), []Step{coat("oxalic_bleach", 1), coat("paint_chalk", 1)}, craft.IronTannin, SpotRegion, 0},
		{"a stain of the plan's own", facts(t, "birch", "none", nil), []Step{coat("stain_spirit", 1), coat("paint_acrylic", 1)}, craft.Dye, Field, 12 * .88},
		{"woken by the shellac over it", facts(t, "birch", "none", nil), []Step{coat("stain_spirit", 1), coat("shellac_clear", 1)}, craft.Dye, Field, 12 * 1.3 * .22},
	} {
		w := Walk(c, x.f, x.steps)
		got := 0.
		for i := range w.End.Regions[:w.End.N] {
			if w.End.Regions[i].Kind == x.patch {
				got = w.End.Regions[i].Stain(x.bleeder)
			}
		}
		if math.Abs(got-x.want) > 1e-4 {
			t.Errorf("%s: %.4f, want %.4f", x.name, got, x.want)
		}
	}
}

func spot(id string, sc Scope) Step {
	s := coat(id, 1)
	s.Scope = sc
	return s
}

func TestStatesCompareAndRepeat(t *testing.T) {
	f := facts(t, "pine", "varnish_oil", func(f *Facts) { f.Knots = 2; f.Soils[craft.Grease] = 2; f.Area = 1.3 })
	steps := []Step{clean("degreaser_alkaline", true), sand(220), dust, coat("shellac_pigmented", 1), coatWait("paint_chalk", 2, 3), coat("clear_wb", 2)}
	a, b := Walk(c, f, steps), Walk(c, f, steps)
	if a.End != b.End {
		t.Error("the same walk ends in two states")
	}
	var again Trace
	again.Walk(c, f, steps[:2])
	again.Walk(c, f, steps)
	if again.End != a.End {
		t.Error("a trace used again walks differently")
	}
	if len(a.Events) != 3+1+2+2 {
		t.Errorf("%d events", len(a.Events))
	}
	for i := range a.Events {
		before := a.Start
		if i > 0 {
			before = a.Events[i-1].After
		}
		if *a.Events[i].Before != before {
			t.Errorf("event %d does not begin where the one before it ended", i)
		}
	}
}

func TestVariants(t *testing.T) {
	if vs := Variants(c, facts(t, "oak", "varnish_oil", nil)); len(vs) != 1 {
		t.Errorf("a known finish may be %d things", len(vs))
	}
	vs := Variants(c, facts(t, "oak", "unknown", nil))
	if len(vs) < 4 {
		t.Errorf("an unknown finish on oak may be only %d things", len(vs))
	}
	for _, v := range vs {
		if c.Finishes[v.Finish].Unknown {
			t.Error("an unknown finish may be unknown")
		}
	}
	vs = Variants(c, facts(t, "glass", "unknown", nil))
	if len(vs) != 1 || c.Finishes[vs[0].Finish].ID != "none" {
		t.Errorf("an unknown finish on glass is %d things", len(vs))
	}
}

func TestDemand(t *testing.T) {
	f := facts(t, "oak", "none", func(f *Facts) { f.Wear = craft.Display })
	near(t, "display", f.Demand(), .30)
	f.Uses = craft.UseOutdoor
	near(t, "display outdoors", f.Demand(), .68)
	f.Wear = craft.Floor
	near(t, "floor outdoors", f.Demand(), .70)
}

func TestRiskByHand(t *testing.T) {
	b := Boundary{Product: mustProduct("paint_chalk"), Strength: .5, Factors: [NumTerms]float64{.5, 1, 1, 1, 1, 1, 1}}
	// Base .10 and (1-.5)/3 for the grip.
	near(t, "spread", b.LogSpread(c, 0), math.Sqrt(.10*.10+.5*.5/9))
	near(t, "spread of the unknown", b.LogSpread(c, SpreadUnknown), math.Sqrt(.10*.10+.15*.15+.5*.5/9))
	near(t, "risk at the demand", b.Risk(c, .5, 0), .5)
	z := math.Log(.65/.5) / b.LogSpread(c, 0)
	near(t, "risk above it", b.Risk(c, .65, 0), .5*math.Erfc(-z/math.Sqrt2))
	b.Strength = 0
	near(t, "nothing holds", b.Risk(c, .3, 0), 1)
	m := Boundary{Product: mustProduct("paint_milk"), Strength: .9, Factors: [NumTerms]float64{1, 1, 1, 1, 1, 1, 1}}
	near(t, "milk paint is wayward", m.LogSpread(c, 0), math.Sqrt(.10*.10+.2*.2))
	m.Additive = .5
	near(t, "but not with additive", m.LogSpread(c, 0), .10)
}

func mustProduct(id string) craft.Product {
	p, ok := c.Product(id)
	if !ok {
		panic(id)
	}
	return p
}

// A state that is taken over is the same in every field, whatever was there before.
func TestAStateIsTakenOverWhole(t *testing.T) {
	full := func(n uint8) State {
		var s State
		v := reflect.ValueOf(&s).Elem()
		fillIn(v, int(n)+1)
		s.N = n
		for i := n; i < numRegions8; i++ {
			s.Regions[i] = Region{}
		}
		return s
	}
	for from := range uint8(numRegions8) {
		for to := range uint8(numRegions8) {
			a, b := full(from+1), full(to+1)
			a.Hours++
			if b.take(&a); a != b {
				t.Errorf("%d regions taken into %d: %+v, want %+v", from+1, to+1, b, a)
			}
		}
	}
}

const numRegions8 = uint8(numRegions)

// fillIn gives every field a value that is not zero.
func fillIn(v reflect.Value, n int) {
	switch v.Kind() {
	case reflect.Struct:
		for i := range v.NumField() {
			fillIn(v.Field(i), n)
		}
	case reflect.Array:
		for i := range v.Len() {
			fillIn(v.Index(i), n)
		}
	case reflect.Bool:
		v.SetBool(true)
	case reflect.Float32, reflect.Float64:
		v.SetFloat(float64(n))
	case reflect.Int, reflect.Int8, reflect.Int16, reflect.Int32, reflect.Int64:
		v.SetInt(int64(n))
	default:
		v.SetUint(uint64(n))
	}
}
