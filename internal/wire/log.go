package wire

import (
	"cmp"
	"fmt"
	"strconv"
	"time"

	"rutile/core/craft"
	"rutile/core/worklog"
)

// Limits on what a log holds.
const (
	MaxEntries  = 5000 // of a piece
	MaxSent     = 500  // at once
	MaxSeen     = 10
	MaxEntryPix = 20
	// MaxLogBytes is the largest body of entries that is read.
	MaxLogBytes = 2 << 20
)

// WhatPlan is what an entry says that keeps a plan as it was when the work began. Rutile writes it.
const WhatPlan = "plan"

// Entry is one entry of a piece's log. Entries are never changed: others correct them.
type Entry struct {
	ID       string      `json:"id"`
	At       string      `json:"at"`
	Written  string      `json:"written,omitempty"`
	What     string      `json:"what"`
	Zone     string      `json:"zone,omitempty"`
	Step     *Step       `json:"step,omitempty"`
	Planned  *Planned    `json:"planned,omitempty"`
	Minutes  *float64    `json:"minutes,omitempty"`
	Thick    float64     `json:"thick,omitempty"`
	Air      *LogAir     `json:"air,omitempty"`
	Can      *Can        `json:"can,omitempty"`
	UsedL    *float64    `json:"used_l,omitempty"`
	Seen     []Seen      `json:"seen,omitempty"`
	Fitting  *LogFitting `json:"fitting,omitempty"`
	Note     string      `json:"note,omitempty"`
	Photos   []string    `json:"photos,omitempty"`
	Lesson   bool        `json:"lesson,omitempty"`
	By       string      `json:"by,omitempty"`
	Device   string      `json:"device,omitempty"`
	Corrects string      `json:"corrects,omitempty"`
	Void     bool        `json:"void,omitempty"`
	// Steps are the plan of the zone, where What is [WhatPlan].
	Steps []Step `json:"steps,omitempty"`
}

// Planned is the step of the plan that an entry is about.
type Planned struct {
	Step int `json:"step"`
	Coat int `json:"coat,omitempty"`
	// Was is the step as it was planned, where something else was done.
	Was *Step `json:"was,omitempty"`
}

// LogAir is the air in which something was done.
type LogAir struct {
	TempC float64 `json:"temp_c"`
	RHPct float64 `json:"rh_pct"`
}

// Seen is what was seen, on a scale of pictures.
type Seen struct {
	What  string `json:"what"`
	Level int    `json:"level"`
}

// LogFitting is something that went back.
type LogFitting struct {
	Kind  string `json:"kind"`
	Where string `json:"where,omitempty"`
	Count int    `json:"count,omitempty"`
}

// logObjects are the objects of the log in the table of fields.
func logObjects() []Object {
	whats := []string{}
	for _, k := range worklog.Kinds {
		whats = append(whats, string(k))
	}
	return []Object{
		{Name: "entry", Says: "An entry of the log. Entries are never changed: another one corrects them. `Step`, `planned` and `minutes` belong to `began`, `done` and `skipped`.", Fields: []Field{
			formed("id", FormID, "made where it was written; an entry that arrives twice counts once").must(),
			formed("at", FormInstant, "when it happened").must(),
			formed("written", FormInstant, "when it was entered").absent("when it happened"),
			choice("what", "what it says: work was begun, a step or one coat of it was done or left out, something was seen, something went back, the piece was handed over; `plan` keeps the plan as it was when the work began", append(whats, WhatPlan)...).must(),
			formed("zone", FormID, "id of its zone").absent("the whole piece"),
			one("step", "step", "what was done; of a coat one").absent("what was planned"),
			one("planned", "planned", "the step of the plan that it is about").absent("it was never planned"),
			number("minutes", 0, 6000, "minutes of work").absent("since it was begun, or as usual"),
			above("thick", 5, "how many times as thick as usual a coat was laid").absent("as usual"),
			one("air", "log_air", "the air then").absent("as read or as usual"),
			one("can", "can", "a copy of the can it was taken from").absent("none, or one of the piece's"),
			number("used_l", 0, MaxCanLitres, "litres of paint used").absent("as expected"),
			many("seen", "seen", MaxSeen, "what was seen").absent("nothing"),
			one("fitting", "log_fitting", "what went back"),
			note("note", "a note"),
			truth("lesson", "the note says what would be done otherwise next time"),
			list("photos", formed("", FormPhoto, ""), MaxEntryPix, "names of pictures").absent("none"),
			text("by", "name of the device it was written on").absent("the studio's computer"),
			formed("device", FormID, "id of that device, in the studio that it is paired with"),
			formed("corrects", FormID, "id of the entry in whose place it stands"),
			truth("void", "the entry that it corrects is taken back, and nothing stands in its place"),
			many("steps", "step", MaxSteps, "of `plan`: the zone's plan"),
		}},
		{Name: "sent", Says: "Entries as they are sent.", Fields: []Field{many("entries", "entry", MaxSent, "the entries").must()}},
		{Name: "planned", Says: "The step of a zone's plan that an entry of the log is about.", Fields: []Field{
			whole("step", 1, MaxSteps, "which, from 1").must(),
			whole("coat", 1, 99, "which of its coats, from 1").absent("the step as a whole"),
			one("was", "step", "the step as it was planned, where something else was done").absent("as `step` of the entry"),
		}},
		{Name: "log_air", Says: "The air in which something was done.", Fields: []Field{
			number("temp_c", -20, 50, "temperature in °C").must(),
			number("rh_pct", 0, 100, "relative humidity in %").must(),
		}},
		{Name: "seen", Says: "Something that was seen, on a scale of pictures: 0 none, 5 most of the face.", Fields: []Field{
			ids("what", idsOf(craft.SeenRows, func(r craft.SeenRow) string { return r.ID }), "what").must(),
			whole("level", 0, 5, "how much").must(),
		}},
		{Name: "log_fitting", Says: "Something that was taken off and went back.", Fields: []Field{
			text("kind", "its kind").must(),
			text("where", "where it belongs"),
			whole("count", 1, 200, "how many").absent("all"),
		}},
	}
}

