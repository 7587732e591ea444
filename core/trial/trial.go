// Package trial is the method of testing on the air: one change a try, what came back,
// why nothing did, and which single change would tell most.
//
//	w := trial.Weigh(facts, tries)
//	w.Causes[0].Says         // the likeliest reason
//	next, ok := w.Next()     // and what to change
//
// # How it is reckoned
//
// Each cause, and each pair of them, has a weight from what is published (causes.yaml:
// guesses, and said to be). A try that brings nothing back weighs them anew: those under
// which something would have come back lose. What to change next is what is expected to
// tell most, in bits; causes that no try on offer can part stay together.
//
// Only published values and those of the band plan are proposed, and only where the
// caller says that the transmit side passes the check. Nothing is walked through.
package trial

import (
	_ "embed"
	"fmt"
	"slices"

	"github.com/goccy/go-yaml"

	"mnemos/core/channel"
	"mnemos/core/freq"
	"mnemos/core/tone"
)

// Answer is what came back.
type Answer string

// The answers, from nothing to a person.
const (
	Nothing Answer = "nothing"
	Weak    Answer = "weak"  // in, but rough
	Tail    Answer = "tail"  // its carrier stays for a moment
	Ident   Answer = "ident" // its own call
	Reply   Answer = "reply" // a station
)

// Answers are what can come back, with what each means.
var Answers = []struct {
	Answer
	Says string
}{{Tail, "its carrier stays"}, {Ident, "its own call"}, {Weak, "in, but rough"}, {Reply, "a station"}, {Nothing, "silence"}}

// Back reports whether something came back.
func (a Answer) Back() bool { return a != Nothing && a != "" }

// Valid reports whether it is one of the answers.
func (a Answer) Valid() bool {
	return slices.ContainsFunc(Answers, func(x struct {
		Answer
		Says string
	},
	) bool {
		return x.Answer == a
	})
}

// Kind is a kind of try.
type Kind string

// The kinds of tries. Only Key sends anything.
const (
	Key    Kind = "key"    // call, and wait for what comes back
	Listen Kind = "listen" // for ten minutes, for its ident
	Look   Kind = "look"   // whether the display shows the mark of a tone
	Ask    Kind = "ask"    // somebody else, whether they hear it

	// Lines of a log that are no try of this radio's settings.
	Seeking Kind = "search"  // for the tone that others send
	Contact Kind = "contact" // told by a file: nobody knows how the radio was set
	Switch  Kind = "switch"  // of a beacon between ground and space
)

// Setting is all that a try can change.
type Setting struct {
	Tone   tone.Tone // that is sent
	Offset freq.Offset
	Width  channel.Width
	Power  bool // power was looked at and set high again
	Mode   bool // the display was seen to show the mark of a tone
	Where  string
	Aerial string
}

// Changes names what differs between two settings.
func (s Setting) Changes(was Setting) (out []string) {
	for _, x := range []struct {
		differs bool
		name    string
	}{
		{s.Tone != was.Tone, "tone"},
		{s.Offset != was.Offset, "shift"},
		{s.Width != was.Width, "width"},
		{s.Power != was.Power, "power"},
		{s.Mode != was.Mode, "mode"},
		{s.Where != was.Where, "where"},
		{s.Aerial != was.Aerial, "aerial"},
	} {
		if x.differs {
			out = append(out, x.name)
		}
	}
	return out
}

// Try is one try with what came of it. Of Listen and Ask, Back says whether it is heard;
// of Look, whether no tone is sent.
type Try struct {
	Kind    Kind
	Setting Setting
	Back    bool
}

// Listings is how far what is published agrees.
type Listings string

// How far what is published agrees.
const (
	Agree  Listings = "agree"
	Differ Listings = "differ"
	Stale  Listings = "stale" // what there is is old
	None   Listings = "none"  // nothing is published
)

// Facts are what is known of a channel before anything is tried.
type Facts struct {
	Start     Setting
	Tones     []tone.Tone   // published, other than the one that is set
	Offsets   []freq.Offset // published or of the band plan, other than the one that is set
	Tone      Listings      // how far listings agree on the tone
	Shift     Listings
	Width     bool    // a listing says the other width
	Reach     float64 // distance, in horizons; 0 for not known
	OffAir    bool    // published as off the air, or closed
	SendsTone bool    // a tone is set
}

//go:embed causes.yaml
var causesYAML []byte

// Place is where one stands, with how often something comes back there.
type Place struct {
	ID, Says           string
	Works, Weak, Noise float64
}

// Aerial is what one has, with how much better it is heard than a short whip.
type Aerial struct {
	ID, Says string
	Gain     float64
}

// weights are those of one cause, by what is published.
type weights struct {
	ID, Says, Short                                            string
	Weight, Differ, Stale, None, Half, Edge, Beyond, Published float64
}

type book struct {
	Basis, AsOf                            string
	Where                                  []Place
	Aerials                                []Aerial
	Leak, Rarely, Ident, Asked, Shown, Two float64
	Causes                                 []weights
}

var data = func() (b book) {
	var raw struct {
		Basis   string
		AsOf    string `yaml:"as_of"`
		Where   []Place
		Aerials []Aerial
		Leak    float64
		Rarely  float64
		Ident   float64
		Asked   float64
		Shown   float64
		Two     float64
		Causes  []weights
	}
	if err := yaml.UnmarshalWithOptions(causesYAML, &raw, yaml.Strict()); err != nil {
		panic(fmt.Sprintf("causes: %v", err)) // embedded: cannot fail in a built binary
	}
	return book(raw)
}()

// Basis says what the weights rest on.
func Basis() string { return data.Basis }

// Places are where one can stand, from the worst to the best.
func Places() []Place { return slices.Clone(data.Where) }

// Aerials are what one can have, from the worst to the best.
func Aerials() []Aerial { return slices.Clone(data.Aerials) }

// Words says where one stood, or the aerial, by its name in the data.
func Words(id string) string {
	for _, p := range data.Where {
		if p.ID == id {
			return p.Says
		}
	}
	for _, a := range data.Aerials {
		if a.ID == id {
			return a.Says
		}
	}
	return id
}

func placeOf(id string) Place {
	for _, p := range data.Where {
		if p.ID == id {
			return p
		}
	}
	return data.Where[1]
}

func gainOf(id string) float64 {
	for _, a := range data.Aerials {
		if a.ID == id {
			return a.Gain
		}
	}
	return 1
}
