// Package parts holds a piece of furniture as measured parts, and works out areas, running lengths,
// a work factor, and an elevation to scale.
package parts

import "math"

// Kind is what a part is.
type Kind uint8

// The kinds of parts.
const (
	Carcass Kind = iota
	Top
	RoundTop
	Panel
	Shelf
	Door
	DrawerFront
	DrawerBox
	Rail
	Moulding
	LegSquare
	LegTurned
	SpindleSquare
	SpindleTurned
	Frame
	Pane
	Cylinder
	Pot
	Pad
	Handle
	Knob
	NumKinds
)

// Dim is one of the sizes a part may have.
type Dim uint8

// The sizes, in centimetres.
const (
	Width Dim = iota // of long parts the length
	Height
	Depth
	Thick
	Across   // a diameter; of what tapers the one on top
	AcrossAt // the diameter at the base of what tapers
	Girth    // once around, or over the profile of a moulding
	Member   // the width of a frame's members
	NumDims
)

// DimIDs are the sizes' ids.
var DimIDs = [NumDims]string{"width", "height", "depth", "thick", "across", "base", "girth", "member"}

// Sizes are a part's sizes in centimetres, indexed by Dim; 0 where the kind
// has none.
type Sizes [NumDims]float64

// Need is one size a kind has: its name there, and its value if it was not measured; sizes that are
// always measured have none.
type Need struct {
	Dim   Dim
	Name  string
	Usual float64
}

// FaceRow is one face, or group of equal faces, of a kind.
type FaceRow struct {
	ID, Name string
	// Usual tells that it is painted unless something else is said.
	Usual bool
	// Area is that of one part, in square centimetres.
	Area func(s *Sizes) float64
}

// KindRow describes a kind of part.
type KindRow struct {
	ID, Name, Plural string
	// Needs are its sizes in the order people say them.
	Needs []Need
	Faces []FaceRow
	// Length is the running length of one, in centimetres; nil for parts that are not long.
	Length func(s *Sizes) float64
	// Edges is the running length of the edges a brush cuts along, in
	// centimetres.
	Edges func(s *Sizes) float64
	// Work is how much longer a square metre takes than on a plain panel.
	// Working default.
	Work float64
	// Moves tells that it slides or closes, and so has a gap.
	Moves bool
	// Words are what else it is called.
	Words []string
}

// turned is how much larger a turned part's surface is than the cylinder
// around it, for its beads and hollows. Working default.
const turned = 1.25

func (s *Sizes) wh() float64 { return s[Width] * s[Height] }
func (s *Sizes) wd() float64 { return s[Width] * s[Depth] }
func (s *Sizes) hd() float64 { return s[Height] * s[Depth] }

// edgesWH and edgesWD are the narrow faces around a board.
func edgesWH(s *Sizes) float64 { return 2 * (s[Width] + s[Height]) * s[Thick] }
func edgesWD(s *Sizes) float64 { return 2 * (s[Width] + s[Depth]) * s[Thick] }

func aroundWH(s *Sizes) float64 { return 2 * (s[Width] + s[Height]) }
func aroundWD(s *Sizes) float64 { return 2 * (s[Width] + s[Depth]) }

func front(s *Sizes) float64 { return s.wh() }
func upper(s *Sizes) float64 { return s.wd() }

func length(s *Sizes) float64 { return s[Width] }
func high(s *Sizes) float64   { return s[Height] }

// disc is the area of a circle by its diameter.
func disc(d float64) float64 { return math.Pi * d * d / 4 }

// mantle is the side of a cone cut off flat (a cylinder, where both diameters
// are equal): pi times the mean diameter times the slant.
func mantle(top, base, h float64) float64 {
	return math.Pi * (top + base) / 2 * math.Hypot((top-base)/2, h)
}

// rim is how far down inside a pot painters go. Working default.
const rim = 5.

func insideRim(s *Sizes) float64 {
	h := min(rim, s[Height])
	at := s[Across] - (s[Across]-s[AcrossAt])*h/s[Height]
	return mantle(s[Across], at, h)
}

