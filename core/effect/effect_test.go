package effect

import (
	"math"
	"testing"
)

func TestChipsAsPaintersKnowThem(t *testing.T) {
	for _, x := range []struct {
		name     string
		c        Chipping
		low, hi  float64 // of the usual case
		p10, p90 float64 // about; 0 where nobody says
	}{
		{"raw wood", Chipping{Strength: .95, Coats: 2}, 0, .01, 0, 0},
		{"scuffed old varnish, three coats", Chipping{Strength: .35, Coats: 3}, .31, .36, .10, .67},
		{"scuffed old varnish, two coats", Chipping{Strength: .35, Coats: 2}, .10, .40, 0, 0},
		{"unscuffed old gloss", Chipping{Strength: .19, Coats: 2}, .5, .8, 0, 0},
		{"dry shellac on varnish", Chipping{Strength: .5, Coats: 2}, .12, .16, 0, .33},
		{"the whole face over tacky shellac, warmed and wetted", Chipping{Strength: .32, Coats: 2, Heated: true, Wetted: true, Resist: true}, .75, .95, 0, 0},
		{"the same, dry and cool", Chipping{Strength: .32, Coats: 2, Resist: true}, .4, .6, 0, 0},
		{"wax in patches", Chipping{Strength: .5, Coats: 2, Resist: true}, .15, .30, 0, 0},
	} {
		s := x.c.Share()
		if s.P50 < x.low || s.P50 > x.hi || s.P10 >= s.P50 || s.P50 >= s.P90 {
			t.Errorf("%s: %+v, want the usual between %v and %v", x.name, s, x.low, x.hi)
		}
		if x.p10 > 0 && math.Abs(s.P10-x.p10) > .03 || x.p90 > 0 && math.Abs(s.P90-x.p90) > .03 {
			t.Errorf("%s: %+v, want from %v to %v", x.name, s, x.p10, x.p90)
		}
	}
}

func TestChipsByHand(t *testing.T) {
	// 1.4 - 6.75 x .4 + .2 + .7 = -.4, and the spread 1.36 - .74 x .4 = 1.064
	s := Chipping{Strength: .4, Coats: 3, Heated: true}.Share()
	for _, x := range []struct{ got, logit float64 }{{s.P50, -.4}, {s.P10, -.4 - 1.064*1.28155}, {s.P90, -.4 + 1.064*1.28155}} {
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
