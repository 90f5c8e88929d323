package plan

import (
	"slices"

	"rutile/core/check"
	"rutile/core/craft"
	"rutile/core/surface"
)

// stage is how far the beginning of a plan has come. Stages follow each other;
// within one the moves come in any order.
type stage uint8

const (
	scuffing stage = iota // where a way sands before it cleans
	cleaning
	grounding
)

// mostPrimers is how many primers a plan may have over the whole face one after another, each of
// one or two coats, besides one on the spots. Working default: no painter uses more.
const mostPrimers = 2

// move is something that the beginning of a plan may go on with.
type move struct {
	steps []surface.Step
	to    stage
	least Amounts // static amounts
	buys  buys    // what it needs that the kit has not
}

func (p *planner) move(to stage, steps ...surface.Step) move {
	m := move{steps: steps, to: to, buys: p.needs(steps)}
	for i := range steps {
		a := static(p.craft, &p.zone.Facts, &steps[i])
		m.least = m.least.plus(&a)
	}
	return m
}

// vocabulary lists the moves that this way of working knows for this zone, apart from the
// preparation for the first coat.
func (p *planner) vocabulary() {
	c, z := p.craft, &p.zone
	for i := range c.Cleaners {
		row := &c.Cleaners[i]
		if row.OnlyDust() || p.way.NoSmell && row.Carrier.Volatile() {
			continue
		}
		for n := 1; n <= 3; n++ {
			s := surface.Step{Do: surface.Clean, Cleaner: craft.Cleaner(i), Rinse: row.Rinses > 0}
			if n > 1 {
				s.Passes = n
			}
			p.cleans = append(p.cleans, p.move(cleaning, s))
		}
	}
	_, foil := craft.CutThrough[c.Substrates[z.Substrate].ID]
	covered := slices.ContainsFunc(p.evaluator.Candidates(), func(m check.Candidate) bool { return !c.Finishes[m.Finish].Bare })
	if (covered || foil) && p.offCome() && !p.barred && p.way.Sand != SandNever {
		for _, how := range []craft.Treatment{craft.StripChemical, craft.StripScrape, craft.StripHeat} {
			if how == craft.StripChemical && p.way.NoSmell || how == craft.StripHeat && p.ask.kitOnly && !p.ask.Kit.Has(HotAir) || !p.strippable(how) {
				continue
			}
			p.strips = append(p.strips, p.move(cleaning, surface.Step{Do: surface.Strip, StripHow: string(how)},
				surface.Step{Do: surface.Abrade, Grit: 150, How: craft.Hand}, surface.Step{Do: surface.Abrade, Grit: 220, How: craft.Hand}))
		}
	}
	p.repair = p.move(cleaning, surface.Step{Do: surface.Repair})
	for _, x := range c.For(craft.ForIronStain) {
		if p.way.uses(&c.Products[x]) {
			wash := c.CleanersFor(craft.ForWash)[0] // it is neutralised and rinsed
			p.bleach = append(p.bleach, p.move(cleaning, p.lay(x, 1), surface.Step{Do: surface.Clean, Cleaner: wash, Rinse: true}))
		}
	}
	p.denib = p.move(grounding, surface.Step{Do: surface.Abrade, Grit: 320, How: craft.Hand}, dust)
	p.grounding = 0
	for i := range c.Kinds() {
		x, row := craft.Product(i), &c.Products[i]
		if row.Role == craft.RolePrimer || c.Fills(x, craft.ForGrain) {
			p.grounding |= productBit(x)
		}
		filler := c.Fills(x, craft.ForGrain)
		if row.Role != craft.RolePrimer && !filler || !p.uses(row) || p.grounds != nil && !slices.Contains(p.grounds, x) {
			continue
		}
		seals := c.Fills(x, craft.ForScuffAndSeal)
		for n := 1; n <= 2; n++ {
			s := p.lay(x, n)
			all := true
			switch p.way.Holds {
			case ScuffAndSeal:
				all = seals && n == 2
			case Prime:
				all = !seals
			case Additive, StraightOn:
				all = false
			}
			if p.see && row.Opaque() || filler && (n > 1 || z.Sheen < craft.SemiGloss || c.Substrates[z.Substrate].Mark() != "open") || n > 1 && row.Coat == craft.PP {
				all = false
			}
			if all {
				m := p.move(grounding, s)
				if p.idler(row) {
					m.least[Trouble] += secondKind
				}
				p.primers = append(p.primers, m)
			}
			if p.spots && row.Block.Blocks() && p.way.Knots != KnotsAll || n == 1 && p.ask.Fill != "" && !row.Aerosol && (row.Coat == craft.SH || row.Coat == craft.SW || row.Coat == craft.SO) {
				s.Scope, s.Method = surface.Spots, "brush"
				if p.spots && z.Knots > 0 {
					s.Scope = surface.Knots
				}
				p.primers = append(p.primers, p.move(grounding, s))
			}
		}
	}
}

