package drying

import "math"

// Course is the air of a workshop as it was read, over time. The zero value has no reading.
type Course struct{ stretches []stretch }

// stretch is a time in hours for which a reading stands, with how fast things dry in its air.
type stretch struct {
	from, to, rate float64
	air            Climate
}

// Stands is for how many hours a reading counts as the air, if no other follows. Working default.
const Stands = 12.

// Add adds a reading at a moment in hours, not before the one added last.
func (c *Course) Add(at float64, air Climate) {
	if n := len(c.stretches); n > 0 {
		last := &c.stretches[n-1]
		if last.air == air && at <= last.to {
			last.to = at + Stands
			return
		}
		last.to = min(last.to, at)
	}
	c.stretches = append(c.stretches, stretch{at, at + Stands, math.Exp2(air.TempC / 12), air})
}

// When is the air at a moment in hours: that of the last reading before it, or the usual air where there is none or it
// is too old.
func (c *Course) When(h float64, usual Climate) Climate {
	for i := len(c.stretches) - 1; i >= 0; i-- {
		if r := &c.stretches[i]; r.from <= h {
			if h > r.to {
				return usual
			}
			return r.air
		}
	}
	return usual
}

// Over is the air that counts between two moments in hours: the temperature at which things dry as far in that time
// as they did, by the doubling every twelve degrees of [Factor], and the mean humidity. Times without a reading count
// with the usual air. Working default.
func (c *Course) Over(from, to float64, usual Climate) Climate {
	if !(to > from) {
		return c.When(from, usual)
	}
	for i := range c.stretches { // most often one covers all of it
		if r := &c.stretches[i]; r.from <= from && to <= r.to {
			return r.air
		}
	}
	var rate, rh float64
	warm := math.Exp2(usual.TempC / 12)
	at := from
	for i := range c.stretches {
		r := &c.stretches[i]
		if r.to <= at || r.from >= to {
			continue
		}
		begin, end := max(at, r.from), min(r.to, to)
		rate += (begin-at)*warm + (end-begin)*r.rate
		rh += (begin-at)*usual.RH + (end-begin)*r.air.RH
		at = end
	}
	rate, rh = rate+(to-at)*warm, rh+(to-at)*usual.RH
	span := to - from
	return Climate{TempC: 12 * math.Log2(rate/span), RH: rh / span}
}
