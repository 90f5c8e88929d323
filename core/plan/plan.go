// Package plan finds the best plan for a surveyed zone: the steps, from the first
// cleaning to the last coat, that a way of working knows, weighed by risk, stain,
// time, work, cost and smell. It walks every plan with the walk of the check and
// judges it by the rules of the check, and knows of no others.
package plan

import (
	"context"
	"errors"
	"fmt"
	"math"
	"slices"

	"rutile/core/check"
	"rutile/core/colour"
	"rutile/core/craft"
	"rutile/core/surface"
)

// Request is what is to be planned.
type Request struct {
	// Zone is the zone with what is wanted of it. Its own steps are left alone.
	Zone *check.Zone
	Way  Way
	// Kit is what the studio has; nil where everything counts as there.
	Kit *Kit
	// HabitsOff are the habits that the studio has switched off.
	HabitsOff HabitSet
	// Piece is the area in square metres of the same colour on the whole piece; 0 for that of the zone.
	Piece float64
	// TakeOff names what comes off before the work begins, within a sentence; empty where nothing does.
	TakeOff string
	// Stocked is the craft with the figures of the cans that would be used; nil for that of the search.
	Stocked *craft.Craft
	// kitOnly leaves out what needs anything outside the kit.
	kitOnly bool
	// Weights left at their zero value stand for the usual ones.
	Weights Weights
	// Fill is the id of the filler that its damage takes; empty for none. PutBack
	// tells that parts of it come off and are put back at the end.
	Fill    string
	PutBack bool
	// Like keeps to the paints and the sheen of another plan, for zones that are to
	// match; nil for any.
	Like []surface.Step
	// Done is told how many nodes were opened, now and then; nil for nobody.
	Done func(looked int)
	// Pause is called now and then, so that others get on; nil for nobody.
	Pause func()
	// Limit is how many beginnings and plans may be looked at; 0 stands for as many as
	// nearly any zone takes.
	Limit int
}

// usualLimit keeps the hardest search within a few seconds. Of 24,000 random zones
// none came to more than half of it.
const usualLimit = 40_000

// Plan is a plan that was found.
type Plan struct {
	Steps   []surface.Step
	Amounts Amounts
	Points  float64
	Judged  check.Judged
	// Buys is what it needs and the kit has not, and Leaves the habits that it does not keep.
	Buys   []Item
	Leaves HabitSet
}

// Stats are how much a search has looked at.
type Stats struct {
	Opened int // beginnings of plans that were walked and judged
	Judged int // whole plans that were walked and judged
	Merged int // beginnings that led where a cheaper one had led
	Cut    int // beginnings and plans that a rule fails
	Bound  int // beginnings and plans never looked at, as their bound is above the best
	Tails  int // ways of finishing that do by themselves
}

// Answer is what a search comes to.
type Answer struct {
	// Best is the best plan, nil where nothing passes; Next the best of those that
	// begin or end otherwise.
	Best, Next *Plan
	// Within is the best plan with what is in the kit, where Best needs more than that; nil where none was
	// found. NoneWithin tells that there is none.
	Within     *Plan
	NoneWithin bool
	// Proved tells that no plan of the vocabulary is better. Otherwise the search
	// was stopped before.
	Proved bool
	Stats  Stats
	// Infeasible says what stands in the way where nothing passes.
	Infeasible *Infeasible
	// LookDecides tells that what makes the paint hold follows from the look, whatever the way of
	// working says.
	LookDecides bool
}

// Find searches for the best plan. It stops early when ctx is done, with the best
// found so far. Errors tell what of the question cannot be used.
func Find(ctx context.Context, c *craft.Craft, ask Request) (Answer, error) {
	p, err := newPlanner(c, ask)
	if err != nil {
		return Answer{}, err
	}
	a := p.search(ctx)
	if a.Best == nil && p.habits != 0 && a.Proved {
		if q, b := p.unusual(ctx); b.Best != nil {
			p, a = q, b
		}
	}
	if a.Best != nil {
		a.Within, a.NoneWithin = p.within(ctx, a.Best)
		p.tell(&a)
	}
	a.LookDecides = p.grounds != nil && !slices.Contains([]Holds{Whichever, ScuffAndSeal, StraightOn}, p.way.Holds)
	if a.Best == nil {
		a.Infeasible = stuck(ctx, c, &p.ask, a.Proved)
	}
	return a, nil
}

// tell notes what the plans of an answer need and the kit has not, and which habits they do not keep.
func (p *planner) tell(a *Answer) {
	for _, x := range []*Plan{a.Best, a.Next, a.Within} {
		if x != nil {
			x.Buys, x.Leaves = p.items(p.needs(x.Steps)), Broken(p.craft, &p.ask, x.Steps)
		}
	}
}

