package check

import (
	"rutile/core/craft"
	"rutile/core/surface"
)

// Result is a judged zone.
type Result struct {
	Verdict  Verdict
	Adhesion *Adhesion // nil while there is no coat
	Stains   []Stain   // of every bleeder there is, worst first
	Findings []Finding
	// Minutes hands-on, negative where the area is not known, and hours from
	// the first step to the end of the last wait.
	Minutes, Hours float64
	// Trace is the walk of the worst of the things the zone may be.
	Trace surface.Trace
	Facts surface.Facts
	// Candidates are the things that the surface may be, and Doubt the uncertainty that this adds
	// to the spread of the log of a strength.
	Candidates []Candidate
	Doubt      float64
	// Appearance is what its coats look like, Chips how much of a powder paint will come off, and
	// Cured when it may be used; Ready tells whether there is anything to use.
	Appearance Appearance
	Chips      Chips
	Cured      Cured
	Ready      bool
	// Chippy tells that flakes are wanted.
	Chippy bool
	// CrackMM is how wide the coat over a crackle medium will crack, in
	// millimetres; 0 where nothing cracks.
	CrackMM      float64
	meantToFlake func(*surface.Boundary) bool
}

// MeantToFlake tells whether a boundary is meant to come off.
func (r *Result) MeantToFlake(b *surface.Boundary) bool { return r.meantToFlake(b) }

// Finding is one thing a rule has to say.
type Finding struct {
	Code     string
	Severity Severity
	Step     int
	// Done tells that it is about something that was done, and not about what is planned.
	Done    bool
	Subject string
	Title   string
	Why     string
	Figures []Figure
	Repairs []Repair
	// Also are the codes of rules that found the same cause, and are not told again.
	Also []string
	// Divided is what painters disagree about here; nil for nothing.
	Divided *craft.Divide
	// Stage is the stage of the work that it belongs to, and Unfinished tells that it is about
	// steps still missing, as its rule's entry says.
	Stage      craft.Stage
	Unfinished bool
	// Refuses tells that no plan with it is proposed.
	Refuses bool
}

// Figure is one number behind a finding, with what it means. An id that ends in _h, _um, _mm or _c
// is of a value in hours, micrometres, millimetres or degrees Celsius of difference.
type Figure struct {
	ID    string
	Value float64
	Words string
}

// RepairKind is what pressing a repair does.
type RepairKind uint8

// The kinds: it changes the steps, opens a field to fill in, or notes that a
// caution was read.
const (
	Edit RepairKind = iota
	Measure
	Acknowledge
)

// String returns the kind's id.
func (k RepairKind) String() string { return [...]string{"edit", "measure", "acknowledge"}[k] }

// Repair is one way to answer a finding.
type Repair struct {
	Kind  RepairKind
	Title string
	Steps []surface.Step // of an edit: the zone's whole plan, repaired
	Field craft.Field    // of a measurement: the field to fill in
	// After is the verdict an edit leads to.
	After Verdict
}
