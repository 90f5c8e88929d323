package plan

import (
	"cmp"
	"context"
	"fmt"
	"slices"

	"rutile/core/check"
	"rutile/core/craft"
	"rutile/core/identify"
	"rutile/core/surface"
)

// Weigh judges steps that somebody has planned for the zone of a question, as a
// plan of its own; nil where they have no coat.
func Weigh(c *craft.Craft, ask Request, steps []surface.Step) (*Plan, error) {
	p := &planner{craft: c, ask: ask}
	if err := p.surveyed(); err != nil {
		return nil, err
	}
	if !slices.ContainsFunc(steps, func(s surface.Step) bool { return s.Do == surface.Coat }) {
		return nil, nil
	}
	out := p.weighed(steps)
	out.Buys, out.Leaves = p.items(p.needs(steps)), Broken(c, &p.ask, steps)
	return out, nil
}

func (p *planner) weighed(steps []surface.Step) *Plan {
	var statics Amounts
	dirt := true // until the first coat
	for i := range steps {
		if steps[i].Do == surface.Coat && dirt {
			p.evaluator.Walk(steps[:i])
			statics[Dirt], dirt = p.soiled(), false
		}
		a := static(p.craft, &p.zone.Facts, &steps[i])
		statics = statics.plus(&a)
	}
	statics[Trouble] += p.fuss(steps)
	j := p.evaluator.Whole(steps)
	a := amounts(&statics, &j)
	a[Elapsed] -= idle(steps)
	a[ToBuy], a[Restock], a[Unlike] = p.buying(p.needs(steps)), p.restocking(p.needs(steps)), p.unlike(steps)
	return &Plan{Steps: steps, Amounts: a, Points: p.ask.Weights.Points(&a), Judged: j}
}

// Sensitivity is an untested fact with which another plan would be better.
type Sensitivity struct {
	ID string
	// If says what might be so, as a clause; Test how to find out; and Field where
	// what is found is entered, as repairs name their fields.
	If, Test string
	Field    craft.Field
	// Fails tells that the plan would then fail, and Why the first reason.
	Fails bool
	Why   string
	// Instead is the plan that would then be the best; nil where there is none.
	Instead *Plan
	// Loss is by how many points the plan would then be worse than that one.
	Loss float64
	// likely ranks how often it is so: what is met every week comes before what is
	// met once a year.
	likely float64
}

// doubt is something that might be otherwise than it was surveyed.
type doubt struct {
	Sensitivity
	does func(*check.Zone)
}

// worthAsking is the loss in points from which a fact is worth a test. Working
// default.
const worthAsking = 15

// Sensitivities lists what would change the plan, what matters most first.
func Sensitivities(ctx context.Context, c *craft.Craft, ask Request, plan *Plan) ([]Sensitivity, error) {
	if ask.Zone == nil {
		return nil, fmt.Errorf("there is no zone to plan")
	}
	var out []Sensitivity
	for _, d := range doubts(c, &ask, plan) {
		if ctx.Err() != nil {
			break
		}
		zone := *ask.Zone
		zone.PatchTests = slices.Clone(zone.PatchTests)
		d.does(&zone)
		with := ask
		with.Zone, with.Done, with.Limit = &zone, nil, 4*enough
		zone.Steps = plan.Steps
		r := check.Check(c, &zone, check.Options{NoRepairs: true})
		m := d.Sensitivity
		if r.Verdict == check.Fails {
			m.Fails, m.Why = true, r.Findings[0].Title
		}
		zone.Steps = nil
		p, err := newPlanner(c, with)
		if err != nil {
			return nil, err
		}
		m.Instead = p.search(ctx).Best
		if m.Instead != nil {
			m.Loss = p.weighed(plan.Steps).Points - m.Instead.Points
			if slices.Equal(m.Instead.Steps, plan.Steps) {
				m.Loss = 0
			}
		}
		if m.Fails || m.Loss >= worthAsking {
			out = append(out, m)
		}
	}
	worth := func(m *Sensitivity) float64 {
		w := min(m.Loss, 200)
		if m.Fails {
			w = 300
		}
		return w * m.likely
	}
	slices.SortStableFunc(out, func(a, b Sensitivity) int { return cmp.Compare(worth(&b), worth(&a)) })
	return out, nil
}

// finishTests are the tests that tell a finish, by its id.
var finishTests = map[string]string{
	"wax": "white_spirit", "paint_porous_waxed": "white_spirit", "oil": "water", "shellac": "alcohol", "lacquer": "thinner",
	"paint_acrylic_old": "alcohol", "paint_porous_old": "damp_rag", "catalysed": "thinner", "varnish_oil": "alcohol", "polyurethane": "alcohol",
	"stain_only": "water", "factory_film": "repeat", "paint_alkyd_old": "alcohol", "none": "water",
}

func testNamed(id string) string {
	if i := identify.TestNamed(id); i >= 0 {
		return identify.Tests[i].Name
	}
	return "Test which finish it has"
}

