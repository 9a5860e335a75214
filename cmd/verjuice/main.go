// Command verjuice serves the application, or answers one computation on the
// command line.
//
//	verjuice serve [--demo]
//	verjuice calc scale|ledger|drybrine < request.json
//	verjuice openapi
package main

import (
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"os"

	"github.com/alecthomas/kong"

	"verjuice/internal/api"
	"verjuice/internal/core/sheet"
)

type cli struct {
	Serve   serve   `cmd:"" default:"withargs" help:"Serve the application on this machine."`
	Calc    calc    `cmd:"" help:"Answer one computation: JSON on stdin as the API takes it, the API's answer on stdout."`
	OpenAPI openAPI `cmd:"" name:"openapi" help:"Print the description of the API."`
}

func main() {
	ctx := kong.Parse(&cli{}, kong.Name("verjuice"), kong.Description("Rubs, dry brines and clocks for barbecue cooks."), kong.UsageOnError())
	if err := ctx.Run(); err != nil {
		fmt.Fprintln(os.Stderr, "verjuice: "+err.Error())
		os.Exit(1)
	}
}

type openAPI struct{}

func (openAPI) Run() error {
	doc, err := api.OpenAPI()
	if err != nil {
		return err
	}
	_, err = fmt.Println(string(doc))
	return err
}

type calc struct {
	What string `arg:"" enum:"scale,ledger,drybrine" help:"scale, ledger or drybrine."`
}

func (c calc) Run() error { return answer(c.What, os.Stdin, os.Stdout) }

// answer reads a request and writes what the API would answer.
func answer(what string, in io.Reader, out io.Writer) error {
	var req sheet.Request
	dec := json.NewDecoder(io.LimitReader(in, 1<<20))
	dec.DisallowUnknownFields()
	if err := dec.Decode(&req); err != nil {
		return fmt.Errorf("the request on stdin is not usable: %w", err)
	}
	var result any
	var err error
	switch what {
	case "scale":
		result, err = sheet.Scale(req)
	case "ledger":
		result, err = sheet.Ledger(req)
	case "drybrine":
		result, err = sheet.DryBrine(req)
	default:
		return errors.New("scale, ledger or drybrine")
	}
	if err != nil {
		return err
	}
	enc := json.NewEncoder(out)
	enc.SetIndent("", "  ")
	return enc.Encode(result)
}
