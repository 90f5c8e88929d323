package colour

import (
	"fmt"
	"math"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"
)

// some are made-up paints of all kinds: whites, earths, brights and darks, of several hiding powers.
func some(seed uint64, n int) []Paint {
	r := rand.New(rand.NewPCG(seed, 5))
	out := make([]Paint, n)
	for i := range out {
		c := RGB{r.Float64(), r.Float64(), r.Float64()}
		if i%5 == 0 {
			c = RGB{.85 + .1*r.Float64(), .85 + .1*r.Float64(), .8 + .1*r.Float64()}
		}
		out[i] = PaintOf(c, .7+.25*r.Float64(), 8+6*r.Float64())
	}
	return out
}

// What is true of every blend, whatever the figures: no published mixtures of two pigments are at hand, so only
// properties are tested.
func TestBlendsArePhysical(t *testing.T) {
	paints := some(1, 12)
	for i, p := range paints {
		if m := Mix([]Paint{p}, []float64{3}); far(m.Masstone, p.Masstone) > 1e-9 || math.Abs(m.Scatter-p.Scatter) > 1e-9 {
			t.Errorf("three parts of paint %d alone are %v", i, m)
		}
		for j, q := range paints {
			a, b := Mix([]Paint{p, q}, []float64{2, 5}), Mix([]Paint{q, p}, []float64{5, 2})
			if far(a.Masstone, b.Masstone) > 1e-12 || math.Abs(a.Scatter-b.Scatter) > 1e-12 {
				t.Errorf("%d and %d: the order matters", i, j)
			}
			if d := Mix([]Paint{p, q}, []float64{4, 10}); far(a.Masstone, d.Masstone) > 1e-12 {
				t.Errorf("%d and %d: twice as much is another colour", i, j)
			}
			for band := range a.Masstone {
				lo, hi := min(p.Masstone[band], q.Masstone[band]), max(p.Masstone[band], q.Masstone[band])
				if a.Masstone[band] < lo-1e-9 || a.Masstone[band] > hi+1e-9 {
					t.Errorf("%d and %d: band %d is %v, outside %v to %v", i, j, band, a.Masstone[band], lo, hi)
				}
			}
			// More of the darker one is never paler.
			last := math.Inf(1)
			dark := p
			pale := q
			if p.Masstone.Y() > q.Masstone.Y() {
				dark, pale = q, p
			}
			for n := range 9 {
				m := Mix([]Paint{pale, dark}, []float64{8 - float64(n), float64(n)})
				if all := dominated(dark.Masstone, pale.Masstone); all && m.Masstone.Y() > last+1e-12 {
					t.Errorf("%d and %d: %d parts of the darker make it paler", i, j, n)
				}
				last = m.Masstone.Y()
			}
		}
	}
	if m := Mix(paints, make([]float64, len(paints))); m != (Paint{}) {
		t.Errorf("nothing mixed is %v", m)
	}
	if m := Mix(paints[:2], []float64{-1, math.NaN()}); m != (Paint{}) {
		t.Errorf("negative parts are %v", m)
	}
}

func dominated(a, b RGB) bool { return a[0] <= b[0] && a[1] <= b[1] && a[2] <= b[2] }

func far(a, b RGB) float64 {
	d := 0.
	for i := range a {
		d = max(d, math.Abs(a[i]-b[i]))
	}
	return d
}

// A white with a little black is a grey, and a strong tint weighs more than its parts.
func TestALittleBlackGoesFar(t *testing.T) {
	white, black := PaintOf(mustHex(t, "#f4f1e8"), .92, 11), PaintOf(mustHex(t, "#1a1a1a"), .92, 11)
	if l := Mix([]Paint{white, black}, []float64{7, 1}).Masstone.Light(); l < 45 || l > 65 {
		t.Errorf("seven parts of white and one of black have L* %.0f; a mid grey is expected", l)
	}
}

func mustHex(t testing.TB, s string) RGB {
	t.Helper()
	c, ok := Parse(s)
	if !ok {
		t.Fatal(s)
	}
	return c
}

