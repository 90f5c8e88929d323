package check

import (
	"fmt"

	"rutile/core/craft"
	"rutile/core/measure"
	"rutile/core/quantity"
	"rutile/core/surface"
)

// owned asks about each coat of which the plan says how much is mixed, with its batch. Where the area is not known
// there is none.
func (k *Case) owned(ask func(s *surface.Step, coat *quantity.Coat, b *quantity.Batch)) {
	own := false
	for i := range k.Zone.Steps {
		own = own || k.Zone.Steps[i].Mix().Paint > 0
	}
	if !own {
		return
	}
	coats := quantity.Coats(k.Craft, &quantity.Zone{Facts: k.Facts, Relief: k.Zone.Relief, Trace: &k.Trace}, 0)
	for i := range coats {
		x := &coats[i]
		s := &k.Zone.Steps[x.Step-1]
		if s.Mix().Paint == 0 {
			continue
		}
		b := quantity.BatchOf(x, quantity.Mixing{Craft: k.Craft, Facts: k.Facts, Step: s, Air: k.Facts.Climate, Measures: measure.UsualMeasures(k.Zone.Units)})
		ask(s, x, &b)
	}
}

// asNeeded repairs an amount that the plan names by naming none: the cards then divide what the coat takes into pots.
func asNeeded(label string) func(*Repairer, *Hit) {
	return func(m *Repairer, h *Hit) {
		m.change(label, h.Step, func(s *surface.Step) { s.Remix(func(m *surface.Mix) { m.Paint = 0 }) })
	}
}

