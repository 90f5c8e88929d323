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
	MaxZones                                                   = 200
	MaxSteps                                                   = 200
	MaxCoats                                                   = 300 // steps of one plan, with every coat counted
	MaxName                                                    = 200
	MaxText                                                    = 2000 // of a note
	MaxDefects, MaxPhotos, MaxMarkers, MaxFittings, MaxEarlier = 100, 60, 40, 100, 50
	// PhotoPattern is what a picture's name looks like: one plain file name.
	MaxPatches, MaxReadings = 40, 40
	PhotoPattern            = "^[a-z0-9][a-z0-9-]{0,79}[.]jpg$"
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
	// What was found when the piece was looked over.
	Parts     []Part    `json:"parts,omitempty" doc:"What it is made of, as the tape says; those after a carcass belong to it"`
	TakeApart []Fitting `json:"take_apart,omitempty" doc:"What comes off or is masked before paint, in that order; it goes back in reverse"`
	Photos    []Photo   `json:"photos,omitempty"`
	History   *History  `json:"history,omitempty"`
}

// Part is a part of the piece, or several that are alike. Which sizes it has
// depends on its kind.
type Part struct {
	Kind     string   `json:"kind"`
	Name     string   `json:"name,omitempty"`
	Count    int      `json:"count,omitempty" doc:"Absent: one"`
	WidthCM  float64  `json:"width_cm,omitempty" doc:"Of long parts the length"`
	HeightCM float64  `json:"height_cm,omitempty"`
	DepthCM  float64  `json:"depth_cm,omitempty"`
	ThickCM  float64  `json:"thick_cm,omitempty"`
	AcrossCM float64  `json:"across_cm,omitempty" doc:"Diameter; of what tapers the one on top"`
	BaseCM   float64  `json:"base_cm,omitempty" doc:"Diameter at the base"`
	GirthCM  float64  `json:"girth_cm,omitempty" doc:"Over the profile of a moulding"`
	MemberCM float64  `json:"member_cm,omitempty" doc:"Width of a frame's members"`
	Faces    []string `json:"faces,omitzero" doc:"Those that are painted. Absent: as is usual. Empty: none"`
	Relief   string   `json:"relief,omitempty"`
	Zone     string   `json:"zone,omitempty" doc:"Id of the zone it belongs to"`
	Seen     *int     `json:"seen,omitempty" doc:"How many show from the front"`
	Place    string   `json:"place,omitempty" enum:"above,below,beside" doc:"Where it stands in the elevation, where its kind does not say"`
	GapMM    *float64 `json:"gap_mm,omitempty" doc:"Around what slides or closes"`
}

// Fitting is something that comes off, is masked, or is painted where it is.
type Fitting struct {
	Kind     string   `json:"kind"`
	Name     string   `json:"name,omitempty"`
	Count    int      `json:"count,omitempty" doc:"Absent: one"`
	Where    string   `json:"where,omitempty" doc:"Where it was, and so where its label sends it back to"`
	Do       string   `json:"do,omitempty" enum:"off,mask,stay" doc:"Absent: as is usual for its kind"`
	Zone     string   `json:"zone,omitempty" doc:"Id of the zone it sits on"`
	Note     string   `json:"note,omitempty" doc:"How it is cleaned, masked or stored, instead of the usual way"`
	HolesMM  *float64 `json:"holes_mm,omitempty" doc:"Spacing of its holes, centre to centre; 0 for a single one"`
	NewHoles *float64 `json:"new_holes_mm,omitempty" doc:"Spacing of the holes that new hardware needs"`
	Off      bool     `json:"off,omitempty" doc:"Done at the bench"`
	Back     bool     `json:"back,omitempty" doc:"Put back"`
}

// Photo is a picture of the piece, of a zone, or of damage.
type Photo struct {
	File    string   `json:"file" doc:"Its name in the folder of pictures beside the database"`
	Caption string   `json:"caption,omitempty"`
	Zone    string   `json:"zone,omitempty" doc:"Id of the zone it shows; absent: the piece"`
	Width   int      `json:"width,omitempty" doc:"In pixels"`
	Height  int      `json:"height,omitempty"`
	Taken   string   `json:"taken,omitempty" doc:"The day it was taken"`
	Markers []Marker `json:"markers,omitempty"`
}

// Marker points at a place in a picture.
type Marker struct {
	X      float64 `json:"x" doc:"From the left, 0 to 1"`
	Y      float64 `json:"y" doc:"From above, 0 to 1"`
	Defect string  `json:"defect,omitempty" doc:"Label of the damage it points at"`
	Note   string  `json:"note,omitempty"`
}

