package parts

import (
	"fmt"
	"math"
	"strings"
)

// Limits on what a part may be.
const (
	// MaxSide is the longest side, in centimetres: a part is not larger than a
	// room.
	MaxSide = 600
	// MinSide is the shortest, in centimetres.
	MinSide  = .1
	MaxCount = 200
	MaxParts = 300
)

// Faces is a set of a kind's faces, a bit each.
type Faces uint16

// Part is a part of a piece, or several that are alike.
type Part struct {
	Kind  Kind
	Name  string // what the painter calls it; empty for the kind's own name
	Count int
	Size  Sizes
	// Painted are the faces that are painted; none where it stays as it is.
	Painted Faces
	Relief  Relief
	Zone    int // index of its zone; -1 for none
	// Seen is how many of them are visible from the front; -1 for as many as expected.
	Seen  int
	Place Place
	// Gap around a sliding or closing part, in millimetres; negative if not measured.
	Gap float64
}

// New is a part of a kind with the sizes given, the others as usual.
func New(k Kind, count int, cm ...float64) Part {
	p := Part{Kind: k, Count: count, Painted: k.UsualFaces(), Zone: -1, Seen: -1, Gap: -1}
	for i, x := range cm {
		p.Size[Kinds[k].Needs[i].Dim] = x
	}
	p.Fill()
	return p
}

// Fill sets sizes that were not measured to their usual value: a square leg is as thick as wide, a
// turned one the same at both ends.
func (p *Part) Fill() {
	for _, n := range Kinds[p.Kind].Needs {
		if p.Size[n.Dim] > 0 {
			continue
		}
		switch {
		case n.Usual > 0:
			p.Size[n.Dim] = n.Usual
		case n.Dim == Thick:
			p.Size[Thick] = p.Size[Width]
		case n.Dim == AcrossAt:
			p.Size[AcrossAt] = p.Size[Across]
		}
	}
}

// Title is the part's name, or what it is.
func (p *Part) Title() string {
	switch {
	case p.Name != "":
		return p.Name
	case p.Count == 1:
		return Kinds[p.Kind].Name
	}
	return Kinds[p.Kind].Plural
}

// Must is how many of a kind's sizes have to be measured; the later ones have
// a usual value.
func (k Kind) Must() int {
	n := 0
	for _, x := range Kinds[k].Needs {
		if x.Usual == 0 && x.Dim != Thick && (x.Dim != AcrossAt || k == Pot) {
			n++
		}
	}
	return n
}

// Wants says in words which sizes a kind has.
func (k Kind) Wants() string {
	must := k.Must()
	var first, more []string
	for i, n := range Kinds[k].Needs {
		if i < must {
			first = append(first, n.Name)
		} else {
			more = append(more, n.Name)
		}
	}
	s := strings.Join(first, " × ")
	if len(more) > 0 {
		s += ", then " + strings.Join(more, " × ") + " (optional)"
	}
	return s
}

// Error is what is wrong with a part, in words, and with which of its fields.
type Error struct {
	Field string // a size's id, count, faces; empty for the whole
	Says  string
}

// Error returns the sentence.
func (e *Error) Error() string { return e.Says }

