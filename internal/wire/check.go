package wire

// CheckResult is what a check says of a piece.
type CheckResult struct {
	Format   string       `json:"format"`
	Version  int          `json:"version"`
	Verdict  string       `json:"verdict" enum:"sound,watch,fails"`
	Air      Air          `json:"air" doc:"The workshop's air that the piece was checked with"`
	Zones    []ZoneResult `json:"zones"`
	Overview *Overview    `json:"look,omitempty" doc:"Areas, parts and damage of the piece"`
}

// CheckChange is what a check of zones that have changed says: what is other than it was.
type CheckChange struct {
	Verdict       string         `json:"verdict" enum:"sound,watch,fails" doc:"On the whole piece"`
	Zones         []ZoneResult   `json:"zones" doc:"The zones that were checked again; the others are unchanged"`
	Overview      *Overview      `json:"look,omitempty" doc:"Absent where only the looks of zones have changed, or nothing"`
	ZoneOverviews []ZoneOverview `json:"zone_overviews,omitempty" doc:"The zones whose look-over has changed, where nothing else of it has"`
}

// Air is the air of a workshop, with the temperature below which a surface
// gathers water from it.
type Air struct {
	TempC     float64 `json:"temp_c"`
	RHPct     float64 `json:"rh_pct"`
	DewPointC float64 `json:"dew_point_c"`
	Own       bool    `json:"own,omitempty" doc:"The piece has its own workshop air"`
}

// ZoneResult is what a check says of a zone. A block that was not computed is
// null.
type ZoneResult struct {
	ID       string       `json:"id"`
	Name     string       `json:"name,omitempty"`
	Verdict  string       `json:"verdict" enum:"sound,watch,fails"`
	Says     string       `json:"says" doc:"The verdict as a sentence"`
	Adhesion *Adhesion    `json:"adhesion"`
	Bleed    []Bleed      `json:"bleed"`
	Implied  []string     `json:"implied" doc:"What bleeds where no bleeders are entered, in words"`
	Rises    []Level      `json:"implied_levels" doc:"The same as ids, with how much of it there is"`
	Hiding   *Hiding      `json:"hiding" doc:"Null where no solid colour is planned"`
	Chips    *Chips       `json:"chips" doc:"Null where nothing is likely to chip"`
	CrackMM  float64      `json:"crack_mm,omitempty" doc:"About how wide the coat over a crackle medium cracks"`
	Cracks   string       `json:"cracks,omitempty" doc:"How it cracks, in sentences"`
	Ready    *Ready       `json:"ready" doc:"Null while nothing is planned"`
	Hours    Hours        `json:"hours"`
	Findings []Finding    `json:"findings"`
	Brief    bool         `json:"brief,omitempty" doc:"Details are left out, as the piece is very long; a change of the zone is answered with them"`
	Stages   []Stage      `json:"stages,omitempty" doc:"The stages of the work, in their order"`
	Section  *Section     `json:"section,omitempty"`
	Gloss    string       `json:"gloss,omitempty" doc:"The sheen class, where one was entered or measured"`
	Known    *Known       `json:"known,omitempty" doc:"How certain the survey is; absent where nothing was tested"`
	Lead     *Lead        `json:"lead,omitempty" doc:"Absent where lead is not suspected"`
	Bonds    []Bond       `json:"bonds" doc:"The bonds that a patch test could test, weakest first"`
	Patches  []PatchState `json:"patches" doc:"The state of the zone's patch tests, in their order"`
	Log      *ZoneLog     `json:"log,omitempty" doc:"What was done, and what comes next; absent where nothing was begun. All steps named in this answer are those of the plan"`
}

// Stage is how one stage of the work on a zone stands.
type Stage struct {
	ID    string `json:"id"`
	Name  string `json:"name"`
	State string `json:"state" enum:"done,open,stuck"`
	Says  string `json:"says"`
	View  string `json:"view" doc:"The view of the page for it"`
	Step  int    `json:"step,omitempty" doc:"From 1; the step of the plan that it refers to"`
}

// StepSays is a step of a plan in words.
type StepSays struct {
	Title string `json:"title" doc:"What it is, in a few words"`
	Notes string `json:"notes,omitempty" doc:"Details that are not in the title"`
}

// Adhesion says how well the plan holds.
type Adhesion struct {
	Risk     float64  `json:"risk" doc:"Risk that some layer peels, 0 to 1"`
	Holds    string   `json:"holds" doc:"How well it holds, in a few words"`
	Words    string   `json:"risk_words" doc:"The risk in words, averaged over everything the surface may be, by probability"`
	Worst    string   `json:"worst_words,omitempty" doc:"How it holds in the worst case, and for which surface; absent where that is much the same"`
	Strength float64  `json:"strength" doc:"Of the weakest layer"`
	Demand   float64  `json:"demand"`
	Class    string   `json:"class" doc:"On the six-step cross-cut scale"`
	Weakest  Weakest  `json:"weakest"`
	Figures  []Factor `json:"figures"`
}

