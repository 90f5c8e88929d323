package format

import (
	"cmp"
	"math"

	"rutile/core/apart"
	"rutile/core/check"
	"rutile/core/craft"
	"rutile/core/drying"
	"rutile/core/parts"
	"rutile/core/surface"
)

// Zone turns a zone of a decoded piece into what the core judges. Ids are
// known to exist, as [Decode] has checked them.
func (p *Piece) Zone(c *craft.Craft, i int, site drying.Climate) check.Zone {
	z := &p.Zones[i]
	sum := p.measuredAs(z.ID)
	if z.AreaM2 > 0 {
		sum.M2 = z.AreaM2
	}
	out := check.Zone{
		Facts: surface.Facts{
			Veneer: z.Veneer, Moisture: -1, Area: sum.M2, Work: sum.Work, Wear: craft.Handled, Climate: p.air(site), AgeDays: -1,
		},
		Made: p.Made, SoilsKnown: z.Soils != nil, Look: craft.LookSolid, Ground: z.Colour, Stays: p.stays(i),
	}
	if z.AgeDays != nil {
		out.AgeDays = *z.AgeDays
	}
	if p.Site != nil && p.Site.SurfaceC != nil {
		out.SurfaceC, out.SurfaceRead = *p.Site.SurfaceC, true
	}
	out.Touching, out.GapMM = p.fits(z.ID)
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
		for j := range craft.Defects {
			if r := &craft.Defects[j]; r.ID == d.ID {
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
		out.Tests = p.tested(c, i)
	}
	for j := range z.Patches {
		if b, ok := z.Patches[j].board(c); ok {
			out.Boards = append(out.Boards, b)
		}
	}
	if t := z.Target; t != nil {
		out.Colour = t.Colour
		out.Sheen, _ = craft.SheenNamed(t.Sheen)
		if t.Look != "" {
			out.Look = t.Look
		}
	}
	out.Steps = make([]surface.Step, len(z.Steps))
	for j := range z.Steps {
		out.Steps[j] = z.Steps[j].core(c)
	}
	return out
}

// judged is a zone with everything that a check of it rests on.
func (p *Piece) judged(c *craft.Craft, i int, o CheckOptions) check.Zone {
	return p.beside(c, i, o, p.bases(c, o))
}

// beside is [Piece.judged] with what the paint of every zone lies on.
func (p *Piece) beside(c *craft.Craft, i int, o CheckOptions, bases []check.Base) check.Zone {
	z := p.Zone(c, i, o.Site)
	z.Units, z.Today, z.LeadYear = o.Units, o.Today, o.LeadYear
	for j, b := range bases {
		if j != i && b.Paint != craft.NoProduct {
			z.Match = append(z.Match, b)
		}
	}
	return z
}

// bases says of every zone what its paint lies on.
func (p *Piece) bases(c *craft.Craft, o CheckOptions) []check.Base {
	if len(p.Zones) < 2 {
		return nil
	}
	out := make([]check.Base, len(p.Zones))
	for i := range p.Zones {
		z := p.Zone(c, i, o.Site)
		out[i] = check.BaseOf(c, &z, cmp.Or(p.Zones[i].Name, p.Zones[i].ID))
	}
	return out
}

// stays are the fittings that stay on a zone while it is painted, in words: those
// that name it, and on a piece of one zone all that name none.
func (p *Piece) stays(zone int) []string {
	var out []string
	for i := range p.TakeApart {
		f := &p.TakeApart[i]
		row, _ := apart.RowOf(f.Kind)
		if p.sitsOn(f, zone) && f.does() == apart.Stay && row != nil && !row.Painted {
			name := cmp.Or(f.Name, row.Name)
			if f.Count > 1 && f.Name == "" {
				name = row.Plural
			}
			out = append(out, craft.Lower(name))
		}
	}
	return out
}

// fits tells whether parts of a zone lie against others once they are back, and
// the least gap around what slides or closes, in millimetres; 0 where none was
// entered.
func (p *Piece) fits(zone string) (touching bool, gap float64) {
	for i := range p.Parts {
		q := &p.Parts[i]
		k, ok := parts.KindNamed(q.Kind)
		if q.Zone != zone || !ok || !parts.Kinds[k].Moves {
			continue
		}
		touching = true
		if q.GapMM != nil && *q.GapMM > 0 && (gap == 0 || *q.GapMM < gap) {
			gap = *q.GapMM
		}
	}
	return touching, gap
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

func (s *Step) core(c *craft.Craft) surface.Step {
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

// stepFrom writes a step of the core. Everything the core leaves alone comes
// back as it was read.
func stepFrom(c *craft.Craft, s *surface.Step) Step {
	out := Step{
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
			out.Additive = &Additive{Product: craft.AdditiveID, Ratio: s.Additive}
			if s.AdditiveFirst {
				out.Additive.Coats = "first"
			}
		}
		out.Sheen = craft.Sheens[s.Sheen].ID
		if s.Scope != surface.All {
			out.Scope = craft.Scopes[s.Scope]
		}
	case surface.Wait:
		h := s.Hours
		out.Hours = &h
	case surface.Test:
		r := s.Rating
		out.Rating = &r
	}
	return out
}

// StepsFrom writes a plan of the core.
func StepsFrom(c *craft.Craft, steps []surface.Step) []Step {
	out := make([]Step, len(steps))
	for i := range steps {
		out[i] = stepFrom(c, &steps[i])
	}
	return out
}
