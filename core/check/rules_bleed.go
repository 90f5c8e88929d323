package check

import (
	"fmt"

	"rutile/core/craft"
	"rutile/core/surface"
)

// bleedRule is the rule for the bleeders that report under its code.
func bleedRule(code, title, why string) Rule {
	return Rule{
		Code: code, Title: title, Why: why,
		When:  "The stain through the finished coats is predicted at 1 CIEDE2000 unit or more: watch; 3 or more: fail.",
		Looks: "how much there is, what wakes it, what each coat lets through, and the lightness of the finished colour",
		Mends: "a coat that holds it back, over all of it or on the spots; another coat of it",
		End: func(k *Case) {
			if !k.Opaque {
				return
			}
			for b := range k.Stains {
				s := &k.Stains[b]
				if craft.Bleeders[b].Rule != code || s.DeltaE < stainWatch {
					continue
				}
				sev := Watch
				if s.DeltaE >= stainFail {
					sev = Fail
				}
				k.Add(Hit{Severity: sev, Step: firstCoat(k, s.Patch), Subject: s.Bleeder.String(), Stain: s})
			}
		},
		Say: sayStain,
		Mend: func(m *Mender, h *Hit) {
			m.Block(h.Stain)
		},
	}
}

func firstCoat(k *Case, on surface.PatchKind) int {
	for i := range k.Trace.Events {
		for _, b := range k.Trace.Events[i].Boundaries() {
			if b.Patch == on {
				return b.Step
			}
		}
	}
	return 0
}

func sayStain(k *Case, h *Hit) (string, string) {
	s := h.Stain
	row := &craft.Bleeders[s.Bleeder]
	seen := "may show"
	if h.Severity == Fail {
		seen = "will show"
	}
	how := "Nothing in the plan holds it back"
	if s.Blocked {
		how = "What is planned holds back only part of it"
	}
	return craft.Upper(row.Name) + " " + seen + " through the coats",
		fmt.Sprintf("%s: %s of about %.1f, where the eye sees 1 and anyone sees 3. Two thirds of it come within %.0f days.", how, row.How, s.DeltaE, row.Tau)
}

