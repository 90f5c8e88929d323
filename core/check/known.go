package check

import (
	"cmp"
	"fmt"
	"slices"

	"rutile/core/craft"
	"rutile/core/identify"
	"rutile/core/surface"
)

// Candidate is one thing that the surface may be.
type Candidate struct {
	surface.Facts
	// P is the belief in it, 0 to 1; 0 where nothing was tested and all that is
	// plausible is walked.
	P float64
}

// Certainty is how sure one may be of what the survey says.
type Certainty struct {
	// Substrate and Finish grade what was entered; what stands for not knowing
	// is assumed.
	Substrate, Finish   identify.Sure
	PSubstrate, PFinish float64
}

// Known grades what the survey says by what was tested.
func (z *Zone) Known(c *craft.Craft) Certainty {
	var k Certainty
	if z.Tests == nil {
		return k
	}
	if !c.Substrates[z.Substrate].Unknown {
		k.Substrate, k.PSubstrate = z.Tests.OfSubstrate()
	}
	if !c.Finishes[z.Finish].Unknown {
		k.Finish, k.PFinish = z.Tests.OfFinish(c.Finishes[z.Finish].ID)
	}
	return k
}

// candidates lists what the surface may be, and the uncertainty that this adds to the spread of the
// log of a strength. The survey stands alone where it is tested, or where no test contradicts it.
// Where tests make it no more than likely, contradict it, or where it is not known at all, the
// candidates are those that together make up nearly all of the belief.
func (z *Zone) candidates(c *craft.Craft) ([]Candidate, float64) {
	k := z.Known(c)
	noSub, noFin := c.Substrates[z.Substrate].Unknown, c.Finishes[z.Finish].Unknown
	openSub := noSub || k.Substrate != identify.Assumed && k.Substrate != identify.Tested
	openFin := noFin || k.Finish != identify.Assumed && k.Finish != identify.Tested
	alone := func() []Candidate {
		vs := surface.Variants(c, &z.Facts)
		out := make([]Candidate, len(vs))
		for i := range vs {
			out[i].Facts = vs[i]
		}
		return out
	}
	doubt := 0.
	if noSub || noFin {
		doubt = surface.SpreadUnknown
	}
	if z.Tests == nil || len(z.Tests.Answers) == 0 || !openSub && !openFin {
		return alone(), doubt
	}
	var out []Candidate
	add := func(f surface.Facts, p float64) {
		for i := range out {
			if out[i].Facts == f {
				out[i].P += p
				return
			}
		}
		out = append(out, Candidate{f, p})
	}
	made, on := z.Tests.Made()[0], z.Tests.On()[0]
	for _, s := range z.Tests.Surfaces() {
		f := z.Facts
		if s.Else {
			continue
		}
		if openFin {
			f.Finish, _ = c.Finish(s.Finish)
			if identify.Same(s.Finish, c.Finishes[z.Finish].ID) {
				f.Finish = z.Finish
			}
		}
		if openSub {
			// Where neither is known, every material is walked under the likeliest finish, and
			// every finish on the material for "not known": stains depend on the material, and grip
			// on the finish.
			sub, _ := c.Substrate(s.Substrate)
			same := c.Substrates[sub].Group == c.Substrates[z.Substrate].Group
			if !noSub || !same || !noFin || s.Finish == on.ID || made.P >= identify.TestedFrom {
				f.Substrate, f.Veneer = sub, f.Veneer || s.Veneer
			}
		}
		add(f, s.P)
	}
	if len(out) == 0 {
		return alone(), doubt
	}
	slices.SortStableFunc(out, func(x, y Candidate) int { return cmp.Compare(y.P, x.P) })
	if !noSub && !noFin {
		add(z.Facts, 0) // what was entered is judged as well
	}
	return out, surface.SpreadUnknown * (1 - z.Tests.Top().P)
}

// assumed says, as a clause, what a case supposes the surface to be.
func (w *caseSet) assumed(c *craft.Craft, z *Zone, k *Case) string {
	f := k.Facts
	fin := craft.Lower(c.Finishes[f.Finish].Name)
	words := "the old finish is " + fin
	if c.Finishes[f.Finish].Bare {
		words = "it is " + fin
	}
	if f.Substrate != z.Substrate {
		words = "it is " + craft.Lower(c.Substrates[f.Substrate].Name) + " under " + fin
		if c.Finishes[f.Finish].Bare {
			words = "it is " + fin + " " + craft.Lower(c.Substrates[f.Substrate].Name)
		}
	}
	for i := range w.candidates {
		if &w.candidates[i].Facts == f && w.candidates[i].P >= .005 {
			words += fmt.Sprintf(" (%s)", Percent(w.candidates[i].P))
		}
	}
	return words
}

// KnownWords say how sure one may be of something that the survey says.
func KnownWords(s identify.Sure, p float64) string {
	switch s {
	case identify.Tested:
		return fmt.Sprintf("tested, %s", Percent(p))
	case identify.Likely:
		return fmt.Sprintf("likely, %s", Percent(p))
	case identify.Possible:
		return fmt.Sprintf("possible, %s", Percent(p))
	case identify.Doubted:
		return fmt.Sprintf("the tests contradict it, %s", Percent(p))
	}
	return "assumed"
}

// SurfaceName names a material with its finish.
func SurfaceName(c *craft.Craft, s craft.Substrate, f craft.Finish) string {
	if fin := &c.Finishes[f]; !fin.Bare {
		return c.Substrates[s].Name + " under " + craft.Lower(fin.Name)
	}
	return c.Substrates[s].Name + ", " + craft.Lower(c.Finishes[f].Name)
}

// Walked is one thing that the surface may be, with what the plan comes to on
// it.
type Walked struct {
	Name    string
	P       float64
	Verdict Verdict
}

// Walked lists what a plan is judged for, the likeliest first.
func (z *Zone) Walked(c *craft.Craft) []Walked {
	var w caseSet
	w.run(c, z, nil)
	out := make([]Walked, len(w.candidates))
	for i := range w.candidates {
		f := &w.candidates[i].Facts
		out[i] = Walked{SurfaceName(c, f.Substrate, f.Finish), w.candidates[i].P, verdict(w.cases[i].hits)}
	}
	return out
}
