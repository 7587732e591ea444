package template

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mnemos/core/channel"
	"mnemos/core/entry"
	"mnemos/core/freq"
	"mnemos/core/table"
	"mnemos/core/tone"
)

func lines(r *rapid.T) []table.Line {
	return rapid.SliceOfN(rapid.Custom(func(r *rapid.T) table.Line {
		c := channel.New(freq.Hz(rapid.Int64Range(28_000, 1_300_000).Draw(r, "kHz") * 1000))
		if rapid.Bool().Draw(r, "fine") {
			c.Receive += 250
		}
		c.Name = strings.TrimSpace(rapid.OneOf(rapid.StringMatching(`[A-Za-z0-9 =+\-]{0,10}`), rapid.SampledFrom([]string{"1E5", "023", "+0.6"})).Draw(r, "name"))
		switch rapid.IntRange(0, 3).Draw(r, "side") {
		case 0:
			c.Side = channel.ShiftSide(freq.Offset(rapid.Int64Range(-9_000, 9_000).Draw(r, "offset") * 1000))
		case 1:
			c.Side = channel.SplitSide(c.Receive + freq.Hz(rapid.Int64Range(1, 9_000).Draw(r, "split")*1000))
		case 2:
			c.Side = channel.TransmitSide{Kind: channel.Blocked}
		}
		tones := rapid.SampledFrom([]string{"none", "67.0", "254.1", "D023N", "D754I"})
		c.TransmitTone, c.ReceiveTone = tone.MustParse(tones.Draw(r, "out")), tone.MustParse(tones.Draw(r, "in"))
		c.Width = rapid.SampledFrom([]channel.Width{channel.Wide, channel.Narrow}).Draw(r, "width")
		c.Power = rapid.SampledFrom([]channel.Power{channel.High, channel.Mid, channel.Low}).Draw(r, "power")
		return table.Line{Slot: rapid.IntRange(1, 99).Draw(r, "slot"), Short: rapid.StringMatching(`[A-Z0-9]{0,6}`).Draw(r, "short"), Scan: rapid.SampledFrom([]entry.Scan{entry.ScanYes, entry.ScanSkip, entry.ScanPriority}).Draw(r, "scan"), Channel: c}
	}), 1, 5).Draw(r, "lines")
}

func templates(r *rapid.T) Template {
	t := Template{Name: "Mine", Comma: rapid.Bool().Draw(r, "comma"), Divide: rapid.SampledFrom([]string{";", "\t"}).Draw(r, "divide"), Heading: rapid.Bool().Draw(r, "heading")}
	fields := rapid.Permutation(Fields).Draw(r, "fields")[:rapid.IntRange(1, len(Fields)).Draw(r, "columns")]
	if !slices.ContainsFunc(fields, func(x Info) bool { return x.Of == Receive }) {
		fields = append(fields, Fields[3])
	}
	for i, f := range fields {
		c := Column{Of: f.Of, Heading: fmt.Sprint("h", i), Text: "const"}
		if f.Frequency {
			c.Unit, c.Decimals = rapid.SampledFrom([]string{"MHz", "kHz", "Hz"}).Draw(r, "unit"), rapid.IntRange(0, 6).Draw(r, "decimals")
			if c.Unit == "Hz" {
				c.Decimals = 0
			}
		}
		if len(f.Words) > 0 && rapid.Bool().Draw(r, "own words") {
			c.Words = map[string]string{}
			for j, w := range f.Words {
				c.Words[w] = fmt.Sprintf("w%d", j)
			}
			if rapid.Bool().Draw(r, "an empty one") {
				c.Words[f.Words[0]] = ""
			}
		}
		t.Columns = append(t.Columns, c)
	}
	return t
}

// TestEqualOrListed: whatever the columns and the channels, a row that is written
// reads back as the channel, or says exactly what is not in it; what must not
// transmit never comes back as something that does, and never on another frequency.
func TestEqualOrListed(t *testing.T) {
	rapid.Check(t, func(r *rapid.T) {
		tp := templates(r)
		require.Empty(r, tp.Check())
		in := lines(r)
		rows, lost := tp.Write(in)
		if tp.Heading {
			rows = rows[1:]
		}
		out, listed := map[int]bool{}, map[int]string{}
		for _, l := range lost {
			if strings.HasPrefix(l.Why, "left out") {
				out[slices.IndexFunc(in, func(x table.Line) bool { return x.Slot == l.Slot && x.Channel.Name == l.Name })] = true
			} else {
				listed[l.Slot] += l.Why
			}
		}
		n := 0
		for _, row := range rows {
			for n < len(in) { // which line it is of: those that were left out are not there
				alone, _ := tp.Write(in[n : n+1])
				if tp.Heading {
					alone = alone[1:]
				}
				n++
				if len(alone) == 1 {
					require.Equal(r, alone[0], row)
					break
				}
			}
			want := in[n-1]
			got, err := tp.Read(row)
			require.NoError(r, err)
			tx, sends := want.Channel.Transmit()
			now, would := got.Channel.Transmit()
			require.False(r, would && !sends, "it must not transmit")
			require.True(r, !would || tx == now, "another transmit frequency")
			require.Equal(r, want.Channel.Receive, got.Channel.Receive)
			for what, same := range map[string]bool{
				"slot": want.Slot == got.Slot, "name": want.Channel.Name == got.Channel.Name, "short name": want.Short == got.Short, "scanning": want.Scan == got.Scan,
				"transmit side": sends == would, "tone sent": want.Channel.TransmitTone == got.Channel.TransmitTone, "tone heard": want.Channel.ReceiveTone == got.Channel.ReceiveTone,
				"width": want.Channel.Width == got.Channel.Width, "power": want.Channel.Power == got.Channel.Power,
			} {
				if !same {
					require.Contains(r, listed[want.Slot], what)
				}
			}
		}
	})
}

