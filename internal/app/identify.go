package app

import (
	"context"
	"slices"
	"strconv"

	"rutile/core/check"
	"rutile/core/craft"
	"rutile/core/identify"
	"rutile/core/surface"
	"rutile/internal/wire"
)

// IdentifyPiece says of every zone, or of the one with an id, what tests come to. A zone that is
// not there is a *wire.Error.
func (j *Job) IdentifyPiece(ctx context.Context, only string) (wire.IdentifyResult, error) {
	out := wire.IdentifyResult{Format: wire.IdentifyFormat, Version: wire.Version, Zones: []wire.Identification{}}
	for i := range j.Zones {
		if only == "" || j.Piece.Zones[i].ID == only {
			z, err := j.Identify(ctx, i)
			if err != nil {
				return out, err
			}
			out.Zones = append(out.Zones, z)
		}
	}
	if only != "" && len(out.Zones) == 0 {
		return out, &wire.Error{Path: "$.zones", Value: strconv.Quote(only), Says: "the piece has no such zone"}
	}
	return out, nil
}

func knownOf(c *craft.Craft, z *check.Zone, r *check.Result) *wire.Known {
	if z.Tests == nil || len(z.Tests.Answers) == 0 {
		return nil
	}
	k := z.Known(c)
	return &wire.Known{
		Substrate: wire.Certainty{Sure: k.Substrate.String(), P: tidy(k.PSubstrate), Says: check.KnownWords(k.Substrate, k.PSubstrate)},
		Finish:    wire.Certainty{Sure: k.Finish.String(), P: tidy(k.PFinish), Says: check.KnownWords(k.Finish, k.PFinish)},
		Walked:    len(r.Candidates),
	}
}

// leadWords say what each state of lead means for the work.
var leadWords = map[check.LeadState]string{
	check.LeadUndated:  "The age of this coating is not known. It is less likely to contain lead than old paint, and a test costs little: have it tested, and until then sand it wet.",
	check.LeadSuspect:  "The old coat may contain lead. No dry sanding, scraping, heat or dry brushing until a laboratory or a licensed assessor has excluded it.",
	check.LeadFound:    "The old coat contains lead. Leave it undisturbed under sound coats, or give the work to a licensed professional.",
	check.LeadExcluded: "A laboratory or a licensed assessor has excluded lead.",
}

func leadOf(c *craft.Craft, z *check.Zone) *wire.Lead {
	s, noted := z.Lead(c)
	if s == check.LeadNoSuspect {
		return nil
	}
	l := &wire.Lead{State: s.String(), Says: leadWords[s], Noted: noted}
	if s != check.LeadExcluded {
		l.Advice = check.LeadAdvice
	}
	return l
}

// tested is what the evidence of a zone comes to.
func (j *Job) tested(i int) *identify.Belief {
	z := &j.Piece.Zones[i]
	as := make([]identify.Answer, len(z.Evidence))
	for k, e := range z.Evidence {
		as[k] = identify.Answer{Test: e.Test, Outcome: e.Outcome}
	}
	b, err := identify.Believe(identify.Known{Substrate: z.Substrate, Veneer: z.Veneer, Made: j.Piece.Made}, as)
	if err != nil {
		panic(err) // decoding refuses what this refuses
	}
	return b
}

// mostAsked is how many tests are offered after the best one.
const mostAsked = 25

