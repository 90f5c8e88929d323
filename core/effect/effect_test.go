package effect

import (
	"math"
	"testing"
)

func TestChipsAsPaintersKnowThem(t *testing.T) {
	for _, x := range []struct {
		name   string
		c      Chipping
		lo, hi float64
	}{
		{"raw wood", Chipping{Strength: .95, Coats: 2}, 0, .01},
		{"clean keyed varnish", Chipping{Strength: .35, Coats: 2}, .10, .40},
		{"unscuffed gloss", Chipping{Strength: .19, Coats: 2}, .5, .8},
		{"the same with heat and water", Chipping{Strength: .35, Coats: 2, Heated: true, Wetted: true}, .5, .9},
		{"wax in patches", Chipping{Strength: .5, Coats: 2, Resist: true}, .15, .30},
	} {
		if s := x.c.Share(); s.P50 < x.lo || s.P50 > x.hi || s.P10 >= s.P50 || s.P50 >= s.P90 {
			t.Errorf("%s: %+v, want the usual between %v and %v", x.name, s, x.lo, x.hi)
		}
	}
}

func TestChipsByHand(t *testing.T) {
	// 1.6 - 7.5 x .4 + .35 + .7 = -.35
	s := Chipping{Strength: .4, Coats: 3, Heated: true}.Share()
	for _, x := range []struct{ got, logit float64 }{{s.P50, -.35}, {s.P10, -.35 - .9*1.28155}, {s.P90, -.35 + .9*1.28155}} {
		if want := 1 / (1 + math.Exp(-x.logit)); math.Abs(x.got-want) > 1e-5 {
			t.Errorf("%v, want %v", x.got, want)
		}
	}
	weaker := Chipping{Strength: .3, Coats: 3, Heated: true}.Share()
	if weaker.P50 <= s.P50 {
		t.Error("a weaker bond chips less")
	}
}

func TestCrackWidth(t *testing.T) {
	if w := CrackWidth(150); math.Abs(w-1.2) > 1e-12 || CrackWidth(300) <= w {
		t.Errorf("%v mm", w)
	}
}
