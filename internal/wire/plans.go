package wire

// PlansFormat names what the planner answers in.
const PlansFormat = "rutile/plans"

// Plans are the plans of the zones of a piece.
type Plans struct {
	Format  string      `json:"format"`
	Version int         `json:"version"`
	Zones   []ZonePlans `json:"zones"`
}

// ZonePlans are the plans of one zone, by several ways, the best first.
type ZonePlans struct {
	ID    string    `json:"id"`
	Name  string    `json:"name,omitempty"`
	Plans []WayPlan `json:"plans"`
	// PerM2 is set if the area is not known.
	PerM2 bool `json:"per_m2,omitempty" doc:"Hours and costs are for one square metre, as the area is not known"`
}

// WayPlan is the best plan by one way of working, or what stands in its way.
type WayPlan struct {
	Way        string       `json:"way"`
	Name       string       `json:"name"`
	Says       string       `json:"says,omitempty"`
	Own        bool         `json:"own,omitempty" doc:"The current plan of the zone"`
	Same       string       `json:"same,omitempty" doc:"An earlier way of working with the same steps, or blocked for the same reasons"`
	Proved     bool         `json:"proved" doc:"Proved to be the best plan possible in the planner's vocabulary, by these weights"`
	Points     float64      `json:"points"`
	Comparison string       `json:"against,omitempty" doc:"Why it is not the best"`
	Verdict    string       `json:"verdict,omitempty" enum:"sound,watch,fails"`
	Steps      []Step       `json:"steps,omitempty"`
	Words      []string     `json:"words,omitempty" doc:"The steps in words"`
	Cans       []Can        `json:"cans,omitempty" doc:"The piece's cans, with those that its coats are taken from"`
	Shelf      string       `json:"shelf,omitempty" doc:"Which cans of the shelf it takes, as a sentence"`
	Ground     string       `json:"ground,omitempty" doc:"What makes it hold, in words"`
	Finish     string       `json:"finish,omitempty" doc:"The paint and its seal, in words"`
	Note       string       `json:"note,omitempty" doc:"Where the look decides and not the way of working"`
	Holds      string       `json:"holds,omitempty" doc:"How well it holds, in a few words"`
	Risk       *Range       `json:"risk,omitempty" doc:"Of peeling"`
	Stain      *Range       `json:"stain,omitempty" doc:"The worst stain, in CIEDE2000 units; absent where nothing bleeds"`
	Chips      string       `json:"chips,omitempty" doc:"Of a flaking look: how much flakes off"`
	HandsOn    float64      `json:"hands_on_h"`
	Elapsed    float64      `json:"elapsed_h"`
	Takes      string       `json:"takes,omitempty" doc:"How many days it takes, in words"`
	Days       int          `json:"days,omitempty" doc:"The same as a number, without the wait for hardness"`
	Work       string       `json:"work,omitempty" doc:"How much of that is work, as a range in words"`
	Front      string       `json:"front,omitempty" doc:"What must stand before its verdict: how many faces painted like this peel"`
	Differs    string       `json:"differs,omitempty" doc:"How it differs from the best plan, in a sentence"`
	Refit      string       `json:"refit,omitempty" doc:"That hardware may go back the next day, with its caution"`
	Buys       []string     `json:"buys,omitempty" doc:"What it needs that the kit does not have"`
	BuyWords   string       `json:"buy_words,omitempty" doc:"The same as a clause"`
	Gain       string       `json:"gain,omitempty" doc:"What buying that gains, in a sentence"`
	Leaves     []string     `json:"leaves,omitempty" doc:"Habits that it does not keep: what each risks"`
	Cost       float64      `json:"cost" doc:"Of materials, in the studio's currency"`
	Smell      string       `json:"smell,omitempty"`
	Trips      int          `json:"trips"`
	Depends    []string     `json:"depends,omitempty" doc:"What it depends on, most important first"`
	Watches    []string     `json:"watches,omitempty" doc:"What the check says can go wrong with it"`
	Terms      []TermPoints `json:"terms,omitempty" doc:"What its points are made of"`
	Section    *Section     `json:"section,omitempty"`
	Infeasible *Infeasible  `json:"stuck,omitempty" doc:"What blocks a plan, where there is none"`
}

// Range is a figure as a range.
type Range struct {
	Low    float64 `json:"low"`
	Likely float64 `json:"likely"`
	High   float64 `json:"high"`
	Words  string  `json:"words"`
}

