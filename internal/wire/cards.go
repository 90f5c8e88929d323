package wire

// CardsFormat names the answer of the cards.
const CardsFormat = "rutile/mix"

// Cards are the batches and cards of a piece.
type Cards struct {
	Format  string      `json:"format"`
	Version int         `json:"version"`
	Name    string      `json:"name,omitempty"`
	Zones   []ZoneCards `json:"zones"`
}

// ZoneCards are the batches and cards of a zone, in the order of its plan.
type ZoneCards struct {
	ID    string `json:"id"`
	Name  string `json:"name,omitempty"`
	Area  string `json:"area,omitempty"`
	Air   string `json:"air"`
	Cards []Card `json:"cards"`
	Order []Turn `json:"order" doc:"The order in which its parts are painted"`
	Says  string `json:"says" doc:"What there is to mix, or what is missing for it"`
	Needs string `json:"needs,omitempty" enum:"area,steps" doc:"What is missing"`
}

// Card is what a painter works from for one coat, one filling, or one working of an effect.
type Card struct {
	ID      string      `json:"id" doc:"Once in the zone: the step, and the coat"`
	Kind    string      `json:"kind" enum:"coat,fill,work"`
	Step    int         `json:"step"`
	Coat    int         `json:"coat,omitempty"`
	Of      int         `json:"of,omitempty" doc:"How many coats its step has"`
	Name    string      `json:"name"`
	Title   string      `json:"title"`
	Can     string      `json:"can,omitempty"`
	Colour  string      `json:"colour,omitempty"`
	Method  string      `json:"method,omitempty"`
	Brief   string      `json:"brief" doc:"The batch in a line"`
	Batch   *Batch      `json:"batch,omitempty"`
	Mix     *MixSays    `json:"mix,omitempty"`
	Lay     *LaySays    `json:"lay,omitempty"`
	Choices []MixChoice `json:"choices" doc:"What may be chosen for its mixing"`
	Amount  bool        `json:"amount,omitempty" doc:"The painter may say how much"`
	Blend   bool        `json:"blend,omitempty" doc:"It may be blended from several paints"`
}

// MixChoice is something that may be chosen for the mixing of a coat, with the usual ways.
type MixChoice struct {
	Field   string      `json:"field" enum:"water_ratio,additive,thin_pct,tint_ratio,recipe"`
	Name    string      `json:"name"`
	Options []MixOption `json:"options"`
}

// MixOption is one of the usual ways.
type MixOption struct {
	ID    string  `json:"id"`
	Name  string  `json:"name"`
	Says  string  `json:"says"`
	Value float64 `json:"value" doc:"Of the field, where that is a number"`
	On    bool    `json:"on" doc:"It is as planned"`
}

// Batch is what is mixed for one coat.
type Batch struct {
	Refused  string    `json:"refused,omitempty" doc:"Why there is nothing to mix"`
	Needs    string    `json:"needs" doc:"What the coat takes, in words"`
	NeedL    float64   `json:"need_l"`
	MostL    float64   `json:"most_l"`
	Makes    string    `json:"makes" doc:"What a pot comes to, in words"`
	MakesL   float64   `json:"makes_l"`
	Pots     int       `json:"pots"`
	Portions []Portion `json:"portions" doc:"What goes into each pot, in this order"`
	LifeH    float64   `json:"life_h,omitempty"`
	Life     string    `json:"life,omitempty" doc:"How long a pot can be used in this air"`
	WorkMin  float64   `json:"work_min,omitempty" doc:"Minutes that it takes to lay a pot"`
	LeftL    float64   `json:"left_l,omitempty"`
	Left     string    `json:"left,omitempty" doc:"What a usual hand leaves over, and what that is good for"`
	Notes    []string  `json:"notes"`
	Like     string    `json:"like,omitempty" doc:"What a home-made paint is like"`
}

// Portion is one thing that is poured into a pot.
type Portion struct {
	Is     string        `json:"is" enum:"base,with,filler,water,thinner,additive"`
	Name   string        `json:"name"`
	Says   string        `json:"says"`
	Litres float64       `json:"litres"`
	Grams  float64       `json:"grams,omitempty"`
	ExactL float64       `json:"exact_l" doc:"Before rounding up"`
	Parts  []PortionPart `json:"parts,omitempty" doc:"The paints that it is blended from"`
}

