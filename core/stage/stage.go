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

// ID names a stage.
type ID string

// The stages, in the order of the work.
const (
	LookOver ID = "look_over"
	Identify ID = "identify"
	Prepare  ID = "prepare"
	Coats    ID = "coats"
	HandOver ID = "hand_over"
)

// Stage is one stage of the work on a zone.
type Stage struct {
	ID    ID
	Name  string
	State State
	// Says is what is unfinished or in the way, or what is done, as a sentence
	// without its stop.
	Says string
	// Step, from 1, is the place in the plan it speaks of; 0 for none.
	Step int
}

// Of says how a judged zone stands. r must come from a check of z.
func Of(c *craft.Craft, z *check.Zone, r *check.Result) []Stage {
	first := len(z.Steps) // index of the first coat
	coats, paints, hold := 0, 0, 0
	for i := range z.Steps {
		if s := &z.Steps[i]; s.Do == surface.Coat {
			first = min(first, i)
			coats++
			switch p := &c.Products[s.Product]; {
			case p.Role == craft.RolePaint:
				paints++
			case p.Role == craft.RoleClear || p.Role == craft.RoleWax:
				hold++
			}
		}
	}
	return []Stage{
		lookOver(c, z), identified(c, z, r), prepare(z, r, first), coatStage(c, r, len(z.Steps), coats, paints, hold), handOver(c, z, r, coats),
	}
}

func lookOver(c *craft.Craft, z *check.Zone) Stage {
	s := Stage{ID: LookOver, Name: "Look over"}
	var left []string
	if !z.SoilsKnown {
		left = append(left, "what lies on it")
	}
	fin := &c.Finishes[z.Finish]
	// A film that hardly depends on its key is judged alike whatever its shine.
	const keyed = .2
	if !fin.Bare && !fin.Unknown && z.Gloss == craft.NoSheen && craft.Families[fin.Family].Need > keyed {
		left = append(left, "how it shines")
	}
	if z.Area <= 0 {
		left = append(left, "its area")
	}
	if z.Colour == "" {
		left = append(left, "the colour it is to have")
	}
	if len(left) > 0 {
		s.State, s.Says = Open, "Not entered: "+strings.Join(left, ", ")
		return s
	}
	s.Says = c.Substrates[z.Substrate].Name + ", looked over"
	return s
}

func identified(c *craft.Craft, z *check.Zone, r *check.Result) Stage {
	s := Stage{ID: Identify, Name: "Identify"}
	sub, fin := &c.Substrates[z.Substrate], &c.Finishes[z.Finish]
	if lead, _ := z.Lead(c); lead == check.LeadSuspect {
		s.State, s.Says = Open, "Suspected of lead, and no laboratory or licensed assessor has tested it"
		for i := range r.Findings {
			if f := &r.Findings[i]; f.Code == "safety.lead" {
				s.State = max(s.State, state(f))
			}
		}
		return s
	}
	known := z.Known(c)
	switch {
	case known.Substrate == identify.Doubted || known.Finish == identify.Doubted:
		s.State, s.Says = Open, "The tests speak against what was entered"
	case z.Tests != nil && len(z.Tests.Against) > 0:
		s.State, s.Says = Open, "They contradict each other: "+z.Tests.Against[0].Between()
	case known.Finish == identify.Possible || known.Substrate == identify.Possible || (sub.Unknown || fin.Unknown) && z.Tests != nil && len(z.Tests.Answers) > 0:
		s.State, s.Says = Open, "Not settled yet: "+strings.TrimSuffix(z.Tests.Says(), ".")
	case sub.Unknown && fin.Unknown:
		s.State, s.Says = Open, "Neither the material nor what is on it is known"
	case sub.Unknown:
		s.State, s.Says = Open, "The material is not known"
	case fin.Unknown:
		s.State, s.Says = Open, "What is on it is not known; it is taken as each thing it may be"
	default:
		s.Says = check.SurfaceName(c, z.Substrate, z.Finish)
	}
	if s.State == Done {
		s.Says += ", " + check.KnownWords(known.Finish, known.PFinish)
	}
	return s
}

// worst is the worst finding of the named groups or at the steps before a
// place; false if there is none above a note.
func worst(r *check.Result, of func(*check.Finding) bool) (*check.Finding, bool) {
	var out *check.Finding
	for i := range r.Findings {
		f := &r.Findings[i]
		if f.Severity != check.Note && of(f) && (out == nil || f.Severity > out.Severity) {
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

// preparing tells whether a finding is about the work before the first coat.
func preparing(f *check.Finding) bool {
	return strings.HasPrefix(f.Code, "prep.") || f.Code == "adhesion.key" || f.Code == "adhesion.wax_under"
}

func prepare(z *check.Zone, r *check.Result, first int) Stage {
	s := Stage{ID: Prepare, Name: "Prepare"}
	if f, ok := worst(r, preparing); ok {
		s.State, s.Says, s.Step = state(f), f.Title, f.Step
		return s
	}
	n := 0
	for i := range z.Steps[:first] {
		if z.Steps[i].Do != surface.Wait && z.Steps[i].Do != surface.Test {
			n++
		}
	}
	if n == 0 {
		s.State, s.Says = Open, "No cleaning or sanding is planned yet"
		return s
	}
	s.Says = plural(n, "step") + " before the first coat"
	return s
}

func coatStage(c *craft.Craft, r *check.Result, steps, coats, paints, hold int) Stage {
	s := Stage{ID: Coats, Name: "Coat system"}
	f, ok := worst(r, func(f *check.Finding) bool {
		return !preparing(f) && !strings.HasPrefix(f.Code, "safety.") && f.Code != "walk.empty" && f.Code != "adhesion.untested"
	})
	switch {
	case coats == 0:
		s.State, s.Says, s.Step = Open, "No coat is planned yet", steps
	case ok:
		s.State, s.Says, s.Step = state(f), f.Title, f.Step
	case paints == 0 && hold == 0:
		s.State, s.Says, s.Step = Open, "Neither a paint nor a clear coat is planned yet", steps
	default:
		s.Says = plural(coats, "product") + ", no fault found"
		if r.Adhesion != nil {
			s.Says = fmt.Sprintf("%s, risk of peeling %s", plural(coats, "product"), check.Percent(r.Adhesion.Risk))
		}
	}
	return s
}

func handOver(c *craft.Craft, z *check.Zone, r *check.Result, coats int) Stage {
	s := Stage{ID: HandOver, Name: "Job sheet"}
	switch {
	case coats == 0:
		s.State, s.Says = Open, "There is no plan to print yet"
	case r.Verdict == check.Fails:
		s.State, s.Says = Open, "The plan fails as it stands"
	default:
		s.Says = "Ready to print: " + craft.Lower(check.StepWords(c, &z.Steps[0])) + " comes first"
	}
	return s
}

func plural(n int, of string) string {
	if n == 1 {
		return "1 " + of
	}
	return fmt.Sprintf("%d %ss", n, of)
}