// TermPoints is what one term adds to a plan's points.
type TermPoints struct {
	ID     string  `json:"id"`
	Name   string  `json:"name"`
	Amount string  `json:"amount"`
	Points float64 `json:"points"`
}

// Infeasible says why there is no plan, and what would open the way.
type Infeasible struct {
	Why         []Obstacle   `json:"why"`
	Relaxations []Relaxation `json:"opens"`
	Stopped     bool         `json:"stopped,omitempty" doc:"The search was stopped before it had seen everything"`
}

// Obstacle is one thing that stands in the way.
type Obstacle struct {
	Code  string `json:"code,omitempty"`
	Title string `json:"title"`
	Why   string `json:"why"`
}

// Relaxation is a change with which there is a plan.
type Relaxation struct {
	Says  string   `json:"says"`
	Field string   `json:"field" doc:"The field to enter it in"`
	Words []string `json:"words" doc:"A plan that then passes"`
}

// Sensitivity is an untested fact that would change the plan.
type Sensitivity struct {
	If      string   `json:"if"`
	Test    string   `json:"test"`
	Field   string   `json:"field" doc:"The field to enter the result in"`
	Fails   bool     `json:"fails" doc:"The plan would then fail"`
	Then    string   `json:"then" doc:"What would be done instead, in words"`
	Instead []string `json:"instead,omitempty" doc:"The steps of that plan, in words"`
}

// PiecePlan is a piece in which every zone that can be is planned.
type PiecePlan struct {
	Piece *Piece     `json:"piece"`
	Zones []ZonePlan `json:"zones"`
	Trips []Trip     `json:"trips" doc:"All plans, combined into one schedule of trips"`
	Days  []Day      `json:"days" doc:"The same by day"`
	Steps int        `json:"steps" doc:"Number of trips if each zone is done separately"`
	Takes string     `json:"takes" doc:"Time from the first trip to the last, in words"`
}

// ZonePlan is what became of one zone.
type ZonePlan struct {
	ID         string      `json:"id"`
	Name       string      `json:"name"`
	State      string      `json:"state" enum:"had,planned,stuck,stopped" doc:"Had: it already had a plan, which stays"`
	Shelf      string      `json:"shelf,omitempty" doc:"Which cans of the shelf its new plan takes, as a sentence"`
	BuyWords   string      `json:"buy_words,omitempty" doc:"What its new plan needs that the kit does not have, as a clause"`
	Front      string      `json:"front,omitempty" doc:"What must stand before its verdict: how many faces painted like this peel"`
	Leaves     []string    `json:"leaves,omitempty" doc:"Habits that it does not keep: what each risks"`
	Says       string      `json:"says"`
	Like       []string    `json:"like,omitempty" doc:"Zones that will look the same"`
	Differs    string      `json:"differs,omitempty" doc:"Why it cannot have their paint"`
	Watches    []string    `json:"watches,omitempty" doc:"What the check says can go wrong with its new plan"`
	Unproved   bool        `json:"unproved,omitempty" doc:"The search for its plan was stopped early: there may be a better one"`
	Infeasible *Infeasible `json:"stuck,omitempty"`
}

// Day is what is done on one day.
type Day struct {
	Day   int    `json:"day" doc:"From 1, with those on which nobody works"`
	Title string `json:"title" doc:"As day 1, 2 h: and what is done"`
	Trips []int  `json:"trips" doc:"Its trips, by their place in the list"`
}

// Trip is one visit to the workbench.
type Trip struct {
	Day     int      `json:"day" doc:"From 1"`
	Does    string   `json:"does"`
	Do      string   `json:"do"`
	Zones   []string `json:"zones" doc:"Names, in order"`
	StartH  float64  `json:"start_h" doc:"Hours after the first trip"`
	At      string   `json:"at" doc:"The hour of its day"`
	Minutes float64  `json:"minutes"`
	Work    string   `json:"work" doc:"The same in words"`
	While   []string `json:"while,omitempty" doc:"Zones that dry meanwhile"`
	Caution string   `json:"caution,omitempty" doc:"Why it was put a day away from another trip"`
}

// PlanLine is one line of the answer to planning a piece: how far it is, or in the
// last line the plan.
type PlanLine struct {
	Done int        `json:"done"`
	Of   int        `json:"of"`
	Plan *PiecePlan `json:"plan,omitempty"`
	Says string     `json:"says,omitempty" doc:"What went wrong"`
}

// PlanRun is how far a search for plans is.
type PlanRun struct {
	Done int `json:"done" doc:"Ways of working, or zones of a piece, that were searched"`
	Of   int `json:"of" doc:"0 before it has begun"`
}
