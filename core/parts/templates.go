package parts

import (
	"fmt"
	"math"
	"strings"

	"rutile/core/measure"
)

// Ask is one figure that a template needs.
type Ask struct {
	Name  string
	Usual float64 // centimetres, or a count
	Least float64
}

// Template is a common piece, from which its parts follow once its outer sizes
// and counts are known.
type Template struct {
	ID, Name string
	// Sizes in the order people say them, in centimetres.
	Sizes []Ask
	// Counts of what there are several of.
	Counts []Ask
	make   func(size []float64, n []int) []Part
}

// Make returns a template's parts. Sizes, in centimetres, and counts left out
// are as usual. The error is an *[Error] in the units given.
func (t *Template) Make(size []float64, n []int, u measure.Units) ([]Part, error) {
	s := make([]float64, len(t.Sizes))
	for i, a := range t.Sizes {
		s[i] = a.Usual
		if i < len(size) {
			s[i] = size[i]
		}
		if s[i] < a.Least || s[i] > MaxSide {
			return nil, &Error{a.Name, fmt.Sprintf("The %s is between %s and %s.", a.Name, u.Length(a.Least), u.Length(MaxSide))}
		}
	}
	c := make([]int, len(t.Counts))
	for i, a := range t.Counts {
		c[i] = int(a.Usual)
		if i < len(n) {
			c[i] = n[i]
		}
		if c[i] < int(a.Least) || c[i] > MaxCount {
			return nil, &Error{a.Name, fmt.Sprintf("There are between %d and %d %s.", int(a.Least), MaxCount, a.Name)}
		}
	}
	ps := t.make(s, c)
	out := ps[:0]
	for i := range ps {
		if ps[i].Count > 0 {
			out = append(out, ps[i])
		}
	}
	for i := range out {
		for d, x := range out[i].Size {
			out[i].Size[d] = math.Round(x*1000) / 1000 // sums of millimetres stay such
		}
		if err := out[i].Check(); err != nil {
			return nil, &Error{"", "These sizes leave no room for the " + strings.ToLower(out[i].Title()) + "."}
		}
	}
	return out, nil
}

// Wants says in words which sizes a template needs.
func (t *Template) Wants() string {
	names := make([]string, len(t.Sizes))
	for i, a := range t.Sizes {
		names[i] = a.Name
	}
	return strings.Join(names, " × ")
}

// board is the usual thickness of a board, and play what is left around what
// opens, in centimetres. Working defaults.
const (
	board = 1.8
	play  = .3
)

// mm rounds centimetres down to the millimetre.
func mm(cm float64) float64 { return math.Floor(cm*10+1e-9) / 10 }

func (p Part) named(s string) Part  { p.Name = s; return p }
func (p Part) at(pl Place) Part     { p.Place = pl; return p }
func (p Part) seen(n int) Part      { p.Seen = n; return p }
func (p Part) relief(r Relief) Part { p.Relief = r; return p }
func (p Part) bare() Part           { p.Painted = 0; return p }
func (p Part) faces(ids ...string) Part {
	p.Painted = 0
	for _, id := range ids {
		f, _ := p.Kind.FaceNamed(id)
		p.Painted |= f
	}
	return p
}

