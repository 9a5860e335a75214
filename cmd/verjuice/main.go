// Command verjuice serves the application, or answers one computation on the
// command line.
//
//	verjuice serve [--demo]
//	verjuice calc scale|ledger|drybrine|bath|injection|formula|compare|label|plan < request.json
//	verjuice openapi
package main

import (
	"encoding/json"
	"fmt"
	"io"
	"os"

	"github.com/alecthomas/kong"

	"verjuice/internal/api"
	"verjuice/internal/core/formula"
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
	What string `arg:"" enum:"scale,ledger,drybrine,bath,injection,formula,compare,label,plan" help:"scale, ledger, drybrine, bath, injection, formula, compare, label or plan."`
}

func (c calc) Run() error { return answer(c.What, os.Stdin, os.Stdout) }

// computations are what the API computes, by the last part of its address.
var computations = map[string]func(*json.Decoder) (any, error){
	"scale":     with(func(r sheet.Request) (any, error) { return sheet.Scale(r) }),
	"ledger":    with(func(r sheet.Request) (any, error) { return sheet.Ledger(r) }),
	"drybrine":  with(func(r sheet.Request) (any, error) { return sheet.DryBrine(r) }),
	"bath":      with(func(r sheet.Request) (any, error) { return sheet.WetBrine(r) }),
	"injection": with(func(r sheet.Request) (any, error) { return sheet.Inject(r) }),
	"formula":   with(func(r sheet.FormulaRequest) (any, error) { return sheet.WorkOut(r, sheet.Options{}), nil }),
	"compare":   with(func(r sheet.CompareRequest) (any, error) { return sheet.Compare(r, sheet.Options{}) }),
	"plan":      with(func(c sheet.Cook) (any, error) { return sheet.Plan(c, sheet.Options{}) }),
	"label":     with(func(r formula.Label) (any, error) { return sheet.ReadLabel(r) }),
}

func with[R any](compute func(R) (any, error)) func(*json.Decoder) (any, error) {
	return func(dec *json.Decoder) (any, error) {
		var req R
		if err := dec.Decode(&req); err != nil {
			return nil, fmt.Errorf("the request on stdin is not usable: %w", err)
		}
		return compute(req)
	}
}

// answer reads a request and writes what the API would answer.
func answer(what string, in io.Reader, out io.Writer) error {
	dec := json.NewDecoder(io.LimitReader(in, 1<<20))
	dec.DisallowUnknownFields()
	result, err := computations[what](dec)
	if err != nil {
		return err
	}
	enc := json.NewEncoder(out)
	enc.SetIndent("", "  ")
	return enc.Encode(result)
}
