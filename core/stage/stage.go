// Package stage says how far the work on a zone has come: the stages in the
// order of the work, and for each whether something there is unfinished or in
// the way.
package stage

import (
	"fmt"
	"strings"

	"rutile/core/check"
	"rutile/core/craft"
	"rutile/core/identify"
	"rutile/core/measure"
	"rutile/core/surface"
)

// State is how a stage stands.
type State uint8

// The states. Open has something unfinished, stuck something in the way.
const (
	Done State = iota
	Open
	Stuck
)

// String returns the state's id.
func (s State) String() string { return [...]string{"done", "open", "stuck"}[s] }

// Stage is how one stage of the work on a zone stands.
type Stage struct {
	ID    craft.Stage
	Name  string
	State State
	// Says is what is unfinished or in the way, or what is done, as a sentence
	// without its stop.
	Says string
	// Step, from 1, is the step of the plan that it is about; 0 for none.
	Step int
}

// Entry is a stage of the work: what it is called, what it is done by, and where it is found. A
// stage is one entry of [Entries]; nothing else lists them.
type Entry struct {
	ID   craft.Stage
	Name string
	// Open says of a piece that this is the first stage with something unfinished.
	Open string
	// Core is the package of the core that it rests on.
	Core string
	// UseCase is the method that answers for it, Route its address in the API, View its place in
	// the page and Folder the page's folder.
	UseCase, Route, View, Folder string
	// Fields are those that are filled in there, as repairs and openings name them.
	Fields []craft.Field
	// Stands says how the stage stands: its state, in a sentence without its stop, and the step of
	// the plan that it is about, from 1; 0 for none.
	Stands func(*Work) (state State, says string, step int)
}

// Work is a judged zone, as stages look at it.
type Work struct {
	Craft  *craft.Craft
	Zone   *check.Zone
	Result *check.Result
	// First is the index of the first coat, the number of steps where there is none. Coats
	// counts the coat steps, Paints those of paint, and Seals those of a clear coat, clear shellac, wax or oil.
	First, Coats, Paints, Seals int
}

// Entries are the stages in the order of the work.
var Entries = []Entry{
	{
		ID: craft.StageSurvey, Name: "Survey", Open: "Survey not finished", Core: "parts", UseCase: "Overview", Route: "/api/check", View: "survey", Folder: "survey",
		Fields: []craft.Field{craft.FieldSubstrate, craft.FieldFinish, craft.FieldGloss, craft.FieldSoils, craft.FieldBleeders, craft.FieldDefects, craft.FieldMoisture, craft.FieldAge, craft.FieldVeneer, craft.FieldPrepared, craft.FieldColourNow, craft.FieldArea, craft.FieldParts, craft.FieldTakeApart, craft.FieldSite, craft.FieldUse, craft.FieldWear, craft.FieldTarget, craft.FieldLook, craft.FieldSheen},
		Stands: lookOver,
	},
	{
		ID: craft.StageIdentify, Name: "Identify", Open: "Not identified yet", Core: "identify", UseCase: "Identify", Route: "/api/identify", View: "identify", Folder: "identify",
		Fields: []craft.Field{craft.FieldIdentify, craft.FieldEvidence, craft.FieldLeadTest, craft.FieldTest}, Stands: identified,
	},
	{
		ID: craft.StagePrepare, Name: "Prepare", Open: "Preparation not decided", Core: "check", UseCase: "Check", Route: "/api/check", View: "plan", Folder: "plan",
		Stands: prepare,
	},
	{
		ID: craft.StageCoats, Name: "Coat system", Open: "Coats not decided", Core: "plan", UseCase: "PlanZone", Route: "/api/plans", View: "plan", Folder: "plan",
		Fields: []craft.Field{craft.FieldSteps, craft.FieldWay, craft.FieldShelf, craft.FieldKit}, Stands: coatSystem,
	},
	{
		ID: craft.StageMix, Name: "Mix", Open: "Mixing not settled", Core: "card", UseCase: "ZoneCards", Route: "/api/cards", View: "mix", Folder: "mix",
		Fields: []craft.Field{craft.FieldCan}, Stands: mixed,
	},
	{
		ID: craft.StageJobSheet, Name: "Job sheet", Open: "Nothing to print yet", Core: "section", UseCase: "Check", Route: "/api/check", View: "sheet", Folder: "sheet",
		Stands: handOver,
	},
	{
		ID: craft.StageWork, Name: "Work", Open: "Ready to start", Core: "worklog", UseCase: "PieceLog", Route: "/api/pieces/{id}/log", View: "work", Folder: "work",
		Stands: atWork,
	},
}

