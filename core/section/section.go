// Package section turns a judged walk into a drawing of the cut through a
// zone's coats: what lies on what, how thick, and how well each boundary
// holds. It holds no shapes or pixels; the page decides how they look.
package section

import (
	"math"

	"github.com/lucasb-eyer/go-colorful"

	"rutile/core/check"
	"rutile/core/craft"
	"rutile/core/surface"
)

// LayerKind is what a layer is.
type LayerKind string

// The kinds of layer, from below.
const (
	Substrate LayerKind = "substrate"
	Finish    LayerKind = "finish"
	Laid      LayerKind = "coat"
)

// Layer is one layer of the cut.
type Layer struct {
	Kind   LayerKind
	Name   string
	Family craft.Family
	// Group of the substrate, for its texture.
	Group craft.Group
	// Colour as #rrggbb; Clear layers tint what is under them with it.
	Colour string
	Clear  bool
	// Microns of dry film; 0 for the substrate.
	Microns float64
	Step    int // from 1, 0 for what was there
	CoatNo  int
	// Joint is how the layer holds on the one below; nil for what was there.
	Joint *check.Bond
	// Soils are what is shut in below the layer.
	Soils []string
	// Stain is what has crept up into this layer so far, in CIEDE2000 units
	// over white, and StainColour what it looks like.
	Stain       float64
	StainColour string
	// Spots tells that the layer lies on the spots alone.
	Spots bool
}

// Drawing is a cut through a zone, from the substrate up.
type Drawing struct {
	Layers []Layer
	// Grit of the scratches the first coat meets, 0 for none.
	Grit int
	// Source is what may rise from below: its names, the worst first.
	Source []string
}

// Usual thickness of what was there, in micrometres. Working default.
const oldFilm = 60

// Draw cuts through a judged zone.
func Draw(c *craft.Craft, z *check.Zone, groundColour string, r *check.Result) Drawing {
	var d Drawing
	sub, fin := &c.Substrates[z.Substrate], &c.Finishes[r.Facts.Finish]
	bottom := Layer{Kind: Substrate, Name: sub.Name, Family: sub.Family, Group: sub.Group, Colour: sub.Colour}
	if fin.Bare && groundColour != "" {
		bottom.Colour = groundColour
	}
	d.Layers = append(d.Layers, bottom)
	if !fin.Bare {
		l := Layer{Kind: Finish, Name: fin.Name, Family: fin.Family, Microns: oldFilm, Colour: Ground(sub, fin)}
		if groundColour != "" {
			l.Colour = groundColour
		}
		if c.Finishes[z.Finish].Unknown {
			l.Name = "Unknown, taken as " + fin.Name
		}
		l.Clear = fin.Colour == ""
		d.Layers = append(d.Layers, l)
	}
	for _, s := range r.Stains {
		d.Source = append(d.Source, craft.Bleeders[s.Bleeder].Name)
	}
	for i := range r.Trace.Events {
		e := &r.Trace.Events[i]
		before, after := &e.Before.Patches[surface.Field], &e.After.Patches[surface.Field]
		switch e.Doing.Do {
		case surface.Abrade:
			if after.Bare && !before.Bare {
				d.Layers = d.Layers[:1]
			}
			if len(d.Layers) > 0 && d.Layers[len(d.Layers)-1].Kind != Laid {
				d.Grit = e.Doing.Grit
			}
		case surface.Clean:
			if before.Top == craft.WaxFilm && after.Top != craft.WaxFilm {
				var top Layer
				for n := len(d.Layers) - 1; n > 0 && d.Layers[n].Family == craft.WaxFilm; n-- {
					top, d.Layers = d.Layers[n], d.Layers[:n]
				}
				if after.Top != sub.Family && len(d.Layers) == 1 {
					top.Name, top.Family, top.Clear = craft.Families[after.Top].Name, after.Top, false
					d.Layers = append(d.Layers, top)
				}
			}
		case surface.Coat:
			if e.NBounds > 0 {
				d.Layers = append(d.Layers, coat(c, z, r, e))
			}
		}
	}
	return d
}

func coat(c *craft.Craft, z *check.Zone, r *check.Result, e *surface.Event) Layer {
	p := &c.Products[e.Doing.Product]
	l := Layer{
		Kind: Laid, Name: p.Name, Family: p.Dried, Microns: p.Film, Colour: p.Colour,
		Clear: !p.Opaque(), Step: e.Step, CoatNo: e.CoatNo, Spots: e.Doing.Scope != surface.All,
	}
	if p.Role == craft.RolePaint && l.Colour == "" {
		l.Colour = z.Colour
	}
	if e.Doing.Colour != "" {
		l.Colour = e.Doing.Colour
	}
	if l.Colour == "" && p.Opaque() {
		l.Colour = "#f3f1ea"
	}
	for i := range e.Boundaries() {
		b := &e.Bounds[i]
		if l.Joint == nil || b.Strength < l.Joint.Strength {
			l.Joint = &check.Bond{Boundary: *b, Risk: b.Risk(c, r.Facts.Demand(), r.Adhesion != nil && r.Adhesion.Unknown)}
		}
		for s, lv := range b.Soils {
			if lv > 0 && i == 0 {
				l.Soils = append(l.Soils, craft.Soils[s].Name)
			}
		}
	}
	for i := range e.After.Patches[:e.After.N] {
		patch := &e.After.Patches[i]
		for b := range patch.Load {
			if s := patch.Stain(craft.Bleeder(b)); s > l.Stain {
				l.Stain, l.StainColour = s, craft.Bleeders[b].Colour
			}
		}
	}
	return l
}

// Ground is the colour a surface usually has before anything is done to it:
// the old finish's own, or the substrate's, darkened by a clear finish.
// Working default.
func Ground(sub *craft.SubstrateRow, fin *craft.FinishRow) string {
	if fin.Colour != "" {
		return fin.Colour
	}
	col, err := colorful.Hex(sub.Colour)
	if err != nil || fin.Deepen == 0 {
		return sub.Colour
	}
	l, a, b := col.Lab()
	const warmth = 1.25
	return colorful.Lab(math.Max(0, l-fin.Deepen/100), a*warmth, b*warmth).Clamped().Hex()
}
