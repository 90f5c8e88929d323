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

// Cautions are notes: they are acknowledged, and do not make a sound plan
// unsound. Lead alone is more.

func dryAbrasion(s *surface.Step) bool { return s.Do == surface.Abrade && s.How != craft.Wet }

// disturbsDry tells whether a step makes dust or fumes of an old coat, and is
// never taken on a suspect of lead.
func disturbsDry(c *craft.Craft, s *surface.Step) bool {
	switch s.Do {
	case surface.Abrade:
		return dryAbrasion(s)
	case surface.Clean:
		return c.Cleaners[s.Cleaner].Loosens
	case surface.Strip:
		how := craft.Treatment(s.StripHow)
		return how != craft.StripChemical && how != craft.StripCaustic
	case surface.Effect:
		x, ok := c.Effect(s.Effect)
		return s.Heat || (s.Grit > 0 || ok && c.Effects[x].Dusty) && !s.Wetted
	}
	return false
}

// reachesOld tells whether a step reaches the old coat: nothing is over it yet, it cuts through, or
// it rubs down as an effect does.
func reachesOld(e *surface.Event) bool {
	return e.Before.Regions[surface.Field].Coats == 0 || e.Doing.Through || e.Doing.Do == surface.Effect || e.Doing.Do == surface.Strip
}

// Barred says why a step cannot be planned at all where the plan has come so far, empty where it can:
// what disturbs a suspect of lead, what ruins the surface or hurts whoever works on it, and what must
// not meet something else in the piece.
func (z *Zone) Barred(c *craft.Craft, s *surface.Step, st *surface.State) string {
	coated := st.Regions[surface.Field].Coats > 0
	if disturbsDry(c, s) && (!coated || s.Through || s.Do != surface.Abrade) && z.LeadBars(c) {
		return "The old coat may contain lead, and this step turns it into dust or fumes. Wait for the result of a laboratory or a licensed assessor."
	}
	if x := stands(c, &z.Facts, s, st); x.Stand == craft.Ruined {
		return x.Says()
	}
	if s.Do == surface.Abrade && st.Regions[surface.Field].Acid && dryAbrasion(s) {
		return "Acid is still in the wood, and its dust burns lungs and eyes. Neutralise and rinse it first."
	}
	if what, ok := ChemicalOf(c, s); ok {
		for _, o := range z.chemicals(c) {
			if x := neverTogether(what, o.What); x != nil {
				where := "in this plan"
				if o.Zone != "" {
					where = "on " + o.Zone
				}
				return fmt.Sprintf("There is %s %s. %s", craft.ChemicalNames[o.What], where, x.Says)
			}
		}
	}
	return ""
}

// Chemical is something in a plan that must not meet certain others.
type Chemical struct {
	What craft.Chemical
	// Zone is the zone it is used on, empty for this one, Step the step, from 1, and At when, in hours
	// after the work on that zone began.
	Zone string
	Step int
	At   float64
}

// ChemicalOf is what a step brings into the room, as far as it must not meet others.
func ChemicalOf(c *craft.Craft, s *surface.Step) (craft.Chemical, bool) {
	switch s.Do {
	case surface.Clean:
		return c.Cleaners[s.Cleaner].Chemical()
	case surface.Coat:
		return c.Products[s.Product].Chemical()
	}
	return 0, false
}

// ChemicalsOf lists those of a zone's plan, under the name that other zones know it by.
func ChemicalsOf(c *craft.Craft, z *Zone, name string) []Chemical {
	if !slices.ContainsFunc(z.Steps, func(s surface.Step) bool { _, ok := ChemicalOf(c, &s); return ok }) {
		return nil
	}
	var t surface.Trace
	t.Walk(c, &z.Facts, z.Steps)
	return chemicalsOf(c, &t, name)
}

func chemicalsOf(c *craft.Craft, t *surface.Trace, name string) []Chemical {
	var out []Chemical
	for i := range t.Events {
		e := &t.Events[i]
		if what, ok := ChemicalOf(c, e.Doing); ok {
			out = append(out, Chemical{what, name, e.Step, e.Begun})
		}
	}
	return out
}

// chemicals are those of the zone's own plan and of the others of its piece.
func (z *Zone) chemicals(c *craft.Craft) []Chemical {
	var out []Chemical
	for i := range z.Steps {
		if what, ok := ChemicalOf(c, &z.Steps[i]); ok {
			out = append(out, Chemical{What: what, Step: i + 1})
		}
	}
	return append(out, z.Beside...)
}

