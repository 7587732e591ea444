package beacon

import (
	"fmt"
	"strings"

	"mnemos/core/aprs"
	"mnemos/core/ax25"
	"mnemos/core/evidence"
)

// cost is what fields of the beacon take on the air, in ms.
func (r *Report) cost(ids ...string) (ms float64) {
	for _, p := range r.Shown[0].Parts {
		for _, id := range ids {
			if p.ID == id || strings.HasPrefix(p.ID, "via") && id == "path" {
				ms += p.To - p.From
			}
		}
	}
	return ms
}

// bill is what each setting costs, and what else it could be. The lines add up to the
// airtime.
func bill(s Station, a Around, r *Report) (out []Line) {
	base := r.Shown[0].Air.Total
	option := func(label string, set map[string]any, change func(*Station)) Option {
		x := s
		change(&x)
		o := Option{Label: label, Set: set}
		if t := total(x, a); t > 0 && base > 0 {
			o.Delta = t - base
		}
		return o
	}
	from, err := ax25.ParseAddress(s.From)
	note := ""
	if err == nil {
		note = aprs.SSIDs()[from.SSID].Says
	}
	line := Line{ID: "from", Name: "from", Value: s.From, Note: note, Cost: r.cost("from")}
	for _, n := range []int{7, 9, 8, 5, 0} {
		if err == nil && n != from.SSID {
			to := numbered(from.Call, n)
			line.Options = append(line.Options, Option{Label: fmt.Sprintf("-%d %s", n, strings.Split(aprs.SSIDs()[n].Says, ",")[0]), Set: map[string]any{"from": to}})
		}
	}
	line.Mark, line.Why = mark(err == nil && from.SSID == r.Profile.SSID), "published advice: -"+fmt.Sprint(r.Profile.SSID)+" "+r.Profile.Says
	out = append(out, line)

	sym, symErr := aprs.ParseSymbol(s.Symbol)
	line = Line{ID: "symbol", Name: "symbol", Value: s.Symbol, Cost: r.cost("symbol", "table"), Mark: mark(s.Symbol == r.Profile.Symbol), Why: "usual for " + r.Profile.Says}
	if symErr == nil {
		line.Note = aprs.Words(sym)
	}
	out = append(out, line)

	line = Line{ID: "position", Name: "position", Value: s.Format, Cost: r.cost("kind", "kind2", "name", "alive", "lat", "lon", "spare"), Mark: evidence.NoEvidence, Why: "no fix was seen: see the four things"}
	line.Note = map[string]string{"plain": "to 18 m", "compressed": "to 0.3 m", "mic-e": "to 18 m, latitude in the address"}[s.Format]
	if s.Ambiguity > 0 && s.Format != string(aprs.Compressed) {
		line.Note = "to " + blurred(s.Ambiguity)
	}
	if s.Source == "fixed" {
		line.Mark, line.Why = evidence.FieldAgrees, "the place that was written"
	}
	for _, f := range []aprs.Format{aprs.Plain, aprs.Compressed, aprs.MicE} {
		if string(f) != s.Format && !(r.Profile.Object && f == aprs.MicE) {
			line.Options = append(line.Options, option(string(f), map[string]any{"format": string(f)}, func(x *Station) { x.Format = string(f) }))
		}
	}
	out = append(out, line)

	line = Line{ID: "comment", Name: "comment", Value: comment(s, a), Cost: r.cost("back", "comment"), Mark: evidence.NoEvidence}
	if s.Back >= 0 {
		line.Mark, line.Why = evidence.FieldAgrees, fmt.Sprintf("slot %d", s.Back)
	}
	if s.Words != "" {
		line.Options = append(line.Options, option("no words", map[string]any{"words": ""}, func(x *Station) { x.Words = "" }))
	}
	if s.Words != "" || s.Back >= 0 {
		line.Options = append(line.Options, option("none", map[string]any{"words": "", "back": -1}, func(x *Station) { x.Words, x.Back = "", -1 }))
	}
	out = append(out, line)

	var extras []string
	line = Line{ID: "extras", Name: "extras", Cost: r.cost("time", "motion", "feet", "extension")}
	for _, e := range []struct {
		name, key string
		on        bool
		flip      func(*Station)
	}{
		{"height", "height", s.Height, func(x *Station) { x.Height = !x.Height }}, {"speed", "speed", s.Speed, func(x *Station) { x.Speed = !x.Speed }}, {"time", "time", s.Time, func(x *Station) { x.Time = !x.Time }},
	} {
		label := e.name
		if e.on {
			extras, label = append(extras, e.name), "no "+e.name
		}
		line.Options = append(line.Options, option(label, map[string]any{e.key: !e.on}, e.flip))
	}
	if line.Value = strings.Join(extras, ", "); line.Value == "" {
		line.Value = "none"
	}
	out = append(out, line)

	path, pathErr := aprs.ParsePath(s.Path)
	line = Line{ID: "path", Name: "path", Value: s.Path, Cost: r.cost("path"), Mark: mark(s.Path == r.Profile.Path), Why: "usual for " + r.Profile.Says}
	if s.Path == "" {
		line.Value = "direct"
	}
	if pathErr == nil {
		line.Note = []string{"no repeat", "1 repeat", "2 repeats", "3 repeats", "4 repeats"}[min(4, aprs.Hops(path))]
	}
	for _, p := range []string{r.Profile.Path, "WIDE1-1", "WIDE2-1", ""} {
		label := p
		if p == "" {
			label = "direct"
		}
		if p != s.Path && (len(line.Options) == 0 || line.Options[0].Label != label) && !(r.Profile.Space && strings.HasPrefix(p, "WIDE")) {
			line.Options = append(line.Options, option(label, map[string]any{"path": p}, func(x *Station) { x.Path = p }))
		}
	}
	out = append(out, line)

	line = Line{ID: "keyup", Name: "key-up", Value: fmt.Sprintf("%.0f ms", s.KeyUp), Cost: 0, Mark: evidence.NoEvidence, Why: "test it: shorter as long as others decode you"}
	if base > 0 {
		line.Cost = s.KeyUp
	}
	for _, ms := range []float64{300, 200, 150} {
		if ms != s.KeyUp {
			line.Options = append(line.Options, option(fmt.Sprintf("%.0f ms", ms), map[string]any{"key_up": ms}, func(x *Station) { x.KeyUp = ms }))
		}
	}
	out = append(out, line)

	rest := base
	for _, l := range out {
		rest -= l.Cost
	}
	out = append(out, Line{ID: "always", Name: "always", Value: "to, control, protocol, check, two flags", Cost: rest})

	line = Line{ID: "sent", Name: "sent", Value: "every " + seconds(s.Every), Cost: base, Mark: mark(r.Traffic.Busy() < aprs.Floods), Why: "room on the channel"}
	if r.Traffic.Busy() >= aprs.Floods {
		line.Why = "floods"
	}
	if s.Smart {
		line.Value, line.Note = "speed and turn", "every "+seconds(r.Interval)+" in the mean, at the most"
		line.Options = append(line.Options, Option{Label: "every " + seconds(s.Every), Set: map[string]any{"smart": false}})
	} else if r.Profile.Smart {
		line.Options = append(line.Options, Option{Label: "speed and turn", Set: map[string]any{"smart": true}})
	}
	for _, e := range []float64{60, 180, 600, 1800} {
		if e != s.Every && len(line.Options) < 3 {
			line.Options = append(line.Options, Option{Label: "every " + seconds(e), Set: map[string]any{"every": e, "smart": false}})
		}
	}
	return append(out, line)
}

func mark(ok bool) evidence.Mark {
	if ok {
		return evidence.FieldAgrees
	}
	return evidence.FieldDiffers
}
