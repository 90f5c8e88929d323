package check

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"rutile/core/craft"
	"rutile/core/measure"
	"rutile/core/surface"
)

// demandRules compare effects with what their rows need: the base below them, the hours after them
// and the coats over them.
func demandRules() []Rule {
	return []Rule{
		{
			Code:   "effect.ground",
			Reach:  Later,
			Title:  "The surface does not suit the effect",
			Why:    "White needs pores, a wash can only be wiped back from a sealed surface, flakes need enough paint, and raised work scrapes where parts slide.",
			When:   "Liming on wood without open pores, or with an old finish still in them; a wiped wash or paper on unsealed matt paint; raised work on a part that slides or touches; fewer than two coats of paint that is meant to flake. Watch.",
			Inputs: "the pores of the wood and what fills them, what the effect is worked on, the coats before it, and whether the part slides",
			Fix:    "a coat of clear below; another coat of paint; another look",
			Step: func(k *Case, e *surface.Event) {
				x := k.makes(e)
				if x == nil {
					return
				}
				sub := &k.Craft.Substrates[k.Facts.Substrate]
				about := ""
				switch {
				case x.Pores && !sub.Unknown && sub.Mark() != "open":
					about = "pores"
				case x.Pores && e.Before.Regions[surface.Field].Coats == 0 && !e.Before.Regions[surface.Field].Bare:
					about = "filled"
				case x.Sealed && k.absorbent(e, x):
					about = "absorbent"
				case x.Raised && (k.Facts.GapMM > 0 || k.Facts.Touching):
					about = "slides"
				case x.LeastCoats > 0 && e.Doing.Do == surface.Effect && k.laid(e, craft.MK) == 1:
					about = "coats"
				default:
					return
				}
				k.Add(Hit{Severity: Watch, Step: e.Step, Subject: about + " " + x.ID, Refuses: about == "pores"})
			},
			Say: func(k *Case, h *Hit) (string, string) {
				x := k.demanding(h)
				switch about(h) {
				case "pores":
					return craft.Upper(craft.Lower(k.Craft.Substrates[k.Facts.Substrate].Name)) + " has no open pores to hold it", "White stays in the pores of oak, ash, walnut and similar woods; on close grain it wipes off again or greys the surface."
				case "filled":
					return "The old finish fills the pores", "White needs open pores. Remove the finish and brush the grain out first, or it wipes off again."
				case "absorbent":
					return x.Name + " on absorbent paint", "Unsealed matt paint absorbs it at once, so it can be neither wiped back nor moved. Apply one coat of clear first and let it dry for a day."
				case "slides":
					return x.Name + " where parts slide or touch", "It is raised, so it scrapes in its opening and wears through."
				}
				return "One coat is too thin to flake", "A single coat of powder paint comes off as dust; flakes with an edge need two coats or more."
			},
			Repair: func(m *Repairer, h *Hit) {
				switch about(h) {
				case "filled":
					if m.hit.Case.Craft.Finishes[m.hit.Case.Facts.Finish].Family == craft.WaxFilm {
						at := m.cleanPlace(m.Zone.Steps, h.Step-1)
						m.Edit("Take the wax off with white spirit and wash", insert(m.Zone.Steps, at, m.cleaning(craft.WaxPolish, 1)...))
					} else {
						off := []surface.Step{{Do: surface.Strip, StripHow: "chemical"}, {Do: surface.Abrade, Grit: 180, How: craft.Hand}, {Do: surface.Dust}}
						m.Edit("Strip it, sand with 180 and dust off first", insert(m.Zone.Steps, 0, off...))
					}
				case "absorbent":
					p := m.Craft.First(craft.ForPlainSeal)
					at := h.Step - 1
					if m.Zone.Steps[at].Do == surface.Effect && m.hit.Case.demanding(h).Lays == "" { // below the coat that is wiped
						for at--; at > 0 && m.Zone.Steps[at].Do != surface.Coat; {
							at--
						}
					}
					m.Edit("Seal the paint first, and leave it for a day", insert(m.Zone.Steps, max(0, at), m.coat(p, 1), surface.Step{Do: surface.Wait, Hours: 24}))
				case "coats":
					for i := h.Step - 2; i >= 0; i-- {
						if s := &m.Zone.Steps[i]; s.Do == surface.Coat && m.Craft.Products[s.Product].Coat == craft.MK {
							m.change("Two coats of "+productName(m.Craft, s.Product), i+1, func(s *surface.Step) { s.Coats = 2 })
							break
						}
					}
				}
				m.Measure("Choose a look that suits it", craft.FieldLook)
			},
		},
		{
			Code:   "effect.settle",
			Reach:  Later,
			Title:  "Coated before the effect has settled",
			Why:    "Flakes keep coming off for two or three days, and drawn glaze on absorbent paint stays soft as long: a coat over them traps or drags them.",
			When:   "A flaking look is coated before about two days after its last coat of powder paint, or drawn grain waxed before about two days. Watch.",
			Inputs: "the hours between the last powder paint, or the effect, and the next coat",
			Fix:    "waiting",
			Each:   true,
			Step: func(k *Case, e *surface.Event) {
				if e.NBounds == 0 || e.Doing.Do != surface.Coat || e.CoatNo > 1 || e.Doing.Scope != surface.All {
					return
				}
				o := surface.Worked(k.before(e))
				if o == nil {
					return
				}
				x := o.Effect
				if x.RubsOnly && k.Craft.Products[e.Doing.Product].Role != craft.RoleWax {
					return
				}
				since := o.After.Hours
				if x.Flakes() {
					since = k.lastPowder(e)
				}
				if waited := e.Begun - since; !x.Settled(waited) {
					k.Add(Hit{Severity: Watch, Step: e.Step, Subject: x.ID, Value: max(0, waited), Limit: x.Rests, Product: e.Doing.Product})
				}
			},
			Say: func(k *Case, h *Hit) (string, string) {
				x, _ := k.Craft.Effect(h.Subject)
				after := "the effect"
				if k.Craft.Effects[x].Flakes() {
					after = "the last coat of powder paint"
				}
				return craft.Upper(productName(k.Craft, h.Product)) + " before it has settled",
					fmt.Sprintf("%s: it comes %s after %s, and about %s is right.", k.Craft.Effects[x].Name, measure.Hours(h.Value), after, measure.Hours(h.Limit))
			},
			Figures: func(_ *Case, h *Hit) []Figure {
				return []Figure{{"waited_h", h.Value, "since then"}, {"rest_h", h.Limit, "that it should settle"}}
			},
			Repair: func(m *Repairer, h *Hit) {
				more := math.Ceil(h.Limit - h.Value)
				if more > 20 { // a painter counts in days
					more = 24 * math.Ceil(more/24)
				}
				m.Edit("Wait "+measure.Hours(more)+" before it", insert(m.Zone.Steps, h.Step-1, surface.Step{Do: surface.Wait, Hours: more}))
			},
		},
		{
			Code:   "effect.finish",
			Reach:  Later,
			Title:  "The effect needs a different seal",
			Why:    "Stencils and leaf rub off, a brush drags loose pigment, marble needs depth, and enamelware needs shine.",
			When:   "Marble, a stamp, a stencil, leaf or paper ends with nothing over it, or loose pigment without wax: watch. Marble under fewer than three coats of clear, or enamelware flatter than satin: a note.",
			Inputs: "what lies over the last effect, how many coats of it, and the final sheen",
			Fix:    "a seal that suits the wear; wax over pigment; another coat; more shine",
			End: func(k *Case) {
				i := len(k.Trace.Events) - 1
				for i >= 0 && k.Trace.Events[i].Effect == nil {
					i--
				}
				if i < 0 || k.Trace.End.Regions[surface.Field].Coats == 0 || k.Trace.End.Regions[surface.Field].Top == craft.PorousPaint && len(k.over(i)) == 0 {
					return // another rule covers unsealed porous paint
				}
				x, step, over := k.Trace.Events[i].Effect, k.Trace.Events[i].Step, k.over(i)
				clears := 0
				for _, p := range over {
					if k.Craft.Products[p].Role == craft.RoleClear {
						clears++
					}
				}
				role := func(p craft.Product) bool { return slices.Contains(x.SealedBy, k.Craft.Products[p].Role) }
				switch final := k.finalSheen(); {
				case len(x.SealedBy) > 0 && len(over) > 0 && !slices.ContainsFunc(x.SealedBy, func(r craft.Role) bool { return r != craft.RoleWax }) && !role(over[0]):
					k.Add(Hit{Severity: Watch, Step: step, Subject: "wax " + x.ID})
				case len(x.SealedBy) > 0 && !slices.ContainsFunc(over, role):
					k.Add(Hit{Severity: Watch, Step: step, Subject: "open " + x.ID})
				case clears > 0 && clears < x.ClearCoats && !k.tooSoft(): // otherwise it is another clear that is wanted
					k.Add(Hit{Severity: Note, Step: step, Subject: "coats " + x.ID, Value: float64(clears), Limit: float64(x.ClearCoats)})
				case final != craft.NoSheen && final < x.Shines:
					k.Add(Hit{Severity: Note, Step: step, Subject: "shine " + x.ID, Value: float64(final), Limit: float64(x.Shines)})
				}
			},
			Say: func(k *Case, h *Hit) (string, string) {
				x := k.demanding(h)
				switch about(h) {
				case "wax":
					return "Loose pigment under a brush", "A wet coat drags it out of the cracks. Clear or white wax lifts the excess and holds the rest."
				case "coats":
					return fmt.Sprintf("%s needs %.0f coats of clear", x.Name, h.Limit), fmt.Sprintf("%s planned: it looks printed until there is some depth over it.", craft.Upper(measure.Count(int(h.Value), "coat is", "coats are")))
				case "shine":
					return x.Name + " needs a shine", "Enamel shines. Under " + craft.Sheens[int(h.Value)].Name + " it looks like paint; use satin or gloss."
				}
				return x.Name + " left unsealed", "Nothing seals it: it rubs off under hands, and leaf tarnishes. For " + wearWords(k) + ", " + sealWords(k) + " seals it."
			},
			Figures: func(_ *Case, h *Hit) []Figure {
				if about(h) != "coats" {
					return nil
				}
				return []Figure{{"planned", h.Value, "planned coats of clear over it"}, {"wanted", h.Limit, "coats of clear that it needs"}}
			},
			Repair: func(m *Repairer, h *Hit) {
				end := len(m.Zone.Steps)
				switch about(h) {
				case "wax":
					p := m.Craft.First(craft.ForWax)
					m.swapClears("Seal it with %s instead", []craft.Product{p})
					s := m.coat(p, 1)
					s.Method = "rag"
					m.Edit("Wax it first", insert(m.Zone.Steps, h.Step, s))
				case "coats":
					for i := h.Step; i < end; i++ {
						if s := &m.Zone.Steps[i]; s.Do == surface.Coat && m.Craft.Products[s.Product].Role == craft.RoleClear {
							n := s.NumCoats() + int(h.Limit-h.Value)
							m.change(fmt.Sprintf("%d coats of %s", n, productName(m.Craft, s.Product)), i+1, func(s *surface.Step) { s.Coats = n })
						}
					}
				case "shine":
					if i := m.hit.Case.lastStep(); i > 0 {
						m.change(craft.Upper(productName(m.Craft, m.Zone.Steps[i-1].Product))+" in satin", i, func(s *surface.Step) { s.Sheen = craft.Satin })
					}
				default:
					m.seals()
				}
			},
		},
	}
}

