// Package contract is the contract between the application and its interface,
// a file for each tag: what belongs to one kind of thing stands together. Merge
// puts them into the one document that the generators read.
package contract

import (
	"embed"
	"fmt"

	"github.com/goccy/go-yaml"
)

//go:embed *.yaml
var files embed.FS

// Parts are the files in the order in which they stand in the document.
var Parts = []string{"common", "plan", "slots", "sets", "history", "files", "templates", "people", "radios", "settings", "listings", "find", "print", "listen", "log", "relay", "beacon", "live"}

// Merge returns the whole contract as YAML. A name that two files give is an
// error.
func Merge() ([]byte, error) {
	var out yaml.MapSlice
	for _, name := range Parts {
		text, err := files.ReadFile(name + ".yaml")
		if err != nil {
			return nil, fmt.Errorf("read contract: %w", err)
		}
		var part yaml.MapSlice
		if err := yaml.UnmarshalWithOptions(text, &part, yaml.UseOrderedMap()); err != nil {
			return nil, fmt.Errorf("read contract %s: %w", name, err)
		}
		if out, err = merge(out, part, name, 2); err != nil {
			return nil, err
		}
	}
	text, err := yaml.MarshalWithOptions(out, yaml.Indent(2), yaml.IndentSequence(true))
	if err != nil {
		return nil, fmt.Errorf("write contract: %w", err)
	}
	return append([]byte("# This file is put together from contract/*.yaml by go generate; do not edit it.\n"), text...), nil
}

// merge adds what a part says to what is there, so many levels deep.
func merge(to, part yaml.MapSlice, file string, depth int) (yaml.MapSlice, error) {
	for _, x := range part {
		at := -1
		for i, y := range to {
			if y.Key == x.Key {
				at = i
			}
		}
		if at < 0 {
			to = append(to, x)
			continue
		}
		old, a := to[at].Value.(yaml.MapSlice)
		more, b := x.Value.(yaml.MapSlice)
		if !a || !b || depth == 0 {
			return nil, fmt.Errorf("contract %s: %v is there already", file, x.Key)
		}
		var err error
		if to[at].Value, err = merge(old, more, file, depth-1); err != nil {
			return nil, err
		}
	}
	return to, nil
}