// idler tells whether a primer is a stain blocker that has nothing to block here.
func (p *planner) idler(row *craft.ProductRow) bool {
	return !p.bleeds && row.Block.Blocks() && row.Opaque() && row.Coat != craft.BP && len(craft.Coats[row.Coat].Made) == 0
}

// fuss is the trouble of the primers of a whole plan beyond their trips: a second kind, and a blocker with
// nothing to block.
func (p *planner) fuss(steps []surface.Step) float64 {
	out, kinds := 0., 0
	for i := range steps {
		s := &steps[i]
		if s.Do != surface.Coat || s.Scope != surface.All {
			continue
		}
		row := &p.craft.Products[s.Product]
		if row.Role != craft.RolePrimer && !p.craft.Fills(s.Product, craft.ForGrain) {
			break
		}
		if kinds++; kinds > 1 {
			out += secondKind
		}
		if p.idler(row) {
			out += secondKind
		}
	}
	return out
}

// offCome tells whether a painter would consider removing the old finish: it is loose, the pores
// below are wanted, or something in the wood must be reached. Otherwise it is washed, keyed and
// painted over.
func (p *planner) offCome() bool {
	x := p.look()
	return p.zone.Loose&craft.Falls != 0 || x != nil && x.Pores || surface.Levels(p.craft, &p.zone.Facts)[craft.IronTannin] > 0
}

// strippable tells whether a way of stripping ruins none of what the surface may be.
func (p *planner) strippable(how craft.Treatment) bool {
	for _, m := range p.evaluator.Candidates() {
		top := p.craft.Finishes[m.Finish].Family
		if p.craft.Finishes[m.Finish].Bare {
			top = p.craft.Substrates[m.Substrate].Family
		}
		if p.craft.StandsTo(how, top, m.Substrate, m.Finish, m.Veneer, p.craft.Finishes[m.Finish].Bare).Stand == craft.Ruined {
			return false
		}
	}
	return true
}

// field is the face of one of the things that the surface may be, as the last
// plan that was judged left it.
func (p *planner) field(n int) *surface.Region { return &p.state(n).Regions[surface.Field] }

func (p *planner) state(n int) *surface.State {
	t := p.evaluator.Trace(n)
	if len(t.Events) == 0 {
		return &t.Start
	}
	return &t.Events[len(t.Events)-1].After
}

func (p *planner) any(f func(*surface.Region) bool) bool {
	for n := range p.evaluator.Candidates() {
		if f(p.field(n)) {
			return true
		}
	}
	return false
}

// helps tells whether a cleaning makes any of what the surface may be cleaner,
// with its last pass too.
func (p *planner) helps(s *surface.Step) bool {
	if !p.mayHelp(s) {
		return false
	}
	before := *s
	before.Passes = s.NumPasses() - 1
	var e, f surface.Event
	for n := range p.evaluator.Candidates() {
		st, facts := p.state(n), &p.evaluator.Candidates()[n].Facts
		if before.Passes > 0 {
			surface.Apply(p.craft, facts, st, &before, 1, 0, &e)
			st = &e.After
		}
		last := *s
		last.Passes = 0
		surface.Apply(p.craft, facts, st, &last, 1, 0, &f)
		for i := range f.After.Regions[:f.After.N] {
			a, b := &st.Regions[i], &f.After.Regions[i]
			if b.Top != a.Top || b.Loose != a.Loose {
				return true
			}
			for so := range a.Soils {
				if so != int(craft.Dust) && b.Soils[so] < a.Soils[so] && p.reaches(s.Cleaner, craft.Soil(so)) {
					return true
				}
			}
		}
	}
	return false
}