// about is the kind of demand, and demanding the effect: the two words of its subject.
func about(h *Hit) string {
	a, _, _ := strings.Cut(h.Subject, " ")
	return a
}

func (k *Case) demanding(h *Hit) *craft.EffectRow {
	_, id, _ := strings.Cut(h.Subject, " ")
	x, _ := k.Craft.Effect(id)
	return &k.Craft.Effects[x]
}

// makes is the effect that an event makes: by a step of its own, or by a coat
// that makes the wanted look. Nil for anything else.
func (k *Case) makes(e *surface.Event) *craft.EffectRow {
	if e.Effect != nil || k.Look == nil || e.Doing.Do != surface.Coat || e.CoatNo > 1 {
		return e.Effect
	}
	if slices.Contains(k.Look.By, k.Craft.Products[e.Doing.Product].ID) {
		return k.Look
	}
	return nil
}

// absorbent tells whether an effect is worked over absorbent paint: what is on top, or below the wash
// that is wiped back, unless that is a wash too.
func (k *Case) absorbent(e *surface.Event, x *craft.EffectRow) bool {
	if x.Lays != "" {
		p := &e.Before.Regions[surface.Field]
		return p.Top == craft.PorousPaint && p.Product != craft.NoProduct
	}
	below := k.before(e)
	for i := len(below) - 1; i >= 0; i-- {
		if veil := &below[i]; veil.Doing.Do == surface.Coat && veil.Doing.Scope == surface.All {
			b := &veil.Bounds[0]
			return veil.NBounds > 0 && b.On == craft.PorousPaint && b.Under != craft.NoProduct && b.Under != b.Product
		}
	}
	return false
}

// lastPowder is when the last coat of powder paint before an event was laid, in hours; 0 where there is
// none.
func (k *Case) lastPowder(e *surface.Event) float64 {
	below := k.before(e)
	for i := len(below) - 1; i >= 0; i-- {
		if s := below[i].Doing; s.Do == surface.Coat && k.Craft.Products[s.Product].Coat == craft.MK {
			return below[i].After.Regions[surface.Field].At
		}
	}
	return 0
}

// over lists the coats on the whole face after an event, in order.
func (k *Case) over(event int) []craft.Product {
	var out []craft.Product
	for i := range k.Trace.Events[event+1:] {
		if s := k.Trace.Events[event+1+i].Doing; s.Do == surface.Coat && s.Scope == surface.All && k.Craft.Products[s.Product].LeavesFilm() {
			out = append(out, s.Product)
		}
	}
	return out
}
