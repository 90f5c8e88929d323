// Package card puts together what a painter works from with wet hands: for each coat a mixing card and a laying
// card. What a card says is in the rows of products and looks (core/craft); this package chooses the lines that hold
// for the piece and fills in the amounts, times and sizes.
package card

import (
	"fmt"
	"math"
	"regexp"
	"strconv"

	"rutile/core/craft"
	"rutile/core/drying"
	"rutile/core/measure"
	"rutile/core/quantity"
	"rutile/core/surface"
)

// Coat is a coat of a plan, as cards look at it.
type Coat struct {
	Craft *craft.Craft
	Facts *surface.Facts
	Trace *surface.Trace
	// At is the index of its event in the trace.
	At    int
	Look  *craft.EffectRow // nil for a solid face
	Air   drying.Climate
	Units measure.Units
	// Turned and Flat tell what kinds of parts the zone has, Upright that it stands while it is painted, and
	// Parts that its parts are known.
	Turned, Flat, Upright, Parts bool
	// Masked is what is masked or stays in place, and Beside the zones that meet it; in words.
	Masked, Beside []string
}

// Step is one thing to do.
type Step struct {
	Says  string
	Clock *Clock
}

// Clock is one that a card offers.
type Clock struct {
	Timer craft.Timer
	Says  string
	// Seconds it runs in this air; Need at the pace of an ordinary room, and Least what no touch test makes it
	// shorter than.
	Seconds, Need, Least float64
	// Pace is how many times longer it takes in this air.
	Pace float64
}

func (k *Coat) event() *surface.Event    { return &k.Trace.Events[k.At] }
func (k *Coat) step() *surface.Step      { return k.event().Doing }
func (k *Coat) row() *craft.ProductRow   { return &k.Craft.Products[k.step().Product] }
func (k *Coat) laying() *craft.LayingRow { return craft.LayingNamed(k.row().Laying) }

// Holds tells whether a line's condition holds for the coat in a batch.
func (k *Coat) holds(w craft.When, b *quantity.Batch) bool {
	s, sub := k.step(), &k.Craft.Substrates[k.Facts.Substrate]
	method := s.Method
	if method == "" {
		method = craft.Methods[0].ID
	}
	bare := k.bare()
	switch w {
	case craft.WithAdditive:
		return s.AdditiveIn(k.event().CoatNo) > 0
	case craft.WithoutAdditive:
		return k.row().Powder() && s.AdditiveIn(k.event().CoatNo) == 0 && !bare && (k.Look == nil || !k.Look.Flakes())
	case craft.WhenThinned:
		return s.ThinPct > 0
	case craft.WhenSprayed:
		return method == "spray"
	case craft.WhenBrushed:
		return method == "brush" || method == "foam" || method == "pad"
	case craft.ByHand:
		return method != "spray" && !k.row().Aerosol
	case craft.WhenPots:
		return b != nil && b.Pots > 1
	case craft.WhenWarm:
		return k.Air.TempC > 26
	case craft.OnWood:
		return bare && (sub.Group == craft.GroupWood || sub.Group == craft.GroupBoard)
	case craft.OnMetal:
		return sub.Group == craft.GroupMetal
	case craft.OnGlass:
		return sub.Group == craft.GroupGlass
	case craft.OnFilm:
		return sub.Group == craft.GroupFilm || sub.Group == craft.GroupPlastic
	case craft.OnUpright:
		return k.Upright
	case craft.WhenLater:
		return k.again()
	}
	return true
}

// bare tells whether the coat lands on the bare material.
func (k *Coat) bare() bool {
	for _, b := range k.event().Boundaries() {
		if b.Bare {
			return true
		}
	}
	return false
}

// again tells whether the coat lies on one of its own kind.
func (k *Coat) again() bool {
	for _, b := range k.event().Boundaries() {
		if b.Under != craft.NoProduct && k.Craft.SameKind(b.Under, b.Product) {
			return true
		}
	}
	return false
}

// lines are those of a row that hold.
func (k *Coat) lines(of []craft.Line, b *quantity.Batch) []craft.Line {
	var out []craft.Line
	for _, l := range of {
		if k.holds(l.When, b) && !(l.Strains && k.step().Mix().Unstrained) {
			out = append(out, l)
		}
	}
	return out
}

// clock is one that runs some hours, as a timer's do.
func (k *Coat) clock(t craft.Timer, hours, least float64) *Clock {
	if !(hours > 0) || math.IsInf(hours, 1) {
		return nil
	}
	c := &Clock{Timer: t, Says: craft.Timers[t].Name, Need: hours * 3600, Least: least * 3600, Pace: k.pace(t)}
	c.Seconds = max(c.Least, c.Need*c.Pace)
	c.Says += ", " + spanOf(t, c.Seconds)
	return c
}

// Pace is how many times longer a timer takes in some air, for a product: what dries only takes longer, and what
// closes comes sooner as well.
func Pace(t craft.Timer, row *craft.ProductRow, air drying.Climate) float64 {
	r := &craft.Timers[t]
	switch {
	case t == craft.TimePot || t == craft.TimeKeeps:
		if row.PotLife >= craft.Never {
			return 1
		}
		return drying.PotLife(row, air) / row.PotLife
	case t == craft.TimeEdge || t == craft.TimeWipe || r.Ends:
		return drying.FactorOf(row, air)
	case r.Dries:
		return max(1, drying.Stretch(drying.FactorOf(row, air)))
	}
	return 1
}

func (k *Coat) pace(t craft.Timer) float64 { return Pace(t, k.row(), k.Air) }

// Span words seconds: whole seconds below two minutes, and minutes, hours or days above.
func Span(s float64) string {
	if s < 120 {
		return fmt.Sprintf("%.0f s", math.Ceil(s-1e-6))
	}
	return measure.Hours(s / 3600)
}

// spanOf words how long a timer runs: rounded down where something is over then.
func spanOf(t craft.Timer, s float64) string {
	if craft.Timers[t].Ends && s >= 120 {
		return measure.Within(s / 3600)
	}
	return Span(s)
}

var sized = regexp.MustCompile(`\{(?:([0-9.]+) to )?([0-9.]+) (mm|cm|m)\}`)

// words writes the sizes in a text, as {50 mm} or {40 to 50 mm}, in the studio's units.
func (k *Coat) words(s string) string {
	return sized.ReplaceAllStringFunc(s, func(m string) string {
		p := sized.FindStringSubmatch(m)
		from, _ := strconv.ParseFloat(p[1], 64)
		to, _ := strconv.ParseFloat(p[2], 64)
		if from > 0 {
			return k.Units.Tools(from, to, p[3])
		}
		return k.Units.Tool(to, p[3])
	})
}

// inUnits writes the sizes in some texts in the studio's units.
func (k *Coat) inUnits(texts ...*string) {
	for _, t := range texts {
		*t = k.words(*t)
	}
}

func (k *Coat) allInUnits(texts []string) {
	for i := range texts {
		k.inUnits(&texts[i])
	}
}

func (k *Coat) stepsInUnits(steps []Step) {
	for i := range steps {
		k.inUnits(&steps[i].Says)
	}
}
