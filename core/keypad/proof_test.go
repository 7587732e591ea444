package keypad_test

import (
	"fmt"
	"math/rand/v2"
	"os"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"sync"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/core/channel"
	"mnemos/core/freq"
	"mnemos/core/handset"
	"mnemos/core/keypad"
	"mnemos/core/radio"
	"mnemos/core/tone"
)

// size is how many channels each radio gets, and how many of their sheets are
// spoiled. make proof asks for more (MNEMOS_PROOF channels, and a tenth as many
// spoiled sheets).
func size(t *testing.T) (channels, spoiled int) {
	if s := os.Getenv("MNEMOS_PROOF"); s != "" {
		n, err := strconv.Atoi(s)
		require.NoError(t, err)
		return n, n / 10
	}
	return 1000, 10
}

// drawChannel draws a channel that a radio may be asked to hold: mostly inside
// its ranges, of every kind, with every tone.
func drawChannel(r *rand.Rand, p *radio.Profile) channel.Channel {
	spans := p.Transmit
	if r.IntN(4) == 0 {
		spans = p.Receive
	}
	s := spans[r.IntN(len(spans))]
	step := p.Steps[r.IntN(len(p.Steps))]
	rx := s.Lower + freq.Hz(r.Int64N(int64(s.Upper-s.Lower)))/step*step
	rx = rx / step * step
	c := channel.New(max(rx, (s.Lower+step-1)/step*step))
	switch r.IntN(6) {
	case 0:
		c.Side = channel.TransmitSide{Kind: channel.Blocked}
	case 1: // simplex
	case 2:
		c.Side = channel.SplitSide(c.Receive.Add(p.Offsets.Resolution * freq.Offset(1+r.IntN(400)) * freq.Offset(1-2*r.IntN(2))))
	default:
		o := []string{"-0.6", "+0.6", "+5", "-5", "-7.6", "+1.6", "-0.1", "-0.5"}[r.IntN(8)]
		c.Side = channel.ShiftSide(freq.MustParseOffset(o))
	}
	c.TransmitTone, c.ReceiveTone = drawTone(r), drawTone(r)
	switch r.IntN(6) {
	case 0:
		c.TransmitTone = tone.Burst1750
	case 1, 2:
		c.ReceiveTone = c.TransmitTone
	case 3:
		c.ReceiveTone = tone.Off
	}
	c.Width = []channel.Width{channel.Wide, channel.Narrow}[r.IntN(2)]
	c.Power = []channel.Power{channel.High, channel.Mid, channel.Low}[r.IntN(3)]
	return c
}

func drawTone(r *rand.Rand) tone.Tone {
	switch r.IntN(3) {
	case 0:
		return tone.Off
	case 1:
		code, err := tone.NewDCS(tone.DCS104[r.IntN(len(tone.DCS104))], r.IntN(3) == 0)
		if err != nil {
			panic(err) // a code of the table
		}
		return code
	}
	t, err := tone.NewCTCSS(tone.CTCSS50[r.IntN(len(tone.CTCSS50))])
	if err != nil {
		panic(err) // a tone of the table
	}
	return t
}

func drawWanted(r *rand.Rand, p *radio.Profile) keypad.Wanted {
	w := keypad.Wanted{Channel: drawChannel(r, p), Slot: p.Slots.First + r.IntN(p.Slots.Last-p.Slots.First+1)}
	if r.IntN(5) == 0 {
		w.Forbidden = "no licence for it"
	}
	if p.Names.Keypad && r.IntN(3) > 0 {
		letters := []rune(strings.TrimSpace(p.Names.Characters))
		name := make([]rune, 1+r.IntN(p.Names.Length))
		for i := range name {
			name[i] = letters[r.IntN(len(letters))]
		}
		w.Short = strings.Join(strings.Fields(string(name)), " ")
	}
	w.Skip, w.Priority = r.IntN(3) == 0, r.IntN(4) == 0
	return w
}

