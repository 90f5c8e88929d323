package check

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"rutile/core/craft"
	"rutile/core/identify"
	"rutile/core/measure"
	"rutile/core/surface"
)

// Shown writes a figure as it is read: with its unit where its id ends in one (_h, _um, _mm, _c),
// shares as per cents, factors of a bond to two places, others without needless ones.
func (f *Figure) Shown(u measure.Units) string {
	switch {
	case f.ID == "known" && f.Value == 0:
		return "–"
	case strings.HasSuffix(f.ID, "_h"):
		return measure.Hours(f.Value)
	case strings.HasSuffix(f.ID, "_um"):
		return u.Film(f.Value)
	case strings.HasSuffix(f.ID, "_mm"):
		return u.Small(f.Value)
	case strings.HasSuffix(f.ID, "_c"):
		return u.Difference(f.Value)
	case slices.Contains(shares, f.ID):
		return fmt.Sprintf("%.0f %%", f.Value*100)
	case slices.Contains(factors, f.ID):
		return fmt.Sprintf("%.2f", f.Value)
	case math.Abs(f.Value) >= 10 || f.ID == "delta_e" || f.ID == "load" || strings.HasPrefix(f.ID, "day_"):
		return measure.Number(f.Value)
	}
	return measure.Number2(f.Value)
}

// The figures that are shares of a whole, and those that are factors of a bond
// or made of them.
var (
	shares  = []string{"risk", "belief", "known", "p10", "p50", "p90", "cure", "needed_cure", "hardened"}
	factors = []string{"grip", "key", "cleanness", "window", "site", "cap", "strength", "demand", "lets", "show"}
)

// Percent words a chance.
func Percent(p float64) string {
	switch {
	case p < RiskShown:
		return "below 2 %"
	case p > .98:
		return "over 98 %"
	}
	return fmt.Sprintf("%.0f %%", p*100)
}

// Levels are the words for how much of something there is, from 0.
var Levels = [...]string{"none", "light", "marked", "heavy"}

func productName(c *craft.Craft, p craft.Product) string { return craft.Lower(c.Products[p].Name) }

// onWhat names what a boundary's coat lands on.
func onWhat(k *Case, b *surface.Boundary) string {
	if b.Bare {
		name := craft.Lower(k.Craft.Substrates[k.Facts.Substrate].Name)
		if craft.Families[b.On].Natural > 0 {
			return "bare " + name
		}
		return name
	}
	if b.Under != craft.NoProduct {
		return productName(k.Craft, b.Under)
	}
	if b.On == k.Craft.Finishes[k.Facts.Finish].Family && !k.Craft.Finishes[k.Facts.Finish].Bare {
		return craft.Lower(k.Craft.Finishes[k.Facts.Finish].Name)
	}
	return craft.Families[b.On].Name
}