// mayHelp tells whether there is anything that a cleaning could take off, which is far cheaper than to try
// it.
func (p *planner) mayHelp(s *surface.Step) bool {
	row := &p.craft.Cleaners[s.Cleaner]
	for n := range p.evaluator.Candidates() {
		st := p.state(n)
		for i := range st.Regions[:st.N] {
			q := &st.Regions[i]
			if q.Soils[craft.CleanerResidue] > 0 || row.ID == craft.WaxRemover && q.Top == craft.WaxFilm || row.Loosens && q.Loose != 0 {
				return true
			}
			for _, x := range row.Shifts {
				if x.Soil != craft.Dust && q.Soils[x.Soil] > 0 {
					return true
				}
			}
		}
	}
	return false
}

// reaches tells whether a painter would use a cleaner against a soil: everyday ones for everything
// they remove, the others for what they are made for.
func (p *planner) reaches(cl craft.Cleaner, so craft.Soil) bool {
	row := &p.craft.Cleaners[cl]
	return row.Everyday || slices.Contains(craft.Soils[so].Remedy, row.ID)
}

// keys are the ways in which the surface may be given its key now, the first
// being none.
func (p *planner) keys() []option {
	out := []option{nil}
	degloss := func() {
		for _, cl := range p.craft.CleanersFor(craft.ForDeglossing) {
			if p.any(func(q *surface.Region) bool { return takesKey(q) && !plastic(q.Top) }) {
				out = append(out, option{{Do: surface.Clean, Cleaner: cl}})
			}
		}
	}
	if p.way.Holds == Chemical || !p.way.NoSmell && !p.keeps(ScuffFilms) && (p.barred || p.way.Holds == Whichever) {
		degloss()
	}
	if p.way.Holds == Chemical || p.barred && !p.keeps(ScuffFilms) || p.way.Sand == SandNever {
		return out
	}
	for n := range p.evaluator.Candidates() {
		q := p.field(n)
		row := &craft.Families[q.Top]
		if row.ScuffHow == "" || !takesKey(q) && p.way.Sand != SandAlways && !(p.keeps(ScuffFilms) && hardFilm(q.Top)) {
			continue
		}
		s := surface.Step{Do: surface.Abrade, Grit: row.ScuffGrit, How: row.ScuffHow}
		if p.barred { // wet, so that no dust rises
			if s.How == craft.Pad {
				continue
			}
			s.How = craft.Wet
		} else if s.How == craft.Hand {
			s.How = p.rubs(q.Top, p.evaluator.Candidates()[n].Veneer)
		}
		if q.Top == craft.MelamineFilm && p.craft.Substrates[p.evaluator.Candidates()[n].Substrate].Paper() {
			s = surface.Step{Do: surface.Abrade, How: craft.Pad} // the print is paper
		}
		if !slices.ContainsFunc(out, func(o option) bool { return len(o) > 0 && o[0] == s }) {
			out = append(out, option{s})
		}
	}
	if len(out) == 1 && p.barred && !p.way.NoSmell { // nothing to sand wet
		degloss()
	}
	return out
}

// rubs is how a face is sanded that is sanded by hand otherwise: with the sander where the kit has one, the
// face is wide and plain, and no machine harms it.
func (p *planner) rubs(top craft.Family, veneer bool) craft.How {
	wide := p.ask.Zone.Area >= wide && p.zone.Pace() < craft.Slender
	if p.ask.Kit != nil && p.ask.Kit.Has(Sander) && wide && !veneer && craft.Limits[top].Any && !top.BareMetal() {
		return craft.Machine
	}
	return craft.Hand
}

