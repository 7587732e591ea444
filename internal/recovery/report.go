package recovery

import (
	"fmt"
	"io"
	"maps"
	"math"
	"slices"
)

// The aims, as shares.
const (
	aimUnique    = 0.99
	aimKind      = 0.90 // as the lower bound, per kind and region
	aimAmbiguous = 0.95
	aimHarm      = 0.01
	// Of the offers that are called very likely, as one-sided 95 % bounds.
	aimSure      = 0.80 // of the unique cases have one
	aimSureRight = 0.98
	aimSureHarm  = 0.005
)

var aimAlarm = map[Class]float64{CleanListed: 0.005, CleanStale: 0.01, CleanUnlisted: 0.02, CleanSimplex: 0.005}

// count is hits among cases.
type count struct{ hits, of int }

func (c *count) add(hit bool) {
	c.of++
	if hit {
		c.hits++
	}
}

func (c count) share() float64 {
	if c.of == 0 {
		return 0
	}
	return float64(c.hits) / float64(c.of)
}

// bounds returns the 95 % interval of the share (Wilson 1927).
func (c count) bounds() (lower, upper float64) { return c.wilson(1.959964) }

// oneSided returns the lower and the upper 95 % bound, each by itself.
func (c count) oneSided() (lower, upper float64) { return c.wilson(1.644854) }

// wilson returns the bounds at z standard deviations.
func (c count) wilson(z float64) (lower, upper float64) {
	if c.of == 0 {
		return 0, 1
	}
	n, p := float64(c.of), c.share()
	mid, half := p+z*z/(2*n), z*math.Sqrt(p*(1-p)/n+z*z/(4*n*n))
	return (mid - half) / (1 + z*z/n), (mid + half) / (1 + z*z/n)
}

type key struct{ region, kind string }

// Confidence prints how often an offer that is called very likely is right,
// over all lines, and returns whether the aims were met.
func Confidence(w io.Writer, all []Outcome) bool {
	var covered, right, harm count
	untold := map[string][3]*count{} // first fix right; called very likely; of those right
	for _, o := range all {
		if o.Class == Unique {
			covered.add(o.Sure)
		}
		if o.Class == Untold {
			u, known := untold[o.Kind]
			if !known {
				u = [3]*count{{}, {}, {}}
				untold[o.Kind] = u
			}
			u[0].add(o.First)
			u[1].add(o.Sure)
			if o.Sure {
				u[2].add(o.SureRight)
			}
		}
		if o.Sure {
			right.add(o.SureRight)
			harm.add(o.SureHarm)
		}
	}
	lower, _ := right.oneSided()
	_, upper := harm.oneSided()
	ok := covered.share() >= aimSure && lower >= aimSureRight && upper <= aimSureHarm
	mark := ""
	if !ok {
		mark = "  MISSED"
	}
	fmt.Fprintf(w, "very likely: %d offers over all lines; said in %.1f %% of the unique cases (aim %.0f); right %.2f %%, lower bound %.2f (aim %.0f); harmful %.2f %%, upper bound %.2f (aim %.1f)%s\n",
		right.of, 100*covered.share(), 100*aimSure, 100*right.share(), 100*lower, 100*aimSureRight, 100*harm.share(), 100*upper, 100*aimSureHarm, mark)
	for _, kind := range slices.Sorted(maps.Keys(untold)) {
		u := untold[kind]
		fmt.Fprintf(w, "  %-34s of %5d: first fix right %5.1f %%, called very likely %5.1f %%, of those right %5.1f %%\n", kind, u[0].of, 100*u[0].share(), 100*u[1].share(), 100*u[2].share())
	}
	return ok
}