func neverTogether(a, b craft.Chemical) *craft.Mix {
	for i := range craft.NeverTogether {
		if x := &craft.NeverTogether[i]; x.A == a && x.B == b || x.A == b && x.B == a {
			return x
		}
	}
	return nil
}

func safetyRules() []Rule {
	return []Rule{
		{
			Code:   "safety.lead",
			Stage:  craft.StageIdentify,
			Reach:  SoFar | Later | Survey,
			Title:  "Old paint or varnish may contain lead",
			Why:    "Lead dust and fumes poison anyone who breathes or swallows them, children most of all.",
			When:   "Old or undated paint, varnish from before 1980 (or the year that local rules give), and any old or undated coating of a child's piece count as lead until a laboratory or a licensed assessor says no; so does a positive swab. Watch; fail where the plan sands, scrapes, brushes, rubs down or heats it dry, and for every plan of a child's piece in which lead was found. An undated clear or factory film elsewhere, and old glaze: watch, have it tested.",
			Inputs: "the age of the piece, its old coats, any lead result, and each step that makes dust or fumes",
			Fix:    "deglosser instead of sanding; a result from a laboratory or a licensed assessor",
			Step: func(k *Case, e *surface.Event) {
				if k.Barred && disturbsDry(k.Craft, e.Doing) && reachesOld(e) {
					k.Add(Hit{Severity: Fail, Step: e.Step, Subject: surface.Kinds[e.Doing.Do].ID})
				}
			},
			End: func(k *Case) {
				if k.Lead == LeadFound && k.Facts.Uses&craft.Child != 0 {
					k.Add(Hit{Severity: Fail, Subject: "child"})
					return
				}
				said := slices.ContainsFunc(k.hits, func(h Hit) bool { return h.Rule == k.current })
				if (k.Barred || k.Lead == LeadUndated) && !said {
					k.Add(Hit{Severity: Watch, Subject: "suspect", Refuses: k.Barred && k.Facts.Uses&craft.Child != 0})
				}
			},
			Say: func(k *Case, h *Hit) (string, string) {
				rest := " Local rules for lead work, containment, children and pregnancy apply; only a laboratory or a licensed assessor can tell. A home swab cannot."
				state, noted := k.Zone.Lead(k.Craft)
				if noted != "" {
					rest += " " + noted
				}
				switch {
				case h.Subject == "child":
					return "Lead was found, and a child uses it", "No coat makes it safe: children gnaw through. Take it out of use, or have every old coat removed by someone licensed for lead." + rest
				case h.Subject == "suspect" && state == LeadUndated:
					return "Have the old coating tested for lead", "Its age is not known. It is less likely to hold lead than old paint, but a result costs little; until then sand it wet and keep the dust down." + rest
				}
				if h.Subject == "suspect" {
					if state == LeadFound {
						return "The old coats contain lead", "Leave it undisturbed under sound coats, or give the work to a licensed professional." + rest
					}
					return "", "Do not dry-sand, scrape, burn or heat it before it is tested." + rest
				}
				return "Suspected lead must not be disturbed dry", "This step turns a coat that counts as lead into dust or fumes." + rest
			},
			Repair: func(m *Repairer, h *Hit) {
				if h.Subject == "abrade" {
					steps := append([]surface.Step{}, m.Zone.Steps...)
					for i := range steps {
						if steps[i].Do == surface.Coat {
							break
						}
						if dryAbrasion(&steps[i]) {
							cl := m.Craft.CleanersFor(craft.ForDeglossing)[0]
							steps[i] = surface.Step{Do: surface.Clean, Cleaner: cl}
						}
					}
					m.Edit("Dull it with liquid deglosser instead of sanding", steps)
				}
				if h.Subject == "child" {
					m.Measure("Enter a later result by a laboratory or a licensed assessor", craft.FieldLeadTest)
					return
				}
				m.Measure("Have it tested by a laboratory or a licensed assessor, and enter the dated result", craft.FieldLeadTest)
			},
		},
		{
			Code:   "safety.dust",
			Notes:  true,
			Title:  "Sanding dust",
			Why:    "Fine dust harms the lungs; oak, cedar and tropical woods can also cause allergies.",
			When:   "Anything is sanded dry. A caution to acknowledge.",
			Inputs: "how each surface is sanded",
			Fix:    readIt,
			Step: func(k *Case, e *surface.Event) {
				if dryAbrasion(e.Doing) {
					k.Add(Hit{Severity: Note, Step: e.Step})
				}
			},
			Say: func(k *Case, _ *Hit) (string, string) {
				more := ""
				if k.Craft.Substrates[k.Facts.Substrate].Sensitises() {
					more = " The dust of this wood can cause allergies."
				}
				return "", "Use dust extraction and a fitted particle mask, P2 (FFP2) or better; dust of lead paint needs P3. Dust of oil sanded wet, and filters full of it, can heat up by themselves: treat them like oily rags." + more
			},
			Repair: acknowledge,
		},
		{
			Code:   "safety.solvent",
			Notes:  true,
			Title:  "Solvent vapour",
			Why:    "Vapours are harmful and catch fire.",
			When:   "A cleaner or product contains solvent or alcohol. A caution to acknowledge.",
			Inputs: "the solvent in each cleaner and product",
			Fix:    readIt,
			Step: func(k *Case, e *surface.Event) {
				s := e.Doing
				if volatile(k.Craft, s) {
					k.Add(Hit{Severity: Note, Step: e.Step})
				}
			},
			Say: func(*Case, *Hit) (string, string) {
				return "", "Cross-ventilate, wear a vapour respirator where the label asks for one, allow no flames or sparks, and keep lids on. The label and the safety data sheet decide."
			},
			Repair: acknowledge,
		},
		{
			Code:   "safety.alkali",
			Notes:  true,
			Title:  "Caustic cleaner or powder",
			Why:    "Alkali burns skin and eyes.",
			When:   "A caustic cleaner or a powder paint with lime is used. A caution to acknowledge.",
			Inputs: "which cleaners and powders are caustic",
			Fix:    readIt,
			Step: func(k *Case, e *surface.Event) {
				s := e.Doing
				if s.Do == surface.Clean && k.Craft.Cleaners[s.Cleaner].Alkali ||
					s.Do == surface.Coat && k.Craft.Products[s.Product].Alkali {
					k.Add(Hit{Severity: Note, Step: e.Step})
				}
			},
			Say: func(*Case, *Hit) (string, string) {
				return "", "Wear gloves and eye protection; rinse splashes at once with plenty of water."
			},
			Repair: acknowledge,
		},
		{
			Code:   "safety.oily_rags",
			Notes:  true,
			Title:  "Oily rags can catch fire",
			Why:    "Drying oil warms up; a crumpled rag holds the heat until it burns.",
			When:   "An oil, wax oil, wiping varnish, or a stain or glaze with drying oil is used. A caution to acknowledge.",
			Inputs: "whether a product contains drying oil",
			Fix:    readIt,
			Step:   noteStep(func(k *Case, s *surface.Step) bool { return s.Do == surface.Coat && k.Craft.Products[s.Product].Rags }),
			Say: func(*Case, *Hit) (string, string) {
				return "", "Spread rags flat outdoors to dry, or put them in water in a closed metal tin. Never leave them crumpled or in the bin: they can catch fire by themselves."
			},
			Repair: acknowledge,
		},
		{
			Code:   "safety.ammonia_bleach",
			Stage:  craft.StagePrepare,
			Reach:  SoFar,
			Title:  "Cleaners that must never be mixed",
			Why:    "Bleach with ammonia, acid, alcohol or acetone gives off gases that burn the lungs or poison; many biocides contain bleach without saying so in their name.",
			When:   "A biocide or bleach and ammonia, acid (vinegar, oxalic), alcohol or acetone are used within a day of each other on any zones of the piece: fail. A biocide that is not rinsed off before any other wet cleaner: watch. Days apart: a note.",
			Inputs: "the cleaners and treatments of this plan and of the other zones of the piece, and the hours between them",
			Fix:    "leaving one of them out; an ordinary wash instead; a day between them",
			End: func(k *Case) {
				own := chemicalsOf(k.Craft, &k.Trace, "")
				for i := range own {
					for j := range own[:i] {
						a, b := &own[i], &own[j]
						if x := neverTogether(a.What, b.What); x != nil {
							k.mixed(x, sameDay(a, b), craft.ChemicalNames[x.B], max(a.Step, b.Step), min(a.Step, b.Step))
						}
					}
				}
				for here := range craft.NumChemicals {
					for there := range craft.NumChemicals {
						if x := neverTogether(here, there); x != nil {
							k.mixedBeside(x, here, there, own)
						}
					}
				}
				biocide, other := 0, 0
				for i := range k.Zone.Steps {
					if s := &k.Zone.Steps[i]; s.Do == surface.Clean {
						switch row := &k.Craft.Cleaners[s.Cleaner]; {
						case row.Biocide:
							biocide = i + 1
						case row.Carrier == craft.Water && !row.Ammonia:
							other = i + 1
						}
					}
				}
				if biocide > 0 && other > 0 && !k.Zone.Steps[biocide-1].Rinse {
					k.Add(Hit{Severity: Watch, Step: biocide, Subject: "biocide"})
				}
			},
			Say: func(k *Case, h *Hit) (string, string) {
				if h.Subject == "biocide" {
					return "A biocide beside another cleaner", "Most biocides contain bleach: rinse with plenty of water and let it dry before using anything else. Never mix them."
				}
				told, daysApart := strings.CutPrefix(h.Subject, apart)
				name, zone, beside := strings.Cut(told, " on ")
				pair := craft.Upper(name) + " and bleach in one plan"
				if beside {
					here := craft.ChemicalNames[mixes()[int(h.Value)]]
					if name == here {
						here = craft.ChemicalNames[craft.Bleach]
					}
					pair = craft.Upper(here) + " here and " + name + " on " + zone
				}
				says := neverTogether(craft.Bleach, mixes()[int(h.Value)]).Says
				if daysApart {
					return pair + ", days apart", "Keep them apart: another bucket, other rags, the room aired and everything rinsed in between. " + says
				}
				return pair, says + " Never use them together, in one room on one day, or from one bucket. The labels and the safety data sheets decide."
			},
			Repair: func(m *Repairer, h *Hit) {
				if h.Subject == "biocide" {
					m.change("Rinse the biocide off", h.Step, func(s *surface.Step) { s.Rinse = true })
					m.Acknowledge()
					return
				}
				for _, step := range []int{h.Step, int(h.Limit)} {
					s := &m.Zone.Steps[step-1]
					if s.Do != surface.Clean || m.Craft.Cleaners[s.Cleaner].Biocide {
						continue
					}
					name := craft.Lower(m.Craft.Cleaners[s.Cleaner].Name)
					cl := m.Craft.CleanersFor(craft.ForWash)[0]
					m.change("Detergent wash instead of "+name, step, func(s *surface.Step) { *s = surface.Step{Do: surface.Clean, Cleaner: cl, Rinse: true} })
					m.Edit("Leave out the "+name, slices.Delete(slices.Clone(m.Zone.Steps), step-1, step))
				}
				if h.Step != int(h.Limit) {
					m.Edit("Leave two days between them", insert(m.Zone.Steps, h.Step-1, surface.Step{Do: surface.Wait, Hours: 2 * craft.Apart}))
				} else {
					m.Edit("Begin this zone two days later", insert(m.Zone.Steps, 0, surface.Step{Do: surface.Wait, Hours: 2 * craft.Apart}))
				}
				m.Acknowledge()
			},
		},
		{
			Code:   "safety.oxalic",
			Stage:  craft.StagePrepare,
			Title:  "Oxalic acid",
			Why:    "Oxalic acid is poisonous, and the dust of its crystals burns lungs and eyes. What is left in the wood comes through the coats as crystals.",
			When:   "Wood treated with it is sanded dry, or coated, before it was rinsed: fail. Otherwise a caution to acknowledge.",
			Inputs: "the treatment, and what is rinsed, sanded and coated after it",
			Fix:    "neutralising with bicarbonate and rinsing twice; wet sanding",
			Step: func(k *Case, e *surface.Event) {
				if !e.Before.Regions[surface.Field].Acid {
					if e.After.Regions[surface.Field].Acid {
						k.Add(Hit{Severity: Note, Step: e.Step, Subject: "use"})
					}
					return
				}
				switch {
				case dryAbrasion(e.Doing):
					k.Add(Hit{Severity: Fail, Step: e.Step, Subject: "dust"})
				case e.NBounds > 0:
					k.Add(Hit{Severity: Fail, Step: e.Step, Subject: "coat", Product: e.Doing.Product})
				}
			},
			Say: func(k *Case, h *Hit) (string, string) {
				switch h.Subject {
				case "dust":
					return "Oxalic acid sanded dry", oxalicHow
				case "coat":
					return "Oxalic acid left under " + productName(k.Craft, h.Product), oxalicHow
				}
				return "Oxalic acid is poisonous", oxalicHow
			},
			Repair: func(m *Repairer, h *Hit) {
				if h.Subject == "use" {
					m.Acknowledge()
					return
				}
				cl := m.Craft.CleanersFor(craft.ForWash)[0]
				rinse := surface.Step{Do: surface.Clean, Cleaner: cl, Rinse: true}
				m.Edit("Neutralise it and rinse twice first", insert(m.Zone.Steps, h.Step-1, rinse))
				at := h.Step - 1
				for at > 0 && m.Zone.Steps[at-1].Do != surface.Coat {
					at--
				}
				m.Edit("Neutralise it and rinse twice right after it", insert(m.Zone.Steps, at, rinse))
			},
		},
		{
			Code:   "safety.heat_gun",
			Stage:  craft.StagePrepare,
			Title:  "Hot air",
			Why:    "Heat melts plastic, foil and vinyl, scorches cane, cracks glass, lifts veneer, sets nitrocellulose alight, and makes fumes from old paint.",
			When:   "Hot air is used on foam, plastics, foil, vinyl, laminate, cane and grass, glass, cloth or leather, on veneer or over nitrocellulose lacquer: fail. Warm air for flaking paint over veneer, and whatever may crack or discolour: watch. Otherwise a caution to acknowledge.",
			Inputs: "steps that use heat, the material, and the finish on it",
			Fix:    "another way of stripping; no heat",
			Step: func(k *Case, e *surface.Event) {
				if !heats(e.Doing) {
					return
				}
				x := k.stands(e)
				k.Add(Hit{Severity: harmSeverity(x.Stand), Step: e.Step})
			},
			Say: func(k *Case, h *Hit) (string, string) {
				const how = "Exclude lead first. Use a low setting, keep moving, stay away from solvent and glass; check again for smouldering an hour later."
				says := k.standsAt(h.Step).Says()
				switch h.Severity {
				case Fail:
					return "Hot air must not be used here", says
				case Watch:
					return "Hot air may damage it", says + " " + how
				}
				return "", how
			},
			Repair: func(m *Repairer, h *Hit) {
				switch s := &m.Zone.Steps[h.Step-1]; {
				case h.Severity == Note:
					m.Acknowledge()
				case s.Do == surface.Effect:
					m.change("No warm air", h.Step, func(s *surface.Step) { s.Heat = false })
				default:
					m.otherwise(h.Step)
				}
				if h.Severity == Watch {
					m.Acknowledge()
				}
			},
		},
		{
			Code:   "safety.flammable",
			Stage:  craft.StagePrepare,
			Title:  "Vapour beside heat",
			Why:    "Alcohol, acetone, aerosols, shellac and solvents give off vapour until they are dry, and a heat gun, a dryer or a heater can ignite it.",
			When:   "Heat is used before the vapour of alcohol (1 h) or solvent (2 h) is gone, or over shellac or lacquer that is still tacky: fail. Within a day after something flammable: watch. Both are in one plan: a caution to acknowledge.",
			Inputs: "the hours between each flammable step and each step with heat",
			Fix:    "keeping them apart in time and place",
			Step: func(k *Case, e *surface.Event) {
				if !heats(e.Doing) {
					return
				}
				const dry = 24.
				if tacky(e.Doing) {
					k.Add(Hit{Severity: Fail, Step: e.Step, Subject: "tacky", Limit: dry})
					return
				}
				if o := k.vapour(e.Step); o != nil {
					sev, how := Note, "apart"
					switch gap := e.Begun - o.Begun; {
					case gap < k.vapourFor(o.Doing):
						sev, how = Fail, "in"
					case gap < dry:
						sev, how = Watch, "beside"
					}
					k.Add(Hit{Severity: sev, Step: e.Step, Subject: how, Value: e.Begun - o.Begun, Limit: dry})
				}
			},
			Say: func(k *Case, h *Hit) (string, string) {
				if h.Subject == "tacky" {
					return "Hot air over a tacky resist", "Tacky shellac and lacquer are full of solvent, and hot air sets it alight. Use heat only once the paint is on and the vapour is gone."
				}
				title := ""
				if h.Severity == Fail {
					title = "Hot air into vapour that burns"
				}
				return title, fmt.Sprintf("The heat comes %s after %s. Let that dry for a day in moving air, take tins and rags out of the room, and only then use heat.",
					measure.Hours(max(0, h.Value)), craft.Lower(StepWords(k.Craft, k.vapour(h.Step).Doing)))
			},
			Figures: func(_ *Case, h *Hit) []Figure {
				return []Figure{{"between_h", max(0, h.Value), "between them"}, {"apart_h", h.Limit, "needed between them"}}
			},
			Repair: func(m *Repairer, h *Hit) {
				if h.Subject == "tacky" {
					m.change("No warm air at this step", h.Step, func(s *surface.Step) { s.Heat = false })
					return
				}
				if n := h.Limit - max(0, h.Value); n > 0 {
					m.Edit("Wait a day before using heat", insert(m.Zone.Steps, h.Step-1, surface.Step{Do: surface.Wait, Hours: h.Limit}))
				}
				m.Acknowledge()
			},
		},
		{
			Code:   "safety.two_part",
			Title:  "Two-part products can cause allergies",
			Why:    "Epoxy, polyester hardener and cross-linkers make some people allergic for life.",
			When:   "A two-part coat or a cross-linked clear is sprayed: watch. A two-part coat, a two-part filler or a cross-linked clear is used: a caution to acknowledge.",
			Inputs: "whether a product hardens with a second part",
			Fix:    readIt,
			Step: func(k *Case, e *surface.Event) {
				s := e.Doing
				two := s.Do == surface.Coat && k.Craft.Products[s.Product].Sensitises()
				switch {
				case two && s.Method == "spray":
					k.Add(Hit{Severity: Watch, Step: e.Step, Subject: "sprayed"})
				case two, s.Do == surface.Fill && s.With == craft.FillerTwoPart:
					k.Add(Hit{Severity: Note, Step: e.Step})
				}
			},
			Say: func(_ *Case, h *Hit) (string, string) {
				if h.Subject == "sprayed" {
					return "A two-part coat from the gun", "Its mist makes people allergic for life. Brush or roll it; one with isocyanate is never sprayed at home, and the law may ask for training. The label and the safety data sheet decide."
				}
				return "", "Wear gloves and use fresh air; mix small batches, because the pot heats up; keep it off the skin. The label and the safety data sheet decide."
			},
			Repair: func(m *Repairer, h *Hit) {
				if h.Subject == "sprayed" {
					m.change("Brush it instead of spraying", h.Step, func(s *surface.Step) { s.Method = "brush" })
				}
				m.Acknowledge()
			},
		},
		{
			Code:   "safety.aerosol",
			Notes:  true,
			Title:  "Spray mist in the air",
			Why:    "Aerosols and spray guns fill a room with fine drops that harm the lungs and can explode.",
			When:   "An aerosol or a spray gun is used. A caution to acknowledge.",
			Inputs: "how each coat is applied",
			Fix:    readIt,
			Step: noteStep(func(k *Case, s *surface.Step) bool {
				return s.Do == surface.Coat && (k.Craft.Products[s.Product].Aerosol || s.Method == "spray" || s.Method == "aerosol")
			}),
			Say: func(*Case, *Hit) (string, string) {
				return "", "Work outdoors or with extraction rated for such vapour, wear a fitted respirator for vapour and mist, allow no flames or sparks, and mask everything else from overspray."
			},
			Repair: acknowledge,
		},
		{
			Code:   "safety.old_vinyl",
			Notes:  true,
			Title:  "Old vinyl, mastic or felt may contain asbestos",
			Why:    "Backings and glues of old vinyl were made with asbestos, and its fibres kill decades later.",
			When:   "Vinyl from before 1990, or of unknown age, is to be sanded, stripped or heated. A caution to acknowledge.",
			Inputs: "the material, the year, and which steps disturb it",
			Fix:    readIt,
			Step: func(k *Case, e *surface.Event) {
				const banned = 1990
				old := k.Zone.Made == 0 || k.Zone.Made < banned
				switch k.Craft.Substrates[k.Facts.Substrate].Family {
				case craft.VinylSoft, craft.VinylRigid:
				default:
					return
				}
				if d := e.Doing; old && (d.Do == surface.Abrade || d.Do == surface.Strip || heats(d)) {
					k.Add(Hit{Severity: Note, Step: e.Step})
				}
			},
			Say: func(*Case, *Hit) (string, string) {
				return "", "Leave old backing, mastic and felt alone until an accredited surveyor has checked them. Local rules decide who may touch it."
			},
			Repair: acknowledge,
		},
		{
			Code:   "safety.old_poisons",
			Title:  "It may hold mercury or wood preservative",
			Why:    "Mirrors of before 1900 were backed with mercury, and treated timber may hold pentachlorophenol or lindane: both poison slowly.",
			When:   "A mirror from before 1900, or timber with preservative, is to be worked on: a caution to acknowledge. Treated timber is sanded, stripped or heated dry: watch.",
			Inputs: "the material, the year, and preservative in the wood",
			Fix:    "leaving it alone, and having it tested",
			Step: func(k *Case, e *surface.Event) {
				const backed = 1900
				if k.Craft.Substrates[k.Facts.Substrate].Mirror() && k.Zone.Made != 0 && k.Zone.Made < backed {
					k.Add(Hit{Severity: Note, Step: e.Step, Subject: "mercury"})
				}
				if surface.Levels(k.Craft, k.Facts)[craft.Preservative] == 0 {
					return
				}
				sev := Note
				if disturbsDry(k.Craft, e.Doing) && reachesOld(e) {
					sev = Watch
				}
				k.Add(Hit{Severity: sev, Step: e.Step, Subject: "timber"})
			},
			Say: func(_ *Case, h *Hit) (string, string) {
				if h.Subject == "mercury" {
					return "An old mirror may hold mercury", "Leave its backing alone and keep it cool, until somebody who knows has looked at it."
				}
				return "Treated timber may be poisonous", "Old preservatives hold pentachlorophenol or lindane. Leave it alone, have it tested, and never sand, strip or heat it dry before the result."
			},
			Repair: acknowledge,
		},
		{
			Code:   "safety.upholstery",
			Title:  "Painted upholstery may lose its fire rating",
			Why:    "Furniture for sitting must not catch fire from a match, and a coat over the cover may undo that.",
			When:   "Cloth, vinyl cloth or leather of a seat is coated. A caution to acknowledge.",
			Inputs: "the material and the wear",
			Fix:    readIt,
			End: func(k *Case) {
				if k.Coated && k.Facts.Wear == craft.Seat && k.Craft.Substrates[k.Facts.Substrate].Group == craft.GroupCloth {
					k.Add(Hit{Severity: Note, Step: k.lastStep()})
				}
			},
			Say: func(*Case, *Hit) (string, string) {
				return "", "Local law may require a fire rating of upholstery that is sold or let. Ask before you coat it; the maker's label decides."
			},
			Repair: acknowledge,
		},
		{
			Code:   "safety.value",
			Harm:   HarmRuin,
			Title:  "Ask before what cannot be undone",
			Why:    "A period piece, good veneer, marquetry and a maker's finish are worth more than any paint, and stripping or painting them cannot be undone.",
			When:   "Something made before 1900 is to be painted or stripped. A caution to acknowledge.",
			Inputs: "the year, and whether the plan paints or strips it",
			Fix:    "asking the owner, and somebody who knows such pieces",
			End: func(k *Case) {
				const period = 1900
				strips := slices.ContainsFunc(k.Zone.Steps, func(s surface.Step) bool { return s.Do == surface.Strip || s.Through })
				if k.Zone.Made != 0 && k.Zone.Made < period && (k.Opaque || strips) {
					k.Add(Hit{Severity: Note, Subject: "value"})
				}
			},
			Say: func(*Case, *Hit) (string, string) {
				return "", "It is old enough to be worth something as it is. Ask the owner, and somebody who knows such pieces, before the first step that cannot be undone."
			},
			Repair: acknowledge,
		},
		{
			Code:   "safety.electrical",
			Title:  "It has electrical wiring",
			Why:    "Painted or loosened wiring causes shocks and burns.",
			When:   "The piece is a lamp or has wiring, and coats are planned. A caution to acknowledge.",
			Inputs: "what the piece is used for",
			Fix:    readIt,
			End: func(k *Case) {
				if k.Facts.Uses&craft.Lamp != 0 && k.Coated {
					k.Add(Hit{Severity: Note, Step: k.lastStep()})
				}
			},
			Say: func(*Case, *Hit) (string, string) {
				return "", "Unplug it; have a qualified person take the wiring out and put it back. Never paint over wiring, a lamp holder or a label."
			},
			Repair: acknowledge,
		},
	}
}

