// Package limit is the one table of what Mnemos takes: how large, how many, how
// long. What comes from outside is held against it where it enters.
package limit

import (
	"fmt"
	"strings"
	"time"

	"mnemos/core/freq"
)

// Sizes, in bytes.
const (
	Body     = 1 << 20   // of a request
	PlanFile = 16 << 20  // of a file of a plan, of contacts, of a track
	Listing  = 256 << 20 // of a listing
	Hashed   = 1 << 20   // of a request, by which it is told from another under the same key
)

// Counts.
const (
	Line = 4000 // characters of the entry line, and of any text that says no less
	Key  = 60   // characters of the key of a request
	Rows = 2000 // rows that are pasted or taken into a radio, and slots that are changed, at once
)

// Number is the largest number of a row, slot or revision that is read: beyond
// it a browser no longer counts exactly.
const Number = 1<<53 - 1

// Times.
const (
	Answer  = 30 * time.Second // for an answer
	File    = 2 * time.Minute  // for the answer to a request that carries a file
	Reader  = 10 * time.Second // for somebody who follows to take what they are told
	Pulse   = 20 * time.Second // between two signs of life of a stream
	Waiting = 5 * time.Second  // for another process that writes the data file
)

// Row is a line of the table as people read it.
type Row struct{ What, Most, Then string }

// Table is the limits in words.
func Table() []Row {
	return []Row{
		{"a request", bytes(Body), "it is refused (413)"},
		{"a file of a plan, of contacts or of a track", bytes(PlanFile), "it is refused (413)"},
		{"a listing", bytes(Listing), "it is refused, and said to be no listing"},
		{"the entry line, and any text without a smaller limit of its own", count(Line, "characters"), "it is refused (422)"},
		{"the key of a request", count(Key, "characters"), "it is refused (400)"},
		{"rows pasted or taken into a radio, or slots changed, at once", count(Rows, "rows"), "it is refused (422), nothing is changed"},
		{"a number of a row, a slot or a change", count(Number, ""), "it is refused (422)"},
		{"a frequency", freq.Max.String(), "it is refused (422)"},
		{"time for an answer", Answer.String(), "the work ends, nothing is changed, and the answer says so (503)"},
		{"time for the answer to a file", File.String(), "the work ends, nothing is changed, and the answer says so (503)"},
		{"time for somebody who follows what happens to take an event", Reader.String(), "the stream ends"},
		{"time between two signs of life of a stream", Pulse.String(), "one is sent"},
		{"waiting for another process that writes the data file", Waiting.String(), "nothing is changed, and the answer says so (503)"},
	}
}

// Markdown is the table as a page of the docs.
func Markdown() string {
	var b strings.Builder
	b.WriteString("# Limits\n\nWhat Mnemos takes, and what becomes of more. This page is written by `make rules` from `core/limit`.\n\n| what | at most | beyond it |\n| --- | --- | --- |\n")
	for _, r := range Table() {
		fmt.Fprintf(&b, "| %s | %s | %s |\n", r.What, strings.TrimSpace(r.Most), r.Then)
	}
	return b.String()
}

func bytes(n int) string { return fmt.Sprintf("%d MB", n>>20) }

func count(n int, of string) string {
	text := fmt.Sprint(n)
	for i := len(text) - 3; i > 0; i -= 3 {
		text = text[:i] + "," + text[i:]
	}
	return text + " " + of
}
