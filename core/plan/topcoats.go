package plan

import (
	"math"
	"slices"

	"rutile/core/check"
	"rutile/core/colour"
	"rutile/core/craft"
	"rutile/core/parts"
	"rutile/core/surface"
)

// tail is everything from the first paint on: paint, what makes the look, the seal, and reassembly.
// It is weighed once for a zone, and then combined with every base.
type tail struct {
	steps []surface.Step
	// paint is the index of the step whose number of coats depends on the colour below, -1 for
	// none; first tells that the base is directly below.
	paint int
	first bool
	buys  buys // what it needs that the kit has not
	// shines tells that it ends in satin or more, and wets that it begins with a water-based coat.
	shines, wets bool
	lays         int // which of the planner's first coats it begins with
	// least is its points over a base that needs no more coats, and more what each further coat of
	// its paint adds. The risk of the first bond is left out.
	least, more Amounts
	watches     check.RuleSet
	fails       int // rules that fail it by itself, where they are ignored
	// rough are further watches over a ground that nothing levelled.
	rough check.RuleSet
	// twice are its bonds of the product that lies on the ground: where that ground is
	// of the same kind, the first coat has the same bond, and it counts once.
	twice []own
	// shut are the bonds of primers that close the tail, which a ground may have
	// too.
	shut struct {
		products    uint64 // bits of them
		peel, holds float64
	}
	// holds is the chance that its own bonds hold but the first and those that a
	// ground may have too, all with the latter; film is what it adds in micrometres,
	// and moreFilm each further coat of its paint.
	holds, all, film, moreFilm float64
	// lets is what it lets through of each bleeder, or less, and show what the eye
	// sees of that on its colour.
	lets [craft.NumBleeders]float64
	// moreLets is the same of each further coat of its paint.
	moreLets   [craft.NumBleeders]float64
	show, open float64 // open is show for what shows on any colour
	// yellows is how far it would turn white yellow, in CIEDE2000 units; 0 where the
	// ground has its say in that too.
	yellows float64
	// cut tells that its wear exposes what stains: whatever the base blocks, a rule watches the
	// worn edges or the face.
	cut bool
}

// own is a bond of a tail, with what it adds to peeling and the chance that it
// holds.
type own struct {
	bond        surface.Boundary
	peel, holds float64
}

// The fewest and the most coats of a paint for a solid colour. Working defaults.
const leastCoats, mostCoats = 2, 6

// option is one of several runs of steps that do the same thing in a recipe.
type option []surface.Step

// part is a place in a recipe with its options.
type part []option

// recipe is how a look is made from the first paint on: its parts one after
// another, each by one of its options. In part paint the coats follow from the
// colour.
type recipe struct {
	parts []part
	paint int // index of that part, -1 where all coats are given
	// again is the index of a part that is one more coat of that paint, 0 for none.
	again int
	// grounds are the primers that may go below; nil for any.
	grounds []craft.Product
	// see tells that the surface is to stay in sight.
	see bool
}

// Colours that stand under an aged look, dark under pale and pale under dark, and
// the warm ground of leaf. Working defaults.
const (
	underPale, underDark = "#3a3f3d", "#e9e2d2"
	underLeaf            = "#7a3a2a"
)

// under is a colour that shows under the target's.
func (p *planner) under() string {
	if c, ok := colour.Parse(p.zone.Colour); ok && c.Light() < 55 {
		return underDark
	}
	return underPale
}

// lay is a coat step as this way of working applies it.
func (p *planner) lay(x craft.Product, coats int) surface.Step {
	row := &p.craft.Products[x]
	s := surface.Step{Do: surface.Coat, Product: x, Coats: coats, Auto: true, Method: p.method(row)}
	if coats == 1 {
		s.Coats = 0
	}
	if row.Alkali {
		s.WaterRatio = p.way.Water
	}
	if p.way.NextDay {
		p.tomorrow(&s)
	}
	return s
}