// Identify says what the tests of one zone come to and what is worth testing next. The only
// error is that of a context that is done.
func (j *Job) Identify(ctx context.Context, zone int) (wire.Identification, error) {
	c, src, z := j.Craft, &j.Piece.Zones[zone], &j.Zones[zone]
	b := z.Tests
	if b == nil {
		b = j.tested(zone)
	}
	out := wire.Identification{
		ID: src.ID, Name: src.Name, Says: b.Says(), Excluded: b.Excluded(), Made: beliefs(b.Made()), On: beliefs(b.On()),
		Answers: []wire.Answered{}, NotCounted: []wire.Answered{}, Contradictions: []wire.Conflict{}, Next: []wire.NextTest{}, Barred: []string{}, Walked: []wire.Walked{},
	}
	for _, e := range src.Evidence {
		out.Answers = append(out.Answers, answered(e.Test, e.Outcome))
	}
	for _, a := range b.NotCounted {
		w := answered(a.Test, a.Outcome)
		w.Why = a.Why
		out.NotCounted = append(out.NotCounted, w)
	}
	for _, a := range b.Contradictions {
		tests := []string{}
		for _, x := range []identify.Answer{a.A, a.B} {
			if x.Test != "" {
				tests = append(tests, x.Test)
			}
		}
		out.Contradictions = append(out.Contradictions, wire.Conflict{Tests: tests, Says: a.Says})
	}
	asking := identify.Purpose{Class: identify.Meets(c), Lead: z.LeadBars(c)}
	planned := slices.ContainsFunc(z.Steps, func(s surface.Step) bool { return s.Do == surface.Coat })
	if planned {
		asking.Class = outcomeOf(ctx, c, z)
	}
	for _, e := range src.Evidence {
		asking.Skip = append(asking.Skip, e.Test)
	}
	n := b.Next(asking)
	out.Settled, out.Done = tidy(n.Settled), n.Done
	switch {
	case !n.Done:
	case n.Settled < identify.Settled:
		out.DoneSays = "No further test is worth the effort. A patch test on a hidden spot shows how the plan does."
	case planned:
		out.DoneSays = "The plan is judged the same for everything that is still possible. No further test would change it."
	default:
		out.DoneSays = "Coats behave the same on everything that is still possible. No further test would change what you do."
	}
	if n.Done {
		// Whoever tests more anyway wants to know what it is.
		asking.Class = nil
		n.Tests = b.Next(asking).Tests
	}
	for i := range min(len(n.Tests), mostAsked) {
		s := &n.Tests[i]
		out.Next = append(out.Next, wire.NextTest{Test: s.Test.ID, Name: s.Test.Name, Bits: tidy(s.Bits), Worth: tidy(s.Worth), Says: worthWords(s), Rare: rare(s)})
	}
	for _, t := range n.Barred {
		out.Barred = append(out.Barred, t.ID)
	}
	out.Take = take(c, b, z)
	for _, m := range z.Walked(c) {
		w := wire.Walked{Name: m.Name, P: tidy(m.P)}
		if m.P > 0 {
			w.Share = check.Percent(m.P)
		}
		if planned {
			w.Verdict = m.Verdict.String()
		}
		out.Walked = append(out.Walked, w)
	}
	return out, ctx.Err()
}

// outcomeOf classes surfaces by the plan's result on them; all the same once the context is done.
func outcomeOf(ctx context.Context, c *craft.Craft, z *check.Zone) func(identify.Surface) string {
	return func(s identify.Surface) string {
		if ctx.Err() != nil {
			return ""
		}
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

func beliefs(all []identify.Share) []wire.Belief {
	const least = .005 // smaller ones would read as 0 %
	out := []wire.Belief{}
	for _, s := range all {
		if s.P >= least {
			out = append(out, wire.Belief{ID: s.ID, Name: s.Name, P: tidy(s.P), Words: identify.Word(s.P), Share: check.Percent(s.P)})
		}
	}
	return out
}

func answered(test, outcome string) wire.Answered {
	t := &identify.Tests[identify.TestNamed(test)]
	says := "Not sure"
	for _, o := range t.Outcomes {
		if o.ID == outcome {
			says = o.Name
		}
	}
	return wire.Answered{Test: test, Name: t.Name, Outcome: outcome, Says: says}
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
	trouble := "hardly any effort"
	switch {
	case s.Test.Cost >= .25:
		trouble = "marks the surface or smells"
	case s.Test.Cost >= .1:
		trouble = "a little effort"
	}
	switch {
	case s.Worth <= 0:
		return "Hardly tells you more; " + trouble
	case s.Bits >= .6:
		return "Tells you the most; " + trouble
	case s.Bits >= .2:
		return "Tells you a lot; " + trouble
	}
	return "Tells you a little; " + trouble
}

// take is what the survey would say if it said what is believed; nil while
// that is nothing firm.
func take(c *craft.Craft, b *identify.Belief, z *check.Zone) *wire.Take {
	if len(b.Answers) == 0 || b.Excluded() {
		return nil
	}
	on, made := b.On()[0], b.Made()[0]
	sub := &c.Substrates[z.Substrate]
	t := &wire.Take{Substrate: sub.ID, Veneer: z.Veneer, Finish: on.ID}
	known := z.Known(c)
	p := on.P
	if sub.Unknown || known.Substrate == identify.Doubted {
		if top := identify.MaterialNamed(made.ID); made.P >= identify.LikelyFrom && top != nil {
			t.Substrate, t.Veneer = top.Substrates[0], z.Veneer || top.Veneer
			p = min(p, made.P)
		}
	} else if known.Substrate != identify.Assumed {
		p = min(p, known.PSubstrate)
	}
	t.P, t.Share = tidy(p), check.Percent(p)
	id, ok := c.Finish(t.Finish)
	s, _ := c.Substrate(t.Substrate)
	if !ok || on.P < identify.LikelyFrom {
		return nil
	}
	t.Sure = identify.Grade(p).String()
	t.Says = check.SurfaceName(c, s, id)
	return t
}
