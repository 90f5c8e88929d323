package parts

import (
	"fmt"
	"math"

	"rutile/core/measure"
)

// Point is a place in the drawing, in centimetres from its upper left corner.
type Point struct{ X, Y float64 }

// Shape is one part as it shows from the front.
type Shape struct {
	Part    int // index
	N       int // from 1: which of its count
	Outline []Point
	Hole    []Point   // an opening through it; empty for none
	Lines   [][]Point // what is drawn on it
	// Recess tells that it lies back, behind an opening.
	Recess bool
}

// Note is something about a part that the drawing brought to light.
type Note struct {
	Part int
	Says string
}

// Drawing is the front elevation of a piece, to scale.
type Drawing struct {
	W, H   float64 // centimetres
	Shapes []Shape // in the order they are drawn
	Hidden []int   // parts of which nothing shows from the front
	Notes  []Note
}

// maxShapes bounds the drawing.
const maxShapes = 1200

// Elevation draws a piece from its parts. Positions are inferred: parts after a carcass in the list
// belong to it, fronts fill it in rows from the top, and what has no place stands beside the piece.
func Elevation(all []Part, u measure.Units) Drawing {
	d := drafter{all: all, units: u, drawn: make([]int, len(all))}
	d.shapes = make([]Shape, 0, 2*len(all))
	right, before := 0., box{}
	for _, g := range groups(all) {
		at := len(d.shapes)
		b := d.group(g)
		if b.empty() {
			continue
		}
		dx, dy := right-b.x0, 0.
		if at > 0 {
			dx += between
		}
		if all[g[0]].Place == Above && at > 0 {
			dx, dy = (before.x0+before.x1)/2-(b.x0+b.x1)/2, before.y1
		}
		move(d.shapes[at:], dx, dy)
		before = box{b.x0 + dx, b.y0 + dy, b.x1 + dx, b.y1 + dy}
		right = max(right, before.x1)
	}
	d.loose(right)
	return d.finish()
}

// between is the gap between things that stand side by side.
const between = 6.

type box struct{ x0, y0, x1, y1 float64 }

func (b box) empty() bool { return b.x1 <= b.x0 }

// drafter draws with the floor at 0 and y upwards; finish turns it over.
type drafter struct {
	all    []Part
	units  measure.Units
	shapes []Shape
	drawn  []int // how many of each part are drawn
	notes  []Note
}

// groups are the parts by the carcass they follow; those before the first
// belong to it.
func groups(all []Part) [][]int {
	var out [][]int
	var cur []int
	body := false
	for i := range all {
		if all[i].Kind == Carcass {
			if body {
				out, cur = append(out, cur), nil
			}
			body = true
			cur = append([]int{i}, cur...)
			continue
		}
		cur = append(cur, i)
	}
	if len(cur) > 0 {
		out = append(out, cur)
	}
	return out
}

func (d *drafter) group(g []int) box {
	at := len(d.shapes)
	has := func(ks ...Kind) bool {
		for _, i := range g {
			for _, k := range ks {
				if d.all[i].Kind == k && d.all[i].Place != Above && d.all[i].Place != Below && d.all[i].Seen != 0 {
					return true
				}
			}
		}
		return false
	}
	switch {
	case d.all[g[0]].Kind == Carcass:
		c := &d.all[g[0]]
		n := d.seen(g[0])
		for b := range n {
			d.body(g, float64(b)*(c.Size[Width]+between), b, n)
		}
	case has(Frame):
		d.frames(g)
	case has(LegSquare, LegTurned) && has(Top, RoundTop, Pad, Rail):
		d.table(g)
	case has(Pot, Cylinder):
		d.vessels(g)
	}
	return extent(d.shapes[at:])
}

// seen is how many of a part show from the front.
func (d *drafter) seen(i int) int {
	p := &d.all[i]
	switch {
	case p.Seen >= 0:
		return min(p.Seen, p.Count)
	case p.Kind == DrawerBox:
		return 0
	case (p.Kind == LegSquare || p.Kind == LegTurned) && p.Count >= 4:
		return p.Count / 2
	}
	return p.Count
}

// share is how many of a part's n belong to the b-th of several alike.
func share(n, b, of int) int {
	k := n / of
	if b < n%of {
		k++
	}
	return k
}