// wide is the area in square metres from which a plain face is rolled rather than brushed. Working
// default.
const wide = 1.5

// method is how this way of working applies a product.
func (p *planner) method(row *craft.ProductRow) string {
	if m := p.way.Method; m != "" && row.AppliedBy(m) && (m != "spray" || !row.Sensitises()) {
		return m
	}
	plain := p.ask.Zone.Area >= wide && p.zone.Pace() < craft.Slender
	if row.Methods[0] == "brush" && row.AppliedBy("roller") && plain && p.ask.Kit != nil && p.ask.Kit.Has(Roller) {
		return "roller"
	}
	return row.Methods[0]
}

// uses tells whether this search may use a product at all.
func (p *planner) uses(row *craft.ProductRow) bool {
	metal := p.craft.Substrates[p.zone.Substrate].Family.BareMetal()
	switch {
	case !p.way.uses(row), p.ask.kitOnly && !p.ask.Kit.Keeps(row.ID):
		return false
	case row.Coat == craft.SH && p.keeps(NoShellacOutside) && p.zone.Damp():
		return false
	case row.Coat == craft.OE && p.keeps(HardLast) && !metal && p.zone.Uses&craft.UseOutdoor == 0 && p.zone.Wear != craft.Outdoor:
		return false
	case row.Coat == craft.EP && p.keeps(RightPrimer) && !metal:
		return false
	case row.Aerosol && p.keeps(SmallCans) && !p.ask.makes(row):
		return false
	}
	return true
}

// tomorrow leaves a coat until the next day, if its window allows that and it does not take longer
// anyway.
func (p *planner) tomorrow(s *surface.Step) {
	const day = 24.
	row := &p.craft.Products[s.Product]
	from, to := surface.Recoats(row, p.zone.Climate)
	if row.Again > 0 || to < day || from >= day || row.Coat == craft.CM || row.Tacky.To > 1 {
		return
	}
	s.Auto, s.WaitH = false, day
}

// coats are options that apply one of several products, as far as the way of working uses them.
func (p *planner) coats(n int, of []craft.Product) part {
	var out part
	for _, x := range of {
		if p.uses(&p.craft.Products[x]) {
			out = append(out, option{p.lay(x, n)})
		}
	}
	return out
}

func wait(hours float64) surface.Step { return surface.Step{Do: surface.Wait, Hours: hours} }

var dust = surface.Step{Do: surface.Dust}

// look is the effect that is wanted, nil for a solid face.
func (p *planner) look() *craft.EffectRow {
	if x, ok := p.craft.Effect(p.zone.Look); ok {
		return &p.craft.Effects[x]
	}
	return nil
}

// recipe is how the look that is wanted is made: the parts of its row, each with the options that
// this way has for it.
func (p *planner) recipe() recipe {
	from := craft.Solid
	if x := p.look(); x != nil {
		from = x.RecipeFor(p.way.Crackle)
	}
	out := recipe{paint: -1, see: from.See}
	if from.NoGround {
		out.grounds = []craft.Product{}
	} else if from.Ground != "" {
		for _, x := range p.craft.For(from.Ground) {
			if !from.ClearGround || !p.craft.Products[x].Opaque() {
				out.grounds = append(out.grounds, x)
			}
		}
	}
	for i := range from.Parts {
		q := &from.Parts[i]
		switch q.Kind {
		case craft.LayPaint:
			out.paint = len(out.parts)
		case craft.LayAgain:
			out.again = len(out.parts)
		}
		out.parts = append(out.parts, p.options(q))
	}
	out.parts = append(out.parts, p.back())
	return out
}

