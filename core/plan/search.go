package plan

import (
	"cmp"
	"container/heap"
	"context"
	"hash/maphash"
	"math"
	"slices"

	"rutile/core/check"
	"rutile/core/colour"
	"rutile/core/craft"
	"rutile/core/parts"
	"rutile/core/surface"
)

// node is the beginning of a plan.
type node struct {
	parent int32 // -1 for the one without steps
	stage  stage
	// What it has done, as far as the moves need it.
	last             surface.StepKind // of the last step, NumKinds for none
	cleaner          craft.Cleaner
	product          craft.Product // the last primer
	primers, allOver uint8
	stripped, wiped  bool
	biocide          bool
	washed, fuzzy    bool   // fuzzy: fibres stand up that nothing has sanded down since
	blocks, spotted  uint8  // coats that block the stain at hand, and those on spots
	buys             buys   // what it needs that the kit has not
	rough            bool   // once it is judged: it must be sanded down under a shine
	wants            bool   // and it is bare material that wants a primer made for it
	drinks           bool   // and it is bare wood or board, which a water-based coat roughens
	levels           bool   // the pores are filled
	primed           uint64 // bits of the primers it has
	judged, grounded bool
	steps            []surface.Step // that its move adds
	statics          Amounts        // of all its steps
	least            float64        // points that it comes to, without the tail
	amounts          Amounts        // once it is judged
	watches          check.RuleSet
	tails            []end // once it is opened, the cheapest first as far as they were needed
	firsts           []first
	stains           [craft.NumBleeders]float64
	// film in micrometres, hours so far, and the risk of peeling.
	film, hours, risk float64
}

// first is the first coat of some tails on a ground.
type first struct {
	known  bool
	judged check.Judged
	begun  float64 // hours at which it is applied
	bonds  []surface.Boundary
}

// end is a tail behind a node, with the least that both come to.
type end struct {
	least   float64
	tail    int32
	coats   int32
	yellows check.Verdict
}

// item is an entry of the queue: a node, a node with one of its tails, or a plan.
type item struct {
	least float64
	node  int32
	// end is the index of the tail in the node's list, -1 for the node itself; plan
	// is that of a judged plan, -1 for none.
	end, plan int32
	// fine tells that the first coat of the tail was judged on the node.
	fine bool
}

// queue is a heap with the least first; of equals what is nearest to a plan.
type queue []item

func (q queue) Len() int { return len(q) }
func (q queue) Less(i, j int) bool {
	if q[i].least != q[j].least {
		return q[i].least < q[j].least
	}
	return cmp.Or(cmp.Compare(q[j].plan, q[i].plan), cmp.Compare(q[j].end, q[i].end), cmp.Compare(q[j].node, q[i].node)) < 0
}
func (q queue) Swap(i, j int) { q[i], q[j] = q[j], q[i] }
func (q *queue) Push(x any)   { *q = append(*q, x.(item)) }
func (q *queue) Pop() any {
	n := len(*q) - 1
	x := (*q)[n]
	*q = (*q)[:n]
	return x
}

