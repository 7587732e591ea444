package check

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"mnemos/core/channel"
	"mnemos/core/freq"
)

// TestMeetings: worked out by hand with 3 × 146.52 = 439.56 and the shifts of the
// two repeaters.
func TestMeetings(t *testing.T) {
	at := func(slot int, rx string, shift freq.Offset) Other {
		c := channel.New(freq.MustParse(rx + " MHz"))
		c.Side = channel.ShiftSide(shift)
		return Other{slot, c}
	}
	all := []Other{at(1, "146.52", 0), at(2, "439.56", -5_000_000), at(3, "147.06", 600_000), at(4, "148.26", -600_000), at(5, "147.66", 0), at(6, "439.58", 0), at(7, "146.52", 0)}
	o := NewOccupancy(all)
	said := func(slot int) (out []string) {
		for _, m := range o.Meetings(all[slot-1]) {
			out = append(out, string(m.Kind)+" "+all[m.Other-1].Channel.Receive.MHz())
		}
		return out
	}
	assert.Equal(t, []string{"harmonic 439.560"}, said(1), "439.58 is 20 kHz away")
	assert.Empty(t, said(2))
	assert.ElementsMatch(t, []string{"input 148.260", "output 147.660"}, said(3))
	assert.ElementsMatch(t, []string{"input 147.060", "output 147.660"}, said(4))
	assert.Empty(t, said(5), "simplex where two repeaters listen is told from their side")
	blocked := all[0]
	blocked.Channel.Side = channel.TransmitSide{Kind: channel.Blocked}
	assert.Empty(t, o.Meetings(blocked))
}
