package check

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"rutile/core/craft"
	"rutile/core/measure"
	"rutile/core/surface"
)

type idea struct {
	step  int
	on    craft.Family
	edits []proposal
}

type proposal struct {
	title string
	steps []surface.Step
}

func insert(steps []surface.Step, at int, add ...surface.Step) []surface.Step {
	return slices.Concat(steps[:at], add, steps[at:])
}

// block is the first step of the preparation for step i: after the last coat that left a film. A
// stain leaves none.
func (m *Repairer) block(steps []surface.Step, i int) int {
	film := func(s *surface.Step) bool {
		return s.Do == surface.Coat && m.Craft.Products[s.Product].Coat != craft.NoCoat
	}
	from := i
	for from > 0 && !film(&steps[from-1]) {
		from--
	}
	return from
}

// cleanPlace is where cleaning for step i belongs: before the sanding and the staining in its
// block.
func (m *Repairer) cleanPlace(steps []surface.Step, i int) int {
	for j := m.block(steps, i); j < i; j++ {
		if do := steps[j].Do; do == surface.Abrade || do == surface.Strip || do == surface.Coat {
			return j
		}
	}
	return i
}

// cleaning is how a soil of a level is washed off.
func (m *Repairer) cleaning(s craft.Soil, level uint8) []surface.Step {
	var out []surface.Step
	for n, id := range craft.Soils[s].Remedy {
		cl, _ := m.Craft.Cleaner(id)
		row := &m.Craft.Cleaners[cl]
		passes := 1
		if x, ok := row.Shift(s, level); ok && n == 0 {
			passes = (int(level) + int(x.Levels) - 1) / int(x.Levels)
			if len(craft.Soils[s].Remedy) > 1 {
				passes = (int(level) - 1 + int(x.Levels) - 1) / int(x.Levels)
			}
		}
		out = append(out, surface.Step{Do: surface.Clean, Cleaner: cl, Rinse: row.Rinses > 0, Passes: max(1, passes)})
	}
	for i := range out {
		if out[i].Passes == 1 {
			out[i].Passes = 0
		}
	}
	return out
}

func (m *Repairer) coat(p craft.Product, coats int) surface.Step {
	s := surface.Step{Do: surface.Coat, Product: p, Coats: coats, Auto: true, Method: "brush"}
	if m.Craft.Products[p].Aerosol {
		s.Method = "aerosol"
	}
	return s
}

// scuff is how a painter keys a surface, as far as it may be: never dry where
// lead is suspected.
func (m *Repairer) scuff(f craft.Family) (surface.Step, bool) {
	row := &craft.Families[f]
	plastic := f == craft.PlasticHard || f == craft.Polyolefin || f == craft.VinylSoft || f == craft.VinylRigid
	switch {
	case row.ScuffHow == "":
		return surface.Step{}, false
	case m.Zone.LeadBars(m.Craft):
		cl := m.Craft.CleanersFor(craft.ForDeglossing)[0]
		return surface.Step{Do: surface.Clean, Cleaner: cl}, !plastic
	default:
		return surface.Step{Do: surface.Abrade, Grit: row.ScuffGrit, How: row.ScuffHow}, true
	}
}

// keyed returns the steps with step i's ground scuffed and dusted, and where i
// has gone.
func (m *Repairer) keyed(steps []surface.Step, i int, on craft.Family) ([]surface.Step, int, string) {
	sc, ok := m.scuff(on)
	if !ok {
		return nil, i, ""
	}
	title := craft.Lower(StepWords(m.Craft, &sc))
	for j := m.block(steps, i); j < i; j++ {
		if steps[j].Do == surface.Abrade && sc.Do == surface.Abrade {
			out := slices.Clone(steps)
			sc.Through = steps[j].Through
			out[j] = sc
			if !dusted(steps[j+1 : i]) {
				return insert(out, i, surface.Step{Do: surface.Dust}), i + 1, title + " instead, and dust off"
			}
			return out, i, title + " instead"
		}
	}
	at := i
	for at > 0 && (steps[at-1].Do == surface.Dust || steps[at-1].Do == surface.Mask) {
		at--
	}
	if dusted(steps[at:i]) || sc.Do == surface.Clean {
		return insert(steps, at, sc), i + 1, title
	}
	return insert(steps, i, sc, surface.Step{Do: surface.Dust}), i + 2, title + " and dust off"
}

func dusted(steps []surface.Step) bool {
	return slices.ContainsFunc(steps, func(s surface.Step) bool { return s.Do == surface.Dust })
}

