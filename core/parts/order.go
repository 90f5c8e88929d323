package parts

import (
	"cmp"
	"math"
	"slices"
)

// Run is the way that strokes go in the drawing.
type Run uint8

// The ways.
const (
	Level   Run = iota // side to side
	Upright            // up and down
	Around             // dabbed all round
)

// Mark is where a turn shows in the drawing.
type Mark struct {
	N       int // which of the part's count, from 1
	Outline []Point
	Hole    []Point // what of it is another's turn; empty for none
	// At is where along a band its number stands, from 0 at the left to 1; 0 for the middle.
	At float64
}

// Turn is one place in the order in which the parts of a zone are painted.
type Turn struct {
	// N is its number in the order, from 1. Alike parts have the same numbers: each is finished before the next.
	N    int
	Part int // index
	Says string
	Run  Run
	// Apart tells that its part is off the piece and lies by itself.
	Apart bool
	// Last tells that the next number is another part.
	Last bool
	// Marks are where it shows from the front; none where it does not.
	Marks []Mark
}

// bit is a place on a kind of part: a face, or a share of one.
type bit struct {
	face string
	says string
	// rank is its turn on the body of the piece: what is below, behind and inside first, then what is hard to
	// reach, edges before the flats they belong to, and the top last. Working default.
	rank int
	run  Run
	in   func(b box) []Mark // nil for what does not show
}

// The ranks.
const (
	rankUnder = iota
	rankBack
	rankInside
	rankHardware
	rankLeg
	rankSpindle
	rankRail
	rankShelf
	rankFrame
	rankMoulding
	rankEdges
	rankPanel
	rankSides
	rankFront
	rankPad
	rankTopEdges
	rankTop
)

func whole(b box) []Mark { return []Mark{{Outline: rect(b.x0, b.y0, b.x1-b.x0, b.y1-b.y0)}} }

// ring is a band around the inside of a box.
func ring(b box, by float64) []Mark {
	w, h := b.x1-b.x0, b.y1-b.y0
	by = min(by, w/3, h/3)
	return []Mark{{Outline: rect(b.x0, b.y0, w, h), Hole: rect(b.x0+by, b.y0+by, w-2*by, h-2*by)}}
}

// edge is the band of the edges. Its number stands beside those of the moulding and of the rails.
func edge(b box) []Mark {
	out := ring(b, max(.8, .04*min(b.x1-b.x0, b.y1-b.y0)))
	out[0].At = .22
	return out
}

// rims is the front edges of a carcass.
func rims(b box, by float64) []Mark {
	out := ring(b, by)
	out[0].At = .08
	return out
}

// sunk is how far the moulding of a panel lies inside its frame, as it is drawn.
func sunk(b box) float64 { return min(7, .16*min(b.x1-b.x0, b.y1-b.y0)) }

func within(b box, by float64) box { return box{b.x0 + by, b.y0 + by, b.x1 - by, b.y1 - by} }

func field(b box) []Mark { return whole(within(b, 1.3*sunk(b))) }
func bead(b box) []Mark  { return ring(within(b, sunk(b)), .3*sunk(b)) }

// crossRails and stiles are the members of a frame: stiles go all the way up.
func crossRails(b box, m float64) []Mark {
	return append(whole(box{b.x0 + m, b.y0, b.x1 - m, b.y0 + m}), whole(box{b.x0 + m, b.y1 - m, b.x1 - m, b.y1})...)
}

func stiles(b box, m float64) []Mark {
	return append(whole(box{b.x0, b.y0, b.x0 + m, b.y1}), whole(box{b.x1 - m, b.y0, b.x1, b.y1})...)
}

