package check

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"rutile/core/colour"
	"rutile/core/craft"
	"rutile/core/drying"
	"rutile/core/measure"
	"rutile/core/surface"
)

// The chipped shares from which rules report. A solid finish that chips at a third is expected to
// go wrong.
const (
	chipsNone, chipsMost       = .05, .65
	chipsUnwanted, chipsSpoilt = .10, .30
)

func effectRules() []Rule {
	return []Rule{
		{
			Code:   "effect.wont_chip",
			Title:  "It will hardly chip",
			Why:    "Powder paint comes off only where it grips badly: on bare wood, with additive or over fresh sanding it stays.",
			When:   "Chips are wanted, and typically less than 5 % of the area will chip. Fail.",
			Inputs: "the weakest bond of the powder paint, its coats, heat, water and resists",
			Fix:    "sealing the surface with shellac; leaving out the additive and the sanding; wax in patches; warm air",
			End: func(k *Case) {
				if !k.Chippy || k.Chips.Bound == nil || k.Chips.P50 >= chipsNone {
					return
				}
				k.Add(Hit{Severity: Fail, Step: k.Chips.Bound.Step, Value: k.Chips.P50, Limit: chipsNone})
			},
			Say: func(k *Case, h *Hit) (string, string) {
				b := k.Chips.Bound
				return "", fmt.Sprintf("%s grips %s too well: typically %s of it will chip.", craft.Upper(productName(k.Craft, b.Product)), onWhat(k, b), Percent(h.Value))
			},
			Figures: func(k *Case, _ *Hit) []Figure { return chipFigures(k) },
			Repair: func(m *Repairer, _ *Hit) {
				steps := slices.Clone(m.Zone.Steps)
				first := -1
				for i := range steps {
					if s := &steps[i]; s.Do == surface.Coat && m.Craft.Products[s.Product].Coat == craft.MK {
						if first < 0 {
							first = i
						}
						s.Additive, s.AdditiveFirst = 0, false
					}
				}
				if first < 0 {
					return
				}
				m.Edit("Leave out the bonding additive", steps)
				unscuffed := slices.DeleteFunc(slices.Clone(steps), func(s surface.Step) bool {
					return s.Do == surface.Abrade && !s.Through
				})
				m.Edit("Keep the shine: no sanding, no additive", unscuffed)
				for i := range m.Zone.Steps {
					if x, ok := m.Craft.Effect(m.Zone.Steps[i].Effect); ok && m.Craft.Effects[x].Flakes() {
						m.change("Put wax in patches where it should come off", i+1, func(s *surface.Step) { s.Resist = "wax" })
						m.change("Use warm air before scraping", i+1, func(s *surface.Step) { s.Heat = true })
					}
				}
				p := m.Craft.First(craft.ForBarrier)
				m.Edit("Seal the surface with two coats of clear shellac first", insert(steps, first, m.coat(p, 2)))
				m.Edit("Seal it with shellac, and put wax in patches", m.waxed(insert(steps, first, m.coat(p, 2))))
			},
		},
		{
			Code:   "effect.over_chip",
			Title:  "Nearly all of it may come off",
			Why:    "Where powder paint hardly grips, it also comes off where it should stay.",
			When:   "Chips are wanted, and typically more than 65 % of the area will chip. Watch.",
			Inputs: "the weakest bond of the powder paint, its coats, heat, water and resists",
			Fix:    "a light scuff; a little additive; no heat",
			End: func(k *Case) {
				if k.Chippy && k.Chips.Bound != nil && k.Chips.P50 > chipsMost {
					k.Add(Hit{Severity: Watch, Step: k.Chips.Bound.Step, Value: k.Chips.P50, Limit: chipsMost})
				}
			},
			Say: func(k *Case, h *Hit) (string, string) {
				b := k.Chips.Bound
				return "", fmt.Sprintf("It hardly grips %s: typically %s of it comes off, possibly %s.", onWhat(k, b), Percent(h.Value), Percent(k.Chips.P90))
			},
			Figures: func(k *Case, _ *Hit) []Figure { return chipFigures(k) },
			Repair: func(m *Repairer, h *Hit) {
				if ks, _, title := m.keyed(m.Zone.Steps, h.Step-1, m.hit.Case.Chips.Bound.On); ks != nil {
					m.Edit(craft.Upper(title)+" first", ks)
				}
				for i := range m.Zone.Steps {
					if m.Zone.Steps[i].Do == surface.Effect && m.Zone.Steps[i].Heat {
						m.change("No warm air", i+1, func(s *surface.Step) { s.Heat = false })
					}
				}
				steps := slices.Clone(m.Zone.Steps)
				for i := range steps {
					if s := &steps[i]; s.Do == surface.Coat && m.Craft.Products[s.Product].Coat == craft.MK {
						s.Additive = max(s.Additive, .125)
					}
				}
				m.Edit("Put a little bonding additive in every coat", steps)
				p := m.Craft.First(craft.ForBarrier)
				m.Edit("One coat of clear shellac below it", insert(m.Zone.Steps, h.Step-1, m.coat(p, 1)))
			},
		},
		{
			Code:   "effect.unwanted_chip",
			Title:  "It will chip, but a solid look is wanted",
			Why:    "Powder paint on a slick surface comes off by itself unless additive or a sealer holds it.",
			When:   "A solid coat of powder paint will typically chip on more than 10 % of the area: watch; more than 30 %: fail.",
			Inputs: "the weakest bond of the powder paint",
			Fix:    "bonding additive in every coat; a bonding primer below",
			End: func(k *Case) {
				if k.Chippy || k.Cracks || k.Chips.Bound == nil || k.Chips.P50 <= chipsUnwanted {
					return
				}
				sev := Watch
				if k.Chips.P50 > chipsSpoilt {
					sev = Fail
				}
				k.Add(Hit{Severity: sev, Step: k.Chips.Bound.Step, Value: k.Chips.P50, Limit: chipsUnwanted, Bound: k.Chips.Bound})
			},
			Say: func(k *Case, h *Hit) (string, string) {
				return "", fmt.Sprintf("It grips %s too weakly: typically %s of it comes off, where none should.", onWhat(k, h.Bound), Percent(h.Value))
			},
			Figures: func(k *Case, _ *Hit) []Figure { return chipFigures(k) },
			Repair:  func(m *Repairer, h *Hit) { m.Rework(h.Bound) },
		},
		{
			Code:   "effect.crackle_window",
			Reach:  Later,
			Title:  "The next coat misses the medium's window",
			Why:    "A crackle or lift medium works for an hour or a few: too wet and it is dragged about, too dry and nothing moves. Tacky shellac and lacquer are even faster.",
			When:   "The coat over the medium comes before its window opens: watch. After it closes, or over a resist, shellac or lacquer that is no longer tacky: fail.",
			Inputs: "how long the medium or the resist has dried, in the workshop's air",
			Fix:    "applying the coat inside the window; another coat of medium",
			Each:   true,
			Step: func(k *Case, e *surface.Event) {
				for i := range e.Boundaries() {
					b := &e.Bounds[i]
					if k.onMedium(b) && k.Craft.Products[b.Product].Role == craft.RolePaint {
						switch {
						case b.Timing == surface.Missed:
							k.Add(Hit{Severity: Fail, Step: b.Step, Subject: "late", Bound: b})
						case tooEarly(b):
							k.Add(Hit{Severity: Watch, Step: b.Step, Subject: "early", Bound: b})
						}
					}
				}
				if b := k.driedUnder(e); b != nil {
					k.Add(Hit{Severity: Fail, Step: e.Step, Subject: "dried", Bound: b})
				}
				p := &e.Before.Regions[surface.Field]
				if e.NBounds > 0 && p.Resist > surface.ResistWax {
					waited := e.Begun - p.ResistAt
					if to := tackTo(k.Craft, k.Facts.Air(p.ResistAt, e.Begun), p.Resist); waited > to {
						k.Add(Hit{Severity: Fail, Step: e.Step, Subject: "cured", Value: waited, Limit: to})
					}
				}
			},
			Say: func(k *Case, h *Hit) (string, string) {
				if h.Subject == "cured" {
					return "The resist has dried", fmt.Sprintf("It stays tacky for %s here, and the paint comes after %s: it holds on it as on any seal.", measure.Hours(h.Limit), measure.Hours(h.Value))
				}
				b := h.Bound
				if h.Subject == "dried" {
					return craft.Upper(productName(k.Craft, b.Under)) + " is no longer tacky", fmt.Sprintf("It stays tacky for %s here, and the paint comes after %s. Nothing will crack.", measure.Hours(TackyFor(k.Craft, k.airSince(b.Step, b.Waited), b.Under)), measure.Hours(b.Waited))
				}
				if h.Subject == "early" {
					return craft.Upper(productName(k.Craft, b.Under)) + " is still wet", fmt.Sprintf("The coat over it comes after %s; the window opens after %s here.", measure.Hours(b.Waited), measure.Hours(b.Earliest))
				}
				return craft.Upper(productName(k.Craft, b.Under)) + " has dried", fmt.Sprintf("The coat over it comes after %s; the window closes after %s here. Nothing will crack or lift.", measure.Hours(b.Waited), measure.Hours(b.Latest))
			},
			Figures: func(k *Case, h *Hit) []Figure {
				if h.Subject == "dried" {
					return []Figure{{"waited_h", h.Bound.Waited, "after the tacky coat"}, {"to_h", TackyFor(k.Craft, k.airSince(h.Step, h.Bound.Waited), h.Bound.Under), "for which it stays tacky here"}}
				}
				if h.Bound != nil {
					return []Figure{{"waited_h", h.Bound.Waited, "after the medium"}, {"from_h", h.Bound.Earliest, "after which the window opens here"}, {"to_h", h.Bound.Latest, "after which the window closes here"},
						{"crack_mm", crackWidth(&k.Craft.Products[h.Bound.Product]), "is the width of the cracks inside the window, roughly"}}
				}
				return []Figure{{"waited_h", h.Value, "after the resist"}, {"to_h", h.Limit, "for which it stays tacky here"}}
			},
			Repair: func(m *Repairer, h *Hit) {
				switch h.Subject {
				case "early":
					m.Wait(h.Bound)
				case "dried":
					m.whileTacky(h)
				case "late":
					m.Sooner(h.Bound)
					m.Edit("Apply "+productName(m.Craft, h.Bound.Under)+" once more just before", insert(m.Zone.Steps, h.Step-1, m.coat(h.Bound.Under, 1)))
				default:
					steps := slices.Clone(m.Zone.Steps)
					for i := range steps {
						if s := &steps[i]; s.Do == surface.Effect && s.Resist != "" && i < h.Step-1 {
							s.Resist = "wax"
						}
					}
					m.Edit("Put wax in patches instead, which keeps", steps)
					m.Edit("Paint over it at once", slices.DeleteFunc(slices.Clone(m.Zone.Steps), func(s surface.Step) bool { return s.Do == surface.Wait }))
				}
			},
		},
		{
			Code:   "effect.crackle_paint",
			Reach:  Later,
			Title:  "This coat does not crack",
			Why:    "Only a water-based matt paint shrinks and splits over the medium; enamel, gloss and oil paint stretch or stay.",
			When:   "The coat over a crackle medium is not a water-based matt paint. Fail.",
			Inputs: "the paint over the crackle medium",
			Fix:    "chalk, clay or matt acrylic paint there",
			Step: func(k *Case, e *surface.Event) {
				for i := range e.Boundaries() {
					b := &e.Bounds[i]
					if b.Under == craft.NoProduct || !k.Craft.Fills(b.Under, craft.ForCrackMedium) || e.Doing.Do != surface.Coat || k.Craft.Fills(b.Product, craft.ForCrackMedium) {
						continue
					}
					p := &k.Craft.Products[b.Product]
					sheen := p.Sheen
					if e.Doing.Sheen != craft.NoSheen {
						sheen = e.Doing.Sheen
					}
					if p.Role != craft.RolePaint || !p.WaterBased() || sheen > craft.Matt {
						k.Add(Hit{Severity: Fail, Step: b.Step, Bound: b, Product: b.Product})
					}
				}
			},
			Say: func(k *Case, h *Hit) (string, string) {
				return fmt.Sprintf("%s does not crack over the medium", craft.Upper(productName(k.Craft, h.Product))), "Use a water-based matt paint, applied thick and in one stroke."
			},
			Repair: func(m *Repairer, h *Hit) {
				for _, p := range best(2, m.Craft.For(craft.ForThinTop)) {
					m.change("Paint with "+productName(m.Craft, p)+" there", h.Step, func(s *surface.Step) {
						colour := s.Colour
						*s = m.coat(p, 1)
						s.Colour = colour
					})
				}
			},
		},
		{
			Code:   "effect.wet_distress_late",
			Reach:  Later,
			Title:  "Too late to wear it with water",
			Why:    "Milk and chalk paint stay soft for hours, with effort for a day or two, and then only sanding moves them. Unsealed clay paint stays soft to water, but takes ever more effort.",
			When:   "The paint is to be worn with a damp cloth after it has become hard to move: watch; after it no longer moves: fail. Unsealed clay paint never stops moving: it only takes more elbow grease.",
			Inputs: "how long the paint has dried before the cloth is used, in the workshop's air",
			Fix:    "wearing it the same day",
			Step: func(k *Case, e *surface.Event) {
				x := e.Effect
				p := &e.Before.Regions[surface.Field]
				if x == nil || x.Ground != craft.GroundSoft || p.Product == craft.NoProduct {
					return
				}
				low := &k.Craft.Products[p.Product]
				f := drying.FactorOf(low, k.Facts.Air(p.At, e.Begun))
				waited := e.Begun - p.At
				switch {
				case low.Softens.Never == 0 || waited <= f*low.Softens.Works:
				case waited > f*low.Softens.Never:
					k.Add(Hit{Severity: Fail, Step: e.Step, Value: waited, Limit: f * low.Softens.Works, Product: p.Product})
				default:
					k.Add(Hit{Severity: Watch, Step: e.Step, Value: waited, Limit: f * low.Softens.Works, Product: p.Product})
				}
			},
			Say: func(k *Case, h *Hit) (string, string) {
				p := &k.Craft.Products[h.Product]
				f := drying.FactorOf(p, k.airSince(h.Step, h.Value))
				why := fmt.Sprintf("The cloth comes %s after the last coat. %s wipes back easily for %s here", measure.Hours(h.Value), p.Name, measure.Hours(f*p.Softens.Easy))
				switch {
				case h.Severity == Fail:
					return "", why + fmt.Sprintf(", with effort for %s, and then only sanding moves it.", measure.Hours(f*p.Softens.Never))
				case math.IsInf(p.Softens.Never, 1):
					return "It will take elbow grease to wear it with water", why + fmt.Sprintf(" and is workable for %s. After that it still gives while it is unsealed, with elbow grease.", measure.Hours(h.Limit))
				}
				return "It will take elbow grease to wear it with water", why + fmt.Sprintf(", and with effort for %s.", measure.Hours(f*p.Softens.Never))
			},
			Figures: func(k *Case, h *Hit) []Figure {
				return []Figure{{"waited_h", h.Value, "after the last coat"}, {"works_h", h.Limit, "for which it is workable here"}}
			},
			Repair: func(m *Repairer, h *Hit) {
				steps := slices.Clone(m.Zone.Steps)
				last := -1
				for i := range steps[:h.Step-1] {
					if steps[i].Do == surface.Coat && steps[i].Product == h.Product {
						last = i
					}
				}
				if last < 0 {
					return
				}
				steps[last].Auto, steps[last].WaitH = false, 2
				out := slices.Clone(steps[:last+1])
				out = append(out, steps[h.Step-1])
				for i := last + 1; i < len(steps); i++ {
					if i != h.Step-1 {
						out = append(out, steps[i])
					}
				}
				m.Edit("Wear it two hours after the last coat", out)
			},
		},
		{
			Code:   "effect.wrong_paint",
			Reach:  Later,
			Title:  "The wrong paint for this effect",
			Why:    "A damp cloth wears only paint that water softens, and only powder paint flakes.",
			When:   "A paint that water does not soften is to be worn with a damp cloth, or a paint that does not flake is to flake. Fail.",
			Inputs: "the paint that the effect is worked on",
			Fix:    "clay or chalk paint to wear with water, milk paint to flake",
			Step: func(k *Case, e *surface.Event) {
				x := e.Effect
				if x == nil {
					return
				}
				paint := k.lastPaint(e)
				if paint == craft.NoProduct {
					return
				}
				p := &k.Craft.Products[paint]
				switch {
				case x.Ground == craft.GroundSoft && p.Softens.Never == 0, x.Ground == craft.GroundPowder && p.Coat != craft.MK:
					k.Add(Hit{Severity: Fail, Step: e.Step, Subject: x.ID, Product: paint})
				}
			},
			Say: func(k *Case, h *Hit) (string, string) {
				if x, _ := k.Craft.Effect(h.Subject); k.Craft.Effects[x].Ground == craft.GroundSoft {
					return fmt.Sprintf("Water does not soften %s", productName(k.Craft, h.Product)), "Once it is dry, a damp cloth only polishes it. Clay, chalk and young milk paint wipe back."
				}
				return fmt.Sprintf("%s does not flake", craft.Upper(productName(k.Craft, h.Product))), "Only powder paint without additive comes off in flakes."
			},
			Repair: func(m *Repairer, h *Hit) {
				if x, _ := m.Craft.Effect(h.Subject); m.Craft.Effects[x].Ground == craft.GroundSoft {
					for _, p := range best(2, m.Craft.For(craft.ForWipingBack)) {
						m.young(h, p)
					}
					return
				}
				m.swapEach(h.Product, "Paint with %s instead", m.Craft.For(craft.ForFlaking))
			},
		},
		{
			Code:   "effect.glaze_wait",
			Reach:  Later,
			Title:  "The glaze is not ready for the next coat",
			Why:    "A wet glaze or a brush lifts a glaze that has not set.",
			When:   "Glaze over glaze, or a clear brushed over glaze, in well under a day (16 to 24 h); sprayed, in well under a night (12 to 16 h). Watch below 70 % of that, fail below 40 %.",
			Inputs: "how long the glaze has dried, in the workshop's air, and how the next coat is applied",
			Fix:    "waiting; spraying",
			Each:   true,
			Step: func(k *Case, e *surface.Event) {
				for i := range e.Boundaries() {
					b := &e.Bounds[i]
					if b.Under == craft.NoProduct || k.Craft.Products[b.Under].Coat != craft.GZ || !tooEarly(b) {
						continue
					}
					_, badly := b.TooEarly()
					sev := tooShort(badly)
					k.Add(Hit{Severity: sev, Step: b.Step, Subject: k.Craft.Products[b.Product].ID, Bound: b, Product: b.Product})
				}
			},
			Say: func(k *Case, h *Hit) (string, string) {
				return fmt.Sprintf("%s too soon over the glaze", craft.Upper(productName(k.Craft, h.Product))),
					fmt.Sprintf("It has had %s and needs %s here; until then the next coat lifts it.", measure.Hours(h.Bound.Waited), measure.Hours(h.Bound.Earliest))
			},
			Repair: func(m *Repairer, h *Hit) {
				m.Wait(h.Bound)
				m.waitHours(h.Bound, h.Bound.Earliest)
				m.change("Spray it instead of brushing", h.Step, func(s *surface.Step) { s.Method = "spray" })
			},
		},
		{
			Code:   "effect.undercoat_hidden",
			Title:  "No contrast with the layers below",
			Why:    "A worn, flaked or crackled look needs another colour to show through; if all layers are alike, nobody sees it.",
			When:   "An aged look is wanted, and no layer it exposes clearly differs in colour from the last paint. Watch.",
			Inputs: "the colours of the surface and of every coat under the last paint",
			Fix:    "a coat of another colour below",
			End: func(k *Case) {
				s := &k.Appearance
				if k.Look == nil || !k.Look.Shows || len(s.Paints) == 0 {
					return
				}
				top := s.Paints[len(s.Paints)-1]
				below := s.Below()
				if k.Look.Layered && len(below) > 1 {
					below = below[:len(below)-1] // the ground is not one of its layers
				}
				if k.Cracks {
					below = []colour.RGB{k.underMedium()} // cracks go down to that and no further
				}
				most := 0.
				for _, c := range below {
					most = max(most, colour.Difference(top.Colour, c))
				}
				if most < Contrasting {
					k.Add(Hit{Severity: Watch, Step: top.Step, Value: most, Limit: Contrasting, Product: top.Product})
				}
			},
			Say: func(k *Case, h *Hit) (string, string) {
				return "", fmt.Sprintf("What would show through is %s. It should be a clearly different colour.", colour.Differ(h.Value))
			},
			Figures: func(_ *Case, h *Hit) []Figure {
				return []Figure{{"contrast", h.Value, "CIEDE2000 units between the last paint and the layer that differs most"}, {"seen_from", h.Limit, "CIEDE2000 units needed to read as another colour"}}
			},
			Repair: func(m *Repairer, h *Hit) {
				s := &m.hit.Case.Appearance
				top := s.Paints[len(s.Paints)-1]
				under := "#3f3128"
				if top.Colour.Light() < 55 {
					under = "#e9e2d0"
				}
				i := h.Step - 1
				if m.hit.Case.Cracks { // below the medium
					i = max(0, m.hit.Case.mediumStep()-1)
				}
				c := m.coat(h.Product, 1)
				c.Colour = under
				words := "A pale coat below"
				if top.Colour.Light() >= 55 {
					words = "A dark coat below"
				}
				m.Edit(words, insert(m.Zone.Steps, i, c))
			},
		},
		{
			Code:   "effect.fabric_lighter",
			Reach:  SoFar,
			Title:  "Cloth cannot be dyed paler",
			Why:    "Thinned paint soaks into the fibres and their colour shows through: cloth only gets darker.",
			When:   "Cloth is to be dyed a colour paler than it is. Fail.",
			Inputs: "how pale the cloth and the wanted colour are",
			Fix:    "a darker colour; cloth of another colour",
			End: func(k *Case) {
				if k.Craft.Substrates[k.Facts.Substrate].Family != craft.Textile || !k.Coated {
					return
				}
				want, ok := colour.Parse(k.Zone.Colour)
				if !ok {
					return
				}
				const slack = 2.
				if is, to := k.ground().Light(), want.Light(); to > is+slack {
					k.Add(Hit{Severity: Fail, Value: to, Limit: is})
				}
			},
			Say: func(_ *Case, h *Hit) (string, string) {
				return "", fmt.Sprintf("The wanted colour is %s than the cloth, and thinned paint only darkens it.", paler(h.Value-h.Limit))
			},
			Figures: func(_ *Case, h *Hit) []Figure {
				return []Figure{{"target", h.Value, "L* of the wanted colour, where 100 is white"}, {"cloth", h.Limit, "L* of the cloth as it is"}}
			},
			Repair: func(m *Repairer, _ *Hit) {
				m.Measure("Choose a colour darker than the cloth", craft.FieldTarget)
				m.Measure("Enter the colour of the cloth", craft.FieldColourNow)
			},
		},
		{
			Code:   "effect.tack",
			Reach:  Later,
			Title:  "Leaf laid when the size is not tacky",
			Why:    "Size that is too wet drowns the leaf; size that is too dry does not hold it.",
			When:   "Leaf is laid without size below it, before the size is tacky, or after it has dried. Fail.",
			Inputs: "what lies under the leaf, and how long it has dried in the workshop's air",
			Fix:    "size, and the right waiting time",
			Step: func(k *Case, e *surface.Event) {
				x := e.Effect
				if x == nil || x.Ground != craft.GroundTack {
					return
				}
				p := &e.Before.Regions[surface.Field]
				if p.Product == craft.NoProduct || !k.Craft.Fills(p.Product, craft.ForSize) {
					k.Add(Hit{Severity: Fail, Step: e.Step, Subject: "none"})
					return
				}
				low := &k.Craft.Products[p.Product]
				f := drying.FactorOf(low, k.Facts.Air(p.At, e.Begun))
				from, to := low.Tacky.From*f, low.Tacky.To*f
				switch waited := e.Begun - p.At; {
				case waited < .85*from-rounding:
					k.Add(Hit{Severity: Fail, Step: e.Step, Subject: "early", Value: waited, Limit: from})
				case waited > to:
					k.Add(Hit{Severity: Fail, Step: e.Step, Subject: "late", Value: waited, Limit: to})
				}
			},
			Say: func(_ *Case, h *Hit) (string, string) {
				switch h.Subject {
				case "none":
					return "No size under the leaf", "Leaf sticks only to size, and only while it is tacky."
				case "early":
					return "The size is still wet", fmt.Sprintf("The leaf comes after %s; the size becomes tacky after %s here.", measure.Hours(h.Value), measure.Hours(h.Limit))
				}
				return "The size has dried", fmt.Sprintf("The leaf comes after %s; the size stops being tacky after %s here.", measure.Hours(h.Value), measure.Hours(h.Limit))
			},
			Figures: func(_ *Case, h *Hit) []Figure {
				if h.Subject == "none" {
					return nil
				}
				return []Figure{{"waited_h", h.Value, "after the size"}, {"limit_h", h.Limit, "after which it becomes, or stops being, tacky here"}}
			},
			Repair: func(m *Repairer, h *Hit) {
				p := m.Craft.First(craft.ForSize)
				size := m.coat(p, 1)
				size.Auto, size.WaitH = false, 1
				if h.Subject == "none" {
					m.Edit("Apply leaf size first", insert(m.Zone.Steps, h.Step-1, size))
					return
				}
				var out []surface.Step
				for i, s := range m.Zone.Steps {
					if s.Do == surface.Coat && m.Craft.SameKind(s.Product, p) {
						out = append(out, size)
						continue
					}
					if s.Do == surface.Wait && i < h.Step-1 && i > 0 && slices.ContainsFunc(m.Zone.Steps[:i], func(x surface.Step) bool { return x.Do == surface.Coat && m.Craft.SameKind(x.Product, p) }) {
						continue
					}
					out = append(out, s)
				}
				m.Edit("Lay the leaf an hour after the size", out)
				m.Edit("Apply leaf size once more", insert(m.Zone.Steps, h.Step-1, size))
			},
		},
		{
			Code:   "effect.no_ground",
			Reach:  Later,
			Title:  "An effect with no paint to work on",
			Why:    "Wear, stamps, glazes and flakes need paint, and there is none yet.",
			When:   "An effect that needs paint, a medium or powder paint comes before any such coat. Fail.",
			Inputs: "what is on the surface when the effect is worked",
			Fix:    "the effect after the paint",
			Step: func(k *Case, e *surface.Event) {
				x := e.Effect
				if x == nil || x.Ground == craft.GroundAny || x.Ground == craft.GroundTack {
					return
				}
				chips := x.Ground == craft.GroundPowder && e.Doing.Resist != ""
				if chips || k.lastPaint(e) != craft.NoProduct {
					if x.Ground == craft.GroundMedium && k.laid(e, craft.CM) == 0 {
						k.Add(Hit{Severity: Fail, Step: e.Step, Subject: x.ID})
					}
					return
				}
				k.Add(Hit{Severity: Fail, Step: e.Step, Subject: x.ID})
			},
			Say: func(k *Case, h *Hit) (string, string) {
				x, _ := k.Craft.Effect(h.Subject)
				row := &k.Craft.Effects[x]
				if row.Ground == craft.GroundMedium {
					return row.Name + " without its medium", "Only a coat over lift medium comes away."
				}
				return row.Name + " before any paint", "It needs " + row.Wants + ", and nothing is painted yet."
			},
			Repair: func(m *Repairer, h *Hit) {
				if x, _ := m.Craft.Effect(h.Subject); m.Craft.Effects[x].Ground == craft.GroundMedium {
					p := m.Craft.First(craft.ForLiftMedium)
					if i := m.lastCoat(craft.RolePaint); i >= 0 && i < h.Step-1 {
						m.Edit("Put lift medium under the last paint", insert(m.Zone.Steps, i, m.coat(p, 1)))
					}
					return
				}
				if i := m.lastCoat(craft.RolePaint); i >= h.Step-1 {
					m.moved("Move it after the last paint", h.Step, i+1)
				}
				m.Measure("Add the paint that it needs", craft.FieldSteps)
			},
		},
		{
			Code:   "effect.excludes",
			Reach:  SoFar,
			Title:  "Two effects that undo each other",
			Why:    "Some looks cannot share a face: one spoils the other.",
			When:   "The plan holds two effects, or an effect and a look, that exclude each other. Fail.",
			Inputs: "each pair of looks and effects in the plan",
			Fix:    "keeping only one of the two",
			End: func(k *Case) {
				var seen [8]string
				n := 0
				note := func(id string, step int) {
					x, ok := k.Craft.Effect(id)
					if !ok {
						return
					}
					for _, o := range seen[:n] {
						y, _ := k.Craft.Effect(o)
						if slices.Contains(k.Craft.Effects[x].Excludes, o) || slices.Contains(k.Craft.Effects[y].Excludes, id) {
							k.Add(Hit{Severity: Fail, Step: step, Subject: o + " and " + id, Value: float64(x), Limit: float64(y)})
						}
					}
					if n < len(seen) && !slices.Contains(seen[:n], id) {
						seen[n] = id
						n++
					}
				}
				note(k.Zone.Look, 0)
				for i := range k.Zone.Steps {
					if s := &k.Zone.Steps[i]; s.Do == surface.Effect {
						note(s.Effect, i+1)
					}
				}
			},
			Say: func(k *Case, h *Hit) (string, string) {
				x, y := &k.Craft.Effects[int(h.Value)], &k.Craft.Effects[int(h.Limit)]
				return fmt.Sprintf("%s and %s do not go together", y.Name, craft.Lower(x.Name)), fmt.Sprintf("%s: %s. %s: %s.", y.Name, cmp.Or(y.Trap, y.Wants), x.Name, cmp.Or(x.Trap, x.Wants))
			},
			Repair: func(m *Repairer, h *Hit) {
				if h.Step > 0 && m.Zone.Steps[h.Step-1].Effect != m.Zone.Look {
					m.Edit("Keep the wanted look only", slices.Delete(slices.Clone(m.Zone.Steps), h.Step-1, h.Step))
				}
				m.Measure("Choose one look", craft.FieldLook)
			},
		},
		{
			Code:   "effect.missing",
			Title:  "No step makes the wanted look",
			Why:    "A look that is chosen but not planned does not get made.",
			When:   "A look is wanted, coats are planned, and no step or product in the plan makes it. Watch.",
			Inputs: "the wanted look, and what makes it",
			Fix:    "the step that makes it",
			End: func(k *Case) {
				if k.Look == nil || !k.Coated {
					return
				}
				for i := range k.Zone.Steps {
					s := &k.Zone.Steps[i]
					if s.Do == surface.Effect && s.Effect == k.Look.ID || s.Do == surface.Coat && slices.Contains(k.Look.By, k.Craft.Products[s.Product].ID) {
						return
					}
				}
				k.Add(Hit{Severity: Watch})
			},
			Say: func(k *Case, _ *Hit) (string, string) {
				return "No step makes it " + craft.Lower(k.Look.Name), "How it is made: " + k.Look.How + "."
			},
			Repair: func(m *Repairer, _ *Hit) {
				look := m.hit.Case.Look
				step := surface.Step{Do: surface.Effect, Effect: look.ID}
				i := m.lastCoat(craft.RolePaint) + 1
				if i == 0 {
					i = len(m.Zone.Steps)
				}
				m.Edit(look.Name+" after the paint", insert(m.Zone.Steps, i, step))
				if look.Dusty {
					m.Edit(look.Name+" after the paint, and dust off", insert(m.Zone.Steps, i, step, surface.Step{Do: surface.Dust}))
				}
				if look.Ground == craft.GroundSealed {
					p := m.Craft.First(craft.ForPlainSeal)
					seal := m.coat(p, 1)
					m.Edit("Seal the paint, then glaze it", insert(m.Zone.Steps, i, seal, step))
				}
				if look.Ground == craft.GroundTack {
					p := m.Craft.First(craft.ForSize)
					size := m.coat(p, 1)
					size.Auto, size.WaitH = false, 1
					m.Edit("Leaf on size after the paint", insert(m.Zone.Steps, i, size, step))
				}
				m.Measure("Add the step that makes it", craft.FieldSteps)
			},
		},
	}
}

