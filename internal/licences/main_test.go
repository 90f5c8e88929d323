package main

import (
	"os"
	"path/filepath"
	"strings"
	"testing"
)

// What ships has its licence: the program's own, Go's, those of a module, of a library that a module
// brings along, of a package of the page and of its styles.
func TestLicencesOfEverything(t *testing.T) {
	var b strings.Builder
	if err := write(&b, "../.."); err != nil {
		t.Fatal(err)
	}
	all := b.String()
	for _, name := range []string{"\nRutile\n=", "\nGo go1", "\nmodernc.org/sqlite ", "\nreact ", "\n@fontsource-variable/besley ", "\ndaisyui ", "GNU LESSER GENERAL PUBLIC LICENSE", "SIL OPEN FONT LICENSE"} {
		if !strings.Contains(all, name) {
			t.Errorf("there is no %q", name)
		}
	}
	// What only tests and the build need does not ship.
	for _, name := range []string{"\ngithub.com/chromedp/chromedp ", "\nvite ", "\ntypescript "} {
		if strings.Contains(all, name) {
			t.Errorf("there is %q", name)
		}
	}
}

func TestNothingShipsWithoutALicence(t *testing.T) {
	dir := t.TempDir()
	if err := os.WriteFile(filepath.Join(dir, "README"), []byte("no licence"), 0o600); err != nil {
		t.Fatal(err)
	}
	if texts, err := licences(dir); err != nil || len(texts) != 0 {
		t.Errorf("%q, %v", texts, err)
	}
	if err := write(&strings.Builder{}, dir); err == nil {
		t.Error("a folder without a program has licences")
	}
}
