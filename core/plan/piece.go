package plan

import (
	"cmp"
	"context"
	"slices"

	"rutile/core/check"
	"rutile/core/craft"
	"rutile/core/surface"
)

// PieceZone is one zone of a piece that is planned as a whole.
type PieceZone struct {
	Name    string
	Request Request
	// Steps are those it has already; a zone without any is planned.
	Steps []surface.Step
}

// Planned is what became of a zone of a piece.
type Planned struct {
	// Kept tells that it had a plan already, which stays as it is.
	Kept   bool
	Answer Answer
	// Like are the names of the zones that are to look as it does and do, and Differs
	// says why it cannot have the paint of the others; empty where it has.
	Like    []string
	Differs string
}

// matches tells whether two zones are to look the same: one solid colour.
func matches(a, b *check.Zone) bool {
	solid := func(z *check.Zone) bool { return z.Look == "" || z.Look == craft.LookSolid }
	return a.Colour != "" && a.Colour == b.Colour && a.Sheen == b.Sheen && solid(a) && solid(b)
}

// Each gives the context of the search for one zone of a piece.
type Each func(context.Context) (context.Context, context.CancelFunc)

// mostFinishes is how many finishes are tried for zones that are to match.
const mostFinishes = 4

// Piece plans every zone that has no plan. Zones that should match get the same paint and the same
// final sheen, with the paint that comes to the least points over all of them; a zone that cannot
// have it is named. done is called after each zone; it may be nil. It stops early when ctx is done,
// and leaves the rest without a plan; each, which may be nil, gives the context of the search for one
// zone.
func Piece(ctx context.Context, c *craft.Craft, zones []PieceZone, each Each, done func(n int)) ([]Planned, error) {
	if each == nil {
		each = func(ctx context.Context) (context.Context, context.CancelFunc) { return ctx, func() {} }
	}
	out := make([]Planned, len(zones))
	count := 0
	told := func() {
		if count++; done != nil {
			done(min(count, len(zones)))
		}
	}
	settled := make([]bool, len(zones))
	for i := range zones {
		if len(zones[i].Steps) > 0 {
			out[i].Kept, settled[i] = true, true
			told()
		}
	}
	for i := range zones {
		if settled[i] {
			continue
		}
		group := []int{i}
		for j := i + 1; j < len(zones); j++ {
			if !settled[j] && matches(zones[i].Request.Zone, zones[j].Request.Zone) {
				group = append(group, j)
			}
		}
		// Zones that are to match and have a plan set the paint.
		var like []surface.Step
		var with []string
		for j := range zones {
			if out[j].Kept && matches(zones[i].Request.Zone, zones[j].Request.Zone) {
				with = append(with, zones[j].Name)
				if like == nil {
					like = zones[j].Steps
				}
			}
		}
		if err := together(ctx, c, zones, group, like, out, each, told); err != nil {
			return nil, err
		}
		for _, j := range group {
			settled[j] = true
			out[j].Like = slices.Clone(with)
			for _, k := range group {
				if k != j && out[k].Answer.Best != nil && out[k].Differs == "" {
					out[j].Like = append(out[j].Like, zones[k].Name)
				}
			}
			if out[j].Differs != "" {
				out[j].Like = nil
			}
		}
	}
	return out, even(ctx, c, zones, out, each)
}

