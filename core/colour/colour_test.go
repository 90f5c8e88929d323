package colour

import (
	"math"
	"math/rand/v2"
	"testing"
)

// The test pairs that Sharma, Wu and Dalal published with their notes on the
// formula (2005); written down from memory, and each is verified by the formula
// to all four decimals.
func TestDifferenceAgainstPublishedPairs(t *testing.T) {
	for _, x := range []struct {
		p, q [3]float64
		want float64
	}{
		{[3]float64{50, 2.6772, -79.7751}, [3]float64{50, 0, -82.7485}, 2.0425},
		{[3]float64{50, 3.1571, -77.2803}, [3]float64{50, 0, -82.7485}, 2.8615},
		{[3]float64{50, 2.8361, -74.0200}, [3]float64{50, 0, -82.7485}, 3.4412},
		{[3]float64{50, -1.3802, -84.2814}, [3]float64{50, 0, -82.7485}, 1.0000},
		{[3]float64{50, -1.1848, -84.8006}, [3]float64{50, 0, -82.7485}, 1.0000},
		{[3]float64{50, -0.9009, -85.5211}, [3]float64{50, 0, -82.7485}, 1.0000},
		{[3]float64{50, 0, 0}, [3]float64{50, -1, 2}, 2.3669},
		{[3]float64{50, -1, 2}, [3]float64{50, 0, 0}, 2.3669},
		{[3]float64{50, 2.4900, -0.0010}, [3]float64{50, -2.4900, 0.0009}, 7.1792},
		{[3]float64{50, 2.4900, -0.0010}, [3]float64{50, -2.4900, 0.0010}, 7.1792},
		{[3]float64{50, 2.4900, -0.0010}, [3]float64{50, -2.4900, 0.0011}, 7.2195},
		{[3]float64{50, 2.4900, -0.0010}, [3]float64{50, -2.4900, 0.0012}, 7.2195},
		{[3]float64{50, -0.0010, 2.4900}, [3]float64{50, 0.0009, -2.4900}, 4.8045},
		{[3]float64{50, -0.0010, 2.4900}, [3]float64{50, 0.0010, -2.4900}, 4.8045},
		{[3]float64{50, -0.0010, 2.4900}, [3]float64{50, 0.0011, -2.4900}, 4.7461},
		{[3]float64{50, 2.5, 0}, [3]float64{50, 0, -2.5}, 4.3065},
		{[3]float64{50, 2.5, 0}, [3]float64{73, 25, -18}, 27.1492},
		{[3]float64{50, 2.5, 0}, [3]float64{61, -5, 29}, 22.8977},
		{[3]float64{50, 2.5, 0}, [3]float64{56, -27, -3}, 31.9030},
		{[3]float64{50, 2.5, 0}, [3]float64{58, 24, 15}, 19.4535},
		{[3]float64{50, 2.5, 0}, [3]float64{50, 3.1736, 0.5854}, 1.0000},
		{[3]float64{50, 2.5, 0}, [3]float64{50, 3.2972, 0}, 1.0000},
		{[3]float64{50, 2.5, 0}, [3]float64{50, 1.8634, 0.5757}, 1.0000},
		{[3]float64{50, 2.5, 0}, [3]float64{50, 3.2592, 0.3350}, 1.0000},
		{[3]float64{60.2574, -34.0099, 36.2677}, [3]float64{60.4626, -34.1751, 39.4387}, 1.2644},
		{[3]float64{63.0109, -31.0961, -5.8663}, [3]float64{62.8187, -29.7946, -4.0864}, 1.2630},
		{[3]float64{61.2901, 3.7196, -5.3901}, [3]float64{61.4292, 2.2480, -4.9620}, 1.8731},
		{[3]float64{35.0831, -44.1164, 3.7933}, [3]float64{35.0232, -40.0716, 1.5901}, 1.8645},
		{[3]float64{22.7233, 20.0904, -46.6940}, [3]float64{23.0331, 14.9730, -42.5619}, 2.0373},
		{[3]float64{36.4612, 47.8580, 18.3852}, [3]float64{36.2715, 50.5065, 21.2231}, 1.4146},
		{[3]float64{90.8027, -2.0831, 1.4410}, [3]float64{91.1528, -1.6435, 0.0447}, 1.4441},
		{[3]float64{90.9257, -0.5406, -0.9208}, [3]float64{88.6381, -0.8985, -0.7239}, 1.5381},
		{[3]float64{6.7747, -0.2908, -2.4247}, [3]float64{5.8714, -0.0985, -2.2286}, 0.6377},
		{[3]float64{2.0776, 0.0795, -1.1350}, [3]float64{0.9033, -0.0636, -0.5514}, 0.9082},
	} {
		if got := DifferenceLab(x.p, x.q); math.Abs(got-x.want) > 5e-5 {
			t.Errorf("%v to %v is %.4f, want %.4f", x.p, x.q, got, x.want)
		}
		if a, b := DifferenceLab(x.p, x.q), DifferenceLab(x.q, x.p); math.Abs(a-b) > 1e-9 {
			t.Errorf("%v to %v is %v there and %v back", x.p, x.q, a, b)
		}
	}
}

func at(t *testing.T, hex string) RGB {
	t.Helper()
	c, ok := Parse(hex)
	if !ok {
		t.Fatal(hex)
	}
	return c
}

