// Package surface holds the state of a zone's surface and the one walk that
// takes it through the steps of a plan. [Apply] is the only place where a
// state changes; checking, planning and scheduling all read its events.
package surface

import (
	"cmp"
	"math"
	"slices"

	"rutile/core/craft"
	"rutile/core/drying"
)

// Facts are what a survey knows of a zone before the first step.
type Facts struct {
	Substrate craft.Substrate
	Veneer    bool
	Finish    craft.Finish
	Gloss     craft.Sheen
	Moisture  float64 // per cent; negative if not measured
	Soils     [craft.NumSoils]uint8
	Bleeders  [craft.NumBleeders]uint8
	// GivenBleeders tells that Bleeders replace those the material implies.
	GivenBleeders bool
	Knots         int
	// Loose is loose material, and Uneven whether its face has dents, runs or craters.
	Loose  craft.Loose
	Uneven bool
	// Prepared tells that bare wood came sanded and ready for its first coat.
	Prepared bool
	// AgeDays is the age of cement, plaster or stone; negative if not known.
	AgeDays float64
	// SurfaceC is the temperature of the surface, where SurfaceRead tells that it
	// was measured; otherwise it is taken to be that of the air.
	SurfaceC    float64
	SurfaceRead bool
	// Touching tells that parts of it touch each other once they are back, and GapMM is the
	// smallest gap around sliding and closing parts, 0 for none.
	Touching bool
	GapMM    float64
	Wear     craft.Wear
	Uses     craft.Uses
	Area     float64 // square metres; 0 if not measured
	// Work is how much longer a square metre takes than on a plain panel; 0
	// counts as 1. EdgesM is the length of the edges that a brush cuts along, in metres.
	Work, EdgesM float64
	Climate      drying.Climate
	// Course is the air as it was read since the walk began; nil where it is that of Climate throughout.
	Course *drying.Course
	// Now is how many hours after the first step that was done the check is made; 0 where nothing was done. What is
	// only planned is not done before.
	Now float64
}

// Air is the air that counts between two moments, in hours of the walk.
func (f *Facts) Air(from, to float64) drying.Climate {
	if f.Course == nil {
		return f.Climate
	}
	return f.Course.Over(from, to, f.Climate)
}

// opens is when a wait that begins at a moment is over, in hours of the walk: how long it takes depends on the air
// meanwhile.
func (f *Facts) opens(at float64, takes func(drying.Climate) float64) float64 {
	if f.Course == nil {
		return at + takes(f.Climate)
	}
	air := f.Air(at, at)
	h := at + takes(air)
	const rounds, near = 12, 1e-4
	for range rounds {
		now := f.Air(at, h)
		if now == air {
			break
		}
		air = now
		next := at + takes(air)
		if math.Abs(next-h) < near {
			return next
		}
		h = (h + next) / 2 // colder air later makes it longer, which takes it into colder air
	}
	return h
}

// Damp tells whether water will reach the zone from behind or from the air.
func (f *Facts) Damp() bool {
	return f.Uses&(craft.UseOutdoor|craft.Damp) != 0 || f.Wear == craft.Outdoor
}

// AboveDew is by how many degrees the surface is above the dew point of some air. A surface that was measured counts
// with the air of the survey; for other air it is taken to be as warm as that.
func (f *Facts) AboveDew(air drying.Climate) float64 {
	at := air.TempC
	if f.SurfaceRead && air == f.Climate {
		at = f.SurfaceC
	}
	return at - drying.DewPoint(air)
}

// Pace is how much longer a square metre takes than on a plain panel.
func (f *Facts) Pace() float64 {
	if f.Work > 0 {
		return f.Work
	}
	return 1
}

// Demand is the strength that every boundary of the zone must have: that of its wear, and outdoors
// at least the weather's.
func (f *Facts) Demand() float64 {
	d := craft.Wears[f.Wear].Demand
	if f.Uses&craft.UseOutdoor != 0 {
		d = max(d, craft.Wears[craft.Outdoor].Demand)
	}
	return d
}

