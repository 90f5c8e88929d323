package main

import (
	"context"
	"fmt"
	"io"
	"strings"
	"time"

	"github.com/spf13/cobra"

	"rutile/core/craft"
	"rutile/core/plan"
	"rutile/internal/app"
	"rutile/internal/wire"
)

func planCommand() *cobra.Command {
	var way, weights, kits, without string
	var all, text, explain bool
	budgets := app.UsualBudgets
	cmd := &cobra.Command{
		Use:   "plan FILE",
		Short: "Write the steps of zones that have none; - reads standard input",
		Long: "Find the best plan for every zone of a piece file that has no steps, and write the piece with them.\n" +
			"Zones that should look the same get the same paint and sheen. With --all, write every way of working\n" +
			"with its figures instead.\n" +
			"Exit code 0: all zones are planned. 1: a zone cannot be planned. 2: an input cannot be used.",
		Args: cobra.ExactArgs(1),
		RunE: func(cmd *cobra.Command, files []string) error {
			w, ok := plan.WayNamed(way, nil)
			if !ok {
				return fmt.Errorf("--way %s: ways of working are %s", way, wayNames())
			}
			var o app.PlanOptions
			var err error
			if o.Weights, err = app.ParseWeights(weights); err != nil {
				return fmt.Errorf("--weights: %w", err)
			}
			kit, ok := kitNamed(kits)
			if !ok {
				return fmt.Errorf("--kit %s: kits are %s, separated by commas, or all for everything there is", kits, kitNames())
			}
			off, err := habitsNamed(without)
			if err != nil {
				return fmt.Errorf("--without: %w", err)
			}
			stuck := false
			err = eachPiece(cmd, files, func(name string, p *wire.Piece) error {
				o.Done, o.Stop = told(cmd.ErrOrStderr(), name), cmd.Context().Done()
				j := job(p)
				j.Shop.Kit, j.Shop.HabitsOff = kit, off
				j.Budgets = budgets
				// Whoever stops it gets what there is so far.
				ctx := context.WithoutCancel(cmd.Context())
				var err error
				if all {
					stuck, err = everyWay(ctx, cmd, j, o, text)
				} else {
					stuck, err = planPiece(ctx, cmd, name, j, w, o, text)
				}
				if err == nil && explain {
					err = explained(ctx, cmd, j, w, o)
				}
				return unusable(cmd, name, err)
			})
			if err == nil && stuck {
				return exit{exitFails}
			}
			return err
		},
	}
	cmd.Flags().StringVar(&way, "way", plan.Ways[0].ID, "way of working: "+wayNames())
	cmd.Flags().StringVar(&kits, "kit", plan.Kits[0].ID, "kits that the plan uses, separated by commas: "+kitNames()+", or all for everything there is")
	cmd.Flags().StringVar(&without, "without", "", "habits that the plan leaves out, separated by commas: "+habitNames())
	cmd.Flags().StringVar(&weights, "weights", "", "how much each thing counts, as a multiple of what is usual: peel=2,cost=0.5")
	cmd.Flags().BoolVar(&all, "all", false, "write every way of working with its figures")
	cmd.Flags().BoolVar(&text, "text", false, "write readable text instead of JSON")
	cmd.Flags().DurationVar(&budgets.Zone, "zone-time", budgets.Zone, "most time to search for the plan of one zone")
	cmd.Flags().DurationVar(&budgets.Piece, "piece-time", budgets.Piece, "most time to search for the plans of one piece")
	cmd.Flags().BoolVar(&explain, "explain", false, "report on standard error what was searched, and why the second-best plan lost")
	return cmd
}

// kitNamed is everything in some kits, or in a kit of everything.
func kitNamed(ids string) (*plan.Kit, bool) {
	if ids != "all" {
		return app.KitOf(strings.Split(ids, ","), nil)
	}
	all := plan.Kit{ID: "all", Name: "Everything"}
	for i := range craft.Default().Products {
		all.Products = append(all.Products, craft.Default().Products[i].ID)
	}
	for _, t := range plan.Tools {
		all.Tools = append(all.Tools, t.ID)
	}
	return &all, true
}