// tooEarly tells whether a coat came so much too soon that it matters.
func tooEarly(b *surface.Boundary) bool {
	early, _ := b.TooEarly()
	return early
}

// waxed is a plan whose flaking is supported by wax in patches.
func (m *Repairer) waxed(steps []surface.Step) []surface.Step {
	out := slices.Clone(steps)
	for i := range out {
		if s := &out[i]; s.Do == surface.Effect && m.Zone.Look == s.Effect {
			s.Resist = "wax"
		}
	}
	return out
}

// young proposes another paint in place of a hit's, worn two hours after its
// last coat.
func (m *Repairer) young(h *Hit, p craft.Product) {
	steps := slices.Clone(m.Zone.Steps)
	last := -1
	for i := range steps {
		if s := &steps[i]; s.Do == surface.Coat && s.Product == h.Product {
			n := m.coat(p, s.NumCoats())
			n.Colour = s.Colour
			steps[i] = n
			if i < h.Step-1 {
				last = i
			}
		}
	}
	if last < 0 {
		return
	}
	steps[last].Auto, steps[last].WaitH = false, 2
	effect := steps[h.Step-1]
	steps = slices.Delete(steps, h.Step-1, h.Step)
	out := insert(steps, last+1, effect)
	m.Edit("Paint with "+productName(m.Craft, p)+", and wear it after two hours", out)
	seal := slices.Clone(out)
	if len(seal) == last+2 {
		w := m.Craft.First(craft.ForWax)
		s := m.coat(w, 1)
		s.Method = "rag"
		m.Edit("Paint with "+productName(m.Craft, p)+", wear it after two hours, and wax it", append(seal, s))
	}
}

