package trial

import (
	"cmp"
	"math"
	"slices"
	"strings"

	"mnemos/core/channel"
	"mnemos/core/freq"
	"mnemos/core/tone"
)

// fault is one thing that may be wrong, or is in the way.
type fault struct {
	cause  string
	tone   tone.Tone   // the right one, of a tone that is published
	known  bool        // the right value is one that is published
	offset freq.Offset // the right one, of a shift
}

// world is what may be the case: one fault, or two.
type world struct {
	faults []fault
	weight float64
}

// Cause is a reason why nothing comes back, with how likely it is now and was before the
// tries. Causes that no try on offer can part stand in one.
type Cause struct {
	IDs   []string
	Says  string
	Short string
	Now   float64
	Was   float64
}

// Weighing is the causes after some tries.
type Weighing struct {
	Facts   Facts
	Tries   []Try
	Last    Setting
	Causes  []Cause // likeliest first
	Worlds  int
	worlds  []world
	done    map[Kind]bool
	answers bool // something came back to a call
}

// worldsOf lays out what may be the case.
func worldsOf(f Facts) (out []world) {
	var singles []world
	for _, c := range data.Causes {
		w := c.Weight
		pick := func(l Listings) {
			switch {
			case l == Differ && c.Differ > 0:
				w = c.Differ
			case l == Stale && c.Stale > 0:
				w = c.Stale
			case l == None && c.None > 0:
				w = c.None
			}
		}
		switch c.ID {
		case "tone":
			pick(f.Tone)
			var known []fault
			for _, t := range f.Tones {
				known = append(known, fault{cause: c.ID, tone: t, known: true})
			}
			singles = append(singles, among(c.ID, w, known)...)
			continue
		case "shift":
			pick(f.Shift)
			var known []fault
			for _, o := range f.Offsets {
				known = append(known, fault{cause: c.ID, offset: o, known: true})
			}
			singles = append(singles, among(c.ID, w, known)...)
			continue
		case "off":
			pick(f.Tone)
			if f.OffAir {
				w = c.Published
			}
		case "weak":
			switch {
			case f.Reach >= 1:
				w = c.Beyond
			case f.Reach >= 0.75:
				w = c.Edge
			case f.Reach >= 0.4:
				w = c.Half
			}
		case "mode":
			if !f.SendsTone {
				continue
			}
		case "width":
			if f.Width {
				w = c.Differ
			}
		}
		singles = append(singles, world{[]fault{{cause: c.ID}}, w})
	}
	var sum float64
	for _, s := range singles {
		sum += s.weight
	}
	out = singles
	for i, a := range singles {
		for _, b := range singles[i+1:] {
			if a.faults[0].cause != b.faults[0].cause {
				out = append(out, world{[]fault{a.faults[0], b.faults[0]}, data.Two * a.weight * b.weight / sum})
			}
		}
	}
	normal(out)
	return out
}

// published is how much of the weight of a wrong value goes to those that are published:
// they are likelier than what nobody has written down. A guess.
const published = 0.85

// among shares the weight of a cause among the values that are published, and one that is
// not.
func among(cause string, weight float64, known []fault) (out []world) {
	rest := weight
	for _, f := range known {
		w := published * weight / float64(len(known))
		out = append(out, world{[]fault{f}, w})
		rest -= w
	}
	return append(out, world{[]fault{{cause: cause}}, rest})
}

func normal(ws []world) {
	var sum float64
	for _, w := range ws {
		sum += w.weight
	}
	for i := range ws {
		ws[i].weight /= max(1e-300, sum)
	}
}

// has reports whether a world has a cause.
func (w world) has(cause string) bool {
	return slices.ContainsFunc(w.faults, func(f fault) bool { return f.cause == cause })
}

