package craft

import "slices"

// When says on which cards a line stands: always, or only where its condition holds.
type When uint8

// The conditions of a line.
const (
	Always When = iota
	WithAdditive
	WithoutAdditive
	WhenThinned
	WhenSprayed
	WhenBrushed // with a brush, a pad or a foam
	ByHand      // neither with a gun nor from a spray can
	WhenPots    // there is more than one pot
	WhenWarm
	OnWood
	OnMetal
	OnGlass
	OnFilm    // laminate, vinyl and hard plastic
	OnUpright // it stands upright while it is painted
	WhenLater // a further coat of the same product
)

// Line is a line of a card. Words in braces are amounts of the batch, such as {powder}, or figures of the coat.
type Line struct {
	Says string
	When When
	// Timer is what is timed while it is done, for Minutes at 23 C and 50 %.
	Timer   Timer
	Minutes float64
	// Strains tells that it is left out where the painter does not strain.
	Strains bool
}

// Recipe of a pot: what is poured together.
type Pour uint8

// The ways in which a coat is mixed.
const (
	PourReady    Pour = iota // from the can, thinned or not
	PourPowder               // powder and water
	PourTwoPart              // base and hardener
	PourGlaze                // medium and stain
	PourHomeMade             // emulsion and a filler
	PourCan                  // a spray can
	PourPaste                // wax, used as it is
)

// MixingRow is how the products of a kind are mixed: what the mixing card says.
type MixingRow struct {
	ID   string
	Pour Pour
	// Base and With are what the two ingredients are called within a sentence.
	Base, With string
	Lines      []Line
	// TooThick and TooThin are what to do about a pot that is not right.
	TooThick, TooThin string
	// Open, Closed and Chilled are how many hours it keeps once it is mixed: in the open pot while working, in a
	// closed jar, and in a closed jar in the fridge. 0 where that is no way to keep it, and Never where it keeps
	// as long as the can does. For what has a pot life, Open is that of its row.
	Open, Closed, Chilled float64
	// NotKept is said where a rest does not keep at all.
	NotKept string
	// Left is what a rest is good for, and Foam what to do about foam; empty for what does not foam.
	Left, Foam string
}

