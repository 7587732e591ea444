package check

import (
	"context"

	"mnemos/core/band"
	"mnemos/core/channel"
	"mnemos/core/evidence"
	"mnemos/core/listing"
)

// Judge looks up what is published about a subject and runs the rules over
// it. Where the entry and the listing disagree, or nothing is listed where a
// repeater was entered, it searches for records that one slip leads to, and
// judges again with those in hand.
func Judge(ctx context.Context, src listing.Source, s Subject) (Result, error) {
	if s.Draft != nil && s.Draft.Query() != "" {
		var err error
		if s.Outputs, err = listing.FindNamed(ctx, src, s.Draft.Query(), s.query()); err != nil {
			return Result{}, err
		}
		return Run(s), nil
	}
	return (&facts{}).judge(ctx, src, Generation{}, s)
}

func (s Subject) query() listing.Query {
	return listing.Query{Place: s.Place, RadiusKM: s.RadiusKM, Height: s.Height}
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
