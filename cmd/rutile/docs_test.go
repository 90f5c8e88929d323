package main

import (
	"bytes"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"rutile/core/check"
)

// What is made stands in the docs as it is made now.
func TestDocsAreCurrent(t *testing.T) {
	const dir = "../../docs"
	files, err := docsFiles(dir)
	if err != nil || len(files) != 3 {
		t.Fatal(len(files), err)
	}
	for name, want := range files {
		if got, err := os.ReadFile(filepath.Join(dir, name)); err != nil || !bytes.Equal(got, want) {
			t.Errorf("docs/%s is not what the program says: run make docs (%v)", name, err)
		}
	}
	for _, r := range check.Standard().Rules {
		if !strings.Contains(string(files["rules.md"]), "### `"+r.Code+"` "+r.Title) || r.Group() == "" {
			t.Errorf("%s is not in the rule book, or in no group", r.Code)
		}
	}
	for _, want := range []string{"| `substrate` | an id of `rutile vocab` | what it is made of | not allowed |", "`dust`: no further fields.", "| `level` | 0 to 3 |"} {
		if !strings.Contains(string(files["format.md"]), want) {
			t.Errorf("the tables of fields lack %q", want)
		}
	}
}

// A folder without a place for the tables is told, and left as it is.
func TestDocsThatHaveNoPlace(t *testing.T) {
	dir := t.TempDir()
	name := filepath.Join(dir, "format.md")
	if err := os.WriteFile(name, []byte("# Format\n"), 0o600); err != nil {
		t.Fatal(err)
	}
	if _, errs, code := rutile("", "docs", dir); code != exitUnusable || !strings.Contains(errs, "no place for the tables") {
		t.Errorf("%d %s", code, errs)
	}
	if got, err := os.ReadFile(name); err != nil || string(got) != "# Format\n" {
		t.Errorf("%q, %v", got, err)
	}
}
