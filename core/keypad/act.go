package keypad

import (
	"fmt"
	"strings"
)

// Act is one thing that the hands do, or the eyes look for, in a step.
type Act struct {
	Verb  string   // press, hold, turn, type, spell, see; "" for words of a crib as they stand
	Keys  []string // what is pressed, one after the other; of spell the letter key and the next key
	Other []string // the keys that go the other way
	Times int      // how often, where that is known; 0 for until it shows
	Shows string   // what must be seen then
	Text  string   // what is typed or spelled, or the words
}

// String is the act in the words of a sheet.
func (a Act) String() string {
	keys := strings.Join(a.Keys, " ")
	switch {
	case a.Verb == "see":
		return "it must show " + a.Shows
	case a.Verb == "type":
		return "type " + a.Text
	case a.Verb == "spell":
		return fmt.Sprintf("spell %s with %s and %s", a.Text, a.Keys[0], a.Keys[1])
	case a.Verb == "":
		return a.Text
	case a.Shows == "":
		return a.Verb + " " + keys
	case a.Times == 1:
		return fmt.Sprintf("%s %s once until it shows %s", a.Verb, keys, a.Shows)
	case a.Times > 1:
		return fmt.Sprintf("%s %s %d times until it shows %s", a.Verb, keys, a.Times, a.Shows)
	}
	if len(a.Other) > 0 && a.Verb != "turn" {
		keys += " or " + strings.Join(a.Other, " ")
	}
	return fmt.Sprintf("%s %s until it shows %s", a.Verb, keys, a.Shows)
}

// Words are acts in the words of a sheet.
func Words(acts []Act) string {
	parts := make([]string, len(acts))
	for i, a := range acts {
		parts[i] = a.String()
	}
	return strings.Join(parts, ", ")
}