// options are what a part of a recipe may be, in this way of working.
func (p *planner) options(q *craft.RecipePart) part {
	switch q.Kind {
	case craft.LayPaint:
		return p.paints(q.For)
	case craft.LayAgain:
		return part{nil}
	case craft.LayResist:
		return p.resists()
	case craft.WorkIt:
		return p.work(q)
	case craft.SealIt:
		if q.For != "" {
			return p.sealedBy(q.For)
		}
		out := p.seals()
		if q.Clears {
			out = slices.DeleteFunc(out, func(o option) bool {
				return !slices.ContainsFunc(o, func(s surface.Step) bool { return p.craft.Products[s.Product].Role == craft.RoleClear })
			})
		}
		return out
	case craft.RestIt:
		return part{{wait(q.Before)}}
	case craft.SmoothIt:
		if p.way.Sand == SandNever {
			return part{nil}
		}
		return part{{{Do: surface.Abrade, Grit: q.Grit, How: craft.Hand}, dust}}
	}
	out := part{}
	if q.Skip || q.Tone == craft.ToneUnder && q.ShowsOld && p.contrasts() {
		out = append(out, nil)
	}
	if q.Deep && !p.way.Deep {
		return out
	}
	counts := q.Coats
	if len(counts) == 0 {
		counts = []int{1}
	}
	for _, n := range counts {
		for _, o := range p.coats(n, p.craft.For(q.For)) {
			s := &o[0]
			s.Colour, s.ThinPct = p.tone(q.Tone), q.ThinPct
			if q.HalfTacky {
				s.Auto, s.WaitH = false, check.HalfTack(p.craft, p.zone.Climate, s.Product)
			}
			out = append(out, o)
		}
	}
	return out
}

// tone is the colour of a part, empty for that of the target.
func (p *planner) tone(t craft.Tone) string {
	switch t {
	case craft.ToneUnder:
		return p.under()
	case craft.ToneDark:
		return underPale
	case craft.ToneLeaf:
		return underLeaf
	}
	return ""
}

// work is the effect itself, with what goes before and after it.
func (p *planner) work(q *craft.RecipePart) part {
	s := surface.Step{Do: surface.Effect, Effect: p.zone.Look, Grit: q.Grit}
	if p.way.Deep && q.DeepGrit > 0 {
		s.Grit = q.DeepGrit
	}
	around := func(s surface.Step) option {
		var o option
		if q.Before > 0 {
			o = append(o, wait(q.Before))
		}
		o = append(o, s)
		if q.Sand > 0 { // it dries before it is sanded
			return append(o, wait(q.After), surface.Step{Do: surface.Abrade, Grit: q.Sand, How: craft.Hand}, dust)
		}
		if q.Dusts {
			o = append(o, dust)
		}
		if q.After > 0 {
			o = append(o, wait(q.After))
		}
		return o
	}
	out := part{around(s)}
	if q.Warm && (!p.ask.kitOnly || p.ask.Kit.Has(HotAir)) {
		s.Heat = true
		out = append(out, around(s))
	}
	return out
}

// resists are what is applied in patches where the paint should come off. Shellac and lacquer are
// painted over half-way through their tack.
func (p *planner) resists() part {
	purpose, out := craft.ForResistWax, part{nil}
	switch p.way.Resist {
	case ResistWax:
		out = nil
	case ResistShellac:
		purpose, out = craft.ForResistShellac, nil
	case ResistLacquer:
		purpose, out = craft.ForResistLacquer, nil
	}
	for _, x := range p.craft.For(purpose) { // patches: no can is too small for those
		row := &p.craft.Products[x]
		if !p.way.uses(row) || row.Coat == craft.SH && p.keeps(NoShellacOutside) && p.zone.Damp() || p.ask.kitOnly && !p.ask.Kit.Keeps(row.ID) {
			continue
		}
		o := option{p.lay(x, 1)}
		s := &o[0]
		s.Scope = surface.Spots
		if purpose != craft.ForResistWax {
			s.Auto, s.WaitH = false, check.HalfTack(p.craft, p.zone.Climate, s.Product)
		}
		out = append(out, o)
	}
	return out
}

