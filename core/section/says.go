package section

import (
	"fmt"
	"math"
	"strings"

	"rutile/core/check"
	"rutile/core/craft"
	"rutile/core/measure"
	"rutile/core/surface"
)

// Said is a step of a plan in words: what it is, in a few, and the particulars that leaves out.
type Said struct{ Title, Notes string }

// Steps says what each step of the drawn zone is. A wait left open is said as the walk has it,
// after each coat.
func (d *Drawing) Steps(c *craft.Craft, z *check.Zone) []Said {
	out := make([]Said, len(z.Steps))
	at := 0
	for i := range z.Steps {
		s := &z.Steps[i]
		for at < len(d.Layers) && d.Layers[at].Step < i+1 {
			at++
		}
		first := at
		for at < len(d.Layers) && d.Layers[at].Step == i+1 {
			at++
		}
		out[i] = Said{Title(c, s), strings.Join(notes(c, z, i, d.Layers[first:at], at < len(d.Layers)), ", ")}
	}
	return out
}

// Title is a step in a few words.
func Title(c *craft.Craft, s *surface.Step) string {
	switch s.Do {
	case surface.Clean:
		return c.Cleaners[s.Cleaner].Name
	case surface.Coat:
		return c.Products[s.Product].Name
	case surface.Effect:
		if x, ok := c.Effect(s.Effect); ok {
			return c.Effects[x].Name
		}
	case surface.Abrade:
		if s.How != craft.Pad && s.Grit > 0 {
			return fmt.Sprintf("Sand with %d", s.Grit)
		}
		return "Scuff with a fine pad"
	case surface.Remove:
		return "Remove " + s.What
	case surface.Mask:
		return surface.Kinds[s.Do].Name
	}
	return check.StepWords(c, s)
}

// notes are the details of a step. The layers are those it makes, and more tells that another coat
// follows.
func notes(c *craft.Craft, z *check.Zone, step int, layers []Layer, more bool) []string {
	var out []string
	s := &z.Steps[step]
	add := func(format string, a ...any) { out = append(out, fmt.Sprintf(format, a...)) }
	switch s.Do {
	case surface.Clean:
		if n := s.NumPasses(); n > 1 {
			add("%d passes", n)
		}
		if s.Rinse {
			add("rinsed")
		} else if c.Cleaners[s.Cleaner].Rinses > 0 {
			add("not rinsed")
		}
	case surface.Abrade:
		if s.How != craft.Pad {
			for _, h := range craft.Hows {
				if h.ID == s.How {
					out = append(out, h.Name)
				}
			}
		}
		if s.Through {
			add("through to the bare material")
		}
	case surface.Coat:
		if n := c.Products[s.Product].Can; n > 0 && n <= len(z.Cans) {
			add("from “%s”", z.Cans[n-1].Title(c))
		}
		if n := s.NumCoats(); n > 1 {
			add("%d coats", n)
		} else {
			add("1 coat")
		}
		switch s.Scope {
		case surface.Knots:
			add("on the knots only")
		case surface.Spots:
			add("on the spots only")
		}
		if s.Scope != surface.All && c.Products[s.Product].Block.Blocks() {
			add("25 mm beyond each mark, feathered out")
		}
		if tack := tackyFor(c, z, step); tack > 0 {
			add("lay it, and paint over it within %s, while it is tacky", measure.Hours(tack))
		} else if w := waitWords(s, layers, more); w != "" {
			if l := c.Products[s.Product].Label; s.Auto && l.Gives(craft.LabelRecoatFrom) {
				w += " (from the label)"
			}
			add("%s", w)
		}
		if m, ok := craft.MethodNamed(s.Method); ok && s.Method != "" && s.Method != craft.Methods[0].ID {
			add("by %s", craft.Lower(m.Name))
		}
		if s.Additive > 0 {
			first := ""
			if s.AdditiveFirst {
				first = ", first coat only"
			}
			add("bonding additive %s : 1%s", measure.Number2(s.Additive), first)
		}
		if s.ThinPct > 0 {
			add("thinned by %s %%", measure.Number2(s.ThinPct))
		}
		if s.WaterRatio > 0 {
			add("%s of water to 1", measure.Number2(s.WaterRatio))
		}
		if s.Sheen != craft.NoSheen {
			add("%s", craft.Lower(craft.Sheens[s.Sheen].Name))
		}
	case surface.Effect:
		if s.Resist != "" {
			add("over %s in patches", craft.ResistNames[s.Resist])
			if tack := check.ResistTacky(c, z.Climate, s.Resist); tack > 0 {
				add("lay it, and paint over it within %s", measure.Hours(tack))
			}
		}
		if s.Heat {
			add("with warm air")
		}
		if s.Wetted {
			add("wetted")
		}
		if s.Grit > 0 {
			add("with %d", s.Grit)
		}
		if s.Share > 0 {
			add("%.0f %% of it", s.Share*100)
		}
	case surface.Mask, surface.Repair:
		if s.What != "" {
			add("%s", s.What)
		}
	}
	return out
}

// tackyFor is how long a coat stays tacky in the zone's air where the next one is painted over it in that
// time, to make it let go or crack; 0 for any other coat.
func tackyFor(c *craft.Craft, z *check.Zone, step int) float64 {
	s := &z.Steps[step]
	coat := c.Products[s.Product].Coat
	if s.Auto || coat != craft.SH && coat != craft.AE || step+1 >= len(z.Steps) {
		return 0
	}
	next := &z.Steps[step+1]
	tack := check.TackyFor(c, z.Climate, s.Product)
	if next.Do != surface.Coat || c.Products[next.Product].Coat != craft.MK || s.WaitH > tack {
		return 0
	}
	return tack
}

// waitWords says how long each coat of a step is left: as typed, or as the walk has it. It is empty
// where nothing follows.
func waitWords(s *surface.Step, layers []Layer, more bool) string {
	if !s.Auto {
		w := "wait " + measure.Hours(s.WaitH)
		if s.NumCoats() > 1 {
			w += " after each"
		}
		return w
	}
	n := len(layers)
	if n == 0 {
		return ""
	}
	const close = .05 // h; nearer ones read the same
	last := &layers[n-1]
	earliest := func(l *Layer) string {
		if math.Abs(l.Waits-l.From) < close {
			return ", the earliest here"
		}
		return ""
	}
	if n == 1 {
		if !more && last.Waits < close {
			return ""
		}
		return "wait " + measure.Hours(last.Waits) + earliest(last)
	}
	between := &layers[0]
	first := "between coats"
	if n == 2 {
		first = "after the first"
	}
	switch {
	case !more && last.Waits < close:
		return fmt.Sprintf("wait %s %s%s", measure.Hours(between.Waits), first, earliest(between))
	case math.Abs(last.Waits-between.Waits) < close:
		return fmt.Sprintf("wait %s after each%s", measure.Hours(last.Waits), earliest(last))
	}
	return fmt.Sprintf("wait %s %s, %s after the last", measure.Hours(between.Waits), first, measure.Hours(last.Waits))
}
