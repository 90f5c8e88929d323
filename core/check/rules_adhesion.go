package check

import (
	"fmt"
	"slices"

	"rutile/core/craft"
	"rutile/core/drying"
	"rutile/core/identify"
	"rutile/core/surface"
)

// eachBound calls f for the boundaries that a plan means to hold.
func eachBound(k *Case, e *surface.Event, f func(*surface.Boundary)) {
	for i := range e.Boundaries() {
		if b := &e.Bounds[i]; !k.letsGo(b) {
			f(b)
		}
	}
}

// pair names a coat and what it lies on. The names are kept, as verifying repairs
// asks for the same ones again and again.
func pair(k *Case, b *surface.Boundary) string {
	key := uint16(b.Product)<<8 | uint16(b.On)
	name, ok := k.pairs[key]
	if !ok {
		if k.pairs == nil {
			k.pairs = map[uint16]string{}
		}
		name = k.Craft.Products[b.Product].ID + " on " + b.On.String()
		k.pairs[key] = name
	}
	return name
}

// again is a pair, and apart from it the same coat over itself.
func again(k *Case, b *surface.Boundary) string {
	if b.CoatNo > 1 {
		return "further " + k.Craft.Products[b.Product].ID
	}
	return pair(k, b)
}

func waxy(k *Case, p craft.Product) bool {
	coat := k.Craft.Products[p].Coat
	return coat == craft.WX || coat == craft.OL
}

// ownWax tells whether the wax that b's coat lands on is the plan's own; a
// stain laid over old wax leaves it old wax.
func ownWax(c *craft.Craft, b *surface.Boundary) bool {
	return b.Under != craft.NoProduct && c.Products[b.Under].Dried == craft.WaxFilm
}

