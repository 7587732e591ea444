package rf_test

import (
	"math"
	"math/rand/v2"
	"os"
	"strconv"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/core/freq"
	"mnemos/core/rf"
	"mnemos/core/tone"
)

const ms = time.Millisecond

var (
	t100 = tone.MustParse("100")
	t123 = tone.MustParse("123")
)

// repeater hears one frequency while it sends another.
func repeater(name string, in, out freq.Hz, lock, key tone.Tone, hang time.Duration) rf.Station {
	return rf.Station{
		Name:         name,
		Transmitters: []rf.Transmitter{{Freq: out, Key: key, Rise: 40 * ms, Hang: hang}},
		Receivers:    []rf.Receiver{{Freq: in, Lock: lock, Squelch: 60 * ms, Decode: 250 * ms, Close: 120 * ms, Keys: []int{0}}},
	}
}

// vehicle sends on one side what it hears on the other; each side has one transceiver.
func vehicle(a, b rf.Receiver, aSends, bSends rf.Transmitter) rf.Station {
	a.Keys, a.Own = []int{1}, []int{0}
	b.Keys, b.Own = []int{0}, []int{1}
	return rf.Station{Name: "vehicle", Transmitters: []rf.Transmitter{aSends, bSends}, Receivers: []rf.Receiver{a, b}}
}

func side(f freq.Hz, lock tone.Tone) rf.Receiver {
	return rf.Receiver{Freq: f, Lock: lock, Squelch: 50 * ms, Decode: 250 * ms, Close: 120 * ms, Recover: 50 * ms}
}

func sends(f freq.Hz, key tone.Tone) rf.Transmitter {
	return rf.Transmitter{Freq: f, Key: key, Turn: 60 * ms, Rise: 30 * ms}
}

const (
	link   = 446_012_500
	up, dn = 144_690_000, 145_290_000
)

// TestOneOver follows one over from a handheld through a vehicle into a repeater. Expected
// by adding up by hand: the handheld rises in 0.03 s; the vehicle opens after 0.05 and 0.25,
// turns in 0.06 and rises in 0.03; the repeater opens after 0.06 and 0.25 and rises in 0.04;
// a listener's squelch takes 0.05: 0.82 s.
func TestOneOver(t *testing.T) {
	w := rf.World{Stations: []rf.Station{
		{Name: "you", Transmitters: []rf.Transmitter{{Freq: link, Key: t100, Rise: 30 * ms}}, Receivers: []rf.Receiver{{Freq: link, Lock: t100, Squelch: 40 * ms, Decode: 250 * ms, Close: 100 * ms, Own: []int{0}, Recover: 50 * ms}}},
		vehicle(side(link, t100), side(dn, tone.Off), sends(link, t100), sends(up, t123)),
		repeater("far", up, dn, t123, tone.Off, 3*time.Second),
		{Name: "listener", Receivers: []rf.Receiver{{Freq: dn, Squelch: 50 * ms, Close: 120 * ms}}},
	}}
	assert.False(t, w.MayLoop(), "a link has no way around")
	r := w.Run([]rf.Over{{Tx: rf.Port{Station: 0}, To: 4 * time.Second}}, 12*time.Second)
	assert.Equal(t, []rf.Sent{{From: 30 * ms, To: 4 * time.Second}}, r.Sent(rf.Port{Station: 0}))
	assert.Equal(t, rf.Heard{Carrier: 30 * ms, Squelch: 80 * ms, Open: 330 * ms, End: 4120 * ms}, firstOf(r.Heard(rf.Port{Station: 1})))
	assert.Equal(t, 820*ms, firstOf(r.Heard(rf.Port{Station: 3})).Open)
	// The vehicle holds on for 0.12 s, then side B hears the tail: 0.05 to recover and 0.05
	// of squelch; the repeater closed 0.12 s after the vehicle and hangs for 3 s.
	b := r.Sent(rf.Port{Station: 1, At: 1})
	require.Len(t, b, 1)
	assert.Equal(t, 4120*ms, b[0].To)
	a := r.Sent(rf.Port{Station: 1})
	require.Len(t, a, 1)
	assert.Equal(t, 4120*ms+50*ms+50*ms+90*ms, a[0].From, "you hear its tail")
	assert.Equal(t, 4120*ms+120*ms+3000*ms+120*ms, a[0].To)
	far := r.Sent(rf.Port{Station: 2})
	require.Len(t, far, 2)
	assert.True(t, far[1].Tail)
	assert.Equal(t, 3000*ms, far[1].To-far[1].From)
	last, quiet := r.Last()
	assert.True(t, quiet)
	assert.Equal(t, a[0].To, last)
	assert.InDelta(t, float64(a[0].To-a[0].From)/12e9, r.Share(rf.Port{Station: 1}, 0, 12*time.Second), 1e-9)
}