// Of says how a judged zone stands at some stages. r must come from a check of z.
func Of(entries []Entry, c *craft.Craft, z *check.Zone, r *check.Result) []Stage {
	w := &Work{Craft: c, Zone: z, Result: r, First: len(z.Steps)}
	for i := range z.Steps {
		if s := &z.Steps[i]; s.Do == surface.Coat {
			if _, treats := c.Products[s.Product].Chemical(); treats {
				continue // bleaching prepares the wood
			}
			w.First = min(w.First, i)
			w.Coats++
			switch p := &c.Products[s.Product]; {
			case p.Role == craft.RolePaint:
				w.Paints++
			case p.Role == craft.RoleClear || p.Role == craft.RoleWax || p.Coat == craft.SH && p.Colour == "":
				w.Seals++
			}
		}
	}
	out := make([]Stage, len(entries))
	for i := range entries {
		e := &entries[i]
		out[i] = Stage{ID: e.ID, Name: e.Name}
		out[i].State, out[i].Says, out[i].Step = e.Stands(w)
	}
	return out
}

func lookOver(w *Work) (State, string, int) {
	c, z := w.Craft, w.Zone
	var left []string
	if !z.SoilsKnown {
		left = append(left, "dirt on it")
	}
	fin := &c.Finishes[z.Finish]
	// A film that hardly depends on its key is judged the same whatever its gloss.
	const keyed = .2
	if !fin.Bare && !fin.Unknown && z.Gloss == craft.NoSheen && craft.Families[fin.Family].Need > keyed {
		left = append(left, "gloss")
	}
	if z.Area <= 0 {
		left = append(left, "area")
	}
	if z.Colour == "" {
		left = append(left, "wanted colour")
	}
	if len(left) > 0 {
		return Open, "Missing: " + strings.Join(left, ", "), 0
	}
	return Done, c.Substrates[z.Substrate].Name + ", surveyed", 0
}

func identified(w *Work) (State, string, int) {
	c, z := w.Craft, w.Zone
	sub, fin := &c.Substrates[z.Substrate], &c.Finishes[z.Finish]
	if lead, _ := z.Lead(c); lead == check.LeadSuspect || lead == check.LeadFound {
		s := Open
		if f, ok := w.worst(craft.StageIdentify); ok {
			s = state(f)
		}
		if lead == check.LeadFound {
			return s, "Lead was found", 0
		}
		return s, "Suspected lead, not tested by a laboratory or licensed assessor", 0
	}
	if lead, _ := z.Lead(c); lead == check.LeadUndated && w.Coats > 0 {
		return Open, "The coating's age is not known: have it tested for lead", 0
	}
	known := z.Known(c)
	switch {
	case known.Substrate == identify.Doubted || known.Finish == identify.Doubted:
		return Open, "The tests contradict the survey", 0
	case z.Tests != nil && len(z.Tests.Contradictions) > 0:
		return Open, "The tests contradict each other: " + z.Tests.Contradictions[0].Between(), 0
	case known.Finish == identify.Possible || known.Substrate == identify.Possible || (sub.Unknown || fin.Unknown) && z.Tests != nil && len(z.Tests.Answers) > 0:
		return Open, "Not certain yet: " + strings.TrimSuffix(z.Tests.Says(), "."), 0
	case sub.Unknown && fin.Unknown:
		return Open, "Neither the material nor its finish is known", 0
	case sub.Unknown:
		return Open, "The material is not known", 0
	case fin.Unknown:
		return Open, "The finish is not known; the plan is judged for every possibility", 0
	}
	return Done, check.SurfaceName(c, z.Substrate, z.Finish) + ", " + check.KnownWords(known.Finish, known.PFinish), 0
}

