package measure

import (
	"errors"
	"math"
	"math/rand/v2"
	"strings"
	"testing"
)

var (
	byML     = Measures{By: Millilitres}
	byGrams  = Measures{By: Grams}
	bySpoons = Measures{By: Spoons}
	byCups   = Measures{By: Cups, CupML: MetricCup}
	byUSCups = Measures{By: Cups, Units: US, CupML: USCup}
	byOunces = Measures{By: FluidOunces, Units: US}
	byQuarts = Measures{By: Quarts, Units: US}
	anyOf    = []Measures{byML, byGrams, bySpoons, byCups, byUSCups, byOunces, byQuarts, {By: Cups, CupML: 180}}
)

// Worked with a calculator and the sizes of the vessels.
func TestAmountsAsTheyAreMeasured(t *testing.T) {
	for _, x := range []struct {
		m      Measures
		litres float64
		says   string
		is     float64
	}{
		{byML, .0838, "85 ml", .085}, {byML, .017, "17 ml", .017}, {byML, .301, "310 ml", .31}, {byML, 1.21, "1.25 l", 1.25},
		{byGrams, .1, "70 g", .1}, {byGrams, .0838, "59 g", 59 / .7 / 1000}, {byGrams, .002, "1.4 g", .002},
		{bySpoons, .03226, "2 tbsp and ½ tsp", .0325}, {bySpoons, .015, "1 tbsp", .015}, {bySpoons, .5, "500 ml", .5},
		{byCups, .0625, "¼ cup", .0625}, {byCups, .0833, "⅓ cup", .25 / 3}, {byCups, .301, "1¼ cups", .3125}, {byCups, .25, "1 cup", .25},
		{byUSCups, .35, "1½ cups", 1.5 * USCup / 1000}, {byOunces, .2, "7 fl oz", 7 * litresPerFlOz},
		{byQuarts, 1.9, "2 quarts and 1 fl oz", 2*litresPerQuart + litresPerFlOz}, {byCups, 0, "none", 0},
	} {
		got := x.m.Up(x.litres, .7)
		if got.Says != x.says || math.Abs(got.Litres-x.is) > 1e-9 {
			t.Errorf("%v l in %s is %q, %v l; want %q, %v l", x.litres, Vessels[x.m.By].ID, got.Says, got.Litres, x.says, x.is)
		}
	}
}

// Whatever is needed, what is measured is never less and hardly more, and is read back as the same.
func TestMeasuresAreEnoughAndComeBack(t *testing.T) {
	r := rand.New(rand.NewPCG(3, 5))
	for _, m := range anyOf {
		for range 3000 {
			l := math.Exp(r.Float64()*math.Log(20000)) / 1000 // 1 ml to 20 l
			got := m.Up(l, .7+r.Float64())
			if got.Litres < l*(1-1e-6) {
				t.Fatalf("%v l in %s is %q, only %v l", l, Vessels[m.By].ID, got.Says, got.Litres)
			}
			if most := max(1.1*l, l+.0013); got.Litres > most && l > .003 {
				t.Fatalf("%v l in %s is %q, as much as %v l", l, Vessels[m.By].ID, got.Says, got.Litres)
			}
			if got.Grams > 0 {
				continue // a weight is no volume
			}
			back, err := m.Read(got.Says)
			if err != nil || math.Abs(back-got.Litres) > 1e-6*got.Litres+1e-9 {
				t.Fatalf("%q in %s is read as %v, %v; it is %v l", got.Says, Vessels[m.By].ID, back, err, got.Litres)
			}
		}
	}
}