// bitsOf are the bits of a part in the order in which they are painted.
func bitsOf(p *Part) []bit {
	panelled := p.Relief == Moulded || p.Relief == Carved
	frame := func(rank int, m func(b box) float64) []bit {
		return []bit{
			{"front", "its rails, the cross members", rank, Level, func(b box) []Mark { return crossRails(b, m(b)) }},
			{"front", "its stiles, the uprights", rank, Upright, func(b box) []Mark { return stiles(b, m(b)) }},
		}
	}
	panel := func(run Run) []bit {
		return append([]bit{
			{"front", "the field of the panel", rankPanel, run, field},
			{"front", "the moulding around it, into the corners", rankPanel, run, bead},
		}, frame(rankPanel, sunk)...)
	}
	switch p.Kind {
	case Door, DrawerFront, Panel:
		run := Upright
		if p.Kind == DrawerFront || p.Size[Width] > p.Size[Height] {
			run = Level
		}
		back := bit{"back", "the back", rankBack, run, nil}
		edges := bit{"edges", "the edges all round", rankEdges, run, edge}
		if panelled {
			edges.rank = rankPanel
			return append(append([]bit{back}, panel(run)...), edges)
		}
		return []bit{back, edges, {"front", "the face", rankPanel, run, whole}}
	case DrawerBox:
		return []bit{{"inside", "the inside", rankInside, Level, nil}, {"under", "the underside", rankUnder, Level, nil}, {"rims", "the upper rims", rankEdges, Level, nil}, {"outside", "the outside", rankSides, Level, nil}}
	case Carcass:
		fronts := []bit{{"front", "the closed front", rankFront, Upright, whole}}
		if panelled {
			fronts = panel(Upright)
		}
		return append([]bit{
			{"under", "the underside", rankUnder, Level, nil}, {"back", "the back", rankBack, Upright, nil}, {"inside", "the inside", rankInside, Upright, nil},
			{"edges", "the front edges between the openings", rankEdges, Upright, func(b box) []Mark { return rims(b, p.Size[Thick]) }},
		}, append(fronts, bit{"sides", "both sides", rankSides, Upright, nil}, bit{"top", "the top of it", rankTop, Level, nil})...)
	case Top:
		return []bit{{"under", "the underside", rankUnder, Level, nil}, {"edges", "the edges", rankTopEdges, Level, whole}, {"upper", "the upper face", rankTop, Level, nil}}
	case RoundTop:
		return []bit{{"under", "the underside", rankUnder, Level, nil}, {"edges", "the edge", rankTopEdges, Level, whole}, {"upper", "the upper face, all one way", rankTop, Level, nil}}
	case Shelf:
		return []bit{{"under", "the underside", rankUnder, Level, nil}, {"ends", "the ends and the back edge", rankShelf, Level, nil}, {"upper", "the upper face", rankShelf, Level, nil}, {"edge", "the front edge", rankShelf, Level, whole}}
	case Rail:
		run := Level
		if p.Size[Height] > p.Size[Width] {
			run = Upright
		}
		return []bit{{"back", "the back", rankBack, run, nil}, {"edges", "both long edges", rankRail, run, nil}, {"front", "the front", rankRail, run, whole}}
	case Moulding:
		return []bit{{"face", "the profile, hollows first", rankMoulding, Level, whole}}
	case LegSquare:
		return []bit{{"sides", "all four sides, the inner ones first", rankLeg, Upright, whole}}
	case SpindleSquare:
		return []bit{{"sides", "all four sides", rankSpindle, Upright, whole}}
	case LegTurned:
		return []bit{{"round", "all round, hollows first, dabbed", rankLeg, Around, whole}}
	case SpindleTurned:
		return []bit{{"round", "all round, hollows first, dabbed", rankSpindle, Around, whole}}
	case Frame:
		m := func(box) float64 { return p.Size[Member] }
		return append([]bit{{"back", "the back", rankBack, Upright, nil}, {"inner", "the inner edges", rankFrame, Upright, nil}},
			append(frame(rankFrame, m), bit{"outer", "the outer edges", rankFrame, Upright, edge})...)
	case Pane:
		return []bit{{"back", "the other face", rankBack, Upright, nil}, {"front", "the face, one way", rankPanel, Upright, whole}}
	case Cylinder:
		return []bit{{"under", "the underside", rankUnder, Level, nil}, {"inside", "the inside", rankInside, Level, nil}, {"side", "the outside, from the rim down", rankSides, Upright, whole}, {"top", "the top of it", rankTop, Level, nil}}
	case Pot:
		return []bit{{"under", "the underside", rankUnder, Level, nil}, {"inside", "the inside", rankInside, Level, nil}, {"rim", "the inside of the rim", rankEdges, Level, nil}, {"side", "the outside, from the rim down", rankSides, Upright, whole}}
	case Pad:
		return []bit{{"under", "the underside", rankUnder, Level, nil}, {"edges", "its sides with the piping", rankPad, Level, whole}, {"upper", "the upper face, from the back to the front edge", rankPad, Level, nil}}
	case Handle, Knob:
		return []bit{{"round", "all round", rankHardware, Around, whole}}
	}
	return nil
}

