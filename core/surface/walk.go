package surface

import (
	"math"
	"slices"

	"rutile/core/craft"
	"rutile/core/drying"
)

// Event is what one step, or one coat of a step, did.
type Event struct {
	Step   int // from 1
	CoatNo int // from 1 for a coat, 0 for everything else
	Doing  *Step
	Effect *craft.EffectRow // the effect that is worked, nil for any other step
	Before *State           // as the event before left it
	Done   *Done            // how it was really done, nil while it is planned
	// Begun is when the work on it began, in hours, after any waiting; SetUp are the minutes of its work
	// that are spent before and after it, and are spent once where several zones are worked on together.
	Begun, SetUp float64
	After        State
	// Bounds are the boundaries made, one for each patch the coat went on.
	Bounds  [numRegions]Boundary
	NBounds int
}

// Boundaries are the boundaries the event made.
func (e *Event) Boundaries() []Boundary { return e.Bounds[:e.NBounds] }

// Worked is the effect that was worked last in a row of events, with no coat over
// it yet; nil where there is none.
func Worked(events []Event) *Event {
	for i := len(events) - 1; i >= 0; i-- {
		switch e := &events[i]; {
		case e.Effect != nil:
			return e
		case e.Doing.Do == Coat && e.Doing.Scope == All:
			return nil
		}
	}
	return nil
}

// Trace is a whole walk.
type Trace struct {
	Start  State
	Events []Event
	End    State
}

// Walk takes a zone through its steps.
func Walk(c *craft.Craft, f *Facts, steps []Step) Trace {
	var t Trace
	t.Walk(c, f, steps)
	return t
}

// Walk is [Walk] into a trace whose memory is reused.
func (t *Trace) Walk(c *craft.Craft, f *Facts, steps []Step) {
	n := 0
	for i := range steps {
		if steps[i].Do == Coat {
			n += steps[i].NumCoats()
		} else {
			n++
		}
	}
	if cap(t.Events) < n {
		t.Events = make([]Event, 0, n)
	}
	t.Events = t.Events[:0]
	t.Start = Start(c, f, steps)
	s := &t.Start
	for i := range steps {
		times := 1
		if steps[i].Do == Coat {
			times = steps[i].NumCoats()
		}
		for k := 1; k <= times; k++ {
			no := 0
			if steps[i].Do == Coat {
				no = k
			}
			t.Events = t.Events[:len(t.Events)+1] // Apply fills all of it in
			e := &t.Events[len(t.Events)-1]
			Apply(c, f, s, &steps[i], i+1, no, e)
			s = &e.After
		}
	}
	t.End = *s
	if t.End.Auto {
		for i := range t.End.Regions[:t.End.N] {
			p := &t.End.Regions[i]
			if p.Product != craft.NoProduct {
				t.End.Hours = max(t.End.Hours, p.opens(c, f, &c.Products[p.Product]))
			}
		}
	}
}