// Templates are the pieces most often brought in.
var Templates = []Template{
	{
		ID: "chest", Name: "Chest of drawers",
		Sizes:  []Ask{{"width", 80, 20}, {"height", 90, 20}, {"depth", 45, 10}},
		Counts: []Ask{{"drawers", 3, 1}},
		make: func(s []float64, n []int) []Part {
			const plinth, top = 8., 2.
			w, h, d := s[0], s[1]-plinth-top, s[2]
			fh := mm((h-2*board)/float64(n[0]) - play)
			return []Part{
				New(Top, 1, w+2, d+1, top),
				New(Carcass, 1, w, h, d),
				New(DrawerFront, n[0], w-2*board-2*play, fh),
				New(DrawerBox, n[0], w-2*board-2.6, d-4, fh-3).named("Drawer boxes").bare(),
				New(Knob, 2*n[0], 3),
				New(Rail, 1, w, plinth).named("Plinth").at(Below).faces("front"),
			}
		},
	},
	{
		ID: "cupboard", Name: "Cupboard",
		Sizes:  []Ask{{"width", 90, 20}, {"height", 180, 30}, {"depth", 40, 10}},
		Counts: []Ask{{"doors", 2, 1}, {"shelves", 3, 0}},
		make: func(s []float64, n []int) []Part {
			const plinth, top = 10., 2.
			w, h, d := s[0], s[1]-plinth-top, s[2]
			return []Part{
				New(Top, 1, w+4, d+2, top).named("Cap").faces("edges", "under"),
				New(Carcass, 1, w, h, d),
				New(Door, n[0], mm(w/float64(n[0])-play), h-play).relief(Moulded),
				New(Moulding, 1, w+2*d, 8).named("Cornice"),
				New(Shelf, n[1], w-2*board, d-3),
				New(Knob, n[0], 3),
				New(Rail, 1, w, plinth).named("Plinth").at(Below).faces("front"),
			}
		},
	},
	{
		ID: "shelves", Name: "Shelf unit",
		Sizes:  []Ask{{"width", 80, 15}, {"height", 120, 15}, {"depth", 30, 8}},
		Counts: []Ask{{"shelves", 3, 0}},
		make: func(s []float64, n []int) []Part {
			w, h, d := s[0], s[1], s[2]
			return []Part{
				New(Carcass, 1, w, h, d).faces("sides", "edges", "top", "inside"),
				New(Shelf, n[0], w-2*board, d),
			}
		},
	},
	{
		ID: "bench", Name: "Bench",
		Sizes: []Ask{{"width", 120, 30}, {"height", 45, 20}, {"depth", 35, 15}},
		make: func(s []float64, _ []int) []Part {
			const top, leg = 3., 6.
			w, h, d := s[0], s[1], s[2]
			return []Part{
				New(Top, 1, w, d, top).named("Seat"),
				New(LegSquare, 4, h-top, leg),
				New(Rail, 2, w-2*leg-6, 8).named("Long rails").seen(1),
				New(Rail, 2, d-2*leg-2, 8).named("Short rails").seen(0),
				New(Rail, 1, w-2*leg-6, 5).named("Stretcher"),
			}
		},
	},
	{
		ID: "stool", Name: "Stool",
		Sizes:  []Ask{{"seat across", 32, 15}, {"height", 60, 15}},
		Counts: []Ask{{"legs", 4, 3}},
		make: func(s []float64, n []int) []Part {
			const top, leg = 3., 4.
			return []Part{
				New(RoundTop, 1, s[0], top).named("Seat"),
				New(LegTurned, n[0], s[1]-top, leg).seen(min(n[0], 3)),
				New(SpindleTurned, n[0], s[0]-2*leg, 2).named("Stretchers").seen(1),
			}
		},
	},
	{
		ID: "table", Name: "Table",
		Sizes: []Ask{{"width", 120, 30}, {"height", 75, 30}, {"depth", 70, 20}},
		make: func(s []float64, _ []int) []Part {
			const top, leg, apron = 2.5, 6., 10.
			w, h, d := s[0], s[1], s[2]
			return []Part{
				New(Top, 1, w, d, top).named("Table top"),
				New(LegTurned, 4, h-top, leg),
				New(Rail, 2, w-2*leg-8, apron).named("Long aprons").seen(1),
				New(Rail, 2, d-2*leg-8, apron).named("Short aprons").seen(0),
			}
		},
	},
	{
		ID: "locker", Name: "Locker",
		Sizes:  []Ask{{"width", 60, 20}, {"height", 180, 30}, {"depth", 50, 15}},
		Counts: []Ask{{"doors", 2, 1}},
		make: func(s []float64, n []int) []Part {
			const sheet = .1
			w, h, d := s[0], s[1], s[2]
			return []Part{
				New(Carcass, 1, w, h, d, sheet).faces("sides", "edges", "top"),
				New(Door, n[0], mm(w/float64(n[0])-play), h-4, 1.6),
				New(Handle, n[0], 10),
			}
		},
	},
	{
		ID: "box", Name: "Box or trunk",
		Sizes: []Ask{{"width", 100, 10}, {"height", 50, 8}, {"depth", 50, 10}},
		make: func(s []float64, _ []int) []Part {
			const lid = 3.
			w, h, d := s[0], s[1], s[2]
			return []Part{
				New(Top, 1, w+2, d+2, lid).named("Lid"),
				New(Carcass, 1, w, h-lid, d).named("Body").faces("sides", "front", "back"),
				New(Handle, 2, 12).named("Side handles").seen(0),
			}
		},
	},
	{
		ID: "screen", Name: "Folding screen",
		Sizes:  []Ask{{"width of one wing", 50, 15}, {"height", 170, 30}},
		Counts: []Ask{{"wings", 3, 1}},
		make: func(s []float64, n []int) []Part {
			const member, foot = 5., 6.
			w, h := s[0], s[1]-foot
			return []Part{
				New(Frame, n[0], w, h, member).faces("front", "back", "outer", "inner"),
				New(Panel, n[0], w-2*member, h-2*member, .6).named("Infills").faces("front", "back"),
				New(LegSquare, 2*n[0], foot, 4).named("Feet").seen(2 * n[0]),
			}
		},
	},
	{
		ID: "planter", Name: "Planter",
		Sizes:  []Ask{{"diameter on top", 36, 8}, {"diameter at the base", 26, 5}, {"height", 34, 5}},
		Counts: []Ask{{"pots", 1, 1}, {"saucers", 1, 0}},
		make: func(s []float64, n []int) []Part {
			return []Part{
				New(Pot, n[0], s...),
				New(Cylinder, n[1], s[1]+6, 4).named("Saucers").at(Below).faces("side", "top"),
			}
		},
	},
	{
		ID: "lantern", Name: "Lantern",
		Sizes: []Ask{{"width", 24, 8}, {"height", 40, 15}},
		make: func(s []float64, _ []int) []Part {
			const member, base, roof, ring = 2., 2., 8., 5.
			w, h := s[0], s[1]-base-roof-ring
			return []Part{
				New(Frame, 4, w, h, member, 1.5).named("Sides").seen(1),
				New(Pane, 4, w-2*member, h-2*member).seen(1),
				New(Top, 1, w+4, w+4, base).named("Base").at(Below),
				New(Pot, 1, 6, w+2, roof).named("Roof").at(Above).faces("side"),
				New(Handle, 1, ring, .8).named("Ring").at(Above).faces("round"),
			}
		},
	},
}

// TemplateNamed returns the template with an id; false if there is none.
func TemplateNamed(id string) (*Template, bool) {
	for i := range Templates {
		if Templates[i].ID == id {
			return &Templates[i], true
		}
	}
	return nil, false
}