func adhesionRules() []Rule {
	return []Rule{
		{
			Code:     "adhesion.weakest",
			Foreseen: ForeseenPeel,
			Reach:    SoFar,
			Title:    "A layer is too weak for the wear",
			Why:      "Paint lets go at its weakest boundary, and everything above goes with it.",
			When:     "The chance that any layer peels under the wear is 10 % or more: watch; 35 % or more: fail.",
			Looks:    "every boundary of the plan: how the coat takes to what it lands on, its key, what was left on it, when it came and the air; and what the wear asks",
			Mends:    "cleaning, keying or priming the weakest boundary; another coat there",
			End: func(k *Case) {
				v := RiskVerdict(k.Risk)
				if v == Sound {
					return
				}
				w := &k.Bonds[0]
				for i := range k.Bonds {
					if k.Bonds[i].Risk > w.Risk {
						w = &k.Bonds[i]
					}
				}
				k.Add(Hit{Severity: Severity(v), Step: w.Step, Bound: &w.Boundary})
			},
			Say: func(k *Case, h *Hit) (string, string) {
				c, b := k.Craft, h.Bound
				title := fmt.Sprintf("%s may let go of %s", craft.Upper(productName(c, b.Product)), onWhat(k, b))
				if h.Severity == Fail {
					title = fmt.Sprintf("%s will not hold on %s", craft.Upper(productName(c, b.Product)), onWhat(k, b))
				}
				return title, fmt.Sprintf("The chance that it peels is %s. This bond reaches %.2f of a full one (class %s on the cross-cut scale); %s asks for %.2f.",
					Percent(k.Risk), b.Strength, Class(b.Strength), wearWords(k), k.Demand)
			},
			Mend: func(m *Mender, h *Hit) {
				if underWax(m.hit.Case, h.Bound) && ownWax(m.Craft, h.Bound) {
					m.waxLast(h.Bound)
				}
				m.Rework(h.Bound)
				if h.Bound.Timing == surface.TooSoon {
					m.Wait(h.Bound)
				}
				if h.Bound.Timing == surface.Missed || h.Bound.Timing == surface.Between {
					m.Sooner(h.Bound)
				}
			},
		},
		{
			Code:  "adhesion.bond",
			Reach: Later,
			Title: "This coat has no business on this surface",
			Why:   "Even clean and keyed, some coats never take to some surfaces.",
			When:  "The grip of the coat on the surface, clean and keyed, is below what the wear asks. Fail.",
			Looks: "the grip of each coat on what it lands on, clean and keyed, against what the wear asks",
			Mends: "a primer that grips between; another paint",
			Step: func(k *Case, e *surface.Event) {
				eachBound(k, e, func(b *surface.Boundary) {
					if b.Factors[surface.Grip] < k.Demand && !k.crackles(b) && !underWax(k, b) {
						k.Add(Hit{Severity: Fail, Step: b.Step, Subject: pair(k, b), Bound: b})
					}
				})
			},
			Say: func(k *Case, h *Hit) (string, string) {
				b := h.Bound
				return fmt.Sprintf("%s does not belong on %s", craft.Upper(productName(k.Craft, b.Product)), onWhat(k, b)),
					fmt.Sprintf("Clean and keyed it would still reach only %.2f of a full bond, and %s asks for %.2f. Something that grips must go between.", b.Factors[surface.Grip], wearWords(k), k.Demand)
			},
			Mend: func(m *Mender, h *Hit) { m.Rework(h.Bound) },
		},
		{
			Code:  "adhesion.wax_under",
			Stage: craft.StagePrepare,
			Reach: Later,
			Title: "Wax under a coat",
			Why:   "Nothing but wax and oil holds on wax.",
			When:  "Any coat but wax or oil goes over wax. Fail.",
			Looks: "what each coat lands on",
			Mends: "white spirit and a wash; the wax last",
			Step: func(k *Case, e *surface.Event) {
				for i := range e.Boundaries() {
					if b := &e.Bounds[i]; underWax(k, b) && !k.resisted(b) {
						k.Add(Hit{Severity: Fail, Step: b.Step, Subject: pair(k, b), Bound: b})
					}
				}
			},
			Say: func(k *Case, h *Hit) (string, string) {
				b := h.Bound
				if ownWax(k.Craft, b) {
					return fmt.Sprintf("%s over %s", craft.Upper(productName(k.Craft, b.Product)), productName(k.Craft, b.Under)),
						"A coat over wax slides off. The wax comes last, or not at all."
				}
				return "Old wax under the " + productName(k.Craft, b.Product),
					"A coat over wax slides off. White spirit with changed rags takes the wax off, and a wash takes the rest."
			},
			Mend: func(m *Mender, h *Hit) {
				b := h.Bound
				if !ownWax(m.Craft, b) {
					m.Rework(b)
					return
				}
				m.waxLast(b)
			},
		},
		{
			Code:  "adhesion.key",
			Stage: craft.StagePrepare,
			Reach: Later,
			Title: "A slick surface without its key",
			Why:   "A smooth film gives a coat nothing to hold on to until its shine is gone.",
			When:  "The surface lacks so much of the key this coat needs that the bond drops below 85 %. Watch; fail where the bond drops below what the wear asks.",
			Looks: "the shine or the scratches each coat lands on, and how much it depends on them",
			Mends: "a scuff of the right grit, a pad or deglosser; on glass a primer made for it",
			Step: func(k *Case, e *surface.Event) {
				eachBound(k, e, func(b *surface.Boundary) {
					if !b.MissingKey() || underWax(k, b) {
						return
					}
					sev := Watch
					if b.Strength < k.Demand {
						sev = Fail
					}
					k.Add(Hit{Severity: sev, Step: b.Step, Subject: pair(k, b), Bound: b})
				})
			},
			Say: func(k *Case, h *Hit) (string, string) {
				b := h.Bound
				if craft.Families[b.On].ScuffHow == "" {
					return fmt.Sprintf("%s on %s, which gives it nothing to hold", craft.Upper(productName(k.Craft, b.Product)), onWhat(k, b)),
						fmt.Sprintf("It is too smooth, and abrasive would only spoil it: this coat loses %.0f %% of its bond by that. A primer made for it is its key.", (1-b.Factors[surface.Key])*100)
				}
				return fmt.Sprintf("%s on %s that was never scuffed", craft.Upper(productName(k.Craft, b.Product)), onWhat(k, b)),
					fmt.Sprintf("The surface has %.0f %% of its best key, and this coat loses %.0f %% of its bond by that. Take the shine off, no more.", b.KeyGiven*100, (1-b.Factors[surface.Key])*100)
			},
			Mend: func(m *Mender, h *Hit) { m.Rework(h.Bound) },
		},
		{
			Code:  "adhesion.too_soon",
			Reach: Later,
			Title: "Coated again too soon",
			Why:   "What is still wet below is trapped or lifted by the next coat.",
			When:  "A coat comes before 85 % of the wait that the coat below needs at this site. Watch; fail before half of it, or where the bond drops below what the wear asks.",
			Looks: "the hours since the coat below, and what it needs in this workshop's air",
			Mends: "waiting",
			Each:  true,
			Step: func(k *Case, e *surface.Event) {
				eachBound(k, e, func(b *surface.Boundary) {
					if !b.TooEarly() || k.windowElsewhere(b) {
						return
					}
					sev := Watch
					if b.Waited < b.Earliest/2 || b.Strength < k.Demand {
						sev = Fail
					}
					k.Add(Hit{Severity: sev, Step: b.Step, Subject: again(k, b), Bound: b})
				})
			},
			Say: func(k *Case, h *Hit) (string, string) {
				b := h.Bound
				return fmt.Sprintf("%s too soon after %s", craft.Upper(productName(k.Craft, b.Product)), productName(k.Craft, b.Under)),
					fmt.Sprintf("Only %s have passed; at %s and %s %% humidity the coat below needs %s.", Hours(b.Waited), k.Zone.Units.Temp(k.Facts.Climate.TempC), number(k.Facts.Climate.RH), Hours(b.Earliest))
			},
			Mend: func(m *Mender, h *Hit) { m.Wait(h.Bound) },
		},
		{
			Code:  "adhesion.missed_window",
			Reach: Later,
			Title: "Coated again too late",
			Why:   "A coat that has hardened past its window takes the next one only after a scuff.",
			When:  "A coat comes after the latest that the coat below allows, and nothing scuffed it. Watch; fail where the bond drops below what the wear asks.",
			Looks: "the hours since the coat below, and when its window closes in this workshop's air",
			Mends: "a scuff; coming back earlier; the coat below once more where no scuff helps",
			Each:  true,
			Step: func(k *Case, e *surface.Event) {
				eachBound(k, e, func(b *surface.Boundary) {
					if b.Timing != surface.Missed || k.windowElsewhere(b) {
						return
					}
					sev := Watch
					if b.Strength < k.Demand {
						sev = Fail
					}
					k.Add(Hit{Severity: sev, Step: b.Step, Subject: again(k, b), Bound: b})
				})
			},
			Say: func(k *Case, h *Hit) (string, string) {
				b := h.Bound
				opens := "A scuff opens it again."
				if k.Craft.Products[b.Under].NoScuff {
					opens = "No scuff opens it again: only a fresh coat of it does."
				}
				return fmt.Sprintf("%s too late over %s", craft.Upper(productName(k.Craft, b.Product)), productName(k.Craft, b.Under)),
					fmt.Sprintf("%s have passed, and its window closes after %s here. "+opens, craft.Upper(Hours(b.Waited)), Hours(b.Latest))
			},
			Mend: func(m *Mender, h *Hit) {
				b := h.Bound
				under := &m.Craft.Products[b.Under]
				i := b.Step - 1
				switch {
				case under.NoScuff && b.CoatNo == 1:
					m.Edit("Lay "+productName(m.Craft, b.Under)+" once more just before", insert(m.Zone.Steps, i, m.coat(b.Under, 1)))
				case b.CoatNo > 1:
					m.split(b)
				default:
					if ks, _, title := m.keyed(m.Zone.Steps, i, b.On); ks != nil {
						m.Edit(craft.Upper(title), ks)
					}
				}
				m.Sooner(b)
			},
		},
		{
			Code:  "adhesion.saponify",
			Title: "Oil binder straight on zinc or fresh cement",
			Why:   "Zinc and the alkali in new cement and plaster turn oil and alkyd binders to soap, and the coat lets go in sheets, months later.",
			When:  "A coat with an oil or alkyd binder goes straight on zinc, or on cement, plaster or stone that is younger than 120 days: fail. On mineral whose age nobody knows: watch.",
			Looks: "the binder of each coat that lies on the bare material; how old the mineral is",
			Mends: "a primer for zinc or an alkali-resistant sealer between; a water-based paint instead; waiting",
			Step: func(k *Case, e *surface.Event) {
				for i := range e.Boundaries() {
					b := &e.Bounds[i]
					if !b.Bare || !craft.TraitsOf[k.Craft.Products[b.Product].Coat].Soaps {
						continue
					}
					sub := &k.Craft.Substrates[k.Facts.Substrate]
					switch {
					case b.On == craft.MetalZinc:
						k.Add(Hit{Severity: Fail, Step: b.Step, Subject: pair(k, b), Bound: b})
					case b.On == craft.MineralPorous && sub.Alkaline() && k.Facts.AgeDays < 0:
						k.Add(Hit{Severity: Watch, Step: b.Step, Subject: pair(k, b), Bound: b})
					case b.On == craft.MineralPorous && sub.Alkaline() && k.Facts.AgeDays < craft.FreshMineral:
						k.Add(Hit{Severity: Fail, Step: b.Step, Subject: pair(k, b), Bound: b})
					}
				}
			},
			Say: func(k *Case, h *Hit) (string, string) {
				b := h.Bound
				why := "Zinc turns its binder to soap: it looks sound for weeks and then lifts like paper."
				if b.On == craft.MineralPorous {
					why = fmt.Sprintf("It is %s days old, and for about %.0f days its alkali turns an oil binder to soap.", number(k.Facts.AgeDays), craft.FreshMineral)
					if k.Facts.AgeDays < 0 {
						why = fmt.Sprintf("Nobody knows how old it is, and for about %.0f days its alkali turns an oil binder to soap.", craft.FreshMineral)
					}
				}
				return fmt.Sprintf("%s straight on %s", craft.Upper(productName(k.Craft, b.Product)), onWhat(k, b)), why
			},
			Mend: func(m *Mender, h *Hit) {
				if h.Bound.On == craft.MineralPorous {
					p := m.Craft.First(craft.ForMineral)
					m.Edit("Seal it with alkali-resistant "+productName(m.Craft, p)+" first", insert(m.Zone.Steps, h.Step-1, m.coat(p, 1)))
				}
				m.Rework(h.Bound)
				m.swapEach(h.Bound.Product, "Paint with %s instead", m.Craft.For(craft.ForUsualPaint))
				if h.Bound.On == craft.MineralPorous && m.hit.Case.Facts.AgeDays < 0 {
					m.Measure("Enter how old it is", craft.FieldAge)
				}
			},
		},
		{
			Code:  "adhesion.flex",
			Reach: Later,
			Title: "A rigid coat on something that bends",
			Why:   "Vinyl cloth, leather and fabric flex with every sitting, and a hard film cracks and flakes off them.",
			When:  "Enamel, shellac, epoxy, milk paint, oil-based or floor-grade clear, or a can's paint goes on vinyl cloth, leather or cloth. Fail; watch where it is only looked at.",
			Looks: "whether the material flexes, and how rigid each coat dries",
			Mends: "flexible paint; on cloth, thinned paint as a dye",
			Step: func(k *Case, e *surface.Event) {
				switch k.Craft.Substrates[k.Facts.Substrate].Family {
				case craft.VinylSoft, craft.Leather, craft.Textile:
				default:
					return
				}
				for i := range e.Boundaries() {
					b := &e.Bounds[i]
					p := &k.Craft.Products[b.Product]
					if !craft.TraitsOf[p.Coat].Rigid {
						continue
					}
					sev := Fail
					if k.Facts.Wear == craft.Display {
						sev = Watch
					}
					k.Add(Hit{Severity: sev, Step: b.Step, Subject: p.ID, Bound: b, Product: b.Product})
				}
			},
			Say: func(k *Case, h *Hit) (string, string) {
				return fmt.Sprintf("%s cracks on %s", craft.Upper(productName(k.Craft, h.Product)), craft.Lower(k.Craft.Substrates[k.Facts.Substrate].Name)),
					"It dries rigid, and what is under it bends. Paint made for vinyl and leather bends with it."
			},
			Mend: func(m *Mender, h *Hit) {
				if m.Craft.Substrates[m.Zone.Substrate].Family == craft.Textile {
					m.swapEach(h.Product, "Dye it with %s instead", m.Craft.For(craft.ForDyeing))
				}
				m.swapEach(h.Product, "Paint with %s instead", m.Craft.For(craft.ForFlexing))
				m.without(h.Product)
			},
		},
		{
			Code:  "adhesion.plasticiser",
			Title: "A coat that plasticiser softens",
			Why:   "Soft vinyl gives its plasticiser to whatever lies on it, and most coats turn sticky and slide.",
			When:  "A coat lies against soft vinyl that lets most of the plasticiser through. Fail.",
			Looks: "what lies against soft vinyl, and how much plasticiser it lets through",
			Mends: "flexible paint made for vinyl against it",
			Step: func(k *Case, e *surface.Event) {
				const resists = .3
				for i := range e.Boundaries() {
					b := &e.Bounds[i]
					if b.On == craft.VinylSoft && k.Craft.LetsThrough(b.Product, craft.Plasticiser) > resists {
						k.Add(Hit{Severity: Fail, Step: b.Step, Subject: k.Craft.Products[b.Product].ID, Bound: b, Product: b.Product})
					}
				}
			},
			Say: func(k *Case, h *Hit) (string, string) {
				return fmt.Sprintf("Plasticiser goes straight into the %s", productName(k.Craft, h.Product)),
					fmt.Sprintf("It lets %.0f %% of it through and softens with the rest. Only a coat made for vinyl may lie against it.", k.Craft.LetsThrough(h.Product, craft.Plasticiser)*100)
			},
			Mend: func(m *Mender, h *Hit) {
				m.swapEach(h.Product, "Paint with %s instead", m.Craft.For(craft.ForFlexing))
				p := m.Craft.First(craft.ForFlexing)
				m.Edit("First "+productName(m.Craft, p), insert(m.Zone.Steps, h.Step-1, m.coat(p, 2)))
			},
		},
		{
			Code:  "adhesion.flash_rust",
			Title: "Water on bare steel",
			Why:   "Bare steel and iron rust while a water-based coat dries, and the rust is shut in under it.",
			When:  "A water-based coat goes on bare steel or iron. Fail.",
			Looks: "what carries the first coat on bare steel",
			Mends: "rust-inhibiting metal primer, or another solvent-based primer, first",
			Step: func(k *Case, e *surface.Event) {
				for i := range e.Boundaries() {
					b := &e.Bounds[i]
					if b.On == craft.MetalFerrous && b.Bare && k.Craft.Products[b.Product].WaterBased() {
						k.Add(Hit{Severity: Fail, Step: b.Step, Subject: k.Craft.Products[b.Product].ID, Bound: b, Product: b.Product})
					}
				}
			},
			Say: func(k *Case, h *Hit) (string, string) {
				return fmt.Sprintf("%s rusts the steel below it", craft.Upper(productName(k.Craft, h.Product))),
					"Brown specks come up while it dries, and go on under the paint. A solvent-based metal primer keeps water off."
			},
			Mend: func(m *Mender, h *Hit) {
				for _, p := range m.Craft.For(craft.ForSteel) {
					s := m.coat(p, 1)
					m.Edit("Prime with "+productName(m.Craft, p), insert(m.Zone.Steps, h.Step-1, s))
					if m.Craft.Products[h.Product].Role == craft.RolePrimer {
						m.swapEach(h.Product, "Prime with %s instead", []craft.Product{p})
					}
				}
			},
		},
		{
			Code:  "adhesion.solvent_lift",
			Reach: Later,
			Title: "Strong solvent lifts what is below",
			Why:   "The solvents of cans and lacquers swell a soft or young film until it wrinkles.",
			When:  "A can's coat goes over itself between its two windows, over a coat that has not hardened to a third, or on craft foam: fail. On bare hard plastic or an old soft film: watch.",
			Looks: "what carries each coat, how old the film below is, and what it is",
			Mends: "recoating inside the first window or after the second opens; letting it harden; a barrier of shellac; a water-based coat instead",
			Each:  true,
			Step: func(k *Case, e *surface.Event) {
				for i := range e.Boundaries() {
					b := &e.Bounds[i]
					up := &k.Craft.Products[b.Product]
					foam := k.Craft.Substrates[k.Facts.Substrate].Foam() && b.Bare
					switch {
					case b.Timing == surface.Between:
						k.Add(Hit{Severity: Fail, Step: b.Step, Subject: "between", Bound: b, Product: b.Product})
					case foam && (up.Carrier == craft.Solvent || up.Carrier == craft.StrongSolvent):
						k.Add(Hit{Severity: Fail, Step: b.Step, Subject: "foam", Bound: b, Product: b.Product})
					case up.Carrier != craft.StrongSolvent || up.Coat == craft.PP:
					case b.Under != craft.NoProduct && k.Craft.Products[b.Under].Carrier != craft.StrongSolvent && soft(b.On):
						low := &k.Craft.Products[b.Under]
						const hardened = .3
						if cure := drying.CureFraction(b.Waited/24, low.Cure, k.Facts.Climate); cure < hardened {
							k.Add(Hit{Severity: Fail, Step: b.Step, Subject: "young", Bound: b, Product: b.Product, Value: cure, Limit: hardened})
						}
					case b.Under == craft.NoProduct && (b.On == craft.PlasticHard && b.Bare || b.On == craft.AcrylicPaint || b.On == craft.ShellacFilm):
						k.Add(Hit{Severity: Watch, Step: b.Step, Subject: "soft", Bound: b, Product: b.Product})
					}
				}
			},
			Say: func(k *Case, h *Hit) (string, string) {
				b := h.Bound
				name := craft.Upper(productName(k.Craft, h.Product))
				switch h.Subject {
				case "between":
					return name + " between its two windows", fmt.Sprintf("After %s the coat below is no longer wet and not yet hard: it wrinkles. Within %s, or after %s.", Hours(b.Waited), Hours(k.Craft.Products[b.Under].Recoat.To), Hours(b.Earliest))
				case "foam":
					return name + " melts the foam", "Solvent eats craft foam into holes. Only water-based coats go on it."
				case "young":
					return fmt.Sprintf("%s wrinkles the %s", name, productName(k.Craft, b.Under)), fmt.Sprintf("It is only %.0f %% hard after %s, and strong solvent swells it.", h.Value*100, Hours(b.Waited))
				}
				return fmt.Sprintf("%s may craze %s", name, onWhat(k, b)), "Strong solvent bites into it. Mist coats first, and a patch out of sight before that."
			},
			Figures: func(k *Case, h *Hit) []Figure {
				out := explain(k, h.Bound)
				if h.Limit > 0 {
					out = append([]Figure{{"cure", h.Value, "how hard the coat below is, 1 being wholly"}, {"hardened", h.Limit, "how hard it must be"}}, out...)
				}
				return out
			},
			Mend: func(m *Mender, h *Hit) {
				b := h.Bound
				switch h.Subject {
				case "between":
					first := *b
					first.Earliest = m.Craft.Products[b.Under].Recoat.From
					m.Sooner(&first)
					m.waitHours(b, b.Earliest)
					return
				case "young":
					m.waitHours(b, drying.CureDays(h.Limit, m.Craft.Products[b.Under].Cure, m.hit.Case.Facts.Climate)*24)
					p := m.Craft.First(craft.ForBarrier)
					m.Edit("Shut it off with "+productName(m.Craft, p)+" first", insert(m.Zone.Steps, b.Step-1, m.coat(p, 1)))
				}
				if m.Craft.Products[h.Product].Role == craft.RoleClear {
					m.swapEach(h.Product, "Seal with %s instead", m.Craft.For(craft.ForPlainSeal))
				} else {
					m.swapEach(h.Product, "Paint with %s instead", m.Craft.For(craft.ForUsualPaint))
				}
			},
		},
		{
			Code:  "adhesion.waxy_shellac",
			Reach: Later,
			Title: "Polyurethane on waxy shellac",
			Why:   "Shellac with its wax in lets polyurethane go: it peels off like film.",
			When:  "A polyurethane or water-based clear goes on shellac that holds its wax: fail. On an old shellac finish, which mostly does: watch.",
			Looks: "the shellac below each clear coat",
			Mends: "dewaxed shellac instead, or between; wax or shellac as the last coat",
			Step: func(k *Case, e *surface.Event) {
				for i := range e.Boundaries() {
					b := &e.Bounds[i]
					switch k.Craft.Products[b.Product].Coat {
					case craft.OP, craft.WP, craft.WH:
					default:
						continue
					}
					switch {
					case b.Under != craft.NoProduct && k.Craft.Products[b.Under].Waxy:
						k.Add(Hit{Severity: Fail, Step: b.Step, Subject: pair(k, b), Bound: b, Product: b.Product})
					case b.Under == craft.NoProduct && b.On == craft.ShellacFilm && !b.Bare:
						k.Add(Hit{Severity: Watch, Step: b.Step, Subject: pair(k, b), Bound: b, Product: b.Product})
					}
				}
			},
			Say: func(k *Case, h *Hit) (string, string) {
				return fmt.Sprintf("%s over waxy shellac", craft.Upper(productName(k.Craft, h.Product))),
					"The wax in the shellac keeps it from holding. Dewaxed shellac takes any clear."
			},
			Mend: func(m *Mender, h *Hit) {
				p := m.Craft.First(craft.ForBarrier)
				if w := h.Bound.Under; w != craft.NoProduct {
					m.swapEach(w, "%s, dewaxed, below instead", []craft.Product{p})
				}
				m.Edit("One coat of dewaxed "+productName(m.Craft, p)+" between", insert(m.Zone.Steps, h.Step-1, m.coat(p, 1)))
			},
		},
		{
			Code:  "adhesion.additive_gap",
			Title: "Additive in some coats and not in others",
			Why:   "Bonding additive holds only the coat it is in: what lies above without it can chip off the rest.",
			When:  "Powder paint has the additive in some coats and none in others, and nothing is meant to flake. Watch.",
			Looks: "the additive in every coat of powder paint",
			Mends: "the same additive in every coat",
			End: func(k *Case) {
				if k.Chippy {
					return
				}
				with, without := 0., 0
				for i := range k.Trace.Events {
					e := &k.Trace.Events[i]
					if e.NBounds == 0 || e.Doing.Do != surface.Coat || k.Craft.Products[e.Doing.Product].Coat != craft.MK {
						continue
					}
					if a := e.Bounds[0].Additive; a > 0 {
						with = max(with, a)
					} else if without == 0 {
						without = e.Step
					}
				}
				if with > 0 && without > 0 {
					k.Add(Hit{Severity: Watch, Step: without, Value: with})
				}
			},
			Say: func(_ *Case, h *Hit) (string, string) {
				return "", fmt.Sprintf("One coat holds additive, %s to one of paint; this step has a coat without any. It is needed wherever it is to hold.", number2(h.Value))
			},
			Figures: func(_ *Case, h *Hit) []Figure {
				return []Figure{{"additive", h.Value, "parts of bonding additive to one of paint where there is any"}}
			},
			Mend: func(m *Mender, h *Hit) {
				steps := slices.Clone(m.Zone.Steps)
				for i := range steps {
					if s := &steps[i]; s.Do == surface.Coat && m.Craft.Products[s.Product].Coat == craft.MK {
						s.Additive, s.AdditiveFirst = h.Value, false
					}
				}
				m.Edit("The additive in every coat", steps)
			},
		},
		{
			Code:  "adhesion.untested",
			Stage: craft.NoStage,
			Reach: Survey,
			Title: "Nobody has tested what it is",
			Why:   "A plan for an unknown surface rests on a guess.",
			When:  "The substrate or its finish is not known, and coats are planned. Watch; a note once small tests have narrowed it down and the plan is judged for all that is left; silent once a patch test on the piece itself was rated.",
			Looks: "whether anybody has tested the material and the finish",
			Mends: "a small test or a rated patch",
			End: func(k *Case) {
				if !k.Coated || slices.ContainsFunc(k.boards, func(b surface.Board) bool { return b.Hidden }) {
					return
				}
				if k.Craft.Substrates[k.Zone.Substrate].Unknown {
					k.Add(Hit{Severity: untested(k, (*identify.Belief).ToldOfMatter), Subject: "substrate"})
				}
				if k.Craft.Finishes[k.Zone.Finish].Unknown {
					k.Add(Hit{Severity: untested(k, (*identify.Belief).Touched), Subject: "finish"})
				}
			},
			Say: func(k *Case, h *Hit) (string, string) {
				b := k.Zone.Tests
				open := b != nil && len(b.Answers) > 0
				switch {
				case open && h.Severity == Watch && h.Subject == "finish":
					return "What is on it was only looked at", b.Says() + " Looks deceive: one small test in a hidden spot belongs to every belief."
				case open && h.Subject == "substrate":
					return "What it is made of is not settled", b.Says() + leftOpen
				case open:
					return "What is on it is not settled", b.Says() + leftOpen
				case h.Subject == "substrate":
					return "Nobody knows what it is made of", "The plan is judged for the worst it may be. Edges, backs, weight and a drop of water say more."
				}
				return "Nobody knows what is on it", "The plan is judged for every old finish it may carry, and the worst is reported. A rub of white spirit and one of alcohol in a hidden spot say more."
			},
			Mend: func(m *Mender, h *Hit) {
				title := "Find out what is on it"
				if h.Subject == "substrate" {
					title = "Find out what it is made of"
				}
				m.Measure(title, craft.FieldIdentify)
			},
		},
		{
			Code:  "adhesion.doubted",
			Reach: Survey,
			Title: "The tests speak against what was entered",
			Why:   "A plan for the wrong surface is a plan for another piece.",
			When:  "What was tested leaves less than one chance in five to the substrate or the finish that the survey says, and coats are planned. Watch.",
			Looks: "what the tests leave of what was entered",
			Mends: "looking again at what it is",
			End: func(k *Case) {
				if !k.Coated {
					return
				}
				known := k.Zone.Known(k.Craft)
				if known.Substrate == identify.Doubted {
					k.Add(Hit{Severity: Watch, Subject: "substrate"})
				}
				if known.Finish == identify.Doubted {
					k.Add(Hit{Severity: Watch, Subject: "finish"})
				}
			},
			Say: func(k *Case, h *Hit) (string, string) {
				said := k.Craft.Finishes[k.Zone.Finish].Name
				if h.Subject == "substrate" {
					said = k.Craft.Substrates[k.Zone.Substrate].Name
				}
				return "The tests speak against " + craft.Lower(said), k.Zone.Tests.Says() + " The plan is judged for that as well as for what was entered."
			},
			Figures: func(k *Case, h *Hit) []Figure {
				known := k.Zone.Known(k.Craft)
				p := known.PFinish
				if h.Subject == "substrate" {
					p = known.PSubstrate
				}
				return []Figure{{"belief", p, "belief in what was entered, from the tests; an estimate"}}
			},
			Mend: func(m *Mender, _ *Hit) { m.Measure("See what the tests say", craft.FieldIdentify) },
		},
	}
}

