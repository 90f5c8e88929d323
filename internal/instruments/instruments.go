// Package instruments reads the instruments of a workshop. Each implements one interface; those
// that ship with the program are simulated: their readings are made up, repeatable, and marked as
// simulated everywhere.
package instruments

import (
	"fmt"
	"time"
)

// Quantity is what an instrument measures.
type Quantity string

// The quantities: air temperature, relative humidity and the temperature of a
// surface in the room; gloss at 60 degrees in gloss units, and moisture in per
// cent, of a spot.
const (
	TempC       Quantity = "temp_c"
	RHPct       Quantity = "rh_pct"
	SurfaceC    Quantity = "surface_c"
	GlossUnits  Quantity = "gloss_gu"
	MoisturePct Quantity = "moisture_pct"
)

// QuantityRow describes a quantity and what of it is possible.
type QuantityRow struct {
	ID         Quantity
	Name, Unit string
	Min, Max   float64
}

// Quantities lists the quantities.
var Quantities = []QuantityRow{
	{TempC, "Air temperature", "°C", -20, 50},
	{RHPct, "Relative humidity", "%", 0, 100},
	{SurfaceC, "Surface temperature", "°C", -20, 60},
	{GlossUnits, "Gloss at 60°", "GU", 0, 150},
	{MoisturePct, "Moisture", "%", 0, 100},
}

// Row describes a quantity.
func (q Quantity) Row() *QuantityRow {
	for i := range Quantities {
		if Quantities[i].ID == q {
			return &Quantities[i]
		}
	}
	return nil
}

// Reading is one reading of an instrument.
type Reading struct {
	At        time.Time
	By        string // the instrument's name, or the file it came in
	Simulated bool
	Values    map[Quantity]float64
}

// Spot is what an instrument is held on. Instruments of the room need none.
type Spot struct {
	// Key names the spot: the same one always reads the same.
	Key string
	// Substrate, Group and Finish are the craft's ids of what it is.
	Substrate, Group, Finish string
	// Gloss is the surface's approximate gloss in gloss units; below 0 if not known.
	Gloss float64
	// Damp tells that water reaches it.
	Damp bool
}

// Info describes an instrument.
type Info struct {
	ID, Name  string
	Measures  []Quantity
	OnSpot    bool // it is held on a spot
	Simulated bool
}

// Instrument is something that reads quantities. Read returns an [Error] where
// it cannot be used on a spot.
type Instrument interface {
	About() Info
	Read(on Spot, at time.Time) (Reading, error)
}

// Error says in a sentence why an instrument reads nothing.
type Error struct{ Says string }

func (e *Error) Error() string { return e.Says }

// Set is the instruments of one workshop.
type Set struct {
	Room        *Room
	Instruments []Instrument
}

// Simulated is a set of simulated instruments. The same seed gives the same readings.
func Simulated(seed uint64) *Set {
	room := &Room{Seed: seed}
	return &Set{room, []Instrument{room, &glossMeter{seed}, &moistureMeter{seed, room}}}
}

// Instrument finds an instrument; nil if there is none of that id.
func (b *Set) Instrument(id string) Instrument {
	for _, x := range b.Instruments {
		if x.About().ID == id {
			return x
		}
	}
	return nil
}

func errorf(format string, args ...any) error { return &Error{fmt.Sprintf(format, args...)} }
