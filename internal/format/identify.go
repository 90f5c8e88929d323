package format

import (
	"fmt"
	"io"
	"slices"
	"strconv"
	"strings"
	"time"

	"rutile/core/check"
	"rutile/core/craft"
	"rutile/core/identify"
	"rutile/core/surface"
)

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
}

// Walked is a surface that the plan is judged for.
type Walked struct {
	Name    string  `json:"name"`
	P       float64 `json:"p,omitempty" doc:"Absent where nothing was tested"`
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

func knownOf(c *craft.Craft, z *check.Zone, r *check.Result) *Known {
	if z.Tests == nil || len(z.Tests.Answers) == 0 {
		return nil
	}
	k := z.Known(c)
	return &Known{
		Substrate: KnownPart{k.Substrate.String(), tidy(k.PSubstrate), check.KnownWords(k.Substrate, k.PSubstrate)},
		Finish:    KnownPart{k.Finish.String(), tidy(k.PFinish), check.KnownWords(k.Finish, k.PFinish)},
		Walked:    len(r.May),
	}
}

// leadWords say what each state of lead means for the work.
var leadWords = map[check.LeadState]string{
	check.LeadSuspect:  "The old coat may hold lead. No dry sanding, scraping, heat or dry brushing until a laboratory or a licensed assessor has excluded it.",
	check.LeadFound:    "There is lead in the old coat. Leave it undisturbed under sound coats, or give the work to a professional.",
	check.LeadExcluded: "A laboratory or a licensed assessor has excluded lead.",
}

func leadOf(c *craft.Craft, z *check.Zone) *Lead {
	s, noted := z.Lead(c)
	if s == check.LeadNoSuspect {
		return nil
	}
	l := &Lead{State: s.String(), Says: leadWords[s], Noted: noted}
	if s != check.LeadExcluded {
		l.Advice = check.LeadAdvice
	}
	return l
}

// tested is what the evidence of a zone comes to. The piece must be a decoded
// one, so that there is nothing wrong with it.
func (p *Piece) tested(c *craft.Craft, i int) *identify.Belief {
	z := &p.Zones[i]
	as := make([]identify.Answer, len(z.Evidence))
	for j, e := range z.Evidence {
		as[j] = identify.Answer{Test: e.Test, Outcome: e.Outcome}
	}
	b, err := identify.Believe(identify.Known{Substrate: z.Substrate, Veneer: z.Veneer, Made: p.Made}, as)
	if err != nil {
		panic(err) // decoding refuses what this refuses
	}
	return b
}

// mostAsked is how many tests are offered after the best one.
const mostAsked = 25

// Identify says what the tests of one zone come to and what is worth testing
// next. The piece must be a decoded one.
func Identify(c *craft.Craft, p *Piece, zone int, o CheckOptions) Identification {
	src := &p.Zones[zone]
	z := p.judged(c, zone, o)
	b := z.Tests
	if b == nil {
		b = p.tested(c, zone)
	}
	out := Identification{
		ID: src.ID, Name: src.Name, Says: b.Says(), Excluded: b.Excluded(), Made: beliefs(b.Made()), On: beliefs(b.On()),
		Answers: []Answered{}, Aside: []Answered{}, Against: []Conflict{}, Next: []NextTest{}, Barred: []string{}, Walked: []Walked{},
	}
	for _, e := range src.Evidence {
		out.Answers = append(out.Answers, answered(e.Test, e.Outcome))
	}
	for _, a := range b.Aside {
		w := answered(a.Test, a.Outcome)
		w.Why = a.Why
		out.Aside = append(out.Aside, w)
	}
	for _, a := range b.Against {
		tests := []string{}
		for _, x := range []identify.Answer{a.A, a.B} {
			if x.Test != "" {
				tests = append(tests, x.Test)
			}
		}
		out.Against = append(out.Against, Conflict{tests, a.Says})
	}
	asking := identify.Asking{Class: identify.Meets(c), Lead: z.LeadBars(c)}
	planned := slices.ContainsFunc(z.Steps, func(s surface.Step) bool { return s.Do == surface.Coat })
	if planned {
		asking.Class = outcomeOf(c, &z)
	}
	for _, e := range src.Evidence {
		asking.Skip = append(asking.Skip, e.Test)
	}
	n := b.Next(asking)
	out.Settled, out.Done = tidy(n.Settled), n.Done
	switch {
	case !n.Done:
	case n.Settled < identify.Settled:
		out.DoneSays = "No further test is worth its trouble here. A patch test on a hidden spot tells what the plan does."
	case planned:
		out.DoneSays = "Whatever it is of what is left, the plan is judged the same. No further test would change it."
	default:
		out.DoneSays = "Whatever it is of what is left, a coat meets the same. No further test would change what you do."
	}
	if n.Done {
		// Whoever goes on all the same wants to know what it is.
		asking.Class = nil
		n.Tests = b.Next(asking).Tests
	}
	for i := range min(len(n.Tests), mostAsked) {
		s := &n.Tests[i]
		out.Next = append(out.Next, NextTest{s.Test.ID, s.Test.Name, tidy(s.Bits), tidy(s.Worth), worthWords(s), rare(s)})
	}
	for _, t := range n.Barred {
		out.Barred = append(out.Barred, t.ID)
	}
	out.Take = take(c, b, &z)
	for _, m := range z.Walked(c) {
		w := Walked{Name: m.Name, P: tidy(m.P)}
		if planned {
			w.Verdict = m.Verdict.String()
		}
		out.Walked = append(out.Walked, w)
	}
	return out
}

// outcomeOf classes surfaces by what the plan comes to on them.
func outcomeOf(c *craft.Craft, z *check.Zone) func(identify.Surface) string {
	return func(s identify.Surface) string {
		x := *z
		x.Tests = nil
		x.Substrate, _ = c.Substrate(s.Substrate)
		x.Finish, _ = c.Finish(s.Finish)
		x.Veneer = x.Veneer || s.Veneer
		r := check.Check(c, &x, check.Options{NoRepairs: true})
		id := r.Verdict.String()
		for i := range r.Findings {
			if f := &r.Findings[i]; f.Severity != check.Note {
				id += " " + f.Code + f.Severity.String()
			}
		}
		return id
	}
}

func beliefs(all []identify.Share) []BeliefPart {
	const least = .005 // smaller ones would read as 0 %
	out := []BeliefPart{}
	for _, s := range all {
		if s.P >= least {
			out = append(out, BeliefPart{s.ID, s.Name, tidy(s.P), identify.Word(s.P)})
		}
	}
	return out
}

func answered(test, outcome string) Answered {
	t := &identify.Tests[identify.TestNamed(test)]
	says := "Not sure"
	for _, o := range t.Outcomes {
		if o.ID == outcome {
			says = o.Name
		}
	}
	return Answered{Test: test, Name: t.Name, Outcome: outcome, Says: says}
}

// rare are the outcomes of a test that little but a slip would bring, where
// enough others are left to choose from.
func rare(s *identify.Suggestion) []string {
	const hardly, enough = .006, 3
	out := []string{}
	for i, p := range s.Likely {
		if p < hardly {
			out = append(out, s.Test.Outcomes[i].ID)
		}
	}
	if len(s.Likely)-len(out) < enough {
		return []string{}
	}
	return out
}

func worthWords(s *identify.Suggestion) string {
	trouble := "hardly any trouble"
	switch {
	case s.Test.Cost >= .25:
		trouble = "it marks the surface or smells"
	case s.Test.Cost >= .1:
		trouble = "a little trouble"
	}
	switch {
	case s.Worth <= 0:
		return "Would hardly tell you more; " + trouble
	case s.Bits >= .6:
		return "Tells most; " + trouble
	case s.Bits >= .2:
		return "Tells a good deal; " + trouble
	}
	return "Tells a little; " + trouble
}

// take is what the survey would say if it said what is believed; nil while
// that is nothing firm.
func take(c *craft.Craft, b *identify.Belief, z *check.Zone) *Take {
	if len(b.Answers) == 0 || b.Excluded() {
		return nil
	}
	on, made := b.On()[0], b.Made()[0]
	sub := &c.Substrates[z.Substrate]
	t := &Take{Substrate: sub.ID, Veneer: z.Veneer, Finish: on.ID}
	known := z.Known(c)
	p := on.P
	if sub.Unknown || known.Substrate == identify.Doubted {
		if top := identify.MatterNamed(made.ID); made.P >= identify.LikelyFrom && top != nil {
			t.Substrate, t.Veneer = top.Substrates[0], z.Veneer || top.Veneer
			p = min(p, made.P)
		}
	} else if known.Substrate != identify.Assumed {
		p = min(p, known.PSubstrate)
	}
	t.P = tidy(p)
	id, ok := c.Finish(t.Finish)
	s, _ := c.Substrate(t.Substrate)
	if !ok || on.P < identify.LikelyFrom {
		return nil
	}
	t.Sure = identify.Grade(p).String()
	t.Says = check.SurfaceName(c, s, id)
	return t
}

// tests refuses evidence, patches and dates that a schema cannot refuse.
func (z *Zone) tests(i int) error {
	at := func(list string, j int, field string) string {
		return fmt.Sprintf("$.zones[%d].%s[%d].%s", i, list, j, field)
	}
	for j, e := range z.Evidence {
		for k, o := range z.Evidence[:j] {
			if o.Test == e.Test {
				return &Error{at("evidence", j, "test"), strconv.Quote(e.Test), fmt.Sprintf("evidence[%d] answers this test already, with %q; keep the answer you trust", k, o.Outcome)}
			}
		}
		t := &identify.Tests[identify.TestNamed(e.Test)]
		known := []string{identify.NotSure}
		for _, o := range t.Outcomes {
			known = append(known, o.ID)
		}
		if !slices.Contains(known, e.Outcome) {
			return &Error{at("evidence", j, "outcome"), strconv.Quote(e.Outcome), fmt.Sprintf("the test %s has no such outcome; known are %s", e.Test, strings.Join(known, ", "))}
		}
		if err := day(at("evidence", j, "date"), e.Date); err != nil {
			return err
		}
	}
	if t := z.LeadTest; t != nil {
		if err := day(fmt.Sprintf("$.zones[%d].lead_test.date", i), t.Date); err != nil {
			return err
		}
	}
	for j, p := range z.Patches {
		for k, o := range z.Patches[:j] {
			if o.ID == p.ID {
				return &Error{at("patches", j, "id"), strconv.Quote(p.ID), fmt.Sprintf("patches[%d] has this id already", k)}
			}
		}
		for field, d := range map[string]string{"made": p.Made, "look": p.Look, "rated": p.Rated} {
			if err := day(at("patches", j, field), d); err != nil {
				return err
			}
		}
		switch {
		case p.Class != nil && p.Rated == "":
			return &Error{at("patches", j, "rated"), "", "missing; a rated patch test has its day"}
		case p.Class != nil && p.Made != "" && p.Rated < p.Made:
			return &Error{at("patches", j, "rated"), strconv.Quote(p.Rated), "rated before it was laid on " + p.Made}
		}
	}
	return nil
}

// day refuses a date that is in no calendar.
func day(path, d string) error {
	if d == "" {
		return nil
	}
	if _, err := time.Parse(time.DateOnly, d); err != nil {
		return &Error{path, strconv.Quote(d), "there is no such day"}
	}
	return nil
}

func testIDs() []string {
	return ids(identify.Tests, func(t identify.Test) string { return t.ID })
}

func outcomeIDs() []string {
	out := []string{identify.NotSure}
	for i := range identify.Tests {
		for _, o := range identify.Tests[i].Outcomes {
			if !slices.Contains(out, o.ID) {
				out = append(out, o.ID)
			}
		}
	}
	return out
}

// IdentifyPiece says of every zone, or of the one with an id, what tests come to.
// A zone that is not there is an *Error.
func IdentifyPiece(c *craft.Craft, p *Piece, only string, o CheckOptions) (IdentifyResult, error) {
	out := IdentifyResult{Format: IdentifyFormat, Version: Version, Zones: []Identification{}}
	for i := range p.Zones {
		if only == "" || p.Zones[i].ID == only {
			out.Zones = append(out.Zones, Identify(c, p, i, o))
		}
	}
	if only != "" && len(out.Zones) == 0 {
		return out, &Error{"$.zones", strconv.Quote(only), "the piece has no such zone"}
	}
	return out, nil
}

// Text writes beliefs for reading in a terminal.
func (r *IdentifyResult) Text(w io.Writer, name string) error {
	var b strings.Builder
	fmt.Fprintf(&b, "%s\n", name)
	for i := range r.Zones {
		z := &r.Zones[i]
		title := z.ID
		if z.Name != "" {
			title = z.Name + " (" + z.ID + ")"
		}
		fmt.Fprintf(&b, "\n%s\n  %s\n", title, z.Says)
		for _, part := range []struct {
			of   string
			list []BeliefPart
		}{{"Made of", z.Made}, {"On it", z.On}} {
			fmt.Fprintf(&b, "  %s:\n", part.of)
			for _, x := range part.list[:min(len(part.list), 5)] {
				fmt.Fprintf(&b, "    %3.0f %%  %s\n", x.P*100, x.Name)
			}
		}
		for _, a := range z.Answers {
			fmt.Fprintf(&b, "  answered: %s %s\n", a.Name, a.Says)
		}
		for _, a := range z.Aside {
			fmt.Fprintf(&b, "  set aside: %s %s\n", a.Name, a.Why)
		}
		for _, a := range z.Against {
			fmt.Fprintf(&b, "  contradiction: %s\n", a.Says)
		}
		switch {
		case z.Done:
			fmt.Fprintf(&b, "  %s\n", z.DoneSays)
		case len(z.Next) > 0:
			t := &identify.Tests[identify.TestNamed(z.Next[0].Test)]
			fmt.Fprintf(&b, "  Next: %s %s\n    Where: %s. Look for: %s\n", t.Name, t.How, strings.TrimSuffix(t.Where, "."), t.LookFor)
			if t.Caution != "" {
				fmt.Fprintf(&b, "    Caution: %s\n", t.Caution)
			}
		}
		if len(z.Barred) > 0 {
			fmt.Fprintf(&b, "  Not to be made where old paint may hold lead: %s\n", strings.Join(z.Barred, ", "))
		}
	}
	b.WriteString("\nThese are estimates. Labels, safety data sheets, local codes and licensed people decide.\n")
	_, err := io.WriteString(w, b.String())
	return err
}