// takesKey tells whether abrasion would give a face more of a hold.
func takesKey(q *surface.Region) bool { return q.Key < 1 }

func plastic(f craft.Family) bool {
	return f == craft.PlasticHard || f == craft.Polyolefin || f == craft.VinylSoft || f == craft.VinylRigid
}

// must tells whether a way of working demands a key where one is possible.
func (p *planner) must() bool {
	if p.flakes() {
		return false
	}
	if p.keeps(ScuffFilms) && p.any(func(q *surface.Region) bool { return hardFilm(q.Top) }) {
		return true
	}
	return p.way.Holds == ScuffAndSeal || p.way.Holds == Chemical || p.way.Holds == StraightOn || p.way.Sand == SandAlways
}

// ready lists the runs of steps that make the surface as it is now ready for its
// first coat.
func (p *planner) ready(n *node, scuffed bool) []move {
	keys := p.keys()
	if scuffed {
		keys = keys[:1]
	} else if p.must() && len(keys) > 1 {
		keys = keys[1:]
	}
	raises := []bool{false}
	if p.any(func(q *surface.Region) bool { return q.Bare && !q.Raised && q.Top == craft.WoodBare }) && p.craft.Substrates[p.zone.Substrate].Group == craft.GroupWood && !p.barred {
		raises = append(raises, true)
	}
	dusty := p.any(func(q *surface.Region) bool { return q.Soils[craft.Dust] > 0 })
	var out []move
	for _, key := range keys {
		for _, raise := range raises {
			var steps []surface.Step
			rubbed := len(key) > 0 && key[0].Do == surface.Abrade
			if p.ask.Fill != "" {
				steps = append(steps, surface.Step{Do: surface.Fill, With: p.ask.Fill})
			}
			if raise {
				steps = append(steps, surface.Step{Do: surface.RaiseGrain})
			}
			level := surface.Step{Do: surface.Abrade, Grit: 220, How: craft.Hand}
			if p.barred {
				level.How = craft.Wet
			} else if p.ask.Fill == "" && !raise {
				level.How = p.rubs(p.field(0).Top, p.zone.Veneer)
			}
			rough := p.keeps(SandBare) && p.any(func(q *surface.Region) bool { return bareWood(p.craft, &p.zone, q) })
			if (p.ask.Fill != "" || raise || rough) && !rubbed {
				steps = append(steps, level)
				rubbed = true
			}
			steps = append(steps, key...)
			if p.brushes() {
				steps = append(steps, surface.Step{Do: surface.Clean, Cleaner: p.craft.CleanersFor(craft.ForBrushing)[0]})
				rubbed = true
			}
			if dusty || rubbed {
				steps = append(steps, dust)
			}
			if len(p.zone.Unmasked) > 0 {
				steps = append(steps, surface.Step{Do: surface.Mask, What: craft.List(p.zone.Unmasked)})
			}
			if p.keeps(SpiritWipe) && !n.biocide && p.any(func(q *surface.Region) bool { return q.Bare && wipes(q.Top) }) {
				if cl, ok := p.spirit(); ok {
					steps = append(steps, surface.Step{Do: surface.Clean, Cleaner: cl})
				}
			}
			out = append(out, p.move(grounding, steps...))
		}
	}
	return out
}

// spirit is what a face is wiped with just before its first coat: the first of the solvents that does it
// no harm; false where all do.
func (p *planner) spirit() (craft.Cleaner, bool) {
	for _, cl := range p.craft.CleanersFor(craft.ForSolvent) {
		id := craft.Treatment(p.craft.Cleaners[cl].ID)
		harms := slices.ContainsFunc(p.evaluator.Candidates(), func(m check.Candidate) bool {
			bare := p.craft.Finishes[m.Finish].Bare
			top := p.craft.Finishes[m.Finish].Family
			if bare {
				top = p.craft.Substrates[m.Substrate].Family
			}
			return p.craft.StandsTo(id, top, m.Substrate, m.Finish, m.Veneer, bare).Stand > craft.Stands
		})
		if !harms {
			return cl, true
		}
	}
	return 0, false
}

