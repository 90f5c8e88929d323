package format

import (
	"fmt"
	"math"

	"rutile/core/check"
	"rutile/core/craft"
	"rutile/core/surface"
)

// Bond is a bond of a plan that a patch test could be made of.
type Bond struct {
	Step     int        `json:"step"`
	Product  string     `json:"product"`
	Over     string     `json:"over"`
	Bare     bool       `json:"bare,omitempty"`
	Additive float64    `json:"additive,omitempty"`
	Name     string     `json:"name" doc:"The coat on what it lands on, in words"`
	Strength float64    `json:"strength"`
	Class    string     `json:"class"`
	Risk     float64    `json:"risk"`
	Holds    string     `json:"holds" enum:"well,barely,not,meant"`
	Boards   int        `json:"boards,omitempty" doc:"Rated patch tests that it was learned from"`
	Before   float64    `json:"before,omitempty" doc:"Strength without them"`
	LookIn   int        `json:"look_days" doc:"Days from which a patch test of it can be rated"`
	Under    Conditions `json:"under" doc:"The conditions of the plan"`
}

// patchCure is the share of its cure after which a patch can be rated, within
// the days that a painter can wait. Working default.
const (
	patchCure             = .25
	patchLeast, patchMost = 1, 7
)

func bondsOf(c *craft.Craft, r *check.Result) []Bond {
	out := []Bond{}
	if r.Adhesion == nil {
		return out
	}
	for i := range r.Adhesion.Boundary {
		b := &r.Adhesion.Boundary[i]
		p := &c.Products[b.Product]
		w := Bond{
			Step: b.Step, Product: p.ID, Over: b.On.String(), Bare: b.Bare, Additive: b.Additive,
			Name:     p.Name + " on " + r.Adhesion.OnWhat(c, &b.Boundary),
			Strength: tidy(b.Strength), Class: check.Class(b.Strength), Risk: tidy(b.Risk), Holds: holds(r, b), Boards: b.Boards,
			LookIn: lookIn(p),
			Under: Conditions{
				tidy(b.Factors[surface.Key]), tidy(b.Factors[surface.Cleanness]), tidy(b.Factors[surface.Window]), tidy(b.Factors[surface.Site]), tidy(b.Cap),
			},
		}
		if b.Boards > 0 {
			w.Before = tidy(min(b.Cap, b.Strength*b.GripBefore/b.Factors[surface.Grip]))
		}
		out = append(out, w)
	}
	return out
}

// board is a rated patch test as the core learns from it; false for one that
// is only planned or laid.
func (p *Patch) board(c *craft.Craft) (surface.Board, bool) {
	if p.Class == nil {
		return surface.Board{}, false
	}
	b := surface.Board{Bare: p.Bare, Additive: p.Additive, Hidden: p.On == "hidden", Class: *p.Class}
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

// PatchState is how a patch test stands.
type PatchState struct {
	ID    string `json:"id"`
	Name  string `json:"name" doc:"The coat and what it was laid on"`
	State string `json:"state" enum:"planned,curing,ready,rated"`
	Says  string `json:"says"`
	// LookIn are the days from laying it to rating it.
	LookIn int `json:"look_days"`
}

func patchStates(c *craft.Craft, z *Zone, bonds []Bond, today string) []PatchState {
	out := make([]PatchState, len(z.Patches))
	for i := range z.Patches {
		p := &z.Patches[i]
		id, _ := c.Product(p.Product)
		row := &c.Products[id]
		s := PatchState{ID: p.ID, LookIn: lookIn(row)}
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
			s.Says = ratedWords(p, bonds)
		case p.Made == "":
			s.State, s.Says = "planned", "Not laid yet. Lay it as the plan lays it: the same cleaning, the same key, the same coat."
		case today != "" && p.Look != "" && today < p.Look:
			s.State, s.Says = "curing", "Laid on "+p.Made+". It can be rated from "+p.Look+"; a coat that is still soft tears sooner than it will."
		default:
			s.State, s.Says = "ready", "Laid on "+p.Made+". Cut it, tape it and rate it."
		}
		out[i] = s
	}
	return out
}

// ratedWords say what a rating did to the bond that it tells of.
func ratedWords(p *Patch, bonds []Bond) string {
	says := surface.CrossCut[*p.Class].Name + " on " + p.Rated + "."
	if p.Look != "" && p.Rated < p.Look {
		says += " That was before " + p.Look + ", when it was still soft."
	}
	for i := range bonds {
		b := &bonds[i]
		if b.Boards > 0 && b.Product == p.Product && b.Over == p.Over && b.Bare == p.Bare {
			way := "down"
			if b.Strength > b.Before {
				way = "up"
			}
			if math.Abs(b.Strength-b.Before) < .005 {
				return says + fmt.Sprintf(" That is what was expected: the bond stays at %.2f.", b.Strength)
			}
			return says + fmt.Sprintf(" The bond goes %s from %.2f to %.2f.", way, b.Before, b.Strength)
		}
	}
	if u := p.Under; u != nil && u.Cap < 1 {
		return says + " What lay below was loose, so that it tells nothing of the coat."
	}
	return says + " The plan as it stands has no such bond, so that it tells nothing of it."
}

// lookIn are the days after which a patch of a product can be rated.
func lookIn(p *craft.ProductRow) int {
	return int(min(patchMost, max(patchLeast, math.Ceil(p.Cure*patchCure))))
}
