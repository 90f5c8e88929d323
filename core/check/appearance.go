package check

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"rutile/core/colour"
	"rutile/core/craft"
	"rutile/core/drying"
	"rutile/core/effect"
	"rutile/core/measure"
	"rutile/core/surface"
)

// Appearance is what the coats of the field look like, from the ground up.
type Appearance struct {
	Ground colour.RGB
	// Paints are the coats that hide, in their order.
	Paints []Painted
	// Final is the colour the paint ends in, before it is sealed, and Want the one
	// that its last paint is meant to have.
	Final, Want colour.RGB
	// Planned and Needed coats of that paint, and how far from Want the planned
	// ones leave it, in CIEDE2000 units; Planned is 0 where no colour is meant.
	Planned, Needed int
	Off             float64
	// Yellows is how far what lies over the paint, or the paint itself, turns it
	// yellow within a year, in CIEDE2000 units; and By what.
	Yellows float64
	By      craft.Product
}

// Painted is one coat that hides.
type Painted struct {
	Step    int // from 1
	Product craft.Product
	Colour  colour.RGB
	// Looks is what the finished face looks like.
	Looks colour.RGB
}

// NearEnough is the difference from the target at which a paint counts as having
// reached it, in CIEDE2000 units. Working default.
const NearEnough = 1.5

// mostCoats is where counting coats is given up: no paint is wanted so thick.
const mostCoats = 12

// Contrasting is the difference from which two colours are told apart in chips
// and worn edges. Working default.
const Contrasting = 10.

// power is a solved scattering power, cached because plans use the same paint again and again.
type power struct {
	c  colour.RGB
	cr float64
	p  float64
}

func (k *Case) power(c colour.RGB, cr float64) float64 {
	for i := range k.powers {
		if k.powers[i].c == c && k.powers[i].cr == cr {
			return k.powers[i].p
		}
	}
	p := colour.Power(c, colour.Contrast(c, cr))
	const keep = 16
	if len(k.powers) == keep {
		k.powers = k.powers[:0]
	}
	if k.powers == nil {
		k.powers = make([]power, 0, keep)
	}
	k.powers = append(k.powers, power{c, cr, p})
	return p
}

// usual is what an opaque product without a colour of its own looks like.
var usual, _ = colour.Parse("#f3f1ea")

// ColourOf is the colour that a coat of a product has: its own, the target's for paints, the
// product's usual one for others; false where none was given, and for products without colour.
func (z *Zone) ColourOf(p *craft.ProductRow, own string) (colour.RGB, bool) {
	if c, ok := colour.Parse(own); ok {
		return c, true
	}
	if c, ok := colour.Parse(p.Colour); ok {
		return c, true
	}
	if c, ok := colour.Parse(z.Colour); ok && p.Role == craft.RolePaint {
		return c, true
	}
	return usual, p.Opaque() && p.Role != craft.RolePaint
}

// above is the share of its water or thinner beyond which a coat hides less.
const above = 20.

// needed is how many coats hide a ground, and off how far a colour is from the wanted one. Repairs mostly
// leave both as they were, so that they are remembered.
func (k *Case) needed(ground, want colour.RGB, power float64) int {
	for i := range k.covers {
		if x := &k.covers[i]; x.power == power && x.want == want && x.ground == ground {
			return x.n
		}
	}
	n, _ := colour.Needed(ground, want, power, NearEnough, mostCoats)
	k.covers = remember(k.covers, cover{ground, want, power, n, 0})
	return n
}

func (k *Case) off(at, want colour.RGB) float64 {
	for i := range k.covers {
		if x := &k.covers[i]; x.power == 0 && x.want == want && x.ground == at {
			return x.off
		}
	}
	off := colour.Difference(at, want)
	k.covers = remember(k.covers, cover{at, want, 0, 0, off})
	return off
}

// cover is a remembered answer of needed, or of off where it has no power.
type cover struct {
	ground, want colour.RGB
	power        float64
	n            int
	off          float64
}

func remember(all []cover, x cover) []cover {
	const keep = 8
	switch len(all) {
	case 0:
		all = make([]cover, 0, keep)
	case keep:
		all = all[:0]
	}
	return append(all, x)
}

