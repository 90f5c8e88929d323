package check

import (
	"fmt"
	"slices"

	"rutile/core/craft"
	"rutile/core/surface"
)

// eachPatch calls f for every patch of a state.
func eachPatch(s *surface.State, f func(*surface.Patch)) {
	for i := range s.Patches[:s.N] {
		f(&s.Patches[i])
	}
}

var prepRules = []Rule{
	{
		Code:  "prep.sand_before_clean",
		Title: "Sanded before it was clean",
		Why:   "Abrasive drives grease and wax into the surface, and no washing gets them out again.",
		When:  "Something is abraded while grease, wax polish, silicone or a wax finish is still on it. Watch at level 1, fail from level 2.",
		Step: func(k *Case, e *surface.Event) {
			if e.Doing.Do != surface.Abrade {
				return
			}
			eachPatch(e.Before, func(p *surface.Patch) {
				for so, lv := range p.Soils {
					if lv > 0 && craft.Soils[so].Sticky {
						k.add(Hit{Severity: soilSeverity(lv), Step: e.Step, Subject: craft.Soils[so].ID, Soil: craft.Soil(so), Level: lv})
					}
				}
				if p.Top == craft.WaxFilm && p.Product == craft.NoProduct {
					k.add(Hit{Severity: Fail, Step: e.Step, Subject: craft.Soils[craft.WaxPolish].ID, Soil: craft.WaxPolish, Level: 2})
				}
			})
		},
		Say: func(_ *Case, h *Hit) (string, string) {
			row := &craft.Soils[h.Soil]
			return "Sanded with " + row.Name + " still on it",
				fmt.Sprintf("There is %s %s on it when the sanding begins, and abrasive drives it in. First %s; then sand.", levelWords[min(3, h.Level)], row.Name, row.Advice)
		},
		Mend: func(m *Mender, h *Hit) {
			steps, i := m.Zone.Steps, h.Step-1
			// Cleaning that comes after the sanding is brought forward.
			var later []int
			for j := i + 1; j < len(steps) && steps[j].Do != surface.Coat; j++ {
				if steps[j].Do == surface.Clean && m.Craft.Cleaners[steps[j].Cleaner].Carrier != craft.Dry {
					later = append(later, j)
				}
			}
			if len(later) > 0 {
				var out, moved []surface.Step
				for j := range steps {
					if slices.Contains(later, j) {
						moved = append(moved, steps[j])
					}
				}
				for j := range steps {
					if j == i {
						out = append(out, moved...)
					}
					if !slices.Contains(later, j) {
						out = append(out, steps[j])
					}
				}
				m.Edit("Clean first, then sand", out)
				if at := i + len(moved) + 1; !dusted(out[i+len(moved):]) {
					m.Edit("Clean first, then sand and dust off", insert(out, at, surface.Step{Do: surface.Dust}))
				}
			}
			wash := m.cleaning(h.Soil, h.Level)
			m.Edit("First "+titleOf(m.Craft, wash), insert(steps, i, wash...))
		},
	},
	{
		Code:  "prep.soil_left",
		Title: "Something is left on the surface",
		Why:   "Paint holds on what lies on top, and what lies on top wipes off.",
		When:  "A coat goes on over a soil other than dust. Watch at level 1, fail from level 2; wax polish and silicone fail any water-based coat; shellac covers a light soil. Watch while nobody has looked.",
		Step: func(k *Case, e *surface.Event) {
			for i := range e.Boundaries() {
				b := &e.Bounds[i]
				up := &k.Craft.Products[b.Product]
				for so, lv := range b.Soils {
					soil := craft.Soil(so)
					if lv == 0 || soil == craft.Dust || soil == craft.CleanerResidue {
						continue
					}
					creeps := craft.Soils[so].Creeps
					sev := soilSeverity(lv)
					switch {
					case up.Coat == craft.SH && lv == 1, soil == craft.WaxPolish && waxy(k, b.Product):
						continue
					case creeps && up.WaterBased():
						sev = Fail
					}
					k.add(Hit{Severity: sev, Step: b.Step, Subject: craft.Soils[so].ID, Soil: soil, Level: lv, Bound: b})
				}
			}
		},
		End: func(k *Case) {
			if k.Coated && !k.Zone.SoilsKnown {
				k.add(Hit{Severity: Watch, Subject: "unseen"})
			}
		},
		Say: func(k *Case, h *Hit) (string, string) {
			if h.Subject == "unseen" {
				return "Nobody has looked for grease and wax", "The plan is judged as if the surface were clean. Wipe a hidden spot with white spirit, another with degreaser, and look at the rag."
			}
			row := &craft.Soils[h.Soil]
			return craft.Upper(row.Name) + " left under the " + productName(k.Craft, h.Bound.Product),
				fmt.Sprintf("%s %s is still there when this coat goes on. What takes it off: %s.", craft.Upper(levelWords[min(3, h.Level)]), row.Name, row.Advice)
		},
		Mend: func(m *Mender, h *Hit) {
			if h.Subject == "unseen" {
				m.Measure("Look for soils and enter what you find", "soils")
				return
			}
			steps, i := m.Zone.Steps, h.Step-1
			wash := m.cleaning(h.Soil, h.Level)
			at := m.cleanPlace(steps, i)
			m.Edit(craft.Upper(titleOf(m.Craft, wash)), insert(steps, at, wash...))
			for _, id := range []string{"shellac_clear", "shellac_pigmented"} {
				if !craft.Soils[h.Soil].Sticky {
					break // washing is enough
				}
				p, _ := m.Craft.Product(id)
				s := m.coat(p, 1)
				m.Edit("Shut it in with "+craft.Lower(m.Craft.Products[p].Name), insert(steps, i, s))
				both := insert(steps, i, s)
				m.Edit(craft.Upper(titleOf(m.Craft, wash))+", then shut the rest in with "+craft.Lower(m.Craft.Products[p].Name), insert(both, at, wash...))
			}
			// Sanding drove it in: clean first.
			for j := m.block(steps, i); j < i; j++ {
				if steps[j].Do == surface.Abrade {
					m.Edit("First "+titleOf(m.Craft, wash)+", before the sanding", insert(steps, j, wash...))
					break
				}
			}
		},
	},
	{
		Code:  "prep.wrong_cleaner",
		Title: "The wrong cleaner for this soil",
		Why:   "Detergent smears wax, and white spirit does nothing for smoke.",
		When:  "A cleaner is used that shifts nothing of what is on the surface, and the soil is still there at the next coat. Watch.",
		Each:  true,
		Step: func(k *Case, e *surface.Event) {
			if e.Doing.Do != surface.Clean {
				return
			}
			row := &k.Craft.Cleaners[e.Doing.Cleaner]
			eachPatch(e.Before, func(p *surface.Patch) {
				var worst craft.Soil
				var level uint8
				for so, lv := range p.Soils {
					if lv == 0 || craft.Soil(so) == craft.Dust {
						continue
					}
					if _, ok := row.Shift(craft.Soil(so), lv); ok || craft.Soil(so) == craft.CleanerResidue && e.Doing.Rinse {
						return
					}
					if lv > level {
						worst, level = craft.Soil(so), lv
					}
				}
				if row.Key > 0 || row.Carrier == craft.Dry || level == 0 {
					return
				}
				if row.ID == craft.WaxRemover && p.Top == craft.WaxFilm {
					return
				}
				if left := soilAtNextCoat(k, e.Step, worst); left > 0 {
					k.add(Hit{Severity: Watch, Step: e.Step, Subject: row.ID + " for " + craft.Soils[worst].ID, Soil: worst, Level: level})
				}
			})
		},
		Say: func(k *Case, h *Hit) (string, string) {
			row := &craft.Soils[h.Soil]
			used := k.Craft.Cleaners[k.Zone.Steps[h.Step-1].Cleaner].Name
			return used + " does not shift " + row.Name, "What does: " + row.Advice + "."
		},
		Mend: func(m *Mender, h *Hit) {
			i := h.Step - 1
			wash := m.cleaning(h.Soil, h.Level)
			rest := append(slices.Clone(m.Zone.Steps[:i]), wash...)
			m.Edit(craft.Upper(titleOf(m.Craft, wash))+" instead", append(rest, m.Zone.Steps[i+1:]...))
			m.Edit("Add "+titleOf(m.Craft, wash), insert(m.Zone.Steps, i, wash...))
		},
	},
	{
		Code:  "prep.no_rinse",
		Title: "A cleaner left without its rinse",
		Why:   "Cleaner that dries on the surface is a soil of its own.",
		When:  "A coat goes on over the residue of a cleaner that must be rinsed. Watch for detergent, fail for the alkaline degreaser.",
		Each:  true,
		Step: func(k *Case, e *surface.Event) {
			if e.NBounds == 0 {
				return
			}
			eachPatch(e.Before, func(p *surface.Patch) {
				if lv := p.Soils[craft.CleanerResidue]; lv > 0 && p.ResidueStep > 0 {
					k.add(Hit{
						Severity: soilSeverity(lv), Step: int(p.ResidueStep), Soil: craft.CleanerResidue, Level: lv,
						Subject: k.Craft.Cleaners[k.Zone.Steps[p.ResidueStep-1].Cleaner].ID,
					})
				}
			})
		},
		Say: func(k *Case, h *Hit) (string, string) {
			row := &k.Craft.Cleaners[k.Zone.Steps[h.Step-1].Cleaner]
			times := "with clear water"
			if row.Rinses > 1 {
				times = "twice with clear water"
			}
			return row.Name + " is not rinsed", "What it leaves behind is a soil itself. Rinse " + times + "."
		},
		Mend: func(m *Mender, h *Hit) {
			steps := slices.Clone(m.Zone.Steps)
			steps[h.Step-1].Rinse = true
			m.Edit("Rinse with clear water", steps)
		},
	},
	{
		Code:  "prep.dust_left",
		Title: "Painted over sanding dust",
		Why:   "Dust under a coat is grit in the finish and a weak layer below it.",
		When:  "A coat goes on while dust is left, from sanding or from before. Watch.",
		Each:  true,
		Step: func(k *Case, e *surface.Event) {
			for i := range e.Boundaries() {
				if b := &e.Bounds[i]; b.Soils[craft.Dust] > 0 {
					k.add(Hit{Severity: Watch, Step: b.Step, Subject: k.Craft.Products[b.Product].ID, Soil: craft.Dust, Level: b.Soils[craft.Dust]})
				}
			}
		},
		Say: func(k *Case, h *Hit) (string, string) {
			return "Dust left under the " + productName(k.Craft, k.Zone.Steps[h.Step-1].Product), "Vacuum, then a tack cloth or a damp wipe, until a finger comes away clean."
		},
		Mend: func(m *Mender, h *Hit) {
			m.Edit("Dust off before this coat", insert(m.Zone.Steps, h.Step-1, surface.Step{Do: surface.Dust}))
		},
	},
	{
		Code:  "prep.damp",
		Title: "Too damp to paint",
		Why:   "Water leaving wet wood or clay pushes every film off from behind.",
		When:  "Wood above 14 % or mineral above 12 % when the first coat goes on: watch; either above 18 %: fail.",
		Step: func(k *Case, e *surface.Event) {
			m := k.Facts.Moisture
			for i := range e.Boundaries() {
				if !e.Bounds[i].First {
					continue
				}
				from, holds := dampFrom[k.Craft.Substrates[k.Facts.Substrate].Family]
				switch {
				case !holds || m <= from:
				case m > veryDamp:
					k.add(Hit{Severity: Fail, Step: e.Step})
				default:
					k.add(Hit{Severity: Watch, Step: e.Step})
				}
			}
		},
		Say: func(k *Case, _ *Hit) (string, string) {
			return "", fmt.Sprintf("The meter says %s %%. Let it dry in an airy, heated room, and measure again before the first coat.", number(k.Facts.Moisture))
		},
		Figures: func(k *Case, _ *Hit) []Figure {
			return []Figure{
				{"moisture", k.Facts.Moisture, "% of water by the meter"},
				{"watch_from", dampFrom[k.Craft.Substrates[k.Facts.Substrate].Family], "% from which it is too damp to be sure of"},
				{"fail_from", veryDamp, "% from which nothing holds"},
			}
		},
		Mend: func(m *Mender, _ *Hit) { m.Measure("Let it dry and measure again", "moisture_pct") },
	},
}

func soilSeverity(level uint8) Severity {
	if level >= 2 {
		return Fail
	}
	return Watch
}

// soilAtNextCoat is how much of a soil is left when the first coat after a
// step goes on, 0 if none follows.
func soilAtNextCoat(k *Case, step int, s craft.Soil) uint8 {
	for i := range k.Trace.Events {
		e := &k.Trace.Events[i]
		if e.Step <= step || e.NBounds == 0 {
			continue
		}
		var most uint8
		eachPatch(e.Before, func(p *surface.Patch) { most = max(most, p.Soils[s]) })
		return most
	}
	return 0
}

// dampFrom is the moisture in per cent from which a bare family is too damp to
// be sure of, and veryDamp that from which any of them fails.
var dampFrom = map[craft.Family]float64{
	craft.WoodBare: 14, craft.WoodOily: 14, craft.BoardRaw: 14, craft.MineralPorous: 12,
}

const veryDamp = 18
