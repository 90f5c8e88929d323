package card

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"rutile/core/craft"
	"rutile/core/measure"
	"rutile/core/quantity"
	"rutile/core/surface"
)

// Chosen names what a choice is of.
type Chosen string

// What may be chosen.
const (
	ChosenWater    Chosen = "water_ratio"
	ChosenAdditive Chosen = "additive"
	ChosenThinning Chosen = "thin_pct"
	ChosenRecipe   Chosen = "recipe"
	ChosenTint     Chosen = "tint_ratio"
)

// Choice is something that may be chosen for the mixing of a coat, with the usual ways.
type Choice struct {
	Of      Chosen
	Name    string
	Options []Option
}

// Option is one of the usual ways.
type Option struct {
	ID, Name, Says string
	Value          float64
	On             bool // it is as planned
}

// Choices are the usual ways of mixing a coat, with the one that is planned.
func Choices(row *craft.ProductRow, s *surface.Step, b *quantity.Batch) []Choice {
	var out []Choice
	if row.Powder() {
		water := Choice{Of: ChosenWater, Name: "Water to powder"}
		is := cmp.Or(s.WaterRatio, row.Ratio)
		for _, r := range craft.WaterRatios {
			water.add(r.ID, r.Name, r.Says, r.Ratio, is)
		}
		additive := Choice{Of: ChosenAdditive, Name: "Bonding additive"}
		for _, r := range craft.AdditiveShares {
			additive.add(r.ID, r.Name, r.Says, r.Ratio, s.Additive)
		}
		out = append(out, water.withPlanned(is, toOne(is)), additive.withPlanned(s.Additive, toOne(s.Additive)))
	}
	switch b.Row.Pour {
	case craft.PourReady:
		thinning := Choice{Of: ChosenThinning, Name: "Thinning"}
		for _, r := range craft.Thinnings {
			if r.Fits(row, cmp.Or(s.Method, craft.Methods[0].ID), b.Row.ID == "cloth") {
				thinning.add(r.ID, r.Name, r.Says, r.Pct, s.ThinPct)
			}
		}
		if len(thinning.Options) > 1 {
			out = append(out, thinning.withPlanned(s.ThinPct, fmt.Sprintf("%.0f %%", s.ThinPct)))
		}
	case craft.PourHomeMade:
		recipe := Choice{Of: ChosenRecipe, Name: "Recipe"}
		for _, r := range craft.HomeMade {
			recipe.Options = append(recipe.Options, Option{ID: r.ID, Name: r.Name, Says: r.Like, On: b.Home != nil && b.Home.ID == r.ID})
		}
		out = append(out, recipe)
	case craft.PourGlaze:
		tint := Choice{Of: ChosenTint, Name: "Colour in the glaze"}
		is := cmp.Or(s.Mix().Tint, craft.UsualTint)
		for _, r := range craft.Tints {
			tint.add(r.ID, r.Name, r.Says, r.Ratio, is)
		}
		out = append(out, tint.withPlanned(is, toOne(is)))
	}
	return out
}

func toOne(ratio float64) string { return measure.Number2(ratio) + " to 1" }

func (c *Choice) add(id, name, says string, value, is float64) {
	c.Options = append(c.Options, Option{ID: id, Name: name, Says: says, Value: value, On: math.Abs(value-is) < 1e-9})
}

// withPlanned is a choice with what is planned as an option of its own, where it is none of the usual ones.
func (c Choice) withPlanned(value float64, says string) Choice {
	if !slices.ContainsFunc(c.Options, func(o Option) bool { return o.On }) {
		c.Options = append(c.Options, Option{ID: "planned", Name: "As planned", Says: says, Value: value, On: true})
	}
	return c
}
