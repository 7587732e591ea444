package app

import (
	"context"

	"mnemos/core/channel"
	"mnemos/core/entry"
	"mnemos/core/naming"
	"mnemos/core/radio"
)

// Reading is what the entry line shows while somebody types.
type Reading struct {
	*Answer
	Complete  bool           `json:"complete"` // can be stored
	Sentence  []entry.Phrase `json:"sentence"` // what the radio will do
	ShortName string         `json:"short_name"`
	Watts     *float64       `json:"watts"`
	Scan      entry.Scan     `json:"scan"`
	Occupied  string         `json:"occupied"` // the name of what is in the slot, or ""
	Lines     [][]string     `json:"lines"`    // per finding and fix, the line that the fix makes
	Losses    []radio.Loss   `json:"losses"`
}

// Read reads a line for a load. Slot is where it is to go if the line does
// not say; nil is the next vacant one.
func (a *App) Read(ctx context.Context, loadID int64, line string, slot *int) (*Reading, error) {
	d, err := a.desk(ctx, loadID)
	if err != nil {
		return nil, err
	}
	return a.read(ctx, d, line, slot)
}

func (a *App) read(ctx context.Context, d *desk, line string, slot *int) (*Reading, error) {
	if slot == nil {
		if n, ok := d.vacant(d.radio.Slots.First); ok {
			slot = &n
		}
	}
	answer, err := Ask(ctx, Question{
		Line: line, Plan: d.band, Radio: d.radio, Source: d.listings, Settings: d.settings, Slot: slot, Occupancy: d.occupancy(),
	})
	if err != nil {
		return nil, err
	}
	draft := answer.draft
	r := &Reading{Answer: answer, Complete: draft.Complete(), Sentence: entry.Say(draft), Scan: draft.Scan, Lines: [][]string{}, Losses: []radio.Loss{}}
	if r.Sentence == nil {
		r.Sentence = []entry.Phrase{}
	}
	r.ShortName = naming.Short(draft.Channel.Name, d.radio.Names, d.shortTaken(noSlot))
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

// noSlot is a slot number that no radio has.
const noSlot = -1 << 30

// label is what a channel is called in sentences.
func label(c channel.Channel) string {
	if c.Name != "" {
		return c.Name
	}
	return c.Receive.String()
}
