package drying

import (
	"math"

	"rutile/core/craft"
)

// This file says what an ordinary room is, how much too short a wait may be, and what the words mean
// that painters use for waits. Every rule, the walk and the planner ask here.

// The factors between which a room is ordinary: the times on labels hold as they stand. Working
// default.
const (
	ordinaryFrom = .8
	ordinaryTo   = 1.3
)

// Ordinary tells whether a product's label times hold in some air as they stand.
func Ordinary(p *craft.ProductRow, cl Climate) bool {
	f := FactorOf(p, cl)
	return f >= ordinaryFrom && f <= ordinaryTo
}

// FactorOf is how many times longer than at [Standard] a product takes: a two-part one doubles with
// every ten degrees colder, and others by their carrier as [Factor] says.
func FactorOf(p *craft.ProductRow, cl Climate) float64 {
	if p.TwoPart {
		return math.Exp2((Standard.TempC - cl.TempC) / 10)
	}
	return Factor(p.Carrier, cl)
}

// Stretch is how many times a label's time is multiplied where a factor is outside the ordinary: it
// counts from the edge of the band, so that there is no jump.
func Stretch(factor float64) float64 {
	switch {
	case factor > ordinaryTo:
		return factor / ordinaryTo
	case factor < ordinaryFrom:
		return factor / ordinaryFrom
	}
	return 1
}

// Earliest is when something may be done at the earliest that a label allows after some hours; never
// sooner than the label says.
func Earliest(hours float64, p *craft.ProductRow, cl Climate) float64 {
	return hours * max(1, Stretch(FactorOf(p, cl)))
}

// Dries is the same for something that dries without being a product, by its carrier.
func Dries(hours float64, car craft.Carrier, cl Climate) float64 {
	return hours * max(1, Stretch(Factor(car, cl)))
}

// Latest is when a window closes: it is never flattened, and shortens in heat.
func Latest(hours float64, p *craft.ProductRow, cl Climate) float64 {
	return hours * FactorOf(p, cl)
}

// PotLife is how many hours a product can be used once it is mixed: half as long for every ten degrees warmer for
// a two-part one, and for every twelve for one that goes off by itself. Damp does not count. It is never flattened;
// craft.Never where it keeps. Working default.
func PotLife(p *craft.ProductRow, cl Climate) float64 {
	per := 12.
	if p.TwoPart {
		per = 10
	}
	return p.PotLife * math.Exp2((Standard.TempC-cl.TempC)/per)
}

// FullCure is after how many days a product is hard all the way through: as its label says, and never
// sooner.
func FullCure(p *craft.ProductRow, cl Climate) float64 {
	return p.Cure * max(1, math.Exp2((Standard.TempC-cl.TempC)/12))
}

// Beyond these a day's wait becomes two. Working defaults.
const (
	rawC  = 12.
	rawRH = 75.
)

// Said is how many hours a saying is at the least and at the most in some air: it does not shrink in
// a heated room, and in a cold or damp one it becomes two.
func Said(s craft.Saying, cl Climate) (from, to float64) {
	row := &craft.Sayings[s]
	n := 1.
	if cl.TempC < rawC || cl.RH > rawRH {
		n = 2
	}
	return n * row.From, n * row.To
}

// Tolerance is how much of a wait must have passed: below one share it can go wrong, below another it
// is expected to.
type Tolerance uint8

// The tolerances. Labels are rounded, and workshops are not laboratories; what dries by hardening
// forgives less than what dries by losing water.
const (
	waterUnderWater Tolerance = iota
	slow
	byLabel
	// Whole is that of full cure for food and children, and of wet wood.
	Whole
)

// shares of the tolerances. Working defaults.
var shares = [...]struct{ watch, fail float64 }{
	waterUnderWater: {.70, .40},
	slow:            {.85, .60},
	byLabel:         {1, .9},
	Whole:           {1, 1},
}

// Shares are the shares of a wait below which a coat can go wrong, and is expected to.
func (t Tolerance) Shares() (watch, fail float64) { return shares[t].watch, shares[t].fail }

// ToleranceOf is that of a coat under another.
func ToleranceOf(lower, upper *craft.ProductRow) Tolerance {
	switch {
	case lower.TwoPart:
		return byLabel
	case lower.Carrier == craft.Alcohol, lower.Carrier == craft.Paste:
		return waterUnderWater
	case lower.Alkyd, lower.Carrier != craft.Water:
		return slow
	case upper.Carrier == craft.Solvent, upper.Carrier == craft.StrongSolvent, upper.Carrier == craft.OilCarrier, upper.Carrier == craft.Alcohol:
		return slow
	}
	return waterUnderWater
}

// Short grades a wait of some hours where others are needed: 0 for long enough, 1 where it can go
// wrong, 2 where it is expected to.
func (t Tolerance) Short(waited, needed float64) int {
	const rounding = 1e-9
	switch {
	case waited < shares[t].fail*needed-rounding:
		return 2
	case waited < shares[t].watch*needed-rounding:
		return 1
	}
	return 0
}

// What is left of a bond at the edge below which a wait that is too short is expected to spoil the
// coat, so that an ordinary bond is about as likely to fail as not; and where nothing waited at all.
// Working defaults.
const holdsAtFail, holdsAtOnce = .6, .3

// Holds is the share of a bond that is left where a coat came too soon: all of it while the wait is
// within the tolerance, and from there on less without a jump.
func (t Tolerance) Holds(waited, needed float64) float64 {
	watch, fail := shares[t].watch*needed, shares[t].fail*needed
	switch {
	case t.Short(waited, needed) == 0 || needed <= 0:
		return 1
	case waited < fail:
		return holdsAtOnce + (holdsAtFail-holdsAtOnce)*max(0, waited)/fail
	case watch <= fail:
		return holdsAtFail
	}
	return holdsAtFail + (1-holdsAtFail)*(waited-fail)/(watch-fail)
}
