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
// metres with a litre. The power of a coat follows from [Power] and [Contrast], and a litre is as many coats as
// it covers square metres. A dark paint hides by what it absorbs, and its contrast ratio says little of how
// strongly it tints: it counts as scattering at least a fifth as much as a pale one, so that seven parts of
// white and one of black make a mid grey. Working default.
func PaintOf(c RGB, cr, cover float64) Paint {
	m := Masstone(c)
	const darkShare = .2
	pale := RGB{.85, .85, .85}
	p := max(Power(m, Contrast(m, cr)), darkShare*Power(pale, min(cr, .999)))
	return Paint{m, p * max(cover, least)}
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

// recipes are all whole parts of one to three paints in lowest terms, by the number of paints.
var recipes = func() (out [MaxNearest + 1][][MaxNearest]int) {
	var share func(n, at, left int, parts [MaxNearest]int)
	share = func(n, at, left int, parts [MaxNearest]int) {
		if at == n {
			if lowest(parts[:n]) {
				out[n] = append(out[n], parts)
			}
			return
		}
		for k := 1; k <= left-(n-at-1); k++ {
			parts[at] = k
			share(n, at+1, left-k, parts)
		}
	}
	for n := 1; n <= MaxNearest; n++ {
		share(n, 0, MostParts, [MaxNearest]int{})
	}
	return out
}()

func lowest(parts []int) bool {
	g := 0
	for _, n := range parts {
		for n != 0 {
			g, n = n, g%n
		}
	}
	return g == 1
}

// of tries every mixture of n paints.
func (s *search) of(n int) {
	var which [MaxNearest]int
	var choose func(at, from int)
	choose = func(at, from int) {
		if at == n {
			if s.near(which[:n]) {
				s.share(which[:n])
			}
			return
		}
		for i := from; i < len(s.paints); i++ {
			which[at] = i
			choose(at+1, i+1)
		}
	}
	choose(0, 0)
}

// room is by how much the two ways to reckon luminance differ at most.
const room = 1e-4

// near tells whether any mixture of some paints can be within the bound: every band of a blend lies between
// those of its paints.
func (s *search) near(which []int) bool {
	lo, hi := s.paints[which[0]].Masstone, s.paints[which[0]].Masstone
	for _, x := range which[1:] {
		for b, r := range s.paints[x].Masstone {
			lo[b], hi[b] = min(lo[b], r), max(hi[b], r)
		}
	}
	return hi.Y() >= s.lo-room && lo.Y() <= s.hi+room
}

// share tries all parts of chosen paints.
func (s *search) share(which []int) {
	var k [MaxNearest][3]float64
	var scatter [MaxNearest]float64
	for i, x := range which {
		k[i], scatter[i] = s.k[x], s.paints[x].Scatter
	}
	for i := range recipes[len(which)] {
		parts := &recipes[len(which)][i]
		n0, n1, n2 := float64(parts[0]), float64(parts[1]), float64(parts[2])
		sum := n0*scatter[0] + n1*scatter[1] + n2*scatter[2]
		c := RGB{
			masstoneOf((n0*k[0][0] + n1*k[1][0] + n2*k[2][0]) / sum),
			masstoneOf((n0*k[0][1] + n1*k[1][1] + n2*k[2][1]) / sum),
			masstoneOf((n0*k[0][2] + n1*k[1][2] + n2*k[2][2]) / sum),
		}
		if y := c.Y(); y < s.lo-room || y > s.hi+room {
			continue
		}
		if off := DifferenceLab(labOf(c), s.want); off < s.best {
			s.best = off
			s.found.Paints, s.found.Parts = append(s.found.Paints[:0], which...), append(s.found.Parts[:0], parts[:len(which)]...)
			s.bound()
		}
	}
}
