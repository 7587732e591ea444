package plan

import (
	"context"
	"slices"

	"mnemos/core/channel"
	"mnemos/core/check"
	"mnemos/core/entry"
	"mnemos/core/evidence"
	"mnemos/core/listing"
	"mnemos/internal/store"
)

// Row is an occupied slot of a ledger.
type Row struct {
	ID        int64 // of the channel
	Slot      int
	Channel   channel.Channel
	ShortName string
	Pinned    bool
	Watts     *float64
	Scan      entry.Scan
	Verdict   evidence.Verdict
	Flags     map[channel.Field]string // the gravest severity per field
	Top       *check.Finding           // the first finding that has a fix
	Line      string                   // the channel as an entry line
	Standing  Standing
	Rules     []string   // IDs of the rules that found something graver than a note
	Repeater  listing.ID // the published statement that it was made from; zero for none
}

// Ledger is a load as it stands, with every channel judged.
type Ledger struct {
	Load     int64
	PlanID   int64
	Revision int64 // the last change of anything that was seen
	SavedAt  string
	Rows     []Row
	Tally    map[evidence.Verdict]int
	NextSlot *int   // nil if the radio is full
	Undo     string // what undo would take back, or ""
	Redo     string
	Checking bool  // what is published is being read: look again for the verdicts
	Puts     []Put // where a channel that was stored went in other radios
	Kinds    []Kind
}

// Kind is a rule that found something in a load, and in how many channels.
type Kind struct {
	Rule, Title string
	Severity    check.Severity // the gravest
	Channels    int
	Fixable     int // how many of them have a fix that is very likely what was meant
}

// Ledger returns a load as it stands.
func (p *Plans) Ledger(ctx context.Context, loadID int64) (*Ledger, error) {
	d, err := p.desk(ctx, loadID)
	if err != nil {
		return nil, err
	}
	l := &Ledger{
		Load: loadID, PlanID: d.plan.ID, Revision: d.seen, SavedAt: d.plan.SavedAt, Rows: []Row{},
		Tally: map[evidence.Verdict]int{evidence.Agrees: 0, evidence.Unverified: 0, evidence.Conflict: 0, evidence.Stop: 0},
	}
	results, err := p.judge(ctx, d, d.entries)
	if err != nil {
		return nil, err
	}
	for i, e := range d.entries {
		if results[i].Verdict == Checking {
			l.Checking = true
		} else {
			l.Tally[results[i].Verdict]++
		}
		l.Rows = append(l.Rows, d.row(e, results[i]))
	}
	l.Kinds = kinds(results)
	if n, ok := d.vacant(d.radio.Slots.First); ok {
		l.NextSlot = &n
	}
	u, err := p.store.Undoable(ctx, d.plan.ID, d.me.ID)
	if err != nil {
		return nil, err
	}
	l.Undo, l.Redo = u.Undo, u.Redo
	return l, nil
}

// Checking is the verdict of a channel while what is published is being read:
// none yet.
const Checking evidence.Verdict = "checking"

// few is how many channels are looked up in the file while what is published
// is not in memory: more take so long that the plan is shown without verdicts
// first.
const few = 100

// judge returns what the checks say of some entries of a load.
func (p *Plans) judge(ctx context.Context, d *desk, entries []store.Entry) ([]check.Result, error) {
	if len(entries) > few && !p.catalog.Within(ctx, p.patience) {
		out := make([]check.Result, len(entries))
		for i := range out {
			out[i].Verdict = Checking
		}
		return out, nil
	}
	var err error
	if d.listings, d.generation, err = p.catalog.Source(ctx, d.plan.ID); err != nil { // in memory by now
		return nil, err
	}
	subjects := make([]check.Subject, len(entries))
	for i, e := range entries {
		subjects[i] = d.subject(e)
	}
	return p.memo.JudgeAll(ctx, d.listings, d.generation, subjects)
}

func (d *desk) row(e store.Entry, r check.Result) Row {
	row := Row{
		ID: e.ChannelID, Slot: e.Slot, Channel: e.Channel, ShortName: e.ShortName, Pinned: e.Pinned, Scan: e.Scan, Verdict: r.Verdict,
		Standing: d.standing(e), Flags: map[channel.Field]string{}, Line: entry.Format(e.Channel, nil, e.Scan), Repeater: e.Repeater,
	}
	if _, sends := e.Channel.Transmit(); sends {
		w := d.radio.Watts.Of(e.Channel.Power)
		row.Watts = &w
	}
	for _, f := range r.Findings { // gravest first
		if f.Severity != check.Note && !slices.Contains(row.Rules, f.Rule) {
			row.Rules = append(row.Rules, f.Rule)
		}
		if f.Severity != check.Stop && f.Severity != check.Fix {
			continue
		}
		if _, ok := row.Flags[f.Field]; !ok {
			row.Flags[f.Field] = string(f.Severity)
		}
		if f.Field == channel.FieldTransmit || f.Severity == check.Stop && f.Field == channel.FieldShift {
			row.Flags[channel.FieldShift], row.Flags[channel.FieldTransmit] = string(f.Severity), string(f.Severity)
		}
	}
	if i := slices.IndexFunc(r.Findings, func(f check.Finding) bool { return len(f.Fixes) > 0 && f.Severity != check.Note }); i >= 0 {
		row.Top = &r.Findings[i]
	}
	return row
}

func (d *desk) subject(e store.Entry) check.Subject {
	return check.Subject{
		Channel: e.Channel, Slot: &e.Slot, Plan: d.band, Radio: d.radio, Occupancy: d.occupancy(), Settings: d.settings, Heard: d.witnessed(e),
	}
}