func TestParse(t *testing.T) {
	for _, hex := range []string{"#000000", "#ffffff", "#7d8F86"} {
		if c := at(t, hex); len(c.Hex()) != 7 || Difference(c, at(t, c.Hex())) > 1e-6 {
			t.Errorf("%s comes back as %s", hex, c.Hex())
		}
	}
	for _, bad := range []string{"", "#fff", "ffffff", "#gggggg", "#1234567", "#12 456"} {
		if _, ok := Parse(bad); ok {
			t.Errorf("%q was read", bad)
		}
	}
	// L* of a middle grey as published in many places.
	if l := at(t, "#777777").Light(); math.Abs(l-50.03) > .05 {
		t.Errorf("L* of #777777 is %v", l)
	}
}

// A thick coat has its masstone, a coat of nothing shows the ground, and the
// power that was solved gives the contrast ratio it was solved for.
func TestKubelkaMunk(t *testing.T) {
	r := rand.New(rand.NewPCG(2, 3))
	for range 2000 {
		g, m := RGB{r.Float64(), r.Float64(), r.Float64()}, Masstone(RGB{r.Float64(), r.Float64(), r.Float64()})
		if d := Difference(Over(g, m, 500), m); d > .1 {
			t.Fatalf("five hundred powers of %v over %v are %.2f off", m, g, d)
		}
		if d := Difference(Over(g, m, 1e-6), g); d > .1 {
			t.Fatalf("nothing over %v is %.2f off", g, d)
		}
		// Two coats are one of twice the power.
		p := .1 + 4*r.Float64()
		if d := Difference(Over(Over(g, m, p), m, p), Over(g, m, 2*p)); d > 1e-6 {
			t.Fatalf("two coats of %v over %v differ by %v from a double one", m, g, d)
		}
		cr := .3 + .65*r.Float64()
		p = Power(m, cr)
		got := Over(RGB{}, m, p).Y() / Over(RGB{white, white, white}, m, p).Y()
		if math.Abs(got-cr) > 1e-6 && p < 59 && p > .0011 {
			t.Fatalf("a power of %v for %v gives %v, want %v", p, m, got, cr)
		}
	}
}

// What painters count on: raw pine, dark varnish, white primer below.
func TestCoatsNeeded(t *testing.T) {
	grounds := []string{"#e0bd85", "#5a3a22", "#f4f3ee"}
	for _, x := range []struct {
		name, hex string
		cr        float64
		least     [3]int
		most      [3]int
	}{
		{"white matt paint", "#f6f5f0", .93, [3]int{2, 3, 1}, [3]int{2, 3, 2}}, // over a primer of its own colour one does

		{"pale pink", "#ecd2cd", .93, [3]int{2, 3, 2}, [3]int{2, 3, 2}},
		{"yellow", "#f0c020", .93, [3]int{3, 5, 2}, [3]int{3, 5, 2}},
		{"red", "#cc2a22", .93, [3]int{2, 3, 3}, [3]int{3, 3, 3}},
		{"navy", "#1d2a4a", .93, [3]int{2, 2, 2}, [3]int{2, 2, 2}},
		{"white powder paint", "#f6f5f0", .86, [3]int{3, 4, 1}, [3]int{3, 4, 2}},
	} {
		c := at(t, x.hex)
		p := Power(c, Contrast(c, x.cr)) * ThinSpots
		for i, g := range grounds {
			n, off := Needed(at(t, g), c, p, 1.5, 12)
			if n < x.least[i] || n > x.most[i] {
				t.Errorf("%s over %s takes %d coats (%.2f off), want %d to %d", x.name, g, n, off, x.least[i], x.most[i])
			}
		}
	}
}

func TestNeededStopsAndNeverBelowTwo(t *testing.T) {
	w := at(t, "#f6f5f0")
	if n, _ := Needed(at(t, "#000000"), w, .01, 1.5, 12); n != 12 {
		t.Errorf("a wash hides in %d coats", n)
	}
	if n, _ := Needed(at(t, "#808080"), w, 60, 1.5, 12); n != 2 {
		t.Errorf("%d coats over another colour", n)
	}
	if n, _ := Needed(w, w, 5, 1.5, 12); n != 1 {
		t.Errorf("%d coats over its own colour", n)
	}
}

func TestSealed(t *testing.T) {
	c := at(t, "#7d8f86")
	flat, shiny := Sealed(c, 0), Sealed(c, 1)
	if flat.Light() >= c.Light() || shiny.Light() >= flat.Light() {
		t.Errorf("L* %v, sealed flat %v, shiny %v", c.Light(), flat.Light(), shiny.Light())
	}
}

func TestToward(t *testing.T) {
	w, brown := at(t, "#f2f0ea"), at(t, "#a6793f")
	for _, de := range []float64{.5, 3, 9} {
		if d := Difference(w, Toward(w, brown, de)); math.Abs(d-de) > .01 {
			t.Errorf("%v off, want %v", d, de)
		}
	}
	if Toward(w, brown, 500) != brown {
		t.Error("it goes past the other")
	}
}

func BenchmarkPower(b *testing.B) {
	c, _ := Parse("#e4e8df")
	for b.Loop() {
		Power(c, .93)
	}
}

func BenchmarkDifference(b *testing.B) {
	p, _ := Parse("#e4e8df")
	q, _ := Parse("#7d8f86")
	for b.Loop() {
		Difference(p, q)
	}
}