// Weakest is the weakest layer.
type Weakest struct {
	Step int    `json:"step"`
	Coat string `json:"coat" doc:"Id of the product"`
	On   string `json:"on" doc:"Id of what is below it"`
	// The same in words.
	CoatName string `json:"coat_name"`
	OnName   string `json:"on_name"`
}

// Bleed says what one bleeder will show.
type Bleed struct {
	ID      string   `json:"id"`
	Name    string   `json:"name"`
	DeltaE  float64  `json:"delta_e"`
	Words   string   `json:"words" doc:"What it looks like on the finished face"`
	Visible bool     `json:"visible"`
	Where   string   `json:"where"`
	Figures []Factor `json:"figures"`
}

// Hiding says whether the coats hide the ground.
type Hiding struct {
	CoatsPlanned int      `json:"coats_planned"`
	CoatsNeeded  int      `json:"coats_needed"`
	DeltaE       float64  `json:"delta_e" doc:"From the wanted colour, after the planned coats, where they are thinnest"`
	Colour       string   `json:"colour" doc:"The resulting colour"`
	Sealed       string   `json:"sealed" doc:"The same under its seal"`
	Figures      []Factor `json:"figures"`
}

// Chips says how much of a powder paint will chip.
type Chips struct {
	P10     float64  `json:"p10"`
	P50     float64  `json:"p50"`
	P90     float64  `json:"p90"`
	Usual   string   `json:"usual" doc:"The median, in words"`
	Layer   string   `json:"layer" doc:"Where it comes off"`
	Words   string   `json:"words"`
	Figures []Factor `json:"figures"`
}

// Ready says when the finished zone may be used, in days after the plan ends.
type Ready struct {
	Careful float64 `json:"careful_days" doc:"Hardware back, handled with care"`
	Normal  float64 `json:"normal_days" doc:"Everyday use"`
	Hard    float64 `json:"hard_days" doc:"Hard use, heat and water"`
	Says    string  `json:"says"`
}

// Hours says how long the plan takes.
type Hours struct {
	HandsOn *float64 `json:"hands_on" doc:"Null while the area is not known"`
	Elapsed float64  `json:"elapsed"`
	Work    string   `json:"work,omitempty" doc:"Hours of work in words; absent while the area is not known"`
	Takes   string   `json:"takes" doc:"Elapsed in words"`
	// Steps are minutes of work by step, with how long each takes in all.
	Steps []Factor `json:"steps" doc:"Minutes of work by step, and in words how long it takes in all"`
}

// Factor is one figure with what it means.
type Factor struct {
	ID    string  `json:"id"`
	Value float64 `json:"value"`
	Shown string  `json:"shown" doc:"The value as text"`
	Words string  `json:"words"`
}

// Finding is one thing a rule has to say.
type Finding struct {
	Code         string             `json:"code"`
	Severity     string             `json:"severity" enum:"note,watch,fail"`
	Step         int                `json:"step,omitempty" doc:"From 1; absent for the zone as a whole"`
	Title        string             `json:"title"`
	Why          string             `json:"why"`
	Figures      map[string]float64 `json:"figures"`
	Factors      []Factor           `json:"factors" doc:"The figures with their meaning, in order"`
	Repairs      []Repair           `json:"repairs"`
	Acknowledged string             `json:"acknowledged,omitempty" doc:"Date on which the caution was read"`
	Done         bool               `json:"done,omitempty" doc:"It is about something that was done"`
	Also         []string           `json:"also,omitempty" doc:"Codes of rules that found the same cause, which is told once"`
	Divided      *Divided           `json:"divided,omitempty" doc:"What good painters disagree about here"`
}

// Divided is something about which good painters disagree.
type Divided struct {
	Says string `json:"says" doc:"Who does it, how often it goes wrong, and what makes it sure"`
	Way  string `json:"way,omitempty" doc:"Id of the way of working that does it"`
}

// Repair is one way to answer a finding.
type Repair struct {
	Kind    string `json:"kind" enum:"edit,measure,acknowledge"`
	Title   string `json:"title"`
	Steps   []Step `json:"steps,omitempty" doc:"Of an edit: the zone's whole repaired steps"`
	Field   string `json:"field,omitempty" doc:"Of a measurement: the field to fill in"`
	Verdict string `json:"verdict,omitempty" doc:"Of an edit: what it leads to; fails where other findings remain that fail"`
}

// Section is the cut through a zone's coats, from the substrate up.
type Section struct {
	Layers   []Layer    `json:"layers"`
	Steps    []StepSays `json:"steps,omitempty" doc:"What each step of the plan is, in words"`
	Marks    []Mark     `json:"marks" doc:"Steps that leave no layer, and where they were done"`
	Grit     int        `json:"grit,omitempty"`
	Source   []string   `json:"source,omitempty" doc:"What may bleed from below, worst first"`
	Faces    []Face     `json:"faces,omitempty" doc:"The finished surface as stains come, from fresh to a year old"`
	Worn     []Shown    `json:"worn" doc:"Colours that an edge shows as it wears, the top paint first"`
	WornSays string     `json:"worn_says,omitempty" doc:"The same in words"`
}