func (d *drafter) add(i int, s Shape) {
	if len(d.shapes) >= maxShapes {
		return
	}
	d.drawn[i]++
	s.Part, s.N = i, d.drawn[i]
	d.shapes = append(d.shapes, s)
}

// face is a part's own outline, upright, with its lower left corner at x, y.
func face(p *Part, x, y float64) (Shape, float64, float64) {
	w, h := faceSize(p)
	s := Shape{Outline: rect(x, y, w, h)}
	switch p.Kind {
	case LegTurned, SpindleTurned:
		s.Outline = lathed(x+w/2, y, p.Size[Across], p.Size[AcrossAt], h)
	case Pot:
		top, base := p.Size[Across]/2, p.Size[AcrossAt]/2
		m := x + w/2
		s.Outline = []Point{{m - base, y}, {m + base, y}, {m + top, y + h}, {m - top, y + h}}
		if top >= base {
			at := top - (top-base)*.16
			s.Lines = [][]Point{{{m - at, y + h*.84}, {m + at, y + h*.84}}}
		}
	case Cylinder:
		for _, t := range []float64{.06, .94} {
			if h > 8 {
				s.Lines = append(s.Lines, []Point{{x, y + h*t}, {x + w, y + h*t}})
			}
		}
	case Pad:
		s.Outline = rounded(x, y, w, h, min(w, h)*.35)
		s.Lines = [][]Point{{{x, y + h*.5}, {x + w, y + h*.5}}}
	case RoundTop:
		s.Outline = rounded(x, y, w, h, min(w, h)*.3)
	case Handle:
		s.Outline = rounded(x, y, w, h, min(w, h)/2)
	case Knob:
		s.Outline = circle(x+w/2, y+h/2, w/2)
	case Frame:
		m := p.Size[Member]
		s.Hole = rect(x+m, y+m, w-2*m, h-2*m)
		s.Lines = [][]Point{
			{{x, y}, {x + m, y + m}}, {{x + w, y}, {x + w - m, y + m}},
			{{x, y + h}, {x + m, y + h - m}}, {{x + w, y + h}, {x + w - m, y + h - m}},
		}
	case Pane:
		s.Lines = [][]Point{
			{{x + w*.15, y + h*.55}, {x + w*.45, y + h*.85}}, {{x + w*.2, y + h*.4}, {x + w*.6, y + h*.8}},
		}
	case Door, DrawerFront, Panel, Carcass:
		if in := min(7, .16*min(w, h)); p.Relief == Moulded || p.Relief == Carved {
			s.Lines = [][]Point{closed(rect(x+in, y+in, w-2*in, h-2*in)), closed(rect(x+1.3*in, y+1.3*in, w-2.6*in, h-2.6*in))}
		}
	}
	return s, w, h
}

// faceSize is how wide and high a part shows from the front.
func faceSize(p *Part) (w, h float64) {
	s := &p.Size
	switch p.Kind {
	case Top, Shelf, Pad:
		return s[Width], s[Thick]
	case RoundTop:
		return s[Across], s[Thick]
	case LegSquare, SpindleSquare:
		return s[Width], s[Height]
	case LegTurned, SpindleTurned, Pot:
		return max(s[Across], s[AcrossAt]), s[Height]
	case Cylinder:
		return s[Across], s[Height]
	case Moulding:
		return s[Width], .45 * s[Girth]
	case Handle:
		return s[Width], max(s[Thick], .8)
	case Knob:
		return s[Across], s[Across]
	}
	return s[Width], s[Height]
}

// put draws a part at its own size, its lower left corner at x, y.
func (d *drafter) put(i int, x, y float64) {
	s, _, _ := face(&d.all[i], x, y)
	d.add(i, s)
}

