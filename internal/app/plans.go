package app

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"math"
	"reflect"
	"runtime/debug"
	"slices"
	"strconv"
	"strings"
	"sync"

	"rutile/core/check"
	"rutile/core/colour"
	"rutile/core/craft"
	"rutile/core/measure"
	"rutile/core/plan"
	"rutile/core/surface"
	"rutile/internal/wire"
)

// PlanOptions choose how plans are made.
type PlanOptions struct {
	Weights plan.Weights // their zero value stands for the usual ones
	Section bool         // with the cut through each plan
	Done    func(done, of int)
	Stop    <-chan struct{} // once it is closed, the answer is what was found so far; nil for never
}

// ask is the planning request for one zone.
func (j *Job) ask(i int, w plan.Way, o PlanOptions) plan.Request {
	touching, _ := j.fits(i)
	kit := j.Shop.Kit
	if kit == nil {
		kit = plan.DefaultKit()
	}
	stocked, kit := j.planning(i, kit)
	return plan.Request{
		Zone: &j.Zones[i], Way: w, Kit: kit, Stocked: stocked, HabitsOff: j.Shop.HabitsOff, Weights: o.Weights, Fill: j.filler(i), Piece: j.sameColour(i),
		TakeOff: j.takeOff(i), PutBack: touching || j.comesOff(i), Pause: j.giveWay,
	}
}

// unusable is an error of the planner as one about the input.
func unusable(err error) error {
	if errors.Is(err, ErrBusy) || errors.Is(err, context.Canceled) || errors.Is(err, context.DeadlineExceeded) {
		return err
	}
	return &wire.Error{Says: err.Error()}
}

// PlanZone makes plans for one zone by several ways of working in parallel, the best first, with
// the zone's current plan among them. Done is called for each way of working from its own search,
// one at a time. Errors are ErrBusy, that of a context that is done, or a *wire.Error.
func (j *Job) PlanZone(ctx context.Context, i int, ways []plan.Way, o PlanOptions) (wire.ZonePlans, error) {
	work, leave, err := j.admit(ctx, j.zones, j.Budgets.Zone, o.Stop)
	if err != nil {
		return wire.ZonePlans{}, err
	}
	defer leave()
	if j.work(i) != nil {
		return wire.ZonePlans{}, &Unfit{"Work on this zone has begun. Plans are compared from the bare zone up; change what is still to be done in its plan."}
	}
	src := &j.Piece.Zones[i]
	out := wire.ZonePlans{ID: src.ID, Name: src.Name, Plans: []wire.WayPlan{}, PerM2: j.Area(i) == 0}
	type found struct {
		way    plan.Way
		answer plan.Answer
		ask    plan.Request
		own    bool
	}
	all, errs, broke := make([]found, len(ways)), make([]error, len(ways)), make([]error, len(ways))
	if o.Done != nil {
		o.Done(0, len(ways))
	}
	var searches sync.WaitGroup
	var telling sync.Mutex
	done := 0
	for k, w := range ways {
		ask := j.ask(i, w, o)
		searches.Go(func() {
			defer func() {
				if v := recover(); v != nil {
					broke[k] = fmt.Errorf("%v\n%s", v, debug.Stack())
				}
			}()
			a, err := j.find(work, ask)
			if err != nil && spent(ctx, work) { // before it began
				a, err = plan.Answer{Infeasible: &plan.Infeasible{Stopped: true}}, nil
			}
			all[k], errs[k] = found{w, a, ask, false}, err
			if o.Done != nil {
				telling.Lock()
				defer telling.Unlock()
				done++
				o.Done(done, len(ways))
			}
		})
	}
	searches.Wait()
	for k := range ways {
		if broke[k] != nil {
			panic(broke[k]) // where progress is reported
		}
		if errs[k] != nil {
			return out, unusable(errs[k])
		}
	}
	if err := ctx.Err(); err != nil {
		return out, err
	}
	if len(src.Steps) > 0 {
		ask := j.ask(i, plan.Ways[0], o)
		own, err := plan.Weigh(j.Craft, ask, ask.Zone.Steps)
		if err != nil {
			return out, unusable(err)
		}
		if own != nil {
			name := "The current plan"
			if w, ok := WayNamed(src.Way, j.Shop.Ways); ok && src.Way != "" {
				name += ": " + craft.Lower(w.Name)
			}
			all = append(all, found{plan.Way{ID: src.Way, Name: name}, plan.Answer{Best: own}, ask, true})
		}
	}
	rank := func(f found) float64 {
		if f.answer.Best == nil {
			return 1e9
		}
		// A plan of one's own that fails comes after all that pass.
		return f.answer.Best.Points + 1e6*float64(min(1, f.answer.Best.Judged.Fails.Len()))
	}
	slices.SortStableFunc(all, func(a, b found) int { return cmp.Compare(rank(a), rank(b)) })
	for _, f := range all {
		w := j.wayPlan(i, f.way, &f.ask, &f.answer, f.own, o)
		if f.answer.Best != nil && len(out.Plans) > 0 && all[0].answer.Best != nil {
			w.Differs = plan.Differ(j.Craft, &j.Zones[i], j.Shop.Bench, all[0].answer.Best, f.answer.Best)
			w.Comparison = plan.Compare(o.Weights, all[0].answer.Best, f.answer.Best)
		}
		if k := slices.IndexFunc(out.Plans, func(o wire.WayPlan) bool { return samePlan(&w, &o) }); k >= 0 {
			w.Same = out.Plans[k].Name
		}
		out.Plans = append(out.Plans, w)
	}
	return out, nil
}