// Mixings are how products are mixed. Figures are working defaults.
var Mixings = []MixingRow{
	{
		ID: "powder", Pour: PourPowder, Base: "powder", With: "warm water", Chilled: 48,
		Lines: []Line{
			{Says: "Put on a dust mask. The powder is alkaline: keep it off skin and out of eyes."},
			{Says: "Measure {with} into a jug. Warm to the hand, not hot."},
			{Says: "Add {base} to the water, a spoonful at a time. Water onto powder makes lumps."},
			{Says: "Whisk until no dry powder is left at the bottom.", Timer: TimeWhisk, Minutes: 3},
			{Says: "Let it rest. The powder takes up the water and the paint thickens.", Timer: TimeRest, Minutes: 20},
			{Says: "Stir. It should run off the stick like single cream."},
			{Says: "Skim the foam off, or stir in two drops of defoamer. What is mixed the night before has no foam."},
			{Says: "Strain it through a fine filter into the pot you paint from. Press nothing through.", Strains: true},
			{Says: "Stir in {additive}, slowly, so that it does not foam.", When: WithAdditive},
			{Says: "No bonding additive in this pot: on a slick ground it may chip.", When: WithoutAdditive},
			{Says: "Strain it again for the gun, through 190 µm.", When: WhenSprayed, Strains: true},
			{Says: "Stir in {thinner}.", When: WhenThinned},
			{Says: "Stir every few minutes: the pigment sinks."},
		},
		TooThick: "Add water a tablespoon at a time, stir, and wait a minute before adding more.",
		TooThin:  "Whisk a spoonful of powder into a little of the paint, let it rest ten minutes, and stir that in. Dry powder into the whole pot makes lumps.",
		Foam:     "Beat it longer and skim it, or two drops of defoamer, or mix it the night before and keep it cold. Never paint with foam.",
		Left:     "touching up this coat, a wash (one to one with water), or a trial board; not the next coat if it smells or has thickened",
	},
	{
		ID: "matt", Pour: PourReady, Base: "paint", With: "water", Closed: Never,
		Lines: []Line{
			{Says: "Stir the can down to the bottom until no clear liquid is left."},
			{Says: "Pour {base} into a clean pot. Close the can, so that it forms no skin."},
			{Says: "Stir in {with}, a little at a time.", When: WhenThinned},
			{Says: "Strain it for the gun, through 190 µm.", When: WhenSprayed, Strains: true},
			{Says: "It should run off the stick in a ribbon, and lie level within seconds."},
		},
		TooThick: "Add water a teaspoon at a time. Stop as soon as brush marks flow out.",
		TooThin:  "Stir in more paint from the can. Leaving the pot open thickens only its skin.",
		Left:     "the next coat, in a closed jar; never back into the can",
	},
	{
		ID: "film", Pour: PourReady, Base: "paint", With: "water", Closed: Never,
		Lines: []Line{
			{Says: "Stir the can slowly, down to the bottom. Shaking puts bubbles into it."},
			{Says: "Pour {base} into a clean pot. Close the can."},
			{Says: "Stir in {with}, clean.", When: WhenThinned},
			{Says: "Strain it for the gun, through 125 µm.", When: WhenSprayed, Strains: true},
			{Says: "Let it stand until the bubbles are gone.", Timer: TimeFoam, Minutes: 5},
		},
		TooThick: "Add clean water a teaspoon at a time, no more than the label allows; in warm air a flow extender does more than water.",
		TooThin:  "Stir in more from the can.",
		Left:     "the next coat, in a closed jar filled to the brim; never back into the can",
	},
	{
		ID: "solvent", Pour: PourReady, Base: "paint", With: "thinner", Closed: Never,
		Lines: []Line{
			{Says: "Windows open on two sides, no flame, gloves on."},
			{Says: "Stir down to the bottom. Lift off a skin in one piece; do not stir it in."},
			{Says: "Pour {base} into a metal or solvent-proof pot. Close the can."},
			{Says: "Stir in {with}, the one that its label names.", When: WhenThinned},
			{Says: "Strain it for the gun, through 125 µm.", When: WhenSprayed, Strains: true},
		},
		TooThick: "Add the thinner that the label names, a teaspoon at a time.",
		TooThin:  "Stir in more from the can.",
		Left:     "the next coat, in a closed jar filled to the brim",
	},
	{
		ID: "shellac", Pour: PourReady, Base: "shellac", With: "alcohol", Open: 1, Closed: 4320,
		Lines: []Line{
			{Says: "Windows open, no flame: it is alcohol."},
			{Says: "Past its date? A drop on glass must be hard by tomorrow, not sticky."},
			{Says: "Stir it until nothing lies at the bottom."},
			{Says: "Pour {base} into a jar with a lid. Keep the lid on between dips."},
			{Says: "Stir in {with}.", When: WhenThinned},
			{Says: "Strain it for the gun, through 125 µm.", When: WhenSprayed, Strains: true},
		},
		TooThick: "Add alcohol, the same that it is made with, a teaspoon at a time.",
		TooThin:  "Lay one more thin coat: with shellac that is the better way anyhow.",
		Left:     "the next coat and knots, in its closed jar with the date on it; six months at most",
	},
	{
		ID: "two_part", Pour: PourTwoPart, Base: "base", With: "hardener",
		Lines: []Line{
			{Says: "Gloves, eye protection, and the mask that the data sheet names. The hardener can make you allergic for life."},
			{Says: "Stir the base by itself, down to the bottom."},
			{Says: "Pour {base} into a straight-sided cup."},
			{Says: "Add {with}. Measure it: a little more does not harden it faster, it spoils it."},
			{Says: "Stir slowly, scraping the sides and the bottom.", Timer: TimeWhisk, Minutes: 3},
			{Says: "Let it stand, so that the reaction begins and the bubbles rise.", Timer: TimeRest, Minutes: 10},
			{Says: "Stir in {thinner}, its own.", When: WhenThinned},
			{Says: "Strain it for the gun, through 190 µm.", When: WhenSprayed, Strains: true},
			{Says: "The pot life has begun. Pour it out flat: in a deep pot it heats itself and sets sooner.", Timer: TimePot},
			{Says: "Mix the second pot only when the first is empty.", When: WhenPots},
		},
		TooThick: "If it thickens in the pot, its life is over: thinner does not bring it back. Mix a new pot.",
		TooThin:  "Leave it as it is, and lay a thinner coat.",
		NotKept:  "A rest does not keep.",
		Left:     "nothing: let it harden in the cup outdoors, and throw it away hard",
	},
	{
		ID: "glaze", Pour: PourGlaze, Base: "glaze medium", With: "colour", Closed: 720,
		Lines: []Line{
			{Says: "Stir the medium and the colour, each by itself."},
			{Says: "Pour {base} into a shallow pot."},
			{Says: "Stir in {with}, half of it first, then drop by drop."},
			{Says: "Try it on the trial board, wiped as on the piece, and judge it dry."},
			{Says: "Mix all of it now: the same tone is hard to find twice."},
		},
		TooThick: "Stir in a little more medium; water makes it run and lose its hold.",
		TooThin:  "More colour for a deeper tone; more medium for a longer open time.",
		Left:     "repairs on the same piece, in a closed jar with its parts written on it",
	},
	{
		ID: "home_made", Pour: PourHomeMade, Base: "emulsion", With: "filler", Closed: 24,
		Lines: []Line{
			{Says: "Put on a dust mask: fine powder."},
			{Says: "Stir {filler} into {water} until it is smooth."},
			{Says: "Whisk.", Timer: TimeWhisk, Minutes: 2},
			{Says: "Stir that into {base}."},
			{Says: "Strain it through a fine filter: one grain drags a line through the coat.", Strains: true},
			{Says: "Try it on a board before the piece: how matt it is, and whether it scratches."},
		},
		TooThick: "Stir in water a teaspoon at a time.",
		TooThin:  "Stir in more emulsion, not more powder.",
		Left:     "the next coat within a day, if it has not set",
	},
	{
		ID: "cloth", Pour: PourReady, Base: "paint", With: "water", Closed: 48,
		Lines: []Line{
			{Says: "Stir the can down to the bottom."},
			{Says: "Pour {base} into a bucket."},
			{Says: "Stir in {with} until it is as thin as milk.", When: WhenThinned},
			{Says: "Strain it: a lump stays on cloth as a spot.", Strains: true},
			{Says: "Try it on the underside of the seat and judge it dry: wet cloth looks darker."},
		},
		TooThick: "Add water: stiff cloth comes from thick paint.",
		TooThin:  "Lay one more coat; do not thicken it.",
		Left:     "the next coat tomorrow, in a closed jar",
	},
	{
		ID: "can", Pour: PourCan, Base: "can", With: "",
		Lines: []Line{
			{Says: "Bring the can to room temperature. Never warm it on a heater."},
			{Says: "Shake it from when the ball is loose.", Timer: TimeWhisk, Minutes: 2},
			{Says: "Spray a test on card: even, no spitting. Shake again every minute."},
		},
		TooThick: "It spits: warm the can in the hand, shake it, and clear the nozzle upside down.",
		TooThin:  "It runs: move faster and farther off.",
		Left:     "the next coat; turn the can upside down and spray until only gas comes",
	},
	{
		ID: "wax", Pour: PourPaste, Base: "wax", With: "",
		Lines: []Line{
			{Says: "Let the tin come to room temperature: cold wax goes on in streaks."},
			{Says: "Take out {base}, about a walnut for each square metre, and close the tin."},
		},
		TooThick: "Knead it in the cloth in a warm hand. Never warm it over a flame.",
		TooThin:  "It is too warm: put the closed tin somewhere cool for an hour.",
		Left:     "another day: it keeps for years in its closed tin",
	},
	{
		ID: "oil", Pour: PourReady, Base: "oil", With: "thinner", Closed: Never,
		Lines: []Line{
			{Says: "Put a bucket of water with a lid beside you for the rags before you open the tin."},
			{Says: "Stir or shake it until nothing lies at the bottom."},
			{Says: "Pour {base} into a shallow dish. Close the tin."},
			{Says: "Stir in {with}.", When: WhenThinned},
		},
		TooThick: "Warm the closed tin in warm water from the tap.",
		TooThin:  "Leave it: thin oil goes deeper.",
		Left:     "the next coat, from the dish if it is still clear",
	},
	{
		ID: "medium", Pour: PourReady, Base: "medium", With: "water", Closed: Never,
		Lines: []Line{
			{Says: "Stir it gently: bubbles become pinholes."},
			{Says: "Pour {base} into a clean pot. Do not thin it."},
		},
		TooThick: "Leave it as it is: a thinned medium does not work.",
		TooThin:  "Shake the can well; if it stays thin it has gone off.",
		Left:     "the next piece; never back into the can",
	},
	{
		ID: "stain", Pour: PourReady, Base: "stain", With: "thinner", Closed: Never,
		Lines: []Line{
			{Says: "Stir it well, and again every few minutes: the colour sinks."},
			{Says: "Pour {base} into a shallow dish, enough for the whole face at once: two pots seldom match."},
			{Says: "Stir in {with}, as its label says.", When: WhenThinned},
		},
		TooThick: "Thin it with what the label names, a little at a time.",
		TooThin:  "Let it dry and lay a second coat.",
		Left:     "touching up, in a closed jar with the date",
	},
}

