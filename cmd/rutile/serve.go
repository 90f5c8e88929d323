package main

import (
	"errors"
	"fmt"
	"io/fs"
	"log/slog"
	"net"
	"os"
	"path/filepath"
	"runtime"
	"runtime/debug"
	"syscall"
	"time"

	"github.com/spf13/cobra"
	"github.com/spf13/pflag"

	"rutile/core/craft"
	"rutile/core/drying"
	"rutile/internal/app"
	"rutile/internal/demo"
	"rutile/internal/instruments"
	"rutile/internal/server"
	"rutile/internal/store"
	"rutile/web"
)

func serveCommand() *cobra.Command {
	var (
		isDemo bool
		addr   string
		data   string
		hosts  []string
		seed   uint64

		readOnly, proxied bool
		from              string
		pace              float64
		budgets           = app.UsualBudgets
		lan               lanOptions
	)
	cmd := &cobra.Command{
		Use:   "serve",
		Short: "Start the application",
		Args:  cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) (err error) {
			if os.Getenv("GOGC") == "" {
				debug.SetGCPercent(server.GCPercent)
			}
			if os.Getenv("GOMEMLIMIT") == "" {
				debug.SetMemoryLimit(server.MemoryLimit)
			}
			o := app.StudioOptions{
				Site: drying.Usual, Demo: isDemo, Instruments: instruments.Simulated(seed),
				Log: slog.New(slog.NewTextHandler(cmd.ErrOrStderr(), nil)),
			}
			o.Now = time.Now
			if from != "" || pace != 1 {
				if o.Now, err = lapse(from, pace, time.Now); err != nil {
					return err
				}
				o.Times = app.TimesOf(o.Now)
			}
			if isDemo {
				if data, err = os.MkdirTemp("", "rutile-demo-"); err != nil {
					return fmt.Errorf("make a folder for the demo: %w", err)
				}
				defer os.RemoveAll(data)
				o.Site = demo.Site
			}
			if err := guarded(addr, proxied); err != nil {
				return err
			}
			l, err := net.Listen("tcp", addr)
			if err != nil {
				return unreachable(addr, "--addr", err)
			}
			defer l.Close()
			if lan.on {
				if err := lan.listen(); err != nil {
					return err
				}
				defer lan.l.Close()
			}
			open := store.Open
			if readOnly {
				open = store.OpenReadOnly
			}
			if o.Store, err = open(data); err != nil {
				return err
			}
			defer func() {
				if cerr := o.Store.Close(); err == nil {
					err = cerr
				}
			}()
			if _, err := o.Store.SweepPhotos(cmd.Context(), unshown); err != nil {
				o.Log.Warn("unused pictures are not removed", "err", err)
			}
			if isDemo {
				if err := demo.Fill(cmd.Context(), o.Store, o.Now()); err != nil {
					return err
				}
			}
			debug.FreeOSMemory() // starting takes more than serving
			fmt.Fprintf(cmd.OutOrStdout(), "Rutile is at http://%s\n", l.Addr())
			engine := app.NewEngine(craft.Default())
			engine.Budgets = budgets
			studio := app.NewStudio(engine, o)
			go studio.Beat(cmd.Context())
			// One more than searches may take: somebody must be free to notice the next request.
			defer runtime.GOMAXPROCS(runtime.GOMAXPROCS(runtime.GOMAXPROCS(0) + 1))
			options := server.Options{Studio: studio, Page: web.Dist(), Hosts: hosts}
			if !lan.on {
				return server.Serve(cmd.Context(), l, server.New(options))
			}
			if err := lan.open(cmd, studio, &options, l.Addr().String()); err != nil {
				return err
			}
			return lan.serve(cmd.Context(), l, options)
		},
	}
	cmd.Flags().BoolVar(&isDemo, "demo", false, "start with a fresh copy of the demo data and touch nothing else")
	cmd.Flags().StringVar(&addr, "addr", "127.0.0.1:8733", "address to listen on")
	cmd.Flags().StringVar(&data, "data", defaultData(), "folder of the database")
	cmd.Flags().BoolVar(&readOnly, "read-only", false, "open the data to be read only, and change nothing in its folder")
	cmd.Flags().BoolVar(&proxied, "behind-proxy", false, "allow an address that other computers reach, because a proxy in front of it lets in only those who may")
	cmd.Flags().DurationVar(&budgets.Zone, "zone-time", budgets.Zone, "most time to search for the plans of one zone")
	cmd.Flags().DurationVar(&budgets.Piece, "piece-time", budgets.Piece, "most time to search for the plans of one piece")
	cmd.Flags().StringSliceVar(&hosts, "host", nil, "another host name to accept")
	cmd.Flags().Uint64Var(&seed, "instrument-seed", demo.InstrumentSeed, "seed of the simulated instruments: the same seed repeats the same readings")
	cmd.Flags().StringVar(&from, "from", "", "start the clock at a moment, such as 2026-11-28T09:00, to try things out")
	cmd.Flags().Float64Var(&pace, "pace", 1, "let the clock run so many times faster, to see days pass in minutes")
	lan.flags(cmd.Flags())
	cmd.Flags().SetNormalizeFunc(func(_ *pflag.FlagSet, name string) pflag.NormalizedName {
		if name == "bench-seed" { // its name before
			name = "instrument-seed"
		}
		return pflag.NormalizedName(name)
	})
	cmd.MarkFlagsMutuallyExclusive("demo", "data")
	cmd.MarkFlagsMutuallyExclusive("demo", "read-only")
	cmd.MarkFlagsMutuallyExclusive("lan", "read-only")
	cmd.MarkFlagsMutuallyExclusive("lan", "behind-proxy")
	return cmd
}