// search goes best first: the node with the least bound is opened next, so that the first plan that
// is judged is the best.
func (p *planner) search(ctx context.Context) Answer {
	p.nodes, p.at = append(p.nodes[:0], p.root()), -1
	heap.Push(&p.queue, item{end: -1, plan: -1})
	var plans []*Plan
	var a Answer
	// above is what the second best plan so far comes to: nothing dearer matters.
	above := math.Inf(1)
	const reported, often = 4096, 16
	told, turn := 0, 0
	if p.evaluator.Survey().Fails.Len() > 0 && !p.lenient { // no plan changes that
		p.queue = p.queue[:0]
	}
	for len(p.queue) > 0 && len(p.ends) > 0 {
		if looked := p.stats.Opened + p.stats.Judged; p.ask.Done != nil && looked/reported > told {
			told = looked / reported
			p.ask.Done(looked)
		}
		if p.stats.Opened+p.stats.Judged >= p.ask.Limit {
			break
		}
		if turn++; turn%often == 0 {
			if p.ask.Pause != nil {
				p.ask.Pause()
			}
			if ctx.Err() != nil {
				break
			}
		}
		x := heap.Pop(&p.queue).(item)
		switch {
		case x.plan >= 0:
			if a.Best == nil {
				a.Best, a.Proved = plans[x.plan], true
			} else if a.Next == nil {
				a.Next = plans[x.plan]
			}
		case x.end >= 0 && !x.fine:
			n := &p.nodes[x.node]
			if int(x.end)+1 < len(n.tails) {
				bring(n.tails, x.end+1)
				p.push(item{least: max(x.least, n.tails[x.end+1].least), node: x.node, end: x.end + 1, plan: -1}, above)
			}
			if least, ok := p.onGround(x.node, n.tails[x.end]); ok {
				p.push(item{least: max(x.least, least), node: x.node, end: x.end, plan: -1, fine: true}, above)
			}
		case x.end >= 0:
			n := &p.nodes[x.node]
			if plan := p.whole(x.node, n.tails[x.end]); plan != nil {
				if plan.Points > above {
					p.stats.Bound++
					break
				}
				plans = append(plans, plan)
				p.push(item{least: plan.Points, node: x.node, end: x.end, plan: int32(len(plans) - 1)}, above)
				above = second(plans)
			}
		case !p.nodes[x.node].judged:
			if p.judge(x.node) {
				n := &p.nodes[x.node]
				if finish, may := p.toFinish(n, &n.watches, &n.stains); may {
					p.push(item{least: max(x.least, n.least+finish), node: x.node, end: -1, plan: -1}, above)
				} else {
					p.stats.Cut++
				}
			}
		default:
			p.open(x.node, x.least, above)
		}
		if a.Next != nil || p.anyOf && len(plans) > 0 {
			break
		}
	}
	p.stats.Bound += len(p.queue)
	p.queue = p.queue[:0]
	if a.Best == nil && len(plans) > 0 { // stopped: the best so far
		a.Best = slices.MinFunc(plans, func(x, y *Plan) int { return cmp.Compare(x.Points, y.Points) })
	} else if a.Best == nil {
		a.Proved = p.stats.Opened+p.stats.Judged < p.ask.Limit && ctx.Err() == nil
	}
	if a.Next == nil && a.Best != nil {
		for _, x := range plans {
			if x != a.Best && (a.Next == nil || x.Points < a.Next.Points) {
				a.Next = x
			}
		}
	}
	a.Stats = p.stats
	return a
}

// second is what the second best of some plans comes to.
func second(plans []*Plan) float64 {
	a, b := math.Inf(1), math.Inf(1)
	for _, x := range plans {
		switch {
		case x.Points < a:
			a, b = x.Points, a
		case x.Points < b:
			b = x.Points
		}
	}
	return b
}

func (p *planner) push(x item, above float64) {
	if x.least > above {
		p.stats.Bound++
		return
	}
	heap.Push(&p.queue, x)
}

func (p *planner) root() node {
	n := node{parent: -1, last: surface.NumKinds, product: craft.NoProduct, cleaner: 255, stage: cleaning}
	if p.ask.TakeOff != "" {
		n.steps = []surface.Step{{Do: surface.Remove, What: p.ask.TakeOff}}
		n.statics = static(p.craft, &p.zone.Facts, &n.steps[0])
	}
	if p.way.ScuffFirst {
		n.stage = scuffing
	}
	return n
}

// path are all steps of a node, in a buffer that the next call uses again.
func (p *planner) path(i int32) []surface.Step {
	p.buf = p.buf[:0]
	for ; i >= 0; i = p.nodes[i].parent {
		for j := len(p.nodes[i].steps) - 1; j >= 0; j-- {
			p.buf = append(p.buf, p.nodes[i].steps[j])
		}
	}
	slices.Reverse(p.buf)
	return p.buf
}

