package listen

import (
	"context"
	"slices"
	"strings"
	"unicode"

	"mnemos/core/band"
	"mnemos/core/channel"
	"mnemos/core/freq"
	"mnemos/core/scan"
	"mnemos/internal/fault"
)

// Sweep is a step scan with the radio in the hand.
type Sweep struct {
	scan.Sweep
	PerSecond float64
	Steps     []freq.Hz // that the radio has
	Best      freq.Hz   // the widest of them that meets everything, or most
	All       bool      // it meets everything
	Passes    []Pass
	Begin     scan.Keyed // how the lower end is reached
	CanBegin  bool
	Digits    int
}

// Pass is a channel and how the sweep meets it.
type Pass struct {
	scan.Meeting
	Slot     int // that holds it; -1 for none
	Name     string
	Narrow   bool
	Keyed    scan.Keyed
	CanReach bool
}

// SweepForm is what a sweep goes through, as it was typed.
type SweepForm struct{ Lower, Upper, Step string }

// most is how many steps a sweep has at most.
const most = 1_000_000

// Sweep works out a step scan: what is published, and what the radio holds, in the range.
func (l *Listening) Sweep(ctx context.Context, loadID int64, form SweepForm) (*Sweep, error) {
	s, err := l.setting(ctx, loadID, l.now())
	if err != nil {
		return nil, err
	}
	out := &Sweep{Steps: slices.Clone(s.Radio.Steps), Digits: s.Radio.Keying.Figures, Passes: []Pass{}}
	out.PerSecond, _ = s.rate()
	f := &fault.Invalid{}
	lower, upper := s.band()
	read := func(field, text string, to *freq.Hz) {
		if text == "" {
			return
		}
		v, err := unitless(text, "MHz")
		if err != nil {
			f.Add(field, "write a frequency in MHz, such as 144.000")
			return
		}
		*to = v
	}
	read("lower", form.Lower, &lower)
	read("upper", form.Upper, &upper)
	step := freq.Hz(0)
	if form.Step != "" {
		if step, err = unitless(form.Step, "kHz"); err != nil {
			f.Add("step", "write a step in kHz, such as 12.5")
		}
	}
	switch {
	case upper < lower:
		f.Add("upper", "the upper end lies below the lower one")
	case !s.Radio.CanReceive(lower) || !s.Radio.CanReceive(upper):
		f.Add("lower", "%s does not receive from %s to %s", s.Unit.Title(), lower, upper)
	case step < 0 || step > 0 && (step < 100 || (upper-lower)/step > most):
		f.Add("step", "write a step from 0.1 kHz; that would be too many steps")
	}
	if err := f.Or(); err != nil {
		return nil, err
	}
	targets, passes, err := l.targets(ctx, s, lower, upper)
	if err != nil {
		return nil, err
	}
	out.Best, out.All = scan.MeetsAll(lower, upper, s.Radio.Steps, targets)
	if step == 0 {
		step = out.Best
	}
	out.Sweep = scan.StepScan(lower, upper, step, out.PerSecond, targets)
	for _, m := range out.Meetings {
		p := passes[m.Frequency]
		p.Meeting = m
		p.Keyed, p.CanReach = scan.Reaches(m.Frequency, out.Digits, s.Radio.Steps)
		out.Passes = append(out.Passes, p)
	}
	out.Begin, out.CanBegin = scan.Reaches(lower, out.Digits, s.Radio.Steps)
	return out, nil
}

// unitless reads a frequency; a number alone has the unit that is usual there.
func unitless(text, unit string) (freq.Hz, error) {
	text = strings.TrimSpace(text)
	if !strings.ContainsFunc(text, unicode.IsLetter) {
		text += " " + unit
	}
	return freq.Parse(text)
}

// band is the first band of the region that the radio hears.
func (s *setting) band() (lower, upper freq.Hz) {
	var of freq.Hz
	if len(s.items) > 0 {
		of = s.items[0].Entry.Channel.Receive
	}
	for _, b := range s.Band.Bands {
		if s.Radio.CanReceive(b.Lower) && s.Radio.CanReceive(b.Upper) && (of == 0 || b.Holds(of)) {
			return b.Lower, b.Upper
		}
	}
	if len(s.Radio.Receive) > 0 {
		return s.Radio.Receive[0].Lower, s.Radio.Receive[0].Upper
	}
	return 0, 0
}

// targets are the outputs that are published in a range, and what the radio holds there.
func (l *Listening) targets(ctx context.Context, s *setting, lower, upper freq.Hz) ([]scan.Target, map[freq.Hz]Pass, error) {
	passes := map[freq.Hz]Pass{}
	for _, x := range s.items {
		c := x.Entry.Channel
		if c.Receive >= lower && c.Receive <= upper {
			passes[c.Receive] = Pass{Slot: x.Entry.Slot, Name: title(x), Narrow: c.Width == channel.Narrow}
		}
	}
	published, err := l.plans.Published(ctx, s.Plan.ID, band.Span{Lower: lower, Upper: upper})
	if err != nil {
		return nil, nil, err
	}
	for _, r := range published {
		if _, ok := passes[r.Output]; !ok {
			passes[r.Output] = Pass{Slot: -1, Name: r.Title(), Narrow: r.Width == "narrow"}
		}
	}
	var targets []scan.Target
	for f, p := range passes {
		targets = append(targets, scan.Target{Frequency: f, Narrow: p.Narrow})
	}
	slices.SortFunc(targets, func(a, b scan.Target) int { return int(a.Frequency - b.Frequency) })
	return targets, passes, nil
}
