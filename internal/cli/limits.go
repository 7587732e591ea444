package cli

import (
	"io"
	"os"

	"github.com/spf13/cobra"

	"mnemos/core/limit"
)

func limitsCommand() *cobra.Command {
	var write string
	c := &cobra.Command{
		Use: "limits", Short: "Print what Mnemos takes at most: sizes, counts and times", Args: noArgs,
		RunE: func(cmd *cobra.Command, _ []string) error {
			if write != "" {
				return os.WriteFile(write, []byte(limit.Markdown()), 0o644)
			}
			_, err := io.WriteString(cmd.OutOrStdout(), limit.Markdown())
			return err
		},
	}
	c.Flags().StringVar(&write, "write", "", "write them to this file")
	return c
}