// paints are the paints of a solid face that suit the material and the colour; with a purpose,
// those that fill it.
func (p *planner) paints(purpose craft.Purpose) part {
	var out part
	for i := range p.craft.Kinds() {
		x, row := craft.Product(i), &p.craft.Products[i]
		if row.Role != craft.RolePaint || !p.uses(row) || !p.suits(row) || purpose != "" && !p.craft.Fills(x, purpose) {
			continue
		}
		s := p.lay(x, 2)
		if row.Coat == craft.MK && !p.flakes() {
			s.Additive, s.AdditiveFirst = p.way.additive(), p.way.AdditiveFirst
		}
		// Paints with a sheen of their own come in several.
		if row.Coat != craft.MK && row.Coat != craft.CP && row.Colour == "" && !row.OneSheen() {
			s.Sheen = row.SoldIn(p.zone.Sheen)
			if p.zone.Sheen == craft.NoSheen {
				s.Sheen = craft.NoSheen
			}
		}
		out = append(out, option{s})
	}
	return out
}

// suits tells whether a painter would think of a paint for this zone at all.
func (p *planner) suits(row *craft.ProductRow) bool {
	bends := false
	fam := p.craft.Substrates[p.zone.Substrate].Family
	switch fam {
	case craft.VinylSoft, craft.Leather, craft.Textile:
		bends = true
	}
	if row.Colour != "" { // it comes in one colour
		own, _ := colour.Parse(row.Colour)
		want, ok := colour.Parse(p.zone.Colour)
		if !ok || colour.Difference(own, want) > check.Contrasting {
			return false
		}
	}
	switch {
	case p.flakes(): // the look decides
		return true
	case row.Coat == craft.TX:
		return fam == craft.Textile
	case row.Coat == craft.FX:
		return bends
	case len(row.Only) > 0:
		return slices.Contains(row.Only, fam)
	case p.way.Holds == Additive:
		return row.Coat == craft.MK
	case p.way.Holds == StraightOn:
		return row.Coat == craft.CP || row.SelfPrime || bends
	case row.Coat == craft.MK && p.way.Holds == Whichever:
		return true
	}
	return true
}

// seals are what may close the paint, from nothing to three coats.
func (p *planner) seals() part {
	x := p.look()
	clears := 2
	if x != nil {
		clears = max(2, x.ClearCoats)
	}
	wax := p.coats(1, p.craft.For(craft.ForWax))
	if x != nil && x.Flakes() {
		if p.way.FlakeSeal == FlakeMist {
			var out part
			for _, mist := range p.coats(1, p.craft.For(craft.ForScuffAndSeal)) {
				for _, top := range p.clear(2, p.craft.For(craft.ForPlainSeal)) {
					out = append(out, append(append(option{}, mist...), top...))
				}
			}
			return out
		}
		return wax
	}
	var out part
	if p.way.Seal == SealByWear && x == nil { // what is worn, cracked or applied on top is always sealed
		out = append(out, nil)
	}
	if p.way.Seal != SealClear {
		out = append(out, wax...)
	}
	if p.way.Seal == SealWax {
		return out
	}
	shines := craft.NoSheen
	if x != nil {
		if shines = x.Shines; shines > craft.DeadFlat && p.way.Seal == SealByWear {
			out = nil // wax does not shine
		}
	}
	for n := clears; n <= 3; n++ {
		out = append(out, p.clear(n, p.craft.For(craft.ForClear))...)
	}
	for i := range out {
		for k := range out[i] {
			out[i][k].Sheen = max(out[i][k].Sheen, shines)
		}
	}
	return out
}

// sealedBy is the seal of a look that has sealers of its own: a clear coat twice, and anything else
// once.
func (p *planner) sealedBy(purpose craft.Purpose) part {
	var out part
	for _, x := range p.craft.For(purpose) {
		if p.craft.Products[x].Role == craft.RoleClear {
			out = append(out, p.clear(2, []craft.Product{x})...)
		} else {
			out = append(out, p.coats(1, []craft.Product{x})...)
		}
	}
	return out
}