func square(s *Sizes) float64 { return 2 * (s[Width] + s[Thick]) * s[Height] }
func lathe(s *Sizes) float64  { return mantle(s[Across], s[AcrossAt], s[Height]) * turned }

// inner is a frame's opening, or a carcass's.
func inner(s *Sizes, wall float64) (w, h float64) { return s[Width] - 2*wall, s[Height] - 2*wall }

func frameFace(s *Sizes) float64 {
	w, h := inner(s, s[Member])
	return s.wh() - w*h
}

func carcassInside(s *Sizes) float64 {
	w, h := inner(s, s[Thick])
	return w*h + 2*h*s[Depth] + 2*w*s[Depth]
}

func boxInside(s *Sizes) float64 {
	w, d := s[Width]-2*s[Thick], s[Depth]-2*s[Thick]
	return 2*(w+d)*s[Height] + w*d
}

func legNeeds(usual float64) []Need {
	return []Need{{Height, "length", 0}, {Width, "thickness", 0}, {Thick, "the other thickness", usual}}
}

func turnedNeeds() []Need {
	return []Need{{Height, "length", 0}, {Across, "diameter", 0}, {AcrossAt, "diameter at the foot", 0}}
}

// Kinds is indexed by Kind. A size with no usual that the painter leaves out
// at the end of a list is taken as [Part.Fill] says.
var Kinds = [NumKinds]KindRow{
	Carcass: {
		ID: "carcass", Name: "Carcass", Plural: "Carcasses", Work: 1.1,
		Needs: []Need{{Width, "width", 0}, {Height, "height", 0}, {Depth, "depth", 0}, {Thick, "board thickness", 1.8}},
		Faces: []FaceRow{
			{"sides", "Both sides", true, func(s *Sizes) float64 { return 2 * s.hd() }},
			{"edges", "Front edges", true, func(s *Sizes) float64 { w, h := inner(s, s[Thick]); return s.wh() - w*h }},
			{"front", "Closed front", false, front},
			{"back", "Back", false, front},
			{"top", "Top of it", false, upper},
			{"under", "Underside", false, upper},
			{"inside", "Inside", false, carcassInside},
		},
		Edges: aroundWH,
		Words: []string{"body", "cabinet", "case", "box body", "unit"},
	},
	Top: {
		ID: "top", Name: "Top", Plural: "Tops", Work: 1,
		Needs: []Need{{Width, "width", 0}, {Depth, "depth", 0}, {Thick, "thickness", 2}},
		Faces: []FaceRow{{"upper", "Upper face", true, upper}, {"edges", "Edges", true, edgesWD}, {"under", "Underside", false, upper}},
		Edges: aroundWD,
		Words: []string{"lid", "seat", "table top", "tabletop", "counter", "cap", "base", "plinth board"},
	},
	RoundTop: {
		ID: "round_top", Name: "Round top", Plural: "Round tops", Work: 1.1,
		Needs: []Need{{Across, "diameter", 0}, {Thick, "thickness", 2}},
		Faces: []FaceRow{
			{"upper", "Upper face", true, func(s *Sizes) float64 { return disc(s[Across]) }},
			{"edges", "Edge", true, func(s *Sizes) float64 { return math.Pi * s[Across] * s[Thick] }},
			{"under", "Underside", false, func(s *Sizes) float64 { return disc(s[Across]) }},
		},
		Edges: func(s *Sizes) float64 { return math.Pi * s[Across] },
		Words: []string{"round seat", "round lid", "disc"},
	},
	Panel: {
		ID: "panel", Name: "Panel", Plural: "Panels", Work: 1,
		Needs: []Need{{Width, "width", 0}, {Height, "height", 0}, {Thick, "thickness", 1.8}},
		Faces: []FaceRow{{"front", "Front", true, front}, {"back", "Back", false, front}, {"edges", "Edges", false, edgesWH}},
		Edges: aroundWH,
		Words: []string{"board", "side", "back", "backrest", "infill", "lining", "wall", "sheet"},
	},
	Shelf: {
		ID: "shelf", Name: "Shelf", Plural: "Shelves", Work: 1.1,
		Needs: []Need{{Width, "width", 0}, {Depth, "depth", 0}, {Thick, "thickness", 1.8}},
		Faces: []FaceRow{
			{"upper", "Upper face", true, upper}, {"under", "Underside", true, upper},
			{"edge", "Front edge", true, func(s *Sizes) float64 { return s[Width] * s[Thick] }},
			{"ends", "Back edge and ends", false, func(s *Sizes) float64 { return (s[Width] + 2*s[Depth]) * s[Thick] }},
		},
		Edges: length,
	},
	Door: {
		ID: "door", Name: "Door", Plural: "Doors", Work: 1.1, Moves: true,
		Needs: []Need{{Width, "width", 0}, {Height, "height", 0}, {Thick, "thickness", 2}},
		Faces: []FaceRow{{"front", "Front", true, front}, {"edges", "Edges", true, edgesWH}, {"back", "Back", false, front}},
		Edges: aroundWH,
		Words: []string{"flap"},
	},
	DrawerFront: {
		ID: "drawer_front", Name: "Drawer front", Plural: "Drawer fronts", Work: 1.1, Moves: true,
		Needs: []Need{{Width, "width", 0}, {Height, "height", 0}, {Thick, "thickness", 1.8}},
		Faces: []FaceRow{{"front", "Front", true, front}, {"edges", "Edges", true, edgesWH}, {"back", "Back", false, front}},
		Edges: aroundWH,
		Words: []string{"drawer", "front"},
	},
	DrawerBox: {
		ID: "drawer_box", Name: "Drawer box", Plural: "Drawer boxes", Work: 1.3, Moves: true,
		Needs: []Need{{Width, "width", 0}, {Depth, "depth", 0}, {Height, "height", 0}, {Thick, "board thickness", 1.2}},
		Faces: []FaceRow{
			{"outside", "Outside", true, func(s *Sizes) float64 { return 2 * (s[Width] + s[Depth]) * s[Height] }},
			{"rims", "Upper rims", true, func(s *Sizes) float64 { return s.wd() - (s[Width]-2*s[Thick])*(s[Depth]-2*s[Thick]) }},
			{"inside", "Inside", false, boxInside},
			{"under", "Underside", false, upper},
		},
		Edges: aroundWD,
		Words: []string{"drawer body", "tray"},
	},
	Rail: {
		ID: "rail", Name: "Rail", Plural: "Rails", Work: 1.4,
		Needs: []Need{{Width, "length", 0}, {Height, "width", 0}, {Thick, "thickness", 2}},
		Faces: []FaceRow{
			{"front", "Front", true, front},
			{"edges", "Both long edges", true, func(s *Sizes) float64 { return 2 * s[Width] * s[Thick] }},
			{"back", "Back", false, front},
		},
		Length: length, Edges: func(s *Sizes) float64 { return 2 * s[Width] },
		Words: []string{"apron", "stretcher", "plinth", "kickboard", "crosspiece", "slat", "stile", "batten", "strap", "bar"},
	},
	Moulding: {
		ID: "moulding", Name: "Moulding", Plural: "Mouldings", Work: 1.8,
		Needs:  []Need{{Width, "length", 0}, {Girth, "girth over the profile", 5}},
		Faces:  []FaceRow{{"face", "Face", true, func(s *Sizes) float64 { return s[Width] * s[Girth] }}},
		Length: length, Edges: func(s *Sizes) float64 { return 2 * s[Width] },
		Words: []string{"trim", "cornice", "beading", "bead", "skirting", "edging", "molding"},
	},
	LegSquare: {
		ID: "leg_square", Name: "Square leg", Plural: "Square legs", Work: 1.5, Needs: legNeeds(0),
		Faces:  []FaceRow{{"sides", "All four sides", true, square}},
		Length: high, Edges: func(s *Sizes) float64 { return 4 * s[Height] },
		Words: []string{"leg", "foot", "post"},
	},
	LegTurned: {
		ID: "leg_turned", Name: "Turned leg", Plural: "Turned legs", Work: 2, Needs: turnedNeeds(),
		Faces:  []FaceRow{{"round", "All round", true, lathe}},
		Length: high,
		Words:  []string{"turned foot", "bun foot", "turned post", "round leg"},
	},
	SpindleSquare: {
		ID: "spindle_square", Name: "Square spindle", Plural: "Square spindles", Work: 2.2, Needs: legNeeds(0),
		Faces:  []FaceRow{{"sides", "All four sides", true, square}},
		Length: high, Edges: func(s *Sizes) float64 { return 4 * s[Height] },
		Words: []string{"upright", "rod"},
	},
	SpindleTurned: {
		ID: "spindle_turned", Name: "Turned spindle", Plural: "Turned spindles", Work: 2.6, Needs: turnedNeeds(),
		Faces:  []FaceRow{{"round", "All round", true, lathe}},
		Length: high,
		Words:  []string{"spindle", "baluster"},
	},
	Frame: {
		ID: "frame", Name: "Frame", Plural: "Frames", Work: 1.6,
		Needs: []Need{{Width, "width", 0}, {Height, "height", 0}, {Member, "width of its members", 5}, {Thick, "thickness", 2}},
		Faces: []FaceRow{
			{"front", "Front", true, frameFace},
			{"outer", "Outer edges", true, edgesWH},
			{"inner", "Inner edges", true, func(s *Sizes) float64 { w, h := inner(s, s[Member]); return 2 * (w + h) * s[Thick] }},
			{"back", "Back", false, frameFace},
		},
		Length: func(s *Sizes) float64 { _, h := inner(s, s[Member]); return 2*s[Width] + 2*h },
		Edges:  func(s *Sizes) float64 { w, h := inner(s, s[Member]); return aroundWH(s) + 2*(w+h) },
		Words:  []string{"window", "surround"},
	},
	Pane: {
		ID: "pane", Name: "Pane", Plural: "Panes", Work: 1,
		Needs: []Need{{Width, "width", 0}, {Height, "height", 0}},
		Faces: []FaceRow{{"front", "One face", true, front}, {"back", "The other face", false, front}},
		Edges: aroundWH,
		Words: []string{"glass", "mirror", "glass pane"},
	},
	Cylinder: {
		ID: "cylinder", Name: "Cylinder", Plural: "Cylinders", Work: 1.2,
		Needs: []Need{{Across, "diameter", 0}, {Height, "height", 0}},
		Faces: []FaceRow{
			{"side", "Outside", true, func(s *Sizes) float64 { return mantle(s[Across], s[Across], s[Height]) }},
			{"top", "Top of it", false, func(s *Sizes) float64 { return disc(s[Across]) }},
			{"under", "Underside", false, func(s *Sizes) float64 { return disc(s[Across]) }},
			{"inside", "Inside with its floor", false, func(s *Sizes) float64 {
				return mantle(s[Across], s[Across], s[Height]) + disc(s[Across])
			}},
		},
		Edges: func(s *Sizes) float64 { return 2 * math.Pi * s[Across] },
		Words: []string{"drum", "tube", "saucer", "barrel", "pipe", "tin", "can"},
	},
	Pot: {
		ID: "pot", Name: "Tapered pot", Plural: "Tapered pots", Work: 1.2,
		Needs: []Need{{Across, "diameter on top", 0}, {AcrossAt, "diameter at the base", 0}, {Height, "height", 0}},
		Faces: []FaceRow{
			{"side", "Outside", true, func(s *Sizes) float64 { return mantle(s[Across], s[AcrossAt], s[Height]) }},
			{"rim", "Inside of the rim, 5 cm down", true, insideRim},
			{"under", "Underside", false, func(s *Sizes) float64 { return disc(s[AcrossAt]) }},
			{"inside", "Inside below the rim, with its floor", false, func(s *Sizes) float64 {
				return mantle(s[Across], s[AcrossAt], s[Height]) - insideRim(s) + disc(s[AcrossAt])
			}},
		},
		Edges: func(s *Sizes) float64 { return math.Pi * (s[Across] + s[AcrossAt]) },
		Words: []string{"pot", "planter", "flowerpot", "bucket", "shade", "tub"},
	},
	Pad: {
		ID: "pad", Name: "Pad", Plural: "Pads", Work: 1,
		Needs: []Need{{Width, "width", 0}, {Depth, "depth", 0}, {Thick, "thickness", 5}},
		Faces: []FaceRow{{"upper", "Upper face", true, upper}, {"edges", "Sides", true, edgesWD}, {"under", "Underside", false, upper}},
		Edges: aroundWD,
		Words: []string{"cushion", "seat pad", "upholstery"},
	},
	Handle: {
		ID: "handle", Name: "Handle", Plural: "Handles", Work: 3,
		Needs:  []Need{{Width, "length", 0}, {Thick, "thickness", 1.2}},
		Faces:  []FaceRow{{"round", "All round", false, func(s *Sizes) float64 { return math.Pi * s[Thick] * s[Width] * turned }}},
		Length: length,
		Words:  []string{"pull", "grip", "hook"},
	},
	Knob: {
		ID: "knob", Name: "Knob", Plural: "Knobs", Work: 3,
		Needs: []Need{{Across, "diameter", 0}},
		Faces: []FaceRow{{"round", "All round", false, func(s *Sizes) float64 { return math.Pi * s[Across] * s[Across] }}},
		Words: []string{"button"},
	},
}

