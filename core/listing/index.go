package listing

import (
	"cmp"
	"context"
	"slices"

	"mnemos/core/band"
	"mnemos/core/freq"
	"mnemos/core/geo"
)

// Indexed is a Source over records sorted by output and by input, for large
// listings that stay in memory.
type Indexed struct {
	records           []Record
	byOutput, byInput []int
}

// Index sorts records once so that every search reads only its own range.
func Index(records []Record) *Indexed {
	x := &Indexed{records: records}
	x.byOutput = x.sorted(func(r *Record) freq.Hz { return r.Output })
	x.byInput = x.sorted(func(r *Record) freq.Hz { return r.Input })
	return x
}

func (x *Indexed) sorted(of func(*Record) freq.Hz) []int {
	order := make([]int, len(x.records))
	for i := range order {
		order[i] = i
	}
	slices.SortFunc(order, func(a, b int) int {
		return cmp.Or(cmp.Compare(of(&x.records[a]), of(&x.records[b])), cmp.Compare(a, b))
	})
	return order
}

// ByOutput implements Source.
func (x *Indexed) ByOutput(_ context.Context, r band.Span, box *geo.Box) ([]Record, error) {
	return x.search(x.byOutput, r, box, func(v *Record) freq.Hz { return v.Output }), nil
}

// ByInput implements Source.
func (x *Indexed) ByInput(_ context.Context, r band.Span, box *geo.Box) ([]Record, error) {
	return x.search(x.byInput, r, box, func(v *Record) freq.Hz { return v.Input }), nil
}

// OnOutputs implements Source.
func (x *Indexed) OnOutputs(_ context.Context, outputs []freq.Hz, box *geo.Box) ([]Record, error) {
	var out []Record
	for _, f := range outputs {
		out = append(out, x.search(x.byOutput, band.Span{Lower: f, Upper: f}, box, func(v *Record) freq.Hz { return v.Output })...)
	}
	return out, nil
}

func (x *Indexed) search(order []int, r band.Span, box *geo.Box, of func(*Record) freq.Hz) []Record {
	i, _ := slices.BinarySearchFunc(order, r.Lower, func(at int, f freq.Hz) int { return cmp.Compare(of(&x.records[at]), f) })
	var out []Record
	for ; i < len(order) && of(&x.records[order[i]]) <= r.Upper; i++ {
		if v := &x.records[order[i]]; inside(v, box) {
			out = append(out, *v)
		}
	}
	return out
}
