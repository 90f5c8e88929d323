package check

import (
	"fmt"
	"math"
	"slices"

	"rutile/core/craft"
	"rutile/core/drying"
	"rutile/core/measure"
	"rutile/core/surface"
)

// hotOrWet tells whether hot or wet things stand on it.
func hotOrWet(f *surface.Facts) bool {
	return f.Uses&craft.HotItems != 0 || f.Wear == craft.WetWear
}

func useRules() []Rule {
	return []Rule{
		{
			Code:   "use.wear",
			Reach:  Tail,
			Title:  "Protection too weak for the wear",
			Why:    "Wax on a table top and flat varnish on a seat wear through in weeks, and then the paint goes.",
			When:   "The last coats are softer than the wear needs: by one grade, watch; by two or more, fail. Wax fails by three, because it can be renewed. Grades run from wax and wall emulsion, 1, to floor-grade clear, 5; a single coat of clear counts one less, and so does a flat one. Emulsion left bare where hands go: a note.",
			Inputs: "the last coats down to the paint, their sheen and their number, and the wear",
			Fix:    "a harder clear; a second coat; more shine",
			End: func(k *Case) {
				g, p, ok := k.durability()
				asked := craft.DurabilityNeeded[k.Facts.Wear]
				if !ok {
					return
				}
				row := &k.Craft.Products[p]
				fails := 2
				if row.Role == craft.RoleWax {
					fails = 3
				}
				switch short := asked - g; {
				case short >= fails:
					k.Add(Hit{Severity: Fail, Step: k.stepOf(p), Value: float64(g), Limit: float64(asked), Product: p})
				case short > 0:
					k.Add(Hit{Severity: Watch, Step: k.stepOf(p), Value: float64(g), Limit: float64(asked), Product: p})
				case short == 0 && k.Facts.Wear == craft.Handled && row.Coat == craft.AC && row.Role == craft.RolePaint:
					k.Add(Hit{Severity: Note, Step: k.stepOf(p), Subject: "bare", Value: float64(g), Limit: float64(asked), Product: p})
				}
			},
			Say: func(k *Case, h *Hit) (string, string) {
				if h.Subject == "bare" {
					return craft.Upper(productName(k.Craft, h.Product)) + " is soft where hands go", "Left bare it takes marks and shines where it is rubbed. Two coats of a clear, or trim paint instead, stay clean for longer."
				}
				return fmt.Sprintf("%s is too soft for %s", craft.Upper(productName(k.Craft, h.Product)), craft.Wears[k.Facts.Wear].Phrase),
					fmt.Sprintf("It is %s softer than %s needs. %s is hard enough.", grades(h.Limit-h.Value), craft.Wears[k.Facts.Wear].Phrase, craft.Upper(sealWords(k)))
			},
			Figures: func(_ *Case, h *Hit) []Figure {
				return []Figure{{"rank", h.Value, "durability of the last coats, from 0 to 5; a working default"}, {"asked", h.Limit, "durability that this wear needs, from 0 to 5"}}
			},
			Repair: func(m *Repairer, h *Hit) {
				if h.Severity == Note {
					m.Acknowledge()
					return
				}
				m.harder(h)
			},
		},
		{
			Code:   "use.heat_water",
			Reach:  Tail,
			Title:  "Heat and water mark this",
			Why:    "Hot mugs and wet glasses leave rings in shellac and wax, and in any clear that has not hardened.",
			When:   "The last coat is shellac or wax where hot or wet things stand: fail; on any other table top: watch. With a clear coat there: a note of the day from which hot or wet things may stand on it.",
			Inputs: "the last coat, and what will stand on it",
			Fix:    "a hard water-based or an oil-based clear",
			End: func(k *Case) {
				p := &k.Trace.End.Regions[surface.Field]
				if p.Coats == 0 || p.Product == craft.NoProduct || !hotOrWet(k.Facts) && k.Facts.Wear != craft.Tabletop {
					return
				}
				row := &k.Craft.Products[p.Product]
				g, _, _ := k.durability()
				switch {
				case row.Coat == craft.WX && g >= craft.DurabilityNeeded[craft.Tabletop]: // polish over a hard clear
				case (row.Coat == craft.SH || row.Coat == craft.WX) && hotOrWet(k.Facts):
					k.Add(Hit{Severity: Fail, Step: k.stepOf(p.Product), Subject: "marks", Product: p.Product})
				case row.Coat == craft.SH || row.Coat == craft.WX:
					k.Add(Hit{Severity: Watch, Step: k.stepOf(p.Product), Subject: "marks", Product: p.Product})
				case row.Role == craft.RoleClear:
					if c, ok := curedIn(k.Craft, k.Facts, &k.Trace); ok {
						k.Add(Hit{Severity: Note, Step: k.stepOf(p.Product), Subject: "young", Value: c.Hard, Product: p.Product})
					}
				}
			},
			Say: func(k *Case, h *Hit) (string, string) {
				if h.Subject == "young" {
					return "Nothing hot or wet on it yet", fmt.Sprintf("%s is hard enough about %s after the last step, at this temperature.", craft.Upper(productName(k.Craft, h.Product)), measure.Count(int(math.Ceil(h.Value)), "day", "days"))
				}
				return craft.Upper(productName(k.Craft, h.Product)) + " gets rings from heat and water", "A hot mug or a wet glass marks it within minutes. " + craft.Upper(sealWords(k)) + " withstands both once it is hard."
			},
			Figures: func(_ *Case, h *Hit) []Figure {
				if h.Subject == "young" {
					return []Figure{{"days", h.Value, "days after the last step; an estimate"}}
				}
				return nil
			},
			Repair: func(m *Repairer, h *Hit) {
				if h.Subject == "young" {
					m.Acknowledge()
					return
				}
				m.harder(h)
			},
		},
		{
			Code:   "use.outdoor",
			Reach:  Tail,
			Title:  "Indoor products outdoors",
			Why:    "Sun, rain and frost destroy indoor paints and clears in a season.",
			When:   "The piece stands outdoors, and its last coat is not weatherproof: fail. A coat below that is not: watch.",
			Inputs: "where the piece is used, and whether every product is weatherproof",
			Fix:    "exterior paint or enamel; an oil-based clear",
			End: func(k *Case) {
				if k.Facts.Uses&craft.UseOutdoor == 0 && k.Facts.Wear != craft.Outdoor {
					return
				}
				top := k.Trace.End.Regions[surface.Field].Product
				for i := range k.Zone.Steps {
					s := &k.Zone.Steps[i]
					if s.Do != surface.Coat || s.Scope != surface.All && k.Craft.Products[s.Product].Coat != craft.SH || !k.Craft.Products[s.Product].LeavesFilm() || k.Craft.Products[s.Product].Outside {
						continue
					}
					sev := Watch
					if s.Product == top {
						sev = Fail
					}
					k.Add(Hit{Severity: sev, Step: i + 1, Subject: k.Craft.Products[s.Product].ID, Product: s.Product})
				}
			},
			Say: func(k *Case, h *Hit) (string, string) {
				if k.Craft.Products[h.Product].Coat == craft.SH && h.Severity == Watch {
					return craft.Upper(productName(k.Craft, h.Product)) + " below a coat outdoors", "Frost and sun make shellac brittle, also on knots alone and under enamel. It delays them for some years."
				}
				return craft.Upper(productName(k.Craft, h.Product)) + " is for indoor use", "Weather destroys it. Outdoors, the label of every coat must say that it is weatherproof."
			},
			Repair: func(m *Repairer, h *Hit) {
				switch row := &m.Craft.Products[h.Product]; row.Role {
				case craft.RolePaint:
					m.swapEach(h.Product, "Paint with %s instead", m.Craft.For(craft.ForOutdoorPaint))
				case craft.RolePrimer:
					m.swapEach(h.Product, "Prime with %s instead", m.Craft.For(craft.ForOutdoorPrimer))
				default:
					m.swapEach(h.Product, "Seal with %s instead", m.Craft.For(craft.ForSeal(craft.Outdoor)))
					m.without(h.Product)
				}
				m.outdoors()
			},
		},
		{
			Code:   "use.food",
			Harm:   HarmPeople,
			Title:  "It touches food",
			Why:    "Whatever comes off a coat ends up in the food on it.",
			When:   "The surface touches food, and coats are planned. A caution to acknowledge.",
			Inputs: "what the piece is used for",
			Fix:    "reading what the maker says in writing, and recording that you read it",
			End: func(k *Case) {
				if k.Facts.Uses&craft.Food != 0 && k.Coated {
					k.Add(Hit{Severity: Note, Step: k.lastStep()})
				}
			},
			Say: func(*Case, *Hit) (string, string) {
				return "", "Use only products whose maker says in writing that they may touch food, and only once they are fully cured. Confirm it with the maker; local rules decide. It is better to leave the surface that touches food bare."
			},
			Repair: acknowledge,
		},
		{
			Code:   "use.child",
			Harm:   HarmPeople,
			Title:  "A child may chew it",
			Why:    "Children lick, chew and swallow whatever they can reach.",
			When:   "The piece is for a child, and coats are planned. A caution to acknowledge.",
			Inputs: "what the piece is used for",
			Fix:    "reading the label, and recording that you read it",
			End: func(k *Case) {
				if k.Facts.Uses&craft.Child != 0 && k.Coated {
					k.Add(Hit{Severity: Note, Step: k.lastStep()})
				}
			},
			Say: func(*Case, *Hit) (string, string) {
				return "", "Check that every label names a toy standard (for example EN 71-3), and what local law requires of cots and toys; bars of a cot stand 45 to 65 mm apart (EN 716). Hand it over only fully cured, and put anti-tip straps back on."
			},
			Repair: acknowledge,
		},
		{
			Code:   "use.target",
			Harm:   HarmPeople,
			Reach:  Survey,
			Title:  "The look does not suit the use",
			Why:    "Some looks do not survive some uses: flakes on a toy, dead-flat varnish on a table top.",
			When:   "A flaking look is wanted on a seat, a table top, a floor, in a wet place, where it touches food or a child uses it; or a dead-flat sheen on a table top, a floor or in a wet place. Watch.",
			Inputs: "the wanted look and sheen, the wear and the use",
			Fix:    "another look, another sheen, or another use",
			End: func(k *Case) {
				w := k.Facts.Wear
				if k.Chippy && (w == craft.Seat || w == craft.Tabletop || w == craft.Floor || w == craft.WetWear || k.Facts.Uses&(craft.Child|craft.Food) != 0) {
					k.Add(Hit{Severity: Watch, Subject: "flakes", Refuses: k.Facts.Uses&(craft.Child|craft.Food) != 0})
				}
				if k.Zone.Sheen == craft.DeadFlat && (w == craft.Tabletop || w == craft.Floor || w == craft.WetWear) {
					k.Add(Hit{Severity: Watch, Subject: "flat"})
				}
			},
			Say: func(k *Case, h *Hit) (string, string) {
				if h.Subject == "flat" {
					return "Dead flat on " + craft.Wears[k.Facts.Wear].Phrase, "The flattest clears are the softest: they polish up and mark where hands and plates go. Matt or eggshell lasts longer."
				}
				where := craft.Wears[k.Facts.Wear].Phrase
				switch {
				case k.Facts.Uses&craft.Child != 0:
					where = "what a child plays with"
				case k.Facts.Uses&craft.Food != 0:
					where = "what food lies on"
				}
				return "Flakes on " + where, "Paint that is meant to flake keeps flaking, into hands, mouths and food. A sealed worn or crackled look stays in place."
			},
			Repair: func(m *Repairer, h *Hit) {
				if h.Subject == "flat" {
					m.Measure("Choose a sheen that lasts there", craft.FieldSheen)
					return
				}
				m.Measure("Choose a look that stays in place", craft.FieldLook)
			},
		},
		{
			Code:   "use.too_early",
			Title:  "Put back together too early",
			Why:    "Handles leave prints, hinges stick and screws tear paint that is dry but not yet hard. Food and children need it hard all the way through.",
			When:   "The piece is put back together before its coat may be painted over: by the same shares as a coat that comes too soon. Before the next day: watch. The next day, while it is still soft: a note. For food or a child before it is fully cured: fail.",
			Inputs: "how long the last coat below any wax has dried at that step, what it is, and what the piece is used for",
			Fix:    "waiting",
			Step: func(k *Case, e *surface.Event) {
				if e.Doing.Do != surface.Reassemble {
					return
				}
				p, at := k.decides(e)
				if p == craft.NoProduct {
					return
				}
				low := &k.Craft.Products[p]
				waited, air := e.Begun-at, k.Facts.Air(at, e.Begun)
				if k.Facts.Uses&(craft.Food|craft.Child) != 0 {
					if full := 24 * drying.FullCure(low, air); drying.Whole.Short(waited, full) > 0 {
						k.Add(Hit{Severity: Fail, Step: e.Step, Subject: "cure", Value: waited, Limit: full, Product: p})
						return
					}
				}
				if k.Facts.Touching {
					return // another rule covers touching parts
				}
				from, _ := surface.Recoats(low, air)
				day, _ := drying.Said(craft.ADay, air)
				switch n := drying.ToleranceOf(low, low).Short(waited, from); {
				case n > 0:
					k.Add(Hit{Severity: tooShort(n > 1), Step: e.Step, Subject: "wet", Value: waited, Limit: max(from, day), Product: p})
				case waited < day-rounding:
					k.Add(Hit{Severity: Watch, Step: e.Step, Subject: "wet", Value: waited, Limit: day, Product: p})
				default:
					if careful := hoursToCure(k.Craft, k.Facts, &surface.Region{Product: p}, cureCareful); waited < careful-rounding {
						k.Add(Hit{Severity: Note, Step: e.Step, Subject: "young", Value: waited, Limit: careful, Product: p})
					}
				}
			},
			Divides: func(_ *Case, h *Hit) *craft.Divide {
				if h.Subject != "young" {
					return nil
				}
				return &craft.Divide{Says: "Painters divide here. Most put handles back the next day and now and then find a print below a rosette; others wait a week."}
			},
			Say: func(k *Case, h *Hit) (string, string) {
				name, dried, need := craft.Upper(productName(k.Craft, h.Product)), measure.Hours(h.Value), measure.Hours(h.Limit)
				switch h.Subject {
				case "cure":
					return "Put back before it is fully cured", fmt.Sprintf("%s has dried for %s, and is fully hard after about %s here. What a child or food touches must be.", name, dried, need)
				case "young":
					return "Put back while it is still soft", fmt.Sprintf("%s has dried for %s. Handles and knobs may go on with care: do them up loosely, nothing on it, and no rosette pressed in before %s.", name, dried, need)
				}
				return "", fmt.Sprintf("%s has dried for %s; give it %s before anything is screwed on or put on it.", name, dried, need)
			},
			Figures: waitFigures,
			Repair: func(m *Repairer, h *Hit) {
				waitBefore(m, h)
				if h.Subject == "young" {
					m.Acknowledge()
				}
			},
		},
		{
			Code:       "use.unsealed",
			Unfinished: true,
			Reach:      Tail,
			Title:      "Matt paint left unsealed",
			Why:        "Porous paint marks from every hand, cup and cloth until wax, oil or a clear coat seals it.",
			When:       "The last coat is porous and nothing seals it. Watch; fail where the wear is hard: seats, table tops, wet places, outdoors, floors.",
			Inputs:     "what the last coat is, and the wear",
			Fix:        "wax, oil or a clear coat that suits the wear",
			End: func(k *Case) {
				p := &k.Trace.End.Regions[surface.Field]
				if p.Coats == 0 || p.Top != craft.PorousPaint || p.Product == craft.NoProduct {
					return
				}
				sev := Watch
				if craft.Wears[k.Facts.Wear].Hard || k.Facts.Uses&craft.UseOutdoor != 0 {
					sev = Fail
				}
				k.Add(Hit{Severity: sev, Step: len(k.Zone.Steps)})
			},
			Say: func(k *Case, _ *Hit) (string, string) {
				p := k.Trace.End.Regions[surface.Field].Product
				return craft.Upper(productName(k.Craft, p)) + " is left unsealed",
					"It is porous and will mark. For " + wearWords(k) + ", " + sealWords(k) + " seals it."
			},
			Repair: func(m *Repairer, _ *Hit) { m.seals() },
		},
	}
}

