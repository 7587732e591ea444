package listing

import (
	"cmp"
	"context"
	"math"
	"slices"

	"mnemos/core/band"
	"mnemos/core/freq"
	"mnemos/core/geo"
)

// Indexed is a Source over records sorted by output and by input, for large
// listings that stay in memory. A search reads short keys that lie side by
// side, and touches a record only to return it.
type Indexed struct {
	records           []Record
	byOutput, byInput []key
}

type key struct {
	f        freq.Hz
	lat, lon float64 // NaN without a position
	at       int
}

// Index sorts records once so that every search reads only its own range.
func Index(records []Record) *Indexed {
	return IndexOwn(slices.Clone(records))
}

// IndexOwn is Index over records that nobody else uses: it copies none.
func IndexOwn(records []Record) *Indexed {
	x := &Indexed{records: slices.DeleteFunc(records, func(r Record) bool { return !r.IsRepeater() })}
	x.byOutput = x.sorted(func(r *Record) freq.Hz { return r.Output })
	x.byInput = x.sorted(func(r *Record) freq.Hz { return r.Input })
	return x
}

// Records returns all of them; they are not to be changed.
func (x *Indexed) Records() []Record { return x.records }

func (x *Indexed) sorted(of func(*Record) freq.Hz) []key {
	keys := make([]key, len(x.records))
	for i := range keys {
		r := &x.records[i]
		keys[i] = key{of(r), math.NaN(), math.NaN(), i}
		if p, ok := r.Place(); ok {
			keys[i].lat, keys[i].lon = p.Lat, p.Lon
		}
	}
	slices.SortFunc(keys, func(a, b key) int { return cmp.Or(cmp.Compare(a.f, b.f), cmp.Compare(a.at, b.at)) })
	return keys
}

// ByOutput implements Source.
func (x *Indexed) ByOutput(_ context.Context, r band.Span, box *geo.Box) ([]Record, error) {
	return x.search(nil, x.byOutput, r, box), nil
}

// ByInput implements Source.
func (x *Indexed) ByInput(_ context.Context, r band.Span, box *geo.Box) ([]Record, error) {
	return x.search(nil, x.byInput, r, box), nil
}

// OnOutputs implements Source.
func (x *Indexed) OnOutputs(_ context.Context, outputs []freq.Hz, box *geo.Box) ([]Record, error) {
	var out []Record
	for _, f := range outputs {
		out = x.search(out, x.byOutput, band.Span{Lower: f, Upper: f}, box)
	}
	return out, nil
}

// ByName implements Source. It reads every record: a name is asked for once a
// keystroke at most.
func (x *Indexed) ByName(_ context.Context, text string, box *geo.Box) ([]Record, error) {
	return byName(x.records, text, box), nil
}

// Decisions implements Source: nobody decided anything.
func (x *Indexed) Decisions(context.Context) ([]Decision, error) { return nil, nil }

func (x *Indexed) search(out []Record, keys []key, r band.Span, box *geo.Box) []Record {
	from, _ := slices.BinarySearchFunc(keys, r.Lower, func(k key, f freq.Hz) int { return cmp.Compare(k.f, f) })
	to := from
	n := 0
	for ; to < len(keys) && keys[to].f <= r.Upper; to++ {
		if keys[to].inside(box) {
			n++
		}
	}
	out = slices.Grow(out, n) // a record is large: it is copied once
	for _, k := range keys[from:to] {
		if k.inside(box) {
			out = append(out, x.records[k.at])
		}
	}
	return out
}

// inside reports whether a key is not outside a box: nothing is without a
// position, and nothing is outside the whole world.
func (k *key) inside(box *geo.Box) bool {
	return box == nil || !(k.lat < box.South || k.lat > box.North || k.lon < box.West || k.lon > box.East)
}
