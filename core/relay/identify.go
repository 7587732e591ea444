package relay

import "fmt"

// Identification is who says the callsign on a side of the vehicle, and when.
type Identification struct {
	Side    string
	Who     string // "" for nobody
	Minutes int    // between; 0: ask your authority
	Source  string
	Why     string
	By      Identity
}

// identifications go through the transmitters of the vehicle. What the person says on the
// link goes out on the other side, and identifies it; the side back to the person carries
// the words of others.
func identifications(s Setup) (out []Identification) {
	for _, letter := range []string{"A", "B"} {
		if s.silent(letter) {
			continue
		}
		i := Identification{Side: letter, Source: s.Plan.Identify.Source, Minutes: s.Plan.Identify.Minutes, By: s.identity(letter)}
		switch {
		case i.By == Automatic:
			i.Who, i.Why = s.Vehicle.Name, "it gives the callsign by itself, on both sides"
		case i.By == Operator:
			i.Who, i.Why = "you", "on the run card: you listen to the side and say your callsign on it"
		case linkSide(s) == other(letter):
			i.Who, i.Why = "you", "what you say on the link goes out here"
		default:
			i.Why = "what goes out here are the words of others; the transmitter is yours"
		}
		out = append(out, i)
	}
	return out
}

// silent reports whether a side of the vehicle never sends.
func (s Setup) silent(letter string) bool {
	if _, sends := s.side(letter).sends(); !sends || s.side(letter).Channel.Receive == 0 {
		return true
	}
	return letter == "A" && s.Way == Out || letter == "B" && s.Way == Back
}

func (s Setup) identity(letter string) Identity {
	if s.Vehicle.Radio != nil && s.Vehicle.Radio.Relay.Identifier {
		return Automatic
	}
	if letter == "A" {
		return s.IdentifyA
	}
	return s.IdentifyB
}

// often says how often, in words.
func (i Identification) often() string {
	if i.Minutes == 0 {
		return "as often as your authority asks"
	}
	return fmt.Sprintf("at the start, every %d minutes and at the end", i.Minutes)
}
