package wire

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
