package app

import (
	"math"

	"rutile/core/check"
	"rutile/core/craft"
	"rutile/core/measure"
	"rutile/core/surface"
	"rutile/internal/wire"
)

// patchCure is the share of its cure after which a patch can be rated, within
// the days that a painter can wait. Working default.
const (
	patchCure             = .25
	patchLeast, patchMost = 1, 7
)

func bondsOf(c *craft.Craft, r *check.Result) []wire.Bond {
	out := []wire.Bond{}
	if r.Adhesion == nil {
		return out
	}
	for i := range r.Adhesion.Boundary {
		b := &r.Adhesion.Boundary[i]
		p := &c.Products[b.Product]
		w := wire.Bond{
			Step: b.Step, Product: p.ID, Over: b.On.String(), Bare: b.Bare, Additive: b.Additive,
			Name:     p.Name + " on " + r.Adhesion.OnWhat(c, &b.Boundary),
			Strength: tidy(b.Strength), Class: check.Class(b.Strength), Risk: tidy(b.Risk), Holds: holds(r, b), Boards: b.PatchTests,
			RateInDays: lookIn(p),
			Under: wire.Conditions{
				Key: tidy(b.Factors[surface.Key]), Cleanness: tidy(b.Factors[surface.Cleanness]), Window: tidy(b.Factors[surface.Window]), Site: tidy(b.Factors[surface.Site]), Cap: tidy(b.Cap),
			},
		}
		if b.PatchTests > 0 {
			w.Before = tidy(min(b.Cap, b.Strength*b.GripBefore/b.Factors[surface.Grip]))
		}
		out = append(out, w)
	}
	return out
}

// rated is a rated patch test as the core learns from it; false for one that is only planned or
// made.
func rated(c *craft.Craft, p *wire.Patch) (surface.PatchTest, bool) {
	if p.Class == nil {
		return surface.PatchTest{}, false
	}
	b := surface.PatchTest{Bare: p.Bare, Additive: p.Additive, Hidden: p.On == "hidden", Class: *p.Class}
	b.Product, _ = c.Product(p.Product)
	for f := range craft.Families {
		if craft.Families[f].ID == p.Over {
			b.On = craft.Family(f)
		}
	}
	if u := p.Under; u != nil {
		b.Cap = u.Cap
		b.Under = [surface.NumTerms]float64{surface.Key: u.Key, surface.Cleanness: u.Cleanness, surface.Window: u.Window, surface.Site: u.Site}
	}
	return b, true
}

func patchStates(c *craft.Craft, z *wire.Zone, bonds []wire.Bond, today string, u measure.Units) []wire.PatchState {
	out := make([]wire.PatchState, len(z.Patches))
	for i := range z.Patches {
		p := &z.Patches[i]
		id, _ := c.Product(p.Product)
		row := &c.Products[id]
		s := wire.PatchState{ID: p.ID, RateInDays: lookIn(row)}
		over := p.Over
		for f := range craft.Families {
			if craft.Families[f].ID == p.Over {
				over = craft.Families[f].Name
			}
		}
		s.Name = row.Name + " on " + over
		switch {
		case p.Class != nil:
			s.State = "rated"
			s.Says = ratedWords(p, bonds, u)
		case p.Made == "":
			s.State, s.Says = "planned", "Not made yet. Make it like the plan: the same cleaning, the same key, the same coat."
		case today != "" && p.RateFrom != "" && today < p.RateFrom:
			s.State, s.Says = "curing", "Made on "+u.Date(p.Made)+". Rate it from "+u.Date(p.RateFrom)+" on; until then the coat is still soft and tears more easily."
		default:
			s.State, s.Says = "ready", "Made on "+u.Date(p.Made)+". Cut it, tape it and rate it."
		}
		out[i] = s
	}
	return out
}

// ratedWords say what a rating did to its bond.
func ratedWords(p *wire.Patch, bonds []wire.Bond, u measure.Units) string {
	says := surface.CrossCut[*p.Class].Name + " on " + u.Date(p.Rated) + "."
	if p.RateFrom != "" && p.Rated < p.RateFrom {
		says += " That was before " + u.Date(p.RateFrom) + ", when it was still soft."
	}
	for i := range bonds {
		b := &bonds[i]
		if b.Boards > 0 && b.Product == p.Product && b.Over == p.Over && b.Bare == p.Bare {
			if math.Abs(b.Strength-b.Before) < .005 {
				return says + " That is what was expected."
			}
			way := "weaker"
			if b.Strength > b.Before {
				way = "stronger"
			}
			return says + " The bond is " + way + " than expected; the check uses this result."
		}
	}
	if f := p.Under; f != nil && f.Cap < 1 {
		return says + " The layer below was loose, so the test says nothing about the coat."
	}
	return says + " The current plan has no such bond, so the test says nothing about it."
}

// lookIn are the days after which a patch of a product can be rated.
func lookIn(p *craft.ProductRow) int {
	return int(min(patchMost, max(patchLeast, math.Ceil(p.Cure*patchCure))))
}
