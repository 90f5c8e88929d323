package check

import (
	"slices"

	"rutile/core/craft"
	"rutile/core/surface"
)

// Cautions are notes: they are acknowledged, and do not make a sound plan
// unsound. Lead alone is more.

func dryAbrasion(s *surface.Step) bool { return s.Do == surface.Abrade && s.How != craft.Wet }

// disturbsDry tells whether a step makes dust or fumes of an old coat, and is
// never taken on a suspect of lead.
func disturbsDry(c *craft.Craft, s *surface.Step) bool {
	switch s.Do {
	case surface.Abrade:
		return dryAbrasion(s)
	case surface.Clean:
		return c.Cleaners[s.Cleaner].Loosens
	case surface.Strip:
		return s.StripHow != "chemical"
	case surface.Effect:
		return s.Heat || s.Grit > 0 && !s.Wetted
	}
	return false
}

// reachesOld tells whether a step reaches the old coat: nothing lies over it
// yet, it cuts through, or it rubs down to what is below as an effect does.
func reachesOld(e *surface.Event) bool {
	return e.Before.Patches[surface.Field].Coats == 0 || e.Doing.Through || e.Doing.Do == surface.Effect || e.Doing.Do == surface.Strip
}

// Barred says why a step cannot be planned at all, empty where it can: what
// disturbs a suspect of lead.
func (z *Zone) Barred(c *craft.Craft, s *surface.Step, coated bool) string {
	if disturbsDry(c, s) && (!coated || s.Through || s.Do != surface.Abrade) && z.LeadBars(c) {
		return "The old coat may hold lead, and this makes dust or fumes of it. It waits for the result of a laboratory or a licensed assessor."
	}
	return ""
}

var safetyRules = []Rule{
	{
		Code:  "safety.lead",
		Title: "Old paint or varnish may hold lead",
		Why:   "Lead dust and fumes poison whoever breathes or swallows them, children most of all.",
		When:  "There is old paint or varnish from before 1980 (or the year that local rules name), or old paint of unknown age, and no laboratory or licensed assessor has excluded lead. Watch; fail where the plan sands, scrapes, brushes, rubs down or heats it dry.",
		Step: func(k *Case, e *surface.Event) {
			if k.Barred && disturbsDry(k.Craft, e.Doing) && reachesOld(e) {
				k.add(Hit{Severity: Fail, Step: e.Step, Subject: surface.Kinds[e.Doing.Do].ID})
			}
		},
		End: func(k *Case) {
			said := slices.ContainsFunc(k.hits, func(h Hit) bool { return h.Rule == k.current })
			if k.Barred && !said {
				k.add(Hit{Severity: Watch, Subject: "suspect"})
			}
		},
		Say: func(k *Case, h *Hit) (string, string) {
			rest := " Local rules for lead work, containment, children and pregnancy decide; a laboratory or a licensed assessor tells what it is. A home swab does not."
			state, noted := k.Zone.Lead(k.Craft)
			if noted != "" {
				rest += " " + noted
			}
			if h.Subject == "suspect" {
				if state == LeadFound {
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
			m.Measure("Have it tested by a laboratory or a licensed assessor, and enter the dated result", "lead_test")
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
