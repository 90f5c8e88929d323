package wire

import (
	"fmt"
	"reflect"
	"regexp"
	"slices"
	"sync"

	"rutile/core/craft"
	"rutile/core/disassembly"
	"rutile/core/identify"
	"rutile/core/measure"
	"rutile/core/parts"
	"rutile/core/plan"
	"rutile/core/surface"
)

// Kind is what a field holds.
type Kind uint8

// The kinds of field.
const (
	Text Kind = iota
	Number
	Whole // a number without a fraction
	Truth
	Ref  // an object of the table
	List // of what Of says
)

// Field is one field of the piece file or of the settings: its name, what it may hold and
// what it means. The JSON Schema, the limits of the decoder, the description of the API and
// the tables of docs/format.md are all made from the table of fields, see [Objects].
type Field struct {
	Name string
	// Says is the meaning, Absent what it means that the field is left out; both may be
	// empty.
	Says, Absent string
	// Hint is what somebody who fills it in on a screen should know first; it may be empty.
	Hint string
	// Must tells that the field cannot be left out.
	Must bool
	Kind Kind

	// IDs are ids from the tables of the craft, which grow with them; Choices are ids that
	// only this field has. A text with neither is free.
	IDs, Choices []string
	// Fixed is the one text or number that it may hold; nil for any.
	Fixed any
	// Least and Most bound a number; above Least where it is Open. Where Most is 0 nothing
	// is bounded.
	Least, Most float64
	Open        bool
	// MinLen and MaxLen bound the characters of a text, and of a list its entries.
	MinLen, MaxLen int
	// Form is what a text looks like; nil for any.
	Form *Form
	// Object is the name of the object that a Ref holds.
	Object string
	// Of is what a list holds.
	Of *Field
}

// Form is a form that a text has, as a pattern and in words.
type Form struct {
	Pattern, Says string
	re            *regexp.Regexp
}

func form(pattern, says string) *Form { return &Form{pattern, says, regexp.MustCompile(pattern)} }

// Fits tells whether a text has the form.
func (f *Form) Fits(s string) bool { return f.re.MatchString(s) }

// The forms of texts.
var (
	FormID      = form("^[a-z0-9][a-z0-9_-]{0,39}$", "of an id: small letters, digits, - and _, at most 40")
	FormColour  = form("^#[0-9a-fA-F]{6}$", "#rrggbb")
	FormDay     = form("^[0-9]{4}-[0-9]{2}-[0-9]{2}$", "2026-11-24")
	FormMoment  = form("^[0-9]{4}-[0-9]{2}-[0-9]{2}T[0-9]{2}:[0-9]{2}", "2026-11-24T10:15")
	FormInstant = form("^[0-9]{4}-[0-9]{2}-[0-9]{2}T[0-9]{2}:[0-9]{2}(:[0-9]{2}([.][0-9]{1,9})?)?(Z|[+-][0-9]{2}:[0-9]{2})$", "2026-11-24T10:15:00+01:00")
	FormPhoto   = form("^[a-z0-9][a-z0-9-]{0,79}[.]jpg$", "of a picture's file name: small letters, digits and -, then .jpg")
)

// Object is one shape of the piece file or of the settings.
type Object struct {
	Name string
	Says string // for docs/format.md
	// Fields are its fields in the order of the docs. Of an object with variants they are
	// those that every variant has.
	Fields []Field
	// By is the field that selects the variant, empty for an object without variants.
	By       string
	Variants []Variant
}

// Variant is an object of one kind, as a step that cleans.
type Variant struct {
	ID     string
	Fields []Field
}

// Field returns a field of the object by its name; nil where it has none.
func (o *Object) Field(name string) *Field {
	if i := slices.IndexFunc(o.Fields, func(f Field) bool { return f.Name == name }); i >= 0 {
		return &o.Fields[i]
	}
	for i := range o.Variants {
		v := &o.Variants[i]
		if j := slices.IndexFunc(v.Fields, func(f Field) bool { return f.Name == name }); j >= 0 {
			return &v.Fields[j]
		}
	}
	return nil
}

// ObjectNamed returns an object of the table; nil where there is none.
func ObjectNamed(name string) *Object { return byName()[name] }

var byName = sync.OnceValue(func() map[string]*Object {
	all := Objects()
	out := make(map[string]*Object, len(all))
	for i := range all {
		out[all[i].Name] = &all[i]
	}
	return out
})

