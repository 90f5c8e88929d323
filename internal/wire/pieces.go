package wire

import "time"

// Saved is a piece as it is stored.
type Saved struct {
	ID      uint      `json:"id"`
	Rev     int       `json:"rev" doc:"Grows with every write"`
	Updated time.Time `json:"updated"`
	Created time.Time `json:"created" doc:"Distinguishes it from another piece that had the same number"`
	Piece   Piece     `json:"piece"`
}

// Summary is a piece as the list shows it.
type Summary struct {
	ID       uint          `json:"id"`
	Rev      int           `json:"rev"`
	Name     string        `json:"name"`
	Updated  time.Time     `json:"updated"`
	Verdict  string        `json:"verdict" enum:"sound,watch,fails"`
	Says     string        `json:"says" doc:"What blocks it, or that nothing does"`
	Stage    string        `json:"stage" doc:"Id of the first stage with something unfinished; empty where there is none"`
	Blocked  string        `json:"blocked,omitempty" doc:"What blocks it"`
	View     string        `json:"view" doc:"The view of the page for that stage"`
	Stands   string        `json:"stands" doc:"Its progress, or what blocks it"`
	Next     string        `json:"next" doc:"What to do next"`
	NextIn   string        `json:"next_in,omitempty" doc:"The zone of the next step"`
	Photo    string        `json:"photo,omitempty" doc:"File of its first photograph"`
	Parts    int           `json:"parts" doc:"How many parts are measured"`
	Damaged  string        `json:"damaged,omitempty" doc:"Why it cannot be shown; its document can still be saved"`
	Zones    []ZoneSummary `json:"zones"`
	FoundBy  string        `json:"found_by,omitempty" doc:"Words by which it is found: materials, products, looks"`
	Begun    bool          `json:"begun,omitempty" doc:"Work on it has begun"`
	Finished string        `json:"finished,omitempty" doc:"When it was handed over"`
}

// ZoneSummary is a zone as the list shows it.
type ZoneSummary struct {
	ID        string  `json:"id"`
	Name      string  `json:"name"`
	Substrate string  `json:"substrate"`
	Colour    string  `json:"colour"`
	AreaM2    float64 `json:"area_m2"`
	Verdict   string  `json:"verdict" enum:"sound,watch,fails"`
	Says      string  `json:"says"`
	Steps     int     `json:"steps"`
	Material  string  `json:"material"`
	Finish    string  `json:"finish"`
	Past      int     `json:"past,omitempty" doc:"Steps of its plan that lie behind"`
	Due       *Due    `json:"due,omitempty" doc:"What comes next, where work has begun"`
	Layers    []Layer `json:"layers" doc:"The cross-section of its coats, from the bottom up"`
}

// Studio is what the page needs to know of the server.
type Studio struct {
	Settings
	Rev  int  `json:"rev" doc:"Grows with every save of the settings; 0 where none were saved"`
	Demo bool `json:"demo" doc:"The data is a copy that is deleted at the end"`
	// ReadOnly tells that nothing can be saved.
	ReadOnly bool   `json:"read_only,omitempty" doc:"It was opened to be read only: nothing can be saved"`
	Air      Air    `json:"air"`
	Device   string `json:"device,omitempty" doc:"Name of the paired device that asks; absent on the computer that Rutile runs on"`
}

// Since is a piece, and what has changed in it after a revision.
type Since struct {
	Saved
	Changes []string `json:"changes"`
}

// Area is a typed size, understood.
type Area struct {
	AreaM2 float64 `json:"area_m2"`
	Says   string  `json:"says" doc:"The area in the studio's units"`
}
