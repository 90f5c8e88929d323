package surface

import "rutile/core/craft"

// This file says how long hands are busy. Every figure is for one person who does it for a living.

// How far hours of work may be off: a quick pair of hands on a plain day, and a slow one on a bad.
// Working defaults.
const workLess, workMore = .85, 1.3

// HoursRange is the range in which a number of hours of work lies.
func HoursRange(hours float64) (least, most float64) { return hours * workLess, hours * workMore }

// WorkMinutes is what one visit to the whole zone takes, in minutes, at some minutes for a square
// metre of plain work; 0 where the area is not known.
func (f *Facts) WorkMinutes(perM2 float64) float64 {
	if f.Area <= 0 {
		return 0
	}
	return craft.MinutesSetUp + perM2*f.Pace()*f.Area
}

// CoatMinutes is what the n-th coat of a step, from 1, takes over the whole zone, in minutes, and how
// many of them are spent before and after it: setting up, mixing and cleaning up. Both are 0 where the
// area is not known.
func (f *Facts) CoatMinutes(c *craft.Craft, s *Step, n int) (minutes, setUp float64) {
	if f.Area <= 0 {
		return 0, 0
	}
	m, _ := craft.MethodNamed(s.Method)
	row := &c.Products[s.Product]
	setUp = m.SetUp
	switch {
	case row.Alkali:
		setUp += craft.MinutesMixPowder
	case row.TwoPart:
		setUp += craft.MinutesMixTwoPart
	case row.ByParts:
		setUp += craft.MinutesMixOwn
	}
	if s.Scope != All {
		return setUp + f.Area*SpotShare*m.Minutes, setUp
	}
	minutes = setUp + m.Minutes*f.Pace()*f.Area + m.Edge*f.EdgesM
	if n > 1 && row.LiesSmooth() {
		minutes += craft.MinutesBetween * f.Pace() * f.Area
	}
	return minutes, setUp
}

// Minutes is how long one coat of a step, or any other step, is expected to take; 0 where the area is not known.
func (f *Facts) Minutes(c *craft.Craft, s *Step) float64 {
	if s.Do == Coat {
		m, _ := f.CoatMinutes(c, s, 1)
		return m
	}
	return f.WorkMinutes(perM2(c, s))
}

// perM2 is how many minutes a square metre of a step takes that is no coat; 0 for what takes no hands.
func perM2(c *craft.Craft, s *Step) float64 {
	switch s.Do {
	case Clean:
		return c.Cleaners[s.Cleaner].Minutes * float64(s.NumPasses())
	case Abrade:
		if s.How == craft.Machine {
			return craft.MinutesAbradeMachine
		}
		return craft.MinutesAbradeHand
	case Dust:
		return craft.MinutesDust
	case RaiseGrain:
		return craft.MinutesRaiseGrain
	case Strip:
		return craft.MinutesStrip
	case Fill:
		return craft.MinutesFill
	case Repair:
		return craft.MinutesRepair
	case Mask:
		return craft.MinutesMask
	case Remove:
		return craft.MinutesRemove
	case Reassemble:
		return craft.MinutesReassemble
	case Effect:
		if x, ok := c.Effect(s.Effect); ok {
			return c.Effects[x].Minutes
		}
	}
	return 0
}