// memory is what a slot must hold, told from the channel as the radio holds it
// and not from the sheet.
type memory struct {
	receive, transmit freq.Hz
	sent, heard       tone.Tone
	width, power      string
	name              string
	skip, priority    bool
	locked            bool
	mode              string // the tone mode that this takes, for what must not be there before
}

func planned(w keypad.Wanted, p *radio.Profile) memory {
	c := w.Channel
	if w.Forbidden != "" {
		c.Side, c.TransmitTone = channel.TransmitSide{Kind: channel.Blocked}, tone.Off
	}
	c, _ = radio.Fit(c, p)
	m := memory{
		receive: c.Receive, sent: c.TransmitTone, heard: c.ReceiveTone, width: string(c.Width), power: string(c.Power),
		name: w.Short, skip: w.Skip && p.Crib[radio.Skip] != "", priority: w.Priority && p.Crib[radio.Priority] != "",
	}
	tx, transmits := c.Transmit()
	if m.transmit = tx; !transmits {
		m.transmit, m.power, m.sent, m.locked = 0, "", tone.Off, p.Lock
	}
	if mode, ok := p.Mode(c); ok {
		m.mode = string(mode)
	}
	if m.sent == tone.Burst1750 && p.Keying.Burst == "key" {
		m.sent = tone.Off
	}
	if len(p.Widths) == 1 {
		m.width = ""
	}
	return m
}

func found(h *handset.Handset, n int, p *radio.Profile, want memory) memory {
	s, ok := h.Slot(n)
	c, _ := h.Holds(n)
	if !ok {
		return memory{}
	}
	m := memory{
		receive: c.Receive, sent: c.TransmitTone, heard: c.ReceiveTone, width: string(c.Width), power: string(c.Power),
		name: s.Name, skip: s.Skip, priority: s.Priority, locked: s.Locked(), mode: want.mode,
	}
	m.transmit, _ = c.Transmit()
	if m.transmit == 0 {
		m.power = ""
	}
	if len(p.Widths) == 1 {
		m.width = ""
	}
	return m
}

// resting is the state in which the radio must be left, told from the profile.
func resting(h *handset.Handset, p *radio.Profile) string {
	var out []string
	want := map[radio.Setting]string{radio.ScanKey: "off", radio.DualWatchKey: "off", radio.Reverse: "off", radio.KeyLock: "off"}
	for s, v := range p.Keying.Resting {
		want[s] = v
	}
	if p.Lock {
		want[radio.Lock] = "off"
	}
	if p.Keying.StoresFrom != "" {
		want[radio.Line] = p.Keying.StoresFrom
	}
	for s, v := range want {
		if got := h.Get(s); got != v {
			out = append(out, fmt.Sprintf("%s %s, not %s", s, got, v))
		}
	}
	if p.Entry == radio.Split && h.Split() {
		out = append(out, "a split is left")
	}
	if h.InMemory() {
		out = append(out, "not in VFO")
	}
	slices.Sort(out)
	return strings.Join(out, "; ")
}

// TestEverySheetIsFollowed keys random channels into every radio, in random
// order, from a state in which every setting is different from its target, by
// nothing but the words of the sheet.
func TestEverySheetIsFollowed(t *testing.T) {
	channels, _ := size(t)
	for _, p := range radio.Profiles() {
		t.Run(p.ID, func(t *testing.T) {
			t.Parallel()
			r := rand.New(rand.NewPCG(9, uint64(len(p.ID))+uint64(p.ID[0])))
			if p.Keying.By == "cable" {
				for range channels {
					s := keypad.Write(drawWanted(r, p), p)
					require.Empty(t, s.Steps)
					require.NotEmpty(t, s.Reason)
				}
				return
			}
			h, err := handset.New(p)
			require.NoError(t, err)
			keyed, reasons := 0, 0
			for keyed < channels {
				w := drawWanted(r, p)
				s := keypad.Write(w, p)
				if s.Reason != "" {
					require.Empty(t, s.Steps)
					reasons++
					continue
				}
				want := planned(w, p)
				differs(h, r, w.Slot, want)
				require.NoError(t, h.Follow(s.Text()), "%+v\n%s", w, s.Text())
				require.Equal(t, want, found(h, w.Slot, p, want), "%+v\n%s", w, s.Text())
				require.Empty(t, resting(h, p), s.Text())
				require.Empty(t, s.Check)
				keyed++
			}
			assert.Less(t, reasons, 2*channels)
		})
	}
}

