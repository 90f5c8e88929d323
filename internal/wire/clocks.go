package wire

// NewClock starts a clock: one that a card offers, or one of the painter's own, with a typed time.
type NewClock struct {
	ID      string  `json:"id" pattern:"^[a-z0-9][a-z0-9_-]{0,39}$" doc:"Made where it is started, so that started twice it counts once"`
	Kind    string  `json:"kind" maxLength:"20"`
	NeedS   float64 `json:"need_s,omitempty" doc:"Seconds in an ordinary room"`
	LeastS  float64 `json:"least_s,omitempty"`
	AgoS    float64 `json:"ago_s,omitempty" doc:"How many seconds ago it was started, on a device that was out of reach"`
	Typed   string  `json:"typed,omitempty" maxLength:"400" doc:"The time as typed, such as 1 h 30, in place of seconds"`
	Product string  `json:"product,omitempty" maxLength:"40" doc:"What dries; the air then changes its pace"`
	For     string  `json:"for,omitempty" maxLength:"200" doc:"What it is for"`
	PieceID int     `json:"piece_id,omitempty"`
	Piece   string  `json:"piece,omitempty" maxLength:"200"`
	Zone    string  `json:"zone,omitempty" maxLength:"200"`
	ZoneID  string  `json:"zone_id,omitempty" maxLength:"40"`
	Card    string  `json:"card,omitempty" maxLength:"40"`
	Entry   string  `json:"entry,omitempty" maxLength:"40" doc:"Id of the entry of the log that started it; it goes with that"`
	TempC   float64 `json:"temp_c,omitempty" doc:"The air that its pace is for; with the humidity 0 the studio's"`
	RHPct   float64 `json:"rh_pct,omitempty"`
}

// KeptClock is a clock as it is kept. Times are seconds of the studio's own line of time.
type KeptClock struct {
	NewClock
	Started float64  `json:"started"`
	Since   float64  `json:"since"`
	Pace    float64  `json:"pace"`
	Gone    float64  `json:"gone"`
	Over    bool     `json:"over,omitempty"`
	Silent  bool     `json:"silent,omitempty"`
	Touches []string `json:"touches,omitempty"`
	Said    string   `json:"said,omitempty"`
}

// KeptLine is the studio's line of time as it is kept.
type KeptLine struct {
	Now    float64    `json:"now"`
	Wall   float64    `json:"wall"`
	Steady float64    `json:"steady"`
	Run    string     `json:"run"`
	Sleeps bool       `json:"sleeps,omitempty"`
	Doubt  *KeptDoubt `json:"doubt,omitempty"`
}

// KeptDoubt is a stretch of time of which nobody knows whether it passed.
type KeptDoubt struct {
	At        float64 `json:"at"`
	Gap       float64 `json:"gap"`
	Restarted bool    `json:"restarted,omitempty"`
}

// Clocks are all that run.
type Clocks struct {
	Clocks []Clock     `json:"clocks" doc:"The next to ring first"`
	Doubt  *ClockDoubt `json:"doubt,omitempty" doc:"What nobody can tell from here"`
}

// Clock is one that runs.
type Clock struct {
	ID      string   `json:"id"`
	Kind    string   `json:"kind"`
	Name    string   `json:"name"`
	For     string   `json:"for,omitempty"`
	PieceID int      `json:"piece_id,omitempty"`
	Piece   string   `json:"piece,omitempty"`
	Zone    string   `json:"zone,omitempty"`
	ZoneID  string   `json:"zone_id,omitempty"`
	Card    string   `json:"card,omitempty"`
	LeftS   float64  `json:"left_s" doc:"Negative for how long it has been over"`
	TotalS  float64  `json:"total_s"`
	State   string   `json:"state" enum:"runs,rings,past"`
	Silent  bool     `json:"silent,omitempty" doc:"Its ringing was stopped"`
	Rings   string   `json:"rings" doc:"What it says when it has run out"`
	Ends    bool     `json:"ends,omitempty" doc:"Something is over then"`
	Touch   bool     `json:"touch,omitempty" doc:"A touch test corrects it"`
	Said    string   `json:"said,omitempty" doc:"What the last touch test or the air came to"`
	Touches []string `json:"touches"`
}

// ClockDoubt asks what happened while nobody could tell.
type ClockDoubt struct {
	Says string  `json:"says"`
	GapS float64 `json:"gap_s,omitempty" doc:"Seconds missing if the computer's clock was right; 0 where nobody knows"`
}

// ClockTouch is a touch test.
type ClockTouch struct {
	Is string `json:"is" enum:"sticky,dry"`
}

// ClockSettled answers a doubt.
type ClockSettled struct {
	PassedS float64 `json:"passed_s,omitempty" minimum:"0" maximum:"5184000" doc:"Seconds that passed"`
	Typed   string  `json:"typed,omitempty" maxLength:"400" doc:"The same, as typed"`
}

// ClockAir is the air as it is now.
type ClockAir struct {
	TempC float64 `json:"temp_c" minimum:"-20" maximum:"50"`
	RHPct float64 `json:"rh_pct" minimum:"0" maximum:"100"`
}