// Coats over a ground: none leaves it, endless ones reach the paint, and between them it only moves on.
func TestCoatsOverAGround(t *testing.T) {
	r := rand.New(rand.NewPCG(9, 9))
	for range 200 {
		ground, paint := RGB{r.Float64(), r.Float64(), r.Float64()}, Masstone(RGB{r.Float64(), r.Float64(), r.Float64()})
		if got := Over(ground, paint, 1e-9); far(got, ground) > 1e-4 {
			t.Fatalf("no paint over %v is %v", ground, got)
		}
		if got := Over(ground, paint, 1e6); far(got, paint) > 1e-4 {
			t.Fatalf("endless paint of %v is %v", paint, got)
		}
		last := ground
		for p := .05; p < 20; p *= 1.3 {
			got := Over(ground, paint, p)
			for b := range got {
				if math.Abs(got[b]-paint[b]) > math.Abs(last[b]-paint[b])+1e-9 {
					t.Fatalf("more of %v over %v goes back in band %d at %v", paint, ground, b, p)
				}
			}
			last = got
		}
		cr := .02 + .95*r.Float64()
		p := Power(paint, cr)
		is := Over(RGB{}, paint, p).Y() / Over(RGB{white, white, white}, paint, p).Y()
		floor := Over(RGB{}, paint, 1e-3).Y() / Over(RGB{white, white, white}, paint, 1e-3).Y()
		if cr > floor+.002 && math.Abs(is-cr) > .002 {
			t.Fatalf("contrast ratio %.4f comes out as %.4f for %v", cr, is, paint)
		}
	}
	for _, cr := range []float64{0, 1, -1, 2, math.NaN()} {
		if p := Power(mustHex(t, "#e4e8df"), cr); math.IsNaN(p) || math.IsInf(p, 0) || p <= 0 {
			t.Errorf("contrast ratio %v has the power %v", cr, p)
		}
	}
	if p := PaintOf(mustHex(t, "#e4e8df"), .9, 0); math.IsNaN(p.Scatter) || p.Scatter <= 0 {
		t.Errorf("a cover of 0 gives %v", p)
	}
}

// naive tries every mixture, without a bound.
func naive(paints []Paint, want RGB, n int) float64 {
	best := math.Inf(1)
	target := labOf(Masstone(want))
	for i := range paints {
		best = min(best, DifferenceLab(labOf(paints[i].Masstone), target))
		if n < 2 {
			continue
		}
		for j := i + 1; j < len(paints); j++ {
			for a := 1; a < MostParts; a++ {
				for b := 1; a+b <= MostParts; b++ {
					best = min(best, DifferenceLab(labOf(Mix([]Paint{paints[i], paints[j]}, []float64{float64(a), float64(b)}).Masstone), target))
				}
			}
			if n < 3 {
				continue
			}
			for k := j + 1; k < len(paints); k++ {
				for a := 1; a < MostParts-1; a++ {
					for b := 1; a+b < MostParts; b++ {
						for c := 1; a+b+c <= MostParts; c++ {
							best = min(best, DifferenceLab(labOf(Mix([]Paint{paints[i], paints[j], paints[k]}, []float64{float64(a), float64(b), float64(c)}).Masstone), target))
						}
					}
				}
			}
		}
	}
	return best
}

// The nearest blends are those that trying everything finds: of one, of two and of three paints.
func TestNearestIsProvedAgainstTryingEverything(t *testing.T) {
	cases := 20
	if testing.Short() {
		cases = 6
	}
	for i := range cases {
		t.Run(fmt.Sprint(i), func(t *testing.T) {
			t.Parallel()
			paints := some(uint64(100+i), 30)
			r := rand.New(rand.NewPCG(uint64(i), 77))
			want := RGB{r.Float64(), r.Float64(), r.Float64()}
			got := Nearest(paints, want)
			if len(got) == 0 || len(got[0].Paints) != 1 {
				t.Fatalf("%+v", got)
			}
			for n := 1; n <= 3; n++ {
				best := math.Inf(1)
				for _, b := range got {
					if len(b.Paints) <= n {
						best = min(best, b.Off)
					}
					if b.Total() > MostParts || !slices.IsSorted(b.Paints) || math.Abs(Difference(b.Paint.Masstone, Masstone(want))-b.Off) > 1e-9 {
						t.Errorf("%+v", b)
					}
				}
				if all := naive(paints, want, n); math.Abs(best-all) > 1e-9 {
					t.Errorf("of %d paints the nearest is %.4f off, and trying everything finds %.4f", n, best, all)
				}
			}
		})
	}
}

func TestNearestOfFewPaints(t *testing.T) {
	if got := Nearest(nil, RGB{.5, .5, .5}); got != nil {
		t.Errorf("no paints give %v", got)
	}
	p := some(3, 1)
	if got := Nearest(p, p[0].Masstone); len(got) != 1 || got[0].Off > 1e-9 {
		t.Errorf("%+v", got)
	}
}