// judge walks the beginning of a plan and tells whether it may lead anywhere.
func (p *planner) judge(i int32) bool {
	n := &p.nodes[i]
	j := p.evaluator.SoFar(p.path(i))
	p.at, n.judged = i, true
	p.stats.Opened++
	held := check.RiskVerdict(j.Risk) // what comes above holds no better
	if (j.Fails.Len() > 0 || held == check.Fails && !p.belief) && !p.lenient {
		p.stats.Cut++
		return false
	}
	if held != check.Sound {
		p.foresee(check.ForeseenPeel, &j.Watches)
	}
	p.took(n, &j)
	if n.stage == grounding && !p.belief && !p.lenient && !p.mayFinish(n) {
		p.stats.Cut++
		return false
	}
	key := p.key(n)
	if before, ok := p.seen[key]; ok && before <= n.least {
		p.stats.Merged++
		return false
	}
	p.seen[key] = n.least
	return true
}

// mayFinish tells whether any ending suits a base or one that goes on from it: further primers add
// to the film and to the risk.
func (p *planner) mayFinish(n *node) bool {
	return slices.ContainsFunc(p.lightest, func(t *tail) bool {
		return check.RiskVerdict(1-min((1-n.risk)*t.holds, t.all)) != check.Fails &&
			(p.zone.GapMM <= 0 || !parts.FitOf(p.zone.GapMM, n.film+t.film).Sticks)
	})
}

// perFail is how many watches a fail counts as where plans may fail.
const perFail = 50

// took notes what a beginning was judged at.
func (p *planner) took(n *node, j *check.Judged) {
	n.watches = j.Watches
	n.hours = 0
	for v := range p.evaluator.Candidates() {
		n.hours = max(n.hours, p.state(v).Hours)
	}
	n.amounts = amounts(&n.statics, j)
	n.amounts[Doubtful] += perFail * float64(j.Fails.Len()) // where they are let pass
	n.amounts[Elapsed], n.amounts[Stain] = n.hours, 0
	n.amounts[ToBuy], n.amounts[Restock] = p.buying(n.buys), p.restocking(n.buys)
	n.rough = n.fuzzy || p.any(func(q *surface.Region) bool { return q.RoughStep > 0 })
	n.wants = n.allOver == 0 && p.keeps(RightPrimer) && !p.flakes() && p.grounds == nil && !p.see &&
		p.any(func(q *surface.Region) bool { return q.Bare && craft.FirstOn[q.Top] != nil })
	n.drinks = n.allOver == 0 && (p.board || p.any(func(q *surface.Region) bool {
		return q.Bare && q.Top == craft.WoodBare && !q.Raised && p.craft.Substrates[p.zone.Substrate].Group == craft.GroupWood
	}))
	n.least = p.ask.Weights.Points(&n.amounts)
	n.stains, n.film, n.risk = p.rises(), p.field(0).Film, j.Risk
	n.grounded = p.grounded(n)
}

// key distinguishes beginnings that a plan could continue differently: the surfaces with the ages
// of their coats, and what rules still need of the past.
func (p *planner) key(n *node) [2]uint64 {
	type key struct {
		stage            stage
		last             surface.StepKind
		cleaner          craft.Cleaner
		product          craft.Product
		primers, allOver uint8
		flags            [6]bool
		watches          check.RuleSet
		near             uint8
		blocks, spotted  uint8
		buys             buys
	}
	var out [2]uint64
	k := key{
		n.stage, n.last, n.cleaner, n.product, n.primers, n.allOver,
		[6]bool{n.stripped, n.wiped, n.biocide, n.levels, n.washed, n.fuzzy}, n.watches, p.near(),
		min(n.blocks, 2), min(n.spotted, 2), n.buys,
	}
	if n.stage == grounding {
		k.last = 0
		if n.last == surface.Coat {
			k.last = n.last
		}
	}
	for s := range out {
		out[s] = maphash.Comparable(seeds[s], k)
		mix := func(x uint64) { out[s] = (out[s] ^ x) * 0x9E3779B97F4A7C15 }
		for v := range p.evaluator.Candidates() {
			st := *p.state(v)
			for i := range st.Regions[:st.N] {
				q := &st.Regions[i]
				if q.Product == craft.NoProduct {
					q.At = st.Hours
				}
				q.At, q.ResistAt = st.Hours-q.At, 0
				if q.DryAt = max(0, q.DryAt-st.Hours); q.DryAt == 0 {
					q.WetWith, q.WetFor = craft.Dry, 0
				}
				if q.BrightAt = st.Hours - q.BrightAt; !q.Bright {
					q.BrightAt = 0
				}
				q.ResidueStep, q.SandedStep, q.RoughStep, q.FilledStep = min(q.ResidueStep, 1), min(q.SandedStep, 1), min(q.RoughStep, 1), min(q.FilledStep, 1)
			}
			st.Hours, st.Minutes = 0, 0
			mix(maphash.Comparable(seeds[s], st))
			mix(uint64(p.evaluator.InVain(v)))
			for _, b := range p.evaluator.Bonds(v) {
				mix(maphash.Comparable(seeds[s], bondKey{b.Product, b.On, b.Bare, b.Additive, b.Risk}))
			}
		}
	}
	if p.flakes() { // warm air is watched for a day after vapour
		for s := range out {
			out[s] ^= math.Float64bits(p.sinceVapour()) * 31
		}
	}
	return out
}

