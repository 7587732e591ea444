package logbook

import (
	"bytes"
	"context"
	"encoding/csv"
	"fmt"
	"slices"
	"strconv"
	"strings"

	"mnemos/core/freq"
	"mnemos/core/table"
	"mnemos/core/trial"
	"mnemos/internal/fault"
	"mnemos/internal/plan"
	"mnemos/internal/store"
)

// List is the log of a plan, newest first, with how many tries were answered.
type List struct {
	Tries            []store.Attempt
	Answered, Silent int
}

// List returns the log of the plan of a radio. find are words that a line has to hold.
func (l *Logbook) List(ctx context.Context, loadID int64, find string) (*List, error) {
	load, err := l.store.Load(ctx, loadID)
	if err != nil {
		return nil, err
	}
	all, err := l.store.Attempts(ctx, load.PlanID)
	if err != nil {
		return nil, err
	}
	out := &List{Tries: []store.Attempt{}}
	words := strings.Fields(strings.ToLower(find))
	for _, a := range slices.Backward(all) {
		line := strings.ToLower(strings.Join([]string{strconv.Itoa(a.Slot), a.Name, freq.Hz(a.Receive).MHz(), a.ToneOut, a.Answer, Says(a), a.Place, a.Spot, a.Aerial, a.Station, a.Note, a.Callsign, a.At}, " "))
		if slices.ContainsFunc(words, func(w string) bool { return !strings.Contains(line, w) }) {
			continue
		}
		out.Tries = append(out.Tries, a)
		if a.Kind == string(trial.Contact) {
			out.Answered++
		}
		if a.Kind == string(trial.Key) && !a.Negative {
			if trial.Answer(a.Answer).Back() {
				out.Answered++
			} else {
				out.Silent++
			}
		}
	}
	return out, nil
}

// Says puts what came of a try into words.
func Says(a store.Attempt) string {
	switch trial.Kind(a.Kind) {
	case trial.Listen:
		if a.Yes {
			return "its ident was heard"
		}
		return "listened ten minutes, nothing"
	case trial.Look:
		if a.Yes {
			return "the display showed no mark of a tone: set again"
		}
		return "the display shows the mark of the tone"
	case trial.Ask:
		if a.Yes {
			return "others hear it"
		}
		return "nobody hears it"
	case trial.Seeking:
		h := a.Hit()
		if h.Tone.IsOff() {
			return fmt.Sprintf("no %s on the %s", h.System.Words(), h.Side)
		}
		return fmt.Sprintf("%s on the %s", h.Tone.Words(), h.Side)
	case trial.Contact:
		return "contact with " + a.Station
	case trial.Switch:
		return a.Answer
	default:
	}
	says := a.Answer
	if a.Answer == string(trial.Reply) && a.Station != "" {
		says += " from " + a.Station
	}
	if a.Answer == string(trial.Weak) {
		says = "weak, but in"
	}
	if a.Negative {
		if trial.Answer(a.Answer).Back() {
			return says + ", though it was to fail"
		}
		return "silent, as it should be"
	}
	return says
}

// Edit is what is corrected of a try; nil for what stays.
type Edit struct{ Answer, Spot, Station, Note *string }

// Correct corrects what is noted of a try.
func (l *Logbook) Correct(ctx context.Context, id int64, form Edit) (store.Attempt, error) {
	a, err := l.store.Attempt(ctx, id)
	if err != nil {
		return a, err
	}
	f := &fault.Invalid{}
	for _, x := range []struct{ text, to *string }{{form.Spot, &a.Spot}, {form.Station, &a.Station}, {form.Note, &a.Note}} {
		if x.text != nil {
			*x.to = *x.text
		}
	}
	texts(f, map[string]*string{"spot": &a.Spot, "station": &a.Station, "note": &a.Note})
	if form.Answer != nil {
		if a.Answer = *form.Answer; a.Kind != string(trial.Key) || !trial.Answer(a.Answer).Valid() {
			f.Add("answer", "say what came back: tail, ident, weak, reply or nothing")
		}
	}
	if err := f.Or(); err != nil {
		return a, err
	}
	stamp, err := l.fleet.Stamp(ctx, "correct the log of "+a.Name)
	if err != nil {
		return a, err
	}
	stands, err := l.restand(ctx, a, false)
	if err != nil {
		return a, err
	}
	return a, l.store.Edit(ctx, a.PlanID, plan.Latest, stamp, func(e *store.Edit) error {
		if stands != nil {
			if err := e.Stand(*stands); err != nil {
				return err
			}
		}
		return e.Put(a)
	})
}

// Drop takes a try out of the log.
func (l *Logbook) Drop(ctx context.Context, id int64) error {
	a, err := l.store.Attempt(ctx, id)
	if err != nil {
		return err
	}
	stamp, err := l.fleet.Stamp(ctx, "take a try of "+a.Name+" out of the log")
	if err != nil {
		return err
	}
	stands, err := l.restand(ctx, a, true)
	if err != nil {
		return err
	}
	return l.store.Edit(ctx, a.PlanID, plan.Latest, stamp, func(e *store.Edit) error {
		if stands != nil {
			if err := e.Stand(*stands); err != nil {
				return err
			}
		}
		return e.Drop("attempt", id)
	})
}

// Columns are the columns of the log as a table.
var Columns = []string{
	"time", "slot", "name", "receive MHz", "shift MHz", "tone out", "tone in", "width", "power", "watts", "power set again", "mark of tone seen", "kind", "answer", "yes", "was to fail", "place", "spot", "aerial",
	"callsign", "station", "note", "side",
}

// CSV returns the log as a table that loses nothing.
func (l *Logbook) CSV(ctx context.Context, loadID int64) ([]byte, error) {
	list, err := l.List(ctx, loadID, "")
	if err != nil {
		return nil, err
	}
	var b bytes.Buffer
	w := csv.NewWriter(&b)
	if err := w.Write(Columns); err != nil {
		return nil, err
	}
	yes := map[bool]string{true: "yes", false: "no"}
	for _, a := range slices.Backward(list.Tries) {
		row := []string{
			a.At, strconv.Itoa(a.Slot), a.Name, freq.Hz(a.Receive).MHz(), strconv.FormatFloat(float64(a.Offset)/1e6, 'f', -1, 64), a.ToneOut, a.ToneIn, a.Width, a.Power, strconv.FormatFloat(a.Watts, 'f', -1, 64),
			yes[a.PowerSet], yes[a.ModeSeen], a.Kind, a.Answer, yes[a.Yes], yes[a.Negative], a.Place, a.Spot, a.Aerial, a.Callsign, a.Station, a.Note, a.Side,
		}
		for i, x := range row {
			row[i] = table.Guarded(x)
		}
		if err := w.Write(row); err != nil {
			return nil, err
		}
	}
	w.Flush()
	return b.Bytes(), w.Error()
}