// RegionKind names the regions of a zone.
type RegionKind uint8

// The regions. Spots are knots, nails, rings and marks: places where something local may bleed, and
// where a spot coat goes.
const (
	Field RegionKind = iota
	SpotRegion
	Worn
	numRegions
)

// regionIDs are the regions' ids.
var regionIDs = [numRegions]string{"field", "spots", "worn"}

// String returns the patch's id.
func (k RegionKind) String() string { return regionIDs[k] }

// SpotShare and wornShare are the shares of the area assumed for spots, and for worn places where none is
// given. Working defaults.
const (
	SpotShare = .05
	wornShare = .1
)

// State is a zone's surface at one moment. It is a plain comparable value, so
// that two ways of reaching the same surface are seen to be the same.
type State struct {
	Regions [numRegions]Region
	N       uint8   // regions in use
	Hours   float64 // since the first step began
	Minutes float64 // hands-on, 0 throughout where the area is not known
	// Cleared tells that what is not to be painted was taken off or masked.
	Cleared bool
	// Auto tells that the last coat is left for as long as what follows needs, and Airs the same of
	// what was washed: a wait that the plan gives right after the washing stands instead.
	Auto, Airs bool
}

// take makes s another state. Most have one or two regions, and only those are copied.
func (s *State) take(o *State) {
	for i := o.N; i < s.N; i++ {
		s.Regions[i] = Region{}
	}
	copy(s.Regions[:o.N], o.Regions[:o.N])
	s.N, s.Hours, s.Minutes, s.Cleared, s.Auto, s.Airs = o.N, o.Hours, o.Minutes, o.Cleared, o.Auto, o.Airs
}

// Region is one part of the surface with a history of its own.
type Region struct {
	Share float64 // of the zone's area
	// At is when the top coat was applied, in hours, and Run how many coats of it lie on each other.
	At  float64
	Key float64 // 0 to 1, a share of the best the surface allows
	// BrightAt is when bare metal was abraded, in hours.
	BrightAt float64
	// DryAt is when what it was washed with has dried, in hours, WetFor how long that takes, and WetWith
	// what that was.
	DryAt, WetFor float64
	ResistAt      float64
	Film          float64 // dry film of the plan, in micrometres
	// Thick is how many times the usual film the top coat was laid at; 0 counts as 1.
	Thick float64

	// Product is the coat on top, NoProduct while it is the old surface.
	Product craft.Product
	Top     craft.Family
	// Under is what a white spirit wash exposes below all the wax on top.
	Under      craft.Family
	UnderBare  bool  // and whether that is the substrate itself
	UnderCoats uint8 // and how many coats of the plan then are left
	Kind       RegionKind
	Bare       bool  // the substrate itself is exposed
	Coats      uint8 // coats of the plan
	Run        uint8
	Scuffed    bool // since the top coat was applied
	Leafed     bool // so that what it is coated on next is no longer that coat
	Closed     bool // bare wood polished finer than paint likes
	Raised     bool // grain raised and knocked back
	// Stripped tells that an old coat was taken off in this plan.
	Stripped bool
	// Bright tells that bare metal was abraded, and Rusts that water reached bright steel since.
	Bright, Rusts bool
	WetWith       craft.Carrier
	// Creeps tells that there was so much silicone that some is left however often it is washed, until
	// a barrier of shellac lies over it.
	Creeps bool
	// Acid tells that an acid treatment was not yet rinsed off.
	Acid bool
	// Loosened tells that white spirit has dissolved wax which a wash takes.
	Loosened bool
	// ResidueStep is the cleaning, from 1, that left the cleaner's residue.
	ResidueStep uint8
	// SandedStep is the last abrasion, from 1, that was not dusted off.
	SandedStep uint8
	// RoughStep is the water-based coat, from 1, that raised the grain of bare wood
	// and has not been knocked back, and FilledStep the filling that no coat has
	// closed.
	RoughStep, FilledStep uint8
	// Resist is what was applied in patches to keep the next paint off, at ResistAt in hours.
	Resist  Resist
	Powdery bool
	Loose   craft.Loose

	Soils [craft.NumSoils]uint8
	// Grit of the exposed scratches, 0 for none.
	Grit   uint16
	Driven uint32 // soils rubbed in by abrasion, a bit each

	// Load is the stain each bleeder would show through nothing, and Lets the
	// share of it that gets through the coats so far.
	Load, Transmitted [craft.NumBleeders]float32
	// Diluted marks the bleeders that a coat which is no blocker has counted
	// against already.
	Diluted uint16
	// Blocked marks those with a blocker over them.
	Blocked uint16
}