// Face is the finished surface at a moment.
type Face struct {
	Name   string  `json:"name"`
	Days   float64 `json:"days"`
	Colour string  `json:"colour"`
	DeltaE float64 `json:"delta_e"`
	Of     string  `json:"of,omitempty" doc:"The worst stain by then"`
	Spots  bool    `json:"spots,omitempty" doc:"It shows in spots"`
	Says   string  `json:"says"`
}

// Shown is a layer that wear exposes.
type Shown struct {
	Layer      int     `json:"layer" doc:"From 0"`
	Colour     string  `json:"colour"`
	Difference float64 `json:"difference" doc:"From the finished colour, in CIEDE2000 units"`
}

// Layer is one layer of the cut.
type Layer struct {
	Kind      string    `json:"kind" enum:"substrate,finish,coat"`
	Name      string    `json:"name"`
	Group     string    `json:"group,omitempty"`
	Mark      string    `json:"mark,omitempty" doc:"Of the substrate: its pattern"`
	Family    string    `json:"family"`
	Colour    string    `json:"colour,omitempty"`
	Clear     bool      `json:"clear,omitempty"`
	Microns   float64   `json:"microns"`
	Step      int       `json:"step,omitempty"`
	Coat      int       `json:"coat,omitempty"`
	Joint     *Joint    `json:"joint,omitempty"`
	Soils     []string  `json:"soils,omitempty"`
	Stain     float64   `json:"stain,omitempty"`
	StainAs   string    `json:"stain_colour,omitempty"`
	StainIs   string    `json:"stain_words,omitempty" doc:"The stain in words; absent where it is not visible"`
	Over      []float64 `json:"stain_over,omitempty" doc:"The stain at the moments of faces"`
	Spots     bool      `json:"spots,omitempty"`
	Driven    []string  `json:"driven,omitempty" doc:"Those soils that sanding drove in"`
	Grit      int       `json:"grit,omitempty" doc:"Grit of the scratches on its face"`
	Padded    bool      `json:"padded,omitempty"`
	WaitsH    float64   `json:"waits_h,omitempty" doc:"Until the next coat, or the plan's end"`
	FromH     float64   `json:"from_h,omitempty" doc:"Its window for the next coat here"`
	ToH       *float64  `json:"to_h,omitempty" doc:"Absent where there is no latest"`
	Waits     string    `json:"waits,omitempty" doc:"The wait in words"`
	From      string    `json:"from,omitempty" doc:"The beginning of its window in words"`
	To        string    `json:"to,omitempty" doc:"The end of its window in words"`
	InTime    bool      `json:"in_time,omitempty" doc:"The next coat goes on within the window"`
	FromLabel bool      `json:"from_label,omitempty" doc:"Its window is from the label of its can"`
	Done      bool      `json:"done,omitempty" doc:"It was laid; false while it is planned"`
}

// Mark is a step that leaves no layer.
type Mark struct {
	Step int    `json:"step"`
	Do   string `json:"do"`
	On   int    `json:"on" doc:"The layer whose face it worked on, from 0"`
	Done bool   `json:"done,omitempty" doc:"It was done; false while it is planned"`
}

// Joint is how a layer holds on what is below it.
type Joint struct {
	Strength float64  `json:"strength"`
	Class    string   `json:"class"`
	Holds    string   `json:"holds" enum:"well,barely,not,meant" doc:"Meant: it is supposed to flake, for the look"`
	Figures  []Factor `json:"figures"`
}

// NextStep is a step that could come next in a zone's plan.
type NextStep struct {
	StepOption
	Why     string `json:"why,omitempty" doc:"Why it is recommended; absent where it is not"`
	Brings  string `json:"brings,omitempty" doc:"The new finding that it would cause"`
	Barred  string `json:"barred,omitempty" doc:"Why it cannot be planned"`
	Verdict string `json:"verdict" enum:"sound,watch,fails" doc:"On the plan with the step in it"`
}

// Bond is a bond of a plan that a patch test could be made of.
type Bond struct {
	Step       int        `json:"step"`
	Product    string     `json:"product"`
	Over       string     `json:"over"`
	Bare       bool       `json:"bare,omitempty"`
	Additive   float64    `json:"additive,omitempty"`
	Name       string     `json:"name" doc:"The coat and what is below it, in words"`
	Strength   float64    `json:"strength"`
	Class      string     `json:"class"`
	Risk       float64    `json:"risk"`
	Holds      string     `json:"holds" enum:"well,barely,not,meant"`
	Boards     int        `json:"boards,omitempty" doc:"Rated patch tests that it was learned from"`
	Before     float64    `json:"before,omitempty" doc:"Strength without them"`
	RateInDays int        `json:"look_days" doc:"Days from which a patch test of it can be rated"`
	Under      Conditions `json:"under" doc:"The factors under which the plan makes it"`
}

// PatchState is how a patch test stands.
type PatchState struct {
	ID    string `json:"id"`
	Name  string `json:"name" doc:"The coat and what it was made on"`
	State string `json:"state" enum:"planned,curing,ready,rated"`
	Says  string `json:"says"`
	// RateInDays are the days from laying it to rating it.
	RateInDays int `json:"look_days"`
}