// scatters is the scattering power of one coat of a step, in the colour it has,
// where it is thinnest.
func (k *Case) scatters(p *craft.ProductRow, want colour.RGB, s *surface.Step) float64 {
	power := k.power(want, p.Hiding)
	if s.Method != "spray" && s.Method != "aerosol" {
		power *= colour.ThinSpots
	}
	if s.ThinPct > above {
		power *= 100 / (100 + s.ThinPct)
	}
	return power
}

// leastHiding is the hiding power from which on a coat changes the colour.
const leastHiding = .05

// paint works out the appearance of the field's coats. Only what should be a solid colour is
// compared with one.
func (k *Case) paint() {
	c, z, s := k.Craft, k.Zone, &k.Appearance
	paints := s.Paints[:0]
	*s = Appearance{Ground: k.ground(), By: craft.NoProduct}
	at := s.Ground
	run := -1 // index in paints where the last colour begins
	yellow := 0.
	for i := range k.Trace.Events {
		e := &k.Trace.Events[i]
		if e.After.Regions[surface.Field].Coats == 0 && len(paints) > 0 { // all of it is gone again
			paints, at, run, yellow = paints[:0], s.Ground, -1, 0
			s.Planned, s.Needed, s.By = 0, 0, craft.NoProduct
		}
		if e.Doing.Do != surface.Coat || e.Doing.Scope != surface.All {
			continue
		}
		p := &c.Products[e.Doing.Product]
		if p.Yellowing > 0 {
			more := p.Yellowing
			switch {
			case p.Opaque():
				yellow = 0 // it yellows by itself, however many coats there are
			case s.By != craft.NoProduct && k.Craft.SameKind(s.By, e.Doing.Product):
				more *= .35 // every further coat of it adds less
			}
			yellow += more
			s.By = e.Doing.Product
		}
		if p.Hiding < leastHiding {
			continue
		}
		want, ok := z.ColourOf(p, e.Doing.Colour)
		power := k.scatters(p, want, e.Doing)
		before := at
		at = colour.Over(at, want, power)
		if !p.Opaque() {
			continue
		}
		same := run >= 0 && paints[len(paints)-1].Product == e.Doing.Product && paints[len(paints)-1].Colour == want
		paints = append(paints, Painted{e.Step, e.Doing.Product, want, at})
		if p.Yellowing == 0 {
			yellow, s.By = 0, craft.NoProduct
		}
		if p.Role != craft.RolePaint {
			continue
		}
		if !same {
			run = len(paints) - 1
			s.Planned = 0
			s.Needed, s.Off = 0, 0
			if ok && k.solid(e) {
				s.Needed = k.needed(before, want, power)
			}
			s.Want = colour.Masstone(want)
		}
		if s.Needed > 0 {
			s.Planned++
		}
	}
	s.Paints, s.Final = paints, at
	if s.Planned > 0 {
		s.Off = k.off(at, s.Want)
	}
	if yellow > 0 && len(paints) > 0 {
		s.Yellows = yellow * Show(at.Light())
	}
}

// solid tells whether the paint that an event begins should hide what is below. What cracks, flakes
// or is a wash should not.
func (k *Case) solid(e *surface.Event) bool {
	if k.Look != nil && (k.Look.Veil || k.Chippy) {
		return false
	}
	if k.Craft.Products[e.Doing.Product].Coat == craft.TX {
		return false // a dye lies in the cloth and not over it
	}
	for i := range e.Boundaries() {
		if b := &e.Bounds[i]; b.Region == surface.Field && k.crackles(b) {
			return false
		}
	}
	return true
}

// ground is the colour of the zone as it is.
func (k *Case) ground() colour.RGB {
	if c, ok := colour.Parse(k.Zone.Ground); ok {
		return c
	}
	return colour.Ground(&k.Craft.Substrates[k.Facts.Substrate], &k.Craft.Finishes[k.Facts.Finish])
}

// Below lists the colours that wear exposes under the last paint, the nearest first: the other
// paints and primers, and the base.
func (s *Appearance) Below() []colour.RGB {
	var out []colour.RGB
	n := len(s.Paints)
	for i := n - 1; i >= 0; i-- {
		if p := &s.Paints[i]; p.Colour != s.Paints[n-1].Colour && (len(out) == 0 || out[len(out)-1] != p.Looks) {
			out = append(out, p.Looks)
		}
	}
	return append(out, s.Ground)
}

