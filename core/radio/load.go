package radio

import (
	"cmp"
	"embed"
	"fmt"
	"slices"
	"strings"
	"sync"

	"github.com/goccy/go-yaml"
	"github.com/goccy/go-yaml/lexer"
	"github.com/goccy/go-yaml/token"
)

//go:embed profiles/*.yaml
var files embed.FS

var all = sync.OnceValue(func() []*Profile {
	entries, err := files.ReadDir("profiles")
	if err != nil {
		panic(err) // embedded: cannot fail in a built binary
	}
	var out []*Profile
	for _, e := range entries {
		b, err := files.ReadFile("profiles/" + e.Name())
		if err != nil {
			panic(err)
		}
		p, err := Read(b)
		if err != nil {
			panic(fmt.Sprintf("radio profile %s: %v", e.Name(), err))
		}
		out = append(out, p)
	}
	slices.SortFunc(out, func(a, b *Profile) int { return cmp.Compare(a.ID, b.ID) })
	return out
})

// MaxYAML is the largest profile that is read, in bytes.
const MaxYAML = 16 << 10

// Read reads a profile in YAML (docs/formats/radio-profile.md) and checks
// that it holds together.
func Read(b []byte) (*Profile, error) {
	if len(b) > MaxYAML {
		return nil, fmt.Errorf("a profile has up to %d bytes, this one has %d", MaxYAML, len(b))
	}
	if err := tame(b); err != nil {
		return nil, err
	}
	var p Profile
	if err := yaml.UnmarshalWithOptions(b, &p, yaml.Strict()); err != nil {
		return nil, fmt.Errorf("this is not a radio profile: %w", err)
	}
	if errs := p.Check(); len(errs) > 0 {
		return nil, fmt.Errorf("%s: %s", errs[0].Field, errs[0].Message)
	}
	return &p, nil
}

// deepest is how deep brackets may be nested; a profile needs two.
const deepest = 4

// tame refuses what no profile needs and what takes a YAML parser minutes or
// all memory: references that multiply, deep nesting.
func tame(b []byte) error {
	depth := 0
	for _, t := range lexer.Tokenize(string(b)) {
		switch t.Type {
		case token.AnchorType, token.AliasType, token.MergeKeyType, token.MappingKeyType:
			return fmt.Errorf("line %d: %q does not belong in a profile: write the value itself", t.Position.Line, t.Value)
		case token.SequenceStartType, token.MappingStartType:
			if depth++; depth > deepest {
				return fmt.Errorf("line %d: brackets are nested deeper than a profile needs", t.Position.Line)
			}
		case token.SequenceEndType, token.MappingEndType:
			depth--
		}
	}
	return nil
}

// Write writes a profile in YAML.
func Write(p *Profile) ([]byte, error) { return yaml.Marshal(p) }

// Profiles returns the profiles that ship, sorted by ID. They are shared:
// change a copy.
func Profiles() []*Profile { return all() }

// Load returns a shipped profile by its ID.
func Load(id string) (*Profile, error) {
	var ids []string
	for _, p := range all() {
		if strings.EqualFold(p.ID, id) {
			return p, nil
		}
		ids = append(ids, p.ID)
	}
	return nil, fmt.Errorf("radio %q is not known, use one of: %s", id, strings.Join(ids, ", "))
}