// Apply takes a state through one step, or through the coatNo-th coat of a
// coat step, and fills in the event. It is the only place where a state
// changes.
func Apply(c *craft.Craft, f *Facts, before *State, s *Step, step, coatNo int, e *Event) {
	e.Step, e.CoatNo, e.Doing, e.Effect, e.NBounds = step, coatNo, s, nil, 0
	e.Before = before
	e.After.take(before)
	st := &e.After
	if e.Done = s.done(coatNo); e.Done != nil {
		st.Hours, st.Airs = e.Done.From, false
	} else {
		if s.Do != Coat && s.Do != Wait && s.Do != Test {
			st.rest(c, f, s)
		}
		st.air(s)
		if s.Do != Wait && st.Hours < f.Now { // a wait goes on while nothing is done
			st.Hours = f.Now
		}
	}
	e.Begun, e.SetUp = st.Hours, 0
	if f.Area > 0 && s.Do != Wait && s.Do != Test {
		e.SetUp = craft.MinutesSetUp
	}
	switch s.Do {
	case Clean:
		row := &c.Cleaners[s.Cleaner]
		st.work(c, f, s, e.Done)
		for i := range st.Regions[:st.N] {
			st.Regions[i].clean(c, f, row, s, step, st.Hours)
		}
		st.Airs = true
	case Abrade:
		st.work(c, f, s, e.Done)
		for i := range st.Regions[:st.N] {
			st.Regions[i].abrade(c, f, s, step)
			if p := &st.Regions[i]; p.Bare && p.Top.BareMetal() {
				p.Bright, p.BrightAt, p.Rusts = true, st.Hours, false
			}
		}
	case Dust:
		st.work(c, f, s, e.Done)
		for i := range st.Regions[:st.N] {
			st.Regions[i].Soils[craft.Dust] = 0
			st.Regions[i].SandedStep = 0
		}
	case RaiseGrain:
		st.work(c, f, s, e.Done)
		st.dries(f, craft.HoursRaiseGrainDries, craft.Water)
		for i := range st.Regions[:st.N] {
			p := &st.Regions[i]
			p.Raised = true
			p.Soils[craft.Dust] = max(p.Soils[craft.Dust], 1)
			p.SandedStep = uint8(step)
		}
	case Wait:
		st.Hours += s.Hours
	case Coat:
		st.coat(c, f, s, e)
	case Strip:
		st.work(c, f, s, e.Done)
		for i := range st.Regions[:st.N] {
			st.Regions[i].strip(c, f, s, step)
		}
		if wet := craft.Treatment(s.StripHow); wet == craft.StripChemical || wet == craft.StripCaustic {
			st.dries(f, craft.HoursStripDries, craft.Water)
		}
	case Fill:
		st.work(c, f, s, e.Done)
		for i := range st.Regions[:st.N] {
			st.Regions[i].FilledStep = uint8(step)
		}
		if s.With == "filler_two_part" {
			st.Hours = f.opens(st.Hours, func(air drying.Climate) float64 { return craft.HoursFillTwoPart * math.Exp2((20-air.TempC)/10) })
		} else {
			st.dries(f, craft.HoursFillFine, craft.Water)
		}
	case Repair:
		st.work(c, f, s, e.Done)
		for i := range st.Regions[:st.N] {
			st.Regions[i].Loose &^= craft.LooseVeneer | craft.LooseFoil | craft.LooseJoint
		}
		st.Hours += craft.HoursGlueHardens
	case Mask:
		st.work(c, f, s, e.Done)
		st.Cleared = true
	case Remove:
		st.work(c, f, s, e.Done)
		st.Cleared = true
	case Reassemble:
		st.work(c, f, s, e.Done)
	case Effect:
		st.effect(c, f, s, e)
	}
}

// strip takes everything off down to the material, or to the board that a foil
// or a printed paper lies on.
func (p *Region) strip(c *craft.Craft, f *Facts, s *Step, step int) {
	p.bare(c, f)
	if f, ok := craft.CutThrough[c.Substrates[f.Substrate].ID]; ok {
		p.Top, p.Under, p.Key = f, f, craft.Families[f].Natural
		p.Load[craft.Plasticiser] = 0
	}
	p.Soils[craft.WaxPolish], p.Driven = 0, 0
	p.Stripped = true
	switch craft.Treatment(s.StripHow) {
	case craft.StripChemical:
		p.Soils[craft.StripperResidue] = 2
	case craft.StripCaustic: // acid neutralises what it leaves; no spirit does
		p.Soils[craft.CleanerResidue] = 2
	case craft.StripSand:
		const coarse = 80
		p.Grit, p.Soils[craft.Dust], p.SandedStep = coarse, 2, uint8(step)
		p.Key = max(p.Key, min(1, craft.KeyGain(coarse, craft.Machine)/craft.Families[p.Top].Best))
	default:
		p.Soils[craft.Dust] = 1
	}
}