// body draws the b-th of several carcasses that are alike, with its contents.
func (d *drafter) body(g []int, x float64, b, of int) {
	c := &d.all[g[0]]
	w, h, t := c.Size[Width], c.Size[Height], min(c.Size[Thick], 4)
	floor := d.below(g, x, w, b, of)
	d.put(g[0], x, floor)
	rows := d.rows(g, w, b, of)
	used := 0.
	for _, r := range rows {
		used += r.h
	}
	free := h - used
	frontFace, _ := Carcass.FaceNamed("front")
	open := free > max(8, .15*h) && c.Painted&frontFace == 0
	gap := max(0, free/float64(len(rows)+1))
	if open {
		gap = min(gap, t)
	}
	if free < -.05 && len(rows) > 0 {
		d.note(rows[len(rows)-1].part, fmt.Sprintf("The fronts together are %s high, but the carcass is %s.", d.units.Length(used), d.units.Length(h)))
	}
	at := floor + h - gap
	if open && len(rows) == 0 {
		at = floor + h
	}
	low := at - used - gap*float64(len(rows))
	if open {
		d.opening(g, x+t, floor+t, w-2*t, low-floor-2*t, b, of)
	}
	var fronts []leaf
	for _, r := range rows {
		at -= r.h
		fronts = append(fronts, d.row(r, x, w, at)...)
		at -= gap
	}
	d.infill(g, fronts, b, of)
	d.hardware(g, fronts, box{x, floor, x + w, floor + h}, b, of)
	n := 0
	for _, i := range g {
		if p := &d.all[i]; p.Kind == Moulding && p.Place == Auto {
			for range share(d.seen(i), b, of) {
				d.moulding(i, n, x, w, floor, h)
				n++
			}
		}
	}
	d.above(g, x, w, floor+h, b, of)
}

// moulding draws the n-th moulding of a body: the first under its top, the
// second at its foot; further ones do not show.
func (d *drafter) moulding(i, n int, x, w, floor, h float64) {
	const proud = 1.5
	mw, mh := faceSize(&d.all[i])
	if mw >= w {
		mw = w + 2*proud
	}
	y := floor + h - mh
	if n == 1 {
		y = floor
	}
	if n > 1 {
		return
	}
	s := Shape{Outline: rect(x+(w-mw)/2, y, mw, mh)}
	for _, k := range []float64{.35, .7} {
		s.Lines = append(s.Lines, []Point{{x + (w-mw)/2, y + k*mh}, {x + (w+mw)/2, y + k*mh}})
	}
	d.add(i, s)
}

// below draws legs and what stands at the foot, and returns how high the body
// then stands.
func (d *drafter) below(g []int, x, w float64, b, of int) float64 {
	floor := 0.
	for _, i := range g {
		if p := &d.all[i]; p.Place == Below && p.Kind != Carcass {
			pw, ph := faceSize(p)
			for range share(d.seen(i), b, of) {
				d.put(i, x+(w-pw)/2, floor)
				floor += ph
			}
		}
	}
	legs := 0.
	for _, i := range g {
		if p := &d.all[i]; (p.Kind == LegSquare || p.Kind == LegTurned) && p.Place == Auto {
			d.legs(i, share(d.seen(i), b, of), x, w, floor)
			legs = max(legs, p.Size[Height])
		}
	}
	return floor + legs
}

// legs spreads n legs over a width.
func (d *drafter) legs(i, n int, x, w, floor float64) {
	lw, _ := faceSize(&d.all[i])
	inset := min(3, .03*w)
	for k := range n {
		at := x + w/2 - lw/2
		if n > 1 {
			at = x + inset + (w-2*inset-lw)*float64(k)/float64(n-1)
		}
		d.put(i, at, floor)
	}
}

// tier is a row of fronts that are alike.
type tier struct {
	part, n int
	h       float64
}

// leaf is a front as it was drawn.
type leaf struct {
	part int
	at   box
	left bool // it is opened at its left edge
}

func (d *drafter) rows(g []int, w float64, b, of int) []tier {
	var out []tier
	for _, i := range g {
		p := &d.all[i]
		if p.Place != Auto || (p.Kind != DrawerFront && p.Kind != Door && p.Kind != Frame && p.Kind != Rail) {
			continue
		}
		pw, ph := faceSize(p)
		n := share(d.seen(i), b, of)
		if n == 0 {
			continue
		}
		if pw > w+5 {
			d.note(i, fmt.Sprintf("It is %s wide, but the part it belongs to is %s.", d.units.Length(pw), d.units.Length(w)))
		}
		per := max(1, int((w+.5)/pw))
		for ; n > 0; n -= per {
			out = append(out, tier{i, min(per, n), ph})
		}
	}
	return out
}

