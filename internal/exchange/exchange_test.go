package exchange

import (
	"bytes"
	"encoding/csv"
	"errors"
	"fmt"
	"slices"
	"strings"
	"testing"

	"golang.org/x/text/encoding/charmap"
	"golang.org/x/text/encoding/unicode"

	"rutile/core/craft"
	"rutile/internal/wire"
)

var c = craft.Default()

const three = "name;kind;colour;size_l;left_l;opened;label_cover_m2_l\n" +
	"Crème;Chalk paint;#ece4d6;2,5;0,75;2026-10-20;12,5\n" +
	"Weiß;paint_acrylic;white;750 ml;;;\n" +
	"Wachs;clear wax;;0,25;0,1;01.05.2026;\n"

func encoded(t *testing.T, s string, how string) []byte {
	t.Helper()
	var out []byte
	var err error
	switch how {
	case "utf8":
		out = []byte(s)
	case "utf8 with a mark":
		out = []byte("\ufeff" + s)
	case "latin1":
		out, err = charmap.ISO8859_1.NewEncoder().Bytes([]byte(s))
	case "utf16 little":
		out, err = unicode.UTF16(unicode.LittleEndian, unicode.UseBOM).NewEncoder().Bytes([]byte(s))
	case "utf16 big":
		out, err = unicode.UTF16(unicode.BigEndian, unicode.UseBOM).NewEncoder().Bytes([]byte(s))
	case "utf16 without a mark":
		out, err = unicode.UTF16(unicode.LittleEndian, unicode.IgnoreBOM).NewEncoder().Bytes([]byte(s))
	}
	if err != nil {
		t.Fatal(err)
	}
	return out
}

// The same cans come out of every way to write them.
func TestCansAreReadInEveryEncoding(t *testing.T) {
	for _, how := range []string{"utf8", "utf8 with a mark", "latin1", "utf16 little", "utf16 big", "utf16 without a mark"} {
		got, err := ReadCans(c, encoded(t, three, how))
		if err != nil || len(got.Cans) != 3 || got.NRefused != 0 {
			t.Errorf("%s: %+v, %v", how, got, err)
			continue
		}
		x := got.Cans[0]
		if x.Name != "Crème" || x.Kind != "paint_chalk" || x.SizeL != 2.5 || x.LeftL == nil || *x.LeftL != .75 || x.Opened != "2026-10-20" || x.Label == nil || *x.Label.CoverM2L != 12.5 {
			t.Errorf("%s: %+v", how, x)
		}
		if y := got.Cans[1]; y.Name != "Weiß" || y.SizeL != .75 || y.LeftL != nil || y.Colour == "" {
			t.Errorf("%s: %+v", how, y)
		}
		if z := got.Cans[2]; z.Kind != "wax_clear" || z.Opened != "2026-05-01" {
			t.Errorf("%s: %+v", how, z)
		}
	}
}

