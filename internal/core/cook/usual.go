package cook

import (
	"verjuice/internal/core/dose"
	"verjuice/internal/core/formula"
	"verjuice/internal/core/salt"
)

// Usual values, shown where the cook has typed nothing.
const (
	UsualPortion    = "180 g"
	UsualFridge     = "4 °C"
	UsualRoom       = "21 °C"
	UsualTarget     = "0.9 %"
	UsualCoat       = "medium"
	UsualBand       = "seasoned"
	UsualSpare      = "10 %"
	UsualStyle      = "overnight"
	UsualStrength   = "6 %"
	UsualBathTarget = "0.7 %"
	UsualBathTime   = "18 h"
	UsualHot        = "95 °C"
	UsualPump       = "8 %"
	UsualSpacing    = "2.5 cm"
	UsualSyringe    = "60 mL"
	UsualBore       = "2 mm"
	UsualQuiet      = "23:00-06:00"
	UsualWoods      = "2 oak, 1 cherry"
)

// UsualWait is the wait of each style.
var UsualWait = map[string]string{"minutes": "30 min", "overnight": "10 h", "day": "24 h"}

// Styles are the styles of waiting, shortest first.
var Styles = []string{"minutes", "overnight", "day"}

// Appetites are the appetites, smallest first.
var Appetites = []string{"light", "usual", "hearty"}

// TrimStyles are the ways to trim, least first.
var TrimStyles = []string{"light", "usual", "close"}

// Usual is what empty fields mean, and what there is to choose from.
type Usual struct {
	Portion      string            `json:"portion"`
	Fridge       string            `json:"fridge"`
	Room         string            `json:"room"`
	Target       string            `json:"target"`
	Coat         string            `json:"coat"`
	Band         string            `json:"band"`
	Spare        string            `json:"spare"`
	Style        string            `json:"style" doc:"Of waiting between salt and fire"`
	Wait         map[string]string `json:"wait" doc:"By style of wait"`
	BathKind     string            `json:"bath_kind"`
	BathStrength string            `json:"bath_strength"`
	BathTarget   string            `json:"bath_target"`
	BathTime     string            `json:"bath_time"`
	BathHot      string            `json:"bath_hot"`
	Pump         string            `json:"pump"`
	Spacing      string            `json:"spacing"`
	Syringe      string            `json:"syringe"`
	Bore         string            `json:"bore"`
	Quiet        string            `json:"quiet"`
	Woods        string            `json:"woods" doc:"In parts, where that is chosen and not said"`
	Appetites    []string          `json:"appetites" nullable:"false"`
	TrimStyles   []string          `json:"trim_styles" nullable:"false"`
	Bands        []string          `json:"bands" nullable:"false" doc:"That a cook may choose"`
	Layers       []string          `json:"layers" nullable:"false" doc:"Kinds of layer, in the order they go on"`
	FormulaKinds []formula.Kind    `json:"formula_kinds" nullable:"false" doc:"Kinds of formula, in working order"`
	Avoid        []string          `json:"avoid" nullable:"false" doc:"Where a needle may be kept out"`
	Hands        int               `json:"hands" doc:"Pairs of hands that can be chosen, from 1"`
}

// UsualValues are the usual values of a page.
var UsualValues = Usual{
	Portion: UsualPortion, Fridge: UsualFridge, Room: UsualRoom, Target: UsualTarget, Coat: UsualCoat, Band: UsualBand,
	Spare: UsualSpare,
	Style: UsualStyle, Wait: UsualWait, BathKind: "equilibrium", BathStrength: UsualStrength,
	BathTarget: UsualBathTarget, BathTime: UsualBathTime,
	BathHot: UsualHot, Pump: UsualPump, Spacing: UsualSpacing, Syringe: UsualSyringe, Bore: UsualBore, Quiet: UsualQuiet,
	Woods:     UsualWoods,
	Appetites: Appetites, TrimStyles: TrimStyles, Bands: salt.BandNames, Layers: dose.Kinds, FormulaKinds: formula.Kinds,
	Avoid: dose.Avoidable, Hands: 4,
}
