package plan

import (
	"cmp"
	"slices"

	"rutile/core/check"
	"rutile/core/colour"
	"rutile/core/craft"
	"rutile/core/surface"
)

// Habit is something that good painters do without asking whether this piece needs it.
type Habit uint8

// The habits.
const (
	WashFirst Habit = iota
	ScuffFilms
	SandBare
	Denib
	SpiritWipe
	BlockTwice
	HardLast
	SmallCans
	NoShellacOutside
	FillByMaterial
	SealKnots
	RightPrimer
	NumHabits
)

// HabitRow describes a habit.
type HabitRow struct {
	ID, Name string
	Says     string // the reason, as a sentence
	Risk     string // what may happen without it, as a sentence
}

// Habits is indexed by Habit. Working defaults of the trade.
var Habits = [NumHabits]HabitRow{
	WashFirst:        {"wash", "Wash every used piece", "Grease from hands stays on what looks clean, and paint shows it weeks later.", "Not washed: grease that nobody saw may keep the first coat from holding."},
	ScuffFilms:       {"scuff", "Scuff every hard film before paint", "A light sanding gives any coat something to hold on to; wet where there may be lead.", "Not scuffed: knocks and fingernails take the paint off sooner."},
	SandBare:         {"sand_bare", "Sand bare wood that is not prepared", "Planer marks and raised fibres show through any paint.", "Bare wood not sanded: fibres and planer marks may show."},
	Denib:            {"denib", "Sand down the first coat under a shine", "The first coat raises grain and board fibres; satin shows every one of them.", "First coat not sanded down: it feels rough and shows under a shine."},
	SpiritWipe:       {"spirit_wipe", "Wipe glass, metal and oily wood with spirit just before the first coat", "Fingers leave grease again within the hour, and oily wood sweats.", "Not wiped with spirit: fresh fingerprints or oil may lift the first coat."},
	BlockTwice:       {"block_twice", "Two blocking coats under a pale colour", "Marked tannin, dye or smoke works through the thin places of a single coat.", "Blocked once: stains may come through where that coat is thin."},
	HardLast:         {"hard_last", "A last coat made for the use", "Wall paint marks where hands go; a table top wants a clear made for it; oil enamel belongs outdoors and on metal.", "The last coat is not one made for this use: it may mark or wear through sooner."},
	SmallCans:        {"small_cans", "Spray cans for small things only", "Above half a square metre, or one and a half of slender parts, cans get streaky and dear.", "Cans on a large face: streaks, mist and many cans."},
	NoShellacOutside: {"no_shellac_outside", "No shellac outdoors or in the damp", "Damp turns it white and frost cracks it.", "Shellac in the damp: it may turn white and peel."},
	FillByMaterial:   {"fill_by_material", "Two-part filler on metal", "Fine filler shrinks and falls out on what does not absorb.", "Fine filler on metal: it may fall out."},
	RightPrimer:      {"right_primer", "A primer made for the material", "Steel, zinc, glass and slick plastic each have a primer made for them; epoxy is for metal.", "No primer made for this material: it holds less surely, and steel may rust."},
	SealKnots:        {"seal_knots", "Seal knots alone where the rest does not bleed", "Two coats on the knots, feathered, spare the whole face a primer.", "Knots not sealed on their own."},
}

// HabitNamed returns the habit with an id; false if there is none.
func HabitNamed(id string) (Habit, bool) {
	i := slices.IndexFunc(Habits[:], func(r HabitRow) bool { return r.ID == id })
	return Habit(max(0, i)), i >= 0
}

// HabitSet is a set of habits.
type HabitSet uint16

// AllHabits is every habit there is.
const AllHabits = HabitSet(1<<NumHabits - 1)

// Has tells whether a habit is in the set.
func (s HabitSet) Has(h Habit) bool { return s&(1<<h) != 0 }

// Add is the set with a habit more.
func (s HabitSet) Add(h Habit) HabitSet { return s | 1<<h }

