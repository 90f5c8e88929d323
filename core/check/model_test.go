package check

import (
	"math"
	"strings"
	"testing"

	"rutile/core/craft"
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
		sd := math.Sqrt(.12*.12 + (1-grip)*(1-grip)/9)
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
		{"paint_acrylic", "nothing below it is drying"},
		{"paint_acrylic wait5; paint_chalk", "inside the window"},
		{"paint_acrylic wait1; paint_chalk", "needs"},
		{"primer_bond_wb wait500; paint_chalk", "closes at"},
		{"primer_bond_wb wait500; sand 240; dust; paint_chalk", "that was scuffed"},
		{"paint_aerosol wait5; paint_aerosol", "between the two windows"},
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
		Hours(.5): "30 min", Hours(1): "1 h", Hours(2.66): "2.7 h", Hours(47): "47 h", Hours(168): "7 days",
		Hours(math.Inf(1)): "any time", craft.Lower("MDF"): "MDF", craft.Lower("Oak"): "oak", craft.Upper("oak"): "Oak",
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
	if got := r.Trace.End.Patches[surface.Field].Top; got != craft.AcrylicPaint {
		t.Errorf("the field is %v", got)
	}
	for _, f := range r.Findings {
		if f.Code == "use.unsealed" {
			t.Error("the field is said to be unsealed")
		}
	}
}