func TestAmountsAreRead(t *testing.T) {
	for _, x := range []struct {
		m    Measures
		text string
		want float64
	}{
		{byML, "350 ml", .35}, {byML, "350", .35}, {byML, ".5 l", .5}, {byML, "1,5 l", 1.5}, {byML, "a third of a cup", MetricCup / 3000},
		{byCups, "1 1/2 cups", .375}, {byCups, "1½ cups and 2 tbsp", .405}, {byCups, "half a cup", .125}, {byCups, "2 thirds of a cup", .5 / 3},
		{byUSCups, "2 cups", 2 * USCup / 1000}, {byOunces, "12", 12 * litresPerFlOz}, {byOunces, "12 fl. oz", 12 * litresPerFlOz}, {byQuarts, "1 qt + 4 fl oz", litresPerQuart + 4*litresPerFlOz},
		{byML, "one quart", litresPerQuart}, {byML, "3 TBSP", .045},
	} {
		m := x.m
		if m.CupML == 0 {
			m.CupML = MetricCup
		}
		if got, err := m.Read(x.text); err != nil || math.Abs(got-x.want) > 1e-9 {
			t.Errorf("%q is %v, %v; want %v", x.text, got, err, x.want)
		}
	}
}

func TestAmountsAreRefusedInWords(t *testing.T) {
	for _, x := range []struct{ text, says string }{
		{"", "Nothing is typed"}, {"   ", "Nothing is typed"}, {"0 ml", "more than nothing"}, {"-3 ml", "cannot be negative"}, {"40 l", "more than anybody mixes by hand"},
		{"a lot", "cannot be read in an amount"}, {"3 4 ml", "Two numbers"}, {"1 l 3", "unit is missing at the end"}, {"ml", "number is missing before"},
		{"2 cups", "not known what your cup holds"}, {"300 g", "is a weight"}, {"🪣", "cannot be read"}, {strings.Repeat("1", 900), "too long"},
	} {
		_, err := byML.Read(x.text)
		var e *Error
		if !errors.As(err, &e) || !strings.Contains(e.Says, x.says) {
			t.Errorf("%q gives %v; want words with %q", x.text, err, x.says)
		}
	}
	for cup, ok := range map[float64]bool{0: false, 5: false, 200: true, 250: true, 4000: false, math.NaN(): false} {
		if err := (Measures{By: Cups, CupML: cup}).Check(); (err == nil) != ok {
			t.Errorf("a cup of %v ml: %v", cup, err)
		}
	}
}

func TestSpansAreRead(t *testing.T) {
	for text, want := range map[string]float64{
		"20": 1200, "20 min": 1200, "1 h 30": 5400, "1:30": 5400, "half an hour": 1800, "a quarter of an hour": 900, "90 s": 90, "2 days": 172800,
		"1 h and 15 min": 4500, "2 min 30": 150, "1 year": 365 * 86400, "1.5 h": 5400,
	} {
		if got, err := Span(text); err != nil || got != want {
			t.Errorf("%q is %v, %v; want %v s", text, got, err, want)
		}
	}
	for text, says := range map[string]string{
		"": "Nothing is typed", "soon": "cannot be read in a time", "-5 min": "cannot be read as a time", "0": "more than nothing", "1:75": "is not a time", "::": "is not a time",
		"min": "number is missing", "3 4": "Two numbers", "2 days 3": "unit is missing",
	} {
		if _, err := Span(text); err == nil || !strings.Contains(err.Error(), says) {
			t.Errorf("%q gives %v; want words with %q", text, err, says)
		}
	}
}

func FuzzAmount(f *testing.F) {
	for _, s := range []string{"1 1/2 cups and 2 tbsp", "350 ml", "½", "12 fl oz", "1/0 l", "- l", "9e9 l"} {
		f.Add(s, true)
	}
	f.Fuzz(func(t *testing.T, s string, us bool) {
		m := byCups
		if us {
			m = byUSCups
		}
		if v, err := m.Read(s); err == nil && !(v > 0 && v <= MaxMix) || err != nil && err.Error() == "" {
			t.Errorf("%q is %v, %v", s, v, err)
		}
		if v, err := Span(s); err == nil && !(v > 0) || err != nil && err.Error() == "" {
			t.Errorf("%q is %v s, %v", s, v, err)
		}
	})
}

func TestWithinRoundsDown(t *testing.T) {
	for h, want := range map[float64]string{.12: "7 min", .999: "59 min", 4.92: "4.5 h", 9.6: "9.5 h", 11.3: "11 h", 49: "2 days", 71: "2 days", math.Inf(1): "any time"} {
		if got := Within(h); got != want {
			t.Errorf("within %v h is %q, not %q", h, got, want)
		}
	}
}
