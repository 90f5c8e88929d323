package check

import (
	"fmt"
	"slices"

	"rutile/core/craft"
	"rutile/core/measure"
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
		x, ok := c.Effect(s.Effect)
		return s.Heat || (s.Grit > 0 || ok && c.Effects[x].Dusty) && !s.Wetted
	}
	return false
}

// reachesOld tells whether a step reaches the old coat: nothing is over it yet, it cuts through, or
// it rubs down as an effect does.
func reachesOld(e *surface.Event) bool {
	return e.Before.Regions[surface.Field].Coats == 0 || e.Doing.Through || e.Doing.Do == surface.Effect || e.Doing.Do == surface.Strip
}

// Barred says why a step cannot be planned at all, empty where it can: what
// disturbs a suspect of lead.
func (z *Zone) Barred(c *craft.Craft, s *surface.Step, coated bool) string {
	if disturbsDry(c, s) && (!coated || s.Through || s.Do != surface.Abrade) && z.LeadBars(c) {
		return "The old coat may contain lead, and this step turns it into dust or fumes. Wait for the result of a laboratory or a licensed assessor."
	}
	return ""
}

func safetyRules() []Rule {
	return []Rule{
		{
			Code:   "safety.lead",
			Stage:  craft.StageIdentify,
			Reach:  SoFar | Later | Survey,
			Title:  "Old paint or varnish may contain lead",
			Why:    "Lead dust and fumes poison anyone who breathes or swallows them, children most of all.",
			When:   "There is old paint or varnish from before 1980 (or the year that local rules give), or old paint of unknown age, and no laboratory or licensed assessor has excluded lead. Watch; fail where the plan sands, scrapes, brushes, rubs down or heats it dry.",
			Inputs: "the age of the piece, its old coats, any lead result, and each step that makes dust or fumes",
			Fix:    "deglosser instead of sanding; a result from a laboratory or a licensed assessor",
			Step: func(k *Case, e *surface.Event) {
				if k.Barred && disturbsDry(k.Craft, e.Doing) && reachesOld(e) {
					k.Add(Hit{Severity: Fail, Step: e.Step, Subject: surface.Kinds[e.Doing.Do].ID})
				}
			},
			End: func(k *Case) {
				said := slices.ContainsFunc(k.hits, func(h Hit) bool { return h.Rule == k.current })
				if k.Barred && !said {
					k.Add(Hit{Severity: Watch, Subject: "suspect"})
				}
			},
			Say: func(k *Case, h *Hit) (string, string) {
				rest := " Local rules for lead work, containment, children and pregnancy apply; only a laboratory or a licensed assessor can tell. A home swab cannot."
				state, noted := k.Zone.Lead(k.Craft)
				if noted != "" {
					rest += " " + noted
				}
				if h.Subject == "suspect" {
					if state == LeadFound {
						return "The old coats contain lead", "Leave it undisturbed under sound coats, or give the work to a licensed professional." + rest
					}
					return "", "Do not dry-sand, scrape, burn or heat it before it is tested." + rest
				}
				return "Suspected lead must not be disturbed dry", "This step turns a coat that may contain lead into dust or fumes." + rest
			},
			Repair: func(m *Repairer, h *Hit) {
				if h.Subject == "abrade" {
					steps := append([]surface.Step{}, m.Zone.Steps...)
					for i := range steps {
						if steps[i].Do == surface.Coat {
							break
						}
						if dryAbrasion(&steps[i]) {
							cl := m.Craft.CleanersFor(craft.ForDeglossing)[0]
							steps[i] = surface.Step{Do: surface.Clean, Cleaner: cl}
						}
					}
					m.Edit("Dull it with liquid deglosser instead of sanding", steps)
				}
				m.Measure("Have it tested by a laboratory or a licensed assessor, and enter the dated result", craft.FieldLeadTest)
			},
		},
		{
			Code:   "safety.dust",
			Title:  "Sanding dust",
			Why:    "Fine dust harms the lungs; oak, cedar and tropical woods can also cause allergies.",
			When:   "Anything is sanded dry. A caution to acknowledge.",
			Inputs: "how each surface is sanded",
			Fix:    readIt,
			Step: func(k *Case, e *surface.Event) {
				if dryAbrasion(e.Doing) {
					k.Add(Hit{Severity: Note, Step: e.Step})
				}
			},
			Say: func(k *Case, _ *Hit) (string, string) {
				more := ""
				if k.Craft.Substrates[k.Facts.Substrate].Sensitises() {
					more = " The dust of this wood can cause allergies."
				}
				return "", "Use dust extraction and a fitted particle mask." + more
			},
			Repair: func(m *Repairer, _ *Hit) { m.Acknowledge() },
		},
		{
			Code:   "safety.solvent",
			Title:  "Solvent vapour",
			Why:    "Vapours are harmful and catch fire.",
			When:   "A cleaner or product contains solvent or alcohol. A caution to acknowledge.",
			Inputs: "the solvent in each cleaner and product",
			Fix:    readIt,
			Step: func(k *Case, e *surface.Event) {
				s := e.Doing
				if volatile(k.Craft, s) {
					k.Add(Hit{Severity: Note, Step: e.Step})
				}
			},
			Say: func(*Case, *Hit) (string, string) {
				return "", "Cross-ventilate, wear a vapour respirator where the label asks for one, allow no flames or sparks, and keep lids on. The label and the safety data sheet decide."
			},
			Repair: func(m *Repairer, _ *Hit) { m.Acknowledge() },
		},
		{
			Code:   "safety.alkali",
			Title:  "Caustic cleaner or powder",
			Why:    "Alkali burns skin and eyes.",
			When:   "A caustic cleaner or a powder paint with lime is used. A caution to acknowledge.",
			Inputs: "which cleaners and powders are caustic",
			Fix:    readIt,
			Step: func(k *Case, e *surface.Event) {
				s := e.Doing
				if s.Do == surface.Clean && k.Craft.Cleaners[s.Cleaner].Alkali ||
					s.Do == surface.Coat && k.Craft.Products[s.Product].Alkali {
					k.Add(Hit{Severity: Note, Step: e.Step})
				}
			},
			Say: func(*Case, *Hit) (string, string) {
				return "", "Wear gloves and eye protection; rinse splashes at once with plenty of water."
			},
			Repair: func(m *Repairer, _ *Hit) { m.Acknowledge() },
		},
		{
			Code:   "safety.oily_rags",
			Title:  "Oily rags can catch fire",
			Why:    "Drying oil warms up; a crumpled rag holds the heat until it burns.",
			When:   "An oil, wax oil, wiping varnish, or a stain or glaze with drying oil is used. A caution to acknowledge.",
			Inputs: "whether a product contains drying oil",
			Fix:    readIt,
			Step:   noteStep(func(k *Case, s *surface.Step) bool { return s.Do == surface.Coat && k.Craft.Products[s.Product].Rags }),
			Say: func(*Case, *Hit) (string, string) {
				return "", "Spread rags flat outdoors to dry, or put them in water in a closed metal tin. Never leave them crumpled or in the bin: they can catch fire by themselves."
			},
			Repair: func(m *Repairer, _ *Hit) { m.Acknowledge() },
		},
		{
			Code:   "safety.ammonia_bleach",
			Title:  "Cleaners that must never be mixed",
			Why:    "Ammonia and bleach together give off a gas that burns the lungs; many biocides contain bleach without saying so in their name.",
			When:   "Ammonia and a biocide are in one plan: fail. A biocide and any other wet cleaner: watch.",
			Inputs: "the cleaners of the whole plan",
			Fix:    "leaving one of them out; an ordinary wash instead of ammonia",
			End: func(k *Case) {
				ammonia, biocide, other := 0, 0, 0
				for i := range k.Zone.Steps {
					s := &k.Zone.Steps[i]
					if s.Do != surface.Clean {
						continue
					}
					switch row := &k.Craft.Cleaners[s.Cleaner]; {
					case row.Ammonia:
						ammonia = i + 1
					case row.Biocide:
						biocide = i + 1
					case row.Carrier == craft.Water:
						other = i + 1
					}
				}
				switch {
				case ammonia > 0 && biocide > 0:
					k.Add(Hit{Severity: Fail, Step: max(ammonia, biocide), Subject: "ammonia", Value: float64(ammonia)})
				case biocide > 0 && other > 0 && !k.Zone.Steps[biocide-1].Rinse:
					k.Add(Hit{Severity: Watch, Step: biocide, Subject: "biocide"})
				}
			},
			Say: func(_ *Case, h *Hit) (string, string) {
				if h.Subject == "ammonia" {
					return "Ammonia and bleach in one plan", "Never use them together, on the same day, or in the same bucket. The labels and the safety data sheets decide."
				}
				return "A biocide beside another cleaner", "Most biocides contain bleach: rinse with plenty of water and let it dry before using anything else. Never mix them."
			},
			Repair: func(m *Repairer, h *Hit) {
				if h.Subject == "ammonia" {
					cl := m.Craft.CleanersFor(craft.ForWash)[0]
					m.change("A detergent wash instead of ammonia", int(h.Value), func(s *surface.Step) { *s = surface.Step{Do: surface.Clean, Cleaner: cl, Rinse: true} })
					m.Edit("Leave out the ammonia", slices.Delete(slices.Clone(m.Zone.Steps), int(h.Value)-1, int(h.Value)))
				} else {
					m.change("Rinse the biocide off", h.Step, func(s *surface.Step) { s.Rinse = true })
				}
				m.Acknowledge()
			},
		},
		{
			Code:   "safety.heat_gun",
			Title:  "Hot air",
			Why:    "Heat chars wood, cracks glass, lifts veneer and makes fumes from old paint.",
			When:   "Something is stripped or worked with heat. A caution to acknowledge.",
			Inputs: "steps that use heat",
			Fix:    readIt,
			Step:   noteStep(func(_ *Case, s *surface.Step) bool { return heats(s) }),
			Say: func(*Case, *Hit) (string, string) {
				return "", "Exclude lead first. Use a low setting, keep moving, stay away from solvent, glass and veneer; check again for smouldering an hour later."
			},
			Repair: func(m *Repairer, _ *Hit) { m.Acknowledge() },
		},
		{
			Code:   "safety.flammable",
			Title:  "Vapour beside heat",
			Why:    "Alcohol, acetone, aerosols, shellac and solvents give off vapour until they are dry, and a heat gun, a dryer or a heater can ignite it.",
			When:   "Heat is used within a day after something flammable: watch. Both are in one plan: a caution to acknowledge.",
			Inputs: "the hours between each flammable step and each step with heat",
			Fix:    "keeping them apart in time and place",
			Step: func(k *Case, e *surface.Event) {
				if !heats(e.Doing) {
					return
				}
				const dry = 24.
				if o := k.vapour(e.Step); o != nil {
					sev, how := Note, "apart"
					if e.Begun-o.Begun < dry {
						sev, how = Watch, "beside"
					}
					k.Add(Hit{Severity: sev, Step: e.Step, Subject: how, Value: e.Begun - o.Begun, Limit: dry})
				}
			},
			Say: func(k *Case, h *Hit) (string, string) {
				return "", fmt.Sprintf("The heat comes %s after %s. Let that dry for a day in moving air, take tins and rags out of the room, and only then use heat.",
					measure.Hours(max(0, h.Value)), craft.Lower(StepWords(k.Craft, k.vapour(h.Step).Doing)))
			},
			Figures: func(_ *Case, h *Hit) []Figure {
				return []Figure{{"between_h", max(0, h.Value), "between them"}, {"apart_h", h.Limit, "needed between them"}}
			},
			Repair: func(m *Repairer, h *Hit) {
				if n := h.Limit - max(0, h.Value); n > 0 {
					m.Edit("Wait a day before using heat", insert(m.Zone.Steps, h.Step-1, surface.Step{Do: surface.Wait, Hours: h.Limit}))
				}
				m.Acknowledge()
			},
		},
		{
			Code:   "safety.two_part",
			Title:  "Two-part products can cause allergies",
			Why:    "Epoxy, polyester hardener and cross-linkers make some people allergic for life.",
			When:   "A two-part coat, a two-part filler or a cross-linked clear is used. A caution to acknowledge.",
			Inputs: "whether a product hardens with a second part",
			Fix:    readIt,
			Step: noteStep(func(k *Case, s *surface.Step) bool {
				return s.Do == surface.Coat && (k.Craft.Products[s.Product].TwoPart || k.Craft.Products[s.Product].Coat == craft.WH) || s.Do == surface.Fill && s.With == craft.FillerTwoPart
			}),
			Say: func(*Case, *Hit) (string, string) {
				return "", "Wear gloves and use fresh air; mix small batches, because the pot heats up; keep it off the skin. The label and the safety data sheet decide."
			},
			Repair: func(m *Repairer, _ *Hit) { m.Acknowledge() },
		},
		{
			Code:   "safety.aerosol",
			Title:  "Spray mist in the air",
			Why:    "Aerosols and spray guns fill a room with fine drops that harm the lungs and can explode.",
			When:   "An aerosol or a spray gun is used. A caution to acknowledge.",
			Inputs: "how each coat is applied",
			Fix:    readIt,
			Step: noteStep(func(k *Case, s *surface.Step) bool {
				return s.Do == surface.Coat && (k.Craft.Products[s.Product].Aerosol || s.Method == "spray" || s.Method == "aerosol")
			}),
			Say: func(*Case, *Hit) (string, string) {
				return "", "Work outdoors or with extraction rated for such vapour, wear a fitted respirator for vapour and mist, allow no flames or sparks, and mask everything else from overspray."
			},
			Repair: func(m *Repairer, _ *Hit) { m.Acknowledge() },
		},
		{
			Code:   "safety.old_vinyl",
			Title:  "Old vinyl, mastic or felt may contain asbestos",
			Why:    "Backings and glues of old vinyl were made with asbestos, and its fibres kill decades later.",
			When:   "Vinyl from before 1990, or of unknown age, is to be sanded, stripped or heated. A caution to acknowledge.",
			Inputs: "the material, the year, and which steps disturb it",
			Fix:    readIt,
			Step: func(k *Case, e *surface.Event) {
				const banned = 1990
				old := k.Zone.Made == 0 || k.Zone.Made < banned
				switch k.Craft.Substrates[k.Facts.Substrate].Family {
				case craft.VinylSoft, craft.VinylRigid:
				default:
					return
				}
				if d := e.Doing; old && (d.Do == surface.Abrade || d.Do == surface.Strip || heats(d)) {
					k.Add(Hit{Severity: Note, Step: e.Step})
				}
			},
			Say: func(*Case, *Hit) (string, string) {
				return "", "Leave old backing, mastic and felt alone until an accredited surveyor has checked them. Local rules decide who may touch it."
			},
			Repair: func(m *Repairer, _ *Hit) { m.Acknowledge() },
		},
		{
			Code:   "safety.electrical",
			Title:  "It has electrical wiring",
			Why:    "Painted or loosened wiring causes shocks and burns.",
			When:   "The piece is a lamp or has wiring, and coats are planned. A caution to acknowledge.",
			Inputs: "what the piece is used for",
			Fix:    readIt,
			End: func(k *Case) {
				if k.Facts.Uses&craft.Lamp != 0 && k.Coated {
					k.Add(Hit{Severity: Note, Step: k.lastStep()})
				}
			},
			Say: func(*Case, *Hit) (string, string) {
				return "", "Unplug it; have a qualified person take the wiring out and put it back. Never paint over wiring, a lamp holder or a label."
			},
			Repair: func(m *Repairer, _ *Hit) { m.Acknowledge() },
		},
	}
}

const readIt = "reading the label and the safety data sheet, and recording that you read them"

// noteStep fires a caution at every step that does something.
func noteStep(does func(*Case, *surface.Step) bool) func(*Case, *surface.Event) {
	return func(k *Case, e *surface.Event) {
		if does(k, e.Doing) {
			k.Add(Hit{Severity: Note, Step: e.Step})
		}
	}
}

// heats tells whether a step uses a heat gun.
func heats(s *surface.Step) bool {
	return s.Do == surface.Effect && s.Heat || s.Do == surface.Strip && s.StripHow == "heat"
}

// vapour is the last event before a step, from 1, that gives off vapour that
// burns; nil where there is none.
func (k *Case) vapour(step int) *surface.Event {
	for i := len(k.Trace.Events) - 1; i >= 0; i-- {
		if e := &k.Trace.Events[i]; e.Step < step && volatile(k.Craft, e.Doing) {
			return e
		}
	}
	return nil
}

// volatile tells whether a step gives off vapour that burns.
func volatile(c *craft.Craft, s *surface.Step) bool {
	return s.Do == surface.Clean && c.Cleaners[s.Cleaner].Carrier.Volatile() || s.Do == surface.Coat && c.Products[s.Product].Carrier.Volatile()
}
