// Package section turns a judged walk into a drawing of the cross-section of a zone's coats: the
// layers, how thick they are, and how well each boundary holds. It holds no shapes or pixels; the
// page decides how they look.
package section

import (
	"fmt"
	"math"

	"rutile/core/check"
	"rutile/core/colour"
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
	// StainWords says what that is, empty where the eye would not see it.
	StainWords string
	// Over is the same at each of the Moments.
	Over [len(Moments)]float64
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
	// InTime tells whether what the plan leaves it is right, and FromLabel that the window is from the label of
	// its can.
	InTime, FromLabel bool
}

// Moments are when a stain is looked at as it comes, in days.
var Moments = [...]struct {
	Days float64
	Name string
}{{0, "Fresh"}, {1, "Day 1"}, {14, "Week 2"}, {90, "Month 3"}, {365, "Year 1"}}

// Face is what the finished surface looks like at one of the Moments.
type Face struct {
	Colour string // as #rrggbb
	// DeltaE is how far the worst stain has changed it, in CIEDE2000 units, and Of
	// which that is; Spots tells that it shows in spots.
	DeltaE float64
	Of     string
	Spots  bool
	by     craft.Bleeder
}

// Says is the face in words.
func (f *Face) Says() string {
	switch {
	case f.Of == "" || check.StainVerdict(f.DeltaE) == check.Sound:
		return "no visible change."
	case f.Spots:
		return fmt.Sprintf("%s shows through in spots: %s.", f.Of, check.StainWords(f.by, f.DeltaE))
	}
	return fmt.Sprintf("%s shows through all over: %s.", f.Of, check.StainWords(f.by, f.DeltaE))
}

// WearSays is what an edge shows as it wears, in words; empty where there is but
// one colour.
func (d *Drawing) WearSays() string {
	if len(d.Worn) < 2 {
		return ""
	}
	out := "In worn places: "
	for i, w := range d.Worn {
		if i > 0 {
			out += ", then "
		}
		out += craft.Lower(d.Layers[w.Layer].Name)
		if i > 0 && w.Difference < check.Contrasting {
			out += " (hardly different in colour)"
		}
	}
	return out + "."
}

// Exposed is a layer that wear exposes.
type Exposed struct {
	Layer  int // index into Layers
	Colour string
	// Difference is how far its colour is from the finished one, in CIEDE2000 units.
	Difference float64
}

// Mark is a step that leaves no layer: where in the cut it was done.
type Mark struct {
	Step int // from 1
	Do   surface.StepKind
	// On is the layer whose face it worked on, an index into Layers.
	On int
}

// Drawing is a cut through a zone, from the substrate up.
type Drawing struct {
	Layers []Layer
	Marks  []Mark
	// Grit of the scratches the first coat meets, 0 for none.
	Grit int
	// Source is what may bleed from below: its names, the worst first.
	Source []string
	// Faces are the finished surface over time, one for each of the Moments; nil
	// where nothing is painted.
	Faces []Face
	// Worn are the colours that come to light as an edge wears down, the topmost
	// paint first.
	Worn []Exposed
}

// Usual thickness of what was there, in micrometres. Working default.
const oldFilm = 60