// samePlan tells whether two ways of working have plans of the same steps, or no plan for reasons
// that read the same.
func samePlan(w, o *wire.WayPlan) bool {
	a, b := w.Infeasible, o.Infeasible
	if a == nil || b == nil {
		return a == b && reflect.DeepEqual(w.Steps, o.Steps)
	}
	return slices.Equal(a.Why, b.Why) && slices.EqualFunc(a.Relaxations, b.Relaxations, func(x, y wire.Relaxation) bool { return x.Says == y.Says })
}

// wayPlan writes what a search came to.
func (j *Job) wayPlan(i int, way plan.Way, ask *plan.Request, a *plan.Answer, own bool, o PlanOptions) wire.WayPlan {
	c := j.Craft
	w := wire.WayPlan{Way: way.ID, Name: way.Name, Says: way.Says, Own: own, Proved: a.Proved}
	if a.Best == nil {
		w.Infeasible = infeasible(c, a.Infeasible)
		return w
	}
	t := taken{craft: j.Craft, steps: a.Best.Steps, cans: ask.Zone.Cans, wire: j.Piece.Cans}
	if !own {
		t = j.take(i, a.Best.Steps, nil)
	}
	c = t.craft
	z := *ask.Zone
	z.Steps, z.Cans = t.steps, t.cans
	r := check.Check(c, &z, check.Options{NoRepairs: true})
	w.Points, w.Verdict = Tenths(a.Best.Points), r.Verdict.String()
	w.Steps = writeSteps(c, t.cans, t.steps)
	w.Cans, w.Shelf = t.wire, t.says()
	w.Words = wordsOf(c, a.Best)
	if a.LookDecides {
		w.Note = "The layers below follow from the look here, not from the way of working."
	}
	w.Ground, w.Finish = plan.Ground(c, a.Best.Steps), plan.Finish(c, a.Best.Steps)
	risk := plan.Risks(c, &r)
	w.Holds = check.HoldWords(risk.Likely)
	w.Risk = &wire.Range{Low: tidy(risk.Low), Likely: tidy(risk.Likely), High: tidy(risk.High), Words: check.Range(risk.Low, risk.High)}
	if s := plan.Stains(&r); s.High >= .05 {
		of := r.Stains[0].Bleeder
		words := check.StainWords(of, s.High)
		if s.High >= 1 && words != check.StainWords(of, s.Likely) {
			words = "at worst " + words
		}
		w.Stain = &wire.Range{Low: tidy(s.Low), Likely: tidy(s.Likely), High: tidy(s.High), Words: words}
	}
	if r.Chippy && r.Chips.Bound != nil {
		w.Chips = check.Range(r.Chips.P10, r.Chips.P90)
	}
	w.HandsOn, w.Elapsed = tidy(a.Best.Judged.Minutes/60), tidy(a.Best.Judged.Hours)
	w.Days = plan.DaysOf(c, ask.Zone, a.Best.Steps, j.Shop.Bench)
	w.Takes, w.Work = takes(w.Days, a.Best.Steps), plan.WorkHours(a.Best.Judged.Minutes/60)
	w.Front, w.Refit = plan.Front(a.Best.Judged.Risk), plan.Refit(ask.Zone, a.Best.Steps)
	w.Leaves, w.BuyWords = a.Best.Leaves.Leaves(), plan.Buying(a.Best.Buys)
	for _, x := range a.Best.Buys {
		w.Buys = append(w.Buys, x.Name)
	}
	switch {
	case len(a.Best.Buys) == 0:
	case a.NoneWithin:
		w.Gain = "With your kit alone there is no plan."
	case a.Within != nil:
		w.Gain = "With your kit alone: " + craft.Lower(plan.Differ(c, ask.Zone, j.Shop.Bench, a.Best, a.Within))
		if front := plan.Front(a.Within.Judged.Risk); front != "" && front != w.Front {
			w.Gain += " " + front
		}
	}
	w.Cost, w.Smell, w.Trips = tidy(a.Best.Amounts[plan.Cost]), plan.SmellWords(a.Best.Amounts[plan.Smell]), plan.TripsOf(a.Best.Steps)
	w.Depends = plan.Depends(c, &z, &r)
	w.Watches = watchesOf(&r)
	w.Terms = termsOf(o.Weights, a.Best)
	if o.Section {
		w.Section = drawn(c, j.Piece.Zones[i].Colour, &z, &r, true)
	}
	return w
}

