package wire

import (
	"cmp"
	"fmt"
	"slices"
	"strconv"
	"strings"
	"time"

	"rutile/core/identify"
)

// consistent finds what a schema cannot say.
func (p *Piece) consistent() error {
	seen := map[string]int{}
	for i := range p.Zones {
		z := &p.Zones[i]
		if first, dup := seen[z.ID]; dup {
			return &Error{Path: fmt.Sprintf("$.zones[%d].id", i), Value: strconv.Quote(z.ID), Says: fmt.Sprintf("zones[%d] already has this id", first)}
		}
		seen[z.ID] = i
		if err := z.consistent(i); err != nil {
			return err
		}
	}
	if err := cmp.Or(p.placed(), p.canned(), p.logged()); err != nil {
		return err
	}
	return p.labelled()
}

// consistent finds what a schema cannot say of the zone at an index.
func (z *Zone) consistent(i int) error {
	coats := 0
	for _, s := range z.Steps {
		coats += max(1, s.Coats)
	}
	if coats > MaxCoats {
		return &Error{Path: fmt.Sprintf("$.zones[%d].steps", i), Value: fmt.Sprintf("%d coats and steps", coats), Says: fmt.Sprintf("too many, at most %d", MaxCoats)}
	}
	if err := z.tests(i); err != nil {
		return err
	}
	for name, list := range map[string][]Level{"soils": z.Soils, "bleeders": z.Bleeders} {
		for j, l := range list {
			if slices.ContainsFunc(list[:j], func(o Level) bool { return o.ID == l.ID }) {
				return &Error{Path: fmt.Sprintf("$.zones[%d].%s[%d].id", i, name, j), Value: strconv.Quote(l.ID), Says: "it is in the list twice"}
			}
		}
	}
	return nil
}

// tests refuses evidence, patches and dates that a schema cannot refuse.
func (z *Zone) tests(i int) error {
	at := func(list string, j int, field string) string {
		return fmt.Sprintf("$.zones[%d].%s[%d].%s", i, list, j, field)
	}
	for j, e := range z.Evidence {
		for k, o := range z.Evidence[:j] {
			if o.Test == e.Test {
				return &Error{at("evidence", j, "test"), strconv.Quote(e.Test), fmt.Sprintf("evidence[%d] already answers this test, with %q; keep the answer you trust", k, o.Outcome)}
			}
		}
		t := &identify.Tests[identify.TestNamed(e.Test)]
		known := []string{identify.NotSure}
		for _, o := range t.Outcomes {
			known = append(known, o.ID)
		}
		if !slices.Contains(known, e.Outcome) {
			return &Error{at("evidence", j, "outcome"), strconv.Quote(e.Outcome), fmt.Sprintf("the test %s has no such outcome; known are %s", e.Test, strings.Join(known, ", "))}
		}
	}
	for j, p := range z.Patches {
		for k, o := range z.Patches[:j] {
			if o.ID == p.ID {
				return &Error{at("patches", j, "id"), strconv.Quote(p.ID), fmt.Sprintf("patches[%d] already has this id", k)}
			}
		}
		switch {
		case p.Class != nil && p.Rated == "":
			return &Error{at("patches", j, "rated"), "", "missing; a rated patch test needs its date"}
		case p.Class != nil && p.Made != "" && p.Rated < p.Made:
			return &Error{at("patches", j, "rated"), strconv.Quote(p.Rated), "rated before it was made on " + p.Made}
		}
	}
	return nil
}

// dated refuses dates and times that are in no calendar.
func (p *Piece) dated() error {
	if p.Site != nil {
		if err := moment("$.site.at", p.Site.At); err != nil {
			return err
		}
	}
	for i := range p.Photos {
		if err := day(fmt.Sprintf("$.photos[%d].taken", i), p.Photos[i].Taken); err != nil {
			return err
		}
	}
	for i := range p.Cans {
		if err := p.Cans[i].dated(fmt.Sprintf("$.cans[%d]", i)); err != nil {
			return err
		}
	}
	for i := range p.Zones {
		if err := p.Zones[i].dated(i); err != nil {
			return err
		}
	}
	return nil
}