func firstOf(h []rf.Heard) rf.Heard { return h[0] }

// TestTimeout: a time-out cuts a transmitter off until what keys it pauses.
func TestTimeout(t *testing.T) {
	rp := repeater("far", up, dn, t123, tone.Off, time.Second)
	rp.Transmitters[0].Timeout = 10 * time.Second
	w := rf.World{Stations: []rf.Station{{Transmitters: []rf.Transmitter{{Freq: up, Key: t123, Rise: 30 * ms}}}, rp}}
	r := w.Run([]rf.Over{{To: 60 * time.Second}, {From: 70 * time.Second, To: 72 * time.Second}}, 90*time.Second)
	got := r.Sent(rf.Port{Station: 1})
	require.Len(t, got, 3)
	assert.Equal(t, 340*ms+10*time.Second, got[0].To, "ten seconds after it opened, without a tail")
	assert.Equal(t, 70*time.Second+340*ms+40*ms, got[1].From)
	assert.True(t, got[2].Tail)
}

// loops are two repeaters through a vehicle.
type loops struct {
	p, q           rf.Station
	a, b           rf.Receiver
	aSends, bSends rf.Transmitter
	call           time.Duration
}

func drawn(rnd *rand.Rand) loops {
	d := func(from, to int) time.Duration { return time.Duration(from+rnd.IntN(to-from)) * ms }
	tones := []tone.Tone{tone.Off, t100, t123}
	any3 := func() tone.Tone { return tones[rnd.IntN(3)] }
	rep := func(in, out freq.Hz) rf.Station {
		s := repeater("", in, out, any3(), any3(), d(0, 1500))
		tx, rx := &s.Transmitters[0], &s.Receivers[0]
		tx.Rise, tx.Bare = d(10, 90), rnd.IntN(3) == 0
		rx.Squelch, rx.Decode, rx.Close = d(10, 120), d(50, 400), d(10, 300)
		return s
	}
	one := func(f freq.Hz) rf.Receiver {
		return rf.Receiver{Freq: f, Lock: any3(), Squelch: d(10, 120), Decode: d(50, 400), Close: d(10, 300), Recover: d(5, 90)}
	}
	x := loops{p: rep(1, 2), q: rep(3, 4), a: one(2), b: one(4), call: 5 * time.Second}
	x.aSends = rf.Transmitter{Freq: 1, Key: any3(), Turn: d(5, 90), Rise: d(5, 60)}
	x.bSends = rf.Transmitter{Freq: 3, Key: any3(), Turn: d(5, 90), Rise: d(5, 60)}
	return x
}

func (x loops) world() rf.World {
	return rf.World{Stations: []rf.Station{x.p, x.q, vehicle(x.a, x.b, x.aSends, x.bSends), {Transmitters: []rf.Transmitter{{Freq: 1, Key: x.p.Receivers[0].Lock, Rise: 30 * ms}}}}}
}

func passes(key, lock tone.Tone) bool { return lock.IsOff() || tone.Same(key, lock) }

// opening is how long a receiver takes to open.
func opening(r rf.Receiver) time.Duration {
	if r.Lock.IsOff() {
		return r.Squelch
	}
	return r.Squelch + r.Decode
}