// MixingNamed returns the way of mixing with an id; nil if there is none.
func MixingNamed(id string) *MixingRow {
	for i := range Mixings {
		if Mixings[i].ID == id {
			return &Mixings[i]
		}
	}
	return nil
}

// HomeMadeRow is a recipe for a matt paint from emulsion: parts by volume to so many parts of emulsion.
type HomeMadeRow struct {
	ID, Name string
	Filler   string // within a sentence
	// Parts of filler and of water to Emulsion parts of emulsion.
	FillerParts, Water, Emulsion float64
	// Bulk is what a volume of the dry filler adds to the pot once it is wet. Working default.
	Bulk float64
	// Life is how many hours it can be used; Never while it keeps as emulsion does.
	Life float64
	Like string // what the paint is like
	// Gritty tells that it has grains that no filter takes out, and Foams that it is refused, with the reason.
	Gritty bool
	Foams  string
}

// HomeMade are the recipes; the first is taken where none is named.
var HomeMade = []HomeMadeRow{
	{ID: "carbonate", Name: "With calcium carbonate", Filler: "calcium carbonate", FillerParts: 1, Water: .5, Emulsion: 2, Bulk: .4, Life: 24,
		Like: "smooth, the least matt of them; covers weakly, so count on one coat more"},
	{ID: "plaster", Name: "With plaster of Paris", Filler: "plaster of Paris", FillerParts: 1, Water: 1, Emulsion: 3, Bulk: .4, Life: 3, Gritty: true,
		Like: "the chalkiest; gritty, shows brush marks, and sets in the pot within hours"},
	{ID: "baking_powder", Name: "With baking powder", Filler: "baking powder", FillerParts: 1, Water: .5, Emulsion: 3, Bulk: .5, Life: 2, Gritty: true,
		Like:  "foams, and sets coarse",
		Foams: "Baking powder foams in the pot, sets coarse, and draws damp in the finished coat: no recipe for furniture. Calcium carbonate does what it is meant to do."},
}

