package main

import (
	"encoding/json"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"rutile/internal/wire"
)

const shelfCSV = "name,kind,colour,size_l,left_l,opened\nCream,Chalk paint,#ece4d6,1,0.05,2026-10-20\nInk,Chalk paint,#27324a,1,0.8,2026-10-20\nWhite,Chalk paint,#f4f1e8,1,1,\nOld shellac,Clear shellac,,1,0.5,2020-01-01\n"

func csvFile(t *testing.T) string {
	t.Helper()
	path := filepath.Join(t.TempDir(), "cans.csv")
	if err := os.WriteFile(path, []byte(shelfCSV), 0o600); err != nil {
		t.Fatal(err)
	}
	return path
}

func TestShelfCommand(t *testing.T) {
	path := csvFile(t)
	out, errs, code := rutile("", "shelf", "--csv", path)
	var s wire.Shelf
	if err := json.Unmarshal([]byte(out), &s); err != nil || code != 0 || len(s.Cans) != 4 {
		t.Fatal(code, errs, out)
	}
	text, _, code := rutile("", "shelf", "--csv", path, "--text", "--find", "shellac")
	if code != 0 || !strings.Contains(text, "Past its life") || !strings.Contains(text, "1 can of 4") {
		t.Errorf("%d, %s", code, text)
	}
	for _, args := range [][]string{{"shelf", "--csv", "none.csv"}, {"shelf", "--csv", "shelf_test.go"}, {"shelf", "--csv", path, "--units", "feet"}, {"shelf", "--csv", path, "--data", "x"}} {
		if out, errs, code := rutile("", args...); code != 2 || errs == "" || out != "" {
			t.Errorf("%v: %d, %s", args, code, errs)
		}
	}
}

func TestBlendCommand(t *testing.T) {
	out, errs, code := rutile("", "blend", "lab(45, -8, -12)", "--csv", csvFile(t))
	var n wire.Nearest
	if err := json.Unmarshal([]byte(out), &n); err != nil || code != 0 || len(n.Blends) == 0 || n.Of != 3 || n.Caution == "" {
		t.Fatal(code, errs, out)
	}
	text, _, code := rutile("", "blend", "pale grey-green", "--text")
	if code != 0 || !strings.Contains(text, "Tried 36 paints") || !strings.Contains(text, "no colour card") {
		t.Errorf("%d, %s", code, text)
	}
	gpl := filepath.Join(t.TempDir(), "two.gpl")
	if err := os.WriteFile(gpl, []byte("GIMP Palette\nName: Two\n244 241 232 White\n39 50 74 Ink\n"), 0o600); err != nil {
		t.Fatal(err)
	}
	if text, _, code := rutile("", "blend", "#8090a0", "--palette", gpl, "--text", "--kind", "chalk paint"); code != 0 || !strings.Contains(text, "of “Ink”") {
		t.Errorf("%d, %s", code, text)
	}
	for _, args := range [][]string{{"blend", "mauvish"}, {"blend", "#fff", "--kind", "mud"}, {"blend", "#fff", "--palette", "shelf_test.go"}, {"blend", "#fff", "--kind", "clear_wb"}, {"blend"}} {
		if out, errs, code := rutile("", args...); code != 2 || errs == "" || out != "" {
			t.Errorf("%v: %d, %s", args, code, errs)
		}
	}
}

func TestNeedsCommand(t *testing.T) {
	const trunk = "../../internal/demo/pieces/24-hat-trunk.json"
	out, errs, code := rutile("", "needs", trunk)
	var n wire.Needs
	if err := json.Unmarshal([]byte(out), &n); err != nil || code != 1 || n.Format != wire.NeedsFormat || len(n.Zones) != 2 || len(n.Items) != 5 {
		t.Fatal(code, errs, out)
	}
	text, _, code := rutile("", "needs", trunk, "--text", "--units", "us")
	if code != 1 || !strings.Contains(text, "fl oz") || !strings.Contains(text, "cover from the label") || !strings.Contains(text, "Enough for one coat of the outside") {
		t.Errorf("%d, %s", code, text)
	}
	rack := "../../examples/programme-rack.json"
	if text, _, code := rutile("", "needs", rack, "--text"); code != 0 || !strings.Contains(text, "No shelf was given") {
		t.Errorf("%d, %s", code, text)
	}
	if _, _, code := rutile("", "needs", rack, "--csv", csvFile(t)); code != 1 {
		t.Errorf("what the shelf lacks is told by %d", code)
	}
	if _, errs, code := rutile("{}", "needs", "-"); code != 2 || !strings.Contains(errs, "$.format") {
		t.Errorf("%d, %s", code, errs)
	}
}
