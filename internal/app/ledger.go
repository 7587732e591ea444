package app

import (
	"context"
	"slices"

	"mnemos/core/band"
	"mnemos/core/channel"
	"mnemos/core/check"
	"mnemos/core/entry"
	"mnemos/core/evidence"
	"mnemos/core/radio"
	"mnemos/internal/store"
)

// Workspace is what the application opens with.
type Workspace struct {
	Plan     PlanInfo     `json:"plan"`
	Loads    []LoadInfo   `json:"loads"`
	Operator OperatorInfo `json:"operator"`
}

// PlanInfo names a plan.
type PlanInfo struct {
	ID   int64  `json:"id"`
	Name string `json:"name"`
}

// LoadInfo names a load and describes its radio.
type LoadInfo struct {
	ID    int64          `json:"id"`
	Radio *radio.Profile `json:"radio"`
}

// OperatorInfo says where and under which plan the operator is.
type OperatorInfo struct {
	Region    string  `json:"region"`
	Authority string  `json:"authority"`
	Locator   string  `json:"locator"`
	Height    float64 `json:"height_m"`
	Radius    float64 `json:"radius_km"`
}

// Row is an occupied slot of a ledger.
type Row struct {
	Slot      int                      `json:"slot"`
	Channel   channel.Channel          `json:"channel"`
	ShortName string                   `json:"short_name"`
	Watts     *float64                 `json:"watts"`
	Scan      entry.Scan               `json:"scan"`
	Verdict   evidence.Verdict         `json:"verdict"`
	Flags     map[channel.Field]string `json:"flags"` // the gravest severity per field
	Top       *check.Finding           `json:"top"`   // the first finding that has a fix
	Line      string                   `json:"line"`  // the channel as an entry line
}

// Ledger is a load as it stands, with every channel judged.
type Ledger struct {
	Load     int64                    `json:"load"`
	PlanID   int64                    `json:"plan"`
	Revision int64                    `json:"revision"`
	SavedAt  string                   `json:"saved_at"`
	Rows     []Row                    `json:"rows"`
	Tally    map[evidence.Verdict]int `json:"tally"`
	NextSlot *int                     `json:"next_slot"` // nil if the radio is full
	Undo     string                   `json:"undo"`      // what undo would take back, or ""
	Redo     string                   `json:"redo"`
}

// Workspace returns the first plan with its loads.
func (a *App) Workspace(ctx context.Context) (*Workspace, error) {
	plan, err := a.plan(ctx)
	if err != nil {
		return nil, err
	}
	o, err := a.store.Operator(ctx)
	if err != nil {
		return nil, err
	}
	rules, err := band.Load(o.Region)
	if err != nil {
		return nil, err
	}
	w := &Workspace{Plan: PlanInfo{ID: plan.ID, Name: plan.Name}}
	w.Operator = OperatorInfo{Region: o.Region, Authority: rules.Authority, Height: o.Height, Radius: o.Radius}
	if s := settings(o, a.now()); s.Place != nil {
		w.Operator.Locator = s.Place.Locator()
	}
	w.Loads, err = a.equipped(ctx)
	return w, err
}

// Ledger returns a load as it stands.
func (a *App) Ledger(ctx context.Context, loadID int64) (*Ledger, error) {
	d, err := a.desk(ctx, loadID)
	if err != nil {
		return nil, err
	}
	l := &Ledger{
		Load: loadID, PlanID: d.plan.ID, Revision: d.plan.Revision, SavedAt: d.plan.SavedAt, Rows: []Row{},
		Tally: map[evidence.Verdict]int{evidence.Agrees: 0, evidence.Unverified: 0, evidence.Conflict: 0, evidence.Stop: 0},
	}
	results, err := a.judge(ctx, d, d.entries)
	if err != nil {
		return nil, err
	}
	for i, e := range d.entries {
		l.Tally[results[i].Verdict]++
		l.Rows = append(l.Rows, d.row(e, results[i]))
	}
	if n, ok := d.vacant(d.radio.Slots.First); ok {
		l.NextSlot = &n
	}
	u, err := a.store.Undoable(ctx, d.plan.ID, d.operator.Person)
	if err != nil {
		return nil, err
	}
	l.Undo, l.Redo = u.Undo, u.Redo
	return l, nil
}

// judge returns what the checks say of some entries of a load.
func (a *App) judge(ctx context.Context, d *desk, entries []store.Entry) ([]check.Result, error) {
	subjects := make([]check.Subject, len(entries))
	for i, e := range entries {
		subjects[i] = d.subject(e)
	}
	return a.memo.JudgeAll(ctx, d.listings, d.edition, subjects)
}

func (d *desk) row(e store.Entry, r check.Result) Row {
	row := Row{
		Slot: e.Slot, Channel: e.Channel, ShortName: e.ShortName, Scan: e.Scan, Verdict: r.Verdict,
		Flags: map[channel.Field]string{}, Line: entry.Format(e.Channel, nil, e.Scan),
	}
	if _, sends := e.Channel.Transmit(); sends {
		w := d.radio.Watts.Of(e.Channel.Power)
		row.Watts = &w
	}
	for _, f := range r.Findings { // gravest first
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
		Channel: e.Channel, Slot: &e.Slot, Plan: d.band, Radio: d.radio, Occupancy: d.occupancy(), Settings: d.settings,
	}
}
