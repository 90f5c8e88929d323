package wire

// Shelf is the cans of a studio, in the order in which they are used.
type Shelf struct {
	Cans  []ShelfCan `json:"cans"`
	Total int        `json:"total" doc:"Of all cans, whatever was looked for"`
}

// ShelfCan is a can of the shelf with what is to be known of it.
type ShelfCan struct {
	Can
	Rev        int       `json:"rev"`
	Title      string    `json:"title"`
	KindName   string    `json:"kind_name"`
	Shows      string    `json:"shows,omitempty" doc:"Its colour, or the usual one of its kind; absent for clear"`
	Role       string    `json:"role"`
	ColourName string    `json:"colour_name,omitempty"`
	SheenName  string    `json:"sheen_name,omitempty"`
	Size       string    `json:"size,omitempty"`
	Left       string    `json:"left" doc:"What is left, in words"`
	Share      float64   `json:"share" doc:"What is left as a share of the full can"`
	Open       bool      `json:"open"`
	Usable     bool      `json:"usable" doc:"Plans may take from it"`
	Says       string    `json:"says,omitempty" doc:"What its label says, in words"`
	Warnings   []Warning `json:"warnings"`
	Used       []string  `json:"used" doc:"Names of the pieces whose plans name it"`
}

// Warning is something to know of a can.
type Warning struct {
	ID   string `json:"id" enum:"past,soon,empty,low"`
	Says string `json:"says"`
}

// Weighed is what is left in a can that was weighed.
type Weighed struct {
	LeftL float64 `json:"left_l"`
	TareG float64 `json:"tare_g" doc:"What the empty can weighs, as assumed"`
	Says  string  `json:"says"`
}

// CansImported is what a CSV of cans came to.
type CansImported struct {
	New     []string     `json:"new" doc:"What the new cans are called"`
	Same    int          `json:"same" doc:"Rows whose can is on the shelf already"`
	Refused []RefusedRow `json:"refused"`
	Count   int          `json:"refused_count"`
	Done    bool         `json:"done" doc:"They were put on the shelf; otherwise it was only looked at"`
	Says    string       `json:"says"`
}

// RefusedRow is a row that was not taken, and why.
type RefusedRow struct {
	Line int    `json:"line"`
	Says string `json:"says"`
}

// ColourRead is a typed colour as it was understood.
type ColourRead struct {
	Colour  string  `json:"colour"`
	Name    string  `json:"name"`
	L       float64 `json:"l"`
	A       float64 `json:"a"`
	B       float64 `json:"b"`
	Caution string  `json:"caution,omitempty"`
}

// PatchRead is the colour of a patch of a photograph.
type PatchRead struct {
	ColourRead
	White string `json:"white,omitempty" doc:"What the white patch looks like, where one was given"`
}

// Swatch is a colour with its name.
type Swatch struct {
	Name   string `json:"name"`
	Colour string `json:"colour"`
}

// Palette is a palette of colours.
type Palette struct {
	ID       string   `json:"id"`
	Name     string   `json:"name"`
	Own      bool     `json:"own" doc:"The studio brought it in; the others come with the program"`
	Swatches []Swatch `json:"swatches"`
	Note     string   `json:"note,omitempty"`
}

// SavedBlend is a kept recipe, with what it looks like.
type SavedBlend struct {
	Blend
	Rev        int    `json:"rev"`
	Result     string `json:"result" doc:"Its colour as it comes out"`
	ResultName string `json:"result_name"`
	Says       string `json:"says" doc:"Its parts in words"`
}

// BlendResult is what parts of paints come to.
type BlendResult struct {
	Colour  string      `json:"colour"`
	Name    string      `json:"name"`
	Against string      `json:"against,omitempty" doc:"How it differs from the wanted colour, in words"`
	Off     float64     `json:"off,omitempty" doc:"CIEDE2000 units from the wanted colour"`
	Says    string      `json:"says" doc:"Its parts in words"`
	Nudges  []Nudged    `json:"nudges" doc:"The same with a part more or less"`
	Amounts []PartLitre `json:"amounts,omitempty" doc:"Its parts for the litres asked for"`
	TopUp   string      `json:"top_up,omitempty" doc:"What changes when half of it is used and it is filled up with another paint in the place of one"`
	TopUpIs string      `json:"top_up_colour,omitempty"`
	Caution string      `json:"caution"`
}

// PartLitre is one paint of a blend, measured out.
type PartLitre struct {
	Name    string  `json:"name"`
	Colour  string  `json:"colour"`
	Parts   int     `json:"parts"`
	Litres  float64 `json:"litres"`
	Says    string  `json:"says"`
	Missing string  `json:"missing,omitempty" doc:"What its can has too little of"`
}

// Nudged is a blend changed by a step in a direction.
type Nudged struct {
	ID     string      `json:"id"`
	Name   string      `json:"name"`
	Colour string      `json:"colour"`
	Parts  []BlendPart `json:"parts"`
	Says   string      `json:"says"`
}

// Nearest are the blends nearest to a colour.
type Nearest struct {
	Want    ColourRead     `json:"want"`
	Blends  []NearestBlend `json:"blends" doc:"The nearest first; the others have fewer paints"`
	Of      int            `json:"of" doc:"How many paints were tried"`
	Says    string         `json:"says"`
	Caution string         `json:"caution"`
}

