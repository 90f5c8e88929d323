package craft

// Stroke is the direction in which a coat is laid.
type Stroke uint8

// The directions.
const (
	AlongGrain Stroke = iota // with the grain, or the long way of a part
	AcrossGrain
	AnyWay
	Dabbed
	Circles
)

// Strokes names the directions, indexed by Stroke.
var Strokes = [...]struct{ ID, Says string }{
	AlongGrain: {"along", "with the grain, the long way of each part"}, AcrossGrain: {"across", "across the grain"},
	AnyWay: {"any", "in any direction, and last the long way"}, Dabbed: {"dab", "dabbed, not drawn"},
	Circles: {"circles", "in small circles, and last with the grain"},
}

// strokesOn are the words for directions on materials without a grain of wood, by their group; the empty group is for
// all that have none of their own.
var strokesOn = map[Group]map[Stroke]string{
	"": {
		AlongGrain: "the long way of each part", AcrossGrain: "across, the short way of each part", Circles: "in small circles, and last the long way",
	},
	GroupCloth: {AlongGrain: "along the weave, from seam to seam", AcrossGrain: "across the weave, from seam to seam", Circles: "in small circles, into the weave"},
	GroupCane: {
		AlongGrain: "along each strand, then across it from the other side", AcrossGrain: "across the strands, then along them", AnyWay: "along each strand, then across it from the other side",
	},
}

// What is said of strokes that are no strokes of a brush.
const (
	SprayStrokes = "in straight passes, each half over the last, begun and ended beside the piece"
	TurnedToo    = "; turned parts with short dabs all round"
	TurnedOnly   = "short dabbing strokes all round, hollows first: drawn strokes run off turned parts"
)

// On words the direction on a material, within a sentence.
func (s Stroke) On(g Group) string {
	if g == GroupWood {
		return Strokes[s].Says
	}
	for _, words := range []map[Stroke]string{strokesOn[g], strokesOn[""]} {
		if w := words[s]; w != "" {
			return w
		}
	}
	return Strokes[s].Says
}

// Protects are what is covered first.
var Protects = []Line{
	{Says: "Cover the floor and everything within {3 m}: the mist settles there.", When: WhenSprayed},
	{Says: "Cover the floor under the piece; stand it on blocks, so that the lower edge is free.", When: ByHand},
}

// usualOrders are the order in which a face is painted where no parts are known, by the group of its material; the
// empty group is for all others.
var usualOrders = map[Group][]string{
	"":           {"What is below, behind and inside first.", "Mouldings and edges before the flats beside them.", "The top last. Look at meeting edges for drips after each part."},
	GroupCloth:   {"The back first, then the sides, the seat last.", "Seams and piping before the flats beside them.", "From seam to seam, without a stop."},
	GroupCane:    {"The inside first, then the outside.", "Frame and binding before the weave.", "Turn it, and look along each strand for bare sides."},
	GroupGlass:   {"The rim and the inside of it first.", "Then the outside, from the rim down.", "Turn the piece, not yourself."},
	GroupMineral: {"The rim and the inside of it first.", "Then the outside, from the rim down.", "Turn the piece, not yourself."},
}

// UsualOrder is the order in which a face of a material is painted where no parts are known.
func UsualOrder(g Group) []string {
	if o := usualOrders[g]; o != nil {
		return o
	}
	return usualOrders[""]
}

// ToolRow is what a coat is laid with, by a method.
type ToolRow struct {
	Method    string
	Name, Why string
	// Load is how full it is.
	Load string
}

// Fault is something that goes wrong with a coat: what to do now, while it is wet, and once it is dry.
type Fault struct {
	ID, Wet, Dry string
}

// FaultNames are the faults, by their ids.
var FaultNames = map[string]string{
	"run": "A run", "hair": "A hair or a bristle", "lump": "A lump", "lap": "A lap mark", "foam": "Bubbles or foam",
	"streak": "Streaks", "grab": "It grabs", "tide": "A tide mark", "stiff": "It dries stiff", "spit": "A splutter",
	"peel": "Orange peel", "rough": "Rough and dusty", "crater": "Craters", "cloud": "It goes milky", "wrinkle": "It wrinkles", "miss": "A missed place", "excess": "Too much left on", "lift": "The ground lifts",
}

// Gun is how a spray gun is set. Working defaults for a gravity gun; its own booklet decides.
type Gun struct {
	TipMM, Bar float64
	ThinPct    float64
	Passes     string
}

// LayingRow is how the coats of a kind are laid: what the laying card says.
type LayingRow struct {
	ID     string
	Tools  []ToolRow
	Stroke Stroke
	// Edge is how many hours an edge stays wet enough to be joined, at 23 C and 50 %; 0 where none is joined.
	Edge float64
	// MostM2 is the largest section at once, in square metres, whatever the edge; 0 for none.
	MostM2 float64
	// WipeFrom and WipeTo are the seconds after which it is wiped; 0 where it is not.
	WipeFrom, WipeTo float64
	Cloth            string // which cloth, and how it is held
	Little           string // how little is enough
	Before           []Line // before the first stroke
	Lines            []Line // while it is laid
	Runs             string // where it gathers
	Faults           []Fault
	Clean            string // the tool
	Keep             string // the tool, between two coats
	Waste            string // rags, filters and rests
	Gun              Gun    // zero where it is not sprayed
	// Buff is how many hours later it is buffed; 0 where it is not.
	Buff float64
}

