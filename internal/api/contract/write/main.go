// Command write puts the contract together into one file.
package main

import (
	"fmt"
	"os"

	"mnemos/internal/api/contract"
)

func main() {
	text, err := contract.Merge()
	if err == nil {
		err = os.WriteFile("openapi.yaml", text, 0o644)
	}
	if err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(1)
	}
}