// HomeMadeNamed returns the recipe with an id, the usual one for none; nil if there is none of that id.
func HomeMadeNamed(id string) *HomeMadeRow {
	if id == "" {
		return &HomeMade[0]
	}
	for i := range HomeMade {
		if HomeMade[i].ID == id {
			return &HomeMade[i]
		}
	}
	return nil
}

// What glaze is tinted with, in parts of colour to one of medium, and the range in which it still glazes.
// Working defaults.
const (
	UsualTint           = .2
	LeastTint, MostTint = .02, .5
)

// Thinning is a usual way of thinning a paint: water or thinner in per cent of the paint.
type Thinning struct {
	ID, Name string
	Pct      float64
	Methods  []string // the methods that it goes with; none for any
	Cloth    bool     // for cloth, and the others for anything else
	Says     string
}

// Fits tells whether a product is thinned so when it is laid by a method. What is no paint is hardly thinned beyond
// what it allows.
func (t *Thinning) Fits(row *ProductRow, method string, cloth bool) bool {
	const hardly = 20
	switch {
	case row.ThinMax == 0 || row.Role == RoleMedium || t.Cloth != cloth:
		return false
	case len(t.Methods) > 0 && !slices.Contains(t.Methods, method):
		return false
	}
	return row.Role == RolePaint || t.Pct <= max(row.ThinMax, hardly)
}

