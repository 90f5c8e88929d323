package internal

import (
	"encoding/json"
	"go/ast"
	"go/parser"
	"go/token"
	"io/fs"
	"os"
	"path/filepath"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"testing"

	"rutile/core/craft"
	"rutile/core/plan"
	"rutile/internal/app"
	"rutile/internal/demo"
	"rutile/internal/wire"
)

// retired are words and phrases that nobody in the trade says, or that used to have another meaning
// here. What stands in their place is in docs/glossary.md.
var retired = regexp.MustCompile(`(?i)` + strings.Join([]string{
	`held up:`, `no business on`, `is to become`, `usually has\b`, `made by the way`, `painted are\b`, `pressed twice`, `still to come\b`,
	`did not take it`, `nobody sleeps`, `is laid out`, `silent in the`, `\bspeaks?\b`, `\blets? go\b`, `\bthirsty\b`, `\bdrinks?\b`,
	`\bmend(s|ed|ing|er)?\b`, `\bheeded\b`, `parted by`, `of a full (bond|one)\b`, `look(s|ed|ing)? over\b`, `\bas a rule\b`, `knock(ed)? back`,
	`nobody (has looked|has tested|knows)`, `on the bench\b`, `\b(the|a|evening|day) bench\b`, `trips? to the bench`, `lays? open`,
	`take it out again`, `\briddle`, `the wear asks`, `open the way`, `in the way\b`,
	`\brests on\b`, `looked at closely`, `\bgives way\b`, `dead heavy`, `\bhands leave\b`, `\bfalls silent\b`, `stands in the list`,
}, "|"))

// worded are the files of a kind below some folders.
func worded(t *testing.T, end string, roots ...string) []string {
	t.Helper()
	var out []string
	for _, root := range roots {
		err := filepath.WalkDir(filepath.Join("..", root), func(path string, d fs.DirEntry, err error) error {
			switch {
			case err != nil:
				return err
			case d.IsDir() && (d.Name() == "node_modules" || d.Name() == "dist" || d.Name() == "testdata"):
				return fs.SkipDir
			case strings.HasSuffix(path, end) && !strings.HasSuffix(path, "_test.go") && !strings.Contains(path, ".gen."):
				out = append(out, path)
			}
			return nil
		})
		if err != nil {
			t.Fatal(err)
		}
	}
	if len(out) == 0 {
		t.Fatalf("no %s files in %v", end, roots)
	}
	return out
}

func read(t *testing.T, path string) string {
	t.Helper()
	data, err := os.ReadFile(path)
	if err != nil {
		t.Fatal(err)
	}
	return string(data)
}

// The retired words are gone from what the program says in Go: rules, tables, messages, the terminal.
func TestMessagesHaveNoRetiredWords(t *testing.T) {
	n := 0
	for _, path := range worded(t, ".go", "core", "internal", "cmd") {
		f, err := parser.ParseFile(token.NewFileSet(), path, nil, 0)
		if err != nil {
			t.Fatal(err)
		}
		ast.Inspect(f, func(x ast.Node) bool {
			switch v := x.(type) {
			case *ast.ImportSpec:
				return false
			case *ast.Field:
				return v.Tag == nil // a tag has keys beside its words
			case *ast.BasicLit:
				s, err := strconv.Unquote(v.Value)
				if v.Kind != token.STRING || err != nil || !strings.Contains(s, " ") {
					return true
				}
				n++
				if w := retired.FindString(s); w != "" {
					t.Errorf("%s: %q in %q", path, w, s)
				}
			}
			return true
		})
	}
	if n < 2000 {
		t.Errorf("only %d strings were read", n)
	}
}

// What the page's source has beside text and strings: comments, and the names of fields.
var notText = regexp.MustCompile(`(?s)/\*.*?\*/|(?m)(^|\s)//.*$|[.?]\w+|\b\w+:|data-[a-z-]+`)

// They are gone from the page: from the text and the strings of its components.
func TestThePageHasNoRetiredWords(t *testing.T) {
	for _, path := range append(worded(t, ".tsx", "web/src"), worded(t, ".ts", "web/src")...) {
		for i, line := range strings.Split(notText.ReplaceAllString(read(t, path), ""), "\n") {
			if w := retired.FindString(line); w != "" {
				t.Errorf("%s: line %d: %q in %s", path, i+1, w, strings.TrimSpace(line))
			}
		}
	}
}

