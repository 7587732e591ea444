package plan

import (
	"context"

	"mnemos/core/channel"
	"mnemos/core/entry"
	"mnemos/core/listing"
	"mnemos/core/radio"
	"mnemos/internal/assess"
	"mnemos/internal/store"
)

// Reading is what the entry line shows while somebody types.
type Reading struct {
	*assess.Answer
	Complete  bool           // can be stored
	Sentence  []entry.Phrase // what the radio will do
	ShortName string
	Watts     *float64
	Scan      entry.Scan
	Occupied  string     // the name of what is in the slot, or ""
	Lines     [][]string // per finding and fix, the line that the fix makes
	Losses    []radio.Loss
	Puts      []Put     // where it would go in other radios
	Evidence  *Evidence // what speaks about the channel; nil while there is no receive frequency

	meant listing.ID // the published statement that the line is about; zero for none
}

// Read reads a line for a load. Slot is where it is to go if the line does
// not say; nil is the next vacant one. The others are radios that are to get it too.
func (p *Plans) Read(ctx context.Context, loadID int64, line string, slot *int, others ...int64) (*Reading, error) {
	d, err := p.desk(ctx, loadID)
	if err != nil {
		return nil, err
	}
	r, err := p.read(ctx, d, line, slot)
	if err != nil || r.Slot == nil || r.Channel.Receive == 0 {
		return r, err
	}
	more, err := p.beside(ctx, d, others)
	if err != nil {
		return nil, err
	}
	r.Puts, _ = more.place(store.Entry{Slot: *r.Slot, Channel: r.Channel})
	return r, nil
}

func (p *Plans) read(ctx context.Context, d *desk, line string, slot *int) (*Reading, error) {
	if slot == nil {
		if n, ok := d.vacant(d.radio.Slots.First); ok {
			slot = &n
		}
	}
	answer, err := assess.Ask(ctx, assess.Question{
		Line: line, Plan: d.band, Radio: d.radio, Source: d.listings, Settings: d.settings, Slot: slot, Occupancy: d.occupancy(),
	})
	if err != nil {
		return nil, err
	}
	draft := answer.Draft
	r := &Reading{Answer: answer, Complete: draft.Complete(), Sentence: entry.Say(draft), Scan: draft.Scan, Lines: [][]string{}, Losses: []radio.Loss{}}
	if r.Sentence == nil {
		r.Sentence = []entry.Phrase{}
	}
	for _, m := range answer.Matches {
		if m.Meant {
			r.meant = listing.ID{Source: m.Source, Key: m.Key}
		}
	}
	shown, err := p.called(ctx, d.plan.ID, d.radio.Names)
	if err != nil {
		return nil, err
	}
	shown.more([]string{draft.Channel.Name})
	r.ShortName = shown.name(0, draft.Channel.Name)
	if answer.Slot != nil {
		if e, ok := d.at(*answer.Slot); ok {
			r.Occupied = label(e.Channel)
		}
	}
	if _, sends := draft.Channel.Transmit(); sends {
		w := d.radio.Watts.Of(draft.Channel.Power)
		r.Watts = &w
	}
	if draft.Channel.Receive != 0 {
		if _, losses := radio.Fit(draft.Channel, d.radio); losses != nil {
			r.Losses = losses
		}
		e := store.Entry{ShortName: r.ShortName, Channel: draft.Channel}
		if answer.Slot != nil {
			e.Slot = *answer.Slot
		}
		r.Evidence = d.evidence(e, answer.Result, answer.Matches)
	}
	for _, f := range answer.Findings {
		lines := []string{}
		for _, fix := range f.Fixes {
			if fix.Slot != nil {
				lines = append(lines, entry.RewriteSlot(line, draft, *fix.Slot))
				continue
			}
			lines = append(lines, entry.Rewrite(line, draft, fix.Result, d.band))
		}
		r.Lines = append(r.Lines, lines)
	}
	return r, nil
}

// label is what a channel is called in sentences.
func label(c channel.Channel) string {
	if c.Name != "" {
		return c.Name
	}
	return c.Receive.String()
}
