// Package offer says what makes sense as the next step of a plan, and why: it
// puts every step a painter could begin into the plan, walks and judges that,
// and reads the reason off the surface the step would meet.
package suggest

import (
	"cmp"
	"context"
	"fmt"
	"math"
	"slices"

	"rutile/core/check"
	"rutile/core/craft"
	"rutile/core/measure"
	"rutile/core/surface"
)

// Suggestion is one step that could come next.
type Suggestion struct {
	Option
	// Why it makes sense here; empty where nothing calls for it.
	Why string
	// Brings is the title of a fail that the step would bring into the plan;
	// empty where it brings none.
	Brings string
	// Barred says why the step cannot be planned at all; empty where it can.
	Barred string
	// After is the verdict on the plan with the step in it.
	After check.Verdict

	need  need
	score float64 // among those that answer the same need, higher is better
}

// Sensible tells whether the step is worth offering first.
func (o *Suggestion) Sensible() bool {
	return o.need != needNothing && o.Brings == "" && o.Barred == ""
}

// need is what a step answers, in the order of the work.
type need uint8

const (
	needNothing need = iota
	needRepair
	needClean
	needDust
	needKey
	needGrain
	needWait
	needMask
	needGrip
	needBlock
	needPaint
	needEffect
	needSeal
)

// most is how many steps are offered for one need.
var most = map[need]int{needClean: 2, needDust: 1, needKey: 1, needGrain: 1, needWait: 1, needGrip: 2, needBlock: 2, needPaint: 3, needSeal: 2, needRepair: 2, needMask: 2, needEffect: 1}

// Next judges every start as the step after the first at steps of the plan.
// Those that make sense come first, in the order of the work; the others keep
// the order of [Options]. The only error is that of a context that is done.
func Next(ctx context.Context, c *craft.Craft, z *check.Zone, at int) ([]Suggestion, error) {
	at = min(max(at, 0), len(z.Steps))
	base := check.Check(c, z, check.Options{NoRepairs: true})
	m := &meeting{c: c, z: z, at: at, base: &base, facts: base.Facts, fails: fails(&base)}
	t := surface.Walk(c, &m.facts, z.Steps[:at])
	m.state = t.End
	if e := surface.Worked(t.Events); e != nil {
		m.worked, m.rested = e.Effect, t.End.Hours-e.After.Hours
	}
	if t.End.Auto && len(t.Events) > 0 { // nothing has waited for anything yet
		m.state = t.Events[len(t.Events)-1].After
	}
	out := make([]Suggestion, 0, 80)
	for _, s := range Options(c) {
		if ctx.Err() != nil {
			return nil, ctx.Err()
		}
		out = append(out, m.judge(s))
	}
	counts := map[need]int{}
	ranked := slices.Clone(out)
	slices.SortStableFunc(ranked, func(a, b Suggestion) int {
		return cmp.Or(cmp.Compare(a.need, b.need), cmp.Compare(b.score, a.score))
	})
	keep := map[string]bool{}
	alike := map[craft.Coat]bool{} // one paint of a kind is enough
	for i := range ranked {
		o := &ranked[i]
		if !o.Sensible() || counts[o.need] >= most[o.need] {
			continue
		}
		if o.need == needPaint {
			kind := c.Products[o.Step.Product].Coat
			if alike[kind] {
				continue
			}
			alike[kind] = true
		}
		counts[o.need]++
		keep[o.Name] = true
	}
	for i := range out {
		if !keep[out[i].Name] {
			out[i].need = needNothing
		}
	}
	slices.SortStableFunc(out, func(a, b Suggestion) int {
		switch {
		case a.Sensible() && b.Sensible():
			return cmp.Or(cmp.Compare(a.need, b.need), cmp.Compare(b.score, a.score))
		case a.Sensible():
			return -1
		case b.Sensible():
			return 1
		}
		return 0
	})
	return out, nil
}

// meeting is the surface that the next step will meet.
type meeting struct {
	c     *craft.Craft
	z     *check.Zone
	at    int
	base  *check.Result
	facts surface.Facts
	state surface.State
	fails map[string]bool
	// worked is the effect that no coat lies over yet, nil where there is none, and
	// rested for how many hours it has settled.
	worked *craft.EffectRow
	rested float64
	// shows is the stain that one more coat of paint would let show, once that
	// was worked out.
	shows *check.Stain
}

func (m *meeting) field() *surface.Region { return &m.state.Regions[surface.Field] }

func fails(r *check.Result) map[string]bool {
	out := map[string]bool{}
	for i := range r.Findings {
		if f := &r.Findings[i]; f.Severity == check.Fail {
			out[f.Code+"|"+f.Subject] = true
		}
	}
	return out
}