// turns says by adding up, without any events, whether the tail of one repeater keys the
// other through the vehicle: it passes the tone squelch, and outlasts detection, turnaround
// and the far attack.
func turns(from rf.Station, near rf.Receiver, vehicle rf.Transmitter, to rf.Station) bool {
	tx, rx := from.Transmitters[0], from.Receivers[0]
	far := to.Receivers[0]
	if !passes(tx.Key, near.Lock) || !passes(vehicle.Key, far.Lock) {
		return false
	}
	// The vehicle's own carrier on this side has just gone: the repeater closes Close after
	// that, and hangs. What is left for the near receiver begins when it has recovered.
	carrier := rx.Close + tx.Hang
	right := carrier // for how long the tone is there
	if tx.Bare && !near.Lock.IsOff() {
		right = rx.Close
	}
	opens := near.Recover + opening(near)
	if right <= opens {
		return false
	}
	keyed := right + near.Close - opens // the near receiver is open for that long
	on := keyed - vehicle.Turn - vehicle.Rise
	return on > 0 && on > opening(far)
}

// TestTwoRepeaters: without time-outs a relay of two repeaters loops exactly when each tail
// passes the tone squelch and outlasts detection, turnaround and the far attack.
func TestTwoRepeaters(t *testing.T) {
	looped, cyclic := 0, 0
	rnd := rand.New(rand.NewPCG(19, 1)) //nolint:gosec // the same worlds each time
	for i := range 4000 {
		x := drawn(rnd)
		if i%2 == 0 { // tones that fit are rare by chance
			x.a.Lock, x.b.Lock = x.p.Transmitters[0].Key, x.q.Transmitters[0].Key
			x.aSends.Key, x.bSends.Key = x.p.Receivers[0].Lock, x.q.Receivers[0].Lock
		}
		w := x.world()
		// The call gets through the first time, or there is nothing to go round.
		starts := passes(x.p.Transmitters[0].Key, x.a.Lock) && passes(x.bSends.Key, x.q.Receivers[0].Lock)
		want := starts && turns(x.q, x.b, x.aSends, x.p) && turns(x.p, x.a, x.bSends, x.q)
		r := w.Run([]rf.Over{{Tx: rf.Port{Station: 3}, To: x.call}}, 200*time.Second)
		_, quiet := r.Last()
		looping := !quiet || later(r, w, 150*time.Second)
		require.Equal(t, want, looping, "world %d: %+v", i, x)
		if looping {
			looped++
			require.True(t, w.MayLoop(), "world %d", i)
		}
		if w.MayLoop() {
			cyclic++
		}
	}
	assert.Greater(t, looped, 300)
	assert.Greater(t, cyclic, looped, "the drawing says only that it may")
}

// later reports whether anything is sent after a time.
func later(r *rf.Run, w rf.World, after time.Duration) bool {
	for i, s := range w.Stations {
		for k := range s.Transmitters {
			if r.Share(rf.Port{Station: i, At: k}, after, r.Until) > 0 {
				return true
			}
		}
	}
	return false
}

// TestPath: free space by the formula of ITU-R P.525 as it stands in handbooks, 32.45 dB at
// 1 MHz and 1 km; 100 W are +50 dBm; 2 m and 70 cm are called after their waves.
func TestPath(t *testing.T) {
	assert.InDelta(t, 32.45, rf.FreeSpace(1*freq.MHz, 1), 0.005)
	assert.InDelta(t, 32.45+20*math.Log10(145)+20*math.Log10(30), rf.FreeSpace(145*freq.MHz, 30), 0.01)
	assert.InDelta(t, 50, rf.DBm(100), 1e-9)
	assert.InDelta(t, 2.07, rf.Wavelength(145*freq.MHz), 0.005)
}

func worlds() int {
	if n, err := strconv.Atoi(os.Getenv("MNEMOS_WORLDS")); err == nil {
		return n
	}
	return 300
}

