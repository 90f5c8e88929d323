package surface

import "rutile/core/craft"

// StepKind is what a step does.
type StepKind uint8

// The kinds of step.
const (
	Clean StepKind = iota
	Abrade
	Dust
	RaiseGrain
	Coat
	Wait
	Strip
	Fill
	Repair
	Mask
	Remove
	Reassemble
	Effect
	Test
	// NumKinds counts the kinds.
	NumKinds
)

// KindRow names a kind of step.
type KindRow struct {
	ID   string
	Name string
}

// Kinds is indexed by Kind.
var Kinds = [NumKinds]KindRow{
	Clean:      {"clean", "Clean"},
	Abrade:     {"abrade", "Sand"},
	Dust:       {"dust", "Dust off"},
	RaiseGrain: {"raise_grain", "Raise the grain"},
	Coat:       {"coat", "Coat"},
	Wait:       {"wait", "Wait"},
	Strip:      {"strip", "Strip"},
	Fill:       {"fill", "Fill"},
	Repair:     {"repair", "Repair"},
	Mask:       {"mask", "Mask"},
	Remove:     {"remove", "Remove"},
	Reassemble: {"reassemble", "Reassemble"},
	Effect:     {"effect", "Effect"},
	Test:       {"test", "Test patch"},
}

// KindNamed returns the kind with an id; false if there is none.
func KindNamed(id string) (StepKind, bool) {
	for i := range Kinds {
		if Kinds[i].ID == id {
			return StepKind(i), true
		}
	}
	return 0, false
}

// Scope is what part of a zone a coat goes on.
type Scope uint8

// The scopes. Knots and spots lie on the same patch of the walk.
const (
	All Scope = iota
	Knots
	Spots
)

// Step is one line of a plan. Only the fields of its kind mean anything.
type Step struct {
	Do StepKind

	// Clean
	Cleaner craft.Cleaner
	Rinse   bool
	Passes  int // 0 counts as 1

	// Abrade, and the grit of an effect
	Grit    int // 0 where none applies
	How     craft.How
	Through bool // cuts to the substrate

	// Coat
	Product craft.Product
	Coats   int // 0 counts as 1
	// WaitH is the wait after each coat in hours; Auto stands for the
	// earliest the site allows.
	WaitH         float64
	Auto          bool
	Method        string
	Additive      float64 // ratio of bonding additive to paint, by volume
	AdditiveFirst bool    // in the first coat only
	WaterRatio    float64 // of powder paint, water to powder by volume
	ThinPct       float64
	Sheen         craft.Sheen
	Colour        string
	Scope         Scope
	// Own is how the painter mixes it, nil for as usual: see [Step.Mix] and [Step.Remix].
	Own *Mix

	// Wait
	Hours float64

	// Strip (how), fill (with), repair, mask and remove (what).
	StripHow, With, What string

	// Effect: its id, the resist applied in patches, and the share of the area that is worn, 0
	// where none is given.
	Effect, Resist string
	Heat, Wetted   bool
	Share          float64

	// Test: the class of the cross-cut scale that it was rated at.
	Rating int

	// Done is how it was really done; nil for a step that is only planned. Of a step of several coats the first may
	// be done and the others planned.
	Done *[]Done
}

// Done is how a step, or one coat of it, was really done. Times are hours of the walk, which begin with the first
// step that was done.
type Done struct {
	From, To float64
	// Minutes of work; negative where they are not known and the usual ones count.
	Minutes float64
	// Thick is how many times the usual film a coat was laid at; 0 counts as 1.
	Thick float64
}

// NumDone is how many of its coats were done, and 1 for any other step that was.
func (s *Step) NumDone() int {
	if s.Done == nil {
		return 0
	}
	return len(*s.Done)
}

// done is how its n-th coat was done, from 1, or the step where it is no coat; nil where it was not.
func (s *Step) done(n int) *Done {
	if n = max(1, n); n > s.NumDone() {
		return nil
	}
	return &(*s.Done)[n-1]
}

// Mix is how the painter mixes a coat, where that is not as usual.
type Mix struct {
	// Recipe is the id of that of a home-made paint; empty for the usual one.
	Recipe string
	// Tint is the parts of colour to one of glaze medium, by volume; 0 for the usual.
	Tint float64
	// Paint is how many litres of paint are mixed for each coat, before any additive; 0 for what it needs.
	Paint float64
	// Unstrained tells that it is not strained.
	Unstrained bool
	// Blend is what it is blended from; nil for one paint.
	Blend *Blend
}

// Mix is how a coat is mixed; the zero value for as usual.
func (s *Step) Mix() Mix {
	if s.Own == nil {
		return Mix{}
	}
	return *s.Own
}

// Remix changes how a coat is mixed. Other steps that shared it keep theirs.
func (s *Step) Remix(change func(*Mix)) {
	m := s.Mix()
	change(&m)
	if s.Own = nil; m != (Mix{}) {
		s.Own = &m
	}
}

// Blend is the paints that a coat is blended from, with their whole parts by volume.
type Blend struct{ Parts []BlendPart }

// BlendPart is one of them: the id of its kind and of its can, where it names them, and square metres that a litre
// of it covers, 0 for as usual.
type BlendPart struct {
	Kind, Name, Colour, Can string
	Parts                   int
	Cover                   float64
}

// NumCoats is how many coats a coat step applies.
func (s *Step) NumCoats() int { return max(1, s.Coats) }

// NumPasses is how often a cleaning is repeated.
func (s *Step) NumPasses() int { return max(1, s.Passes) }

// AdditiveIn is the ratio of bonding additive in the n-th coat, from 1.
func (s *Step) AdditiveIn(n int) float64 {
	if s.AdditiveFirst && n > 1 {
		return 0
	}
	return s.Additive
}
