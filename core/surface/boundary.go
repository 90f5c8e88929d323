package surface

import (
	"math"

	"rutile/core/craft"
	"rutile/core/drying"
)

// Timing says where in the lower coat's recoat window a coat was applied.
type Timing uint8

// The timings. OldSurface has no window.
const (
	OldSurface Timing = iota
	Inside
	TooSoon
	Missed  // past the latest, and not scuffed
	Scuffed // past the latest, and scuffed
	Between // between the two windows of a product that has two
)

// Term is one of the five factors of a boundary's strength.
type Term uint8

// The terms: how well the coat takes to the surface, the key it was given,
// what was left lying on it, when the coat came, and the site.
const (
	Grip Term = iota
	Key
	Cleanness
	Window
	Site
	// NumTerms counts the terms.
	NumTerms
)

// TermIDs are the terms' ids.
var TermIDs = [NumTerms]string{"grip", "key", "cleanness", "window", "site"}

// SiteWhy tells what lowered the site's factor; a set.
type SiteWhy uint8

// The reasons.
const (
	Cold SiteWhy = 1 << iota
	Humid
	WetWood
	VeryWetWood
	DampMineral
)

// CapWhy tells what below a boundary limits it.
type CapWhy uint8

// The caps.
const (
	NoCap CapWhy = iota
	CapFlaking
	CapPowdery
)

// Boundary is where a coat meets what it lands on, with everything its
// strength was made of.
type Boundary struct {
	Region   RegionKind
	Step     int // from 1
	CoatNo   int // of the step's coats, from 1
	Product  craft.Product
	On       craft.Family
	Under    craft.Product // NoProduct on the old surface
	Bare     bool          // on the substrate itself, stained or treated as it may be
	First    bool          // no film of the plan is below
	Additive float64

	// Factors multiply to the strength.
	Factors [NumTerms]float64
	// Cap limits the strength by what holds below; 1 does not.
	Cap    float64
	CapWhy CapWhy
	// Strength of the boundary, 1 being a full bond.
	Strength float64

	Need, KeyGiven, Sens     float64
	Closed                   bool
	Soils                    [craft.NumSoils]uint8
	Timing                   Timing
	Waited, Earliest, Latest float64 // hours, scaled to the site
	SiteWhy                  SiteWhy

	// PatchTests are the rated patch tests of this coat on this surface that its
	// grip was learned from, GripBefore what it was without them, and pair the
	// variance of the log of the grip that they leave.
	PatchTests int
	GripBefore float64
	pair       float64
}

// The spreads of log strength. Working defaults.
const (
	spreadBase = .12
	spreadMilk = .20
	// SpreadUnknown is what an untested surface adds.
	SpreadUnknown = .15
)

// LogSpread is the standard deviation of the log of the strength: a base, what
// doubt about the surface adds, milk paint's own waywardness, and a third of
// what every factor below 1 takes away, added in squares. Patch tests narrow
// what belongs to the coat and the surface.
func (b *Boundary) LogSpread(c *craft.Craft, doubt float64) float64 {
	return b.spread(c, doubt, NumTerms)
}

// spread leaves out what key, cleanness and window add, where to is Key.
func (b *Boundary) spread(c *craft.Craft, doubt float64, to Term) float64 {
	v := b.pair
	if b.PatchTests == 0 {
		v = pairVariance(c, b, doubt)
	}
	for t, f := range b.Factors {
		if f < 1 && Term(t) != Grip && (Term(t) < to || Term(t) == Site) {
			v += third(f)
		}
	}
	return math.Sqrt(v)
}

// third is what a factor below 1 adds to the variance of the log.
func third(f float64) float64 { return (1 - f) / 3 * (1 - f) / 3 }

// pairVariance is the variance of the log of the grip that a coat has on a
// surface, before any patch test.
func pairVariance(c *craft.Craft, b *Boundary, doubt float64) float64 {
	v := spreadBase*spreadBase + doubt*doubt
	if c.Products[b.Product].Coat == craft.MK && b.Additive == 0 {
		v += spreadMilk * spreadMilk
	}
	if g := b.Factors[Grip]; g < 1 {
		v += third(g)
	}
	return v
}

