package check

import (
	"fmt"
	"slices"
	"strings"

	"rutile/core/craft"
	"rutile/core/measure"
	"rutile/core/surface"
)

// bleedRule is the rule for the bleeders that report under its code.
func bleedRule(code, title, why string) Rule {
	return Rule{
		Code: code, Title: title, Why: why,
		When:   "The predicted stain is visible through the finished coats: watch; clearly visible: fail.",
		Inputs: "how much of it there is, what sets it free, how much each coat lets through, and how pale the finished colour is",
		Fix:    "a coat that blocks it, all over or on the spots; another coat of it",
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
				k.Add(Hit{Severity: sev, Step: firstCoat(k, s.Region), Subject: s.Bleeder.String(), Stain: s})
			}
		},
		Say: sayStain,
		Repair: func(m *Repairer, h *Hit) {
			m.Block(h.Stain)
		},
	}
}

func firstCoat(k *Case, on surface.RegionKind) int {
	for i := range k.Trace.Events {
		for _, b := range k.Trace.Events[i].Boundaries() {
			if b.Region == on {
				return b.Step
			}
		}
	}
	return 0
}

// blocksSpots tells whether the plan has a coat that blocks stains on spots or knots alone.
func blocksSpots(k *Case) bool {
	return slices.ContainsFunc(k.Zone.Steps, func(s surface.Step) bool {
		return s.Do == surface.Coat && s.Scope != surface.All && k.Craft.Products[s.Product].Role == craft.RolePrimer
	})
}

func sayStain(k *Case, h *Hit) (string, string) {
	s := h.Stain
	row := &craft.Bleeders[s.Bleeder]
	seen := "may show"
	if h.Severity == Fail {
		seen = "will show"
	}
	how := "Nothing in the plan blocks it"
	switch {
	case s.Blocked:
		how = "The plan blocks only part of it"
	case s.Region == surface.Field && blocksSpots(k):
		how = "The plan blocks spots, and it rises from the whole face"
	}
	if s.Bleeder == craft.Resin && s.Region == surface.Field {
		return "Resin " + seen + " through the coats",
			fmt.Sprintf("%s: expect %s between the knots. Most of it appears within %s.", how, strings.Replace(StainWords(s.Bleeder, s.DeltaE), "spots over knots", "streaks", 1), measure.Hours(row.Tau*24))
	}
	return craft.Upper(row.Name) + " " + seen + " through the coats",
		fmt.Sprintf("%s: expect %s. Most of it appears within %s.", how, StainWords(s.Bleeder, s.DeltaE), measure.Hours(row.Tau*24))
}