// unusual searches once more without the habits that stand in the way of any plan: better without one
// than not at all. It leaves out as few as it can.
func (p *planner) unusual(ctx context.Context) (*planner, Answer) {
	try := func(without HabitSet, any bool) (*planner, Answer) {
		ask := p.ask
		ask.HabitsOff = without
		if any {
			ask.Limit = attempt
		}
		q, err := newPlanner(p.craft, ask)
		if err != nil {
			return nil, Answer{}
		}
		q.anyOf = any
		return q, q.search(ctx)
	}
	q, a := try(AllHabits, true)
	if a.Best == nil {
		return nil, a
	}
	off := p.ask.HabitsOff | Broken(p.craft, &q.ask, a.Best.Steps)
	for h := range NumHabits {
		if off.Has(h) && !p.ask.HabitsOff.Has(h) {
			if _, b := try(off&^(1<<h), true); b.Best != nil {
				off &^= 1 << h
			}
		}
	}
	if r, b := try(off, false); b.Best != nil {
		return r, b
	}
	return try(AllHabits, false)
}

// within is the best plan with what is in the kit, where the one found needs more; nil where a short search
// finds none. none tells that there is none.
func (p *planner) within(ctx context.Context, best *Plan) (with *Plan, none bool) {
	if p.needs(best.Steps)&p.outside == 0 {
		return nil, false
	}
	ask := p.ask
	ask.Done = nil
	ask.Limit = attempt
	ask.kitOnly = true
	q, err := newPlanner(p.craft, ask)
	if err != nil {
		return nil, false
	}
	a := q.search(ctx)
	return a.Best, a.Best == nil && a.Proved
}

// planner is one search.
type planner struct {
	craft     *craft.Craft
	ask       Request
	zone      check.Zone // as it is planned for
	way       *Way
	evaluator *check.Evaluator
	sound     *check.Evaluator // of the same zone as a sound face
	barred    bool             // lead forbids dry work
	spots     bool             // something bleeds in spots
	bleeds    bool             // something bleeds at all
	pores     bool             // bare with open pores: a shiny finish needs a filler
	belief    bool             // what it may be is weighed by a belief
	outside   buys             // what is not in the kit
	unstocked buys             // what the kit has and the shelf has not
	unopened  buys             // what is on the shelf, but not open
	habits    HabitSet         // that are kept
	washes    bool             // the habit of washing has a place here
	twice     craft.Bleeder    // against which two blocking coats are laid, where blocked is set
	blocked   bool
	knotsOnly bool // knots are sealed on their own
	board     bool // bare board, whose fibres the first coat raises
	grounding buys // what a ground may need, as well as an ending

	cleans, strips, bleach, primers []move
	repair, denib                   move
	grounds                         []craft.Product
	see                             bool
	firsts                          []surface.Step
	ends                            []tail
	finishes                        [2][]finishing // over a ground that may be levelled, and one that is not
	lightest                        []*tail        // those that no other is thinner than and holds better
	cuts                            bool           // some tail wears down to what stains
	// lets is the least that any tail lets show of each bleeder.
	lets [craft.NumBleeders]float64

	nodes  []node
	at     int32 // the node that the evaluator walked last, -1 for anything else
	queue  queue
	seen   map[[2]uint64]float64
	buf    []surface.Step
	hides  map[hide]int
	shades map[shade]check.Verdict
	stats  Stats
	// lenient lets plans pass that rules fail, at a price, to see what comes nearest;
	// anyOf is content with the first plan there is.
	lenient, anyOf bool
	shown          []colour.RGB // the colours of the face as it is, for every candidate
}

func newPlanner(c *craft.Craft, ask Request) (*planner, error) {
	p := &planner{craft: c, ask: ask}
	return p, p.set()
}

// set readies a planner for its question.
func (p *planner) set() error {
	if err := p.surveyed(); err != nil {
		return err
	}
	p.prepare()
	return nil
}

