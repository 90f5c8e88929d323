package check

import (
	"rutile/core/craft"
	"rutile/core/surface"
)

var useRules = []Rule{
	{
		Code:  "use.unsealed",
		Title: "Matt paint left without a seal",
		Why:   "Porous paint marks from every hand, cup and cloth until wax, oil or a clear coat closes it.",
		When:  "The last coat is porous and nothing seals it. Watch; fail where the wear is hard: seats, table tops, wet places, outdoors, floors.",
		End: func(k *Case) {
			p := &k.Trace.End.Patches[surface.Field]
			if p.Coats == 0 || p.Top != craft.PorousPaint || p.Product == craft.NoProduct {
				return
			}
			sev := Watch
			if craft.Wears[k.Facts.Wear].Hard || k.Facts.Uses&craft.UseOutdoor != 0 {
				sev = Fail
			}
			k.add(Hit{Severity: sev, Step: len(k.Zone.Steps)})
		},
		Say: func(k *Case, _ *Hit) (string, string) {
			p := k.Trace.End.Patches[surface.Field].Product
			return craft.Upper(productName(k.Craft, p)) + " is left unsealed",
				"It is porous and will mark. For " + wearWords(k) + ", " + sealWords(k) + " closes it."
		},
		Mend: func(m *Mender, h *Hit) {
			seals := craft.Wears[h.Case.Facts.Wear].Seals
			if m.Zone.Look == "chippy" || m.Zone.Look == "layered_chippy" {
				seals = []string{"wax_clear", "wax_oil"}
			}
			for _, id := range seals {
				p, _ := m.Craft.Product(id)
				coats := 2
				if m.Craft.Products[p].Role == craft.RoleWax {
					coats = 1
				}
				s := m.coat(p, coats)
				if coats == 1 {
					s.Method = "rag"
				}
				m.Edit("Seal it with "+craft.Lower(StepWords(m.Craft, &s)), insert(m.Zone.Steps, len(m.Zone.Steps), s))
			}
		},
	},
}

func sealWords(k *Case) string {
	var w []string
	for _, id := range craft.Wears[k.Facts.Wear].Seals {
		p, _ := k.Craft.Product(id)
		w = append(w, productName(k.Craft, p))
	}
	if len(w) > 1 {
		return w[0] + " or " + w[1]
	}
	return craft.List(w)
}
