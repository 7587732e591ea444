package cli

import (
	"bytes"
	"fmt"
	"io"
	"os"
	"path/filepath"
	"slices"
	"strings"

	"github.com/spf13/cobra"

	"mnemos/core/beacon"
	"mnemos/core/check"
	"mnemos/core/relay"
)

func rulesCommand() *cobra.Command {
	var write string
	c := &cobra.Command{
		Use: "rules [ID]", Short: "Print the rules by which channels are checked",
		RunE: func(cmd *cobra.Command, args []string) error {
			if write != "" {
				if err := os.MkdirAll(filepath.Dir(write), 0o755); err != nil {
					return err
				}
				return os.WriteFile(write, RulesMarkdown(), 0o644)
			}
			if len(args) > 0 && !slices.ContainsFunc(check.Rules, func(r check.Rule) bool { return r.ID == args[0] }) {
				return usage{fmt.Errorf("%q is not a rule: see mnemos rules", args[0])}
			}
			var b strings.Builder
			for _, r := range check.Rules {
				if len(args) == 0 || r.ID == args[0] {
					fmt.Fprintf(&b, "%s: %s\n  %s\n  source: %s\n  example: %s\n\n", r.ID, r.Title, r.Doc, r.Source, r.Example)
				}
			}
			_, err := io.WriteString(cmd.OutOrStdout(), b.String())
			return err
		},
	}
	c.Flags().StringVar(&write, "write", "", "write them as Markdown to this file")
	return c
}

// RulesMarkdown is the text of docs/rules.md.
func RulesMarkdown() []byte {
	var b bytes.Buffer
	b.WriteString("# Rules\n\nThis page is written by `make rules` from the rules themselves (`core/check`); do not edit it.\n\n")
	b.WriteString("Severities: *stop* must not go on the air as it is; *fix* a witness says otherwise and the fix makes it agree;\n*check* a person should look; *note* good to know.\n\n")
	b.WriteString("| rule | about |\n| --- | --- |\n")
	for _, r := range check.Rules {
		fmt.Fprintf(&b, "| [%s](#%s) | %s |\n", r.ID, r.ID, r.Title)
	}
	for _, r := range check.Rules {
		fmt.Fprintf(&b, "\n## %s\n\n**%s.** %s\n\n- Source: %s\n- Example: `%s`\n", r.ID, r.Title, r.Doc, r.Source, r.Example)
		if len(r.Supersedes) > 0 {
			fmt.Fprintf(&b, "- Says better what these would say: %s\n", strings.Join(r.Supersedes, ", "))
		}
	}
	b.WriteString("\n# Rules of relaying\n\nThey speak of a cross-band relay as a whole (`core/relay`).\n")
	for _, r := range relay.Rules {
		fmt.Fprintf(&b, "\n## %s\n\n**%s.** %s\n\n- Source: %s\n", r.ID, r.Title, r.Doc, r.Source)
	}
	b.WriteString("\n# Rules of beaconing\n\nThey speak of an APRS station (`core/beacon`).\n")
	for _, r := range beacon.Rules {
		fmt.Fprintf(&b, "\n## %s\n\n**%s.** %s\n\n- Source: %s\n", r.ID, r.Title, r.Doc, r.Source)
	}
	return b.Bytes()
}