func (m *meeting) judge(s Option) Suggestion {
	o := Suggestion{Option: s}
	m.fit(&o.Step)
	o.Barred = m.z.Barred(m.c, &o.Step, &m.state)
	with := *m.z
	with.Steps = slices.Insert(slices.Clone(m.z.Steps), m.at, o.Step)
	r := check.Check(m.c, &with, check.Options{NoRepairs: true})
	// As many coats of a paint as hiding takes.
	const patience = 5
	if s := &r.Appearance; o.Step.Do == surface.Coat && s.Planned == o.Step.NumCoats() && s.Needed > s.Planned && s.Needed <= patience &&
		s.Paints[len(s.Paints)-1].Step == m.at+1 {
		o.Step.Coats = s.Needed
		with.Steps[m.at] = o.Step
		r = check.Check(m.c, &with, check.Options{NoRepairs: true})
	}
	o.After = r.Verdict
	for i := range r.Findings {
		f := &r.Findings[i]
		// What is still to come, as the seal of a paint, is no fault of this step.
		if f.Severity == check.Fail && !m.fails[f.Code+"|"+f.Subject] && !f.Unfinished {
			o.Brings = f.Title
			break
		}
	}
	switch o.Step.Do {
	case surface.Clean:
		m.clean(&o)
	case surface.Abrade:
		m.key(&o)
	case surface.Dust:
		if p := m.field(); p.SandedStep > 0 || p.Soils[craft.Dust] > 0 && m.sticky() == 0 {
			o.need, o.Why = needDust, "There is dust on it, and a coat would not grip"
		}
	case surface.RaiseGrain:
		p := m.field()
		if p.Bare && !p.Raised && p.Top == craft.WoodBare && m.sticky() == 0 && !m.laid(craft.RolePaint) {
			o.need, o.Why = needGrain, "Bare wood turns rough under the first water-based coat; raise and sand it back now to keep it smooth"
		}
	case surface.Wait:
		m.wait(&o)
	case surface.Coat:
		m.coat(&o)
	case surface.Repair:
		if l := m.field().Loose & (craft.LooseVeneer | craft.LooseFoil | craft.LooseJoint); l != 0 && m.field().Coats == 0 {
			o.need, o.Why = needRepair, craft.Upper(craft.List(l.Names()))+" comes off by itself and takes the coats with it"
		}
	case surface.Mask, surface.Remove:
		if len(m.z.Unmasked) > 0 && !m.state.Cleared && m.field().Coats == 0 {
			o.need, o.Why, o.Step.What = needMask, craft.Upper(craft.List(m.z.Unmasked))+" must not be painted, and nothing protects it", craft.List(m.z.Unmasked)
		}
	case surface.Effect:
		m.effect(&o)
	}
	return o
}

// effect offers what makes the look that is wanted, once there is paint to work
// it on.
func (m *meeting) effect(o *Suggestion) {
	x, ok := m.c.Effect(o.Step.Effect)
	if !ok || o.Step.Effect != m.z.Look {
		return
	}
	row := &m.c.Effects[x]
	worked := slices.ContainsFunc(m.z.Steps, func(s surface.Step) bool { return s.Do == surface.Effect && s.Effect == m.z.Look })
	if worked || row.Ground != craft.GroundAny && !m.laid(craft.RolePaint) {
		return
	}
	o.need, o.Why = needEffect, "This makes the look: "+row.How
}

// flakes tells whether paint is meant to flake off.
func (m *meeting) flakes() bool {
	x, ok := m.c.Effect(m.z.Look)
	return ok && m.c.Effects[x].Flakes()
}

// fit gives a usual step the figures that this surface needs.
func (m *meeting) fit(s *surface.Step) {
	if row := &craft.Families[m.field().Top]; s.Do == surface.Abrade && s.How == craft.Hand && row.ScuffGrit > 0 {
		s.Grit, s.How = row.ScuffGrit, row.ScuffHow
	}
}

// sticky counts the soils that abrasion would rub in.
func (m *meeting) sticky() int {
	n := 0
	for s, lv := range m.field().Soils {
		if lv > 0 && craft.Soils[s].Sticky {
			n++
		}
	}
	return n
}

// laid tells whether a coat of a role is on the whole zone by now.
func (m *meeting) laid(r craft.Role) bool {
	return slices.ContainsFunc(m.z.Steps[:m.at], func(s surface.Step) bool {
		return s.Do == surface.Coat && s.Scope == surface.All && m.c.Products[s.Product].Role == r
	})
}

