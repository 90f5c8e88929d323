package app

import (
	"fmt"
	"slices"
	"strconv"
	"strings"

	"rutile/core/colour"
	"rutile/core/craft"
	"rutile/core/damage"
	"rutile/core/disassembly"
	"rutile/core/drying"
	"rutile/core/measure"
	"rutile/core/parts"
	"rutile/internal/wire"
)

// Overview looks the piece over. films are the dry films of the zones' plans in micrometres; nil
// where they are not known.
func (j *Job) Overview(films []float64) wire.Overview {
	p, units := j.Piece, j.Shop.Units
	out := wire.Overview{Parts: []wire.PartOverview{}, Zones: []wire.ZoneOverview{}, Fittings: []wire.FittingOverview{}, Suggested: []wire.Fitting{}}
	ps := j.Parts
	d := parts.Elevation(ps, units)
	out.Elevation = elevation(&d, units)
	for i := range ps {
		w := partOverview(&ps[i], units)
		if z := ps[i].Zone; ps[i].Gap >= 0 && w.Moves {
			film := 0.
			if z >= 0 && z < len(films) {
				film = films[z]
			}
			w.Fit, w.Tight = fit(ps[i].Gap, film, units)
		}
		if ps[i].Zone < 0 && ps[i].Painted != 0 {
			out.Loose++
		}
		out.Parts = append(out.Parts, w)
	}
	for _, i := range d.Hidden {
		out.Parts[i].Hidden = true
	}
	for _, n := range d.Notes {
		out.Parts[n.Part].Note = n.Says
	}
	var found []damage.Defect
	for i := range p.Zones {
		out.Zones = append(out.Zones, j.zoneOverview(i))
		found = append(found, j.damage(i)...)
	}
	items := j.fittings()
	labels := disassembly.Labels(items)
	for i := range p.TakeApart {
		f := &p.TakeApart[i]
		row, _ := disassembly.RowOf(f.Kind)
		w := wire.FittingOverview{Title: f.Name, Labels: labels[i], Do: treatment(f), Clean: row.Clean, Store: row.Store}
		if w.Title == "" {
			w.Title = row.Plural
			if items[i].Count == 1 {
				w.Title = row.Name
			}
		}
		if row.Holes {
			h := holes(f, units)
			w.Holes, w.Drills = h.Says, h.Drill > 0
			if h.Fill > 0 {
				found = append(found, damage.Defect{ID: "hole", Count: h.Fill})
			}
		}
		out.Fittings = append(out.Fittings, w)
	}
	for _, it := range disassembly.Suggest(ps) {
		held := false
		for i := range p.TakeApart {
			held = held || p.TakeApart[i].Kind == it.Kind
		}
		if !held {
			out.Suggested = append(out.Suggested, wire.Fitting{Kind: it.Kind, Count: it.Count, Where: it.Where})
		}
	}
	out.DamageWork = damageWork(found, j.Air, units)
	return out
}

func partOverview(p *parts.Part, u measure.Units) wire.PartOverview {
	row := &parts.Kinds[p.Kind]
	m := p.Measure()
	w := wire.PartOverview{
		Title: p.Title(), Kind: row.Name, Sizes: sizesSay(p, u), Wants: p.Kind.Wants(), AreaM2: tidy(m.M2), Moves: row.Moves,
		Area: "not painted", Faces: []wire.Factor{}, Painted: []string{},
	}
	if m.M2 > 0 {
		w.Area = u.Area(m.M2)
	}
	if m.Length > 0 {
		w.Run = u.Run(m.Length)
	}
	for i, f := range row.Faces {
		if p.Painted&(1<<i) != 0 {
			m2 := p.FaceM2(i)
			w.Faces = append(w.Faces, wire.Factor{ID: f.ID, Value: tidy(m2), Shown: u.Area(m2), Words: fmt.Sprintf("%s: %s", f.Name, u.Area(m2))})
			w.Painted = append(w.Painted, f.ID)
		}
	}
	return w
}