// A row that cannot be used is named by its line and its reason, and the others are used.
func TestBadRowsAreNamed(t *testing.T) {
	for row, says := range map[string]string{
		"x,Chalk pain,,1,":             "no kind of product",
		"x,Chalk paint,mauvish,1,":     "is not a colour",
		"x,Chalk paint,,-1,":           "negative",
		"x,Chalk paint,,much,":         "not a volume",
		"x,Chalk paint,,500,":          "more than 200 litres",
		"x,Chalk paint,,1,2":           "more is left than the can holds",
		"x,,,1,":                       "no kind",
		"x,Chalk paint,,1,0,extra":     "6 cells",
		`x,"Chalk paint,,1,`:           "quotation mark",
		strings.Repeat("x", 300) + ",": "longer than 200",
	} {
		got, err := ReadCans(c, []byte("name,kind,colour,size,left\ngood,Chalk paint,,1,.5\n"+row+"\n"))
		if err != nil || len(got.Cans) != 1 || got.NRefused != 1 || !strings.Contains(got.Refused[0].Says, says) || got.Refused[0].Line != 3 {
			t.Errorf("%q: %+v, %v; want %q", row, got, err, says)
		}
	}
	for file, says := range map[string]string{
		"":                                   "empty",
		"   \n":                              "empty",
		"a,b,c\n1,2,3":                       "not a heading",
		"name,kind\n":                        "no row below",
		"name,kind\nx,nothing\n":             "No row could be used",
		"\x00\x01\x02\x00kind\x00":           "", // whatever it is taken for, it is no file of cans
		strings.Repeat("name,kind\n", 11000): "at most 10000",
		strings.Repeat("x", MaxCansBytes+1):  "larger than",
		"name" + strings.Repeat(",kind", 80) + "\n" + "x": "not a heading",
	} {
		_, err := ReadCans(c, []byte(file))
		var e *Error
		if !errors.As(err, &e) || !strings.Contains(e.Says, says) {
			t.Errorf("%.30q: %v; want %q", file, err, says)
		}
	}
}

// A line is measured before it is taken apart.
func TestALongLineIsNamed(t *testing.T) {
	_, err := ReadCans(c, []byte("kind,name\npaint_chalk,A\n"+strings.Repeat(",", maxLine)+"\n"))
	if err == nil || err.Error() != "Line 3 is longer than 40000 characters." {
		t.Error(err)
	}
}

func TestTenThousandRows(t *testing.T) {
	var b strings.Builder
	b.WriteString("name,kind,size_l\n")
	for i := range MaxCanRows {
		fmt.Fprintf(&b, "Can %d,paint_chalk,1\n", i)
	}
	got, err := ReadCans(c, []byte(b.String()))
	if err != nil || len(got.Cans) != MaxCanRows {
		t.Errorf("%v, %v", got, err)
	}
}

// What a spreadsheet would take for a formula is never written as one, and comes back as it was.
func TestNoFormulaIsWritten(t *testing.T) {
	left := .5
	cans := []wire.Can{
		{ID: "a", Kind: "paint_chalk", Name: `=HYPERLINK("x")`, Note: "+1", Batch: "-2", LeftL: &left, SizeL: 1, Label: &wire.Label{CoverM2L: &left, On: []string{"wood_bare", "zinc"}[:1], NotFor: []string{"food"}}},
		{ID: "b", Kind: "clear_wb", Name: "@cmd", Sheen: "matt", Opened: "2026-01-02", ReservedFor: "Rack", Mixed: "2026-02-03", MixedFrom: []string{"=5 parts of white", "2 parts of ink"}},
		{ID: "c", Kind: "bonding_additive", Name: "'quoted', \"and\" more\nlines"},
	}
	data, err := WriteCans(c, cans)
	if err != nil {
		t.Fatal(err)
	}
	rows, err := csv.NewReader(bytes.NewReader(data)).ReadAll()
	if err != nil {
		t.Fatal(err)
	}
	for _, row := range rows[1:] {
		for _, cell := range row {
			if cell != "" && strings.ContainsRune("=+-@\t\r", rune(cell[0])) {
				t.Errorf("the cell %q begins a formula", cell)
			}
		}
	}
	back, err := ReadCans(c, data)
	if err != nil || len(back.Cans) != len(cans) || back.NRefused > 0 {
		t.Fatalf("%+v, %v", back, err)
	}
	again, err := WriteCans(c, back.Cans)
	if err != nil || !bytes.Equal(data, again) {
		t.Errorf("it does not come back as it was:\n%s\n%s", data, again)
	}
	if back.Cans[0].Name != cans[0].Name || back.Cans[1].Name != "@cmd" || back.Cans[1].ReservedFor != "Rack" || back.Cans[1].Mixed != "2026-02-03" || !slices.Equal(back.Cans[1].MixedFrom, cans[1].MixedFrom) || *back.Cans[0].Label.CoverM2L != .5 || !slices.Equal(back.Cans[0].Label.NotFor, []string{"food"}) {
		t.Errorf("%+v", back.Cans)
	}
}

