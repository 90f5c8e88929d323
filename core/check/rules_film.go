package check

import (
	"fmt"
	"math"
	"slices"

	"rutile/core/colour"
	"rutile/core/craft"
	"rutile/core/drying"
	"rutile/core/effect"
	"rutile/core/measure"
	"rutile/core/parts"
	"rutile/core/surface"
)

func filmRules() []Rule {
	return []Rule{
		{
			Code:  "film.reactivate",
			Harm:  HarmPeel,
			Reach: Later,
			Divides: func(_ *Case, h *Hit) *craft.Divide {
				if h.Subject != "settled" {
					return nil
				}
				return &craft.Divide{Says: "Painters divide here. Most seal flakes with wax or oil, which is sure; some brush a clear over them once they have settled."}
			},
			Title:  "Water softens the paint below",
			Why:    "Clay paint softens again with water, and powder paint that is meant to flake starts again every time it gets wet.",
			When:   "A water-based clear, glaze or paint, or a wet cloth, goes over unsealed powder paint that is meant to flake while that is still moving: fail. Once the loose paint is off and two days have passed since its last coat: watch. Over unsealed clay paint: watch.",
			Inputs: "which steps bring water, and whether the paint below is sealed with wax, oil or shellac",
			Fix:    "wax or oil as the seal; a mist of shellac before the clear",
			Step: func(k *Case, e *surface.Event) {
				s := e.Doing
				p := &e.Before.Regions[surface.Field]
				if p.Product == craft.NoProduct {
					return
				}
				low := &k.Craft.Products[p.Product]
				var up craft.Product
				switch {
				case s.Do == surface.Coat && s.Scope == surface.All && k.Craft.Products[s.Product].WaterBased() && s.Product != p.Product && k.Craft.Products[s.Product].Coat < craft.NumCoats:
					up = s.Product
				case s.Do == surface.Clean && k.Craft.Cleaners[s.Cleaner].Carrier == craft.Water:
					up = craft.NoProduct
				case k.Chippy && e.Effect != nil && e.Effect.Wets:
					up = craft.NoProduct
				default:
					return
				}
				flakes := k.Chippy && low.Coat == craft.MK
				clay := low.Drags
				switch {
				case flakes && up != craft.NoProduct && k.Craft.Products[up].Coat == craft.MK:
				case flakes && k.settled(e):
					k.Add(Hit{Severity: Watch, Step: e.Step, Subject: "settled", Product: up})
				case flakes:
					k.Add(Hit{Severity: Fail, Step: e.Step, Subject: "flaking", Product: up})
				case clay && up != craft.NoProduct && k.Craft.Products[up].Role != craft.RolePaint:
					k.Add(Hit{Severity: Watch, Step: e.Step, Subject: "clay", Product: up})
				}
			},
			Say: func(k *Case, h *Hit) (string, string) {
				what := "Water"
				if h.Product != craft.NoProduct {
					what = craft.Upper(productName(k.Craft, h.Product))
				}
				if h.Subject == "clay" {
					return what + " softens the clay paint below", "The brush drags the colour along. Start with a mist coat, or use a seal without water."
				}
				if h.Subject == "settled" {
					return what + " over flakes that have settled", "Mostly it stays. Now and then water wakes it, and it goes on flaking under the seal. A mist of shellac or a paste clear first lessens that."
				}
				return what + " over paint that is meant to flake", "Water loosens the paint, and it keeps flaking under the seal. Let it settle for two or three days, and seal it with wax or oil."
			},
			Figures: func(k *Case, h *Hit) []Figure {
				if k.Chips.Bound == nil {
					return nil
				}
				return chipFigures(k)
			},
			Repair: func(m *Repairer, h *Hit) {
				if h.Product != craft.NoProduct && m.Craft.Products[h.Product].Role == craft.RoleClear {
					m.swapClears("Seal it with %s instead", m.Craft.For(craft.ForWax))
				}
				p := m.Craft.First(craft.ForBarrier)
				mist := m.coat(p, 1)
				mist.Method = "spray"
				m.Edit("A mist of clear shellac before it", insert(m.Zone.Steps, h.Step-1, mist))
			},
		},
		{
			Code:   "film.thirsty",
			Reach:  Later,
			Title:  "Glaze or coloured wax on absorbent paint",
			Why:    "Unsealed matt paint absorbs glaze and dark wax at once, so nothing can be wiped back.",
			When:   "A glaze that should be wiped back goes straight on unsealed matt paint: fail. Coloured wax on it without clear wax first: watch. Drawn grain is meant to be done this way.",
			Inputs: "whether the paint under a glaze or a coloured wax is absorbent",
			Fix:    "one coat of clear, dried for a day, before the glaze; clear wax before dark",
			Step: func(k *Case, e *surface.Event) {
				if k.Look != nil && k.Look.Absorbent || e.Effect != nil && e.Effect.Absorbent {
					return
				}
				for i := range e.Boundaries() {
					b := &e.Bounds[i]
					p := &k.Craft.Products[b.Product]
					if b.On != craft.PorousPaint || b.Under == craft.NoProduct || k.Craft.Products[b.Under].Coat == craft.GZ {
						continue
					}
					switch {
					case p.Coat == craft.GZ:
						k.Add(Hit{Severity: Fail, Step: b.Step, Subject: p.ID, Bound: b, Product: b.Product})
					case p.Tints:
						k.Add(Hit{Severity: Watch, Step: b.Step, Subject: p.ID, Bound: b, Product: b.Product})
					}
				}
			},
			Say: func(k *Case, h *Hit) (string, string) {
				return fmt.Sprintf("%s straight on absorbent %s", craft.Upper(productName(k.Craft, h.Product)), productName(k.Craft, h.Bound.Under)),
					"It grabs at once and stays as a stain. Once the paint is sealed and dry, it can be wiped back for about a minute."
			},
			Repair: func(m *Repairer, h *Hit) {
				if m.Craft.Products[h.Product].Coat == craft.WX {
					p := m.Craft.First(craft.ForWax)
					s := m.coat(p, 1)
					s.Method = "rag"
					m.Edit("Clear wax first", insert(m.Zone.Steps, h.Step-1, s))
				}
				for _, p := range m.Craft.For(craft.ForPlainSeal) {
					m.Edit("Seal the paint with "+productName(m.Craft, p)+" first", insert(m.Zone.Steps, h.Step-1, m.coat(p, 1)))
				}
				p := m.Craft.First(craft.ForBarrier)
				m.Edit("Seal the paint with "+productName(m.Craft, p)+" first", insert(m.Zone.Steps, h.Step-1, m.coat(p, 1)))
			},
		},
		{
			Code:   "film.seal_young",
			Reach:  Later,
			Title:  "Glaze or wax over a clear that is not hard",
			Why:    "A rag drags a young clear coat, and a wet glaze softens it.",
			When:   "Wax, oil or glaze is rubbed over a clear coat well before it can be sanded, or glaze well before a day (16 to 24 h). Watch below 70 % of that, fail below 40 %; over an oil-based clear 85 % and 60 %.",
			Inputs: "how long the clear coat below has dried, in the workshop's air",
			Fix:    "waiting",
			Each:   true,
			Step: func(k *Case, e *surface.Event) {
				eachBound(k, e, func(b *surface.Boundary) {
					if b.Under == craft.NoProduct || !tooEarly(b) {
						return
					}
					if rubbed, _ := k.Craft.Products[b.Under].HardUnder(&k.Craft.Products[b.Product]); rubbed == 0 {
						return
					}
					_, badly := b.TooEarly()
					sev := tooShort(badly)
					k.Add(Hit{Severity: sev, Step: b.Step, Subject: pair(k, b), Bound: b, Product: b.Product})
				})
			},
			Say: func(k *Case, h *Hit) (string, string) {
				b := h.Bound
				return fmt.Sprintf("%s over a clear that is still soft", craft.Upper(productName(k.Craft, h.Product))),
					fmt.Sprintf("%s has had %s, and needs %s here before anything is rubbed over it.", craft.Upper(productName(k.Craft, b.Under)), measure.Hours(b.Waited), measure.Hours(b.Earliest))
			},
			Repair: func(m *Repairer, h *Hit) { m.Wait(h.Bound) },
		},
		{
			Code:     "film.yellow",
			Foreseen: ForeseenYellow,
			Title:    "It will yellow",
			Why:      "Oil-based clears and enamels turn amber, at once and more each month, most in the dark.",
			When:     "The coats over or in the last paint turn it clearly yellower within a year: fail; visibly: watch; slightly: a note.",
			Inputs:   "how much each coat over the last paint yellows, and how pale that paint is",
			Fix:      "a water-based clear, which does not yellow; a water-based enamel",
			End: func(k *Case) {
				const said = 1.5
				y := k.Appearance.Yellows
				if y < said || k.Appearance.By == craft.NoProduct {
					return
				}
				k.Add(Hit{Severity: Severity(YellowVerdict(y)), Step: k.stepOf(k.Appearance.By), Value: y, Limit: yellowWatch, Product: k.Appearance.By})
			},
			Say: func(k *Case, h *Hit) (string, string) {
				return fmt.Sprintf("%s turns the colour yellow", craft.Upper(productName(k.Craft, h.Product))),
					fmt.Sprintf("Within a year it turns %s yellower, soonest in the dark.", yellower(h.Value))
			},
			Figures: func(k *Case, h *Hit) []Figure {
				return []Figure{
					{"yellowing", h.Value, "CIEDE2000 units yellower within a year; an estimate"},
					{"lightness", k.Appearance.Final.Light(), "L* of the painted colour, where 100 is white: the paler, the more it shows"},
				}
			},
			Repair: func(m *Repairer, h *Hit) {
				if m.Craft.Products[h.Product].Role == craft.RolePaint {
					m.swapEach(h.Product, "Paint with %s instead", best(1, m.Craft.For(craft.ForHardPaint)))
					return
				}
				m.swapEach(h.Product, "Seal with %s instead", m.Craft.For(craft.ForWhiteSeal))
			},
		},
		{
			Code:   "film.soft_under_hard",
			Reach:  Later,
			Title:  "A hard coat over a soft one",
			Why:    "A brittle film over a softer, thicker one cracks like a net as the one below moves (checking).",
			When:   "A much more brittle coat goes over a softer, thicker one, and no cracks are wanted. Watch.",
			Inputs: "how brittle each coat dries, and how thick the film below is",
			Fix:    "a coat of similar hardness; a thinner soft layer",
			Step: func(k *Case, e *surface.Event) {
				if k.Cracks {
					return
				}
				for i := range e.Boundaries() {
					b := &e.Bounds[i]
					if b.Under == craft.NoProduct || b.Under == b.Product {
						continue
					}
					up, low := &k.Craft.Products[b.Product], &k.Craft.Products[b.Under]
					const far = 3
					if !low.LeavesFilm() || craft.TraitsOf[up.Coat].Hard-craft.TraitsOf[low.Coat].Hard < far {
						continue
					}
					below := k.run(e, b.Under)
					if below > up.Film {
						k.Add(Hit{Severity: Watch, Step: b.Step, Subject: pair(k, b), Bound: b, Product: b.Product, Value: below, Limit: up.Film})
					}
				}
			},
			Say: func(k *Case, h *Hit) (string, string) {
				return fmt.Sprintf("%s may crack over the soft %s", craft.Upper(productName(k.Craft, h.Product)), productName(k.Craft, h.Bound.Under)),
					fmt.Sprintf("It dries hard and %s thick over %s that stay soft and move with every season.", k.Zone.Units.Film(h.Limit), k.Zone.Units.Film(h.Value))
			},
			Figures: func(_ *Case, h *Hit) []Figure {
				return []Figure{{"soft_um", h.Value, "of soft film below"}, {"hard_um", h.Limit, "of the hard coat"}}
			},
			Repair: func(m *Repairer, h *Hit) {
				if m.Craft.Products[h.Product].Role == craft.RoleClear {
					m.swapEach(h.Product, "Seal with %s instead", m.Craft.For(craft.ForPlainSeal))
					return
				}
				m.swapEach(h.Product, "Paint with %s instead", m.Craft.For(craft.ForHardPaint))
				m.swapEach(h.Bound.Under, "%s below instead", []craft.Product{m.Craft.First(craft.ForEvenGround), m.Craft.First(craft.ForHardPaint)})
			},
		},
		{
			Code:     "film.build",
			Foreseen: ForeseenBuild,
			Reach:    SoFar,
			Title:    "The coats fill the gap",
			Why:      "A drawer that just fits sticks once both faces are coated, and more so in a damp season.",
			When:     "A sliding or closing part has less than 0.2 mm left: fail; less than 0.5 mm: watch.",
			Inputs:   "the smallest gap of the zone's drawers and doors, and the dry film of the whole plan on both faces",
			Fix:      "fewer or thinner coats; planing before painting; leaving the touching faces bare",
			End: func(k *Case) {
				gap := k.Facts.GapMM
				film := k.Trace.End.Regions[surface.Field].Film
				if gap <= 0 || film == 0 {
					return
				}
				switch f := parts.FitOf(gap, film); {
				case f.Sticks:
					k.Add(Hit{Severity: Fail, Step: len(k.Zone.Steps), Value: f.LeftMM, Limit: gap})
				case f.Tight:
					k.Add(Hit{Severity: Watch, Step: len(k.Zone.Steps), Value: f.LeftMM, Limit: gap})
				}
			},
			Say: func(k *Case, h *Hit) (string, string) {
				u, film := k.Zone.Units, k.Trace.End.Regions[surface.Field].Film
				return "", fmt.Sprintf("The gap is %s now, and %s once both faces carry %s of coats. Plane it before painting, or mask the sliding faces.", u.Small(h.Limit), u.Small(max(0, h.Value)), u.Small(film/1000))
			},
			Figures: func(k *Case, h *Hit) []Figure {
				return []Figure{
					{"gap_mm", h.Limit, "of gap now, at its smallest"},
					{"film_um", k.Trace.End.Regions[surface.Field].Film, "of dry film, on each face"},
					{"left_mm", h.Value, "left"},
				}
			},
			Repair: func(m *Repairer, _ *Hit) {
				for i := range m.Zone.Steps {
					if s := &m.Zone.Steps[i]; s.Do == surface.Coat && s.NumCoats() > 2 {
						m.change(fmt.Sprintf("Two coats of %s instead of %d", productName(m.Craft, s.Product), s.NumCoats()), i+1, func(s *surface.Step) { s.Coats = 2 })
					}
				}
				m.Measure("Plane it, and enter the new gap", craft.FieldParts)
			},
		},
		{
			Code:   "film.hiding",
			Title:  "Too few coats to cover",
			Why:    "Strong yellows and reds, thin coats and dark surfaces need more coats than expected: streaks stay.",
			When:   "After the planned coats the colour is visibly off where the paint is thinnest. Watch. Washes, and coats that crack or flake, are left out.",
			Inputs: "the colour of the surface and of every coat, and how well each covers (Kubelka and Munk)",
			Fix:    "another coat; an undercoat tinted towards the colour",
			End: func(k *Case) {
				s := &k.Appearance
				if s.Planned == 0 || s.Off <= NearEnough || s.Planned >= s.Needed {
					return
				}
				k.Add(Hit{Severity: Watch, Step: s.Paints[len(s.Paints)-1].Step, Value: s.Off, Limit: NearEnough, Product: s.Paints[len(s.Paints)-1].Product})
			},
			Say: func(k *Case, h *Hit) (string, string) {
				s := &k.Appearance
				many := fmt.Sprintf("about %d", s.Needed)
				if s.Needed >= mostCoats {
					many = "more coats than is practical"
				}
				return "", fmt.Sprintf("%s planned, %s needed: where the paint is thinnest, the colour stays %s.", craft.Upper(measure.Count(s.Planned, "coat is", "coats are")), many, colour.Off(s.Off))
			},
			Figures: func(k *Case, h *Hit) []Figure {
				s := &k.Appearance
				return []Figure{
					{"off", s.Off, "CIEDE2000 units from the colour after the planned coats; an estimate"},
					{"planned", float64(s.Planned), "coats planned"}, {"needed", float64(s.Needed), "coats needed"},
					{"hides", 100 * k.Craft.Products[h.Product].Hiding, "% of black that one coat of a pale mix covers (contrast ratio, ISO 6504-3)"},
				}
			},
			Repair: func(m *Repairer, h *Hit) {
				n := m.hit.Case.Appearance.Needed - m.hit.Case.Appearance.Planned
				const tooMany = 8
				if have := m.Zone.Steps[h.Step-1].NumCoats(); have+n <= tooMany {
					m.change(fmt.Sprintf("%d coats of %s", have+n, productName(m.Craft, h.Product)), h.Step, func(s *surface.Step) { s.Coats = have + n })
				}
				tint := m.hit.Case.Appearance.Paints[len(m.hit.Case.Appearance.Paints)-1].Colour.Hex()
				for i := range m.Zone.Steps[:h.Step-1] {
					if s := &m.Zone.Steps[i]; s.Do == surface.Coat && m.Craft.Products[s.Product].Role == craft.RolePrimer && m.Craft.Products[s.Product].Opaque() && s.Scope == surface.All {
						m.change("Tint the "+productName(m.Craft, s.Product)+" to the colour", i+1, func(s *surface.Step) { s.Colour = tint })
					}
				}
				p := m.Craft.First(craft.ForUsualPaint)
				under := m.coat(p, 2)
				under.Colour = tint
				m.Edit("Use an undercoat of acrylic paint in that colour", insert(m.Zone.Steps, h.Step-1, under))
			},
		},
		{
			Code:   "film.drinks",
			Late:   true,
			Title:  "Shiny paint straight on an absorbent surface",
			Why:    "Bare board and wood absorb the first coat unevenly, and any shine shows it as patches.",
			When:   "The first coat of paint goes straight on bare wood, board or mineral and is satin or shinier, or semi-gloss or shinier under its clear. Watch.",
			Inputs: "what the first coat of paint goes on, and the sheen of the last coat",
			Fix:    "a primer below",
			Step: func(k *Case, e *surface.Event) {
				if e.NBounds == 0 || e.Doing.Do != surface.Coat || k.Craft.Products[e.Doing.Product].Role != craft.RolePaint || k.Look != nil && k.Look.Veil {
					return
				}
				least := craft.SemiGloss // a clear levels what is below it
				if last := k.lastStep(); last > 0 && k.Craft.Products[k.Zone.Steps[last-1].Product].Role == craft.RolePaint {
					least = craft.Satin
				}
				if k.finalSheen() < least {
					return
				}
				if b := &e.Bounds[0]; b.Region == surface.Field && b.First && b.Bare && craft.Families[b.On].Porous && b.On != craft.Textile {
					k.Add(Hit{Severity: Watch, Step: b.Step, Bound: b, Product: b.Product})
				}
			},
			Say: func(k *Case, h *Hit) (string, string) {
				return "", fmt.Sprintf("%s absorbs the first coat unevenly, and %s shows it. One coat of primer evens it out.", craft.Upper(onWhat(k, h.Bound)), craft.Sheens[k.finalSheen()].Name)
			},
			Repair: func(m *Repairer, h *Hit) {
				for _, p := range m.Craft.For(craft.ForEvenGround) {
					m.Edit("Prime with "+productName(m.Craft, p)+" first", insert(m.Zone.Steps, h.Step-1, m.coat(p, 1)))
				}
			},
		},
		{
			Code:   "film.sheen",
			Reach:  Tail,
			Title:  "The sheen will not be as wanted",
			Why:    "The last coat decides the sheen, and gloss shows every flaw underneath.",
			When:   "The last coat is two sheen classes shinier or flatter than wanted: watch; one class: a note, unless it is wax or oil, whose shine depends on rubbing. Semi-gloss or gloss over unfilled damage or open grain: watch.",
			Inputs: "the sheen of the last coat, the wanted sheen, and how even the surface is",
			Fix:    "the clear in another sheen; filling and levelling first",
			End: func(k *Case) {
				final := k.finalSheen()
				if final == craft.NoSheen || k.Trace.End.Regions[surface.Field].Coats == 0 {
					return
				}
				top := k.Trace.End.Regions[surface.Field]
				if w := k.Zone.Sheen; w != craft.NoSheen && w != final && !(top.Top == craft.PorousPaint && w <= craft.Matt) {
					apart := int(w) - int(final)
					if apart < 0 {
						apart = -apart
					}
					sev := Note
					if apart > 1 {
						sev = Watch
					}
					if rubbed := top.Top == craft.WaxFilm || top.Top == craft.OilFilm; apart > 1 || !rubbed { // wax shines as it is buffed
						k.Add(Hit{Severity: sev, Step: k.lastStep(), Subject: "target", Value: float64(final), Limit: float64(w)})
					}
				}
				filled := slices.ContainsFunc(k.Zone.Steps, func(s surface.Step) bool { return s.Do == surface.Fill })
				if final >= craft.SemiGloss && k.Facts.Uneven && !filled {
					k.Add(Hit{Severity: Watch, Step: k.lastStep(), Subject: "uneven", Value: float64(final)})
				}
				sub, fin := &k.Craft.Substrates[k.Facts.Substrate], &k.Craft.Finishes[k.Facts.Finish]
				if final >= craft.SemiGloss && k.Opaque && fin.Bare && sub.Mark() == "open" && !filled && !k.lays(craft.ForGrain) {
					k.Add(Hit{Severity: Watch, Step: k.lastStep(), Subject: "grain", Value: float64(final)})
				}
			},
			Say: func(k *Case, h *Hit) (string, string) {
				final := craft.Sheens[int(h.Value)].Name
				switch h.Subject {
				case "uneven":
					return "Gloss over an uneven surface", "Dents, runs and craters that nobody sees under matt stand out under " + final + "."
				case "grain":
					return "Gloss over open grain", "The pores of " + craft.Lower(k.Craft.Substrates[k.Facts.Substrate].Name) + " show through " + final + ", unless they are filled."
				}
				return fmt.Sprintf("It will be %s instead of %s", final, craft.Sheens[int(h.Limit)].Name), "The last coat decides the sheen, whatever is below it."
			},
			Figures: func(_ *Case, h *Hit) []Figure {
				out := []Figure{{"gloss_units", craft.Sheens[int(h.Value)].Units, "gloss units at 60° that the last coat reaches, roughly"}}
				if h.Limit > 0 {
					out = append(out, Figure{"wanted_units", craft.Sheens[int(h.Limit)].Units, "gloss units at 60° that are wanted, roughly"})
				}
				return out
			},
			Repair: func(m *Repairer, h *Hit) {
				switch h.Subject {
				case "uneven":
					m.level("Fill, level and dust off first")
					return
				case "grain":
					p := m.Craft.First(craft.ForGrain)
					if i := m.firstCoat(); i >= 0 {
						m.Edit("Fill the grain first", insert(m.Zone.Steps, i, m.coat(p, 1), surface.Step{Do: surface.Abrade, Grit: 220, How: craft.Hand}, surface.Step{Do: surface.Dust}))
					}
					return
				}
				want := craft.Sheen(h.Limit)
				name := craft.Sheens[want].Name
				if p := m.Zone.Steps[h.Step-1].Product; m.Craft.Products[p].Role == craft.RoleClear || m.Craft.Products[p].Role == craft.RolePaint && m.Craft.Products[p].Coat != craft.CP {
					m.change(craft.Upper(productName(m.Craft, p))+" in "+name, h.Step, func(s *surface.Step) { s.Sheen = want })
				}
				p := m.Craft.First(craft.ForPlainSeal)
				s := m.coat(p, 2)
				s.Sheen = want
				m.Edit("Seal it with "+name+" "+productName(m.Craft, p), insert(m.Zone.Steps, len(m.Zone.Steps), s))
				m.swapClears("Seal it with "+name+" %s", []craft.Product{p})
			},
		},
		{
			Code:   "film.too_thick",
			Reach:  Later,
			Title:  "Thinned or mixed outside its range",
			Why:    "Outside its range a paint no longer forms a film: it runs, turns to powder and covers nothing.",
			When:   "A product contains more water or thinner than it allows, powder paint is mixed thinner than two to one or thicker than 0.8 to one, or there is more additive than paint. Watch.",
			Inputs: "how each coat is thinned and mixed, compared with the product's range",
			Fix:    "staying within the product's range",
			Each:   true,
			Step: func(k *Case, e *surface.Event) {
				s := e.Doing
				if s.Do != surface.Coat || e.CoatNo > 1 {
					return
				}
				p := &k.Craft.Products[s.Product]
				most := p.ThinMax
				if k.Look != nil && (k.Look.Veil || k.Look.Thins) {
					most = max(most, veilThin)
				}
				switch {
				case s.ThinPct > most:
					k.Add(Hit{Severity: Watch, Step: e.Step, Subject: "thin", Value: s.ThinPct, Limit: most, Product: s.Product})
				case s.WaterRatio > wettest:
					k.Add(Hit{Severity: Watch, Step: e.Step, Subject: "water", Value: s.WaterRatio, Limit: wettest, Product: s.Product})
				case s.WaterRatio > 0 && s.WaterRatio < driest:
					k.Add(Hit{Severity: Watch, Step: e.Step, Subject: "water", Value: s.WaterRatio, Limit: driest, Product: s.Product})
				case s.Additive > mostAdditive:
					k.Add(Hit{Severity: Watch, Step: e.Step, Subject: "additive", Value: s.Additive, Limit: mostAdditive, Product: s.Product})
				}
			},
			Say: func(k *Case, h *Hit) (string, string) {
				name := craft.Upper(productName(k.Craft, h.Product))
				switch h.Subject {
				case "water":
					return name + " mixed outside its range", fmt.Sprintf("%s of water to one of powder; it works from %s to %s.", measure.Number2(h.Value), measure.Number2(driest), measure.Number2(wettest))
				case "additive":
					return "More additive than paint", fmt.Sprintf("%s parts of additive to one of paint: above one to one it stays soft and clear, and covers less.", measure.Number2(h.Value))
				}
				return name + " thinned too far", fmt.Sprintf("It is thinned by %.0f %%, and allows %.0f %%. Beyond that it runs, covers less and is weaker.", h.Value, h.Limit)
			},
			Figures: func(_ *Case, h *Hit) []Figure {
				unit := map[string]string{"thin": "% of water or thinner", "water": "parts of water to one of powder", "additive": "parts of additive to one of paint"}[h.Subject]
				return []Figure{{"mixed", h.Value, unit + ", as planned"}, {"limit", h.Limit, unit + ", at the limit of its range"}}
			},
			Repair: func(m *Repairer, h *Hit) {
				m.change("Stay within its range", h.Step, func(s *surface.Step) {
					switch h.Subject {
					case "thin":
						s.ThinPct = h.Limit
					case "water":
						s.WaterRatio = h.Limit
					default:
						s.Additive = h.Limit
					}
				})
			},
		},
		{
			Code:   "film.block",
			Harm:   HarmPeel,
			Title:  "Touching parts stick together",
			Why:    "Young paint sticks to itself where painted faces close on each other: opening them tears the film.",
			When:   "Touching parts are put back before their coats may be painted over: fail; before three days over water-borne enamel and clears, or seven over acrylic and oil: watch. Wax over a hard paint does not count.",
			Inputs: "how long the last coat below any wax has dried when the piece is put back together, and what it is",
			Fix:    "waiting; leaving the touching faces unpainted",
			Step: func(k *Case, e *surface.Event) {
				if !k.Facts.Touching || e.Doing.Do != surface.Reassemble {
					return
				}
				p, at := k.decides(e)
				if p == craft.NoProduct {
					return
				}
				low := &k.Craft.Products[p]
				waited := e.Begun - at
				air := k.Facts.Air(at, e.Begun)
				from, _ := surface.Recoats(low, air)
				days := craft.TraitsOf[low.Coat].BlocksDays
				switch need := 24 * days * max(1, drying.Stretch(drying.FactorOf(low, air))); {
				case waited < from-rounding:
					k.Add(Hit{Severity: Fail, Step: e.Step, Value: waited, Limit: max(from, need), Product: p})
				case waited < need-rounding:
					k.Add(Hit{Severity: Watch, Step: e.Step, Value: waited, Limit: need, Product: p})
				}
			},
			Say: func(k *Case, h *Hit) (string, string) {
				return "", fmt.Sprintf("%s has dried for %s, and two faces of it stop sticking after about %s here. Leave them apart until then, or put a strip of baking paper between.", craft.Upper(productName(k.Craft, h.Product)), measure.Hours(h.Value), measure.Hours(h.Limit))
			},
			Figures: waitFigures,
			Repair:  waitBefore,
		},
	}
}

