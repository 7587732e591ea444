// Command recovery measures how well slips on the entry line are found: it
// draws a corpus, or reads one that somebody brings, asks `mnemos read
// --batch` about every line, and prints the shares. See docs/recovery.md.
package main

import (
	"context"
	"flag"
	"fmt"
	"math/rand/v2"
	"os"
	"path/filepath"
	"strings"
	"time"

	"mnemos/internal/recovery"
)

func main() {
	if err := run(); err != nil {
		fmt.Fprintln(os.Stderr, "recovery:", err)
		os.Exit(1)
	}
}

func run() error {
	program := flag.String("mnemos", "bin/mnemos", "the program that is measured")
	corpus := flag.String("corpus", "", "read this corpus instead of drawing one; its listings are beside it")
	keep := flag.String("keep", "", "draw into this folder and keep it")
	seed := flag.Uint64("seed", rand.Uint64(), "of the draw")
	regions := flag.String("regions", "us,uk,au", "regions to draw")
	cases := flag.Int("cases", 1000, "cases with a unique answer per kind of slip and region")
	clean := flag.Int("clean", 1500, "right entries per class and region")
	districts := flag.Int("districts", 10, "districts per region")
	today := flag.String("today", "2026-11-25", "the day from which the age of a listing counts")
	misses := flag.Int("misses", 0, "print so many cases that were not put right")
	flag.Parse()

	day, err := time.Parse(time.DateOnly, *today)
	if err != nil {
		return err
	}
	folder := *keep
	var all []recovery.Case
	if *corpus != "" {
		folder = filepath.Dir(*corpus)
		if all, err = recovery.ReadCorpus(*corpus); err != nil {
			return err
		}
	} else {
		if folder == "" {
			if folder, err = os.MkdirTemp("", "recovery"); err != nil {
				return err
			}
			defer func() { _ = os.RemoveAll(folder) }() // what is left lies among temporary files
		} else if err := os.MkdirAll(folder, 0o755); err != nil {
			return err
		}
		fmt.Println("seed", *seed)
		z := recovery.Sizes{Regions: strings.Split(*regions, ","), Districts: *districts, Cases: *cases, Clean: *clean}
		if all, err = recovery.Draw(*seed, folder, day, z); err != nil {
			return err
		}
	}
	start := time.Now()
	out, err := recovery.Run(context.Background(), *program, folder, *today, all)
	if err != nil {
		return err
	}
	fmt.Printf("%d lines read and checked in %s\n\n", len(out), time.Since(start).Round(time.Second))
	met := recovery.Report(os.Stdout, out)
	fmt.Println()
	met = recovery.Confidence(os.Stdout, out) && met
	for _, weight := range []string{"0.5", "2"} {
		again, err := recovery.Run(context.Background(), *program, folder, *today, all, "--slip-weight", weight)
		if err != nil {
			return err
		}
		fmt.Printf("\nwith the weights of all slips times %s\n", weight)
		met = recovery.Confidence(os.Stdout, again) && met
	}
	for _, o := range out {
		wrong := o.Class == recovery.Unique && !o.First || strings.HasPrefix(string(o.Class), "clean") && o.Alarm
		if wrong && *misses > 0 {
			*misses--
			fmt.Printf("%s %s %s @%s %s: place %d of %d, by %s\n", o.Listing, o.Class, o.Kind, o.At, o.Line, o.Within, o.Offered, o.Rule)
		}
	}
	if !met {
		return fmt.Errorf("an aim was missed")
	}
	return nil
}