// brushes tells whether open pores are brushed out for what is to lie in them.
func (p *planner) brushes() bool {
	x := p.look()
	return x != nil && x.Pores && !p.barred && !p.any(check.Refuses) && p.any(func(q *surface.Region) bool { return q.Bare && q.Top == craft.WoodBare })
}

// next lists what the beginning of a plan may go on with, from the surface it
// leaves, which was judged last.
func (p *planner) next(n *node) []move {
	var out []move
	switch n.stage {
	case scuffing:
		for _, key := range p.keys()[1:] {
			if key[0].Do == surface.Abrade {
				out = append(out, p.move(cleaning, key...))
			}
		}
		if len(out) == 0 {
			out = append(out, p.move(cleaning))
		}
	case cleaning:
		useless := craft.Cleaner(255)
		for i := range p.cleans {
			s := &p.cleans[i].steps[0]
			if s.Passes > 0 && s.Cleaner == useless { // one pass more is no use either
				continue
			}
			due := p.washes && !n.washed && s.Passes == 0 && slices.Contains(p.craft.CleanersFor(craft.ForWash), s.Cleaner)
			helps := p.helps(s)
			if !helps {
				useless = s.Cleaner
			}
			if due || helps {
				out = append(out, p.cleans[i])
			}
		}
		if n.last == surface.NumKinds || n.last == surface.Clean { // stripping comes once, and first of all
			if !n.stripped {
				out = append(out, p.strips...)
			}
		}
		if p.any(func(q *surface.Region) bool {
			return q.Loose&(craft.LooseVeneer|craft.LooseFoil|craft.LooseJoint) != 0
		}) {
			out = append(out, p.repair)
		}
		if p.any(func(q *surface.Region) bool { return q.Bare && q.Load[craft.IronTannin] > 0 }) {
			out = append(out, p.bleach...)
		}
		if p.way.ScuffFirst && !n.wiped { // it takes the dust and what hands have left
			for _, cl := range p.craft.CleanersFor(craft.ForSolvent) {
				out = append(out, p.move(cleaning, surface.Step{Do: surface.Clean, Cleaner: cl}))
			}
			return out
		}
		if n.washed || !p.washes {
			out = append(out, p.ready(n, p.way.ScuffFirst)...)
		}
	case grounding:
		for i := range p.primers {
			s := &p.primers[i].steps[0]
			if s.Scope == surface.All && (n.allOver >= mostPrimers || n.allOver > 0 && s.Product == n.product) || s.Scope != surface.All && n.primers > 0 { // spots come first
				continue
			}
			if !p.any(func(q *surface.Region) bool { return craft.Coats[p.craft.Products[s.Product].Coat].MadeFor(q.Top) }) {
				continue
			}
			if s.Scope == surface.All && n.allOver == 0 && p.keeps(RightPrimer) && !p.any(func(q *surface.Region) bool { return suitsGround(p.craft, s.Product, q.Top, q.Bare) }) {
				continue
			}
			out = append(out, p.primers[i])
		}
		if n.primers > 0 && n.last == surface.Coat && n.rough && !p.barred {
			out = append(out, p.denib)
		}
	}
	return out
}

// grounded tells whether a beginning has everything that its way of working demands below the
// paint.
func (p *planner) grounded(n *node) bool {
	switch {
	case n.stage != grounding:
		return false
	case p.blocked && p.grounds == nil && !p.see && !p.flakes() && n.blocks < 2:
		return false
	case p.knotsOnly && p.grounds == nil && !p.see && n.spotted < 2:
		return false
	case p.way.Holds == ScuffAndSeal && !p.see:
		return n.allOver == 1
	case p.way.Holds == Prime && p.grounds == nil:
		return n.allOver > 0
	case p.way.Knots == KnotsAll && p.spots && p.way.Holds != Additive && p.way.Holds != StraightOn:
		return n.allOver > 0
	}
	return true
}