// Risk is the probability that the boundary's strength is below a demand, for a log-normal strength
// with the estimate as its median. A bond that is too weak by its estimate is not made to look
// safer by uncertainty about key, soils or timing: the spread they add counts only while the
// estimate is above the demand, so that the risk never falls when a soil is added or a window
// missed.
func (b *Boundary) Risk(c *craft.Craft, demand, doubt float64) float64 {
	if b.Strength <= 0 {
		return 1
	}
	to := NumTerms
	if b.Strength < demand {
		to = Key
	}
	z := math.Log(demand/b.Strength) / b.spread(c, doubt, to)
	return .5 * math.Erfc(-z/math.Sqrt2)
}

// SameBond tells whether two boundaries are the same product on the same kind
// of surface, which peel together or not at all.
func (b *Boundary) SameBond(o *Boundary) bool {
	return b.Product == o.Product && b.On == o.On && b.Bare == o.Bare && b.Additive == o.Additive
}

// windowOf is the window a coat leaves to the next one, scaled to the site:
// the earliest, never shorter than the label; the latest; and when a product
// with two windows opens again, 0 for others.
func windowOf(p, next *craft.ProductRow, cl drying.Climate) (from, to, again float64) {
	from, to = p.Recoat.From, p.Recoat.To
	if next.WaterBased() && p.WaterFrom > from {
		from = p.WaterFrom
	}
	from = max(from, p.HardUnder(next))
	k := drying.Factor(p.Carrier, cl)
	from = max(from, from*k)
	to = max(to*k, from)
	if p.Again > 0 {
		again = max(p.Again, p.Again*k)
	}
	return from, to, again
}

// Recoats is the hours after a coat of a product in which the next of it may
// follow, at a site: the earliest, never shorter than the label, and the latest.
func Recoats(p *craft.ProductRow, cl drying.Climate) (from, to float64) {
	from, to, _ = windowOf(p, p, cl)
	return from, to
}

// sandFrom is when a coat may first be sanded at the site; a coat that is not
// sanded at all is left until it may be recoated.
func sandFrom(p *craft.ProductRow, cl drying.Climate) float64 {
	from := p.Sand
	if math.IsInf(from, 1) {
		from = p.Recoat.From
	}
	return max(from, from*drying.Factor(p.Carrier, cl))
}

const (
	betweenWindows = .55 // a coat between the two windows wrinkles
	mediumGrip     = .35 // crackle and lift mediums are meant to come apart
	keyIsSound     = .85
	kindred        = .9 // water-based clears of two kinds
	sprayedGlaze   = .4 // of a glaze's wait is enough where no brush drags it
)

// MissingKey tells whether so little key was given that the bond suffers.
func (b *Boundary) MissingKey() bool { return b.Factors[Key] < keyIsSound }

// nearly is the share of a wait from which a coat counts as in time: labels are
// rounded, and workshops are not laboratories. Working default.
const nearly = .85

// TooEarly tells whether the coat came so much before it may that it matters.
func (b *Boundary) TooEarly() bool { return b.Timing == TooSoon && b.Waited < nearly*b.Earliest }

// InTime tells whether the coat came when it may, or after a scuff.
func (b *Boundary) InTime() bool {
	return !b.TooEarly() && b.Timing != Missed && b.Timing != Between
}