// Report prints what came of a corpus and returns whether every aim was met.
func Report(w io.Writer, all []Outcome) bool {
	shares := map[Class]int{}
	byKind := map[key]*count{}
	unique, harm, ambiguous, chosen, misled := map[string]*count{}, map[string]*count{}, map[string]*count{}, &count{}, &count{}
	alarms := map[Class]map[string]*count{}
	at := func(m map[string]*count, k string) *count {
		if m[k] == nil {
			m[k] = &count{}
		}
		return m[k]
	}
	for _, o := range all {
		shares[o.Class]++
		switch o.Class {
		case Unique:
			at(unique, o.Region).add(o.First)
			at(harm, o.Region).add(o.Harm)
			k := key{o.Region, o.Kind}
			if byKind[k] == nil {
				byKind[k] = &count{}
			}
			byKind[k].add(o.First)
		case Ambiguous:
			at(ambiguous, o.Region).add(o.Within > 0 && o.Within <= min(o.Candidates, 3))
			chosen.add(o.Offered > 1)
		case Unlisted:
			misled.add(o.Harm)
		case CleanListed, CleanStale, CleanUnlisted, CleanSimplex:
			if alarms[o.Class] == nil {
				alarms[o.Class] = map[string]*count{}
			}
			at(alarms[o.Class], o.Region).add(o.Alarm)
		}
	}
	ok := true
	line := func(what string, c count, met bool) {
		lower, upper := c.bounds()
		mark := ""
		if !met {
			mark, ok = "  MISSED", false
		}
		fmt.Fprintf(w, "  %-34s %6.2f %%  of %6d  (%.2f to %.2f)%s\n", what, 100*c.share(), c.of, 100*lower, 100*upper, mark)
	}
	fmt.Fprintf(w, "all %d cases by class\n", len(all))
	for _, c := range []Class{Unique, Ambiguous, Undetectable, Unlisted, Untold, CleanListed, CleanStale, CleanUnlisted, CleanSimplex} {
		fmt.Fprintf(w, "  %-34s %6.2f %%  %7d\n", c, 100*float64(shares[c])/float64(len(all)), shares[c])
	}
	fmt.Fprintf(w, "\nunique: the first fix makes the truth (aim %.0f %%; every kind %.0f %% as lower bound)\n", 100*aimUnique, 100*aimKind)
	for _, region := range slices.Sorted(maps.Keys(unique)) {
		line(region, *unique[region], unique[region].share() >= aimUnique)
	}
	for _, k := range slices.SortedFunc(maps.Keys(byKind), func(a, b key) int {
		if a.region != b.region {
			return cmpString(a.region, b.region)
		}
		return cmpString(a.kind, b.kind)
	}) {
		lower, _ := byKind[k].bounds()
		line(k.region+", "+k.kind, *byKind[k], lower >= aimKind)
	}
	fmt.Fprintf(w, "\nunique: the first fix leads to another record (aim at most %.0f %%)\n", 100*aimHarm)
	for _, region := range slices.Sorted(maps.Keys(harm)) {
		line(region, *harm[region], harm[region].share() <= aimHarm)
	}
	fmt.Fprintf(w, "\nambiguous: the truth among the first fixes, at most three (aim %.0f %%)\n", 100*aimAmbiguous)
	for _, region := range slices.Sorted(maps.Keys(ambiguous)) {
		line(region, *ambiguous[region], ambiguous[region].share() >= aimAmbiguous)
	}
	line("a choice is shown", *chosen, true)
	fmt.Fprintf(w, "\nunlisted: the first fix leads to a listed record (no aim; the listing cannot know)\n")
	line("all regions", *misled, true)
	fmt.Fprintf(w, "\nfalse alarms: a fix or a stop on a right entry\n")
	for _, c := range []Class{CleanListed, CleanStale, CleanUnlisted, CleanSimplex} {
		for _, region := range slices.Sorted(maps.Keys(alarms[c])) {
			line(fmt.Sprintf("%s, %s (%.1f %%)", region, c, 100*aimAlarm[c]), *alarms[c][region], alarms[c][region].share() <= aimAlarm[c])
		}
	}
	return ok
}

func cmpString(a, b string) int {
	if a < b {
		return -1
	}
	return 1
}