// PortionPart is one paint of a blended portion.
type PortionPart struct {
	Name   string  `json:"name"`
	Colour string  `json:"colour"`
	Parts  int     `json:"parts"`
	Says   string  `json:"says"`
	Litres float64 `json:"litres"`
}

// CardStep is one thing to do.
type CardStep struct {
	Says  string     `json:"says"`
	Clock *CardClock `json:"clock,omitempty"`
}

// CardClock is a clock that a card offers.
type CardClock struct {
	Kind    string  `json:"kind"`
	Says    string  `json:"says"`
	Seconds float64 `json:"seconds" doc:"How long it runs in this air"`
	NeedS   float64 `json:"need_s" doc:"The same in an ordinary room"`
	LeastS  float64 `json:"least_s,omitempty" doc:"What no touch test makes it shorter than"`
	Product string  `json:"product,omitempty" doc:"What dries"`
}

// MixSays is what the mixing card says.
type MixSays struct {
	Steps    []CardStep  `json:"steps"`
	TooThick string      `json:"too_thick"`
	TooThin  string      `json:"too_thin"`
	Foam     string      `json:"foam,omitempty"`
	Keeps    []string    `json:"keeps"`
	Clocks   []CardClock `json:"clocks"`
}

// LaySays is what the laying card says.
type LaySays struct {
	Tool    string      `json:"tool"`
	Why     string      `json:"why,omitempty"`
	Load    string      `json:"load,omitempty"`
	Setup   []string    `json:"setup"`
	Before  []string    `json:"before"`
	Steps   []CardStep  `json:"steps"`
	Stroke  string      `json:"stroke"`
	Reason  string      `json:"stroke_why,omitempty"`
	Across  bool        `json:"across,omitempty"`
	Dabbed  bool        `json:"dabbed,omitempty"`
	Once    bool        `json:"once,omitempty"`
	Section string      `json:"section,omitempty"`
	Edge    *CardClock  `json:"edge,omitempty" doc:"How long an edge stays wet"`
	Wipe    string      `json:"wipe,omitempty"`
	Cloth   string      `json:"cloth,omitempty"`
	Little  string      `json:"little,omitempty"`
	Runs    string      `json:"runs,omitempty"`
	Faults  []CardFault `json:"faults"`
	Protect []string    `json:"protect"`
	Clean   string      `json:"clean,omitempty"`
	Keep    string      `json:"keep,omitempty"`
	Waste   string      `json:"waste,omitempty"`
	Clocks  []CardClock `json:"clocks"`
	Ordered bool        `json:"ordered,omitempty" doc:"It goes on the whole zone, in the order of its turns"`
	Order   []string    `json:"order,omitempty" doc:"The order in words, where no parts are known to draw it from"`
}

// CardFault is something that goes wrong, with what to do.
type CardFault struct {
	ID   string `json:"id"`
	Name string `json:"name"`
	Wet  string `json:"wet"`
	Dry  string `json:"dry"`
}

// Turn is one place in the order in which a zone is painted.
type Turn struct {
	N     int        `json:"n"`
	Part  int        `json:"part"`
	Says  string     `json:"says"`
	Run   string     `json:"run" enum:"level,upright,around" doc:"The way that strokes go"`
	Apart bool       `json:"apart,omitempty" doc:"Its part lies by itself"`
	Last  bool       `json:"last,omitempty" doc:"The next number is another part"`
	Marks []TurnMark `json:"marks" doc:"Where it shows in the elevation"`
}

// TurnMark is where a turn shows.
type TurnMark struct {
	N int     `json:"n" doc:"Which of the part's count"`
	D string  `json:"d" doc:"Outline, as an SVG path in centimetres"`
	X float64 `json:"x" doc:"Where its number stands"`
	Y float64 `json:"y"`
}

// AmountRead is a typed amount of paint as it was understood.
type AmountRead struct {
	Litres float64 `json:"litres"`
	Says   string  `json:"says"`
}