// Tools that several rows have.
var (
	flatSynthetic = ToolRow{"brush", "A flat synthetic brush, {50 mm}; a {25 mm} one for mouldings", "natural bristle swells in water and goes limp", "Dip a third of the bristles and tap both sides; do not wipe it dry on the rim."}
	flatNatural   = ToolRow{"brush", "A flat brush of natural bristle, {50 mm}", "it carries oil paint and lets it flow; solvent takes the shape out of many synthetic ones", "Dip a third of the bristles and touch one side to the rim."}
	smallRoller   = ToolRow{"roller", "A short-pile roller, {100 mm}, and a brush to lay off", "it lays large flats evenly; a long pile leaves a texture", "Roll it out on the tray until it no longer drips; then lay off with the tip of a nearly dry brush."}
	foamRoller    = ToolRow{"foam", "A foam brush or fine sponge", "it leaves no bristle marks; thrown away after", "Press it half full; it drips at the edges when it is more."}
	anyGun        = ToolRow{"spray", "A gravity or turbine gun", "no brush marks, and it reaches into carving and cane", "Fill the cup half: a full one is heavy and spits when tilted."}
	softPad       = ToolRow{"pad", "A flat paint pad", "thin, even coats on flats", "Touch the pad to the paint, do not sink it."}
)

// Faults that several rows have.
var (
	filmRun  = Fault{"run", "Catch it with an almost dry brush, upwards, within a minute or two; once it drags, leave it.", "Let it harden right through, slice it flat with a blade, sand flush with 320, and touch in."}
	filmHair = Fault{"hair", "Lift it out with the corner of the brush or tweezers, and lay off once.", "Sand it out with 320 and touch in; the next coat hides the place."}
	filmLump = Fault{"lump", "Lift it off with a card, strain the pot, go on.", "Sand flush with 320, dust off."}
	filmLap  = Fault{"lap", "Join it only while it is shiny wet. After that leave it.", "Sand the ridge level with 320; the next coat is laid in smaller sections."}
	filmFoam = Fault{"foam", "Lay off once more, lightly, with the tip of an empty brush. Slower strokes make fewer bubbles.", "Sand off the pinholes with 320 before the next coat, or they come through."}
)

