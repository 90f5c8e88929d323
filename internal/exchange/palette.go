package exchange

import (
	"fmt"
	"strconv"
	"strings"

	"rutile/internal/wire"
)

// MaxPaletteBytes is the largest palette that is read.
const MaxPaletteBytes = 1 << 20

// Palette is a palette as it was read, with the lines that were left out.
type Palette struct {
	Name     string
	Swatches []wire.Swatch
	Refused  []wire.RefusedRow
	NRefused int
}

// mostRefused is how many rows that were not taken are listed.
const mostRefused = 30

func refuse(list []wire.RefusedRow, line int, says string) []wire.RefusedRow {
	if len(list) < mostRefused {
		list = append(list, wire.RefusedRow{Line: line, Says: says})
	}
	return list
}

// ReadPalette reads a GIMP palette: its first line says so, then come its name, comments, and a colour a line,
// as three numbers from 0 to 255 and a name. Lines that are none of these are refused by number. An *Error says
// why nothing could be used; name is what it is called where it does not say.
func ReadPalette(data []byte, name string) (*Palette, error) {
	if len(data) > MaxPaletteBytes {
		return nil, errorf("The palette is larger than %d MB.", MaxPaletteBytes>>20)
	}
	text, err := Text(data)
	if err != nil {
		return nil, err
	}
	lines := strings.Split(strings.ReplaceAll(text, "\r\n", "\n"), "\n")
	if !strings.EqualFold(strings.TrimSpace(lines[0]), "GIMP Palette") {
		return nil, errorf("This is not a GIMP palette: its first line should be “GIMP Palette”, and is “%s”.", clip(strings.TrimSpace(lines[0])))
	}
	out := &Palette{Name: strings.TrimSpace(name)}
	for i, line := range lines[1:] {
		line = strings.TrimSpace(line)
		lower := strings.ToLower(line)
		switch {
		case line == "" || line[0] == '#' || strings.HasPrefix(lower, "columns:"):
			continue
		case strings.HasPrefix(lower, "name:"):
			if n := strings.TrimSpace(line[len("name:"):]); n != "" {
				out.Name = n
			}
			continue
		}
		s, says := swatch(line)
		if says != "" {
			out.NRefused++
			out.Refused = refuse(out.Refused, i+2, says)
			continue
		}
		if len(out.Swatches) == wire.MaxSwatches {
			return nil, errorf("The palette has more than %d colours.", wire.MaxSwatches)
		}
		out.Swatches = append(out.Swatches, s)
	}
	if len(out.Swatches) == 0 {
		if len(out.Refused) > 0 {
			return nil, errorf("No line could be used. Line %d: %s.", out.Refused[0].Line, out.Refused[0].Says)
		}
		return nil, errorf("The palette has no colours.")
	}
	if out.Name == "" {
		out.Name = "Palette"
	}
	out.Name = cut(out.Name)
	return out, nil
}

// cut keeps a name within what a name may be.
func cut(s string) string {
	if r := []rune(s); len(r) > wire.MaxName {
		return string(r[:wire.MaxName])
	}
	return s
}

// swatch reads three numbers and a name; says is why it cannot.
func swatch(line string) (s wire.Swatch, says string) {
	fields := strings.Fields(line)
	if len(fields) < 3 {
		return s, fmt.Sprintf("“%s” is not three numbers and a name", clip(line))
	}
	var rgb [3]int
	for i := range rgb {
		n, err := strconv.Atoi(fields[i])
		if err != nil {
			return s, fmt.Sprintf("“%s” is not a whole number", clip(fields[i]))
		}
		if n < 0 || n > 255 {
			return s, fmt.Sprintf("%s is not from 0 to 255", clip(fields[i]))
		}
		rgb[i] = n
	}
	s.Colour = fmt.Sprintf("#%02x%02x%02x", rgb[0], rgb[1], rgb[2])
	s.Name = cut(strings.Join(fields[3:], " "))
	if s.Name == "" || strings.EqualFold(s.Name, "untitled") {
		s.Name = s.Colour
	}
	return s, ""
}

// WritePalette writes a GIMP palette.
func WritePalette(p *wire.Palette) []byte {
	var b strings.Builder
	one := func(s string) string {
		return strings.Join(strings.FieldsFunc(s, func(r rune) bool { return r == '\n' || r == '\r' || r == '\t' }), " ")
	}
	fmt.Fprintf(&b, "GIMP Palette\nName: %s\nColumns: 6\n#\n", one(p.Name))
	for _, s := range p.Swatches {
		var r, g, bl int
		if _, err := fmt.Sscanf(s.Colour, "#%02x%02x%02x", &r, &g, &bl); err != nil {
			continue
		}
		fmt.Fprintf(&b, "%3d %3d %3d\t%s\n", r, g, bl, one(s.Name))
	}
	return []byte(b.String())
}
