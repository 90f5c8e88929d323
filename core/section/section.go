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
	// Driven are the soils below that abrasion rubbed in.
	Driven []string
	// Grit of the scratches on the layer's face, where it was abraded before
	// the next came: 0 for none, and Padded for a pad's.
	Grit   int
	Padded bool
	// Waits is how long the plan leaves the layer before the next, in hours,
	// and From and To the window it has for that at the site; To is infinite
	// where there is no latest, and both are 0 where nothing follows.
	Waits, From, To float64
}

// Mark is a step that leaves no layer: where in the cut it was done.
type Mark struct {
	Step int // from 1
	Do   surface.Kind
	// On is the layer whose face it worked on, an index into Layers.
	On int
}

// Drawing is a cut through a zone, from the substrate up.
type Drawing struct {
	Layers []Layer
	Marks  []Mark
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
	sub, fin := &c.Substrates[r.Facts.Substrate], &c.Finishes[r.Facts.Finish]
	name := sub.Name
	if r.Facts.Substrate != z.Substrate {
		name = c.Substrates[z.Substrate].Name + ", taken as " + craft.Lower(sub.Name)
	}
	bottom := Layer{Kind: Substrate, Name: name, Family: sub.Family, Group: sub.Group, Colour: sub.Colour}
	if fin.Bare && groundColour != "" {
		bottom.Colour = groundColour
	}
	d.Layers = append(d.Layers, bottom)
	if !fin.Bare {
		l := Layer{Kind: Finish, Name: fin.Name, Family: fin.Family, Microns: oldFilm, Colour: Ground(sub, fin)}
		if groundColour != "" {
			l.Colour = groundColour
		}
		switch {
		case c.Finishes[z.Finish].Unknown:
			l.Name = "Unknown, taken as " + fin.Name
		case r.Facts.Finish != z.Finish:
			l.Name = c.Finishes[z.Finish].Name + ", taken as " + craft.Lower(fin.Name)
		}
		l.Clear = fin.Colour == ""
		d.Layers = append(d.Layers, l)
	}
	for _, s := range r.Stains {
		d.Source = append(d.Source, craft.Bleeders[s.Bleeder].Name)
	}
	dr := drawer{c: c, z: z, r: r, sub: sub, d: &d, laidAt: map[int]float64{}}
	for i := range r.Trace.Events {
		dr.event(&r.Trace.Events[i])
	}
	if top := len(d.Layers) - 1; d.Layers[top].Kind == Laid {
		d.Layers[top].Waits = math.Max(0, r.Trace.End.Hours-dr.laidAt[top])
	}
	return d
}

// drawer adds one event after the other to a drawing.
type drawer struct {
	c      *craft.Craft
	z      *check.Zone
	r      *check.Result
	sub    *craft.SubstrateRow
	d      *Drawing
	laidAt map[int]float64 // hours, by layer
}

func (w *drawer) cut(n int) {
	w.d.Layers = w.d.Layers[:n]
	for i := range w.d.Marks {
		w.d.Marks[i].On = min(w.d.Marks[i].On, n-1)
	}
}

func (w *drawer) event(e *surface.Event) {
	d := w.d
	before, after := &e.Before.Patches[surface.Field], &e.After.Patches[surface.Field]
	switch e.Doing.Do {
	case surface.Abrade:
		if after.Bare && !before.Bare {
			w.cut(1)
		}
		top := &d.Layers[len(d.Layers)-1]
		top.Grit, top.Padded = e.Doing.Grit, e.Doing.How == craft.Pad
		if top.Kind != Laid {
			d.Grit = e.Doing.Grit
		}
	case surface.Clean:
		if before.Top == craft.WaxFilm && after.Top != craft.WaxFilm {
			var top Layer
			n := len(d.Layers)
			for ; n > 1 && d.Layers[n-1].Family == craft.WaxFilm; n-- {
				top = d.Layers[n-1]
			}
			w.cut(n)
			if after.Top != w.sub.Family && n == 1 {
				top.Name, top.Family, top.Clear = craft.Families[after.Top].Name, after.Top, false
				d.Layers = append(d.Layers, top)
			}
		}
	case surface.Coat:
		if e.NBounds == 0 {
			break
		}
		l := coat(w.c, w.z, w.r, e)
		below := len(d.Layers) - 1
		for i := range e.Boundaries() {
			if b := &e.Bounds[i]; b.Under != craft.NoProduct && d.Layers[below].Kind == Laid {
				d.Layers[below].Waits, d.Layers[below].From, d.Layers[below].To = b.Waited, b.Earliest, b.Latest
				break
			}
		}
		w.laidAt[len(d.Layers)] = e.After.Patches[surface.Field].At
		if l.Spots {
			w.laidAt[len(d.Layers)] = e.After.Patches[min(1, int(e.After.N)-1)].At
		}
		d.Layers = append(d.Layers, l)
		return
	}
	d.Marks = append(d.Marks, Mark{Step: e.Step, Do: e.Doing.Do, On: len(d.Layers) - 1})
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
			l.Joint = &check.Bond{Boundary: *b, Risk: b.Risk(c, r.Facts.Demand(), r.Doubt)}
		}
		for s, lv := range b.Soils {
			if lv > 0 && i == 0 {
				l.Soils = append(l.Soils, craft.Soils[s].Name)
				if e.Before.Patches[surface.Field].Driven&(1<<s) != 0 {
					l.Driven = append(l.Driven, craft.Soils[s].Name)
				}
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