// worst is the worst finding that belongs to a stage; false where there is none above a note.
func (w *Work) worst(of craft.Stage) (*check.Finding, bool) {
	var out *check.Finding
	for i := range w.Result.Findings {
		f := &w.Result.Findings[i]
		if f.Severity != check.Note && f.Stage == of && (out == nil || f.Severity > out.Severity) {
			out = f
		}
	}
	return out, out != nil
}

func state(f *check.Finding) State {
	if f.Severity == check.Fail {
		return Stuck
	}
	return Open
}

func prepare(w *Work) (State, string, int) {
	if f, ok := w.worst(craft.StagePrepare); ok {
		return state(f), f.Title, f.Step
	}
	n := 0
	for i := range w.Zone.Steps[:w.First] {
		if do := w.Zone.Steps[i].Do; do != surface.Wait && do != surface.Test {
			n++
		}
	}
	if n == 0 {
		return Open, "No cleaning or sanding is planned yet", 0
	}
	return Done, measure.Count(n, "step", "steps") + " before the first coat", 0
}

func coatSystem(w *Work) (State, string, int) {
	f, ok := w.worst(craft.StageCoats)
	switch {
	case w.Coats == 0:
		return Open, "No coat is planned yet", len(w.Zone.Steps)
	case ok:
		return state(f), f.Title, f.Step
	case w.Paints == 0 && w.Seals == 0:
		return Open, "No paint or clear coat is planned yet", len(w.Zone.Steps)
	case w.Result.Adhesion != nil && check.RiskVerdict(w.Result.Adhesion.Risk) != check.Sound:
		return Open, "Settle the preparation first: risk of peeling " + check.Percent(w.Result.Adhesion.Risk), 0
	case w.Result.Adhesion != nil:
		return Done, fmt.Sprintf("%s, risk of peeling %s", measure.Count(w.Coats, "product", "products"), check.Percent(w.Result.Adhesion.Risk)), 0
	}
	return Done, measure.Count(w.Coats, "product", "products") + ", no problem found", 0
}

func mixed(w *Work) (State, string, int) {
	if f, ok := w.worst(craft.StageMix); ok {
		return state(f), f.Title, f.Step
	}
	n := 0
	for i := range w.Zone.Steps {
		if s := &w.Zone.Steps[i]; s.Do == surface.Coat {
			n += s.NumCoats()
		}
	}
	switch {
	case n == 0:
		return Open, "There is no coat to mix yet", 0
	case w.Zone.Area <= 0:
		return Open, "Enter the area to know how much to mix", 0
	}
	return Done, "Cards for " + measure.Count(n, "coat", "coats"), 0
}

func handOver(w *Work) (State, string, int) {
	switch {
	case w.Coats == 0:
		return Open, "There is no plan to print yet", 0
	case w.Result.Verdict == check.Fails:
		return Open, "The plan fails", 0
	}
	if w.Zone.Steps[0].NumDone() > 0 {
		return Done, "Ready to print", 0
	}
	return Done, "Ready to print. First step: " + craft.Lower(check.StepWords(w.Craft, &w.Zone.Steps[0])), 0
}

func atWork(w *Work) (State, string, int) {
	all, done, next := 0, 0, -1
	for i := range w.Zone.Steps {
		s := &w.Zone.Steps[i]
		if s.Do == surface.Wait {
			continue
		}
		n := 1
		if s.Do == surface.Coat {
			n = s.NumCoats()
		}
		all, done = all+n, done+s.NumDone()
		if s.NumDone() < n && next < 0 {
			next = i
		}
	}
	switch {
	case all == 0:
		return Open, "There is nothing to do yet", 0
	case next < 0:
		return Done, "All " + measure.Count(all, "step", "steps") + " done", 0
	case done == 0:
		return Open, "Start with: " + craft.Lower(check.StepWords(w.Craft, &w.Zone.Steps[next])), next + 1
	}
	return Open, fmt.Sprintf("%s (%d of %d done)", check.StepWords(w.Craft, &w.Zone.Steps[next]), done, all), next + 1
}
