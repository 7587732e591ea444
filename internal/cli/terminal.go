package cli

import (
	"io"
	"strings"
	"unicode"
)

// terminal writes what may come from strangers' listings: characters that
// steer a terminal are left out.
type terminal struct{ io.Writer }

func (t terminal) Write(p []byte) (int, error) {
	clean := strings.Map(func(r rune) rune {
		if r != '\n' && r != '\t' && (unicode.Is(unicode.Cc, r) || unicode.Is(unicode.Cf, r)) {
			return -1
		}
		return r
	}, string(p))
	if _, err := io.WriteString(t.Writer, clean); err != nil {
		return 0, err
	}
	return len(p), nil
}
