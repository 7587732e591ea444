package demo

import (
	"encoding/json"
	"fmt"
	"maps"
	"slices"
	"strconv"
	"time"

	"mnemos/core/band"
	"mnemos/core/entry"
	"mnemos/internal/store"
)

// evening is some hours in which somebody listened with the first radio.
type evening struct {
	Day    string // of the week
	Weeks  int    // back from the day of the demonstration
	From   int    // hour
	Hours  int
	Chance float64
	Heard  map[int]int // slot -> overs an hour
}

// begins is when the evening was, so many weeks before a day.
func (v evening) begins(today time.Time) (time.Time, error) {
	for day := range 7 {
		t := time.Date(today.Year(), today.Month(), today.Day()-day-1, v.From, 0, 0, 0, today.Location())
		if t.Weekday().String() == v.Day {
			return t.AddDate(0, 0, -7*(v.Weeks-1)), nil
		}
	}
	return time.Time{}, fmt.Errorf("demo diary: %q is not a day of the week", v.Day)
}

// fillDiary writes what was heard in the demonstration, and how its first radio scans.
func fillDiary(e *store.Edit, data planData, planID, loadID int64, today time.Time) error {
	hertz := map[int]int64{}
	for slot, line := range data.Loads[0].Slots {
		hertz[slot] = int64(entry.Read(line, band.MustLoad(data.Operator.Region)).Channel.Receive)
	}
	for _, v := range data.Diary {
		from, err := v.begins(today)
		if err != nil {
			return err
		}
		if err := v.write(e, from, planID, loadID, hertz); err != nil {
			return err
		}
	}
	talk := map[string]map[string]float64{}
	for slot, s := range data.Listening.Lengths {
		talk[strconv.FormatInt(hertz[slot], 10)] = map[string]float64{"rate": 0, "length": s}
	}
	text, err := json.Marshal(talk)
	if err != nil {
		return err
	}
	return e.Listen(store.Listening{LoadID: loadID, Stay: -1, Goal: data.Listening.Goal, Talk: string(text)})
}

func (v evening) write(e *store.Edit, from time.Time, planID, loadID int64, hertz map[int]int64) error {
	at := func(t time.Time) string { return t.UTC().Format(time.RFC3339) }
	chances := map[string]float64{}
	for _, f := range hertz {
		chances[strconv.FormatInt(f, 10)] = v.Chance
	}
	text, err := json.Marshal(chances)
	if err != nil {
		return err
	}
	run := store.Listened{PlanID: planID, LoadID: loadID, Began: at(from), Ended: at(from.Add(time.Duration(v.Hours) * time.Hour)), Chances: string(text)}
	if run.ID, err = e.ID("listened"); err != nil {
		return err
	}
	if err := e.Put(run); err != nil {
		return err
	}
	for _, slot := range slices.Sorted(maps.Keys(v.Heard)) {
		n := v.Heard[slot] * v.Hours
		for i := range n {
			id, err := e.ID("heard")
			if err != nil {
				return err
			}
			t := from.Add(time.Duration(v.Hours) * time.Hour * time.Duration(2*i+1) / time.Duration(2*n))
			if err := e.Put(store.Heard{ID: id, PlanID: planID, ListenedID: run.ID, Receive: hertz[slot], At: at(t)}); err != nil {
				return err
			}
		}
	}
	return nil
}