// effect works an effect: it may apply something, wear the worn region, and leave dust.
func (st *State) effect(c *craft.Craft, f *Facts, s *Step, e *Event) {
	x, ok := c.Effect(s.Effect)
	if !ok {
		return
	}
	row := &c.Effects[x]
	e.Effect = row
	st.work(c, f, s, e.Done)
	field := &st.Regions[Field]
	if p, ok := c.Product(row.Lays); ok && !made(c, row, field.Product) {
		lays := Step{Do: Coat, Product: p, Coats: 1, Auto: true, Method: "rag"}
		up := &c.Products[p]
		for i := range st.Regions[:st.N] {
			q := &st.Regions[i]
			e.Bounds[e.NBounds] = bond(c, f, q, &lays, e.Step, 1, e.Begun)
			e.NBounds++
			if row.Covers {
				q.cover(c, f, &lays, up, st.Hours, e)
			}
		}
		st.Auto = st.Auto || row.Covers
	}
	for i := range st.Regions[:st.N] {
		q := &st.Regions[i]
		if r := ResistNamed(s.Resist); r != NoResist && q.Kind != SpotRegion {
			q.Resist, q.ResistAt = r, st.Hours
		}
		if row.Dusty {
			q.Soils[craft.Dust], q.SandedStep = 2, uint8(e.Step)
		}
		if q.Kind == Worn && Exposes(row, s) {
			q.expose(c, f)
		}
		if to, dries := row.DriesTo(); dries {
			q.Top, q.Scuffed, q.Leafed = to, false, true
		}
	}
	st.dries(f, row.Settles, craft.Water)
}

// Exposes tells whether an effect wears down to the material, on the patch that it
// wears: with a fine grit only the top layer goes. Working default.
func Exposes(row *craft.EffectRow, s *Step) bool {
	const light = craft.ShallowGrit
	return row.Deep && s.Grit < light
}

// made tells whether the top is what the effect would apply.
func made(c *craft.Craft, row *craft.EffectRow, top craft.Product) bool {
	if top == craft.NoProduct {
		return false
	}
	lays, _ := c.Product(row.Lays)
	return slices.Contains(row.By, c.Products[top].ID) || row.Covers && c.Products[top].Coat == c.Products[lays].Coat && c.Products[top].Coat != craft.AC
}

// rest lets the top coat harden until it may be worked on, where the plan
// leaves the wait to what follows.
func (st *State) rest(c *craft.Craft, f *Facts, s *Step) {
	if !st.Auto {
		return
	}
	for i := range st.Regions[:st.N] {
		p := &st.Regions[i]
		if p.Product == craft.NoProduct {
			continue
		}
		low := &c.Products[p.Product]
		from := low.Recoat.From
		switch s.Do {
		case Abrade, RaiseGrain:
			st.Hours = max(st.Hours, f.opens(p.At, func(air drying.Climate) float64 { return sandFrom(low, air) * p.slow() }))
			continue
		case Mask, Remove:
			from = low.Touch
		case Effect:
			from = waitsFor(c, s, low)
		}
		st.Hours = max(st.Hours, f.opens(p.At, func(air drying.Climate) float64 { return drying.Earliest(from, low, air) * p.slow() }))
		if s.Do == Effect && low.Tacky.From > 0 && from == low.Tacky.From {
			// Tack goes by its state.
			st.Hours = max(st.Hours, f.opens(p.At, func(air drying.Climate) float64 { return drying.Latest(from, low, air) * p.slow() }))
		}
	}
}

// air lets what was washed dry, where the plan leaves that to what follows; a wait that the plan gives
// stands instead.
func (st *State) air(s *Step) {
	switch s.Do {
	case Wait:
		st.Airs = false
	case Coat, Abrade, Dust, Effect, Fill, Strip, Repair:
		if st.Airs {
			for i := range st.Regions[:st.N] {
				st.Hours = max(st.Hours, st.Regions[i].DryAt)
			}
		}
		st.Airs = false
	}
}

