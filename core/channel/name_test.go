package channel

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
)

// TestNames: a name is text that can be read, in any script. The characters
// are those of Unicode's general categories (UAX 44) and of UAX 9.
func TestNames(t *testing.T) {
	for name, fine := range map[string]bool{
		"":                             true,
		"Beacon Hill":                  true,
		"Łódź, Höhe 7 (2 m)":           true,
		"日本 の山":                        true,
		"नमस्ते क्\u200dष":             true, // a joiner that the script needs
		"👩\u200d🚒 fire":                true,
		strings.Repeat("Ж", MaxName):   true,
		strings.Repeat("Ж", MaxName+1): false,
		strings.Repeat("a", 900_000):   false,
		"a\x00b":                       false,
		"two\nlines":                   false,
		"tab\there":                    false,
		"\u202egnp.exe":                false, // right-to-left override
		"a\u2066b\u2069":               false, // isolates
		"\u200b":                       false, // zero width space alone
		"Quay\u200b":                   false,
		"\ufeffQuay":                   false,
		"private \ue000":               false,
		"line\u2028separator":          false,
		"   ":                          false,
	} {
		c := New(147_240_000)
		c.Name = name
		var fields []Field
		for _, f := range c.Faults() {
			fields = append(fields, f.Field)
		}
		if fine {
			assert.Empty(t, fields, "%q", name)
			continue
		}
		assert.Equal(t, []Field{FieldName}, fields, "%.40q", name)
	}
}