// together plans a group of zones that are to match.
func together(ctx context.Context, c *craft.Craft, zones []PieceZone, group []int, like []surface.Step, out []Planned, each Each, told func()) error {
	var tries [][]surface.Step
	if like != nil {
		tries = append(tries, like)
	}
	for _, i := range group {
		if ctx.Err() != nil {
			return nil
		}
		one, cancel := each(ctx)
		a, err := Find(one, c, beside(c, zones, out, i))
		cancel()
		if err != nil {
			return err
		}
		out[i].Answer = a
		told()
		if a.Best == nil || like != nil || len(group) == 1 {
			continue
		}
		if !slices.ContainsFunc(tries, func(s []surface.Step) bool {
			return alike(c, s, a.Best.Steps)
		}) && len(tries) < mostFinishes {
			tries = append(tries, a.Best.Steps)
		}
	}
	if len(tries) == 0 || like == nil && len(tries) == 1 {
		return nil // there is one zone, or they agree by themselves
	}
	var best []Answer
	bestHave, bestPoints := -1, 0.
	for _, finish := range tries {
		answers := make([]Answer, len(group))
		have, points := 0, 0.
		for k, i := range group {
			ask := beside(c, zones, out, i)
			ask.Like = finish
			p, err := newPlanner(c, ask)
			if err != nil {
				return err
			}
			one, cancel := each(ctx)
			answers[k] = p.search(one)
			p.tell(&answers[k])
			cancel()
			// A plan that is only watched for the sake of the others is no match.
			if b, own := answers[k].Best, out[i].Answer.Best; b != nil && (own == nil || b.Judged.Watches.Len() <= own.Judged.Watches.Len()) {
				have++
				points += b.Points
			} else {
				answers[k].Best = nil
			}
		}
		if have > bestHave || have == bestHave && points < bestPoints {
			best, bestHave, bestPoints = answers, have, points
		}
	}
	for k, i := range group {
		switch {
		case best[k].Best != nil:
			out[i].Answer = best[k]
		case out[i].Answer.Best != nil:
			out[i].Differs = "No plan with the same paint as the others passes here: it gets " + Finish(c, out[i].Answer.Best.Steps) + " of its own, and may look slightly different."
		}
	}
	return nil
}

// beside is what is asked for a zone, with the chemicals that the other zones' plans bring into the room.
func beside(c *craft.Craft, zones []PieceZone, out []Planned, i int) Request {
	ask, zone := zones[i].Request, *zones[i].Request.Zone
	zone.Beside = nil
	for j := range zones {
		if j == i {
			continue
		}
		o := *zones[j].Request.Zone
		o.Steps = zones[j].Steps
		if b := out[j].Answer.Best; b != nil {
			o.Steps = b.Steps
		}
		zone.Beside = append(zone.Beside, check.ChemicalsOf(c, &o, zones[j].Name)...)
	}
	ask.Zone = &zone
	return ask
}

// Finish names the last paint of a plan and its seal, within a sentence.
func Finish(c *craft.Craft, steps []surface.Step) string {
	paint, seal := "", ""
	for i := range steps {
		s := &steps[i]
		if s.Do != surface.Coat || s.Scope != surface.All {
			continue
		}
		switch row := &c.Products[s.Product]; row.Role {
		case craft.RolePaint:
			paint, seal = craft.Lower(row.Name), ""
		case craft.RoleClear, craft.RoleWax:
			seal = craft.Lower(row.Name)
		}
	}
	switch {
	case paint == "":
		return cmp.Or(seal, "nothing")
	case seal == "":
		return paint
	}
	return paint + " under " + seal
}

// even plans zones once more where one of two matching zones is painted straight on an absorbent
// surface and the other is not.
func even(ctx context.Context, c *craft.Craft, zones []PieceZone, out []Planned, each Each) error {
	bases := make([]check.Base, len(zones))
	base := func(i int) check.Base {
		z := *zones[i].Request.Zone
		z.Steps = zones[i].Steps
		if b := out[i].Answer.Best; b != nil {
			z.Steps = b.Steps
		}
		return check.BaseOf(c, &z, zones[i].Name)
	}
	for i := range zones {
		bases[i] = base(i)
	}
	for i := range zones {
		if out[i].Kept || out[i].Answer.Best == nil || !bases[i].Absorbs || ctx.Err() != nil {
			continue
		}
		ask := beside(c, zones, out, i)
		zone := *ask.Zone
		zone.Match = nil
		for j := range bases {
			if j != i && bases[j].Paint != craft.NoProduct {
				zone.Match = append(zone.Match, bases[j])
			}
		}
		ask.Zone = &zone
		if out[i].Differs == "" {
			ask.Like = out[i].Answer.Best.Steps
		}
		p, err := newPlanner(c, ask)
		if err != nil {
			return err
		}
		one, cancel := each(ctx)
		a := p.search(one)
		p.tell(&a)
		cancel()
		if a.Best != nil {
			out[i].Answer = a
			bases[i] = base(i)
		}
	}
	return nil
}
