package handset

import (
	"maps"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/core/freq"
	"mnemos/core/radio"
)

func hand(t *testing.T, id string) *Handset {
	t.Helper()
	p, err := radio.Load(id)
	require.NoError(t, err)
	h, err := New(p)
	require.NoError(t, err)
	return h
}

// press presses keys between spaces; a key that is held is written hold-KEY.
func press(h *Handset, keys string) {
	for _, k := range strings.Fields(keys) {
		h.Press(strings.Replace(k, "hold-", "hold ", 1))
	}
}

// TestByHand presses keys and looks at the display, as the owner of the radio
// would. Every expected display was worked out from the profile by hand.
func TestByHand(t *testing.T) {
	for _, c := range []struct{ name, radio, keys, shows string }{
		{"a frequency", "trail", "1 4 6 9 4 0", "146.940"},
		{"its end made up by the step", "trail", "MENU 1 0 UP UP MENU 4 4 6 0 0 6", "446.006"}, // 2.5, 5, 6.25 kHz: 446.00625
		{"outside the range", "trail", "1 4 6 9 4 0 2 5 0 0 0 0", "146.940"},
		{"a shift", "trail", "1 4 6 9 4 0 SHIFT SHIFT", "− 146.940"},
		{"and its read-out", "trail", "1 4 6 9 4 0 MENU 1 6 0 0 0 6 0 0 MENU SHIFT SHIFT hold-REV", "− 146.340"},
		{"a size above the largest", "trail", "1 4 6 9 4 0 MENU 1 6 0 7 5 0 0 0 MENU SHIFT hold-REV", "+ 146.940"},
		{"a tone mode", "trail", "1 4 6 9 4 0 MENU 1 1 UP MENU", "T 146.940"},
		{"left without MENU", "trail", "1 4 6 9 4 0 MENU 1 1 UP SHIFT", "146.940"},
		{"a list wraps", "trail", "1 4 6 9 4 0 MENU 1 1 DOWN MENU", "DCS 146.940"},
		{"a list stops at its end", "ferry", "SET 0 2 DIAL- SET 1 4 6 9 4 0", "146.940"},
		{"automatic shift", "ferry", "SET 0 8 DIAL+ SET 1 4 6 9 4 0", "− 146.940"},
		{"also where nobody wants it", "ferry", "SET 0 8 DIAL+ SET 1 4 6 9 4 0 1 4 6 5 2 0", "146.520"},
		{"a table that nobody knows", "trail", "MENU 1 5 UP MENU 1 4 6 5 2 0", "+ 146.520"},
		{"four figures of MHz", "gale", "0 1 4 6 9 4 0", "146.940"},
		{"1.2 GHz", "gale", "1 2 9 6 5 0 0", "1296.500"},
		{"a knob", "beck", "DIAL+ DIAL+", "138.010"}, // 5 kHz steps from 138 MHz
		{"a split with its sign", "skerry", "1 4 6 9 4 0 MENU 2 1 * 0 0 0 6 0 0 MENU hold-REV", "sp 146.340"},
		{"a split does not follow to another band", "skerry", "1 4 6 9 4 0 MENU 2 1 * 0 0 0 6 0 0 MENU 4 4 6 0 0 0", "446.000"},
		{"and is there again", "skerry", "1 4 6 9 4 0 MENU 2 1 * 0 0 0 6 0 0 MENU 4 4 6 0 0 0 1 4 7 3 0 0", "sp 147.300"},
		{"key lock", "trail", "hold-LOCK 1 4 6 9 4 0", "136.000"},
		{"and off again", "trail", "hold-LOCK hold-LOCK 1 4 6 9 4 0", "146.940"},
		{"a locked transmitter", "cairn", "1 4 6 9 4 0 FUNC 9 hold-REV", "n 146.94"},
		{"an empty slot", "trail", "MODE 0 1 2", ""},
	} {
		h := hand(t, c.radio)
		press(h, c.keys)
		assert.Equal(t, c.shows, h.headline(), "%s: %s", c.name, c.keys)
	}
}