// Check finds what no part can be. The error is an *[Error].
func (p *Part) Check() error {
	row := &Kinds[p.Kind]
	if p.Count < 1 || p.Count > MaxCount {
		return &Error{"count", fmt.Sprintf("There are between 1 and %d of one kind.", MaxCount)}
	}
	var has [NumDims]bool
	for _, n := range row.Needs {
		has[n.Dim] = true
		switch x := p.Size[n.Dim]; {
		case x == 0:
			return &Error{DimIDs[n.Dim], fmt.Sprintf("%s has %s.", article(row.Name), p.Kind.Wants())}
		case !(x >= MinSide):
			return &Error{DimIDs[n.Dim], fmt.Sprintf("The %s is less than a millimetre.", n.Name)}
		case x > MaxSide:
			return &Error{DimIDs[n.Dim], fmt.Sprintf("The %s is larger than a room.", n.Name)}
		}
	}
	for d, x := range p.Size {
		if x != 0 && !has[d] {
			return &Error{DimIDs[d], fmt.Sprintf("%s has no such size; it has %s.", article(row.Name), p.Kind.Wants())}
		}
	}
	wall, dim, name := p.Size[Thick], Thick, "boards"
	if p.Kind == Frame {
		wall, dim, name = p.Size[Member], Member, "members"
	}
	least := min(p.Size[Width], p.Size[Height])
	switch p.Kind {
	case DrawerBox:
		least = min(p.Size[Width], p.Size[Depth])
	case Carcass, Frame:
	default:
		least = math.Inf(1)
	}
	if 2*wall >= least {
		return &Error{DimIDs[dim], fmt.Sprintf("Its %s leave no opening.", name)}
	}
	if p.Painted >= 1<<len(row.Faces) {
		return &Error{"faces", article(row.Name) + " has no such face."}
	}
	return nil
}

func article(name string) string {
	if strings.ContainsRune("AEIOU", rune(name[0])) {
		return "An " + strings.ToLower(name)
	}
	return "A " + strings.ToLower(name)
}

// Measured is what a part, or a zone of parts, comes to.
type Measured struct {
	M2     float64 // as the tape says
	Cover  float64 // what paint has to cover: more where the surface is rough
	Length float64 // running length of its long parts, in metres
	Edges  float64 // running length of the edges to cut along, in metres
	// Work is how much longer a square metre takes than on a plain panel; 0
	// where there is no area.
	Work float64
}

const cm2PerM2 = 1e4

// FaceM2 is the area of one of the kind's faces on all of a part together,
// painted or not, in square metres.
func (p *Part) FaceM2(face int) float64 {
	return Kinds[p.Kind].Faces[face].Area(&p.Size) * float64(p.Count) / cm2PerM2
}

// Measure works out what all of a part come to, painted faces only.
func (p *Part) Measure() Measured {
	row := &Kinds[p.Kind]
	var m Measured
	for i := range row.Faces {
		if p.Painted&(1<<i) != 0 {
			m.M2 += p.FaceM2(i)
		}
	}
	if m.M2 == 0 {
		return m
	}
	n := float64(p.Count)
	m.Cover = m.M2 * Reliefs[p.Relief].Cover
	m.Work = row.Work * Reliefs[p.Relief].Work
	if row.Length != nil {
		m.Length = row.Length(&p.Size) * n / 100
	}
	if row.Edges != nil {
		m.Edges = row.Edges(&p.Size) * n / 100
	}
	return m
}

// OfZone is what the parts of a zone come to: areas and lengths added, the
// work weighed by the area.
func OfZone(all []Part, zone int) Measured {
	var out Measured
	for i := range all {
		if all[i].Zone == zone {
			m := all[i].Measure()
			out.Work += m.Work * m.M2
			out.M2 += m.M2
			out.Cover += m.Cover
			out.Length += m.Length
			out.Edges += m.Edges
		}
	}
	if out.M2 > 0 {
		out.Work /= out.M2
	}
	return out
}

// WorkWords says how fiddly a zone is.
func WorkWords(work float64) string {
	switch {
	case work == 0:
		return ""
	case work < 1.15:
		return "plain work"
	case work < 1.5:
		return "some edges and corners"
	case work < 2:
		return "fiddly work"
	}
	return "very fiddly work"
}

// Fit is what a gap comes to once both of its faces are coated.
type Fit struct {
	LeftMM float64
	// Sticks and Tight tell that it will, or may.
	Sticks, Tight bool
}

// The least gap that runs freely, and the least that runs at all, in
// millimetres. Working defaults; wood swells in a damp season as well.
const (
	freeGap  = .5
	leastGap = .2
)

// FitOf takes a gap in millimetres and the dry film of the plan in
// micrometres, which lies on both faces of the gap.
func FitOf(gapMM, filmUM float64) Fit {
	left := gapMM - 2*filmUM/1000
	return Fit{left, left < leastGap, left < freeGap}
}
