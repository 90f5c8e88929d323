package wire

import (
	"bytes"
	"encoding/json"
	"fmt"
	"maps"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"sync"
	"testing"

	"github.com/santhosh-tekuri/jsonschema/v6"
)

// published is the schema as others read it.
var published = sync.OnceValue(func() *jsonschema.Schema {
	doc, err := jsonschema.UnmarshalJSON(bytes.NewReader(Schema()))
	if err != nil {
		panic(err)
	}
	cp := jsonschema.NewCompiler()
	if err := cp.AddResource(SchemaID, doc); err != nil {
		panic(err)
	}
	return cp.MustCompile(SchemaID)
})

// agree holds what the decoder says of a document to what the published schema says of it.
func agree(t *testing.T, doc any) (ok bool) {
	t.Helper()
	data, err := json.Marshal(doc)
	if err != nil {
		t.Fatal(err)
	}
	mine, theirs := (&scanned{data: data}).fill(PieceObject, &Piece{}), published().Validate(doc)
	if (mine == nil) != (theirs == nil) {
		t.Errorf("%.400s\nthe decoder says %v\nthe schema says %v", data, mine, theirs)
	}
	return theirs == nil
}

func parsed(t testing.TB, data []byte) any {
	t.Helper()
	doc, err := jsonschema.UnmarshalJSON(bytes.NewReader(data))
	if err != nil {
		t.Fatal(err)
	}
	return doc
}

// everything is a piece in which every field of the table has something allowed.
func everything(t testing.TB) []byte {
	t.Helper()
	whole := map[string]bool{}
	var value func(f *Field) any
	object := func(fields []Field) map[string]any {
		m := map[string]any{}
		for i := range fields {
			m[fields[i].Name] = value(&fields[i])
		}
		return m
	}
	value = func(f *Field) any {
		switch {
		case f.Fixed != nil:
			return f.Fixed
		case f.Kind == Number || f.Kind == Whole:
			return f.Most
		case f.Kind == Truth:
			return true
		case f.Kind == List:
			out := []any{}
			if f.Of.Kind == Ref && ObjectNamed(f.Of.Object).By != "" {
				o := ObjectNamed(f.Of.Object)
				variants := o.Variants
				if whole[o.Name] { // all of them stand elsewhere already
					variants = variants[:1]
				}
				whole[o.Name] = true
				for _, v := range variants {
					m := object(v.Fields)
					m[o.By] = v.ID
					out = append(out, m)
				}
				return out
			}
			return append(out, value(f.Of))
		case f.Kind == Ref:
			o := ObjectNamed(f.Object)
			if o.By == "" {
				return object(o.Fields)
			}
			m := object(o.Variants[0].Fields)
			m[o.By] = o.Variants[0].ID
			return m
		case len(f.ids()) > 0:
			return f.ids()[0]
		}
		for form, s := range map[*Form]string{FormID: "a", FormColour: "#a0b1c2", FormDay: "2026-11-24", FormMoment: "2026-11-24T10:15", FormInstant: "2026-11-24T10:15:00Z", FormPhoto: "a.jpg"} {
			if f.Form == form {
				return s
			}
		}
		return strings.Repeat("ä", f.MaxLen)
	}
	data, err := json.Marshal(object(ObjectNamed(PieceObject).Fields))
	if err != nil {
		t.Fatal(err)
	}
	return data
}

// What the decoder refuses the published schema refuses, and nothing else: of documents in which
// every field stands, and of those with one field made other, taken away or added.
func TestTheDecoderSaysWhatTheSchemaSays(t *testing.T) {
	files, err := filepath.Glob("../../examples/*.json")
	if err != nil || len(files) == 0 {
		t.Fatalf("no examples: %v", err)
	}
	docs := [][]byte{everything(t)}
	for _, name := range files {
		data, err := os.ReadFile(name)
		if err != nil {
			t.Fatal(err)
		}
		docs = append(docs, data)
	}
	others := []any{nil, "x", "", json.Number("-1"), json.Number("0"), json.Number("3.5"), json.Number("1000000001"), json.Number("1e999"), true, []any{}, map[string]any{}, "2026-02-30", "#000000", strings.Repeat("n", 3000)}
	refused, allowed := 0, 0
	for _, data := range docs {
		doc := parsed(t, data)
		if !agree(t, doc) {
			t.Fatalf("%.300s is refused", data)
		}
		tried := func() {
			if agree(t, doc) {
				allowed++
			} else {
				refused++
			}
		}
		seen := map[string]bool{} // the shapes that were tried: one of each is enough
		var visit func(x any)
		visit = func(x any) {
			switch x := x.(type) {
			case map[string]any:
				shape := fmt.Sprint(slices.Sorted(maps.Keys(x)), x["do"])
				if seen[shape] {
					return
				}
				seen[shape] = true
				for k, was := range x {
					for _, o := range others {
						x[k] = o
						tried()
					}
					delete(x, k)
					tried()
					x[k] = was
				}
				x["foreign"] = true
				tried()
				delete(x, "foreign")
				if top, ok := doc.(map[string]any); ok && top["format"] != nil && x["format"] != nil {
					for k, y := range top { // what stands beside it makes no difference
						doc = map[string]any{"format": top["format"], "version": top["version"], k: y}
						visit(y)
					}
					return
				}
				for _, y := range x {
					visit(y)
				}
			case []any:
				for i, was := range x {
					for _, o := range others {
						x[i] = o
						tried()
					}
					x[i] = was
				}
				for _, y := range x {
					visit(y)
				}
			}
		}
		visit(doc)
	}
	if refused < 2000 || allowed < 200 {
		t.Errorf("%d refused, %d allowed: too few to tell", refused, allowed)
	}
}

// FuzzValid looks for a document of which the decoder and the schema say different things.
func FuzzValid(f *testing.F) {
	f.Add(everything(f))
	f.Add([]byte(`{"format": "rutile/piece", "version": 1, "zones": [{"id": "a", "substrate": "oak", "steps": [{"do": "wait", "hours": 1}]}]}`))
	f.Fuzz(func(t *testing.T, data []byte) {
		if _, err := scan(data, "a piece file"); err != nil {
			return // the schema does not know the limits of scanning
		}
		doc, err := jsonschema.UnmarshalJSON(bytes.NewReader(data))
		if err != nil || unlike(doc) {
			return
		}
		agree(t, doc)
	})
}

// unlike tells whether a document has a number that the two read differently, and meant so: 1.0 is
// whole to the schema, and the decoder wants it written as 1; and the schema reads
// exponents that the decoder takes for infinite.
func unlike(doc any) bool {
	switch x := doc.(type) {
	case json.Number:
		return strings.ContainsAny(string(x), ".eE")
	case map[string]any:
		for _, y := range x {
			if unlike(y) {
				return true
			}
		}
	case []any:
		for _, y := range x {
			if unlike(y) {
				return true
			}
		}
	}
	return false
}