// How long bare absorbent material stays wet, in hours at 23 C and 50 %: after a damp wipe, a wash,
// an acid that was rinsed off, and white spirit. Working defaults.
const (
	dryWiped, dryWashed, dryAcid, drySpirit, dryAlcohol = 3., 12., 24., 12., .5
)

// dries is when what a face was cleaned with at a moment has gone again, in hours after the cleaning.
func (p *Region) dries(row *craft.CleanerRow, s *Step, f *Facts, acid bool, hours float64) float64 {
	if !p.Bare || !craft.Families[p.Top].Porous {
		return f.opens(hours, func(air drying.Climate) float64 { return drying.Dries(row.DryHours, row.Carrier, air) }) - hours
	}
	h := row.DryHours
	switch {
	case acid:
		h = max(h, dryAcid)
	case row.Carrier == craft.Water && (s.Rinse || s.NumPasses() > 1):
		h = max(h, dryWashed)
	case row.Carrier == craft.Water:
		h = max(h, dryWiped)
	case row.ID == craft.WaxRemover:
		h = max(h, drySpirit)
	case row.Carrier == craft.Alcohol:
		h = max(h, dryAlcohol)
	}
	return f.opens(hours, func(air drying.Climate) float64 { return drying.Dries(h, row.Carrier, air) }) - hours
}

// waitsFor is how long an effect leaves the coat below at 23 C, where the plan
// does not say: size until it is tacky, what is wiped or wetted while it is
// young, and everything else until it may be coated again.
func waitsFor(c *craft.Craft, s *Step, low *craft.ProductRow) float64 {
	x, ok := c.Effect(s.Effect)
	if !ok {
		return low.Recoat.From
	}
	switch row := &c.Effects[x]; {
	case row.Ground == craft.GroundTack:
		return low.Tacky.From
	case slices.Contains(row.By, low.ID) && row.Lays != "", low.Coat == craft.GZ:
		return 0
	case row.Wets, row.Ground == craft.GroundMedium:
		return low.Touch
	}
	return low.Recoat.From
}

// work adds the hands-on minutes of a step that is no coat, or those that it really took.
func (st *State) work(c *craft.Craft, f *Facts, s *Step, d *Done) {
	st.worked(d, f.WorkMinutes(perM2(c, s)))
}

// worked adds minutes of work, or what a step that was done really took.
func (st *State) worked(d *Done, m float64) {
	if d == nil {
		st.Minutes += m
		st.Hours += m / 60
		return
	}
	if d.Minutes >= 0 {
		m = d.Minutes
	}
	st.Minutes += m
	st.Hours = d.To
}

// dries adds the time that something takes to dry in the air that follows.
func (st *State) dries(f *Facts, hours float64, car craft.Carrier) {
	st.Hours = f.opens(st.Hours, func(air drying.Climate) float64 { return drying.Dries(hours, car, air) })
}

// opens is when a coat on top may be followed by a product at the earliest, in hours of the walk.
func (p *Region) opens(c *craft.Craft, f *Facts, next *craft.ProductRow) float64 {
	low := &c.Products[p.Product]
	return f.opens(p.At, func(air drying.Climate) float64 { return windowOf(low, next, p.Run, air).slowed(p.Thick).from })
}

// slow is how many times longer the top coat takes to dry because it was laid thick.
func (p *Region) slow() float64 { return max(1, window{to: 1}.slowed(p.Thick).to) }

