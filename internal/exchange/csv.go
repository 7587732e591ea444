package exchange

import (
	"encoding/csv"
	"io"
	"strconv"
	"strings"
)

// CSV writes rows as UTF-8 CSV with commas (RFC 4180). Cells come from
// strangers: none of them becomes a formula in the spreadsheet that opens it.
func CSV(w io.Writer, rows func(write func(cells []string) error) error) error {
	out := csv.NewWriter(w)
	err := rows(func(cells []string) error {
		safe := make([]string, len(cells))
		for i, c := range cells {
			safe[i] = Neutral(c)
		}
		return out.Write(safe)
	})
	out.Flush()
	if err != nil {
		return err
	}
	return out.Error()
}

// Neutral puts an apostrophe before a cell that a spreadsheet would take for
// a formula, and before every part of it that would be a cell where semicolons
// or tabs divide them. Numbers and lone signs are none.
func Neutral(cell string) string {
	var out strings.Builder
	for rest := cell; ; {
		i := strings.IndexAny(rest, ";\t") + 1
		if i == 0 {
			return out.String() + neutral(rest)
		}
		out.WriteString(neutral(rest[:i]))
		rest = rest[i:]
	}
}

func neutral(cell string) string {
	t := strings.TrimLeft(cell, " ")
	if t == "" || !strings.ContainsRune("=+-@\t\r", rune(t[0])) {
		return cell
	}
	number := strings.Replace(strings.Trim(t, "; \t\r"), ",", ".", 1)
	if _, err := strconv.ParseFloat(number, 64); err == nil && !strings.ContainsAny(number, "xXpPnN") {
		return cell
	}
	if len(strings.Trim(t, "; \t")) == 1 && (t[0] == '+' || t[0] == '-') {
		return cell
	}
	return "'" + cell
}
