package main

import (
	"bytes"
	"errors"
	"fmt"
	"os"
	"path/filepath"

	"github.com/spf13/cobra"

	"rutile/internal/wire"
)

// The tables of fields are in docs/format.md between these lines.
const (
	tablesFrom = "<!-- fields: written by make docs -->\n"
	tablesTo   = "<!-- /fields -->\n"
)

// docsCommand writes what the docs say of the tables and the rules.
func docsCommand() *cobra.Command {
	return &cobra.Command{
		Use:    "docs DIR",
		Short:  "Write the schema, the rule book and the tables of fields into the docs",
		Hidden: true,
		Args:   cobra.ExactArgs(1),
		RunE: func(_ *cobra.Command, args []string) error {
			files, err := docsFiles(args[0])
			if err != nil {
				return err
			}
			for name, data := range files {
				if err := os.WriteFile(filepath.Join(args[0], name), data, 0o644); err != nil {
					return err
				}
			}
			return nil
		},
	}
}

// docsFiles are the docs that are made, by their names in a folder.
func docsFiles(dir string) (map[string][]byte, error) {
	var rules bytes.Buffer
	if err := rulesText(&rules); err != nil {
		return nil, err
	}
	format, err := os.ReadFile(filepath.Join(dir, "format.md"))
	if err != nil {
		return nil, err
	}
	before, rest, ok := bytes.Cut(format, []byte(tablesFrom))
	_, after, ok2 := bytes.Cut(rest, []byte(tablesTo))
	if !ok || !ok2 {
		return nil, errors.New("format.md has no place for the tables of fields")
	}
	format = fmt.Appendf(nil, "%s%s\n%s\n%s%s", before, tablesFrom, wire.Tables(), tablesTo, after)
	return map[string][]byte{"piece.schema.json": wire.Schema(), "rules.md": rules.Bytes(), "format.md": format}, nil
}