var code = regexp.MustCompile("(?s)```.*?```|`[^`\n]*`")

// And they are gone from the documents.
func TestDocumentsHaveNoRetiredWords(t *testing.T) {
	for _, path := range append(worded(t, ".md", "docs"), "../README.md", "../CONTRIBUTING.md") {
		text := code.ReplaceAllString(read(t, path), "")
		for _, m := range retired.FindAllStringIndex(text, -1) {
			t.Errorf("%s: %q in %q", path, text[m[0]:m[1]], text[max(0, m[0]-40):min(len(text), m[1]+40)])
		}
	}
}

// rawID is what an id looks like in a text: words joined by underscores, or a rule's code.
var rawID = regexp.MustCompile(`\b[a-z]+_[a-z_0-9]+\b|\b(walk|adhesion|bleed|prep|effect|film|use|site|mix|safety)\.[a-z_]+\b|#[0-9a-f]{6}\b`)

// ids are the fields of answers that hold ids, drawings or colours for the page; all others hold what a
// person reads.
var ids = []string{"id", "code", "also", "field", "way", "take", "do", "with", "product", "coat", "on", "over", "family", "layer", "effect", "gloss", "sheen",
	"test", "outcome", "rare", "barred", "colour", "sealed", "stain_colour", "kind", "not_on", "for", "not_for", "stops", "can", "recipe"}

// texts collects the texts of an answer that a person reads, in whatever depth.
func texts(v any, under string, out map[string][]string) {
	switch x := v.(type) {
	case map[string]any:
		for k, y := range x {
			if !slices.Contains(ids, k) {
				texts(y, k, out)
			}
		}
	case []any:
		for _, y := range x {
			texts(y, under, out)
		}
	case string:
		out[under] = append(out[under], x)
	}
}

// No raw id reaches a person on any demo piece: in its check with repairs and cross-sections, its plans
// by every way of working, what would change them, what it probably is, and its place in the list.
func TestNoRawIDsOnTheDemoPieces(t *testing.T) {
	ctx := t.Context()
	pieces, err := demo.Pieces()
	if err != nil {
		t.Fatal(err)
	}
	c := craft.Default()
	e := app.NewEngine(c)
	n := 0
	look := func(of string, v any, err error) {
		t.Helper()
		if err != nil {
			t.Fatal(err)
		}
		data, err := json.Marshal(v)
		if err != nil {
			t.Fatal(err)
		}
		var parsed any
		if err := json.Unmarshal(data, &parsed); err != nil {
			t.Fatal(err)
		}
		all := map[string][]string{}
		texts(parsed, "", all)
		for field, values := range all {
			n += len(values)
			for _, s := range values {
				if id := rawID.FindString(s); id != "" && !strings.Contains(s, "http") {
					t.Errorf("%s: the id %q in %q of %q", of, id, s, field)
				}
			}
		}
	}
	for k, p := range pieces {
		ways := plan.Ways
		if testing.Short() { // some of them for each piece, all of them over the pieces
			ways = nil
			for n := range 4 {
				ways = append(ways, plan.Ways[(4*k+n)%len(plan.Ways)])
			}
		}
		j := e.Job(p, app.Workshop{Air: demo.Site, Today: "2026-11-28"})
		r, err := j.Check(ctx, app.Want{Repairs: true, Section: true})
		look(p.Name, r, err)
		look(p.Name+", cards", j.Cards(), nil)
		id, err := j.IdentifyPiece(ctx, "")
		look(p.Name+", identified", id, err)
		for i := range j.Zones {
			if i > 0 && testing.Short() {
				break
			}
			for at := range len(j.Zones[i].Steps) + 1 {
				next, err := j.Next(ctx, i, at)
				look(p.Name+", next", suggested(next), err)
			}
			plans, err := j.PlanZone(ctx, i, ways, app.PlanOptions{})
			look(p.Name+", planned", plans, err)
		}
	}
	if n < 5000 {
		t.Errorf("only %d texts were read", n)
	}
}

// suggested are the texts of suggestions; their steps are ids for the page.
func suggested(all []wire.NextStep) []map[string]string {
	var out []map[string]string
	for _, s := range all {
		out = append(out, map[string]string{"name": s.Name, "note": s.Note, "why": s.Why, "brings": s.Brings})
	}
	return out
}