func sizesSay(p *parts.Part, u measure.Units) string {
	var cm []float64
	for _, n := range parts.Kinds[p.Kind].Needs {
		cm = append(cm, p.Size[n.Dim])
	}
	return u.Sizes(cm...)
}

func fit(gap, film float64, u measure.Units) (says string, tight bool) {
	if film == 0 {
		return u.Small(gap) + " now; the plan will show how much the coats take up", false
	}
	f := parts.FitOf(gap, film)
	says = fmt.Sprintf("%s now, %s once both faces carry %s of coats", u.Small(gap), u.Small(max(0, f.LeftMM)), u.Small(film/1000))
	switch {
	case f.Sticks:
		says += ": it will stick; plane it before painting"
	case f.Tight:
		says += ": tight in a damp season"
	}
	return says, f.Tight
}

func (j *Job) zoneOverview(i int) wire.ZoneOverview {
	c, z, m, n, u := j.Craft, &j.Piece.Zones[i], j.measured[i], len(j.ofZone[i]), j.Shop.Units
	w := wire.ZoneOverview{
		ID: z.ID, AreaM2: z.AreaM2, PartsM2: tidy(m.M2), Typed: z.AreaM2 > 0, Parts: n,
		CoverM2: tidy(m.Cover), LengthM: tidy(m.Length), EdgesM: tidy(m.Edges), Work: tidy(m.Work), Colour: z.Colour,
	}
	if !w.Typed {
		w.AreaM2 = w.PartsM2
	}
	var say []string
	if w.AreaM2 > 0 {
		w.Area = u.Area(w.AreaM2)
		say = append(say, w.Area)
	}
	if w.Typed && n > 0 {
		say = append(say, "typed; its parts add up to "+u.Area(m.M2))
	}
	if m.Cover > 1.005*m.M2 {
		say = append(say, u.Area(m.Cover)+" to cover")
	}
	if m.Edges > 0 {
		say = append(say, u.Run(m.Edges)+" of edges")
	}
	if m.Length > 0 {
		say = append(say, u.Run(m.Length)+" of long parts")
	}
	if s := parts.WorkWords(m.Work); s != "" {
		say = append(say, s)
	}
	w.Says = strings.Join(say, ", ")
	sub, _ := c.Substrate(z.Substrate)
	row := &c.Substrates[sub]
	w.Mark = row.Mark()
	if fin, ok := c.Finish(z.Finish); ok {
		// Through a clear film the material is seen.
		if f := &c.Finishes[fin]; f.Colour != "" && !f.Unknown {
			w.Mark = f.Mark()
		}
		if w.Colour == "" {
			w.Colour = colour.Ground(row, &c.Finishes[fin]).Hex()
		}
	}
	if w.Colour == "" {
		w.Colour = row.Colour
	}
	if x := j.work(i); x != nil {
		w.Done, w.Steps = x.Past, len(z.Steps)
		if c := j.topColour(i, x); c != "" {
			w.Colour, w.Mark = c, ""
		}
	}
	own := j.damage(i)
	w.DamageWork = damageWork(own, j.Air, j.Shop.Units)
	if len(own) > 0 && j.Zones[i].LeadBars(c) {
		for k := range w.DamageWork.Items {
			w.DamageWork.Items[k].How = heldByLead
		}
	}
	return w
}

// fitted tells whether the coats of a zone take from the gap of something in it.
func (j *Job) fitted(zone int) bool {
	return slices.ContainsFunc(j.ofZone[zone], func(p parts.Part) bool { return p.Gap >= 0 && parts.Kinds[p.Kind].Moves })
}

// heldByLead replaces the repairs of damage while they would turn lead into dust.
const heldByLead = "The old coat may contain lead, and repairing scrapes or sands it: wait until a laboratory or a licensed assessor has excluded it."

