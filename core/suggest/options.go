package suggest

import (
	"strings"

	"rutile/core/craft"
	"rutile/core/surface"
)

// Option is a step as it is when it is put into a plan.
type Option struct {
	Group, Name, Note string
	Step              surface.Step
}

// Options lists the steps a painter begins from, in the order of the work: the
// usual grit, the rinse a cleaner must have, two coats of a paint and one of a
// wax.
func Options(c *craft.Craft) []Option {
	var out []Option
	for i := range c.Cleaners {
		r := &c.Cleaners[i]
		var shifts []string
		for _, s := range r.Shifts {
			if s.Soil != craft.Dust || len(r.Shifts) == 1 {
				shifts = append(shifts, craft.Soils[s.Soil].Name)
			}
		}
		out = append(out, Option{"Clean", r.Name, strings.Join(shifts, ", "), surface.Step{Do: surface.Clean, Cleaner: craft.Cleaner(i), Rinse: r.Rinses > 0}})
	}
	const sanding = "Sand and dust"
	out = append(out,
		Option{sanding, "Sand", "220 by hand, to start with", surface.Step{Do: surface.Abrade, Grit: 220, How: craft.Hand}},
		Option{sanding, "Scuff with a fine pad", "vinyl, foil, zinc", surface.Step{Do: surface.Abrade, How: craft.Pad}},
		Option{sanding, "Dust off", "vacuum and tack cloth", surface.Step{Do: surface.Dust}},
		Option{sanding, "Raise the grain", "damp cloth, let dry, sand back", surface.Step{Do: surface.RaiseGrain}})
	for i := range c.Kinds() {
		p := &c.Products[i]
		s := surface.Step{Do: surface.Coat, Product: craft.Product(i), Coats: 1, Auto: true, Method: "brush"}
		switch {
		case p.Role == craft.RolePaint || p.Role == craft.RoleClear:
			s.Coats = 2
		case p.Role == craft.RoleWax:
			s.Method = "rag"
		}
		if p.Aerosol {
			s.Method = "aerosol"
		}
		out = append(out, Option{craft.Upper(string(p.Role)), p.Name, p.Remark, s})
	}
	out = append(out, Option{"Wait", "Wait", "a day, to start with", surface.Step{Do: surface.Wait, Hours: 24}})
	for _, x := range []struct {
		note string
		step surface.Step
	}{
		{"down to the material, with a chemical stripper", surface.Step{Do: surface.Strip, StripHow: craft.Strips[0]}},
		{"dents and holes; sand and prime it afterwards", surface.Step{Do: surface.Fill, With: craft.Fillers[1]}},
		{"glue down loose material, close joints", surface.Step{Do: surface.Repair}},
		{"glass, hinges, anything not to be painted", surface.Step{Do: surface.Mask}},
		{"hardware and anything not to be painted", surface.Step{Do: surface.Remove, What: "handles"}},
		{"drawers, doors and handles back on", surface.Step{Do: surface.Reassemble}},
		{"the rating of a test patch of the plan so far", surface.Step{Do: surface.Test, Rating: 5}},
	} {
		out = append(out, Option{"Repair, protect and reassemble", surface.Kinds[x.step.Do].Name, x.note, x.step})
	}
	for i := range c.Effects {
		row := &c.Effects[i]
		out = append(out, Option{"Effect", row.Name, row.How, surface.Step{Do: surface.Effect, Effect: row.ID}})
	}
	return out
}
