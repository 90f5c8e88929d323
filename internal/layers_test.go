// Package internal holds nothing but the program's own packages; this test holds them to the picture
// of docs/architecture.md.
package internal

import (
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
)

// packageName is what a package is called in the picture.
var packageName = regexp.MustCompile(`\b(cmd|internal|core)/[a-z]+\b|\bweb\b`)

// layers are the packages of the picture, each with the line it is on, counted from the top.
func layers(t *testing.T) map[string]int {
	t.Helper()
	doc, err := os.ReadFile("../docs/architecture.md")
	if err != nil {
		t.Fatal(err)
	}
	_, rest, ok := strings.Cut(string(doc), "```\n")
	picture, _, ok2 := strings.Cut(rest, "```")
	if !ok || !ok2 {
		t.Fatal("docs/architecture.md has no picture")
	}
	out := map[string]int{}
	for n, line := range strings.Split(picture, "\n") {
		for _, name := range packageName.FindAllString(line, -1) {
			if _, twice := out[name]; twice {
				t.Errorf("%s is in the picture twice", name)
			}
			out[name] = n
		}
	}
	return out
}

// imported are the packages of this program that each of them imports, tests left out.
func imported(t *testing.T) map[string][]string {
	t.Helper()
	out := map[string][]string{}
	for _, top := range []string{"cmd", "core", "internal", "web"} {
		err := filepath.WalkDir(filepath.Join("..", top), func(path string, d fs.DirEntry, err error) error {
			if err == nil && d.IsDir() && d.Name() == "node_modules" {
				return fs.SkipDir
			}
			if err != nil || d.IsDir() || !strings.HasSuffix(path, ".go") || strings.HasSuffix(path, "_test.go") {
				return err
			}
			f, err := parser.ParseFile(token.NewFileSet(), path, nil, parser.ImportsOnly)
			if err != nil {
				return err
			}
			from := strings.TrimPrefix(filepath.ToSlash(filepath.Dir(path)), "../")
			if from == "core" { // it says what the core is, and nothing else
				return nil
			}
			if out[from] == nil {
				out[from] = []string{}
			}
			for _, imp := range f.Imports {
				name, err := strconv.Unquote(imp.Path.Value)
				if err != nil {
					return err
				}
				if to, ours := strings.CutPrefix(name, "rutile/"); ours && !slices.Contains(out[from], to) {
					out[from] = append(out[from], to)
				}
			}
			return nil
		})
		if err != nil {
			t.Fatal(err)
		}
	}
	return out
}

// Every package is in the picture, and every import goes down: to a package on a lower line.
func TestImportsGoDownThePicture(t *testing.T) {
	lines := layers(t)
	packages := imported(t)
	imports := 0
	for from, all := range packages {
		at, ok := lines[from]
		if !ok {
			t.Errorf("%s is not in the picture of docs/architecture.md", from)
			continue
		}
		for _, to := range all {
			imports++
			if below, ok := lines[to]; ok && below <= at {
				t.Errorf("%s imports %s, which is not below it in the picture", from, to)
			}
		}
	}
	for name := range lines {
		if _, ok := packages[name]; !ok {
			t.Errorf("the picture has %s, which is no package", name)
		}
	}
	if len(packages) < 20 || imports < 60 {
		t.Errorf("only %d packages with %d imports were looked at", len(packages), imports)
	}
}

// What answers the page knows of the use cases and of the wire, and of nothing else; what holds the
// shapes knows nothing of the packages around it.
func TestThinLayers(t *testing.T) {
	packages := imported(t)
	for from, may := range map[string][]string{
		"internal/server": {"internal/app", "internal/wire"},
		"internal/store":  {"internal/wire", "internal/instruments"},
	} {
		for _, to := range packages[from] {
			if !slices.Contains(may, to) {
				t.Errorf("%s imports %s; it may import %v", from, to, may)
			}
		}
	}
	for _, to := range packages["internal/wire"] {
		if strings.HasPrefix(to, "internal/") || to == "core/check" {
			t.Errorf("internal/wire imports %s", to)
		}
	}
}