// TestSlots: storing, refusing, emptying, what is kept, and how long it takes.
func TestSlots(t *testing.T) {
	h := hand(t, "trail")
	press(h, "1 4 6 9 4 0 hold-STORE 0 1 2 STORE")
	c, ok := h.Holds(12)
	require.True(t, ok)
	assert.Equal(t, freq.MustParse("146.94"), c.Receive)

	press(h, "1 4 7 3 0 0 hold-STORE")
	h.Wait(5)
	press(h, "0 1 2 STORE")
	c, _ = h.Holds(12)
	assert.Equal(t, freq.MustParse("147.3"), c.Receive, "within five seconds, and it overwrites")
	press(h, "1 4 5 2 3 0 hold-STORE")
	h.Wait(6)
	press(h, "0 1 2 STORE")
	c, _ = h.Holds(12)
	assert.Equal(t, freq.MustParse("147.3"), c.Receive, "too late")

	press(h, "MODE 0 1 2 MENU 3 1 UP MENU MENU 3 0 UP UP OK MENU MODE")
	s, _ := h.Slot(12)
	assert.True(t, s.Skip)
	assert.Equal(t, "C", s.Name)
	press(h, "1 4 6 9 4 0 hold-STORE 0 1 2 STORE")
	s, _ = h.Slot(12)
	assert.True(t, s.Skip && s.Name == "C", "this radio keeps name and skip when it stores over a slot")
	press(h, "hold-DEL 0 1 2 DEL")
	_, ok = h.Slot(12)
	assert.False(t, ok)
	press(h, "hold-STORE 9 9 9 STORE")
	assert.True(t, h.Display().Beep, "no such slot")

	h = hand(t, "cairn")
	press(h, "1 4 6 9 4 0 hold-M 0 7 M 1 4 7 3 0 0 hold-M 0 7 M")
	c, _ = h.Holds(7)
	assert.Equal(t, freq.MustParse("146.94"), c.Receive, "it refuses an occupied slot")
	press(h, "hold-C 0 7 C hold-M 0 7 M")
	c, _ = h.Holds(7)
	assert.Equal(t, freq.MustParse("147.3"), c.Receive)

	h = hand(t, "lantern")
	press(h, "A/B 1 4 6 9 4 0 MENU 4 0 0 2 0 OK")
	_, ok = h.Slot(20)
	assert.False(t, ok, "it stores from the upper line only")

	h = hand(t, "ferry")
	press(h, "1 4 6 9 4 0 FUNC MW DIAL+ hold-MW")
	assert.True(t, h.InMemory(), "this radio shows the slot after a store")
	press(h, "FUNC MW DIAL+ hold-MW")
	_, ok = h.Slot(2)
	assert.False(t, ok, "and stores from the VFO only")
}

// TestTwoStores: the second store is the transmit side; what the slot had
// before stays if it is not emptied.
func TestTwoStores(t *testing.T) {
	h := hand(t, "beck")
	tune := func(f string) {
		require.NoError(t, h.Line("1. receive: turn DIAL until it shows "+f+".", nil))
	}
	tune("147.240")
	press(h, "FUNC MW MW")
	tune("147.840")
	press(h, "FUNC SPLIT MW")
	c, _ := h.Holds(1)
	assert.Equal(t, freq.MustParseOffset("+0.6"), c.Offset())
	tune("146.520")
	press(h, "FUNC MW MW")
	c, _ = h.Holds(1)
	assert.Equal(t, freq.MustParseOffset("+1.32"), c.Offset(), "a simplex channel stored over a pair still transmits on the old input")
	press(h, "FUNC DEL DEL FUNC MW MW")
	c, _ = h.Holds(1)
	assert.Zero(t, c.Offset())
	press(h, "FUNC DEL DEL FUNC SPLIT MW")
	_, ok := h.Slot(1)
	assert.False(t, ok, "no second store without a first")
}