// drops are the habits that a way of working turns off by what it is.
func (w *Way) drops() HabitSet {
	out := w.HabitsOff
	if w.Sand == SandNever {
		out = out.Add(ScuffFilms).Add(SandBare).Add(Denib)
	}
	if w.NoSmell {
		out = out.Add(SpiritWipe)
	}
	if w.Holds == Additive || w.Holds == StraightOn {
		out = out.Add(BlockTwice).Add(SealKnots).Add(Denib).Add(RightPrimer)
	}
	if w.Seal == SealWax || len(w.Paints) > 0 {
		out = out.Add(HardLast)
	}
	if w.Knots != KnotsEither {
		out = out.Add(SealKnots)
	}
	return out
}

// keeps tells whether a habit is kept in this search.
func (p *planner) keeps(h Habit) bool { return p.habits.Has(h) }

// pale is L* from which a colour shows a stain that a darker one hides. Working default.
const pale = 70

// twice is the bleeder against which the habit asks for two blocking coats; false for none.
func twice(c *craft.Craft, z *check.Zone) (craft.Bleeder, bool) {
	if check.Lightness(z.Colour) < pale {
		return 0, false
	}
	if fin := &c.Finishes[z.Finish]; fin.Colour != "" && !fin.Unknown && !z.GivenBleeders && z.Soils[craft.NicotineSoil] < 2 {
		return 0, false // old paint on which nothing was found to show
	}
	lv := surface.Levels(c, &z.Facts)
	lv[craft.Nicotine] = max(lv[craft.Nicotine], z.Soils[craft.NicotineSoil])
	for _, b := range []craft.Bleeder{craft.Dye, craft.Tannin, craft.Nicotine} {
		if lv[b] >= 2 && !surface.Local(&c.Substrates[z.Substrate], b) {
			return b, true
		}
	}
	return 0, false
}

// strong is the share of a stain that a blocking coat lets through at the most. Working default.
const strong = .4

// blocksIt tells whether a product is a blocking coat against a stain.
func blocksIt(c *craft.Craft, x craft.Product, b craft.Bleeder) bool {
	return c.Products[x].Block.Blocks() && c.LetsThrough(x, b) <= strong
}

// hardFilm tells whether a face is a hard film, oiled or bare metal, which is scuffed before paint.
func hardFilm(f craft.Family) bool {
	row := &craft.Families[f]
	switch f {
	case craft.PrimerFilm, craft.Promoted, craft.WaxFilm, craft.Leather, craft.VinylSoft, craft.GlassSmooth:
		return false
	}
	return !row.Porous && row.ScuffHow != ""
}

// wipes tells whether a face is wiped with spirit just before its first coat: glass, metal and oily wood.
func wipes(f craft.Family) bool {
	return f.BareMetal() || f == craft.GlassSmooth || f == craft.WoodOily
}

// used tells whether a zone is of a used piece that a wash does good to: anything with a film, and what
// does not drink. Leather and cloth are wiped by their own recipes, and salt bloom is never washed in.
func used(c *craft.Craft, z *check.Zone) bool {
	switch f := c.Substrates[z.Substrate].Family; {
	case f == craft.Leather, f == craft.Textile, f == craft.MineralPorous && z.Soils[craft.SaltsSoil] > 0:
		return false
	case c.Finishes[z.Finish].Bare:
		return !craft.Families[f].Porous
	}
	return true
}

// bareWood tells whether a face is bare wood or board that came unsanded, also once its wax is off.
func bareWood(c *craft.Craft, z *check.Zone, q *surface.Region) bool {
	g := c.Substrates[z.Substrate].Group
	return !z.Prepared && q.Bare && !q.Stripped && (g == craft.GroupWood || g == craft.GroupBoard)
}

