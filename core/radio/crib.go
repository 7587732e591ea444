package radio

import (
	"regexp"
	"strings"
)

// Setting is one thing that a person sets, or does, at a radio.
type Setting string

// The settings of a radio, and what is done with its slots.
const (
	VFO            Setting = "vfo"
	Step           Setting = "step"
	AutoShift      Setting = "automatic_shift"
	ShiftDirection Setting = "shift_direction"
	ShiftSize      Setting = "shift_size"
	Receive        Setting = "receive"
	Transmit       Setting = "transmit"
	Lock           Setting = "block_transmit"
	ToneMode       Setting = "tone_mode"
	ToneOut        Setting = "tone_out"
	ToneIn         Setting = "tone_in"
	CodeOut        Setting = "code_out"
	CodeIn         Setting = "code_in"
	Burst          Setting = "burst"
	Width          Setting = "width"
	Power          Setting = "power"
	ReadOut        Setting = "read_out"
	Delete         Setting = "delete"
	Store          Setting = "store"
	StoreTransmit  Setting = "store_transmit"
	Recall         Setting = "recall"
	Name           Setting = "name"
	Skip           Setting = "skip"
	Priority       Setting = "priority"
	ScanKey        Setting = "scan"
	DualWatchKey   Setting = "dual_watch"
	Reverse        Setting = "reverse"
	KeyLock        Setting = "key_lock"
	Line           Setting = "line"
	RelayKey       Setting = "relay"
	ModemKey       Setting = "modem"
	PositionKey    Setting = "position"
	BeaconKey      Setting = "beacon"
)

// Cribs are the settings in the order in which a profile asks for them, each
// with the words of a sheet.
var Cribs = []struct {
	Setting Setting
	Label   string
}{
	{VFO, "VFO"},
	{Step, "tuning step"},
	{AutoShift, "automatic shift"},
	{Receive, "receive"},
	{ShiftDirection, "shift direction"},
	{ShiftSize, "shift size"},
	{Transmit, "transmit frequency or split"},
	{Lock, "transmit lock"},
	{ToneMode, "tone mode"},
	{ToneOut, "tone sent"},
	{ToneIn, "tone heard"},
	{CodeOut, "code sent"},
	{CodeIn, "code heard"},
	{Burst, "tone burst"},
	{Width, "bandwidth"},
	{Power, "power"},
	{ReadOut, "show the transmit frequency"},
	{Delete, "empty a slot"},
	{Store, "store in a slot"},
	{StoreTransmit, "store the transmit side"},
	{Recall, "recall a slot"},
	{Name, "name"},
	{Skip, "skip"},
	{Priority, "priority"},
	{ScanKey, "scan"},
	{DualWatchKey, "dual watch"},
	{Reverse, "reverse"},
	{KeyLock, "key lock"},
	{Line, "choose the line"},
	{RelayKey, "relay"},
	{ModemKey, "APRS modem on"},
	{PositionKey, "own position"},
	{BeaconKey, "beacon on"},
}

// Label is the setting in the words of a sheet; "" for one that is not known.
func (s Setting) Label() string {
	for _, c := range Cribs {
		if c.Setting == s {
			return c.Label
		}
	}
	return ""
}

// Printed reports whether the words for s are only ever printed: what they start sends by
// itself, so nothing that is followed key by key, and no drill, reaches it.
func (s Setting) Printed() bool {
	switch s {
	case RelayKey, ModemKey, PositionKey, BeaconKey:
		return true
	}
	return false
}

// Crib is where each setting of a radio is: keys and menus, in the words that
// stand on it. Words in the notation of Acts can be followed key by key;
// other words are printed as they are.
type Crib map[Setting]string

// ActKind is a kind of thing that a person does at the keys.
type ActKind int