func (p *Region) clean(c *craft.Craft, f *Facts, row *craft.CleanerRow, s *Step, step int, hours float64) {
	for n := s.NumPasses(); n > 0; n-- {
		if row.ID == craft.WaxRemover && p.Top == craft.WaxFilm {
			p.Top, p.Product, p.Run = p.Under, craft.NoProduct, 0
			p.Bare, p.Coats = p.UnderBare, p.UnderCoats
			p.Soils[craft.WaxPolish] = max(1, p.Soils[craft.WaxPolish])
			p.Key = max(p.Key, craft.Families[p.Top].Natural)
			p.Loosened = true
			continue
		}
		for _, x := range row.Shifts {
			lv := p.Soils[x.Soil]
			if lv == 0 || x.UpTo > 0 && lv > x.UpTo || x.After && !p.Loosened {
				continue
			}
			lv -= min(lv, x.Levels)
			if p.driven(x.Soil) {
				lv = max(1, lv)
			}
			p.Soils[x.Soil] = lv
		}
		if row.ID == craft.WaxRemover {
			p.Loosened = true
		}
	}
	if p.Soils[craft.Dust] == 0 {
		p.SandedStep = 0
	}
	water := row.Carrier == craft.Water
	rinsed := p.Acid && water && s.Rinse
	if need := p.dries(row, s, f, rinsed, hours); row.Carrier != craft.Dry {
		// What was still wet is wet again.
		if p.DryAt <= hours || need >= p.WetFor {
			p.WetFor, p.WetWith = need, row.Carrier
		}
		p.DryAt = hours + p.WetFor
	}
	if rinsed {
		p.Acid = false
	}
	if water && p.Bright && p.Bare && p.Top == craft.MetalFerrous && row.ID != craft.RustConverter {
		p.Rusts = true
	}
	switch {
	case s.Rinse && row.Carrier == craft.Water:
		p.Soils[craft.CleanerResidue] = 0
	case row.Rinses > 0:
		p.Soils[craft.CleanerResidue] = max(p.Soils[craft.CleanerResidue], row.Residue)
		p.ResidueStep = uint8(step)
	}
	if row.Key > 0 {
		p.Key = max(p.Key, min(1, row.Key/craft.Families[p.Top].Best))
		p.Scuffed = true
	}
	if row.Loosens {
		p.Loose &^= craft.LooseFlakes | craft.LooseBlisters
	}
}

// finest is the finest grit that leaves bare wood open.
const finest = 240

func (p *Region) abrade(c *craft.Craft, f *Facts, s *Step, step int) {
	for so := range p.Soils {
		if p.Soils[so] > 0 && craft.Soils[so].Sticky {
			p.Driven |= 1 << so
		}
	}
	if p.Top == craft.WaxFilm && p.Product == craft.NoProduct {
		p.Soils[craft.WaxPolish] = max(1, p.Soils[craft.WaxPolish])
		p.Driven |= 1 << craft.WaxPolish
	}
	if s.Through {
		p.bare(c, f)
	}
	if p.Bare && (p.Top == craft.WoodBare || p.Top == craft.WoodOily) {
		p.Closed = s.Grit > finest && s.How != craft.Pad
	}
	gain := craft.KeyGain(s.Grit, s.How)
	key := min(1, gain/craft.Families[p.Top].Best)
	polish := s.Grit >= craft.Polish && s.How != craft.Pad && s.How != craft.Machine
	switch {
	case polish && s.Grit > craft.Polish:
		p.Key = min(p.Key, key)
	case polish:
	default:
		p.Key = max(p.Key, key)
		p.Scuffed = true
	}
	if s.How != craft.Pad {
		p.Grit = uint16(s.Grit)
	}
	if p.Coats > 0 {
		p.RoughStep = 0
	}
	p.Soils[craft.Dust] = max(p.Soils[craft.Dust], 2)
	p.SandedStep = uint8(step)
	if p.Soils[craft.RustLoose] > 0 && s.How != craft.Pad {
		p.Soils[craft.RustLoose]--
	}
	p.Soils[craft.Oxide] -= min(p.Soils[craft.Oxide], 1)
}