// near tells, as bits, what was used within the last day that must not meet others, where that may
// matter. Cleaning itself takes minutes: what is near stays near until the first coat.
func (p *planner) near() uint8 {
	out := uint8(0)
	if p.zone.Soils[craft.Mould] == 0 && len(p.zone.Beside) == 0 {
		return out
	}
	for x, h := range p.evaluator.Since() {
		if h >= 0 && h < craft.Apart {
			out |= 1 << x
		}
	}
	return out
}

type bondKey struct {
	product  craft.Product
	on       craft.Family
	bare     bool
	additive float64
	risk     float64
}

var seeds = [2]maphash.Seed{maphash.MakeSeed(), maphash.MakeSeed()}

func (p *planner) flakes() bool {
	x := p.look()
	return x != nil && x.Flakes()
}

// sinceVapour is how long ago the last step gave off vapour that burns.
func (p *planner) sinceVapour() float64 {
	t := p.evaluator.Trace(0)
	for i := len(t.Events) - 1; i >= 0; i-- {
		e := &t.Events[i]
		s := e.Doing
		if s.Do == surface.Clean && p.craft.Cleaners[s.Cleaner].Carrier.Volatile() || s.Do == surface.Coat && p.craft.Products[s.Product].Carrier.Volatile() {
			return t.Events[len(t.Events)-1].After.Hours - e.After.Hours
		}
	}
	return -1
}

// open makes the child nodes of a node, and if it is a complete base, its endings.
func (p *planner) open(i int32, least, above float64) {
	if p.at != i {
		p.evaluator.Walk(p.path(i))
		p.at = i
	}
	dirty := !p.belief && !p.lenient && p.nodes[i].stage != grounding && p.any(check.Refuses)
	for _, m := range p.next(&p.nodes[i]) {
		n, ok := p.child(i, &m)
		if !ok {
			continue
		}
		if dirty && m.to == grounding {
			p.stats.Cut++
			continue
		}
		if m.to == grounding && p.nodes[i].stage != grounding {
			n.statics[Dirt] = p.soiled()
		}
		stains := p.nodes[i].stains
		for b, x := range stains {
			if x > 0 {
				stains[b] = x * surface.LeastTransmission(p.craft, m.steps, craft.Bleeder(b))
			}
		}
		finish, may := p.toFinish(&n, &p.nodes[i].watches, &stains)
		if !may {
			p.stats.Cut++
			continue
		}
		p.nodes = append(p.nodes, n)
		w := n.statics
		w[HandsOn], w[Elapsed], w[Peel], w[Doubtful] = p.nodes[i].amounts[HandsOn], p.nodes[i].amounts[Elapsed], p.nodes[i].amounts[Peel], p.nodes[i].amounts[Doubtful]
		w[ToBuy], w[Restock] = p.buying(n.buys), p.restocking(n.buys)
		p.push(item{least: max(least, p.ask.Weights.Points(&w)+finish), node: int32(len(p.nodes) - 1), end: -1, plan: -1}, above)
	}
	if !p.nodes[i].grounded {
		return
	}
	ends := p.behind(&p.nodes[i])
	p.nodes[i].tails = ends
	if len(ends) > 0 {
		bring(ends, 0)
		p.push(item{least: max(least, ends[0].least), node: i, end: 0, plan: -1}, above)
	}
}

