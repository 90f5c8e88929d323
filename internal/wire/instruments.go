package wire

import (
	"reflect"
	"sync"
)

// InstrumentsNow is the instruments of the workshop and the air at this moment.
type InstrumentsNow struct {
	Instruments []InstrumentWord `json:"instruments"`
	Room        *RoomNow         `json:"room,omitempty" doc:"Absent where there is no sensor"`
}

// InstrumentWord describes an instrument.
type InstrumentWord struct {
	ID        string `json:"id"`
	Name      string `json:"name"`
	OnSpot    bool   `json:"on_spot" doc:"It takes readings of a spot on a zone"`
	Simulated bool   `json:"simulated"`
	Field     string `json:"field,omitempty" doc:"The field of a zone that its reading goes into"`
}

// RoomNow is the air of the workshop at one moment.
type RoomNow struct {
	AirRead
	Says string `json:"says,omitempty" doc:"A warning"`
}

// AirRead is one reading of the air.
type AirRead struct {
	At        string   `json:"at" doc:"As 2026-11-24T10:15, local time"`
	TempC     *float64 `json:"temp_c,omitempty"`
	RHPct     *float64 `json:"rh_pct,omitempty"`
	SurfaceC  *float64 `json:"surface_c,omitempty"`
	DewPointC *float64 `json:"dew_point_c,omitempty"`
	By        string   `json:"by"`
	Simulated bool     `json:"simulated,omitempty"`
}

// AirHistory is the air of a day, and what was brought in.
type AirHistory struct {
	Today    []AirRead  `json:"today" doc:"Since midnight, by the room sensor"`
	Imported []AirRead  `json:"imported" doc:"The last day of imported readings"`
	Mean     *AirMean   `json:"mean,omitempty" doc:"Over the imported readings if there are any, else over the day"`
	Spots    []SpotRead `json:"spots" doc:"Imported readings of spots, most recent first"`
}

// AirMean is the usual air over some readings.
type AirMean struct {
	TempC float64 `json:"temp_c"`
	RHPct float64 `json:"rh_pct"`
	By    string  `json:"by"`
}

// SpotRead is a reading of a spot, ready for its field.
type SpotRead struct {
	Reading
	Says string `json:"says"`
}

// Imported is what became of a file of readings.
type Imported struct {
	Taken     int       `json:"taken"`
	Gaps      int       `json:"gaps" doc:"Empty cells"`
	Separator string    `json:"separator"`
	Refused   []Refusal `json:"refused" doc:"The first rows that were not imported"`
	NRefused  int       `json:"refused_in_all"`
	From      string    `json:"from"`
	To        string    `json:"to"`
	Columns   []string  `json:"columns"`
}

// Refusal says which line was not taken, and why.
type Refusal struct {
	Line int    `json:"line"`
	Says string `json:"says"`
}

// Source is where imported readings come from.
type Source struct {
	Name  string `json:"name" doc:"The file or source"`
	Count int    `json:"count"`
	From  string `json:"from" doc:"As 2026-11-24T10:15, local time"`
	To    string `json:"to"`
}

// ReadingsPage is some of the readings of a source, the newest first.
type ReadingsPage struct {
	Readings []KeptReading `json:"readings"`
	More     bool          `json:"more" doc:"There are older ones"`
}

// KeptReading is an imported reading that can be corrected and removed.
type KeptReading struct {
	ID uint   `json:"id"`
	By string `json:"by" doc:"The file or source"`
	ReadingValues
}

// ReadingValues are what a reading is made of. What was not measured is absent.
type ReadingValues struct {
	At          string   `json:"at" doc:"As 2026-11-24T10:15, local time"`
	TempC       *float64 `json:"temp_c,omitempty"`
	RHPct       *float64 `json:"rh_pct,omitempty"`
	SurfaceC    *float64 `json:"surface_c,omitempty"`
	GlossUnits  *float64 `json:"gloss_gu,omitempty"`
	MoisturePct *float64 `json:"moisture_pct,omitempty"`
}

var readingValues = sync.OnceValue(func() *bound {
	return boundOf(&Object{Name: "reading", Fields: []Field{
		formed("at", FormMoment, "when").must(),
		number("temp_c", -20, 50, "air temperature in °C"), number("rh_pct", 0, 100, "relative humidity in %"), number("surface_c", -20, 60, "surface temperature in °C"),
		number("gloss_gu", 0, 150, "gloss at 60 degrees"), number("moisture_pct", 0, 100, "moisture in %"),
	}}, reflect.TypeFor[ReadingValues]())
})

// DecodeReading reads a corrected reading. The error, if any, is an *Error.
func DecodeReading(data []byte) (ReadingValues, error) {
	var v ReadingValues
	doc, err := scan(data, "a reading")
	if err == nil {
		err = newReader(doc.data).object(readingValues(), reflect.ValueOf(&v).Elem(), nil)
	}
	if err == nil {
		err = moment("$.at", v.At)
	}
	if err == nil && v == (ReadingValues{At: v.At}) {
		err = &Error{Path: "$", Says: "a reading has at least one measurement"}
	}
	return v, err
}

// Removed tells how many were removed.
type Removed struct {
	Count int `json:"count"`
}
