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

// Term is one of the factors of a boundary's strength: every way in which a coat can fail.
type Term uint8

// The terms: how well the coat takes to the surface, the key it was given, what was left lying on it,
// when the coat came, the site, zinc or lime that turns its binder to soap, and strong solvent that
// lifts what lies below.
const (
	Grip Term = iota
	Key
	Cleanness
	Window
	Site
	Soap
	Lift
	// NumTerms counts the terms.
	NumTerms
)

// TermIDs are the terms' ids.
var TermIDs = [NumTerms]string{"grip", "key", "cleanness", "window", "site", "soap", "lift"}

// SiteWhy tells what lowered the site's factor; a set.
type SiteWhy uint8

// The reasons.
const (
	Cold SiteWhy = 1 << iota
	Humid
	WetWood
	VeryWetWood
	DampMineral
	NearDew
	BelowDew
)

// LiftWhy tells why strong solvent lifts or melts what a coat lies on.
type LiftWhy uint8

// The reasons, the worst first.
const (
	NoLift LiftWhy = iota
	LiftFoam
	LiftBetween  // a can over its own film between its two windows
	LiftYoungOil // over an oil or alkyd coat that is not yet a month old
	LiftYoungWater
	LiftOldFilm
	LiftPlastic
	LiftMist // over new shellac, which it dissolves: the first coat is a mist
)

// SoapWhy tells why a binder turns to soap.
type SoapWhy uint8

// The reasons.
const (
	NoSoap SoapWhy = iota
	SoapZinc
	SoapZincCan // a can whose label does not say what its binder is
	SoapFresh
	SoapAge  // mineral of unknown age
	SoapLime // shellac on fresh lime
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
	Step    int // from 1
	CoatNo  int // of the step's coats, from 1
	Product craft.Product
	Under   craft.Product // NoProduct on the old surface
	On      craft.Family
	Region  RegionKind
	Bare    bool // on the substrate itself, stained or treated as it may be
	First   bool // no film of the plan is below
	Closed  bool

	CapWhy  CapWhy
	Timing  Timing
	SiteWhy SiteWhy
	LiftWhy LiftWhy
	SoapWhy SoapWhy
	// Left is the word for the wait, where painters have one.
	Left craft.Saying
	// WetWith is what the surface was washed with, and Wet how many hours too soon for it the coat comes; 0
	// for none.
	WetWith craft.Carrier
	// Allows is how much too soon the coat may come.
	Allows drying.Tolerance
	Soils  [craft.NumSoils]uint8
	Wet    float64

	Additive float64
	// Factors multiply to the strength.
	Factors [NumTerms]float64
	// Cap limits the strength by what holds below; 1 does not.
	Cap float64
	// Strength of the boundary, 1 being a full bond.
	Strength float64

	Need, KeyGiven, Sens     float64
	Waited, Earliest, Latest float64 // hours, scaled to the site

	// PatchTests are the rated patch tests of this coat on this surface that its
	// grip was learned from, GripBefore what it was without them, and pair the
	// variance of the log of the grip that they leave.
	PatchTests int
	GripBefore float64
	pair       float64
}

// Divided is what painters disagree about here; nil for nothing.
func (b *Boundary) Divided(c *craft.Craft) *craft.Divide {
	if c.Products[b.Product].Label.Names(b.On) {
		return nil // the label makes it sure
	}
	return craft.Divided(b.On, c.Products[b.Product].Coat)
}

// Clash is why the coat must not lie on what is below; nil where it may.
func (b *Boundary) Clash(c *craft.Craft) *craft.Clash {
	if b.Under == craft.NoProduct || c.Products[b.Product].Label.Names(b.On) {
		return nil
	}
	return craft.ClashOf(c.Products[b.Product].Coat, c.Products[b.Under].Coat)
}

