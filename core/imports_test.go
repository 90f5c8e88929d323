package core

import (
	"go/parser"
	"go/token"
	"io/fs"
	"path/filepath"
	"strconv"
	"strings"
	"testing"
)

// The core is the craft: no I/O, no clock, no database, no HTTP, and nothing of
// the program around it. It may use the standard library, gonum, go-colorful
// and itself, and of the standard library nothing that reaches outside.
func TestCoreImportsNothingOfTheWorld(t *testing.T) {
	outside := []string{"os", "net", "net/http", "database/sql", "io/fs", "syscall", "os/exec", "log", "log/slog", "time", "math/rand", "encoding/json", "plugin", "unsafe"}
	files := 0
	err := filepath.WalkDir(".", func(path string, d fs.DirEntry, err error) error {
		if err != nil || d.IsDir() || !strings.HasSuffix(path, ".go") {
			return err
		}
		f, err := parser.ParseFile(token.NewFileSet(), path, nil, parser.ImportsOnly)
		if err != nil {
			return err
		}
		files++
		for _, imp := range f.Imports {
			name, err := strconv.Unquote(imp.Path.Value)
			if err != nil {
				return err
			}
			if bad := forbidden(name, outside, strings.HasSuffix(path, "_test.go")); bad != "" {
				t.Errorf("%s imports %s: %s", path, name, bad)
			}
		}
		return nil
	})
	if err != nil {
		t.Fatal(err)
	}
	if files < 20 {
		t.Fatalf("only %d files were looked at", files)
	}
}

func forbidden(name string, outside []string, test bool) string {
	first, _, _ := strings.Cut(name, "/")
	switch {
	case strings.HasPrefix(name, "rutile/core/"), strings.HasPrefix(name, "gonum.org/v1/gonum/"), name == "github.com/lucasb-eyer/go-colorful":
		return ""
	case first == "rutile":
		return "dependencies point inward"
	case strings.Contains(first, "."):
		return "the core uses no such package"
	}
	if test {
		return ""
	}
	for _, o := range outside {
		if name == o {
			return "the core does not reach outside"
		}
	}
	return ""
}

func TestForbidden(t *testing.T) {
	for name, bad := range map[string]bool{
		"math": false, "slices": false, "rutile/core/craft": false, "gonum.org/v1/gonum/stat": false,
		"github.com/lucasb-eyer/go-colorful": false, "rutile/internal/store": true, "gorm.io/gorm": true,
		"github.com/go-chi/chi/v5": true, "os": true, "net/http": true, "time": true,
	} {
		if got := forbidden(name, []string{"os", "net/http", "time"}, false) != ""; got != bad {
			t.Errorf("%s forbidden: %v", name, got)
		}
	}
}