// explain words each factor of a boundary, the most harmful first being the
// reader's business.
func explain(k *Case, b *surface.Boundary) []Figure {
	c := k.Craft
	out := make([]Figure, 0, surface.NumTerms+2)
	add := func(t surface.Term, words string) {
		out = append(out, Figure{surface.TermIDs[t], b.Factors[t], words})
	}
	grip := fmt.Sprintf("how well %s grips %s, clean and keyed", productName(c, b.Product), onWhat(k, b))
	if b.Additive > 0 {
		grip += fmt.Sprintf(", with %s parts of bonding additive to one of paint", measure.Number(b.Additive))
	}
	up := &c.Products[b.Product]
	if up.Label.Names(b.On) {
		grip += ", which its label names"
	}
	if b.PatchTests > 0 {
		grip += fmt.Sprintf("; %.2f before %s changed it", b.GripBefore, patches(b.PatchTests))
	}
	add(surface.Grip, grip)

	key := "the surface has all the key that this coat needs"
	if b.Factors[surface.Key] < 1 {
		key = fmt.Sprintf("the surface has %.0f %% of its best key, and this coat depends on it by %.0f %%", b.KeyGiven*100, b.Need*100)
		if b.Closed {
			key += "; the wood was closed by too fine a grit"
		}
	}
	add(surface.Key, key)

	clean := "nothing was left on it"
	if b.Factors[surface.Cleanness] < 1 {
		var left []string
		for s, lv := range b.Soils {
			if lv > 0 {
				left = append(left, Levels[lv]+" "+craft.Soils[s].Name)
			}
		}
		clean = craft.List(left) + " left under it"
	}
	add(surface.Cleanness, clean)

	var win string
	switch b.Timing {
	case surface.OldSurface:
		win = "nothing below it is still drying"
	case surface.Inside:
		win = fmt.Sprintf("applied after %s, within the recoat window of %s", measure.Hours(b.Waited), productName(c, b.Under))
	case surface.TooSoon:
		win = fmt.Sprintf("applied after %s, and %s needs %s here", measure.Hours(b.Waited), productName(c, b.Under), measure.Hours(b.Earliest))
	case surface.Missed:
		win = fmt.Sprintf("applied after %s, and %s closes at %s without a scuff", measure.Hours(b.Waited), productName(c, b.Under), measure.Hours(b.Latest))
	case surface.Scuffed:
		win = fmt.Sprintf("applied after %s on %s that was scuffed", measure.Hours(b.Waited), productName(c, b.Under))
	case surface.Between:
		win = fmt.Sprintf("applied after %s, between the two recoat windows of %s, which opens again at %s", measure.Hours(b.Waited), productName(c, b.Under), measure.Hours(b.Earliest))
	}
	if b.Under != craft.NoProduct && c.Products[b.Under].Label.GivesWindow() {
		win += "; the window is from its label"
	}
	add(surface.Window, win)

	site := "the workshop's air suits this product"
	if b.SiteWhy != 0 {
		var why []string
		if b.SiteWhy&surface.Cold != 0 {
			why = append(why, fmt.Sprintf("%s is below its %s", k.Zone.Units.Temp(k.airAt(b.Step).TempC), k.Zone.Units.Temp(up.MinC))+byLabel(up, craft.LabelMinC))
		}
		if b.SiteWhy&surface.Humid != 0 {
			why = append(why, fmt.Sprintf("%s %% humidity is above its %s %%", measure.Number(math.Round(k.airAt(b.Step).RH*10)/10), measure.Number(up.MaxRH))+byLabel(up, craft.LabelMaxRH))
		}
		if b.SiteWhy&(surface.WetWood|surface.VeryWetWood) != 0 {
			why = append(why, fmt.Sprintf("the wood holds %s %% water", measure.Number(k.Facts.Moisture)))
		}
		if b.SiteWhy&surface.DampMineral != 0 {
			why = append(why, "damp comes from behind")
		}
		site = craft.List(why)
	}
	add(surface.Site, site)

	switch b.CapWhy {
	case surface.CapFlaking:
		out = append(out, Figure{"cap", b.Cap, "the layer below flakes off, whatever is on it"})
	case surface.CapPowdery:
		out = append(out, Figure{"cap", b.Cap, "the old powdery paint below was not bound first"})
	}
	out = append(out,
		Figure{"strength", b.Strength, fmt.Sprintf("strength of this bond, where 1 is full strength (class %s on the cross-cut scale); an estimate", Class(b.Strength))},
		Figure{"demand", k.Demand, "strength that the wear needs: " + wearWords(k)})
	if b.Under == craft.NoProduct {
		out = append(out, knownFigure(k))
	}
	return out
}

// byLabel marks a figure of a product that is from the label of a can.
func byLabel(p *craft.ProductRow, f craft.LabelFigure) string {
	if p.Label.Gives(f) {
		return ", from its label"
	}
	return ""
}

// knownFigure says how sure one may be of what a coat lands on.
func knownFigure(k *Case) Figure {
	fin := &k.Craft.Finishes[k.Facts.Finish]
	is := "that there is " + craft.Lower(fin.Name) + " on it"
	if fin.Bare {
		is = "that it is " + craft.Lower(fin.Name)
	}
	if k.Craft.Finishes[k.Zone.Finish].Unknown || k.Facts.Finish != k.Zone.Finish {
		return Figure{"known", 0, is + " is a guess: one of the things that it may be"}
	}
	known := k.Zone.Known(k.Craft)
	if known.Finish == identify.Assumed {
		return Figure{"known", 0, is + " is assumed; it was not tested"}
	}
	return Figure{"known", known.PFinish, is + " is " + KnownWords(known.Finish, known.PFinish) + " by small tests"}
}

func patches(n int) string {
	if n == 1 {
		return "a patch test"
	}
	return fmt.Sprintf("%d patch tests", n)
}

func wearWords(k *Case) string {
	if w := &craft.Wears[k.Facts.Wear]; k.Demand <= w.Demand {
		return w.Phrase
	}
	return craft.Wears[craft.Outdoor].Phrase
}

// figures are the numbers behind a finding.
func figures(h *Hit) []Figure {
	switch {
	case h.Rule.Figures != nil:
		return h.Rule.Figures(h.Case, h)
	case h.Rule.Foreseen == ForeseenPeel:
		return append([]Figure{{"risk", h.Case.Risk, "risk that some layer peels; an estimate"}}, explain(h.Case, h.Bound)...)
	case h.Bound != nil:
		return explain(h.Case, h.Bound)
	case h.Stain != nil:
		return StainFigures(h.Stain)
	case h.Level > 0:
		return []Figure{{"level", float64(h.Level), Levels[min(3, h.Level)] + " " + craft.Soils[h.Soil].Name}}
	}
	return nil
}