// TestOneRegister: on a radio with one tone, setting the tone heard sets the
// tone sent too.
func TestOneRegister(t *testing.T) {
	h := hand(t, "ferry")
	press(h, "1 4 6 9 4 0 TONE TONE TONE SET 1 5 DIAL+ SET FUNC MW hold-MW")
	c, _ := h.Holds(0)
	assert.Equal(t, "69.3", c.TransmitTone.String())
	assert.Equal(t, c.TransmitTone, c.ReceiveTone)
	h = hand(t, "moor") // two registers: tone squelch sends one and waits for the other
	press(h, "0 0 5 1 0 0 0")
	press(h, "1 4 6 9 4 0 0 PAGE 3 1 DIAL+ DIAL+ DIAL+ PAGE PAGE 3 2 DIAL+ PAGE hold-M 0 0 1 M")
	c, _ = h.Holds(1)
	assert.Equal(t, []string{"69.3", "67.0"}, []string{c.TransmitTone.String(), c.ReceiveTone.String()})
}

// TestLines follows single lines of a sheet, and refuses those that are not so.
func TestLines(t *testing.T) {
	for _, c := range []struct{ radio, line, wrong string }{
		{"trail", "1. tuning step 20 kHz: press MENU 1 0, press UP or DOWN until it shows 20, press MENU.", ""},
		{"trail", "1. tuning step: press MENU 1 0, press UP or DOWN until it shows 7, press MENU.", "never shows"},
		{"trail", "1. shift direction: press SHIFT until it shows ±.", "never shows"},
		{"trail", "1. shift direction off: press SHIFT until it shows no shift mark.", ""},
		{"trail", "1. check: it must show 146.940.", "it shows"},
		{"trail", "1. check: it must show 136.000, hold REV, it must show ----, and nothing is sent.", ""},
		{"trail", "1. check: press PTT, and nothing is sent.", "it transmits"},
		{"trail", "1. store in slot 12: hold STORE, type 012, press STORE, each within 5 seconds.", ""},
		{"trail", "1. store in slot 12: hold STORE, type 012, press STORE, each within 6 seconds.", "does nothing"},
		{"trail", "1. name: press MENU 3 0, spell 9A with UP and OK, press MENU.", "does nothing"}, // no slot is shown
		{"trail", "1. keys: press FROG.", "does nothing"},
		{"trail", "1. dance: hop on one leg.", "cannot be followed"},
		{"trail", "nothing", "nothing to do"},
		{"trail", "Start with: scan off, dual watch off, reverse off, key lock off.", ""},
		{"trail", "Start with: scan on.", "it is not"},
		{"trail", "Start with: a clear head.", "nobody knows"},
		{"trail", "Leave it with: VFO, tuning step 2.5 kHz, automatic shift off, transmit lock off.", ""},
		{"harrier", "1. tone: press SET 1 2, press UP 3 times until it shows 74.4, press SET.", ""},
		{"harrier", "1. tone: press SET 1 2, press UP 2 times until it shows 74.4, press SET.", "after 2 presses"},
	} {
		err := hand(t, c.radio).Line(c.line, nil)
		if c.wrong == "" {
			assert.NoError(t, err, c.line)
		} else {
			assert.ErrorContains(t, err, c.wrong, c.line)
		}
	}
}

// TestRefused: radios that cannot be followed say why.
func TestRefused(t *testing.T) {
	for _, c := range []struct {
		change func(*radio.Profile)
		says   string
	}{
		{func(p *radio.Profile) { p.Keying.By = "cable" }, "filled by cable"},
		{func(p *radio.Profile) { p.Keying.By = "" }, "does not say how it is keyed"},
		{func(p *radio.Profile) { p.Keying.Figures = 0 }, "how many figures are typed (receive)"},
		{func(p *radio.Profile) { p.Keying.SlotFigures = 0 }, "how many figures are typed"},
		{func(p *radio.Profile) { p.Names.Characters = "" }, "no characters"},
		{func(p *radio.Profile) { p.Crib = radio.Crib{radio.Step: "menu 5 on mine"} }, "cannot be followed key by key (tuning step)"},
		{func(p *radio.Profile) {
			p.Crib = radio.Crib{radio.Step: "press MENU 1", radio.Power: "press MENU 1 2"}
		}, "the keys MENU 1 begin the keys MENU 1 2"},
	} {
		p, err := radio.Load("trail")
		require.NoError(t, err)
		q := *p
		c.change(&q)
		_, err = New(&q)
		assert.ErrorContains(t, err, c.says)
	}
}