// The yellowing within a year from which a plan is watched, and from which it
// fails, in CIEDE2000 units.
const (
	yellowWatch = 3.
	yellowFail  = 5.
)

// YellowVerdict is what yellowing by a number of CIEDE2000 units means for a plan.
func YellowVerdict(de float64) Verdict {
	switch {
	case de >= yellowFail:
		return Fails
	case de >= yellowWatch:
		return Watched
	}
	return Sound
}

// The ranges of mixing. Working defaults.
const (
	veilThin        = 150. // per cent, for washes and veils
	driest, wettest = .8, 2.
	mostAdditive    = 1.
)

// rounding is what hours that were added up may be off.
const rounding = 1e-6

// settled tells whether paint that is meant to flake has come to rest before an event: it was worked,
// what was loose is off, and two days have passed since its last coat.
func (k *Case) settled(e *surface.Event) bool {
	below := k.before(e)
	o := surface.Worked(below)
	if o == nil || !o.Effect.Flakes() || e.Before.Regions[surface.Field].Soils[craft.Dust] > 0 {
		return false
	}
	last := k.lastPowder(e)
	day, _ := drying.Said(craft.ADay, k.Facts.Air(last, e.Begun))
	return e.Begun-last >= 2*day-rounding
}

// decides is the coat that decides when a face may be touched or closed at an event, and when it was
// laid: the last one, or what lies below the wax on it. NoProduct where there is none.
func (k *Case) decides(e *surface.Event) (craft.Product, float64) {
	p := &e.Before.Regions[surface.Field]
	if p.Product == craft.NoProduct || p.Coats == 0 {
		return craft.NoProduct, 0
	}
	if k.Craft.Products[p.Product].Coat != craft.WX {
		return p.Product, p.At
	}
	below := k.before(e)
	for i := len(below) - 1; i >= 0; i-- {
		s := below[i].Doing
		if s.Do != surface.Coat || s.Scope != surface.All {
			continue
		}
		if row := &k.Craft.Products[s.Product]; row.Coat != craft.WX && row.LeavesFilm() {
			return s.Product, below[i].After.Regions[surface.Field].At
		}
	}
	return p.Product, p.At
}