// grippers are the products of a role, the most promising first, that reach the needed strength on
// b's surface and, where a coat of over goes on them, below that too. on is what b's coat will lie
// on after the repair. Products made for other surfaces are left out, and those that would hide a
// surface that should stay visible.
func (m *Repairer) grippers(b *surface.Boundary, on craft.Family, role craft.Role, over craft.Product) []craft.Product {
	c := m.Craft
	hidden := slices.ContainsFunc(m.Zone.Steps[b.Step-1:], func(s surface.Step) bool {
		return s.Do == surface.Coat && c.Products[s.Product].Opaque()
	})
	bare := 1.
	if sub := &c.Substrates[m.Zone.Substrate]; b.Bare || on == sub.Family && b.On != on {
		bare = sub.Grip
	}
	type cand struct {
		p     craft.Product
		score float64
	}
	var cs []cand
	for i := range c.Kinds() {
		p := &c.Products[i]
		if p.Role != role || craft.Product(i) == b.Product || p.Opaque() && !hidden || !craft.Coats[p.Coat].MadeFor(on) {
			continue
		}
		weak := bare * c.GripOf(on, p.Coat, 0)
		if over != craft.NoProduct {
			weak = min(weak, c.GripOf(p.Dried, c.Products[over].Coat, b.Additive))
		}
		if weak < m.hit.Case.Demand {
			continue
		}
		cs = append(cs, cand{craft.Product(i), min(weak, 1.5*m.hit.Case.Demand) - .02*float64(p.Smell)})
	}
	slices.SortStableFunc(cs, func(a, b cand) int { return cmp.Compare(b.score, a.score) })
	const most = 4
	var out []craft.Product
	for _, x := range cs[:min(most, len(cs))] {
		out = append(out, x.p)
	}
	return out
}

// Rework proposes everything that gives a coat a better ground: taking wax
// off, cleaning, keying, priming, and these together, in the order a painter
// would do them.
func (m *Repairer) Rework(b *surface.Boundary) {
	at := slices.IndexFunc(m.ideas, func(x idea) bool { return x.step == b.Step && x.on == b.On })
	if at < 0 {
		at = len(m.ideas)
		m.ideas = append(m.ideas, idea{b.Step, b.On, m.grounds(b)})
	}
	for _, p := range m.ideas[at].edits {
		m.Edit(p.title, p.steps)
	}
	// A primer gives way to another before it is primed itself, a paint only
	// where nothing makes it hold.
	coats := trips(m.Zone.Steps)
	primer := m.Craft.Products[b.Product].Role == craft.RolePrimer
	if !slices.ContainsFunc(m.edits, func(e edit) bool { return !primer || trips(e.steps) == coats }) {
		m.instead(b)
	}
}

// trips counts the coat steps of a plan.
func trips(steps []surface.Step) int {
	n := 0
	for i := range steps {
		if steps[i].Do == surface.Coat {
			n++
		}
	}
	return n
}

// instead proposes another paint or primer in place of b's: colour, number of coats and look stay.
func (m *Repairer) instead(b *surface.Boundary) {
	steps := m.Zone.Steps
	role, verb := m.Craft.Products[b.Product].Role, "paint with "
	switch {
	case m.Zone.Look != "" && m.Zone.Look != craft.LookSolid:
		return // an effect needs a paint of its own
	case role == craft.RolePrimer:
		verb = "prime with "
	case role != craft.RolePaint:
		return
	}
	grounds, on := m.bases(b)
	for _, p := range m.grippers(b, on, role, craft.NoProduct) {
		for _, g := range grounds {
			other := slices.Clone(g.steps)
			for i := range other {
				s := &other[i]
				if s.Do != surface.Coat || s.Product != b.Product {
					continue
				}
				n := m.coat(p, s.Coats)
				n.Colour, n.Sheen, n.Scope = s.Colour, s.Sheen, s.Scope
				if n.Method != "aerosol" && s.Method != "aerosol" {
					n.Method = s.Method
				}
				other[i] = n
			}
			if len(other) == len(steps) && slices.Equal(other, steps) {
				continue
			}
			m.Edit(craft.Upper(join(g.title, verb+productName(m.Craft, p)+" instead")), other)
		}
	}
}

// ground is a plan in which more is done before the step that is now at at.
type ground struct {
	steps []surface.Step
	at    int
	title string
}

func join(a, b string) string {
	if a == "" {
		return b
	}
	return a + ", then " + b
}

