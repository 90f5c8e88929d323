package check

import (
	"fmt"
	"slices"

	"rutile/core/colour"
	"rutile/core/craft"
	"rutile/core/quantity"
	"rutile/core/shelf"
	"rutile/core/surface"
)

// ColourOff is the CIEDE2000 difference from which a can is not the colour that is wanted: others see it
// without being told. Working default.
const ColourOff = 3.

// can is the can that a product is; nil for a kind.
func (k *Case) can(p craft.Product) *Can {
	if p == craft.NoProduct {
		return nil
	}
	if n := k.Craft.Products[p].Can; n > 0 && n <= len(k.Zone.Cans) {
		return &k.Zone.Cans[n-1]
	}
	return nil
}

// eachCan asks about every step that is taken from a can, once for each can.
func (k *Case) eachCan(ask func(step int, s *surface.Step, x *Can)) {
	if len(k.Zone.Cans) == 0 {
		return
	}
	var seen []*Can
	for i := range k.Zone.Steps {
		s := &k.Zone.Steps[i]
		if s.Do != surface.Coat {
			continue
		}
		if x := k.can(s.Product); x != nil && !slices.Contains(seen, x) {
			seen = append(seen, x)
			ask(i+1, s, x)
		}
	}
}

// canOf is the can of a finding, and what it is called within a sentence.
func canOf(k *Case, h *Hit) (*Can, string) {
	x := k.can(h.Product)
	return x, "“" + x.Title(k.Craft) + "”"
}

// another takes what a finding's can was for from another can of the kind.
func another(m *Repairer, h *Hit) {
	kind := m.Craft.KindOf(h.Product)
	steps := slices.Clone(m.Zone.Steps)
	for i := range steps {
		if s := &steps[i]; s.Do == surface.Coat && s.Product == h.Product {
			s.Product = kind
		}
	}
	m.Edit("Take another can of "+craft.Lower(m.Craft.Products[kind].Name), steps)
}

// Excluded is the surface under a boundary's coat, where the label of the coat's can excludes it.
func Excluded(c *craft.Craft, f *surface.Facts, b *surface.Boundary) (craft.Family, bool) {
	l := c.Products[b.Product].Label
	if l == nil {
		return 0, false
	}
	if sub := c.Substrates[f.Substrate].Family; b.Bare && l.Excludes(sub) {
		return sub, true
	}
	return b.On, l.Excludes(b.On)
}

// Unfit are the uses of a zone that a label excludes.
func Unfit(f *surface.Facts, l *craft.Label) craft.Uses {
	if l == nil {
		return 0
	}
	uses := f.Uses
	if f.Wear == craft.Outdoor {
		uses |= craft.UseOutdoor
	}
	return l.NotFor & uses
}

// shortfall is what the zone's plan takes of a can beyond what is in it, in litres, with what is there; both
// are 0 where it is enough, or the area is not known.
func (k *Case) shortfall(n int) (missing, there float64) {
	x := &k.Zone.Cans[n-1]
	need := 0.
	for _, coat := range quantity.Coats(k.Craft, &quantity.Zone{Facts: k.Facts, Relief: k.Zone.Relief, Trace: &k.Trace}, 0) {
		switch {
		case x.Kind == craft.NoProduct:
			need += coat.Additive.Likely
		case coat.Can == n:
			need += coat.Paint.Likely
		}
	}
	there = max(0, x.Holds()-x.Elsewhere)
	if x.Kind == craft.NoProduct {
		there = 0
		for i := range k.Zone.Cans {
			if o := &k.Zone.Cans[i]; o.Kind == craft.NoProduct {
				there += max(0, o.Holds())
			}
		}
		there = max(0, there-x.Elsewhere)
	}
	const exact = 1e-6
	if need <= there+exact {
		return 0, 0
	}
	return need - there, there
}