// child is a node after a move; false for one that makes no sense after it.
func (p *planner) child(i int32, m *move) (node, bool) {
	n := p.nodes[i]
	out := node{
		parent: i, stage: m.to, last: n.last, cleaner: 255, product: n.product, primers: n.primers, allOver: n.allOver,
		stripped: n.stripped, wiped: n.wiped, biocide: n.biocide, levels: n.levels, primed: n.primed, steps: m.steps, statics: n.statics.plus(&m.least),
		washed: n.washed, fuzzy: n.fuzzy, blocks: n.blocks, spotted: n.spotted, buys: n.buys | m.buys,
	}
	for j := range m.steps {
		s := &m.steps[j]
		out.last = s.Do
		switch s.Do {
		case surface.Clean:
			row := &p.craft.Cleaners[s.Cleaner]
			if n.cleaner == s.Cleaner && n.last == surface.Clean && m.to == cleaning {
				return node{}, false // as many passes are one step
			}
			out.cleaner = s.Cleaner
			out.wiped = out.wiped || row.Carrier.Volatile() && row.Key == 0
			out.washed = out.washed && (row.Carrier != craft.Solvent || row.Key > 0) // what a solvent leaves is washed off
			out.biocide = out.biocide || row.Biocide
			if _, grime := row.Shift(craft.Grime, 1); grime && row.Carrier == craft.Water {
				out.washed = true
			}
		case surface.Strip:
			out.stripped, out.washed = true, true
		case surface.Abrade:
			out.fuzzy = false
		case surface.Coat:
			out.product = s.Product
			out.primed |= bit(s.Product)
			out.levels = out.levels || p.craft.Fills(s.Product, craft.ForGrain)
			if m.to == grounding {
				out.primers++
				row := &p.craft.Products[s.Product]
				switch {
				case s.Scope == surface.All:
					if out.allOver > 0 {
						out.statics[Trouble] += secondKind
					}
					out.fuzzy = out.fuzzy || p.board && out.allOver == 0
					out.allOver++
					if p.blocked && blocksIt(p.craft, s.Product, p.twice) {
						out.blocks += uint8(s.NumCoats())
					}
				case row.Block.Blocks():
					out.spotted += uint8(s.NumCoats())
				}
			}
		}
	}
	return out, true
}

// soiled are the levels of soil, apart from dust, on the face of the last plan that was judged.
func (p *planner) soiled() float64 {
	most := 0
	for v := range p.evaluator.Candidates() {
		sum := 0
		for so, lv := range p.field(v).Soils {
			if craft.Soil(so) != craft.Dust {
				sum += int(lv)
			}
		}
		most = max(most, sum)
	}
	return float64(most)
}

// hide is a ground that a paint is to hide.
type hide struct {
	ground colour.RGB
	step   int
}

// coatsOver is how many coats of an ending's paint some bases need.
func (p *planner) coatsOver(t *tail, grounds []colour.RGB) int {
	if t.paint < 0 {
		return 0
	}
	if !t.first {
		return t.steps[t.paint].Coats
	}
	need := leastCoats
	for _, g := range grounds {
		k := hide{g, t.lays}
		n, ok := p.hides[k]
		if !ok {
			n = p.evaluator.CoatsFor(g, &t.steps[t.paint])
			p.hides[k] = n
		}
		need = max(need, n)
	}
	return min(need, mostCoats)
}

// coloursBelow are the colours of the last plan that was judged, for every candidate.
func (p *planner) coloursBelow() []colour.RGB {
	var out []colour.RGB
	for v := range p.evaluator.Candidates() {
		if g := p.evaluator.Shows(v); !slices.Contains(out, g) {
			out = append(out, g)
		}
	}
	return out
}

// shade is a ground with the tail over it.
type shade struct {
	ground      colour.RGB
	tail, coats int32
}

// yellowsOver is how much a tail yellows in the colour that it has over some grounds.
func (p *planner) yellowsOver(tail int32, coats int, grounds []colour.RGB) check.Verdict {
	t := &p.ends[tail]
	out := check.Sound
	if t.yellows <= 0 {
		return out
	}
	for _, g := range grounds {
		k := shade{g, tail, int32(coats)}
		v, ok := p.shades[k]
		if !ok {
			steps := slices.Clone(t.steps)
			if t.paint >= 0 {
				steps[t.paint].Coats = coats
			}
			v = check.YellowVerdict(t.yellows * check.Show(p.evaluator.Over(g, steps).Light()))
			p.shades[k] = v
		}
		out = max(out, v)
	}
	return out
}

