package offer

import (
	"strings"

	"rutile/core/craft"
	"rutile/core/surface"
)

// Start is a step as it is when it is put into a plan.
type Start struct {
	Group, Name, Note string
	Step              surface.Step
}

// Starts lists the steps a painter begins from, in the order of the work: the
// usual grit, the rinse a cleaner must have, two coats of a paint and one of a
// wax.
func Starts(c *craft.Craft) []Start {
	var out []Start
	for i := range c.Cleaners {
		r := &c.Cleaners[i]
		var shifts []string
		for _, s := range r.Shifts {
			if s.Soil != craft.Dust || len(r.Shifts) == 1 {
				shifts = append(shifts, craft.Soils[s.Soil].Name)
			}
		}
		out = append(out, Start{"Clean", r.Name, strings.Join(shifts, ", "), surface.Step{Do: surface.Clean, Cleaner: craft.Cleaner(i), Rinse: r.Rinses > 0}})
	}
	const sanding = "Sand and dust"
	out = append(out,
		Start{sanding, "Sand", "220 by hand to begin with", surface.Step{Do: surface.Abrade, Grit: 220, How: craft.Hand}},
		Start{sanding, "Scuff with a fine pad", "vinyl, foil, zinc", surface.Step{Do: surface.Abrade, How: craft.Pad}},
		Start{sanding, "Dust off", "vacuum and tack cloth", surface.Step{Do: surface.Dust}},
		Start{sanding, "Raise the grain", "damp cloth, dry, knock back", surface.Step{Do: surface.RaiseGrain}})
	for i := range c.Products {
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
		out = append(out, Start{craft.Upper(string(p.Role)), p.Name, p.Remark, s})
	}
	out = append(out, Start{"Wait", "Wait", "a day to begin with", surface.Step{Do: surface.Wait, Hours: 24}})
	for k := range surface.Kinds {
		row := &surface.Kinds[k]
		if row.Judged {
			continue
		}
		s := surface.Step{Do: surface.Kind(k)}
		switch s.Do {
		case surface.Strip:
			s.StripHow = craft.Strips[0]
		case surface.Fill:
			s.With = craft.Fillers[1]
		case surface.Remove:
			s.What = "handles"
		case surface.Effect:
			s.Effect = "distress_dry"
		case surface.Test:
			s.Rating = 5
		}
		out = append(out, Start{"Kept in the plan, not judged yet", row.Name, "", s})
	}
	return out
}