// Layings are how coats are laid. Figures are working defaults.
var Layings = []LayingRow{
	{
		ID: "powder", Stroke: AlongGrain, Edge: .07,
		Tools: []ToolRow{
			{"brush", "A soft, full synthetic brush, {50 mm}; a small round one for mouldings", "thin paint needs bristles that hold a lot of it", "Dip half the bristles and let it drip once: it is as thin as cream, and a dry brush drags."},
			anyGun,
		},
		Before: []Line{{Says: "If it feels rough, smooth it with a brown paper bag or worn 400, and dust it off.", When: WhenLater}},
		Lines: []Line{
			{Says: "Lay it on in one direction and leave it. It is thin: the first coat looks streaky, and that is right.", When: WhenBrushed},
			{Says: "Start each stroke in the dry and end it in the wet, and do not come back to what was laid before."},
			{Says: "Stir the pot at every section."},
			{Says: "It is warm: it dries on the brush. Work in the cool of the day, in smaller sections.", When: WhenWarm},
			{Says: "Bare wood soaks up the first coat: dip more often there.", When: OnWood},
		},
		Runs: "below mouldings, at the lower edge and in the corners of panels: it is as thin as milk. Wipe there with an empty brush after each part.",
		Faults: []Fault{
			{"run", "Draw it out downwards with an empty brush at once.", "Rub it flat with a damp cloth if it is younger than six hours; after that sand with 320."},
			{"lap", "Leave it: it gets worse with every stroke.", "It mostly goes under the next coat. Lay that one in the same direction, faster."},
			{"lump", "Take it off with a fingertip and strain the pot again.", "Sand it off with 320: undissolved powder leaves a bright spot."},
			{"foam", "Brush it out at once, lightly. Let the pot stand and skim it.", "The craters show under wax: sand with 320 and lay the next coat thin."},
			{"hair", "Lift it off with the corner of the brush.", "Rub it out with a damp fingertip, touch in."},
		},
		Clean: "With water at once; it sets like glue in the ferrule.",
		Keep:  "In water while the coat dries, shaken out before the next.",
		Waste: "Let the rest dry out and put it in the bin. The alkaline washing water goes to the drain with plenty of water, not on plants.",
		Gun:   Gun{1.8, 1.5, 0, "two thin passes crossed, {20 cm} off"},
	},
	{
		ID: "matt", Stroke: AnyWay, Edge: .12,
		Tools:  []ToolRow{{"brush", "An oval or flat synthetic brush, {40 to 50 mm}", "matt paint is thick, and a full round head spreads it without a row of lines", "Dip a third; if it drags, dampen the brush rather than thinning the pot."}, smallRoller, anyGun, foamRoller, softPad},
		Before: []Line{{Says: "Rub down what feels rough with 320, and dust it off.", When: WhenLater}},
		Lines: []Line{
			{Says: "Spread it out, then lay it off the long way. It dries fast: do not go back after a minute or two."},
			{Says: "Where it drags, dampen the brush.", When: WhenBrushed},
		},
		Runs: "on edges and outer corners, where the brush wipes off on them. Look there after each part.",
		Faults: []Fault{
			{"run", "Brush it out while it shines.", "Sand it flat with 240: it is soft and sands to powder. Touch in."},
			{"lap", "Dampen the brush and work the edge out, within a minute or two.", "Sand it level with 320; the next coat takes it."},
			{"hair", "Lift it out with the corner of the brush.", "Sand it out with 320, touch in."},
			{"lump", "Lift it off, strain the pot.", "Sand it off with 320."},
			{"streak", "Lay it off once with a damp brush.", "Sand lightly with 320 the way of the streaks, one more coat."},
		},
		Clean: "With water and soap, before it dries.",
		Keep:  "In a closed bag, or wrapped in film, until the next coat today.",
		Waste: "Dry it out in the pot, then into the bin. Not into the drain.",
		Gun:   Gun{1.8, 2, 15, "two passes crossed, {20 cm} off"},
	},
	{
		ID: "enamel_wb", Stroke: AlongGrain, Edge: .17,
		Tools:  []ToolRow{flatSynthetic, {"roller", "A fine foam or velour roller, {100 mm}, and a soft brush to lay off", "no orange peel, and an even film on flats", "Roll it out until it no longer drips; lay off with the bare tip of the brush."}, anyGun, foamRoller, softPad},
		Before: []Line{{Says: "Sand lightly with 320 to 400, vacuum and wipe.", When: WhenLater}},
		Lines: []Line{
			{Says: "Lay on, spread across, lay off the long way from the dry into the wet. Three strokes, then leave it: it levels by itself."},
			{Says: "Keep the last edge wet: finish one part before the next."},
			{Says: "It stands upright: thinner coats, and look back after five minutes.", When: OnUpright},
		},
		Runs: "at the lower edge, in the corners of panels and below mouldings, five minutes after you have gone on.",
		Faults: []Fault{
			filmRun, filmHair, filmLump, filmLap, filmFoam,
			{"miss", "Touch it in within five minutes, then not at all.", "The next coat takes it; spots touched in dry show in raking light."},
		},
		Clean: "With water and soap, at once, and comb it.",
		Keep:  "Wrapped in film until the next coat; overnight washed out.",
		Waste: "Dry the rest out in the pot and put it in the bin. Not into the drain.",
		Gun:   Gun{1.4, 2, 10, "one light pass, one wet pass, {15 to 20 cm} off, each half over the last"},
	},
	{
		ID: "enamel_oil", Stroke: AlongGrain, Edge: .5,
		Tools: []ToolRow{flatNatural, {"roller", "A mohair or solvent-proof foam roller, and a brush to lay off", "even on flats", "Roll it out well, lay off at once."}, anyGun, foamRoller, softPad},
		Before: []Line{
			{Says: "Air through the room on two sides, no flame, no pilot light."},
			{Says: "Sand with 320, and wipe with a cloth damp with its thinner.", When: WhenLater},
			{Says: "Damp the floor: dust settles for hours on a film that takes hours."},
		},
		Lines: []Line{
			{Says: "Lay on, cross it, lay off the long way with the tip of the brush. Thin: a thick coat wrinkles and stays soft."},
			{Says: "Look back after ten minutes: it runs late."},
		},
		Runs: "late, up to half an hour after: at lower edges, round knobs and in corners.",
		Faults: []Fault{
			{"run", "Lift it with an empty brush within ten minutes.", "Wait until it is hard, days rather than hours; slice and sand flush with 320."},
			{"wrinkle", "Nothing helps while wet: leave it.", "It was too thick. Let it harden for a week, sand it off, two thin coats."},
			filmHair, filmLap,
			{"lump", "Lift it off with a card; strain the pot through a stocking.", "Sand flush with 320."},
		},
		Clean: "With its thinner, then with soap and water.",
		Keep:  "Hung in its thinner, not standing on the bristles.",
		Waste: "Rags and filters spread out flat outdoors until dry, or under water in a closed metal tin. Thinner and rests to the collecting point.",
		Gun:   Gun{1.4, 2.2, 15, "one mist, one wet pass, {20 cm} off"},
	},
	{
		ID: "primer_wb", Stroke: AlongGrain, Edge: .15,
		Tools:  []ToolRow{flatSynthetic, smallRoller, anyGun, foamRoller, softPad},
		Before: []Line{{Says: "Rub off nibs with 320.", When: WhenLater}},
		Lines: []Line{
			{Says: "Thin and complete: it must reach every corner, it need not look even."},
			{Says: "Work it into end grain, joints and scratches."},
			{Says: "On a slick face do not go back: it rolls up under the brush.", When: OnFilm},
			{Says: "On glass one direction, one pass.", When: OnGlass},
		},
		Runs:   "on edges and below mouldings; on slick faces everywhere. A run in the primer shows through every coat above.",
		Faults: []Fault{filmRun, filmHair, filmLump, {"lap", "Leave it.", "Sand the ridge with 240: it shows through the paint."}, {"lift", "It draws back from a spot: grease or silicone. Stop there.", "Clean the spot with white spirit, a coat of clear shellac, then primer again."}},
		Clean:  "With water and soap at once: it is made to hold on everything, the brush too.",
		Keep:   "In a closed bag for the second coat today.",
		Waste:  "Dry it out, then into the bin.",
		Gun:    Gun{1.6, 2, 10, "one even pass, {20 cm} off"},
	},
	{
		ID: "primer_solvent", Stroke: AlongGrain, Edge: .25,
		Tools:  []ToolRow{flatNatural, {"roller", "A solvent-proof short-pile roller", "quick on flats", "Roll it out well."}, anyGun},
		Before: []Line{{Says: "Air through the room on two sides, no flame. Gloves, and the mask that the label asks for."}},
		Lines: []Line{
			{Says: "Thin and complete, into every corner, seam and rivet."},
			{Says: "Bright metal first, within the hour of cleaning it: it rusts while you wait.", When: OnMetal},
			{Says: "Spots and knots first, {25 mm} beyond the mark, feathered out.", When: OnWood},
		},
		Runs:   "at lower edges, round bolts and in folds.",
		Faults: []Fault{filmRun, filmHair, {"lap", "Leave it.", "Sand with 240."}, {"miss", "Touch it in now: a bare pinhole rusts or bleeds through.", "Touch it in before the paint."}},
		Clean:  "With its thinner.",
		Keep:   "Hung in its thinner.",
		Waste:  "Rags flat outdoors to dry, or under water in a closed tin; rests to the collecting point.",
		Gun:    Gun{1.4, 2.2, 10, "one even pass, {20 cm} off"},
	},
	{
		ID: "epoxy", Stroke: AlongGrain, Edge: .3,
		Tools:  []ToolRow{{"brush", "A cheap flat brush of natural bristle, one for each pot", "it does not come clean again", "A third, spread thin."}, {"roller", "A solvent-proof foam roller, one for each pot", "even on flats", "Roll it out well."}, anyGun},
		Before: []Line{{Says: "Gloves to the elbow, eye protection, the mask of the data sheet; nobody else in the room."}},
		Lines: []Line{
			{Says: "Begin at once: the pot life runs."},
			{Says: "Thin, into every seam. Go round edges a second time: it draws back from them."},
		},
		Runs:   "at lower edges and in seams, for the first quarter of an hour.",
		Faults: []Fault{{"run", "Draw it out now.", "Grind it flat with 120: it is hard."}, {"miss", "Touch it in while this pot lasts.", "Touch it in with the next pot, within its window."}, {"lump", "That is setting paint: stop, the pot is over.", "Sand with 180, next coat."}},
		Clean:  "Throw the brush away hard.",
		Keep:   "Not at all: one brush, one pot.",
		Waste:  "Let rests harden outdoors, away from anything that burns; a deep rest can smoke.",
		Gun:    Gun{1.6, 2.2, 10, "one mist, one wet pass, {20 cm} off; the data sheet decides on the mask"},
	},
	{
		ID: "promoter", Stroke: AlongGrain,
		Tools:  []ToolRow{{"rag", "A lint-free cloth, folded", "it is thinner than water: only a film is wanted", "Damp, not dripping."}, anyGun},
		Before: []Line{{Says: "Have the next coat mixed and stirred: it must follow within the hour."}},
		Lines: []Line{
			{Says: "Wipe it on in one pass, one direction. Where it was, do not wipe again."},
			{Says: "Turn the cloth at every part."},
		},
		Runs:   "nowhere, if it is wiped thin.",
		Faults: []Fault{{"miss", "Wipe it in now.", "Once dry you cannot see it: go over the part again before the next coat."}, {"streak", "Leave it.", "It does not matter under paint."}},
		Clean:  "Throw the cloth away dry.", Keep: "Not at all.", Waste: "The cloth flat outdoors to dry.",
		Gun: Gun{1.2, 2, 0, "one mist, {25 cm} off"},
	},
	{
		ID: "shellac", Stroke: AlongGrain, Edge: .03, MostM2: .5,
		Tools: []ToolRow{
			{"brush", "A soft natural brush, or a foam brush that is thrown away", "it flows fast and dries behind the brush", "A third, pressed out on the rim: one full stroke, not more."},
			{"pad", "A lint-free cloth round a ball of wool, palm size", "the thinnest coats, without marks", "Damp, pressed out on paper."}, anyGun,
		},
		Before: []Line{
			{Says: "Windows open, no flame, no heater in the room."},
			{Says: "Nothing to sand between coats but nibs: the next coat melts into this one.", When: WhenLater},
		},
		Lines: []Line{
			{Says: "Knots and spots first, {25 mm} beyond the mark, feathered.", When: OnWood},
			{Says: "One stroke beside the other, each a little over the last. Never go back: it dissolves what lies there."},
			{Says: "Fast, thin, and two coats rather than one thick one."},
		},
		Runs: "at edges and round mouldings, at once.",
		Faults: []Fault{
			{"run", "Leave it. Going back tears it.", "Slice it flat, or rub it down with 320 and a little alcohol; lay the next coat over."},
			{"lap", "Leave it.", "Rub once along it with a cloth damp with alcohol, or sand with 320."},
			{"cloud", "Stop: the air is too damp.", "Warm, dry air, then a light coat of alcohol over it clears it."},
			{"hair", "Leave it.", "Lift it out with a blade, touch in: the next coat melts it level."},
		},
		Clean: "With alcohol, or with household ammonia in water outdoors; never near bleach.",
		Keep:  "In a closed bag: the bristles may go hard, and soften again in the jar.",
		Waste: "Rags outdoors until the alcohol is gone.",
		Gun:   Gun{1.2, 1.8, 10, "one light wet pass, {15 cm} off"},
	},
	{
		ID: "clear_wb", Stroke: AlongGrain, Edge: .1,
		Tools:  []ToolRow{{"brush", "A soft, fine synthetic brush, {60 mm}, kept for clears", "one speck of old paint shows", "Dip a third and touch one side to the rim."}, foamRoller, anyGun, softPad},
		Before: []Line{{Says: "Sand with 400.", When: WhenLater}, {Says: "Vacuum, then wipe with a tack cloth. Close the window to dust, not to air."}},
		Lines: []Line{
			{Says: "Lay it on full and even, the long way, and lay off once. It looks milky while wet."},
			{Says: "Two or three strokes, then leave it: later ones leave ridges and bubbles."},
			{Says: "Look along it against the light after each part."},
		},
		Runs: "at ends and lower edges, and in the corners of panels, where it stays milky.",
		Faults: []Fault{
			{"foam", "Brush out white foam and milky drops at once, with the tip of an empty brush.", "Sand with 400 until it is matt all over, next coat."},
			filmRun, filmHair, filmLap,
			{"cloud", "It clears as it dries. Leave it.", "Still milky next day: it was too thick or too cold. Warm, dry air; if it stays, sand it back."},
		},
		Clean: "With water and soap at once, and comb it.",
		Keep:  "In film for the second coat today.",
		Waste: "Dry it out, then into the bin.",
		Gun:   Gun{1.3, 2, 5, "one light pass, one wet pass, {15 cm} off"},
	},
	{
		ID: "clear_oil", Stroke: AlongGrain, Edge: .4,
		Tools:  []ToolRow{flatNatural, anyGun},
		Before: []Line{{Says: "Air on two sides, no flame."}, {Says: "Sand with 320, vacuum, wipe with a cloth damp with white spirit.", When: WhenLater}, {Says: "Damp the floor against dust."}},
		Lines: []Line{
			{Says: "Flow it on, cross it once, lay off the long way with the tip. Thin."},
			{Says: "Never shake or stir bubbles into it."},
		},
		Runs:   "late, at lower edges and round hardware.",
		Faults: []Fault{{"run", "Lift it within ten minutes with an empty brush.", "Let it harden a week, slice, sand with 400, next coat."}, filmHair, filmFoam, {"wrinkle", "Leave it.", "It was too thick: sand it back when hard."}},
		Clean:  "With white spirit, then soap and water.",
		Keep:   "Hung in white spirit.",
		Waste:  "Rags flat outdoors to dry, or under water in a closed metal tin: they can heat by themselves.",
		Gun:    Gun{1.3, 2.2, 10, "one light pass, one wet pass"},
	},
	{
		ID: "wiped_oil", Stroke: AlongGrain, MostM2: 1, WipeFrom: 900, WipeTo: 1500,
		Tools:  []ToolRow{{"rag", "A lint-free cotton cloth, folded to a pad", "it carries a little and leaves no bristles", "Damp through, not dripping."}, {"brush", "A cheap flat brush to lay it on, a cloth to take it off", "quick in carving", "Half full."}},
		Cloth:  "Clean, lint-free cotton; a fresh one to take off, turned at every part.",
		Little: "What is not absorbed by then comes off again. A film that stays on top stays sticky.",
		Lines: []Line{
			{Says: "Lay it on wet, where it goes dull add more."},
			{Says: "Then leave it.", Timer: TimeWipe, Minutes: 15},
			{Says: "Wipe all of it off, with the grain, until the cloth slides."},
			{Says: "Look after an hour: what sweats out of the pores comes off as well."},
		},
		Runs:   "in carving, corners and joints: wipe there with a brush that is dry.",
		Faults: []Fault{{"excess", "Wipe on a little more, which loosens it, and take all off.", "Rub down with a cloth damp with white spirit, or with 400 and fresh oil."}, {"lap", "None, if it is wiped off.", "Another thin coat."}},
		Clean:  "The brush with white spirit; the cloth is not kept.",
		Keep:   "Not at all.",
		Waste:  "Now, before anything else.",
	},
	{
		ID: "wiping_varnish", Stroke: AlongGrain, MostM2: 1,
		Tools:  []ToolRow{{"rag", "A lint-free cotton cloth, folded to a pad", "thin coats without bristles", "Damp, pressed out."}, flatNatural},
		Cloth:  "Lint-free cotton, no seams.",
		Little: "As thin as a breath. It builds with coats, not with thickness.",
		Before: []Line{{Says: "Rub down with 400 and wipe off the dust.", When: WhenLater}},
		Lines: []Line{
			{Says: "Wipe it on with the grain, end to end, and leave it."},
		},
		Runs:   "in corners, when the cloth is too wet.",
		Faults: []Fault{{"excess", "Wipe it off with the dry side of the cloth.", "Rub down with 400, next coat."}, filmHair, {"streak", "Leave it.", "Rub down with 400, next coat thinner."}},
		Clean:  "The cloth is not kept.", Keep: "The cloth in a closed jar for the second coat today.",
		Waste: "Now, before anything else.",
	},
	{
		ID: "wax", Stroke: Circles, MostM2: .3, Buff: .33,
		Tools:  []ToolRow{{"rag", "A lint-free cloth, or a round wax brush for carving and matt paint", "a brush pushes it into texture, a cloth leaves less on top", "A walnut of wax in the cloth, kneaded soft."}, {"brush", "A round wax brush", "it reaches into carving and grain", "The tips only."}},
		Cloth:  "One lint-free cloth to lay on, one to take off, one clean to buff.",
		Little: "A thin film that you feel rather than see. What you see is too much.",
		Lines: []Line{
			{Says: "Work it in, in small circles, a hand's breadth after the other."},
			{Says: "Take the rest off at once with the grain, with a clean cloth."},
			{Says: "A finger drawn over it leaves no trace: enough is off."},
			{Says: "Leave it, then buff with a clean soft cloth until it glows.", Timer: TimeBuff, Minutes: 20},
		},
		Runs: "nowhere; it sits in corners and mouldings and catches dust there. Brush it out.",
		Faults: []Fault{
			{"streak", "More wax over it softens it; take all of it off.", "A little wax on the cloth, rub, take off, buff."},
			{"excess", "Take it off with a clean cloth.", "It stays sticky: wipe with a cloth damp with white spirit, wax again thinly."},
			{"grab", "Dark or white wax on bare matt paint grabs: rub clear wax over it at once and wipe both off.", "Clear wax dissolves it for a day or two; after that it stays, or is painted over with shellac between."},
		},
		Clean: "The brush with white spirit, then soap.",
		Keep:  "The wax brush wrapped in foil for the next coat.",
		Waste: "Cloths with solvent wax flat outdoors to dry.",
	},
	{
		ID: "glaze", Stroke: AlongGrain, MostM2: .25, WipeFrom: 20, WipeTo: 50,
		Tools:  []ToolRow{{"brush", "A cheap flat brush to lay it on, a soft dry one to soften", "it is worked, not painted", "The tips only."}, {"rag", "A lint-free cloth, bunched", "it lays on and takes off", "Damp with glaze."}},
		Cloth:  "Old cotton or cheesecloth, lint-free, turned at every wipe. Have ten ready: a full one smears.",
		Little: "A veil. What should stay in the recesses is laid there, not everywhere.",
		Before: []Line{{Says: "Decide where each section ends: at a moulding, an edge, a corner. Never in the middle of a face."}},
		Lines: []Line{
			{Says: "Lay it on one small section, into the recesses first."},
			{Says: "Wait, counting.", Timer: TimeWipe, Minutes: .5},
			{Says: "Wipe with the grain, flats first, leaving it in the recesses. Then soften with the dry brush."},
			{Says: "Leave it. Wet over set glaze lifts it: not one stroke more."},
			{Says: "Judge it dry, from {2 m}."},
		},
		Runs: "in corners and below mouldings, darker as it dries. Take it out with a dry brush.",
		Faults: []Fault{
			{"lap", "Wet its edge with clear medium and soften it, within the minute.", "Tone it back: a glaze in the colour of the ground over both, or repaint."},
			{"grab", "The ground absorbs it: wipe the whole section off with a damp cloth now.", "Seal with a clear coat, a day, then glaze again; too dark: glaze with the ground's colour."},
			{"lift", "Stop. Leave that place.", "A day, then touch it in with a nearly dry brush."},
			{"streak", "Soften across, then along, with a dry brush.", "Another glaze after a day."},
		},
		Clean: "With water and soap at once, or with what its label names.",
		Keep:  "The softening brush is washed as soon as it turns sticky.",
		Waste: "Cloths dried flat, then into the bin.",
	},
	{
		ID: "medium", Stroke: AlongGrain, Edge: .1,
		Tools: []ToolRow{{"brush", "A flat synthetic brush, {40 mm}", "an even layer decides how it cracks or lifts", "A third of the bristles."}, {"foam", "A foam brush", "very even on flats", "Half full."}},
		Lines: []Line{
			{Says: "Even and complete, in one go. Where there is none, nothing happens later."},
			{Says: "Do not go back into it: it pulls strings."},
		},
		Runs:   "at lower edges: lay the part flat if it can be.",
		Faults: []Fault{{"run", "Draw it out at once.", "Wash it off with warm water and lay it again."}, {"miss", "Touch it in now.", "Lay a second thin coat, and wait again."}},
		Clean:  "With warm water at once.", Keep: "In water.", Waste: "Into the bin, dried out.",
	},
	{
		ID: "size", Stroke: AlongGrain, Edge: .1,
		Tools:  []ToolRow{{"brush", "A soft synthetic brush, {20 mm}, kept for size", "thin and without a single mark: leaf shows every one", "The tips, wiped on the rim."}},
		Lines:  []Line{{Says: "As thin as it goes, one direction, no puddles."}, {Says: "Wait until a knuckle drawn over it squeaks and comes away clean: then the leaf takes.", Timer: TimeTack}},
		Runs:   "in recesses: a puddle never comes to tack and drowns the leaf.",
		Faults: []Fault{{"miss", "Touch it in now.", "The leaf does not hold there: size the spot again and patch it."}, {"excess", "Draw it out with a dry brush.", "Let it dry, wash it off, size again."}},
		Clean:  "With water at once.", Keep: "In water.", Waste: "Into the bin.",
	},
	{
		ID: "stain", Stroke: AlongGrain, Edge: .05, WipeFrom: 60, WipeTo: 180,
		Tools:  []ToolRow{{"brush", "A wide flat brush, or a sponge", "the whole face must be wet at once", "Full: it is flooded on."}, {"rag", "A lint-free cloth", "to take the rest off", "Dry."}},
		Cloth:  "Lint-free cotton, turned often.",
		Little: "Flood it, then take off all that is not absorbed.",
		Lines: []Line{
			{Says: "A whole face at a time, from the bottom up, with the grain."},
			{Says: "Leave it.", Timer: TimeWipe, Minutes: 2},
			{Says: "Wipe with the grain, evenly, end to end."},
		},
		Runs:   "in drops that run down and stain bare wood at once: work from the bottom up.",
		Faults: []Fault{{"lap", "Wet both sides of it again and wipe.", "A second coat over the whole face evens it; otherwise sand the face."}, {"streak", "Wipe it again with a cloth damp with its thinner.", "A second coat, thinned."}},
		Clean:  "With what it is thinned with.", Keep: "In a closed bag.", Waste: "Cloths dried flat, then into the bin.",
	},
	{
		ID: "grain_filler", Stroke: AcrossGrain, Edge: .1, MostM2: .3,
		Tools:  []ToolRow{{"brush", "A stiff brush, then a plastic card", "it is pressed into the pores and scraped off across them", "Plenty."}},
		Lines:  []Line{{Says: "Rub it into the pores in circles."}, {Says: "Scrape across the grain with the card, as the face turns dull. Along the grain pulls it out again."}},
		Runs:   "in corners and mouldings: brush it out.",
		Faults: []Fault{{"excess", "Scrape again, across.", "Sand flush with 220."}, {"miss", "Rub in more now.", "A second filling after sanding."}},
		Clean:  "With water at once.", Keep: "Not at all: it sets.", Waste: "Into the bin.",
	},
	{
		ID: "bleach", Stroke: AlongGrain, Edge: .2,
		Tools:  []ToolRow{{"brush", "A cheap synthetic brush without metal", "metal in the acid stains the wood again", "Half full."}},
		Before: []Line{{Says: "Gloves, eye protection. It is toxic: no food, no children, no pets near it."}},
		Lines:  []Line{{Says: "The whole face, not only the stain, or the stain leaves a pale ring."}, {Says: "Rinse with bicarbonate in water, then twice with clean water."}, {Says: "Never sand it dry: its dust is poison."}},
		Runs:   "in drops that run down: wipe them off at once.",
		Faults: []Fault{{"tide", "Wet the whole face.", "Wet the whole face again, rinse again."}, {"streak", "Even it out with a wet sponge.", "A second bleaching of the whole face, after a day."}},
		Clean:  "With plenty of water.", Keep: "Not at all.", Waste: "Neutralised with bicarbonate, then to the drain with plenty of water, as the label says.",
	},
	{
		ID: "cloth", Stroke: AlongGrain, Edge: .15, MostM2: .5,
		Tools:  []ToolRow{{"brush", "A wide, soft synthetic brush", "it works the paint into the weave", "Half full, often."}, {"foam", "A sponge", "even on large seats", "Wet through, pressed out."}, anyGun},
		Cloth:  "A clean sponge to even it out, and a dry cloth for drips on the frame.",
		Little: "Worked in until the cloth is coloured, not coated: the weave stays open and soft.",
		Before: []Line{{Says: "Sand softly with 320 until it is supple again, and vacuum.", When: WhenLater}, {Says: "Mist the cloth with water until it is damp through: dry cloth takes it up in blotches."}},
		Lines: []Line{
			{Says: "Begin at the back, end at the front edge. Seams and piping first, with a small brush."},
			{Says: "Work it in along the weave, then even it out crosswise. Keep a wet edge from seam to seam."},
			{Says: "Stop only at a seam."},
			{Says: "Bend it while it dries, so that it stays supple."},
		},
		Runs: "into seams, tufts and buttons: draw it out with a dry brush.",
		Faults: []Fault{
			{"tide", "Mist the whole face and even it out.", "One more coat from seam to seam."},
			{"stiff", "It is too thick: work in water with the sponge.", "Sand softly with 320, bend it, a little clear wax."},
			{"lump", "Lift it off at once.", "Crush it and brush it out."},
			{"streak", "Even it out crosswise.", "One more thin coat, crosswise."},
		},
		Clean: "With water and soap.", Keep: "In a closed bag.", Waste: "Dry it out, then into the bin.",
		Gun: Gun{1.4, 1.5, 150, "misted on, brushed in"},
	},
	{
		ID: "flexible", Stroke: AlongGrain, Edge: .08,
		Tools: []ToolRow{{"brush", "A soft synthetic brush, {30 mm}", "thin coats that bend", "The tips."}, {"foam", "A fine sponge", "no marks on leather grain", "Pressed out."}, anyGun, smallRoller},
		Lines: []Line{
			{Says: "Thin, dabbed into the grain, then drawn out once. Three thin coats bend, one thick one cracks."},
			{Says: "Stretch folds open with a hand and paint their inside."},
			{Says: "Piping and seams first, with a small brush."},
		},
		Runs:   "into seams and folds: dab it out.",
		Faults: []Fault{{"run", "Dab it out.", "Rub it off with a little alcohol on a cloth, paint again."}, {"hair", "Lift it out.", "Rub it out with a fingertip, touch in."}, {"streak", "Draw it out once.", "One more thin coat crosswise."}},
		Clean:  "With water at once.", Keep: "In a closed bag.", Waste: "Dry it out, then into the bin.",
		Gun: Gun{1, 1.5, 10, "two mists, {20 cm} off"},
	},
	{
		ID: "aerosol", Stroke: AlongGrain,
		Tools:  []ToolRow{{"aerosol", "The can itself", "no brush marks; small and awkward pieces", "Shaken, nozzle clear."}},
		Before: []Line{{Says: "Outdoors without wind, or with the fan running; mask and goggles, no flame within the room."}, {Says: "Cover {3 m} around: the mist travels."}},
		Lines: []Line{
			{Says: "{25 to 30 cm} off, moving before you press and after you stop pressing."},
			{Says: "Edges and corners first, then flats, each pass half over the last."},
			{Says: "A mist, a light pass, a wet pass, within its first window. Not between the windows: it wrinkles."},
			{Says: "Turn the piece, not the can.", When: OnUpright},
		},
		Runs:   "on edges and where you stopped.",
		Faults: []Fault{{"run", "Leave it: a brush makes it worse.", "A day, sand flush with 400, mist over."}, {"spit", "Leave it, clear the nozzle.", "Sand with 400, mist over."}, {"wrinkle", "Stop: wrong window.", "Let it harden a day or more, sand flat, begin again."}},
		Clean:  "Upside down, spray until only gas comes.", Keep: "Nothing to keep.", Waste: "Empty cans to the collecting point, never pierced or burned.",
	},
}