// row draws a row of fronts, evenly over a width.
func (d *drafter) row(r tier, x, w, y float64) []leaf {
	p := &d.all[r.part]
	pw, ph := faceSize(p)
	gap := max(0, (w-float64(r.n)*pw)/float64(r.n+1))
	if gap > 6 { // narrow things stand together in the middle
		gap = min(gap, 4)
	}
	left := x + (w-float64(r.n)*pw-float64(r.n-1)*gap)/2
	var out []leaf
	for k := range r.n {
		fx := left + float64(k)*(pw+gap)
		d.put(r.part, fx, y)
		if p.Kind != Rail {
			out = append(out, leaf{part: r.part, at: box{fx, y, fx + pw, y + ph}, left: k%2 == 1})
		}
	}
	return out
}

// opening draws what is seen through an open front: the back, and shelves.
func (d *drafter) opening(g []int, x, y, w, h float64, b, of int) {
	if h <= 0 || w <= 0 {
		return
	}
	back := g[0]
	for _, i := range g {
		if p := &d.all[i]; p.Kind == Panel && p.Place == Auto && p.Size[Width] > .6*w && d.seen(i) > 0 {
			back = i
			break
		}
	}
	s := Shape{Outline: rect(x, y, w, h), Recess: true}
	d.add(back, s)
	for _, i := range g {
		p := &d.all[i]
		if p.Kind != Shelf || p.Place != Auto {
			continue
		}
		n := share(d.seen(i), b, of)
		sw, sh := faceSize(p)
		sw = min(sw, w)
		for k := range n {
			d.add(i, Shape{Outline: rect(x+(w-sw)/2, y+h*float64(k+1)/float64(n+1)-sh/2, sw, sh)})
		}
	}
}

// infill draws panes and panels in the doors and frames that hold them.
func (d *drafter) infill(g []int, fronts []leaf, b, of int) {
	for _, i := range g {
		p := &d.all[i]
		if p.Place != Auto || (p.Kind != Pane && p.Kind != Panel) || d.drawn[i] >= d.seen(i) {
			continue
		}
		pw, ph := faceSize(p)
		n := share(d.seen(i), b, of)
		for k := range fronts {
			f := &fronts[k]
			if q := &d.all[f.part]; n == 0 || q.Kind == DrawerFront || pw > f.at.x1-f.at.x0 || ph > f.at.y1-f.at.y0 {
				continue
			}
			y := f.at.y1 - (f.at.y1-f.at.y0-ph)/2 - ph
			d.put(i, (f.at.x0+f.at.x1-pw)/2, y)
			n--
		}
	}
}

// hardware draws handles and knobs on the fronts, or on the body where there
// are none.
func (d *drafter) hardware(g []int, fronts []leaf, body box, b, of int) {
	if len(fronts) == 0 {
		fronts = []leaf{{part: g[0], at: body}}
	}
	for _, i := range g {
		p := &d.all[i]
		if (p.Kind != Handle && p.Kind != Knob) || p.Place != Auto {
			continue
		}
		n := share(d.seen(i), b, of)
		per := (n + len(fronts) - 1) / len(fronts)
		for k := range fronts {
			f := &fronts[k]
			here := min(per, n)
			n -= here
			for j := range here {
				d.handle(i, f, j, here)
			}
		}
	}
}

func (d *drafter) handle(i int, f *leaf, j, of int) {
	s, w, h := face(&d.all[i], 0, 0)
	fw, fh := f.at.x1-f.at.x0, f.at.y1-f.at.y0
	x, y := f.at.x0+fw*(float64(j)+.5)/float64(of)-w/2, f.at.y0+fh*.5-h/2
	if d.all[f.part].Kind == Door || d.all[f.part].Kind == Frame {
		if d.all[i].Kind == Handle { // upright on a door
			w, h = h, w
			s.Outline = rounded(0, 0, w, h, min(w, h)/2)
		}
		edge := min(5, .12*fw)
		x, y = f.at.x1-edge-w/2, f.at.y0+fh*.52-h/2-float64(j)*2*h
		if f.left {
			x = f.at.x0 + edge - w/2
		}
	}
	one := []Shape{s}
	move(one, x, y)
	d.add(i, one[0])
}