// StepFields are the names of the fields that a kind of step takes beside do.
func StepFields(kind string) []string {
	out := []string{}
	for _, v := range ObjectNamed("step").Variants {
		if v.ID == kind {
			for _, f := range v.Fields {
				out = append(out, f.Name)
			}
		}
	}
	return out
}

// Fields are made in the order of a sentence: name, what it holds, what it means.

func text(name, says string) Field {
	return Field{Name: name, Kind: Text, MaxLen: MaxName, Says: says}
}

func note(name, says string) Field {
	return Field{Name: name, Kind: Text, MaxLen: MaxText, Says: says}
}

func label(name, says string) Field {
	return Field{Name: name, Kind: Text, MinLen: 1, MaxLen: MaxLabel, Says: says}
}

func formed(name string, f *Form, says string) Field {
	return Field{Name: name, Kind: Text, Form: f, Says: says}
}

func ids(name string, of []string, says string) Field {
	return Field{Name: name, Kind: Text, IDs: of, Says: says}
}

func choice(name, says string, of ...string) Field {
	return Field{Name: name, Kind: Text, Choices: of, Says: says}
}

func number(name string, least, most float64, says string) Field {
	return Field{Name: name, Kind: Number, Least: least, Most: most, Says: says}
}

// above is a number that must be more than nothing.
func above(name string, most float64, says string) Field {
	return Field{Name: name, Kind: Number, Open: true, Most: most, Says: says}
}

func whole(name string, least, most int, says string) Field {
	return Field{Name: name, Kind: Whole, Least: float64(least), Most: float64(most), Says: says}
}

func truth(name, says string) Field { return Field{Name: name, Kind: Truth, Says: says} }

func one(name, object, says string) Field {
	return Field{Name: name, Kind: Ref, Object: object, Says: says}
}

func list(name string, of Field, most int, says string) Field {
	return Field{Name: name, Kind: List, Of: &of, MaxLen: most, Says: says}
}

func many(name, object string, most int, says string) Field {
	return list(name, one("", object, ""), most, says)
}

func fixed(name string, to any, says string) Field {
	f := Field{Name: name, Kind: Text, Fixed: to, Says: says}
	if _, ok := to.(int); ok {
		f.Kind = Whole
	}
	return f
}

func (f Field) must() Field { f.Must = true; return f }

func (f Field) absent(says string) Field { f.Absent = says; return f }

func (f Field) hint(says string) Field { f.Hint = says; return f }

