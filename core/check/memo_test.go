package check

import (
	"context"
	"slices"
	"sync/atomic"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mnemos/core/band"
	"mnemos/core/channel"
	"mnemos/core/freq"
	"mnemos/core/geo"
	"mnemos/core/listing"
	"mnemos/core/radio"
	"mnemos/core/tone"
)

// counting counts how often it is asked.
type counting struct {
	listing.Source
	asked atomic.Int64
}

func (c *counting) ByOutput(ctx context.Context, r band.Span, box *geo.Box) ([]listing.Record, error) {
	c.asked.Add(1)
	return c.Source.ByOutput(ctx, r, box)
}

func (c *counting) OnOutputs(ctx context.Context, outputs []freq.Hz, box *geo.Box) ([]listing.Record, error) {
	c.asked.Add(1)
	return c.Source.OnOutputs(ctx, outputs, box)
}

// TestMemoSaysTheSame: what is remembered leads to the very results that
// looking everything up leads to, whichever radio asks, whatever else it
// holds, and however settings and listings change in between.
func TestMemoSaysTheSame(t *testing.T) {
	var radios []*radio.Profile
	for _, id := range []string{"trail", "ferry", "lantern", "gale"} {
		p, err := radio.Load(id)
		require.NoError(t, err)
		radios = append(radios, p)
	}
	rapid.Check(t, func(r *rapid.T) {
		var m Memo
		plan := band.MustLoad("us")
		channels := rapid.SliceOfN(rapid.Custom(anyChannel), 1, 6).Draw(r, "channels")
		src, generation := listing.Source(records()), int64(1)
		for range rapid.IntRange(2, 5).Draw(r, "rounds") {
			s := Defaults(today)
			s.Place = &here
			switch rapid.IntRange(0, 5).Draw(r, "change") {
			case 0:
				src, generation = toned(), generation+1
			case 1:
				s.RadiusKM = 10
			case 2:
				s.Today = today.AddDate(2, 0, 0)
			case 3:
				s.Bands, s.TonePolicy = []string{"2 m"}, "tone squelch first"
			case 4:
				s.Place = nil
			case 5:
				s.Unlicensed = true
			}
			p := rapid.SampledFrom(radios).Draw(r, "radio")
			var others []Other
			for i, c := range channels[:rapid.IntRange(0, len(channels)).Draw(r, "held")] {
				others = append(others, Other{Slot: i + 1, Channel: c})
			}
			var subjects []Subject
			for i, c := range channels {
				slot := i + 1
				subjects = append(subjects, Subject{Channel: c, Slot: &slot, Plan: plan, Radio: p, Occupancy: NewOccupancy(others), Settings: s})
			}
			got, err := m.JudgeAll(t.Context(), src, Generation{Number: generation}, subjects)
			require.NoError(r, err)
			for i, s := range subjects {
				want, err := Judge(t.Context(), src, s)
				require.NoError(r, err)
				require.Equal(r, want, got[i])
			}
		}
	})
}

// decided is a source about which people decided something.
type decided struct {
	listing.Source
	list []listing.Decision
}

func (d decided) Decisions(context.Context) ([]listing.Decision, error) { return d.list, nil }

// TestMemoRejudges: where a record is corrected or statements are joined, the
// results are those of looking everything up again, though only what touches
// them is.
func TestMemoRejudges(t *testing.T) {
	plan := band.MustLoad("us")
	saved := int64(0)
	rapid.Check(t, func(r *rapid.T) {
		var m Memo
		all := slices.Clone(records())
		all = append(all, all...)
		for i := range all[len(all)/2:] {
			all[len(all)/2+i].Source = "another"
		}
		var list []listing.Decision
		var changes []Changed
		e := Generation{Number: 1, Changed: func(since int64) (c Changed, ok bool) {
			for _, x := range changes[since-1:] {
				c.Outputs, c.Inputs, c.Joined = append(c.Outputs, x.Outputs...), append(c.Inputs, x.Inputs...), append(c.Joined, x.Joined...)
			}
			return c, true
		}}
		var subjects []Subject
		for _, c := range rapid.SliceOfN(rapid.Custom(anyChannel), 1, 6).Draw(r, "channels") {
			s := Defaults(today)
			s.Place = &here
			subjects = append(subjects, Subject{Channel: c, Plan: plan, Settings: s})
		}
		for range rapid.IntRange(2, 6).Draw(r, "rounds") {
			src := &counting{Source: decided{slices.Clone(all), slices.Clone(list)}}
			got, err := m.JudgeAll(t.Context(), src, e, subjects)
			require.NoError(r, err)
			asked := src.asked.Swap(0)
			want, err := JudgeAll(t.Context(), src, subjects)
			require.NoError(r, err)
			require.Equal(r, want, got)
			saved += src.asked.Load() - asked
			x := &all[rapid.IntRange(0, len(all)-1).Draw(r, "record")]
			if rapid.Bool().Draw(r, "correct") {
				x.UplinkTone = listing.Says(rapid.SampledFrom([]tone.Tone{tone.Off, tone.MustParse("67.0"), tone.MustParse("D023N")}).Draw(r, "tone"))
				changes = append(changes, Changed{Outputs: []freq.Hz{x.Output}, Inputs: []freq.Hz{x.Input}})
			} else {
				list = append(list, listing.Decision{A: x.ID(), B: all[rapid.IntRange(0, len(all)-1).Draw(r, "other")].ID(), Same: rapid.Bool().Draw(r, "same")})
				changes = append(changes, Changed{Joined: []freq.Hz{x.Output}})
			}
			e.Number++
		}
	})
	assert.Positive(t, saved)
}

// TestMemoAsksOnce: a channel that is known is not looked up again; one that
// changed is, alone; and all are where the listings say something else.
func TestMemoAsksOnce(t *testing.T) {
	var m Memo
	src := &counting{Source: records()}
	subjects := func(outputs ...string) (out []Subject) {
		for i, o := range outputs {
			s := Defaults(today)
			s.Place = &here
			c := channel.New(freq.MustParse(o))
			out = append(out, Subject{Channel: c, Slot: &i, Plan: band.MustLoad("us"), Settings: s})
		}
		return out
	}
	asked := func(generation int64, outputs ...string) int64 {
		before := src.asked.Load()
		_, err := m.JudgeAll(t.Context(), src, Generation{Number: generation}, subjects(outputs...))
		require.NoError(t, err)
		return src.asked.Load() - before
	}
	all := asked(1, "147.240", "444.100", "146.880")
	assert.Positive(t, all)
	assert.Zero(t, asked(1, "147.240", "444.100", "146.880"))
	assert.Zero(t, asked(1, "146.880", "147.240"), "in another order, and one gone")
	one := asked(1, "147.240", "444.100", "145.230")
	assert.Positive(t, one)
	assert.Less(t, one, all)
	assert.Equal(t, all, asked(2, "147.240", "444.100", "146.880"))
}
