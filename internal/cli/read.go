package cli

import (
	"bufio"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"os"
	"slices"
	"strings"

	"github.com/spf13/cobra"

	"mnemos/core/band"
	"mnemos/core/check"
	"mnemos/core/geo"
	"mnemos/core/listing"
	"mnemos/core/radio"
	"mnemos/core/service"
	"mnemos/internal/assess"
)

type readFlags struct {
	region, at, listing, radio, today, batch, tonePolicy string
	services, bands                                      []string
	radius, slipWeight                                   float64
	asJSON                                               bool
}

func readCommand() *cobra.Command {
	var f readFlags
	c := &cobra.Command{
		Use:   `read [flags] "LINE"`,
		Short: "Read an entry line, check it, and say what the radio will do",
		Example: `  mnemos read '147.24 + 100 "Beacon Hill"'
  mnemos read --region uk --at IO91wm --listing repeaters.json --json '433.35 +1.6 d023n'
  mnemos read --batch lines.txt`,
		RunE: func(cmd *cobra.Command, args []string) error { return f.run(cmd, args) },
	}
	f.against(c)
	fl := c.Flags()
	fl.StringVar(&f.batch, "batch", "", "read one entry line per line of this file, or of standard input for -; print one JSON object per line; a line may begin with @ and a place")
	fl.Float64Var(&f.slipWeight, "slip-weight", 1, "multiply the weights of all slips, to measure how much the odds lean on them")
	if err := fl.MarkHidden("slip-weight"); err != nil {
		panic(err) // the flag is written above
	}
	return c
}

// against are the flags that say what a channel is held against.
func (f *readFlags) against(c *cobra.Command) {
	fl := c.Flags()
	fl.StringVar(&f.region, "region", "us", "band plan: "+strings.Join(band.Regions(), ", "))
	fl.StringVar(&f.at, "at", "", "your place, LAT,LON in degrees or a locator")
	fl.Float64Var(&f.radius, "radius", 150, "how far published records count, km")
	fl.StringVar(&f.listing, "listing", "", "a listing in JSON (docs/formats/listing.md)")
	fl.StringVar(&f.radio, "radio", "", "the radio that is to hold the channel: "+strings.Join(shipped(), ", ")+", or a profile FILE.yaml (docs/formats/radio-profile.md)")
	fl.StringVar(&f.tonePolicy, "tone-policy", string(check.EncodeFirst), fmt.Sprintf("how tones are used: %q or %q", check.EncodeFirst, check.SquelchFirst))
	fl.StringSliceVar(&f.services, "services", nil, "services that you use beside amateur radio, such as gmrs,murs")
	fl.StringSliceVar(&f.bands, "bands", nil, `bands that your licence permits, such as "2 m,70 cm"; all if none are named`)
	fl.StringVar(&f.today, "today", "", "the day from which the age of a listing counts, YYYY-MM-DD")
	fl.BoolVar(&f.asJSON, "json", false, "print JSON")
}

func (f *readFlags) run(cmd *cobra.Command, args []string) error {
	q, err := f.question()
	if err != nil {
		return usage{err}
	}
	if f.batch != "" {
		if len(args) > 0 {
			return usage{errors.New("give either a line or --batch, not both")}
		}
		return f.runBatch(cmd, q)
	}
	if len(args) != 1 {
		return usage{errors.New(`give one entry line in quotes, such as mnemos read '147.24 + 100'`)}
	}
	q.Line = args[0]
	a, err := assess.Ask(cmd.Context(), q)
	if err != nil {
		return err
	}
	if f.asJSON {
		enc := json.NewEncoder(cmd.OutOrStdout())
		enc.SetEscapeHTML(false)
		enc.SetIndent("", "  ")
		if err := enc.Encode(a); err != nil {
			return fmt.Errorf("write: %w", err)
		}
	} else if err := a.WriteText(cmd.OutOrStdout()); err != nil {
		return fmt.Errorf("write: %w", err)
	}
	return verdict(a)
}

// question turns the flags into what a line is read against.
func (f *readFlags) question() (assess.Question, error) {
	var q assess.Question
	var err error
	if q.Plan, err = band.Load(f.region); err != nil {
		return q, err
	}
	now, err := clock(f.today)
	if err != nil {
		return q, err
	}
	q.Settings = check.Defaults(now())
	if !(f.radius > 0 && f.radius <= 20_000) { // so that NaN is refused too
		return q, fmt.Errorf("--radius %g: write kilometres between 0 and 20000", f.radius)
	}
	q.Settings.RadiusKM = f.radius
	q.Settings.SlipWeight = f.slipWeight
	if f.at != "" {
		p, err := geo.Parse(f.at)
		if err != nil {
			return q, err
		}
		q.Settings.Place = &p
	}
	if q.Radio, err = f.profile(); err != nil {
		return q, err
	}
	if err := f.operator(&q); err != nil {
		return q, err
	}
	q.Source = listing.Memory(nil)
	if f.listing == "" {
		return q, nil
	}
	file, err := os.Open(f.listing)
	if err != nil {
		return q, err
	}
	records, err := listing.Read(bufio.NewReader(file))
	if err := errors.Join(err, file.Close()); err != nil {
		return q, fmt.Errorf("%s: %w", f.listing, err)
	}
	q.Source = listing.Index(records)
	return q, nil
}

