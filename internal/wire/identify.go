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
	ID             string     `json:"id"`
	Name           string     `json:"name,omitempty"`
	Says           string     `json:"says" doc:"The result in a sentence"`
	Made           []Belief   `json:"made" doc:"Materials, most likely first"`
	On             []Belief   `json:"on" doc:"Finishes, most likely first"`
	Answers        []Answered `json:"answers"`
	NotCounted     []Answered `json:"aside" doc:"Answers that are not counted, with the reason"`
	Contradictions []Conflict `json:"against" doc:"Answers that contradict each other"`
	Excluded       bool       `json:"excluded,omitempty" doc:"The answers fit no known material"`
	Settled        float64    `json:"settled" doc:"Probability for which the same would be done"`
	Done           bool       `json:"done" doc:"No further test would change what is done"`
	DoneSays       string     `json:"done_says,omitempty"`
	Next           []NextTest `json:"next" doc:"Possible next tests, most useful first"`
	Barred         []string   `json:"barred" doc:"Tests that suspected lead forbids"`
	Take           *Take      `json:"take,omitempty" doc:"What to enter in the survey"`
	Walked         []Walked   `json:"walked" doc:"What the plan is checked for"`
}

// Belief is the belief in one thing.
type Belief struct {
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
	Bits  float64 `json:"bits" doc:"Expected information about what to do, in bits"`
	Worth float64 `json:"worth" doc:"The same, less its effort and harm"`
	Says  string  `json:"says" doc:"Why it is worth making, in words"`
	// Rare outcomes are not shown at once.
	Rare []string `json:"rare" doc:"Outcomes that are unlikely here"`
}

// Take is what the survey would say.
type Take struct {
	Substrate string  `json:"substrate"`
	Veneer    bool    `json:"veneer,omitempty"`
	Finish    string  `json:"finish"`
	Says      string  `json:"says"`
	Sure      string  `json:"sure" enum:"assumed,doubted,possible,likely,tested"`
	P         float64 `json:"p" doc:"Probability of the less certain of the two"`
	Share     string  `json:"share" doc:"P in words"`
}

// Walked is a surface that the plan is judged for.
type Walked struct {
	Name    string  `json:"name"`
	P       float64 `json:"p,omitempty" doc:"Absent where nothing was tested"`
	Share   string  `json:"share,omitempty" doc:"P in words"`
	Verdict string  `json:"verdict,omitempty" enum:"sound,watch,fails" doc:"Of the plan, if there is one, for this surface"`
}

// Known is how sure one may be of what was entered.
type Known struct {
	Substrate Certainty `json:"substrate"`
	Finish    Certainty `json:"finish"`
	Walked    int       `json:"walked" doc:"How many surfaces the plan is checked for"`
}

// Certainty is how sure one may be of one thing.
type Certainty struct {
	Sure string  `json:"sure" enum:"assumed,doubted,possible,likely,tested"`
	P    float64 `json:"p"`
	Says string  `json:"says"`
}

// Lead is what is known of lead in a zone.
type Lead struct {
	State string `json:"state" enum:"undated,suspect,excluded,found"`
	Says  string `json:"says"`
	Noted string `json:"noted,omitempty" doc:"Why a recorded test does not decide"`
	// Advice is absent where lead is excluded.
	Advice []string `json:"advice,omitempty"`
}