// Resist is something applied in patches so that the paint over it comes off.
type Resist uint8

// The resists.
const (
	NoResist Resist = iota
	ResistWax
	ResistShellac // while it is tacky
	ResistLacquer // while it is tacky
)

// ResistNamed is the resist with an id of [craft.Resists], which has them in the
// same order.
func ResistNamed(id string) Resist { return Resist(slices.Index(craft.Resists, id) + 1) }

// driven tells whether soil s was rubbed in by abrasion.
func (p *Region) driven(s craft.Soil) bool { return p.Driven&(1<<s) != 0 }

// Region returns the state's patch of a kind; nil if it has none.
func (s *State) Region(k RegionKind) *Region {
	for i := range s.Regions[:s.N] {
		if s.Regions[i].Kind == k {
			return &s.Regions[i]
		}
	}
	return nil
}

// Stain is the final stain of a bleeder on this patch over a white finish, in
// CIEDE2000 units.
func (p *Region) Stain(b craft.Bleeder) float64 {
	return float64(p.Load[b]) * float64(p.Transmitted[b])
}

// Levels are the bleeders a zone has, 0 to 3 each: those entered, otherwise those that its
// substrate, its finish and its counted knots imply; and what smoke on it leaves behind.
func Levels(c *craft.Craft, f *Facts) [craft.NumBleeders]uint8 {
	lv := f.Bleeders
	if !f.GivenBleeders {
		lv = [craft.NumBleeders]uint8{}
		sub := &c.Substrates[f.Substrate]
		for _, x := range sub.Bleeds {
			lv[x.Bleeder] = x.Level
		}
		if f.Knots > 0 && sub.Knotted > 0 {
			lv[craft.Resin] = sub.Knotted
		}
		for _, x := range c.Finishes[f.Finish].Bleeds {
			lv[x.Bleeder] = max(lv[x.Bleeder], x.Level)
		}
	}
	if n := f.Soils[craft.NicotineSoil]; n > 1 {
		lv[craft.Nicotine] = max(lv[craft.Nicotine], n-1)
	}
	return lv
}

// resinous tells whether resin streaks the whole face and not knots alone.
func resinous(sub *craft.SubstrateRow) bool {
	for _, x := range sub.Bleeds {
		if x.Bleeder == craft.Resin {
			return true
		}
	}
	return false
}