// above draws what lies or stands on top, in the order of the list, and
// returns how high that reaches.
func (d *drafter) above(g []int, x, w, y float64, b, of int) {
	for _, i := range g {
		p := &d.all[i]
		lies := p.Place == Auto && (p.Kind == Top || p.Kind == RoundTop || p.Kind == Pad)
		if p.Kind == Carcass || !lies && p.Place != Above {
			continue
		}
		n := share(d.seen(i), b, of)
		pw, ph := faceSize(p)
		switch {
		case n == 0:
		case p.Kind == Handle: // a ring stands up
			d.add(i, Shape{Outline: circle(x+w/2, y+pw/2, pw/2), Hole: circle(x+w/2, y+pw/2, max(.1, pw/2-p.Size[Thick]))})
			y += pw
		case p.Kind == SpindleSquare || p.Kind == SpindleTurned || p.Kind == LegSquare || p.Kind == LegTurned:
			d.legs(i, n, x, w, y)
			y += ph
		case lies:
			d.put(i, x+(w-pw)/2, y)
			y += ph
		default:
			left := x + (w-float64(n)*pw)/2
			for k := range n {
				d.put(i, left+float64(k)*pw, y)
			}
			y += ph
		}
	}
}

// table draws what stands on legs without a carcass.
func (d *drafter) table(g []int) {
	w, legs, lw := 0., 0., 0.
	for _, i := range g {
		p := &d.all[i]
		pw, ph := faceSize(p)
		switch p.Kind {
		case LegSquare, LegTurned:
			if p.Place == Auto {
				legs, lw = max(legs, ph), max(lw, pw)
			}
		case Top, RoundTop, Pad:
			w = max(w, pw)
		}
	}
	if w == 0 {
		for _, i := range g {
			if p := &d.all[i]; p.Kind == Rail && d.seen(i) > 0 {
				w = max(w, p.Size[Width]+2*lw)
			}
		}
	}
	inside := w - 2*(min(3, .03*w)+lw)
	bars := 0
	for _, i := range g {
		if p := &d.all[i]; p.Place == Auto && (p.Kind == Rail || p.Kind == SpindleSquare || p.Kind == SpindleTurned) {
			bars += d.bars(i)
		}
	}
	k := 0
	for _, i := range g {
		p := &d.all[i]
		if p.Place != Auto {
			continue
		}
		pw, ph := faceSize(p)
		switch p.Kind {
		case Panel:
			if d.seen(i) > 0 {
				pw = min(pw, inside)
				d.add(i, Shape{Outline: rect((w-pw)/2, legs-ph, pw, ph), Recess: true})
			}
		case Rail, SpindleSquare, SpindleTurned:
			if p.Kind != Rail { // a spindle between legs lies
				pw, ph = ph, pw
			}
			pw = min(pw, inside)
			for range d.bars(i) {
				y := legs - ph
				if k > 0 || p.Kind != Rail {
					y = .7 * legs * (1 - float64(k)/float64(bars+1))
					if bars <= 2 {
						y = .3*legs - ph/2
					}
				}
				d.add(i, Shape{Outline: rect((w-pw)/2, y, pw, ph)})
				k++
			}
		case Shelf:
			for n := range d.seen(i) {
				d.add(i, Shape{Outline: rect((w-pw)/2, legs*float64(n+1)/float64(d.seen(i)+3), pw, ph)})
			}
		}
	}
	at := legs
	var fronts []leaf
	for _, r := range d.rows(g, w, 0, 1) {
		if k := d.all[r.part].Kind; k == Rail {
			continue
		}
		at -= r.h + 1
		fronts = append(fronts, d.row(r, 0, w, at)...)
	}
	if len(fronts) > 0 {
		d.hardware(g, fronts, box{}, 0, 1)
	}
	d.below(g, 0, w, 0, 1)
	d.above(g, 0, w, legs, 0, 1)
}

// bars is how many bars between legs show: of two or four alike one lies
// behind the other.
func (d *drafter) bars(i int) int {
	p := &d.all[i]
	if p.Seen >= 0 {
		return min(p.Seen, p.Count)
	}
	if p.Count <= 2 {
		return 1
	}
	return (p.Count + 3) / 4
}

