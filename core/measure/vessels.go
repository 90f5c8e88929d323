package measure

import (
	"fmt"
	"math"
	"strings"
)

// Vessel is what a painter measures with when mixing.
type Vessel uint8

// The vessels. Weight is a kitchen scale, the others hold a volume.
const (
	Millilitres Vessel = iota
	Grams
	Spoons
	Cups
	FluidOunces
	Quarts
	NumVessels
)

// Vessels describes them, indexed by Vessel.
var Vessels = [NumVessels]struct{ ID, Name string }{
	Millilitres: {"ml", "Millilitres"}, Grams: {"grams", "Grams, on a scale"}, Spoons: {"spoons", "Spoons"},
	Cups: {"cups", "Cups"}, FluidOunces: {"fl_oz", "Fluid ounces"}, Quarts: {"quarts", "Quarts"},
}

// VesselNamed returns the vessel with an id; false if there is none.
func VesselNamed(id string) (Vessel, bool) {
	for i := range Vessels {
		if Vessels[i].ID == id {
			return Vessel(i), true
		}
	}
	return 0, false
}

// Measures are a painter's own measures for mixing.
type Measures struct {
	By Vessel
	// Units decide what a spoon holds.
	Units Units
	// CupML is what a cup holds, in millilitres; 0 where nobody knows.
	CupML float64
}

// What cups hold by standard, in millilitres: the metric cup, and the US customary cup of 8 fluid ounces.
const (
	MetricCup = 250.
	USCup     = 8 * litresPerFlOz * 1000
)

// LeastCup and MostCup bound what a cup may hold, in millilitres.
const LeastCup, MostCup = 20., 1000.

// UsualMeasures are those of a studio that has not said its own.
func UsualMeasures(u Units) Measures {
	if u == US {
		return Measures{By: Cups, Units: US, CupML: USCup}
	}
	return Measures{By: Millilitres}
}

// Check refuses measures that nothing can be measured with. The error is an *[Error].
func (m Measures) Check() error {
	switch {
	case m.By != Cups:
		return nil
	case m.CupML == 0:
		return bad("It is not known what your cup holds. Fill it with water and weigh that: a gram is a millilitre. A metric cup holds 250 ml, a US cup 237 ml.")
	}
	return CheckCup(m.CupML)
}

// CheckCup refuses a size in millilitres that no cup has. The error is an *[Error].
func CheckCup(ml float64) error {
	if !(ml >= LeastCup && ml <= MostCup) {
		return bad("A cup of %s ml is no cup; it holds from %.0f to %.0f ml.", short(ml, 1), LeastCup, MostCup)
	}
	return nil
}

// scoop is something that is filled level: what it holds in millilitres, and the parts of it that are marked
// on it or are usual as measures of their own.
type scoop struct {
	one, many string
	ml        float64
	parts     []part
	most      int // whole ones that anybody would count out
}

type part struct {
	word string
	of   float64
}

var (
	quarters = []part{{"¼", .25}, {"½", .5}, {"¾", .75}}
	thirds   = []part{{"¼", .25}, {"⅓", 1. / 3}, {"½", .5}, {"⅔", 2. / 3}, {"¾", .75}}
)

// Spoons: metric ones of 15 and 5 ml, US ones of a half and a sixth of a fluid ounce.
const (
	tablespoon, teaspoon = 15., 5.
	usTablespoon         = litresPerFlOz * 1000 / 2
	usTeaspoon           = litresPerFlOz * 1000 / 6
)