// clear are clear coats in the sheen that is wanted, and where that is flat in
// eggshell as well, which stands more.
func (p *planner) clear(n int, of []craft.Product) part {
	var out part
	for _, o := range p.coats(n, of) {
		row := &p.craft.Products[o[0].Product]
		if row.OneSheen() {
			out = append(out, o)
			continue
		}
		sheen := p.zone.Sheen
		if sheen == craft.NoSheen && row.Sheen > craft.Satin {
			sheen = craft.Satin
		}
		if sheen != craft.NoSheen {
			sheen = row.SoldIn(sheen)
		}
		o[0].Sheen = sheen
		out = append(out, o)
		if sheen != craft.NoSheen && sheen <= craft.Matt && row.Sheen > craft.Matt {
			shines := option{o[0]}
			shines[0].Sheen = craft.Eggshell
			out = append(out, shines)
		}
	}
	return out
}

// back puts back together what was taken off, once the last coat is hard enough
// for that; what the hours are follows from that coat.
func (p *planner) back() part {
	if !p.ask.PutBack {
		return part{nil}
	}
	return part{{wait(0), {Do: surface.Reassemble}}}
}

// rests leaves what an effect was worked on until it may be coated again, and what the effect
// applied until that may.
func (p *planner) rests(t *tail) {
	last := -1 // the coat that lies on top
	for i := 0; i < len(t.steps); i++ {
		s := &t.steps[i]
		if s.Do == surface.Coat {
			last = i
		}
		if s.Do != surface.Effect || last < 0 {
			continue
		}
		x, _ := p.craft.Effect(s.Effect)
		from, _ := surface.Recoats(&p.craft.Products[t.steps[last].Product], p.zone.Climate)
		if lays, ok := p.craft.Product(p.craft.Effects[x].Lays); ok {
			on, _ := surface.Recoats(&p.craft.Products[lays], p.zone.Climate)
			from = max(from, on)
		}
		if p.craft.Effects[x].Ground == craft.GroundTack {
			from = 0 // leaf dries with its size
		}
		at := i + 1
		for at < len(t.steps) && (t.steps[at].Do == surface.Dust || t.steps[at].Do == surface.Wait) {
			if w := &t.steps[at]; w.Do == surface.Wait {
				w.Hours = max(w.Hours, math.Ceil(from))
				from = 0
			}
			at++
		}
		if from > 0 && at < len(t.steps) && t.steps[at].Do == surface.Coat {
			t.steps = slices.Insert(t.steps, at, wait(math.Ceil(from)))
			if t.paint >= at {
				t.paint++
			}
		}
	}
}

// cured fills in how long the last coat hardens before it is put back.
func (p *planner) cured(steps []surface.Step) {
	n := len(steps)
	if !p.ask.PutBack || n < 3 || steps[n-1].Do != surface.Reassemble {
		return
	}
	for i := n - 3; i >= 0; i-- {
		s := &steps[i]
		if s.Do != surface.Coat || p.craft.Products[s.Product].Coat == craft.WX && i > 0 && coated(steps[:i]) { // wax over a coat does not decide
			continue
		}
		h := check.ReassembleAfter(p.craft, &p.zone.Facts, s.Product, p.way.cure())
		const day = 24.
		steps[n-2].Hours = max(1, math.Ceil(h/day)) * day
		return
	}
}

// coated tells whether some steps lay a coat.
func coated(steps []surface.Step) bool {
	return slices.ContainsFunc(steps, func(s surface.Step) bool { return s.Do == surface.Coat })
}

