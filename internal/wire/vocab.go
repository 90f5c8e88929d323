package wire

// Vocab is every id with its meaning, for the page and for whoever writes
// piece files.
type Vocab struct {
	Substrates []SubstrateWord `json:"substrates"`
	Finishes   []FinishWord    `json:"finishes"`
	Gloss      []Word          `json:"gloss"`
	Soils      []Word          `json:"soils"`
	Bleeders   []Word          `json:"bleeders"`
	Defects    []DefectWord    `json:"defects"`
	Uses       []Word          `json:"uses"`
	Wears      []Word          `json:"wears"`
	Steps      []StepWord      `json:"steps"`
	Cleaners   []CleanerWord   `json:"cleaners"`
	Products   []ProductWord   `json:"products"`
	Methods    []Word          `json:"methods"`
	Measures   []Word          `json:"measures" doc:"What is measured with when mixing"`
	Hows       []Word          `json:"hows"`
	Scopes     []Word          `json:"scopes"`
	Strips     []Word          `json:"strips"`
	Fillers    []Word          `json:"fillers"`
	Effects    []EffectWord    `json:"effects"`
	Resists    []Word          `json:"resists" doc:"What is applied in patches so that paint comes off there"`
	Families   []Word          `json:"families"`
	Rules      []RuleWord      `json:"rules"`
	Stages     []StageWord     `json:"stages" doc:"The stages of the work, in their order"`
	PartKinds  []PartKind      `json:"part_kinds"`
	Reliefs    []Word          `json:"reliefs"`
	Fittings   []FittingWord   `json:"fittings"`
	Treatments []Word          `json:"doings" doc:"What to do with hardware"`
	Tests      []TestWord      `json:"tests" doc:"Observations and small tests that identify a surface"`
	CrossCut   []CutWord       `json:"cross_cut" doc:"The classes of the cross-cut scale, the worst first"`
	CutHow     []string        `json:"cut_how" doc:"How a patch is cut and rated, in order"`
	Ways       WayWords        `json:"ways" doc:"Ways of working, and the weights of plans"`
	Kits       KitWords        `json:"kits" doc:"Kits, tools and the habits of planning"`
	Furniture  []Word          `json:"furniture" doc:"Kinds of furniture"`
	Label      []FigureWord    `json:"label" doc:"The figures that the label of a can may give"`
	Directions []Word          `json:"directions" doc:"Ways in which a blend may be changed"`
	Options    []StepOption    `json:"starts" doc:"Possible next steps of a plan, in the order of the work"`
	Levels     []string        `json:"levels" doc:"How much of a soil or a bleeder there is, in words, from 0"`
	Colours    []ColourWord    `json:"colours" doc:"Names that a colour may be typed by"`
	Quick      []ColourWord    `json:"quick_colours" doc:"Usual colours, as suggestions"`
	// Limits are by object and field, those of a step by what is done and field.
	Limits map[string]Limit `json:"limits" doc:"What a field may hold, by its object and name, as zone.area_m2; of a step by what is done, as coat.coats"`
	Seen   []SeenWord       `json:"seen" doc:"What is looked for on a coat while the work goes on, on scales of pictures"`
	Laid   []LaidWord       `json:"laid" doc:"How thick a coat was laid"`
}

// ColourWord is a colour with its plain name.
type ColourWord struct {
	Name   string `json:"name"`
	Colour string `json:"colour" doc:"As #rrggbb"`
}

// Limit is what a field may hold.
type Limit struct {
	Least  *float64 `json:"least,omitempty" doc:"Of a number"`
	Most   *float64 `json:"most,omitempty" doc:"Of a number"`
	Open   bool     `json:"open,omitempty" doc:"The minimum itself is not allowed"`
	Whole  bool     `json:"whole,omitempty" doc:"Of a number: without a fraction"`
	MaxLen int      `json:"max_len,omitempty" doc:"Characters of a text, entries of a list"`
	Hint   string   `json:"hint,omitempty" doc:"A hint for filling it in"`
}

