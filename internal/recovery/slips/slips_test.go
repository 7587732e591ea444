package slips

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

// TestKinds has for each kind what it must make of a line, and what not;
// worked out by hand. Common practice, no source.
func TestKinds(t *testing.T) {
	line := Line{Receive: "147.24", Sign: "+", Size: "600", Tone: "103.5", Name: "Hill"}
	split := Line{Receive: "147.240", Input: "147.840", Tone: "D131N"}
	around := Around{Output: "147.240", Input: "147.840", Downlink: "88.5", Beside: []string{"77.0", "103.5"}, Tones: []string{"100.0", "103.5", "107.2"}}
	for _, c := range []struct {
		kind string
		from Line
		has  []string
		not  []string
	}{
		{"adjacent digit", line, []string{`147.25 +600 103.5 "Hill"`, `447.24 +600 103.5 "Hill"`, `147.14 +600 103.5 "Hill"`}, []string{`147.29 +600 103.5 "Hill"`, line.String()}},
		{"swapped digits", line, []string{`147.42 +600 103.5 "Hill"`, `142.74 +600 103.5 "Hill"`, `174.24 +600 103.5 "Hill"`}, []string{line.String()}},
		{"missing digit", line, []string{`14.24 +600 103.5 "Hill"`, `147.2 +600 103.5 "Hill"`}, nil},
		{"doubled digit", split, []string{`147.2240 tx 147.840 D131N`, `1477.240 tx 147.840 D131N`}, []string{`147.2400 tx 147.840 D131N`}},
		{"reversed", line, []string{`147.840 -600 103.5 "Hill"`}, nil},
		{"reversed", split, []string{`147.840 tx 147.240 D131N`}, nil},
		{"wrong sign", line, []string{`147.24 -600 103.5 "Hill"`}, nil},
		{"shift unit", line, []string{`147.24 +600 MHz 103.5 "Hill"`, `147.24 +6000 kHz 103.5 "Hill"`, `147.24 +60 kHz 103.5 "Hill"`}, nil},
		{"tone beside", line, []string{`147.24 +600 100.0 "Hill"`, `147.24 +600 107.2 "Hill"`}, nil},
		{"tone digits", line, []string{`147.24 +600 130.5 "Hill"`, `147.24 +600 105.3 "Hill"`}, nil},
		{"tone digits", split, []string{`147.240 tx 147.840 D311N`}, nil},
		{"downlink", line, []string{`147.24 +600 88.5 "Hill"`}, nil},
		{"code or tone", line, []string{`147.24 +600 D103N "Hill"`}, nil},
		{"code or tone", split, []string{`147.240 tx 147.840 131.0`}, nil},
		{"line beside", line, []string{`147.24 +600 77.0 "Hill"`}, []string{line.String()}},
	} {
		var made []string
		for _, k := range Kinds {
			if k.Name == c.kind {
				for _, l := range k.Make(c.from, around) {
					made = append(made, l.String())
				}
			}
		}
		assert.Subset(t, made, c.has, c.kind)
		for _, n := range c.not {
			assert.NotContains(t, made, n, c.kind)
		}
	}
}

func TestKindsThatDoNotFit(t *testing.T) {
	bare := Line{Receive: "146.52"}
	for _, k := range Kinds[4:] {
		assert.Empty(t, k.Make(bare, Around{Output: "146.52", Input: "146.52"}), k.Name)
	}
}