// DecodeEntries reads entries that were sent. The error is an *Error.
func DecodeEntries(data []byte) (out []Entry, err error) {
	if len(data) > MaxLogBytes {
		return nil, &Error{Says: fmt.Sprintf("that is larger than %d MB: send fewer entries at once", MaxLogBytes>>20)}
	}
	doc, err := scan(data, "a list of entries")
	if err != nil {
		return nil, err
	}
	var sent Sent
	if err := doc.fill("sent", &sent); err != nil {
		return nil, err
	}
	for i := range sent.Entries {
		if err := sent.Entries[i].consistent(fmt.Sprintf("$.entries[%d]", i)); err != nil {
			return nil, err
		}
	}
	return sent.Entries, nil
}

// DecodeEntry reads an entry as it was kept.
func DecodeEntry(data []byte) (e Entry, err error) {
	doc, err := scan(data, "an entry of a log")
	if err != nil {
		return e, err
	}
	err = doc.fill("entry", &e)
	return e, err
}

// Sent are entries as they are sent.
type Sent struct {
	Entries []Entry `json:"entries"`
}

// Instant is a moment that is on a clock, and in which part of the world. Zero where there is none.
func Instant(s string) time.Time {
	for _, layout := range []string{time.RFC3339Nano, "2006-01-02T15:04Z07:00"} {
		if t, err := time.Parse(layout, s); err == nil {
			return t
		}
	}
	return time.Time{}
}

func (e *Entry) consistent(at string) error {
	instant := func(field, s string) error {
		if s != "" && Instant(s).IsZero() {
			return &Error{at + "." + field, strconv.Quote(s), "there is no such time"}
		}
		return nil
	}
	if err := cmp.Or(instant("at", e.At), instant("written", e.Written)); err != nil {
		return err
	}
	missing := func(field, says string) error { return &Error{Path: at + "." + field, Says: "missing; " + says} }
	switch what := worklog.Kind(e.What); {
	case e.Void && e.Corrects == "":
		return missing("corrects", "what is taken back needs the id of the entry")
	case e.Void:
		return nil
	case e.Corrects == e.ID:
		return &Error{at + ".corrects", strconv.Quote(e.Corrects), "an entry cannot correct itself"}
	case (what == worklog.Began || what == worklog.Did || what == worklog.Skipped) && e.Zone == "":
		return missing("zone", "work is done on a zone")
	case (what == worklog.Began || what == worklog.Did) && e.Step == nil && e.Planned == nil:
		return missing("step", "say what was done, or which step of the plan it was")
	case what == worklog.Skipped && e.Planned == nil:
		return missing("planned", "what is left out is a step of the plan")
	case what == worklog.PutBack && e.Fitting == nil:
		return missing("fitting", "say what went back")
	case e.What == WhatPlan && e.Zone == "":
		return missing("zone", "a plan is that of a zone")
	}
	for i, s := range e.Seen {
		if row := craft.SeenNamed(s.What); row != nil && s.Level >= len(row.Levels) {
			return &Error{fmt.Sprintf("%s.seen[%d].level", at, i), strconv.Itoa(s.Level), fmt.Sprintf("that scale ends at %d", len(row.Levels)-1)}
		}
	}
	if e.Step != nil && e.Step.Coats > 1 {
		return &Error{at + ".step.coats", strconv.Itoa(e.Step.Coats), "one entry is about one coat"}
	}
	return nil
}

