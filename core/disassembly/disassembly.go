// Package disassembly knows what comes off a piece before it is painted: how it is labelled,
// cleaned, masked or stored, and what happens to its holes.
package disassembly

import (
	"fmt"
	"math"

	"rutile/core/measure"
	"rutile/core/parts"
)

// What is done with a thing before painting.
const (
	Off  = "off"  // taken off
	Mask = "mask" // masked where it is
	Stay = "stay" // painted with the piece
)

// Treatments are what to do with hardware.
var Treatments = []struct{ ID, Name string }{{Off, "remove"}, {Mask, "mask"}, {Stay, "paint with the piece"}}

// Row describes a kind of thing that comes off.
type Row struct {
	ID, Name, Plural string
	Letter           string // its labels begin with it
	Do               string // what is usually done with it
	Clean, Store     string
	Holes            bool // its screw holes have a spacing that matters
	// Painted tells that it may be painted where it is: a door is, a hinge never.
	Painted bool
}

// Rows lists the kinds of hardware. Advice is a working default; a maker's advice on cleaning takes
// precedence.
var Rows = []Row{
	{"handle", "Handle", "Handles", "H", Off, "Soak in warm water with detergent, brush, dry at once; no ammonia on brass.", "In a bag with its own screws.", true, false},
	{"knob", "Knob", "Knobs", "K", Off, "Wash with detergent, dry at once; no ammonia on brass.", "In a bag with its own screws.", true, false},
	{"hinge", "Hinge", "Hinges", "G", Off, "White spirit for old paint and oil, then dry; never paint the knuckle.", "In a bag with its own screws: each goes back where it was.", false, false},
	{"lock", "Lock", "Locks", "L", Off, "Wipe only; keep water and paint out.", "With its key and screws.", false, false},
	{"plate", "Plate or escutcheon", "Plates", "P", Off, "Wipe; old pins bend easily.", "In a bag with its pins.", false, false},
	{"castor", "Castor", "Castors", "C", Off, "Pick out hair and thread, then wipe.", "Together, marked with their corner.", false, false},
	{"door", "Door", "Doors", "D", Off, "Cleaned with its zone.", "Flat, on blocks; the label on an edge that is not painted.", false, true},
	{"drawer", "Drawer", "Drawers", "R", Off, "Vacuum; wash runners dry.", "Numbered from the top; drawers are rarely alike.", false, true},
	{"shelf", "Shelf", "Shelves", "S", Off, "Cleaned with its zone.", "Its label on the back edge.", false, true},
	{"glass", "Glass pane", "Glass panes", "W", Mask, "Alcohol on a cloth, at the very end.", "Tape along the edge, film over the rest; remove the tape before the paint is hard.", false, false},
	{"mirror", "Mirror", "Mirrors", "M", Mask, "No ammonia near its backing.", "Upright, face to a wall, if it comes out.", false, false},
	{"pad", "Pad", "Pads", "U", Off, "Vacuum.", "Covered, away from spray and solvent.", false, false},
	{"wiring", "Lamp or wiring", "Wiring", "E", Off, "None.", "To be disconnected and refitted by an electrician.", false, false},
	{"other", "Other", "Others", "X", Off, "", "", false, false},
}

// RowOf returns the row of a kind; false if there is none of that id.
func RowOf(id string) (*Row, bool) {
	for i := range Rows {
		if Rows[i].ID == id {
			return &Rows[i], true
		}
	}
	return nil, false
}

// Item is something to come off.
type Item struct {
	Kind  string
	Count int
	Where string
	Do    string
}

// tall is the height from which a door hangs on three hinges, in centimetres.
const tall = 120.

// Suggest lists the hardware to remove that the parts imply, in the order of disassembly: what
// holds before what it holds.
func Suggest(ps []parts.Part) []Item {
	var out []Item
	add := func(kind string, n int, where string) {
		if n > 0 {
			row, _ := RowOf(kind)
			out = append(out, Item{kind, n, where, row.Do})
		}
	}
	of := func(k parts.Kind) int {
		n := 0
		for i := range ps {
			if ps[i].Kind == k {
				n += ps[i].Count
			}
		}
		return n
	}
	add("drawer", max(of(parts.DrawerFront), of(parts.DrawerBox)), "numbered from the top")
	doors, hinges := 0, 0
	for i := range ps {
		if p := &ps[i]; p.Kind == parts.Door {
			doors += p.Count
			per := 2
			if p.Size[parts.Height] > tall {
				per = 3
			}
			hinges += per * p.Count
		}
	}
	add("door", doors, "from the left")
	add("hinge", hinges, "two or three to a door, from the top")
	add("handle", of(parts.Handle), "")
	add("knob", of(parts.Knob), "")
	add("shelf", of(parts.Shelf), "from the top")
	add("glass", of(parts.Pane), "")
	add("pad", of(parts.Pad), "")
	return out
}

// Labels are the labels that go on each item's pieces, as H1–H6; letters run
// on where a kind stands in the list more than once.
func Labels(items []Item) []string {
	next := map[string]int{}
	out := make([]string, len(items))
	for i, it := range items {
		row, ok := RowOf(it.Kind)
		if !ok {
			continue
		}
		n := max(1, it.Count)
		from := next[row.Letter] + 1
		next[row.Letter] += n
		out[i] = fmt.Sprintf("%s%d", row.Letter, from)
		if n > 1 {
			out[i] = fmt.Sprintf("%s%d–%s%d", row.Letter, from, row.Letter, from+n-1)
		}
	}
	return out
}

// sameHoles is how far two spacings may differ and still take the same screws,
// in millimetres.
const sameHoles = .5

// Holes is what a change of hardware does to the holes.
type Holes struct {
	Fill, Drill int    // holes, of all the pieces
	Says        string // empty if there is nothing to do, or not known
}

// HolesOf compares the spacing of old hardware with that of new, in
// millimetres; 0 is one hole, and negative is not known. It is worded in u.
func HolesOf(count int, oldMM, newMM float64, u measure.Units) Holes {
	n := max(1, count)
	holes := func(mm float64) int {
		if mm == 0 {
			return n
		}
		return 2 * n
	}
	switch {
	case newMM < 0:
		return Holes{}
	case oldMM < 0:
		return Holes{Says: "Measure the old holes, centre to centre, before buying new hardware."}
	case math.Abs(oldMM-newMM) <= sameHoles:
		return Holes{Says: "The new hardware fits the old holes."}
	}
	h := Holes{Fill: holes(oldMM), Drill: holes(newMM)}
	at := fmt.Sprintf("drill %d, in pairs %s apart", h.Drill, u.Small(newMM))
	if newMM == 0 {
		at = fmt.Sprintf("drill %d, one for each", h.Drill)
	}
	h.Says = fmt.Sprintf("The holes differ: before painting, fill %d and %s.", h.Fill, at)
	return h
}
