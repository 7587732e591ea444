package rf

// Cycle is transmitters each of which can key the next, the last the first.
type Cycle []Port

// Cycles are the ways in which the world may go on without anybody: drawn from who hears
// whom and what opens what, without any time. What has no cycle ends by itself. One for
// each set of transmitters that can all key each other is given, the shortest.
func (w *World) Cycles() []Cycle {
	ports := w.transmitters()
	at := map[Port]int{}
	for i, p := range ports {
		at[p] = i
	}
	next := make([][]int, len(ports))
	for i, from := range ports {
		for _, r := range w.receivers() {
			rx := &w.Stations[r.Station].Receivers[r.At]
			if !w.hears(r, from) || !w.mayOpen(rx, from) {
				continue
			}
			for _, k := range rx.Keys {
				next[i] = append(next[i], at[Port{r.Station, k}])
			}
		}
	}
	var out []Cycle
	seen := make([]bool, len(ports))
	for i := range ports {
		if seen[i] {
			continue
		}
		way := around(next, i)
		if way == nil {
			continue
		}
		var c Cycle
		for _, k := range way {
			seen[k] = true
			c = append(c, ports[k])
		}
		out = append(out, c)
	}
	return out
}

// MayLoop reports whether there is a way around.
func (w *World) MayLoop() bool { return len(w.Cycles()) > 0 }

// mayOpen reports whether what a transmitter sends at some time opens a receiver.
func (w *World) mayOpen(rx *Receiver, from Port) bool {
	return opens(rx, w.Stations[from.Station].Transmitters[from.At].Key)
}

// around is the shortest way from a node back to itself, or nil.
func around(next [][]int, from int) []int {
	before := make([]int, len(next))
	for i := range before {
		before[i] = -1
	}
	queue := []int{from}
	for len(queue) > 0 {
		i := queue[0]
		queue = queue[1:]
		for _, k := range next[i] {
			if k == from {
				way := []int{i}
				for i != from {
					i = before[i]
					way = append([]int{i}, way...)
				}
				return way
			}
			if before[k] == -1 {
				before[k] = i
				queue = append(queue, k)
			}
		}
	}
	return nil
}