// takes words how many days a plan takes, with the wait for hardness where it has one.
func takes(days int, steps []surface.Step) string {
	out := measure.Count(days, "day", "days")
	if n := len(steps); n > 1 && steps[n-1].Do == surface.Reassemble && steps[n-2].Do == surface.Wait {
		out += ", then " + measure.Hours(steps[n-2].Hours) + " until it goes back together"
	}
	return out
}

// termsOf is what the points of a plan are made of.
func termsOf(w plan.Weights, p *plan.Plan) []wire.TermPoints {
	w = w.OrUsual()
	var out []wire.TermPoints
	for t, x := range p.Amounts {
		if pts := w.Of(plan.Term(t)) * x; pts >= .05 {
			out = append(out, wire.TermPoints{ID: plan.Terms[t].ID, Name: plan.Terms[t].Name, Amount: plan.Amount(plan.Term(t), x), Points: Tenths(pts)})
		}
	}
	return out
}

// watchesOf are the titles of all that a check says can go wrong.
func watchesOf(r *check.Result) []string {
	var out []string
	for k := range r.Findings {
		if r.Findings[k].Severity > check.Note {
			out = append(out, r.Findings[k].Title)
		}
	}
	return out
}

func infeasible(c *craft.Craft, s *plan.Infeasible) *wire.Infeasible {
	out := &wire.Infeasible{Why: []wire.Obstacle{}, Relaxations: []wire.Relaxation{}}
	if s == nil {
		return out
	}
	out.Stopped = s.Stopped
	for _, o := range s.Why {
		out.Why = append(out.Why, wire.Obstacle(o))
	}
	for _, o := range s.Relaxations {
		out.Relaxations = append(out.Relaxations, wire.Relaxation{Says: o.Says, Field: string(o.Field), Words: wordsOf(c, o.Plan)})
	}
	return out
}

func wordsOf(c *craft.Craft, p *plan.Plan) []string {
	if p == nil {
		return nil
	}
	out := make([]string, len(p.Steps))
	for i := range p.Steps {
		s := &p.Steps[i]
		out[i] = check.StepWords(c, s)
		if s.Sheen != craft.NoSheen {
			out[i] += ", " + craft.Sheens[s.Sheen].Name
		}
		switch s.Method {
		case "spray":
			out[i] += ", sprayed"
		case "roller":
			out[i] += ", by roller"
		}
		if s.Colour != "" {
			out[i] += ", in " + colour.NameHex(s.Colour)
		}
	}
	return out
}

// Sensitivities says what would change the plan of a zone. Errors are those of PlanZone, or an *Unfit where the
// time for it is spent.
func (j *Job) Sensitivities(ctx context.Context, i int, w plan.Way, o PlanOptions) ([]wire.Sensitivity, error) {
	if j.work(i) != nil {
		return []wire.Sensitivity{}, nil // what is done cannot be planned otherwise
	}
	work, leave, err := j.admit(ctx, j.zones, j.Budgets.Zone, o.Stop)
	if err != nil {
		return nil, err
	}
	defer leave()
	c, ask := j.Craft, j.ask(i, w, o)
	own, err := plan.Weigh(c, ask, ask.Zone.Steps)
	if err != nil {
		return nil, unusable(err)
	}
	out := []wire.Sensitivity{}
	if own == nil {
		return out, nil
	}
	var minds []plan.Sensitivity
	err = j.search(work, func() (err error) {
		minds, err = plan.Sensitivities(work, c, ask, own)
		return err
	})
	switch {
	case spent(ctx, work): // what was not looked at may be what matters
		return nil, &Unfit{"This takes longer than a search may, and was stopped."}
	case err != nil:
		return nil, unusable(err)
	case ctx.Err() != nil:
		return nil, ctx.Err()
	}
	const most = 4
	for k := range minds[:min(most, len(minds))] {
		m := &minds[k]
		then := "No plan passes this way."
		if m.Instead != nil {
			then = "Instead: " + plan.Ground(c, m.Instead.Steps) + ", then " + plan.Finish(c, m.Instead.Steps) + "."
		}
		if m.Fails {
			then = "This plan fails: " + craft.Lower(m.Why) + ". " + then
		}
		out = append(out, wire.Sensitivity{If: m.If, Test: m.Test, Field: string(m.Field), Fails: m.Fails, Then: then, Instead: wordsOf(c, m.Instead)})
	}
	return out, nil
}