// lastPaint is the paint of the plan that lies uppermost before an event.
func (k *Case) lastPaint(e *surface.Event) craft.Product {
	if e.Before.Regions[surface.Field].Coats == 0 {
		return craft.NoProduct
	}
	below := k.before(e)
	for i := len(below) - 1; i >= 0; i-- {
		if s := below[i].Doing; s.Do == surface.Coat && s.Scope == surface.All && k.Craft.Products[s.Product].Role == craft.RolePaint {
			return s.Product
		}
	}
	return craft.NoProduct
}

// driedUnder is the bond of powder paint on shellac or lacquer that was to make it
// crack over another paint and is no longer tacky; nil where there is none.
func (k *Case) driedUnder(e *surface.Event) *surface.Boundary {
	if !k.Cracks {
		return nil
	}
	for i := range e.Boundaries() {
		b := &e.Bounds[i]
		if b.CoatNo > 1 || b.Under == craft.NoProduct || k.Craft.Products[b.Product].Coat != craft.MK || k.keepsOff(b) {
			continue
		}
		if low := k.Craft.Products[b.Under].Coat; low != craft.SH && low != craft.AE {
			continue
		}
		paint, medium := false, false
		for _, below := range k.before(e) {
			s := below.Doing
			if s.Do != surface.Coat {
				continue
			}
			row := &k.Craft.Products[s.Product]
			paint = paint || row.Role == craft.RolePaint && s.Scope == surface.All
			medium = medium || row.Coat == craft.CM
		}
		if paint && !medium {
			return b
		}
	}
	return nil
}