func TestNudgesGoTheirWay(t *testing.T) {
	paints := []Paint{
		PaintOf(mustHex(t, "#f4f1e8"), .92, 11), PaintOf(mustHex(t, "#26231f"), .92, 11), PaintOf(mustHex(t, "#c79a3a"), .9, 11),
		PaintOf(mustHex(t, "#3f5f8a"), .92, 11), PaintOf(mustHex(t, "#8e2b2d"), .9, 11),
	}
	start := []int{4, 0, 0, 2, 0}
	was := labOf(Mix(paints, floats(start)).Masstone)
	for d := range NumDirections {
		got, ok := Nudge(paints, start, d)
		if !ok {
			t.Errorf("nothing makes it %s", Directions[d].ID)
			continue
		}
		change := 0
		for i := range got {
			change += max(got[i]-start[i], start[i]-got[i])
		}
		gain, _ := d.gain(was, labOf(Mix(paints, floats(got)).Masstone))
		if change != 1 || gain < .4 {
			t.Errorf("%s: %v gains %.2f", Directions[d].ID, got, gain)
		}
	}
	if _, ok := Nudge(paints, []int{0, 0, 0, 0, 0}, Lighter); ok {
		t.Error("an empty blend became lighter")
	}
	if got, ok := Nudge(paints[:1], []int{1}, Darker); ok {
		t.Errorf("white alone became darker: %v", got)
	}
}

func floats(n []int) []float64 {
	out := make([]float64, len(n))
	for i := range n {
		out[i] = float64(n[i])
	}
	return out
}

func TestColoursAreRead(t *testing.T) {
	for text, want := range map[string]string{
		"#e4e8df": "#e4e8df", "E4E8DF": "#e4e8df", " #fff ": "#ffffff", "0a0": "#00aa00",
		"lab(100, 0, 0)": "#ffffff", "L* 0 a* 0 b* 0": "#000000", "53.24 80.09 67.2": "#ff0000", "53,24 80,09 67,2": "#ff0000", "53,24; 80,09; 67,2": "#ff0000",
		"lab(53.24,80.09,67.2)": "#ff0000", "CIELAB 32.3 79.19 −107.86": "#0000ff",
	} {
		c, in, err := Read(text)
		if err != nil || c.Hex() != want || !in {
			t.Errorf("%q is %s, %v, %v; want %s", text, c.Hex(), in, err, want)
		}
	}
	if c, in, err := Read("pale grey-green"); err != nil || !in || c == (RGB{}) {
		t.Error(c, in, err)
	}
	if _, in, err := Read("lab(50, 120, 120)"); err != nil || in {
		t.Error("a colour that no screen shows:", in, err)
	}
	for _, bad := range []string{"", "  ", "#12345", "#gggggg", "mauvish", "lab(50, 1)", "lab(150, 0, 0)", "lab(50, 500, 0)", "-1 0 0", "nan 0 0", "1 2 3 4", "inf,0,0", "#"} {
		if c, _, err := Read(bad); err == nil {
			t.Errorf("%q was read as %s", bad, c.Hex())
		}
	}
}

func FuzzRead(f *testing.F) {
	for _, s := range []string{"#e4e8df", "lab(50, 1, 2)", "53,24; 80,09; 67,2", "pale blue", "1e309 0 0"} {
		f.Add(s)
	}
	f.Fuzz(func(t *testing.T, s string) {
		c, _, err := Read(s)
		if err == nil {
			for _, x := range c {
				if math.IsNaN(x) || math.IsInf(x, 0) {
					t.Errorf("%q is %v", s, c)
				}
			}
		}
	})
}

func TestPatchesAreAveragedInLinearLight(t *testing.T) {
	// Half white and half black is half the light, and not half the step.
	c, ok := Mean(1000, func(i int) (uint8, uint8, uint8) {
		if i%2 == 0 {
			return 255, 255, 255
		}
		return 0, 0, 0
	})
	if !ok || math.Abs(c[0]-.5) > .01 {
		t.Errorf("%v, %v", c, ok)
	}
	// A glint and a speck do not count.
	c, _ = Mean(1000, func(i int) (uint8, uint8, uint8) {
		switch {
		case i < 90:
			return 255, 255, 255
		case i < 180:
			return 0, 0, 0
		}
		return 120, 130, 140
	})
	if c.Hex() != "#78828c" {
		t.Errorf("with glints and specks it is %s", c.Hex())
	}
	if _, ok := Mean(0, nil); ok {
		t.Error("no pixels have a mean")
	}
	// Warm light: white paper looks yellow, and what is beside it is put right.
	paper := RGB{.80, .70, .5}
	got, ok := Balanced(RGB{.40, .35, .25}, paper)
	if !ok || math.Abs(got[0]-got[2]) > 1e-9 || math.Abs(got[0]-Paper/2) > 1e-9 {
		t.Errorf("%v, %v", got, ok)
	}
	for _, no := range []RGB{{.01, .01, .01}, {1, 1, 1}, {.9, .1, .1}} {
		if _, ok := Balanced(RGB{.4, .4, .4}, no); ok {
			t.Errorf("%v counts as white", no)
		}
	}
}

