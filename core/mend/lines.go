package mend

import (
	"cmp"
	"context"
	"slices"

	"mnemos/core/band"
	"mnemos/core/freq"
	"mnemos/core/listing"
	"mnemos/core/tone"
)

// near and beside are how far away the next line of a listing sorted by
// output is looked for: first where it is in a full band, then farther.
const (
	near   = 25 * freq.KHz
	beside = 200 * freq.KHz
)

// lines are those around one output in the listings, sorted as a listing is.
// They are read when the first record asks for them: most entries never do.
type lines struct {
	load   func(within freq.Hz) ([]listing.Record, error)
	within freq.Hz // what has been read
	sorted []*listing.Record
	err    error
}

// around returns the lines around an output. The next line of a listing may
// be about anywhere, so they are looked for twice as far away.
func around(ctx context.Context, src listing.Source, f freq.Hz, q listing.Query) *lines {
	q.RadiusKM *= 2
	return &lines{load: func(within freq.Hz) ([]listing.Record, error) {
		return src.ByOutput(ctx, band.Span{Lower: f - within, Upper: f + within}, q.Box())
	}}
}

func (l *lines) all(within freq.Hz) []*listing.Record {
	if l.within >= within || l.err != nil {
		return l.sorted
	}
	records, err := l.load(within)
	l.within, l.err, l.sorted = within, err, nil
	for i := range records {
		l.sorted = append(l.sorted, &records[i])
	}
	slices.SortFunc(l.sorted, byLine)
	return l.sorted
}

// otherLine says whether the tone is that of a line near the record's own: of
// the next one in a listing sorted by output and callsign, or of another on
// the same or the next output.
func (l *lines) otherLine(have tone.Tone, r listing.Record) (Slip, bool) {
	if l == nil || have.IsOff() {
		return OtherLines, false
	}
	all := l.all(near)
	at, _ := slices.BinarySearchFunc(all, &r, byLine)
	below, above := next(all, at, -1, r), next(all, at, 1, r)
	if below == r.Output || above == r.Output {
		all = l.all(beside)
		at, _ = slices.BinarySearchFunc(all, &r, byLine)
		below, above = next(all, at, -1, r), next(all, at, 1, r)
	}
	found := false
	for i, o := range all {
		if !o.UplinkTone.Known || o.Source != r.Source || o.Key == r.Key || !tone.Same(o.UplinkTone.Tone, have) {
			continue
		}
		if i == at-1 || i == at+1 {
			return OtherLine, true
		}
		found = found || o.Output == r.Output || o.Output == below || o.Output == above
	}
	return OtherLines, found
}

// next returns the first other output of the record's source in a direction,
// or its own if there is none.
func next(all []*listing.Record, at, step int, r listing.Record) freq.Hz {
	for i := at + step; i >= 0 && i < len(all) && all[i].Source == r.Source; i += step {
		if all[i].Output != r.Output {
			return all[i].Output
		}
	}
	return r.Output
}

func byLine(a, b *listing.Record) int {
	return cmp.Or(cmp.Compare(a.Source, b.Source), cmp.Compare(a.Output, b.Output), cmp.Compare(a.Callsign, b.Callsign), cmp.Compare(a.Key, b.Key))
}