func habitsNamed(ids string) (plan.HabitSet, error) {
	var out plan.HabitSet
	for id := range strings.FieldsFuncSeq(ids, func(r rune) bool { return r == ',' }) {
		h, ok := plan.HabitNamed(id)
		if !ok {
			return 0, fmt.Errorf("there is no habit %q; habits are %s", id, habitNames())
		}
		out = out.Add(h)
	}
	return out, nil
}

func habitNames() string {
	ids := make([]string, len(plan.Habits))
	for i := range ids {
		ids[i] = plan.Habits[i].ID
	}
	return strings.Join(ids, ", ")
}

func kitNames() string {
	ids := make([]string, len(plan.Kits))
	for i := range ids {
		ids[i] = plan.Kits[i].ID
	}
	return strings.Join(ids, ", ")
}

func wayNames() string {
	ids := make([]string, len(plan.Ways))
	for i := range ids {
		ids[i] = plan.Ways[i].ID
	}
	return strings.Join(ids, ", ")
}

// unusable tells what of an input cannot be planned.
func unusable(cmd *cobra.Command, name string, err error) error {
	if fe, ok := err.(*wire.Error); ok {
		fmt.Fprintf(cmd.ErrOrStderr(), "%s: %s\n", name, fe)
		return exit{exitUnusable}
	}
	return err
}

// told reports progress, once that takes longer than a moment.
func told(w io.Writer, name string) func(done, of int) {
	next := time.Now().Add(time.Second)
	return func(done, of int) {
		if time.Now().After(next) && done < of {
			fmt.Fprintf(w, "%s: %d of %d\n", name, done, of)
			next = time.Now().Add(time.Second)
		}
	}
}

func planPiece(ctx context.Context, cmd *cobra.Command, name string, j *app.Job, w plan.Way, o app.PlanOptions, text bool) (stuck bool, err error) {
	r, err := j.PlanPiece(ctx, w, o)
	if err != nil {
		return false, err
	}
	for i := range r.Zones {
		z := &r.Zones[i]
		if z.State == "stopped" || z.State == "stuck" {
			stuck = true
			fmt.Fprintf(cmd.ErrOrStderr(), "%s: zone %s is not planned: %s\n", name, wire.ZoneTitle(z.Name, z.ID), z.Says)
			if z.Infeasible != nil {
				for _, x := range z.Infeasible.Relaxations {
					fmt.Fprintf(cmd.ErrOrStderr(), "%s: zone %s: what would make a plan possible: %s\n", name, wire.ZoneTitle(z.Name, z.ID), craft.Lower(x.Says))
				}
			}
		}
		if z.Unproved {
			fmt.Fprintf(cmd.ErrOrStderr(), "%s: zone %s: the search was stopped early; there may be a better plan\n", name, wire.ZoneTitle(z.Name, z.ID))
		}
		if z.Differs != "" {
			fmt.Fprintf(cmd.ErrOrStderr(), "%s: zone %s: %s\n", name, wire.ZoneTitle(z.Name, z.ID), z.Differs)
		}
	}
	if text {
		return stuck, piecePlanText(cmd.OutOrStdout(), &r)
	}
	return stuck, writeJSON(cmd.OutOrStdout(), r.Piece)
}

func everyWay(ctx context.Context, cmd *cobra.Command, j *app.Job, o app.PlanOptions, text bool) (stuck bool, err error) {
	out := wire.Plans{Format: wire.PlansFormat, Version: wire.Version, Zones: []wire.ZonePlans{}}
	for i := range j.Zones {
		if cmd.Context().Err() != nil {
			return true, context.Cause(cmd.Context())
		}
		z, err := j.PlanZone(ctx, i, plan.Ways, o)
		if err != nil {
			return false, err
		}
		stuck = stuck || z.Plans[0].Infeasible != nil
		if text {
			if err := zonePlansText(cmd.OutOrStdout(), &z); err != nil {
				return stuck, err
			}
		}
		out.Zones = append(out.Zones, z)
	}
	if text {
		return stuck, nil
	}
	return stuck, writeJSON(cmd.OutOrStdout(), out)
}

func explained(ctx context.Context, cmd *cobra.Command, j *app.Job, w plan.Way, o app.PlanOptions) error {
	all, err := j.Explain(ctx, w, o)
	if err != nil {
		return err
	}
	return searchedText(cmd.ErrOrStderr(), all)
}