// The kinds of acts.
const (
	Press   ActKind = iota // press keys, one after the other
	Hold                   // hold one key for a second
	Choose                 // press or turn until the display shows the value
	Digits                 // type the figures of a frequency or a size
	Number                 // type the number of a slot
	Spelled                // spell a name: one key turns the letter, another goes on
)

// Act is one act of a crib.
type Act struct {
	Kind  ActKind
	Keys  []string   // of Press, Hold and Spelled (the letter key, the next key)
	Ways  [][]string // of Choose: the keys to the next value, and those to the one before
	Turn  bool       // of Choose and Spelled: the key is a knob
	Shows string     // of Choose: what it must show, where that is always the same
}

var (
	pressed = regexp.MustCompile(`^press (` + keys + `)$`)
	held    = regexp.MustCompile(`^hold (` + key + `)$`)
	chosen  = regexp.MustCompile(`^(press|turn) (` + keys + `)(?: or (` + keys + `))? until it shows(?: (.+))?$`)
	spelled = regexp.MustCompile(`^spell with (` + key + `) and (` + key + `)$`)
)

const (
	key  = `[A-Z0-9*#▲▼][A-Z0-9*#./-]*`
	keys = key + `(?: ` + key + `)*`
)

// transmits finds words that ask for the key that transmits, by any of its
// names. The menu of a "TX tone" is another matter.
var transmits = regexp.MustCompile(`(?i)\bPTT\b|\b(?:press|hold|push|touch|squeeze|keep)\b[^,]*\b(?:TX|transmit|MIC|talk)\b`)

// Transmits reports whether words ask for the key that transmits. No sheet
// does.
func Transmits(words string) bool { return transmits.MatchString(words) }

// Acts reads a crib in the notation of docs/formats/radio-profile.md: parts
// between commas, each of them
//
//	press MENU 1 2
//	hold STORE
//	press UP or DOWN until it shows      (the value; or words of its own)
//	turn DIAL until it shows
//	type the digits                      (of a frequency or a size)
//	type the number                      (of a slot)
//	spell with DIAL and OK
//
// Keys are in capitals. ok is false for other words, and for words that name
// the key that transmits.
func Acts(crib string) (acts []Act, ok bool) {
	if Transmits(crib) {
		return nil, false
	}
	for _, part := range strings.Split(crib, ", ") {
		a, ok := act(strings.TrimSpace(part))
		if !ok {
			return nil, false
		}
		acts = append(acts, a)
	}
	return acts, len(acts) > 0
}

func act(part string) (Act, bool) {
	switch part {
	case "type the digits":
		return Act{Kind: Digits}, true
	case "type the number":
		return Act{Kind: Number}, true
	}
	if m := chosen.FindStringSubmatch(part); m != nil {
		a := Act{Kind: Choose, Turn: m[1] == "turn", Shows: m[4], Ways: [][]string{strings.Fields(m[2])}}
		if m[3] != "" {
			a.Ways = append(a.Ways, strings.Fields(m[3]))
		}
		if a.Turn {
			a.Ways = [][]string{{m[2] + "+"}, {m[2] + "-"}} // a knob turns both ways
		}
		return a, !a.Turn || m[3] == "" && !strings.Contains(m[2], " ")
	}
	if m := pressed.FindStringSubmatch(part); m != nil {
		return Act{Kind: Press, Keys: strings.Fields(m[1])}, true
	}
	if m := held.FindStringSubmatch(part); m != nil {
		return Act{Kind: Hold, Keys: []string{"hold " + m[1]}}, true
	}
	if m := spelled.FindStringSubmatch(part); m != nil {
		return Act{Kind: Spelled, Keys: []string{m[1], m[2]}}, true
	}
	return Act{}, false
}

// Opens returns the keys that begin a crib, and the acts that follow them.
func Opens(acts []Act) (opening []string, rest []Act) {
	for i, a := range acts {
		if a.Kind != Press && a.Kind != Hold {
			return opening, acts[i:]
		}
		opening = append(opening, a.Keys...)
	}
	return opening, nil
}