// Objects is the table of fields: every object of the piece file and of the settings, with its
// fields. The Go types of the same shapes have their names and nothing else of them; a test
// holds the two together.
var Objects = sync.OnceValue(func() []Object {
	c := craft.Default()
	sheens := idsOf(craft.Sheens[1:], func(r craft.SheenRow) string { return r.ID })
	effects := idsOf(c.Effects, func(r craft.EffectRow) string { return r.ID })
	products := idsOf(c.Products, func(r craft.ProductRow) string { return r.ID })

	piece := Object{Name: "piece", Says: "A piece of furniture with its zones and their plans.", Fields: []Field{
		fixed("format", PieceFormat, "says that this is a piece file").must(),
		fixed("version", Version, "version of the format").must(),
		text("name", "name"),
		ids("kind", idsOf(parts.Furnitures, func(f parts.Furniture) string { return f.ID }), "what kind of furniture it is; how fiddly the work is follows from that where parts are missing").absent("unknown"),
		whole("made", 1000, 2200, "year it was made").absent("unknown").hint("Empty if not known"),
		list("use", ids("", idsOf(craft.UseRows, func(r craft.UseRow) string { return r.ID }), ""), len(craft.UseRows), "how it is used").absent("none"),
		one("site", "site", "the air in the workshop").absent("the studio's, or 20 °C and 50 %"),
		many("zones", "zone", MaxZones, "areas of one material and one finish, each with a plan").absent("none"),
		many("parts", "part", parts.MaxParts, "its parts with their sizes; those after a carcass belong to it").absent("none"),
		many("take_apart", "fitting", MaxFittings, "what comes off or is masked before painting, in that order; it goes back in reverse").absent("none"),
		many("photos", "photo", MaxPhotos, "pictures").absent("none"),
		one("history", "history", "what is known of its past").absent("unknown"),
		many("cans", "can", MaxCans, "copies of the cans that its coats name, with what their labels say").absent("none"),
		many("log", "entry", MaxEntries, "what was done, in any order; the piece is judged by it, and then by what is still planned").absent("nothing was done yet"),
	}}

	site := Object{Name: "site", Says: "The air in the workshop.", Fields: []Field{
		number("temp_c", -20, 50, "temperature of the air in °C").must(),
		number("rh_pct", 0, 100, "relative humidity in %").must(),
		number("surface_c", -20, 60, "temperature of the surface in °C").absent("not measured"),
		formed("at", FormMoment, "when it was read"),
		text("by", "the instrument that read it"),
		truth("simulated", "read by a simulated instrument"),
	}}

	zone := Object{Name: "zone", Says: "An area of one material and one finish, with a plan of its own.", Fields: []Field{
		formed("id", FormID, "id, once in the piece").must(),
		text("name", "name"),
		ids("substrate", idsOf(c.Substrates, func(r craft.SubstrateRow) string { return r.ID }), "what it is made of").must(),
		truth("veneer", "it is veneered"),
		truth("prepared", "bare wood that came sanded and ready for its first coat"),
		ids("finish", idsOf(c.Finishes, func(r craft.FinishRow) string { return r.ID }), "what is on it now").absent("`unknown`"),
		ids("gloss", sheens, "how glossy it is").absent("assumed satin"),
		number("gloss_gu", 0, 150, "a gloss meter's reading at 60 degrees, instead of gloss"),
		formed("colour", FormColour, "its present colour").absent("the usual one"),
		number("moisture_pct", 0, 100, "moisture in %").absent("unknown"),
		number("age_days", 0, 100000, "of mineral, days since it was made").absent("unknown").hint("New plaster and cement stay alkaline for months"),
		many("soils", "soil", int(craft.NumSoils), "dirt and residues on it; an empty list: none found").absent("not checked"),
		many("bleeders", "bleeder", int(craft.NumBleeders), "what may bleed through").absent("what the material implies"),
		many("defects", "defect", MaxDefects, "damage; `knot` counts knots").absent("none"),
		above("area_m2", 500, "the area as typed, in square metres; it overrides the parts").absent("the sum of its parts, or not known"),
		ids("wear", idsOf(craft.Wears[:], func(r craft.WearRow) string { return r.ID }), "how it will be used").absent("`handled`"),
		many("evidence", "answer", len(identify.Tests), "what was looked at and tested, each test once").absent("nothing"),
		one("lead_test", "lead_test", "a test for lead").absent("untested"),
		many("patches", "patch", MaxPatches, "patch tests, planned and rated").absent("none"),
		many("readings", "reading", MaxReadings, "where measured values come from").absent("typed"),
		one("target", "target", "the wanted look").absent("open"),
		formed("way", FormID, "id of the way of working that its plan was made with; a studio's own ways are known only to that studio"),
		many("steps", "step", MaxSteps, "the plan").absent("empty"),
		many("acknowledged", "acknowledged", 200, "cautions that were acknowledged").absent("none"),
	}}

	level := func(name, says string, of []string) Object {
		return Object{Name: name, Says: says, Fields: []Field{
			ids("id", of, "which").must(),
			whole("level", 0, craft.MaxLevel, "how much: 1 light, 2 marked, 3 heavy; 0 none").must(),
		}}
	}
	soil := level("soil", "A kind of dirt or residue and how much of it there is.", idsOf(craft.Soils[:], func(r craft.SoilRow) string { return r.ID }))
	bleeder := level("bleeder", "Something that may bleed through, and how much of it there is.", idsOf(craft.Bleeders[:], func(r craft.BleederRow) string { return r.ID }))

	defect := Object{Name: "defect", Says: "Damage of one kind.", Fields: []Field{
		ids("id", idsOf(craft.Defects, func(r craft.DefectRow) string { return r.ID }), "which").must(),
		whole("count", 0, 1000, "how many").absent("one"),
		number("length_cm", 0, 10000, "length in cm"),
		number("size_mm", 0, 10000, "size in mm"),
		text("place", "where on the zone"),
		label("label", "on the label beside it, unique in the piece; markers on photographs refer to it"),
	}}

	answer := Object{Name: "answer", Says: "The result of a look or a small test.", Fields: []Field{
		ids("test", idsOf(identify.Tests, func(t identify.Test) string { return t.ID }), "which test").must(),
		ids("outcome", outcomeIDs(), "the result; `not_sure` is an outcome of every test").must(),
		formed("date", FormDay, "the date"),
		note("note", "a note"),
	}}

	lead := Object{Name: "lead_test", Says: "The result of a test for lead. Only a laboratory's or an assessor's decides, from its date on.", Fields: []Field{
		choice("result", "the result", "negative", "positive").must(),
		choice("by", "who tested", "laboratory", "assessor", "swab").must(),
		formed("date", FormDay, "the date").must(),
		text("report", "number of the report, or who tested"),
	}}

	patch := Object{Name: "patch", Says: "A patch test: one coat of the plan on a hidden spot or on a board.", Fields: []Field{
		formed("id", FormID, "id, once in the zone").must(),
		ids("product", products, "the coat").must(),
		ids("over", idsOf(craft.Families[:], func(r craft.FamilyRow) string { return r.ID }), "the surface family it was made on").must(),
		truth("bare", "on the bare material"),
		number("additive", 0, 2, "parts of bonding additive to one of paint"),
		choice("on", "a hidden spot of the piece, or a board of the same material", "hidden", "board").must(),
		text("place", "where"),
		formed("made", FormDay, "the date it was made").absent("only planned"),
		formed("look", FormDay, "the date from which it can be rated"),
		formed("rated", FormDay, "the date it was rated"),
		whole("class", 0, 5, "on the cross-cut scale (ASTM D3359, method B)").absent("not rated"),
		one("under", "conditions", "the factors under which it was made; they are divided out of a rating, so that it tells only about the coat and the surface"),
		note("note", "a note"),
	}}
	conditions := Object{Name: "conditions", Says: "The factors of a bond besides its grip; 1 takes nothing away."}
	for _, x := range [][2]string{{"key", "how well the surface was keyed"}, {"cleanness", "how clean it was"}, {"window", "how well the waiting time was kept"}, {"site", "how good the air was"}, {"cap", "what held below it"}} {
		conditions.Fields = append(conditions.Fields, number(x[0], 0, 1, x[1]).must())
	}

	reading := Object{Name: "reading", Says: "Where a measured value comes from.", Fields: []Field{
		choice("field", "the field", "gloss_gu", "moisture_pct").must(),
		number("value", -100, 10000, "the value").must(),
		formed("at", FormMoment, "when").must(),
		text("by", "the instrument").must(),
		truth("simulated", "read by a simulated instrument"),
	}}

	target := Object{Name: "target", Says: "The wanted look.", Fields: []Field{
		formed("colour", FormColour, "colour").absent("open"),
		ids("sheen", sheens, "sheen").absent("open"),
		ids("look", append([]string{craft.LookSolid}, effects...), "`solid`, or an effect").absent("`solid`"),
	}}

	acknowledged := Object{Name: "acknowledged", Says: "A caution that was acknowledged.", Fields: []Field{
		text("code", "code of its rule").must(),
		formed("date", FormDay, "the date").must(),
	}}

	additive := Object{Name: "additive", Says: "A bonding additive mixed into a coat.", Fields: []Field{
		fixed("product", craft.AdditiveID, "the additive").must(),
		number("ratio", 0, 2, "parts of additive to one of mixed paint").must().hint("0.5 is half; empty is none"),
		choice("coats", "which coats contain it", "all", "first").absent("`all`"),
	}}

	mix := Object{Name: "mix", Says: "How a coat is mixed, where that is not as usual. Its water, thinner and additive stand in the step itself.", Fields: []Field{
		ids("recipe", idsOf(craft.HomeMade, func(r craft.HomeMadeRow) string { return r.ID }), "of home-made matt paint: what is stirred into the emulsion").absent("`carbonate`"),
		number("tint_ratio", craft.LeastTint/2, 2, "of glaze: parts of colour to one of medium, by volume").absent(fmt.Sprint(craft.UsualTint)).hint(fmt.Sprintf("Empty: %v, five of medium to one of colour", craft.UsualTint)),
		above("paint_l", measure.MaxMix, "litres of paint mixed for each coat, before any additive").absent("what the coat needs").hint("Empty: what the coat needs"),
		truth("unstrained", "it is not strained"),
		many("blend", "blend_part", MaxBlendParts, "the paints that it is blended from").absent("one paint"),
	}}

	keyFrom, keyTo := craft.KeyGrits()
	const sheenOf, colourOf = "sheen of the coat", "colour of the coat"
	grit := whole("grit", craft.MinGrit, craft.MaxGrit, "grit number of the abrasive")
	takes := map[string][]Field{
		"clean": {
			ids("with", idsOf(c.Cleaners, func(r craft.CleanerRow) string { return r.ID }), "the cleaner").must(),
			truth("rinse", "rinsed afterwards"),
			whole("passes", 1, 20, "how often").absent("once"),
		},
		"abrade": {
			grit.hint(fmt.Sprintf("%d–%d keys a sound film", keyFrom, keyTo)),
			ids("how", idsOf(craft.Hows, func(h struct {
				ID   craft.How
				Name string
			}) string {
				return string(h.ID)
			}), "how").absent("by hand, or with a pad where there is no grit"),
			truth("through", "it cuts through to the material"),
		},
		"strip":  {ids("how", craft.Strips, "how; `chemical` is a stripper of solvent; of foil and printed paper, down to the board").must()},
		"fill":   {ids("with", craft.Fillers, "the filler").must()},
		"repair": {text("what", "what is glued down or closed")},
		"mask":   {text("what", "what must not be painted")},
		"remove": {text("what", "what is removed").must()},
		"coat": {
			ids("product", products, "the product").must(),
			formed("can", FormID, "id of the can it is taken from, one of the piece's cans").absent("none in particular"),
			whole("coats", 1, 20, "how many coats").absent("one"),
			number("wait_h", 0, 8760, "hours after each coat").absent("the earliest that the site allows").hint("Empty: as soon as the workshop's air allows"),
			ids("method", idsOf(craft.Methods, func(r craft.MethodRow) string { return r.ID }), "how it is applied").absent("brush"),
			one("additive", "additive", "bonding additive in powder paint"),
			number("water_ratio", .2, 5, "water to powder, by volume").hint("Empty: one to one"),
			number("thin_pct", 0, 300, "thinned by this many %").hint("Empty: not thinned"),
			ids("sheen", sheens, sheenOf).absent("the product's own"),
			formed("colour", FormColour, colourOf).absent("the target's for paints, the product's own for primers"),
			ids("scope", craft.Scopes, "where").absent("`all`"),
			one("mix", "mix", "how it is mixed").absent("as is usual"),
		},
		"effect": {
			ids("effect", effects, "the effect").must(),
			truth("heat", "warm air speeds the flaking"),
			truth("wetted", "it is wetted, so that it flakes more"),
			ids("resist", craft.Resists, "applied in patches so that paint comes off there"),
			grit.hint(fmt.Sprintf("Empty: down to the material; %d wears only the top coat", craft.ShallowGrit)),
			number("share", 0, 1, "share of the area that is worn").hint("Empty: about a tenth"),
		},
		"wait": {number("hours", 0, 87600, "how long").must()},
		"test": {whole("rating", 0, 5, "a patch test of the coat before it, made on the piece itself and rated on the cross-cut scale").must()},
	}
	kinds := idsOf(surface.Kinds[:], func(r surface.KindRow) string { return r.ID })
	step := Object{Name: "step", Says: "One step of a plan. `do` says what is done, and which other fields it has.", By: "do", Fields: []Field{ids("do", kinds, "what is done").must()}}
	for _, k := range kinds {
		step.Variants = append(step.Variants, Variant{k, takes[k]})
	}

	part := Object{Name: "part", Says: "A part of the piece, or several alike. Its sizes depend on its kind.", Fields: []Field{
		ids("kind", idsOf(parts.Kinds[:], func(r parts.KindRow) string { return r.ID }), "what it is").must(),
		text("name", "name"),
		whole("count", 1, parts.MaxCount, "how many").absent("one"),
	}}
	sizes := map[string]string{
		"width": "width in cm; of long parts, the length", "height": "height in cm", "depth": "depth in cm", "thick": "thickness in cm",
		"across": "diameter in cm; of tapered parts, at the top", "base": "diameter at the base in cm",
		"girth": "over the profile of a moulding, in cm", "member": "width of a frame's members in cm",
	}
	for _, d := range parts.DimIDs {
		part.Fields = append(part.Fields, above(d+"_cm", parts.MaxSide, sizes[d]))
	}
	part.Fields = append(part.Fields,
		list("faces", ids("", faceIDs(), ""), 16, "the painted faces; an empty list: none").absent("the usual ones"),
		ids("relief", idsOf(parts.Reliefs[:], func(r parts.ReliefRow) string { return r.ID }), "how much more surface the detail adds").absent("`smooth`"),
		formed("zone", FormID, "id of the zone it belongs to"),
		whole("seen", 0, parts.MaxCount, "how many show from the front").hint("Empty: as many as expected"),
		choice("place", "where it is in the elevation, if its kind does not say", placeIDs()...),
		number("gap_mm", 0, 100, "around sliding or closing parts, in mm").hint("Empty if not measured"),
	)

	fitting := Object{Name: "fitting", Says: "Something that comes off, is masked, or is painted in place.", Fields: []Field{
		ids("kind", idsOf(disassembly.Rows, func(r disassembly.Row) string { return r.ID }), "what it is").must(),
		text("name", "name"),
		whole("count", 1, 200, "how many").absent("one"),
		text("where", "where it was, and where its label sends it back"),
		choice("do", "what is done with it", idsOf(disassembly.Treatments, func(d struct{ ID, Name string }) string { return d.ID })...).absent("as is usual for its kind"),
		formed("zone", FormID, "id of the zone it is on"),
		note("note", "how it is cleaned, masked or stored, if not the usual way"),
		number("holes_mm", 0, 2000, "spacing of its holes, centre to centre; 0 for a single one"),
		number("new_holes_mm", 0, 2000, "spacing of the holes that new hardware needs; where it differs, the old holes count as damage"),
		truth("off", "done"),
		truth("back", "put back"),
	}}

	photo := Object{Name: "photo", Says: "A picture of the piece, of a zone, or of damage.", Fields: []Field{
		formed("file", FormPhoto, "its name in the picture folder beside the database").must(),
		text("caption", "caption"),
		formed("zone", FormID, "id of the zone it shows").absent("the piece"),
		whole("width", 1, 20000, "in pixels"),
		whole("height", 1, 20000, "in pixels"),
		formed("taken", FormDay, "the date it was taken"),
		many("markers", "marker", MaxMarkers, "places in it"),
	}}
	marker := Object{Name: "marker", Says: "A place in a picture.", Fields: []Field{
		number("x", 0, 1, "from the left").must(),
		number("y", 0, 1, "from the top").must(),
		label("defect", "label of the damage it points at"),
		text("note", "a note"),
	}}

	history := Object{Name: "history", Says: "What is known of the piece's past.", Fields: []Field{
		note("found", "where and how"),
		whole("paid_minor", 0, 1_000_000_000, "purchase price, in minor units of the studio's currency"),
		many("earlier", "earlier", MaxEarlier, "previous work on it"),
		note("note", "a note"),
	}}
	earlier := Object{Name: "earlier", Says: "Previous work on the piece.", Fields: []Field{
		whole("year", 1000, 2200, "year"),
		note("what", "what").must(),
	}}

	habit := ids("", idsOf(plan.Habits[:], func(h plan.HabitRow) string { return h.ID }), "")
	settings := Object{Name: "settings", Says: "Settings of a studio for all its pieces.", Fields: []Field{
		text("name", "name of the studio").must(),
		choice("units", "units for showing and typing sizes and temperatures; files are always metric", measure.Metric.String(), measure.US.String()).must(),
		one("site", "site", "the workshop's usual air").must(),
		whole("lead_year", 1900, 2100, "year before which local rules suspect lead in old paint").absent("the usual one").hint(fmt.Sprintf("The year that local rules give. Empty: %d.", craft.LeadYear)),
		formed("way", FormID, "id of the way of working for plans where none is chosen").absent("the usual one"),
		many("ways", "way", MaxWays, "the studio's own ways of working"),
		list("kits", formed("", FormID, ""), MaxKits, "ids of the kits that the studio has; plans use what is in them").absent("the kit of a small brush studio"),
		many("own_kits", "kit", MaxKits, "kits of the studio's own, and those that it has changed"),
		list("habits_off", habit, int(plan.NumHabits), "habits of planning that are switched off").absent("none"),
		one("bench", "bench", "when the studio works").absent("nine to six, Monday to Saturday"),
		choice("measure", "what the studio measures with when it mixes", idsOf(measure.Vessels[:], func(v struct{ ID, Name string }) string { return v.ID })...).absent("`ml`; in US units `cups`"),
		number("cup_ml", measure.LeastCup, measure.MostCup, "what its cup holds, in millilitres").absent("250; in US units 237").hint("Fill it with water and weigh that: a gram is a millilitre"),
	}}
	bench := Object{Name: "bench", Says: "When a studio works: plans are laid out in these hours.", Fields: []Field{
		number("from_h", 0, 23, "the hour at which work begins").must(),
		number("to_h", 1, 24, "the hour at which it ends").must(),
		list("days", ids("", Weekdays, ""), len(Weekdays), "days of the week on which the studio works").must(),
	}}
	product := ids("", products, "")
	paint := func(u plan.PaintUse) Field {
		return ids(plan.PaintUses[u].ID, products, "paint of choice: "+craft.Lower(plan.PaintUses[u].Name)).absent("any")
	}
	kit := Object{Name: "kit", Says: "What a studio owns and likes: tools, products that it keeps, and paints of choice by use.", Fields: []Field{
		formed("id", FormID, "id; that of a kit of the program stands for it").must(),
		{Name: "name", Kind: Text, MinLen: 1, MaxLen: MaxName, Says: "name", Must: true},
		note("says", "a sentence on what it is for"),
		list("tools", ids("", idsOf(plan.Tools[:], func(t plan.ToolRow) string { return t.ID }), ""), len(plan.Tools), "tools besides brushes, rags and abrasives"),
		list("products", product, MaxNamed, "products that it keeps"),
		paint(plan.UseEveryday), paint(plan.UseMatt), paint(plan.UseHard), paint(plan.UseWeather),
	}}
	of := func(cs []plan.Choice) []string { return idsOf(cs, func(c plan.Choice) string { return c.ID }) }
	way := Object{Name: "way", Says: "A way of working: the choices that plans are made with.", Fields: []Field{
		formed("id", FormID, "id").must(),
		{Name: "name", Kind: Text, MinLen: 1, MaxLen: MaxName, Says: "name", Must: true},
		note("says", "a sentence on what it is"),
		choice("holds", "what makes the paint hold", of(plan.HoldChoices)...),
		truth("scuff_first", "sand first, then wipe with solvent"),
		choice("sand", "when an old surface is sanded", of(plan.SandChoices)...),
		number("additive", .05, 1, "bonding additive in powder paint, by volume").absent("half"),
		truth("additive_first", "the additive goes into the first coat only"),
		number("water", .8, 2, "water to powder, by volume").absent("equal parts"),
		choice("seal", "what seals a paint, to suit the wear", of(plan.SealChoices)...),
		choice("flake_seal", "what seals a paint that flakes", of(plan.FlakeSealChoices)...),
		choice("resist", "what keeps paint from holding in patches, where it should flake", of(plan.ResistChoices)...),
		choice("crackle", "what a coat cracks over", of(plan.CrackleChoices)...),
		truth("deep", "wear dry paint down to the material"),
		choice("method", "how coats are applied", plan.WayMethods...),
		truth("next_day", "every coat dries until the next day"),
		number("cure", .1, .9, "how hard the last coat is when the piece is reassembled").absent("a third"),
		choice("knots", "where a blocking coat goes, against stains that bleed in spots", of(plan.KnotChoices)...),
		list("paints", product, MaxNamed, "the only paints used").absent("all"),
		truth("no_smell", "nothing with solvent or alcohol"),
		list("shelf", product, MaxNamed, "the only products available").absent("every kind"),
		list("without", product, MaxNamed, "products that are not used"),
		list("habits_off", habit, int(plan.NumHabits), "habits of planning that it leaves out").absent("none"),
	}}

	held := append(slices.Clone(products), craft.AdditiveID)
	return append([]Object{
		piece, site, zone, soil, bleeder, defect, answer, lead, patch, conditions, reading, target, acknowledged,
		step, additive, mix, part, fitting, photo, marker, history, earlier, settings, way, kit, bench,
	}, slices.Concat(shelfObjects(held, sheens), logObjects())...)
})