// KindNamed returns the kind with an id; false if there is none.
func KindNamed(id string) (Kind, bool) {
	for k := range Kinds {
		if Kinds[k].ID == id {
			return Kind(k), true
		}
	}
	return 0, false
}

// DimNamed returns the size with an id; false if there is none.
func DimNamed(id string) (Dim, bool) {
	for d := range DimIDs {
		if DimIDs[d] == id {
			return Dim(d), true
		}
	}
	return 0, false
}

// FaceNamed returns the bit of a kind's face; false if it has none of that id.
func (k Kind) FaceNamed(id string) (Faces, bool) {
	for i := range Kinds[k].Faces {
		if Kinds[k].Faces[i].ID == id {
			return 1 << i, true
		}
	}
	return 0, false
}

// UsualFaces are the faces of a kind that are painted unless something else is
// said.
func (k Kind) UsualFaces() Faces {
	var f Faces
	for i := range Kinds[k].Faces {
		if Kinds[k].Faces[i].Usual {
			f |= 1 << i
		}
	}
	return f
}

// Relief is how rough a part's surface is to the brush.
type Relief uint8

// The reliefs.
const (
	Smooth Relief = iota
	OpenGrain
	Moulded
	Carved
	Cane
	Pile
	NumReliefs
)

// ReliefRow describes a relief: how much more there is to cover than the tape
// says, and how much longer it takes. Working defaults.
type ReliefRow struct {
	ID, Name    string
	Cover, Work float64
}

