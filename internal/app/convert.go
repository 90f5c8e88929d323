package app

import (
	"math"

	"rutile/core/check"
	"rutile/core/craft"
	"rutile/core/parts"
	"rutile/core/quantity"
	"rutile/core/surface"
	"rutile/internal/wire"
)

// zone turns a zone of the piece into what the core judges. Ids are known to exist, as decoding
// has checked them.
func (j *Job) zone(i int) check.Zone {
	c, p := j.Craft, j.Piece
	z, sum := &p.Zones[i], j.measured[i]
	if z.AreaM2 > 0 {
		sum.M2 = z.AreaM2
	}
	if f := parts.FurnitureNamed(p.Kind); f != nil && len(j.ofZone[i]) == 0 {
		sum.Work, sum.Edges = f.Work, f.Edges*sum.M2
	}
	out := check.Zone{
		Facts: surface.Facts{
			Veneer: z.Veneer, Prepared: z.Prepared, Moisture: -1, Area: sum.M2, Work: sum.Work, EdgesM: sum.Edges, Wear: craft.Handled, Climate: j.Air, AgeDays: -1,
		},
		Made: p.Made, SoilsKnown: z.Soils != nil, Look: craft.LookSolid, Ground: z.Colour, Unmasked: j.unmasked(i),
		Units: j.Shop.Units, Today: j.Shop.Today, LeadYear: j.Shop.LeadYear, Book: j.Book,
	}
	if z.AgeDays != nil {
		out.AgeDays = *z.AgeDays
	}
	if p.Site != nil && p.Site.SurfaceC != nil {
		out.SurfaceC, out.SurfaceRead = *p.Site.SurfaceC, true
	}
	out.Touching, out.GapMM = j.fits(i)
	out.Substrate, _ = c.Substrate(z.Substrate)
	finish := z.Finish
	if finish == "" {
		finish = "unknown"
	}
	out.Finish, _ = c.Finish(finish)
	out.Gloss, _ = craft.SheenNamed(z.Gloss)
	if z.GlossUnits != nil {
		out.Gloss = sheenOf(*z.GlossUnits)
	}
	if z.MoisturePct != nil {
		out.Moisture = *z.MoisturePct
	}
	for _, l := range z.Soils {
		if s, ok := craft.SoilNamed(l.ID); ok {
			out.Soils[s] = uint8(l.Level)
		}
	}
	out.GivenBleeders = z.Bleeders != nil
	for _, l := range z.Bleeders {
		if b, ok := craft.BleederNamed(l.ID); ok {
			out.Bleeders[b] = uint8(l.Level)
		}
	}
	for _, d := range z.Defects {
		if d.ID == "knot" {
			out.Knots += max(1, d.Count)
		}
		for k := range craft.Defects {
			if r := &craft.Defects[k]; r.ID == d.ID {
				out.Loose |= r.Loose
				out.Uneven = out.Uneven || r.Uneven
			}
		}
	}
	if w, ok := craft.WearNamed(z.Wear); ok {
		out.Wear = w
	}
	for _, id := range p.Use {
		u, _ := craft.UsesNamed(id)
		out.Uses |= u
	}
	if t := z.LeadTest; t != nil {
		out.LeadTest = &check.LeadTest{By: t.By, Found: t.Result == "positive", Date: t.Date}
	}
	if len(z.Evidence) > 0 {
		out.Tests = j.tested(i)
	}
	for k := range z.Patches {
		if b, ok := rated(c, &z.Patches[k]); ok {
			out.PatchTests = append(out.PatchTests, b)
		}
	}
	if t := z.Target; t != nil {
		out.Colour = t.Colour
		out.Sheen, _ = craft.SheenNamed(t.Sheen)
		if t.Look != "" {
			out.Look = t.Look
		}
	}
	parts := 1.
	if m := j.measured[i]; m.M2 > 0 {
		parts = m.Cover / m.M2
	}
	out.Relief = quantity.ReliefOf(c, &out.Facts, parts)
	out.Steps = make([]surface.Step, len(z.Steps))
	for k := range z.Steps {
		out.Steps[k] = j.stepOf(&z.Steps[k])
	}
	j.join(i, &out)
	return out
}

// sheenOf is the sheen nearest to a gloss meter's reading at 60 degrees.
func sheenOf(units float64) craft.Sheen {
	best, dist := craft.NoSheen, math.Inf(1)
	for s := craft.DeadFlat; int(s) < len(craft.Sheens); s++ {
		if d := math.Abs(craft.Sheens[s].Units - units); d < dist {
			best, dist = s, d
		}
	}
	return best
}