// PlanPiece plans every zone of a piece that has no plan. Errors are those of PlanZone.
func (j *Job) PlanPiece(ctx context.Context, w plan.Way, o PlanOptions) (wire.PiecePlan, error) {
	work, leave, err := j.admit(ctx, j.pieces, j.Budgets.Piece, o.Stop)
	if err != nil {
		return wire.PiecePlan{}, err
	}
	defer leave()
	c, p := j.Craft, j.Piece
	parts := make([]plan.PieceZone, len(p.Zones))
	for i := range p.Zones {
		parts[i] = plan.PieceZone{Name: j.name(i), Request: j.ask(i, w, o)}
		parts[i].Steps = parts[i].Request.Zone.Steps
	}
	done := func(n int) {
		if o.Done != nil {
			o.Done(n, len(parts))
		}
	}
	done(0)
	var planned []plan.Planned
	each := func(ctx context.Context) (context.Context, context.CancelFunc) {
		return context.WithTimeout(ctx, j.Budgets.Zone)
	}
	err = j.search(work, func() (err error) {
		planned, err = plan.Piece(work, c, parts, each, done)
		return err
	})
	if err != nil && !spent(ctx, work) {
		return wire.PiecePlan{}, unusable(err)
	}
	if planned == nil { // it was over before it began
		planned = make([]plan.Planned, len(parts))
		for i := range planned {
			planned[i].Kept = len(parts[i].Steps) > 0
		}
	}
	full := *p
	full.Zones = slices.Clone(p.Zones)
	left := map[string]float64{}
	out := wire.PiecePlan{Piece: &full, Zones: make([]wire.ZonePlan, len(parts)), Trips: []wire.Trip{}}
	zones := make([]check.Zone, len(parts))
	for i := range planned {
		if err := ctx.Err(); err != nil {
			return wire.PiecePlan{}, err
		}
		x := &planned[i]
		zones[i] = *parts[i].Request.Zone
		z := wire.ZonePlan{ID: p.Zones[i].ID, Name: j.name(i), Differs: x.Differs}
		if x.Answer.Best != nil {
			z.Like = x.Like
		}
		switch best := x.Answer.Best; {
		case x.Kept:
			z.State, z.Says = "had", "It already has a plan, which stays."
		case best != nil:
			t := j.take(i, best.Steps, left)
			full.Zones[i].Steps, full.Zones[i].Way = writeSteps(t.craft, t.cans, t.steps), w.ID
			full.Cans = addCans(full.Cans, t.wire)
			zones[i].Steps = best.Steps
			taking := zones[i]
			taking.Steps, taking.Cans = t.steps, t.cans
			r := check.Check(t.craft, &taking, check.Options{NoRepairs: true})
			z.Shelf = t.says()
			z.State, z.Watches = "planned", watchesOf(&r)
			z.BuyWords, z.Front, z.Leaves = plan.Buying(best.Buys), plan.Front(best.Judged.Risk), best.Leaves.Leaves()
			z.Says = craft.Upper(plan.Ground(c, best.Steps)) + ", then " + plan.Finish(c, best.Steps) + "."
			if !x.Answer.Proved {
				z.Unproved = true
				z.Says += " The search was stopped early: there may be a better plan."
			}
		case x.Answer.Infeasible == nil || x.Answer.Infeasible.Stopped:
			z.State, z.Says = "stopped", "Planning was stopped before this zone."
		default:
			z.State, z.Infeasible = "stuck", infeasible(c, x.Answer.Infeasible)
			z.Says = x.Answer.Infeasible.Why[0].Title + "."
		}
		out.Zones[i] = z
		out.Steps += plan.TripsOf(zones[i].Steps)
	}
	out.Days = []wire.Day{}
	trips := plan.Trips(c, zones, j.Shop.Bench)
	for _, t := range trips {
		w := wire.Trip{Day: t.Day, Does: t.Does, Do: surface.Kinds[t.Kind].ID, StartH: tidy(t.Start), At: clockWords(t.Clock), Minutes: tidy(t.Minutes), Work: measure.Hours(t.Minutes / 60), Caution: t.Caution}
		for _, v := range t.Visits {
			w.Zones = append(w.Zones, j.name(v.Zone))
		}
		for _, z := range t.While {
			w.While = append(w.While, j.name(z))
		}
		if n := len(out.Days); n == 0 || out.Days[n-1].Day != t.Day {
			out.Days = append(out.Days, wire.Day{Day: t.Day})
		}
		d := &out.Days[len(out.Days)-1]
		d.Trips = append(d.Trips, len(out.Trips))
		out.Trips = append(out.Trips, w)
	}
	for i := range out.Days {
		d := &out.Days[i]
		d.Title = dayTitle(d.Day, trips, d.Trips)
	}
	out.Takes = measure.Count(plan.Days(trips), "day", "days")
	return out, nil
}