const readIt = "reading the label and the safety data sheet, and recording that you read them"

// noteStep fires a caution at every step that does something.
func noteStep(does func(*Case, *surface.Step) bool) func(*Case, *surface.Event) {
	return func(k *Case, e *surface.Event) {
		if does(k, e.Doing) {
			k.Add(Hit{Severity: Note, Step: e.Step})
		}
	}
}

// heats tells whether a step uses a heat gun.
func heats(s *surface.Step) bool {
	return s.Do == surface.Effect && s.Heat || s.Do == surface.Strip && s.StripHow == "heat"
}

// acknowledge is the repair of what only needs to be read.
func acknowledge(m *Repairer, _ *Hit) { m.Acknowledge() }

// oxalicHow is how oxalic acid is used.
const oxalicHow = "Gloves and goggles. Leave it on as the label says, neutralise it with bicarbonate, rinse twice until test paper shows pH 6 to 7, and let it dry for one or two days. Never sand it dry before that."

// mixes are the chemicals that bleach must not meet, in a fixed order.
func mixes() []craft.Chemical {
	out := make([]craft.Chemical, len(craft.NeverTogether))
	for i := range craft.NeverTogether {
		out[i] = craft.NeverTogether[i].B
	}
	return out
}

// apart begins the subject of a pair with a day or more between the two: another finding, which a repair may leave.
const apart = "apart: "

