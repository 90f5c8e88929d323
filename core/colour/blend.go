package colour

import (
	"math"
	"slices"
)

// Paint is a paint that may be mixed with others: its masstone, and how strongly a litre of it scatters.
type Paint struct {
	Masstone RGB
	// Scatter is the scattering power that a litre has on a square metre, in all bands alike; above 0.
	Scatter float64
}

// PaintOf is a paint of a colour whose coats have a contrast ratio, in a pale mix, and cover some square
// metres with a litre. Working default: the power of a coat follows from [Power] and [Contrast], and the
// film of one litre is as many coats as it covers square metres.
func PaintOf(c RGB, cr, cover float64) Paint {
	m := Masstone(c)
	return Paint{m, Power(m, Contrast(m, cr)) * max(cover, least)}
}

// least keeps what divides above zero.
const least = 1e-6

// The limits of a blend by parts. Working defaults: more paints turn to mud, and nobody measures more parts
// than these by spoon or jar.
const (
	MaxPaints  = 5
	MaxParts   = 40
	MaxNearest = 3 // paints of a blend that is looked for
	MostParts  = 8 // and its parts in all
)

// Mix is what parts of paints by volume come to, by the two-constant theory of Kubelka and Munk: absorption
// K and scattering S of every band add up in proportion to volume (Duncan 1940). Parts of 0 or less count as
// none; without any part the blend is the zero Paint.
func Mix(paints []Paint, parts []float64) Paint {
	var k [3]float64
	s, all := 0., 0.
	for i := range paints {
		n := parts[i]
		if !(n > 0) {
			continue
		}
		all += n
		s += n * paints[i].Scatter
		for b, r := range paints[i].Masstone {
			k[b] += n * paints[i].Scatter * absorbs(r)
		}
	}
	if all == 0 || s == 0 {
		return Paint{}
	}
	out := Paint{Scatter: s / all}
	for b := range k {
		out.Masstone[b] = masstoneOf(k[b] / s)
	}
	return out
}

// absorbs is K/S of a band whose masstone reflects r: (1 - r)²/2r.
func absorbs(r float64) float64 {
	r = min(max(r, darkest), palest)
	return (1 - r) * (1 - r) / (2 * r)
}

// masstoneOf is the masstone of a band with some K/S.
func masstoneOf(q float64) float64 { return 1 / (1 + q + math.Sqrt(q*q+2*q)) }

// Power is the scattering power of one coat of the paint that covers some square metres with a litre.
func (p Paint) Power(cover float64) float64 { return p.Scatter / max(cover, least) }

// Blend is a mixture found: which paints, by their places in a list, and whole parts of each.
type Blend struct {
	Paints []int
	Parts  []int
	Paint  Paint
	// Off is how far its masstone is from the colour wanted, in CIEDE2000 units.
	Off float64
}

// Total is the sum of its parts.
func (b *Blend) Total() int {
	n := 0
	for _, p := range b.Parts {
		n += p
	}
	return n
}

// Nearest finds the blends nearest to a colour: the best of one paint, of at most two and of at most three,
// with no more than [MostParts] whole parts in all, and at most [MaxNearest] of them, each strictly nearer
// than the one before. Each is proved the best of its kind: every mixture is tried but those of which a bound
// shows that they are farther off. The bound: CIEDE2000 is at least the difference in L* divided by its weight,
// which is no more than 1.75. Of equally near ones the first of the list counts. No paints give no blend.
func Nearest(paints []Paint, want RGB) []Blend {
	var out []Blend
	target := labOf(Masstone(want))
	s := search{paints: paints, want: target, best: math.Inf(1)}
	for i := range paints {
		s.absorb(i)
	}
	for n := 1; n <= MaxNearest && n <= len(paints); n++ {
		s.of(n)
		if s.found.Parts == nil {
			continue
		}
		b := s.found
		b.Paints, b.Parts = slices.Clone(b.Paints), slices.Clone(b.Parts)
		b.Paint = mixOfParts(paints, b.Paints, b.Parts)
		b.Off = s.best
		s.found = Blend{}
		out = append(out, b)
	}
	return out
}

func mixOfParts(paints []Paint, which, parts []int) Paint {
	ps, ns := make([]Paint, len(which)), make([]float64, len(which))
	for i, x := range which {
		ps[i], ns[i] = paints[x], float64(parts[i])
	}
	return Mix(ps, ns)
}

// search is a search for the nearest blend.
type search struct {
	paints []Paint
	want   [3]float64
	k      [][3]float64 // K of a part of each
	best   float64
	// lo and hi are the luminances between which a nearer blend must lie.
	lo, hi float64
	found  Blend
}

func (s *search) absorb(i int) {
	p := &s.paints[i]
	var k [3]float64
	for b, r := range p.Masstone {
		k[b] = p.Scatter * absorbs(r)
	}
	s.k = append(s.k, k)
	s.bound()
}

// heaviest is the greatest weight of a difference in L*: 1 + .015 x 50² / sqrt(20 + 50²), rounded up.
const heaviest = 1.75

// bound works out between which luminances a blend that is nearer than the best must lie.
func (s *search) bound() {
	s.lo, s.hi = lumOf(s.want[0]-s.best*heaviest), lumOf(s.want[0]+s.best*heaviest)
}

// lumOf is the luminance of an L* (CIE 15), with a little room for rounding towards the outside.
func lumOf(l float64) float64 {
	switch {
	case l <= 0:
		return math.Inf(-1)
	case l >= 100:
		return math.Inf(1)
	case l <= 8:
		return l / 903.2963
	}
	t := (l + 16) / 116
	return t * t * t
}

// of tries every mixture of n paints.
func (s *search) of(n int) {
	which, parts := make([]int, n), make([]int, n)
	var choose func(at, from int)
	choose = func(at, from int) {
		if at == n {
			s.share(which, parts, 0, MostParts)
			return
		}
		for i := from; i < len(s.paints); i++ {
			which[at] = i
			choose(at+1, i+1)
		}
	}
	choose(0, 0)
}

// share tries all parts of chosen paints, in lowest terms.
func (s *search) share(which, parts []int, at, left int) {
	rest := len(parts) - at - 1
	if rest < 0 {
		if lowest(parts) {
			s.try(which, parts)
		}
		return
	}
	for n := 1; n <= left-rest; n++ {
		parts[at] = n
		s.share(which, parts, at+1, left-n)
	}
}

func lowest(parts []int) bool {
	g := 0
	for _, n := range parts {
		for n != 0 {
			g, n = n, g%n
		}
	}
	return g == 1
}

func (s *search) try(which, parts []int) {
	var k [3]float64
	sum := 0.
	for i, x := range which {
		n := float64(parts[i])
		sum += n * s.paints[x].Scatter
		for b := range k {
			k[b] += n * s.k[x][b]
		}
	}
	c := RGB{masstoneOf(k[0] / sum), masstoneOf(k[1] / sum), masstoneOf(k[2] / sum)}
	const room = 1e-4 // the two ways to reckon luminance differ by less
	if y := c.Y(); y < s.lo-room || y > s.hi+room {
		return
	}
	if off := DifferenceLab(labOf(c), s.want); off < s.best {
		s.best = off
		s.found.Paints, s.found.Parts = append(s.found.Paints[:0], which...), append(s.found.Parts[:0], parts...)
		s.bound()
	}
}
