package recovery

import (
	"bufio"
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
)

// answer is what is read of the program's public output.
type answer struct {
	Channel  Channel `json:"channel"`
	Findings []struct {
		Rule     string `json:"rule"`
		Severity string `json:"severity"`
		Fixes    []struct {
			Result     Channel `json:"result"`
			Confidence string  `json:"confidence"`
			Odds       float64 `json:"odds"`
		} `json:"fixes"`
	} `json:"findings"`
}

// Outcome is what came of a case.
type Outcome struct {
	Case
	First   bool // the first fix makes the truth
	Within  int  // the place of the first fix that makes the truth, from 1; 0 if none does
	Offered int  // fixes that were offered
	Wrong   bool // the first fix makes something else
	Harm    bool // the first fix leads to another record
	Alarm   bool // a finding asks for a fix or a stop
	Rule    string
	// Sure is set where an offer is called very likely; SureRight where it
	// makes the truth, SureHarm where it leads to another record.
	Sure, SureRight, SureHarm bool
	Odds                      float64 // of the first fix
}

// Run asks the program at path about every case of a corpus and says what
// came of it. Listings are looked for in the folder.
func Run(ctx context.Context, path, folder, today string, cases []Case, flags ...string) ([]Outcome, error) {
	type group struct{ region, listing string }
	var order []group
	groups := map[group][]int{}
	for i, c := range cases {
		g := group{c.Region, c.Listing}
		if groups[g] == nil {
			order = append(order, g)
		}
		groups[g] = append(groups[g], i)
	}
	out := make([]Outcome, len(cases))
	for _, g := range order {
		listed, err := pairs(filepath.Join(folder, g.listing))
		if err != nil {
			return nil, err
		}
		var in bytes.Buffer
		for _, i := range groups[g] {
			fmt.Fprintf(&in, "@%s %s\n", cases[i].At, cases[i].Line)
		}
		cmd := exec.CommandContext(ctx, path, append([]string{"read", "--region", g.region, "--listing", filepath.Join(folder, g.listing), "--today", today, "--batch", "-"}, flags...)...)
		cmd.Stdin = &in
		stdout, err := cmd.StdoutPipe()
		if err != nil {
			return nil, err
		}
		cmd.Stderr = os.Stderr
		if err := cmd.Start(); err != nil {
			return nil, fmt.Errorf("start %s: %w", path, err)
		}
		lines := bufio.NewScanner(stdout)
		lines.Buffer(nil, 16<<20)
		n := 0
		for ; lines.Scan() && n < len(groups[g]); n++ {
			var a answer
			if err := json.Unmarshal(lines.Bytes(), &a); err != nil {
				return nil, fmt.Errorf("read answer %d: %w", n+1, err)
			}
			i := groups[g][n]
			out[i] = judge(cases[i], a, listed)
		}
		var failed *exec.ExitError
		if err := cmd.Wait(); err != nil && (!errors.As(err, &failed) || failed.ExitCode() != 1) {
			return nil, fmt.Errorf("%s read --batch: %w", path, err)
		}
		if n != len(groups[g]) {
			return nil, fmt.Errorf("%d answers for %d lines", n, len(groups[g]))
		}
	}
	return out, nil
}

// pairs reads the output and input frequencies of a listing.
func pairs(path string) (map[[2]int64]bool, error) {
	b, err := os.ReadFile(path)
	if err != nil {
		return nil, err
	}
	var records []struct {
		Output int64 `json:"output_hz"`
		Input  int64 `json:"input_hz"`
	}
	if err := json.Unmarshal(b, &records); err != nil {
		return nil, fmt.Errorf("%s: %w", path, err)
	}
	out := map[[2]int64]bool{}
	for _, r := range records {
		out[[2]int64{r.Output, r.Input}] = true
	}
	return out, nil
}

func judge(c Case, a answer, listed map[[2]int64]bool) Outcome {
	o := Outcome{Case: c}
	if c.Kind != "clean" && same(a.Channel, c.Truth) {
		o.First, o.Within = true, 1 // read right in spite of the slip, and marked as a guess
	}
	for _, f := range a.Findings {
		o.Alarm = o.Alarm || f.Severity == "fix" || f.Severity == "stop"
		for _, x := range f.Fixes {
			o.Offered++
			right := same(x.Result, c.Truth)
			if x.Confidence == "very likely" && !o.Sure {
				o.Sure, o.SureRight = true, right
				o.SureHarm = !right && another(x.Result, c.Truth, listed)
			}
			if o.Offered == 1 {
				o.First, o.Wrong, o.Rule, o.Odds = o.First || right, !o.First && !right, f.Rule, x.Odds
				o.Harm = o.Wrong && another(x.Result, c.Truth, listed)
			}
			if right && o.Within == 0 {
				o.Within = o.Offered
			}
		}
	}
	if o.Rule == "" && len(a.Findings) > 0 {
		o.Rule = a.Findings[0].Rule
	}
	return o
}

// another reports whether a result leads to another listed repeater than the
// one that was meant: whoever keys it comes up on somebody else's input. A
// wrong tone on the right frequencies opens nothing, and is only wrong.
func another(x, truth Channel, listed map[[2]int64]bool) bool {
	return (x.Receive != truth.Receive || x.Transmit != truth.Transmit) && listed[[2]int64{x.Receive, x.Transmit}]
}

func same(a, b Channel) bool {
	tone := func(s *string) string {
		if s == nil {
			return ""
		}
		return *s
	}
	return a.Receive == b.Receive && a.Transmit == b.Transmit && tone(a.TransmitTone) == tone(b.TransmitTone) && tone(a.ReceiveTone) == tone(b.ReceiveTone)
}