// SelfHeating is said of the cloths of products whose rags can catch fire by themselves.
const SelfHeating = "The cloths under water in a closed metal tin, or flat outdoors to dry: in a heap they can catch fire by themselves."

// Sprayed is what holds for whatever is sprayed with a gun, in the place of what its row says of brushes.
var Sprayed = LayingRow{
	Before: []Line{{Says: "Sand lightly with 400, vacuum, wipe with a tack cloth.", When: WhenLater}, {Says: "Fan on, mask on, no flame. Try the pattern on card: an even oval, no drops at its ends."}},
	Lines: []Line{
		{Says: "Edges, mouldings and inner corners first, then the flats."},
		{Says: "The gun square to the face, moving before you pull the trigger and after you release it."},
		{Says: "Each pass half over the last. The next pass crosses it."},
		{Says: "Several light coats. Lay doors and drawer fronts flat if you can: upright they run."},
	},
	Runs: "where passes meet, on edges and below mouldings. Look along it against the light after each part.",
	Faults: []Fault{
		{"run", "Leave it, unless it is at an edge: there lift it off with a brush corner.", "Let it harden, slice it flat, sand flush with 400, mist over."},
		{"peel", "Come closer, a little thinner, slower.", "Sand flat with 400, then one wet pass."},
		{"rough", "It dries in the air: closer, less air, a little thinner.", "Rub down with 400, wipe, next pass."},
		{"spit", "Stop: clean the nozzle, strain the pot again.", "Sand the spot with 400, mist over."},
		{"crater", "Stop spraying: silicone or grease.", "Wipe with white spirit, a mist of shellac, then paint again."},
		{"hair", "Leave it.", "Sand it out with 400, mist over."},
	},
	Clean: "Empty the cup and spray what thins it through at once, then take the needle and the nozzle out and brush them clean.",
	Keep:  "The gun filled with what thins the paint, for an hour at most; after that it is cleaned.",
}

