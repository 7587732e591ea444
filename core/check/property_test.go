package check

import (
	"fmt"
	"slices"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mnemos/core/band"
	"mnemos/core/channel"
	"mnemos/core/entry"
	"mnemos/core/evidence"
	"mnemos/core/freq"
	"mnemos/core/listing"
	"mnemos/core/radio"
	"mnemos/core/tone"
)

// anyChannel draws a channel as operators have them: a published one, whole or
// with something else in a field, or one from anywhere in the bands.
func anyChannel(t *rapid.T) channel.Channel {
	all := records()
	r := all[rapid.IntRange(0, len(all)-1).Draw(t, "record")]
	c := channel.New(r.Output)
	c.Side = channel.ShiftSide(r.Input.Sub(r.Output))
	c.TransmitTone = r.UplinkTone.Tone
	tones := []string{"none", "67.0", "88.5", "100.0", "103.5", "127.3", "114.8", "123.0", "254.1", "D023N", "D047I", "141.0"}
	pick := func(label string) tone.Tone { return tone.MustParse(rapid.SampledFrom(tones).Draw(t, label)) }
	for range rapid.IntRange(0, 3).Draw(t, "changes") {
		switch rapid.IntRange(0, 8).Draw(t, "what") {
		case 0:
			c.TransmitTone = pick("out")
		case 1:
			c.ReceiveTone = pick("in")
		case 2:
			c.Side = channel.ShiftSide(freq.Offset(rapid.SampledFrom([]int64{-600_000, 600_000, -5_000_000, 5_000_000, -1_600_000, -6_000_000, 612_000, -60_000}).Draw(t, "offset")))
		case 3:
			c.Side = channel.TransmitSide{Kind: rapid.SampledFrom([]channel.Kind{channel.Simplex, channel.Blocked}).Draw(t, "kind")}
		case 4:
			c.Side = channel.SplitSide(freq.MustParse(rapid.SampledFrom([]string{"146.34", "147.84", "446.0", "145.99", "147.5", "223.5", "151.82", "462.55"}).Draw(t, "split")))
		case 5:
			c.Receive = freq.Hz(rapid.SampledFrom([]int64{144_390_000, 145_900_000, 146_520_000, 146_340_000, 147_345_000, 147_510_000, 147_995_000, 437_800_000, 446_000_000, 462_550_000, 155_340_000, 52_525_000, 224_340_000, 29_640_000, 442_650_000, 439_500_000}).Draw(t, "receive"))
		case 6:
			c.Width = channel.Narrow
		case 7:
			c.Name = rapid.SampledFrom([]string{"Beacon", "Marran", "Camp 9", "APRS"}).Draw(t, "name")
		case 8:
			c.Receive += freq.Hz(rapid.SampledFrom([]int64{5_000, -5_000, 10_000, 100_000, -15_000, 3_000}).Draw(t, "nudge"))
		}
	}
	return c
}

func judged(t *rapid.T, c channel.Channel, src listing.Source, s Settings, region string) Result {
	trail, err := radio.Load("ferry")
	require.NoError(t, err)
	r, err := Judge(t.Context(), src, Subject{Channel: c, Plan: band.MustLoad(region), Radio: trail, Settings: s})
	require.NoError(t, err)
	return r
}

func anySettings(t *rapid.T) Settings {
	s := Defaults(today)
	s.Place = &here
	s.TonePolicy = rapid.SampledFrom([]TonePolicy{EncodeFirst, SquelchFirst}).Draw(t, "school")
	if rapid.Bool().Draw(t, "gmrs") {
		s.Services = []string{"gmrs"}
	}
	if rapid.Bool().Draw(t, "bands") {
		s.Bands = []string{"2 m", "70 cm"}
	}
	return s
}