// Thinnings are usual ways of thinning, by what it is for. Working defaults.
var Thinnings = []Thinning{
	{"none", "As it is", 0, nil, false, "straight from the can"},
	{"brush", "For smooth brushing", 10, []string{"brush", "foam", "pad", "roller"}, false, "brush marks flow out"},
	{"spray", "For the gun", 15, []string{"spray"}, false, "runs off the stick in an unbroken thread"},
	{"wash", "For a wash", 100, []string{"brush", "rag", "foam", "pad"}, false, "the ground shows through"},
	{"cloth_strong", "1 to 1", 100, nil, true, "a strong colour, less supple"},
	{"cloth", "1 to 2", 200, nil, true, "as thin as milk"},
	{"cloth_thin", "1 to 3", 300, nil, true, "a veil; the cloth stays soft"},
}

// WaterRatios are usual ways of mixing powder paint: parts of water to one of powder. Working defaults.
var WaterRatios = []struct {
	ID, Name string
	Ratio    float64
	Says     string
}{
	{"texture", "Thick, for texture", .8, "stands in strokes"},
	{"equal", "Equal parts", 1, "the usual start"},
	{"strong", "Strong colours", 1.5, "flows, and streaks less"},
	{"wash", "Wash", 2, "the ground shows through"},
}

// Tints are usual shares of colour in glaze: parts of colour to one of medium. Working defaults.
var Tints = []struct {
	ID, Name string
	Ratio    float64
	Says     string
}{
	{"veil", "A veil, 1 to 20", .05, "hardly a tone"},
	{"light", "Light, 1 to 10", .1, "a soft tone"},
	{"usual", "Usual, 1 to 5", .2, "a clear tone, easily wiped"},
	{"deep", "Deep, 1 to 2", .5, "sets faster; small sections"},
}

// AdditiveShares are usual shares of bonding additive, by volume, to one of mixed paint. Working defaults.
var AdditiveShares = []struct {
	ID, Name string
	Ratio    float64
	Says     string
}{
	{"none", "None", 0, "it may chip on a slick ground"},
	{"dash", "A dash, 1 to 8", .125, "chips a little"},
	{"half", "Half, 1 to 2", .5, "holds on a keyed ground"},
	{"full", "Full, 1 to 1", 1, "for slick grounds, no chips wanted"},
}

// What the card of a two-part filler says of a ball that is not right, and of a rest.
const (
	FillerTooThick = "It is setting: throw it away. Nothing makes it soft again."
	FillerTooThin  = "It does not set: too little hardener. Dig it out and begin again; more hardener on top does not help."
	FillerNotKept  = "Mixed, it does not keep: let it set and throw it away."
)

// FillerLines are what the card of a two-part filler says. How long it can be worked and when it is sanded follows
// from the warmth.
var FillerLines = []Line{
	{Says: "Gloves and fresh air. Do not breathe what smells."},
	{Says: "Key the place with 80 and blow it out: filler holds on nothing smooth."},
	{Says: "Spread the filler flat on a card, the hardener as a thread across it."},
	{Says: "Fold and press until there is one colour and no streak.", Timer: TimeWhisk, Minutes: 1},
	{Says: "Press it in at once, a little proud. Stop when it tears instead of sliding.", Timer: TimePot},
	{Says: "Wait until a fingernail leaves no mark, then sand with 80, 120 and 180.", Timer: TimeSand},
	{Says: "Mix the next ball only when this one is in."},
}
