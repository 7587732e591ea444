package table

import "testing"

// FuzzRead reads whatever is pasted without a panic; what it reads without a fault is
// a channel that can stand.
func FuzzRead(f *testing.F) {
	f.Add("receive MHz\tshift\n146.94\t600 kHz down")
	f.Add("slot\treceive MHz\ttransmit MHz\n1\t146,94\tnone")
	f.Fuzz(func(t *testing.T, text string) {
		rows := Rows(text)
		if len(rows) == 0 {
			return
		}
		Ours(rows[0])
		for _, row := range rows[1:] {
			if l, faults := Read(rows[0], row); len(faults) == 0 && l.Channel.Validate() != nil {
				t.Errorf("%q: %v", row, l.Channel.Validate())
			}
		}
		if Unguarded(Guarded(text)) != text {
			t.Errorf("%q does not come back", text)
		}
	})
}