// Chips is how much of a powder paint is expected to come off.
type Chips struct {
	effect.Share
	// Bound is where it parts, nil where there is no powder paint.
	Bound *surface.Boundary
	effect.Chipping
}

// ChipsShown is the high case from which chips are mentioned where none are wanted.
const ChipsShown = .05

// chip works out the chips of the plan's powder paint at the weakest of its boundaries that no
// medium is meant to crack.
func (k *Case) chip() {
	k.Chips = Chips{}
	var weak *surface.Boundary
	coats := 0
	x := &k.Chips.Chipping
	for i := range k.Trace.Events {
		e := &k.Trace.Events[i]
		if s := e.Doing; e.Effect != nil && e.Effect.Flakes() {
			x.Heated = x.Heated || s.Heat
			x.Wetted = x.Wetted || s.Wetted
			x.Resist = x.Resist || s.Resist != ""
		}
		for j := range e.Boundaries() {
			b := &e.Bounds[j]
			x.Resist = x.Resist || k.resisted(b) && k.keepsOff(b) || k.Chippy && b.Region == surface.Field && b.On != craft.WaxFilm && k.keepsOff(b)
			if b.Region != surface.Field || k.Craft.Products[b.Product].Coat != craft.MK || e.Doing.Do != surface.Coat {
				continue
			}
			coats++
			if k.crackles(b) {
				continue
			}
			// It comes off below the paint, and between its own coats only where nothing is weaker.
			if weak == nil || b.Strength < weak.Strength && (b.Under != b.Product || weak.Under == weak.Product) || weak.Under == weak.Product && b.Under != b.Product {
				weak = b
			}
		}
	}
	if weak == nil {
		return
	}
	x.Strength, x.Coats = weak.Strength, coats
	k.Chips.Bound, k.Chips.Share = weak, x.Share()
}

// keepsOff tells whether what powder paint lies on in the spots makes it come off: wax, or shellac
// or lacquer while it is tacky.
func (k *Case) keepsOff(b *surface.Boundary) bool {
	if b.Under == craft.NoProduct || k.Craft.Products[b.Product].Coat != craft.MK {
		return false
	}
	switch k.Craft.Products[b.Under].Coat {
	case craft.WX:
		return true
	case craft.SH:
		return b.Waited <= tackTo(k.Craft, k.airSince(b.Step, b.Waited), surface.ResistShellac)
	case craft.AE:
		return b.Waited <= tackTo(k.Craft, k.airSince(b.Step, b.Waited), surface.ResistLacquer)
	}
	return false
}

// finer is how much narrower powder paint cracks over tacky shellac or lacquer than
// over a medium. Working default.
const finer = .5

// crack is how wide the coat over a crackle medium or a tacky coat will crack, in
// millimetres; 0 where nothing cracks.
func (k *Case) crack() float64 {
	for i := range k.Trace.Events {
		for _, b := range k.Trace.Events[i].Boundaries() {
			if b.Under != craft.NoProduct && k.Craft.Fills(b.Under, craft.ForCrackMedium) && !k.Craft.Fills(b.Product, craft.ForCrackMedium) && b.Timing == surface.Inside {
				return crackWidth(&k.Craft.Products[b.Product])
			}
			if !k.onMedium(&b) && k.crackles(&b) {
				return finer * crackWidth(&k.Craft.Products[b.Product])
			}
		}
	}
	return 0
}

// CrackSays is how a coat cracks over a medium, as sentences.
func CrackSays(u measure.Units) string {
	const wet = 100. // µm
	wide := measure.Number(effect.CrackWidth(wet)) + " mm"
	if u == measure.US {
		const umPerInch = 25400.
		wide = fmt.Sprintf("%.2f in", effect.CrackWidth(wet)*1000/umPerInch)
	}
	return fmt.Sprintf("The thicker the wet coat over the medium, the wider the cracks: about %s for %s. The cracks follow the last stroke, and a second stroke closes them.", wide, u.Film(wet))
}

// ChipFigures are the numbers behind the chips.
func (r *Result) ChipFigures() []Figure { return chipFigures(&Case{Chips: r.Chips}) }

