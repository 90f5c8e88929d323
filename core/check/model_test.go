package check

import (
	"math"
	"slices"
	"strings"
	"testing"

	"rutile/core/craft"
	"rutile/core/measure"
	"rutile/core/surface"
)

func near(t *testing.T, what string, got, want, tol float64) {
	t.Helper()
	if math.IsNaN(got) || math.Abs(got-want) > tol {
		t.Errorf("%s is %v, want %v", what, got, want)
	}
}

func TestClass(t *testing.T) {
	for _, x := range []struct {
		strength float64
		want     string
	}{{1, "5B"}, {.88, "5B"}, {.879, "4B"}, {.75, "4B"}, {.60, "3B"}, {.59, "2B"}, {.45, "2B"}, {.30, "1B"}, {.29, "0B"}, {0, "0B"}} {
		if got := Class(x.strength); got != x.want {
			t.Errorf("class of %v is %s, want %s", x.strength, got, x.want)
		}
	}
}

func TestRiskVerdict(t *testing.T) {
	for _, x := range []struct {
		risk float64
		want Verdict
	}{{0, Sound}, {.099, Sound}, {.10, Watched}, {.349, Watched}, {.35, Fails}, {1, Fails}} {
		if got := RiskVerdict(x.risk); got != x.want {
			t.Errorf("a risk of %v is %v", x.risk, got)
		}
	}
}

func TestShow(t *testing.T) {
	for _, x := range []struct{ l, want float64 }{{100, 1}, {90, 1}, {60, .5}, {36, .1}, {30, .1}, {0, .1}} {
		near(t, "share shown", Show(x.l), x.want, 1e-12)
	}
}

// L* of sRGB greys and primaries under D65, as published in many places.
func TestLightness(t *testing.T) {
	for _, x := range []struct {
		hex  string
		want float64
	}{{"#ffffff", 100}, {"#000000", 0}, {"#777777", 50.03}, {"#ff0000", 53.24}, {"#00ff00", 87.73}, {"#0000ff", 32.30}, {"", 100}, {"mauve", 100}} {
		near(t, "L* of "+x.hex, Lightness(x.hex), x.want, .05)
	}
}

// The stain is judged on the colour the piece ends in, not on a primer's.
func TestStainIsJudgedOnTheFinishedColour(t *testing.T) {
	c := craft.Default()
	white, black := Lightness("#f2f0ea"), 0.
	for _, x := range []struct {
		name, plan string
		colours    []string // of the steps
		want       float64
	}{
		{"the target's", "primer_bond_wb; paint_chalk", []string{"", ""}, white},
		{"a dark primer below", "primer_bond_wb; paint_chalk", []string{"#000000", ""}, white},
		{"the paint's own", "primer_bond_wb; paint_chalk", []string{"", "#000000"}, black},
		{"the last paint's", "paint_chalk; paint_chalk", []string{"#000000", ""}, white},
		{"a spot of another colour", "paint_chalk; paint_chalk spots", []string{"", "#000000"}, white},
		{"a primer alone", "primer_bond_wb", []string{"#000000"}, white},
	} {
		z := zoneOf(t, "birch", x.plan)
		for i, hex := range x.colours {
			z.Steps[i].Colour = hex
		}
		near(t, x.name, z.lightness(c), x.want, 1e-9)
	}
}

func TestStainOverTime(t *testing.T) {
	s := Stain{Bleeder: craft.Tannin, DeltaE: 6}
	near(t, "at once", s.After(0), 0, 0)
	near(t, "after its own time", s.After(20), 6*(1-math.Exp(-1)), 1e-9)
	near(t, "after years", s.After(4000), 6, 1e-6)
}

// The whole risk of a zone by hand: three different bonds, one of which is
// made twice.
func TestTogetherByHand(t *testing.T) {
	c := craft.Default()
	z := zoneOf(t, "birch varnish_oil matt; site 23 50", "sand 220; dust; paint_acrylic x3; clear_wb x2")
	r := Check(c, z, Options{})
	if n := len(r.Adhesion.Boundary); n != 4 {
		t.Fatalf("%d bonds, want acrylic on varnish, acrylic on itself, clear on acrylic, clear on itself", n)
	}
	phi := func(strength, grip float64) float64 {
		sd := math.Sqrt(.10*.10 + (1-grip)*(1-grip)/9)
		return .5 * math.Erfc(-math.Log(.5/strength)/sd/math.Sqrt2)
	}
	want := 1 - (1-phi(.65, .65))*(1-phi(.95, .95))*(1-phi(.90, .90))*(1-phi(.95, .95))
	near(t, "risk", r.Adhesion.Risk, want, 1e-12)
	if w := r.Adhesion.Weakest; w.Step != 3 || w.CoatNo != 1 || w.On != craft.VarnishFilm {
		t.Errorf("the weakest is step %d on %v", w.Step, w.On)
	}
}

