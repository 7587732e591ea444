// Command mnemos plans the memories of FM radios and checks them against
// published repeater data.
package main

import (
	"os"

	"mnemos/internal/cli"
)

func main() { os.Exit(cli.Main(os.Args[1:], os.Stdin, os.Stdout, os.Stderr)) }
