package plan

import (
	"context"
	"fmt"
	"strings"

	"mnemos/core/compare"
	"mnemos/core/intake"
	"mnemos/internal/fault"
	"mnemos/internal/store"
)

// Past is a change of a plan, as it is told.
type Past struct {
	store.Past
	Says   string // "Moved 4 channels to 30–33"
	Person string // "" for nobody
	Latest bool   // nothing was changed since
}

// Snapshot is a plan as it was after a change, under a name.
type Snapshot = store.Snapshot

// History is what became of a plan, newest first.
type History struct {
	Changes   []Past
	More      bool // there are older ones
	Snapshots []store.Snapshot
}

// page is how many changes are told at once.
const page = 60

// History returns the last changes of a plan before one, and all its snapshots; 0
// is the newest.
func (p *Plans) History(ctx context.Context, planID, before int64) (*History, error) {
	x, err := p.Plan(ctx, planID)
	if err != nil {
		return nil, err
	}
	if before == 0 {
		before = Latest
	}
	rows, err := p.store.History(ctx, x.ID, before, page+1)
	if err != nil {
		return nil, err
	}
	people, err := p.fleet.People(ctx)
	if err != nil {
		return nil, err
	}
	name := map[int64]string{}
	for _, x := range people {
		name[x.ID] = x.Name
	}
	out := &History{Changes: []Past{}, More: len(rows) > page}
	for _, r := range rows[:min(len(rows), page)] {
		out.Changes = append(out.Changes, Past{r, said(r.Kind, r.Label), name[r.PersonID], r.Event == x.Revision})
	}
	out.Snapshots, err = p.store.Snapshots(ctx, x.ID)
	return out, err
}

// done are the verbs of the labels as they are told afterwards.
var done = map[string]string{
	"store": "Stored", "also": "Also", "add": "Added", "move": "Moved", "swap": "Swapped", "make": "Made", "close": "Closed", "put": "Put", "delete": "Deleted",
	"duplicate": "Duplicated", "change": "Changed", "fix": "Fixed", "paste": "Pasted", "load": "Loaded", "take": "Took", "remove": "Removed", "copy": "Copied",
	"rename": "Renamed", "new": "Made", "name": "Named", "go": "Went", "keep": "Kept", "shorten": "Shortened", "use": "Used", "give": "Gave", "ignore": "Ignored",
}

// said tells a change by its label: "move 4 channels to 30–33" is what undo takes
// back, and "Moved 4 channels to 30–33" is what happened.
func said(kind, label string) string {
	verb, rest, _ := strings.Cut(label, " ")
	past, known := done[verb]
	if !known {
		past = strings.ToUpper(verb[:min(1, len(verb))]) + verb[min(1, len(verb)):]
	}
	says := strings.TrimSpace(past + " " + rest)
	switch kind {
	case "undo":
		return "Undid: " + label
	case "redo":
		return "Did again: " + label
	}
	return says
}

// GoBack puts a plan back as it was after a change, as one step that can be taken
// back.
func (p *Plans) GoBack(ctx context.Context, loadID, event, revision int64) (*Ledger, error) {
	l, err := p.store.Load(ctx, loadID)
	if err != nil {
		return nil, err
	}
	x, err := p.store.Plan(ctx, l.PlanID)
	if err != nil {
		return nil, err
	}
	rows, err := p.store.History(ctx, x.ID, event+1, 1)
	if err != nil {
		return nil, err
	}
	if len(rows) == 0 || rows[0].Event != event {
		return nil, fmt.Errorf("the change %d of %s: %w", event, x.Name, fault.ErrNotFound)
	}
	stamp, err := p.fleet.Stamp(ctx, "go back to: "+said(rows[0].Kind, rows[0].Label))
	if err != nil {
		return nil, err
	}
	return p.after(ctx, l, p.store.GoBack(ctx, x.ID, event, revision, stamp))
}

// Keep names the plan as it is now.
func (p *Plans) Keep(ctx context.Context, planID int64, name string) (*History, error) {
	x, err := p.Plan(ctx, planID)
	if err != nil {
		return nil, err
	}
	f := &fault.Invalid{}
	if name = strings.TrimSpace(name); name == "" || len([]rune(name)) > 60 || intake.Clean(name) != name {
		f.Add("name", "name the snapshot, in up to 60 characters, such as: before the season")
	}
	if err := f.Or(); err != nil {
		return nil, err
	}
	stamp, err := p.fleet.Stamp(ctx, "keep a snapshot: "+name)
	if err != nil {
		return nil, err
	}
	err = p.store.Edit(ctx, x.ID, Latest, stamp, func(e *store.Edit) error {
		id, err := e.ID("snapshot")
		if err != nil {
			return err
		}
		return e.Put(store.Snapshot{ID: id, PlanID: x.ID, Name: name, Event: x.Revision, At: stamp.At})
	})
	if err != nil {
		return nil, err
	}
	return p.History(ctx, x.ID, 0)
}

// Forget removes a snapshot.
func (p *Plans) Forget(ctx context.Context, planID, id int64) (*History, error) {
	stamp, err := p.fleet.Stamp(ctx, "remove a snapshot")
	if err != nil {
		return nil, err
	}
	if err := p.store.Edit(ctx, planID, Latest, stamp, func(e *store.Edit) error { return e.Drop("snapshot", id) }); err != nil {
		return nil, err
	}
	return p.History(ctx, planID, 0)
}

// Side is one of two that are compared: a plan as it was after a change, and of
// it one radio, or with 0 the channels under the numbers that everybody uses.
type Side struct {
	Plan  int64
	Event int64 // 0 for how it is now
	Load  int64
}

// Compare says how two plans, radios or times differ.
func (p *Plans) Compare(ctx context.Context, was, is Side) (compare.Result, error) {
	a, err := p.side(ctx, was)
	if err != nil {
		return compare.Result{}, err
	}
	b, err := p.side(ctx, is)
	if err != nil {
		return compare.Result{}, err
	}
	if was.Plan != is.Plan { // the same number is another channel there
		for i := range a {
			a[i].ID = 0
		}
	}
	return compare.Lists(a, b), nil
}

func (p *Plans) side(ctx context.Context, s Side) ([]compare.Item, error) {
	if s.Event == 0 {
		s.Event = Latest
	}
	if _, err := p.store.Plan(ctx, s.Plan); err != nil {
		return nil, err
	}
	was, err := p.store.PlanAt(ctx, s.Plan, s.Event)
	if err != nil {
		return nil, err
	}
	var out []compare.Item
	if s.Load != 0 {
		for _, e := range was.Entries[s.Load] {
			out = append(out, compare.Of(e.ChannelID, e.Slot, e.ShortName, e.Scan, e.Channel))
		}
		return out, nil
	}
	seen := map[int64]bool{}
	for _, l := range was.Loads {
		for _, e := range was.Entries[l.ID] {
			if seen[e.ChannelID] {
				continue
			}
			seen[e.ChannelID] = true
			if n, ok := was.Numbers[e.ChannelID]; ok {
				e.Slot = n
			}
			out = append(out, compare.Of(e.ChannelID, e.Slot, "", e.Scan, e.Channel))
		}
	}
	return out, nil
}