// tails lists every ending for the zone that no base could spoil or rescue.
func (p *planner) tails() []tail {
	r := p.recipe()
	p.grounds, p.see = r.grounds, r.see
	for _, x := range r.parts {
		if len(x) == 0 {
			return nil
		}
	}
	if len(r.parts) == 0 || p.noGun() {
		return nil
	}
	var out []tail
	at := make([]int, len(r.parts))
	for {
		t := tail{paint: -1}
		for i, o := range at {
			if i == r.paint && len(r.parts[i][o]) > 0 {
				t.paint = len(t.steps)
			}
			t.steps = append(t.steps, r.parts[i][o]...)
			if i > 0 && i == r.again {
				over := t.steps[t.paint]
				over.Coats = 0
				t.steps = append(t.steps, over)
			}
		}
		t.first = t.paint == 0
		p.rests(&t)
		p.cured(t.steps)
		if p.like(t.steps) && (!p.keeps(HardLast) || endsRight(p.craft, &p.zone, t.steps)) && p.weigh(&t) {
			out = append(out, t)
		}
		i := len(at) - 1
		for i >= 0 {
			if at[i]++; at[i] < len(r.parts[i]) {
				break
			}
			at[i] = 0
			i--
		}
		if i < 0 {
			return out
		}
	}
}

// noGun tells that this way of working sprays and the kit has no gun.
func (p *planner) noGun() bool { return p.way.Method == "spray" && !p.ask.Kit.Has(Gun) }

// soundly puts before a tail that is judged alone what makes a ground sound:
// what it may do for the tail is taken as done.
func (p *planner) soundly(steps []surface.Step) []surface.Step {
	level := surface.Step{Do: surface.Fill, With: craft.FillerFine}
	if p.zone.Uneven && p.ask.Fill == "" {
		level = wait(0)
	}
	return append(append(p.buf[:0], surface.Step{Do: surface.RaiseGrain}, dust, level), steps...)
}

// soundSteps are the steps that make a sound face before an ending, the last of them what levels.
const soundSteps = 3