func TestDifferencesInWords(t *testing.T) {
	at := FromLab
	for _, x := range []struct {
		is, want RGB
		says     string
	}{
		{at(70, 0, 0), at(70, .2, 0), "the same to the eye"},
		{at(60, 0, 0), at(70, 0, 0), "much darker"},
		{at(73, 2, 6), at(70, 2, 6), "slightly lighter"},
		{at(70, 8, 0), at(70, 0, 0), "much pinker"},
		{at(70, 0, -5), at(70, 0, 0), "bluer"},
		{at(50, 40, 20), at(50, 60, 30), "greyer"},
	} {
		if got := Against(x.is, x.want); got != x.says {
			l, a, b := x.is.Lab()
			t.Errorf("lab(%.0f %.0f %.0f) is %q, want %q", l, a, b, got, x.says)
		}
	}
	// Whatever the difference, the words are a comparative that "than" may follow, or say that there is none.
	r := rand.New(rand.NewPCG(3, 5))
	for range 2000 {
		l, a, b := 10+80*r.Float64(), 60*r.Float64()-30, 60*r.Float64()-30
		d := 6 * r.Float64()
		is, want := at(l+d*r.NormFloat64(), a+d*r.NormFloat64(), b+d*r.NormFloat64()), at(l, a, b)
		words := strings.Fields(Against(is, want))
		if last := words[len(words)-1]; Difference(is, want) >= 1 && !strings.HasSuffix(last, "er") && last != "purple" && last != "orange" {
			t.Errorf("lab(%.1f %.1f %.1f) wanted: %q", l, a, b, words)
		}
	}
	pine, varnish := mustHex(t, "#d9b98a"), mustHex(t, "#5a3320")
	want := mustHex(t, "#e4e8df")
	p := Power(want, Contrast(want, .86)) * ThinSpots
	if got := Cover(Over(varnish, want, p), Masstone(want)); got != "patchy, the ground shows grey" {
		t.Errorf("one coat over dark varnish: %s", got)
	}
	if got := Cover(Looks(pine, []Layer{{want, p}, {want, p}, {want, p}})[2], Masstone(want)); got != "covers" {
		t.Errorf("three coats over pine: %s", got)
	}
}

// A deep yellow over dark varnish is worth an undercoat, and a white over white primer is not.
func TestUndercoats(t *testing.T) {
	yellow := mustHex(t, "#e3b93c")
	p := Power(yellow, Contrast(yellow, .9)) * ThinSpots
	primer := Power(mustHex(t, "#f2f2f0"), .85) * ThinSpots
	u, ok := Primed(mustHex(t, "#3a2418"), Masstone(yellow), p, primer, 1.5)
	if !ok || u.Needs >= u.Without || u.Without < 3 {
		t.Errorf("%+v, %v", u, ok)
	}
	white := mustHex(t, "#f4f1e8")
	if u, ok := Primed(mustHex(t, "#f2f2f0"), Masstone(white), Power(white, .93)*ThinSpots, primer, 1.5); ok {
		t.Errorf("white over white: %+v", u)
	}
}

func TestThePaletteIsOurs(t *testing.T) {
	seen := map[string]bool{}
	for _, s := range Palette {
		mustHex(t, s.Hex)
		if s.Name == "" || seen[s.Name] || seen[s.Hex] {
			t.Errorf("%+v stands twice or has no name", s)
		}
		seen[s.Name], seen[s.Hex] = true, true
	}
	if len(Palette) < 24 {
		t.Errorf("only %d colours", len(Palette))
	}
}

func BenchmarkNearestOf30(b *testing.B) {
	paints := some(42, 30)
	i := 0
	for b.Loop() {
		r := rand.New(rand.NewPCG(uint64(i), 7))
		i++
		Nearest(paints, RGB{r.Float64(), r.Float64(), r.Float64()})
	}
}
