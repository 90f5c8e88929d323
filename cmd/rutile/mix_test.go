package main

import (
	"encoding/json"
	"strings"
	"testing"

	"rutile/internal/wire"
)

func TestMixCommand(t *testing.T) {
	const trunk = "../../internal/demo/pieces/24-hat-trunk.json"
	out, errs, code := rutile("", "mix", trunk)
	var c wire.Cards
	if err := json.Unmarshal([]byte(out), &c); err != nil || code != 0 || c.Format != wire.CardsFormat || len(c.Zones) != 2 || len(c.Zones[0].Cards) != 5 {
		t.Fatal(code, errs, out)
	}
	if b := c.Zones[0].Cards[0].Batch; len(b.Portions) != 3 || b.MakesL < b.NeedL || len(c.Zones[0].Order) == 0 {
		t.Errorf("%+v", b)
	}
	text, _, code := rutile("", "mix", trunk, "--text", "--measures", "cups", "--cup", "250")
	if code != 0 || !strings.Contains(text, "⅓ cup and 1 tsp of powder") || !strings.Contains(text, "Let it rest, 20 min") || !strings.Contains(text, "Lid: the upper face") || !strings.Contains(text, "safety data sheet") {
		t.Errorf("%d, %s", code, text)
	}
	text, _, code = rutile("", "mix", trunk, "--text", "--units", "us")
	if code != 0 || !strings.Contains(text, "cup") || !strings.Contains(text, "sq ft") || !strings.Contains(text, "68 °F") {
		t.Errorf("%d, %s", code, text)
	}
	// The painter's own amount.
	out, _, code = rutile("", "mix", trunk, "--make", "1/5 l")
	if err := json.Unmarshal([]byte(out), &c); err != nil || code != 0 || c.Zones[0].Cards[0].Batch.MakesL < .3 || !strings.Contains(strings.Join(c.Zones[0].Cards[0].Batch.Notes, " "), "volume of its own") {
		t.Errorf("%d, %+v", code, c.Zones[0].Cards[0].Batch)
	}
	// Baking powder is refused, and the mistake boards hold it.
	text, _, code = rutile("", "mix", "../../internal/demo/pieces/21-mistake-boards.json", "--text")
	if code != 1 || !strings.Contains(text, "Not mixed: Baking powder foams") {
		t.Errorf("%d", code)
	}
	for says, args := range map[string][]string{
		"there is no such measure":    {"mix", trunk, "--measures", "buckets"},
		"what your cup holds":         {"mix", trunk, "--measures", "cups"},
		"is no cup":                   {"mix", trunk, "--cup", "4000"},
		"a cup of 0 ml":               {"mix", trunk, "--cup", "0"},
		"more than anybody mixes":     {"mix", trunk, "--make", "40 l"},
		"an amount must be more":      {"mix", trunk, "--make", "0 ml"},
		"cannot be opened":            {"mix", "none.json"},
		"units":                       {"mix", trunk, "--units", "feet"},
		"requires at least 1 arg":     {"mix"},
		"cannot be read in an amount": {"mix", trunk, "--make", "a lot"},
	} {
		if out, errs, code := rutile("", args...); code != 2 || !strings.Contains(strings.ToLower(errs), strings.ToLower(says)) || out != "" {
			t.Errorf("%v: %d, %q; want %q", args, code, errs, says)
		}
	}
	if _, errs, code := rutile("{}", "mix", "-"); code != 2 || !strings.Contains(errs, "$.format") {
		t.Errorf("%d, %s", code, errs)
	}
}
