package scan

import "math"

// talk is what is on a channel: silent and busy in turn, both decaying.
type talk struct {
	begins float64 // overs a second while it is silent
	length float64 // s, the mean
	busy   float64 // share of the time
	k      float64 // how fast it forgets, a second
}

func talkOf(c Channel) talk {
	rate := c.Rate / 3600
	if c.Length <= 0 || rate <= 0 {
		return talk{length: max(c.Length, 1e-3)}
	}
	busy := min(0.98, rate*c.Length)
	t := talk{length: c.Length, busy: busy}
	t.begins = busy / c.Length / (1 - busy)
	t.k = t.begins + 1/c.Length
	return t
}

// after is the chance that it is busy a time after it was silent (or busy), given
// exp(−k t) of that time.
func (t talk) after(wasBusy bool, decay float64) float64 {
	if wasBusy {
		return t.busy + (1-t.busy)*decay
	}
	return t.busy * (1 - decay)
}

// silence is how much of a time it is silent, beginning silent or busy.
func (t talk) silence(wasBusy bool, time, decay float64) float64 {
	if t.k == 0 {
		return time
	}
	if wasBusy {
		return (1-t.busy)*time - (1-t.busy)*(1-decay)/t.k
	}
	return (1-t.busy)*time + t.busy*(1-decay)/t.k
}

// lasts is how many of the overs last long enough to open a squelch.
func (t talk) lasts(opens float64) float64 { return math.Exp(-opens / t.length) }

// visit is what a stop on a channel takes and leaves behind.
type visit struct {
	takes stay    // s beyond a look
	mean  float64 // s in all
	more  float64 // silence in it, s, in which further overs begin and are heard
	busy  float64 // chance that an over still goes on when the receiver leaves
}

// stop is what a stop takes.
func (s Setup) stop(c Channel, t talk) visit {
	if c.Always {
		return visit{takes: stay{fixed: c.Opens + s.Stay - s.Look}, mean: c.Opens + s.Stay, busy: 1}
	}
	// The signal is there when the look begins, unless it came during the look.
	fresh := 0.0
	if span := t.length + s.Look - c.Opens; span > 0 {
		fresh = max(0, s.Look-c.Opens) / span
	}
	open := c.Opens + fresh*max(0, s.Look-c.Opens)/2
	if s.Resume != Carrier {
		held := max(0, s.Stay-c.Opens)
		d := math.Exp(-t.k * held)
		return visit{
			takes: stay{fixed: open + s.Stay - s.Look}, mean: open + s.Stay,
			more: t.silence(true, held, d), busy: t.after(true, math.Exp(-t.k*s.Stay)),
		}
	}
	// After the signal the receiver waits; what comes then keeps it.
	v := visit{}
	talking, waiting := t.length, s.Stay
	if t.begins > 0 {
		ends := math.Exp(-t.begins * s.Stay)
		again := (1 - ends) / ends
		// until the next over comes, where one comes
		comes := 1/t.begins - s.Stay*ends/(1-ends+1e-12)
		if s.Stay == 0 {
			again, comes = 0, 0
		}
		talking += again * t.length
		waiting += again * comes
		v.more = waiting
	}
	v.mean = open + talking + waiting
	v.takes = stay{fixed: open + waiting - s.Look, talk: talking}
	return v
}

// window is one way from a channel to the next look at what it hears: after a look
// that found nothing, or after a stop.
type window struct {
	talk   talk
	weight float64 // how often it comes
	busy   float64 // chance that an over goes on when it begins
	more   float64 // silence before it, in which what begins is heard
	look   float64 // of the next look: what begins this long after its start is heard
	opens  float64
	early  float64 // how long before the channel was left it is known to have been silent
	away   gap
	decays []float64
}

// begun is how much silent time there is in which an over may begin, and how much of it
// is followed by a look while an over of a length lasts.
func (w *window) begun(length float64) (caught, all float64) {
	span := length + w.look - 2*w.opens
	grown := math.Exp(w.talk.k * span) // spares an exponential for each time
	for i, a := range w.away {
		time := w.early + a.time + w.look - w.opens
		late := max(0, time-span)
		decay := w.decays[i]
		var missed, silence float64
		cut := 1.0
		if late > 0 && w.talk.k > 0 {
			if cut = decay * grown; grown > 1e100 {
				cut = math.Exp(-w.talk.k * late)
			}
		}
		for _, was := range []struct {
			busy   bool
			chance float64
		}{{false, 1 - w.busy}, {true, w.busy}} {
			if was.chance == 0 {
				continue
			}
			silence += was.chance * w.talk.silence(was.busy, time, decay)
			if late > 0 {
				missed += was.chance * w.talk.silence(was.busy, late, cut)
			}
		}
		all += a.chance * silence
		caught += a.chance * (silence - missed)
	}
	return w.weight * (caught + w.more), w.weight * (all + w.more)
}