// History is what is known of the piece before it came.
type History struct {
	Found     string    `json:"found,omitempty" doc:"Where and how"`
	PaidMinor *int      `json:"paid_minor,omitempty" doc:"What it was bought for, in minor units of the studio's money"`
	Earlier   []Earlier `json:"earlier,omitempty" doc:"What others have done to it"`
	Note      string    `json:"note,omitempty"`
}

// Earlier is something that was done to the piece before.
type Earlier struct {
	Year int    `json:"year,omitempty"`
	What string `json:"what"`
}

// Site is the air of the workshop.
type Site struct {
	TempC float64 `json:"temp_c"`
	RHPct float64 `json:"rh_pct"`
	// SurfaceC is absent where nobody measured it.
	SurfaceC  *float64 `json:"surface_c,omitempty" doc:"Temperature of the surface"`
	At        string   `json:"at,omitempty" doc:"When it was read, as 2026-11-24T10:15"`
	By        string   `json:"by,omitempty" doc:"The instrument that read it"`
	Simulated bool     `json:"simulated,omitempty" doc:"By a stand-in and not by an instrument"`
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
	AreaM2      float64     `json:"area_m2,omitempty" doc:"As typed. Absent: what its parts come to"`
	Wear        string      `json:"wear,omitempty"`
	Evidence    []Answer    `json:"evidence,omitempty" doc:"What was looked at and tested, each test once"`
	LeadTest    *LeadTest   `json:"lead_test,omitempty"`
	Patches     []Patch     `json:"patches,omitempty" doc:"Patch tests, planned and rated"`
	Readings    []Reading   `json:"readings,omitempty" doc:"Where the figures of measured fields come from"`
	Target      *Target     `json:"target,omitempty"`
	Way         string      `json:"way,omitempty" doc:"Id of the way of working that its plan was made by"`
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
	Place  string  `json:"place,omitempty" doc:"Where on the zone"`
	Label  string  `json:"label,omitempty" doc:"On the tape beside it; markers of photographs name it"`
}

// Answer is what a look or a small test showed.
type Answer struct {
	Test    string `json:"test"`
	Outcome string `json:"outcome" doc:"not_sure is always one"`
	Date    string `json:"date,omitempty"`
	Note    string `json:"note,omitempty"`
}

// Patch is a patch test: one coat of the plan on a hidden spot or on a board.
type Patch struct {
	ID       string      `json:"id"`
	Product  string      `json:"product"`
	Over     string      `json:"over" doc:"The surface family it was laid on"`
	Bare     bool        `json:"bare,omitempty" doc:"On the material itself"`
	Additive float64     `json:"additive,omitempty" doc:"Parts of bonding additive to one of paint"`
	On       string      `json:"on" enum:"hidden,board" doc:"A hidden spot of the piece, or a board of the same material"`
	Place    string      `json:"place,omitempty"`
	Made     string      `json:"made,omitempty" doc:"The day it was laid; absent while it is only planned"`
	Look     string      `json:"look,omitempty" doc:"The day from which it can be rated"`
	Rated    string      `json:"rated,omitempty" doc:"The day it was rated"`
	Class    *int        `json:"class,omitempty" doc:"Of the cross-cut scale, 0 to 5"`
	Under    *Conditions `json:"under,omitempty" doc:"The factors it was made under; 1 takes nothing away"`
	Note     string      `json:"note,omitempty"`
}

// Conditions are the factors of a bond beside its grip.
type Conditions struct {
	Key       float64 `json:"key"`
	Cleanness float64 `json:"cleanness"`
	Window    float64 `json:"window"`
	Site      float64 `json:"site"`
	Cap       float64 `json:"cap" doc:"What held below it"`
}

// Reading tells where the figure of a measured field comes from.
type Reading struct {
	Field     string  `json:"field" enum:"gloss_gu,moisture_pct"`
	Value     float64 `json:"value"`
	At        string  `json:"at" doc:"As 2026-11-24T10:15"`
	By        string  `json:"by" doc:"The instrument"`
	Simulated bool    `json:"simulated,omitempty" doc:"By a stand-in and not by an instrument"`
}

// LeadTest is the result of a test for lead. Only a laboratory's or an
// assessor's decides.
type LeadTest struct {
	Result string `json:"result" enum:"negative,positive"`
	By     string `json:"by" enum:"laboratory,assessor,swab"`
	Date   string `json:"date"`
	Report string `json:"report,omitempty" doc:"Number of the report, or who tested"`
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