// Order is the order in which the painted faces of a zone's parts are painted, as painters usually go about it: what
// comes off lies by itself and is done first, then the body, from what is below, behind and inside to the top. d is
// the drawing of the same parts.
func Order(all []Part, d *Drawing, zone int) []Turn {
	type place struct {
		part, nth int
		bit       bit
	}
	var turns []place
	for i := range all {
		p := &all[i]
		if p.Zone != zone {
			continue
		}
		n := 0
		for _, b := range bitsOf(p) {
			if f, ok := p.Kind.FaceNamed(b.face); ok && p.Painted&f != 0 {
				turns = append(turns, place{i, n, b})
				n++
			}
		}
	}
	apart := func(t *place) bool { return Kinds[all[t.part].Kind].Moves }
	slices.SortStableFunc(turns, func(a, b place) int {
		x, y := apart(&a), apart(&b)
		switch {
		case x != y && x:
			return -1
		case x != y:
			return 1
		case x: // each by itself, in its own order
			return cmp.Or(cmp.Compare(a.part, b.part), cmp.Compare(a.nth, b.nth))
		}
		return cmp.Or(cmp.Compare(a.bit.rank, b.bit.rank), cmp.Compare(a.part, b.part), cmp.Compare(a.nth, b.nth))
	})
	out := make([]Turn, len(turns))
	for k, t := range turns {
		p := &all[t.part]
		x := Turn{N: k + 1, Part: t.part, Says: saysBit(p, &t.bit), Run: t.bit.run, Apart: apart(&t), Last: k == len(turns)-1 || turns[k+1].part != t.part}
		for i := range d.Shapes {
			s := &d.Shapes[i]
			if s.Part != t.part || t.bit.in == nil {
				continue
			}
			if t.bit.face == "round" || t.bit.face == "side" || p.Kind == Pad {
				x.Marks = append(x.Marks, Mark{N: s.N, Outline: s.Outline})
				continue
			}
			for _, m := range t.bit.in(boxOf(s.Outline)) {
				m.N = s.N
				x.Marks = append(x.Marks, m)
			}
		}
		out[k] = x
	}
	return out
}

// saysBit names a bit with its part, as "Drawer fronts, each: the face".
func saysBit(p *Part, b *bit) string {
	each := ""
	if p.Count > 1 {
		each = ", each"
	}
	return p.Title() + each + ": " + b.says
}

// boxOf is the box around some points, whichever way up they are drawn.
func boxOf(ps []Point) box {
	b := box{math.Inf(1), math.Inf(1), math.Inf(-1), math.Inf(-1)}
	for _, p := range ps {
		b.x0, b.y0, b.x1, b.y1 = min(b.x0, p.X), min(b.y0, p.Y), max(b.x1, p.X), max(b.y1, p.Y)
	}
	return b
}

// Turned tells whether some parts of a zone are turned, and Flat whether some are flat faces.
func Turned(all []Part, zone int) (turned, flat bool) {
	for i := range all {
		switch p := &all[i]; {
		case p.Zone != zone || p.Painted == 0:
		case p.Kind == LegTurned || p.Kind == SpindleTurned || p.Kind == Knob || p.Kind == Handle:
			turned = true
		default:
			flat = true
		}
	}
	return turned, flat
}

// Standing tells whether a zone has parts that stay upright while they are painted, and have faces on which paint runs.
func Standing(all []Part, zone int) bool {
	return slices.ContainsFunc(all, func(p Part) bool {
		return p.Zone == zone && p.Painted != 0 && slices.Contains([]Kind{Carcass, Pane, Frame, Panel, Pot, Cylinder}, p.Kind)
	})
}

// Middle is where its number stands: in the middle of its outline, or on the band where it has a hole.
func (m *Mark) Middle() (x, y float64) {
	b := boxOf(m.Outline)
	x, y = (b.x0+b.x1)/2, (b.y0+b.y1)/2
	if len(m.Hole) > 0 {
		h := boxOf(m.Hole)
		y = (max(b.y0, h.y1) + max(b.y1, h.y1)) / 2
		if m.At > 0 {
			x = b.x0 + m.At*(b.x1-b.x0)
		}
	}
	return x, y
}
