// Package quantity works out how much of everything a plan takes: litres of each coat, what is to be taken
// from which can, whether that is enough, what to buy, and what is used up besides.
package quantity

import (
	"math"

	"rutile/core/craft"
	"rutile/core/surface"
)

// Litres is an amount of liquid as it is expected, with the least and the most that different hands take.
type Litres struct{ Least, Likely, Most float64 }

// How far a hand may be off the cover on a label: one spreads thin, another lays it on. Working default.
const thinHand, fullHand = .85, 1.25

func litres(x float64) Litres { return Litres{x * thinHand, x, x * fullHand} }

// Plus adds two amounts.
func (l Litres) Plus(o Litres) Litres {
	return Litres{l.Least + o.Least, l.Likely + o.Likely, l.Most + o.Most}
}

// Times is an amount several times.
func (l Litres) Times(x float64) Litres { return Litres{l.Least * x, l.Likely * x, l.Most * x} }

// Coat is what one coat of a zone takes.
type Coat struct {
	Zone    int // the caller's number of the zone
	Step    int // from 1
	CoatNo  int // of the step's coats, from 1
	Product craft.Product
	Can     int // of the piece's cans, from 1; 0 for none in particular
	Colour  string
	// Mixed is everything that goes into the pot, and the others are what it is made of: paint from the can,
	// as powder where it is one, water or thinner or hardener, and bonding additive.
	Mixed, Paint, Thinner, Additive Litres
	// What it was made of: square metres, how much more the relief takes, what the ground soaks up, square
	// metres per litre, and the share that never reaches the surface.
	Area, Relief, Soaks, Cover, Loss float64
	// Sprayed and Label tell that it is sprayed, and that its cover is from the label of a can.
	Sprayed, Label bool
}

// Zone is what is to be covered.
type Zone struct {
	Facts *surface.Facts
	// Relief is how much more there is to cover than the tape says; 0 counts as 1.
	Relief float64
	// Trace is the walk through its plan.
	Trace *surface.Trace
}

// The figures of what grounds take. Working defaults: soaked is what a fully absorbent ground takes more in
// its first coat, and oldPaint how absorbent a matt porous paint is.
const (
	soaked   = .35
	oldPaint = .5
)

// Reliefs of bare materials, where no parts say otherwise. Working defaults.
const (
	openGrain = 1.1
	weave     = 1.4
	cloth     = 1.2
)

// ReliefOf is how much more a material takes than the tape says: that of its parts, or of its own texture
// where that is more.
func ReliefOf(c *craft.Craft, f *surface.Facts, parts float64) float64 {
	out := max(1, parts)
	sub := &c.Substrates[f.Substrate]
	switch {
	case sub.Group == craft.GroupCane:
		out = max(out, weave)
	case sub.Family == craft.Textile:
		out = max(out, cloth)
	case c.Finishes[f.Finish].Bare && sub.Mark() == "open":
		out = max(out, openGrain)
	}
	return out
}

// powderYield is what one volume of powder adds to the water it is mixed into: one to one gives 1.55.
// Working default.
const powderYield = .55

// Coats are what the coats of a zone take: area x relief / cover / (1 - loss), the first coat on an absorbent
// ground more. Those that were laid take nothing any more. Where the area is not known there are none.
func Coats(c *craft.Craft, z *Zone, zone int) []Coat {
	if !(z.Facts.Area > 0) {
		return nil
	}
	var out []Coat
	for i := range z.Trace.Events {
		e := &z.Trace.Events[i]
		s := e.Doing
		if s.Do != surface.Coat || e.Done != nil {
			continue
		}
		row := &c.Products[s.Product]
		m, _ := craft.MethodNamed(s.Method)
		x := Coat{
			Zone: zone, Step: e.Step, CoatNo: e.CoatNo, Product: s.Product, Can: row.Can, Colour: s.Colour,
			Area: z.Facts.Area, Relief: max(1, z.Relief), Soaks: soaks(c, z.Facts, e), Cover: row.Cover, Loss: m.Loss,
			Sprayed: m.ID == "spray", Label: row.Label.Gives(craft.LabelCover),
		}
		if s.Scope != surface.All {
			x.Area *= surface.SpotShare
		}
		x.split(row, s)
		out = append(out, x)
	}
	return out
}

// Makes is how many litres ready to use a litre from the can makes, as it is usually mixed.
func Makes(row *craft.ProductRow) float64 { return makes(row, row.Ratio) }

func makes(row *craft.ProductRow, ratio float64) float64 {
	switch {
	case row.Powder():
		return powderYield + ratio
	case row.TwoPart:
		return 1 + ratio
	}
	return 1
}

// split works out the amounts of a coat.
func (x *Coat) split(row *craft.ProductRow, s *surface.Step) {
	x.Mixed = litres(x.Area * x.Relief * x.Soaks / x.Cover / (1 - x.Loss))
	additive, thin := s.AdditiveIn(x.CoatNo), s.ThinPct/100
	paint := x.Mixed.Times(1 / (1 + additive + thin))
	x.Additive, x.Thinner = paint.Times(additive), paint.Times(thin)
	ratio := row.Ratio
	if row.Powder() && s.WaterRatio > 0 {
		ratio = s.WaterRatio
	}
	x.Paint = paint.Times(1 / makes(row, ratio))
	if row.Powder() || row.TwoPart { // the rest is water or hardener
		x.Thinner = x.Thinner.Plus(x.Paint.Times(ratio))
	}
}

// soaks is how much more a coat takes of what it lands on: a bare absorbent material, and matt porous paint
// under something else.
func soaks(c *craft.Craft, f *surface.Facts, e *surface.Event) float64 {
	for _, b := range e.Boundaries() {
		switch {
		case b.Region != surface.Field && b.Region != surface.SpotRegion:
		case b.Bare:
			return 1 + soaked*c.Substrates[f.Substrate].Porosity
		case b.On == craft.PorousPaint && (b.Under == craft.NoProduct || !c.SameKind(b.Under, b.Product)):
			return 1 + soaked*oldPaint
		}
	}
	return 1
}

// Tin is a number of cans of one size to buy.
type Tin struct {
	Litres float64
	Count  int
}

// Tins are the cans to buy for an amount, of the sizes that it is sold in: as few as leave little over; the
// size that holds the rest, after full ones of the largest.
func Tins(sizes []float64, need float64) []Tin {
	if len(sizes) == 0 || !(need > 0) {
		return nil
	}
	const exact = 1e-9
	largest := sizes[0]
	for _, s := range sizes {
		largest = max(largest, s)
	}
	n := math.Floor(need/largest + exact)
	rest := need - n*largest
	var out []Tin
	if n > 0 {
		out = append(out, Tin{largest, int(min(n, 1e6))})
	}
	if rest <= exact {
		return out
	}
	fits := largest
	for _, s := range sizes {
		if s >= rest-exact && s < fits {
			fits = s
		}
	}
	if len(out) > 0 && fits == largest {
		out[0].Count++
		return out
	}
	return append(out, Tin{fits, 1})
}
