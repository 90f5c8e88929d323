package check

import (
	"slices"

	"rutile/core/craft"
	"rutile/core/surface"
)

// Cautions are notes: they are acknowledged, and do not make a sound plan
// unsound. Lead alone is more.

func dryAbrasion(s *surface.Step) bool { return s.Do == surface.Abrade && s.How != craft.Wet }

var safetyRules = []Rule{
	{
		Code:  "safety.lead",
		Title: "Old paint or varnish may hold lead",
		Why:   "Lead dust and fumes poison whoever breathes or swallows them, children most of all.",
		When:  "There is old paint or varnish from before 1980, or old paint of unknown age, and no laboratory or licensed assessor has excluded lead. Watch; fail where the plan sands, scrapes, brushes or heats it dry.",
		Step: func(k *Case, e *surface.Event) {
			if !k.Zone.suspectLead(k.Craft) || e.Before.Patches[surface.Field].Coats > 0 && !e.Doing.Through {
				return
			}
			s := e.Doing
			brush := s.Do == surface.Clean && k.Craft.Cleaners[s.Cleaner].Loosens
			strip := s.Do == surface.Strip && s.StripHow != "chemical"
			if dryAbrasion(s) || brush || strip {
				k.add(Hit{Severity: Fail, Step: e.Step, Subject: surface.Kinds[s.Do].ID})
			}
		},
		End: func(k *Case) {
			said := slices.ContainsFunc(k.hits, func(h Hit) bool { return h.Rule == k.current })
			if k.Zone.suspectLead(k.Craft) && !said {
				k.add(Hit{Severity: Watch, Subject: "suspect"})
			}
		},
		Say: func(k *Case, h *Hit) (string, string) {
			const rest = " Local rules for lead work, containment, children and pregnancy decide; a laboratory or a certified assessor tells what it is. A home swab does not."
			if h.Subject == "suspect" {
				if k.Zone.Lead == LeadFound {
					return "There is lead in the old coats", "Leave it undisturbed under sound coats, or give the work to a professional." + rest
				}
				return "", "Do not dry-sand, scrape, burn or heat it before it is tested." + rest
			}
			return "Suspected lead must not be disturbed dry", "This step makes dust or fumes of a coat that may hold lead." + rest
		},
		Mend: func(m *Mender, h *Hit) {
			if h.Subject == "abrade" {
				steps := append([]surface.Step{}, m.Zone.Steps...)
				for i := range steps {
					if steps[i].Do == surface.Coat {
						break
					}
					if dryAbrasion(&steps[i]) {
						cl, _ := m.Craft.Cleaner("deglosser_liquid")
						steps[i] = surface.Step{Do: surface.Clean, Cleaner: cl}
					}
				}
				m.Edit("Dull it with liquid deglosser instead of sanding", steps)
			}
			m.Measure("Have it tested by a laboratory or a licensed assessor and enter the result", "lead_test")
		},
	},
	{
		Code:  "safety.dust",
		Title: "Sanding dust",
		Why:   "Fine dust harms the lungs, and oak, cedar and tropical woods sensitise.",
		When:  "Anything is abraded dry. A caution to acknowledge.",
		Step: func(k *Case, e *surface.Event) {
			if dryAbrasion(e.Doing) {
				k.add(Hit{Severity: Note, Step: e.Step})
			}
		},
		Say: func(k *Case, _ *Hit) (string, string) {
			more := ""
			switch k.Craft.Substrates[k.Facts.Substrate].ID {
			case "oak", "cedar", "redwood", "chestnut", "mahogany", "teak", "rosewood", "walnut":
				more = " The dust of this wood sensitises."
			}
			return "", "Extraction and a fitted particle mask." + more
		},
		Mend: func(m *Mender, _ *Hit) { m.Acknowledge() },
	},
	{
		Code:  "safety.solvent",
		Title: "Solvent vapour",
		Why:   "Vapours harm, and they catch fire.",
		When:  "A cleaner or product is carried in solvent or alcohol. A caution to acknowledge.",
		Step: func(k *Case, e *surface.Event) {
			s := e.Doing
			if s.Do == surface.Clean && k.Craft.Cleaners[s.Cleaner].Carrier.Volatile() ||
				s.Do == surface.Coat && k.Craft.Products[s.Product].Carrier.Volatile() {
				k.add(Hit{Severity: Note, Step: e.Step})
			}
		},
		Say: func(*Case, *Hit) (string, string) {
			return "", "Cross-ventilation, a vapour respirator where the label asks for one, no flames or sparks, lids on. The label and the safety data sheet decide."
		},
		Mend: func(m *Mender, _ *Hit) { m.Acknowledge() },
	},
	{
		Code:  "safety.alkali",
		Title: "Caustic cleaner or powder",
		Why:   "Alkali burns skin and eyes.",
		When:  "A caustic cleaner or a powder paint with lime is used. A caution to acknowledge.",
		Step: func(k *Case, e *surface.Event) {
			s := e.Doing
			if s.Do == surface.Clean && k.Craft.Cleaners[s.Cleaner].Alkali ||
				s.Do == surface.Coat && k.Craft.Products[s.Product].Alkali {
				k.add(Hit{Severity: Note, Step: e.Step})
			}
		},
		Say: func(*Case, *Hit) (string, string) {
			return "", "Gloves and eye protection; rinse splashes at once with plenty of water."
		},
		Mend: func(m *Mender, _ *Hit) { m.Acknowledge() },
	},
}