func bleedRules() []Rule {
	return []Rule{
		bleedRule("bleed.tannin", "Tannin shows through the coats", "Water dissolves tannin, and a yellow-brown stain appears weeks after delivery."),
		bleedRule("bleed.knot", "Knots show through the coats", "Resin keeps creeping for months, faster in warmth. An ordinary primer does not stop it."),
		bleedRule("bleed.dye", "Old dye shows through the coats", "Red and brown stains dissolve into pale paint and turn it pink."),
		bleedRule("bleed.smoke", "Smoke shows through the coats", "Nicotine stains and smells through any coat that does not block it."),
		bleedRule("bleed.rust", "Rust shows through the coats", "Nails and bare steel rust under water-based coats and stain from below."),
		bleedRule("bleed.ink", "Ink shows through the coats", "Marker and crayon dissolve into paint and come back."),
		bleedRule("bleed.water", "A water mark shows through the coats", "Rings and leaks come back as rings."),
		bleedRule("bleed.bitumen", "Bitumen shows through the coats", "Tar and antiquing products never dry and creep into the coats above."),
		bleedRule("bleed.salts", "Salts come through the coats", "Salts travel with damp, form a white bloom and push the coat off."),
		bleedRule("bleed.grease", "Grease shows through the coats", "A soaked-in grease spot stays dark and dull under paint."),
		{
			Code:   "bleed.tacky",
			Title:  "Plasticiser softens the coats",
			Why:    "Vinyl gives off plasticiser for years, and hard coats over it turn sticky and stay sticky.",
			When:   "Enough plasticiser gets through that the coats feel tacky: watch; sticky: fail.",
			Inputs: "how much plasticiser the vinyl gives off, and how much each coat lets through",
			Fix:    "flexible paint directly on the vinyl; more coats of it",
			End:    bleedRule("bleed.tacky", "", "").End,
			Say: func(k *Case, h *Hit) (string, string) {
				will := "may turn sticky"
				if h.Severity == Fail {
					will = "will turn sticky"
				}
				return "The coats " + will, fmt.Sprintf("Enough plasticiser gets through for the coats to feel %s. A coat that resists it must go directly on the vinyl.", StainWords(h.Stain.Bleeder, h.Stain.DeltaE))
			},
			Repair: func(m *Repairer, h *Hit) { m.Block(h.Stain) },
		},
		{
			Code:   "bleed.cut_back",
			Title:  "Wear exposes what a coat blocks",
			Why:    "Where an edge is rubbed down, the blocking coat is gone, and the stain comes into the paint and the seal around it.",
			When:   "Distressing or sanding later in the plan cuts through a blocking coat, and a visible stain comes through there. Watch: it affects a spot, not the whole face.",
			Inputs: "the worn places by themselves, and what is applied over them afterwards",
			Fix:    "a coat of clear shellac over the worn edges before the seal; wearing less deeply",
			End: func(k *Case) {
				w := k.Trace.End.Region(surface.Worn)
				if w == nil || !k.Opaque || k.cutStep() == 0 {
					return
				}
				show := Show(k.Zone.lightness(k.Craft))
				worst, most := Stain{}, 0.
				for b := range w.Load {
					de := w.Stain(craft.Bleeder(b)) * show
					if de > most && de >= stainWatch && de > k.Stains[b].DeltaE+halo {
						most = de
						worst = Stain{Bleeder: craft.Bleeder(b), Region: surface.Worn, DeltaE: de, Load: float64(w.Load[b]), Transmitted: float64(w.Transmitted[b]), Show: show}
					}
				}
				if most == 0 {
					return
				}
				k.worn = worst
				k.Add(Hit{Severity: Watch, Step: k.cutStep(), Subject: worst.Bleeder.String(), Stain: &k.worn})
			},
			Say: func(k *Case, h *Hit) (string, string) {
				return craft.Upper(craft.Bleeders[h.Stain.Bleeder].Name) + " shows through the worn edges",
					fmt.Sprintf("The blocking coat is rubbed off there: expect %s in the coats above, as a halo along the edge.", StainWords(h.Stain.Bleeder, h.Stain.DeltaE))
			},
			Repair: func(m *Repairer, h *Hit) {
				i := h.Step
				for i < len(m.Zone.Steps) && m.Zone.Steps[i].Do == surface.Dust {
					i++
				}
				for _, n := range []int{1, 2} {
					p := m.Craft.First(craft.ForBarrier)
					m.Edit(craft.Upper(measure.Count(n, "coat", "coats"))+" of clear shellac over the worn edges", insert(m.Zone.Steps, i, m.coat(p, n)))
				}
				if s := &m.Zone.Steps[h.Step-1]; s.Do == surface.Effect {
					m.change("Wear it with 320, no deeper than the undercoat", h.Step, func(s *surface.Step) { s.Grit = 320 })
				}
			},
		},
		{
			Code:   "bleed.self_priming",
			Title:  "Only a self-priming paint covers a stain",
			Why:    "A self-priming paint grips by itself, but it does not block stains.",
			When:   "A visible stain is predicted, nothing blocks it, and the paint is sold as self-priming. Watch.",
			Inputs: "whether a self-priming paint is the only coat over a stain",
			Fix:    "a coat that blocks it",
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
				return "", fmt.Sprintf("It is the only coat over %s, and lets %.0f %% of it through.", craft.Bleeders[h.Stain.Bleeder].Name, h.Stain.Transmitted*100)
			},
			Repair: func(m *Repairer, h *Hit) { m.Block(h.Stain) },
		},
	}
}

// halo is how much more than the face a worn edge must stain to be visible, in CIEDE2000 units.
// Working default.
const halo = .5

// AtWorn is the stain of a worn edge, in CIEDE2000 units, from which a plan is watched whatever the
// face looks like: for the edge, or for a face that stains nearly as much.
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