func (m *meeting) clean(o *Suggestion) {
	before := m.field()
	var e surface.Event
	surface.Apply(m.c, &m.facts, &m.state, &o.Step, m.at+1, 0, &e)
	after := &e.After.Regions[surface.Field]
	if before.Top == craft.WaxFilm && before.Product == craft.NoProduct && after.Top != craft.WaxFilm {
		o.need, o.score, o.Why = needClean, 100, "Removes the old wax; hardly anything holds on wax"
		return
	}
	var off []string
	gain := 0.
	for s := range before.Soils {
		b, a := before.Soils[s], after.Soils[s]
		switch {
		case b > a && craft.Soil(s) != craft.Dust:
			off = append(off, craft.Soils[s].Name)
			gain += float64(b-a) * (.2 + craft.Soils[s].Harm)
		case a > b:
			gain -= .5
		}
	}
	switch {
	case len(off) > 0 && gain > 0:
		o.need, o.score = needClean, gain-.01*craft.MinutesSetUp/10
		o.Why = "Removes the " + craft.List(off) + " that is still on it"
	case !m.z.SoilsKnown && m.field().Coats == 0 && !m.cleaned() && slices.Contains(m.c.CleanersFor(craft.ForWash), o.Step.Cleaner):
		o.need, o.Why = needClean, "The surface has not been checked; a wash removes grime from hands"
	}
}

func (m *meeting) cleaned() bool {
	return slices.ContainsFunc(m.z.Steps[:m.at], func(s surface.Step) bool { return s.Do == surface.Clean })
}

// worthKeying is the factor of the key below which an abrasion is offered: a
// tenth of a bond is worth a few minutes, also where the rules would let it be.
// Working default.
const worthKeying = .9

// key offers an abrasion where a coat of the usual paint would miss its key.
func (m *meeting) key(o *Suggestion) {
	p := m.field()
	row := &craft.Families[p.Top]
	if row.ScuffHow == "" || o.Step.How != row.ScuffHow || m.sticky() > 0 || m.flakes() || p.Coats > 0 && m.open() {
		return
	}
	var e surface.Event
	usual := m.usualPaint()
	surface.Apply(m.c, &m.facts, &m.state, &usual, m.at+1, 1, &e)
	if !slices.ContainsFunc(e.Boundaries(), func(b surface.Boundary) bool { return b.Factors[surface.Key] < worthKeying }) {
		return
	}
	o.need = needKey
	o.Why = fmt.Sprintf("It has %.0f %% of the key it could have, and coats on %s need it", p.Key*100, row.Name)
}

// open tells whether the top coat still takes the next one unscuffed.
func (m *meeting) open() bool {
	p := m.field()
	return p.Product != craft.NoProduct && m.state.Hours-p.At <= m.c.Products[p.Product].Recoat.To
}

func (m *meeting) wait(o *Suggestion) {
	if x := m.worked; x != nil && !x.Settled(m.rested) {
		o.Step.Hours, o.need = math.Ceil(x.Rests-m.rested), needWait
		o.Why = fmt.Sprintf("%s should settle for about %s before the next coat", x.Name, measure.Hours(x.Rests))
		return
	}
	if m.at >= len(m.z.Steps) {
		return
	}
	for i := range m.base.Trace.Events {
		e := &m.base.Trace.Events[i]
		if e.Step != m.at+1 || e.CoatNo != 1 {
			continue
		}
		for _, b := range e.Boundaries() {
			if b.Timing == surface.TooSoon && b.Earliest > b.Waited {
				o.Step.Hours = b.Earliest - b.Waited
				o.need = needWait
				o.Why = fmt.Sprintf("The coat below needs %s here before the next one, and has had %s", measure.Hours(b.Earliest), measure.Hours(b.Waited))
				return
			}
		}
	}
}

