package intake

import (
	"regexp"
	"strings"

	"mnemos/core/geo"
)

// Heading finds the row that names the columns among the first rows of a
// table: titles may stand above it. Where none does, rows begin at 0.
func Heading(rows [][]string) (heading []string, from int) {
	best, at := 0.0, -1
	for i, row := range rows[:min(len(rows), 20)] {
		score := 0.0
		for _, cell := range row {
			if wordy(cell) {
				continue
			}
			if _, ok := mean(cell); ok {
				score += strong
				continue
			}
			h := normal(cell)
			for _, role := range Roles[1:] {
				if s, ok := headed(role, h); ok {
					score += s
					break
				}
			}
		}
		if score > best && !locator(row) {
			best, at = score, i
		}
	}
	if at < 0 || best < 2*strong {
		return nil, 0
	}
	return rows[at], at + 1
}

// locator reports whether a row is a locator and nothing else, in one cell or
// in several.
func locator(row []string) bool {
	text := strings.Join(row, "")
	_, err := geo.ParseLocator(text[:min(len(text), longest)])
	return err == nil
}

var bracketed = regexp.MustCompile(`[(\[].*?[)\]]`)

var separators = strings.NewReplacer("_", " ", "-", " ", "/", " ", ".", " ", "'", " ", ":", " ")

// normal is a heading as the lists of words have it: plain, without brackets
// and units.
func normal(heading string) string {
	h := plain(separators.Replace(bracketed.ReplaceAllString(heading, "")))
	return strings.TrimSpace(strings.NewReplacer(" mhz", "", " khz", "", " hz", "").Replace(" " + h + " "))
}

// headed compares a normal heading with the words of a role.
func headed(role Role, h string) (float64, bool) {
	if h == "" {
		return 0, false
	}
	list := words().headings[role]
	if list[h] {
		return strong, true
	}
	best := 0
	for w := range list {
		if len(w) > 2 && (strings.HasPrefix(h, w) && strings.HasPrefix(h[len(w):], " ") || strings.HasSuffix(h, w) && strings.HasSuffix(h[:len(h)-len(w)], " ")) {
			best = max(best, len(w))
		}
	}
	return weak + float64(best)/100, best > 0
}