// stepOf turns a step of the wire into one of the core.
func stepOf(c *craft.Craft, s *wire.Step) surface.Step {
	do, _ := surface.KindNamed(s.Do)
	out := surface.Step{
		Do: do, Rinse: s.Rinse, Passes: s.Passes, Grit: s.Grit, Through: s.Through,
		Coats: s.Coats, Method: s.Method, WaterRatio: s.WaterRatio, ThinPct: s.ThinPct,
		Colour: s.Colour, What: s.What, Effect: s.Effect, Heat: s.Heat, Wetted: s.Wetted,
		Resist: s.Resist, Share: s.Share,
	}
	switch do {
	case surface.Clean:
		out.Cleaner, _ = c.Cleaner(s.With)
	case surface.Abrade:
		out.How = craft.How(s.How)
		if s.How == "" {
			out.How = craft.Hand
			if s.Grit == 0 {
				out.How = craft.Pad
			}
		}
	case surface.Strip:
		out.StripHow = s.How
	case surface.Fill:
		out.With = s.With
	case surface.Coat:
		out.Product, _ = c.Product(s.Product)
		out.Auto = s.WaitH == nil
		if s.WaitH != nil {
			out.WaitH = *s.WaitH
		}
		if s.Additive != nil {
			out.Additive, out.AdditiveFirst = s.Additive.Ratio, s.Additive.Coats == "first"
		}
		out.Own = mixOf(s.Mix)
		out.Sheen, _ = craft.SheenNamed(s.Sheen)
		for i, id := range craft.Scopes {
			if id == s.Scope {
				out.Scope = surface.Scope(i)
			}
		}
	case surface.Wait:
		if s.Hours != nil {
			out.Hours = *s.Hours
		}
	case surface.Test:
		if s.Rating != nil {
			out.Rating = *s.Rating
		}
	}
	return out
}

// mixOf turns how a coat is mixed into the core's; nil for as usual.
func mixOf(m *wire.Mix) *surface.Mix {
	if m == nil {
		return nil
	}
	out := &surface.Mix{Recipe: m.Recipe, Tint: m.TintRatio, Paint: m.PaintL, Unstrained: m.Unstrained}
	if len(m.Blend) > 0 {
		out.Blend = &surface.Blend{}
		for _, p := range m.Blend {
			out.Blend.Parts = append(out.Blend.Parts, surface.BlendPart{Kind: p.Kind, Name: p.Name, Colour: p.Colour, Can: p.Can, Parts: p.Parts, Cover: p.Cover})
		}
	}
	return out
}

// mixFrom writes how a coat is mixed; nil where that is as usual.
func mixFrom(m *surface.Mix) *wire.Mix {
	if m == nil {
		return nil
	}
	out := &wire.Mix{Recipe: m.Recipe, TintRatio: m.Tint, PaintL: m.Paint, Unstrained: m.Unstrained}
	if m.Blend != nil {
		for _, p := range m.Blend.Parts {
			out.Blend = append(out.Blend, wire.BlendPart{Kind: p.Kind, Name: p.Name, Colour: p.Colour, Can: p.Can, Parts: p.Parts, Cover: p.Cover})
		}
	}
	return out
}

// stepFrom writes a step of the core. Everything the core leaves alone comes
// back as it was read.
func stepFrom(c *craft.Craft, s *surface.Step) wire.Step {
	out := wire.Step{
		Do: surface.Kinds[s.Do].ID, Rinse: s.Rinse, Passes: s.Passes, Grit: s.Grit, Through: s.Through,
		Coats: s.Coats, Method: s.Method, WaterRatio: s.WaterRatio, ThinPct: s.ThinPct,
		Colour: s.Colour, What: s.What, Effect: s.Effect, Heat: s.Heat, Wetted: s.Wetted,
		Resist: s.Resist, Share: s.Share,
	}
	switch s.Do {
	case surface.Clean:
		out.With = c.Cleaners[s.Cleaner].ID
	case surface.Abrade:
		out.How = string(s.How)
	case surface.Strip:
		out.How = s.StripHow
	case surface.Fill:
		out.With = s.With
	case surface.Coat:
		out.Product = c.Products[s.Product].ID
		if !s.Auto {
			w := s.WaitH
			out.WaitH = &w
		}
		if s.Additive > 0 {
			out.Additive = &wire.Additive{Product: craft.AdditiveID, Ratio: s.Additive}
			if s.AdditiveFirst {
				out.Additive.Coats = "first"
			}
		}
		out.Sheen = craft.Sheens[s.Sheen].ID
		if s.Scope != surface.All {
			out.Scope = craft.Scopes[s.Scope]
		}
		out.Mix = mixFrom(s.Own)
	case surface.Wait:
		h := s.Hours
		out.Hours = &h
	case surface.Test:
		r := s.Rating
		out.Rating = &r
	}
	return out
}

// stepsFrom writes a plan of the core.
func stepsFrom(c *craft.Craft, steps []surface.Step) []wire.Step {
	out := make([]wire.Step, len(steps))
	for i := range steps {
		out[i] = stepFrom(c, &steps[i])
	}
	return out
}