// Limits are the limits of all fields that have one, as a vocabulary lists them.
func Limits() map[string]Limit {
	out := map[string]Limit{}
	add := func(of string, fields []Field) {
		for i := range fields {
			f := &fields[i]
			l := Limit{Hint: f.Hint}
			switch {
			case f.Kind == Number || f.Kind == Whole:
				if f.Most > 0 {
					l.Least, l.Most, l.Open, l.Whole = &f.Least, &f.Most, f.Open, f.Kind == Whole
				}
			case f.Kind == Text && f.IDs == nil && f.Choices == nil && f.Form == nil || f.Kind == List:
				l.MaxLen = f.MaxLen
			}
			if l != (Limit{}) {
				out[of+"."+f.Name] = l
			}
		}
	}
	for _, o := range Objects() {
		add(o.Name, o.Fields)
		for _, v := range o.Variants {
			add(v.ID, v.Fields)
		}
	}
	return out
}

// StageWord describes a stage of the work.
type StageWord struct {
	ID     string   `json:"id"`
	Name   string   `json:"name"`
	View   string   `json:"view" doc:"Its view on the page"`
	Fields []string `json:"fields" doc:"The fields that are filled in there"`
}

// StepOption is a step as it is when it is put into a plan.
type StepOption struct {
	Group string `json:"group"`
	Name  string `json:"name"`
	Note  string `json:"note,omitempty"`
	Step  Step   `json:"step"`
}

// Word is an id with its meaning.
type Word struct {
	ID   string `json:"id"`
	Name string `json:"name"`
	Note string `json:"note,omitempty"`
	Also string `json:"also,omitempty" doc:"Further words to find it by"`
}

// TestWord describes a look or a small test.
type TestWord struct {
	ID          string        `json:"id"`
	Name        string        `json:"name" doc:"As a question"`
	Short       string        `json:"short" doc:"Within a sentence"`
	How         string        `json:"how"`
	Where       string        `json:"where"`
	LookFor     string        `json:"look_for"`
	Caution     string        `json:"caution,omitempty"`
	Observation bool          `json:"look,omitempty" doc:"Nothing is touched or put on it"`
	Outcomes    []OutcomeWord `json:"outcomes"`
}

// OutcomeWord describes an answer to a test.
type OutcomeWord struct {
	ID   string `json:"id"`
	Name string `json:"name"`
	Draw string `json:"draw" doc:"A motif, and what varies in it"`
}

// CutWord describes a class of the cross-cut scale.
type CutWord struct {
	Class int     `json:"class"`
	Name  string  `json:"name"`
	Says  string  `json:"says"`
	Gone  float64 `json:"gone" doc:"Approximate share of the squares that came off"`
}

// SubstrateWord describes a substrate.
type SubstrateWord struct {
	Word
	Group    string  `json:"group"`
	Family   string  `json:"family"`
	Colour   string  `json:"colour"`
	Porosity float64 `json:"porosity"`
	Mark     string  `json:"mark" doc:"Its pattern"`
	// Asks are the fields of a survey that mean something for it.
	Asks []string `json:"asks" doc:"Of moisture_pct, age_days, knots, veneer, prepared and gloss those that mean something here; gloss where it is bare"`
	// What is met on it, the usual first.
	Finishes []string `json:"finishes" doc:"Finishes found on it, most common first"`
	Soils    []string `json:"soils" doc:"Soils found on it, most common first"`
	Bleeders []string `json:"bleeders" doc:"Bleeders found in or on it, most common first"`
}

// FinishWord describes a finish.
type FinishWord struct {
	Word
	Family  string `json:"family,omitempty"`
	Colour  string `json:"colour,omitempty"`
	Mark    string `json:"mark,omitempty" doc:"Its pattern; absent where the material is visible"`
	Mirrors bool   `json:"mirrors,omitempty" doc:"It reflects a window"`
}

// StepWord describes a kind of step.
type StepWord struct {
	Word
	Fields []string `json:"fields"`
}

