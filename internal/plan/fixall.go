package plan

import (
	"cmp"
	"context"
	"fmt"
	"slices"

	"mnemos/core/channel"
	"mnemos/core/check"
	"mnemos/internal/fault"
	"mnemos/internal/store"
)

// kinds counts what was found, the gravest and then the most frequent first. Notes
// do not count.
func kinds(results []check.Result) []Kind {
	at := map[string]*Kind{}
	for _, r := range results {
		seen := map[string]bool{}
		for _, f := range r.Findings {
			if f.Severity == check.Note || seen[f.Rule] {
				continue
			}
			seen[f.Rule] = true
			k := at[f.Rule]
			if k == nil {
				k = &Kind{Rule: f.Rule, Title: check.Title(f.Rule), Severity: f.Severity}
				at[f.Rule] = k
			}
			if check.Graver(f.Severity, k.Severity) {
				k.Severity = f.Severity
			}
			k.Channels++
			if _, ok := sure(f); ok {
				k.Fixable++
			}
		}
	}
	out := []Kind{}
	for _, k := range at {
		out = append(out, *k)
	}
	slices.SortFunc(out, func(a, b Kind) int {
		grave := 0
		if a.Severity != b.Severity {
			grave = 1
			if check.Graver(a.Severity, b.Severity) {
				grave = -1
			}
		}
		return cmp.Or(grave, cmp.Compare(b.Channels, a.Channels), cmp.Compare(a.Rule, b.Rule))
	})
	return out
}

// sure returns the fix of a finding that can be applied without looking at the
// channel alone: the first, where it is very likely what was meant and leaves the
// channel in its slot.
func sure(f check.Finding) (check.Remedy, bool) {
	if len(f.Fixes) == 0 {
		return check.Remedy{}, false
	}
	x := f.Fixes[0]
	return x, x.Slot == nil && x.Confidence == check.VeryLikely
}

// Offered is a fix of one channel among those of a kind.
type Offered struct {
	Slot    int
	Name    string
	ID      string // of the fix
	Label   string
	Was, Is channel.Channel
}

// OfKind returns what fixing everything of one kind would change, channel by
// channel, and which channels need a person to look.
func (p *Plans) OfKind(ctx context.Context, loadID int64, rule string) (fixes []Offered, look []int, err error) {
	d, results, err := p.judgedAll(ctx, loadID)
	if err != nil {
		return nil, nil, err
	}
	for i, r := range results {
		e := d.entries[i]
		j := slices.IndexFunc(r.Findings, func(f check.Finding) bool { return f.Rule == rule && f.Severity != check.Note })
		if j < 0 {
			continue
		}
		if x, ok := sure(r.Findings[j]); ok {
			fixes = append(fixes, Offered{e.Slot, label(e.Channel), x.ID, x.Label, e.Channel, x.Result})
		} else {
			look = append(look, e.Slot)
		}
	}
	return fixes, look, nil
}

func (p *Plans) judgedAll(ctx context.Context, loadID int64) (*desk, []check.Result, error) {
	d, err := p.desk(ctx, loadID)
	if err != nil {
		return nil, nil, err
	}
	results, err := p.judge(ctx, d, d.entries)
	return d, results, err
}

// FixAll carries out fixes of one kind on several channels, as one step: ids names
// the fix by slot, as they were shown. Where one is not offered any more, nothing
// is changed.
func (p *Plans) FixAll(ctx context.Context, loadID, revision int64, rule string, ids map[int]string) (*Ledger, error) {
	d, results, err := p.judgedAll(ctx, loadID)
	if err != nil {
		return nil, err
	}
	changed := map[int64]check.Remedy{}
	for i, r := range results {
		id, wanted := ids[d.entries[i].Slot]
		if !wanted {
			continue
		}
		fix, ok := fixOf(r.Findings, id)
		if !ok || fix.Slot != nil {
			_, err := p.after(ctx, d.load, &fault.Stale{Why: fmt.Sprintf("the fix of slot %d is not offered any more: look at the list again", d.entries[i].Slot)})
			return nil, err
		}
		changed[d.entries[i].ID] = fix
	}
	if len(changed) < len(ids) || len(ids) == 0 {
		f := &fault.Invalid{}
		f.Add("fixes", "choose channels to fix")
		return nil, f
	}
	return p.change(ctx, d, revision, fmt.Sprintf("fix %s: %s", channels(len(changed)), check.Title(rule)), func(x *store.Edit) error {
		for _, e := range d.entries {
			fix, ok := changed[e.ID]
			if !ok {
				continue
			}
			if err := x.SetChannel(e.ChannelID, fix.Result, link(e, fix.Result)); err != nil {
				return err
			}
		}
		return nil
	})
}