// LayingNamed returns the way of laying with an id; nil if there is none.
func LayingNamed(id string) *LayingRow {
	for i := range Layings {
		if Layings[i].ID == id {
			return &Layings[i]
		}
	}
	return nil
}

// Tool is what a method lays it with; the first where the row has none for the method.
func (r *LayingRow) Tool(method string) *ToolRow {
	for i := range r.Tools {
		if r.Tools[i].Method == method {
			return &r.Tools[i]
		}
	}
	return &r.Tools[0]
}

// cardsOf are how the coats of a family are mixed and laid, where a product's row says nothing else.
var cardsOf = map[Coat][2]string{
	MK: {"powder", "powder"}, CP: {"matt", "matt"}, AC: {"film", "enamel_wb"}, ME: {"film", "enamel_wb"}, OE: {"solvent", "enamel_oil"},
	AE: {"can", "aerosol"}, SH: {"shellac", "shellac"}, BP: {"film", "primer_wb"}, SO: {"solvent", "primer_solvent"}, SW: {"film", "primer_wb"},
	EP: {"two_part", "epoxy"}, MP: {"solvent", "primer_solvent"}, ZP: {"film", "primer_wb"}, PP: {"solvent", "promoter"}, GP: {"film", "primer_wb"},
	MS: {"film", "primer_wb"}, FX: {"film", "flexible"}, WP: {"film", "clear_wb"}, WH: {"film", "clear_wb"}, OP: {"solvent", "clear_oil"},
	WX: {"wax", "wax"}, OL: {"oil", "wiped_oil"}, TX: {"cloth", "cloth"}, CM: {"medium", "medium"}, GZ: {"glaze", "glaze"},
	PA: {"can", "aerosol"}, ET: {"solvent", "primer_solvent"}, NoCoat: {"stain", "stain"},
}

// cards sets how a product is mixed and laid where that is not as usual for its family.
func (p ProductRow) cards(mixing, laying string) ProductRow {
	p.Mixing, p.Laying = mixing, laying
	return p
}

// card fills in how a product is mixed and laid, where its row leaves that to its family.
func (p *ProductRow) card() {
	usual := cardsOf[p.Coat]
	if p.Mixing == "" {
		p.Mixing = usual[0]
	}
	if p.Laying == "" {
		p.Laying = usual[1]
	}
}