// sameDay tells whether less than a day lies between two chemicals.
func sameDay(a, b *Chemical) bool { return math.Abs(a.At-b.At) < craft.Apart }

// mixed adds what must never meet: a fail within a day, a note later. told is what must not meet bleach in this plan,
// or what is used on which other zones; first and last are the steps of this plan.
func (k *Case) mixed(x *craft.Mix, soon bool, told string, last, first int) {
	h := Hit{Severity: Note, Step: last, Subject: apart + told, Value: float64(slices.Index(mixes(), x.B)), Limit: float64(first)}
	if soon {
		h.Severity, h.Subject = Fail, told
	}
	k.Add(h)
}

// mixedBeside adds a chemical of this plan with one of other zones: once, however many zones use it.
func (k *Case) mixedBeside(x *craft.Mix, here, there craft.Chemical, own []Chemical) {
	for _, soon := range []bool{true, false} {
		step, zones := 0, []string(nil)
		for i := range own {
			for j := range k.Zone.Beside {
				if a, b := &own[i], &k.Zone.Beside[j]; a.What == here && b.What == there && sameDay(a, b) == soon {
					step = a.Step
					if !slices.Contains(zones, b.Zone) {
						zones = append(zones, b.Zone)
					}
				}
			}
		}
		if step > 0 {
			k.mixed(x, soon, craft.ChemicalNames[there]+" on "+someOf(zones), step, step)
		}
	}
}