func TestStainVerdictUsesTheFinishedColour(t *testing.T) {
	c := craft.Default()
	for _, x := range []struct {
		colour string
		want   float64
	}{{"#ffffff", 7 * 1.2 * .82}, {"#777777", 7 * 1.2 * .82 * (50.034 - 30) / 60}, {"#000000", 7 * 1.2 * .82 * .1}} {
		r := Check(c, zoneOf(t, "oak; colour "+x.colour, "paint_chalk"), Options{})
		near(t, "stain under "+x.colour, r.Stains[0].DeltaE, x.want, .01)
	}
	// Salts bloom white: a dark colour hides nothing of them.
	r := Check(c, zoneOf(t, "terracotta; colour #000000", "paint_masonry"), Options{})
	near(t, "salts under black", r.Stains[0].DeltaE, 2*.88, .01)
	// A coat's own colour goes before the target's.
	z := zoneOf(t, "oak; colour #000000", "paint_chalk")
	z.Steps[0].Colour = "#ffffff"
	r = Check(c, z, Options{})
	near(t, "stain under the coat's white", r.Stains[0].DeltaE, 7*1.2*.82, .01)
}

func TestNothingShowsThroughWhatHidesNothing(t *testing.T) {
	r := Check(craft.Default(), zoneOf(t, "oak", "sand 180; dust; oil_penetrating x2"), Options{})
	if len(r.Stains) != 0 || r.Verdict != Sound {
		t.Errorf("oiled oak is said to bleed: %v %v", r.Stains, codes(&r, Watch))
	}
}

func TestFiguresMultiplyToTheStrength(t *testing.T) {
	c := craft.Default()
	r := Check(c, zoneOf(t, "laminate_hpl satin; soils grime1; site 8 50", "paint_chalk wait1; paint_chalk"), Options{})
	for i := range r.Adhesion.Boundary {
		b := &r.Adhesion.Boundary[i]
		product, strength := 1., 0.
		for _, f := range r.Adhesion.Explain(c, &b.Boundary) {
			switch f.ID {
			case "strength":
				strength = f.Value
			case "demand", "known":
			default:
				product *= f.Value
			}
			if f.Words == "" {
				t.Errorf("%s has no words", f.ID)
			}
		}
		near(t, "product of the factors", product, strength, 1e-9)
	}
}

func TestEveryTimingHasWords(t *testing.T) {
	c := craft.Default()
	for _, x := range []struct{ plan, words string }{
		{"paint_acrylic", "nothing below it is still drying"},
		{"paint_acrylic wait5; paint_chalk", "within the recoat window"},
		{"paint_acrylic wait1; paint_chalk", "needs"},
		{"primer_bond_wb wait500; paint_chalk", "closes at"},
		{"primer_bond_wb wait500; sand 240; dust; paint_chalk", "that was scuffed"},
		{"paint_aerosol wait5; paint_aerosol", "between the two recoat windows"},
	} {
		r := Check(c, zoneOf(t, "birch", x.plan), Options{})
		var all string
		for i := range r.Adhesion.Boundary {
			for _, f := range r.Adhesion.Explain(c, &r.Adhesion.Boundary[i].Boundary) {
				all += f.Words + "\n"
			}
		}
		if !strings.Contains(all, x.words) {
			t.Errorf("%s: no %q in\n%s", x.plan, x.words, all)
		}
	}
}

func TestWords(t *testing.T) {
	for got, want := range map[string]string{
		Percent(.001): "below 2 %", Percent(.02): "2 %", Percent(.354): "35 %", Percent(.99): "over 98 %",
		measure.Hours(.5): "30 min", measure.Hours(1): "1 h", measure.Hours(2.66): "2.7 h", measure.Hours(47): "47 h", measure.Hours(168): "7 days",
		measure.Hours(math.Inf(1)): "any time", craft.Lower("MDF"): "MDF", craft.Lower("Oak"): "oak", craft.Upper("oak"): "Oak",
		craft.List([]string{"a"}): "a", craft.List([]string{"a", "b", "c"}): "a, b and c", craft.List(nil): "",
	} {
		if got != want {
			t.Errorf("%q, want %q", got, want)
		}
	}
}

func TestPractical(t *testing.T) {
	for _, x := range []struct{ h, want float64 }{{.1, .25}, {.75, .75}, {.8, 1}, {2.1, 2.5}, {6, 6}, {6.2, 7}, {24, 24}, {0, 0}} {
		near(t, "a practical wait", practical(x.h), x.want, 1e-12)
	}
}

