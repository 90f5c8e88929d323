package wire

import (
	"reflect"
	"slices"
	"strings"
	"testing"
)

// jsonFields are the fields of a Go type by their names on the wire.
func jsonFields(t reflect.Type) map[string]reflect.StructField {
	out := map[string]reflect.StructField{}
	for f := range t.Fields() {
		name, _, _ := strings.Cut(f.Tag.Get("json"), ",")
		out[name] = f
	}
	return out
}

// The Go types of the shapes and the table of fields name the same fields, of the same kinds, and
// nothing that the table says of a field stands at the type once more.
func TestShapesAreThoseOfTheTable(t *testing.T) {
	kinds := map[Kind][]reflect.Kind{
		Text: {reflect.String}, Number: {reflect.Float64}, Whole: {reflect.Int}, Truth: {reflect.Bool}, Ref: {reflect.Struct}, List: {reflect.Slice},
	}
	for i := range Objects() {
		o := &Objects()[i]
		shape, ok := Shapes[o.Name]
		if !ok {
			t.Errorf("%s has no Go type", o.Name)
			continue
		}
		got := jsonFields(shape)
		fields := slices.Clone(o.Fields)
		for _, v := range o.Variants {
			fields = append(fields, v.Fields...)
		}
		seen := map[string]bool{}
		for _, f := range fields {
			seen[f.Name] = true
			g, ok := got[f.Name]
			if !ok {
				t.Errorf("%s has no field %s in Go", o.Name, f.Name)
				continue
			}
			at := g.Type
			if at.Kind() == reflect.Pointer {
				at = at.Elem()
			}
			if !slices.Contains(kinds[f.Kind], at.Kind()) {
				t.Errorf("%s.%s is %s in Go", o.Name, f.Name, at)
			}
			if f.Kind == Ref && at != Shapes[f.Object] || f.Kind == List && f.Of.Kind == Ref && at.Elem() != Shapes[f.Of.Object] {
				t.Errorf("%s.%s holds %s in Go", o.Name, f.Name, at)
			}
			if must := !strings.Contains(g.Tag.Get("json"), ",omit"); must != f.Must && o.By == "" {
				t.Errorf("%s.%s: the table says that it must be there: %v, Go says %v", o.Name, f.Name, f.Must, must)
			}
			for _, tag := range []string{"doc", "enum", "minimum", "maximum", "pattern", "maxLength"} {
				if g.Tag.Get(tag) != "" {
					t.Errorf("%s.%s says its %s at the type as well", o.Name, f.Name, tag)
				}
			}
		}
		for name := range got {
			if !seen[name] {
				t.Errorf("the table does not have %s.%s", o.Name, name)
			}
		}
	}
	if len(Shapes) != len(Objects()) {
		t.Errorf("%d shapes of %d objects", len(Shapes), len(Objects()))
	}
}

// Every field says what it means, what is a number or a text has its limits, and what it refers
// to is there.
func TestTheTableIsWhole(t *testing.T) {
	var check func(where string, f *Field)
	check = func(where string, f *Field) {
		free := len(f.IDs)+len(f.Choices) == 0 && f.Fixed == nil && f.Form == nil
		switch f.Kind {
		case Number, Whole:
			if f.Fixed == nil && f.Most <= f.Least {
				t.Errorf("%s is bounded by %v and %v", where, f.Least, f.Most)
			}
		case Text:
			if free && f.MaxLen == 0 {
				t.Errorf("%s has no longest length", where)
			}
		case List:
			if f.MaxLen == 0 {
				t.Errorf("%s has no most entries", where)
			}
			check(where+"[]", f.Of)
		case Ref:
			if ObjectNamed(f.Object) == nil {
				t.Errorf("%s refers to %q", where, f.Object)
			}
		}
		for _, list := range [][]string{f.IDs, f.Choices} {
			for i, id := range list {
				if id == "" || slices.Contains(list[:i], id) {
					t.Errorf("%s has the id %q twice, or an empty one", where, id)
				}
			}
		}
		if f.Limits() == "" {
			t.Errorf("%s has no limits in words", where)
		}
	}
	for _, o := range Objects() {
		if o.Says == "" {
			t.Errorf("%s does not say what it is", o.Name)
		}
		fields := slices.Clone(o.Fields)
		for _, v := range o.Variants {
			fields = append(fields, v.Fields...)
		}
		for i := range fields {
			if fields[i].Says == "" || fields[i].Name == "" {
				t.Errorf("%s.%s does not say what it means", o.Name, fields[i].Name)
			}
			check(o.Name+"."+fields[i].Name, &fields[i])
		}
	}
}

// Each limit of the table is one that the decoder keeps: just within it a piece is read, just
// beyond it is refused with the field's path.
func TestLimitsAreKept(t *testing.T) {
	zone := func(field, value string) (string, string) {
		return `{"format": "rutile/piece", "version": 1, "zones": [{"id": "a", "substrate": "oak", "` + field + `": ` + value + `}]}`, "$.zones[0]." + field
	}
	piece := func(field, value string) (string, string) {
		return `{"format": "rutile/piece", "version": 1, "` + field + `": ` + value + `}`, "$." + field
	}
	tried := 0
	for object, put := range map[string]func(field, value string) (string, string){"zone": zone, "piece": piece} {
		for _, f := range ObjectNamed(object).Fields {
			var in, beyond []string
			num := func(x float64) string { return plain(x) }
			switch {
			case f.Fixed != nil || f.Kind == Ref || f.Kind == Truth || f.Name == "id" || f.Name == "substrate":
				continue
			case f.Kind == Number || f.Kind == Whole:
				in, beyond = []string{num(f.Most)}, []string{num(f.Most + 1), num(f.Least - 1), `"x"`}
			case f.Kind == List:
				beyond = []string{"[" + strings.TrimSuffix(strings.Repeat("{},", f.MaxLen+1), ",") + "]"}
				in = []string{"[]"}
			case len(f.IDs) > 0:
				in, beyond = []string{`"` + f.IDs[len(f.IDs)-1] + `"`}, []string{`"nothing_like_it"`}
			case f.Form == FormColour:
				in, beyond = []string{`"#a0B1c2"`}, []string{`"red"`}
			case f.Form == FormID:
				in, beyond = []string{`"a-b_1"`}, []string{`"A b"`}
			default:
				in, beyond = []string{`"` + strings.Repeat("ä", f.MaxLen) + `"`}, []string{`"` + strings.Repeat("ä", f.MaxLen+1) + `"`, "7"}
			}
			for _, v := range in {
				doc, _ := put(f.Name, v)
				if _, err := Decode([]byte(doc)); err != nil {
					t.Errorf("%.80s: %v", doc, err)
				}
			}
			for _, v := range beyond {
				tried++
				doc, path := put(f.Name, v)
				if _, err := Decode([]byte(doc)); err == nil || !strings.HasPrefix(err.Error(), path) {
					t.Errorf("%.120s: %v", doc, err)
				}
			}
		}
	}
	if tried < 30 {
		t.Errorf("only %d were tried", tried)
	}
}
