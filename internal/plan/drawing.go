package plan

import (
	"context"
	"slices"

	"mnemos/core/band"
	"mnemos/core/channel"
	"mnemos/core/keypad"
	"mnemos/core/naming"
	"mnemos/core/radio"
	"mnemos/core/tone"
)

// Drawing is a profile as it is drawn: the five parts to check on the radio in the
// hand, each with what it does to the channels of a plan.
type Drawing struct {
	Receive, Transmit []band.Span
	Bands             []BandDrawn
	Tones             []ToneDrawn
	Codes             int // DCS codes that it knows
	UsedCodes         []string
	Example           *Example // how a channel of the plan is keyed in; nil where none can be
	Trials            []radio.Trial
	Checked           []string
	Total             int
	Moves             []Moved // where what has no slot of its number would go
}

// BandDrawn is a band of the region that the plan has channels in, or the radio.
type BandDrawn struct {
	band.Band
	Channels int
}

// ToneDrawn is a tone of the table, or one that is used beside it.
type ToneDrawn struct {
	Tone        tone.Tone
	Known, Used bool
}

// Example is a channel of the plan as it is keyed into the radio.
type Example struct {
	Slot  int
	Name  string
	Sheet keypad.Sheet
}

func draw(p *radio.Profile, rules *band.Plan, rows []PreviewRow) Drawing {
	d := Drawing{Receive: p.Receive, Transmit: p.Transmit, Codes: p.DCS, Checked: p.Checked, Total: len(rows)}
	channels := make([]radio.Slotted, len(rows))
	for i, r := range rows {
		channels[i] = radio.Slotted{Slot: r.Slot, Channel: r.Entry.Channel}
	}
	d.Trials = p.Trials(rules, channels)
	for i := range d.Trials {
		if d.Trials[i].Part == radio.PartNames {
			d.Trials[i].Gain = fuller(p, rows)
		}
	}
	for _, b := range rules.Bands {
		n := 0
		for _, r := range rows {
			if b.Holds(r.Entry.Channel.Receive) {
				n++
			}
		}
		reaches := slices.ContainsFunc(p.Transmit, func(s band.Span) bool { return s.Lower <= b.Upper && b.Lower <= s.Upper })
		if n > 0 || b.Transmit && reaches {
			d.Bands = append(d.Bands, BandDrawn{b, n})
		}
	}
	d.tones(p, rows)
	d.Example = example(p, rows)
	return d
}

// fuller is how many names would be longer on a radio with eight places and small
// letters. Common practice, no source: what many radios have.
func fuller(p *radio.Profile, rows []PreviewRow) (n int) {
	wide := p.Names
	wide.Length = max(8, wide.Length)
	wide.Characters += "abcdefghijklmnopqrstuvwxyz"
	for _, r := range rows {
		if r.Lost == "" && len([]rune(naming.Clean(r.Entry.Channel.Name, wide.Characters))) > p.Names.Length && p.Names.Length < 8 {
			n++
		}
	}
	return n
}

func (d *Drawing) tones(p *radio.Profile, rows []PreviewRow) {
	used := map[tone.Tone]bool{}
	for _, r := range rows {
		for _, t := range []tone.Tone{r.Entry.Channel.TransmitTone, r.Entry.Channel.ReceiveTone} {
			used[t] = true
			if t.Kind() == tone.DCS && !slices.Contains(d.UsedCodes, t.String()) {
				d.UsedCodes = append(d.UsedCodes, t.String())
			}
		}
	}
	slices.Sort(d.UsedCodes)
	for _, deci := range tone.CTCSS50 {
		t, err := tone.NewCTCSS(deci)
		if err == nil {
			d.Tones = append(d.Tones, ToneDrawn{t, p.Knows(t), used[t]})
		}
	}
	for _, t := range p.Extra {
		if !slices.Contains(tone.CTCSS50, t.DeciHertz()) {
			d.Tones = append(d.Tones, ToneDrawn{t, true, used[t]})
		}
	}
	d.Tones = append(d.Tones, ToneDrawn{tone.Burst1750, p.Burst, used[tone.Burst1750]})
}

// example is the first channel of the plan that the radio holds as it is, best one
// with a shift and a tone.
func example(p *radio.Profile, rows []PreviewRow) *Example {
	var best *PreviewRow
	rank := func(r *PreviewRow) (n int) {
		c := r.Entry.Channel
		if c.Side.Kind != channel.Simplex && c.Side.Kind != channel.Blocked {
			n += 2
		}
		if !c.TransmitTone.IsOff() {
			n++
		}
		return n
	}
	for i := range rows {
		r := &rows[i]
		if r.Thread == (radio.Thread{}) && (best == nil || rank(r) > rank(best)) {
			best = r
		}
	}
	if best == nil {
		return nil
	}
	return &Example{Slot: best.Slot, Name: best.Entry.Channel.Name, Sheet: keypad.Write(keypad.Wanted{Channel: best.Entry.Channel, Slot: best.Slot, Short: best.Short}, p)}
}

// Fits is how much of a plan each profile holds.
type Fits struct{ Whole, Part, Of int }

// Fits says of every profile how many channels of a plan it holds; with 0 of the
// first one.
func (p *Plans) Fits(ctx context.Context, planID int64) (map[string]Fits, error) {
	plan, err := p.Plan(ctx, planID)
	if err != nil {
		return nil, err
	}
	channels, err := p.numbered(ctx, plan.ID)
	if err != nil {
		return nil, err
	}
	profiles, err := p.fleet.Profiles(ctx)
	if err != nil {
		return nil, err
	}
	out := map[string]Fits{}
	for _, info := range profiles {
		profile, err := p.fleet.Profile(ctx, info.ID)
		if err != nil {
			return nil, err
		}
		f := Fits{Of: len(channels)}
		for _, c := range channels {
			switch t := profile.Thread(radio.Slotted{Slot: c.Slot, Channel: c.Channel}); {
			case t == radio.Thread{}:
				f.Whole++
			case t.Lost == "":
				f.Part++
			}
		}
		out[info.ID] = f
	}
	return out, nil
}
