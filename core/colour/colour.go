// Package colour predicts what coats of paint look like over what is below them: how well they hide
// it, how many are needed, and what a seal does to a colour; and names colours. Colours are
// reflectances in the three bands of linear-light sRGB.
package colour

import (
	"math"

	"github.com/lucasb-eyer/go-colorful"
)

// RGB is the reflectance in the red, green and blue bands of linear-light sRGB,
// 0 to 1.
type RGB [3]float64

// Parse reads #rrggbb; false for anything else.
func Parse(hex string) (RGB, bool) {
	if len(hex) != 7 || hex[0] != '#' {
		return RGB{}, false
	}
	var c RGB
	for i := range c {
		hi, ok1 := digit(hex[1+2*i])
		lo, ok2 := digit(hex[2+2*i])
		if !ok1 || !ok2 {
			return RGB{}, false
		}
		c[i] = linear[hi<<4|lo]
	}
	return c, true
}

func digit(b byte) (int, bool) {
	switch {
	case b >= '0' && b <= '9':
		return int(b - '0'), true
	case b >= 'a' && b <= 'f':
		return int(b-'a') + 10, true
	case b >= 'A' && b <= 'F':
		return int(b-'A') + 10, true
	}
	return 0, false
}

// linear is the light of each of the 256 steps of an sRGB band (IEC 61966-2-1).
var linear = func() (out [256]float64) {
	for i := range out {
		v := float64(i) / 255
		if v <= .04045 {
			out[i] = v / 12.92
		} else {
			out[i] = math.Pow((v+.055)/1.055, 2.4)
		}
	}
	return out
}()

// Hex writes the colour as #rrggbb, the nearest that a screen can show.
func (c RGB) Hex() string { return colorful.LinearRgb(c[0], c[1], c[2]).Clamped().Hex() }

// Y is the luminance, 0 to 1, by the weights of sRGB.
func (c RGB) Y() float64 { return .2126*c[0] + .7152*c[1] + .0722*c[2] }

// Lab is the colour in CIELAB under D65: L* from 0 to 100, and a* and b*.
func (c RGB) Lab() (l, a, b float64) {
	x, y, z := colorful.LinearRgbToXyz(c[0], c[1], c[2])
	l, a, b = colorful.XyzToLab(x, y, z)
	return 100 * l, 100 * a, 100 * b
}

// Light is L*, 0 to 100.
func (c RGB) Light() float64 {
	l, _, _ := c.Lab()
	return l
}

// FromLab is the colour of an L*, a* and b*; it may lie outside what a screen
// can show.
func FromLab(l, a, b float64) RGB {
	x, y, z := colorful.LabToXyz(l/100, a/100, b/100)
	r, g, bl := colorful.XyzToLinearRgb(x, y, z)
	return RGB{r, g, bl}
}

// Difference is the CIEDE2000 colour difference (ISO/CIE 11664-6) with all
// weights 1: the eye sees about 1, anyone sees 3.
func Difference(p, q RGB) float64 {
	return DifferenceLab(labOf(p), labOf(q))
}

func labOf(c RGB) [3]float64 {
	l, a, b := c.Lab()
	return [3]float64{l, a, b}
}

// DifferenceLab is [Difference] of two colours in CIELAB.
func DifferenceLab(p, q [3]float64) float64 {
	const pow25to7 = 6103515625.
	g := func(c float64) float64 {
		c2 := c * c
		c7 := c2 * c2 * c2 * c
		return math.Sqrt(c7 / (c7 + pow25to7))
	}
	cab := (math.Hypot(p[1], p[2]) + math.Hypot(q[1], q[2])) / 2
	k := 1 + .5*(1-g(cab))
	a1, a2 := p[1]*k, q[1]*k
	c1, c2 := math.Hypot(a1, p[2]), math.Hypot(a2, q[2])
	h1, h2 := hue(a1, p[2]), hue(a2, q[2])
	dh, mean := 0., h1+h2
	if c1*c2 != 0 {
		dh = h2 - h1
		far := math.Abs(dh) > 180
		switch {
		case dh > 180:
			dh -= 360
		case dh < -180:
			dh += 360
		}
		switch {
		case !far:
			mean /= 2
		case mean < 360:
			mean = (mean + 360) / 2
		default:
			mean = (mean - 360) / 2
		}
	}
	lm, cm := (p[0]+q[0])/2, (c1+c2)/2
	t := 1 - .17*cosd(mean-30) + .24*cosd(2*mean) + .32*cosd(3*mean+6) - .20*cosd(4*mean-63)
	l50 := (lm - 50) * (lm - 50)
	sl, sc, sh := 1+.015*l50/math.Sqrt(20+l50), 1+.045*cm, 1+.015*cm*t
	turn := 30 * math.Exp(-((mean-275)/25)*((mean-275)/25))
	rt := -math.Sin(2*turn*math.Pi/180) * 2 * g(cm)
	dl, dc := (q[0]-p[0])/sl, (c2-c1)/sc
	dhh := 2 * math.Sqrt(c1*c2) * math.Sin(dh/2*math.Pi/180) / sh
	return math.Sqrt(max(0, dl*dl+dc*dc+dhh*dhh+rt*dc*dhh))
}

func hue(a, b float64) float64 {
	if a == 0 && b == 0 {
		return 0
	}
	h := math.Atan2(b, a) * 180 / math.Pi
	if h < 0 {
		h += 360
	}
	return h
}

func cosd(x float64) float64 { return math.Cos(x * math.Pi / 180) }