// Reliefs is indexed by Relief.
var Reliefs = [NumReliefs]ReliefRow{
	Smooth:    {"smooth", "Smooth", 1, 1},
	OpenGrain: {"open_grain", "Open grain", 1.1, 1.05},
	Moulded:   {"moulded", "Panelled or moulded", 1.2, 1.3},
	Carved:    {"carved", "Carved", 1.3, 1.8},
	Cane:      {"cane", "Cane or wicker", 1.4, 1.7},
	Pile:      {"pile", "Cloth with a pile", 1.5, 1.2},
}

// ReliefNamed returns the relief with an id; false if there is none.
func ReliefNamed(id string) (Relief, bool) {
	for r := range Reliefs {
		if Reliefs[r].ID == id {
			return Relief(r), true
		}
	}
	return 0, false
}

// Place is where a part stands in the drawing, where that is not plain from
// what it is.
type Place uint8

// The places.
const (
	Auto Place = iota
	Above
	Below
	Beside
	NumPlaces
)

// Places names the places.
var Places = [NumPlaces]struct{ ID, Name string }{
	Auto: {"", "in its usual place"}, Above: {"above", "on top"}, Below: {"below", "at the bottom"}, Beside: {"beside", "to the right"},
}

// PlaceNamed returns the place with an id; false if there is none.
func PlaceNamed(id string) (Place, bool) {
	for p := range Places {
		if Places[p].ID == id {
			return Place(p), true
		}
	}
	return 0, false
}