// frames draws frames side by side, with what they hold.
func (d *drafter) frames(g []int) {
	floor, w := 0., 0.
	type hung struct {
		part int
		at   box
	}
	var held []hung
	for _, i := range g {
		if p := &d.all[i]; p.Kind == Frame && p.Place == Auto {
			w += float64(d.seen(i)) * p.Size[Width]
		}
	}
	floor = d.below(g, 0, w, 0, 1)
	x, high := 0., 0.
	for _, i := range g {
		p := &d.all[i]
		if p.Kind != Frame || p.Place != Auto {
			continue
		}
		for range d.seen(i) {
			d.put(i, x, floor)
			held = append(held, hung{i, box{x, floor, x + p.Size[Width], floor + p.Size[Height]}})
			x += p.Size[Width]
			high = max(high, p.Size[Height])
		}
	}
	// Each frame holds its share of what is listed, from above.
	fronts := make([]leaf, len(held))
	for k, f := range held {
		fronts[k] = leaf{part: f.part, at: f.at, left: k%2 == 1}
		m := d.all[f.part].Size[Member]
		open := box{f.at.x0 + m, f.at.y0 + m, f.at.x1 - m, f.at.y1 - m}
		total := 0.
		each := func(do func(i, n int, w, h float64)) {
			for _, i := range g {
				p := &d.all[i]
				if p.Place != Auto || (p.Kind != Pane && p.Kind != Panel && p.Kind != Rail && p.Kind != SpindleSquare && p.Kind != SpindleTurned) {
					continue
				}
				pw, ph := faceSize(p)
				if n := share(d.seen(i), k, len(held)); n > 0 {
					do(i, n, pw, ph)
				}
			}
		}
		each(func(i, n int, w, h float64) {
			if k := d.all[i].Kind; k == SpindleSquare || k == SpindleTurned {
				total += h
			} else {
				total += float64(n) * h
			}
		})
		y := (open.y0+open.y1)/2 + total/2
		each(func(i, n int, w, h float64) {
			if k := d.all[i].Kind; k == SpindleSquare || k == SpindleTurned {
				y -= h
				d.legs(i, n, open.x0, open.x1-open.x0, y)
				return
			}
			for range n {
				y -= h
				d.put(i, (open.x0+open.x1-w)/2, y)
			}
		})
	}
	if len(fronts) > 0 {
		d.hardware(g, fronts, box{}, 0, 1)
	}
	d.above(g, 0, w, floor+high, 0, 1)
}

// vessels draws pots and drums side by side, each on its saucer.
func (d *drafter) vessels(g []int) {
	x, n := 0., 0
	for _, i := range g {
		if p := &d.all[i]; (p.Kind == Pot || p.Kind == Cylinder) && p.Place == Auto {
			n += d.seen(i)
		}
	}
	k := 0
	for _, i := range g {
		p := &d.all[i]
		if (p.Kind != Pot && p.Kind != Cylinder) || p.Place != Auto {
			continue
		}
		pw, ph := faceSize(p)
		for range d.seen(i) {
			wide := pw
			for _, j := range g {
				if jw, _ := faceSize(&d.all[j]); d.all[j].Place == Below {
					wide = max(wide, jw)
				}
			}
			left := x + (wide-pw)/2
			floor := d.below(g, left, pw, k, n)
			d.put(i, left, floor)
			d.hardware(g, []leaf{{part: i, at: box{left, floor, left + pw, floor + ph}}}, box{}, k, n)
			d.above(g, left, pw, floor+ph, k, n)
			x += wide + between
			k++
		}
	}
}

// loose places what found no place beside the piece; many boards and nothing else lie in rows, so that each is
// large enough to be seen.
func (d *drafter) loose(x float64) {
	const (
		inOneRow = 6
		wide     = 2. // a drawing about twice as wide as high fits beside the list of parts
	)
	n, area, high := 0, 0., 0.
	for i := range d.all {
		if d.drawn[i] == 0 && d.all[i].Seen != 0 && d.all[i].Kind != DrawerBox {
			w, h := faceSize(&d.all[i])
			seen := min(d.seen(i), 12)
			n += seen
			area += float64(seen) * (w + between) * (h + between)
			high = max(high, h)
		}
	}
	row, y := math.Inf(1), 0.
	if x == 0 && n > inOneRow {
		row = math.Sqrt(wide * area)
	}
	for i := range d.all {
		p := &d.all[i]
		if d.drawn[i] > 0 || p.Seen == 0 || p.Kind == DrawerBox || hiddenInside(d, i) {
			continue
		}
		w, _ := faceSize(p)
		for range min(d.seen(i), 12) {
			if x > 0 {
				x += between
			}
			if x > 0 && x+w > row {
				x, y = 0, y-high-between
			}
			d.put(i, x, y)
			x += w
		}
	}
}

