package plan

import (
	"cmp"
	"container/heap"
	"context"
	"fmt"
	"math"
	"slices"
	"strings"

	"rutile/core/check"
	"rutile/core/craft"
	"rutile/core/drying"
	"rutile/core/surface"
)

// Infeasible says what stands in the way of a plan, and what would open the way.
type Infeasible struct {
	// Why are the obstacles, the gravest first.
	Why []Obstacle
	// Relaxations are changes with which there is a plan. Each was tried.
	Relaxations []Relaxation
	// Nearest is the plan that they are the fails of: that of the first opening, or else the one with the
	// fewest fails that was found; nil where no coat can be applied at all.
	Nearest *Plan
	// Stopped tells that the search was stopped before it had seen everything.
	Stopped bool
}

// Obstacle is one thing that stands in the way.
type Obstacle struct {
	Code, Title, Why string
}

// Relaxation is one change with which there is a plan.
type Relaxation struct {
	ID   string
	Says string
	// Field is where it is entered, as repairs name their fields.
	Field craft.Field
	// Plan is a plan that then passes; there may be a better one.
	Plan  *Plan
	cures []string // as of its changes
}

// change is something about a question that might be otherwise.
type change struct {
	id    string
	field craft.Field
	// cures are what the codes of the findings begin with that it does away with.
	cures []string
	does  func(*craft.Craft, *Request) bool // false where there is nothing to change
	says  func(*craft.Craft, *Request, *Plan) string
}

func say(s string) func(*craft.Craft, *Request, *Plan) string {
	return func(*craft.Craft, *Request, *Plan) string { return s }
}

// changes are what might open the way, in the order in which a painter would try them: dry it, test it,
// another product, another look, somebody licensed.
var changes = []change{
	{"gun", craft.FieldKit, nil, func(c *craft.Craft, a *Request) bool {
		had := a.Way.Method == "spray" && !a.Kit.Has(Gun)
		if had {
			kit := *a.Kit
			kit.Tools = append(slices.Clone(kit.Tools), Tools[Gun].ID)
			a.Kit = &kit
		}
		return had
	}, say("Borrowing or buying a spray gun")},
	{"dry", craft.FieldMoisture, []string{"prep.damp"}, func(c *craft.Craft, a *Request) bool {
		const dry = 9
		had := a.Zone.Moisture
		a.Zone.Moisture = dry
		return had > dry
	}, say("Letting it dry, and measuring again")},
	{"air", craft.FieldSite, []string{"site."}, func(c *craft.Craft, a *Request) bool {
		had, read := a.Zone.Climate, a.Zone.SurfaceRead
		a.Zone.Climate, a.Zone.SurfaceRead = drying.Usual, false
		const cold, warm, damp = 14, 28, 65 // beyond these some product may not be applied
		return read || had.TempC < cold || had.TempC > warm || had.RH > damp
	}, say("A room at 20 °C (68 °F) and 50 % humidity, with the piece as warm")},
	{"age", craft.FieldAge, []string{"adhesion.saponify"}, func(c *craft.Craft, a *Request) bool {
		had := a.Zone.AgeDays
		a.Zone.AgeDays = 4 * craft.FreshMineral
		return had < craft.FreshMineral && c.Substrates[a.Zone.Substrate].Alkaline()
	}, say("Knowing that the cement or plaster has cured for months")},
	{"lead", craft.FieldLeadTest, []string{"safety.lead"}, func(c *craft.Craft, a *Request) bool {
		had := a.Zone.LeadBars(c)
		noLead(a.Zone)
		return had
	}, say("A lead-free result from a laboratory or a licensed assessor")},
	{"shelf", craft.FieldShelf, nil, func(c *craft.Craft, a *Request) bool {
		had := a.Way.Shelf != nil || len(a.Way.Without) > 0
		a.Way.Shelf, a.Way.Without = nil, nil
		return had
	}, func(c *craft.Craft, a *Request, p *Plan) string {
		var missing []string
		for i := range p.Steps {
			if s := &p.Steps[i]; s.Do == surface.Coat && !a.Way.uses(&c.Products[s.Product]) {
				if name := craft.Lower(c.Products[s.Product].Name); !slices.Contains(missing, name) {
					missing = append(missing, name)
				}
			}
		}
		return "Having " + craft.List(missing)
	}},
	{"way", craft.FieldWay, nil, func(c *craft.Craft, a *Request) bool {
		had := a.Way
		a.Way = Ways[0]
		a.Way.Shelf = had.Shelf
		return had.ID != Ways[0].ID
	}, func(c *craft.Craft, _ *Request, p *Plan) string {
		return "Another way of working: " + Ground(c, p.Steps)
	}},
	{"like", craft.FieldWay, nil, func(c *craft.Craft, a *Request) bool {
		had := a.Like != nil
		a.Like = nil
		return had
	}, say("A different paint or seal from the matching zones")},
	{"gap", craft.FieldParts, []string{"film.build"}, func(c *craft.Craft, a *Request) bool {
		had := a.Zone.GapMM
		a.Zone.GapMM = 0
		return had > 0
	}, say("Planing sliding and closing parts until there is room for the coats")},
	{"look", craft.FieldLook, []string{"effect.", "use.target"}, func(c *craft.Craft, a *Request) bool {
		had := a.Zone.Look
		a.Zone.Look = craft.LookSolid
		return had != craft.LookSolid && had != ""
	}, say("A solid colour instead of that look")},
	{"sheen", craft.FieldSheen, []string{"film.", "use.target"}, func(c *craft.Craft, a *Request) bool {
		had := a.Zone.Sheen
		a.Zone.Sheen = craft.NoSheen
		return had != craft.NoSheen
	}, say("Another sheen")},
	{"colour", craft.FieldTarget, []string{"film.", "bleed.", "effect."}, func(c *craft.Craft, a *Request) bool {
		had := a.Zone.Colour
		a.Zone.Colour = "#202020"
		return had != ""
	}, say("A darker colour")},
	{"loose", craft.FieldDefects, []string{"prep.loose_left", "safety.lead"}, func(c *craft.Craft, a *Request) bool {
		had := a.Zone.Loose
		a.Zone.Loose = 0
		return had != 0
	}, func(c *craft.Craft, a *Request, _ *Plan) string {
		if a.Zone.LeadBars(c) {
			return "Having loose paint removed by someone licensed for lead work"
		}
		return "Removing or fixing loose material first"
	}},
	{"soils", craft.FieldSoils, []string{"prep."}, func(c *craft.Craft, a *Request) bool {
		had := a.Zone.Soils
		a.Zone.Soils = [craft.NumSoils]uint8{}
		return had != a.Zone.Soils
	}, say("Having the dirt removed by a specialist")},
	{"use", craft.FieldUse, []string{"use."}, func(c *craft.Craft, a *Request) bool {
		had := a.Zone.Uses
		a.Zone.Uses = craft.Indoor
		return had&^craft.Indoor != 0
	}, say("Another use: indoors, without food, heat or children")},
	{"wear", craft.FieldWear, []string{"use."}, func(c *craft.Craft, a *Request) bool {
		had := a.Zone.Wear
		a.Zone.Wear = craft.Display
		return had != craft.Display
	}, say("Display only")},
}