// scoops are the measures of a vessel, the largest first. Every one is also read where it is typed.
func (m Measures) scoops() []scoop {
	table, tea := tablespoon, teaspoon
	if m.Units == US {
		table, tea = usTablespoon, usTeaspoon
	}
	spoons := []scoop{{"tbsp", "tbsp", table, nil, 12}, {"tsp", "tsp", tea, quarters, 2}}
	switch m.By {
	case Spoons:
		return spoons
	case Cups:
		return append([]scoop{{"cup", "cups", m.CupML, thirds, 40}}, scoop{"tbsp", "tbsp", table, nil, 5}, scoop{"tsp", "tsp", tea, quarters, 2})
	case FluidOunces:
		return []scoop{{"fl oz", "fl oz", litresPerFlOz * 1000, quarters, 200}, {"tsp", "tsp", usTeaspoon, quarters, 5}}
	case Quarts:
		return []scoop{{"quart", "quarts", litresPerQuart * 1000, quarters, 200}, {"fl oz", "fl oz", litresPerFlOz * 1000, quarters, 7}, {"tsp", "tsp", usTeaspoon, quarters, 5}}
	}
	return nil
}

// waste is the share by which rounding up may enlarge an amount before finer measures are taken. Working
// default.
const waste = .06

// Measured is an amount as it can be measured.
type Measured struct {
	Litres float64
	// Grams is its weight where it is weighed, otherwise 0.
	Grams float64
	Says  string
}

// Up is the least that can be measured with the painter's own measures and is not less than an amount in
// litres; density is what a litre of it weighs in kilograms, for the scale. It wastes at
// most a tenth, but for what is less than a spoonful.
func (m Measures) Up(litres, density float64) Measured {
	if !(litres > 0) {
		return Measured{Says: "none"}
	}
	switch m.finest(litres) {
	case Millilitres:
		return m.of(stepUp(litres*1000, mlStep(litres*1000)) / 1000)
	case Grams:
		g := litres * 1000 * density
		g = stepUp(g, gramStep(g))
		return Measured{Litres: g / density / 1000, Grams: g, Says: grams(g)}
	}
	ml := litres * 1000
	var best candidate
	cost := math.Inf(1)
	for _, x := range m.candidates(ml) {
		if x.ml < ml*(1-exact) {
			continue
		}
		over := (x.ml - ml) / ml
		// A handful of scoops is easier to get right than many; wasting much is worse than both.
		c := x.scoops + 4*max(0, over-waste)/waste + over
		if c < cost-exact {
			best, cost = x, c
		}
	}
	if best.ml > 0 {
		return Measured{Litres: best.ml / 1000, Says: join(best.words)}
	}
	// Less than the smallest measure, or more than anybody scoops.
	s := m.scoops()
	small := s[len(s)-1]
	step := small.ml
	if len(small.parts) > 0 {
		step *= small.parts[0].of
	}
	if ml > small.ml*1000 {
		step = s[0].ml
	}
	return m.of(stepUp(ml, step) / 1000)
}

// mostSpoons is how many tablespoons anybody counts out; more go by the jug.
const mostSpoons = 12

// finest is what an amount is measured with: many spoonfuls go by the jug.
func (m Measures) finest(litres float64) Vessel {
	if m.By == Spoons && litres*1000 > mostSpoons*m.scoops()[0].ml*(1+1e-6) {
		return Millilitres
	}
	return m.By
}

// exact is of rounding errors that must not add a step.
const exact = 1e-9

func stepUp(x, step float64) float64 { return math.Ceil(x/step-1e-6) * step }

// Steps of a measuring jug and of a kitchen scale. Working defaults.
func mlStep(ml float64) float64 {
	switch {
	case ml <= 30:
		return 1
	case ml <= 60:
		return 2
	case ml <= 200:
		return 5
	case ml <= 1000:
		return 10
	}
	return 50
}

func gramStep(g float64) float64 {
	switch {
	case g <= 5:
		return .1
	case g <= 30:
		return .5
	case g <= 100:
		return 1
	case g <= 1000:
		return 5
	}
	return 50
}

// candidate is an amount that some scoops add up to: how much trouble they are, and what they are called.
type candidate struct {
	ml, scoops float64
	words      []string
}

