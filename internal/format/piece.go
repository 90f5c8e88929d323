// Package format holds the open formats of Rutile as they stand on the wire:
// the piece file, the result of a check and the vocabulary, for files, for the
// API and for the schema alike. The core has types of its own.
package format

// The format names and the newest version that is read and written.
const (
	PieceFormat = "rutile/piece"
	CheckFormat = "rutile/check"
	Version     = 1
)

// Limits on what a piece may hold.
const (
	MaxZones = 200
	MaxSteps = 200
	MaxCoats = 300 // steps of one plan, with every coat counted
	MaxName  = 200
	// MaxBytes is the largest piece file that is read.
	MaxBytes = 8 << 20
)

// Piece is a piece of furniture with its zones and their plans.
type Piece struct {
	Format  string   `json:"format" doc:"Always rutile/piece" example:"rutile/piece"`
	Version int      `json:"version" doc:"Version of the format"`
	Name    string   `json:"name,omitempty"`
	Made    int      `json:"made,omitempty" doc:"Year it was made"`
	Use     []string `json:"use,omitempty"`
	Site    *Site    `json:"site,omitempty"`
	Zones   []Zone   `json:"zones,omitempty"`
}

// Site is the air of the workshop.
type Site struct {
	TempC float64 `json:"temp_c"`
	RHPct float64 `json:"rh_pct"`
}

// Zone is an area of one material and one finish, with a plan of its own.
type Zone struct {
	ID          string      `json:"id"`
	Name        string      `json:"name,omitempty"`
	Substrate   string      `json:"substrate"`
	Veneer      bool        `json:"veneer,omitempty"`
	Finish      string      `json:"finish,omitempty"`
	Gloss       string      `json:"gloss,omitempty"`
	GlossUnits  *float64    `json:"gloss_gu,omitempty" doc:"Gloss meter reading at 60 degrees, instead of gloss"`
	Colour      string      `json:"colour,omitempty"`
	MoisturePct *float64    `json:"moisture_pct,omitempty"`
	AgeDays     *float64    `json:"age_days,omitempty"`
	Soils       []Level     `json:"soils,omitzero" doc:"Absent: nobody has looked. Empty: nothing found"`
	Bleeders    []Level     `json:"bleeders,omitzero" doc:"Absent: what the material implies"`
	Defects     []Defect    `json:"defects,omitempty"`
	AreaM2      float64     `json:"area_m2,omitempty"`
	Wear        string      `json:"wear,omitempty"`
	LeadTest    *LeadTest   `json:"lead_test,omitempty"`
	Target      *Target     `json:"target,omitempty"`
	Steps       []Step      `json:"steps,omitempty"`
	Read        []ReadNotes `json:"acknowledged,omitempty" doc:"Cautions that were read, with the date"`
}

// Level is a soil or a bleeder and how much of it there is.
type Level struct {
	ID    string `json:"id"`
	Level int    `json:"level" minimum:"0" maximum:"3"`
}

// Defect is damage of one kind.
type Defect struct {
	ID     string  `json:"id"`
	Count  int     `json:"count,omitempty"`
	Length float64 `json:"length_cm,omitempty"`
	Size   float64 `json:"size_mm,omitempty"`
}

// LeadTest is the result of a test for lead. Only a laboratory's or an
// assessor's decides.
type LeadTest struct {
	Result string `json:"result" enum:"negative,positive"`
	By     string `json:"by" enum:"laboratory,assessor,swab"`
	Date   string `json:"date"`
}

// Target is the look that is wanted.
type Target struct {
	Colour string `json:"colour,omitempty"`
	Sheen  string `json:"sheen,omitempty"`
	Look   string `json:"look,omitempty"`
}

// ReadNotes records that a caution was read.
type ReadNotes struct {
	Code string `json:"code"`
	Date string `json:"date"`
}

// Additive is a bonding additive mixed into a coat.
type Additive struct {
	Product string  `json:"product"`
	Ratio   float64 `json:"ratio" doc:"Parts of additive to one of mixed paint"`
	Coats   string  `json:"coats,omitempty" enum:"all,first"`
}

// Step is one step of a plan; do says which, and which other fields belong.
type Step struct {
	Do         string    `json:"do"`
	With       string    `json:"with,omitempty"`
	Rinse      bool      `json:"rinse,omitempty"`
	Passes     int       `json:"passes,omitempty"`
	Grit       int       `json:"grit,omitempty"`
	How        string    `json:"how,omitempty"`
	Through    bool      `json:"through,omitempty"`
	What       string    `json:"what,omitempty"`
	Product    string    `json:"product,omitempty"`
	Coats      int       `json:"coats,omitempty"`
	WaitH      *float64  `json:"wait_h,omitempty"`
	Method     string    `json:"method,omitempty"`
	Additive   *Additive `json:"additive,omitempty"`
	WaterRatio float64   `json:"water_ratio,omitempty"`
	ThinPct    float64   `json:"thin_pct,omitempty"`
	Sheen      string    `json:"sheen,omitempty"`
	Colour     string    `json:"colour,omitempty"`
	Scope      string    `json:"scope,omitempty"`
	Effect     string    `json:"effect,omitempty"`
	Heat       bool      `json:"heat,omitempty"`
	Wetted     bool      `json:"wetted,omitempty"`
	Resist     string    `json:"resist,omitempty"`
	Share      float64   `json:"share,omitempty"`
	Hours      *float64  `json:"hours,omitempty"`
	Rating     *int      `json:"rating,omitempty"`
}

// New is an empty piece.
func New(name string) Piece {
	return Piece{Format: PieceFormat, Version: Version, Name: name, Zones: []Zone{}}
}
