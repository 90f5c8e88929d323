package craft

// EffectCoat names coats of a look by their place in it.
type EffectCoat uint8

// The places: paint before the medium, the medium or glaze itself, the coat that goes on it, every paint of
// the look, the last paint before it is worked, and what seals it.
const (
	EffectUnder EffectCoat = iota
	EffectMedium
	EffectOver
	EffectPaint
	EffectLast
	EffectSeal
)

// EffectCard is what a look changes on the laying card of one of its coats.
type EffectCard struct {
	On EffectCoat
	// Turn tells that Stroke is another than is usual for the product.
	Turn   bool
	Stroke Stroke
	// Why says what the direction is for.
	Why string
	// Load and Tool stand in the place of the product's; empty where they do not change.
	Load string
	Tool string
	// Once tells that there is no second stroke: what is said about joining edges and laying off does not hold.
	Once  bool
	Lines []Line
	// Faults take the place of the product's of the same id, and the others are added.
	Faults []Fault
	Runs   string
}

// BeforeHeat is said before warm air is used.
const BeforeHeat = "Warm air only when all alcohol and solvent is gone: it can catch fire."

// The cards of the effects.
var (
	crackleCards = []EffectCard{
		{
			On: EffectUnder, Turn: true, Stroke: AcrossGrain, Why: "strokes of the ground that run across keep the cracks from all running one way",
			Lines: []Line{{Says: "This colour shows in every crack. Let it dry through: the medium opens a young coat."}},
		},
		{
			On: EffectMedium, Turn: true, Stroke: AlongGrain, Why: "its thickness decides how wide the cracks open",
			Lines: []Line{{Says: "Even: thick places crack wide, thin ones fine, bare ones not at all."}, {Says: "The coat over it goes on inside its window. Have that mixed before you leave."}},
		},
		{
			On: EffectOver, Turn: true, Stroke: AlongGrain, Why: "the cracks open along the stroke", Once: true,
			Tool: "A wide, soft brush, as wide as the part if you have one", Load: "Full: half the bristles, dripping. A thick coat opens wide cracks, a thin one fine ones.",
			Lines: []Line{
				{Says: "One stroke, end to end, thick, and no second one. It begins to crack within a minute."},
				{Says: "The next stroke lies beside the last, hardly touching it."},
				{Says: "One part at a time: finish the part, then leave it alone."},
			},
			Faults: []Fault{
				{"run", "Leave it: a second stroke drags the cracks together.", "Sand it flat with 320 after a day; the place stays without cracks."},
				{"miss", "Leave it bare, or dab, do not stroke.", "Dab the colour in with a small brush when dry."},
				{"lap", "Leave it.", "It shows as a seam in the cracks: shade over it, or do the part again."},
				{"lift", "Wipe the whole part back to the ground with a wet cloth while it is wet, and begin with the medium again.", "Sand it off, medium again."},
			},
		},
		{
			On: EffectSeal, Lines: []Line{{Says: "Roll or dab the first seal on, thin: brushing drags the edges of the cracks."}},
		},
	}
	liftCards = []EffectCard{
		{On: EffectMedium, Lines: []Line{{Says: "Lay the part flat, or run a fan along it: it sags on what stands upright."}}},
		{
			On: EffectOver, Once: true, Turn: true, Stroke: AlongGrain, Why: "it comes away in streaks along the stroke",
			Lines: []Line{{Says: "One even coat, then pull it off in streaks with a rag or a roller while it still moves."}},
		},
	}
	chippyCards = []EffectCard{
		{
			On: EffectPaint, Lines: []Line{
				{Says: "No bonding additive in this pot: it must be able to come off."},
				{Says: "Over a resist that is still tacky, paint at once: its minutes run."},
				{Says: "Thick where it is to chip, thin where it is to stay."},
				{Says: "Warm air only when the alcohol is gone: tacky shellac under hot air can catch fire."},
			},
		},
		{On: EffectSeal, Lines: []Line{{Says: "Vacuum the loose chips first. Wax or oil, no water: it wakes the flaking again."}}},
	}
	distressCards = []EffectCard{
		{On: EffectUnder, Lines: []Line{{Says: "This colour shows where it is worn: lay it with care at edges, rims and handles."}}},
		{On: EffectLast, Lines: []Line{{Says: "Thin at edges and handled places: there it is to wear."}}},
	}
	enamelwareCards = []EffectCard{
		{On: EffectUnder, Lines: []Line{{Says: "The dark base shows at the rims: two full rounds there."}}},
		{
			On: EffectLast, Lines: []Line{{Says: "Thinned so that it lies like glass. Lay it flat or turn it while it levels."}, {Says: "Draw it thin over rims and edges."}},
			Faults: []Fault{{"streak", "Leave it: it levels by itself.", "Sand with 400, one more thinned coat."}},
		},
	}
	glazeCards = []EffectCard{
		{On: EffectUnder, Lines: []Line{{Says: "Every brush mark of this coat catches glaze: lay it smooth."}}},
		{On: EffectMedium, Turn: true, Stroke: AlongGrain, Why: "what stays lies in the grain and in the recesses"},
		{On: EffectSeal, Lines: []Line{{Says: "A day after the glaze if it is brushed, overnight if it is sprayed. One light stroke: a second drags the glaze."}}},
	}
	drawnGrainCards = []EffectCard{
		{On: EffectUnder, Lines: []Line{{Says: "The colour of the light grain. Leave it unsealed: the glaze is to grab."}}},
		{
			On: EffectMedium, Turn: true, Stroke: AlongGrain, Why: "the dry brush draws the grain in it", Once: true,
			Tool: "A brush to lay it on, and a dry, stiff one held short to draw it", Load: "Generous: it must stay wet under the dry brush.",
			Lines: []Line{
				{Says: "One board at a time, from joint to joint."},
				{Says: "Draw the dry brush through it in one pull, end to end, with a slight tremble. Wipe the brush after each pull."},
				{Says: "Rails and stiles meet at a sharp line: mask or cut it with a card."},
			},
			Faults: []Fault{{"grab", "That is meant here: draw on, do not wipe.", "Another glaze over it, drawn again."}},
		},
	}
	limedCards = []EffectCard{
		{On: EffectMedium, Turn: true, Stroke: Circles, Why: "the white must go into the pores", Lines: []Line{{Says: "Across the grain last, so that it stays in the pores, and wipe with a cloth, not along them."}, {Says: "Clear wax on the cloth takes the white off the flats and leaves it in the pores."}}},
	}
	washCards = []EffectCard{
		{On: EffectLast, Turn: true, Stroke: AlongGrain, Why: "what stays lies in the grain", Lines: []Line{{Says: "Brush it on, one section, and wipe it back at once with a damp cloth, turned at every wipe."}, {Says: "A veil: a second one is easier than taking one off."}},
			Faults: []Fault{{"grab", "Wet the section with clean water and wipe.", "A thin wash in the ground's colour over it."}}},
	}
	clothCards = []EffectCard{
		{On: EffectSeal, Turn: true, Stroke: Circles, Why: "it is worked into the weave", Lines: []Line{{Says: "Clear wax rubbed in thinly by hand and buffed with a cloth until nothing comes off on white paper."}}},
	}
	marbleCards = []EffectCard{
		{On: EffectUnder, Lines: []Line{{Says: "Level and smooth, sanded with 400: marble is never brushed."}}},
		{On: EffectSeal, Lines: []Line{{Says: "Three coats, sanded with 400 in between: stone is smooth to the hand."}}},
	}
	gildCards = []EffectCard{
		{On: EffectUnder, Lines: []Line{{Says: "Smooth as glass: leaf shows every grain."}}},
		{On: EffectSeal, Lines: []Line{{Says: "Flow it on, do not brush: a stiff brush scratches leaf."}}},
	}
	blendCards = []EffectCard{
		{On: EffectLast, Turn: true, Stroke: AnyWay, Why: "the colours are worked into each other", Lines: []Line{{Says: "All colours mixed and open before the first stroke, a mist bottle at hand."}, {Says: "One section at a time; mist, blend, leave before it turns to mud."}}},
	}
)
