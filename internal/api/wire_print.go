package api

import (
	"mnemos/core/handset"
	"mnemos/core/keypad"
	"mnemos/internal/print"
)

func wireKeypad(k *print.KeypadSheet) KeypadSheet {
	return KeypadSheet{
		Slot: k.Slot, Name: k.Name, ShortName: k.ShortName, Plan: k.Plan, Radio: wireRadio(k.Radio), Channel: wireChannel(k.Channel), Verdict: Verdict(k.Verdict),
		Stops: k.Stops, Doubts: k.Doubts, Source: k.Source, Untried: k.Untried, Sheet: wireSheet(k.Sheet),
	}
}

func wireSheet(s keypad.Sheet) Sheet {
	out := Sheet{
		Reason: s.Reason, Locked: s.Locked, Start: texts(s.Start), Leave: texts(s.Leave), Rest: wireShown(s.Rest), ReadOut: s.ReadOut, Hidden: texts(s.Hidden),
		Notes: texts(s.Notes), Check: texts(s.Check), Losses: each(s.Losses, wireLoss),
		Steps: each(s.Steps, func(x keypad.Step) SheetStep {
			return SheetStep{
				Number: x.Number, Do: x.Do, Value: some(x.Value), Unit: some(x.Unit), Again: some(x.Again), Keys: x.Keys, Note: some(x.Note),
				Acts: each(x.Acts, wireAct), Presses: x.Presses, Repeats: x.Repeats, Guess: x.Guess, Opens: x.Opens, Passes: texts(x.Passes),
			}
		}),
	}
	if s.Keyed != nil {
		keyed := wireShown(*s.Keyed)
		out.Keyed = &keyed
	}
	return out
}

func wireShown(s keypad.Shown) Shown {
	return Shown{Shift: s.Shift, Tone: s.Tone, Lock: s.Lock, Figures: s.Figures, Note: some(s.Note)}
}

func wireHandset(h *print.Handset) Handset {
	return Handset{
		Keys: h.Keys, Display: wireDisplay(h.Display), Trouble: h.Trouble, Slot: h.Slot, Differs: h.Differs,
		Frames: each(h.Frames, func(f print.Frame) HandsetFrame {
			return HandsetFrame{Key: f.Key, Times: f.Times, Display: wireDisplay(f.Display)}
		}),
	}
}

func wireDisplay(d handset.Display) HandsetDisplay {
	return HandsetDisplay{
		Figures: d.Figures, What: d.What, Slot: d.Slot, Name: d.Name, Open: d.Open, Value: d.Value, Beep: d.Beep, Says: d.Says,
		Marks: each(d.Marks, func(m handset.Mark) HandsetMark {
			return HandsetMark{Setting: string(m.Setting), Text: m.Text, Means: m.Means}
		}),
	}
}