// someOf names the first two zones, and counts the rest.
func someOf(zones []string) string {
	if n := len(zones); n > 2 {
		zones = append(zones[:2:2], measure.Count(n-2, "more zone", "more zones"))
	}
	return craft.List(zones)
}

// tacky tells whether a step brings heat to a resist that is laid tacky with it.
func tacky(s *surface.Step) bool {
	return s.Do == surface.Effect && s.Heat && s.Resist != "" && s.Resist != craft.Resists[0]
}

// vapourFor is how many hours the vapour of a step is there to burn. Working default.
func (k *Case) vapourFor(s *surface.Step) float64 {
	car := k.Craft.Cleaners[s.Cleaner].Carrier
	if s.Do == surface.Coat {
		car = k.Craft.Products[s.Product].Carrier
	}
	if car == craft.Alcohol {
		return 1
	}
	return 2
}

// vapour is the last event before a step, from 1, that gives off vapour that
// burns; nil where there is none.
func (k *Case) vapour(step int) *surface.Event {
	for i := len(k.Trace.Events) - 1; i >= 0; i-- {
		if e := &k.Trace.Events[i]; e.Step < step && volatile(k.Craft, e.Doing) {
			return e
		}
	}
	return nil
}

// volatile tells whether a step gives off vapour that burns.
func volatile(c *craft.Craft, s *surface.Step) bool {
	return s.Do == surface.Clean && c.Cleaners[s.Cleaner].Carrier.Volatile() || s.Do == surface.Coat && c.Products[s.Product].Carrier.Volatile()
}
