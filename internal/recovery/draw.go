package recovery

import (
	"bufio"
	"encoding/json"
	"errors"
	"fmt"
	"math/rand/v2"
	"os"
	"path/filepath"
	"time"

	"mnemos/core/band"
	"mnemos/internal/recovery/slips"
)

// Corpus is the name of the file with the cases, one JSON object per line.
const Corpus = "corpus.jsonl"

// Sizes says how much to draw.
type Sizes struct {
	Regions   []string
	Districts int // per region
	Cases     int // with a unique answer, per kind and region
	Clean     int // per class and region
}

// enough bounds how many cases are drawn for one that has a unique answer.
const enough = 12

// Draw writes districts and cases into a folder.
func Draw(seed uint64, folder string, today time.Time, z Sizes) ([]Case, error) {
	r := rand.New(rand.NewPCG(seed, 1))
	var cases []Case
	for _, region := range z.Regions {
		plan, err := band.Load(region)
		if err != nil {
			return nil, err
		}
		for n := range z.Districts {
			d := newDistrict(r, plan, today)
			name := fmt.Sprintf("%s-%d.json", region, n+1)
			if err := writeJSON(filepath.Join(folder, name), d.listing); err != nil {
				return nil, err
			}
			share := func(of int) int { return (of*(n+1))/z.Districts - (of*n)/z.Districts }
			drawn := d.draw(r, today, share(z.Cases), share(z.Clean))
			for i := range drawn {
				drawn[i].Listing = name
			}
			cases = append(cases, drawn...)
		}
	}
	return cases, writeCorpus(filepath.Join(folder, Corpus), cases)
}

func (d *district) draw(r *rand.Rand, today time.Time, unique, clean int) []Case {
	var out []Case
	for _, k := range slips.Kinds {
		found := 0
		for tries := 0; found < unique && tries < unique*enough*20; tries++ {
			if c, ok := d.slipped(r, k); ok {
				out = append(out, c)
				if c.Class == Unique {
					found++
				}
			}
		}
	}
	for _, k := range slips.Untold {
		for n, tries := 0, 0; n < unique/2 && tries < unique*enough*20; tries++ {
			if c, ok := d.untold(r, k); ok {
				out = append(out, c)
				n++
			}
		}
	}
	have := map[Class]int{}
	for tries := 0; tries < clean*400 && have[CleanListed]+have[CleanStale]+have[CleanUnlisted]+have[CleanSimplex] < 4*clean; tries++ {
		c, ok := d.clean(r, today)
		if tries%4 == 0 {
			c, ok = d.simplex(r)
		}
		if ok && have[c.Class] < clean {
			have[c.Class]++
			out = append(out, c)
		}
	}
	return out
}

func writeJSON(path string, v any) error {
	b, err := json.Marshal(v)
	if err != nil {
		return err
	}
	return os.WriteFile(path, b, 0o644)
}

func writeCorpus(path string, cases []Case) (err error) {
	f, err := os.Create(path)
	if err != nil {
		return err
	}
	defer func() { err = errors.Join(err, f.Close()) }()
	w := bufio.NewWriter(f)
	enc := json.NewEncoder(w)
	for _, c := range cases {
		if err := enc.Encode(c); err != nil {
			return err
		}
	}
	return w.Flush()
}

// ReadCorpus reads a corpus file.
func ReadCorpus(path string) ([]Case, error) {
	b, err := os.Open(path)
	if err != nil {
		return nil, err
	}
	defer func() { _ = b.Close() }() // read only
	var out []Case
	lines := bufio.NewScanner(b)
	lines.Buffer(nil, 1<<20)
	for lines.Scan() {
		var c Case
		if err := json.Unmarshal(lines.Bytes(), &c); err != nil {
			return nil, fmt.Errorf("%s, line %d: %w", path, len(out)+1, err)
		}
		out = append(out, c)
	}
	return out, lines.Err()
}
