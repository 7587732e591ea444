package radio

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/core/channel"
	"mnemos/core/tone"
)

// TestActs reads cribs as owners write them.
func TestActs(t *testing.T) {
	for _, c := range []struct {
		crib string
		want []Act
	}{
		{"press MENU 1 2", []Act{{Kind: Press, Keys: []string{"MENU", "1", "2"}}}},
		{"hold V/M, type the number, hold V/M", []Act{{Kind: Hold, Keys: []string{"hold V/M"}}, {Kind: Number}, {Kind: Hold, Keys: []string{"hold V/M"}}}},
		{"press SHIFT until it shows", []Act{{Kind: Choose, Ways: [][]string{{"SHIFT"}}}}},
		{"press FUNC 6 until it shows", []Act{{Kind: Choose, Ways: [][]string{{"FUNC", "6"}}}}},
		{"press MODE until it shows VFO", []Act{{Kind: Choose, Ways: [][]string{{"MODE"}}, Shows: "VFO"}}},
		{"press UP or DOWN until it shows", []Act{{Kind: Choose, Ways: [][]string{{"UP"}, {"DOWN"}}}}},
		{"turn DIAL until it shows", []Act{{Kind: Choose, Ways: [][]string{{"DIAL+"}, {"DIAL-"}}, Turn: true}}},
		{"press MENU 7, type the digits, press MENU", []Act{{Kind: Press, Keys: []string{"MENU", "7"}}, {Kind: Digits}, {Kind: Press, Keys: []string{"MENU"}}}},
		{"spell with DIAL and OK", []Act{{Kind: Spelled, Keys: []string{"DIAL", "OK"}}}},
	} {
		got, ok := Acts(c.crib)
		assert.True(t, ok, c.crib)
		assert.Equal(t, c.want, got, c.crib)
	}
	for _, words := range []string{
		"", " ", "menu 12, tone sent", "press menu 12", "hold A B", "turn A B until it shows", "by cable only", "press MENU then 1", "press MENU,press 1",
		"hold PTT", "press FUNC PTT", "hold tx, press MENU", "press MIC until it shows", "type the digits, press TX",
	} {
		_, ok := Acts(words)
		assert.False(t, ok, "%q", words)
	}
	for _, says := range []string{"hold PTT", "press ptt, MENU", "press the TX key", "keep the transmit key down", "the PTT, twice"} {
		assert.True(t, Transmits(says), says)
	}
	for _, says := range []string{"press FUNC TXT", "menu 12, TX tone", "press MENU 2, transmit lock", "page 2, transmit frequency"} {
		assert.False(t, Transmits(says), says)
	}
}

func FuzzActs(f *testing.F) {
	for _, p := range Profiles() {
		for _, words := range p.Crib {
			f.Add(words)
		}
	}
	f.Fuzz(func(t *testing.T, words string) {
		acts, ok := Acts(words)
		if !ok {
			return
		}
		require.NotEmpty(t, acts)
		require.False(t, Transmits(words))
		for _, a := range acts {
			for _, k := range a.Keys {
				require.NotEmpty(t, strings.TrimSpace(k))
			}
		}
	})
}

// TestShippedProfilesSayEverything: every radio that ships can be keyed word
// by word, and its display tells apart what a person looks for.
func TestShippedProfilesSayEverything(t *testing.T) {
	for _, p := range Profiles() {
		assert.Empty(t, p.Unsaid(), p.ID)
		if p.Keying.By == "cable" {
			continue
		}
		for s, words := range p.Crib {
			acts, ok := Acts(words)
			if !ok {
				assert.True(t, s == Name || s == Burst || s.Printed(), "%s: %s %q", p.ID, s, words)
				continue
			}
			if acts[0].Kind != Choose || acts[0].Turn || acts[0].Shows != "" {
				continue
			}
			seen := map[string]string{}
			for _, v := range p.Values(s) {
				mark, ok := p.Mark(s, v)
				assert.True(t, ok, "%s: the display does not show %s %s", p.ID, s, v)
				assert.Empty(t, seen[mark], "%s: %s shows %q for two values", p.ID, s, mark)
				seen[mark] = v
			}
		}
		for _, need := range []Setting{VFO, Step, Receive, Power, Store, Recall} {
			assert.NotEmpty(t, p.Crib[need], "%s: %s", p.ID, need)
		}
		if p.Entry == Twice {
			assert.NotEmpty(t, p.Crib[StoreTransmit], p.ID)
		}
		if p.Lock {
			assert.NotEmpty(t, p.Crib[Lock], p.ID)
		}
		// Leftovers that no later sheet would see.
		assert.Contains(t, p.Keying.Resting, Step, p.ID)
		if p.Crib[AutoShift] != "" {
			assert.Contains(t, p.Keying.Resting, AutoShift, p.ID)
		}
		marks := map[string]Setting{}
		for s, shows := range p.Display.Shows {
			for _, m := range shows {
				if m == "" {
					continue
				}
				assert.Empty(t, marks[m], "%s: %q is the mark of two settings", p.ID, m)
				marks[m] = s
			}
		}
		for _, m := range p.Display.Modes {
			assert.Empty(t, marks[m], "%s: %q is a tone mark and another", p.ID, m)
		}
	}
}