// topology is any stations on a few frequencies.
func topology(rnd *rand.Rand) (rf.World, []rf.Over) {
	d := func(to int) time.Duration { return time.Duration(1+rnd.IntN(to)) * ms }
	tones := []tone.Tone{tone.Off, t100, t123}
	freqs := 2 + rnd.IntN(3)
	f := func() freq.Hz { return freq.Hz(1 + rnd.IntN(freqs)) }
	w := rf.World{}
	for range 2 + rnd.IntN(4) {
		s := rf.Station{}
		for range 1 + rnd.IntN(2) {
			s.Transmitters = append(s.Transmitters, rf.Transmitter{Freq: f(), Key: tones[rnd.IntN(3)], Turn: d(60), Rise: d(60), Hang: time.Duration(rnd.IntN(3)) * d(500), Bare: rnd.IntN(3) == 0})
		}
		for range 1 + rnd.IntN(2) {
			r := rf.Receiver{Freq: f(), Lock: tones[rnd.IntN(3)], Squelch: d(80), Decode: d(300), Close: d(200), Recover: d(60)}
			for k := range s.Transmitters {
				if rnd.IntN(2) == 0 {
					r.Keys = append(r.Keys, k)
				}
				if rnd.IntN(3) > 0 {
					r.Own = append(r.Own, k)
				}
			}
			s.Receivers = append(s.Receivers, r)
		}
		w.Stations = append(w.Stations, s)
	}
	deaf := rnd.Uint64()
	w.Hears = func(r, t int) bool { return deaf>>(uint(r*7+t)%64)&1 == 0 }
	overs := []rf.Over{{Tx: rf.Port{Station: 0}, From: d(50), To: time.Second + d(2000)}, {Tx: rf.Port{Station: 1}, From: d(3000), To: 4 * time.Second}}
	return w, overs
}

// TestTopologies: no world loops where the drawing has no way around; and each agrees with
// a second simulation, written apart, that goes in steps of a millisecond.
func TestTopologies(t *testing.T) {
	loops, mayLoop, agreed := 0, 0, 0
	rnd := rand.New(rand.NewPCG(19, 2)) //nolint:gosec // the same worlds each time
	for i := range max(1000, worlds()) {
		w, overs := topology(rnd)
		r := w.Run(overs, 120*time.Second)
		_, quiet := r.Last()
		looping := !quiet || later(r, w, 60*time.Second)
		may := w.MayLoop()
		if looping {
			loops++
			require.True(t, may, "world %d loops, and the drawing missed it", i)
		}
		if may {
			mayLoop++
		}
		if i < worlds() {
			until := 8 * time.Second
			short, steps := w.Run(overs, until), stepped(&w, overs, until)
			for si, s := range w.Stations {
				for k := range s.Transmitters {
					p := rf.Port{Station: si, At: k}
					require.Equal(t, steps[p], carriers(short.Sent(p)), "world %d, transmitter %v", i, p)
					agreed++
				}
			}
		}
	}
	assert.Greater(t, loops, 100)
	assert.Greater(t, mayLoop, loops)
	assert.Greater(t, agreed, 500)
	t.Logf("%d may loop, %d do", mayLoop, loops)
}

// carriers joins stretches that follow each other.
func carriers(list []rf.Sent) (out [][2]time.Duration) {
	for _, s := range list {
		if n := len(out); n > 0 && out[n-1][1] == s.From {
			out[n-1][1] = s.To
			continue
		}
		out = append(out, [2]time.Duration{s.From, s.To})
	}
	return out
}

// BenchmarkTenMinutes is a link into a repeater with an over every half minute.
func BenchmarkTenMinutes(b *testing.B) {
	w := rf.World{Stations: []rf.Station{
		{Transmitters: []rf.Transmitter{{Freq: link, Key: t100, Rise: 30 * ms}}},
		vehicle(side(link, t100), side(dn, tone.Off), sends(link, t100), sends(up, t123)),
		repeater("far", up, dn, t123, tone.Off, 3*time.Second),
	}}
	var overs []rf.Over
	for i := range 20 {
		from := time.Duration(i) * 30 * time.Second
		overs = append(overs, rf.Over{From: from, To: from + 15*time.Second})
	}
	for b.Loop() {
		w.Run(overs, 10*time.Minute)
	}
}

