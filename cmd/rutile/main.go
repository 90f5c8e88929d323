// Command rutile checks and plans the coats of painted furniture.
package main

import (
	"context"
	"errors"
	"fmt"
	"os"
	"os/signal"
	"syscall"

	"github.com/spf13/cobra"

	"rutile/internal/photo"
)

// Exit codes of the commands.
const (
	exitFine     = 0
	exitFails    = 1 // some zone fails
	exitUnusable = 2 // the input cannot be used
)

// exit carries an exit code through cobra; the message was printed already or
// there is none.
type exit struct{ code int }

func (e exit) Error() string { return fmt.Sprintf("exit %d", e.code) }

func main() {
	if code, started := photo.RunChild(); started {
		os.Exit(code)
	}
	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt, syscall.SIGTERM)
	defer stop()
	os.Exit(run(ctx, root()))
}

func run(ctx context.Context, cmd *cobra.Command) int {
	err := cmd.ExecuteContext(ctx)
	var e exit
	switch {
	case err == nil:
		return exitFine
	case errors.As(err, &e):
		return e.code
	default:
		fmt.Fprintln(cmd.ErrOrStderr(), "rutile: "+err.Error())
		return exitUnusable
	}
}

func root() *cobra.Command {
	cmd := &cobra.Command{
		Use:           "rutile",
		Short:         "Checks whether a painter's plan will hold and whether anything will bleed through",
		SilenceUsage:  true,
		SilenceErrors: true,
	}
	cmd.AddCommand(serveCommand(), checkCommand(), planCommand(), areasCommand(), identifyCommand(), needsCommand(), mixCommand(), logCommand(), blendCommand(), shelfCommand(), vocabCommand(), rulesCommand(), schemaCommand(), openapiCommand(), docsCommand(), licencesCommand())
	return cmd
}
