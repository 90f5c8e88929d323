package check

import (
	"slices"

	"rutile/core/craft"
	"rutile/core/surface"
)

// Repairer gathers proposals for one finding and keeps those that prove good: an
// edit must clear its finding for everything the zone may be, and add no
// fail.
type Repairer struct {
	Craft *craft.Craft
	Zone  *Zone
	said  []said // of the plan as it stands
	hit   *Hit
	times int // that it is said in that plan
	work  caseSet
	edits []edit
	other []Repair
	tried []trial
	// ideas are the preparations that Rework has already proposed: several findings are about one
	// boundary.
	ideas []idea
	// budget is how many more events may be walked to verify edits.
	budget int
}

// trial is a judged plan, kept because several findings propose the same one.
type trial struct {
	steps []surface.Step
	said  []said
	rank  rank
	after Verdict
}

// said is as much of a finding as it takes to tell whether it is there still.
type said struct {
	rule     *Rule
	subject  string
	severity Severity
}

func (h *Hit) said() said { return said{h.Rule, h.Subject, h.Severity} }

func saidOf(hits []Hit) []said {
	out := make([]said, len(hits))
	for i := range hits {
		out[i] = hits[i].said()
	}
	return out
}

// count is how often something is said, at a severity or above.
func count(all []said, x said, atLeast Severity) int {
	n := 0
	for _, o := range all {
		if o.rule == x.rule && o.subject == x.subject && o.severity >= atLeast {
			n++
		}
	}
	return n
}

type edit struct {
	title string
	steps []surface.Step
	rank  rank
	after Verdict
}

// mostRepairs is how many edits a finding offers.
const mostRepairs = 3

// repairs works out what answers a finding. Every finding gets something: when no edit proves good, a
// test patch, where a patch would tell, and otherwise another way of working.
func (m *Repairer) repairs(c *craft.Craft, z *Zone, hits []Hit, h *Hit) []Repair {
	if m.Craft == nil {
		m.Craft, m.said = c, saidOf(hits)
	}
	m.Zone, m.hit = z, h
	m.times = count(m.said, h.said(), Note)
	m.edits, m.other = m.edits[:0], nil
	if h.Rule.Repair != nil {
		h.Rule.Repair(m, h)
	}
	if h.Severity > Note && z.wasDone(h) {
		m.layAgain()
	}
	slices.SortStableFunc(m.edits, func(a, b edit) int { return a.rank.compare(b.rank) })
	out := make([]Repair, 0, mostRepairs+len(m.other))
	for _, e := range m.edits {
		// The same words at two places of the plan: the better one will do.
		if slices.ContainsFunc(out, func(r Repair) bool { return r.Title == e.title }) {
			continue
		}
		if len(out) == mostRepairs {
			break
		}
		out = append(out, Repair{Kind: Edit, Title: e.title, Steps: e.steps, After: e.after})
	}
	out = append(out, m.other...)
	if len(out) == 0 && z.wasDone(h) && h.Severity != Fail { // it cannot be changed any more
		m.Acknowledge()
		return append(out, m.other...)
	}
	if len(out) == 0 {
		if h.Rule.patches() || z.wasDone(h) {
			out = append(out, Repair{Kind: Measure, Title: "Make a test patch in a hidden spot and rate it", Field: craft.FieldTest})
		} else {
			out = append(out, Repair{Kind: Measure, Title: "Look for another way of working", Field: craft.FieldWay})
		}
	}
	return out
}

// Measure offers a measurement or a test to take.
func (m *Repairer) Measure(title string, field craft.Field) {
	m.other = append(m.other, Repair{Kind: Measure, Title: title, Field: field})
}

// Acknowledge offers to note that a caution was read. Reading a fail does not make it any safer.
func (m *Repairer) Acknowledge() {
	if m.hit.Severity == Fail {
		return
	}
	m.other = append(m.other, Repair{Kind: Acknowledge, Title: "I have read this"})
}

// Edit proposes a repaired plan; it is kept if it proves good.
func (m *Repairer) Edit(title string, steps []surface.Step) {
	if !keeps(m.Zone.Steps, steps) {
		return
	}
	steps = onlyDone(m.Zone.Steps, steps)
	for i := range m.edits {
		if slices.Equal(m.edits[i].steps, steps) {
			return
		}
	}
	tr := m.try(steps)
	if tr != nil && m.clears(tr.said) {
		m.edits = append(m.edits, edit{title: title, steps: steps, rank: tr.rank, after: tr.after})
	}
}

// try judges a plan, or remembers how it was judged; nil where the finding is
// there still, or once the budget is spent.
func (m *Repairer) try(steps []surface.Step) *trial {
	for i := range m.tried {
		if same := m.tried[i].steps; len(same) == len(steps) && (len(steps) == 0 || &same[0] == &steps[0] || slices.Equal(same, steps)) {
			return &m.tried[i]
		}
	}
	if m.budget <= 0 {
		return nil
	}
	z := *m.Zone
	z.Steps = steps
	after, ok := m.work.run(m.Craft, &z, m.stillThere)
	if !ok {
		return nil
	}
	tr := trial{steps: steps, said: saidOf(after), after: verdict(z.now(after)), rank: rankOf(m.Craft, &m.work, after, steps)}
	m.tried = append(m.tried, tr)
	return &m.tried[len(m.tried)-1]
}

// stillThere tells whether a walked case has the finding under repair as often as the plan had
// before.
func (m *Repairer) stillThere(k *Case) bool {
	m.budget -= len(k.Trace.Events)
	k.ask(m.hit.Rule)
	n := 0
	for i := range k.hits {
		if k.hits[i].same(m.hit) {
			n++
		}
	}
	return n >= m.times
}

// clears tells whether the findings of a repaired plan lack the one under repair, and hold no new
// fail.
func (m *Repairer) clears(after []said) bool {
	if count(after, m.hit.said(), Note) >= m.times {
		return false
	}
	return !slices.ContainsFunc(after, func(x said) bool {
		return x.severity == Fail && count(after, x, Fail) > count(m.said, x, Fail)
	})
}