// whileTacky proposes to paint over a coat half-way through its tack.
func (m *Repairer) whileTacky(h *Hit) {
	steps := slices.Clone(m.Zone.Steps)
	i := h.Step - 2
	for ; i >= 0 && steps[i].Do != surface.Coat; i-- {
	}
	if i < 0 {
		return
	}
	s := &steps[i]
	s.Auto, s.WaitH = false, HalfTack(m.Craft, m.Zone.Climate, s.Product)
	rest := slices.DeleteFunc(steps[i+1:h.Step-1], func(s surface.Step) bool { return s.Do == surface.Wait })
	m.Edit("Paint over it after "+measure.Hours(s.WaitH)+", while it is tacky", slices.Concat(steps[:i+1], rest, m.Zone.Steps[h.Step-1:]))
}

// HalfTack is half of the time for which a coat is tacky, in hours, to the minute:
// when a painter paints over it.
func HalfTack(c *craft.Craft, cl drying.Climate, p craft.Product) float64 {
	const perHour = 60
	return math.Ceil(TackyFor(c, cl, p)/2*perHour) / perHour
}

// tackTo is until when a resist is tacky, in hours here.
func tackTo(c *craft.Craft, cl drying.Climate, r surface.Resist) float64 {
	purpose := craft.ForResistShellac
	if r == surface.ResistLacquer {
		purpose = craft.ForResistLacquer
	}
	return TackyFor(c, cl, c.First(purpose))
}

