// Command licences writes the licence texts of everything that ships with Rutile: its own, those of the
// Go modules in the program and of Go itself, and those of the packages in the page. It is run when the
// program is built.
package main

import (
	"bytes"
	"encoding/json"
	"fmt"
	"io"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"strings"
)

// shipped are packages that are no dependencies of the page at run time, but whose styles are built into
// it.
var shipped = []string{"tailwindcss", "daisyui"}

func main() {
	if err := write(os.Stdout, "."); err != nil {
		fmt.Fprintln(os.Stderr, "licences: "+err.Error())
		os.Exit(1)
	}
}

// work is something that ships, with the folder that its licence is in.
type work struct{ name, version, dir string }

// write writes the licences of what ships with the program in a folder. Something that ships without a
// licence is an error.
func write(w io.Writer, root string) error {
	all := []work{{"Rutile", "", root}}
	of, err := modules(root)
	if err != nil {
		return err
	}
	all = append(all, of...)
	if of, err = packages(root); err != nil {
		return err
	}
	all = append(all, of...)
	var b bytes.Buffer
	fmt.Fprintf(&b, "Licences of Rutile and of everything that ships with it\n")
	for _, x := range all {
		texts, err := licences(x.dir)
		if err != nil {
			return err
		}
		if len(texts) == 0 {
			return fmt.Errorf("%s ships without a licence in %s", x.name, x.dir)
		}
		fmt.Fprintf(&b, "\n\n%s\n%s\n", strings.TrimSpace(x.name+" "+x.version), strings.Repeat("=", 72))
		for _, text := range texts {
			fmt.Fprintf(&b, "\n%s\n", strings.TrimSpace(text))
		}
	}
	_, err = w.Write(b.Bytes())
	return err
}

// modules are Go and the modules that the program is made of.
func modules(root string) ([]work, error) {
	cmd := exec.Command("go", "list", "-deps", "-f", "{{with .Module}}{{if not .Main}}{{.Path}} {{.Version}} {{.Dir}}{{end}}{{end}}", "./cmd/rutile")
	cmd.Dir, cmd.Stderr = root, os.Stderr
	out, err := cmd.Output()
	if err != nil {
		return nil, fmt.Errorf("list the modules: %w", err)
	}
	env := exec.Command("go", "env", "GOROOT", "GOVERSION")
	env.Dir = root
	goroot, err := env.Output()
	if err != nil {
		return nil, fmt.Errorf("find Go: %w", err)
	}
	dir, version, _ := strings.Cut(strings.TrimSpace(string(goroot)), "\n")
	all := []work{{"Go", version, dir}}
	lines := strings.Fields(string(out))
	for f := range slices.Chunk(lines, 3) {
		if x := (work{f[0], f[1], f[2]}); !slices.Contains(all, x) {
			all = append(all, x)
		}
	}
	slices.SortStableFunc(all[1:], func(a, b work) int { return strings.Compare(a.name, b.name) })
	return all, nil
}

const inModules = "node_modules/"

// packages are those of the page.
func packages(root string) ([]work, error) {
	web := filepath.Join(root, "web")
	data, err := os.ReadFile(filepath.Join(web, "package-lock.json"))
	if err != nil {
		return nil, err
	}
	var lock struct {
		Packages map[string]struct {
			Version       string
			Dev, Optional bool
		}
	}
	if err := json.Unmarshal(data, &lock); err != nil {
		return nil, fmt.Errorf("package-lock.json: %w", err)
	}
	var all []work
	for path, p := range lock.Packages {
		name := path
		if i := strings.LastIndex(path, inModules); i >= 0 {
			name = path[i+len(inModules):]
		}
		if path == "" || p.Dev && !slices.Contains(shipped, name) || p.Optional {
			continue
		}
		all = append(all, work{name, p.Version, filepath.Join(web, filepath.FromSlash(path))})
	}
	slices.SortFunc(all, func(a, b work) int { return strings.Compare(a.name+a.version, b.name+b.version) })
	return all, nil
}

// licences are the texts of licences in a folder, and in the folder lib of one that brings a library
// along.
func licences(dir string) ([]string, error) {
	var out []string
	for _, in := range []string{dir, filepath.Join(dir, "lib")} {
		files, err := os.ReadDir(in)
		if err != nil && in == dir {
			return nil, err
		}
		for _, f := range files {
			name := strings.ToUpper(f.Name())
			if f.IsDir() || !slices.ContainsFunc([]string{"LICENSE", "LICENCE", "COPYING", "NOTICE", "UNLICENSE"}, func(s string) bool { return strings.HasPrefix(name, s) }) {
				continue
			}
			data, err := os.ReadFile(filepath.Join(in, f.Name()))
			if err != nil {
				return nil, err
			}
			out = append(out, string(data))
		}
	}
	return out, nil
}