// Shapes are the Go types of the objects, by their names.
var Shapes = map[string]reflect.Type{
	"piece": reflect.TypeFor[Piece](), "site": reflect.TypeFor[Site](), "zone": reflect.TypeFor[Zone](),
	"soil": reflect.TypeFor[Level](), "bleeder": reflect.TypeFor[Level](), "defect": reflect.TypeFor[Defect](),
	"answer": reflect.TypeFor[Answer](), "lead_test": reflect.TypeFor[LeadTest](), "patch": reflect.TypeFor[Patch](),
	"conditions": reflect.TypeFor[Conditions](), "reading": reflect.TypeFor[Reading](), "target": reflect.TypeFor[Target](),
	"acknowledged": reflect.TypeFor[ReadNotes](), "step": reflect.TypeFor[Step](), "additive": reflect.TypeFor[Additive](), "mix": reflect.TypeFor[Mix](),
	"part": reflect.TypeFor[Part](), "fitting": reflect.TypeFor[Fitting](), "photo": reflect.TypeFor[Photo](),
	"marker": reflect.TypeFor[Marker](), "history": reflect.TypeFor[History](), "earlier": reflect.TypeFor[Earlier](),
	"settings": reflect.TypeFor[Settings](), "way": reflect.TypeFor[Way](),
	"kit": reflect.TypeFor[Kit](), "bench": reflect.TypeFor[Bench](),
	"can": reflect.TypeFor[Can](), "label": reflect.TypeFor[Label](), "blend": reflect.TypeFor[Blend](), "blend_part": reflect.TypeFor[BlendPart](),
	"entry": reflect.TypeFor[Entry](), "planned": reflect.TypeFor[Planned](), "log_air": reflect.TypeFor[LogAir](), "seen": reflect.TypeFor[Seen](),
	"log_fitting": reflect.TypeFor[LogFitting](), "sent": reflect.TypeFor[Sent](),
}

