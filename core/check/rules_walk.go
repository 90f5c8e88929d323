package check

import (
	"rutile/core/craft"
	"rutile/core/measure"
	"rutile/core/surface"
)

// walkRules are about the plan as a whole.
func walkRules() []Rule {
	return []Rule{
		{
			Code:   "walk.undone",
			Title:  "A step removes coats applied before it",
			Why:    "Stripping or sanding through after painting removes the coats: the work before it was wasted.",
			When:   "Stripping, or sanding through to the material, comes after coats of the same plan that are not laid yet. Fail.",
			Inputs: "the coats on the surface before and after each step, and which of them were laid already",
			Fix:    "moving that step before the first coat",
			Step: func(k *Case, e *surface.Event) {
				anew := k.anew > 0 && e == &k.Trace.Events[0] // what was laid turned out badly
				if n := e.Before.Regions[surface.Field].Coats; n > 0 && bares(e.Doing) && !anew {
					k.Add(Hit{Severity: Fail, Step: e.Step, Value: float64(n)})
				}
			},
			Say: func(k *Case, h *Hit) (string, string) {
				return StepWords(k.Craft, &k.Zone.Steps[h.Step-1]) + " removes the coats again", measure.Count(int(h.Value), "coat was", "coats were") + " applied before it, and it removes them."
			},
			Figures: func(_ *Case, h *Hit) []Figure { return []Figure{{"coats", h.Value, "coats that it removes"}} },
			Repair: func(m *Repairer, h *Hit) {
				at := 0
				for at < h.Step-1 && m.Zone.Steps[at].Do == surface.Clean {
					at++
				}
				m.moved("Move it before the first coat", h.Step, at)
				if m.Zone.Steps[h.Step-1].Do == surface.Abrade {
					m.change("Do not cut through: only scuff it", h.Step, func(s *surface.Step) { s.Through = false })
				}
			},
		},
		{
			Code:   "walk.empty",
			Stage:  craft.NoStage,
			Title:  "No coat is planned yet",
			Why:    "There is nothing to judge before the first coat.",
			When:   "The plan has no coat. Watch.",
			Inputs: "whether the plan has a coat",
			Fix:    "adding the first step",
			End: func(k *Case) {
				if !k.Coated {
					k.Add(Hit{Severity: Watch})
				}
			},
			Say: func(*Case, *Hit) (string, string) {
				return "", "Add cleaning, sanding, primer, paint and topcoat; every step is judged as you add it."
			},
			Repair: func(m *Repairer, _ *Hit) {
				if len(m.Zone.Steps) == 0 {
					m.Measure("Add the first step", craft.FieldSteps)
				} else {
					m.Measure("Add the next step", craft.FieldSteps)
				}
			},
		},
	}
}
