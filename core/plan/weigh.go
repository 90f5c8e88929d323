package plan

import (
	"fmt"
	"math"

	"rutile/core/check"
	"rutile/core/craft"
	"rutile/core/surface"
)

// Term is one of the things that a plan is weighed by.
type Term uint8

// The terms. The first six are the painter's to weigh, the others are not.
const (
	Peel     Term = iota // risk of peeling
	Stain                // the worst stain that comes through
	Elapsed              // hours from the first step to the last
	HandsOn              // hours of work
	Cost                 // materials
	Smell                // coats and wipes that smell
	Trouble              // trips, and what must be mixed
	Dirt                 // levels of soil under the first coat
	Renewal              // ranks of wear that the last coats fall short
	Doubtful             // rules that watch it
	ToBuy                // things that the kit has not
	Restock              // cans that must be opened or bought, where there is a shelf
	Unlike               // classes of sheen off, and another paint than that of choice
	// NumTerms counts the terms, NumWeights those a painter weighs.
	NumTerms
	NumWeights = Trouble
)

// TermRow describes a term.
type TermRow struct {
	ID, Name string
	Unit     string // of its amount
	One      string // the same of a single one, where it is counted
	// Points are what one unit of it weighs. One point is about one unit of money. Working
	// defaults.
	Points float64
	Says   string // what the points mean
}

// Terms are indexed by Term.
var Terms = [NumTerms]TermRow{
	Peel:     {"peel", "Peeling", "chance", "", 400, "the cost of redoing the work, times the risk of having to if the wear is half a class harder than entered"},
	Stain:    {"stain", "Stain", "CIEDE2000 units", "", 30, "one unit is just visible"},
	Elapsed:  {"elapsed", "Time", "h", "", .4, "each day of waiting counts ten"},
	HandsOn:  {"hands", "Work", "h of work", "", 30, "an hour's wage"},
	Cost:     {"cost", "Materials", "in your currency", "in your currency", 1, "what they cost"},
	Smell:    {"smell", "Smell", "faint smells", "faint smell", 5, "one faint smell over the whole face"},
	Trouble:  {"trouble", "Trips", "trips", "trip", 2, "setting up and cleaning up"},
	Dirt:     {"dirt", "Dirt left", "levels of dirt under the first coat", "level of dirt under the first coat", 20, "dirt that could have been washed off"},
	Renewal:  {"thin", "Renewal", "grades of durability", "grade of durability", 10, "a seal that must be renewed sooner; two grades more than needed count as enough"},
	Doubtful: {"doubtful", "Doubts", "findings to watch", "finding to watch", 300, "one thing that can go wrong counts as ten hours of work"},
	ToBuy:    {"buying", "To buy or borrow", "things outside your kit", "thing outside your kit", 60, "a trip to the shop, and a can of which most is left over"},
	Restock:  {"restock", "Cans to open or buy", "cans that are not open on your shelf", "can that is not open on your shelf", 12, "a can of which most is left over; a closed one that is there counts a quarter"},
	Unlike:   {"unlike", "Not as wanted", "steps away from your sheen and paint", "step away from your sheen and paint", 60, "another paint than your usual one counts half a step, a sheen one class off three"},
}

// Weights are how much each term counts, as a multiple of what is usual.
type Weights [NumWeights]float64

// Usual counts everything as much as is usual.
var Usual = Weights{1, 1, 1, 1, 1, 1}

// OrUsual are the weights themselves, or the usual ones where they are the zero
// value.
func (w Weights) OrUsual() Weights {
	if w == (Weights{}) {
		return Usual
	}
	return w
}

// MostWeight is the most that a term may count.
const MostWeight = 100

// Check tells what is wrong with weights.
func (w Weights) Check() error {
	sum := 0.
	for i, x := range w {
		if math.IsNaN(x) || math.IsInf(x, 0) || x < 0 || x > MostWeight {
			return fmt.Errorf("the weight of %s is %v; it must be a number from 0 to %d", Terms[i].ID, x, MostWeight)
		}
		sum += x
	}
	if sum == 0 {
		return fmt.Errorf("all weights are 0, so every plan is equally good; give one of them some weight")
	}
	return nil
}

// Amounts are how much of each term a plan has. That of peeling is -ln(1 - risk), so that the
// amounts of independent bonds add up.
type Amounts [NumTerms]float64

// Points is what amounts weigh.
func (w *Weights) Points(a *Amounts) float64 {
	sum := 0.
	for i, x := range a {
		sum += w.Of(Term(i)) * x
	}
	return sum
}

// Of is what one unit of a term weighs.
func (w *Weights) Of(t Term) float64 {
	if t < NumWeights {
		return w[t] * Terms[t].Points
	}
	return Terms[t].Points
}