// Draw cuts through a judged zone.
func Draw(c *craft.Craft, z *check.Zone, groundColour string, r *check.Result) Drawing {
	var d Drawing
	sub, fin := &c.Substrates[r.Facts.Substrate], &c.Finishes[r.Facts.Finish]
	name := sub.Name
	if r.Facts.Substrate != z.Substrate {
		name = c.Substrates[z.Substrate].Name + ", assumed " + craft.Lower(sub.Name)
	}
	bottom := Layer{Kind: Substrate, Name: name, Family: sub.Family, Group: sub.Group, Colour: sub.Colour}
	if fin.Bare && groundColour != "" {
		bottom.Colour = groundColour
	}
	d.Layers = append(d.Layers, bottom)
	if !fin.Bare {
		l := Layer{Kind: Finish, Name: fin.Name, Family: fin.Family, Microns: oldFilm, Colour: colour.Ground(sub, fin).Hex()}
		if groundColour != "" {
			l.Colour = groundColour
		}
		switch {
		case c.Finishes[z.Finish].Unknown:
			l.Name = "Unknown, assumed " + craft.Lower(fin.Name)
		case r.Facts.Finish != z.Finish:
			l.Name = c.Finishes[z.Finish].Name + ", assumed " + craft.Lower(fin.Name)
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
	d.faces(c, r)
	d.wear()
	return d
}

// faces works out what the finished surface looks like as stains come.
func (d *Drawing) faces(c *craft.Craft, r *check.Result) {
	s := &r.Appearance
	if len(s.Paints) == 0 {
		return
	}
	fresh := r.Sealed(c)
	for _, at := range Moments {
		f := Face{Colour: fresh.Hex()}
		for i := range r.Stains {
			if st := &r.Stains[i]; st.After(at.Days) > f.DeltaE {
				b := &craft.Bleeders[st.Bleeder]
				f.DeltaE, f.Of, f.by, f.Spots = st.After(at.Days), b.Name, st.Bleeder, st.Region == surface.SpotRegion
				if to, ok := colour.Parse(b.Colour); ok {
					f.Colour = colour.Toward(fresh, to, f.DeltaE).Hex()
				}
			}
		}
		d.Faces = append(d.Faces, f)
	}
}

// wear lists the colours that an edge shows as it wears down.
func (d *Drawing) wear() {
	var top colour.RGB
	for i := len(d.Layers) - 1; i >= 0; i-- {
		l := &d.Layers[i]
		c, ok := colour.Parse(l.Colour)
		if l.Clear && l.Kind == Laid || l.Spots || !ok {
			continue
		}
		if len(d.Worn) == 0 {
			top = c
		}
		if n := len(d.Worn); n > 0 && d.Worn[n-1].Colour == l.Colour {
			d.Worn[n-1].Layer = i
			continue
		}
		d.Worn = append(d.Worn, Exposed{i, l.Colour, colour.Difference(top, c)})
	}
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
	before, after := &e.Before.Regions[surface.Field], &e.After.Regions[surface.Field]
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
	case surface.Strip:
		w.cut(1)
		if after.Top != w.sub.Family {
			d.Layers[0].Name, d.Layers[0].Family, d.Layers[0].Group = "Board below", after.Top, craft.GroupBoard
		}
	case surface.Coat, surface.Effect:
		product := e.Doing.Product
		if e.Doing.Do == surface.Effect {
			if e.Effect == nil || !e.Effect.Covers {
				break
			}
			product, _ = w.c.Product(e.Effect.Lays)
		}
		if e.NBounds == 0 {
			break
		}
		l := coat(w.c, w.z, w.r, e, product)
		below := len(d.Layers) - 1
		for i := range e.Boundaries() {
			if b := &e.Bounds[i]; b.Under != craft.NoProduct && d.Layers[below].Kind == Laid {
				under := &d.Layers[below]
				under.Waits, under.From, under.To, under.InTime = b.Waited, b.Earliest, b.Latest, b.InTime()
				under.FromLabel = w.c.Products[b.Under].Label.GivesWindow()
				break
			}
		}
		w.laidAt[len(d.Layers)] = e.After.Regions[surface.Field].At
		if p := e.After.Region(surface.SpotRegion); l.Spots && p != nil {
			w.laidAt[len(d.Layers)] = p.At
		}
		d.Layers = append(d.Layers, l)
		return
	}
	d.Marks = append(d.Marks, Mark{Step: e.Step, Do: e.Doing.Do, On: len(d.Layers) - 1})
}

func coat(c *craft.Craft, z *check.Zone, r *check.Result, e *surface.Event, product craft.Product) Layer {
	p := &c.Products[product]
	l := Layer{
		Kind: Laid, Name: p.Name, Family: p.Dried, Microns: e.Film(p),
		Clear: !p.Opaque(), Step: e.Step, CoatNo: e.CoatNo, Spots: e.Doing.Scope != surface.All,
	}
	if col, ok := z.ColourOf(p, e.Doing.Colour); ok || p.Opaque() {
		l.Colour = col.Hex()
	}
	for i := range e.Boundaries() {
		b := &e.Bounds[i]
		if l.Joint == nil || b.Strength < l.Joint.Strength {
			l.Joint = &check.Bond{Boundary: *b, Risk: b.Risk(c, r.Facts.Demand(), r.Doubt)}
		}
		for s, lv := range b.Soils {
			if lv > 0 && i == 0 {
				l.Soils = append(l.Soils, craft.Soils[s].Name)
				if e.Before.Regions[surface.Field].Driven&(1<<s) != 0 {
					l.Driven = append(l.Driven, craft.Soils[s].Name)
				}
			}
		}
	}
	for i := range e.After.Regions[:e.After.N] {
		patch := &e.After.Regions[i]
		if patch.Kind == surface.Worn {
			continue // the cut goes through the face
		}
		for b := range patch.Load {
			s := patch.Stain(craft.Bleeder(b))
			if s > l.Stain {
				l.Stain, l.StainColour, l.StainWords = s, craft.Bleeders[b].Colour, ""
				if check.StainVerdict(s) != check.Sound {
					l.StainWords = craft.Bleeders[b].Name + ": " + check.StainWords(craft.Bleeder(b), s)
				}
			}
			for n, at := range Moments {
				l.Over[n] = max(l.Over[n], s*craft.Bleeders[b].Come(at.Days))
			}
		}
	}
	if e.Effect != nil {
		l.Name, l.CoatNo = e.Effect.Name, 0
	}
	return l
}
