package wire

import (
	"fmt"
	"strconv"
	"strings"

	"rutile/core/plan"
)

// Settings are what a studio chooses once for all its pieces.
type Settings struct {
	Name  string `json:"name"`
	Units string `json:"units"`
	Site  Site   `json:"site"`
	// LeadYear is 0 where the usual year holds.
	LeadYear int `json:"lead_year,omitempty"`
	// Way is empty for the usual one.
	Way  string `json:"way,omitempty"`
	Ways []Way  `json:"ways,omitempty"`
	// Kits are the ids of those that the studio has, and OwnKits those of its own, or changed.
	Kits      []string `json:"kits,omitempty"`
	OwnKits   []Kit    `json:"own_kits,omitempty"`
	HabitsOff []string `json:"habits_off,omitempty"`
	Bench     *Bench   `json:"bench,omitempty"`
	// Measure is the id of what the studio measures with when it mixes, empty for the usual one, and CupML what
	// its cup holds.
	Measure string  `json:"measure,omitempty"`
	CupML   float64 `json:"cup_ml,omitempty"`
}

// Kit is what a studio owns and likes.
type Kit struct {
	ID       string   `json:"id"`
	Name     string   `json:"name"`
	Says     string   `json:"says,omitempty"`
	Tools    []string `json:"tools,omitempty"`
	Products []string `json:"products,omitempty"`
	Everyday string   `json:"everyday,omitempty"`
	Matt     string   `json:"matt,omitempty"`
	Hard     string   `json:"hard,omitempty"`
	Weather  string   `json:"weather,omitempty"`
}

// Bench is when a studio works.
type Bench struct {
	FromH float64  `json:"from_h"`
	ToH   float64  `json:"to_h"`
	Days  []string `json:"days"`
}

// Weekdays are the ids of the days of the week.
var Weekdays = []string{"mon", "tue", "wed", "thu", "fri", "sat", "sun"}

// Way is a way of working: the choices that plans are made by.
type Way struct {
	ID            string   `json:"id"`
	Name          string   `json:"name"`
	Says          string   `json:"says,omitempty"`
	Holds         string   `json:"holds,omitempty"`
	ScuffFirst    bool     `json:"scuff_first,omitempty"`
	Sand          string   `json:"sand,omitempty"`
	Additive      float64  `json:"additive,omitempty"`
	AdditiveFirst bool     `json:"additive_first,omitempty"`
	Water         float64  `json:"water,omitempty"`
	Seal          string   `json:"seal,omitempty"`
	FlakeSeal     string   `json:"flake_seal,omitempty"`
	Resist        string   `json:"resist,omitempty"`
	Crackle       string   `json:"crackle,omitempty"`
	Deep          bool     `json:"deep,omitempty"`
	Method        string   `json:"method,omitempty"`
	NextDay       bool     `json:"next_day,omitempty"`
	Cure          float64  `json:"cure,omitempty"`
	Knots         string   `json:"knots,omitempty"`
	Paints        []string `json:"paints,omitempty"`
	NoSmell       bool     `json:"no_smell,omitempty"`
	Shelf         []string `json:"shelf,omitzero"`
	Without       []string `json:"without,omitempty"`
	HabitsOff     []string `json:"habits_off,omitempty"`
}

// DecodeSettings reads a studio's settings. The error, if any, is an *Error.
func DecodeSettings(data []byte) (Settings, error) {
	var s Settings
	if len(data) > MaxBytes {
		return s, tooLarge()
	}
	doc, err := scan(data, "a studio's settings")
	if err != nil {
		return s, err
	}
	if err := doc.fill(SettingsObject, &s); err != nil {
		return s, err
	}
	if err := moment("$.site.at", s.Site.At); err != nil {
		return s, err
	}
	s.Name = strings.TrimSpace(s.Name)
	known := map[string]bool{}
	for i := range s.Ways {
		id := s.Ways[i].ID
		if _, shipped := plan.WayNamed(id, nil); shipped || known[id] {
			return s, &Error{fmt.Sprintf("$.ways[%d].id", i), strconv.Quote(id), "another way already has this id"}
		}
		known[id] = true
	}
	if _, shipped := plan.WayNamed(s.Way, nil); s.Way != "" && !shipped && !known[s.Way] {
		return s, &Error{"$.way", strconv.Quote(s.Way), "there is no such way"}
	}
	own := map[string]bool{}
	for i := range s.OwnKits {
		id := s.OwnKits[i].ID
		if own[id] {
			return s, &Error{fmt.Sprintf("$.own_kits[%d].id", i), strconv.Quote(id), "another kit already has this id"}
		}
		own[id] = true
	}
	for i, id := range s.Kits {
		if _, shipped := plan.KitNamed(id, nil); !shipped && !own[id] {
			return s, &Error{fmt.Sprintf("$.kits[%d]", i), strconv.Quote(id), "there is no such kit"}
		}
	}
	if b := s.Bench; b != nil {
		switch {
		case b.ToH-b.FromH < 1:
			return s, &Error{"$.bench.to_h", fmt.Sprint(b.ToH), "a working day must be at least an hour long"}
		case len(b.Days) == 0:
			return s, &Error{"$.bench.days", "[]", "choose at least one working day"}
		}
	}
	return s, nil
}