// grounds works out what Rework proposes.
func (m *Repairer) grounds(b *surface.Boundary) []proposal {
	var out []proposal
	bases, on := m.bases(b)
	prim := m.grippers(b, on, craft.RolePrimer, b.Product)
	for _, g := range bases {
		if g.title != "" {
			out = append(out, proposal{craft.Upper(g.title), g.steps})
		}
		for _, p := range prim {
			s := m.coat(p, 1)
			out = append(out, proposal{craft.Upper(join(g.title, "prime with "+productName(m.Craft, p))), insert(g.steps, g.at, s)})
		}
	}
	if m.Craft.Products[b.Product].Coat == craft.MK && b.Additive < craft.AdditiveFull {
		for _, g := range bases {
			mixed := slices.Clone(g.steps)
			for j := range mixed {
				if s := &mixed[j]; s.Do == surface.Coat && m.Craft.Products[s.Product].Coat == craft.MK {
					s.Additive, s.AdditiveFirst = craft.AdditiveFull, false
				}
			}
			out = append(out, proposal{craft.Upper(join(g.title, "mix half bonding additive into every coat of milk paint")), mixed})
		}
	}
	return out
}

// bases are the plans in which b's ground is clean, and clean and keyed, and
// the family the coat then meets.
func (m *Repairer) bases(b *surface.Boundary) ([]ground, craft.Family) {
	steps, i := m.Zone.Steps, b.Step-1
	bases := []ground{{steps, i, ""}}
	onWax := b.On == craft.WaxFilm && !ownWax(m.Craft, b)
	on := b.On
	if onWax {
		at := m.cleanPlace(steps, i)
		wash := m.cleaning(craft.WaxPolish, 1)
		bases = []ground{{insert(steps, at, wash...), i + len(wash), "take the wax off with white spirit and wash"}}
		under := m.hit.Case.Craft.Finishes[m.hit.Case.Facts.Finish].Under
		if under == craft.NumFamilies {
			under = m.Craft.Substrates[m.Zone.Substrate].Family
		}
		on = under
	}
	for s, lv := range b.Soils {
		so := craft.Soil(s)
		if onWax && so == craft.WaxPolish {
			continue // it goes with the wax
		}
		if lv > 0 && so != craft.Dust && so != craft.CleanerResidue {
			g := bases[0]
			wash := m.cleaning(so, lv)
			at := m.cleanPlace(g.steps, g.at)
			bases[0] = ground{insert(g.steps, at, wash...), g.at + len(wash), join(g.title, "clean off the "+craft.Soils[so].Name)}
		}
	}
	if b.CapWhy == surface.CapFlaking && !m.Zone.LeadBars(m.Craft) {
		br := m.Craft.CleanersFor(craft.ForBrushing)[0]
		g := bases[0]
		at := m.cleanPlace(g.steps, g.at)
		bases[0] = ground{insert(g.steps, at, surface.Step{Do: surface.Clean, Cleaner: br}), g.at + 1, join(g.title, "brush off what is loose")}
	}
	if b.First || b.Under == craft.NoProduct || b.Timing == surface.Missed {
		if ks, at, title := m.keyed(bases[0].steps, bases[0].at, on); ks != nil {
			bases = append(bases, ground{ks, at, join(bases[0].title, title)})
		}
	}
	return bases, on
}

// Wait proposes to wait until the window of the coat below b opens.
func (m *Repairer) Wait(b *surface.Boundary) {
	steps := slices.Clone(m.Zone.Steps)
	i := b.Step - 1
	if b.CoatNo == 1 || steps[i].Do != surface.Coat {
		for i--; i >= 0 && steps[i].Do != surface.Coat; i-- {
			if steps[i].Do == surface.Wait {
				steps[i].Hours += practical(b.Earliest - b.Waited)
				m.Edit("Wait "+measure.Hours(steps[i].Hours)+" there", steps)
				return
			}
		}
	}
	if i < 0 {
		return
	}
	s := &steps[i]
	if s.Auto {
		return
	}
	s.WaitH = practical(s.WaitH + b.Earliest - b.Waited)
	m.Edit("Wait "+measure.Hours(s.WaitH)+" after "+productName(m.Craft, s.Product), steps)
}

// Sooner proposes to apply the coat of b as early as what is below allows.
func (m *Repairer) Sooner(b *surface.Boundary) {
	steps := slices.Clone(m.Zone.Steps)
	i := b.Step - 1
	if b.CoatNo == 1 {
		for i--; i >= 0 && steps[i].Do != surface.Coat; i-- {
			if steps[i].Do == surface.Wait {
				steps[i].Hours = max(0, steps[i].Hours-practical(b.Waited-b.Earliest))
			}
		}
	}
	if i < 0 || steps[i].Auto {
		return
	}
	steps[i].WaitH = practical(b.Earliest)
	m.Edit("Coat again after "+measure.Hours(steps[i].WaitH)+", while "+productName(m.Craft, b.Under)+" is still within its window", steps)
}