// noLead has a laboratory find no lead in a zone.
func noLead(z *check.Zone) {
	z.LeadTest = &check.LeadTest{By: "laboratory", Date: cmp.Or(z.Today, "2000-01-01")}
	if z.Made != 0 {
		z.LeadTest.Date = fmt.Sprintf("%d-12-31", z.Made)
		z.Today = ""
	}
}

// with is a question with a change.
func (a *Request) with(c *craft.Craft, ch *change) (Request, bool) {
	out, zone := *a, *a.Zone
	out.Zone, out.Done = &zone, nil
	return out, ch.does(c, &out)
}

// enough bounds the work of one search among several for one answer, attempt that of one attempt at opening
// a way, which ends with the first plan, and near that of looking for the nearest plan.
const enough, attempt, near = 4000, 1500, 500

// unclean is by how many points what could not be coated for its dirt is looked at
// later, in looking for the nearest plan.
const unclean = 150

// stuck works out what stands in the way.
func stuck(ctx context.Context, c *craft.Craft, ask *Request, sure bool) *Infeasible {
	s := &Infeasible{Stopped: !sure}
	if !sure && ctx.Err() != nil {
		s.Nearest = nearest(ctx, c, *ask)
		s.obstacles(c, ask)
		return s
	}
	try := func(a Request) *Plan {
		if ctx.Err() != nil {
			s.Stopped = true
			return nil
		}
		a.Limit = attempt
		p := &planner{craft: c, ask: a, anyOf: true}
		if p.surveyed() != nil || !p.canBegin() {
			return nil
		}
		p.prepare()
		return p.search(ctx).Best
	}
	second := "" // what else is tried once the way is open
	for i := range changes {
		if len(s.Relaxations) == mostOpen {
			break
		}
		if len(s.Relaxations) > 0 && changes[i].id != second {
			continue
		}
		if changes[i].field == craft.FieldLeadTest && len(s.Relaxations) == 0 { // what else can be tested comes with it
			s.known(c, ask, try)
			if len(s.Relaxations) > 0 {
				second = "lead"
			}
		}
		if len(s.Relaxations) > 0 && changes[i].id != second {
			continue
		}
		ch := &changes[i]
		a, ok := ask.with(c, ch)
		if !ok {
			continue
		}
		if plan := try(a); plan != nil {
			second = seconds[ch.id]
			s.Relaxations = append(s.Relaxations, Relaxation{ch.id, ch.says(c, ask, plan), ch.field, plan, ch.cures})
		}
	}
	if len(s.Relaxations) == 0 {
		s.pairs(c, ask, try)
	}
	if s.real(c, ask); len(s.Why) == 0 {
		s.Nearest = nearest(ctx, c, *ask)
		s.obstacles(c, ask)
	}
	return s
}