// Start is the state before the first step. A zone has spots when something local may bleed, or
// when the plan has a coat for spots only.
func Start(c *craft.Craft, f *Facts, steps []Step) State {
	sub, fin := &c.Substrates[f.Substrate], &c.Finishes[f.Finish]
	p := Region{Share: 1, Product: craft.NoProduct, Under: sub.Family, Loose: f.Loose, Powdery: fin.Powdery}
	p.Soils = f.Soils
	p.Creeps = p.Soils[craft.Silicone] >= NeverOut
	if fin.Bare {
		p.Top, p.Bare = sub.Family, true
		p.Key = bareKey(sub, f.Gloss)
	} else {
		p.Top = fin.Family
		p.Key = filmKey(fin.Family, f.Gloss)
		if fin.Under != craft.NumFamilies && fin.Family == craft.WaxFilm {
			p.Under = fin.Under
		}
		p.UnderBare = fin.Family == craft.WaxFilm && fin.Under == craft.NumFamilies
	}
	spots, worn := false, 0.
	for i := range steps {
		switch s := &steps[i]; s.Do {
		case Coat:
			spots = spots || s.Scope != All
		case Effect:
			if x, ok := c.Effect(s.Effect); ok && c.Effects[x].Wears {
				worn = cmp.Or(s.Share, wornShare)
			}
		}
	}
	lv := Levels(c, f)
	q := p
	for b := range lv {
		if lv[b] == 0 {
			continue
		}
		row := &craft.Bleeders[b]
		load := held(sub, fin, craft.Bleeder(b), row.DeltaE[lv[b]-1])
		if !Local(sub, craft.Bleeder(b)) {
			p.Load[b], p.Transmitted[b] = float32(load), 1
			q.Load[b], q.Transmitted[b] = float32(load), 1
			continue
		}
		spots = true
		q.Load[b], q.Transmitted[b] = float32(load), 1
		if craft.Bleeder(b) == craft.Resin && resinous(sub) {
			p.Load[b], p.Transmitted[b] = float32(held(sub, fin, craft.Resin, row.DeltaE[0])), 1
		}
	}
	s := State{N: 1}
	if spots {
		q.Kind = SpotRegion
		q.Share = SpotShare
		s.Regions[s.N] = q
		s.N++
	}
	if worn > 0 {
		w := p
		w.Kind, w.Share = Worn, worn
		s.Regions[s.N] = w
		s.N++
	}
	for i := range s.Regions[1:s.N] {
		p.Share = max(0, p.Share-s.Regions[1+i].Share)
	}
	s.Regions[Field] = p
	return s
}

// NeverOut is the level from which silicone never washes out for certain.
const NeverOut = 2

// Local tells whether a bleeder sits in spots of a material and not in all of it. Rust in anything
// but iron is that of nails and screws.
func Local(sub *craft.SubstrateRow, b craft.Bleeder) bool {
	return craft.Bleeders[b].Local || b == craft.Rust && sub.Family != craft.MetalFerrous
}

// held is what an intact old film lets through of a load that lies under it.
func held(sub *craft.SubstrateRow, fin *craft.FinishRow, b craft.Bleeder, load float64) float64 {
	row := &craft.Bleeders[b]
	nails := sub.Family != craft.MetalFerrous
	switch {
	case row.OnFilm || fin.Bare:
		return load
	case b == craft.Rust && !nails:
		return 0 // a sound film keeps steel from rusting at all
	case row.Column == craft.Dye:
		return load * fin.LetsDye
	default:
		return load * fin.Lets
	}
}

func bareKey(sub *craft.SubstrateRow, gloss craft.Sheen) float64 {
	if n := craft.Families[sub.Family].Natural; n > 0 {
		return n
	}
	return filmKey(sub.Family, gloss)
}

func filmKey(f craft.Family, gloss craft.Sheen) float64 {
	return min(1, craft.Sheens[gloss].Key/craft.Families[f].Best)
}

// Variants lists what the zone may be: the facts themselves, or, where the finish is not known, the
// facts with each plausible finish.
func Variants(c *craft.Craft, f *Facts) []Facts {
	if !c.Finishes[f.Finish].Unknown {
		return []Facts{*f}
	}
	plausible := c.Plausible(c.Substrates[f.Substrate].Family)
	if len(plausible) == 0 {
		none, _ := c.Finish("none")
		plausible = []craft.Finish{none}
	}
	out := make([]Facts, len(plausible))
	for i, x := range plausible {
		out[i] = *f
		out[i].Finish = x
	}
	return out
}
