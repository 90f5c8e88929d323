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
}

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
	return s, nil
}