// doubts lists what might be otherwise. How likely each is, is a working default.
func doubts(c *craft.Craft, ask *Request, plan *Plan) []doubt {
	z := ask.Zone
	sub := &c.Substrates[z.Substrate]
	var out []doubt
	add := func(id, clause, test string, field craft.Field, likely float64, does func(*check.Zone)) {
		out = append(out, doubt{Sensitivity{ID: id, If: clause, Test: test, Field: field, likely: likely}, does})
	}
	known := z.Known(c)
	open := known.Finish != identify.Tested
	if may := check.NewEvaluator(c, z).Candidates(); open && (len(may) > 1 || c.Finishes[z.Finish].Unknown) {
		for i := range may {
			f := may[i].Facts
			add("finish "+c.Finishes[f.Finish].ID, "it is "+craft.Lower(check.SurfaceName(c, f.Substrate, f.Finish)), testNamed(finishTests[c.Finishes[f.Finish].ID]), craft.FieldEvidence, .8, func(z *check.Zone) {
				z.Substrate, z.Finish, z.Veneer, z.Tests = f.Substrate, f.Finish, f.Veneer, nil
			})
		}
	} else if open {
		for _, f := range c.Plausible(sub.Family) {
			if f == z.Finish || c.Finishes[f].Family == c.Finishes[z.Finish].Family && !c.Finishes[f].Bare {
				continue
			}
			id := c.Finishes[f].ID
			likely := .3
			if id == "wax" || id == "shellac" {
				likely = .5
			}
			add("finish "+id, "the old finish is "+craft.Lower(c.Finishes[f].Name), testNamed(finishTests[id]), craft.FieldEvidence, likely, func(z *check.Zone) {
				z.Finish, z.Tests = f, nil
			})
		}
	}
	soil := func(so craft.Soil, level uint8, likely float64, test string) {
		if z.Soils[so] >= level {
			return
		}
		add("soil "+so.String(), "there is "+craft.Soils[so].Name+" on it", test, craft.FieldSoils, likely, func(z *check.Zone) {
			z.SoilsKnown, z.Soils[so] = true, level
		})
	}
	seen := .15
	if !z.SoilsKnown {
		seen = .7
		soil(craft.Grease, 2, seen, "Wipe a hidden spot with degreaser and look at the rag")
	}
	if c.Finishes[z.Finish].Family != craft.WaxFilm || c.Finishes[z.Finish].Bare {
		soil(craft.WaxPolish, 2, seen, "Wipe a hidden spot with white spirit: wax colours the rag and drags")
	}
	soil(craft.Silicone, 1, seen, "Put a drop of water on it: on silicone it beads, even after a wash")
	wood := sub.Group == craft.GroupWood
	bleeds := func(b craft.Bleeder, level uint8, likely float64, clause, test string) {
		lv := surface.Levels(c, &z.Facts)
		if lv[b] >= level {
			return
		}
		add("bleed "+b.String(), clause, test, craft.FieldBleeders, likely, func(z *check.Zone) {
			z.Bleeders, z.GivenBleeders = surface.Levels(c, &z.Facts), true
			z.Bleeders[b] = level
		})
	}
	if !z.GivenBleeders {
		if wood {
			bleeds(craft.Dye, 2, .4, "it was stained red or brown", "Leave a wet white cloth on it for a minute and look for colour")
			bleeds(craft.Tannin, 2, .25, "tannin bleeds", "Leave a wet white cloth on a bare spot overnight: yellow-brown is tannin")
			bleeds(craft.Resin, 2, .25, "there are knots", "Look for knots and pitch under a low side light")
		}
		if lv := surface.Levels(c, &z.Facts); lv != ([craft.NumBleeders]uint8{}) {
			add("bleed none", "nothing bleeds after all", "Leave a wet white cloth on it overnight", craft.FieldBleeders, .3, func(z *check.Zone) {
				z.GivenBleeders, z.Bleeders = true, [craft.NumBleeders]uint8{}
			})
		}
	}
	bleeds(craft.Nicotine, 2, .15, "it comes from a smoker's home", "Wipe it with degreaser: smoke comes off yellow")
	if z.Moisture < 0 && (wood || sub.Family == craft.MineralPorous) {
		add("moisture", "it holds 20 % of water", "Use a moisture meter", craft.FieldMoisture, .15, func(z *check.Zone) { z.Moisture = 20 })
	}
	if z.AgeDays < 0 && sub.Alkaline() {
		add("age", "it is only weeks old", "Find out when it was cast or plastered", craft.FieldAge, .3, func(z *check.Zone) { z.AgeDays = 20 })
	}
	if wood && !z.Veneer {
		add("veneer", "it is veneer", testNamed("edge"), craft.FieldVeneer, .3, func(z *check.Zone) { z.Veneer = true })
	}
	if z.LeadBars(c) {
		add("lead", "there is no lead in it", "Have it tested by a laboratory or a licensed assessor", craft.FieldLeadTest, .5, noLead)
	}
	if b := weakestOf(c, ask, plan); b != nil {
		const poor = 2
		row := &c.Products[b.Product]
		clause := fmt.Sprintf("a patch of %s on it comes out at %s", craft.Lower(row.Name), surface.CrossCut[poor].Name)
		add("patch", clause, "Make a patch test in a hidden spot and rate it", craft.FieldTest, .3, func(z *check.Zone) {
			z.PatchTests = append(z.PatchTests, surface.PatchTest{Product: b.Product, On: b.On, Bare: b.Bare, Additive: b.Additive, Hidden: true, Class: poor})
		})
	}
	return out
}

// weakestOf is the bond of a plan on the old surface that is most likely to fail.
func weakestOf(c *craft.Craft, ask *Request, plan *Plan) *surface.Boundary {
	z := *ask.Zone
	z.Steps = plan.Steps
	r := check.Check(c, &z, check.Options{NoRepairs: true})
	if r.Adhesion == nil {
		return nil
	}
	for i := range r.Adhesion.Boundary {
		if b := &r.Adhesion.Boundary[i].Boundary; b.Under == craft.NoProduct && b.PatchTests == 0 {
			return b
		}
	}
	return nil
}