// HidingFigures are the numbers behind the hiding of the last paint.
func (r *Result) HidingFigures() []Figure {
	s := &r.Appearance
	return []Figure{
		{"planned", float64(s.Planned), "planned coats of the last paint"},
		{"needed", float64(s.Needed), "coats needed to come within 1.5 CIEDE2000 units of the colour"},
		{"off", s.Off, "CIEDE2000 units from its colour after the planned coats, where they are thinnest; an estimate"},
		{"ground", s.Ground.Light(), "L* of the surface below, where 100 is white"},
		{"meant", s.Want.Light(), "L* of the wanted colour"},
	}
}

// Sealed is what the paint looks like under its seal: a matt one deepens, more under a shinier
// seal; a shiny one stays as it is.
func (r *Result) Sealed(c *craft.Craft) colour.RGB {
	for i := len(r.Trace.Events) - 1; i >= 0; i-- {
		s := r.Trace.Events[i].Doing
		if s.Do != surface.Coat || s.Scope != surface.All {
			continue
		}
		over, n := &c.Products[s.Product], len(r.Appearance.Paints)
		if over.Role != craft.RoleClear && over.Role != craft.RoleWax || n == 0 || c.Products[r.Appearance.Paints[n-1].Product].Sheen > craft.Matt {
			break
		}
		sheen := over.Sheen
		if s.Sheen != craft.NoSheen {
			sheen = s.Sheen
		}
		return colour.Sealed(r.Appearance.Final, float64(sheen-craft.DeadFlat)/float64(craft.Gloss-craft.DeadFlat))
	}
	return r.Appearance.Final
}

// Range words a range of shares.
func Range(from, to float64) string {
	lo, hi := Percent(from), Percent(to)
	if lo == hi {
		return lo
	}
	if strings.HasSuffix(lo, " %") && strings.HasSuffix(hi, " %") && from >= RiskShown && to <= 1-RiskShown {
		return strings.TrimSuffix(lo, " %") + " to " + hi
	}
	return lo + " to " + hi
}

// Cured is when a finished zone may be used, in days after its last coat.
type Cured struct {
	// Careful handling, with hardware back on; everyday use; and hard use.
	Careful, Normal, Hard float64
}

// Says is when it may be used, as a sentence.
func (c Cured) Says() string {
	after := func(days float64) string {
		if days < .5 {
			return "at once"
		}
		return "after " + measure.Count(int(math.Ceil(days)), "day", "days")
	}
	return fmt.Sprintf("After the last step, at this temperature: hardware back and careful handling %s, everyday use %s, hard use, heat and water %s.", after(c.Careful), after(c.Normal), after(c.Hard))
}

// The share of full hardness that each use needs. Working defaults.
const (
	cureCareful, cureNormal, cureHard = .3, .6, .9
)

// CareShare is the share of full hardness from which hardware may go back.
const CareShare = cureCareful

// curedIn works out when the last coats of a walk will have hardened.
func curedIn(c *craft.Craft, f *surface.Facts, t *surface.Trace) (Cured, bool) {
	p := &t.End.Regions[surface.Field]
	if p.Coats == 0 || p.Product == craft.NoProduct {
		return Cured{}, false
	}
	slowest, at := 0., p.At
	seen := 0
	for i := len(t.Events) - 1; i >= 0 && seen < 3; i-- { // what lies below by now has hardened
		if e := &t.Events[i]; e.Doing.Do == surface.Coat && e.Doing.Scope == surface.All {
			slowest = max(slowest, c.Products[e.Doing.Product].Cure)
			seen++
		}
	}
	after := func(share float64) float64 {
		return max(0, at/24+drying.CureDays(share, slowest, f.Climate)-t.End.Hours/24)
	}
	return Cured{after(cureCareful), after(cureNormal), after(cureHard)}, true
}

// hoursToCure is after how many hours the top coat of a patch has hardened to a
// share.
func hoursToCure(c *craft.Craft, f *surface.Facts, p *surface.Region, share float64) float64 {
	return 24 * drying.CureDays(share, c.Products[p.Product].Cure, f.Climate)
}

// stepOf is the last step, from 1, that applies a product; 0 where none does.
func (k *Case) stepOf(p craft.Product) int {
	for i := len(k.Zone.Steps) - 1; i >= 0; i-- {
		if s := &k.Zone.Steps[i]; s.Do == surface.Coat && k.Craft.SameKind(s.Product, p) {
			return i + 1
		}
	}
	return 0
}

