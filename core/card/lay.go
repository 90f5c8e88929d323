package card

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"rutile/core/craft"
	"rutile/core/drying"
	"rutile/core/measure"
	"rutile/core/quantity"
	"rutile/core/surface"
)

// Laying is what the laying card says of a coat.
type Laying struct {
	Tool, Why, Load string
	Setup           []string // straining, thinning, the gun
	Before          []string
	Steps           []Step
	Stroke          string
	StrokeWhy       string
	Across          bool // the strokes run across the grain
	Dabbed          bool // turned parts are dabbed
	Once            bool // no second stroke
	// Section is how large a section is, in square metres, before it sets; 0 for no limit. SectionSays words it.
	Section     float64
	SectionSays string
	Edge        *Clock // how long an edge stays wet; nil for what has none to be joined
	Wipe        string
	Cloth       string
	Little      string
	Runs        string
	Faults      []Fault
	Protect     []string
	Clean       string
	Keep        string
	Waste       string
	// Clocks are offered when the coat is on.
	Clocks []Clock
}

// Fault is something that goes wrong, with what to do now and once it is dry.
type Fault struct{ ID, Name, Wet, Dry string }

// Lay is the laying card of a coat.
func Lay(k *Coat, b *quantity.Batch) Laying {
	row, r, s := k.row(), k.laying(), k.step()
	method, _ := craft.MethodNamed(s.Method)
	if row.Aerosol {
		method, _ = craft.MethodNamed("aerosol")
	}
	tool := r.Tool(method.ID)
	out := Laying{Tool: tool.Name, Why: tool.Why, Load: tool.Load, Cloth: r.Cloth, Little: r.Little, Runs: r.Runs, Clean: r.Clean, Keep: r.Keep, Waste: r.Waste}
	sprayed := method.ID == "spray"
	own, before := r.Lines, r.Before
	faults := slices.Clone(r.Faults)
	if sprayed {
		x := &craft.Sprayed
		own, before, faults = x.Lines, slices.Concat(safety(r.Before), x.Before), slices.Clone(x.Faults)
		out.Runs, out.Clean, out.Keep, out.Cloth, out.Little = x.Runs, x.Clean, x.Keep, "", ""
	}
	if row.Rags {
		out.Waste += " " + craft.SelfHeating
	}
	stroke, why := r.Stroke, ""
	var extra []craft.Line
	for _, x := range k.effectCards() {
		if x.Turn {
			stroke, why = x.Stroke, x.Why
		}
		out.Tool, out.Load, out.Runs = cmp.Or(x.Tool, out.Tool), cmp.Or(x.Load, out.Load), cmp.Or(x.Runs, out.Runs)
		if x.Tool != "" {
			out.Why = ""
		}
		out.Once = out.Once || x.Once
		if x.Once { // what is said of a second stroke does not hold
			faults = slices.DeleteFunc(faults, func(f craft.Fault) bool { return f.ID != "hair" && f.ID != "lump" })
		}
		extra = append(extra, x.Lines...)
		for _, f := range x.Faults {
			if i := slices.IndexFunc(faults, func(o craft.Fault) bool { return o.ID == f.ID }); i >= 0 {
				faults[i] = f
			} else {
				faults = append(faults, f)
			}
		}
	}
	for _, f := range faults {
		out.Faults = append(out.Faults, Fault{f.ID, craft.FaultNames[f.ID], f.Wet, f.Dry})
	}
	out.Why = sentence(out.Why)
	out.Across, out.Dabbed = stroke == craft.AcrossGrain, k.Turned && method.ID != "spray" && method.ID != "aerosol" && method.ID != "rag"
	out.Stroke, out.StrokeWhy = k.strokeSays(stroke, method.ID, out.Dabbed), sentence(why)
	out.Setup = k.setup(r, method.ID, b)
	for _, l := range k.lines(before, b) {
		out.Before = append(out.Before, l.Says)
	}
	lines := k.lines(own, b)
	if out.Once { // its own lines say how it is laid
		lines = slices.DeleteFunc(lines, func(l craft.Line) bool { return l.Timer == craft.NoTimer })
	}
	for _, l := range append(k.lines(extra, b), lines...) {
		st := Step{Says: l.Says}
		switch l.Timer {
		case craft.NoTimer:
		case craft.TimeWipe:
			st.Clock = k.clock(craft.TimeWipe, l.Minutes/60, 0)
		case craft.TimeTack:
			st.Clock = k.clock(craft.TimeTouch, row.Tacky.From, row.Tacky.From)
		default:
			st.Clock = k.clock(l.Timer, l.Minutes/60, 0)
		}
		out.Steps = append(out.Steps, st)
	}
	if r.WipeTo > 0 && !out.Once && !sprayed {
		p := k.pace(craft.TimeWipe)
		out.Wipe = fmt.Sprintf("After %s to %s in this air.", Span(r.WipeFrom*p), Span(r.WipeTo*p))
	}
	k.section(&out, r, method)
	out.Protect = k.protect(method.ID, row)
	out.Clocks = k.after(r)
	k.inUnits(&out.Tool, &out.Why, &out.Load, &out.Stroke, &out.StrokeWhy, &out.Cloth, &out.Little, &out.Runs, &out.Clean, &out.Keep, &out.Waste)
	for _, texts := range [][]string{out.Setup, out.Before, out.Protect} {
		k.allInUnits(texts)
	}
	k.stepsInUnits(out.Steps)
	for i := range out.Faults {
		k.inUnits(&out.Faults[i].Wet, &out.Faults[i].Dry)
	}
	return out
}