// NearestBlend is one of them.
type NearestBlend struct {
	Parts   []BlendPart `json:"parts"`
	Colour  string      `json:"colour"`
	Name    string      `json:"name"`
	Off     float64     `json:"off"`
	Against string      `json:"against"`
	Says    string      `json:"says"`
}

// Needs is what the plans of a piece take.
type Needs struct {
	Format   string     `json:"format"`
	Version  int        `json:"version"`
	Name     string     `json:"name,omitempty"`
	Zones    []ZoneNeed `json:"zones"`
	Items    []NeedItem `json:"items"`
	Supplies []Supply   `json:"supplies"`
	Unknown  []string   `json:"unknown" doc:"Zones whose area is not known"`
	Says     string     `json:"says"`
	Stale    []StaleCan `json:"stale" doc:"Cans of the piece of which the shelf says something else by now"`
}

// ZoneNeed is what each coat of a zone takes.
type ZoneNeed struct {
	ID    string     `json:"id"`
	Name  string     `json:"name,omitempty"`
	M2    float64    `json:"m2"`
	Area  string     `json:"area"`
	Coats []CoatNeed `json:"coats"`
}

// CoatNeed is what one coat takes.
type CoatNeed struct {
	Step     int      `json:"step"`
	Coat     int      `json:"coat"`
	Name     string   `json:"name"`
	Can      string   `json:"can,omitempty"`
	Colour   string   `json:"colour,omitempty"`
	Litres   float64  `json:"litres" doc:"Mixed, for a usual hand"`
	Least    float64  `json:"least"`
	Most     float64  `json:"most"`
	Says     string   `json:"says" doc:"The range in words"`
	Parts    string   `json:"parts,omitempty" doc:"What it is mixed of, where it is mixed"`
	Factors  []Factor `json:"factors" doc:"What it was made of"`
	FromCan  bool     `json:"from_label,omitempty" doc:"Its cover is from the label"`
	PaintL   float64  `json:"paint_l"`
	ThinnerL float64  `json:"thinner_l,omitempty"`
	AddedL   float64  `json:"additive_l,omitempty"`
}

// NeedItem is one thing that a piece takes from the shelf.
type NeedItem struct {
	Name    string   `json:"name"`
	Product string   `json:"product" doc:"Its kind, or bonding_additive"`
	Can     string   `json:"can,omitempty"`
	Colour  string   `json:"colour,omitempty"`
	NeedL   float64  `json:"need_l"`
	LeastL  float64  `json:"least_l"`
	MostL   float64  `json:"most_l"`
	HaveL   float64  `json:"have_l"`
	State   string   `json:"state" enum:"enough,tight,short,none"`
	Says    string   `json:"says"`
	From    []string `json:"from" doc:"The cans that count"`
	Buy     []Tins   `json:"buy"`
	BuySays string   `json:"buy_says,omitempty"`
}

// Tins is a number of cans of one size.
type Tins struct {
	SizeL float64 `json:"size_l"`
	Count int     `json:"count"`
}

// Supply is something that is used up beside the paint.
type Supply struct {
	ID     string `json:"id"`
	Name   string `json:"name"`
	Amount string `json:"amount"`
	Says   string `json:"says"`
}

// StaleCan is a can of which the shelf says something else than the piece.
type StaleCan struct {
	ID   string `json:"id"`
	Name string `json:"name"`
	Gone bool   `json:"gone" doc:"It is no longer on the shelf"`
	Says string `json:"says"`
	Now  *Can   `json:"now,omitempty" doc:"What the shelf says"`
}

// CoatLooks are the coats of a zone as swatches over every ground that it has.
type CoatLooks struct {
	Grounds   []GroundLooks `json:"grounds"`
	Undercoat *Undercoat    `json:"undercoat,omitempty"`
	Sealed    string        `json:"sealed,omitempty" doc:"The finished colour under its seal, where that changes it"`
	SealedBy  string        `json:"sealed_by,omitempty"`
	Final     string        `json:"final,omitempty"`
	Want      string        `json:"want,omitempty"`
	Wear      []WearLayer   `json:"wear" doc:"What shows where it wears, from the top down"`
	Says      string        `json:"says"`
	Caution   string        `json:"caution"`
}

// GroundLooks is one ground with the coats over it.
type GroundLooks struct {
	ID     string     `json:"id"`
	Name   string     `json:"name"`
	Colour string     `json:"colour"`
	Worst  bool       `json:"worst,omitempty" doc:"The plan covers it worst"`
	Coats  []CoatLook `json:"coats"`
	Needed int        `json:"needed,omitempty" doc:"Coats of the last paint that it needs"`
	Says   string     `json:"says"`
}

// CoatLook is what a face looks like after a coat.
type CoatLook struct {
	Step   int     `json:"step"`
	Coat   int     `json:"coat"`
	Name   string  `json:"name"`
	Colour string  `json:"colour"`
	Paint  string  `json:"paint" doc:"The colour of the coat itself"`
	Word   string  `json:"word"`
	Off    float64 `json:"off"`
}

// Undercoat is a tinted first coat that saves coats.
type Undercoat struct {
	Colour string `json:"colour"`
	Name   string `json:"name"`
	Saves  int    `json:"saves"`
	Says   string `json:"says"`
}

// WearLayer is a colour that wear brings up.
type WearLayer struct {
	Colour string `json:"colour"`
	Name   string `json:"name"`
	Of     string `json:"of"`
}

// NeedsFormat names the answer of needs.
const NeedsFormat = "rutile/needs"
