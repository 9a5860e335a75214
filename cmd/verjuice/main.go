// Command verjuice serves the application, or answers one computation on the
// command line.
//
//	verjuice serve [--demo]
//	verjuice calc WHAT < request.json   # WHAT is sheet, scale, ledger, drybrine, bath, injection, formula,
//	                                    # compare, label, plan, shopping, fire, rest, meal or told
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
	"verjuice/internal/app"
	"verjuice/internal/core/bench"
	"verjuice/internal/core/cooking"
	"verjuice/internal/core/field"
	"verjuice/internal/core/firecalc"
	"verjuice/internal/core/formula"
	"verjuice/internal/core/kitchen"
	"verjuice/internal/core/meal"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/retelling"
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
	What   string            `arg:"" enum:"sheet,scale,ledger,drybrine,bath,injection,formula,compare,label,plan,shopping,fire,rest,meal,told" help:"sheet, scale, ledger, drybrine, bath, injection, formula, compare, label, plan, shopping, fire, rest, meal or told."`
	Units  quantity.System   `enum:"metric,us" default:"metric" help:"Units of the answer: metric or us."`
	Spoons quantity.SpoonSet `enum:"us,metric" default:"us" help:"Spoons of the answer: us or metric."`
	Now    string            `help:"The moment for which a cook-out is worked out, as in 2026-11-28T18:30:00Z; without it nothing is too late."`
	Where  bool              `help:"Tell also where each figure comes from."`
}

func (c calc) Run() error { return c.answer(os.Stdin, os.Stdout) }

func (c calc) reader() sheet.Reader {
	return sheet.Reader{Units: c.Units, Spoons: c.Spoons, Brief: !c.Where}
}

// now is the moment for which something is worked out; the zero time is none.
func (c calc) now() (time.Time, error) {
	if c.Now == "" {
		return time.Time{}, nil
	}
	at, err := time.Parse(time.RFC3339, c.Now)
	if err != nil {
		return at, field.Errors{{Pointer: "--now", Wrong: field.Because("request.now")}}
	}
	return at, nil
}

// computations are what the API computes, by the last part of its address.
var computations = map[string]func(calc, *json.Decoder) (any, error){
	"sheet": ofCook(func(ctx context.Context, in app.Inputs, as sheet.Reader) (any, error) {
		r, err := in.Work(ctx, cooking.Result{})
		return sheet.Write(r, as), err
	}),
	"plan": ofCook(func(ctx context.Context, in app.Inputs, as sheet.Reader) (any, error) {
		r, err := in.Plan(ctx)
		return sheet.WritePlan(r, as), err
	}),
	"shopping": ofCook(func(ctx context.Context, in app.Inputs, as sheet.Reader) (any, error) {
		r, err := in.Work(ctx, cooking.Result{})
		return sheet.WriteShopping(r, as), err
	}),
	"scale":     ofPiece(cooking.Seasons, sheet.WriteSeason),
	"ledger":    ofPiece(cooking.Depths, sheet.WriteLedger),
	"drybrine":  ofPiece(cooking.Depths, sheet.WriteDepth),
	"bath":      ofPiece(cooking.Baths, sheet.WriteBath),
	"injection": ofPiece(cooking.Needles, sheet.WriteNeedle),
	"formula": with(func(c calc, r bench.Request) (any, error) {
		return sheet.WriteFormula(bench.WorkOut(r, none, c.Spoons), c.reader()), nil
	}),
	"compare": with(func(c calc, r bench.CompareRequest) (any, error) {
		out, err := bench.Compare(context.Background(), r, none, c.Spoons)
		if err != nil {
			return nil, err
		}
		return sheet.WriteComparison(out, c.reader()), nil
	}),
	"fire": with(func(_ calc, r firecalc.FireRequest) (any, error) { return firecalc.Calc(context.Background(), r) }),
	"rest": with(func(_ calc, r firecalc.RestRequest) (any, error) { return firecalc.CalcRest(r) }),
	"meal": with(func(c calc, m meal.Meal) (any, error) {
		at, err := c.now()
		return sheet.WriteMeal(meal.Work(m, nil, at), nil, c.reader()), err
	}),
	"told": with(func(c calc, r retelling.TellRequest) (any, error) {
		at, err := c.now()
		if err != nil {
			return nil, err
		}
		told, wrong := r.Read(at)
		return sheet.WriteTold(told, wrong, c.reader()), nil
	}),
	"label": with(func(c calc, r formula.Label) (any, error) {
		read, wrong := formula.ReadLabel(r)
		return sheet.WriteLabel(r, read, c.reader()), wrong.Err()
	}),
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
	parts cooking.Parts,
	write func(cooking.Piece, sheet.Reader) *T,
) func(calc, *json.Decoder) (any, error) {
	return with(func(c calc, r cooking.PieceRequest) (any, error) {
		p, err := r.Work(context.Background(), none, parts)
		if err != nil {
			return nil, err
		}
		return write(p, sheet.Reader{Units: c.Units, Spoons: c.Spoons}), nil
	})
}

func ofCook(
	compute func(context.Context, app.Inputs, sheet.Reader) (any, error),
) func(calc, *json.Decoder) (any, error) {
	return with(func(c calc, r cooking.CookRequest) (any, error) {
		now, err := c.now()
		if err != nil {
			return nil, err
		}
		return compute(context.Background(), app.Inputs{CookRequest: r, Now: now}, c.reader())
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