// ResistTacky is for how many hours a resist, by its id, must be painted over in some air; 0 for one that
// keeps.
func ResistTacky(c *craft.Craft, cl drying.Climate, resist string) float64 {
	switch surface.ResistNamed(resist) {
	case surface.ResistShellac, surface.ResistLacquer:
		return tackTo(c, cl, surface.ResistNamed(resist))
	}
	return 0
}

// TackyFor is how long a coat is tacky in some air, in hours: as its row says, otherwise twice as
// long as it takes to be dry to the touch (working default).
func TackyFor(c *craft.Craft, cl drying.Climate, p craft.Product) float64 {
	row := &c.Products[p]
	to := row.Tacky.To
	if to == 0 {
		to = row.Touch * 2
	}
	return drying.Latest(to, row, cl)
}

// mediumStep is the last step that applies a medium, or what a coat cracks over while it is tacky,
// from 1; 0 where there is none.
func (k *Case) mediumStep() int {
	out := 0
	for i := range k.Trace.Events {
		e := &k.Trace.Events[i]
		if s := e.Doing; s.Do == surface.Coat && k.Craft.Products[s.Product].Coat == craft.CM {
			out = e.Step
		}
		for j := range e.Boundaries() {
			if b := &e.Bounds[j]; !k.crackles(b) || k.onMedium(b) {
				continue
			}
			for n := i - 1; n >= 0; n-- {
				if below := &k.Trace.Events[n]; below.Doing.Do == surface.Coat {
					out = below.Step
					break
				}
			}
		}
	}
	return out
}

// underMedium is the colour that cracks expose: that of the last paint below the medium, or the
// base's.
func (k *Case) underMedium() colour.RGB {
	medium := k.mediumStep()
	if medium == 0 {
		medium = len(k.Zone.Steps) + 1
	}
	for i := len(k.Appearance.Paints) - 1; i >= 0; i-- {
		if p := &k.Appearance.Paints[i]; p.Step < medium {
			return p.Looks
		}
	}
	return k.Appearance.Ground
}

// paler says by how much a colour is paler than another, in L*.
func paler(by float64) string {
	if by < 10 {
		return "slightly paler"
	}
	return "much paler"
}
