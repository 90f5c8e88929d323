package measure

import (
	"errors"
	"math"
	"strings"
	"testing"
)

func TestArea(t *testing.T) {
	for _, c := range []struct {
		text string
		u    Units
		want float64 // worked by hand
	}{
		{"0.6", Metric, .6},
		{"0,6", Metric, .6},
		{" .5 ", Metric, .5},
		{"120 x 45 cm", Metric, .54},
		{"120x45", Metric, .54},
		{"1.2m x 45cm", Metric, .54},
		{"120 × 45", Metric, .54},
		{"1200*450mm", Metric, .54},
		{"120 by 45 cm", Metric, .54},
		{"3 x 80 x 18", Metric, .432},
		{"2 x 40 x 45 cm + 120 x 45 cm", Metric, .9},
		{"3 x 0.4 m²", Metric, 1.2},
		{"5400 cm2", Metric, .54},
		{"0.54 m2", Metric, .54},
		{"0.54 sq m", Metric, .54},
		{"6 sq ft", Metric, 6 * .09290304},
		{"6", US, 6 * .09290304},
		{"48 x 18", US, 48 * 18 * 2.54 * 2.54 / 1e4},
		{`4' x 18"`, Metric, 48 * 18 * 2.54 * 2.54 / 1e4},
		{`4'2" x 17 1/2 in`, US, 50 * 17.5 * 2.54 * 2.54 / 1e4},
		{"4 ft 2 in x 17½ in.", US, 50 * 17.5 * 2.54 * 2.54 / 1e4},
		{"4ft-2in x 17.5in", US, 50 * 17.5 * 2.54 * 2.54 / 1e4},
		{"4’2” x 17½”", US, 50 * 17.5 * 2.54 * 2.54 / 1e4},
		{"4 feet by 3 feet", Metric, 12 * .09290304},
		{"2 x 3/4 ft x 4 ft", US, 6 * .09290304},
		{"120 cm x 18 in", Metric, 120 * 45.72 / 1e4},
	} {
		got, err := Area(c.text, c.u)
		if err != nil || math.Abs(got-c.want) > 1e-9 {
			t.Errorf("%q in %s units is %v, %v; by hand %v", c.text, c.u, got, err, c.want)
		}
	}
}

func TestAreaRefusesInWords(t *testing.T) {
	for _, c := range []struct{ text, says string }{
		{"", "Nothing is typed"},
		{"a lot", "“a lot” cannot be read in a size"},
		{"120 cm", "is a length; an area has two sides"},
		{"120 x", "is missing its last side"},
		{"x 45", "A side is missing"},
		{"120 x x 45", "A side is missing"},
		{"120 45", "is an x missing between them"},
		{"-3", "cannot be negative"},
		{"120 x -45", "cannot be negative"},
		{"0", "more than zero"},
		{"0 x 45", "is zero"},
		{"1 x 2 x 3 x 4", "too many sides"},
		{"1.5 x 2 x 3", "the first is a count"},
		{"2 m² x 3 cm", "multiplies an area by a length"},
		{"cm x 3", "A number is missing before a unit"},
		{"2 in 4 ft x 3", "do not match"},
		{"1.2.3 x 4", "two decimal points in one number"},
		{"60 m x 40 m", "That is 2400 m², larger than a room"},
		{"1 m² +", "missing next to the +"},
		{"🪑 x 3", "cannot be read"},
		{"لوحة", "cannot be read"},
		{"1/0 x 3", "cannot be read"},
		{strings.Repeat("1", 500), "too long"},
		{strings.Repeat("9", 390), "is not a number"},
		{"99999", "larger than a room"},
	} {
		v, err := Area(c.text, Metric)
		var e *Error
		if !errors.As(err, &e) || !strings.Contains(e.Says, c.says) {
			t.Errorf("%q gives %v, %v; want words with %q", c.text, v, err, c.says)
		}
	}
}

// Whatever is typed, there is an area that makes sense or a sentence.
func FuzzArea(f *testing.F) {
	for _, s := range []string{"120 x 45 cm", `4'2" x 17 1/2`, "3x0.4m²", "½", "1,2,3"} {
		f.Add(s, false)
	}
	f.Fuzz(func(t *testing.T, s string, us bool) {
		u := Metric
		if us {
			u = US
		}
		v, err := Area(s, u)
		if err == nil && !(v > 0 && v <= MaxArea) {
			t.Errorf("%q is %v", s, v)
		}
		if err != nil && err.Error() == "" {
			t.Errorf("%q is refused without a word", s)
		}
	})
}

func TestWords(t *testing.T) {
	for _, c := range []struct{ got, want string }{
		{Metric.Temp(17), "17 °C"}, {US.Temp(17), "63 °F"}, {US.Temp(-5), "23 °F"},
		{Metric.Area(.54), "0.54 m²"}, {US.Area(.54), "5.81 sq ft"}, {Metric.Area(12.345), "12.3 m²"}, {Metric.Area(2400), "2400 m²"},
		{Metric.Tool(50, "mm"), "50 mm"}, {US.Tool(50, "mm"), "2 in"}, {US.Tool(25, "mm"), "1 in"}, {US.Tool(20, "cm"), "8 in"}, {US.Tool(3, "m"), "10 ft"}, {US.Tool(60, "cm"), "24 in"}, {Metric.Tools(40, 50, "mm"), "40 to 50 mm"}, {US.Tools(40, 50, "mm"), "1 1/2 to 2 in"}, {US.Tools(15, 20, "cm"), "6 to 8 in"},
		{Metric.Pressure(2.2), "2.2 bar"}, {US.Pressure(2), "29 psi"},
		{Metric.Film(38), "38 µm"}, {US.Film(38), "1.5 mil"}, {Metric.Area(0), "0 m²"},
	} {
		if c.got != c.want {
			t.Errorf("%q, want %q", c.got, c.want)
		}
	}
	for _, id := range []string{"metric", "us"} {
		if u, ok := UnitsNamed(id); !ok || u.String() != id {
			t.Errorf("units %q", id)
		}
	}
	if _, ok := UnitsNamed("imperial"); ok {
		t.Error("there are no imperial units")
	}
}

// FuzzLengths looks for lengths that are taken and are none.
func FuzzLengths(f *testing.F) {
	for _, s := range []string{"80 x 90 x 45 cm", `2' x 3' x 18 1/2"`, "1e9", "NaN", "½", "-3 x 4", "1/0", strings.Repeat("9", 400)} {
		f.Add(s, true)
	}
	f.Fuzz(func(t *testing.T, s string, us bool) {
		u := Metric
		if us {
			u = US
		}
		all, err := Lengths(s, u)
		if err == nil && len(all) == 0 || err != nil && err.Error() == "" {
			t.Errorf("%q: nothing, and not a word why", s)
		}
		for _, x := range all {
			if !(x >= 0) || math.IsInf(x, 1) {
				t.Errorf("%q has a length of %v cm", s, x)
			}
		}
	})
}