func mixRules() []Rule {
	return []Rule{
		{
			Code:   "mix.label",
			Stage:  craft.StageCoats,
			Reach:  Tail,
			Harm:   HarmPeel,
			Title:  "The label of the can forbids it",
			Why:    "Whoever made it has tried it. What a label excludes has failed on a test bench, or hurts somebody, and nobody answers for it.",
			When:   "A can that a coat is taken from excludes the surface that the coat goes on, or a use of the zone. Fail.",
			Inputs: "what the labels of the cans exclude; what each coat goes on; how the zone is used",
			Fix:    "another can; another product; a coat between",
			End: func(k *Case) {
				if len(k.Zone.Cans) == 0 {
					return
				}
				for i := range k.Trace.Events {
					e := &k.Trace.Events[i]
					for j := range e.Boundaries() {
						b := &e.Bounds[j]
						if _, no := Excluded(k.Craft, k.Facts, b); no && k.can(b.Product) != nil {
							k.Add(Hit{Severity: Fail, Step: b.Step, Subject: pair(k, b), Bound: b, Product: b.Product})
						}
					}
				}
				k.eachCan(func(step int, s *surface.Step, _ *Can) {
					if no := Unfit(k.Facts, k.Craft.Products[s.Product].Label); no != 0 {
						k.Add(Hit{Severity: Fail, Step: step, Subject: "use", Product: s.Product, Value: float64(no)})
					}
				})
			},
			Say: func(k *Case, h *Hit) (string, string) {
				_, name := canOf(k, h)
				if h.Bound != nil {
					on, _ := Excluded(k.Craft, k.Facts, h.Bound)
					return "The label of " + name + " excludes " + craft.Families[on].Name, "From the label: not for " + craft.Families[on].Name + ". The label decides, whatever the tables here say."
				}
				uses := craft.List(craft.Uses(h.Value).Names())
				return "The label of " + name + " excludes this use", "From the label: not for " + uses + ". The label decides, whatever the tables here say."
			},
			Repair: func(m *Repairer, h *Hit) {
				another(m, h)
				if b := h.Bound; b != nil && !b.First {
					m.without(b.Under)
				}
				m.without(h.Product)
				m.Measure("Read the label again, and correct what the shelf says of it", craft.FieldCan)
			},
		},
		{
			Code:   "mix.short",
			Reach:  Tail,
			Harm:   HarmLook,
			Title:  "It will run out",
			Why:    "A can that runs out half-way leaves a coat with an edge in it, and the next can is seldom quite the same. Bonding additive that runs out leaves the last coats without it.",
			When:   "What the piece takes of a can, or of the bonding additive, is more than is left. Watch.",
			Inputs: "the area, relief and absorbency of every zone, each coat with its method and thinning, and what is left in the cans",
			Fix:    "buying more before the first coat; another can for the last coats; correcting what is left",
			End: func(k *Case) {
				told := false
				for n := range k.Zone.Cans {
					x := &k.Zone.Cans[n]
					if x.Kind == craft.NoProduct && told {
						continue
					}
					missing, there := k.shortfall(n + 1)
					if missing == 0 {
						continue
					}
					h := Hit{Severity: Watch, Subject: x.ID, Product: craft.NoProduct, Value: missing, Limit: there}
					if x.Kind == craft.NoProduct {
						told = true
						h.Step = k.additiveStep()
					} else {
						h.Product = k.rowOf(n + 1)
						h.Step = k.lastOf(h.Product)
					}
					k.Add(h)
				}
			},
			Say: func(k *Case, h *Hit) (string, string) {
				u := k.Zone.Units
				if h.Product == craft.NoProduct {
					return "The bonding additive runs out", fmt.Sprintf("The coats of the piece need %s more than the %s that are there. It must be in every coat that is to hold.", u.Volume(h.Value), u.Volume(h.Limit))
				}
				x, name := canOf(k, h)
				words := func(l float64) string { return shelf.Amount(k.Craft, x.Kind, l, u) }
				why := fmt.Sprintf("%s are left for this zone, and it needs %s more.", words(h.Limit), words(h.Value))
				if x.Elsewhere > 0 {
					why += fmt.Sprintf(" The other zones take %s.", words(x.Elsewhere))
				}
				return name + " is not enough", why
			},
			Figures: func(k *Case, h *Hit) []Figure {
				return []Figure{{"missing_l", h.Value, "litres missing for a usual hand"}, {"there_l", h.Limit, "litres left for this zone"}}
			},
			Repair: func(m *Repairer, h *Hit) {
				if h.Product != craft.NoProduct {
					another(m, h)
				}
				m.Measure("Correct what is left, or buy more", craft.FieldCan)
			},
		},
		{
			Code:   "mix.life",
			Reach:  Tail,
			Harm:   HarmPeel,
			Title:  "The can is past its life",
			Why:    "Old shellac stays tacky, old paint has lumps or has gone off, and a hardener that drew damp no longer hardens.",
			When:   "A can that a coat is taken from was opened, or bought, longer ago than it keeps. Watch.",
			Inputs: "when the cans were opened or bought, and how long their kinds keep",
			Fix:    "trying it on a board or on glass first; a fresh can",
			End: func(k *Case) {
				k.eachCan(func(step int, s *surface.Step, x *Can) {
					if l := shelf.LifeOf(k.Craft, &x.Can, k.Zone.Today, k.Zone.Units); l.Past() {
						k.Add(Hit{Severity: Watch, Step: step, Subject: x.ID, Product: s.Product, Value: float64(-l.Left)})
					}
				})
			},
			Say: func(k *Case, h *Hit) (string, string) {
				x, name := canOf(k, h)
				why := "It was " + shelf.LifeOf(k.Craft, &x.Can, k.Zone.Today, k.Zone.Units).Says + "."
				if k.Craft.Products[h.Product].Carrier == craft.Alcohol {
					return name + " is past its life", why + " Put a drop on glass: it must dry hard overnight."
				}
				return name + " is past its life", why + " Stir it, strain it, and try it on a board."
			},
			Figures: func(k *Case, h *Hit) []Figure {
				return []Figure{{"days_past", h.Value, "days past what such a can keeps; a working default"}}
			},
			Repair: func(m *Repairer, h *Hit) {
				another(m, h)
				m.Measure("Try it, and correct its date", craft.FieldCan)
			},
		},
		{
			Code:   "mix.reserved",
			Reach:  Tail,
			Harm:   HarmLook,
			Title:  "The can is reserved for another piece",
			Why:    "Two pieces that count on one can leave one of them short.",
			When:   "A can that a coat is taken from is reserved for another piece. Watch.",
			Inputs: "what the cans are reserved for",
			Fix:    "another can; giving the reservation up",
			End: func(k *Case) {
				k.eachCan(func(step int, s *surface.Step, x *Can) {
					if x.For != "" {
						k.Add(Hit{Severity: Watch, Step: step, Subject: x.ID, Product: s.Product})
					}
				})
			},
			Say: func(k *Case, h *Hit) (string, string) {
				x, name := canOf(k, h)
				return name + " is reserved", "It is kept for " + x.For + "."
			},
			Repair: func(m *Repairer, h *Hit) {
				another(m, h)
				m.Measure("Give up the reservation", craft.FieldCan)
			},
		},
		{
			Code:   "mix.colour",
			Stage:  craft.StageCoats,
			Reach:  Tail,
			Harm:   HarmLook,
			Title:  "The can is not the colour that is wanted",
			Why:    "However many coats there are, they end in the colour of the can.",
			When:   "The last paint of a solid face is taken from a can, or a blend, whose colour is more than 3 CIEDE2000 units from the one wanted. Watch.",
			Inputs: "the colours of the cans and the wanted colour",
			Fix:    "a blend that comes nearer; another can; wanting the colour of the can",
			End: func(k *Case) {
				if k.Look != nil || len(k.Zone.Cans) == 0 || len(k.Appearance.Paints) == 0 {
					return
				}
				last := &k.Appearance.Paints[len(k.Appearance.Paints)-1]
				x := k.can(last.Product)
				want, ok := colour.Parse(k.Zone.Colour)
				if x == nil || !ok || x.Colour == "" || k.Craft.Products[last.Product].Role != craft.RolePaint {
					return
				}
				if off := colour.Difference(last.Colour, colour.Masstone(want)); off > ColourOff {
					k.Add(Hit{Severity: Watch, Step: last.Step, Subject: x.ID, Product: last.Product, Value: off, Limit: ColourOff})
				}
			},
			Say: func(k *Case, h *Hit) (string, string) {
				_, name := canOf(k, h)
				want, _ := colour.Parse(k.Zone.Colour)
				is, _ := k.Zone.ColourOf(&k.Craft.Products[h.Product], k.Zone.Steps[h.Step-1].Colour)
				return name + " does not reach the colour", fmt.Sprintf("It is %s than %s. More coats do not change that; look for a blend that comes nearer.", colour.Against(is, want), colour.NameHex(k.Zone.Colour))
			},
			Figures: func(k *Case, h *Hit) []Figure {
				return []Figure{{"off", h.Value, "CIEDE2000 units between the can and the wanted colour; an estimate"}}
			},
			Repair: func(m *Repairer, h *Hit) {
				another(m, h)
				m.Measure("Look for a blend, or choose the colour of the can", craft.FieldCan)
			},
		},
	}
}

// rowOf is the product of a can, from 1.
func (k *Case) rowOf(n int) craft.Product {
	for i := range k.Craft.Products {
		if k.Craft.Products[i].Can == n {
			return craft.Product(i)
		}
	}
	return craft.NoProduct
}

// lastOf is the last step, from 1, of a product.
func (k *Case) lastOf(p craft.Product) int {
	for i := len(k.Zone.Steps) - 1; i >= 0; i-- {
		if s := &k.Zone.Steps[i]; s.Do == surface.Coat && s.Product == p {
			return i + 1
		}
	}
	return 0
}

// additiveStep is the last step, from 1, with bonding additive.
func (k *Case) additiveStep() int {
	for i := len(k.Zone.Steps) - 1; i >= 0; i-- {
		if s := &k.Zone.Steps[i]; s.Do == surface.Coat && s.Additive > 0 {
			return i + 1
		}
	}
	return 0
}
