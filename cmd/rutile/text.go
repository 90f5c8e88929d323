package main

import (
	"cmp"
	"fmt"
	"io"
	"slices"
	"strings"
	"text/tabwriter"

	"rutile/core/check"
	"rutile/core/craft"
	"rutile/core/identify"
	"rutile/core/measure"
	"rutile/core/parts"
	"rutile/internal/app"
	"rutile/internal/wire"
)

// checkText writes a result for reading in a terminal.
func checkText(w io.Writer, r *wire.CheckResult, name string) error {
	var b strings.Builder
	fmt.Fprintf(&b, "%s: %s\n", name, r.Verdict)
	for i := range r.Zones {
		z := &r.Zones[i]
		title := wire.ZoneTitle(z.Name, z.ID)
		fmt.Fprintf(&b, "\n%s: %s\n  %s\n", title, z.Verdict, z.Says)
		if a := z.Adhesion; a != nil {
			fmt.Fprintf(&b, "  Adhesion: %s, risk of peeling %s; weakest is step %d, %s on %s (strength %.2f, class %s; %.2f needed).\n",
				a.Holds, a.Words, a.Weakest.Step, a.Weakest.CoatName, a.Weakest.OnName, a.Strength, a.Class, a.Demand)
		}
		for _, s := range z.Bleed {
			fmt.Fprintf(&b, "  Bleed: %s, %s (ΔE %.1f).\n", s.Name, s.Words, s.DeltaE)
		}
		if h := z.Hiding; h != nil {
			fmt.Fprintf(&b, "  Cover: %s planned, %d needed.\n", measure.Count(h.CoatsPlanned, "coat", "coats"), h.CoatsNeeded)
		}
		if x := z.Chips; x != nil {
			fmt.Fprintf(&b, "  Chipping: %s of it, typically %s.\n", x.Words, x.Usual)
		}
		if z.CrackMM > 0 {
			fmt.Fprintf(&b, "  Cracks: about %s mm wide. %s\n", measure.Number(z.CrackMM), z.Cracks)
		}
		hands := "not known without an area"
		if z.Hours.HandsOn != nil {
			hands = z.Hours.Work
		}
		fmt.Fprintf(&b, "  Time: %s of work, %s from the first step to the end.\n", hands, z.Hours.Takes)
		if z.Ready != nil && z.Verdict != check.Fails.String() {
			fmt.Fprintf(&b, "  Ready: %s\n", z.Ready.Says)
		}
		if z.Lead != nil {
			fmt.Fprintf(&b, "  Lead: %s\n", strings.TrimSpace(z.Lead.Says+" "+z.Lead.Noted))
		}
		settle := false
		for _, f := range z.Findings {
			if f.Severity != check.Note.String() && !settle {
				settle = true
				b.WriteString("  Settle before you start:\n")
			} else if f.Severity == check.Note.String() && settle {
				settle = false
				b.WriteString("  Worth knowing:\n")
			}
			findingText(&b, &f)
		}
		for _, s := range z.Stages {
			if s.State != "done" {
				fmt.Fprintf(&b, "  %s: %s.\n", s.Name, strings.TrimSuffix(s.Says, "."))
			}
		}
	}
	b.WriteString("\nThese are estimates. Labels, safety data sheets, local codes and licensed people decide.\n")
	_, err := io.WriteString(w, b.String())
	return err
}

// findingText writes one finding with what fixes it.
func findingText(b *strings.Builder, f *wire.Finding) {
	at := ""
	if f.Step > 0 {
		at = fmt.Sprintf(" (step %d)", f.Step)
	}
	fmt.Fprintf(b, "  [%s] %s%s\n      %s\n", f.Severity, f.Title, at, f.Why)
	if f.Divided != nil && f.Divided.Says != f.Why {
		fmt.Fprintf(b, "      %s\n", f.Divided.Says)
	}
	for _, rp := range f.Repairs {
		if rp.Kind == check.Acknowledge.String() {
			continue
		}
		leads := ""
		switch rp.Verdict {
		case "":
		case check.Fails.String():
			leads = " (this is cured by it; what else fails remains)"
		default:
			leads = " -> " + rp.Verdict
		}
		fmt.Fprintf(b, "      Fix: %s%s\n", rp.Title, leads)
	}
}

