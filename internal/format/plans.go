package format

import (
	"cmp"
	"context"
	"fmt"
	"io"
	"reflect"
	"runtime/debug"
	"slices"
	"strconv"
	"strings"
	"sync"

	"rutile/core/apart"
	"rutile/core/check"
	"rutile/core/craft"
	"rutile/core/mend"
	"rutile/core/plan"
	"rutile/core/surface"
)

// PlansFormat names what the planner answers in.
const PlansFormat = "rutile/plans"

// PlanOptions choose how plans are made.
type PlanOptions struct {
	CheckOptions
	Weights plan.Weights // their zero value stands for the usual ones
	Own     []Way        // ways of the studio's own
	Done    func(done, of int)
}

// Plans are the plans of the zones of a piece.
type Plans struct {
	Format  string      `json:"format"`
	Version int         `json:"version"`
	Zones   []ZonePlans `json:"zones"`
}

// ZonePlans are the plans of one zone, by several ways, the best first.
type ZonePlans struct {
	ID    string    `json:"id"`
	Name  string    `json:"name,omitempty"`
	Plans []WayPlan `json:"plans"`
	// PerM2 is set where nobody knows the area.
	PerM2 bool `json:"per_m2,omitempty" doc:"Hours and costs are those of one square metre, as the area is not known"`
}

// WayPlan is the best plan by one way of working, or what stands in its way.
type WayPlan struct {
	Way     string     `json:"way"`
	Name    string     `json:"name"`
	Says    string     `json:"says,omitempty"`
	Own     bool       `json:"own,omitempty" doc:"The plan that the zone has"`
	Same    string     `json:"same,omitempty" doc:"The way before it that comes to the same steps, or is in the same trouble"`
	Proved  bool       `json:"proved" doc:"Nothing in the planner's vocabulary is better by these weights"`
	Points  float64    `json:"points"`
	Against string     `json:"against,omitempty" doc:"Why it comes after the best"`
	Verdict string     `json:"verdict,omitempty" enum:"sound,watch,fails"`
	Steps   []Step     `json:"steps,omitempty"`
	Words   []string   `json:"words,omitempty" doc:"The steps in words"`
	Ground  string     `json:"ground,omitempty" doc:"What makes it hold, in words"`
	Finish  string     `json:"finish,omitempty" doc:"The paint and what closes it, in words"`
	Note    string     `json:"note,omitempty" doc:"Where the look decides what the way would"`
	Risk    *RangePart `json:"risk,omitempty" doc:"Of peeling"`
	Stain   *RangePart `json:"stain,omitempty" doc:"The worst that comes through, in CIEDE2000 units; absent where nothing rises"`
	Chips   string     `json:"chips,omitempty" doc:"Of a flaking look: how much of it lets go"`
	HandsOn float64    `json:"hands_on_h"`
	Elapsed float64    `json:"elapsed_h"`
	Takes   string     `json:"takes,omitempty" doc:"How long it takes, in words"`
	Cost    float64    `json:"cost" doc:"Of materials, in units of money"`
	Smell   string     `json:"smell,omitempty"`
	Trips   int        `json:"trips"`
	Depends []string   `json:"depends,omitempty" doc:"What it rests on, what matters most first"`
	Watches []string   `json:"watches,omitempty" doc:"What the check says can go wrong with it"`
	Terms   []TermPart `json:"terms,omitempty" doc:"What its points are made of"`
	Section *Section   `json:"section,omitempty"`
	Stuck   *StuckPart `json:"stuck,omitempty" doc:"What stands in the way, where there is no plan"`
}

// RangePart is a figure as a range.
type RangePart struct {
	Low    float64 `json:"low"`
	Likely float64 `json:"likely"`
	High   float64 `json:"high"`
	Words  string  `json:"words"`
}

// TermPart is what one term adds to a plan's points.
type TermPart struct {
	ID     string  `json:"id"`
	Name   string  `json:"name"`
	Amount string  `json:"amount"`
	Points float64 `json:"points"`
}

