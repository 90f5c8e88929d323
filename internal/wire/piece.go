// Package wire holds the shapes of Rutile's files and of its API: the piece file and the
// settings, which are read and checked here, and the answers. What a field of the piece file or
// of the settings may hold and means is said once, in the table of [Objects]. The core has
// types of its own.
package wire

import (
	"strings"

	"rutile/core/craft"
)

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
	MaxLabel                                                   = 8    // of damage
	MaxDefects, MaxPhotos, MaxMarkers, MaxFittings, MaxEarlier = 100, 60, 40, 100, 50
	MaxPatches, MaxReadings                                    = 40, 40
	MaxWays                                                    = 20 // of a studio's own
	MaxKits                                                    = 20
	MaxNamed                                                   = 255 // products that a way names
	// MaxBytes is the largest piece file that is read.
	MaxBytes = 8 << 20
)

// Piece is a piece of furniture with its zones and their plans.
type Piece struct {
	Format  string   `json:"format"`
	Version int      `json:"version"`
	Name    string   `json:"name,omitempty"`
	Kind    string   `json:"kind,omitempty"`
	Made    int      `json:"made,omitempty"`
	Use     []string `json:"use,omitempty"`
	Site    *Site    `json:"site,omitempty"`
	Zones   []Zone   `json:"zones,omitempty"`
	// What was found when the piece was looked over.
	Parts     []Part    `json:"parts,omitempty"`
	TakeApart []Fitting `json:"take_apart,omitempty"`
	Photos    []Photo   `json:"photos,omitempty"`
	History   *History  `json:"history,omitempty"`
	// Cans are copies of those that coats name.
	Cans []Can `json:"cans,omitempty"`
	// Log is what was done. A piece in a studio is kept without it: the log has a table of its own.
	Log []Entry `json:"log,omitempty"`
}

// Part is a part of the piece, or several that are alike. Which sizes it has
// depends on its kind.
type Part struct {
	Kind     string   `json:"kind"`
	Name     string   `json:"name,omitempty"`
	Count    int      `json:"count,omitempty"`
	WidthCM  float64  `json:"width_cm,omitempty"`
	HeightCM float64  `json:"height_cm,omitempty"`
	DepthCM  float64  `json:"depth_cm,omitempty"`
	ThickCM  float64  `json:"thick_cm,omitempty"`
	AcrossCM float64  `json:"across_cm,omitempty"`
	BaseCM   float64  `json:"base_cm,omitempty"`
	GirthCM  float64  `json:"girth_cm,omitempty"`
	MemberCM float64  `json:"member_cm,omitempty"`
	Faces    []string `json:"faces,omitzero"`
	Relief   string   `json:"relief,omitempty"`
	Zone     string   `json:"zone,omitempty"`
	Seen     *int     `json:"seen,omitempty"`
	Place    string   `json:"place,omitempty"`
	GapMM    *float64 `json:"gap_mm,omitempty"`
}

// Fitting is something that comes off, is masked, or is painted where it is.
type Fitting struct {
	Kind     string   `json:"kind"`
	Name     string   `json:"name,omitempty"`
	Count    int      `json:"count,omitempty"`
	Where    string   `json:"where,omitempty"`
	Do       string   `json:"do,omitempty"`
	Zone     string   `json:"zone,omitempty"`
	Note     string   `json:"note,omitempty"`
	HolesMM  *float64 `json:"holes_mm,omitempty"`
	NewHoles *float64 `json:"new_holes_mm,omitempty"`
	Off      bool     `json:"off,omitempty"`
	Back     bool     `json:"back,omitempty"`
}

// Photo is a picture of the piece, of a zone, or of damage.
type Photo struct {
	File    string   `json:"file"`
	Caption string   `json:"caption,omitempty"`
	Zone    string   `json:"zone,omitempty"`
	Width   int      `json:"width,omitempty"`
	Height  int      `json:"height,omitempty"`
	Taken   string   `json:"taken,omitempty"`
	Markers []Marker `json:"markers,omitempty"`
}

// Marker points at a place in a picture.
type Marker struct {
	X      float64 `json:"x"`
	Y      float64 `json:"y"`
	Defect string  `json:"defect,omitempty"`
	Note   string  `json:"note,omitempty"`
}

// History is what is known of the piece before it came.
type History struct {
	Found     string    `json:"found,omitempty"`
	PaidMinor *int      `json:"paid_minor,omitempty"`
	Earlier   []Earlier `json:"earlier,omitempty"`
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
	// SurfaceC is absent if it was not measured.
	SurfaceC  *float64 `json:"surface_c,omitempty"`
	At        string   `json:"at,omitempty"`
	By        string   `json:"by,omitempty"`
	Simulated bool     `json:"simulated,omitempty"`
}

// ZoneTitle is what a zone is called: its name, or its id written as words.
func ZoneTitle(name, id string) string {
	if name != "" {
		return name
	}
	return craft.Upper(strings.Join(strings.FieldsFunc(id, func(r rune) bool { return r == '-' || r == '_' }), " "))
}

