package check

import (
	"fmt"
	"math"
	"slices"

	"rutile/core/craft"
	"rutile/core/drying"
	"rutile/core/identify"
	"rutile/core/measure"
	"rutile/core/surface"
)

// eachBound calls f for the boundaries that a plan means to hold.
func eachBound(k *Case, e *surface.Event, f func(*surface.Boundary)) {
	for i := range e.Boundaries() {
		if b := &e.Bounds[i]; !k.meantToFlake(b) {
			f(b)
		}
	}
}

// pair names a coat and what it lies on. The names are cached, as verifying repairs uses the same
// ones again and again.
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

// again is a pair, distinguishing the same coat over itself.
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

// ownWax tells whether the wax below b's coat is the plan's own; a stain over old wax leaves it old
// wax.
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
			Why:      "Paint peels at its weakest layer, and everything above comes off with it.",
			When:     "The risk that any layer comes off under the wear is 10 % or more: watch; 35 % or more: fail. It counts every way to fail: grip, key, dirt, timing, air, dew, soap on zinc or fresh cement, and wrinkling.",
			Inputs:   "every layer of the plan: how well the coat grips what is below, its key, what was left on the surface, the timing, the air and the dew point, what zinc, lime or strong solvent does to it; and what the wear needs",
			Fix:      "cleaning, keying or priming the weakest layer; another coat there",
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
				title := fmt.Sprintf("%s may peel off %s", craft.Upper(productName(c, b.Product)), onWhat(k, b))
				if h.Severity == Fail {
					title = fmt.Sprintf("%s will not hold on %s", craft.Upper(productName(c, b.Product)), onWhat(k, b))
				}
				words := BondWords(min(b.Strength, k.Demand), k.Demand)
				if b.Bare && craft.Unsure[b.On] > 0 {
					words = "mostly strong enough, and on some pieces not,"
				}
				return title, fmt.Sprintf("The risk of peeling is %s. This bond is %s for %s.", Percent(k.Risk), words, wearWords(k))
			},
			Repair: func(m *Repairer, h *Hit) {
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
			Code:   "adhesion.bond",
			Reach:  Later,
			Title:  "This coat does not suit this surface",
			Why:    "Some coats never grip some surfaces, even clean and keyed.",
			When:   "The coat's grip on the surface, clean and keyed, is below what the wear needs. Fail.",
			Inputs: "how well each coat grips what is below it, clean and keyed, compared with what the wear needs",
			Fix:    "a primer that grips both; another paint",
			Step: func(k *Case, e *surface.Event) {
				eachBound(k, e, func(b *surface.Boundary) {
					if b.Factors[surface.Grip] < k.Demand && b.Clash(k.Craft) == nil && !k.crackles(b) && !underWax(k, b) {
						k.Add(Hit{Severity: Fail, Step: b.Step, Subject: pair(k, b), Bound: b})
					}
				})
			},
			Say: func(k *Case, h *Hit) (string, string) {
				b := h.Bound
				return fmt.Sprintf("%s does not suit %s", craft.Upper(productName(k.Craft, b.Product)), onWhat(k, b)),
					fmt.Sprintf("Even clean and keyed, the bond would be %s for %s. A coat that grips both is needed in between.", BondWords(b.Factors[surface.Grip], k.Demand), wearWords(k))
			},
			Repair: func(m *Repairer, h *Hit) { m.Rework(h.Bound) },
		},
		{
			Code:   "adhesion.wax_under",
			Stage:  craft.StagePrepare,
			Reach:  Later,
			Title:  "Wax under a coat",
			Why:    "Only wax and oil hold on wax.",
			When:   "Any coat other than wax or oil goes over wax. Fail.",
			Inputs: "what each coat goes over",
			Fix:    "white spirit and a wash; wax as the last coat",
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
						"A coat over wax slides off. Wax comes last, or not at all."
				}
				return "Old wax under the " + productName(k.Craft, b.Product),
					"A coat over wax slides off. White spirit with fresh rags removes the wax, and a wash removes what is left."
			},
			Repair: func(m *Repairer, h *Hit) {
				b := h.Bound
				if !ownWax(m.Craft, b) {
					m.Rework(b)
					return
				}
				m.waxLast(b)
			},
		},
		{
			Code:   "adhesion.key",
			Stage:  craft.StagePrepare,
			Reach:  Later,
			Title:  "A slick surface without a key",
			Why:    "A smooth film gives a coat nothing to grip until its shine is gone.",
			When:   "The surface lacks so much of the key this coat needs that the bond drops below 85 %. Watch; fail where it drops below what the wear needs.",
			Inputs: "the shine and the scratches under each coat, and how much the coat depends on them",
			Fix:    "scuffing with the right grit, a pad or deglosser; on glass, a primer made for it",
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
					return fmt.Sprintf("%s on %s, which gives it nothing to grip", craft.Upper(productName(k.Craft, b.Product)), onWhat(k, b)),
						fmt.Sprintf("It is too smooth, and sanding would only damage it: this coat loses %.0f %% of its bond. Use a primer made for this surface instead.", (1-b.Factors[surface.Key])*100)
				}
				return fmt.Sprintf("%s on %s that was not scuffed", craft.Upper(productName(k.Craft, b.Product)), onWhat(k, b)),
					fmt.Sprintf("The surface has only %.0f %% of the key it could have, and this coat loses %.0f %% of its bond. Take the shine off, no more.", b.KeyGiven*100, (1-b.Factors[surface.Key])*100)
			},
			Repair: func(m *Repairer, h *Hit) { m.Rework(h.Bound) },
		},
		{
			Code:   "adhesion.too_soon",
			Reach:  Later,
			Title:  "Recoated too soon",
			Why:    "The next coat traps or lifts what is still wet below.",
			When:   "The coat below had too little of the time that it needs at this site. Over water-based coats, under a water-based one, and over shellac: watch below 70 %, fail below 40 %. Over oil, alkyd, water-borne alkyd and solvent primers, or under solvent: watch below 85 %, fail below 60 %. Two-part coats go by their label. In an ordinary room the label's time stands; only outside that does it stretch.",
			Inputs: "the hours since the coat below, and the drying time it needs in the workshop's air",
			Fix:    "waiting",
			Each:   true,
			Step: func(k *Case, e *surface.Event) {
				eachBound(k, e, func(b *surface.Boundary) {
					if early, badly := b.TooEarly(); early && !k.windowElsewhere(b) {
						k.Add(Hit{Severity: tooShort(badly), Step: b.Step, Subject: again(k, b), Bound: b})
					}
				})
			},
			Say: func(k *Case, h *Hit) (string, string) {
				b := h.Bound
				title := fmt.Sprintf("%s too soon after %s", craft.Upper(productName(k.Craft, b.Product)), productName(k.Craft, b.Under))
				if b.Left != craft.NoSaying {
					return title, fmt.Sprintf("Only %s have passed; it is left %s, which is %s here.", measure.Hours(b.Waited), craft.Sayings[b.Left].Words, saidWords(b.Left, k.airSince(b.Step, b.Waited)))
				}
				air := k.airSince(b.Step, b.Waited)
				return title,
					fmt.Sprintf("Only %s have passed; at %s and %s %% humidity the coat below needs %s.", measure.Hours(b.Waited), k.Zone.Units.Temp(air.TempC), measure.Number(math.Round(air.RH*10)/10), measure.Hours(b.Earliest))
			},
			Repair: func(m *Repairer, h *Hit) { m.Wait(h.Bound) },
		},
		{
			Code:   "adhesion.missed_window",
			Reach:  Later,
			Title:  "Recoated too late",
			Why:    "A coat that has hardened past its recoat window must be scuffed before the next one.",
			When:   "A coat goes on after the recoat window of the coat below has closed, without a scuff. Watch; fail where that brings the bond below what the wear needs, and on two-part coats after half as long again.",
			Inputs: "the hours since the coat below, and when its recoat window closes in the workshop's air",
			Fix:    "a scuff; coming back earlier; where a scuff does not help, one more coat of what is below",
			Each:   true,
			Step: func(k *Case, e *surface.Event) {
				eachBound(k, e, func(b *surface.Boundary) {
					if b.Timing != surface.Missed || k.windowElsewhere(b) {
						return
					}
					const wellPast = 1.5
					sev := Watch
					switch low := &k.Craft.Products[b.Under]; {
					case low.TwoPart && b.Waited > wellPast*b.Latest, !low.TwoPart && b.Strength < k.Demand && b.Strength >= b.Factors[surface.Window]*k.Demand:
						sev = Fail
					}
					k.Add(Hit{Severity: sev, Step: b.Step, Subject: again(k, b), Bound: b})
				})
			},
			Say: func(k *Case, h *Hit) (string, string) {
				b := h.Bound
				opens := "Scuff it first."
				if k.Craft.Products[b.Under].NoScuff {
					opens = "Scuffing does not help: it needs a fresh coat of the same."
				}
				return fmt.Sprintf("%s too late over %s", craft.Upper(productName(k.Craft, b.Product)), productName(k.Craft, b.Under)),
					fmt.Sprintf("%s have passed, and its recoat window closes after %s here. "+opens, craft.Upper(measure.Hours(b.Waited)), measure.Hours(b.Latest))
			},
			Repair: func(m *Repairer, h *Hit) {
				b := h.Bound
				under := &m.Craft.Products[b.Under]
				i := b.Step - 1
				switch {
				case under.NoScuff && b.CoatNo == 1:
					m.Edit("Apply "+productName(m.Craft, b.Under)+" once more just before", insert(m.Zone.Steps, i, m.coat(b.Under, 1)))
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
			Code:   "adhesion.saponify",
			Title:  "Oil-based coat straight on zinc or fresh cement",
			Why:    "Zinc and the alkali in new cement and plaster turn oil and alkyd binders to soap. Months later the coat comes off in sheets.",
			When:   "A coat with an oil or alkyd binder goes straight on zinc, or on cement, plaster or stone less than 120 days old: fail; shellac on such fresh mineral: fail. On mineral of unknown age, and from a can whose label does not name its binder on zinc: watch.",
			Inputs: "the binder of each coat on the bare material; the age of the mineral",
			Fix:    "a primer for zinc or an alkali-resistant sealer first; a water-based paint instead; waiting",
			Step: func(k *Case, e *surface.Event) {
				for i := range e.Boundaries() {
					b := &e.Bounds[i]
					switch b.SoapWhy {
					case surface.NoSoap:
					case surface.SoapAge, surface.SoapZincCan:
						k.Add(Hit{Severity: Watch, Step: b.Step, Subject: pair(k, b), Bound: b})
					default:
						k.Add(Hit{Severity: Fail, Step: b.Step, Subject: pair(k, b), Bound: b})
					}
				}
			},
			Say: func(k *Case, h *Hit) (string, string) {
				b := h.Bound
				fresh := measure.Hours(24 * craft.FreshMineral)
				why := "Zinc turns its binder to soap: it looks sound for weeks and then lifts like paper."
				switch b.SoapWhy {
				case surface.SoapZincCan:
					why = "Zinc turns oil and alkyd binders to soap, and what this can is made of is only on its label. Read whether it names galvanised steel."
				case surface.SoapFresh:
					why = fmt.Sprintf("It is %s old, and for about %s its alkali turns an oil binder to soap.", measure.Hours(24*k.Facts.AgeDays), fresh)
				case surface.SoapLime:
					why = fmt.Sprintf("It is %s old, and for about %s its alkali eats shellac.", measure.Hours(24*k.Facts.AgeDays), fresh)
				case surface.SoapAge:
					why = fmt.Sprintf("Its age is not known, and for about %s its alkali turns an oil binder to soap.", fresh)
				}
				return fmt.Sprintf("%s straight on %s", craft.Upper(productName(k.Craft, b.Product)), onWhat(k, b)), why
			},
			Repair: func(m *Repairer, h *Hit) {
				if h.Bound.On == craft.MineralPorous {
					p := m.Craft.First(craft.ForMineral)
					m.Edit("Seal it with alkali-resistant "+productName(m.Craft, p)+" first", insert(m.Zone.Steps, h.Step-1, m.coat(p, 1)))
				}
				m.Rework(h.Bound)
				m.swapEach(h.Bound.Product, "Paint with %s instead", m.Craft.For(craft.ForUsualPaint))
				if h.Bound.On == craft.MineralPorous && m.hit.Case.Facts.AgeDays < 0 {
					m.Measure("Enter its age", craft.FieldAge)
				}
			},
		},
		{
			Code:   "adhesion.flex",
			Reach:  Later,
			Title:  "A rigid coat on something that flexes",
			Why:    "Vinyl cloth, leather and fabric flex every time someone sits down, and a hard film cracks and flakes off.",
			When:   "Enamel, shellac, epoxy, milk paint, oil-based or floor-grade clear, or aerosol paint goes on vinyl cloth, leather or cloth. Fail; watch if it is for display only.",
			Inputs: "whether the material flexes, and how rigid each coat dries",
			Fix:    "flexible paint; on cloth, thinned paint used as a dye",
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
					"It dries rigid, and the material flexes. Paint made for vinyl and leather flexes with it."
			},
			Repair: func(m *Repairer, h *Hit) {
				if m.Craft.Substrates[m.Zone.Substrate].Family == craft.Textile {
					m.swapEach(h.Product, "Dye it with %s instead", m.Craft.For(craft.ForDyeing))
				}
				m.swapEach(h.Product, "Paint with %s instead", m.Craft.For(craft.ForFlexing))
				m.without(h.Product)
			},
		},
		{
			Code:   "adhesion.plasticiser",
			Title:  "A coat that plasticiser softens",
			Why:    "Soft vinyl gives off plasticiser into whatever is on it; most coats turn sticky and slide.",
			When:   "A coat lies directly on soft vinyl and lets most of the plasticiser through. Fail.",
			Inputs: "which coat lies on the soft vinyl, and how much plasticiser it lets through",
			Fix:    "flexible paint made for vinyl as the first coat",
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
					fmt.Sprintf("It lets %.0f %% through and the rest softens it. Only a coat made for vinyl may go directly on it.", k.Craft.LetsThrough(h.Product, craft.Plasticiser)*100)
			},
			Repair: func(m *Repairer, h *Hit) {
				m.swapEach(h.Product, "Paint with %s instead", m.Craft.For(craft.ForFlexing))
				p := m.Craft.First(craft.ForFlexing)
				m.Edit("First "+productName(m.Craft, p), insert(m.Zone.Steps, h.Step-1, m.coat(p, 2)))
			},
		},
		{
			Code:   "adhesion.flash_rust",
			Title:  "Water-based coat on bare steel",
			Why:    "Bare steel and iron rust while a water-based coat dries, and the rust is sealed in.",
			When:   "A water-based coat goes on bare steel or iron: fail. Steel that was brushed or sanded bright is washed with water before its primer: watch.",
			Inputs: "whether the first coat on bare steel is water-based",
			Fix:    "rust-inhibiting metal primer, or another solvent-based primer, first",
			Step: func(k *Case, e *surface.Event) {
				for i := range e.Boundaries() {
					b := &e.Bounds[i]
					if b.On == craft.MetalFerrous && b.Bare && k.Craft.Products[b.Product].WaterBased() {
						k.Add(Hit{Severity: Fail, Step: b.Step, Subject: k.Craft.Products[b.Product].ID, Bound: b, Product: b.Product})
					}
				}
				if p := &e.Before.Regions[surface.Field]; e.NBounds > 0 && p.Rusts && p.Bare {
					k.Add(Hit{Severity: Watch, Step: e.Step, Subject: "washed", Product: e.Bounds[0].Product})
				}
			},
			Say: func(k *Case, h *Hit) (string, string) {
				if h.Subject == "washed" {
					return "Bright steel was washed with water", "It turns brown within minutes, and the rust is sealed in. Wash first, then sand it bright, wipe it with alcohol, and prime at once."
				}
				return fmt.Sprintf("%s rusts the steel under it", craft.Upper(productName(k.Craft, h.Product))),
					"Brown specks appear while it dries, and the rust keeps spreading under the paint. A solvent-based metal primer keeps the water away."
			},
			Repair: func(m *Repairer, h *Hit) {
				if h.Subject == "washed" {
					again := surface.Step{Do: surface.Abrade, Grit: craft.Families[craft.MetalFerrous].ScuffGrit, How: craft.Hand}
					m.Edit("Sand it bright again and dust off, just before", insert(m.Zone.Steps, h.Step-1, again, surface.Step{Do: surface.Dust}))
					return
				}
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
			Code:   "adhesion.solvent_lift",
			Reach:  Later,
			Title:  "Strong solvent lifts the layer below",
			Why:    "The solvents in cans, lacquers and epoxy primer swell a young or soft film until it wrinkles, and melt foam.",
			When:   "A can, a lacquer or epoxy primer goes over its own film between its two recoat windows, over an oil or alkyd coat, primer or varnish less than 30 days old, or any solvent on craft foam: fail. Over another water-based coat less than 7 days old, over old alkyd or acrylic paint, shellac or lacquer, or on bare hard plastic: watch. Over new shellac: a note.",
			Inputs: "the solvent in each coat, and what the film below is and how old",
			Fix:    "recoating within the first window or after the second opens; letting it harden; a barrier of shellac; a water-based coat instead",
			Each:   true,
			Step: func(k *Case, e *surface.Event) {
				for i := range e.Boundaries() {
					b := &e.Bounds[i]
					x, ok := lifts[b.LiftWhy]
					if !ok {
						continue
					}
					young := 0.
					if b.Under != craft.NoProduct {
						young = 24 * surface.YoungDays(b.LiftWhy, &k.Craft.Products[b.Under], k.airSince(b.Step, b.Waited))
					}
					k.Add(Hit{Severity: x.severity, Step: b.Step, Subject: x.subject, Bound: b, Product: b.Product, Value: b.Waited, Limit: young})
				}
			},
			Say: func(k *Case, h *Hit) (string, string) {
				b := h.Bound
				name := craft.Upper(productName(k.Craft, h.Product))
				switch b.LiftWhy {
				case surface.LiftBetween:
					return name + " between its two recoat windows", fmt.Sprintf("After %s the coat below is no longer wet and not yet hard: it wrinkles. Recoat within %s, or after %s.", measure.Hours(b.Waited), measure.Hours(k.Craft.Products[b.Under].Recoat.To), measure.Hours(b.Earliest))
				case surface.LiftFoam:
					return name + " melts the foam", "Solvent eats holes into craft foam. Use only water-based coats."
				case surface.LiftYoungOil:
					return fmt.Sprintf("%s wrinkles the %s", name, productName(k.Craft, b.Under)), fmt.Sprintf("It is %s old, and for about %s strong solvent swells what hardens by oil.", measure.Hours(b.Waited), wholeDays(h.Limit))
				case surface.LiftYoungWater:
					return fmt.Sprintf("%s may lift the %s", name, productName(k.Craft, b.Under)), fmt.Sprintf("It is %s old, and for about %s strong solvent can swell it. Start with mist coats, and try it first where it does not show.", measure.Hours(b.Waited), wholeDays(h.Limit))
				case surface.LiftOldFilm:
					return fmt.Sprintf("%s may lift %s", name, onWhat(k, b)), "Its solvent can wrinkle an old film. Try it first where it does not show, and start with mist coats."
				case surface.LiftMist:
					return name + " dissolves the shellac again", "Lay the first coat as a mist and let it flash off: a wet one pulls the shellac about."
				}
				return fmt.Sprintf("%s may craze %s", name, onWhat(k, b)), "Strong solvent attacks it. Start with mist coats, and try it first where it does not show."
			},
			Repair: func(m *Repairer, h *Hit) {
				b := h.Bound
				switch b.LiftWhy {
				case surface.LiftBetween:
					first := *b
					first.Earliest = m.Craft.Products[b.Under].Recoat.From
					m.Sooner(&first)
					m.waitHours(b, b.Earliest)
					return
				case surface.LiftMist:
					m.Acknowledge()
					return
				case surface.LiftYoungOil, surface.LiftYoungWater:
					m.waitHours(b, h.Limit)
					p := m.Craft.First(craft.ForBarrier)
					m.Edit("Isolate it with "+productName(m.Craft, p)+" first", insert(m.Zone.Steps, b.Step-1, m.coat(p, 1)))
				case surface.LiftOldFilm:
					p := m.Craft.First(craft.ForBarrier)
					m.Edit("Isolate it with "+productName(m.Craft, p)+" first", insert(m.Zone.Steps, b.Step-1, m.coat(p, 1)))
				}
				switch m.Craft.Products[h.Product].Role {
				case craft.RoleClear:
					m.swapEach(h.Product, "Seal with %s instead", m.Craft.For(craft.ForPlainSeal))
				case craft.RolePrimer:
					m.swapEach(h.Product, "Prime with %s instead", m.Craft.For(craft.ForEvenGround))
				default:
					m.swapEach(h.Product, "Paint with %s instead", m.Craft.For(craft.ForUsualPaint))
				}
			},
		},
		{
			Code:   "adhesion.waxy_shellac",
			Reach:  Later,
			Title:  "Polyurethane on waxy shellac",
			Why:    "Polyurethane does not grip shellac that contains wax: it peels off in sheets.",
			When:   "A polyurethane or water-based clear goes on shellac that contains wax: fail. On an old shellac finish, which usually does: watch.",
			Inputs: "the shellac under each clear coat",
			Fix:    "dewaxed shellac instead, or in between; wax or shellac as the last coat",
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
					"The wax in the shellac stops it gripping. Dewaxed shellac takes any clear."
			},
			Repair: func(m *Repairer, h *Hit) {
				p := m.Craft.First(craft.ForBarrier)
				if w := h.Bound.Under; w != craft.NoProduct {
					m.swapEach(w, "%s, dewaxed, below instead", []craft.Product{p})
				}
				m.Edit("One coat of dewaxed "+productName(m.Craft, p)+" between", insert(m.Zone.Steps, h.Step-1, m.coat(p, 1)))
			},
		},
		{
			Code:   "adhesion.clash",
			Reach:  Later,
			Title:  "Two coats that must not lie on each other",
			Why:    "Some coats attack each other where they meet, however well each grips by itself.",
			When:   "A two-part coat goes on shellac or on etch primer. Fail, unless its label allows it.",
			Inputs: "each pair of coats that lie on each other",
			Fix:    "leaving out one of the two; another primer",
			Step: func(k *Case, e *surface.Event) {
				for i := range e.Boundaries() {
					if b := &e.Bounds[i]; b.Clash(k.Craft) != nil {
						k.Add(Hit{Severity: Fail, Step: b.Step, Subject: pair(k, b), Bound: b})
					}
				}
			},
			Say: func(k *Case, h *Hit) (string, string) {
				return fmt.Sprintf("%s must not lie on %s", craft.Upper(productName(k.Craft, h.Bound.Product)), productName(k.Craft, h.Bound.Under)),
					h.Bound.Clash(k.Craft).Says + " Only a label that names the pair allows it."
			},
			Repair: func(m *Repairer, h *Hit) {
				b := h.Bound
				m.without(b.Under)
				m.without(b.Product)
				m.swapEach(b.Under, "%s below instead", []craft.Product{m.Craft.First(craft.ForEvenGround)})
				m.swapEach(b.Product, "Prime with %s instead", m.Craft.For(craft.ForEvenGround))
			},
		},
		{
			Code:   "adhesion.divided",
			Reach:  Later,
			Title:  "Where painters divide",
			Why:    "Some do it and it mostly goes well; others have seen it peel and never would.",
			When:   "Matt decorative paint on scuffed laminate or melamine without a primer, or floor-grade clear on new shellac, where the bond would be just enough. Watch.",
			Inputs: "the coat, and what it goes on",
			Fix:    "what makes it sure: a primer in between",
			Step: func(k *Case, e *surface.Event) {
				eachBound(k, e, func(b *surface.Boundary) {
					if b.Divided(k.Craft) != nil && b.Strength >= k.Demand && !k.crackles(b) {
						k.Add(Hit{Severity: Watch, Step: b.Step, Subject: pair(k, b), Bound: b})
					}
				})
			},
			Say: func(k *Case, h *Hit) (string, string) {
				b := h.Bound
				return fmt.Sprintf("%s straight on %s", craft.Upper(productName(k.Craft, b.Product)), onWhat(k, b)), b.Divided(k.Craft).Says
			},
			Divides: func(k *Case, h *Hit) *craft.Divide { return h.Bound.Divided(k.Craft) },
			Repair:  func(m *Repairer, h *Hit) { m.Rework(h.Bound) },
		},
		{
			Code:   "adhesion.oxide",
			Title:  "The oxide has grown back",
			Why:    "Light alloy grows a new skin of oxide within hours after it was scuffed, and a coat on that comes off with it.",
			When:   "The first coat on bare light alloy comes more than four hours after it was scuffed. Watch.",
			Inputs: "the hours between the scuffing of the metal and its first coat",
			Fix:    "scuffing it just before",
			Step: func(k *Case, e *surface.Event) {
				p := &e.Before.Regions[surface.Field]
				if e.NBounds == 0 || !p.Bare || p.Top != craft.MetalLight || !p.Bright {
					return
				}
				const grows = 4.
				if since := e.Begun - p.BrightAt; since > grows+rounding {
					k.Add(Hit{Severity: Watch, Step: e.Step, Value: since, Limit: grows})
				}
			},
			Say: func(_ *Case, h *Hit) (string, string) {
				return "", fmt.Sprintf("The first coat comes %s after the metal was scuffed. Scuff it, wipe it with alcohol and coat it within %s.", measure.Hours(h.Value), measure.Hours(h.Limit))
			},
			Figures: func(_ *Case, h *Hit) []Figure {
				return []Figure{{"since_h", h.Value, "after it was scuffed"}, {"within_h", h.Limit, "within which it should be coated"}}
			},
			Repair: func(m *Repairer, h *Hit) {
				scuff := surface.Step{Do: surface.Abrade, Grit: craft.Families[craft.MetalLight].ScuffGrit, How: craft.Hand}
				m.Edit("Scuff it again and dust off, just before", insert(m.Zone.Steps, h.Step-1, scuff, surface.Step{Do: surface.Dust}))
				m.Edit("Coat it at once", slices.DeleteFunc(slices.Clone(m.Zone.Steps), func(s surface.Step) bool { return s.Do == surface.Wait }))
			},
		},
		{
			Code:   "adhesion.powder_wood",
			Title:  "Powder paint on wood that pushes it off",
			Why:    "Powder paint without additive holds in clean close-grained wood. Resin, oil, tannin, and what a stripper leaves in the pores, keep it out in places.",
			When:   "Powder paint without additive goes straight on bare resinous, oily or tannin-rich wood, or on wood that was stripped in the same plan. Watch.",
			Inputs: "the bare wood, what bleeds from it, and whether it was stripped",
			Fix:    "bonding additive; a coat of shellac or primer below",
			Step: func(k *Case, e *surface.Event) {
				sub := &k.Craft.Substrates[k.Facts.Substrate]
				if e.NBounds == 0 || sub.Group != craft.GroupWood {
					return
				}
				eachBound(k, e, func(b *surface.Boundary) {
					if !b.Bare || k.Craft.Products[b.Product].Coat != craft.MK || b.Additive > 0 || b.Region != surface.Field {
						return
					}
					lv := surface.Levels(k.Craft, k.Facts)
					why := ""
					switch {
					case e.Before.Regions[surface.Field].Stripped:
						why = "stripped"
					case b.On == craft.WoodOily:
						why = "oily"
					case lv[craft.Resin] > 0:
						why = "resinous"
					case lv[craft.Tannin] > 1:
						why = "rich in tannin"
					default:
						return
					}
					k.Add(Hit{Severity: Watch, Step: b.Step, Subject: why, Bound: b})
				})
			},
			Say: func(k *Case, h *Hit) (string, string) {
				if h.Subject == "stripped" {
					return "Powder paint on freshly stripped wood", "What the stripper leaves in the pores keeps it off in places. Seal the wood first, or mix in bonding additive."
				}
				return "Powder paint on wood that is " + h.Subject, craft.Upper(craft.Lower(k.Craft.Substrates[k.Facts.Substrate].Name)) + " keeps it from soaking in evenly, and it may come off in places. Seal the wood first, or mix in bonding additive."
			},
			Repair: func(m *Repairer, h *Hit) {
				m.Rework(h.Bound)
				p := m.Craft.First(craft.ForBarrier)
				m.Edit("Seal it with two coats of "+productName(m.Craft, p)+" and mix in bonding additive", mixedIn(m, insert(m.Zone.Steps, h.Step-1, m.coat(p, 2))))
			},
		},
		{
			Code:   "adhesion.additive_gap",
			Title:  "Additive in some coats but not in others",
			Why:    "Bonding additive holds only the coat it is in: coats above without it can chip off.",
			When:   "Some coats of powder paint contain the additive and others do not, and nothing is meant to flake. Watch.",
			Inputs: "the additive in every coat of powder paint",
			Fix:    "the same additive in every coat",
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
				return "", fmt.Sprintf("One coat contains additive, %s parts to one of paint; this step has a coat without it. Add it to every coat that must hold.", measure.Number2(h.Value))
			},
			Figures: func(_ *Case, h *Hit) []Figure {
				return []Figure{{"additive", h.Value, "parts of bonding additive to one of paint, where there is any"}}
			},
			Repair: func(m *Repairer, h *Hit) {
				steps := slices.Clone(m.Zone.Steps)
				for i := range steps {
					if s := &steps[i]; s.Do == surface.Coat && m.Craft.Products[s.Product].Coat == craft.MK {
						s.Additive, s.AdditiveFirst = h.Value, false
					}
				}
				m.Edit("Put the additive in every coat", steps)
			},
		},
		{
			Code:   "adhesion.untested",
			Stage:  craft.NoStage,
			Reach:  Survey,
			Title:  "The surface is untested",
			Why:    "A plan for an unknown surface is a guess.",
			When:   "The material or its finish is not known, and coats are planned. Watch; a note once small tests have narrowed it down and the plan is judged for all that is left; no finding once a patch test on the piece itself was rated.",
			Inputs: "whether the material and the finish were tested",
			Fix:    "a small test or a rated patch",
			End: func(k *Case) {
				if !k.Coated || slices.ContainsFunc(k.patchTests, func(b surface.PatchTest) bool { return b.Hidden }) {
					return
				}
				if k.Craft.Substrates[k.Zone.Substrate].Unknown {
					k.Add(Hit{Severity: untested(k, (*identify.Belief).MaterialTested), Subject: "substrate", Unsure: true})
				}
				if k.Craft.Finishes[k.Zone.Finish].Unknown {
					k.Add(Hit{Severity: untested(k, (*identify.Belief).Touched), Subject: "finish", Unsure: true})
				}
			},
			Say: func(k *Case, h *Hit) (string, string) {
				b := k.Zone.Tests
				open := b != nil && len(b.Answers) > 0
				switch {
				case open && h.Severity == Watch && h.Subject == "finish":
					return "The finish was only looked at", b.Says() + " Appearances can mislead: do at least one small test in a hidden spot."
				case open && h.Subject == "substrate":
					return "The material is not certain", b.Says() + leftOpen
				case open:
					return "The finish is not certain", b.Says() + leftOpen
				case h.Subject == "substrate":
					return "The material is not known", "The plan is judged for the worst case. Edges, backs, weight and a drop of water tell you more."
				}
				return "The finish is not known", "The plan is judged for every old finish it may have, and the worst is reported. A rub with white spirit and one with alcohol in a hidden spot tell you more."
			},
			Repair: func(m *Repairer, h *Hit) {
				title := "Find out which finish it has"
				if h.Subject == "substrate" {
					title = "Find out what it is made of"
				}
				m.Measure(title, craft.FieldIdentify)
			},
		},
		{
			Code:   "adhesion.doubted",
			Reach:  Survey,
			Title:  "The tests contradict the survey",
			Why:    "A plan for the wrong surface does not work on the right one.",
			When:   "The tests leave less than one chance in five for the material or finish in the survey, and coats are planned. Watch.",
			Inputs: "how likely the material and finish in the survey are after the tests",
			Fix:    "checking again what it is",
			End: func(k *Case) {
				if !k.Coated {
					return
				}
				known := k.Zone.Known(k.Craft)
				if known.Substrate == identify.Doubted {
					k.Add(Hit{Severity: Watch, Subject: "substrate", Unsure: true})
				}
				if known.Finish == identify.Doubted {
					k.Add(Hit{Severity: Watch, Subject: "finish", Unsure: true})
				}
			},
			Say: func(k *Case, h *Hit) (string, string) {
				said := k.Craft.Finishes[k.Zone.Finish].Name
				if h.Subject == "substrate" {
					said = k.Craft.Substrates[k.Zone.Substrate].Name
				}
				return "The tests contradict " + craft.Lower(said), k.Zone.Tests.Says() + " The plan is judged for that as well as for what is in the survey."
			},
			Figures: func(k *Case, h *Hit) []Figure {
				known := k.Zone.Known(k.Craft)
				p := known.PFinish
				if h.Subject == "substrate" {
					p = known.PSubstrate
				}
				return []Figure{{"belief", p, "probability of what is in the survey, from the tests; an estimate"}}
			},
			Repair: func(m *Repairer, _ *Hit) { m.Measure("See the test results", craft.FieldIdentify) },
		},
	}
}