// logged finds what a schema cannot say of a piece's log.
func (p *Piece) logged() error {
	if len(p.Log) == 0 {
		return nil
	}
	first := make(map[string]int, len(p.Log))
	for i := range p.Log {
		e := &p.Log[i]
		at := fmt.Sprintf("$.log[%d]", i)
		if k, dup := first[e.ID]; dup {
			return &Error{at + ".id", strconv.Quote(e.ID), fmt.Sprintf("log[%d] already has this id", k)}
		}
		first[e.ID] = i
		if err := e.consistent(at); err != nil {
			return err
		}
	}
	return nil
}

// ZoneLog is what was done on a zone, and what comes next.
type ZoneLog struct {
	Begun    string     `json:"begun" doc:"When the work on it began"`
	Past     int        `json:"past" doc:"How many steps of its plan lie behind: they can no longer be changed"`
	Laid     int        `json:"laid,omitempty" doc:"How many coats of the next step were laid"`
	Done     []DoneStep `json:"done" doc:"What was done, in that order"`
	Open     []int      `json:"open" doc:"Steps of the plan that later ones were done before, and of which the log says nothing"`
	Finished bool       `json:"finished,omitempty"`
	Due      *Due       `json:"due,omitempty"`
}

// DoneStep is something that was done.
type DoneStep struct {
	Entry     string `json:"entry" doc:"Id of its entry in the log"`
	At        string `json:"at"`
	Title     string `json:"title"`
	Says      string `json:"says,omitempty" doc:"How it was done"`
	Step      int    `json:"step,omitempty" doc:"The step of the plan, from 1; absent for one that was never planned"`
	Coat      int    `json:"coat,omitempty"`
	Otherwise bool   `json:"otherwise,omitempty" doc:"It was done otherwise than planned"`
}

// Due is what comes next on a zone.
type Due struct {
	State  string    `json:"state" enum:"closing,missed,working,ready,waiting,not_begun,hardening,ahead"`
	Now    string    `json:"now" doc:"The moment that all this is about"`
	Step   int       `json:"step,omitempty" doc:"The step of its plan, from 1"`
	Coat   int       `json:"coat,omitempty"`
	Of     int       `json:"of,omitempty" doc:"How many coats that step has"`
	Do     string    `json:"do,omitempty"`
	Title  string    `json:"title,omitempty" doc:"The step in a few words, with its coat"`
	Name   string    `json:"name,omitempty" doc:"The step alone"`
	Plan   *Step     `json:"plan,omitempty" doc:"That step as it is planned; of a coat one"`
	Card   string    `json:"card,omitempty" doc:"Id of its card, for a coat"`
	Colour string    `json:"colour,omitempty"`
	Takes  string    `json:"takes,omitempty" doc:"How long the work usually takes"`
	From   string    `json:"from,omitempty" doc:"When the plan has it begin"`
	May    string    `json:"may,omitempty" doc:"When what is below would allow it, where that is sooner"`
	To     string    `json:"to,omitempty" doc:"When it must be begun; absent where there is no latest"`
	Since  string    `json:"since,omitempty" doc:"When work on it was begun"`
	Says   string    `json:"says" doc:"How it stands, as a sentence"`
	Uses   []UseFrom `json:"uses,omitempty" doc:"From when the finished zone may be used, and how"`
}

// UseFrom is from when something may be used.
type UseFrom struct {
	Says string `json:"says"`
	From string `json:"from"`
}

// Logged is what came of entries that were sent.
type Logged struct {
	Added []string `json:"added" doc:"Ids of those that are new; the others were there already"`
	Notes []string `json:"notes" doc:"What is odd about them, as sentences"`
	Today *Today   `json:"today,omitempty"`
}