// practical rounds a wait up to what a painter would set a timer to.
func practical(h float64) float64 {
	step := 1.
	switch {
	case h <= 1:
		step = .25
	case h <= 6:
		step = .5
	}
	n := h / step
	if r := float64(int(n)); n-r > 1e-9 {
		return (r + 1) * step
	}
	return float64(int(n)) * step
}

// Block proposes coats that hold a stain back.
func (m *Repairer) Block(st *Stain) {
	c, steps := m.Craft, m.Zone.Steps
	first, paint := -1, -1
	for i := range steps {
		if steps[i].Do != surface.Coat {
			continue
		}
		if first < 0 {
			first = i
		}
		if paint < 0 && c.Products[steps[i].Product].Role == craft.RolePaint {
			paint = i
		}
	}
	if first < 0 {
		return
	}
	places := []int{first}
	if paint > first {
		places = append(places, paint)
	}
	for i := range c.Kinds() {
		p := craft.Product(i)
		t := c.LetsThrough(p, st.Bleeder)
		pr := &c.Products[i]
		flexible := pr.Coat == craft.FX && t < .5
		if !(pr.Role == craft.RolePrimer && pr.Block.Blocks() || flexible) || t > .6 {
			continue
		}
		if pr.TwoPart && c.Substrates[m.Zone.Substrate].Group == craft.GroupWood {
			continue // nobody mixes epoxy to hold back a stain in wood
		}
		coats := 1
		for left := st.DeltaE * t; left >= .9*stainWatch && coats < 3; coats++ {
			left *= t
		}
		if coats > 2 {
			continue
		}
		for _, at := range places {
			if !craft.Coats[pr.Coat].MadeFor(m.meets(at + 1)) {
				continue
			}
			if !m.blockAt(st, p, coats, at) && coats == 1 {
				m.blockAt(st, p, 2, at) // something else bleeds as well
			}
		}
	}
	// A blocker or primer that is there already: one more coat, or a better
	// one in its place.
	for i := first; i < len(steps); i++ {
		s := &steps[i]
		if s.Do != surface.Coat || c.Products[s.Product].Role != craft.RolePrimer {
			continue
		}
		if c.LetsThrough(s.Product, st.Bleeder) <= .6 {
			more := slices.Clone(steps)
			more[i].Coats = s.NumCoats() + 1
			m.Edit("One more coat of "+productName(c, s.Product), more)
		}
		if p := c.First(craft.ForBlocking); s.Product != p {
			swap := slices.Clone(steps)
			swap[i] = m.coat(p, 1)
			m.Edit("Prime with "+productName(c, p)+" instead", swap)
		}
	}
}

// meets is the family that a step, from 1, finds on the field.
func (m *Repairer) meets(step int) craft.Family {
	events := m.hit.Case.Trace.Events
	i := 0
	for events[i].Step != step {
		i++
	}
	return events[i].Before.Regions[surface.Field].Top
}

// blockAt proposes blocking coats before the step at, and where the stain is local, only on its
// spots. It tells whether that is enough.
func (m *Repairer) blockAt(st *Stain, p craft.Product, coats, at int) bool {
	s := m.coat(p, coats)
	if craft.Bleeders[st.Bleeder].Local {
		spot := s
		spot.Scope = surface.Spots
		if st.Bleeder == craft.Resin {
			spot.Scope = surface.Knots
		}
		m.Edit("Block it with "+craft.Lower(StepWords(m.Craft, &spot)), insert(m.Zone.Steps, at, spot))
	}
	m.Edit("Block it with "+craft.Lower(StepWords(m.Craft, &s)), insert(m.Zone.Steps, at, s))
	return len(m.edits) > 0 && m.edits[len(m.edits)-1].after == Sound
}

// swapEach proposes, for each other product, the plan with it in every place of
// one; verb has a place for its name.
func (m *Repairer) swapEach(old craft.Product, verb string, by []craft.Product) {
	for _, p := range by {
		if p == old {
			continue
		}
		steps := slices.Clone(m.Zone.Steps)
		for i := range steps {
			if s := &steps[i]; s.Do == surface.Coat && s.Product == old {
				n := m.coat(p, s.NumCoats())
				n.Colour, n.Scope = s.Colour, s.Scope
				if m.Craft.Products[p].Role == craft.RoleWax {
					n.Coats, n.Method = 1, "rag"
				}
				if m.Craft.Products[p].Role == m.Craft.Products[old].Role {
					n.Sheen = s.Sheen
				}
				steps[i] = n
			}
		}
		m.Edit(craft.Upper(fmt.Sprintf(verb, productName(m.Craft, p))), steps)
	}
}

