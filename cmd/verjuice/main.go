// Command verjuice serves the application, or answers one computation on the
// command line.
//
//	verjuice serve [--demo]
//	verjuice calc WHAT < request.json   # WHAT is sheet, scale, ledger, drybrine, bath, injection, formula,
//	                                    # compare, label, plan, shopping, forecast, rest or meal
//	verjuice export|import|backup|restore
//	verjuice openapi
package main

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"os"
	"strings"
	"time"

	"github.com/alecthomas/kong"

	"verjuice/internal/api"
	"verjuice/internal/core/bench"
	"verjuice/internal/core/cooking"
	"verjuice/internal/core/field"
	"verjuice/internal/core/firecalc"
	"verjuice/internal/core/formula"
	"verjuice/internal/core/kitchen"
	"verjuice/internal/core/meal"
	"verjuice/internal/core/quantity"
	"verjuice/internal/sheet"
)

type cli struct {
	Serve   serve      `cmd:"" default:"withargs" help:"Serve the application on this machine."`
	Calc    calc       `cmd:"" help:"Answer one computation: JSON on stdin as the API takes it, the API's answer on stdout."`
	Export  exportBook `cmd:"" help:"Write all that is on record to a file."`
	Import  importBook `cmd:"" help:"Take a file in that was written so; what is here already stays as it is."`
	Backup  backup     `cmd:"" help:"Write all that is on record to a file named after the moment."`
	Restore restore    `cmd:"" help:"Put what was backed up in the place of all that is on record."`
	OpenAPI openAPI    `cmd:"" name:"openapi" help:"Print the description of the API."`
}

func main() {
	ctx := kong.Parse(
		&cli{},
		kong.Name("verjuice"),
		kong.Description("Rubs, dry brines and clocks for barbecue cooks."),
		kong.UsageOnError(),
	)
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
	What     string            `arg:"" enum:"sheet,scale,ledger,drybrine,bath,injection,formula,compare,label,plan,shopping,forecast,rest,meal" help:"sheet, scale, ledger, drybrine, bath, injection, formula, compare, label, plan, shopping, forecast, rest or meal."`
	Units    quantity.System   `enum:"metric,us" default:"metric" help:"Units of the answer: metric or us."`
	Spoons   quantity.SpoonSet `enum:"us,metric" default:"us" help:"Spoons of the answer: us or metric."`
	Now      string            `help:"The moment for which a cook-out is worked out, as in 2026-11-28T18:30:00Z; without it nothing is too late."`
	ServedAt string            `help:"Serving time on record, as the API takes it."`
	Where    bool              `help:"Tell also where each figure comes from."`
}

func (c calc) Run() error { return c.answer(os.Stdin, os.Stdout) }

func (c calc) reader() sheet.Reader {
	return sheet.Reader{Units: c.Units, Spoons: c.Spoons, Brief: !c.Where}
}

func (c calc) clock() (cooking.Clock, error) {
	out := cooking.Clock{Recorded: c.ServedAt}
	if c.Now == "" {
		return out, nil
	}
	var err error
	if out.Now, err = time.Parse(time.RFC3339, c.Now); err != nil {
		return out, field.Errors{{Pointer: "--now", Wrong: field.Because("request.now")}}
	}
	return out, nil
}

// computations are what the API computes, by the last part of its address.
var computations = map[string]func(calc, *json.Decoder) (any, error){
	"sheet":     ofCook(sheet.OfCook),
	"plan":      ofCook(sheet.OfPlan),
	"shopping":  ofCook(sheet.OfShopping),
	"scale":     ofPiece(sheet.Scale),
	"ledger":    ofPiece(sheet.Ledger),
	"drybrine":  ofPiece(sheet.DryBrine),
	"bath":      ofPiece(sheet.WetBrine),
	"injection": ofPiece(sheet.Inject),
	"formula":   with(func(c calc, r bench.Request) (any, error) { return sheet.OfFormula(r, none, c.reader()), nil }),
	"compare": with(func(c calc, r bench.CompareRequest) (any, error) {
		return sheet.OfComparison(context.Background(), r, none, c.reader())
	}),
	"forecast": with(func(_ calc, r firecalc.FireRequest) (any, error) { return firecalc.Calc(context.Background(), r) }),
	"rest":     with(func(_ calc, r firecalc.RestRequest) (any, error) { return firecalc.CalcRest(r) }),
	"meal": with(func(c calc, m meal.Meal) (any, error) {
		at, err := c.clock()
		return sheet.WriteMeal(sheet.MealRequest{Meal: m, Now: at.Now}, c.reader()), err
	}),
	"label": with(func(c calc, r formula.Label) (any, error) { return sheet.ReadLabel(r, c.reader()) }),
}

// none is a kitchen without a database: a request brings what it needs.
var none kitchen.Kitchen

func with[R any](compute func(calc, R) (any, error)) func(calc, *json.Decoder) (any, error) {
	return func(c calc, dec *json.Decoder) (any, error) {
		var req R
		if err := dec.Decode(&req); err != nil {
			return nil, fmt.Errorf("the request on stdin is not usable: %w", err)
		}
		return compute(c, req)
	}
}

func ofPiece[T any](
	compute func(context.Context, sheet.PieceRequest, kitchen.Kitchen) (*T, error),
) func(calc, *json.Decoder) (any, error) {
	return with(func(_ calc, r sheet.PieceRequest) (any, error) { return compute(context.Background(), r, none) })
}

func ofCook[T any](
	compute func(context.Context, sheet.CookRequest, kitchen.Kitchen, cooking.Clock, sheet.Reader) (T, error),
) func(calc, *json.Decoder) (any, error) {
	return with(func(c calc, r sheet.CookRequest) (any, error) {
		at, err := c.clock()
		if err != nil {
			return nil, err
		}
		return compute(context.Background(), r, none, at, c.reader())
	})
}

// answer reads a request and writes what the API would answer.
func (c calc) answer(in io.Reader, out io.Writer) error {
	dec := json.NewDecoder(io.LimitReader(in, 1<<20))
	dec.DisallowUnknownFields()
	result, err := computations[c.What](c, dec)
	var list field.Errors
	if errors.As(err, &list) {
		lines := []string{}
		for _, m := range sheet.Mistakes(list, c.reader()) {
			lines = append(lines, m.Pointer+": "+m.Message)
		}
		return errors.New(strings.Join(lines, "\n"))
	}
	if err != nil {
		return err
	}
	enc := json.NewEncoder(out)
	enc.SetIndent("", "  ")
	return enc.Encode(result)
}
