package relay

import (
	"fmt"
	"math"
	"time"

	"mnemos/core/rf"
)

// Loop is what two repeaters do to each other through the vehicle.
type Loop struct {
	May    bool    // by who hears whom
	Does   bool    // it goes on without anybody
	Quiet  float64 // s after the call until all is silent; 0 where it never is
	Period float64 // s of a turn
	Hourly float64 // turns
	Long   float64 // s of the longest stretch on the air: no time-out that is longer ends it
	Shares [4]float64
	Ends   []Ending
	Sent   []Band
	Call   float64
	Until  float64
}

// Ending is a change that may end a loop.
type Ending struct {
	Says  string
	Quiet float64 // s after the call; 0 for never
	Way   Way     // a fix that can be taken, or ""
}

const (
	call  = 2 * time.Second
	watch = 5 * time.Minute
)

// loop runs two repeaters after one short call on the first.
func (w *world) loop() *Loop {
	w.Stations[them] = w.talker("A")
	l := &Loop{May: w.MayLoop(), Call: call.Seconds(), Until: watch.Seconds()}
	r := w.Run([]rf.Over{{Tx: port(them, 0), To: call}}, watch)
	l.Quiet, l.Does = silentAfter(r)
	from := watch / 2
	for i, p := range []rf.Port{port(endA, 0), port(van, sideA), port(van, sideB), port(endB, 0)} {
		l.Shares[i] = r.Share(p, from, watch)
		for _, x := range r.Sent(p) {
			if x.From < 30*time.Second {
				l.Sent = append(l.Sent, Band{[]string{"endA", "A", "B", "endB"}[i], x.From.Seconds(), min(x.To, 30*time.Second).Seconds(), x.Tail})
			}
			l.Long = max(l.Long, (x.To - x.From).Seconds())
		}
	}
	if !l.Does {
		return l
	}
	if list := starts(r.Sent(port(van, sideB))); len(list) > 3 {
		n := len(list)
		l.Period = (list[n-1] - list[n-3]).Seconds() / 2
		l.Hourly = math.Round(3600 / l.Period)
	}
	l.Ends = w.endings()
	return l
}

// starts are when carriers came on.
func starts(list []rf.Sent) (out []time.Duration) {
	last := rf.None
	for _, x := range list {
		if x.From != last {
			out = append(out, x.From)
		}
		last = x.To
	}
	return out
}

// silentAfter is when all fell silent after the call, in seconds; does where nothing did.
func silentAfter(r *rf.Run) (quiet float64, does bool) {
	at, ok := r.Last()
	if !ok || at > r.Until-20*time.Second {
		return 0, true
	}
	return max(0, (at - call).Seconds()), false
}

// endings tries what would end the loop.
func (w *world) endings() []Ending {
	try := func(change func(*world)) float64 {
		v := newWorld(w.setup)
		v.Stations[them] = v.talker("A")
		change(v)
		quiet, _ := silentAfter(v.Run([]rf.Over{{Tx: port(them, 0), To: call}}, watch))
		return quiet
	}
	far := w.Stations[endB].Name
	hang := func(d time.Duration) func(*world) {
		return func(v *world) { v.Stations[endB].Transmitters[0].Hang = d }
	}
	timeout := try(func(v *world) {
		v.Stations[van].Transmitters[sideA].Timeout, v.Stations[van].Transmitters[sideB].Timeout = 3*time.Minute, 3*time.Minute
	})
	low, high := time.Duration(0), ms(data.Hang)
	for high-low > ms(10) {
		if mid := (low + high) / 2; try(hang(mid)) > 0 {
			low = mid
		} else {
			high = mid
		}
	}
	out := []Ending{
		{Says: w.setup.Vehicle.Name + "’s time-out at 3 min", Quiet: timeout},
		{Says: far + "’s tail cut from 3.0 to 1.0 s", Quiet: try(hang(time.Second))},
	}
	if q := try(hang(low)); q > 0 {
		out = append(out, Ending{Says: fmt.Sprintf("%s’s tail cut below %.2f s", far, high.Seconds()), Quiet: q})
	}
	return append(out,
		Ending{Says: "No tone on " + far + "’s tail", Quiet: try(func(v *world) { v.Stations[endB].Transmitters[0].Bare = true })},
		Ending{Says: "One way, " + w.Stations[endA].Name + " to " + far, Quiet: try(func(v *world) { v.Stations[van].Receivers[sideB].Keys = nil }), Way: Out},
	)
}