const leftOpen = " The plan is judged for everything that is left, and the worst is reported."

// untested is how severe it is that something is not known: once it was tested
// for, and the answers fit something, the verdict rests on what they leave.
func untested(k *Case, tested func(*identify.Belief) bool) Severity {
	if b := k.Zone.Tests; b != nil && tested(b) && !b.Excluded() {
		return Note
	}
	return Watch
}

// windowElsewhere tells whether a rule of its own speaks of the window below a
// coat: those of mediums and of what is tacky under a crackle, of size, of glaze,
// and of clear under glaze or wax.
func (k *Case) windowElsewhere(b *surface.Boundary) bool {
	if b.Under == craft.NoProduct {
		return false
	}
	low := &k.Craft.Products[b.Under]
	return k.crackles(b) || low.Coat == craft.GZ || low.Tacky.To > 1 || low.HardUnder(&k.Craft.Products[b.Product]) > 0
}

// underWax tells whether a coat that is neither wax nor oil goes on wax.
func underWax(k *Case, b *surface.Boundary) bool {
	return b.On == craft.WaxFilm && !waxy(k, b.Product)
}

// resisted tells whether wax was laid in spots on purpose, for powder paint to let
// go there.
func (k *Case) resisted(b *surface.Boundary) bool { return b.Patch == surface.SpotPatch && k.letsGo(b) }

