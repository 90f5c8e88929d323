package craft

// RecipePartKind is what one part of a recipe does.
type RecipePartKind uint8

// The kinds.
const (
	// LayOne applies one of the products for the part's purpose.
	LayOne RecipePartKind = iota
	// LayPaint applies the paint of a solid face: any that suits the zone, or of these those for
	// the part's purpose. Its number of coats follows from the colour.
	LayPaint
	// LayAgain applies one more coat of that paint.
	LayAgain
	// LayResist applies the resist in patches that the way of working uses.
	LayResist
	// WorkIt is the effect itself.
	WorkIt
	// SmoothIt sands lightly what the part before has left, and dusts it off.
	SmoothIt
	// RestIt leaves what is below until it is dry through.
	RestIt
	// SealIt seals it, to suit the way of working and the wear; with a purpose, by its products.
	SealIt
)

// Tone is the colour of a part.
type Tone uint8

// The tones.
const (
	ToneTarget Tone = iota // the colour that is wanted
	ToneUnder              // one that shows under it: dark under pale, and pale under dark
	ToneDark               // dark, whatever goes over it
	ToneLeaf               // the warm ground of leaf
)

// RecipePart is a place in a recipe.
type RecipePart struct {
	Kind RecipePartKind
	For  Purpose
	// Coats are the numbers of coats to try; none stands for one.
	Coats []int
	Tone  Tone
	// ThinPct is how far it is thinned, in per cent.
	ThinPct float64
	// Skip tells that it may be left out, and Deep that it comes only where the way wears down to
	// the material.
	Skip, Deep bool
	// Clears tells that only a clear coat seals it, and no wax.
	Clears bool
	// ShowsOld tells that it may be left out where the coats that are already there show instead.
	ShowsOld bool
	// HalfTacky tells that what follows goes on half-way through its tack.
	HalfTacky bool
	// Of work: the hours before it and after it, the grit it is done with, and the grit where the
	// way wears down to the material; what it is sanded with after it, whether it leaves dust
	// that is taken off, and whether warm air may help it.
	Before, After  float64
	Grit, DeepGrit int
	Sand           int
	Dusts, Warm    bool
}

// Crackling is what a coat cracks over.
type Crackling uint8

// The choices.
const (
	CrackMedium Crackling = iota
	CrackLift             // lift medium, pulled off in streaks
	CrackTacky            // shellac or lacquer, still tacky, under powder paint
)

// Recipe is how a look is made from the first paint on, part by part. Reassembly follows
// automatically.
type Recipe struct {
	Parts []RecipePart
	// Over is the way of crackling that it belongs to, for a look that has several.
	Over Crackling
	// Ground is what may go below it: the primers for a purpose, of these only the clear ones where
	// ClearGround is set; empty for any primer. NoGround tells that none may.
	Ground                Purpose
	ClearGround, NoGround bool
	// See tells that the surface is to stay in sight.
	See bool
}

// Solid is the recipe of a solid face.
var Solid = Recipe{Parts: []RecipePart{{Kind: LayPaint}, {Kind: SealIt}}}

// overnight is how long work that settles is left. Working default.
const overnight = 12

// RecipeFor is how the look is made where coats crack in some way. A look without a recipe of its own
// is worked on dry paint and sealed.
func (r *EffectRow) RecipeFor(over Crackling) Recipe {
	for i := range r.Recipes {
		if r.Recipes[i].Over == over {
			return r.Recipes[i]
		}
	}
	if len(r.Recipes) > 0 {
		return r.Recipes[0]
	}
	parts := []RecipePart{{Kind: LayPaint}}
	if r.Sealed {
		parts = append(parts, RecipePart{Kind: LayOne, For: ForPlainSeal, Skip: true})
	}
	work := RecipePart{Kind: WorkIt}
	if r.Settles > 0 {
		work.After = overnight
	}
	return Recipe{Parts: append(parts, work, RecipePart{Kind: SealIt})}
}