// sentence makes one of a clause; empty of none.
func sentence(s string) string {
	if s == "" {
		return ""
	}
	return craft.Upper(s) + "."
}

// safety are the lines of a row that hold whatever the coat is laid with: air, gloves, masks.
func safety(of []craft.Line) []craft.Line {
	return slices.DeleteFunc(slices.Clone(of), func(l craft.Line) bool { return l.When == craft.WhenLater })
}

// strokeSays words the direction of the strokes on this material.
func (k *Coat) strokeSays(s craft.Stroke, method string, dabbed bool) string {
	says := s.On(k.Craft.Substrates[k.Facts.Substrate].Group)
	if method == "spray" || method == "aerosol" {
		says = craft.SprayStrokes
	}
	switch {
	case dabbed && !k.Flat:
		says = craft.TurnedOnly
	case dabbed:
		says += craft.TurnedToo
	}
	return sentence(says)
}

// setup is what is done with tool and paint before the first stroke.
func (k *Coat) setup(r *craft.LayingRow, method string, b *quantity.Batch) []string {
	var out []string
	s := k.step()
	if b != nil && slices.ContainsFunc(k.lines(b.Row.Lines, b), func(l craft.Line) bool { return l.Strains }) {
		out = append(out, "Strained, as the mixing card says.")
	}
	if s.ThinPct > 0 {
		name, _ := quantity.ThinnerOf(k.row())
		out = append(out, fmt.Sprintf("Thinned with %.0f %% of %s.", s.ThinPct, name))
	}
	if method == "spray" && r.Gun.TipMM > 0 {
		thin := ""
		if s.ThinPct == 0 && r.Gun.ThinPct > 0 {
			thin = fmt.Sprintf(" Usually thinned by %.0f %%; this plan does not thin it: try on card first.", r.Gun.ThinPct)
		}
		out = append(out, fmt.Sprintf("Gun: nozzle %s mm, %s at the gun; %s. Its own booklet decides.%s", measure.Number(r.Gun.TipMM), k.Units.Pressure(r.Gun.Bar), r.Gun.Passes, thin))
	}
	return out
}