// identifyText writes beliefs for reading in a terminal.
func identifyText(w io.Writer, r *wire.IdentifyResult, name string) error {
	var b strings.Builder
	fmt.Fprintf(&b, "%s\n", name)
	for i := range r.Zones {
		z := &r.Zones[i]
		title := wire.ZoneTitle(z.Name, z.ID)
		fmt.Fprintf(&b, "\n%s\n  %s\n", title, z.Says)
		for _, part := range []struct {
			of   string
			list []wire.Belief
		}{{"Material", z.Made}, {"Finish", z.On}} {
			fmt.Fprintf(&b, "  %s:\n", part.of)
			for _, x := range part.list[:min(len(part.list), 5)] {
				fmt.Fprintf(&b, "    %3.0f %%  %s\n", x.P*100, x.Name)
			}
		}
		for _, a := range z.Answers {
			fmt.Fprintf(&b, "  answered: %s %s\n", a.Name, a.Says)
		}
		for _, a := range z.NotCounted {
			fmt.Fprintf(&b, "  not counted: %s %s\n", a.Name, a.Why)
		}
		for _, a := range z.Contradictions {
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
			fmt.Fprintf(&b, "  Not to be done where old paint may contain lead: %s\n", strings.Join(testNames(z.Barred), ", "))
		}
	}
	b.WriteString("\nThese are estimates. Labels, safety data sheets, local codes and licensed people decide.\n")
	_, err := io.WriteString(w, b.String())
	return err
}

// areasText writes the table of parts and zones for reading in a terminal.
func areasText(w io.Writer, l *wire.Overview, p *wire.Piece, u measure.Units) error {
	t := tabwriter.NewWriter(w, 2, 0, 2, ' ', 0)
	fmt.Fprintf(t, "%s\n\nPart\tCount\tSizes\tArea\tLength\tZone\n", cmp.Or(p.Name, "Piece without a name"))
	for i := range l.Parts {
		q, zone := &l.Parts[i], "-"
		if z := slices.IndexFunc(p.Zones, func(z wire.Zone) bool { return z.ID == p.Parts[i].Zone }); z >= 0 {
			zone = p.Zones[z].Title()
		}
		run := q.Run
		if run == "" {
			run = "-"
		}
		fmt.Fprintf(t, "%s\t%d\t%s\t%s\t%s\t%s\n", q.Title, max(1, p.Parts[i].Count), q.Sizes, q.Area, run, zone)
	}
	if len(l.Zones) > 0 {
		fmt.Fprintf(t, "\nZone\tParts\tArea\tTo cover\tEdges\tLong parts\tHands\n")
	}
	run := func(m float64) string {
		if m == 0 {
			return "-"
		}
		return u.Run(m)
	}
	for i := range l.Zones {
		z := &l.Zones[i]
		work := "-"
		if s := parts.WorkWords(z.Work); s != "" {
			work = fmt.Sprintf("x %.2f, %s", z.Work, s)
		}
		area := z.Area
		if area == "" {
			area = "not known"
		} else if z.Typed {
			area += " (typed)"
		}
		fmt.Fprintf(t, "%s\t%d\t%s\t%s\t%s\t%s\t%s\n", p.Zones[i].Title(), z.Parts, area, u.Area(z.CoverM2), run(z.EdgesM), run(z.LengthM), work)
	}
	if err := t.Flush(); err != nil {
		return err
	}
	for i := range l.Parts {
		if n := l.Parts[i].Note; n != "" {
			fmt.Fprintf(w, "\n%s: %s\n", l.Parts[i].Title, n)
		}
	}
	_, err := fmt.Fprintf(w, "\nSizes are as typed. Corners and hidden faces of joints are not subtracted.\n")
	return err
}