// split proposes to scuff between the coats of one step.
func (m *Mender) split(b *surface.Boundary) {
	i := b.Step - 1
	s := m.Zone.Steps[i]
	sc, ok := m.scuff(b.On)
	if !ok {
		return
	}
	first, rest := s, s
	first.Coats, rest.Coats = b.CoatNo-1, s.NumCoats()-b.CoatNo+1
	out := append([]surface.Step{}, m.Zone.Steps[:i]...)
	out = append(out, first, sc)
	if sc.Do == surface.Abrade {
		out = append(out, surface.Step{Do: surface.Dust})
	}
	out = append(out, rest)
	m.Edit(craft.Upper(craft.Lower(StepWords(m.Craft, &sc)))+" between the coats", append(out, m.Zone.Steps[i+1:]...))
}

// soft tells whether strong solvent swells a dried film before it is hard.
func soft(f craft.Family) bool {
	switch f {
	case craft.AcrylicPaint, craft.PorousPaint, craft.AlkydPaint, craft.VarnishFilm, craft.LacquerFilm:
		return true
	}
	return false
}

// waxLast proposes to move the plan's own wax, which lies under b's coat, to the
// end, or to take it off again.
func (m *Mender) waxLast(b *surface.Boundary) {
	steps := m.Zone.Steps
	for i := b.Step - 2; i >= 0; i-- {
		if steps[i].Do == surface.Coat && steps[i].Product == b.Under {
			moved := append(append(append([]surface.Step{}, steps[:i]...), steps[i+1:]...), steps[i])
			m.Edit("Wax last", moved)
			break
		}
	}
	at := b.Step - 1
	wash := m.cleaning(craft.WaxPolish, 1)
	m.Edit("Take the wax off again before this coat", insert(steps, at, wash...))
}
