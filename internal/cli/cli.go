// Package cli is the command line. What it prints with --json is public and
// documented in docs/cli.md.
package cli

import (
	"context"
	"errors"
	"fmt"
	"io"
	"os"
	"os/signal"
	"syscall"
	"time"

	"github.com/spf13/cobra"
)

// Exit codes of every command.
const (
	exitFine  = 0 // nothing worse than a note
	exitAsks  = 1 // a finding asks for something, or the work failed
	exitUsage = 2 // the command was not understood
)

// exit carries an exit code through cobra; nothing more is printed for it.
type exit int

func (exit) Error() string { return "" }

// usage marks an error as one of usage.
type usage struct{ error }

// Main runs the command line and returns its exit code.
func Main(args []string, in io.Reader, out, errOut io.Writer) int {
	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt, syscall.SIGTERM)
	defer stop()
	root := &cobra.Command{
		Use: "mnemos", Short: "Plan radio memories and check them against published repeater data",
		SilenceUsage: true, SilenceErrors: true,
		Args: func(cmd *cobra.Command, args []string) error {
			if len(args) > 0 {
				return usage{fmt.Errorf("%q is not a command: see mnemos --help", args[0])}
			}
			return nil
		},
		RunE: func(cmd *cobra.Command, _ []string) error { return cmd.Help() },
	}
	out, errOut = terminal{out}, terminal{errOut}
	root.SetArgs(args)
	root.SetIn(in)
	root.SetOut(out)
	root.SetErr(errOut)
	root.SetFlagErrorFunc(func(_ *cobra.Command, err error) error { return usage{err} })
	root.AddCommand(readCommand(), planCommand(), relayCommand(), importCommand(), rulesCommand(), limitsCommand(), wordsCommand(), serveCommand(), demoCommand(), backupCommand(), restoreCommand())
	err := root.ExecuteContext(ctx)
	var code exit
	var bad usage
	switch {
	case err == nil:
		return exitFine
	case errors.As(err, &code):
		return int(code)
	case errors.As(err, &bad):
		fmt.Fprintf(errOut, "mnemos: %v\n", err)
		return exitUsage
	}
	fmt.Fprintf(errOut, "mnemos: %v\n", err)
	return exitAsks
}

// clock returns the clock, or one that stands still at noon of a day given as
// YYYY-MM-DD.
func clock(day string) (func() time.Time, error) {
	if day == "" {
		return time.Now, nil
	}
	t, err := time.Parse(time.DateOnly, day)
	if err != nil {
		return nil, usage{fmt.Errorf("--today %q: write YYYY-MM-DD", day)}
	}
	noon := t.Add(12 * time.Hour)
	return func() time.Time { return noon }, nil
}