// bond computes the boundary that step's coatNo-th coat makes on patch p.
func bond(c *craft.Craft, f *Facts, p *Region, s *Step, step, coatNo int, hours float64) Boundary {
	up := &c.Products[s.Product]
	coat := &craft.Coats[up.Coat]
	fam := &craft.Families[p.Top]
	sub := &c.Substrates[f.Substrate]
	b := Boundary{
		Region: p.Kind, Step: step, CoatNo: coatNo, Product: s.Product, On: p.Top, Under: p.Product,
		Bare: p.Bare && (p.Product == craft.NoProduct || c.Products[p.Product].Coat == craft.NoCoat), First: p.Coats == 0,
		Additive: s.additiveIn(coatNo),
		Sens:     coat.Sens, KeyGiven: p.Key, Soils: p.Soils, Cap: 1,
	}
	b.Factors = [NumTerms]float64{1, 1, 1, 1, 1}

	var lower *craft.ProductRow
	if p.Product != craft.NoProduct {
		lower = &c.Products[p.Product]
		b.time(lower, up, p, s.Method, f.Climate, hours)
		if lower.Later != craft.NumFamilies && lower.Again > 0 && b.Waited >= b.Earliest && b.Earliest >= lower.Again {
			b.On = lower.Later
			fam = &craft.Families[b.On]
		}
	}

	// Grip.
	switch {
	case lower != nil && lower.Coat == craft.CM && up.Coat < craft.NumCoats:
		b.Factors[Grip] = mediumGrip
	case p.Product == s.Product && b.Timing != Between:
		b.Factors[Grip] = coat.Self
		if up.Coat == craft.MK && b.Additive > 0 {
			b.Factors[Grip] += (craft.Coats[craft.MB].Self - coat.Self) * min(1, b.Additive/craft.AdditiveFull)
		}
	default:
		b.Factors[Grip] = c.GripOf(b.On, up.Coat, b.Additive)
		if b.Bare {
			b.Factors[Grip] *= sub.Grip
		}
	}

	// Clear on clear of the same kind, while the lower one is open, is nearly one
	// film; the table's figure is for an old varnish.
	if lower != nil && b.Timing == Inside && lower.Role == craft.RoleClear && up.Role == craft.RoleClear && lower.WaterBased() && up.WaterBased() {
		b.Factors[Grip] = max(b.Factors[Grip], kindred)
	}

	// Key. A coat inside its window needs none, and glass is keyed by its own
	// primer.
	switch {
	case b.Bare:
		b.Need = sub.Need
	case b.Timing == OldSurface, b.Timing == Missed, b.Timing == Scuffed:
		b.Need = fam.Need
	}
	if b.On == craft.GlassSmooth && up.Coat == craft.GP {
		b.KeyGiven = 1
	}
	b.Factors[Key] = 1 - b.Need*(1-b.KeyGiven)*b.Sens
	if p.Closed && b.Bare {
		b.Closed = true
		b.Factors[Key] *= .9
	}

	// Cleanness.
	share := 1.
	if up.Coat == craft.SH {
		share = .6
	}
	for so, lv := range p.Soils {
		if lv > 0 {
			b.Factors[Cleanness] *= 1 - share*craft.Soils[so].Harm*float64(lv)/2
		}
	}
	b.Factors[Cleanness] = max(.1, b.Factors[Cleanness])

	// Site.
	site := &b.Factors[Site]
	if f.Climate.TempC < up.MinC {
		b.SiteWhy |= Cold
	}
	if f.Climate.RH > up.MaxRH {
		b.SiteWhy |= Humid
	}
	if b.SiteWhy != 0 {
		*site *= .8
	}
	if b.First {
		wood := sub.Family == craft.WoodBare || sub.Family == craft.WoodOily || sub.Family == craft.BoardRaw
		switch {
		case wood && f.Moisture > 18:
			b.SiteWhy |= VeryWetWood
			*site *= .6
		case wood && f.Moisture > 14:
			b.SiteWhy |= WetWood
			*site *= .85
		case b.Bare && b.On == craft.MineralPorous && f.Damp():
			b.SiteWhy |= DampMineral
			if up.Coat == craft.MS {
				*site *= .9
			} else {
				*site *= .7
			}
		}
	}

	// What is below can come off by itself.
	if p.Powdery && !coat.Binds {
		b.Cap, b.CapWhy = .5, CapPowdery
	}
	if p.Loose&craft.Falls != 0 {
		b.Cap, b.CapWhy = .2, CapFlaking
	}
	b.multiply()
	return b
}

// multiply takes the factors together to the strength.
func (b *Boundary) multiply() {
	s := 1.
	for _, x := range b.Factors {
		s *= x
	}
	b.Strength = min(s, b.Cap)
}

// time fills in where in the lower coat's window the upper one comes.
func (b *Boundary) time(lower, up *craft.ProductRow, p *Region, method string, cl drying.Climate, hours float64) {
	from, to, again := windowOf(lower, up, cl)
	if lower.Coat == craft.GZ && (method == "spray" || method == "aerosol") {
		from *= sprayedGlaze
	}
	b.Waited, b.Earliest, b.Latest = hours-p.At, from, to
	const rounding = 1e-9
	w := &b.Factors[Window]
	switch {
	case b.Waited < from-rounding:
		b.Timing = TooSoon
		*w = .6 + .4*b.Waited/from
	case b.Waited <= to+rounding:
		b.Timing = Inside
	case again > 0 && b.Waited >= again-rounding:
		b.Timing = Inside
		b.Earliest, b.Latest = again, craft.Never
	case again > 0:
		b.Timing = Between
		b.Earliest = again
		*w = betweenWindows
	case p.Scuffed && !lower.NoScuff:
		b.Timing = Scuffed
	default:
		b.Timing = Missed
		floor := craft.Coats[lower.Coat].Floor
		*w = max(floor, 1-(1-floor)*(b.Waited-to)/to)
	}
}