// StuckPart says why there is no plan, and what would open the way.
type StuckPart struct {
	Why     []ObstaclePart `json:"why"`
	Opens   []OpeningPart  `json:"opens"`
	Stopped bool           `json:"stopped,omitempty" doc:"The search was stopped before it had seen everything"`
}

// ObstaclePart is one thing that stands in the way.
type ObstaclePart struct {
	Code  string `json:"code,omitempty"`
	Title string `json:"title"`
	Why   string `json:"why"`
}

// OpeningPart is a change with which there is a plan.
type OpeningPart struct {
	Says  string   `json:"says"`
	Field string   `json:"field" doc:"Where it is entered"`
	Words []string `json:"words" doc:"A plan that then passes"`
}

// MindPart is a fact that nobody has tested and that would change the plan.
type MindPart struct {
	If      string   `json:"if"`
	Test    string   `json:"test"`
	Field   string   `json:"field" doc:"Where what is found is entered"`
	Fails   bool     `json:"fails" doc:"The plan would then fail"`
	Then    string   `json:"then" doc:"What would be done instead, in words"`
	Instead []string `json:"instead,omitempty" doc:"The steps of that plan, in words"`
}

// ask is the question for a plan of one zone.
func (p *Piece) ask(c *craft.Craft, i int, w plan.Way, o PlanOptions) plan.Ask {
	z := p.judged(c, i, o.CheckOptions)
	touching, _ := p.fits(p.Zones[i].ID)
	return plan.Ask{Zone: &z, Way: w, Weights: o.Weights, Fill: p.Zones[i].filler(c), PutBack: touching || p.comesOff(i)}
}

// filler is what the damage of a zone is filled with: what most of it takes.
func (z *Zone) filler(c *craft.Craft) string {
	out := ""
	for _, d := range z.damage(c) {
		if d.ID == "flaking" || d.ID == "blister" { // it comes off first
			continue
		}
		switch d.Filler() {
		case mend.TwoPart:
			return "filler_two_part"
		case mend.Fine:
			out = "filler_fine"
		}
	}
	return out
}

// comesOff tells whether something of a zone was taken off, and is put back in the
// end.
func (p *Piece) comesOff(zone int) bool {
	return slices.ContainsFunc(p.TakeApart, func(f Fitting) bool {
		return p.sitsOn(&f, zone) && f.does() == apart.Off
	})
}