// rounding is what stains are taken for less, as loads are kept in single precision.
const rounding = 1 - 1e-4

// weighs is the least that a node and a tail come to, with what is known of the
// tail's first coat on it; false where they fail.
func (p *planner) weighs(n *node, e *end, on *first) (float64, bool) {
	t := &p.ends[e.tail]
	a := n.amounts.plus(&t.least)
	watches := n.watches.With(t.watches)
	if !n.levels {
		watches = watches.With(t.rough)
	}
	peel, begun, risk := n.amounts[Peel], n.hours, n.risk
	if on.known {
		peel, begun, risk = on.judged.Peel, on.begun, on.judged.Risk
		watches = watches.With(on.judged.Watches)
	}
	strict := !p.belief && !p.lenient
	holds := t.holds
	if n.primed&t.shut.products == 0 {
		peel += t.shut.peel
		holds *= t.shut.holds
	}
	for i := range t.twice {
		if x := &t.twice[i]; slices.ContainsFunc(on.bonds, func(b surface.Boundary) bool { return b.SameBond(&x.bond) }) {
			peel -= x.peel
			holds /= x.holds
		}
	}
	a[Peel], a[Elapsed] = peel+t.least[Peel], begun+t.least[Elapsed]
	thick, more := n.film+t.film, 0.
	if t.paint >= 0 && t.first {
		more = float64(e.coats - leastCoats)
		for k := range a {
			a[k] += more * t.more[k]
		}
		thick += more * t.moreFilm
	}
	if p.zone.GapMM > 0 {
		fit := parts.FitOf(p.zone.GapMM, thick)
		if fit.Sticks && strict {
			return 0, false
		}
		if fit.Tight || fit.Sticks {
			p.foresee(check.ForeseenBuild, &watches)
		}
	}
	switch {
	case e.yellows == check.Fails && strict:
		return 0, false
	case e.yellows == check.Watched:
		p.foresee(check.ForeseenYellow, &watches)
	}
	switch check.RiskVerdict(1 - min((1-risk)*holds, t.all)) {
	case check.Fails:
		if strict {
			return 0, false
		}
		p.foresee(check.ForeseenPeel, &watches)
	case check.Watched:
		p.foresee(check.ForeseenPeel, &watches)
	}
	a[Doubtful] = float64(watches.Len())
	a[ToBuy], a[Restock] = p.buying(n.buys|t.buys), p.restocking(n.buys|t.buys)
	if p.lenient {
		a[Doubtful] = max(a[Doubtful], n.amounts[Doubtful]) + perFail*float64(on.judged.Fails.Len()+t.fails)
	}
	worst := 0.
	for b, x := range n.stains {
		show := t.show
		if craft.Bleeders[b].Clear {
			show = t.open
		}
		if x > 0 {
			worst = max(worst, x*t.lets[b]*math.Pow(t.moreLets[b], more)*show)
		}
	}
	a[Stain] = worst * rounding
	switch v := check.StainVerdict(a[Stain]); {
	case v == check.Fails && strict:
		return 0, false
	case v != check.Sound, t.cut:
		a[Doubtful]++
	}
	return p.ask.Weights.Points(&a), true
}

// behind lists the endings of a node, whose walk was judged last, with the least points of both
// together, in no order.
func (p *planner) behind(n *node) []end {
	grounds := p.coloursBelow()
	coats := make([]int, len(p.firsts)) // that each needs here
	out := make([]end, 0, len(p.ends))
	for i := range p.ends {
		t := &p.ends[i]
		if !p.pairs(n, t) {
			p.stats.Cut++
			continue
		}
		need := coats[t.lays]
		if need == 0 || !t.first {
			need = p.coatsOver(t, grounds)
		}
		if t.first {
			coats[t.lays] = need
		}
		e := end{tail: int32(i), coats: int32(need), yellows: p.yellowsOver(int32(i), need, grounds)}
		least, ok := p.weighs(n, &e, &first{})
		if !ok {
			p.stats.Cut++
			continue
		}
		e.least = least
		out = append(out, e)
	}
	return out
}