// back is the chance that a try has its yes in a world: something comes back, it is
// heard, or the display shows that no tone is sent.
func (w world) back(f Facts, k Kind, s Setting) float64 {
	place := placeOf(s.Where)
	switch k {
	case Look:
		if w.has("mode") {
			return data.Shown
		}
		return 1 - data.Shown
	case Ask:
		if w.has("off") {
			return data.Leak
		}
		return data.Asked
	case Listen:
		if w.has("off") {
			return 0.01
		}
		p := data.Ident * place.Works
		if w.has("weak") {
			p = min(p, data.Ident*min(0.95, 1.6*place.Weak*gainOf(s.Aerial))) // a repeater sends more than a handheld
		}
		if w.has("noise") {
			p = min(p, data.Ident*place.Noise)
		}
		return p
	default:
		return w.answered(f, s, place)
	}
}

// answered is the chance that something comes back to a call.
func (w world) answered(f Facts, s Setting, place Place) float64 {
	right, offset, width := f.Start.Tone, f.Start.Offset, f.Start.Width
	p := place.Works
	for _, x := range w.faults {
		switch x.cause {
		case "off":
			return 0.01
		case "tone":
			if right = x.tone; !x.known {
				return data.Leak
			}
		case "shift":
			if offset = x.offset; !x.known {
				return data.Leak
			}
		case "width":
			width = other(f.Start.Width)
		case "mode":
			if !s.Mode {
				return data.Leak
			}
		case "power":
			if !s.Power {
				p = min(p, data.Rarely)
			}
		case "weak":
			p = min(p, 0.95, place.Weak*gainOf(s.Aerial))
		case "noise":
			p = min(p, place.Noise)
		}
	}
	if s.Tone != right || s.Offset != offset {
		return data.Leak
	}
	if s.Width != width {
		p = min(p, 0.2)
	}
	return p
}

func other(w channel.Width) channel.Width {
	if w == channel.Narrow {
		return channel.Wide
	}
	return channel.Narrow
}

// Weigh weighs the causes by what was tried.
func Weigh(f Facts, tries []Try) *Weighing {
	w := &Weighing{Facts: f, Tries: tries, Last: f.Start, done: map[Kind]bool{}}
	w.worlds = worldsOf(f)
	w.Worlds = len(w.worlds)
	before := slices.Clone(w.worlds)
	for _, t := range tries {
		for i := range w.worlds {
			p := w.worlds[i].back(f, t.Kind, t.Setting)
			if !t.Back {
				p = 1 - p
			}
			w.worlds[i].weight *= max(1e-6, p)
		}
		normal(w.worlds)
		w.done[t.Kind] = true
		if t.Kind == Key {
			w.Last = t.Setting
			w.answers = w.answers || t.Back
		}
	}
	w.causes(before)
	return w
}

// causes adds the worlds up by their causes. Two that every act on offer treats alike
// stand in one.
func (w *Weighing) causes(before []world) {
	acts := w.acts()
	signature := func(id string) string {
		var b strings.Builder
		for _, a := range acts {
			p := world{faults: []fault{{cause: id}}}.back(w.Facts, a.Kind, a.Setting)
			b.WriteString(strings.Repeat("i", int(math.Round(p*20))) + ".")
		}
		return b.String()
	}
	at := map[string]int{}
	for _, c := range data.Causes {
		now, was := share(w.worlds, c.ID), share(before, c.ID)
		if was == 0 {
			continue
		}
		key := signature(c.ID)
		if c.ID == "tone" || c.ID == "shift" { // their right values may be on offer
			key = c.ID
		}
		i, ok := at[key]
		if !ok {
			at[key] = len(w.Causes)
			w.Causes = append(w.Causes, Cause{IDs: []string{c.ID}, Says: c.Says, Short: c.Short, Now: now, Was: was})
			continue
		}
		x := &w.Causes[i]
		x.IDs = append(x.IDs, c.ID)
		x.Short += ", or " + c.Short
		x.Says += ", or " + strings.ToLower(c.Says[:1]) + c.Says[1:]
		x.Now, x.Was = x.Now+now, x.Was+was
	}
	slices.SortStableFunc(w.Causes, func(a, b Cause) int { return cmp.Compare(b.Now, a.Now) })
}

// share is how much of the worlds has a cause; one that has two counts for each by half.
func share(ws []world, cause string) (p float64) {
	for _, w := range ws {
		if w.has(cause) {
			p += w.weight / float64(len(w.faults))
		}
	}
	return p
}