const leftOpen = " The plan is judged for everything that is still possible, and the worst is reported."

// untested is how severe it is that something is not known: once it was tested
// for, and the answers fit something, the verdict rests on what they leave.
func untested(k *Case, tested func(*identify.Belief) bool) Severity {
	if b := k.Zone.Tests; b != nil && tested(b) && !b.Excluded() {
		return Note
	}
	return Watch
}

// mixedIn is a plan with half bonding additive in every coat of powder paint.
func mixedIn(m *Repairer, steps []surface.Step) []surface.Step {
	for i := range steps {
		if s := &steps[i]; s.Do == surface.Coat && m.Craft.Products[s.Product].Coat == craft.MK {
			s.Additive, s.AdditiveFirst = craft.AdditiveFull, false
		}
	}
	return steps
}

// wholeDays writes hours as days, rounded up: nobody knows them closer.
func wholeDays(hours float64) string {
	return measure.Count(int(math.Ceil(hours/24)), "day", "days")
}

// lifts are how bad it is that strong solvent works on what is below.
var lifts = map[surface.LiftWhy]struct {
	severity Severity
	subject  string
}{
	surface.LiftFoam:       {Fail, "foam"},
	surface.LiftBetween:    {Fail, "between"},
	surface.LiftYoungOil:   {Fail, "young"},
	surface.LiftYoungWater: {Watch, "young"},
	surface.LiftOldFilm:    {Watch, "soft"},
	surface.LiftPlastic:    {Watch, "soft"},
	surface.LiftMist:       {Note, "mist"},
}