// rulesText writes the rule book as Markdown.
func rulesText(w io.Writer) error {
	var b strings.Builder
	words := app.RuleWords(check.Standard().Rules)
	fmt.Fprintf(&b, "# The rule book\n\nWritten by `rutile rules` from the entries in `core/check`; do not edit it here.\n\n")
	fmt.Fprintf(&b, "A check simulates a zone's surface through the steps of its plan, and each of these %d rules looks at what happened. *Fail*: expected to go wrong. *Watch*: may go wrong, or depends on something unknown. *Note*: worth knowing. A plan without fails and watches is *sound*. Every figure is an estimate: labels, safety data sheets, local codes and licensed people decide.\n\nHow visible a stain or a change of colour is, in CIEDE2000 units: faint from 1, clearly visible from 3, strong from %g. A colour that comes out 1 to 3 units off is slightly off, from 3 clearly off.\n", len(words), check.StrongStain)
	group := ""
	for _, r := range words {
		if r.Group != group {
			group = r.Group
			fmt.Fprintf(&b, "\n## %s\n", group)
		}
		fmt.Fprintf(&b, "\n### `%s` %s\n\n%s\n\n- When: %s\n- Looks at: %s.\n- Fix: %s.\n", r.Code, r.Title, r.Why, r.When, craft.Lower(r.Inputs), craft.Lower(r.Fix))
	}
	_, err := io.WriteString(w, b.String())
	return err
}

// zonePlansText writes the plans of a zone for reading.
func zonePlansText(w io.Writer, z *wire.ZonePlans) error {
	b := &strings.Builder{}
	fmt.Fprintf(b, "%s\n", wire.ZoneTitle(z.Name, z.ID))
	if z.PerM2 {
		fmt.Fprintln(b, "  The area is not known: hours and costs are for one square metre.")
	}
	for i := range z.Plans {
		x := &z.Plans[i]
		if x.Infeasible != nil {
			fmt.Fprintf(b, "  %s: no plan passes.\n", x.Name)
			for _, o := range x.Infeasible.Why {
				fmt.Fprintf(b, "      %s. %s\n", strings.TrimSuffix(o.Title, "."), o.Why)
			}
			for _, o := range x.Infeasible.Relaxations {
				fmt.Fprintf(b, "      What would make a plan possible: %s.\n", craft.Lower(o.Says))
			}
			continue
		}
		fmt.Fprintf(b, "  %d. %s: %.1f points, %s\n", i+1, x.Name, x.Points, x.Verdict)
		if x.Front != "" {
			fmt.Fprintf(b, "      %s\n", x.Front)
		}
		if x.Differs != "" && x.Same == "" {
			fmt.Fprintf(b, "      %s\n", x.Differs)
		}
		if x.Same != "" {
			fmt.Fprintf(b, "      The same steps as %s.\n", craft.Lower(x.Same))
			continue
		}
		if !x.Own && !x.Proved {
			fmt.Fprintln(b, "      The search was stopped early: there may be a better plan.")
		}
		stain := "no visible stain"
		if x.Stain != nil {
			stain = x.Stain.Words
		}
		fmt.Fprintf(b, "      peeling %s, %s; %s; %s of work; materials %.2f; smell %s\n", x.Risk.Words, stain, x.Takes, x.Work, x.Cost, x.Smell)
		if x.BuyWords != "" {
			fmt.Fprintf(b, "      Outside your kit: %s. %s\n", x.BuyWords, x.Gain)
		}
		for k, s := range x.Words {
			fmt.Fprintf(b, "      %2d  %s\n", k+1, s)
		}
		for _, s := range x.Watches {
			fmt.Fprintf(b, "      Watch: %s\n", s)
		}
		for _, s := range x.Leaves {
			fmt.Fprintf(b, "      %s\n", s)
		}
		if x.Refit != "" {
			fmt.Fprintf(b, "      %s\n", x.Refit)
		}
		if len(x.Depends) > 0 {
			fmt.Fprintf(b, "      It depends on %s.\n", strings.Join(x.Depends, "; "))
		}
	}
	_, err := io.WriteString(w, b.String())
	return err
}