func (m *meeting) coat(o *Suggestion) {
	c, p := m.c, m.field()
	row := &c.Products[o.Step.Product]
	if row.Coat >= craft.NumCoats || !row.LeavesFilm() {
		return
	}
	if row.Role == craft.RolePaint && m.flakes() {
		if row.Coat == craft.MK && m.sticky() == 0 && p.Soils[craft.Dust] == 0 && !m.laid(craft.RolePaint) {
			o.need, o.Why = needPaint, "Powder paint without additive, the only paint that flakes"
		}
		return
	}
	strength := m.strength(&o.Step)
	demand := m.facts.Demand()
	if !craft.Coats[row.Coat].MadeFor(p.Top) || strength < demand || m.sticky() > 0 || p.Soils[craft.Dust] > 0 {
		return
	}
	holds := "the bond is " + check.BondWords(strength, demand)
	switch row.Role {
	case craft.RolePrimer:
		if m.laid(craft.RolePaint) || m.laid(craft.RoleClear) || m.seeThrough() && row.Opaque() {
			return
		}
		if st, ok := m.stain(); ok && !m.held(st.Bleeder) && row.Block.Blocks() {
			left := st.DeltaE * c.LetsThrough(o.Step.Product, st.Bleeder)
			if left < st.DeltaE/2 {
				o.need, o.score = needBlock, -left-.1*float64(row.Smell)+strength/4
				o.Why = fmt.Sprintf("Without it, %s leaves %s on this colour; with it, %s; %s",
					craft.Bleeders[st.Bleeder].Name, check.StainWords(st.Bleeder, st.DeltaE), check.StainWords(st.Bleeder, left), holds)
				return
			}
		}
		paint := m.bestPaint()
		if m.flakes() {
			return // what grips well does not flake
		}
		if p.Coats == 0 && paint < demand*1.15 && strength > paint {
			o.need, o.score = needGrip, strength-.03*float64(row.Smell)
			o.Why = fmt.Sprintf("Without it, the bond of the paint is %s; with it, %s", check.BondWords(paint, demand), holds)
		}
	case craft.RolePaint:
		if st, ok := m.stain(); ok && !m.held(st.Bleeder) {
			return
		}
		if !m.laid(craft.RolePaint) && !m.seeThrough() {
			o.need, o.score = needPaint, min(strength, 1.4*demand)-.05*float64(row.Smell)
			o.Why = "The wanted colour; " + holds
		}
	case craft.RoleClear, craft.RoleWax:
		seals := c.For(craft.ForSeal(m.facts.Wear))
		if !slices.Contains(seals, o.Step.Product) || m.laid(craft.RoleClear) || m.laid(craft.RoleWax) {
			return
		}
		switch {
		case p.Top == craft.PorousPaint && p.Product != craft.NoProduct:
			o.need, o.score = needSeal, -float64(slices.Index(seals, o.Step.Product))
			o.Why = fmt.Sprintf("%s is porous and marks; this seals it well enough for %s", c.Products[p.Product].Name, craft.Wears[m.facts.Wear].Phrase)
		case m.seeThrough() && p.Coats == 0:
			o.need, o.score = needSeal, -float64(slices.Index(seals, o.Step.Product))
			o.Why = "No paint is wanted; this protects the surface, and " + holds
		}
	}
}

// seeThrough tells whether the surface is to stay in sight.
func (m *meeting) seeThrough() bool {
	x, ok := m.c.Effect(m.z.Look)
	return ok && m.c.Effects[x].Pores
}

// stain is the worst stain that would show through one more coat of paint,
// and whether any would.
func (m *meeting) stain() (check.Stain, bool) {
	if m.shows == nil {
		m.shows = m.paintedOver()
	}
	return *m.shows, m.shows.DeltaE >= 1
}

func (m *meeting) paintedOver() *check.Stain {
	with := *m.z
	with.Steps = append(slices.Clone(m.z.Steps[:m.at]), m.usualPaint())
	r := check.Check(m.c, &with, check.Options{NoRepairs: true})
	if len(r.Stains) == 0 {
		return &check.Stain{}
	}
	return &r.Stains[0]
}

// held tells whether a blocker lies over a bleeder everywhere already.
func (m *meeting) held(b craft.Bleeder) bool {
	for i := range m.state.Regions[:m.state.N] {
		p := &m.state.Regions[i]
		if p.Load[b] > 0 && p.Blocked&(1<<b) == 0 {
			return false
		}
	}
	return true
}

// strength is that of the weakest bond the first coat of a step would make.
func (m *meeting) strength(s *surface.Step) float64 {
	var e surface.Event
	surface.Apply(m.c, &m.facts, &m.state, s, m.at+1, 1, &e)
	least := 1.
	for i := range e.Boundaries() {
		b := &e.Bounds[i]
		b.Learn(m.c, m.z.PatchTests, m.base.Doubt)
		least = min(least, b.Strength)
	}
	return least
}

// usualPaint stands for the paint that is to come.
func (m *meeting) usualPaint() surface.Step {
	return surface.Step{Do: surface.Coat, Product: m.c.First(craft.ForUsualPaint), Coats: 1, Auto: true}
}

// bestPaint is the best bond a usual paint would make here.
func (m *meeting) bestPaint() float64 {
	best := 0.
	for _, p := range m.c.For(craft.ForUnder) {
		best = max(best, m.strength(&surface.Step{Do: surface.Coat, Product: p, Coats: 1, Auto: true}))
	}
	return best
}
