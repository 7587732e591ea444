package cli

import (
	"bytes"
	"fmt"
	"io"
	"os"
	"strings"

	"github.com/spf13/cobra"

	"mnemos/core/entry"
)

func wordsCommand() *cobra.Command {
	var write string
	c := &cobra.Command{
		Use: "words [WORD]", Short: "Print what can be written on the entry line",
		RunE: func(cmd *cobra.Command, args []string) error {
			if write != "" {
				return os.WriteFile(write, WordsMarkdown(), 0o644)
			}
			var b strings.Builder
			for _, p := range entry.Patterns {
				if len(args) > 0 && p.ID != args[0] && !strings.Contains(strings.Join(p.Spellings(), " "), strings.ToLower(args[0])) {
					continue
				}
				fmt.Fprintf(&b, "%s: %s\n  example: %s\n  spellings: %s\n\n", p.ID, strings.ReplaceAll(p.Meaning, "`", ""), p.Example, strings.Join(p.Spellings(), " · "))
			}
			if b.Len() == 0 {
				return usage{fmt.Errorf("nothing on the entry line is written %q: see mnemos words", args[0])}
			}
			_, err := io.WriteString(cmd.OutOrStdout(), b.String())
			return err
		},
	}
	c.Flags().StringVar(&write, "write", "", "write them as Markdown to this file")
	return c
}

// WordsMarkdown is the text of docs/entry-line.md.
func WordsMarkdown() []byte {
	var b bytes.Buffer
	b.WriteString(`# The entry line

This page is written by ` + "`make rules`" + ` from the grammar itself (` + "`core/entry/patterns.go`" + `); do not edit it.

Write what the listing says, in any order. Every word is marked with what it was taken for; what is left out is filled in and says
from where. What could be meant in two ways, or is not understood, is asked about: nothing is stored until somebody has answered.
A word that looks like a setting never becomes part of a name unless it stands in quotes. A name or a callsign alone finds what is
published under it. Several lines pasted at once become offers, one channel each. A line has up to 400 characters.

Each pattern below has a cost; the cheapest set of readings that do not contradict each other wins, and if a second set is nearly
as cheap (closer than 2), both are shown. The examples are read with the plan of the United States unless they say otherwise.
`)
	group := ""
	for _, p := range entry.Patterns {
		if p.Group != group {
			group = p.Group
			fmt.Fprintf(&b, "\n## %s\n\n| you write | it means | cost |\n| --- | --- | --- |\n", group)
		}
		fmt.Fprintf(&b, "| `%s` | %s | %d |\n", p.Example, p.Meaning, p.Cost)
	}
	b.WriteString(`
While you type: ` + "`=`" + ` applies the first fix, ` + "`Alt 2` to `Alt 9`" + ` the others, ` + "`Enter`" + ` stores, ` + "`Shift Enter`" + ` stores over what is in the slot,
` + "`Escape`" + ` clears. ` + "`mnemos words`" + ` prints every spelling.
`)
	return b.Bytes()
}