func (a Amounts) plus(b *Amounts) Amounts {
	for i := range a {
		a[i] += b[i]
	}
	return a
}

// Working defaults of what no label says: what a square metre takes of
// consumables, in units of money.
const (
	abrasivePerM2 = .8
	ragsPerM2     = .4
	fillerPerM2   = .6
	stripperPerM2 = 9.
)

// Working defaults of trouble beyond a trip: mixing two parts, mixing powder,
// mixing a paint from its parts, rags that can heat up, and stripping.
const (
	mixTwoPart = 2.
	mixPowder  = 1.
	mixOwn     = 3.
	rags       = 2.  // laid flat outdoors, and watched until they are dry
	stripMess  = 10. // sludge or scrapings, waste, and a workbench to clean
)

// static are the amounts of a step that follow from the step alone: its
// materials, smell and trips. Work and time come from the walk.
func static(c *craft.Craft, f *surface.Facts, s *surface.Step) Amounts {
	var a Amounts
	switch s.Do {
	case surface.Wait:
		return a
	case surface.Clean:
		row := &c.Cleaners[s.Cleaner]
		n := float64(s.NumPasses())
		a[Trouble] = 1
		if row.Carrier != craft.Dry {
			a[Cost] = ragsPerM2 * n * f.Area
		}
		if row.Carrier.Volatile() || row.Ammonia {
			a[Smell] = 2 * n
		}
	case surface.Abrade:
		a[Trouble], a[Cost] = 1, abrasivePerM2*f.Area
	case surface.Dust:
		a[Trouble] = .5 // it is done where one stands
	case surface.Strip:
		a[Trouble], a[Cost] = stripMess, stripperPerM2*f.Area
		if s.StripHow == "chemical" {
			a[Smell] = 3
		}
	case surface.Fill:
		a[Trouble], a[Cost] = 1, fillerPerM2*f.Area
	case surface.Coat:
		a = coating(c, f, s)
	default:
		a[Trouble] = 1
	}
	return a
}

func coating(c *craft.Craft, f *surface.Facts, s *surface.Step) Amounts {
	var a Amounts
	p := &c.Products[s.Product]
	n, share := float64(s.NumCoats()), 1.
	if s.Scope != surface.All {
		share = surface.SpotShare
	}
	m, _ := craft.MethodNamed(s.Method)
	a[Cost] = n * share * f.Area / p.Cover / (1 - m.Loss) * float64(p.Price) / 100
	if s.Additive > 0 {
		const perLitre = 30. // of bonding additive. Working default
		a[Cost] += n * share * f.Area / p.Cover * s.Additive * perLitre
	}
	a[Smell] = n * max(share, .2) * float64(p.Smell)
	a[Trouble] = n
	switch {
	case p.TwoPart:
		a[Trouble] += mixTwoPart
	case p.ByParts:
		a[Trouble] += mixOwn
	case p.Alkali:
		a[Trouble] += mixPowder
	}
	if p.Rags {
		a[Trouble] += rags
	}
	return a
}

// What a class of sheen off counts, and a paint other than that of choice, in steps away from what is wanted:
// whoever asks for satin is not given matt. Working defaults.
const oneClass, another = 3, .5

// unlike is how far what steps end in is from what was wanted: the sheen, unless it is rubbed, and the
// paint of choice.
func (p *planner) unlike(steps []surface.Step) float64 {
	out := 0.
	f := finish(p.craft, steps)
	waxed := f.seal == craft.RoleWax && p.zone.Sheen <= craft.Eggshell // it shines as it is rubbed
	if want := p.zone.Sheen; want != craft.NoSheen && f.sheen != craft.NoSheen && !waxed {
		out += oneClass * float64(want.Apart(f.sheen))
	}
	if x := p.look(); x == nil && len(f.paints) > 0 && !p.chosen(f.paints[len(f.paints)-1].product) {
		out += another
	}
	if p.ask.Like != nil && finish(p.craft, p.ask.Like).sealed != f.sealed { // two seals on one piece look like two
		out += another
	}
	return out
}

// idle are the hours that steps wait for hardness before they put things back: nobody waits for those.
func idle(steps []surface.Step) float64 {
	n := len(steps)
	if n < 2 || steps[n-1].Do != surface.Reassemble || steps[n-2].Do != surface.Wait {
		return 0
	}
	return steps[n-2].Hours
}

// amounts are those of a plan: static ones of its steps, and what it was judged
// at.
func amounts(statics *Amounts, j *check.Judged) Amounts {
	a := *statics
	a[Peel], a[Stain], a[Renewal] = j.Peel, j.Stain, j.Durability
	a[HandsOn], a[Elapsed] = j.Minutes/60, j.Hours
	a[Doubtful] = float64(j.Watches.Len())
	return a
}