// TestLog: whatever happens in a world, what is noted of it holds together: stretches follow
// each other in time and never overlap, a carrier is seen before it opens anything, shares
// are shares, and nobody sends whom nothing keys.
func TestLog(t *testing.T) {
	rnd := rand.New(rand.NewPCG(19, 6)) //nolint:gosec // the same worlds each time
	for i := range 400 {
		w, overs := topology(rnd)
		const until = 20 * time.Second
		r := w.Run(overs, until)
		for si, s := range w.Stations {
			for k := range s.Transmitters {
				p := rf.Port{Station: si, At: k}
				last, sum := time.Duration(0), time.Duration(0)
				for _, x := range r.Sent(p) {
					require.GreaterOrEqual(t, x.From, last, "world %d", i)
					require.Greater(t, x.To, x.From, "world %d", i)
					require.LessOrEqual(t, x.To, until)
					last, sum = x.To, sum+x.To-x.From
				}
				require.InDelta(t, sum.Seconds()/until.Seconds(), r.Share(p, 0, until), 1e-9)
				require.LessOrEqual(t, r.Share(p, 0, until/2), 1.0)
			}
			for k, rx := range s.Receivers {
				last := time.Duration(-1)
				for _, h := range r.Heard(rf.Port{Station: si, At: k}) {
					require.GreaterOrEqual(t, h.Carrier, last, "world %d", i)
					last = h.Carrier
					if h.Squelch != rf.None {
						require.GreaterOrEqual(t, h.Squelch-h.Carrier, rx.Squelch)
					}
					if h.Open != rf.None {
						require.GreaterOrEqual(t, h.Open, h.Squelch)
						require.GreaterOrEqual(t, h.End, h.Open)
					}
				}
			}
		}
		quiet := w.Run(nil, until)
		at, ok := quiet.Last()
		require.Zero(t, at, "nobody keys anything")
		require.True(t, ok)
		require.Equal(t, r.Sent(rf.Port{}), w.Run(overs, until).Sent(rf.Port{}), "the same every time")
	}
}

// TestCapture: two people at once. Each is heard as if alone, and nobody is heard who is out
// of reach, on another frequency, or whose receiver his own transmitter makes deaf.
func TestCapture(t *testing.T) {
	handheld := func(f freq.Hz, key tone.Tone) rf.Station {
		return rf.Station{
			Transmitters: []rf.Transmitter{{Freq: f, Key: key, Rise: 30 * ms}},
			Receivers:    []rf.Receiver{{Freq: f, Lock: key, Squelch: 40 * ms, Decode: 250 * ms, Close: 100 * ms, Own: []int{0}, Recover: 50 * ms}},
		}
	}
	w := rf.World{Stations: []rf.Station{handheld(link, t100), handheld(link, t100), handheld(link, t123), handheld(dn, t100), handheld(link, t100)}}
	w.Hears = func(r, tx int) bool { return r != 4 && tx != 4 }
	both := []rf.Over{{Tx: rf.Port{Station: 0}, To: 4 * time.Second}, {Tx: rf.Port{Station: 1}, From: 2 * time.Second, To: 6 * time.Second}}
	r := w.Run(both, 10*time.Second)
	one := r.Heard(rf.Port{Station: 1})
	require.Len(t, one, 1, "it hears the first until it keys itself")
	assert.Equal(t, 2030*ms, one[0].End)
	first := r.Heard(rf.Port{Station: 0})
	require.Len(t, first, 1, "and the first hears it after letting go")
	assert.Equal(t, 4050*ms, first[0].Carrier, "when it has recovered")
	other := r.Heard(rf.Port{Station: 2})
	require.NotEmpty(t, other, "the carrier is there")
	for _, h := range other {
		assert.Equal(t, rf.None, h.Open, "and its tone is another")
	}
	assert.Empty(t, r.Heard(rf.Port{Station: 3}), "another frequency")
	assert.Empty(t, r.Heard(rf.Port{Station: 4}), "out of reach")
}