func TestVolumesAreRead(t *testing.T) {
	for text, want := range map[string]float64{"1": 1, "0,75": .75, "750 ml": .75, "75cl": .75, "2.5 L": 2.5, "1 qt": .946352946, "8 fl oz": .2365882365} {
		if got, ok := Litres(text); !ok || got < want-1e-9 || got > want+1e-9 {
			t.Errorf("%q is %v, %v; want %v", text, got, ok, want)
		}
	}
}

const palette = "GIMP Palette\r\nName: Föyer\r\nColumns: 3\r\n#\r\n244 241 232\tTicket white\r\n  0   0   0 Untitled\r\n300 1 2 too much\r\nx y z\r\n12 34\r\n39 50 74\tInk\r\n"

func TestPalettes(t *testing.T) {
	for _, how := range []string{"utf8", "utf8 with a mark", "latin1", "utf16 little"} {
		got, err := ReadPalette(encoded(t, palette, how), "file")
		if err != nil || got.Name != "Föyer" || len(got.Swatches) != 3 || got.NRefused != 3 {
			t.Fatalf("%s: %+v, %v", how, got, err)
		}
		if got.Swatches[0] != (wire.Swatch{Name: "Ticket white", Colour: "#f4f1e8"}) || got.Swatches[1].Name != "#000000" || got.Refused[0].Line != 7 {
			t.Errorf("%s: %+v", how, got)
		}
		out := WritePalette(&wire.Palette{Name: got.Name, Swatches: got.Swatches})
		back, err := ReadPalette(out, "")
		if err != nil || back.Name != got.Name || !slices.Equal(back.Swatches, got.Swatches) {
			t.Errorf("it does not come back as it was: %+v, %v", back, err)
		}
	}
	for file, says := range map[string]string{"": "not a GIMP palette", "GIMP Palette\n": "no colours", "GIMP Palette\na b c\n": "Line 2", strings.Repeat("x", MaxPaletteBytes+1): "larger"} {
		if _, err := ReadPalette([]byte(file), ""); err == nil || !strings.Contains(err.Error(), says) {
			t.Errorf("%.20q: %v, want %q", file, err, says)
		}
	}
	if _, err := ReadPalette([]byte("GIMP Palette\n"+strings.Repeat("1 2 3\n", wire.MaxSwatches+1)), ""); err == nil {
		t.Error("a palette without end was read")
	}
}

func FuzzReadCans(f *testing.F) {
	f.Add([]byte(three))
	f.Add([]byte("name,kind\n\"x"))
	f.Add([]byte("\xff\xfek\x00i\x00n\x00d\x00"))
	f.Fuzz(func(t *testing.T, data []byte) {
		got, err := ReadCans(c, data)
		if err != nil {
			return
		}
		for i := range got.Cans {
			if err := got.Cans[i].Check(); err != nil {
				t.Errorf("a can was read that is not one: %v", err)
			}
		}
		out, err := WriteCans(c, got.Cans)
		if err != nil {
			t.Fatal(err)
		}
		back, err := ReadCans(c, out)
		if err != nil || len(back.Cans) != len(got.Cans) {
			t.Errorf("%d cans come back as %v, %v", len(got.Cans), back, err)
		}
	})
}

func FuzzReadPalette(f *testing.F) {
	f.Add([]byte(palette))
	f.Fuzz(func(t *testing.T, data []byte) {
		got, err := ReadPalette(data, "x")
		if err != nil {
			return
		}
		back, err := ReadPalette(WritePalette(&wire.Palette{Name: got.Name, Swatches: got.Swatches}), "x")
		if err != nil || len(back.Swatches) != len(got.Swatches) {
			t.Errorf("%+v comes back as %+v, %v", got, back, err)
		}
	})
}