// hiddenInside tells that a part lies behind something that is drawn: shelves
// behind doors, a second moulding, a back.
func hiddenInside(d *drafter, i int) bool {
	k := d.all[i].Kind
	if k != Shelf && k != Moulding && k != Panel {
		return false
	}
	for _, g := range groups(d.all) {
		for _, j := range g {
			if j == i {
				return d.all[g[0]].Kind == Carcass && d.drawn[g[0]] > 0
			}
		}
	}
	return false
}

func (d *drafter) note(i int, says string) {
	for _, n := range d.notes {
		if n.Says == says {
			return
		}
	}
	d.notes = append(d.notes, Note{i, says})
}

func (d *drafter) finish() Drawing {
	b := extent(d.shapes)
	out := Drawing{W: b.x1 - b.x0, H: b.y1 - b.y0, Shapes: d.shapes, Notes: d.notes}
	turn := func(ps []Point) {
		for i := range ps {
			ps[i] = Point{ps[i].X - b.x0, b.y1 - ps[i].Y}
		}
	}
	for i := range d.shapes {
		turn(d.shapes[i].Outline)
		turn(d.shapes[i].Hole)
		for _, l := range d.shapes[i].Lines {
			turn(l)
		}
	}
	for i := range d.all {
		if d.drawn[i] == 0 {
			out.Hidden = append(out.Hidden, i)
		}
	}
	return out
}

func extent(ss []Shape) box {
	if len(ss) == 0 {
		return box{}
	}
	b := box{math.Inf(1), math.Inf(1), math.Inf(-1), math.Inf(-1)}
	for i := range ss {
		for _, p := range ss[i].Outline {
			b = box{min(b.x0, p.X), min(b.y0, p.Y), max(b.x1, p.X), max(b.y1, p.Y)}
		}
	}
	return b
}

func move(ss []Shape, dx, dy float64) {
	shift := func(ps []Point) {
		for i := range ps {
			ps[i].X += dx
			ps[i].Y += dy
		}
	}
	for i := range ss {
		shift(ss[i].Outline)
		shift(ss[i].Hole)
		for _, l := range ss[i].Lines {
			shift(l)
		}
	}
}

func rect(x, y, w, h float64) []Point {
	return []Point{{x, y}, {x + w, y}, {x + w, y + h}, {x, y + h}}
}

func closed(ps []Point) []Point { return append(ps, ps[0]) }

// arc adds a quarter of a circle.
func arc(ps []Point, cx, cy, r, from float64) []Point {
	const steps = 4
	for i := range steps + 1 {
		sin, cos := math.Sincos(from + math.Pi/2*float64(i)/steps)
		ps = append(ps, Point{cx + r*cos, cy + r*sin})
	}
	return ps
}

func rounded(x, y, w, h, r float64) []Point {
	ps := make([]Point, 0, 20)
	ps = arc(ps, x+w-r, y+h-r, r, 0)
	ps = arc(ps, x+r, y+h-r, r, math.Pi/2)
	ps = arc(ps, x+r, y+r, r, math.Pi)
	return arc(ps, x+w-r, y+r, r, 3*math.Pi/2)
}

func circle(x, y, r float64) []Point { return rounded(x-r, y-r, 2*r, 2*r, r) }

// profile is half the outline of a turned part, from its foot up: at what
// height, and how thick there, as shares.
var profile = []Point{
	{.62, 0}, {.8, .02}, {.86, .05}, {.7, .08}, {.55, .12}, {.6, .3}, {.72, .48}, {.9, .6}, {.98, .66}, {.8, .72},
	{.55, .75}, {.78, .78}, {.82, .8}, {.6, .83}, {1, .86}, {1, 1},
}

func lathed(x, y, top, base, h float64) []Point {
	ps := make([]Point, 0, 2*len(profile))
	half := func(p Point) float64 { return p.X * (base + (top-base)*p.Y) / 2 }
	for _, p := range profile {
		ps = append(ps, Point{x + half(p), y + h*p.Y})
	}
	for i := len(profile) - 1; i >= 0; i-- {
		ps = append(ps, Point{x - half(profile[i]), y + h*profile[i].Y})
	}
	return ps
}