// bare cuts the patch down to its substrate: the coats are gone, and so is
// what held the substrate's stains back.
func (p *Region) bare(c *craft.Craft, f *Facts) {
	sub := &c.Substrates[f.Substrate]
	p.Top, p.Product, p.Under, p.Bare = sub.Family, craft.NoProduct, sub.Family, true
	p.Run = 0
	p.Key = craft.Families[sub.Family].Natural
	p.Film, p.Coats, p.Powdery, p.Raised = 0, 0, false, false
	p.Creeps = false
	p.Loose &^= craft.Falls | craft.LooseFoil
	p.RoughStep, p.FilledStep, p.Resist = 0, 0, NoResist
	p.expose(c, f)
	keep := p.Soils[craft.WaxPolish]
	drove := p.driven(craft.WaxPolish)
	p.Soils = [craft.NumSoils]uint8{}
	if drove {
		p.Soils[craft.WaxPolish] = keep
	}
}

// expose exposes what the material contains, as far down as there is any coat.
func (p *Region) expose(c *craft.Craft, f *Facts) {
	sub := &c.Substrates[f.Substrate]
	lv := Levels(c, f)
	for b := range lv {
		row := &craft.Bleeders[b]
		p.Load[b], p.Transmitted[b] = 0, 0
		if lv[b] == 0 || row.OnFilm && !c.Finishes[f.Finish].Bare {
			continue // what was on the film went with it
		}
		n := lv[b]
		if Local(sub, craft.Bleeder(b)) && p.Kind != SpotRegion {
			if craft.Bleeder(b) != craft.Resin || !resinous(sub) {
				continue
			}
			n = 1
		}
		p.Load[b], p.Transmitted[b] = float32(row.DeltaE[n-1]), 1
	}
	p.Diluted, p.Blocked = 0, 0
}

// Exposed is what bleeds where the coats are worn down to the material, in CIEDE2000 units, before
// anything is applied over it again.
func Exposed(c *craft.Craft, f *Facts) [craft.NumBleeders]float64 {
	p := Region{Kind: Worn}
	p.expose(c, f)
	var out [craft.NumBleeders]float64
	for b := range out {
		out[b] = p.Stain(craft.Bleeder(b))
	}
	return out
}

func (st *State) coat(c *craft.Craft, f *Facts, s *Step, e *Event) {
	row := &c.Products[s.Product]
	if st.Auto && e.Done == nil {
		for i := range st.Regions[:st.N] {
			p := &st.Regions[i]
			if !p.takes(s.Scope) || p.Product == craft.NoProduct {
				continue
			}
			st.Hours = max(st.Hours, p.opens(c, f, row))
		}
	}
	start := st.Hours
	e.Begun = start
	m, setUp := f.CoatMinutes(c, s, e.CoatNo)
	e.SetUp = setUp
	st.worked(e.Done, m)
	for i := range st.Regions[:st.N] {
		p := &st.Regions[i]
		if !p.takes(s.Scope) {
			continue
		}
		if row.Coat < craft.NumCoats {
			e.Bounds[e.NBounds] = bond(c, f, p, s, e.Step, e.CoatNo, start)
			e.NBounds++
		}
		p.cover(c, f, s, row, st.Hours, e)
	}
	st.Auto = s.Auto
	if !s.Auto {
		st.Hours += s.WaitH
	}
}

// takes tells whether a coat of the scope goes on the patch.
func (p *Region) takes(sc Scope) bool { return sc == All || p.Kind == SpotRegion }

