package check

import (
	"context"
	"runtime"

	"golang.org/x/sync/errgroup"

	"mnemos/core/band"
	"mnemos/core/channel"
	"mnemos/core/evidence"
	"mnemos/core/listing"
	"mnemos/core/mend"
)

// Judge looks up what is published about a subject and runs the rules over
// it. Where the entry and the listing disagree, or nothing is listed where a
// repeater was entered, it searches for records that one slip leads to, and
// judges again with those in hand.
func Judge(ctx context.Context, src listing.Source, s Subject) (Result, error) {
	q := listing.Query{Place: s.Place, RadiusKM: s.RadiusKM, Height: s.Height}
	if s.Draft != nil && s.Draft.Query() != "" {
		var err error
		if s.Outputs, err = listing.FindNamed(ctx, src, s.Draft.Query(), q); err != nil {
			return Result{}, err
		}
		return Run(s), nil
	}
	if s.Channel.Receive != 0 {
		var err error
		if s.Outputs, s.Inputs, err = listing.Find(ctx, src, s.Plan, s.Channel, q); err != nil {
			return Result{}, err
		}
	}
	var err error
	if s.Unsearched, err = unsearched(ctx, src, s, q); err != nil {
		return Result{}, err
	}
	r := Run(s)
	if !doubtful(s, r) {
		return r, nil
	}
	e := mend.Stored(s.Channel)
	if s.Draft != nil {
		var ok bool
		if e, ok = mend.Typed(s.Draft, s.Plan); !ok {
			return r, nil
		}
	}
	e.Weight = s.SlipWeight
	if s.Candidates, err = mend.Search(ctx, src, s.Plan, e, q, s.Today); err != nil {
		return Result{}, err
	}
	if s.Census, err = census(ctx, src, s, r, q); err != nil {
		return Result{}, err
	}
	if len(s.Candidates) == 0 && s.Census == nil {
		return r, nil
	}
	return Run(s), nil
}

// unsearched reports whether no listing has anything in the band within the
// radius.
func unsearched(ctx context.Context, src listing.Source, s Subject, q listing.Query) (bool, error) {
	b, ok := s.Plan.Band(s.Channel.Receive)
	_, ruled := s.Plan.Shift(s.Channel.Receive)
	if !ok || len(s.Outputs) > 0 || len(s.Inputs) > 0 || !ruled && s.Channel.Offset() == 0 {
		return false, nil
	}
	records, err := src.ByOutput(ctx, b.Span, q.Box())
	return len(records) == 0, err
}

// JudgeAll judges the channels of a plan side by side, on every processor.
// The results stand in the order of the subjects.
func JudgeAll(ctx context.Context, src listing.Source, subjects []Subject) ([]Result, error) {
	out := make([]Result, len(subjects))
	g, ctx := errgroup.WithContext(ctx)
	g.SetLimit(runtime.GOMAXPROCS(0))
	for i := range subjects {
		g.Go(func() (err error) {
			out[i], err = Judge(ctx, src, subjects[i])
			return err
		})
	}
	return out, g.Wait()
}

// doubtful reports whether a slip may be behind the entry: a witness says
// otherwise, or it looks like a repeater and nothing is published there.
func doubtful(s Subject, r Result) bool {
	if r.Verdict == evidence.Stop || r.Verdict == evidence.Conflict {
		return true
	}
	if r.Meant != nil || s.Channel.Side.Kind == channel.Blocked {
		return false
	}
	_, ruled := s.Plan.Shift(s.Channel.Receive)
	seg, known := s.Plan.Segment(s.Channel.Receive)
	said := !s.Channel.TransmitTone.IsOff() || s.Channel.Name != "" // something that a record can be known by
	return s.Channel.Offset() != 0 || ruled || said || known && seg.Use != band.Simplex && seg.Use != band.Data
}

// Census counts the published repeaters around, by whether they need a tone.
type Census struct {
	Stated, Toned int
}

// census counts the repeaters of the band around, if the subject is a
// repeater without a tone that nobody has published.
func census(ctx context.Context, src listing.Source, s Subject, r Result, q listing.Query) (*Census, error) {
	b, ok := s.Plan.Band(s.Channel.Receive)
	if !ok || r.Meant != nil || s.Place == nil || s.Channel.Offset() == 0 || !s.Channel.TransmitTone.IsOff() {
		return nil, nil
	}
	q.RadiusKM = min(q.RadiusKM, around)
	records, err := src.ByOutput(ctx, b.Span, q.Box())
	if err != nil {
		return nil, err
	}
	c := &Census{}
	for _, m := range listing.Measure(records, s.Channel, q) {
		if m.Mode == listing.Digital || !m.UplinkTone.Known {
			continue
		}
		c.Stated++
		if !m.UplinkTone.Tone.IsOff() {
			c.Toned++
		}
	}
	return c, nil
}

// around is how far neighbours count, in kilometres. Common practice, no
// source.
const around = 60