// endsRight tells whether steps end in a last coat made for the use: what the habit of a hard last coat allows.
func endsRight(c *craft.Craft, z *check.Zone, steps []surface.Step) bool {
	last, paint := craft.NoProduct, craft.NoProduct
	for i := range steps {
		if s := &steps[i]; s.Do == surface.Coat && s.Scope == surface.All && c.Products[s.Product].LeavesFilm() {
			if last = s.Product; c.Products[last].Role == craft.RolePaint {
				paint = last
			}
		}
	}
	if last == craft.NoProduct || !opaque(c, steps) {
		return true
	}
	var look craft.EffectRow
	if x, ok := c.Effect(z.Look); ok {
		look = c.Effects[x]
	}
	if paint != craft.NoProduct {
		rubbed := look.Wears || look.RubsOnly || slices.Equal(look.SealedBy, []craft.Role{craft.RoleWax})
		dried := c.Products[paint].Dried
		switch {
		case c.Products[last].Role == craft.RoleWax && !rubbed && dried != craft.PorousPaint && dried != craft.Textile:
			return false // wax is for matt paint and worn looks
		case z.Wear == craft.WetWear && look.ID == "" && c.Products[paint].Coat == craft.AC:
			return false // and enamel for a kitchen
		}
	}
	return endsHard(c, z, last)
}

// endsHard tells whether a product may lie on top in a use.
func endsHard(c *craft.Craft, z *check.Zone, x craft.Product) bool {
	row := &c.Products[x]
	metal := c.Substrates[z.Substrate].Family.BareMetal()
	weather := z.Uses&craft.UseOutdoor != 0 || z.Wear == craft.Outdoor
	if row.Coat == craft.OE && !metal && !weather {
		return false
	}
	film := row.Role == craft.RolePaint && row.Dried != craft.PorousPaint && len(row.Only) == 0 && row.Coat != craft.FX && row.Coat != craft.TX
	switch z.Wear {
	case craft.Tabletop, craft.Floor:
		return c.Fills(x, craft.ForSeal(z.Wear))
	case craft.WetWear:
		return !film || row.Durability >= craft.TraitsOf[craft.ME].Durability && row.Coat != craft.AC && !row.SelfPrime
	case craft.Handled, craft.Seat:
		return !film || row.Durability >= craft.TraitsOf[craft.ME].Durability && !row.SelfPrime
	}
	return true
}

// suitsGround tells whether a product may be the first coat of a beginning by the habit of the right primer: what
// is made for a material goes on that, and what needs one gets it.
func suitsGround(c *craft.Craft, x craft.Product, top craft.Family, bare bool) bool {
	k := c.Products[x].Coat
	right := craft.FirstOn[top]
	return !bare || right == nil || slices.Contains(right, k)
}

// makes tells whether a painter would think of a product for a face of this size.
func (a *Request) makes(row *craft.ProductRow) bool {
	return row.Makes(cmp.Or(a.Piece, a.Zone.Area), a.Zone.Pace())
}

// FillerFor is the filler that some damage takes on a material: two-part on metal, where fine filler falls
// out, and otherwise what the damage takes.
func FillerFor(c *craft.Craft, sub craft.Substrate, filler string, off HabitSet) string {
	if filler == craft.FillerFine && c.Substrates[sub].Family.BareMetal() && !off.Has(FillByMaterial) {
		return craft.FillerTwoPart
	}
	return filler
}