func bleedRules() []Rule {
	return []Rule{
		bleedRule("bleed.tannin", "Tannin rises through the coats", "Water wakes tannin, and it comes up yellow-brown, weeks after delivery."),
		bleedRule("bleed.knot", "Knots rise through the coats", "Resin goes on creeping for months, and warmth brings it out. An ordinary primer does not stop it."),
		bleedRule("bleed.dye", "Old dye rises through the coats", "Red and brown stains dissolve into pale paint and turn it pink."),
		bleedRule("bleed.smoke", "Smoke rises through the coats", "Nicotine stains and smells through anything that does not block it."),
		bleedRule("bleed.rust", "Rust rises through the coats", "Nails and bare steel rust under water-based coats and stain from below."),
		bleedRule("bleed.ink", "Ink rises through the coats", "Marker and crayon dissolve into paint and come back."),
		bleedRule("bleed.water", "A water mark rises through the coats", "Rings and leaks come back as rings."),
		bleedRule("bleed.bitumen", "Bitumen rises through the coats", "Tar and antiquing compounds never dry and creep into what lies over them."),
		bleedRule("bleed.salts", "Salts come through the coats", "Salts travel with damp, bloom white and push the coat off."),
		bleedRule("bleed.grease", "Grease rises through the coats", "A soaked-in grease spot stays dark and dull under paint."),
		{
			Code:  "bleed.tacky",
			Title: "Plasticiser softens the coats",
			Why:   "Vinyl gives off its softener for years, and hard coats over it turn sticky and stay so.",
			When:  "What gets through is 1 or more on the scale of stains: watch; 3 or more: fail.",
			Looks: "how much plasticiser the vinyl gives off, and what each coat lets through",
			Mends: "flexible paint against the vinyl; more coats of it",
			End:   bleedRule("bleed.tacky", "", "").End,
			Say: func(k *Case, h *Hit) (string, string) {
				will := "may turn sticky"
				if h.Severity == Fail {
					will = "will turn sticky"
				}
				return "The coats " + will, fmt.Sprintf("Plasticiser from the vinyl gets through at %.1f, where 1 is felt and 3 sticks. A coat that resists it must lie against the vinyl.", h.Stain.DeltaE)
			},
			Mend: func(m *Mender, h *Hit) { m.Block(h.Stain) },
		},
		{
			Code:  "bleed.cut_back",
			Title: "Wear goes through what holds a stain back",
			Why:   "Where an edge is rubbed down, the blocker is gone, and what it held comes into the paint and the seal around it.",
			When:  "Distressing or sanding later in the plan goes through a blocker, and what then comes through there is 1 CIEDE2000 unit or more. Watch: it is a spot, and not the face.",
			Looks: "the worn places by themselves, and what is laid over them afterwards",
			Mends: "a coat of clear shellac over the worn edges before the seal; wearing less deep",
			End: func(k *Case) {
				w := k.Trace.End.Patch(surface.Worn)
				if w == nil || !k.Opaque || k.cutStep() == 0 {
					return
				}
				show := Show(k.Zone.lightness(k.Craft))
				worst, most := Stain{}, 0.
				for b := range w.Load {
					de := w.Stain(craft.Bleeder(b)) * show
					if de > most && de >= stainWatch && de > k.Stains[b].DeltaE+halo {
						most = de
						worst = Stain{Bleeder: craft.Bleeder(b), Patch: surface.Worn, DeltaE: de, Load: float64(w.Load[b]), Lets: float64(w.Lets[b]), Show: show}
					}
				}
				if most == 0 {
					return
				}
				k.worn = worst
				k.Add(Hit{Severity: Watch, Step: k.cutStep(), Subject: worst.Bleeder.String(), Stain: &k.worn})
			},
			Say: func(k *Case, h *Hit) (string, string) {
				return craft.Upper(craft.Bleeders[h.Stain.Bleeder].Name) + " comes through the worn edges",
					fmt.Sprintf("There the blocker is rubbed off, and about %.1f of it gets into what lies over it, as halos along the edge.", h.Stain.DeltaE)
			},
			Mend: func(m *Mender, h *Hit) {
				i := h.Step
				for i < len(m.Zone.Steps) && m.Zone.Steps[i].Do == surface.Dust {
					i++
				}
				for _, n := range []int{1, 2} {
					p := m.Craft.First(craft.ForBarrier)
					m.Edit(craft.Upper(plural(n, "coat", "coats"))+" of clear shellac over the worn edges", insert(m.Zone.Steps, i, m.coat(p, n)))
				}
				if s := &m.Zone.Steps[h.Step-1]; s.Do == surface.Effect {
					m.change("Wear it with 320, no deeper than the undercoat", h.Step, func(s *surface.Step) { s.Grit = 320 })
				}
			},
		},
		{
			Code:  "bleed.self_priming",
			Title: "The only block is a paint that claims to prime itself",
			Why:   "A self-priming paint grips by itself, but it does not hold stains back.",
			When:  "A stain is predicted at 1 or more, nothing blocks it, and the paint is said to prime itself. Watch.",
			Looks: "whether a paint that is said to prime itself is all that stands before a stain",
			Mends: "a coat that holds it back",
			End: func(k *Case) {
				if !k.Opaque {
					return
				}
				for i := range k.Zone.Steps {
					s := &k.Zone.Steps[i]
					if s.Do != surface.Coat || !k.Craft.Products[s.Product].SelfPrime {
						continue
					}
					for b := range k.Stains {
						if st := &k.Stains[b]; st.DeltaE >= stainWatch && !st.Blocked {
							k.Add(Hit{Severity: Watch, Step: i + 1, Stain: st})
							return
						}
					}
				}
			},
			Say: func(_ *Case, h *Hit) (string, string) {
				return "", fmt.Sprintf("It is left alone with %s, and lets %.0f %% of it through.", craft.Bleeders[h.Stain.Bleeder].Name, h.Stain.Lets*100)
			},
			Mend: func(m *Mender, h *Hit) { m.Block(h.Stain) },
		},
	}
}

// halo is how much more than the face a worn edge must stain to be seen as one, in
// CIEDE2000 units. Working default.
const halo = .5

// AtWorn is the stain of a worn edge, in CIEDE2000 units, from which on a plan is
// watched whatever lies on the face: for the edge, or for a face that stains nearly
// as much.
const AtWorn = stainWatch + halo

// cutStep is the last step, from 1, that wears deep.
func (k *Case) cutStep() int {
	for i := len(k.Trace.Events) - 1; i >= 0; i-- {
		if e := &k.Trace.Events[i]; e.Effect != nil && e.Effect.Deep {
			return e.Step
		}
	}
	return 0
}