// profile returns the radio: one that ships, or one from a file.
func (f *readFlags) profile() (*radio.Profile, error) {
	switch {
	case f.radio == "":
		return nil, nil
	case !strings.HasSuffix(f.radio, ".yaml") && !strings.HasSuffix(f.radio, ".yml"):
		return radio.Load(f.radio)
	}
	file, err := os.Open(f.radio)
	if err != nil {
		return nil, err
	}
	text, err := io.ReadAll(io.LimitReader(file, radio.MaxYAML+1))
	if err := errors.Join(err, file.Close()); err != nil {
		return nil, fmt.Errorf("%s: %w", f.radio, err)
	}
	p, err := radio.Read(text)
	if err != nil {
		return nil, fmt.Errorf("%s: %w", f.radio, err)
	}
	return p, nil
}

// operator takes over what the flags say about the person. What names nothing
// is an error: a rule that does not run because of a typing mistake would be
// taken for a good result.
func (f *readFlags) operator(q *assess.Question) error {
	q.Settings.TonePolicy = check.TonePolicy(f.tonePolicy)
	if q.Settings.TonePolicy != check.EncodeFirst && q.Settings.TonePolicy != check.SquelchFirst {
		return fmt.Errorf("--tone-policy %q: write %q or %q", f.tonePolicy, check.EncodeFirst, check.SquelchFirst)
	}
	var services, bands []string
	for _, s := range service.Of(q.Plan.Region) {
		services = append(services, s.ID)
	}
	for _, b := range q.Plan.Bands {
		bands = append(bands, b.Name)
	}
	for _, x := range []struct {
		flag         string
		given, known []string
	}{{"--services", f.services, services}, {"--bands", f.bands, bands}} {
		for _, v := range x.given {
			if !slices.Contains(x.known, v) {
				return fmt.Errorf("%s %q: in %s there are %s", x.flag, v, q.Plan.Title, strings.Join(x.known, ", "))
			}
		}
	}
	q.Settings.Services, q.Settings.Bands = f.services, f.bands
	return nil
}

// shipped are the IDs of the profiles that ship.
func shipped() []string {
	var out []string
	for _, p := range radio.Profiles() {
		out = append(out, p.ID)
	}
	return out
}

func (f *readFlags) runBatch(cmd *cobra.Command, q assess.Question) error {
	in := cmd.InOrStdin()
	if f.batch != "-" {
		file, err := os.Open(f.batch)
		if err != nil {
			return usage{err}
		}
		defer func() { _ = file.Close() }() // read only
		in = file
	}
	out := bufio.NewWriter(cmd.OutOrStdout())
	code, err := batch(cmd.Context(), q, in, out)
	if err := errors.Join(err, out.Flush()); err != nil {
		return err
	}
	if code != exitFine {
		return exit(code)
	}
	return nil
}

// longest is how long a line of a batch may be, in bytes.
const longest = 1 << 20

// batch reads lines and writes one JSON object for each, empty lines
// included, so that the two files stay in step.
func batch(ctx context.Context, q assess.Question, in io.Reader, out io.Writer) (code int, err error) {
	enc := json.NewEncoder(out)
	enc.SetEscapeHTML(false)
	lines := bufio.NewScanner(in)
	lines.Buffer(nil, longest)
	for lines.Scan() {
		if err := place(&q, lines.Text()); err != nil {
			return code, err
		}
		a, err := assess.Ask(ctx, q)
		if err != nil {
			return code, err
		}
		if err := enc.Encode(a); err != nil {
			return code, fmt.Errorf("write: %w", err)
		}
		if verdict(a) != nil {
			code = exitAsks
		}
	}
	if errors.Is(lines.Err(), bufio.ErrTooLong) {
		return code, usage{fmt.Errorf("a line of the batch is longer than %d characters: an entry line has up to 400", longest)}
	}
	return code, lines.Err()
}

// place takes a line of a batch apart: "@PLACE LINE" is typed at a place of
// its own, which holds until the next one is named.
func place(q *assess.Question, text string) error {
	q.Line = text
	rest, ok := strings.CutPrefix(text, "@")
	if !ok {
		return nil
	}
	at, line, _ := strings.Cut(rest, " ")
	p, err := geo.Parse(at)
	if err != nil {
		return usage{fmt.Errorf("batch line %q: %w", text, err)}
	}
	q.Line, q.Settings.Place = line, &p
	return nil
}

// verdict is the exit code of an answer, as an error.
func verdict(a *assess.Answer) error {
	for _, f := range a.Findings {
		if f.Severity != check.Note {
			return exit(exitAsks)
		}
	}
	return nil
}