// Broken are the habits that a plan for a zone does not keep, though they have a place there.
func Broken(c *craft.Craft, ask *Request, steps []surface.Step) HabitSet {
	z := *ask.Zone
	var out HabitSet
	t := surface.Walk(c, &z.Facts, steps)
	first := -1 // event of the first coat on the whole face
	washed, rubbed, spirit, look := false, false, false, craft.EffectRow{}
	if x, ok := c.Effect(z.Look); ok {
		look = c.Effects[x]
	}
	for i := range t.Events {
		if s := t.Events[i].Doing; s.Do == surface.Coat && t.Events[i].NBounds > 0 {
			first = i
			break
		}
	}
	if first < 0 {
		return out
	}
	face := &t.Events[first].Before.Regions[surface.Field]
	for i := range t.Events[:first] {
		s := t.Events[i].Doing
		switch s.Do {
		case surface.Clean:
			row := &c.Cleaners[s.Cleaner]
			_, grime := row.Shift(craft.Grime, 1)
			washed = (washed || row.Carrier == craft.Water && grime) && row.Carrier != craft.Solvent || washed && row.Key > 0
			rubbed = rubbed || row.Key > 0
			spirit = row.Carrier.Volatile() && row.Key == 0
		case surface.Abrade:
			rubbed, spirit = true, false
		case surface.Strip:
			washed, rubbed = true, true
		case surface.RaiseGrain:
			rubbed = true
		}
	}
	lead := z.LeadBars(c)
	if used(c, &z) && !washed {
		out = out.Add(WashFirst)
	}
	if hardFilm(face.Top) && !rubbed && !look.Flakes() {
		out = out.Add(ScuffFilms)
	}
	if bareWood(c, &z, face) && !rubbed {
		out = out.Add(SandBare)
	}
	if wipes(face.Top) && face.Bare && !spirit {
		out = out.Add(SpiritWipe)
	}
	last := craft.NoProduct
	blocks, spots := 0, 0
	rough := false
	b, pale := twice(c, &z)
	board := c.Substrates[z.Substrate].Family == craft.BoardRaw && face.Bare
	for i := range t.Events[first:] {
		e := &t.Events[first+i]
		s := e.Doing
		if s.Do == surface.Abrade {
			rough = false
		}
		if s.Do != surface.Coat {
			continue
		}
		row := &c.Products[s.Product]
		switch {
		case s.Scope != surface.All:
			if row.Block.Blocks() {
				spots++
			}
			if row.Coat == craft.SH && z.Damp() {
				out = out.Add(NoShellacOutside)
			}
			continue
		case row.Aerosol && row.Dried != craft.NumFamilies && !ask.makes(row):
			out = out.Add(SmallCans)
		case row.Coat == craft.SH && z.Damp():
			out = out.Add(NoShellacOutside)
		case row.Coat == craft.EP && !c.Substrates[z.Substrate].Family.BareMetal():
			out = out.Add(RightPrimer)
		}
		if i == 0 {
			rough = board || e.After.Regions[surface.Field].RoughStep > 0
		}
		if pale && blocksIt(c, s.Product, b) {
			blocks++
		}
		if row.LeavesFilm() {
			last = s.Product
		}
	}
	if rough && shines(c, steps) && last != craft.NoProduct && !lead {
		out = out.Add(Denib)
	}
	if pale && blocks < 2 && opaque(c, steps) && !look.Flakes() && !look.Veil {
		out = out.Add(BlockTwice)
	}
	if !endsRight(c, &z, steps) {
		out = out.Add(HardLast)
	}
	if f := &t.Events[first]; face.Coats == 0 && f.Doing.Scope == surface.All && !look.Flakes() && !suitsGround(c, f.Doing.Product, face.Top, face.Bare) {
		out = out.Add(RightPrimer)
	}
	if z.Knots > 0 && onlySpots(c, &z) && spots < 2 && opaque(c, steps) {
		out = out.Add(SealKnots)
	}
	return out
}

func opaque(c *craft.Craft, steps []surface.Step) bool {
	return slices.ContainsFunc(steps, func(s surface.Step) bool { return s.Do == surface.Coat && c.Products[s.Product].Opaque() })
}

// onlySpots tells whether something bleeds in spots of a zone and nothing in the rest of it.
func onlySpots(c *craft.Craft, z *check.Zone) bool {
	st := surface.Start(c, &z.Facts, nil)
	if st.N < 2 {
		return false
	}
	for b := range st.Regions[surface.Field].Load {
		if st.Regions[surface.Field].Load[b] > 0 {
			return false
		}
	}
	return true
}

// contrasts tells whether the coats that are already there clearly differ in colour from what goes over
// them, so that a worn look can show them.
func (p *planner) contrasts() bool {
	z := &p.zone
	if p.belief || len(p.evaluator.Candidates()) > 1 || p.craft.Finishes[z.Finish].Bare {
		return false
	}
	want, ok := colour.Parse(z.Colour)
	return ok && colour.Difference(p.shown[0], want) >= check.Contrasting
}