// potRules are about what is mixed for one coat.
func potRules() []Rule {
	return []Rule{
		{
			Code:   "mix.pot_life",
			Reach:  Tail,
			Harm:   HarmPeel,
			Title:  "More is mixed than can be used in time",
			Why:    "Past its pot life a two-part coat no longer bites, and powder paint has begun to spoil. It still looks like paint, and goes on badly.",
			When:   "The amount that the plan says to mix for a coat takes longer to lay than three quarters of its pot life in this air: watch; longer than all of it: fail. Where the plan names no amount, the cards divide it into pots.",
			Inputs: "how much is mixed for each coat, how long it takes to lay, and its pot life at this temperature",
			Fix:    "mixing what the coat needs, in several pots",
			End: func(k *Case) {
				k.owned(func(_ *surface.Step, coat *quantity.Coat, b *quantity.Batch) {
					if coat.CoatNo > 1 || !b.Own || b.Life >= craft.Never || b.Refused != "" {
						return
					}
					// All of what is mixed, whether it is for this coat or stands for the next.
					hours := b.Work / 60 * b.Total() / b.Need
					switch {
					case hours > b.Life:
						k.Add(Hit{Severity: Fail, Step: coat.Step, Subject: "pot", Product: coat.Product, Value: hours, Limit: b.Life})
					case hours > .75*b.Life:
						k.Add(Hit{Severity: Watch, Step: coat.Step, Subject: "pot", Product: coat.Product, Value: hours, Limit: b.Life})
					}
				})
			},
			Say: func(k *Case, h *Hit) (string, string) {
				return "", fmt.Sprintf("It takes about %s to lay all of it, and it can be used for %s at %s.", measure.Hours(h.Value), measure.Within(h.Limit), k.Zone.Units.Temp(k.Facts.Climate.TempC))
			},
			Figures: func(_ *Case, h *Hit) []Figure {
				return []Figure{{"laid_h", h.Value, "to lay what is mixed"}, {"pot_life_h", h.Limit, "pot life in this air"}}
			},
			Repair: asNeeded("Mix what the coat needs, in several pots"),
		},
		{
			Code:   "mix.additive",
			Reach:  Tail,
			Harm:   HarmLook,
			Title:  "The additive is not counted in the amount",
			Why:    "Bonding additive has a volume of its own: half a part makes half as much paint again. Who mixes enough paint first and then adds it has a third too much, and runs out of additive.",
			When:   "The plan says how much paint is mixed before the additive, and with the additive that is more than a full brush takes. Watch.",
			Inputs: "how much paint is mixed, its share of additive, and what the coat takes",
			Fix:    "mixing less paint, so that paint and additive together are what the coat takes",
			End: func(k *Case) {
				k.owned(func(_ *surface.Step, coat *quantity.Coat, b *quantity.Batch) {
					if coat.CoatNo == 1 && b.Wasted > 0 {
						k.Add(Hit{Severity: Watch, Step: coat.Step, Subject: "additive", Product: coat.Product, Value: b.Wasted, Limit: b.Need})
					}
				})
			},
			Say: func(k *Case, h *Hit) (string, string) {
				u := k.Zone.Units
				return "", fmt.Sprintf("The coat takes %s, paint and additive together; as planned, %s are left over.", u.Volume(h.Limit), u.Volume(h.Value))
			},
			Figures: func(_ *Case, h *Hit) []Figure {
				return []Figure{{"over_l", h.Value, "litres too much"}, {"need_l", h.Limit, "litres that the coat takes"}}
			},
			Repair: asNeeded("Mix what paint and additive together need"),
		},
		{
			Code:   "mix.batch",
			Reach:  Tail,
			Harm:   HarmLook,
			Title:  "Too little is mixed for the coat",
			Why:    "A second pot in the middle of a face shows: it is never quite the same tone, and the edge has set meanwhile.",
			When:   "The amount that the plan says to mix is less than the coat takes with a usual hand. Watch.",
			Inputs: "how much is mixed, and what the coat takes",
			Fix:    "mixing what the coat takes; ending the pot at an edge",
			End: func(k *Case) {
				k.owned(func(_ *surface.Step, coat *quantity.Coat, b *quantity.Batch) {
					if b.Short > 0 && b.Refused == "" {
						k.Add(Hit{Severity: Watch, Step: coat.Step, Subject: "batch", Product: coat.Product, Value: b.Short, Limit: b.Need})
					}
				})
			},
			Say: func(k *Case, h *Hit) (string, string) {
				u := k.Zone.Units
				return "", fmt.Sprintf("The coat takes %s, and %s of that are missing.", u.Volume(h.Limit), u.Volume(h.Value))
			},
			Figures: func(_ *Case, h *Hit) []Figure {
				return []Figure{{"missing_l", h.Value, "litres missing for a usual hand"}, {"need_l", h.Limit, "litres that the coat takes"}}
			},
			Repair: asNeeded("Mix what the coat takes"),
		},
		{
			Code:   "mix.recipe",
			Reach:  Later,
			Harm:   HarmLook,
			Title:  "The recipe does not make a good paint",
			Why:    "Some recipes that go round set coarse, foam, or draw damp in the finished coat; and glaze with too much colour dries before it can be wiped.",
			When:   "A home-made paint is mixed by a recipe that foams: fail. Glaze has more than half a part of colour to one of medium: watch.",
			Inputs: "the recipes of the coats",
			Fix:    "calcium carbonate or plaster; less colour in the glaze",
			Each:   true,
			Step: func(k *Case, e *surface.Event) {
				s := e.Doing
				if s.Do != surface.Coat || e.CoatNo > 1 {
					return
				}
				switch craft.MixingNamed(k.Craft.Products[s.Product].Mixing).Pour {
				case craft.PourHomeMade:
					if h := craft.HomeMadeNamed(s.Mix().Recipe); h != nil && h.Foams != "" {
						k.Add(Hit{Severity: Fail, Step: e.Step, Subject: h.ID, Product: s.Product})
					}
				case craft.PourGlaze:
					if s.Mix().Tint > craft.MostTint {
						k.Add(Hit{Severity: Watch, Step: e.Step, Subject: "tint", Product: s.Product, Value: s.Mix().Tint, Limit: craft.MostTint})
					}
				}
			},
			Say: func(_ *Case, h *Hit) (string, string) {
				if h.Subject == "tint" {
					return "Too much colour in the glaze", fmt.Sprintf("%s parts of colour to one of medium: above %s it dries like paint and cannot be wiped back.", measure.Number2(h.Value), measure.Number2(h.Limit))
				}
				return "", craft.HomeMadeNamed(h.Subject).Foams
			},
			Figures: func(_ *Case, h *Hit) []Figure {
				if h.Subject != "tint" {
					return nil
				}
				return []Figure{{"mixed", h.Value, "parts of colour to one of medium"}, {"limit", h.Limit, "parts of colour, at the most"}}
			},
			Repair: func(m *Repairer, h *Hit) {
				if h.Subject == "tint" {
					m.change("Take five parts of medium to one of colour", h.Step, func(s *surface.Step) { s.Remix(func(m *surface.Mix) { m.Tint = 0 }) })
					return
				}
				m.change("Take calcium carbonate instead", h.Step, func(s *surface.Step) { s.Remix(func(m *surface.Mix) { m.Recipe = craft.HomeMade[0].ID }) })
			},
		},
		{
			Code:   "mix.lumps",
			Reach:  Later,
			Harm:   HarmLook,
			Title:  "Lumps in the gun, or in the coat",
			Why:    "One grain blocks a nozzle in the middle of a face; under a brush it draws a line through the coat.",
			When:   "What is sprayed, or powder paint, is not strained; powder paint that is sprayed is mixed thicker than equal parts; or a gritty home-made paint is sprayed. Watch.",
			Inputs: "how each coat is mixed, strained and applied",
			Fix:    "straining it; more water; a brush",
			Each:   true,
			Step: func(k *Case, e *surface.Event) {
				s := e.Doing
				if s.Do != surface.Coat || e.CoatNo > 1 {
					return
				}
				row := &k.Craft.Products[s.Product]
				mixing := craft.MixingNamed(row.Mixing)
				sprayed := s.Method == "spray" && !row.Aerosol
				add := func(subject string) {
					k.Add(Hit{Severity: Watch, Step: e.Step, Subject: subject, Product: s.Product})
				}
				switch {
				case s.Mix().Unstrained && (sprayed || row.Powder()):
					add("unstrained")
				case sprayed && row.Powder() && s.WaterRatio > 0 && s.WaterRatio < 1:
					add("thick")
				case sprayed && mixing.Pour == craft.PourHomeMade && craft.HomeMadeNamed(s.Mix().Recipe) != nil && craft.HomeMadeNamed(s.Mix().Recipe).Gritty:
					add("gritty")
				}
			},
			Say: func(k *Case, h *Hit) (string, string) {
				name := craft.Upper(productName(k.Craft, h.Product))
				switch h.Subject {
				case "thick":
					return "Too thick for the gun", name + " with less water than powder has lumps that no filter takes out without taking the paint."
				case "gritty":
					return "Too gritty for the gun", "Plaster leaves grains that block the nozzle, however well it is strained."
				}
				return "", name + " is not strained, as planned."
			},
			Repair: func(m *Repairer, h *Hit) {
				switch h.Subject {
				case "thick":
					m.change("Mix it with equal parts of water", h.Step, func(s *surface.Step) { s.WaterRatio = 1 })
				case "gritty":
					m.change("Brush it", h.Step, func(s *surface.Step) { s.Method = "brush" })
					m.change("Take calcium carbonate instead", h.Step, func(s *surface.Step) { s.Remix(func(m *surface.Mix) { m.Recipe = craft.HomeMade[0].ID }) })
				default:
					m.change("Strain it", h.Step, func(s *surface.Step) { s.Remix(func(m *surface.Mix) { m.Unstrained = false }) })
				}
			},
		},
	}
}