// lays tells whether the plan applies a product for a purpose.
func (k *Case) lays(p craft.Purpose) bool {
	return slices.ContainsFunc(k.Craft.For(p), func(x craft.Product) bool { return k.stepOf(x) > 0 })
}

// lastStep is the last coat over the whole zone, from 1; 0 where there is none.
func (k *Case) lastStep() int {
	for i := len(k.Zone.Steps) - 1; i >= 0; i-- {
		if s := &k.Zone.Steps[i]; s.Do == surface.Coat && s.Scope == surface.All && k.Craft.Products[s.Product].LeavesFilm() {
			return i + 1
		}
	}
	return 0
}

// before are the events of the walk before one of them.
func (k *Case) before(e *surface.Event) []surface.Event {
	for i := range k.Trace.Events {
		if &k.Trace.Events[i] == e {
			return k.Trace.Events[:i]
		}
	}
	return nil
}

// laid is how many coats of a family were applied before an event.
func (k *Case) laid(e *surface.Event, c craft.Coat) int {
	n := 0
	below := k.before(e)
	for i := range below {
		if s := below[i].Doing; s.Do == surface.Coat && k.Craft.Products[s.Product].Coat == c {
			n++
		}
	}
	return n
}

// run is the film in micrometres that a product has built in one go below an event.
func (k *Case) run(e *surface.Event, p craft.Product) float64 {
	sum := 0.
	below := k.before(e)
	for i := range below {
		o := &below[i]
		if o.Doing.Do != surface.Coat {
			continue
		}
		if o.Doing.Product == p {
			sum += o.Film(&k.Craft.Products[p])
		} else if k.Craft.Products[o.Doing.Product].LeavesFilm() {
			sum = 0
		}
	}
	return sum
}

// durability is the durability of the plan's last coats, and the product on top; false where the plan is
// not finished or ends in something porous, which other rules cover.
func (k *Case) durability() (int, craft.Product, bool) {
	end := &k.Trace.End.Regions[surface.Field]
	if end.Coats == 0 || end.Product == craft.NoProduct || end.Top == craft.PorousPaint {
		return 0, craft.NoProduct, false
	}
	best, by, finished := -1, craft.NoProduct, false
	coats := 0
	for i := len(k.Trace.Events) - 1; i >= 0; i-- {
		e := &k.Trace.Events[i]
		if e.Doing.Do != surface.Coat || e.Doing.Scope != surface.All {
			continue
		}
		p := &k.Craft.Products[e.Doing.Product]
		if !p.LeavesFilm() {
			continue
		}
		coats++
		g := p.Durability
		if p.Role == craft.RoleClear {
			sheen := p.Sheen
			if e.Doing.Sheen != craft.NoSheen {
				sheen = e.Doing.Sheen
			}
			if sheen <= craft.Matt && p.Sheen > craft.Matt {
				g-- // flat clears are softer
			}
			if e.Doing.NumCoats() < 2 && g > 1 {
				g--
			}
		}
		finished = finished || p.Role == craft.RoleClear || p.Role == craft.RolePaint || p.Role == craft.RoleWax
		if by == craft.NoProduct {
			by = e.Doing.Product
		}
		best = max(best, g)
		if p.Role == craft.RolePaint {
			break
		}
	}
	return best, by, finished && coats > 0
}

// tooSoft tells whether the last coats are less durable than needed.
func (k *Case) tooSoft() bool {
	g, _, ok := k.durability()
	return ok && g < craft.DurabilityNeeded[k.Facts.Wear]
}

// finalSheen is the sheen a plan ends in; NoSheen where it has no coat.
func (k *Case) finalSheen() craft.Sheen {
	for i := len(k.Trace.Events) - 1; i >= 0; i-- {
		e := &k.Trace.Events[i]
		if e.Doing.Do != surface.Coat || e.Doing.Scope != surface.All {
			continue
		}
		p := &k.Craft.Products[e.Doing.Product]
		if !p.LeavesFilm() {
			continue
		}
		if e.Doing.Sheen != craft.NoSheen {
			return e.Doing.Sheen
		}
		return p.Sheen
	}
	return craft.NoSheen
}