// Masstone bounds: nothing is blacker or whiter than these when it hides.
const darkest, palest = .004, .97

// Masstone is the colour of a paint that hides completely: the wanted colour, as far as paint can
// be that dark or pale.
func Masstone(c RGB) RGB {
	for i := range c {
		c[i] = min(max(c[i], darkest), palest)
	}
	return c
}

// Over is the colour of a coat of scattering power p and masstone r over a
// ground, by the two-constant theory of Kubelka and Munk in each band.
func Over(ground, r RGB, p float64) RGB {
	var out RGB
	for i := range out {
		m := mixOf(min(max(r[i], darkest), palest))
		out[i] = m.over(ground[i], m.coth(p))
	}
	return out
}

// mix is what Kubelka and Munk make of one band of a masstone: a is (1/R + R)/2,
// and b the root of a² - 1.
type mix struct{ a, b float64 }

func mixOf(r float64) mix {
	a := (1/r + r) / 2
	return mix{a, math.Sqrt(a*a - 1)}
}

// coth is b times the hyperbolic cotangent of b times the power.
func (m mix) coth(p float64) float64 {
	e := math.Exp(-2 * m.b * p)
	return m.b * (1 + e) / (1 - e)
}

// over is the reflectance over a ground.
func (m mix) over(g, coth float64) float64 { return (1 - g*(m.a-coth)) / (m.a - g + coth) }

// white is the white ground of a contrast ratio (ISO 6504-3).
const white = .80

// Power is the scattering power of one coat whose contrast ratio, the luminance
// over black by that over a white of 80 %, is cr: 0 to below 1. The ratio rises
// with the power, so that false position finds it between bounds (the Illinois
// variant, Dowell and Jarratt 1971).
func Power(r RGB, cr float64) float64 {
	if !(cr > 0) { // no figure is none
		cr = 0
	}
	r = Masstone(r)
	mixes := [3]mix{mixOf(r[0]), mixOf(r[1]), mixOf(r[2])}
	off := func(x float64) float64 {
		var k, w RGB
		p := math.Exp(x)
		for i, m := range mixes {
			c := m.coth(p)
			k[i], w[i] = m.over(0, c), m.over(white, c)
		}
		return k.Y()/w.Y() - cr
	}
	lo, hi := math.Log(1e-3), math.Log(60)
	below, above := off(lo), off(hi)
	switch {
	case below >= 0:
		return math.Exp(lo)
	case above <= 0:
		return math.Exp(hi)
	}
	const near, most = 1e-9, 60
	x, kept := lo, 0 // kept is the bound that stayed last time: -1 lo, 1 hi
	for range most {
		x = (lo*above - hi*below) / (above - below)
		at := off(x)
		switch {
		case math.Abs(at) < near:
			return math.Exp(x)
		case at < 0:
			lo, below = x, at
			if kept == 1 {
				above /= 2
			}
			kept = 1
		default:
			hi, above = x, at
			if kept == -1 {
				below /= 2
			}
			kept = -1
		}
	}
	return math.Exp(x)
}

// Contrast is the contrast ratio that one coat has in a colour, for a product
// that reaches cr in a pale mix: strong reds hide less, and so do yellows and
// oranges; deep colours hide more. Working default.
func Contrast(c RGB, cr float64) float64 {
	l, a, b := c.Lab()
	if math.Hypot(a, b) > 45 {
		switch h := hue(a, b); {
		case h < 50 || h > 330:
			cr *= .70
		case h < 112:
			cr *= .88
		}
	}
	const pale, deep = 50., 20.
	if l < pale {
		cr += (1 - cr) / 2 * min(1, (pale-l)/(pale-deep))
	}
	return min(cr, .999)
}

// ThinSpots is what a brush, a roller or a sponge leave of a coat's power where
// it is thinnest, and those decide. Working default.
const ThinSpots = .8

// Needed is how many coats of a power bring a ground within near of a masstone,
// in CIEDE2000 units, and how far off that many leave it; at most most. One
// never stops at a single coat, unless the ground is close already.
func Needed(ground, r RGB, p, near float64, most int) (n int, off float64) {
	want := labOf(Masstone(r))
	const close = 3.
	least := 2
	if DifferenceLab(labOf(ground), want) <= close {
		least = 1
	}
	at := ground
	for n = 1; n <= most; n++ {
		at = Over(at, r, p)
		if off = DifferenceLab(labOf(at), want); off <= near && n >= least {
			return n, off
		}
	}
	return most, off
}

// Sealed is what a matt paint looks like under a clear coat, a wax or an oil:
// about 3 darker in L* and 6 % more chroma, more under gloss than under matt;
// shine is from 0, dead flat, to 1, gloss. Working default.
func Sealed(c RGB, shine float64) RGB {
	l, a, b := c.Lab()
	k := .7 + .6*shine
	return FromLab(max(0, l-3*k), a*(1+.06*k), b*(1+.06*k))
}

// Toward is a colour on the way to another, at a CIEDE2000 difference from where
// it began, or as far as the other.
func Toward(from, to RGB, de float64) RGB {
	l1, a1, b1 := from.Lab()
	l2, a2, b2 := to.Lab()
	at := func(t float64) RGB { return FromLab(l1+t*(l2-l1), a1+t*(a2-a1), b1+t*(b2-b1)) }
	lo, hi := 0., 1.
	if Difference(from, to) <= de {
		return to
	}
	for range 16 {
		if mid := (lo + hi) / 2; Difference(from, at(mid)) < de {
			lo = mid
		} else {
			hi = mid
		}
	}
	return at((lo + hi) / 2)
}