// EffectWord describes an effect.
type EffectWord struct {
	Word
	Wants  string `json:"wants"`
	Trap   string `json:"trap,omitempty"`
	Wears  bool   `json:"wears,omitempty" doc:"It exposes the layers below at edges"`
	Sands  bool   `json:"sands,omitempty" doc:"It is worked with a grit, and the grit says how deep it goes"`
	Flakes bool   `json:"flakes,omitempty" doc:"Warm air, water and resists support it"`
}

// CleanerWord describes a cleaner.
type CleanerWord struct {
	Word
	Carrier string   `json:"carrier"`
	Shifts  []string `json:"shifts"`
	Rinses  int      `json:"rinses"`
}

// ProductWord describes a kind of product.
type ProductWord struct {
	Word
	Role        string    `json:"role"`
	Family      string    `json:"family"`
	Carrier     string    `json:"carrier"`
	RecoatFrom  float64   `json:"recoat_from_h"`
	RecoatTo    *float64  `json:"recoat_to_h" doc:"Null where there is no latest"`
	CureDays    float64   `json:"cure_days"`
	CoverM2L    float64   `json:"cover_m2_per_l"`
	FilmUM      float64   `json:"dry_film_um"`
	Hiding      float64   `json:"hiding"`
	MinC        float64   `json:"min_c"`
	MaxRH       float64   `json:"max_rh_pct"`
	Sheen       string    `json:"sheen"`
	Sheens      []string  `json:"sheens" doc:"Those it is sold in, the flattest first"`
	SizesL      []float64 `json:"sizes_l" doc:"The cans it is sold in, in litres"`
	Methods     []string  `json:"methods" doc:"How it is applied, the usual way first"`
	MostFlatM2  float64   `json:"most_flat_m2,omitempty" doc:"Up to which area it makes sense on flat faces, working default; absent for any"`
	MostSlender float64   `json:"most_slender_m2,omitempty" doc:"The same on frames, legs and rails"`
	Colour      string    `json:"colour,omitempty"`
	PriceMinor  int       `json:"price_minor_per_l" doc:"Working default, in minor units of money"`
	Smell       int       `json:"smell" doc:"0 to 3, working default"`
	PotLifeH    *float64  `json:"pot_life_h"`
	TakesAdd    bool      `json:"takes_additive,omitempty"`
	LeavesFilm  bool      `json:"leaves_film"`
	BlocksStain bool      `json:"blocks_stain"`
	// Usual are the figures that a label may replace.
	Usual  map[string]float64 `json:"usual" doc:"What is usual of it, by the figures of a label"`
	Blends bool               `json:"blends,omitempty" doc:"Paints of it can be blended"`
	Powder bool               `json:"powder,omitempty"`
}

// FigureWord is a figure of a label.
type FigureWord struct {
	ID   string `json:"id"`
	Name string `json:"name"`
	Unit string `json:"unit"`
}

// RuleWord describes a rule.
type RuleWord struct {
	Code   string `json:"code"`
	Title  string `json:"title"`
	Group  string `json:"group" doc:"In words"`
	Why    string `json:"why"`
	When   string `json:"when" doc:"When there is a finding, and how severe it is"`
	Inputs string `json:"looks" doc:"What it looks at"`
	Fix    string `json:"mends" doc:"What fixes it"`
	// Divided tells that it may be about something where the ways of working differ.
	Divided bool `json:"divided,omitempty" doc:"Painters disagree about it: the ways of working can be compared"`
}

// PartKind describes a kind of part.
type PartKind struct {
	Word
	Wants string     `json:"wants" doc:"Which sizes it has, in words"`
	Sizes []string   `json:"sizes" doc:"The fields of these sizes, in the order people say them"`
	Faces []PartFace `json:"faces"`
	Moves bool       `json:"moves,omitempty"`
}

// PartFace is a face that a kind of part has.
type PartFace struct {
	ID    string `json:"id"`
	Name  string `json:"name"`
	Usual bool   `json:"usual,omitempty"`
}

// DefectWord describes a kind of damage.
type DefectWord struct {
	Word
	Across string `json:"across,omitempty" doc:"What its size means; absent where it has none"`
	Along  string `json:"along,omitempty" doc:"What its length means; absent where it has none"`
}