func TestStepWords(t *testing.T) {
	c := craft.Default()
	for plan, want := range map[string]string{
		"degreaser_alkaline rinse x2": "Alkaline degreaser, 2 passes, rinsed",
		"sand 320 wet":                "Sand with 320, wet",
		"sand 120 through":            "Sand with 120, through to the bare material",
		"pad":                         "Scuff with a fine pad",
		"shellac_pigmented knots":     "Pigmented shellac, on the knots",
		"paint_chalk x3 spots":        "3 coats of chalk paint, on the spots",
		"wait 24":                     "Wait 24 h",
		"raise_grain":                 "Raise the grain",
	} {
		s := stepsOf(t, plan)
		if got := StepWords(c, &s[0]); got != want {
			t.Errorf("%s: %q, want %q", plan, got, want)
		}
	}
}

func TestUnsealedFieldOnly(t *testing.T) {
	// A spot coat of matt paint on a sealed field leaves the field sealed.
	z := zoneOf(t, "birch", "paint_acrylic; paint_chalk spots")
	r := Check(craft.Default(), z, Options{})
	if got := r.Trace.End.Regions[surface.Field].Top; got != craft.AcrylicPaint {
		t.Errorf("the field is %v", got)
	}
	for _, f := range r.Findings {
		if f.Code == "use.unsealed" {
			t.Error("the field is said to be unsealed")
		}
	}
}

func TestFiguresAsTheyAreRead(t *testing.T) {
	for _, x := range []struct {
		f    Figure
		u    measure.Units
		want string
	}{
		{Figure{ID: "risk", Value: .347}, measure.Metric, "35 %"}, {Figure{ID: "p50", Value: .54}, measure.Metric, "54 %"}, {Figure{ID: "known"}, measure.Metric, "–"}, {Figure{ID: "known", Value: .9}, measure.Metric, "90 %"},
		{Figure{ID: "strength", Value: .5}, measure.Metric, "0.50"}, {Figure{ID: "coats", Value: 2}, measure.Metric, "2"}, {Figure{ID: "gap_mm", Value: .25}, measure.Metric, "0.25 mm"},
		{Figure{ID: "delta_e", Value: 9.348}, measure.Metric, "9.3"}, {Figure{ID: "day_14", Value: .04}, measure.Metric, "0"}, {Figure{ID: "grit", Value: 180}, measure.Metric, "180"}, {Figure{ID: "air", Value: 64.26}, measure.Metric, "64.3"},
		{Figure{ID: "gap_mm", Value: .5}, measure.US, "0.02 in"}, {Figure{ID: "film_um", Value: 127}, measure.US, "5 mil"}, {Figure{ID: "film_um", Value: 127}, measure.Metric, "127 µm"},
		{Figure{ID: "needed_c", Value: 3}, measure.US, "5.4 °F"}, {Figure{ID: "margin_c", Value: -1.26}, measure.Metric, "-1.3 °C"}, {Figure{ID: "waited_h", Value: .25}, measure.US, "15 min"},
	} {
		if got := x.f.Shown(x.u); got != x.want {
			t.Errorf("%s %v is shown as %q, want %q", x.f.ID, x.f.Value, got, x.want)
		}
	}
}

// Wax laid in spots on purpose is no fault under a flaking look, and helps it.
func TestADeliberateResist(t *testing.T) {
	c := craft.Default()
	plan := "sand 220; dust; wax_clear spots; paint_milk x2; effect chippy; dust; wait 48; wax_clear"
	with := Check(c, zoneOf(t, "beech varnish_oil satin; look chippy; colour #dfe3d6", plan), Options{})
	without := Check(c, zoneOf(t, "beech varnish_oil satin; look chippy; colour #dfe3d6", strings.Replace(plan, "wax_clear spots; ", "", 1)), Options{})
	if with.Verdict != Sound || !with.Chips.Resist || with.Chips.P50 <= without.Chips.P50 {
		t.Errorf("%v %v, chips %v and %v without", with.Verdict, codes(&with, Watch), with.Chips.P50, without.Chips.P50)
	}
	solid := Check(c, zoneOf(t, "beech varnish_oil satin; colour #dfe3d6", strings.Replace(plan, "effect chippy; dust; ", "", 1)), Options{})
	if !slices.Contains(codes(&solid, Fail), "adhesion.wax_under") {
		t.Errorf("under a solid look: %v", codes(&solid, Note))
	}
	// Shellac keeps paint off while it is tacky, and seals once it is dry.
	tacky := Check(c, zoneOf(t, "beech varnish_oil satin; look chippy; colour #dfe3d6", "shellac_clear spots wait.2; paint_milk x2; wax_clear"), Options{})
	dry := Check(c, zoneOf(t, "beech varnish_oil satin; look chippy; colour #dfe3d6", "shellac_clear spots wait12; paint_milk x2; wax_clear"), Options{})
	if !tacky.Chips.Resist || dry.Chips.Resist {
		t.Errorf("tacky %v, dry %v", tacky.Chips.Resist, dry.Chips.Resist)
	}
}

