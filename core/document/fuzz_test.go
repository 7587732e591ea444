package document

import (
	"encoding/csv"
	"strings"
	"testing"
)

// FuzzRead reads whatever is in a file without a panic; what it takes for a plan
// holds together.
func FuzzRead(f *testing.F) {
	f.Add(`{"format":"mnemos plan","version":1,"name":"x","region":"us","channels":[],"radios":[],"sets":[]}`)
	f.Add("# mnemos plan,1\n# name,x\n# radio,T,trail\nnumber,receive MHz,slot in T\n1,146.52,1\n")
	f.Fuzz(func(t *testing.T, text string) {
		if p, err := Read([]byte(text)); err == nil && p.Check() != nil {
			t.Errorf("%q: %v", text, p.Check())
		}
		r := csv.NewReader(strings.NewReader(text))
		r.FieldsPerRecord, r.LazyQuotes = -1, true
		rows, err := r.ReadAll()
		if err != nil {
			return
		}
		if p, err := FromRows(rows); err == nil && p.Check() != nil {
			t.Errorf("%q: %v", text, p.Check())
		}
	})
}
