package main

import (
	"cmp"
	"encoding/json"
	"fmt"
	"io"
	"os"
	"time"

	"github.com/spf13/cobra"

	"rutile/core/check"
	"rutile/core/craft"
	"rutile/core/drying"
	"rutile/core/measure"
	"rutile/internal/app"
	"rutile/internal/wire"
)

func checkCommand() *cobra.Command {
	var text bool
	cmd := &cobra.Command{
		Use:   "check FILE...",
		Short: "Check piece files; - reads standard input",
		Long: "Check piece files and write the result as JSON, one object a file.\n" +
			"Exit code 0: no zone fails. 1: a zone fails. 2: an input cannot be used.",
		Args: cobra.MinimumNArgs(1),
		RunE: func(cmd *cobra.Command, files []string) error {
			fails := false
			err := eachPiece(cmd, files, func(name string, p *wire.Piece) error {
				r, err := job(p).Check(cmd.Context(), app.Want{Repairs: true})
				if err != nil {
					return err
				}
				fails = fails || r.Verdict == check.Fails.String()
				if !text {
					return writeJSON(cmd.OutOrStdout(), r)
				}
				title := p.Name
				if title == "" {
					title = name
				}
				return checkText(cmd.OutOrStdout(), &r, title)
			})
			if err == nil && fails {
				return exit{exitFails}
			}
			return err
		},
	}
	cmd.Flags().BoolVar(&text, "text", false, "write readable text instead of JSON")
	return cmd
}

// unitsOf are the units that --units names.
func unitsOf(name string) (measure.Units, error) {
	u, ok := measure.UnitsNamed(name)
	if !ok {
		return u, fmt.Errorf("--units %s: units are metric or us", name)
	}
	return u, nil
}

func identifyCommand() *cobra.Command {
	var text bool
	var zone string
	cmd := &cobra.Command{
		Use:   "identify FILE...",
		Short: "Say what the zones of piece files probably are, and what to test next; - reads standard input",
		Long: "From the evidence in piece files, say what each zone and its finish probably are,\n" +
			"which results contradict each other, and which test to make next. Writes JSON, one object a file.\n" +
			"Exit code 0: done. 2: an input cannot be used.",
		Args: cobra.MinimumNArgs(1),
		RunE: func(cmd *cobra.Command, files []string) error {
			return eachPiece(cmd, files, func(name string, p *wire.Piece) error {
				r, err := job(p).IdentifyPiece(cmd.Context(), zone)
				if err != nil {
					return unusable(cmd, name, err)
				}
				if !text {
					return writeJSON(cmd.OutOrStdout(), r)
				}
				return identifyText(cmd.OutOrStdout(), &r, cmp.Or(p.Name, name))
			})
		},
	}
	cmd.Flags().BoolVar(&text, "text", false, "write readable text instead of JSON")
	cmd.Flags().StringVar(&zone, "zone", "", "id of the only zone to report")
	return cmd
}

func areasCommand() *cobra.Command {
	var asJSON bool
	var units string
	cmd := &cobra.Command{
		Use:   "areas FILE...",
		Short: "Print the areas of the parts of piece files; - reads standard input",
		Long: "Print the parts and the zones of piece files with their areas and running lengths.\n" +
			"Exit code 0: done. 2: an input cannot be used.",
		Args: cobra.MinimumNArgs(1),
		RunE: func(cmd *cobra.Command, files []string) error {
			u, err := unitsOf(units)
			if err != nil {
				return err
			}
			first := true
			return eachPiece(cmd, files, func(_ string, p *wire.Piece) error {
				l := app.NewEngine(craft.Default()).Job(p, app.Workshop{Air: drying.Usual, Units: u}).Overview(nil)
				if asJSON {
					return writeJSON(cmd.OutOrStdout(), l)
				}
				if !first {
					fmt.Fprintln(cmd.OutOrStdout())
				}
				first = false
				return areasText(cmd.OutOrStdout(), &l, p, u)
			})
		},
	}
	cmd.Flags().BoolVar(&asJSON, "json", false, "write JSON, one object a file")
	cmd.Flags().StringVar(&units, "units", measure.Metric.String(), "metric or us")
	return cmd
}

// job is a piece at work in a workshop with the usual air, today.
func job(p *wire.Piece) *app.Job {
	return app.NewEngine(craft.Default()).Job(p, app.Workshop{Air: drying.Usual, Today: time.Now().Format(time.DateOnly), Now: time.Now()})
}

// eachPiece reads files one after the other. Inputs that cannot be used are reported, the others
// are processed, and the exit code tells that something was not.
func eachPiece(cmd *cobra.Command, files []string, do func(name string, p *wire.Piece) error) error {
	code := exitFine
	for _, name := range files {
		p, err := readPiece(cmd.InOrStdin(), name)
		if err != nil {
			fmt.Fprintf(cmd.ErrOrStderr(), "%s: %s\n", name, err)
			code = exitUnusable
			continue
		}
		if err := do(name, p); err != nil {
			return err
		}
	}
	if code != exitFine {
		return exit{code}
	}
	return nil
}

func readPiece(stdin io.Reader, name string) (*wire.Piece, error) {
	if name == "-" {
		return wire.Read(stdin)
	}
	f, err := os.Open(name)
	if err != nil {
		return nil, &wire.Error{Says: "it cannot be opened: " + reason(err)}
	}
	defer f.Close()
	return wire.Read(f)
}

// reason is an error of the system without the path it repeats.
func reason(err error) string {
	if pe, ok := err.(*os.PathError); ok {
		return pe.Err.Error()
	}
	return err.Error()
}

func writeJSON(w io.Writer, v any) error {
	enc := json.NewEncoder(w)
	enc.SetEscapeHTML(false)
	enc.SetIndent("", "  ")
	return enc.Encode(v)
}

func vocabCommand() *cobra.Command {
	return &cobra.Command{
		Use:   "vocab",
		Short: "Print every id with its meaning, as JSON",
		Args:  cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error {
			return writeJSON(cmd.OutOrStdout(), app.NewEngine(craft.Default()).Vocab())
		},
	}
}

func rulesCommand() *cobra.Command {
	var asJSON bool
	cmd := &cobra.Command{
		Use:   "rules",
		Short: "Print the rule book, as Markdown",
		Args:  cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error {
			if asJSON {
				return writeJSON(cmd.OutOrStdout(), app.RuleWords(check.Standard().Rules))
			}
			return rulesText(cmd.OutOrStdout())
		},
	}
	cmd.Flags().BoolVar(&asJSON, "json", false, "write it as JSON")
	return cmd
}

func schemaCommand() *cobra.Command {
	return &cobra.Command{
		Use:   "schema",
		Short: "Print the JSON Schema of the piece file",
		Args:  cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error {
			_, err := cmd.OutOrStdout().Write(wire.Schema())
			return err
		},
	}
}