// candidates are amounts around one that its scoops add up to.
func (m Measures) candidates(ml float64) []candidate {
	out := []candidate{{}}
	for _, s := range m.scoops() {
		var next []candidate
		each := 1. / 20 // the trouble of one more of the same
		if s.ml < 20 {
			each = 1. / 8 // spoons are easily miscounted
		}
		for _, had := range out {
			next = append(next, had)
			rest := ml - had.ml
			if rest <= 0 {
				continue
			}
			n := math.Floor(rest / s.ml)
			for _, whole := range []float64{n, n + 1} {
				if whole > float64(s.most) {
					continue
				}
				if whole > 0 {
					next = append(next, had.with(whole*s.ml, 1+whole*each, counted(whole, "", s)))
				}
				for _, p := range s.parts {
					next = append(next, had.with((whole+p.of)*s.ml, 1.5+whole*each, counted(whole, p.word, s)))
				}
			}
		}
		out = next
	}
	return out[1:]
}

func (c candidate) with(ml, scoops float64, word string) candidate {
	return candidate{c.ml + ml, c.scoops + scoops, append(c.words[:len(c.words):len(c.words)], word)}
}

// of words an amount that can be measured.
func (m Measures) of(litres float64) Measured {
	return Measured{Litres: litres, Says: m.Says(litres)}
}

// Says words an amount in litres in the painter's measures, to the finest of them: "1 ½ cups and 2 tbsp". What
// [Measures.Up] returns is worded without loss, and [Measures.Read] reads it back. Weights are worded by Up alone.
func (m Measures) Says(litres float64) string {
	ml := litres * 1000
	switch {
	case !(litres > 0):
		return "none"
	case m.By == Grams || m.finest(litres) == Millilitres:
		if ml >= 1000 {
			return short(litres, 2) + " l"
		}
		return short(ml, 1) + " ml"
	}
	scoops := m.scoops()
	var out []string
	for i, s := range scoops {
		n := math.Floor(ml/s.ml + 1e-6)
		rest := ml - n*s.ml
		word, share := "", 0.
		for _, p := range s.parts {
			// A part is taken where it comes out even, or nothing finer is left to take.
			off := rest - p.of*s.ml
			if math.Abs(off) < 1e-6*s.ml+1e-9 || off > 0 && i < len(scoops)-1 && finer(scoops[i+1:], off) {
				word, share = p.word, p.of
			}
		}
		if n == 0 && word == "" {
			continue
		}
		if word == "" && i < len(scoops)-1 || word != "" || i == len(scoops)-1 {
			ml -= (n + share) * s.ml
			out = append(out, counted(n, word, s))
		}
		if ml < 1e-6 {
			break
		}
	}
	if len(out) == 0 {
		s := scoops[len(scoops)-1]
		return short(ml/s.ml, 2) + " " + s.one
	}
	return join(out)
}

// finer tells whether scoops add up to a rest without a remainder.
func finer(scoops []scoop, rest float64) bool {
	s := scoops[0]
	n := math.Floor(rest/s.ml + 1e-6)
	left := rest - n*s.ml
	if n > float64(s.most) {
		return false
	}
	if math.Abs(left) < 1e-6 {
		return true
	}
	for _, p := range s.parts {
		if math.Abs(left-p.of*s.ml) < 1e-6 {
			return true
		}
	}
	return len(scoops) > 1 && finer(scoops[1:], left)
}

func counted(n float64, word string, s scoop) string {
	name := s.many
	if n <= 1 && (n == 0 || word == "") {
		name = s.one
	}
	switch {
	case word == "":
		return fmt.Sprintf("%.0f %s", n, name)
	case n == 0:
		return word + " " + name
	}
	return fmt.Sprintf("%.0f%s %s", n, word, name)
}

func join(xs []string) string {
	if len(xs) == 1 {
		return xs[0]
	}
	return strings.Join(xs[:len(xs)-1], ", ") + " and " + xs[len(xs)-1]
}

func grams(g float64) string {
	if g >= 1000 {
		return short(g/1000, 2) + " kg"
	}
	return short(g, 1) + " g"
}