func sealWords(k *Case) string {
	var w []string
	for _, p := range k.Craft.For(craft.ForSeal(k.Facts.Wear)) {
		w = append(w, productName(k.Craft, p))
	}
	if len(w) > 1 {
		return w[0] + " or " + w[1]
	}
	return craft.List(w)
}

// seals proposes a seal that suits the wear, as the last step.
func (m *Repairer) seals() {
	seals := m.Craft.For(craft.ForSeal(m.hit.Case.Facts.Wear))
	if m.hit.Case.Chippy {
		seals = m.Craft.For(craft.ForWax)
	}
	for _, p := range seals {
		s := m.coat(p, 2)
		if m.Craft.Products[p].Role == craft.RoleWax {
			s = m.coat(p, 1)
			s.Method = "rag"
		}
		m.Edit("Seal it with "+craft.Lower(StepWords(m.Craft, &s)), insert(m.Zone.Steps, len(m.Zone.Steps), s))
	}
}

// harder proposes the seals that stand the wear: in place of the last clear or
// wax, or over a paint that has none.
func (m *Repairer) harder(h *Hit) {
	from := m.lastCoat(craft.RolePaint) + 1
	// What an effect applies is part of the look and stays below the seal.
	for i := len(m.Zone.Steps) - 1; i >= from; i-- {
		if s := &m.Zone.Steps[i]; s.Do == surface.Effect || s.Do == surface.Coat && m.Craft.Products[s.Product].Role == craft.RoleMedium {
			from = i + 1
			break
		}
	}
	for _, p := range m.Craft.For(craft.ForSeal(m.hit.Case.Facts.Wear)) {
		for _, coats := range []int{2, 3} {
			s := m.coat(p, coats)
			if m.Craft.Products[p].Role == craft.RoleClear {
				s.Sheen = max(m.Zone.Sheen, 0)
			} else {
				s.Coats, s.Method = 1, "rag"
			}
			var out []surface.Step
			laid := false
			for i, x := range m.Zone.Steps {
				seals := x.Do == surface.Coat && (m.Craft.Products[x.Product].Role == craft.RoleClear || m.Craft.Products[x.Product].Role == craft.RoleWax || x.Product == h.Product && m.Craft.Products[x.Product].Role != craft.RolePaint)
				if i >= from && seals {
					if !laid {
						out = append(out, s)
					}
					laid = true
					continue
				}
				out = append(out, x)
			}
			if !laid {
				out = append(out, s)
			}
			m.Edit("Seal it with "+craft.Lower(StepWords(m.Craft, &s)), out)
			if s.Sheen != craft.NoSheen && s.Sheen <= craft.Matt {
				shines := slices.Clone(out)
				for i := range shines {
					if shines[i].Do == surface.Coat && shines[i].Product == p {
						shines[i].Sheen = craft.Eggshell
					}
				}
				m.Edit("Seal it with "+craft.Lower(StepWords(m.Craft, &s))+", in eggshell", shines)
			}
		}
	}
	for i := range m.Zone.Steps[from:] {
		if s := &m.Zone.Steps[from+i]; s.Do == surface.Coat && s.NumCoats() == 1 && m.Craft.Products[s.Product].Role == craft.RoleClear {
			m.change("Two coats of "+productName(m.Craft, s.Product), from+i+1, func(s *surface.Step) { s.Coats = 2 })
		}
	}
}

