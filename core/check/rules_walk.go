package check

import (
	"fmt"

	"rutile/core/craft"
	"rutile/core/surface"
)

// walkRules speak of what the check itself cannot judge.
func walkRules() []Rule {
	return []Rule{
		{
			Code:  "walk.undone",
			Title: "A step takes off what the plan has laid",
			Why:   "What is stripped or sanded through after coats takes them along: the work before it was for nothing.",
			When:  "Stripping, or sanding through to the material, comes after coats of the same plan. Fail.",
			Looks: "the coats on the surface before and after each step",
			Mends: "that step before the first coat",
			Step: func(k *Case, e *surface.Event) {
				do := e.Doing.Do
				if n := e.Before.Patches[surface.Field].Coats; n > 0 && (do == surface.Strip || do == surface.Abrade && e.Doing.Through) {
					k.Add(Hit{Severity: Fail, Step: e.Step, Value: float64(n)})
				}
			},
			Say: func(k *Case, h *Hit) (string, string) {
				return StepWords(k.Craft, &k.Zone.Steps[h.Step-1]) + " takes the coats off again", fmt.Sprintf("%s laid before it, and gone after it.", craft.Upper(plural(int(h.Value), "coat is", "coats are")))
			},
			Figures: func(_ *Case, h *Hit) []Figure { return []Figure{{"coats", h.Value, "coats that it takes off"}} },
			Mend: func(m *Mender, h *Hit) {
				at := 0
				for at < h.Step-1 && m.Zone.Steps[at].Do == surface.Clean {
					at++
				}
				m.moved("Before the first coat", h.Step, at)
				if m.Zone.Steps[h.Step-1].Do == surface.Abrade {
					m.change("Not through: only scuff it", h.Step, func(s *surface.Step) { s.Through = false })
				}
			},
		},
		{
			Code:  "walk.empty",
			Stage: craft.NoStage,
			Title: "No coat is planned yet",
			Why:   "There is nothing to judge before the first coat.",
			When:  "The plan has no coat. Watch.",
			Looks: "whether the plan has a coat",
			Mends: "adding the first step",
			End: func(k *Case) {
				if !k.Coated {
					k.Add(Hit{Severity: Watch})
				}
			},
			Say: func(*Case, *Hit) (string, string) {
				return "", "Lay out cleaning, sanding, primer, paint and topcoat, and every step is judged as it is added."
			},
			Mend: func(m *Mender, _ *Hit) {
				if len(m.Zone.Steps) == 0 {
					m.Measure("Add the first step", craft.FieldSteps)
				} else {
					m.Measure("Add the next step", craft.FieldSteps)
				}
			},
		},
	}
}
