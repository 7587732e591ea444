package bench

import (
	"fmt"
	"math"
	"math/rand/v2"
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"mnemos/core/band"
	"mnemos/core/channel"
	"mnemos/core/check"
	"mnemos/core/freq"
	"mnemos/core/geo"
	"mnemos/core/listing"
	"mnemos/core/radio"
)

// country draws n repeaters at 2,000 in 200 × 200 km: the more, the larger.
func country(n int) []listing.Record {
	r := rand.New(rand.NewPCG(3, 4))
	half := math.Sqrt(float64(n)/2000*200*200) / 2
	out := records(n)
	for i := range out {
		lat := here.Lat + (r.Float64()*2-1)*half/111.1
		lon := here.Lon + (r.Float64()*2-1)*half/(111.3*math.Cos(here.Lat*math.Pi/180))
		out[i].Lat, out[i].Lon = &lat, &lon
	}
	return out
}

// channels makes a plan of n channels from what is published around: one in
// ten has the wrong tone, one in ten the wrong shift, one in ten is simplex.
func channels(n int, records []listing.Record) []check.Subject {
	gale, err := radio.Load("gale")
	if err != nil {
		panic(err) // it ships
	}
	us := band.MustLoad("us")
	s := check.Defaults(today)
	s.Place = &here
	out := make([]check.Subject, 0, n)
	for _, v := range records {
		if len(out) == n {
			break
		}
		if d, _ := geo.Distance(here, geo.Point{Lat: *v.Lat, Lon: *v.Lon}); d > 100 {
			continue
		}
		c := channel.New(v.Output)
		c.Name, c.Side, c.TransmitTone = v.Locality, channel.ShiftSide(v.Input.Sub(v.Output)), v.UplinkTone.Tone
		switch len(out) % 10 {
		case 3:
			c.TransmitTone = records[0].UplinkTone.Tone
		case 6:
			c.Side = channel.ShiftSide(-v.Input.Sub(v.Output))
		case 9:
			c = channel.New(146_400*freq.KHz + freq.Hz(len(out)%20)*15*freq.KHz)
			c.Name = fmt.Sprintf("Simplex %d", len(out))
		}
		slot := len(out) + 1
		out = append(out, check.Subject{Channel: c, Slot: &slot, Plan: us, Radio: gale, Settings: s})
	}
	return held(out)
}

// held puts channels into one radio.
func held(subjects []check.Subject) []check.Subject {
	var others []check.Other
	for _, s := range subjects {
		others = append(others, check.Other{Slot: *s.Slot, Channel: s.Channel})
	}
	roll := check.NewOccupancy(others)
	for i := range subjects {
		subjects[i].Occupancy = roll
	}
	return subjects
}

// half takes every second ten of the channels, so that the mix stays the same.
func half(subjects []check.Subject) []check.Subject {
	var out []check.Subject
	for i, s := range subjects {
		if i/10%2 == 0 { // whole tens: each has the same mistakes
			out = append(out, s)
		}
	}
	return held(out)
}

// BenchmarkPlan judges every channel of a plan anew, with nothing remembered.
// The baselines: half the channels, and a tenth of the records at the same
// density. The three take turns, so that a busy machine is busy for all.
func BenchmarkPlan(b *testing.B) {
	small, large := country(count/10), country(count)
	near, far := listing.Index(small), listing.Index(large)
	cases := []struct {
		name     string
		src      listing.Source
		subjects []check.Subject
		took     []time.Duration
	}{
		{name: "half-the-channels", src: far, subjects: half(channels(1000, large))},
		{name: "tenth-of-the-records", src: near, subjects: channels(1000, small)},
		{name: "1000-channels-100000-records", src: far, subjects: channels(1000, large)},
	}
	for b.Loop() {
		for i := range cases {
			c := &cases[i]
			start := time.Now()
			results, err := check.JudgeAll(b.Context(), c.src, c.subjects)
			c.took = append(c.took, time.Since(start))
			require.NoError(b, err)
			require.Len(b, results, len(c.subjects))
		}
	}
	var median time.Duration
	for i := len(cases) - 1; i >= 0; i-- {
		c := cases[i]
		slices.Sort(c.took)
		own := c.took[len(c.took)/2]
		if median == 0 {
			median = own
			b.ReportMetric(float64(own.Microseconds())/1000, "ms-"+c.name)
			continue
		}
		b.ReportMetric(float64(median)/float64(own), "×"+c.name)
	}
}