// surveyed takes the zone of the question as it is planned for.
func (p *planner) surveyed() error {
	if p.ask.Stocked != nil {
		p.craft = p.ask.Stocked
	}
	c, ask := p.craft, &p.ask
	if ask.Zone == nil {
		return errors.New("there is no zone to plan")
	}
	ask.Weights = ask.Weights.OrUsual()
	if err := ask.Weights.Check(); err != nil {
		return err
	}
	if ask.Limit <= 0 {
		ask.Limit = usualLimit
	}
	p.zone, p.way = *ask.Zone, &ask.Way
	p.hides, p.shades, p.seen = map[hide]int{}, map[shade]check.Verdict{}, map[[2]uint64]float64{}
	p.zone.Steps = nil
	p.habits, p.outside = AllHabits&^ask.HabitsOff&^ask.Way.drops(), p.outsideOf()
	p.unstocked, p.unopened = p.shelved()
	if p.zone.Area <= 0 {
		p.zone.Area = 1 // plans are compared for one square metre
	}
	if !p.zone.SoilsKnown { // unchecked surfaces have been touched
		p.zone.SoilsKnown = true
		p.zone.Soils[craft.Grime] = max(1, p.zone.Soils[craft.Grime])
	}
	if p.zone.Uneven && p.zone.Sheen >= craft.SemiGloss && p.ask.Fill == "" {
		p.ask.Fill = craft.FillerFine // dents that a matt face hides
	}
	p.ask.Fill = FillerFor(c, p.zone.Substrate, p.ask.Fill, p.ask.HabitsOff)
	if _, ok := c.Effect(p.zone.Look); !ok && p.zone.Look != "" && p.zone.Look != craft.LookSolid {
		return fmt.Errorf("there is no look %q", p.zone.Look)
	}
	sub := &c.Substrates[p.zone.Substrate]
	p.washes = p.keeps(WashFirst) && used(c, &p.zone) // what looks clean has been touched as well
	if p.washes {
		p.zone.Soils[craft.Grime] = max(1, p.zone.Soils[craft.Grime])
	}
	p.evaluator = check.NewEvaluator(c, &p.zone)
	p.sound = p.evaluator.Sound()
	p.evaluator.Walk(nil)
	p.shown = p.coloursBelow()
	p.barred = p.zone.LeadBars(c)
	p.twice, p.blocked = twice(c, &p.zone)
	p.blocked = p.blocked && p.keeps(BlockTwice)
	p.knotsOnly = p.keeps(SealKnots) && p.zone.Knots > 0 && onlySpots(c, &p.zone)
	p.board = sub.Family == craft.BoardRaw && c.Finishes[p.zone.Finish].Bare
	p.pores = p.ask.Fill == "" && !p.zone.Uneven && c.Substrates[p.zone.Substrate].Mark() == "open" &&
		!slices.ContainsFunc(p.evaluator.Candidates(), func(m check.Candidate) bool { return !c.Finishes[m.Finish].Bare })
	for _, m := range p.evaluator.Candidates() {
		p.belief = p.belief || m.P > 0
		lv := surface.Levels(c, &m.Facts)
		for b := range lv {
			p.spots = p.spots || lv[b] > 0 && craft.Bleeders[b].Local
			p.bleeds = p.bleeds || lv[b] > 0
		}
	}
	return nil
}

// prepare works out all that is the same for every plan of the zone.
func (p *planner) prepare() {
	p.cleans, p.strips, p.bleach, p.primers = nil, nil, nil, nil
	p.ends = p.tails()
	p.vocabulary()
	p.stats.Tails = len(p.ends)
	p.finishes = [2][]finishing{}
	for i := range p.ends {
		t := &p.ends[i]
		x := p.ask.Weights.Points(&t.least) + p.ask.Weights.Of(ToBuy)*p.buying(t.buys&^p.grounding) + p.ask.Weights.Of(Restock)*p.restocking(t.buys&^p.grounding)
		if t.cut {
			x += p.ask.Weights.Of(Doubtful)
		}
		for over, watches := range [2]check.RuleSet{t.watches, t.watches.With(t.rough)} {
			list := &p.finishes[over]
			if at := slices.IndexFunc(*list, func(f finishing) bool { return f.watches == watches }); at >= 0 {
				(*list)[at].points = min((*list)[at].points, x)
			} else {
				*list = append(*list, finishing{watches, x})
			}
		}
		for b := range p.lets {
			show := t.show
			if craft.Bleeders[b].Clear {
				show = t.open
			}
			x := t.lets[b] * math.Pow(t.moreLets[b], mostCoats-leastCoats) * show
			if i == 0 || x < p.lets[b] {
				p.lets[b] = x
			}
		}
		p.cuts = p.cuts || t.cut
	}
	p.lightest = p.lightest[:0]
	for i := range p.ends {
		t := &p.ends[i]
		if !slices.ContainsFunc(p.lightest, func(o *tail) bool { return o.lighter(t) }) {
			p.lightest = append(slices.DeleteFunc(p.lightest, t.lighter), t)
		}
	}
}

