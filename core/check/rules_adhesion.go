package check

import (
	"fmt"
	"slices"

	"rutile/core/craft"
	"rutile/core/identify"
	"rutile/core/surface"
)

// eachBound calls f for the boundaries that a plan means to hold.
func eachBound(k *Case, e *surface.Event, f func(*surface.Boundary)) {
	for i := range e.Boundaries() {
		if b := &e.Bounds[i]; !k.wantsChips(b) {
			f(b)
		}
	}
}

func pair(k *Case, b *surface.Boundary) string {
	return k.Craft.Products[b.Product].ID + " on " + b.On.String()
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

var adhesionRules = []Rule{
	{
		Code:  "adhesion.weakest",
		Title: "A layer is too weak for the wear",
		Why:   "Paint lets go at its weakest boundary, and everything above goes with it.",
		When:  "The chance that any layer peels under the wear is 10 % or more: watch; 35 % or more: fail.",
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
			k.add(Hit{Severity: Severity(v), Step: w.Step, Bound: &w.Boundary})
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
		Title: "This coat has no business on this surface",
		Why:   "Even clean and keyed, some coats never take to some surfaces.",
		When:  "The grip of the coat on the surface, clean and keyed, is below what the wear asks. Fail.",
		Step: func(k *Case, e *surface.Event) {
			eachBound(k, e, func(b *surface.Boundary) {
				medium := b.Under != craft.NoProduct && k.Craft.Products[b.Under].Coat == craft.CM
				if b.Factors[surface.Grip] < k.Demand && !medium && !underWax(k, b) {
					k.add(Hit{Severity: Fail, Step: b.Step, Subject: pair(k, b), Bound: b})
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
		Title: "Wax under a coat",
		Why:   "Nothing but wax and oil holds on wax.",
		When:  "Any coat but wax or oil goes over wax. Fail.",
		Step: func(k *Case, e *surface.Event) {
			for i := range e.Boundaries() {
				if b := &e.Bounds[i]; underWax(k, b) {
					k.add(Hit{Severity: Fail, Step: b.Step, Subject: pair(k, b), Bound: b})
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
			// The plan's own wax: it goes to the end.
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
		},
	},
	{
		Code:  "adhesion.key",
		Title: "A slick surface without its key",
		Why:   "A smooth film gives a coat nothing to hold on to until its shine is gone.",
		When:  "The surface lacks so much of the key this coat needs that the bond drops below 85 %. Watch; fail where the bond drops below what the wear asks.",
		Step: func(k *Case, e *surface.Event) {
			eachBound(k, e, func(b *surface.Boundary) {
				if !b.MissingKey() || underWax(k, b) {
					return
				}
				sev := Watch
				if b.Strength < k.Demand {
					sev = Fail
				}
				k.add(Hit{Severity: sev, Step: b.Step, Subject: pair(k, b), Bound: b})
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
		Title: "Coated again too soon",
		Why:   "What is still wet below is trapped or lifted by the next coat.",
		When:  "A coat comes before 85 % of the wait that the coat below needs at this site. Watch; fail before half of it, or where the bond drops below what the wear asks.",
		Each:  true,
		Step: func(k *Case, e *surface.Event) {
			eachBound(k, e, func(b *surface.Boundary) {
				const nearly = .85
				if b.Timing != surface.TooSoon || b.Waited >= nearly*b.Earliest {
					return
				}
				sev := Watch
				if b.Waited < b.Earliest/2 || b.Strength < k.Demand {
					sev = Fail
				}
				k.add(Hit{Severity: sev, Step: b.Step, Subject: fmt.Sprint(pair(k, b), b.CoatNo > 1), Bound: b})
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
		Title: "Coated again too late",
		Why:   "A coat that has hardened past its window takes the next one only after a scuff.",
		When:  "A coat comes after the latest that the coat below allows, and nothing scuffed it. Watch; fail where the bond drops below what the wear asks.",
		Each:  true,
		Step: func(k *Case, e *surface.Event) {
			eachBound(k, e, func(b *surface.Boundary) {
				if b.Timing != surface.Missed {
					return
				}
				sev := Watch
				if b.Strength < k.Demand {
					sev = Fail
				}
				k.add(Hit{Severity: sev, Step: b.Step, Subject: fmt.Sprint(pair(k, b), b.CoatNo > 1), Bound: b})
			})
		},
		Say: func(k *Case, h *Hit) (string, string) {
			b := h.Bound
			return fmt.Sprintf("%s too late over %s", craft.Upper(productName(k.Craft, b.Product)), productName(k.Craft, b.Under)),
				fmt.Sprintf("%s have passed, and its window closes after %s here. A scuff opens it again.", craft.Upper(Hours(b.Waited)), Hours(b.Latest))
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
		Code:  "adhesion.untested",
		Title: "Nobody has tested what it is",
		Why:   "A plan for an unknown surface rests on a guess.",
		When:  "The substrate or its finish is not known, and coats are planned. Watch; a note once small tests have narrowed it down and the plan is judged for all that is left; silent once a patch test on the piece itself was rated.",
		End: func(k *Case) {
			if !k.Coated || slices.ContainsFunc(k.Zone.Boards, func(b surface.Board) bool { return b.Hidden }) {
				return
			}
			if k.Craft.Substrates[k.Zone.Substrate].Unknown {
				k.add(Hit{Severity: untested(k, (*identify.Belief).ToldOfMatter), Subject: "substrate"})
			}
			if k.Craft.Finishes[k.Zone.Finish].Unknown {
				k.add(Hit{Severity: untested(k, (*identify.Belief).Touched), Subject: "finish"})
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
			m.Measure(title, "identify")
		},
	},
	{
		Code:  "adhesion.doubted",
		Title: "The tests speak against what was entered",
		Why:   "A plan for the wrong surface is a plan for another piece.",
		When:  "What was tested leaves less than one chance in five to the substrate or the finish that the survey says, and coats are planned. Watch.",
		End: func(k *Case) {
			if !k.Coated {
				return
			}
			known := k.Zone.Known(k.Craft)
			if known.Substrate == identify.Doubted {
				k.add(Hit{Severity: Watch, Subject: "substrate"})
			}
			if known.Finish == identify.Doubted {
				k.add(Hit{Severity: Watch, Subject: "finish"})
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
		Mend: func(m *Mender, _ *Hit) { m.Measure("See what the tests say", "identify") },
	},
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

// underWax tells whether a coat that is neither wax nor oil goes on wax.
func underWax(k *Case, b *surface.Boundary) bool {
	return b.On == craft.WaxFilm && !waxy(k, b.Product)
}

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