// StainFigures are the numbers behind a stain.
func StainFigures(s *Stain) []Figure {
	name := craft.Bleeders[s.Bleeder].Name
	out := []Figure{
		{"delta_e", s.DeltaE, "final stain in CIEDE2000 units, a measure of colour difference: 1 is just visible, 3 is clearly visible; an estimate"},
		{"load", s.Load, "what " + name + " would show without any coat over it"},
		{"lets", s.Transmitted, "share of it that the coats let through"},
		{"show", s.Show, "share of that which is visible in the finished colour"},
	}
	for _, t := range []struct {
		days  float64
		words string
	}{{14, "after two weeks"}, {90, "after three months"}, {365, "after a year"}} {
		out = append(out, Figure{fmt.Sprintf("day_%.0f", t.days), s.After(t.days), "stain " + t.words})
	}
	return out
}

// Explain words the factors of a judged bond.
func (a *Adhesion) Explain(c *craft.Craft, b *surface.Boundary) []Figure {
	k := Case{Craft: c, Zone: a.zone, Facts: &a.Variant, Demand: a.Demand}
	return explain(&k, b)
}

// OnWhat names what a judged bond's coat lands on.
func (a *Adhesion) OnWhat(c *craft.Craft, b *surface.Boundary) string {
	return onWhat(&Case{Craft: c, Facts: &a.Variant}, b)
}

// StepWords says what a step does, as a painter would note it down.
func StepWords(c *craft.Craft, s *surface.Step) string {
	switch s.Do {
	case surface.Clean:
		w := c.Cleaners[s.Cleaner].Name
		if s.NumPasses() > 1 {
			w += fmt.Sprintf(", %d passes", s.NumPasses())
		}
		if s.Rinse {
			w += ", rinsed"
		}
		return w
	case surface.Abrade:
		if s.How == craft.Pad {
			return "Scuff with a fine pad"
		}
		w := fmt.Sprintf("Sand with %d", s.Grit)
		switch s.How {
		case craft.Wet:
			w += ", wet"
		case craft.Machine:
			w += ", by machine"
		}
		if s.Through {
			w += ", through to the " + "bare material"
		}
		return w
	case surface.Coat:
		w := c.Products[s.Product].Name
		if s.NumCoats() > 1 {
			w = fmt.Sprintf("%d coats of %s", s.NumCoats(), craft.Lower(w))
		}
		switch s.Scope {
		case surface.Knots:
			w += ", on the knots"
		case surface.Spots:
			w += ", on the spots"
		}
		if s.Additive > 0 {
			w += ", with bonding additive"
		}
		return w
	case surface.Wait:
		return "Wait " + measure.Hours(s.Hours)
	case surface.Strip:
		return "Strip" + map[string]string{"chemical": " with stripper", "scrape": " with a scraper", "heat": " with hot air", "sand": " by sanding", "caustic": " with caustic stripper"}[s.StripHow]
	case surface.Fill:
		return "Fill" + map[string]string{"filler_two_part": " with two-part filler", "filler_fine": " with fine filler"}[s.With]
	case surface.Mask:
		return strings.TrimSpace("Mask " + s.What)
	case surface.Remove:
		return strings.TrimSpace("Remove " + s.What)
	case surface.Effect:
		x, ok := c.Effect(s.Effect)
		if !ok {
			return "Effect"
		}
		w := "Work the effect: " + craft.Lower(c.Effects[x].Name)
		if s.Grit > 0 {
			w += fmt.Sprintf(", with %d", s.Grit)
		}
		if s.Heat {
			w += ", with warm air"
		}
		return w
	default:
		return surface.Kinds[s.Do].Name
	}
}

// Says puts the verdict into one sentence: the worst finding first, or what
// makes the plan sound.
func (r *Result) Says(c *craft.Craft) string {
	if r.Verdict == Sound {
		s := "This should hold"
		if r.Adhesion != nil {
			s += fmt.Sprintf(": the risk of peeling is %s", Percent(r.Adhesion.Risk))
		}
		const traces = .05 // CIEDE2000 units; less is nothing
		if len(r.Stains) > 0 && r.Stains[0].DeltaE >= traces {
			return s + ", and no visible stain is expected."
		}
		return s + ", and nothing should bleed through."
	}
	others := 0
	for i := range r.Findings {
		if r.Findings[i].Severity != Note {
			others++
		}
	}
	first := r.Findings[0].Title
	if others > 1 {
		return fmt.Sprintf("%s, and %s.", first, measure.Count(others-1, "more finding", "more findings"))
	}
	return first + "."
}