// TestByHand is two rows as a person would write them for a tool of their own.
func TestByHand(t *testing.T) {
	c := channel.New(146_940_000)
	c.Name, c.Side = "Marran", channel.ShiftSide(-600_000)
	c.TransmitTone = tone.MustParse("88.5")
	wx := channel.New(162_475_000)
	wx.Name, wx.Side = "Weather", channel.TransmitSide{Kind: channel.Blocked}
	in := []table.Line{{Slot: 7, Scan: entry.ScanYes, Channel: c}, {Slot: 15, Scan: entry.ScanSkip, Channel: wx}}
	tp := Template{Name: "Club", Comma: true, Divide: ";", Heading: true, Columns: []Column{
		{Of: Slot, Heading: "No"},
		{Of: Receive, Heading: "Hear", Unit: "MHz", Decimals: 4},
		{Of: Way, Heading: "Dir", Words: map[string]string{"simplex": "S", "up": "+", "down": "-", "none": "RX"}},
		{Of: Size, Heading: "By", Unit: "kHz"},
		{Of: Out, Heading: "PL"},
		{Of: Name, Heading: "Name"},
		{Of: Fixed, Heading: "Mode", Text: "FM"},
	}}
	require.Empty(t, tp.Check())
	rows, lost := tp.Write(in)
	assert.Equal(t, [][]string{{"No", "Hear", "Dir", "By", "PL", "Name", "Mode"}, {"7", "146,9400", "-", "600", "88.5", "Marran", "FM"}, {"15", "162,4750", "RX", "0", "none", "Weather", "FM"}}, rows)
	assert.Equal(t, []Lost{{15, "Weather", "scanning not in it"}}, lost)

	// Without a way to say receive-only the weather is left out.
	tp.Columns = slices.Delete(tp.Columns, 2, 4)
	_, lost = tp.Write(in)
	assert.Equal(t, []Lost{{7, "Marran", "left out: by these columns it would receive on 146.940 and transmit on 146.940"}, {15, "Weather", "left out: no column says that it must not transmit"}}, lost[:2])
}

// TestFaults names what is wrong with a template, column by column.
func TestFaults(t *testing.T) {
	ok := Template{Name: "x", Divide: ",", Columns: []Column{{Of: Receive, Unit: "MHz"}}}
	for says, f := range map[string]func(*Template){
		"up to 40 characters": func(t *Template) { t.Name = " " }, "1 to 60 columns": func(t *Template) { t.Columns = nil }, "a comma, a semicolon or a tab": func(t *Template) { t.Divide = "|" },
		"do not go together": func(t *Template) { t.Comma = true }, "is not a field": func(t *Template) { t.Columns[0].Of = "colour" }, "MHz, kHz or Hz": func(t *Template) { t.Columns[0].Unit = "GHz" },
		"0 to 6 decimals": func(t *Template) { t.Columns[0].Decimals = 7 }, "receive frequency": func(t *Template) { t.Columns[0] = Column{Of: Slot} },
		"nobody could read it back": func(t *Template) {
			t.Columns = append(t.Columns, Column{Of: Lock, Words: map[string]string{"yes": "x", "no": "x"}})
		},
		"not a word of this field": func(t *Template) {
			t.Columns = append(t.Columns, Column{Of: Lock, Words: map[string]string{"maybe": "x"}})
		},
		"would be a formula": func(t *Template) {
			t.Columns = append(t.Columns, Column{Of: Lock, Words: map[string]string{"yes": "=HYPERLINK(1)"}})
		},
		"one line": func(t *Template) { t.Columns[0].Heading = "a\tb" },
	} {
		tp := ok
		tp.Columns = slices.Clone(ok.Columns)
		f(&tp)
		var all []string
		for _, x := range tp.Check() {
			all = append(all, x.Text)
		}
		assert.Contains(t, strings.Join(all, "; "), says)
	}
	assert.Empty(t, ok.Check())
	for row, says := range map[string]string{"abc": "not a number of MHz", "146.5": ""} {
		_, err := ok.Read([]string{row})
		if says == "" {
			require.NoError(t, err)
			continue
		}
		require.ErrorContains(t, err, says)
	}
}
