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
		When: "The stain through the finished coats is predicted at 1 CIEDE2000 unit or more: watch; 3 or more: fail.",
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
				k.add(Hit{Severity: sev, Step: firstCoat(k, s.Patch), Subject: s.Bleeder.String(), Stain: s})
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
		fmt.Sprintf("%s: %s of about %.1f, where the eye sees 1 and anyone sees 3. It comes slowly: two thirds of it within %.0f days.", how, row.How, s.DeltaE, row.Tau)
}

var bleedRules = []Rule{
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
		Code:  "bleed.self_priming",
		Title: "The only block is a paint that claims to prime itself",
		Why:   "A self-priming paint grips by itself, but it does not hold stains back.",
		When:  "A stain is predicted at 1 or more, nothing blocks it, and the paint is said to prime itself. Watch.",
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
						k.add(Hit{Severity: Watch, Step: i + 1, Stain: st})
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