func damageWork(ds []damage.Defect, air drying.Climate, u measure.Units) wire.DamageWork {
	w := damage.Of(ds, air)
	out := wire.DamageWork{Minutes: tidy(w.Minutes), Work: measure.Hours(w.Minutes / 60), Items: []wire.DamageItem{}, Says: w.Says(u)}
	if out.Says == nil {
		out.Says = []string{}
	}
	for _, it := range w.Items {
		m := wire.DamageItem{Defect: it.Defect, ML: tidy(it.ML), GlueML: tidy(it.Glue), Minutes: tidy(it.Minutes), How: it.How}
		say := []string{measure.Hours(max(1, it.Minutes) / 60)}
		switch it.Filler {
		case damage.TwoPart:
			m.Filler = craft.Fillers[0]
			say = append(say, "two-part filler "+damage.Millilitres(it.ML))
		case damage.Fine:
			m.Filler = craft.Fillers[1]
			say = append(say, "fine filler "+damage.Millilitres(it.ML))
		}
		if it.Glue > 0 {
			say = append(say, "glue "+damage.Millilitres(it.Glue))
		}
		m.Takes = strings.Join(say, ", ")
		out.Items = append(out.Items, m)
	}
	return out
}

func elevation(d *parts.Drawing, u measure.Units) wire.Elevation {
	out := wire.Elevation{W: mm(d.W), H: mm(d.H), Shapes: make([]wire.ElevShape, len(d.Shapes))}
	if len(d.Shapes) > 0 {
		out.Says = fmt.Sprintf("%s wide, %s high", u.Length(d.W), u.Length(d.H))
	}
	var b []byte
	for i := range d.Shapes {
		s := &d.Shapes[i]
		w := wire.ElevShape{Part: s.Part, N: s.N, Recess: s.Recess}
		b = path(b[:0], s.Outline, true)
		if len(s.Hole) > 0 {
			b = path(b, s.Hole, true)
		}
		w.D = string(b)
		b = b[:0]
		for _, l := range s.Lines {
			b = path(b, l, false)
		}
		w.Lines = string(b)
		out.Shapes[i] = w
	}
	return out
}

func mm(cm float64) float64 { return float64(int(cm*10+.5)) / 10 }

// path writes points as an SVG path, to the tenth of a millimetre.
func path(b []byte, ps []parts.Point, shut bool) []byte {
	for i, p := range ps {
		if i == 0 {
			b = append(b, 'M')
		} else {
			b = append(b, 'L')
		}
		b = strconv.AppendFloat(b, float64(int(p.X*100+.5))/100, 'f', -1, 64)
		b = append(b, ' ')
		b = strconv.AppendFloat(b, float64(int(p.Y*100+.5))/100, 'f', -1, 64)
	}
	if shut {
		b = append(b, 'Z')
	}
	return b
}

// holes is what new hardware does to the holes of a fitting.
func holes(f *wire.Fitting, u measure.Units) disassembly.Holes {
	mm := func(x *float64) float64 {
		if x == nil {
			return -1
		}
		return *x
	}
	return disassembly.HolesOf(f.Count, mm(f.HolesMM), mm(f.NewHoles), u)
}

// Templates describes the templates in a studio's units.
func Templates(u measure.Units) []wire.TemplateWord {
	out := make([]wire.TemplateWord, len(parts.Templates))
	for i := range parts.Templates {
		t := &parts.Templates[i]
		w := wire.TemplateWord{Word: wire.Word{ID: t.ID, Name: t.Name}, Counts: []wire.Counted{}}
		var cm []float64
		for _, a := range t.Sizes {
			cm = append(cm, a.Usual)
		}
		w.Sizes, w.Asks = u.Sizes(cm...), t.Wants()
		for _, a := range t.Counts {
			w.Counts = append(w.Counts, wire.Counted{Name: a.Name, Usual: int(a.Usual), Least: int(a.Least)})
		}
		ps, err := t.Make(nil, nil, u)
		if err == nil {
			d := parts.Elevation(ps, u)
			w.Elevation = elevation(&d, u)
		}
		out[i] = w
	}
	return out
}