// secondKind is the trouble of a second kind of primer, in trips: another can, and another brush to
// clean. Working default.
const secondKind = 8

// pairs tells whether a tail may follow a beginning: what stands up is sanded down under a shine, and a
// material that has a primer of its own gets it.
func (p *planner) pairs(n *node, t *tail) bool {
	if n.wants {
		return false
	}
	if !p.keeps(Denib) || p.barred || !t.shines {
		return true
	}
	return !n.rough && !(n.drinks && t.wets)
}

// bring puts the cheapest of the tails from one on there.
func bring(ends []end, from int32) {
	best := from
	for i := from + 1; int(i) < len(ends); i++ {
		if x, y := &ends[i], &ends[best]; x.least < y.least || x.least == y.least && x.tail < y.tail {
			best = i
		}
	}
	ends[from], ends[best] = ends[best], ends[from]
}

// onGround judges the first coat of a tail on a node, once for all tails that
// begin with it, and returns the least that both then come to.
func (p *planner) onGround(i int32, e end) (float64, bool) {
	n, t := &p.nodes[i], &p.ends[e.tail]
	if n.firsts == nil {
		n.firsts = make([]first, len(p.firsts))
	}
	on := &n.firsts[t.lays]
	if !on.known {
		on.known = true
		s := p.firsts[t.lays]
		s.Coats = 0
		on.judged = p.evaluator.SoFar(append(p.path(i), s))
		p.at = -1
		p.stats.Opened++
		for v := range p.evaluator.Candidates() {
			es := p.evaluator.Trace(v).Events
			e := &es[len(es)-1]
			on.begun = max(on.begun, e.Begun)
			on.bonds = append(on.bonds, e.Boundaries()...)
		}
	}
	if on.judged.Fails.Len() > 0 && !p.lenient {
		p.stats.Cut++
		return 0, false
	}
	least, ok := p.weighs(n, &e, on)
	if !ok {
		p.stats.Cut++
	}
	return least, ok
}

// rises are the stains that reach the face of the last plan that was judged, at their worst.
func (p *planner) rises() [craft.NumBleeders]float64 {
	var out [craft.NumBleeders]float64
	for v := range p.evaluator.Candidates() {
		st := p.state(v)
		for i := range st.Regions[:st.N] {
			for b := range out {
				out[b] = max(out[b], st.Regions[i].Stain(craft.Bleeder(b)))
			}
		}
	}
	return out
}

// whole judges a node with a tail; nil where a rule fails it.
func (p *planner) whole(i int32, e end) *Plan {
	t := &p.ends[e.tail]
	steps := append(slices.Clone(p.path(i)), t.steps...)
	statics := p.nodes[i].statics
	for k := range t.steps {
		if k != t.paint {
			a := static(p.craft, &p.zone.Facts, &t.steps[k])
			statics = statics.plus(&a)
		}
	}
	at := len(steps) - len(t.steps) + t.paint
	if t.paint >= 0 {
		steps[at].Coats = int(e.coats)
		a := static(p.craft, &p.zone.Facts, &steps[at])
		statics = statics.plus(&a)
	}
	j := p.evaluator.Whole(steps)
	p.at = -1
	p.stats.Judged++
	if j.Fails.Len() > 0 && !p.lenient {
		p.stats.Cut++
		return nil
	}
	a := amounts(&statics, &j)
	a[Doubtful] += perFail * float64(j.Fails.Len())
	a[Elapsed] -= idle(t.steps)
	a[ToBuy], a[Restock], a[Unlike] = p.buying(p.needs(steps)), p.restocking(p.needs(steps)), p.unlike(t.steps)
	return &Plan{Steps: steps, Amounts: a, Points: p.ask.Weights.Points(&a), Judged: j}
}

// foresee puts the rule whose verdict is known early into a set.
func (p *planner) foresee(f check.Foreseen, into *check.RuleSet) { p.evaluator.Book().Foresee(f, into) }