// PlanZone makes plans for one zone by several ways at once, the best first, and sets
// the plan that it has beside them. Done is told of each way from wherever it was
// searched, one at a time.
func PlanZone(ctx context.Context, c *craft.Craft, p *Piece, i int, ways []plan.Way, o PlanOptions) (ZonePlans, error) {
	out := ZonePlans{ID: p.Zones[i].ID, Name: p.Zones[i].Name, Plans: []WayPlan{}, PerM2: p.AreaOf(i) == 0}
	type found struct {
		way    plan.Way
		answer plan.Answer
		ask    plan.Ask
		own    bool
	}
	all, errs, broke := make([]found, len(ways)), make([]error, len(ways)), make([]error, len(ways))
	var searches sync.WaitGroup
	var telling sync.Mutex
	done := 0
	for k, w := range ways {
		ask := p.ask(c, i, w, o)
		searches.Go(func() {
			defer func() {
				if v := recover(); v != nil {
					broke[k] = fmt.Errorf("%v\n%s", v, debug.Stack())
				}
			}()
			a, err := plan.Find(ctx, c, ask)
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
			panic(broke[k]) // where whoever asked is told of it
		}
		if errs[k] != nil {
			return out, &Error{Says: errs[k].Error()}
		}
	}
	if len(p.Zones[i].Steps) > 0 {
		ask := p.ask(c, i, plan.Ways[0], o)
		own, err := plan.Weigh(c, ask, ask.Zone.Steps)
		if err != nil {
			return out, &Error{Says: err.Error()}
		}
		if own != nil {
			name := "The plan it has"
			if w, ok := WayNamed(p.Zones[i].Way, o.Own); ok && p.Zones[i].Way != "" {
				name += ": " + craft.Lower(w.Name)
			}
			all = append(all, found{plan.Way{ID: p.Zones[i].Way, Name: name}, plan.Answer{Best: own}, ask, true})
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
		w := wayPlan(c, p, i, f.way, &f.ask, &f.answer, o)
		w.Own = f.own
		if f.answer.Best != nil && len(out.Plans) > 0 && all[0].answer.Best != nil {
			w.Against = plan.Against(o.Weights, all[0].answer.Best, f.answer.Best)
		}
		if k := slices.IndexFunc(out.Plans, w.same); k >= 0 {
			w.Same = out.Plans[k].Name
		}
		out.Plans = append(out.Plans, w)
	}
	return out, nil
}

// same tells whether a plan of another way has the same steps, or the same stands
// in its way.
func (w *WayPlan) same(o WayPlan) bool {
	a, b := w.Stuck, o.Stuck
	if a == nil || b == nil {
		return a == b && reflect.DeepEqual(w.Steps, o.Steps)
	}
	return slices.Equal(a.Why, b.Why) && slices.EqualFunc(a.Opens, b.Opens, func(x, y OpeningPart) bool { return x.Says == y.Says })
}

// wayPlan writes what a search came to.
func wayPlan(c *craft.Craft, p *Piece, i int, way plan.Way, ask *plan.Ask, a *plan.Answer, o PlanOptions) WayPlan {
	w := WayPlan{Way: way.ID, Name: way.Name, Says: way.Says, Proved: a.Proved}
	if a.Best == nil {
		w.Stuck = stuckPart(c, a.Stuck)
		return w
	}
	z := *ask.Zone
	z.Steps = a.Best.Steps
	r := check.Check(c, &z, check.Options{NoRepairs: true})
	w.Points, w.Verdict = Tenths(a.Best.Points), r.Verdict.String()
	w.Steps = StepsFrom(c, a.Best.Steps)
	w.Words = wordsOf(c, a.Best)
	if a.LookDecides {
		w.Note = "What lies below follows from the look here, and not from the way."
	}
	w.Ground, w.Finish = plan.Ground(c, a.Best.Steps), plan.Finish(c, a.Best.Steps)
	risk := plan.Risks(c, &r)
	w.Risk = &RangePart{tidy(risk.Low), tidy(risk.Likely), tidy(risk.High), check.Span(risk.Low, risk.High)}
	if s := plan.Stains(&r); s.High >= .05 {
		words := fmt.Sprintf("ΔE %.1f to %.1f", s.Low, s.High)
		if s.High < 1 {
			words = "unseen, " + words
		}
		w.Stain = &RangePart{tidy(s.Low), tidy(s.Likely), tidy(s.High), words}
	}
	if r.Chippy && r.Chips.Bound != nil {
		w.Chips = check.Span(r.Chips.P10, r.Chips.P90)
	}
	w.HandsOn, w.Elapsed = tidy(a.Best.Judged.Minutes/60), tidy(a.Best.Judged.Hours)
	w.Takes = check.Hours(a.Best.Judged.Hours)
	w.Cost, w.Smell, w.Trips = tidy(a.Best.Amounts[plan.Cost]), plan.SmellWords(a.Best.Amounts[plan.Smell]), plan.TripsOf(a.Best.Steps)
	w.Depends = plan.Depends(c, &z, &r)
	w.Watches = watchesOf(&r)
	w.Terms = termsOf(o.Weights, a.Best)
	if o.Section {
		w.Section = drawing(c, &p.Zones[i], &z, &r)
	}
	return w
}

// termsOf is what the points of a plan are made of.
func termsOf(w plan.Weights, p *plan.Plan) []TermPart {
	w = w.OrUsual()
	var out []TermPart
	for t, x := range p.Amounts {
		if pts := w.Of(plan.Term(t)) * x; pts >= .05 {
			out = append(out, TermPart{plan.Terms[t].ID, plan.Terms[t].Name, plan.Amount(plan.Term(t), x), Tenths(pts)})
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

func stuckPart(c *craft.Craft, s *plan.Stuck) *StuckPart {
	out := &StuckPart{Why: []ObstaclePart{}, Opens: []OpeningPart{}}
	if s == nil {
		return out
	}
	out.Stopped = s.Stopped
	for _, o := range s.Why {
		out.Why = append(out.Why, ObstaclePart(o))
	}
	for _, o := range s.Opens {
		out.Opens = append(out.Opens, OpeningPart{o.Says, o.Field, wordsOf(c, o.Plan)})
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
			out[i] += ", in " + s.Colour
		}
	}
	return out
}

// Minds says what would change the plan of a zone.
func Minds(ctx context.Context, c *craft.Craft, p *Piece, i int, w plan.Way, o PlanOptions) ([]MindPart, error) {
	ask := p.ask(c, i, w, o)
	own, err := plan.Weigh(c, ask, ask.Zone.Steps)
	if err != nil {
		return nil, &Error{Says: err.Error()}
	}
	out := []MindPart{}
	if own == nil {
		return out, nil
	}
	minds, err := plan.Minds(ctx, c, ask, own)
	if err != nil {
		return nil, &Error{Says: err.Error()}
	}
	const most = 4
	for k := range minds[:min(most, len(minds))] {
		m := &minds[k]
		then := "Nothing by this way would pass."
		if m.Instead != nil {
			then = "Instead: " + plan.Ground(c, m.Instead.Steps) + ", then " + plan.Finish(c, m.Instead.Steps) + "."
		}
		if m.Fails {
			then = "This plan fails: " + craft.Lower(m.Why) + ". " + then
		}
		out = append(out, MindPart{m.If, m.Test, m.Field, m.Fails, then, wordsOf(c, m.Instead)})
	}
	return out, nil
}

// PiecePlan is a piece in which every zone that can be is planned.
type PiecePlan struct {
	Piece *Piece     `json:"piece"`
	Zones []ZonePlan `json:"zones"`
	Trips []TripPart `json:"trips" doc:"All that is planned, as one order of trips to the bench"`
	Steps int        `json:"steps" doc:"As many trips there would be, zone by zone"`
	Takes string     `json:"takes" doc:"From the first trip to the last, in words"`
}

// ZonePlan is what became of one zone.
type ZonePlan struct {
	ID      string     `json:"id"`
	Name    string     `json:"name"`
	State   string     `json:"state" enum:"had,planned,stuck,stopped" doc:"Had: it had a plan, which stays"`
	Says    string     `json:"says"`
	Like    []string   `json:"like,omitempty" doc:"Zones that will look the same"`
	Differs string     `json:"differs,omitempty" doc:"Why it cannot have their paint"`
	Watches []string   `json:"watches,omitempty" doc:"What the check says can go wrong with its new plan"`
	Stuck   *StuckPart `json:"stuck,omitempty"`
}

// TripPart is one trip to the bench.
type TripPart struct {
	Does    string   `json:"does"`
	Do      string   `json:"do"`
	Zones   []string `json:"zones" doc:"Names, in order"`
	StartH  float64  `json:"start_h" doc:"Hours after the first trip"`
	At      string   `json:"at" doc:"The same in words"`
	Minutes float64  `json:"minutes"`
	While   []string `json:"while,omitempty" doc:"Zones that dry meanwhile"`
}

// PlanPiece plans every zone of a piece that has no plan.
func PlanPiece(ctx context.Context, c *craft.Craft, p *Piece, w plan.Way, o PlanOptions) (PiecePlan, error) {
	parts := make([]plan.Part, len(p.Zones))
	name := func(i int) string { return cmp.Or(p.Zones[i].Name, p.Zones[i].ID) }
	for i := range p.Zones {
		parts[i] = plan.Part{Name: name(i), Ask: p.ask(c, i, w, o)}
		parts[i].Steps = parts[i].Ask.Zone.Steps
	}
	done := func(n int) {
		if o.Done != nil {
			o.Done(n, len(parts))
		}
	}
	planned, err := plan.Piece(ctx, c, parts, done)
	if err != nil {
		return PiecePlan{}, &Error{Says: err.Error()}
	}
	full := *p
	full.Zones = slices.Clone(p.Zones)
	out := PiecePlan{Piece: &full, Zones: make([]ZonePlan, len(parts)), Trips: []TripPart{}}
	zones := make([]check.Zone, len(parts))
	for i := range planned {
		x := &planned[i]
		zones[i] = *parts[i].Ask.Zone
		z := ZonePlan{ID: p.Zones[i].ID, Name: name(i), Differs: x.Differs}
		if x.Answer.Best != nil {
			z.Like = x.Like
		}
		switch best := x.Answer.Best; {
		case x.Kept:
			z.State, z.Says = "had", "It has a plan already, which stays."
		case best != nil:
			full.Zones[i].Steps, full.Zones[i].Way = StepsFrom(c, best.Steps), w.ID
			zones[i].Steps = best.Steps
			r := check.Check(c, &zones[i], check.Options{NoRepairs: true})
			z.State, z.Watches = "planned", watchesOf(&r)
			z.Says = craft.Upper(plan.Ground(c, best.Steps)) + ", then " + plan.Finish(c, best.Steps) + "."
		case x.Answer.Stuck == nil || x.Answer.Stuck.Stopped:
			z.State, z.Says = "stopped", "It was stopped before it came to this zone."
		default:
			z.State, z.Stuck = "stuck", stuckPart(c, x.Answer.Stuck)
			z.Says = x.Answer.Stuck.Why[0].Title + "."
		}
		out.Zones[i] = z
		out.Steps += plan.TripsOf(zones[i].Steps)
	}
	last := 0.
	for _, t := range plan.Trips(c, zones) {
		w := TripPart{Does: t.Does, Do: surface.Kinds[t.Kind].ID, StartH: tidy(t.Start), At: dayWords(t.Start), Minutes: tidy(t.Minutes)}
		for _, v := range t.Visits {
			w.Zones = append(w.Zones, name(v.Zone))
		}
		for _, z := range t.While {
			w.While = append(w.While, name(z))
		}
		out.Trips = append(out.Trips, w)
		last = max(last, t.Start+t.Minutes/60)
	}
	out.Takes = check.Hours(last)
	return out, nil
}

// dayWords says when a trip begins, counted from the first.
func dayWords(h float64) string {
	day := int(h) / 24
	rest := h - float64(24*day)
	return fmt.Sprintf("day %d, %d:%02d", day+1, int(rest), int(rest*60)%60)
}

// ParseWeights reads weights as name=factor, with commas between them; those that
// are left out stay as usual.
func ParseWeights(s string) (plan.Weights, error) {
	w := plan.Usual
	for _, part := range strings.Split(s, ",") {
		if part = strings.TrimSpace(part); part == "" {
			continue
		}
		id, value, ok := strings.Cut(part, "=")
		t := slices.IndexFunc(plan.Terms[:plan.NumWeights], func(r plan.TermRow) bool { return r.ID == strings.TrimSpace(id) })
		if !ok || t < 0 {
			return w, &Error{Value: strconv.Quote(clip(part)), Says: "weights are written as " + weightNames() + ", each with = and a number"}
		}
		x, err := strconv.ParseFloat(strings.TrimSpace(value), 64)
		if err != nil {
			return w, &Error{Value: strconv.Quote(clip(part)), Says: "that is no number"}
		}
		w[t] = x
	}
	if err := w.Check(); err != nil {
		return w, &Error{Says: err.Error()}
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

// Text writes the plans of a zone for reading.
func (z *ZonePlans) Text(w io.Writer) error {
	b := &strings.Builder{}
	fmt.Fprintf(b, "%s\n", cmp.Or(z.Name, z.ID))
	if z.PerM2 {
		fmt.Fprintln(b, "  The area is not known: hours and costs are those of one square metre.")
	}
	for i := range z.Plans {
		x := &z.Plans[i]
		if x.Stuck != nil {
			fmt.Fprintf(b, "  %s: no plan passes.\n", x.Name)
			for _, o := range x.Stuck.Why {
				fmt.Fprintf(b, "      %s. %s\n", strings.TrimSuffix(o.Title, "."), o.Why)
			}
			for _, o := range x.Stuck.Opens {
				fmt.Fprintf(b, "      What would open the way: %s.\n", craft.Lower(o.Says))
			}
			continue
		}
		fmt.Fprintf(b, "  %d. %s: %.1f points, %s\n", i+1, x.Name, x.Points, x.Verdict)
		if x.Same != "" {
			fmt.Fprintf(b, "      The same steps as %s.\n", craft.Lower(x.Same))
			continue
		}
		stain := "nothing rises"
		if x.Stain != nil {
			stain = "stain " + x.Stain.Words
		}
		fmt.Fprintf(b, "      peeling %s, %s; %s in all, %.1f h at the bench in %d trips; materials %.2f; smell %s\n",
			x.Risk.Words, stain, x.Takes, x.HandsOn, x.Trips, x.Cost, x.Smell)
		for k, s := range x.Words {
			fmt.Fprintf(b, "      %2d  %s\n", k+1, s)
		}
		for _, s := range x.Watches {
			fmt.Fprintf(b, "      Watch: %s\n", s)
		}
		if len(x.Depends) > 0 {
			fmt.Fprintf(b, "      It rests on %s.\n", strings.Join(x.Depends, "; "))
		}
	}
	_, err := io.WriteString(w, b.String())
	return err
}

// Text writes a planned piece for reading: zone by zone, then the trips.
func (r *PiecePlan) Text(w io.Writer) error {
	b := &strings.Builder{}
	for i := range r.Zones {
		z := &r.Zones[i]
		fmt.Fprintf(b, "%s: %s\n", z.Name, z.Says)
		if z.Differs != "" {
			fmt.Fprintf(b, "  %s\n", z.Differs)
		}
		if z.Stuck != nil {
			for _, o := range z.Stuck.Opens {
				fmt.Fprintf(b, "  What would open the way: %s.\n", craft.Lower(o.Says))
			}
		}
	}
	fmt.Fprintf(b, "\n%d trips to the bench instead of %d, over %s:\n", len(r.Trips), r.Steps, r.Takes)
	for _, t := range r.Trips {
		fmt.Fprintf(b, "  %-14s %-40s %s", t.At, t.Does, strings.Join(t.Zones, ", "))
		if len(t.While) > 0 {
			fmt.Fprintf(b, " (drying meanwhile: %s)", strings.Join(t.While, ", "))
		}
		fmt.Fprintln(b)
	}
	_, err := io.WriteString(w, b.String())
	return err
}

// Explain says of every zone that has no plan what the search looked at, and why
// the next best plan lost.
func Explain(ctx context.Context, w io.Writer, c *craft.Craft, p *Piece, way plan.Way, o PlanOptions) error {
	b := &strings.Builder{}
	for i := range p.Zones {
		if len(p.Zones[i].Steps) > 0 {
			continue
		}
		a, err := plan.Find(ctx, c, p.ask(c, i, way, o))
		if err != nil {
			return &Error{Says: err.Error()}
		}
		s := &a.Stats
		fmt.Fprintf(b, "%s: %d beginnings of plans opened, %d plans judged, %d merged, %d cut by a rule, %d never looked at; %d ways of finishing it\n",
			p.Zones[i].ID, s.Opened, s.Judged, s.Merged, s.Cut, s.Bound, s.Tails)
		switch {
		case a.Best == nil:
			fmt.Fprintln(b, "  nothing passes")
			continue
		case a.Proved:
			fmt.Fprintf(b, "  the best has %.1f points, and no plan of this vocabulary has fewer\n", a.Best.Points)
		default:
			fmt.Fprintf(b, "  the best so far has %.1f points; the search was stopped\n", a.Best.Points)
		}
		for _, t := range termsOf(o.Weights, a.Best) {
			fmt.Fprintf(b, "    %-10s %6.1f points for %s\n", t.ID, t.Points, t.Amount)
		}
		if a.Next != nil {
			fmt.Fprintf(b, "  the runner-up: %s\n    %s\n", strings.Join(wordsOf(c, a.Next), "; "), plan.Against(o.Weights, a.Best, a.Next))
		}
	}
	_, err := io.WriteString(w, b.String())
	return err
}