// lapse is a clock that begins at a moment, now where none is given, and runs at a pace.
func lapse(from string, pace float64, now func() time.Time) (func() time.Time, error) {
	if !(pace > 0) || pace > 1e6 {
		return nil, fmt.Errorf("--pace %v: the clock runs between a little more than 0 and 1,000,000 times as fast", pace)
	}
	begun := now()
	start := begun
	if from != "" {
		var err error
		for _, layout := range []string{"2006-01-02T15:04", "2006-01-02T15:04:05", time.RFC3339} {
			if start, err = time.ParseInLocation(layout, from, time.Local); err == nil {
				break
			}
		}
		if err != nil {
			return nil, fmt.Errorf("--from %s: a moment is written as 2026-11-28T09:00", from)
		}
	}
	return func() time.Time { return start.Add(time.Duration(float64(now().Sub(begun)) * pace)) }, nil
}

// unreachable tells why the server cannot be at an address.
func unreachable(addr, flag string, err error) error {
	if errors.Is(err, syscall.EADDRINUSE) {
		return fmt.Errorf("another program is using the address %s, perhaps another Rutile. Nothing was changed. Stop it, or name another address with %s", addr, flag)
	}
	return fmt.Errorf("the address %s cannot be used: %w. Nothing was changed. Name another one with %s", addr, err, flag)
}

// guarded refuses an address that other computers reach: whoever reaches the server may read and change
// everything.
func guarded(addr string, proxied bool) error {
	host, _, err := net.SplitHostPort(addr)
	if err != nil {
		return fmt.Errorf("--addr %s: an address is written as 127.0.0.1:8733", addr)
	}
	if ip := net.ParseIP(host); proxied || host == "localhost" || ip != nil && ip.IsLoopback() {
		return nil
	}
	return fmt.Errorf("--addr %s: other computers could reach Rutile there, and it asks nobody for a password: whoever reaches it can read and change everything. "+
		"Use 127.0.0.1, or put a proxy that asks for a password in front of it and start Rutile with --behind-proxy", addr)
}

// unshown is how long a picture that no piece shows is kept: undo in a browser
// may still bring it back.
const unshown = 30 * 24 * time.Hour

func defaultData() string {
	if dir, err := os.UserConfigDir(); err == nil {
		return filepath.Join(dir, "rutile")
	}
	return "rutile-data"
}

func licencesCommand() *cobra.Command {
	return &cobra.Command{
		Use:   "licences",
		Short: "Print the licence texts of everything that ships with the program",
		Args:  cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error {
			text, err := fs.ReadFile(web.Dist(), "licences.txt")
			if err != nil {
				return errors.New("the licence texts were not built into this program: run make build")
			}
			_, err = cmd.OutOrStdout().Write(text)
			return err
		},
	}
}

func openapiCommand() *cobra.Command {
	return &cobra.Command{
		Use:    "openapi",
		Short:  "Print the description of the API",
		Hidden: true,
		Args:   cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error {
			spec, err := server.Spec()
			if err != nil {
				return err
			}
			_, err = fmt.Fprintln(cmd.OutOrStdout(), string(spec))
			return err
		},
	}
}