// section works out how much is laid before its edge sets.
func (k *Coat) section(out *Laying, r *craft.LayingRow, m craft.MethodRow) {
	row := k.row()
	edge := r.Edge
	if row.Open > 0 && edge == 0 {
		edge = row.Open
	}
	if edge > 0 && !out.Once && m.ID != "spray" && m.ID != "aerosol" {
		minutes := edge * k.pace(craft.TimeEdge) * 60
		out.Section = minutes / (m.Minutes * k.Facts.Pace())
	}
	if r.MostM2 > 0 && m.ID != "spray" && (out.Section == 0 || r.MostM2 < out.Section) {
		out.Section = r.MostM2
	}
	if out.Section == 0 {
		return
	}
	side := math.Floor(math.Sqrt(out.Section)*20) * 5 // centimetres, by fives
	side = max(10, side)
	size := k.Units.Sizes(side, side)
	if k.Units == measure.US {
		in := max(4, math.Floor(side/2.54))
		size = fmt.Sprintf("%.0f × %.0f in", in, in)
	}
	whole := k.Facts.Area > 0 && out.Section >= k.Facts.Area
	switch {
	case whole && edge > 0:
		out.SectionSays = fmt.Sprintf("The whole zone in one go: its edge stays wet for about %s here.", measure.Within(edge*k.pace(craft.TimeEdge)))
	case edge > 0 && r.MostM2 == 0:
		out.SectionSays = fmt.Sprintf("About %s at a time: its edge stays wet for %s in this air.", size, measure.Within(edge*k.pace(craft.TimeEdge)))
	default:
		out.SectionSays = fmt.Sprintf("About %s at a time, no more.", size)
	}
	if edge > 0 && r.MostM2 == 0 {
		out.Edge = k.clock(craft.TimeEdge, edge, 0)
	}
}

// protect is what is covered first.
func (k *Coat) protect(method string, row *craft.ProductRow) []string {
	var out []string
	for _, l := range k.lines(craft.Protects, nil) {
		out = append(out, l.Says)
	}
	if len(k.Masked) > 0 {
		out = append(out, "Masked or left on: "+craft.List(k.Masked)+". Look at the tape again.")
	}
	if len(k.Beside) > 0 {
		what := "Mask where it meets "
		if method == "brush" && row.Role != craft.RoleWax {
			what = "Mask or cut in where it meets "
		}
		out = append(out, what+craft.List(k.Beside)+".")
	}
	return out
}

// after are the clocks that start when the coat is on.
func (k *Coat) after(r *craft.LayingRow) []Clock {
	var out []Clock
	add := func(c *Clock) {
		if c != nil {
			out = append(out, *c)
		}
	}
	row := k.row()
	next := k.next()
	if row.Tacky.To > 0 && next != nil && next.Begun-k.event().After.Hours <= drying.Latest(row.Tacky.To, row, k.Air) {
		add(k.clock(craft.TimeTack, row.Tacky.To, 0))
	}
	if r.Buff > 0 {
		add(k.clock(craft.TimeBuff, r.Buff, 0))
	}
	if next != nil {
		for _, b := range next.Boundaries() {
			if b.Under == craft.NoProduct || b.Region != surface.Field && next.Doing.Scope == surface.All {
				continue
			}
			pace := k.pace(craft.TimeNext)
			if b.Earliest > 0 {
				add(k.clock(craft.TimeNext, b.Earliest/pace, min(b.Earliest/pace, row.Recoat.From)))
			}
			if !math.IsInf(b.Latest, 1) && b.Latest > 0 {
				add(k.clock(craft.TimeLatest, b.Latest/k.pace(craft.TimeLatest), 0))
			}
			break
		}
	} else if row.Touch > 0 {
		add(k.clock(craft.TimeTouch, row.Touch, 0))
		if !math.IsInf(row.Sand, 1) && row.LiesSmooth() {
			add(k.clock(craft.TimeSand, row.Sand, row.Sand))
		}
	}
	return out
}

// next is the next coat or effect that lands on this one; nil for none.
func (k *Coat) next() *surface.Event {
	for i := k.At + 1; i < len(k.Trace.Events); i++ {
		if e := &k.Trace.Events[i]; e.NBounds > 0 && (e.Doing.Do == surface.Coat || e.Doing.Do == surface.Effect) {
			return e
		}
	}
	return nil
}