// The story of the coats, by hand: a dark coat is hidden by a pale one as far as
// that hides, and what is stripped is forgotten.
func TestAppearanceOfTheCoats(t *testing.T) {
	c := craft.Default()
	story := func(zone, plan string) Appearance {
		r := Check(c, zoneOf(t, zone, plan), Options{NoRepairs: true})
		return r.Appearance
	}
	s := story("birch; colour #f2f0ea", "paint_acrylic col#332222; paint_acrylic x2")
	if s.Planned != 2 || len(s.Paints) != 3 || s.Off <= 0 || s.Needed < 2 {
		t.Errorf("%+v", s)
	}
	if one := story("birch; colour #f2f0ea", "paint_acrylic col#332222; paint_acrylic"); one.Off <= s.Off || one.Planned != 1 {
		t.Errorf("one coat leaves %v, two %v", one.Off, s.Off)
	}
	if sprayed := story("birch; colour #f2f0ea", "paint_acrylic col#332222; paint_acrylic x2 spray"); sprayed.Off >= s.Off {
		t.Errorf("sprayed %v, brushed %v", sprayed.Off, s.Off)
	}
	if thin := story("birch; colour #f2f0ea", "paint_acrylic col#332222; paint_acrylic x2 thin60"); thin.Off <= s.Off {
		t.Errorf("thinned %v, as it comes %v", thin.Off, s.Off)
	}
	if gone := story("birch; colour #f2f0ea", "paint_acrylic x2; strip scrape; dust; wax_clear"); gone.Planned != 0 || len(gone.Paints) != 0 {
		t.Errorf("after stripping: %+v", gone)
	}
	if waxed := story("birch; colour #f2f0ea", "paint_acrylic x2; wax_clear; white_spirit; detergent rinse; clear_wb"); waxed.Planned != 2 {
		t.Errorf("wax taken off again takes the paint along: %+v", waxed)
	}
	if veil := story("oak; look limed; colour #f2f0ea", "paint_chalk thin100; wax_white"); veil.Planned != 0 {
		t.Error("a veil is held against its colour")
	}
	// One coat of oil-based clear ambers white by its figure, a second by a third of it.
	white := "mdf; colour #ffffff"
	near(t, "one coat", story(white, "paint_acrylic x2; clear_oil").Yellows, 8, .05)
	near(t, "two coats", story(white, "paint_acrylic x2; clear_oil x2").Yellows, 8*1.35, .05)
	if story("mdf; colour #101010", "paint_acrylic x2; clear_oil").Yellows > 1 {
		t.Error("black yellows")
	}
}

// A zone may be used later when it is colder, and harder use waits longer.
func TestCured(t *testing.T) {
	c := craft.Default()
	at := func(site string) Cured {
		r := Check(c, zoneOf(t, "birch; site "+site, "paint_acrylic x2; clear_wb x2"), Options{NoRepairs: true})
		return r.Cured
	}
	warm, cold := at("23 50"), at("11 50")
	if !(warm.Careful < warm.Normal && warm.Normal < warm.Hard) || cold.Hard < 1.8*warm.Hard {
		t.Errorf("warm %+v, cold %+v", warm, cold)
	}
	if got := (Cured{.2, 1, 6.1}).Says(); !strings.Contains(got, "careful handling at once, everyday use after 1 day, hard use, heat and water after 7 days") {
		t.Error(got)
	}
	// Acrylic below cures in 28 days: nine tenths of it after -ln(.1)/3 of that.
	near(t, "hard use", warm.Hard, 28*math.Log(10)/3, .3)
}

func TestCracksOverAnOpenMedium(t *testing.T) {
	c := craft.Default()
	width := func(wait string) float64 {
		r := Check(c, zoneOf(t, "birch; look crackle", "paint_acrylic x2 col#332222; crackle_medium wait"+wait+"; paint_chalk; wax_clear"), Options{NoRepairs: true})
		return r.CrackMM
	}
	near(t, "within the recoat window", width("2"), .8*1000/11/100, 1e-9)
	near(t, "long after", width("20"), 0, 0)
	for u, wide := range map[measure.Units]string{measure.Metric: "0.8 mm for 100 µm", measure.US: "0.03 in for 3.9 mil"} {
		if got := CrackSays(u); !strings.Contains(got, wide) {
			t.Errorf("it says %q, want it to name %q", got, wide)
		}
	}
}