// Title is what the zone is called.
func (z *Zone) Title() string { return ZoneTitle(z.Name, z.ID) }

// Zone is an area of one material and one finish, with a plan of its own.
type Zone struct {
	ID          string      `json:"id"`
	Name        string      `json:"name,omitempty"`
	Substrate   string      `json:"substrate"`
	Veneer      bool        `json:"veneer,omitempty"`
	Prepared    bool        `json:"prepared,omitempty"`
	Finish      string      `json:"finish,omitempty"`
	Gloss       string      `json:"gloss,omitempty"`
	GlossUnits  *float64    `json:"gloss_gu,omitempty"`
	Colour      string      `json:"colour,omitempty"`
	MoisturePct *float64    `json:"moisture_pct,omitempty"`
	AgeDays     *float64    `json:"age_days,omitempty"`
	Soils       []Level     `json:"soils,omitzero"`
	Bleeders    []Level     `json:"bleeders,omitzero"`
	Defects     []Defect    `json:"defects,omitempty"`
	AreaM2      float64     `json:"area_m2,omitempty"`
	Wear        string      `json:"wear,omitempty"`
	Evidence    []Answer    `json:"evidence,omitempty"`
	LeadTest    *LeadTest   `json:"lead_test,omitempty"`
	Patches     []Patch     `json:"patches,omitempty"`
	Readings    []Reading   `json:"readings,omitempty"`
	Target      *Target     `json:"target,omitempty"`
	Way         string      `json:"way,omitempty"`
	Steps       []Step      `json:"steps,omitempty"`
	Read        []ReadNotes `json:"acknowledged,omitempty"`
}

// Level is a soil or a bleeder and how much of it there is.
type Level struct {
	ID    string `json:"id"`
	Level int    `json:"level"`
}

// Defect is damage of one kind.
type Defect struct {
	ID     string  `json:"id"`
	Count  int     `json:"count,omitempty"`
	Length float64 `json:"length_cm,omitempty"`
	Size   float64 `json:"size_mm,omitempty"`
	Place  string  `json:"place,omitempty"`
	Label  string  `json:"label,omitempty"`
}

// Answer is what a look or a small test showed.
type Answer struct {
	Test    string `json:"test"`
	Outcome string `json:"outcome"`
	Date    string `json:"date,omitempty"`
	Note    string `json:"note,omitempty"`
}

// Patch is a patch test: one coat of the plan on a hidden spot or on a board.
type Patch struct {
	ID       string      `json:"id"`
	Product  string      `json:"product"`
	Over     string      `json:"over"`
	Bare     bool        `json:"bare,omitempty"`
	Additive float64     `json:"additive,omitempty"`
	On       string      `json:"on"`
	Place    string      `json:"place,omitempty"`
	Made     string      `json:"made,omitempty"`
	RateFrom string      `json:"look,omitempty"`
	Rated    string      `json:"rated,omitempty"`
	Class    *int        `json:"class,omitempty"`
	Under    *Conditions `json:"under,omitempty"`
	Note     string      `json:"note,omitempty"`
}

// Conditions are the factors of a bond besides its grip.
type Conditions struct {
	Key       float64 `json:"key"`
	Cleanness float64 `json:"cleanness"`
	Window    float64 `json:"window"`
	Site      float64 `json:"site"`
	Cap       float64 `json:"cap"`
}

// Reading tells where the figure of a measured field comes from.
type Reading struct {
	Field     string  `json:"field"`
	Value     float64 `json:"value"`
	At        string  `json:"at"`
	By        string  `json:"by"`
	Simulated bool    `json:"simulated,omitempty"`
}

// LeadTest is the result of a test for lead. Only a laboratory's or an
// assessor's decides.
type LeadTest struct {
	Result string `json:"result"`
	By     string `json:"by"`
	Date   string `json:"date"`
	Report string `json:"report,omitempty"`
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
	Ratio   float64 `json:"ratio"`
	Coats   string  `json:"coats,omitempty"`
}

// Mix is how a coat is mixed, where that is not as usual.
type Mix struct {
	Recipe     string      `json:"recipe,omitempty"`
	TintRatio  float64     `json:"tint_ratio,omitempty"`
	PaintL     float64     `json:"paint_l,omitempty"`
	Unstrained bool        `json:"unstrained,omitempty"`
	Blend      []BlendPart `json:"blend,omitempty"`
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
	Can        string    `json:"can,omitempty"`
	Coats      int       `json:"coats,omitempty"`
	WaitH      *float64  `json:"wait_h,omitempty"`
	Method     string    `json:"method,omitempty"`
	Additive   *Additive `json:"additive,omitempty"`
	WaterRatio float64   `json:"water_ratio,omitempty"`
	ThinPct    float64   `json:"thin_pct,omitempty"`
	Sheen      string    `json:"sheen,omitempty"`
	Colour     string    `json:"colour,omitempty"`
	Scope      string    `json:"scope,omitempty"`
	Mix        *Mix      `json:"mix,omitempty"`
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
