package check

import (
	"fmt"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mnemos/core/band"
	"mnemos/core/channel"
	"mnemos/core/freq"
	"mnemos/core/listing"
	"mnemos/core/radio"
)

// TestRollFindsWhatAScanFinds holds the roll's searches against reading every
// channel.
func TestRollFindsWhatAScanFinds(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		var all []Other
		for i := range rapid.IntRange(0, 40).Draw(t, "channels") {
			c := channel.New(freq.Hz(146_000_000 + 5_000*rapid.Int64Range(0, 40).Draw(t, "receive")))
			c.Name = rapid.SampledFrom([]string{"", "A", "B"}).Draw(t, "name")
			c.Side = rapid.SampledFrom([]channel.TransmitSide{{Kind: channel.Simplex}, {Kind: channel.Blocked}, channel.ShiftSide(-600_000), channel.ShiftSide(50_000)}).Draw(t, "how")
			all = append(all, Other{Slot: i + 1, Channel: c})
		}
		r := NewOccupancy(all)
		lower := freq.Hz(146_000_000 + 5_000*rapid.Int64Range(-5, 45).Draw(t, "lower"))
		upper := lower + freq.Hz(rapid.Int64Range(0, 60_000).Draw(t, "width"))
		slots := func(list []Other) []int {
			out := []int{}
			for _, o := range list {
				out = append(out, o.Slot)
			}
			slices.Sort(out)
			return out
		}
		scan := func(fits func(Other) bool) []int {
			var out []Other
			for _, o := range all {
				if fits(o) {
					out = append(out, o)
				}
			}
			return slots(out)
		}
		assert.Equal(t, scan(func(o Other) bool { return o.Channel.Receive.Within(lower, upper) }), slots(r.receiving(lower, upper)))
		assert.Equal(t, scan(func(o Other) bool {
			tx, sends := o.Channel.Transmit()
			return sends && tx.Within(lower, upper)
		}), slots(r.sending(lower, upper)))
		assert.Equal(t, scan(func(o Other) bool { return o.Channel.Name == "A" }), slots(r.named("A")))
	})
}

// TestThirdHarmonic is worked by hand: 3 × 146.520 is 439.560 MHz, and what a
// wide channel hears of it reaches 15 kHz to either side.
func TestThirdHarmonic(t *testing.T) {
	ferry, err := radio.Load("ferry")
	require.NoError(t, err)
	require.Equal(t, radio.DualReceive, ferry.Receivers)
	low := channel.New(146_520 * freq.KHz)
	for _, c := range []struct {
		high freq.Hz
		hit  bool
	}{{439_560_000, true}, {439_575_000, true}, {439_545_000, true}, {439_575_001, false}, {439_544_999, false}, {439_600_000, false}} {
		high := channel.New(c.high)
		roll := NewOccupancy([]Other{{Slot: 1, Channel: low}, {Slot: 2, Channel: high}})
		for slot, ch := range map[int]channel.Channel{1: low, 2: high} {
			s := Subject{Channel: ch, Slot: &slot, Plan: band.MustLoad("us"), Radio: ferry, Occupancy: roll, Settings: Defaults(today)}
			assert.Equal(t, c.hit, of(Run(s), "harmonic") != nil, "%s seen from slot %d", c.high, slot)
		}
	}
}

// TestJudgeAll gives what judging one by one gives, in the order of the
// subjects, and a stored channel is no duplicate of itself.
func TestJudgeAll(t *testing.T) {
	var subjects []Subject
	var others []Other
	for i := range 30 {
		c := channel.New(146_400*freq.KHz + freq.Hz(i%20)*15*freq.KHz) // the last ten again
		c.Name = fmt.Sprint("Channel ", i)
		slot := i + 1
		others = append(others, Other{Slot: slot, Channel: c})
		subjects = append(subjects, Subject{Channel: c, Slot: &slot, Plan: band.MustLoad("us"), Settings: Defaults(today)})
	}
	roll := NewOccupancy(others)
	for i := range subjects {
		subjects[i].Occupancy = roll
	}
	src := listing.Index(records())
	all, err := JudgeAll(t.Context(), src, subjects)
	require.NoError(t, err)
	for i := range subjects {
		one, err := Judge(t.Context(), src, subjects[i])
		require.NoError(t, err)
		assert.Equal(t, one, all[i], "channel %d", i)
		assert.Equal(t, i < 10 || i >= 20, of(all[i], "channel-duplicate") != nil, "channel %d", i)
	}
}