// cover applies one coat.
func (p *Region) cover(c *craft.Craft, f *Facts, s *Step, row *craft.ProductRow, at float64, e *Event) {
	p.stain(c, f, s, row)
	for _, b := range row.Removes {
		p.Load[b] = 0
	}
	if n := row.Leaves.Level; n > 0 {
		b := row.Leaves.Bleeder
		load := float32(craft.Bleeders[b].DeltaE[n-1])
		if load > p.Load[b]*p.Transmitted[b] {
			p.Load[b], p.Transmitted[b] = load, 1
			p.Diluted &^= 1 << b
			p.Blocked &^= 1 << b
		}
	}
	if p.Product != craft.NoProduct && c.SameKind(p.Product, s.Product) {
		p.Run++
	} else {
		p.Run = 1
	}
	p.Product, p.At, p.Scuffed, p.Leafed, p.Thick = s.Product, at, false, false, 0
	if e.Done != nil {
		p.Thick = e.Done.Thick
	}
	p.Acid = p.Acid || row.Acid && row.Coat == craft.NoCoat
	if row.LeavesFilm() && p.Soils[craft.Silicone] < NeverOut {
		p.Creeps = false // whatever lies on it has shown it by now
	}
	if !row.LeavesFilm() {
		return
	}
	if p.Coats == 0 && p.Bare && !p.Raised && row.WaterBased() && p.Top == craft.WoodBare && c.Substrates[f.Substrate].Group == craft.GroupWood {
		p.RoughStep = uint8(e.Step)
	}
	p.FilledStep, p.Grit, p.Resist = 0, 0, NoResist
	if row.Coat == craft.WX && p.Top != craft.WaxFilm {
		p.Under, p.UnderBare, p.UnderCoats = p.Top, p.Bare, p.Coats
	}
	p.Top = row.Dried
	p.Key = sheenKey(s, row)
	p.Bare, p.Closed, p.Loosened, p.Bright, p.Rusts, p.Acid = false, false, false, false, false, false
	p.Powdery = false // the first coat has counted it
	p.Film += Film(row, s) * e.thick()
	p.Coats++
	// What the coat covers is out of play, and the boundary has counted it.
	// Wax and silicone alone go on through shellac where there is a lot.
	if row.Coat != craft.SH {
		p.Soils, p.Driven = [craft.NumSoils]uint8{}, 0
		return
	}
	for so := range p.Soils {
		if craft.Soils[so].Creeps && p.Soils[so] >= 2 {
			continue
		}
		p.Soils[so] = 0
		p.Driven &^= 1 << so
	}
}

// Film is the dry film in micrometres that one coat of a step leaves: what it is
// thinned by is gone once it is dry.
func Film(row *craft.ProductRow, s *Step) float64 {
	return row.Film * 100 / (100 + max(0, s.ThinPct))
}

// Film is the dry film in micrometres that the event leaves of a product, as thick as it was really laid.
func (e *Event) Film(row *craft.ProductRow) float64 { return Film(row, e.Doing) * e.thick() }

// thick is how many times the usual film was laid.
func (e *Event) thick() float64 {
	if e.Done != nil && e.Done.Thick > 0 {
		return e.Done.Thick
	}
	return 1
}

func sheenKey(s *Step, row *craft.ProductRow) float64 {
	sheen := row.Sheen
	if s.Sheen != craft.NoSheen {
		sheen = s.Sheen
	}
	return filmKey(row.Dried, sheen)
}

// What releases a stain under a first coat. Working defaults.
const (
	wakeWater   = 1.2
	wakeAlcohol = 1.3
)

// stain counts a coat against every bleeder below it.
func (p *Region) stain(c *craft.Craft, f *Facts, s *Step, row *craft.ProductRow) {
	if row.Coat == craft.NoCoat {
		return
	}
	fin := &c.Finishes[f.Finish]
	for b := range p.Load {
		if p.Load[b] == 0 {
			continue
		}
		br := &craft.Bleeders[b]
		if p.Coats == 0 {
			source := p.Bare || br.OnFilm
			switch {
			case br.WaterWakes && source && row.WaterBased():
				p.Load[b] *= wakeWater
			case br.AlcoholWakes && row.Carrier == craft.Alcohol && (source || fin.Dye):
				p.Load[b] *= wakeAlcohol
			}
		}
		bit := uint16(1) << b
		share, dilutes := Transmission(c, s.Product, craft.Bleeder(b), p.Diluted&bit != 0)
		if dilutes {
			p.Diluted |= bit
		} else {
			p.Blocked |= bit
		}
		p.Transmitted[b] *= float32(share)
	}
}