// TestNothingSendsByItself: whatever the owner writes for what sends by itself, no key of it is
// on the handset, and no sequence of it is known.
func TestNothingSendsByItself(t *testing.T) {
	shipped, err := radio.Load("trail")
	require.NoError(t, err)
	for _, s := range []radio.Setting{radio.RelayKey, radio.ModemKey, radio.PositionKey, radio.BeaconKey} {
		p := *shipped
		p.Crib = maps.Clone(p.Crib)
		p.Crib[s] = "press BCN, press UP or DOWN until it shows"
		h, err := New(&p)
		require.NoError(t, err, s)
		assert.NotContains(t, h.Keys(), "BCN", s)
		assert.NotContains(t, h.bindings, "BCN", s)
	}
}

// TestOddProfiles: what a profile may lack does not stop the radio.
func TestOddProfiles(t *testing.T) {
	for _, change := range []func(*radio.Profile){
		func(p *radio.Profile) { p.Transmit = nil },
		func(p *radio.Profile) { p.Display = radio.Display{Decimals: 9} },
		func(p *radio.Profile) { p.Display.Decimals = -2 },
		func(p *radio.Profile) { p.Widths = nil },
		func(p *radio.Profile) { p.Names.Length = 0 },
		func(p *radio.Profile) { p.Keying.Modes = nil },
		func(p *radio.Profile) { p.CTCSS, p.DCS = 0, 0 },
		func(p *radio.Profile) { p.Slots = radio.Slots{First: 5, Last: 5} },
		func(p *radio.Profile) { p.Receive = p.Receive[:1]; p.Receive[0].Upper = p.Receive[0].Lower },
	} {
		for _, shipped := range radio.Profiles() {
			if shipped.Keying.By != "keypad" {
				continue
			}
			p := *shipped
			p.Receive = slices.Clone(p.Receive)
			change(&p)
			h, err := New(&p)
			require.NoError(t, err)
			h.Stir(rand.New(rand.NewPCG(3, 4)).IntN, p.Slots.First, nil)
			for _, k := range slices.Concat(h.Keys(), h.Keys(), h.Keys()) {
				h.Press(k)
				require.NotEmpty(t, h.Display().Says)
			}
		}
	}
}

// FuzzPress: no sequence of keys or lines stops the radio.
func FuzzPress(f *testing.F) {
	f.Add("trail", "MENU 1 0 UP MENU", "1. x: press MENU 1 2, type 000, spell A with UP and OK.")
	f.Add("beck", "FUNC MW DIAL+ MW DIAL-", "1. x: turn DIAL until it shows 999.")
	f.Add("skerry", "MENU 2 1 * 0 0 0 6 0 0", "Leave it with: split off, power high.")
	f.Add("ferry", "V/M DIAL- hold-REV SET 3 0 DIAL- TONE SET", "1. x: press UP 99999999999999999999 times until it shows 1.")
	f.Fuzz(func(t *testing.T, id, keys, line string) {
		p, err := radio.Load(id)
		if err != nil || p.Keying.By != "keypad" {
			return
		}
		h, err := New(p)
		require.NoError(t, err)
		press(h, keys)
		h.Wait(len(line))
		_ = h.Line(line, nil) // may be refused
		d := h.Display()
		require.NotEmpty(t, d.Says)
		if tx, ok := h.Keyable(); ok {
			require.True(t, p.CanTransmit(tx))
		}
	})
}