// lighter tells whether a tail is no thicker than another and holds no worse.
func (t *tail) lighter(o *tail) bool {
	return t.film <= o.film && t.holds >= o.holds && t.all >= o.all
}

// finishing is the least that tails come to that are watched by the same rules,
// without what those count.
type finishing struct {
	watches check.RuleSet
	points  float64
}

// toFinish is the least that any tail adds to a beginning that some rules watch and
// that lets some stains up: what both are watched for counts once. Where no primer may
// come any more, nothing levels it and nothing else holds its stains; false where those
// fail every tail.
func (p *planner) toFinish(n *node, watches *check.RuleSet, stains *[craft.NumBleeders]float64) (float64, bool) {
	primed, over := n.stage == grounding && n.allOver >= mostPrimers, 0
	if primed && !n.levels {
		over = 1
	}
	out := math.Inf(1)
	doubt := p.ask.Weights.Of(Doubtful)
	for i := range p.finishes[over] {
		f := &p.finishes[over][i]
		out = min(out, f.points+doubt*float64(watches.With(f.watches).Len()-watches.Len()))
	}
	if !primed {
		return out, true
	}
	worst := 0.
	for b, x := range stains {
		worst = max(worst, x*p.lets[b])
	}
	switch v := check.StainVerdict(worst * rounding); {
	case v == check.Fails && !p.belief && !p.lenient:
		return 0, false
	case v != check.Sound && !p.cuts: // for which a tail may count one already
		out += doubt
	}
	return out, true
}

// like tells whether an ending looks like the plan to be matched.
func (p *planner) like(steps []surface.Step) bool {
	return p.ask.Like == nil || alike(p.craft, steps, p.ask.Like)
}

// alike tells whether two finished plans look the same: the same paints with the same final sheen.
// Their seals may differ by wear, except over an absorbent matt paint, which wax and clear change
// differently.
func alike(c *craft.Craft, a, b []surface.Step) bool {
	x, y := finish(c, a), finish(c, b)
	return slices.Equal(x.paints, y.paints) && x.sheen == y.sheen && (!x.absorbent || x.seal == y.seal)
}

// laid is one paint of a finish.
type laid struct {
	product  craft.Product
	colour   string
	additive float64
}

// finished is what a plan looks like once it is done.
type finished struct {
	paints    []laid
	sheen     craft.Sheen
	absorbent bool // the last paint
	seal      craft.Role
	sealed    craft.Product // with what, NoProduct for nothing
}

func finish(c *craft.Craft, steps []surface.Step) finished {
	out := finished{sealed: craft.NoProduct}
	for i := range steps {
		s := &steps[i]
		if s.Do != surface.Coat || s.Scope != surface.All {
			continue
		}
		row := &c.Products[s.Product]
		switch row.Role {
		case craft.RolePaint, craft.RoleMedium:
			out.paints = append(out.paints, laid{s.Product, s.Colour, s.Additive})
			out.absorbent, out.seal, out.sealed = row.Dried == craft.PorousPaint, "", craft.NoProduct
		case craft.RoleClear, craft.RoleWax:
			out.seal, out.sealed = row.Role, s.Product
		default:
			continue
		}
		if out.sheen = row.Sheen; s.Sheen != craft.NoSheen {
			out.sheen = s.Sheen
		}
	}
	return out
}

// shines tells whether some steps have a paint or a clear in satin or more, which shows what stands up
// below it.
func shines(c *craft.Craft, steps []surface.Step) bool {
	for i := range steps {
		s := &steps[i]
		if s.Do != surface.Coat || s.Scope != surface.All {
			continue
		}
		row := &c.Products[s.Product]
		sheen := row.Sheen
		if s.Sheen != craft.NoSheen {
			sheen = s.Sheen
		}
		if (row.Role == craft.RolePaint || row.Role == craft.RoleClear) && sheen >= craft.Satin {
			return true
		}
	}
	return false
}

// Ground names what is below the first paint of a plan, within a sentence.
func Ground(c *craft.Craft, steps []surface.Step) string {
	var out []string
	for i := range steps {
		s := &steps[i]
		if s.Do != surface.Coat {
			continue
		}
		row := &c.Products[s.Product]
		if row.Role != craft.RolePrimer && !c.Fills(s.Product, craft.ForGrain) {
			if s.Additive > 0 {
				out = append(out, "bonding additive in the paint")
			}
			break
		}
		out = append(out, craft.Lower(check.StepWords(c, s)))
	}
	if len(out) == 0 {
		return "no primer"
	}
	return craft.List(out)
}
