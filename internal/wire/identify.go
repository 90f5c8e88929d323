package wire

// IdentifyFormat names the answer to what a piece is made of.
const IdentifyFormat = "rutile/identify"

// IdentifyResult is what tests say of the zones of a piece.
type IdentifyResult struct {
	Format  string           `json:"format"`
	Version int              `json:"version"`
	Zones   []Identification `json:"zones"`
}

// Identification is what tests say of a zone, and what is worth testing next.
type Identification struct {
	ID       string       `json:"id"`
	Name     string       `json:"name,omitempty"`
	Says     string       `json:"says" doc:"The belief in a sentence"`
	Made     []BeliefPart `json:"made" doc:"What it is made of, the likeliest first"`
	On       []BeliefPart `json:"on" doc:"What is on it, the likeliest first"`
	Answers  []Answered   `json:"answers"`
	Aside    []Answered   `json:"aside" doc:"Answers that cannot count, with the reason"`
	Against  []Conflict   `json:"against" doc:"What hardly goes together"`
	Excluded bool         `json:"excluded,omitempty" doc:"The answers fit nothing that is known"`
	Settled  float64      `json:"settled" doc:"Share of belief in which the same would be done"`
	Done     bool         `json:"done" doc:"No further test would change what is done"`
	DoneSays string       `json:"done_says,omitempty"`
	Next     []NextTest   `json:"next" doc:"What could be tested next, what is most worth it first"`
	Barred   []string     `json:"barred" doc:"Tests that suspected lead forbids"`
	Take     *Take        `json:"take,omitempty" doc:"What the survey would say if it said what is believed"`
	Walked   []Walked     `json:"walked" doc:"What the plan is judged for"`
}

// BeliefPart is the belief in one thing.
type BeliefPart struct {
	ID    string  `json:"id"`
	Name  string  `json:"name"`
	P     float64 `json:"p"`
	Words string  `json:"words"`
	Share string  `json:"share" doc:"P in words"`
}

// Answered is an answer in words.
type Answered struct {
	Test    string `json:"test"`
	Name    string `json:"name"`
	Outcome string `json:"outcome"`
	Says    string `json:"says"`
	Why     string `json:"why,omitempty"`
}

// Conflict names what contradicts.
type Conflict struct {
	Tests []string `json:"tests"`
	Says  string   `json:"says"`
}

// NextTest is a test worth making.
type NextTest struct {
	Test  string  `json:"test"`
	Name  string  `json:"name"`
	Bits  float64 `json:"bits" doc:"What it is expected to tell of what is to be done"`
	Worth float64 `json:"worth" doc:"That less its trouble and harm"`
	Says  string  `json:"says" doc:"Why it is worth making, in words"`
	// Rare outcomes are not shown at once.
	Rare []string `json:"rare" doc:"Outcomes that are hardly to be expected here"`
}

// Take is what the survey would say.
type Take struct {
	Substrate string  `json:"substrate"`
	Veneer    bool    `json:"veneer,omitempty"`
	Finish    string  `json:"finish"`
	Says      string  `json:"says"`
	Sure      string  `json:"sure" enum:"assumed,doubted,possible,likely,tested"`
	P         float64 `json:"p" doc:"Belief in the less certain of the two"`
	Share     string  `json:"share" doc:"P in words"`
}

// Walked is a surface that the plan is judged for.
type Walked struct {
	Name    string  `json:"name"`
	P       float64 `json:"p,omitempty" doc:"Absent where nothing was tested"`
	Share   string  `json:"share,omitempty" doc:"P in words"`
	Verdict string  `json:"verdict,omitempty" enum:"sound,watch,fails" doc:"On the plan, if there is one, were it that"`
}

// Known is how sure one may be of what was entered.
type Known struct {
	Substrate KnownPart `json:"substrate"`
	Finish    KnownPart `json:"finish"`
	Walked    int       `json:"walked" doc:"For how many surfaces the plan is judged"`
}

// KnownPart is how sure one may be of one thing.
type KnownPart struct {
	Sure string  `json:"sure" enum:"assumed,doubted,possible,likely,tested"`
	P    float64 `json:"p"`
	Says string  `json:"says"`
}

// Lead is what is known of lead in a zone.
type Lead struct {
	State string `json:"state" enum:"suspect,excluded,found"`
	Says  string `json:"says"`
	Noted string `json:"noted,omitempty" doc:"Why a noted test does not decide"`
	// Advice is absent where lead is excluded.
	Advice []string `json:"advice,omitempty"`
}
