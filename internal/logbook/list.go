package logbook

import (
	"bytes"
	"context"
	"encoding/csv"
	"fmt"
	"slices"
	"strconv"
	"strings"
	"time"
	"unicode"

	"mnemos/core/adif"
	"mnemos/core/freq"
	"mnemos/core/standing"
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
	for field, x := range map[string]struct {
		text *string
		to   *string
	}{"spot": {form.Spot, &a.Spot}, "station": {form.Station, &a.Station}, "note": {form.Note, &a.Note}} {
		if x.text == nil {
			continue
		}
		*x.to = strings.TrimSpace(*x.text)
		if len([]rune(*x.to)) > 200 || strings.ContainsFunc(*x.to, unicode.IsControl) {
			f.Add(field, "up to 200 characters, in one line")
		}
	}
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
	proved, err := l.proved(ctx, a)
	if err != nil {
		return a, err
	}
	return a, l.store.Edit(ctx, a.PlanID, plan.Latest, stamp, func(e *store.Edit) error {
		if proved != nil && !trial.Answer(a.Answer).Back() {
			if err := e.Stand(*proved); err != nil {
				return err
			}
		}
		return e.Put(a)
	})
}

// proved is what a channel falls back to where this try alone proved it: it is in the
// radio, and that it works is no longer shown. nil where it proved nothing.
func (l *Logbook) proved(ctx context.Context, a store.Attempt) (*store.Standing, error) {
	all, err := l.store.Standings(ctx, a.PlanID)
	if err != nil {
		return nil, err
	}
	s, ok := all[a.LoadID][a.ChannelID]
	if !ok || s.State != string(standing.Proven) || s.At != a.At {
		return nil, nil //nolint:nilnil // it proved nothing
	}
	s.State = string(standing.Stored)
	return &s, nil
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
	proved, err := l.proved(ctx, a)
	if err != nil {
		return err
	}
	return l.store.Edit(ctx, a.PlanID, plan.Latest, stamp, func(e *store.Edit) error {
		if proved != nil {
			if err := e.Stand(*proved); err != nil {
				return err
			}
		}
		return e.Drop("attempt", id)
	})
}

// Columns are the columns of the log as a table.
var Columns = []string{
	"time", "slot", "name", "receive MHz", "shift MHz", "tone out", "tone in", "width", "power", "watts", "power set again", "mark of tone seen", "kind", "answer", "yes", "was to fail", "place", "spot", "aerial",
	"callsign", "station", "note",
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
			yes[a.PowerSet], yes[a.ModeSeen], a.Kind, a.Answer, yes[a.Yes], yes[a.Negative], a.Place, a.Spot, a.Aerial, a.Callsign, a.Station, a.Note,
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

// ADI returns the contacts of the log as ADI: replies with a callsign. What is no contact
// is left out, and listed.
func (l *Logbook) ADI(ctx context.Context, loadID int64) (text string, losses []string, err error) {
	list, err := l.List(ctx, loadID, "")
	if err != nil {
		return "", nil, err
	}
	var records []adif.Record
	left := 0
	for _, a := range slices.Backward(list.Tries) {
		if a.Kind != string(trial.Key) || a.Answer != string(trial.Reply) || a.Station == "" {
			left++
			continue
		}
		at, err := time.Parse(time.RFC3339, a.At)
		if err != nil {
			return "", nil, fmt.Errorf("read the log: %w", err)
		}
		tx, rx := float64(a.Receive+a.Offset)/1e6, float64(a.Receive)/1e6
		mhz := func(x float64) string { return strconv.FormatFloat(x, 'f', -1, 64) }
		r := adif.Record{}
		r.Set("CALL", strings.ToUpper(a.Station))
		r.Set("STATION_CALLSIGN", a.Callsign)
		r.Set("QSO_DATE", at.UTC().Format("20060102"))
		r.Set("TIME_ON", at.UTC().Format("150405"))
		r.Set("MODE", "FM")
		r.Set("BAND", adif.Band(tx))
		r.Set("FREQ", mhz(tx))
		if a.Offset != 0 {
			r.Set("FREQ_RX", mhz(rx))
			r.Set("BAND_RX", adif.Band(rx))
		}
		r.Set("TX_PWR", strconv.FormatFloat(a.Watts, 'f', -1, 64))
		r.Set("COMMENT", a.Note)
		r.Set("MY_ANTENNA", a.Aerial)
		r.Set(adif.Own("CHANNEL"), a.Name)
		r.Set(adif.Own("TONE_OUT"), a.ToneOut)
		r.Set(adif.Own("TONE_IN"), a.ToneIn)
		r.Set(adif.Own("PLACE"), strings.Trim(a.Place+", "+a.Spot, ", "))
		records = append(records, r)
	}
	text, lost := adif.Write(adif.Record{{Name: "ADIF_VER", Data: "3.1.4"}, {Name: "PROGRAMID", Data: "MNEMOS"}, {Name: "CREATED_TIMESTAMP", Data: l.now().UTC().Format("20060102 150405")}}, records)
	for _, x := range lost {
		losses = append(losses, x.String())
	}
	if left > 0 {
		losses = append(losses, fmt.Sprintf("%d lines of the log are no contact with a station, and are not in it", left))
	}
	return text, losses, nil
}
