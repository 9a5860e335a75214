package sheet

import (
	"verjuice/internal/core/field"
	"verjuice/internal/core/quantity"
)

// Request asks for one part of the sheet for one piece, without a cook.
type Request struct {
	Piece   Piece             `json:"piece"`
	Portion string            `json:"portion" required:"false" doc:"Cooked meat for one; empty means 180 g"`
	Fridge  string            `json:"fridge" required:"false" doc:"Temperature of the fridge; empty means 4 °C"`
	Units   quantity.System   `json:"units" required:"false" doc:"metric or us; empty means metric"`
	Spoons  quantity.SpoonSet `json:"spoons" required:"false" doc:"us or metric spoons; empty means us"`
}

// Scale weighs out the rub for a piece: grams and spoons of every ingredient,
// from a coat or from the salt wanted. The error is a field.Errors.
func Scale(r Request) (*SeasonSheet, error) {
	return part(r, func(p *piece, d dose) *SeasonSheet { return p.seasonSheet(d) })
}

// Ledger adds up the salt of a piece. The error is a field.Errors.
func Ledger(r Request) (*LedgerSheet, error) {
	return part(r, func(p *piece, d dose) *LedgerSheet { return p.ledgerSheet(d, p.course(d)) })
}

// DryBrine follows the salt of a piece's coat into the meat. The error is a
// field.Errors.
func DryBrine(r Request) (*DepthSheet, error) {
	return part(r, func(p *piece, d dose) *DepthSheet { return p.depthSheet(d, p.course(d)) })
}

// WetBrine works out a piece's bath. The error is a field.Errors.
func WetBrine(r Request) (*BathSheet, error) {
	if r.Piece.Bath == nil {
		return nil, field.Errors{{Pointer: "/piece/bath", Detail: "say what bath it goes into"}}
	}
	return part(r, func(p *piece, _ dose) *BathSheet { return p.bathSheet() })
}

// Inject works out a piece's injection. The error is a field.Errors.
func Inject(r Request) (*InjectionSheet, error) {
	if r.Piece.Inject == nil {
		return nil, field.Errors{{Pointer: "/piece/inject", Detail: "say what is injected"}}
	}
	return part(r, func(p *piece, _ dose) *InjectionSheet { return p.injectionSheet() })
}

func part[T any](r Request, compute func(*piece, dose) *T) (*T, error) {
	var errs field.Errors
	k := readKitchen(Cook{Portion: r.Portion, Fridge: r.Fridge}, Options{Units: r.Units, Spoons: r.Spoons}, &errs)
	p, ok := readPiece(r.Piece, k, "/piece", &errs)
	if !ok || len(errs) > 0 {
		return nil, errs.Err()
	}
	err := p.solveFree()
	var d dose
	if err == nil {
		d, err = p.dose()
	}
	if err != nil {
		return nil, field.Errors{{Pointer: "/piece/season", Detail: err.Error()}}
	}
	return compute(&p, d), nil
}