// clockWords says at which hour of its day a trip begins, to the next five minutes.
func clockWords(h float64) string {
	minutes := 5 * int(math.Ceil(h*60/5-1e-6))
	return fmt.Sprintf("%d:%02d", minutes/60, minutes%60)
}

// dayTitle names a day by its work: Day 1, 2 h: wash, sand and prime.
func dayTitle(day int, trips []plan.Trip, of []int) string {
	hours := 0.
	var does []string
	for _, i := range of {
		hours += trips[i].Minutes / 60
		words, _, _ := strings.Cut(craft.Lower(trips[i].Does), ",")
		if !slices.Contains(does, words) {
			does = append(does, words)
		}
	}
	const most = 4
	if len(does) > most {
		does = append(does[:most-1], fmt.Sprintf("%d more", len(does)-most+1))
	}
	return fmt.Sprintf("Day %d, %s h: %s", day, measure.Number(math.Max(.5, math.Round(hours*2)/2)), craft.List(does))
}

// ParseWeights reads weights as name=factor, separated by commas; those that are left out stay
// normal.
func ParseWeights(s string) (plan.Weights, error) {
	w := plan.Usual
	for _, part := range strings.Split(s, ",") {
		if part = strings.TrimSpace(part); part == "" {
			continue
		}
		id, value, ok := strings.Cut(part, "=")
		t := slices.IndexFunc(plan.Terms[:plan.NumWeights], func(r plan.TermRow) bool { return r.ID == strings.TrimSpace(id) })
		if !ok || t < 0 {
			return w, &wire.Error{Value: strconv.Quote(wire.Clip(part)), Says: "weights are written as " + weightNames() + ", each with = and a number"}
		}
		x, err := strconv.ParseFloat(strings.TrimSpace(value), 64)
		if err != nil {
			return w, &wire.Error{Value: strconv.Quote(wire.Clip(part)), Says: "that is not a number"}
		}
		w[t] = x
	}
	if err := w.Check(); err != nil {
		return w, &wire.Error{Says: err.Error()}
	}
	return w, nil
}

func weightNames() string {
	out := make([]string, plan.NumWeights)
	for i := range out {
		out[i] = plan.Terms[i].ID
	}
	return craft.List(out)
}

// Searched is what the search for the plan of one zone looked at.
type Searched struct {
	ID     string // of the zone
	Answer plan.Answer
	Terms  []wire.TermPoints // what the points of the best are made of
	// RunnerUp are the steps of the next best plan in words, and Against why it lost; empty
	// where there is none.
	RunnerUp []string
	Against  string
}

// Explain searches once more for every zone that has no plan, and says what it looked at. Errors
// are those of PlanZone.
func (j *Job) Explain(ctx context.Context, w plan.Way, o PlanOptions) ([]Searched, error) {
	work, leave, err := j.admit(ctx, j.pieces, j.Budgets.Piece, o.Stop)
	if err != nil {
		return nil, err
	}
	defer leave()
	var out []Searched
	for i := range j.Zones {
		if len(j.Zones[i].Steps) > 0 {
			continue
		}
		a, err := j.find(work, j.ask(i, w, o))
		if err != nil && spent(ctx, work) {
			break
		}
		if err != nil {
			return nil, unusable(err)
		}
		s := Searched{ID: j.Piece.Zones[i].ID, Answer: a}
		if a.Best != nil {
			s.Terms = termsOf(o.Weights, a.Best)
		}
		if a.Best != nil && a.Next != nil {
			s.RunnerUp, s.Against = wordsOf(j.Craft, a.Next), plan.Compare(o.Weights, a.Best, a.Next)
		}
		out = append(out, s)
	}
	return out, nil
}