// differs puts the radio into a state in which every setting is unlike its
// target, with something else in the slot.
func differs(h *handset.Handset, r *rand.Rand, slot int, want memory) {
	direction := "off"
	if o := want.transmit.Sub(want.receive); want.transmit != 0 && o != 0 {
		direction = map[bool]string{true: "+", false: "−"}[o > 0]
	}
	h.Stir(r.IntN, slot, map[radio.Setting]string{
		radio.ShiftDirection: direction, radio.ToneMode: want.mode, radio.Burst: map[bool]string{true: "on", false: "off"}[want.sent == tone.Burst1750],
		radio.Width: want.width, radio.Power: want.power, radio.ToneOut: want.sent.String(), radio.ToneIn: want.heard.String(),
		radio.CodeOut: want.sent.String(), radio.CodeIn: want.heard.String(), radio.Lock: map[bool]string{true: "on", false: "off"}[want.locked],
	})
}

// ways in which a step goes wrong.
var ways = []string{"dropped", "doubled", "altered"}

// spoil returns a sheet with one step dropped, doubled or altered.
func spoil(r *rand.Rand, h *handset.Handset, s keypad.Sheet, at int, way string) string {
	lines := strings.Split(strings.TrimSpace(s.Text()), "\n")
	switch way {
	case "dropped":
		lines = slices.Delete(lines, at, at+1)
	case "doubled":
		lines = slices.Insert(lines, at, lines[at])
	default:
		head, keys, _ := strings.Cut(lines[at], ": ")
		lines[at] = head + ": " + alter(r, h, keys)
	}
	return strings.Join(lines, "\n")
}

var (
	typed = regexp.MustCompile(`type \d+`)
	shown = regexp.MustCompile(`until it shows ([^,]+?)([,.])`)
	keyed = regexp.MustCompile(`(?:press|hold|turn) ([A-Z0-9*#/.-]+)`)
)

// alter changes one thing in what a step says: a figure that is typed, a value
// that is waited for, or a key.
func alter(r *rand.Rand, h *handset.Handset, keys string) string {
	var options []string
	if at := typed.FindStringIndex(keys); at != nil {
		i := at[1] - 1 - r.IntN(at[1]-at[0]-len("type "))
		other := byte('0' + (int(keys[i]-'0')+1+r.IntN(9))%10)
		options = append(options, keys[:i]+string(other)+keys[i+1:])
	}
	if m := shown.FindStringSubmatchIndex(keys); m != nil {
		if other := otherValue(r, keys[m[2]:m[3]]); other != "" {
			options = append(options, keys[:m[2]]+other+keys[m[3]:])
		}
	}
	if all := keyed.FindAllStringSubmatchIndex(keys, -1); len(all) > 0 {
		m := all[r.IntN(len(all))]
		names := h.Keys()
		other := strings.TrimRight(strings.TrimPrefix(names[r.IntN(len(names))], "hold "), "+-")
		if other != keys[m[2]:m[3]] {
			options = append(options, keys[:m[2]]+other+keys[m[3]:])
		}
	}
	if len(options) == 0 {
		return keys
	}
	return options[r.IntN(len(options))]
}

