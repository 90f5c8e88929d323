package check

import (
	"fmt"
	"slices"

	"rutile/core/craft"
	"rutile/core/measure"
	"rutile/core/surface"
)

// eachPatch calls f for every patch of a state.
func eachPatch(s *surface.State, f func(*surface.Region)) {
	for i := range s.Regions[:s.N] {
		f(&s.Regions[i])
	}
}

func prepRules() []Rule {
	return []Rule{
		{
			Code:   "prep.sand_before_clean",
			Harm:   HarmPeel,
			Title:  "Sanded before it was clean",
			Why:    "Sanding drives grease and wax into the surface, where washing no longer reaches them.",
			When:   "Something is sanded while grease, wax polish, silicone or a wax finish is still on it. Watch if light, fail if marked or heavy.",
			Inputs: "what is on the surface when it is sanded",
			Fix:    "cleaning first",
			Step: func(k *Case, e *surface.Event) {
				if e.Doing.Do != surface.Abrade {
					return
				}
				eachPatch(e.Before, func(p *surface.Region) {
					for so, lv := range p.Soils {
						if lv > 0 && craft.Soils[so].Sticky {
							k.Add(Hit{Severity: soilSeverity(lv), Step: e.Step, Subject: craft.Soils[so].ID, Soil: craft.Soil(so), Level: lv})
						}
					}
					if p.Top == craft.WaxFilm && p.Product == craft.NoProduct {
						k.Add(Hit{Severity: Fail, Step: e.Step, Subject: craft.Soils[craft.WaxPolish].ID, Soil: craft.WaxPolish, Level: 2})
					}
				})
			},
			Say: func(_ *Case, h *Hit) (string, string) {
				row := &craft.Soils[h.Soil]
				return "Sanded with " + row.Name + " still on it",
					fmt.Sprintf("There is %s %s on it when the sanding starts, and sanding drives it in. First %s; then sand.", Levels[min(3, h.Level)], row.Name, row.Advice)
			},
			Repair: func(m *Repairer, h *Hit) {
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
			Code:   "prep.soil_left",
			Harm:   HarmPeel,
			Patch:  true,
			Reach:  SoFar,
			Title:  "Dirt is left on the surface",
			Why:    "Paint only holds as well as what it lies on, and dirt wipes off.",
			When:   "A coat goes on over dirt other than dust. Watch if light, fail if marked or heavy; wax polish and silicone fail any water-based coat; shellac covers light dirt. Watch while the surface has not been checked.",
			Inputs: "what is on the surface when each coat goes on; whether it was checked",
			Fix:    "the cleaner that removes it; shellac over what no cleaner removes; checking",
			Step: func(k *Case, e *surface.Event) {
				for i := range e.Boundaries() {
					b := &e.Bounds[i]
					up := &k.Craft.Products[b.Product]
					for so, lv := range b.Soils {
						soil := craft.Soil(so)
						if lv == 0 || soil == craft.Dust || soil == craft.CleanerResidue || soil == craft.Silicone && k.creeping() {
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
						k.Add(Hit{Severity: sev, Step: b.Step, Subject: craft.Soils[so].ID, Soil: soil, Level: lv, Bound: b})
					}
				}
			},
			End: func(k *Case) {
				if k.Coated && !k.Zone.SoilsKnown {
					k.Add(Hit{Severity: Watch, Subject: "unseen", Unsure: true})
				}
			},
			Say: func(k *Case, h *Hit) (string, string) {
				if h.Subject == "unseen" {
					return "Not yet checked for grease and wax", "The plan is judged as if the surface were clean. Wipe one hidden spot with white spirit, another with degreaser, and look at the rag."
				}
				row := &craft.Soils[h.Soil]
				return craft.Upper(row.Name) + " left under the " + productName(k.Craft, h.Bound.Product),
					fmt.Sprintf("%s %s is still there when this coat goes on. What removes it: %s.", craft.Upper(Levels[min(3, h.Level)]), row.Name, row.Advice)
			},
			Repair: func(m *Repairer, h *Hit) {
				if h.Subject == "unseen" {
					m.Measure("Check for dirt and enter what you find", craft.FieldSoils)
					return
				}
				steps, i := m.Zone.Steps, h.Step-1
				wash := m.cleaning(h.Soil, h.Level)
				at := m.cleanPlace(steps, i)
				m.Edit(craft.Upper(titleOf(m.Craft, wash)), insert(steps, at, wash...))
				for _, p := range m.Craft.For(craft.ForBarrier) {
					if !craft.Soils[h.Soil].Sticky {
						break // washing is enough
					}
					s := m.coat(p, 1)
					m.Edit("Seal it in with "+craft.Lower(m.Craft.Products[p].Name), insert(steps, i, s))
					both := insert(steps, i, s)
					m.Edit(craft.Upper(titleOf(m.Craft, wash))+", then seal in the rest with "+craft.Lower(m.Craft.Products[p].Name), insert(both, at, wash...))
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
			Code:   "prep.silicone",
			Harm:   HarmPeel,
			Patch:  true,
			Title:  "Silicone never washes out for certain",
			Why:    "Spray polish leaves silicone in every pore. Paint crawls away from what is left of it, into craters.",
			When:   "There was marked or heavy silicone: the first coat is not a barrier of shellac: fail. With the barrier: watch.",
			Inputs: "how much silicone there was, and what the first coat is",
			Fix:    "white spirit with fresh rags, then a barrier coat of shellac; a test patch",
			Step: func(k *Case, e *surface.Event) {
				p := &e.Before.Regions[surface.Field]
				if !p.Creeps {
					return
				}
				for i := range e.Boundaries() {
					b := &e.Bounds[i]
					if waxy(k, b.Product) {
						continue
					}
					sev, subject := Fail, "open"
					if k.Craft.Products[b.Product].Coat == craft.SH && b.Soils[craft.Silicone] < surface.NeverOut {
						sev, subject = Watch, "barrier"
					}
					k.Add(Hit{Severity: sev, Step: b.Step, Subject: subject, Soil: craft.Silicone, Level: max(1, b.Soils[craft.Silicone]), Bound: b})
				}
			},
			Say: func(k *Case, h *Hit) (string, string) {
				if h.Severity == Watch {
					return "Silicone below the barrier", "Shellac holds it back, and now and then a crater comes all the same. Lay it thin, look at it in raking light, and add a second coat where it crawls."
				}
				return "Silicone under the " + productName(k.Craft, h.Bound.Product), "Washing alone does not get it out: the coat crawls into craters. White spirit with fresh rags, then a barrier coat of shellac before anything else."
			},
			Repair: func(m *Repairer, h *Hit) {
				if h.Severity == Watch {
					m.Measure("Make a test patch in a hidden spot and look for craters", craft.FieldTest)
					return
				}
				steps, i := m.Zone.Steps, h.Step-1
				p := m.Craft.First(craft.ForBarrier)
				barrier := insert(steps, i, m.coat(p, 2))
				m.Edit("Seal it in with two coats of "+productName(m.Craft, p), barrier)
				if wash := m.cleaning(craft.Silicone, h.Level); h.Bound.Soils[craft.Silicone] > 0 {
					m.Edit(craft.Upper(titleOf(m.Craft, wash))+", then seal in the rest with "+productName(m.Craft, p), insert(barrier, m.cleanPlace(barrier, i), wash...))
				}
			},
		},
		{
			Code:   "prep.wrong_cleaner",
			Title:  "The wrong cleaner for this dirt",
			Why:    "Detergent smears wax, and white spirit does not remove smoke.",
			When:   "A cleaner is used that removes nothing of what is on the surface, and the dirt is still there at the next coat. Watch.",
			Inputs: "what each cleaner meets, and how much of it is left at the next coat",
			Fix:    "the right cleaner, instead or in addition",
			Each:   true,
			Step: func(k *Case, e *surface.Event) {
				if e.Doing.Do != surface.Clean {
					return
				}
				eachPatch(e.Before, func(p *surface.Region) {
					worst, level := inVain(k.Craft, e.Doing, p)
					if level == 0 || worst == craft.Silicone && k.creeping() { // that has a rule of its own
						return
					}
					if left := soilAtNextCoat(k, e.Step, worst); left > 0 {
						row := &k.Craft.Cleaners[e.Doing.Cleaner]
						k.Add(Hit{Severity: Watch, Step: e.Step, Subject: row.ID + " for " + craft.Soils[worst].ID, Soil: worst, Level: level})
					}
				})
			},
			Say: func(k *Case, h *Hit) (string, string) {
				row := &craft.Soils[h.Soil]
				used := k.Craft.Cleaners[k.Zone.Steps[h.Step-1].Cleaner].Name
				return used + " does not remove " + row.Name, "Use " + row.Advice + "."
			},
			Repair: func(m *Repairer, h *Hit) {
				i := h.Step - 1
				wash := m.cleaning(h.Soil, h.Level)
				rest := append(slices.Clone(m.Zone.Steps[:i]), wash...)
				m.Edit(craft.Upper(titleOf(m.Craft, wash))+" instead", append(rest, m.Zone.Steps[i+1:]...))
				m.Edit("Add "+titleOf(m.Craft, wash), insert(m.Zone.Steps, i, wash...))
			},
		},
		{
			Code:   "prep.no_rinse",
			Harm:   HarmPeel,
			Title:  "Cleaner not rinsed off",
			Why:    "Cleaner that dries on the surface is dirt itself.",
			When:   "A coat goes on over the residue of a cleaner that must be rinsed off. Watch for detergent, fail for the alkaline degreaser.",
			Inputs: "what each cleaner leaves behind",
			Fix:    "rinsing",
			Each:   true,
			Step: func(k *Case, e *surface.Event) {
				if e.NBounds == 0 {
					return
				}
				eachPatch(e.Before, func(p *surface.Region) {
					if lv := p.Soils[craft.CleanerResidue]; lv > 0 && p.ResidueStep > 0 {
						k.Add(Hit{
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
				return row.Name + " is not rinsed", "Its residue spoils the next coat. Rinse " + times + "."
			},
			Repair: func(m *Repairer, h *Hit) {
				steps := slices.Clone(m.Zone.Steps)
				steps[h.Step-1].Rinse = true
				m.Edit("Rinse with clear water", steps)
			},
		},
		{
			Code:   "prep.dust_left",
			Reach:  Later,
			Title:  "Painted over sanding dust",
			Why:    "Dust under a coat leaves grit in the surface and a weak layer below it.",
			When:   "A coat goes on while there is dust, from sanding or from before. Watch.",
			Inputs: "the dust on the surface when a coat goes on",
			Fix:    "dusting off",
			Each:   true,
			Step: func(k *Case, e *surface.Event) {
				for i := range e.Boundaries() {
					if b := &e.Bounds[i]; b.Soils[craft.Dust] > 0 {
						k.Add(Hit{Severity: Watch, Step: b.Step, Subject: k.Craft.Products[b.Product].ID, Soil: craft.Dust, Level: b.Soils[craft.Dust]})
					}
				}
			},
			Say: func(k *Case, h *Hit) (string, string) {
				return "Dust left under the " + productName(k.Craft, k.Zone.Steps[h.Step-1].Product), "Vacuum, then use a tack cloth or a damp cloth, until your finger stays clean."
			},
			Repair: func(m *Repairer, h *Hit) {
				m.Edit("Dust off before this coat", insert(m.Zone.Steps, h.Step-1, surface.Step{Do: surface.Dust}))
			},
		},
		{
			Code:   "prep.cleaner_harms",
			Harm:   HarmRuin,
			Title:  "The cleaner damages the surface",
			Why:    "Alcohol dissolves shellac, acetone melts plastic, ammonia corrodes brass, water swells raw board.",
			When:   "A cleaner is used on a surface that it dissolves or damages: fail; that it may attack: watch. Where a wrung-out cloth or a trial out of sight is enough: a note.",
			Inputs: "which surface the cleaner touches, and how each family of surfaces stands that cleaner",
			Fix:    "another cleaner for the same dirt; leaving it out",
			Each:   true,
			Step: func(k *Case, e *surface.Event) {
				if e.Doing.Do != surface.Clean {
					return
				}
				if x := k.stands(e); x.Stand > craft.Stands {
					k.Add(Hit{Severity: harmSeverity(x.Stand), Step: e.Step, Subject: k.Craft.Cleaners[e.Doing.Cleaner].ID})
				}
			},
			Say: func(k *Case, h *Hit) (string, string) {
				row := &k.Craft.Cleaners[k.Zone.Steps[h.Step-1].Cleaner]
				says := k.standsAt(h.Step).Says()
				switch h.Severity {
				case Note:
					return row.Name + " needs care here", says
				case Watch:
					return row.Name + " may damage it", says
				}
				return row.Name + " damages it", says
			},
			Repair: func(m *Repairer, h *Hit) {
				i := h.Step - 1
				for n := range m.Craft.Cleaners {
					row := &m.Craft.Cleaners[n]
					if craft.Cleaner(n) == m.Zone.Steps[i].Cleaner || row.Carrier == craft.Dry || row.Biocide || row.Ammonia {
						continue
					}
					m.change(row.Name+" instead", h.Step, func(s *surface.Step) {
						*s = surface.Step{Do: surface.Clean, Cleaner: craft.Cleaner(n), Rinse: row.Rinses > 0, Passes: s.Passes}
					})
				}
				m.Edit("Leave it out", slices.Delete(slices.Clone(m.Zone.Steps), i, i+1))
			},
		},
		{
			Code:   "prep.strip_harms",
			Harm:   HarmRuin,
			Title:  "Stripping damages the surface",
			Why:    "Stripper melts plastic and foam, caustic eats aluminium and blackens oak, and blades and coarse grit go through thin faces.",
			When:   "An old coat is taken off in a way that ruins what it lies on: fail. On laminate with a stripper, and wherever else it may leave marks: watch. Where care is enough: a note. Hot air has a rule of its own.",
			Inputs: "the way of stripping, the material, what lies on it, and whether it is veneer",
			Fix:    "another way of stripping; leaving the old coat on, scuffed and primed",
			Each:   true,
			Step: func(k *Case, e *surface.Event) {
				if e.Doing.Do != surface.Strip || craft.Treatment(e.Doing.StripHow) == craft.StripHeat {
					return
				}
				if x := k.stands(e); x.Stand > craft.Stands {
					k.Add(Hit{Severity: harmSeverity(x.Stand), Step: e.Step, Subject: e.Doing.StripHow})
				}
			},
			Say: func(k *Case, h *Hit) (string, string) {
				how := strippedBy[craft.Treatment(h.Subject)]
				says := k.standsAt(h.Step).Says()
				if craft.Treatment(h.Subject) == craft.StripChemical && h.Severity < Fail {
					says += " Never use a stripper with dichloromethane indoors: its vapour kills."
				}
				switch h.Severity {
				case Note:
					return how + ": with care", says
				case Watch:
					return how + " may damage it", says
				}
				return how + " ruins it", says
			},
			Repair: func(m *Repairer, h *Hit) { m.otherwise(h.Step) },
		},
		{
			Code:   "prep.too_coarse",
			Title:  "Too coarse a grit",
			Why:    "Scratches that paint does not fill stay visible under the last coat.",
			When:   "A grit is coarser than the surface allows, or the last grit before a coat is coarser than 150 (on metal and outdoors 120) where it will be seen: watch. A mirror is scratched: fail.",
			Inputs: "each grit, the surface under it, and the last grit before a coat",
			Fix:    "a finer grit, or another pass with a finer one",
			Step: func(k *Case, e *surface.Event) {
				s := e.Doing
				p := &e.Before.Regions[surface.Field]
				if s.Do == surface.Abrade && (s.How == craft.Pad || s.Grit > 0) {
					if lim, ok := k.limit(p); ok && !lim.Thin && !s.Through {
						if x := lim.Harms(s.Grit, s.How); x > craft.Stands {
							k.Add(Hit{Severity: harmSeverity(x), Step: e.Step, Subject: "surface", Value: float64(s.Grit), Limit: float64(lim.Coarsest)})
						}
					}
					return
				}
				fine := uint16(150)
				if k.Craft.Substrates[k.Facts.Substrate].Family.BareMetal() || k.Facts.Wear == craft.Outdoor {
					fine = 120
				}
				if lim, ok := k.limit(p); ok && lim.Thin {
					return // another rule covers what is cut through
				}
				if e.NBounds == 0 || p.Grit == 0 || p.Grit >= fine || p.Coats > 0 && p.Product == craft.NoProduct {
					return
				}
				if g := craft.Families[p.Top].ScuffGrit; g > 0 && g < int(fine) || k.Craft.Products[e.Bounds[0].Product].Film >= 60 {
					return // rough stone takes 120, and a filler fills it
				}
				k.Add(Hit{Severity: Watch, Step: k.lastGrit(e), Subject: "last", Value: float64(p.Grit), Limit: float64(fine)})
			},
			Say: func(k *Case, h *Hit) (string, string) {
				if h.Subject == "last" {
					return fmt.Sprintf("The scratches of %.0f grit will show", h.Value), fmt.Sprintf("It is the last grit before a coat. %.0f or finer leaves only scratches that paint fills.", h.Limit)
				}
				lim, _ := k.limitAt(h.Step)
				if lim.None {
					return "Sanding scratches it for good", craft.Upper(lim.Says) + "."
				}
				return fmt.Sprintf("%.0f grit is too coarse here", h.Value), craft.Upper(lim.Says) + "."
			},
			Figures: func(_ *Case, h *Hit) []Figure {
				out := []Figure{{"grit", h.Value, "planned grit"}}
				if h.Limit > 0 {
					out = append(out, Figure{"limit", h.Limit, "coarsest grit that is right here"})
				}
				return out
			},
			Repair: func(m *Repairer, h *Hit) {
				if h.Subject == "last" {
					m.Edit("Sand once more with 180", insert(m.Zone.Steps, h.Step, surface.Step{Do: surface.Abrade, Grit: 180, How: craft.Hand}))
					m.change("Sand with 180 instead", h.Step, func(s *surface.Step) { s.Grit = 180 })
					return
				}
				m.gentler(h.Step)
			},
		},
		{
			Code:   "prep.grit_jump",
			Title:  "Too big a jump between grits",
			Why:    "A fine grit does not remove the scratches of one twice as coarse; they show under the first coat.",
			When:   "The next grit on the same face is more than double the last, and the last was coarser than 180. Watch.",
			Inputs: "consecutive grits with no coat between them",
			Fix:    "a grit in between",
			Each:   true,
			Step: func(k *Case, e *surface.Event) {
				s := e.Doing
				p := &e.Before.Regions[surface.Field]
				const double, seen = 2.1, 180
				if s.Do != surface.Abrade || s.How == craft.Pad || p.Grit == 0 || p.Grit >= seen || float64(s.Grit) <= double*float64(p.Grit) {
					return
				}
				k.Add(Hit{Severity: Watch, Step: e.Step, Value: float64(s.Grit), Limit: float64(p.Grit)})
			},
			Say: func(_ *Case, h *Hit) (string, string) {
				return fmt.Sprintf("From %.0f straight to %.0f", h.Limit, h.Value), "The coarse scratches stay, and show once the paint shines. Go up by half to double each time."
			},
			Figures: func(_ *Case, h *Hit) []Figure {
				return []Figure{{"last", h.Limit, "grit before"}, {"next", h.Value, "next grit"}}
			},
			Repair: func(m *Repairer, h *Hit) {
				how := m.Zone.Steps[h.Step-1].How
				var add []surface.Step
				var names []string
				for _, g := range []int{60, 80, 120, 180, 240, 320, 400} {
					last := int(h.Limit)
					if len(add) > 0 {
						last = add[len(add)-1].Grit
					}
					// The finest that is not too great a step.
					if g > last && g < int(h.Value) && float64(g) <= 2.1*float64(last) {
						next := g
						for _, f := range []int{120, 180, 240, 320} {
							if f > next && float64(f) <= 2*float64(last) && f < int(h.Value) {
								next = f
							}
						}
						add = append(add, surface.Step{Do: surface.Abrade, Grit: next, How: how})
						names = append(names, fmt.Sprint(next))
					}
				}
				m.Edit("Sand with "+craft.List(names)+" in between", insert(m.Zone.Steps, h.Step-1, add...))
			},
		},
		{
			Code:   "prep.cut_through",
			Harm:   HarmRuin,
			Title:  "Sanding may cut through",
			Why:    "Veneer is half a millimetre thick, and a print is thinner than paper: sanding through it cannot be repaired.",
			When:   "Printed laminate, paper and foil: coarser than 220 by hand or any machine: watch; coarser than 100 by hand (paper 150, foil 180), or a coarse machine: fail. Veneer: coarser than 150 by hand or any machine: watch; coarser than 100 by hand, or a coarse machine: fail. Vinyl cloth and leather: anything but a pad: watch, fail where it is coarse. From 400 by hand it is a polish and cuts nothing.",
			Inputs: "how thin the surface is, the grit, and whether it is sanded by machine",
			Fix:    "a finer grit by hand; a pad",
			Each:   true,
			Step: func(k *Case, e *surface.Event) {
				s := e.Doing
				if s.Do != surface.Abrade || s.How == craft.Pad || s.Through {
					return
				}
				p := &e.Before.Regions[surface.Field]
				lim, ok := k.limit(p)
				if !ok || !lim.Thin {
					return
				}
				if x := lim.Harms(s.Grit, s.How); x > craft.Stands {
					k.Add(Hit{Severity: harmSeverity(x), Step: e.Step, Value: float64(s.Grit), Limit: float64(lim.Coarsest)})
				}
			},
			Say: func(k *Case, h *Hit) (string, string) {
				lim, _ := k.limitAt(h.Step)
				how := fmt.Sprintf("Sanding with %.0f may cut through", h.Value)
				if k.Zone.Steps[h.Step-1].How == craft.Machine {
					how = fmt.Sprintf("A machine with %.0f may cut through", h.Value)
				}
				return how, craft.Upper(lim.Says) + "."
			},
			Figures: func(_ *Case, h *Hit) []Figure {
				out := []Figure{{"grit", h.Value, "planned grit"}}
				if h.Limit > 0 {
					out = append(out, Figure{"limit", h.Limit, "coarsest grit allowed by hand"})
				}
				return out
			},
			Repair: func(m *Repairer, h *Hit) { m.gentler(h.Step) },
		},
		{
			Code:   "prep.grain_raise",
			Title:  "The grain will rise",
			Why:    "Water in the first coat raises the fibres of bare wood, and the coat dries rough.",
			When:   "A water-based coat goes on bare wood whose grain was not raised and sanded back, and nothing is sanded after that coat. Watch where the last coat is satin or shinier and the film thinner than 120 µm; otherwise a note.",
			Inputs: "whether the wood is bare, whether the first coat is water-based, and what is sanded after it",
			Fix:    "raising the grain first; sanding with 320 after the first coat",
			End: func(k *Case) {
				p := &k.Trace.End.Regions[surface.Field]
				if p.RoughStep == 0 || k.Look != nil && k.Look.Pores {
					return
				}
				sev := Note
				const buries = 120 // µm of film level raised fibres out
				if k.finalSheen() >= craft.Satin && p.Film < buries {
					sev = Watch
				}
				k.Add(Hit{Severity: sev, Step: int(p.RoughStep)})
			},
			Say: func(k *Case, h *Hit) (string, string) {
				return "", fmt.Sprintf("%s is the first coat on bare wood. Dampen the wood, let it dry and sand it back first; or sand with 320 once this coat is dry.", craft.Upper(productName(k.Craft, k.Zone.Steps[h.Step-1].Product)))
			},
			Repair: func(m *Repairer, h *Hit) {
				i := h.Step - 1
				raise := surface.Step{Do: surface.RaiseGrain}
				at := i
				for at > 0 && m.Zone.Steps[at-1].Do == surface.Dust {
					at--
				}
				if at < i {
					m.Edit("Raise the grain first", insert(m.Zone.Steps, at, raise))
				} else {
					m.Edit("Raise the grain first, and dust off", insert(m.Zone.Steps, i, raise, surface.Step{Do: surface.Dust}))
				}
				s := m.Zone.Steps[i]
				denib := []surface.Step{{Do: surface.Abrade, Grit: 320, How: craft.Hand}, {Do: surface.Dust}}
				if s.NumCoats() > 1 {
					first, rest := s, s
					first.Coats, rest.Coats = 1, s.NumCoats()-1
					out := slices.Concat(m.Zone.Steps[:i], []surface.Step{first}, denib, []surface.Step{rest}, m.Zone.Steps[i+1:])
					m.Edit("Sand with 320 after the first coat", out)
				} else {
					m.Edit("Sand with 320 after this coat", insert(m.Zone.Steps, i+1, denib...))
				}
			},
		},
		{
			Code:   "prep.unsanded",
			Notes:  true,
			Title:  "Bare wood is not sanded",
			Why:    "Bare wood and board carry planer marks, raised fibres and dirt: a pass with 180 to 220 by hand makes the first coat lie even.",
			When:   "The first coat goes on bare wood or board that is neither sanded in the plan nor marked as prepared in the survey. A note.",
			Inputs: "what is sanded before the first coat, and whether the survey says that it is prepared",
			Fix:    "sanding it; marking it as prepared",
			Step: func(k *Case, e *surface.Event) {
				p := &e.Before.Regions[surface.Field]
				group := k.Craft.Substrates[k.Facts.Substrate].Group
				if e.NBounds == 0 || !p.Bare || p.Coats > 0 || k.Facts.Prepared || group != craft.GroupWood && group != craft.GroupBoard {
					return
				}
				for _, below := range k.before(e) {
					if do := below.Doing.Do; do == surface.Abrade || do == surface.RaiseGrain || do == surface.Strip || below.NBounds > 0 {
						return
					}
				}
				k.Add(Hit{Severity: Note, Step: e.Step})
			},
			Say: func(*Case, *Hit) (string, string) {
				return "", "Sand it with 180 to 220 along the grain and dust it off; or mark it as prepared, if it came that way."
			},
			Repair: func(m *Repairer, h *Hit) {
				how := craft.Hand
				if m.Zone.LeadBars(m.Craft) {
					how = craft.Wet
				}
				m.Edit("Sand with 220 and dust off", insert(m.Zone.Steps, h.Step-1, surface.Step{Do: surface.Abrade, Grit: 220, How: how}, surface.Step{Do: surface.Dust}))
				m.Measure("Mark it as prepared", craft.FieldPrepared)
			},
		},
		{
			Code:   "prep.loose_left",
			Harm:   HarmPeel,
			Title:  "Loose material is left",
			Why:    "Paint on a loose layer comes off with it.",
			When:   "A coat goes on while something flakes, blisters or lifts, or a joint is open. Fail; an open joint: watch.",
			Inputs: "the recorded damage, and the steps that remove or fix it",
			Fix:    "brushing, scraping or stripping it off; gluing it down",
			Step: func(k *Case, e *surface.Event) {
				p := &e.Before.Regions[surface.Field]
				if e.NBounds == 0 || p.Loose == 0 {
					return
				}
				sev := Fail
				if p.Loose == craft.LooseJoint {
					sev = Watch
				}
				k.Add(Hit{Severity: sev, Step: e.Step, Value: float64(p.Loose)})
			},
			Say: func(_ *Case, h *Hit) (string, string) {
				names := craft.Loose(h.Value).Names()
				return craft.Upper(craft.List(names)) + " left under the paint", "It comes off by itself and takes every coat with it. Remove flakes and blisters; glue down veneer, foil and joints, or strip the foil."
			},
			Repair: func(m *Repairer, h *Hit) {
				l := craft.Loose(h.Value)
				at := m.cleanPlace(m.Zone.Steps, h.Step-1)
				var fix []surface.Step
				var words []string
				if l&(craft.LooseVeneer|craft.LooseFoil|craft.LooseJoint) != 0 {
					fix = append(fix, surface.Step{Do: surface.Repair, What: craft.List((l &^ (craft.LooseFlakes | craft.LooseBlisters)).Names())})
					words = append(words, "glue it down")
				}
				if l&(craft.LooseFlakes|craft.LooseBlisters) != 0 && !m.Zone.LeadBars(m.Craft) {
					br := m.Craft.CleanersFor(craft.ForBrushing)[0]
					fix = append(fix, surface.Step{Do: surface.Clean, Cleaner: br})
					words = append(words, "brush off what is loose")
				}
				if len(fix) > 0 {
					m.Edit(craft.Upper(craft.List(words)), insert(m.Zone.Steps, at, fix...))
				}
				how, title := "scrape", "Scrape it down to the material"
				if m.Zone.LeadBars(m.Craft) {
					how, title = "chemical", "Strip it with a chemical stripper"
				} else if l&craft.LooseFoil != 0 {
					how, title = "heat", "Strip the foil off with warm air"
				}
				strip := []surface.Step{{Do: surface.Strip, StripHow: how}}
				m.Edit(title, insert(m.Zone.Steps, 0, strip...))
				wash := m.cleaning(craft.StripperResidue, 2)
				if how == "chemical" {
					m.Edit(title+", and clean its residue off", insert(m.Zone.Steps, 0, append(strip, wash...)...))
				}
			},
		},
		{
			Code:   "prep.filler_after_primer",
			Late:   true,
			Title:  "Filler without a primer over it",
			Why:    "Filler absorbs more than the surface around it: the spots dry dull and show through the paint (flashing).",
			When:   "Something is filled, and paint goes on without a primer over the filler. Watch where the last coat is eggshell or shinier; a note under matt.",
			Inputs: "whether there is primer or shellac between each filled spot and the paint",
			Fix:    "spot-priming the filler; priming everything",
			Step: func(k *Case, e *surface.Event) {
				p := &e.Before.Regions[surface.Field]
				if p.FilledStep == 0 || e.Doing.Do != surface.Coat || e.Doing.Scope != surface.All || k.Craft.Products[e.Doing.Product].Role == craft.RolePrimer || !k.Craft.Products[e.Doing.Product].LeavesFilm() {
					return
				}
				if s := e.Before.Region(surface.SpotRegion); s != nil && s.FilledStep == 0 {
					return // spot-primed
				}
				sev := Note
				if k.finalSheen() >= craft.Eggshell {
					sev = Watch
				}
				k.Add(Hit{Severity: sev, Step: int(p.FilledStep), Value: float64(e.Step), Product: e.Doing.Product})
			},
			Say: func(k *Case, h *Hit) (string, string) {
				return "", fmt.Sprintf("%s goes straight over the filler, which absorbs it and dries as a dull patch. Prime at least those spots.", craft.Upper(productName(k.Craft, h.Product)))
			},
			Repair: func(m *Repairer, h *Hit) {
				for _, p := range m.Craft.For(craft.ForFilledSpots) {
					spot := m.coat(p, 1)
					spot.Scope = surface.Spots
					m.Edit("Spot-prime it with "+productName(m.Craft, p), insert(m.Zone.Steps, int(h.Value)-1, spot))
					m.Edit("Prime all of it with "+productName(m.Craft, p), insert(m.Zone.Steps, int(h.Value)-1, m.coat(p, 1)))
				}
			},
		},
		{
			Code:   "prep.no_removal",
			Title:  "Hardware or glass left unprotected",
			Why:    "Paint on hinges, glass and hardware looks careless and jams moving parts; cleaning it off takes longer than masking.",
			When:   "Hardware, glass, a mirror or a hinge stays on the zone, and the plan neither removes nor masks it before the first coat. Watch.",
			Inputs: "what stays on the piece, and the steps before the first coat",
			Fix:    "masking it; removing it",
			Step: func(k *Case, e *surface.Event) {
				if e.NBounds > 0 && len(k.Zone.Unmasked) > 0 && !e.Before.Cleared {
					k.Add(Hit{Severity: Watch, Step: e.Step})
				}
			},
			Say: func(k *Case, _ *Hit) (string, string) {
				return craft.Upper(craft.List(k.Zone.Unmasked)) + " not protected", "It stays on, and nothing protects it. Tape along the edge and cover the rest with film; or take it off."
			},
			Repair: func(m *Repairer, h *Hit) {
				if i := m.firstCoat(); i >= 0 {
					m.Edit("Mask it before the first coat", insert(m.Zone.Steps, i, surface.Step{Do: surface.Mask, What: craft.List(m.Zone.Unmasked)}))
				}
				m.Edit("Take it off first", insert(m.Zone.Steps, 0, surface.Step{Do: surface.Remove, What: craft.List(m.Zone.Unmasked)}))
			},
		},
		{
			Code:   "prep.mixed_base",
			Title:  "It will not match the other zone",
			Why:    "The same paint looks different over bare wood and over a sealed surface: one absorbs and dries flat, the other shines.",
			When:   "Two zones should have the same colour in the same paint; this one is painted straight on an absorbent surface and the other is sealed. Watch.",
			Inputs: "what is under the paint in each zone that should have the same colour",
			Fix:    "the same primer in both",
			End: func(k *Case) {
				own := k.base()
				if own.Paint == craft.NoProduct {
					return
				}
				// Reported for the absorbent zone: that is where something is missing.
				for i := range k.Zone.Match {
					o := &k.Zone.Match[i]
					if i+1 != k.Zone.Own && o.CanMatch() && o.Paint == own.Paint && o.Colour == own.Colour && own.Absorbs {
						k.Add(Hit{Severity: Watch, Step: own.Step, Subject: o.Name, Value: float64(i)})
					}
				}
			},
			Say: func(k *Case, h *Hit) (string, string) {
				return "It will not match " + h.Subject, "Both should have the same colour in the same paint, but here it goes straight on an absorbent surface, and there on a sealed one."
			},
			Repair: func(m *Repairer, h *Hit) {
				o := &m.Zone.Match[int(h.Value)]
				p := o.Primer
				if p == craft.NoProduct {
					p = m.Craft.First(craft.ForEvenGround)
				}
				m.Edit("Prime it with "+productName(m.Craft, p)+", as on the other zone", insert(m.Zone.Steps, h.Step-1, m.coat(p, 1)))
			},
		},
		{
			Code:   "prep.damp",
			Harm:   HarmPeel,
			Reach:  SoFar | Survey,
			Title:  "Too damp to paint",
			Why:    "Water leaving wet wood or clay pushes every film off from behind.",
			When:   "Wood above 14 % or mineral above 12 % when the first coat goes on: watch; either above 18 %: fail. Bare wood, board or mineral is coated before what it was washed with has dried: fail for water, watch for white spirit. A damp wipe takes 3 h, a wash 12 h, a treatment with acid a day.",
			Inputs: "the moisture meter's reading, what it was washed with, and how long that has dried",
			Fix:    "drying, and measuring again",
			Step: func(k *Case, e *surface.Event) {
				for i := range e.Boundaries() {
					if b := &e.Bounds[i]; b.Wet > 0 {
						sev := Watch
						if b.WetWith == craft.Water {
							sev = Fail
						}
						k.Add(Hit{Severity: sev, Step: b.Step, Subject: "washed", Value: b.Wet, Bound: b})
					}
				}
				m := k.Facts.Moisture
				for i := range e.Boundaries() {
					if !e.Bounds[i].First {
						continue
					}
					from, holds := dampFrom[k.Craft.Substrates[k.Facts.Substrate].Family]
					switch {
					case !holds || m <= from:
					case m > veryDamp:
						k.Add(Hit{Severity: Fail, Step: e.Step})
					default:
						k.Add(Hit{Severity: Watch, Step: e.Step})
					}
				}
			},
			Say: func(k *Case, h *Hit) (string, string) {
				if h.Subject == "washed" {
					with := "the wash"
					if h.Bound.WetWith != craft.Water {
						with = "the solvent"
					}
					return "Still wet from " + with, fmt.Sprintf("It needs %s more before the first coat here. What is in the pores comes up under the film and pushes it off.", measure.Hours(h.Value))
				}
				return "", fmt.Sprintf("The meter reads %s %%. Let it dry in an airy, heated room, and measure again before the first coat.", measure.Number(k.Facts.Moisture))
			},
			Figures: func(k *Case, h *Hit) []Figure {
				if h.Subject == "washed" {
					return []Figure{{"more_h", h.Value, "that it must still dry"}}
				}
				return []Figure{
					{"moisture", k.Facts.Moisture, "% of water by the meter"},
					{"watch_from", dampFrom[k.Craft.Substrates[k.Facts.Substrate].Family], "% above which it may be too damp"},
					{"fail_from", veryDamp, "% above which no coat holds"},
				}
			},
			Repair: func(m *Repairer, h *Hit) {
				if h.Subject == "washed" {
					more := practical(h.Value)
					m.Edit("Let it dry "+measure.Hours(more)+" longer", insert(m.Zone.Steps, h.Step-1, surface.Step{Do: surface.Wait, Hours: more}))
					return
				}
				m.Measure("Let it dry and measure again", craft.FieldMoisture)
			},
		},
	}
}

func soilSeverity(level uint8) Severity {
	if level >= 2 {
		return Fail
	}
	return Watch
}

// inVain is the heaviest soil on a face of which a cleaning shifts nothing, and
// how much of it there is; 0 where the cleaning does something.
func inVain(c *craft.Craft, s *surface.Step, p *surface.Region) (worst craft.Soil, level uint8) {
	row := &c.Cleaners[s.Cleaner]
	if row.Key > 0 || row.Carrier == craft.Dry || row.ID == craft.WaxRemover && p.Top == craft.WaxFilm {
		return 0, 0
	}
	for so, lv := range p.Soils {
		if lv == 0 || craft.Soil(so) == craft.Dust {
			continue
		}
		if _, ok := row.Shift(craft.Soil(so), lv); ok || craft.Soil(so) == craft.CleanerResidue && s.Rinse {
			return 0, 0
		}
		if lv > level {
			worst, level = craft.Soil(so), lv
		}
	}
	return worst, level
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
		eachPatch(e.Before, func(p *surface.Region) { most = max(most, p.Soils[s]) })
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

// limit is how much abrasion the exposed surface allows; false where it sands a coat of the plan.
func (k *Case) limit(p *surface.Region) (craft.AbrasionLimit, bool) {
	sub := &k.Craft.Substrates[k.Facts.Substrate]
	switch {
	case p.Coats > 0:
		return craft.AbrasionLimit{}, false // it sands a coat of the plan, not what is below
	case k.Facts.Veneer && (p.Bare || !k.Craft.Finishes[k.Facts.Finish].Bare) && sub.Family != craft.MelamineFilm:
		return craft.LimitVeneer, true
	case p.Bare && sub.Paper() && p.Top == craft.MelamineFilm:
		return craft.LimitPaper, true
	case p.Bare && sub.Mirror():
		return craft.LimitMirror, true
	}
	return craft.Limits[p.Top], true
}

// harmSeverity is how severe it is that a surface stands something so.
func harmSeverity(x craft.Stand) Severity {
	switch x {
	case craft.Ruined:
		return Fail
	case craft.AtRisk:
		return Watch
	}
	return Note
}

// stands is how the face stands a cleaning or a stripping.
func (k *Case) stands(e *surface.Event) craft.Answer {
	return stands(k.Craft, k.Facts, e.Doing, e.Before)
}

// standsAt is the same of a step, from 1.
func (k *Case) standsAt(step int) craft.Answer {
	for i := range k.Trace.Events {
		if e := &k.Trace.Events[i]; e.Step == step {
			return k.stands(e)
		}
	}
	return craft.Answer{}
}

// strippedBy are the ways of stripping as what damages a surface.
var strippedBy = map[craft.Treatment]string{
	craft.StripChemical: "Stripper", craft.StripCaustic: "Caustic stripper", craft.StripScrape: "Scraping", craft.StripSand: "Sanding it off",
}

// stands is how a surface stands a step: a cleaning, a stripping, or heat.
func stands(c *craft.Craft, f *surface.Facts, s *surface.Step, st *surface.State) craft.Answer {
	p := &st.Regions[surface.Field]
	bare := p.Bare && p.Coats == 0
	switch {
	case s.Do == surface.Clean:
		return c.StandsTo(craft.Treatment(c.Cleaners[s.Cleaner].ID), p.Top, f.Substrate, f.Finish, f.Veneer, bare)
	case s.Do == surface.Strip:
		return c.StandsTo(craft.Treatment(s.StripHow), p.Top, f.Substrate, f.Finish, f.Veneer, bare)
	case s.Do == surface.Effect && s.Heat:
		a := c.StandsTo(craft.StripHeat, p.Top, f.Substrate, f.Finish, false, bare)
		if f.Veneer && a.Stand < craft.AtRisk {
			return craft.Because(craft.AtRisk, "Warm air softens the glue below a veneer: keep it mild and moving.")
		}
		return a
	}
	return craft.Answer{}
}

// creeping tells whether there was so much silicone that it never washes out for certain.
func (k *Case) creeping() bool { return k.Facts.Soils[craft.Silicone] >= surface.NeverOut }

// otherwise proposes the ways of stripping that the surface stands better, and none at all.
func (m *Repairer) otherwise(step int) {
	for _, how := range craft.Strips {
		if how == m.Zone.Steps[step-1].StripHow || m.Zone.LeadBars(m.Craft) && craft.Treatment(how) != craft.StripChemical || craft.Treatment(how) == craft.StripCaustic {
			continue
		}
		s := surface.Step{Do: surface.Strip, StripHow: how}
		m.change(StepWords(m.Craft, &s)+" instead", step, func(x *surface.Step) { x.StripHow = how })
	}
	m.Edit("Leave the old coat on", slices.Delete(slices.Clone(m.Zone.Steps), step-1, step))
}

// limitAt is the limit that a step, from 1, met.
func (k *Case) limitAt(step int) (craft.AbrasionLimit, bool) {
	for i := range k.Trace.Events {
		if e := &k.Trace.Events[i]; e.Step == step {
			return k.limit(&e.Before.Regions[surface.Field])
		}
	}
	return craft.AbrasionLimit{}, false
}

// lastGrit is the step, from 1, of the last abrasion before an event.
func (k *Case) lastGrit(e *surface.Event) int {
	for i := e.Step - 1; i > 0; i-- {
		if k.Zone.Steps[i-1].Do == surface.Abrade || k.Zone.Steps[i-1].Do == surface.Strip {
			return i
		}
	}
	return e.Step
}

// gentler proposes what the surface stands in place of an abrasion.
func (m *Repairer) gentler(step int) {
	lim, ok := m.hit.Case.limitAt(step)
	if !ok {
		return
	}
	switch {
	case lim.None:
		m.Edit("Leave out the sanding", slices.Delete(slices.Clone(m.Zone.Steps), step-1, step))
	case lim.PadOnly:
		m.change("Scuff with a fine pad instead", step, func(s *surface.Step) { s.How, s.Grit = craft.Pad, 0 })
	default:
		g := max(lim.Coarsest, craft.Families[m.meets(step)].ScuffGrit)
		how := craft.Hand
		if lim.Coarsest == 320 {
			how = craft.Wet
		}
		s := surface.Step{Do: surface.Abrade, Grit: g, How: how}
		m.change(StepWords(m.Craft, &s)+", by hand, instead", step, func(x *surface.Step) { x.Grit, x.How = g, how })
	}
}

// Base is what the paint of a zone lies on, for zones that are to match.
type Base struct {
	Name   string
	Paint  craft.Product // the last one; NoProduct where there is none
	Colour string
	// Absorbs tells that its first coat of paint goes straight on something porous.
	Absorbs bool
	Primer  craft.Product
	Step    int // of the first paint, from 1
}

// CanMatch tells whether another zone may have to look like it: it is painted on a base that is not
// absorbent.
func (b *Base) CanMatch() bool { return b.Paint != craft.NoProduct && !b.Absorbs }

// BaseOf says what a zone's paint lies on.
func BaseOf(c *craft.Craft, z *Zone, name string) Base {
	k := Case{Craft: c, Zone: z, Facts: &z.Facts}
	k.Trace.Walk(c, &z.Facts, z.Steps)
	b := k.base()
	b.Name = name
	return b
}

func (k *Case) base() Base {
	b := Base{Paint: craft.NoProduct, Primer: craft.NoProduct}
	if k.Zone.Look != "" && k.Zone.Look != craft.LookSolid {
		return b // two aged faces are not expected to match
	}
	for i := range k.Trace.Events {
		e := &k.Trace.Events[i]
		s := e.Doing
		if s.Do != surface.Coat || s.Scope != surface.All {
			continue
		}
		switch p := &k.Craft.Products[s.Product]; {
		case p.Role == craft.RolePrimer && b.Paint == craft.NoProduct:
			b.Primer = s.Product
		case p.Role == craft.RolePaint:
			if b.Paint == craft.NoProduct {
				on := &e.Before.Regions[surface.Field]
				b.Step, b.Absorbs = e.Step, on.Bare && craft.Families[on.Top].Porous
			}
			b.Paint, b.Colour = s.Product, s.Colour
			if b.Colour == "" {
				b.Colour = k.Zone.Colour
			}
		}
	}
	if b.Colour == "" {
		b.Paint = craft.NoProduct
	}
	return b
}
