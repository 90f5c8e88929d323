package format

import (
	"bytes"
	"encoding/json"
	"fmt"
	"strings"
	"unicode/utf8"

	"rutile/core/measure"
)

// Settings are what a studio chooses once for all its pieces.
type Settings struct {
	Name  string `json:"name"`
	Units string `json:"units" enum:"metric,us" doc:"That sizes and temperatures are shown and typed in; files are always metric"`
	Site  Site   `json:"site" doc:"The workshop's usual air"`
	// LeadYear is 0 where the usual year holds.
	LeadYear int `json:"lead_year,omitempty" doc:"Before which local rules suspect old paint of lead"`
	// Way is empty for the usual one.
	Way  string `json:"way,omitempty" doc:"Id of the way of working that plans are made by where none is said"`
	Ways []Way  `json:"ways,omitempty" doc:"Ways of working of one's own"`
}

// DecodeSettings reads a studio's settings. The error, if any, is an *Error.
func DecodeSettings(data []byte) (Settings, error) {
	var s Settings
	d := json.NewDecoder(bytes.NewReader(data))
	d.DisallowUnknownFields()
	if err := d.Decode(&s); err != nil {
		return s, &Error{Says: "these are no settings: " + strings.TrimPrefix(err.Error(), "json: ")}
	}
	s.Name = strings.TrimSpace(s.Name)
	if n := utf8.RuneCountInString(s.Name); n > MaxName {
		return s, &Error{"$.name", "", fmt.Sprintf("at most %d characters, and this has %d", MaxName, n)}
	}
	if _, ok := measure.UnitsNamed(s.Units); !ok {
		return s, &Error{"$.units", fmt.Sprintf("%q", s.Units), "units are metric or us"}
	}
	if t := s.Site.TempC; t < -20 || t > 50 {
		return s, &Error{"$.site.temp_c", fmt.Sprint(t), "a workshop has between -20 and 50 °C"}
	}
	if h := s.Site.RHPct; h < 0 || h > 100 {
		return s, &Error{"$.site.rh_pct", fmt.Sprint(h), "humidity is between 0 and 100 %"}
	}
	if y := s.LeadYear; y != 0 && (y < 1900 || y > 2100) {
		return s, &Error{"$.lead_year", fmt.Sprint(y), "a year between 1900 and 2100"}
	}
	if len(s.Ways) > MostWays {
		return s, &Error{"$.ways", fmt.Sprint(len(s.Ways)), fmt.Sprintf("at most %d ways", MostWays)}
	}
	for i := range s.Ways {
		at := fmt.Sprintf("$.ways[%d]", i)
		if err := s.Ways[i].check(at); err != nil {
			return s, err
		}
		if _, taken := WayNamed(s.Ways[i].ID, s.Ways[:i]); taken {
			return s, &Error{at + ".id", fmt.Sprintf("%q", s.Ways[i].ID), "another way has this id"}
		}
	}
	if _, ok := WayNamed(s.Way, s.Ways); s.Way != "" && !ok {
		return s, &Error{"$.way", fmt.Sprintf("%q", clip(s.Way)), "there is no such way"}
	}
	return s, nil
}