// without proposes the plan without a product that is no paint of it, so that
// what is wanted stays.
func (m *Repairer) without(p craft.Product) {
	if r := m.Craft.Products[p].Role; r == craft.RolePaint {
		return
	}
	m.Edit("Leave the "+productName(m.Craft, p)+" out", slices.DeleteFunc(slices.Clone(m.Zone.Steps), func(s surface.Step) bool {
		return s.Do == surface.Coat && s.Product == p
	}))
}

// waitHours proposes to leave the coat below b for some hours.
func (m *Repairer) waitHours(b *surface.Boundary, hours float64) {
	at := *b
	at.Earliest = hours
	m.Wait(&at)
	if b.CoatNo == 1 {
		m.Edit("Wait "+measure.Hours(practical(hours))+" there", insert(m.Zone.Steps, b.Step-1, surface.Step{Do: surface.Wait, Hours: practical(hours)}))
	}
}

// swapClears proposes the plan with all its clear coats and waxes over the last paint made
// one seal; verb has a place for its name.
func (m *Repairer) swapClears(verb string, by []craft.Product) {
	from := m.lastCoat(craft.RolePaint) + 1
	for _, p := range by {
		s := m.coat(p, 2)
		if m.Craft.Products[p].Role == craft.RoleWax {
			s.Coats, s.Method = 1, "rag"
		}
		s.Sheen = m.Zone.Sheen
		if m.Craft.Products[p].Role != craft.RoleClear {
			s.Sheen = craft.NoSheen
		}
		out := slices.Clone(m.Zone.Steps[:from])
		laid := false
		for _, x := range m.Zone.Steps[from:] {
			if r := m.Craft.Products[x.Product].Role; x.Do == surface.Coat && (r == craft.RoleClear || r == craft.RoleWax) {
				if !laid {
					out = append(out, s)
				}
				laid = true
				continue
			}
			out = append(out, x)
		}
		if laid {
			m.Edit(fmt.Sprintf(verb, productName(m.Craft, p)), out)
		}
	}
}

// level proposes to fill and level the ground before the first coat.
func (m *Repairer) level(title string) {
	i := m.firstCoat()
	if i < 0 {
		return
	}
	fill := []surface.Step{{Do: surface.Fill, With: craft.FillerFine}, {Do: surface.Abrade, Grit: 220, How: craft.Hand}, {Do: surface.Dust}}
	m.Edit(title, insert(m.Zone.Steps, i, fill...))
	prime := m.Craft.First(craft.ForEvenGround)
	m.Edit(title+", and prime it", insert(m.Zone.Steps, i, append(fill, m.coat(prime, 1))...))
}

// change proposes the plan with one step, from 1, made other.
func (m *Repairer) change(title string, step int, f func(*surface.Step)) {
	steps := slices.Clone(m.Zone.Steps)
	f(&steps[step-1])
	m.Edit(title, steps)
}

// moved proposes the plan with one step, from 1, taken to another place, counted
// before it was taken out.
func (m *Repairer) moved(title string, step, to int) {
	s := m.Zone.Steps[step-1]
	rest := slices.Delete(slices.Clone(m.Zone.Steps), step-1, step)
	if to >= step {
		to--
	}
	m.Edit(title, insert(rest, to, s))
}

// lastCoat is the index of the last coat step of a role, -1 where there is none.
func (m *Repairer) lastCoat(r craft.Role) int {
	for i := len(m.Zone.Steps) - 1; i >= 0; i-- {
		if s := &m.Zone.Steps[i]; s.Do == surface.Coat && m.Craft.Products[s.Product].Role == r {
			return i
		}
	}
	return -1
}

// firstCoat is the index of the first coat that leaves a film, -1 where there is
// none.
func (m *Repairer) firstCoat() int {
	return slices.IndexFunc(m.Zone.Steps, func(s surface.Step) bool {
		return s.Do == surface.Coat && m.Craft.Products[s.Product].LeavesFilm()
	})
}

// titleOf joins the words of several steps.
func titleOf(c *craft.Craft, steps []surface.Step) string {
	var w []string
	for i := range steps {
		w = append(w, craft.Lower(StepWords(c, &steps[i])))
	}
	return strings.Join(w, ", then ")
}

// best are the first of some products, as many as there are up to n.
func best(n int, of []craft.Product) []craft.Product { return of[:min(n, len(of))] }
