package evidence

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/core/band"
	"mnemos/core/channel"
	"mnemos/core/entry"
	"mnemos/core/freq"
	"mnemos/core/listing"
	"mnemos/core/tone"
)

func theCase(line string, meant *listing.Match) Case {
	us := band.MustLoad("us")
	return Case{Channel: entry.Read(line, us).Channel, Plan: us, Meant: meant, Fresh: true}
}

func marran(up, down listing.Stated) *listing.Match {
	return &listing.Match{Record: listing.Record{
		Key: "m", Output: freq.MustParse("146.940"), Input: freq.MustParse("146.340"), UplinkTone: up, DownlinkTone: down,
	}}
}

var (
	unknown = listing.Stated{}
	none    = listing.Says(tone.Off)
	t885    = listing.Says(tone.MustParse("88.5"))
	t1273   = listing.Says(tone.MustParse("127.3"))
)

func TestRows(t *testing.T) {
	rows := theCase("146.94 - 127.3/127.3", marran(t885, t1273)).Rows()
	require.Len(t, rows, 5)
	assert.Equal(t, Row{
		Field: channel.FieldShift, Entered: Cell{KindOffset, "-0.600"}, Published: Cell{KindOffset, "-0.600"}, Plan: Cell{KindOffset, "-0.600"}, Mark: FieldAgrees,
	}, rows[1])
	assert.Equal(t, Row{
		Field: channel.FieldTransmitTone, Entered: Cell{KindTone, "127.3"}, Published: Cell{KindTone, "88.5"}, Mark: FieldDiffers,
	}, rows[3])

	rows = theCase("146.94 -", marran(unknown, none)).Rows()
	assert.Equal(t, NoEvidence, rows[3].Mark, "an unknown tone is no evidence")
	assert.Equal(t, Cell{}, rows[3].Published)
	assert.Equal(t, FieldAgrees, rows[4].Mark, "an open receiver hears a repeater without a tone")

	assert.Len(t, theCase("162.475 rx only", nil).Rows(), 2, "nothing is said of a transmitter that is blocked")
	assert.Equal(t, FieldDiffers, theCase("147.39 +6", nil).Rows()[2].Mark, "outside the band")
}

func TestOverall(t *testing.T) {
	c := theCase("146.94 88.5", marran(t885, t1273))
	rows := c.Rows()
	assert.Equal(t, Agrees, c.Overall(rows, false, false, false))
	assert.Equal(t, Conflict, c.Overall(rows, false, true, false))
	assert.Equal(t, Stop, c.Overall(rows, true, true, true), "stop goes before conflict")
	assert.Equal(t, Unverified, c.Overall(rows, false, false, true), "something is to be looked at")
	c.Fresh = false
	assert.Equal(t, Unverified, c.Overall(rows, false, false, false), "an old listing is weak evidence")
}

// TestPath checks who would hear whom. Common practice, no source: a receiver
// with tone squelch opens only to its tone; an open one to everything.
func TestPath(t *testing.T) {
	for _, c := range []struct {
		name, line string
		meant      *listing.Match
		up, down   Passes
		lock       LockKind
	}{
		{"right", "146.94 88.5", marran(t885, t1273), Would, Would, LockTone},
		{"downlink sent as uplink", "146.94 127.3", marran(t885, t1273), WouldNot, Would, LockTone},
		{"squelch waits for another tone", "146.94 ts 88.5", marran(t885, t1273), Would, WouldNot, LockTone},
		{"carrier access", "146.94", marran(none, none), Would, Would, LockOpen},
		{"access unknown", "146.94", marran(unknown, unknown), Unknown, Would, LockUnknown},
		{"squelch, tone unknown", "146.94 ts 88.5", marran(t885, unknown), Would, Unknown, LockTone},
		{"burst", "146.94 1750", marran(listing.Says(tone.Burst1750), unknown), Would, Would, LockBurst},
		{"wrong input", "146.94 +", marran(t885, t885), WouldNot, Would, LockTone},
		{"nothing published", "146.94 88.5", nil, Unknown, Would, LockUnknown},
	} {
		p := theCase(c.line, c.meant).Path()
		require.NotNil(t, p.Up, c.name)
		assert.Equal(t, c.up, p.Up.Passes, "%s: up", c.name)
		assert.Equal(t, c.down, p.Down.Passes, "%s: down", c.name)
		assert.Equal(t, c.lock, p.Up.Lock, "%s: lock", c.name)
		assert.NotEmpty(t, p.Up.Says+p.Down.Says)
	}
	assert.True(t, theCase("146.94 + 88.5", marran(t885, t885)).Path().Up.Elsewhere)
	assert.False(t, theCase("146.94 127.3", marran(t885, t1273)).Path().Up.Elsewhere)
	// Two lists: the key that opens by one may not by the other.
	for line, says := range map[string]string{"146.94 - 88.5": "It may not hear you", "146.94 - 100": "It would not hear you"} {
		c := theCase(line, marran(t885, t885))
		c.Others = []listing.Match{*marran(t1273, t885)}
		up := c.Path().Up
		assert.Equal(t, says, up.Says, line)
		assert.Equal(t, []string{"88.5", "127.3"}, up.Either, line)
		assert.Equal(t, LockUnknown, up.Lock)
		c.Others = []listing.Match{*marran(t885, t1273)}
		assert.Empty(t, c.Path().Up.Either, "they agree about what opens it")
	}
	p := theCase("146.52 100/77", nil).Path()
	assert.Empty(t, p.Through)
	assert.Equal(t, WouldNot, p.Down.Passes, "two radios set alike with separate tones do not hear each other")
	assert.Nil(t, theCase("162.475 rx only", nil).Path().Up)
	assert.Equal(t, 13, KeyOf(tone.MustParse("103.5")).Index)
	assert.Greater(t, KeyOf(tone.MustParse("D023N")).Index, 50)
	assert.Equal(t, channel.Blocked, theCase("162.475", nil).Channel.Side.Kind)
}

// TestHeardPath: what the repeater answered to on the air decides what opens it, whatever is
// published.
func TestHeardPath(t *testing.T) {
	answered := func(line string, h Heard) *Leg {
		c := theCase(line, marran(t885, t885))
		h.Known = true
		c.Heard = h
		return c.Path().Up
	}
	down := freq.Offset(-600_000)
	for name, c := range map[string]struct {
		up     *Leg
		passes Passes
		says   string
		lock   LockKind
	}{
		"another tone, and it is sent":     {answered("146.94 127.3", Heard{Tone: t1273.Tone, Offset: down}), Would, "It heard you", LockTone},
		"another tone, and it is not sent": {answered("146.94 88.5", Heard{Tone: t1273.Tone, Offset: down}), WouldNot, "It would not hear you", LockTone},
		"none is needed":                   {answered("146.94 88.5", Heard{Offset: down}), Would, "It heard you", LockOpen},
		"others send it":                   {answered("146.94 127.3", Heard{Searched: true, Tone: t1273.Tone, Offset: down}), Would, "It would hear you", LockTone},
		"on another input":                 {answered("146.94 + 88.5", Heard{Tone: t885.Tone, Offset: down}), WouldNot, "It answered on 146.34", LockTone},
	} {
		assert.Equal(t, c.passes, c.up.Passes, name)
		assert.Contains(t, c.up.Says, c.says, name)
		assert.Equal(t, c.lock, c.up.Lock, name)
	}
}