// TestToneModes: which mode a channel takes on radios with different lists.
// Worked out by hand from the lists of the profiles.
func TestToneModes(t *testing.T) {
	for _, c := range []struct {
		radio, out, in string
		mode           Mode
		has            bool
	}{
		{"trail", "88.5", "", ModeTone, true},
		{"trail", "88.5", "88.5", ModeSquelch, true},
		{"trail", "88.5", "100.0", ModeSeparate, true},
		{"trail", "", "100.0", ModeReceive, true},
		{"trail", "D023N", "", ModeDCSSent, true},
		{"trail", "D023N", "D023N", ModeDCS, true},
		{"trail", "1750", "", ModeOff, true},
		{"trail", "88.5", "D023N", "", false},
		{"moor", "88.5", "100.0", ModeSquelch, true}, // two registers and no mode of its own for two tones
		{"ferry", "D023N", "", ModeDCSSent, false},   // it needs the code that it sends
		{"ferry", "1750", "", ModeBurst, true},
		{"ferry", "1750", "88.5", ModeBurst, false},
		{"cairn", "", "100.0", ModeReceive, false},
		{"harrier", "1750", "88.5", ModeReceive, true}, // a key of its own sends the burst
	} {
		ch := channel.New(146_940_000)
		if c.out != "" {
			ch.TransmitTone = tone.MustParse(c.out)
		}
		if c.in != "" {
			ch.ReceiveTone = tone.MustParse(c.in)
		}
		mode, ok := load(t, c.radio).Mode(ch)
		assert.Equal(t, c.has, ok, "%s %s/%s", c.radio, c.out, c.in)
		assert.Equal(t, c.mode, mode, "%s %s/%s", c.radio, c.out, c.in)
	}
}

// TestKeyingFaults are told with the field that is wrong.
func TestKeyingFaults(t *testing.T) {
	for key, bad := range map[string]string{
		"keyed_by": "telepathy", "frequency_digits": "3", "slot_digits": "2", "slot_seconds": "90", "store_line": "middle", "occupied": "explodes",
		"slot_keeps": "colour", "after_store": "bed", "tone_registers": "3", "tone_modes": "off, loud", "burst_by": "shouting",
		"stop_at_ends": "the world", "open_at_first": "doors", "resting": "tuning step 7",
	} {
		form := Form(load(t, "trail"))
		form[key] = bad
		_, faults := FromForm(*load(t, "trail"), form)
		if assert.NotEmpty(t, faults, key) {
			assert.Equal(t, key, faults[0].Field)
		}
	}
	form := Form(load(t, "trail"))
	form["resting"], form["slot_keeps"], form["tone_modes"] = "automatic shift on, power low", "name, priority", "off, tone, DCS sent"
	p, faults := FromForm(*load(t, "trail"), form)
	require.Empty(t, faults)
	assert.Equal(t, map[Setting]string{AutoShift: "on", Power: "low"}, p.Keying.Resting)
	assert.Equal(t, []Setting{Name, Priority}, p.Keying.Keeps)
	assert.Equal(t, []Mode{ModeOff, ModeTone, ModeDCSSent}, p.Keying.Modes)
	y, err := Write(load(t, "trail"))
	require.NoError(t, err)
	for _, c := range [][2]string{{"by: keypad", "by: wire"}, {"slot_keeps:", "slot_eats:"}, {"  vfo: press", "  veffo: press"}} {
		_, err := Read([]byte(strings.Replace(string(y), c[0], c[1], 1)))
		assert.Error(t, err, c[1])
	}
}