// TestVerdictAndFindingsAgree: a conflict has a finding above a note that says
// why, agreement has none, and a stop is a finding.
func TestVerdictAndFindingsAgree(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		c := anyChannel(t)
		if c.Validate() != nil {
			return
		}
		r := judged(t, c, records(), anySettings(t), rapid.SampledFrom([]string{"us", "uk", "r2", "nz", "de"}).Draw(t, "region"))
		above := slices.ContainsFunc(r.Findings, func(f Finding) bool { return f.Severity != Note && !f.Aside() })
		stop := slices.ContainsFunc(r.Findings, func(f Finding) bool { return f.Severity == Stop })
		line := entry.Format(c, nil, entry.ScanYes)
		switch r.Verdict {
		case evidence.Agrees:
			require.False(t, above, "%s agrees: %s", line, said(r))
		case evidence.Conflict:
			require.True(t, above, "%s is in conflict: %+v", line, r.Rows)
		}
		require.Equal(t, stop, r.Verdict == evidence.Stop, "%s: %s", line, said(r))
		for _, f := range r.Findings {
			if f.Rule == "licence-band" || f.Rule == "listing-closed" || f.Rule == "service-other" {
				require.Empty(t, f.Fixes, "%s: only the person can know", line)
			}
			for _, x := range f.Fixes {
				require.True(t, x.Slot != nil || x.Result != c, "%s: %s changes nothing", line, x.Label)
			}
		}
	})
}

// TestTheSameSaidTwice: a second list that says the same changes no verdict,
// with or without the callsign.
func TestTheSameSaidTwice(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		c := anyChannel(t)
		if c.Validate() != nil {
			return
		}
		s := anySettings(t)
		once := judged(t, c, records(), s, "us")
		twice := records()
		call := rapid.SampledFrom([]string{"as it is", "with /R", "none"}).Draw(t, "callsign")
		for _, r := range records() {
			r.Source = "second list"
			switch call {
			case "with /R":
				r.Callsign += "/R"
			case "none":
				r.Callsign = ""
			}
			if r.Key != "HolmB" { // two statements of one source never join
				twice = append(twice, r)
			}
		}
		r := judged(t, c, twice, s, "us")
		require.Equal(t, once.Verdict, r.Verdict, "%s %s: once %s, twice %s", call, entry.Format(c, nil, entry.ScanYes), said(once), said(r))
	})
}

// TestFarAway: a record that can neither be heard nor is named changes
// nothing, as long as no slip leads to it.
func TestFarAway(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		c := anyChannel(t)
		if c.Validate() != nil {
			return
		}
		s := anySettings(t)
		far := published("Distant", rapid.SampledFrom([]string{"147.240", "146.940", "145.310", "442.650", "147.345"}).Draw(t, "output"), "147.840", "82.5", "82.5", 140, 20)
		far.Input = far.Output + 600_000
		without, with := judged(t, c, records(), s, "us"), judged(t, c, append(records(), far), s, "us")
		require.Equal(t, without.Verdict, with.Verdict, "%s: %s against %s", entry.Format(c, nil, entry.ScanYes), said(without), said(with))
	})
}

// TestFirstFixesEnd: taking the first fix again and again ends, and never puts
// the transmitter where it may not be.
func TestFirstFixesEnd(t *testing.T) {
	const most = 5
	rapid.Check(t, func(t *rapid.T) {
		c := anyChannel(t)
		if c.Validate() != nil {
			return
		}
		s := anySettings(t)
		us := band.MustLoad("us")
		var seen []string
		for step := 0; ; step++ {
			r := judged(t, c, records(), s, "us")
			i := slices.IndexFunc(r.Findings, func(f Finding) bool {
				return (f.Severity == Stop || f.Severity == Fix) && len(f.Fixes) > 0 && f.Fixes[0].Slot == nil
			})
			if i < 0 {
				for _, f := range r.Findings {
					require.NotEmpty(t, f.Message, "%s: what remains says why", f.Rule)
				}
				return
			}
			seen = append(seen, fmt.Sprintf("%s %s -> %s", entry.Format(c, nil, entry.ScanYes), r.Findings[i].Rule, r.Findings[i].Fixes[0].Label))
			require.Less(t, step, most, "%q", seen)
			before, sent := c.Transmit()
			c = r.Findings[i].Fixes[0].Result
			after, sends := c.Transmit()
			if sends && (!sent || after != before) {
				seg, known := us.Segment(after)
				space := after == 145_990_000
				require.True(t, us.MayTransmit(after) && (!known || seg.Voice() || space), "%q transmits %v", seen, after)
			}
		}
	})
}