// outdoors proposes the plan with every indoor product replaced by the usual weatherproof one.
func (m *Repairer) outdoors() {
	indoors := 0
	for i := range m.Zone.Steps {
		if s := &m.Zone.Steps[i]; s.Do == surface.Coat && m.Craft.Products[s.Product].LeavesFilm() && !m.Craft.Products[s.Product].Outside {
			indoors++
		}
	}
	if indoors < 2 {
		return // exchanging that one is enough
	}
	for _, paint := range m.Craft.For(craft.ForOutdoorPaint) {
		steps := slices.Clone(m.Zone.Steps)
		for i := range steps {
			s := &steps[i]
			if s.Do != surface.Coat || m.Craft.Products[s.Product].Outside || !m.Craft.Products[s.Product].LeavesFilm() {
				continue
			}
			p := paint
			switch m.Craft.Products[s.Product].Role {
			case craft.RolePrimer:
				p = m.Craft.First(craft.ForOutdoorPrimer)
			case craft.RoleClear, craft.RoleWax:
				p = m.Craft.First(craft.ForSeal(craft.Outdoor))
			}
			n := m.coat(p, s.NumCoats())
			n.Colour = s.Colour
			steps[i] = n
		}
		m.Edit("Paint with "+productName(m.Craft, paint)+", and use weatherproof products for everything else", steps)
		bare := slices.DeleteFunc(slices.Clone(steps), func(s surface.Step) bool {
			r := m.Craft.Products[s.Product].Role
			return s.Do == surface.Coat && (r == craft.RoleClear || r == craft.RoleWax)
		})
		m.Edit("Paint with "+productName(m.Craft, paint)+", which is weatherproof without a clear", bare)
	}
}