// piecePlanText writes a planned piece for reading: zone by zone, then the trips.
func piecePlanText(w io.Writer, r *wire.PiecePlan) error {
	b := &strings.Builder{}
	for i := range r.Zones {
		z := &r.Zones[i]
		fmt.Fprintf(b, "%s: %s\n", z.Name, z.Says)
		for _, s := range append([]string{z.Differs, z.Front}, z.Leaves...) {
			if s != "" {
				fmt.Fprintf(b, "  %s\n", s)
			}
		}
		if z.BuyWords != "" {
			fmt.Fprintf(b, "  Outside your kit: %s.\n", z.BuyWords)
		}
		if z.Infeasible != nil {
			for _, o := range z.Infeasible.Relaxations {
				fmt.Fprintf(b, "  What would make a plan possible: %s.\n", craft.Lower(o.Says))
			}
		}
	}
	fmt.Fprintf(b, "\n%s instead of %d, over %s:\n", measure.Count(len(r.Trips), "trip", "trips"), r.Steps, r.Takes)
	day := 0
	for _, t := range r.Trips {
		if t.Day != day {
			day = t.Day
			fmt.Fprintf(b, "  %s\n", r.Days[slices.IndexFunc(r.Days, func(d wire.Day) bool { return d.Day == day })].Title)
		}
		fmt.Fprintf(b, "    %5s  %-40s %s", t.At, t.Does, strings.Join(t.Zones, ", "))
		if len(t.While) > 0 {
			fmt.Fprintf(b, " (drying meanwhile: %s)", strings.Join(t.While, ", "))
		}
		if t.Caution != "" {
			fmt.Fprintf(b, "\n      %s", t.Caution)
		}
		fmt.Fprintln(b)
	}
	_, err := io.WriteString(w, b.String())
	return err
}

// searchedText writes what searches looked at, and why the next best plan lost.
func searchedText(w io.Writer, all []app.Searched) error {
	b := &strings.Builder{}
	for i := range all {
		x := &all[i]
		a, s := &x.Answer, &x.Answer.Stats
		fmt.Fprintf(b, "%s: %d beginnings of plans opened, %d plans judged, %d merged, %d cut by a rule, %d never looked at; %d endings\n",
			x.ID, s.Opened, s.Judged, s.Merged, s.Cut, s.Bound, s.Tails)
		switch {
		case a.Best == nil:
			fmt.Fprintln(b, "  no plan passes")
			continue
		case a.Proved:
			fmt.Fprintf(b, "  the best has %.1f points, and no other plan that can be made with this vocabulary has fewer\n", a.Best.Points)
		default:
			fmt.Fprintf(b, "  the best so far has %.1f points; the search was stopped\n", a.Best.Points)
		}
		for _, t := range x.Terms {
			fmt.Fprintf(b, "    %-10s %6.1f points for %s\n", t.ID, t.Points, t.Amount)
		}
		if len(x.RunnerUp) > 0 {
			fmt.Fprintf(b, "  the second best: %s\n    %s\n", strings.Join(x.RunnerUp, "; "), x.Against)
		}
	}
	_, err := io.WriteString(w, b.String())
	return err
}

// testNames are the names of tests, by their ids.
func testNames(ids []string) []string {
	out := make([]string, len(ids))
	for i, id := range ids {
		out[i] = craft.Lower(identify.Tests[identify.TestNamed(id)].Short)
	}
	return out
}