// weigh judges an ending by itself and tells whether it is possible.
func (p *planner) weigh(t *tail) bool {
	at := -1
	for i := range t.steps {
		if t.steps[i].Do == surface.Coat {
			at = i
			break
		}
	}
	if at < 0 {
		return false
	}
	if t.paint > 0 { // what it lies on is another coat of the tail
		grounds := p.shown // it lies in patches, and the face shows beside it
		if slices.ContainsFunc(t.steps[:t.paint], func(s surface.Step) bool { return s.Do == surface.Coat && s.Scope == surface.All }) {
			p.sound.SoFar(t.steps[:t.paint])
			grounds = []colour.RGB{p.sound.Shows(0)}
		}
		need := leastCoats
		for _, g := range grounds {
			need = max(need, p.sound.CoatsFor(g, &t.steps[t.paint]))
		}
		t.steps[t.paint].Coats = min(need, mostCoats)
	}
	p.buf = p.soundly(t.steps)
	first := at + soundSteps + 1 // the step that lies on the ground, from 1
	j := p.sound.Tail(p.buf, first)
	if j.Fails.Len() > 0 && !p.lenient {
		return false
	}
	t.watches, t.fails = j.Watches, j.Fails.Len()
	if !p.see {
		t.yellows = p.sound.Yellows()
		const surely = 1.15 // over another ground its colour may be a little darker
		switch check.YellowVerdict(t.yellows * check.Show(p.sound.Light(t.steps)) / surely) {
		case check.Fails:
			if !p.lenient {
				return false
			}
			t.fails++
		case check.Watched:
			p.foresee(check.ForeseenYellow, &t.watches)
		}
	}
	t.buys = p.needs(t.steps)
	t.shines = shines(p.craft, t.steps)
	t.wets = p.craft.Products[t.steps[at].Product].WaterBased()
	t.film = p.sound.Trace(0).End.Regions[surface.Field].Film
	f := &p.zone.Facts
	// Work and time of what stands before it are taken off again.
	level := p.sound.Trace(0).Events[soundSteps-1].After
	t.least[HandsOn] = (j.Minutes - level.Minutes) / 60
	t.least[Elapsed] = p.sound.Trace(0).End.Hours - level.Hours
	for i := range t.steps {
		a := static(p.craft, f, &t.steps[i])
		t.least = t.least.plus(&a)
	}
	t.least[Renewal] = j.Durability
	t.least[Elapsed] -= idle(t.steps)
	t.least[Unlike] = p.unlike(t.steps)
	t.holds, t.all, t.shut.holds = 1, 1, 1
	bonds := p.sound.Bonds(0)
	for i := range bonds {
		b := &bonds[i].Boundary
		row := &p.craft.Products[b.Product]
		if b.Step == first && b.CoatNo == 1 {
			continue // that lies on the ground
		}
		t.all *= 1 - bonds[i].Risk
		if row.Role == craft.RolePrimer {
			t.shut.products |= bit(b.Product)
			t.shut.peel += p.sound.Peel(0, b)
			t.shut.holds *= 1 - bonds[i].Risk
			continue
		}
		o := own{*b, p.sound.Peel(0, b), 1 - bonds[i].Risk}
		if b.Product == t.steps[at].Product {
			t.twice = append(t.twice, o)
		}
		t.least[Peel] += o.peel
		t.holds *= o.holds
	}
	held := check.RiskVerdict(1 - t.all)
	if held != check.Sound {
		p.foresee(check.ForeseenPeel, &t.watches)
	}
	if !p.lenient && (held == check.Fails || p.zone.GapMM > 0 && parts.FitOf(p.zone.GapMM, t.film).Sticks) {
		return false
	}
	if slices.ContainsFunc(t.steps, func(s surface.Step) bool {
		return s.Do == surface.Coat && p.craft.Products[s.Product].Opaque()
	}) {
		t.show, t.open = check.Show(p.sound.Light(t.steps)), 1
	}
	t.cut = t.show > 0 && p.cutsBack(t)
	for b := range t.lets {
		t.lets[b], t.moreLets[b] = surface.LeastTransmission(p.craft, t.steps, craft.Bleeder(b)), 1
		if t.paint >= 0 {
			t.moreLets[b], _ = surface.Transmission(p.craft, t.steps[t.paint].Product, craft.Bleeder(b), true)
		}
	}
	if t.paint >= 0 {
		s := t.steps[t.paint]
		one, two := s, s
		one.Coats, two.Coats = 1, 2
		a, b := static(p.craft, f, &one), static(p.craft, f, &two)
		for i := range a {
			t.more[i] = b[i] - a[i]
		}
		minutes, _ := f.CoatMinutes(p.craft, &s, 2)
		hours := minutes / 60
		t.more[HandsOn] = hours
		t.more[Elapsed] = hours + surface.CoatWait(p.craft, f, &s)
		t.moreFilm = surface.Film(&p.craft.Products[s.Product], &s)
	}
	t.lays = p.firstCoat(&t.steps[at])
	if p.pores {
		p.buf[soundSteps-1] = wait(0)
		j := p.sound.Tail(p.buf, first)
		t.rough = j.Watches
	}
	return true
}

// bit marks a product in a set. Two may share one.
func bit(x craft.Product) uint64 { return 1 << (x % 64) }

// cutsBack tells whether what an ending wears down to stains through all that it applies over that.
func (p *planner) cutsBack(t *tail) bool {
	over := -1 // the first step over the worn edges
	for i := range t.steps {
		s := &t.steps[i]
		if x, ok := p.craft.Effect(s.Effect); ok && s.Do == surface.Effect && surface.Exposes(&p.craft.Effects[x], s) {
			over = i + 1
		}
	}
	if over < 0 {
		return false
	}
	const surely = 1.001 // loads are kept in single precision
	for _, m := range p.evaluator.Candidates() {
		for b, x := range surface.Exposed(p.craft, &m.Facts) {
			if x > 0 && x*surface.LeastTransmission(p.craft, t.steps[over:], craft.Bleeder(b))*t.show >= check.AtWorn*surely {
				return true
			}
		}
	}
	return false
}

// firstCoat numbers the distinct coats that tails begin with.
func (p *planner) firstCoat(s *surface.Step) int {
	for i := range p.firsts {
		if p.firsts[i] == *s {
			return i
		}
	}
	p.firsts = append(p.firsts, *s)
	return len(p.firsts) - 1
}