func waitFigures(_ *Case, h *Hit) []Figure {
	return []Figure{{"waited_h", h.Value, "after the last coat that counts"}, {"needed_h", h.Limit, "that it should have dried"}}
}

// waitBefore proposes to wait until a coat has had the hours that a step needs.
func waitBefore(m *Repairer, h *Hit) {
	days := math.Ceil((h.Limit-h.Value)/24 + .01)
	if more := h.Limit - h.Value; more < 16 {
		hours := practical(more)
		m.Edit(fmt.Sprintf("Wait %s before it", measure.Hours(hours)), insert(m.Zone.Steps, h.Step-1, surface.Step{Do: surface.Wait, Hours: hours}))
	}
	m.Edit(fmt.Sprintf("Wait %s before it", measure.Hours(days*24)), insert(m.Zone.Steps, h.Step-1, surface.Step{Do: surface.Wait, Hours: days * 24}))
}

func chipFigures(k *Case) []Figure {
	x := &k.Chips
	out := []Figure{
		{"p10", x.P10, "share that chips in a mild case; an estimate"},
		{"p50", x.P50, "share that typically chips"},
		{"p90", x.P90, "share that chips in a strong case"},
		{"strength", x.Strength, "strength of the bond where it comes off, where 1 is full strength"},
		{"coats", float64(x.Coats), "coats of powder paint"},
	}
	for _, f := range []struct {
		on    bool
		words string
	}{{x.Heated, "warm air speeds the flaking"}, {x.Wetted, "it gets wet while it sets"}, {x.Resist, "a resist keeps it off"}} {
		if f.on {
			out = append(out, Figure{"helped", 1, f.words})
		}
	}
	return out
}

// crackWidth is about how wide a paint cracks over an open medium, in millimetres.
func crackWidth(p *craft.ProductRow) float64 {
	// A litre over that many square metres is a wet film of a thousand micrometres divided by their
	// number.
	return effect.CrackWidth(1000 / p.Cover)
}