// Today is what comes next on all pieces.
type Today struct {
	Now    string      `json:"now"`
	Air    Air         `json:"air" doc:"The studio's usual air"`
	Read   *Air        `json:"read,omitempty" doc:"The air as it was read or typed in the last hours"`
	ReadAt string      `json:"read_at,omitempty"`
	Items  []TodayItem `json:"items" doc:"The most urgent first"`
}

// TodayItem is what comes next on a zone.
type TodayItem struct {
	PieceID uint       `json:"piece_id"`
	Created string     `json:"created" doc:"When the piece was created: another data folder may have a piece of the same number"`
	Piece   string     `json:"piece"`
	ZoneID  string     `json:"zone_id"`
	Zone    string     `json:"zone"`
	Fails   string     `json:"fails,omitempty" doc:"What is wrong with its plan, or with what was done"`
	Past    int        `json:"past" doc:"Steps of its plan that lie behind"`
	Steps   int        `json:"steps"`
	Begun   bool       `json:"begun" doc:"Work on the piece has begun"`
	Open    []OpenStep `json:"open" doc:"Steps of which the log says nothing, though later ones were done"`
	Due     Due        `json:"due"`
	Then    []Due      `json:"then,omitempty" doc:"What comes after it by the plan, for a device that is out of reach; state is ahead"`
}

// OpenStep is a step of a plan of which nothing was logged.
type OpenStep struct {
	Step  int    `json:"step"`
	Title string `json:"title"`
}

// PieceLog is a piece's log, with what it comes to.
type PieceLog struct {
	Lines    []LogLine     `json:"lines" doc:"What holds of it, the newest first"`
	Finished string        `json:"finished,omitempty" doc:"When it was handed over"`
	Fittings []FittingBack `json:"fittings" doc:"What was taken off, in the order in which it goes back"`
}

// LogLine is an entry in words.
type LogLine struct {
	Entry     Entry    `json:"entry"`
	Says      string   `json:"says"`
	How       []string `json:"how"`
	ZoneName  string   `json:"zone_name,omitempty"`
	Corrected bool     `json:"corrected,omitempty" doc:"It stands in place of an earlier entry"`
}

// FittingBack is something that goes back.
type FittingBack struct {
	Kind  string `json:"kind"`
	Name  string `json:"name"`
	Where string `json:"where,omitempty"`
	Zone  string `json:"zone,omitempty"`
	Count int    `json:"count"`
	Back  bool   `json:"back"`
	From  string `json:"from,omitempty" doc:"When what it touches is hard enough"`
	Says  string `json:"says,omitempty"`
}

// LookBack holds the work on a piece against its plan.
type LookBack struct {
	Says     string     `json:"says"`
	Rows     []BackRow  `json:"rows"`
	Zones    []ZoneBack `json:"zones"`
	Lessons  []LogLine  `json:"lessons" doc:"What would be done otherwise, the newest first"`
	Photos   []LogPhoto `json:"photos" doc:"The oldest first"`
	Finished string     `json:"finished,omitempty"`
}

// BackRow is one figure, as planned and as it turned out.
type BackRow struct {
	What    string `json:"what"`
	Planned string `json:"planned"`
	Really  string `json:"really"`
}

// ZoneBack is a zone in it.
type ZoneBack struct {
	ID        string    `json:"id"`
	Name      string    `json:"name"`
	Rows      []BackRow `json:"rows"`
	Otherwise []string  `json:"otherwise" doc:"What was done otherwise than planned, as sentences"`
}

// LogPhoto is a picture of the piece.
type LogPhoto struct {
	File   string `json:"file"`
	At     string `json:"at,omitempty"`
	Says   string `json:"says"`
	Before bool   `json:"before,omitempty" doc:"From the survey, before the work"`
}

// LikeZone is a finished zone whose plan could be used again.
type LikeZone struct {
	PieceID  uint     `json:"piece_id"`
	Piece    string   `json:"piece"`
	ZoneID   string   `json:"zone_id"`
	Zone     string   `json:"zone"`
	Finished string   `json:"finished"`
	Material string   `json:"material"`
	Look     string   `json:"look"`
	Colour   string   `json:"colour,omitempty"`
	Says     string   `json:"says" doc:"What it was coated with"`
	Steps    []Step   `json:"steps"`
	Lessons  []string `json:"lessons" doc:"What would be done otherwise"`
	Alike    bool     `json:"alike" doc:"Of the same material and finish"`
}