// otherValue is a value that stands beside another on many radios.
func otherValue(r *rand.Rand, value string) string {
	for _, list := range [][]string{
		{"off", "on"},
		{"+", "−", "no shift mark"},
		{"wide", "narrow"},
		{"high", "mid", "low"},
		{"H", "M", "L"},
		{"5", "12.5", "20", "25", "10"},
		{"off", "tone", "tone squelch", "receive tone", "separate tones", "DCS"},
	} {
		if slices.Contains(list, value) {
			others := slices.DeleteFunc(slices.Clone(list), func(v string) bool { return v == value })
			return others[r.IntN(len(others))]
		}
	}
	if t, err := tone.Parse(value); err == nil && !t.IsOff() {
		return drawTone(r).String()
	}
	return ""
}

// ended is everything in which a radio can differ after a sheet, and the
// frequencies on which it could have been keyed on the way.
func ended(h *handset.Handset, text string, slot int) (state, keyable string, err error) {
	var on []string
	for _, line := range strings.Split(strings.TrimSpace(text), "\n") {
		if err = h.Line(line, nil); err != nil {
			break
		}
		f, _ := h.Keyable()
		if s := f.String(); len(on) == 0 || on[len(on)-1] != s {
			on = append(on, s)
		}
	}
	return h.State(slot), strings.Join(on, " "), err
}

// TestASpoiledSheetIsNoticed drops, doubles and alters steps: the handset
// stops, or the slot or the resting state is not as planned. What changes
// neither the end nor a frequency that could be keyed is no fault, and is
// counted apart.
func TestASpoiledSheetIsNoticed(t *testing.T) {
	_, sheets := size(t)
	var mu sync.Mutex
	counts := map[string]*spoils{}
	for _, way := range ways {
		counts[way] = &spoils{}
	}
	t.Run("radios", func(t *testing.T) {
		for _, p := range radio.Profiles() {
			if p.Keying.By == "cable" {
				continue
			}
			t.Run(p.ID, func(t *testing.T) {
				t.Parallel()
				r := rand.New(rand.NewPCG(77, uint64(p.ID[0])))
				for done := 0; done < sheets; {
					w := drawWanted(r, p)
					s := keypad.Write(w, p)
					if s.Reason != "" {
						continue
					}
					done++
					want, seed := planned(w, p), r.Uint64()
					start := func() *handset.Handset {
						h, err := handset.New(p)
						require.NoError(t, err)
						differs(h, rand.New(rand.NewPCG(seed, 1)), w.Slot, want)
						return h
					}
					h := start()
					state, keyable, err := ended(h, s.Text(), w.Slot)
					require.NoError(t, err)
					for at := range s.Steps {
						for _, way := range ways {
							h := start()
							text := spoil(r, h, s, at+1, way)
							if text == strings.TrimSpace(s.Text()) {
								continue
							}
							state2, keyable2, err := ended(h, text, w.Slot)
							noticed := err != nil || found(h, w.Slot, p, want) != want || resting(h, p) != ""
							mu.Lock()
							c := counts[way]
							switch {
							case noticed:
								c.noticed++
								if err != nil {
									c.stopped++
								}
							case state == state2 && keyable == keyable2:
								c.same++
							default:
								c.unnoticed++
								if c.unnoticed <= 3 {
									t.Logf("%s %q:\n%s\n%s\n%s\n%s", way, s.Steps[at], state, state2, keyable, keyable2)
								}
							}
							mu.Unlock()
						}
					}
				}
			})
		}
	})
	for _, way := range ways {
		c := *counts[way]
		share := float64(c.noticed) / float64(c.noticed+c.unnoticed)
		t.Logf("%s: %d noticed (%.2f %%; %d at the radio, by the words of the sheet), %d not; %d change nothing", way, c.noticed, 100*share, c.stopped, c.unnoticed, c.same)
		assert.GreaterOrEqual(t, share, 0.99, way)
		assert.Greater(t, c.noticed+c.unnoticed, 40, way)
	}
}