// real takes for the obstacles what fails the plan of the first opening where nothing is changed: with
// dry wood there is a good plan, and on wet wood that plan fails because the wood is wet. What the opening
// does away with stands for all that follows from it.
func (s *Infeasible) real(c *craft.Craft, ask *Request) {
	for i := range s.Relaxations {
		z := *ask.Zone
		z.Steps = s.Relaxations[i].Plan.Steps
		r := check.Check(c, &z, check.Options{NoRepairs: true})
		s.add(&r, stands)
		if len(s.Why) == 0 {
			continue
		}
		s.Nearest = s.Relaxations[i].Plan
		cures := s.Relaxations[i].cures
		all := s.Why
		s.Why = nil
		s.add(&r, func(f *check.Finding) bool {
			return f.Severity > check.Note && slices.ContainsFunc(cures, func(code string) bool { return strings.HasPrefix(f.Code, code) })
		})
		if len(s.Why) == 0 {
			s.Why = all
		}
		return
	}
}

// stands tells whether a finding stands in the way of a plan.
func stands(f *check.Finding) bool { return f.Severity == check.Fail || f.Refuses }

// add takes findings for obstacles, each title once.
func (s *Infeasible) add(r *check.Result, takes func(*check.Finding) bool) {
	found := slices.Clone(r.Findings)
	slices.SortStableFunc(found, func(a, b check.Finding) int { return min(1, a.Step) - min(1, b.Step) }) // the zone before a step
	for i := range found {
		f := &found[i]
		if takes(f) && !slices.ContainsFunc(s.Why, func(x Obstacle) bool { return x.Title == f.Title }) {
			s.Why = append(s.Why, Obstacle{f.Code, f.Title, f.Why})
		}
	}
}

// mostOpen is how many openings are named: more than two is a list nobody reads.
const mostOpen = 2

// seconds are what a painter would think of besides an opening: somebody licensed where a test for lead is one,
// another use where another look is.
var seconds = map[string]string{"lead": "loose", "look": "use", "air": "look", "colour": "look", "sheen": "look", "shelf": "way"}

// canBegin tells whether anything can be prepared for paint at all, which is far cheaper than
// searching for coats. It does not change the planner.
func (p *planner) canBegin() bool {
	r := p.recipe()
	p.grounds, p.see = r.grounds, r.see
	p.vocabulary()
	p.finishes, p.lightest = [2][]finishing{{{}}, {{}}}, []*tail{{holds: 1, all: 1}}
	p.nodes, p.at = append(p.nodes[:0], p.root()), -1
	heap.Push(&p.queue, item{end: -1, plan: -1})
	found := false
	for !found && len(p.queue) > 0 {
		x := heap.Pop(&p.queue).(item)
		switch {
		case p.stats.Opened >= p.ask.Limit:
			found = true // for all that is known
		case p.nodes[x.node].judged:
			p.open(x.node, x.least, math.Inf(1))
		case p.judge(x.node):
			found = p.nodes[x.node].grounded
			heap.Push(&p.queue, item{least: p.nodes[x.node].least, node: x.node, end: -1, plan: -1})
		}
	}
	p.queue, p.stats = p.queue[:0], Stats{}
	clear(p.seen)
	return found
}

// pairs tries two changes at once, where one is not enough: some dozens of them,
// the easiest first.
func (s *Infeasible) pairs(c *craft.Craft, ask *Request, try func(Request) *Plan) {
	const most, dozens = 1, 36
	tried := 0
	for i := range changes {
		a, ok := ask.with(c, &changes[i])
		if !ok {
			continue
		}
		for j := i + 1; j < len(changes); j++ {
			b, ok := a.with(c, &changes[j])
			if !ok {
				continue
			}
			if plan := try(b); plan != nil {
				says := changes[i].says(c, ask, plan) + ", and " + craft.Lower(changes[j].says(c, &a, plan))
				s.Relaxations = append(s.Relaxations, Relaxation{"", says, changes[i].field, plan, slices.Concat(changes[i].cures, changes[j].cures)})
			}
			if tried++; len(s.Relaxations) == most || tried == dozens {
				return
			}
		}
	}
}