// FittingWord describes a kind of thing that comes off.
type FittingWord struct {
	Word
	Do    string `json:"do" doc:"What is usually done with it"`
	Holes bool   `json:"holes,omitempty" doc:"The spacing of its holes matters"`
}

// TemplateWord describes a template and shows it.
type TemplateWord struct {
	Word
	Sizes     string    `json:"sizes" doc:"Its usual sizes"`
	Asks      string    `json:"asks" doc:"Which sizes it asks for, in words"`
	Counts    []Counted `json:"counts"`
	Elevation Elevation `json:"elevation"`
}

// Counted is what a template has several of.
type Counted struct {
	Name  string `json:"name"`
	Usual int    `json:"usual"`
	Least int    `json:"least"`
}

// WayWords are the ways that come with the program, and the questions a way of
// one's own answers, the usual answer of each first.
type WayWords struct {
	Ways      []Way  `json:"ways" doc:"Those that come with the program, the usual one first"`
	Holds     []Word `json:"holds"`
	Sand      []Word `json:"sand"`
	Seal      []Word `json:"seal"`
	FlakeSeal []Word `json:"flake_seal"`
	Resist    []Word `json:"resist"`
	Crackle   []Word `json:"crackle"`
	Knots     []Word `json:"knots"`
	Method    []Word `json:"method"`
	// Amounts have the number for an id.
	Additive []Word   `json:"additive" doc:"Amounts in words, the usual one first; the id is the number"`
	Water    []Word   `json:"water" doc:"The same"`
	Cure     []Word   `json:"cure" doc:"The same"`
	Terms    []Term   `json:"terms" doc:"The terms that plans are weighed by"`
	Main     []string `json:"main" doc:"The ways of working that are compared by default"`
	Most     int      `json:"most" doc:"The most that are compared at once"`
}

// KitWords are the kits that come with the program, and what a studio chooses about planning.
type KitWords struct {
	Kits   []Kit       `json:"kits" doc:"Those that come with the program, the usual one first"`
	Tools  []Word      `json:"tools"`
	Uses   []Word      `json:"uses" doc:"What a paint of choice is chosen for"`
	Habits []HabitWord `json:"habits"`
	Bench  Bench       `json:"bench" doc:"The usual working hours"`
}

// HabitWord describes a habit of planning.
type HabitWord struct {
	Word
	Risk string `json:"risk" doc:"What may happen without it"`
}

// Term is something that plans are weighed by.
type Term struct {
	ID     string  `json:"id"`
	Name   string  `json:"name"`
	Points float64 `json:"points" doc:"What one unit of it weighs"`
	Unit   string  `json:"unit"`
	Says   string  `json:"says"`
	Yours  bool    `json:"yours" doc:"The painter can weigh it"`
}

// RuleEntry is a rule of the book, with its findings.
type RuleEntry struct {
	RuleWord
	Findings []RuleFinding `json:"findings" doc:"Where it has findings in the studio now, the worst first"`
}

// RuleFinding is one finding of a rule.
type RuleFinding struct {
	Piece    uint   `json:"piece"`
	Name     string `json:"name" doc:"Of the piece"`
	Zone     string `json:"zone"`
	ZoneName string `json:"zone_name"`
	Severity string `json:"severity" enum:"note,watch,fail"`
	Title    string `json:"title"`
	Step     int    `json:"step,omitempty"`
}

// SeenWord is something that is looked for on a coat, on a scale of pictures.
type SeenWord struct {
	ID     string      `json:"id"`
	Name   string      `json:"name"`
	Levels []SeenLevel `json:"levels" doc:"From none"`
}

// LaidWord is how thick a coat was laid.
type LaidWord struct {
	ID    string  `json:"id"`
	Name  string  `json:"name"`
	Times float64 `json:"times" doc:"How many times the usual film"`
}

// SeenLevel is a step of that scale.
type SeenLevel struct {
	Says  string  `json:"says"`
	Share float64 `json:"share" doc:"Of the face, for the picture"`
}