// tooShort is how severe too short a wait is.
func tooShort(badly bool) Severity {
	if badly {
		return Fail
	}
	return Watch
}

// saidWords is what a saying means in the workshop's air.
func saidWords(s craft.Saying, air drying.Climate) string {
	from, to := drying.Said(s, air)
	return fmt.Sprintf("%.0f to %.0f h", from, to)
}

// windowElsewhere tells whether another rule covers the window below a coat: mediums and tacky
// coats under a crackle, size, glaze, and clear under glaze or wax.
func (k *Case) windowElsewhere(b *surface.Boundary) bool {
	if b.Under == craft.NoProduct {
		return false
	}
	low := &k.Craft.Products[b.Under]
	rubbed, _ := low.HardUnder(&k.Craft.Products[b.Product])
	return k.crackles(b) || low.Coat == craft.GZ || low.Tacky.To > 1 || rubbed > 0
}

// underWax tells whether a coat that is neither wax nor oil goes on wax.
func underWax(k *Case, b *surface.Boundary) bool {
	return b.On == craft.WaxFilm && !waxy(k, b.Product)
}

// resisted tells whether wax was applied in spots on purpose, for powder paint to come off there.
func (k *Case) resisted(b *surface.Boundary) bool {
	return b.Region == surface.SpotRegion && k.meantToFlake(b)
}

// split proposes to scuff between the coats of one step.
func (m *Repairer) split(b *surface.Boundary) {
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

// waxLast proposes to move the plan's own wax, which lies under b's coat, to the
// end, or to take it off again.
func (m *Repairer) waxLast(b *surface.Boundary) {
	steps := m.Zone.Steps
	for i := b.Step - 2; i >= 0; i-- {
		if steps[i].Do == surface.Coat && steps[i].Product == b.Under {
			moved := append(append(append([]surface.Step{}, steps[:i]...), steps[i+1:]...), steps[i])
			m.Edit("Put the wax last", moved)
			break
		}
	}
	at := b.Step - 1
	wash := m.cleaning(craft.WaxPolish, 1)
	m.Edit("Remove the wax before this coat", insert(steps, at, wash...))
}