// known adds what it would help to know of the surface.
func (s *Infeasible) known(c *craft.Craft, ask *Request, try func(Request) *Plan) {
	may := check.NewEvaluator(c, ask.Zone).Candidates()
	if len(may) < 2 {
		return
	}
	var names []string
	var plan *Plan
	for i := range may {
		a, zone := *ask, *ask.Zone
		zone.Substrate, zone.Finish, zone.Veneer, zone.Tests = may[i].Substrate, may[i].Finish, may[i].Veneer, nil
		a.Zone, a.Done = &zone, nil
		if x := try(a); x != nil {
			names = append(names, craft.Lower(check.SurfaceName(c, zone.Substrate, zone.Finish)))
			plan = x
		}
	}
	if plan != nil {
		const most = 3
		s.Relaxations = append(s.Relaxations, Relaxation{"finish", "Knowing what it is: there is a plan for " + craft.List(names[:min(most, len(names))]), "evidence", plan, []string{"adhesion.untested"}})
	}
}

// obstacles are the fails of the nearest plan, in the words of the check.
func (s *Infeasible) obstacles(c *craft.Craft, ask *Request) {
	if ask.Way.Method == "spray" && !ask.Kit.Has(Gun) {
		s.Why = []Obstacle{{"", "There is no spray gun in your kit", "This way of working sprays primer, paint and clear."}}
		return
	}
	if s.Nearest == nil {
		why := "None of the products allowed by this way of working makes the look."
		if ask.Way.Shelf != nil && len(ask.Way.Shelf) == 0 {
			why = "No products are selected."
		}
		s.Why = []Obstacle{{"", "There is nothing to apply", why}}
		return
	}
	z := *ask.Zone
	z.Steps = s.Nearest.Steps
	r := check.Check(c, &z, check.Options{NoRepairs: true})
	s.add(&r, stands)
	if len(s.Why) == 0 { // what is demanded beyond the check
		s.Why = []Obstacle{{"", "This way of working has settings that contradict each other", ask.Way.Says}}
	}
}

// nearest is the plan with the fewest fails that a short search finds; nil where there is nothing
// to apply.
func nearest(ctx context.Context, c *craft.Craft, ask Request) *Plan {
	ask.Done, ask.HabitsOff = nil, AllHabits // what the check says, and not what is usual
	p := &planner{craft: c, ask: ask}
	if p.set() != nil {
		return nil
	}
	p.lenient = true
	if len(p.ends) == 0 { // even what finishes it fails
		p.firsts = nil
		if p.set() != nil || len(p.ends) == 0 {
			return nil
		}
	}
	p.nodes = append(p.nodes, p.root())
	heap.Push(&p.queue, item{end: -1, plan: -1})
	var best *Plan
	least := math.Inf(1)
	for len(p.queue) > 0 && p.stats.Opened+p.stats.Judged < near && ctx.Err() == nil {
		i := heap.Pop(&p.queue).(item).node
		if !p.judge(i) {
			continue
		}
		// Something must fail: what fails here may spare worse later, and is looked at no
		// later than what passes so far.
		fails := math.Floor(p.nodes[i].amounts[Doubtful] / perFail)
		order := p.nodes[i].least - fails*perFail*ask.Weights.Of(Doubtful)
		refuses := p.any(check.Refuses)
		for _, m := range p.next(&p.nodes[i]) {
			if n, ok := p.child(i, &m); ok {
				p.nodes = append(p.nodes, n)
				order := order
				if n.stage == grounding && refuses { // what is cleaner comes first
					order += unclean
				}
				heap.Push(&p.queue, item{least: order, node: int32(len(p.nodes) - 1), end: -1, plan: -1})
			}
		}
		if !p.nodes[i].grounded {
			continue
		}
		ends := p.behind(&p.nodes[i])
		const tries, ofOne = 8, 2 // of those that begin with one coat
		tried, begins := 0, make([]int, len(p.firsts))
		for k := 0; k < len(ends) && tried < tries; k++ {
			bring(ends, int32(k))
			lays := p.ends[ends[k].tail].lays
			if begins[lays]++; begins[lays] > ofOne {
				continue
			}
			tried++
			if x := p.whole(i, ends[k]); x != nil && x.Points < least {
				best, least = x, x.Points
			}
		}
	}
	return best
}
