package wire

// Overview is the whole piece: areas, the elevation, the work on damage, and hardware.
type Overview struct {
	Parts      []PartOverview    `json:"parts"`
	Zones      []ZoneOverview    `json:"zones"`
	Elevation  Elevation         `json:"elevation"`
	DamageWork DamageWork        `json:"mending" doc:"Of all zones, including holes of old hardware"`
	Fittings   []FittingOverview `json:"fittings"`
	Suggested  []Fitting         `json:"suggested" doc:"What the parts suggest to remove and is not in the list yet"`
	Loose      int               `json:"loose" doc:"Painted parts without a zone"`
}

// PartOverview is what a part comes to.
type PartOverview struct {
	Title   string   `json:"title"`
	Kind    string   `json:"kind" doc:"What it is, in words"`
	Sizes   string   `json:"sizes" doc:"In the studio's units"`
	Wants   string   `json:"wants" doc:"Which sizes its kind has"`
	AreaM2  float64  `json:"area_m2"`
	Area    string   `json:"area" doc:"In the studio's units; words where it is not painted"`
	Run     string   `json:"run,omitempty" doc:"Its running length, for long parts"`
	Faces   []Factor `json:"faces" doc:"Each painted face, with its square metres"`
	Painted []string `json:"painted" doc:"Ids of these faces"`
	Hidden  bool     `json:"hidden,omitempty" doc:"Nothing of it shows from the front"`
	Moves   bool     `json:"moves,omitempty" doc:"It slides or closes"`
	Fit     string   `json:"fit,omitempty" doc:"What is left of its gap after painting"`
	Tight   bool     `json:"tight,omitempty" doc:"It may stick once it is coated"`
	Note    string   `json:"note,omitempty"`
}

// ZoneOverview is what a zone comes to.
type ZoneOverview struct {
	ID         string     `json:"id"`
	AreaM2     float64    `json:"area_m2"`
	Area       string     `json:"area" doc:"In the studio's units; empty where it is not known"`
	PartsM2    float64    `json:"parts_m2" doc:"The total of its parts"`
	Typed      bool       `json:"typed,omitempty" doc:"The area was typed, not calculated from parts"`
	Parts      int        `json:"parts"`
	CoverM2    float64    `json:"cover_m2" doc:"What paint has to cover: more where the surface is rough"`
	LengthM    float64    `json:"length_m"`
	EdgesM     float64    `json:"edges_m"`
	Work       float64    `json:"work" doc:"How much longer a square metre takes than on a plain panel; 0 if not known"`
	Says       string     `json:"says" doc:"All of it in words"`
	Colour     string     `json:"colour" doc:"As it is now"`
	Mark       string     `json:"mark" doc:"Its pattern"`
	DamageWork DamageWork `json:"mending"`
	Done       int        `json:"done,omitempty" doc:"Steps of its plan that lie behind, where work has begun"`
	Steps      int        `json:"steps,omitempty" doc:"Steps of its plan, where work has begun"`
}

// Elevation is the front of the piece, to scale.
type Elevation struct {
	W      float64     `json:"w_cm"`
	H      float64     `json:"h_cm"`
	Shapes []ElevShape `json:"shapes"`
	Says   string      `json:"says" doc:"Width and height in words"`
}

// ElevShape is one part as it shows, as paths in centimetres.
type ElevShape struct {
	Part   int    `json:"part" doc:"Index of the part"`
	N      int    `json:"n" doc:"Which of its count, from 1"`
	D      string `json:"d" doc:"Outline; openings are cut out"`
	Lines  string `json:"lines,omitempty"`
	Recess bool   `json:"recess,omitempty" doc:"It is set back, behind an opening"`
}

// DamageWork is what damage takes.
type DamageWork struct {
	Minutes float64      `json:"minutes"`
	Work    string       `json:"work" doc:"The same in words"`
	Items   []DamageItem `json:"items" doc:"In the order of the zone's damage; damage that needs nothing is left out"`
	Says    []string     `json:"says"`
}

// DamageItem is what one line of damage takes.
type DamageItem struct {
	Defect  string  `json:"defect"`
	Filler  string  `json:"filler,omitempty" enum:"filler_two_part,filler_fine"`
	ML      float64 `json:"ml,omitempty"`
	GlueML  float64 `json:"glue_ml,omitempty"`
	Minutes float64 `json:"minutes"`
	How     string  `json:"how"`
	Takes   string  `json:"takes" doc:"Material and time, in words"`
}

// FittingOverview is what is known of something that comes off.
type FittingOverview struct {
	Title  string `json:"title"`
	Labels string `json:"labels"`
	Do     string `json:"do"`
	Clean  string `json:"clean"`
	Store  string `json:"store"`
	Holes  string `json:"holes,omitempty"`
	Drills bool   `json:"drills,omitempty" doc:"Holes are filled and drilled before painting"`
}

// TemplateParts is what a template comes to.
type TemplateParts struct {
	Parts []Part   `json:"parts"`
	Look  Overview `json:"overview"`
}

// PhotoKept is a picture taken in.
type PhotoKept struct {
	Photo
	Already bool `json:"already" doc:"The same picture was already stored"`
}
