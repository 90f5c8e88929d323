package check

import (
	"rutile/core/craft"
	"rutile/core/surface"
)

// walkRules speak of what the check itself cannot judge.
var walkRules = []Rule{
	{
		Code:  "walk.unjudged",
		Title: "A step that is not judged yet",
		Why:   "A plan is only called sound when every step of it was followed through.",
		When:  "A step or a look is planned that the walk keeps but does not follow. Watch.",
		Each:  true,
		Step: func(k *Case, e *surface.Event) {
			if kind := e.Doing.Do; !surface.Kinds[kind].Judged {
				k.add(Hit{Severity: Watch, Step: e.Step, Subject: surface.Kinds[kind].ID})
			}
		},
		End: func(k *Case) {
			if k.Zone.Look != "" && k.Zone.Look != craft.LookSolid {
				k.add(Hit{Severity: Watch, Subject: "look " + k.Zone.Look})
			}
		},
		Say: func(_ *Case, h *Hit) (string, string) {
			if h.Step == 0 {
				return "The look is not judged yet", "The plan is judged as a coat system; what the wanted look asks of it is left to you."
			}
			return "", "This step is kept in the plan, and what it does to the surface is left to you: the figures are for the steps around it."
		},
		Mend: func(m *Mender, _ *Hit) { m.Measure("Make a test board of the whole plan and rate it", "test") },
	},
	{
		Code:  "walk.empty",
		Title: "No coat is planned yet",
		Why:   "There is nothing to judge before the first coat.",
		When:  "The plan has no coat. Watch.",
		End: func(k *Case) {
			if !k.Coated {
				k.add(Hit{Severity: Watch})
			}
		},
		Say: func(*Case, *Hit) (string, string) {
			return "", "Lay out cleaning, sanding, primer, paint and topcoat, and every step is judged as it is added."
		},
		Mend: func(m *Mender, _ *Hit) {
			if len(m.Zone.Steps) == 0 {
				m.Measure("Add the first step", "steps")
			} else {
				m.Measure("Add the next step", "steps")
			}
		},
	},
}
