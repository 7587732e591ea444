package table

import (
	"encoding/csv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mnemos/core/channel"
	"mnemos/core/entry"
	"mnemos/core/freq"
	"mnemos/core/tone"
)

// TestByHand is what a person types into a spreadsheet, and what is meant.
// Worked out by hand: transmit is receive and shift.
func TestByHand(t *testing.T) {
	heading := []string{"Slot", "name", "receive MHz", "transmit MHz", "shift", "tone sent", "tone received", "width", "power", "scan"}
	for _, c := range []struct{ row, want string }{
		{"7|Marran Light|146.94||600 kHz down|88.5|127.3|wide|high|yes", "146.94 -0.6 88.5/127.3"},
		{"|Quay|147,24|147.84||100|||low|skip", "147.24 147.84 100.0/none"},
		{"|Quay|147.24|147.84|600 kHz up||||| ", "147.24 +0.6 none/none"},
		{"|Van|446.0125|||D023N|D023N|narrow||", "446.0125 simplex D023N/D023N"},
		{"|Van|446.0125|446.0125|split||||| ", "446.0125 simplex none/none"},
		{"|Weather|162.475|none||||||", "162.475 none none/none"},
		{"|Weather|162.475|none|none|||||", "162.475 none none/none"},
	} {
		l, faults := Read(heading, strings.Split(c.row, "|"))
		require.Empty(t, faults, c.row)
		side := map[channel.Kind]string{channel.Simplex: "simplex", channel.Blocked: "none", channel.Split: l.Channel.Side.Frequency.MHz(), channel.Shift: l.Channel.Side.Offset.String()}[l.Channel.Side.Kind]
		assert.Equal(t, freq.MustParse(strings.Fields(c.want)[0]), l.Channel.Receive)
		want := strings.Fields(c.want)[1]
		if l.Channel.Side.Kind == channel.Shift {
			assert.Equal(t, freq.MustParseOffset(want), l.Channel.Side.Offset, c.row)
		} else if l.Channel.Side.Kind == channel.Split {
			assert.Equal(t, freq.MustParse(want), l.Channel.Side.Frequency, c.row)
		} else {
			assert.Equal(t, want, side, c.row)
		}
		assert.Equal(t, strings.Fields(c.want)[2], l.Channel.TransmitTone.String()+"/"+l.Channel.ReceiveTone.String(), c.row)
	}
	for row, says := range map[string]string{
		"x|Quay|147.24":                          `"x" is not a slot`,
		"1|Quay|abc":                             `"abc" is not a frequency`,
		"1|Quay|":                                "receive frequency",
		"1|Quay|147.24|147.84|600 kHz down":      "does not lead to the transmit frequency beside it, 147.840",
		"1|Quay|147.24||+600":                    "such as 600 kHz down",
		"1|Quay|147.24||split":                   "split needs a transmit frequency",
		"1|Quay|147.24|none|simplex":             "does not lead to the transmit frequency beside it, none",
		"1|Quay|147.24|||abc":                    "abc",
		"1|Quay|147.24|||||medium":               "write wide or narrow",
		"1|Quay|147.24||||||loud":                "write high, mid or low",
		"1|Quay|147.24|||||||maybe":              "write yes, skip or priority",
		"1|Quay|147.24||9 Hz up|100|1750":        "1750 Hz burst",
		"1|Quay|147.24||999999999 kHz up|100|88": "transmit frequency",
	} {
		_, faults := Read(heading, strings.Split(row, "|"))
		require.NotEmpty(t, faults, row)
		assert.Contains(t, faults[0].Message, says, row)
	}
	assert.True(t, Ours([]string{"RECEIVE MHZ", "name", ""}))
	assert.False(t, Ours([]string{"name", "slot"}), "without a frequency")
	assert.False(t, Ours([]string{"receive MHz", "PL (TX)"}), "with a column of somebody else")
}

func lines() *rapid.Generator[Line] {
	return rapid.Custom(func(r *rapid.T) Line {
		c := channel.New(freq.Hz(rapid.Int64Range(28_000_000, 1_300_000_000).Draw(r, "receive")))
		c.Name = strings.TrimSpace(rapid.OneOf(rapid.StringMatching(`[A-Za-z0-9 "'=+\-@/.,;äж]{0,12}`), rapid.SampledFrom([]string{"1E5", "023", "+0.6", "1-2", "Mar 3", "=1+1", "'", "''x", `"`, `"a`, "TRUE", "7%"})).Draw(r, "name"))
		switch rapid.IntRange(0, 3).Draw(r, "side") {
		case 0:
			c.Side = channel.ShiftSide(freq.Offset(rapid.Int64Range(-9_999_999, 9_999_999).Draw(r, "offset")))
		case 1:
			c.Side = channel.SplitSide(c.Receive + freq.Hz(rapid.Int64Range(1, 9_000_000).Draw(r, "split")))
		case 2:
			c.Side = channel.TransmitSide{Kind: channel.Blocked}
		}
		any := rapid.SampledFrom([]string{"none", "67.0", "100.0", "254.1", "D023N", "D754I"})
		c.TransmitTone = tone.MustParse(rapid.OneOf(any, rapid.Just("1750")).Draw(r, "out"))
		c.ReceiveTone = tone.MustParse(any.Draw(r, "in"))
		c.Width = rapid.SampledFrom([]channel.Width{channel.Wide, channel.Narrow}).Draw(r, "width")
		c.Power = rapid.SampledFrom([]channel.Power{channel.High, channel.Mid, channel.Low}).Draw(r, "power")
		return Line{rapid.IntRange(1, 999).Draw(r, "slot"), rapid.StringMatching(`[A-Z0-9/+\-]{0,6}`).Draw(r, "short"), rapid.SampledFrom([]entry.Scan{entry.ScanYes, entry.ScanSkip, entry.ScanPriority}).Draw(r, "scan"), c}
	})
}

// TestThereAndBack: whatever channels are copied, the same come back, by our own
// reader and by that of the standard library, and no cell is what a spreadsheet
// takes for a formula.
func TestThereAndBack(t *testing.T) {
	rapid.Check(t, func(r *rapid.T) {
		want := rapid.SliceOfN(lines(), 1, 5).Draw(r, "lines")
		text := TSV(want)
		rows := Rows(text)
		other := csv.NewReader(strings.NewReader(text))
		other.Comma, other.LazyQuotes = '\t', true
		all, err := other.ReadAll()
		require.NoError(r, err)
		require.Equal(r, all, rows)
		require.Len(r, rows, len(want)+1)
		require.True(r, Ours(rows[0]))
		for i, l := range want {
			for _, cell := range rows[i+1] {
				require.NotRegexp(r, `^[=+@\-]`, cell)
			}
			got, faults := Read(rows[0], rows[i+1])
			require.Empty(r, faults)
			require.Equal(r, l, got)
		}
	})
}

// TestGuard: whatever text is guarded comes back, and nothing of it begins a
// formula, in the cell or behind a semicolon or tab.
func TestGuard(t *testing.T) {
	rapid.Check(t, func(r *rapid.T) {
		s := rapid.StringMatching(`[;\t '=+@\-a1.]{0,10}`).Draw(r, "text")
		g := Guarded(s)
		require.Equal(r, s, Unguarded(g))
		for _, part := range strings.FieldsFunc(g, func(c rune) bool { return c == ';' || c == '\t' }) {
			require.NotRegexp(r, `^ *[=+@\-]`, part, "%q", g)
		}
	})
}