// dated is [Piece.dated] for the zone at an index.
func (z *Zone) dated(i int) error {
	at := func(list string, j int, field string) string {
		return fmt.Sprintf("$.zones[%d].%s[%d].%s", i, list, j, field)
	}
	var errs []error
	for j, e := range z.Evidence {
		errs = append(errs, day(at("evidence", j, "date"), e.Date))
	}
	if t := z.LeadTest; t != nil {
		errs = append(errs, day(fmt.Sprintf("$.zones[%d].lead_test.date", i), t.Date))
	}
	for j, p := range z.Patches {
		errs = append(errs, day(at("patches", j, "made"), p.Made), day(at("patches", j, "look"), p.RateFrom), day(at("patches", j, "rated"), p.Rated))
	}
	for j, r := range z.Readings {
		errs = append(errs, moment(at("readings", j, "at"), r.At))
	}
	for j, r := range z.Read {
		errs = append(errs, day(at("acknowledged", j, "date"), r.Date))
	}
	return cmp.Or(errs...)
}

// day refuses a date that is in no calendar.
func day(path, d string) error {
	if _, err := time.Parse(time.DateOnly, d); d != "" && err != nil {
		return &Error{path, strconv.Quote(d), "there is no such date"}
	}
	return nil
}

// moments are the ways that a time may be written.
var moments = []string{"2006-01-02T15:04", "2006-01-02T15:04:05", time.RFC3339, "2006-01-02T15:04Z07:00"}

// moment refuses a time that is in no calendar, or on no clock.
func moment(path, at string) error {
	if at == "" {
		return nil
	}
	for _, layout := range moments {
		if _, err := time.Parse(layout, at); err == nil {
			return nil
		}
	}
	return &Error{path, strconv.Quote(Clip(at)), "there is no such time"}
}

// ZoneAt is the index of the zone with an id; -1 for none.
func (p *Piece) ZoneAt(id string) int {
	if id == "" {
		return -1
	}
	return slices.IndexFunc(p.Zones, func(z Zone) bool { return z.ID == id })
}

// onZone refuses what is said to be on a zone that the piece does not have.
func (p *Piece) onZone(path, id string) error {
	if id != "" && p.ZoneAt(id) < 0 {
		return &Error{path + ".zone", strconv.Quote(id), "the piece has no such zone"}
	}
	return nil
}

// placed checks what a schema cannot express about parts and hardware.
func (p *Piece) placed() error {
	for i := range p.Parts {
		path := fmt.Sprintf("$.parts[%d]", i)
		if _, err := p.Parts[i].Core(-1); err != nil {
			e := err.(*Error)
			e.Path = path + e.Path
			return e
		}
		if err := p.onZone(path, p.Parts[i].Zone); err != nil {
			return err
		}
	}
	for i, f := range p.TakeApart {
		if err := p.onZone(fmt.Sprintf("$.take_apart[%d]", i), f.Zone); err != nil {
			return err
		}
	}
	return nil
}

// labelled finds what a schema cannot say of damage, pictures and the markers in them.
func (p *Piece) labelled() error {
	labels := map[string]string{}
	for i, z := range p.Zones {
		for j, d := range z.Defects {
			path := fmt.Sprintf("$.zones[%d].defects[%d].label", i, j)
			if first, taken := labels[d.Label]; d.Label != "" && taken {
				return &Error{path, strconv.Quote(d.Label), first + " already has this label"}
			}
			labels[d.Label] = path
		}
	}
	for i, f := range p.Photos {
		path := fmt.Sprintf("$.photos[%d]", i)
		if slices.ContainsFunc(p.Photos[:i], func(g Photo) bool { return g.File == f.File }) {
			return &Error{path + ".file", strconv.Quote(f.File), "the same picture is in the list twice"}
		}
		if err := p.onZone(path, f.Zone); err != nil {
			return err
		}
		for j, m := range f.Markers {
			if _, ok := labels[m.Defect]; m.Defect != "" && !ok {
				return &Error{fmt.Sprintf("%s.markers[%d].defect", path, j), strconv.Quote(m.Defect), "no damage has this label"}
			}
		}
	}
	return nil
}