// Roots are the objects that a document may be.
const (
	PieceObject    = "piece"
	SettingsObject = "settings"
	CanObject      = "can"
	BlendObject    = "blend"
)

func idsOf[R any](rows []R, id func(R) string) []string {
	out := make([]string, len(rows))
	for i, r := range rows {
		out[i] = id(r)
	}
	return out
}

func outcomeIDs() []string {
	out := []string{identify.NotSure}
	for i := range identify.Tests {
		for _, o := range identify.Tests[i].Outcomes {
			if !slices.Contains(out, o.ID) {
				out = append(out, o.ID)
			}
		}
	}
	return out
}

// faceIDs are the faces that any part may have.
func faceIDs() []string {
	var out []string
	for k := range parts.Kinds {
		for _, f := range parts.Kinds[k].Faces {
			if !slices.Contains(out, f.ID) {
				out = append(out, f.ID)
			}
		}
	}
	return out
}

func placeIDs() []string {
	var out []string
	for _, p := range parts.Places[1:] {
		out = append(out, p.ID)
	}
	return out
}

// Limits says in words what a field may hold, for the docs; empty where its name says it all.
func (f *Field) Limits() string {
	bounded := f.Kind == Number || f.Kind == Whole
	switch {
	case f.Fixed != nil:
		return fmt.Sprintf("`%v`", f.Fixed)
	case f.Kind == List && f.Of.Kind == Ref:
		return fmt.Sprintf("list of %s, at most %d", f.Of.Object, f.MaxLen)
	case f.Kind == List:
		return fmt.Sprintf("list of %s; at most %d", f.Of.Limits(), f.MaxLen)
	case f.Kind == Ref:
		return f.Object
	case f.Kind == Truth:
		return "true or false"
	case bounded && f.Open:
		return fmt.Sprintf("more than %v, at most %v", f.Least, f.Most)
	case bounded:
		return fmt.Sprintf("%s to %s", plain(f.Least), plain(f.Most))
	case len(f.Choices) > 0:
		return codes(f.Choices)
	case len(f.IDs) > 0 && len(f.IDs) <= fewIDs:
		return codes(f.IDs)
	case len(f.IDs) > 0:
		return "an id of `rutile vocab`"
	case f.Form != nil:
		return f.Form.brief()
	}
	return fmt.Sprintf("text, at most %d characters", f.MaxLen)
}

// fewIDs are as many as the docs list one by one.
const fewIDs = 8

func (f *Form) brief() string {
	switch f {
	case FormID:
		return "small letters, digits, - and _"
	case FormPhoto:
		return "a plain file name"
	}
	return f.Says
}

func plain(x float64) string { return fmt.Sprintf("%.10g", x) }

func codes(of []string) string {
	out := ""
	for i, id := range of {
		if i > 0 {
			out += ", "
		}
		out += "`" + id + "`"
	}
	return out
}
