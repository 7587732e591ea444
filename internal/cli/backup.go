package cli

import (
	"errors"
	"fmt"
	"time"

	"github.com/spf13/cobra"

	"mnemos/internal/store"
)

func backupCommand() *cobra.Command {
	var data string
	c := &cobra.Command{
		Use: "backup FILE", Short: "Copy everything to a file, also while Mnemos runs", Args: oneFile,
		RunE: func(cmd *cobra.Command, args []string) error {
			if err := store.BackUp(cmd.Context(), data, args[0]); err != nil {
				return err
			}
			fmt.Fprintf(cmd.OutOrStdout(), "%s holds everything that is in %s\n", args[0], data)
			return nil
		},
	}
	c.Flags().StringVar(&data, "data", "mnemos-data", "the data folder")
	return c
}

func restoreCommand() *cobra.Command {
	var data string
	c := &cobra.Command{
		Use: "restore FILE", Short: "Put a backup in the place of the data", Args: oneFile,
		RunE: func(cmd *cobra.Command, args []string) error {
			kept, err := store.Restore(cmd.Context(), data, args[0], time.Now().UTC().Format("2006-01-02-150405"))
			if err != nil {
				return err
			}
			fmt.Fprintf(cmd.OutOrStdout(), "%s is now what is in %s\n", args[0], data)
			if kept != "" {
				fmt.Fprintf(cmd.OutOrStdout(), "what was there before is kept as %s\n", kept)
			}
			return nil
		},
	}
	c.Flags().StringVar(&data, "data", "mnemos-data", "the data folder")
	return c
}

func oneFile(_ *cobra.Command, args []string) error {
	if len(args) != 1 || args[0] == "" {
		return usage{errors.New("say which file, such as mnemos-2026-11-26.db")}
	}
	return nil
}