// The spreads of log strength. Working defaults.
const (
	spreadBase = .10
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

// spread leaves out what the terms from one on add.
func (b *Boundary) spread(c *craft.Craft, doubt float64, to Term) float64 {
	v := b.pair
	if b.PatchTests == 0 {
		v = pairVariance(c, b, doubt)
	}
	for t, f := range b.Factors {
		if f < 1 && Term(t) != Grip && Term(t) < to {
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
	if b.Bare {
		v += craft.Unsure[b.On] * craft.Unsure[b.On]
	}
	return v
}

// Risk is the probability that the boundary's strength is below a demand, for a log-normal strength
// with the estimate as its median. A bond that is too weak by its estimate is not made to look
// safer by uncertainty about key, soils, timing or air: the spread they add counts only while the
// estimate is above the demand, so that the risk never falls when a soil is added, a window missed or
// the air gets worse.
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

// A window is when the next coat may follow, in hours after the one below.
type window struct {
	from, to float64 // the earliest, never shorter than the label, and the latest
	again    float64 // when a product with two windows opens again, 0 for others
	left     craft.Saying
}

// What new shellac asks for: an hour under paints and enamels, two under clears, more over two coats,
// and the night under floor-grade clear. Working defaults.
const (
	shellacPaint = 1.
	shellacClear = 2.
	shellacTwo   = 4.
	// ShellacFresh is for how many hours a coat bites into new shellac without a scuff: the next day.
	ShellacFresh = 30.
)

// windowOf is the window that some coats of a product, one over another, leave to the next, in the air
// of the site.
func windowOf(p, next *craft.ProductRow, run uint8, cl drying.Climate) window {
	from, left := p.Recoat.From, p.Left
	switch {
	case p.Dried == craft.ShellacNew && next.Coat != craft.SH:
		switch {
		case next.Coat == craft.WH:
			left = craft.Overnight
		case next.Role == craft.RoleClear || next.Role == craft.RoleMedium:
			from = shellacClear
		default:
			from = shellacPaint
		}
		if run > 1 {
			from = max(from, shellacTwo)
		}
	case p.Coat == craft.WX && next.Coat == craft.WX:
		from = 0 // wax goes over fresh wax
	}
	if h, l := p.HardUnder(next); h > 0 {
		from, left = max(from, h), max(left, l)
	}
	pace := drying.FactorOf(p, cl)
	longer := max(1, drying.Stretch(pace))
	w := window{from: from * longer, to: p.Recoat.To * pace, left: left}
	if left != craft.NoSaying {
		said, _ := drying.Said(left, cl)
		w.from = max(from, said)
	}
	w.to = max(w.to, w.from)
	if p.Again > 0 {
		w.again = p.Again * longer
	}
	return w
}

// slowed is the window of a coat that was laid thicker or thinner than usual: the time to dry grows with the film to
// the power of 1.3. Working default.
func (w window) slowed(thick float64) window {
	if thick == 0 || thick == 1 {
		return w
	}
	n := math.Pow(thick, 1.3)
	return window{w.from * max(1, n), w.to * n, w.again * n, w.left}
}

// Recoats is the hours after a coat of a product in which the next of it may
// follow, at a site: the earliest, never shorter than the label, and the latest.
func Recoats(p *craft.ProductRow, cl drying.Climate) (from, to float64) {
	w := windowOf(p, p, 1, cl)
	return w.from, w.to
}

// sandFrom is when a coat may first be sanded at the site; a coat that is not
// sanded at all is left until it may be recoated.
func sandFrom(p *craft.ProductRow, cl drying.Climate) float64 {
	from := p.Sand
	if math.IsInf(from, 1) {
		from = p.Recoat.From
	}
	return drying.Earliest(from, p, cl)
}

const (
	mediumGrip = .35 // crackle and lift mediums are meant to come apart
	keyIsSound = .85
	kindred    = .9 // water-based clears of two kinds
)

// WantsKey tells whether the bond will want more key than the surface has, once that has hardened.
func (b *Boundary) WantsKey() bool {
	return 1-craft.Families[b.On].Need*(1-b.KeyGiven)*b.Sens < keyIsSound
}

// MissingKey tells whether so little key was given that the bond suffers.
func (b *Boundary) MissingKey() bool { return b.Factors[Key] < keyIsSound }

// TooEarly tells whether the coat came so much before it may that it matters, and badly whether it is
// expected to go wrong.
func (b *Boundary) TooEarly() (early, badly bool) {
	if b.Timing != TooSoon {
		return false, false
	}
	n := b.Allows.Short(b.Waited, b.Earliest)
	return n > 0, n > 1
}

// InTime tells whether the coat came when it may, or after a scuff.
func (b *Boundary) InTime() bool {
	early, _ := b.TooEarly()
	return !early && b.Timing != Missed && b.Timing != Between
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
		Additive: s.AdditiveIn(coatNo),
		Sens:     coat.Sens, KeyGiven: p.Key, Soils: p.Soils, Cap: 1,
	}
	b.Factors = [NumTerms]float64{1, 1, 1, 1, 1, 1, 1}

	var lower *craft.ProductRow
	if p.Product != craft.NoProduct {
		lower = &c.Products[p.Product]
		b.time(lower, up, p, s.Method, f.Air(p.At, hours), hours)
		if lower.Later != craft.NumFamilies && lower.Again > 0 && b.Waited >= b.Earliest && b.Earliest >= lower.Again {
			b.On = lower.Later
			fam = &craft.Families[b.On]
		}
	}

	// Grip.
	switch {
	case lower != nil && lower.Coat == craft.CM && up.Coat < craft.NumCoats:
		b.Factors[Grip] = mediumGrip
	case lower != nil && c.SameKind(p.Product, s.Product) && b.Timing != Between:
		b.Factors[Grip] = coat.Self
		if up.Coat == craft.MK && b.Additive > 0 {
			b.Factors[Grip] += (craft.Coats[craft.MB].Self - coat.Self) * min(1, b.Additive/craft.AdditiveFull)
		}
	default:
		b.Factors[Grip] = c.GripFor(b.On, s.Product, b.Additive)
		if b.Bare {
			if sub.Group == craft.GroupCane && b.On == craft.LacquerFilm && up.Coat < craft.NumCoats {
				b.Factors[Grip] = max(b.Factors[Grip], craft.OnSkin[up.Coat])
			}
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
	case b.Timing == OldSurface, b.Timing == Scuffed: // a missed window has a factor of its own
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
	air := f.Air(hours, hours)
	if air.TempC < up.MinC {
		b.SiteWhy |= Cold
	}
	if air.RH > up.MaxRH {
		b.SiteWhy |= Humid
	}
	const mayDew = 70 // per cent; in drier air no face as warm as it is near its dew point
	if f.SurfaceRead || air.RH > mayDew {
		switch m := f.AboveDew(air); {
		case m <= 0:
			b.SiteWhy |= BelowDew
			*site *= .6
		case m < drying.AboveDew:
			b.SiteWhy |= NearDew
		}
	}
	if b.SiteWhy&^BelowDew != 0 {
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

	b.Factors[Soap], b.SoapWhy = soap(sub, f, &b, up)
	b.Factors[Lift], b.LiftWhy = lift(c, f, p, &b, lower, up)
	const rounding = 1e-6
	if p.DryAt > hours+rounding && p.Bare {
		b.Wet, b.WetWith = p.DryAt-hours, p.WetWith
	}

	// What is below can come off by itself.
	if p.Powdery && !coat.Binds {
		b.Cap, b.CapWhy = .5, CapPowdery
	}
	if n := craft.Unkeyed[b.On]; n > 0 && b.Bare && !p.Scuffed {
		b.Cap = n
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
	w := windowOf(lower, up, p.Run, cl).slowed(p.Thick)
	if lower.Coat == craft.GZ && (method == "spray" || method == "aerosol") {
		w.left = craft.Overnight // no brush drags it
		w.from, _ = drying.Said(w.left, cl)
	}
	b.Waited, b.Earliest, b.Latest, b.Left = hours-p.At, w.from, w.to, w.left
	b.Allows = drying.ToleranceOf(lower, up)
	const rounding = 1e-9
	f := &b.Factors[Window]
	switch {
	case b.Waited < w.from-rounding:
		b.Timing = TooSoon
		*f = b.Allows.Holds(b.Waited, w.from)
	case lower.Dried == craft.ShellacNew && b.Waited > ShellacFresh && up.Coat != craft.SH:
		b.Timing = OldSurface // it counts by its key
		if p.Scuffed {
			b.Timing = Scuffed
		}
	case p.Leafed:
		b.Timing, b.Latest = Inside, craft.Never
	case b.Waited <= w.to+rounding:
		b.Timing = Inside
	case w.again > 0 && b.Waited >= w.again-rounding:
		b.Timing = Inside
		b.Earliest, b.Latest = w.again, craft.Never
	case w.again > 0 && up.Carrier != craft.Solvent && up.Carrier != craft.StrongSolvent:
		b.Timing = Inside // nothing in it wrinkles the can's film
		b.Latest = craft.Never
	case w.again > 0:
		b.Timing = Between
		b.Earliest = w.again
	case p.Scuffed && !lower.NoScuff:
		b.Timing = Scuffed
	default:
		b.Timing = Missed
		floor := craft.Coats[lower.Coat].Floor
		*f = max(floor, 1-(1-floor)*(b.Waited-w.to)/w.to)
	}
}

// What soap and strong solvent leave of a bond. Working defaults.
const (
	soapSure, soapCan, soapAge = .25, .95, .8

	liftFoam, liftBetween, liftYoungOil, liftYoungWater, liftOldFilm, liftPlastic = .2, .55, .5, .85, .85, .9
)

// YoungDays is for how many days strong solvent wrinkles a coat that hardens by oil, or may lift one
// that dries by losing water; in a cold or damp room for longer. Working default.
func YoungDays(why LiftWhy, p *craft.ProductRow, cl drying.Climate) float64 {
	switch why {
	case LiftYoungOil:
		return drying.Earliest(30, p, cl)
	case LiftYoungWater:
		return drying.Earliest(7, p, cl)
	}
	return 0
}

// soap is what is left of a bond whose binder zinc or fresh lime may turn to soap.
func soap(sub *craft.SubstrateRow, f *Facts, b *Boundary, up *craft.ProductRow) (float64, SoapWhy) {
	if !b.Bare || up.Label.Names(b.On) {
		return 1, NoSoap
	}
	soaps := craft.TraitsOf[up.Coat].Soaps
	can := up.Aerosol && up.Carrier == craft.StrongSolvent
	fresh := b.On == craft.MineralPorous && sub.Alkaline()
	switch {
	case b.On == craft.MetalZinc && soaps:
		return soapSure, SoapZinc
	case b.On == craft.MetalZinc && can:
		return soapCan, SoapZincCan
	case fresh && f.AgeDays >= 0 && f.AgeDays < craft.FreshMineral && soaps:
		return soapSure, SoapFresh
	case fresh && f.AgeDays >= 0 && f.AgeDays < craft.FreshMineral && up.Coat == craft.SH:
		return soapSure, SoapLime
	case fresh && f.AgeDays < 0 && soaps:
		return soapAge, SoapAge
	}
	return 1, NoSoap
}

// lift is what is left of a bond where the solvent of a coat works on what is below.
func lift(c *craft.Craft, f *Facts, p *Region, b *Boundary, lower, up *craft.ProductRow) (float64, LiftWhy) {
	solvent := up.Carrier == craft.Solvent || up.Carrier == craft.StrongSolvent
	switch {
	case solvent && b.Bare && c.Substrates[f.Substrate].Foam():
		return liftFoam, LiftFoam
	case b.Timing == Between:
		return liftBetween, LiftBetween
	case up.Carrier != craft.StrongSolvent && up.Coat != craft.EP || up.Coat == craft.ET:
		return 1, NoLift
	case lower == nil && b.Bare:
		if b.On == craft.PlasticHard && up.Coat != craft.EP && !c.Substrates[f.Substrate].Foam() {
			return liftPlastic, LiftPlastic
		}
		return 1, NoLift
	case lower == nil:
		switch b.On {
		case craft.AlkydPaint, craft.AcrylicPaint, craft.ShellacFilm, craft.LacquerFilm:
			switch {
			case c.Finishes[f.Finish].Hard:
			case up.Coat == craft.AE: // what cans and lacquers do to an old film is in their grip already
				return 1, LiftOldFilm
			default:
				return liftOldFilm, LiftOldFilm
			}
		}
		return 1, NoLift
	}
	days, air := b.Waited/24, f.Air(p.At, p.At+b.Waited)
	switch {
	case lower.Carrier == craft.StrongSolvent || lower.TwoPart || lower.Coat == craft.PP:
		return 1, NoLift
	case lower.Coat == craft.SH:
		return 1, LiftMist
	case lower.Carrier == craft.Solvent && lower.LeavesFilm() && days < YoungDays(LiftYoungOil, lower, air):
		return liftYoungOil, LiftYoungOil
	case lower.Carrier == craft.Water && lower.Role != craft.RolePrimer && lower.LeavesFilm() && days < YoungDays(LiftYoungWater, lower, air):
		return liftYoungWater, LiftYoungWater
	}
	return 1, NoLift
}
