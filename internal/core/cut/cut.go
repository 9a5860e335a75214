// Package cut knows the cuts of meat: their proportions, how much of them is
// bone, what trimming and cooking take away, and what "done" means for each.
//
// The data is embedded: cuts.csv has typical butchery figures with their spread,
// families.csv how each family of cuts is handled.
// From a cut, a weight and perhaps a measured thickness, New gives the Geometry
// that every later rule works with.
//
//	c, ok := cut.Find("pork-loin")
//	g, err := cut.New(c, 2, 0)   // of 2 kg
//	g.Thickness.MM()
package cut

import (
	"embed"
	"slices"
	"strings"

	"verjuice/internal/core/quantity"
	"verjuice/internal/core/table"
)

//go:embed cuts.csv families.csv places.csv
var data embed.FS

// Span is a share in percent with its likely range.
type Span = quantity.Range[float64]

// Cut is one cut of meat.
type Cut struct {
	ID      string `json:"id" example:"lamb-shoulder-bone-in"`
	Name    string `json:"name" example:"lamb shoulder, bone-in"`
	Species string `json:"species" enum:"beef,pork,lamb,poultry,game,ground"`
	Family  Family `json:"family" enum:"pink,collagen,rack,poultry,whole,ground"`
	Noun    string `json:"noun" doc:"What one of them is called" example:"shoulder"`

	Also     []string `json:"also" nullable:"false" doc:"Other names that cooks use for it"`
	Finishes []Finish `json:"finishes" nullable:"false" doc:"How it may be finished, the usual first"`
	Finish   Finish   `json:"finish" enum:"pink,sliced,pulled,bones,done,whole" doc:"How these figures finish it"`

	Length    float64 `json:"length" doc:"Proportion, with thickness 1"`
	Width     float64 `json:"width" doc:"Proportion, with thickness 1"`
	Thickness float64 `json:"thickness" doc:"Always 1"`
	Rounding  float64 `json:"rounding" doc:"Share of the enclosing block that the piece fills"`

	Block   float64 `json:"block" doc:"Thickness of the block over that of the thickest point"`
	Surface float64 `json:"surface" doc:"Real surface over that of the block: wings, legs and a cavity count"`

	NativeSalt  float64 `json:"native_salt" doc:"Salt that is in it already, % of the boneless meat; sausages have some"`
	FatPercent  float64 `json:"fat_percent" doc:"Of the raw boneless meat, % (public food-composition tables)"`
	BonePercent float64 `json:"bone_percent" doc:"Bone and other inedible share of the trimmed weight, %"`
	TrimLoss    Span    `json:"trim_loss" doc:"Lost by trimming, % of the weight as bought: light, usual, close"`
	CookYield   Span    `json:"cook_yield" doc:"Served meat, % of the raw boneless meat"`

	TypicalKG float64 `json:"typical_kg"`
	LowKG     float64 `json:"low_kg" doc:"Lighter than this is hardly that cut"`
	HighKG    float64 `json:"high_kg" doc:"Heavier than this is hardly that cut"`
	Sealed    string  `json:"sealed" doc:"Side that takes no salt: skin, bone, fat, or empty"`

	TenderH float64 `json:"tender_h" doc:"Hours at 95 °C in which its collagen softens: fitted to the usual end of each"`
	YieldC  float64 `json:"yield_c" doc:"Core temperature that the cook yield is for, °C"`
	PitC    float64 `json:"pit_c" doc:"Usual pit temperature, °C"`
	RestMin float64 `json:"rest_min" doc:"Usual rest, min"`
	whole   Span    // CookYield at YieldC
	Wrap    string  `json:"wrap" doc:"How it is usually wrapped: none, paper, foil, pan or boat"`
}

// Density is 1.05 kg/L for meat and 1.10 with bone.
func (c Cut) Density() float64 {
	if c.BonePercent > 0 {
		return 1100
	}
	return 1050
}

// BoneShare is the inedible share of the trimmed weight, 0 to 1.
func (c Cut) BoneShare() float64 { return c.BonePercent / 100 }

// Weak says that one face takes in less heat than the other: behind a cavity or the bones of
// a rack.
func (c Cut) Weak() bool { return c.Sealed == "bone" || c.Family == Rack || c.Hollow() }

// Covered says that skin or a cap of fat on one broad face keeps it from sweating.
func (c Cut) Covered() bool { return c.Sealed == "skin" || c.Sealed == "fat" }

// Hollow says that it is meat around a cavity.
func (c Cut) Hollow() bool { return c.Surface > 1.2 }

// TypicalThickness is the thickness of a piece of the typical weight.
func (c Cut) TypicalThickness() quantity.Length {
	g, err := New(c, quantity.Mass(c.TypicalKG), 0)
	if err != nil {
		panic("cut: " + c.ID + ": " + err.Error())
	}
	return g.Thickness
}

var (
	all  []Cut
	byID map[string]Cut
)

// All returns every cut, grouped by species.
func All() []Cut { return slices.Clone(all) }

// Species are the species of the cuts, in the order in which cuts are listed.
func Species() []string {
	out := []string{}
	for _, c := range all {
		if !slices.Contains(out, c.Species) {
			out = append(out, c.Species)
		}
	}
	return out
}

// Find returns the cut with that id.
func Find(id string) (Cut, bool) {
	c, ok := byID[id]
	return c, ok
}

func init() {
	byID = map[string]Cut{}
	for _, r := range table.Read(data, "cuts.csv") {
		yield, spread := r.Num("yield"), r.Num("yield_spread")
		c := Cut{
			ID:          r["id"],
			Name:        r["name"],
			Species:     r["species"],
			Family:      Family(r["family"]),
			Noun:        r["noun"],
			Length:      r.Num("length"),
			Width:       r.Num("width"),
			Thickness:   r.Num("thickness"),
			Rounding:    r.Num("rounding"),
			FatPercent:  r.Num("fat"),
			BonePercent: r.Num("bone"),
			TrimLoss:    Span{Low: r.Num("trim_low"), Mid: r.Num("trim"), High: r.Num("trim_high")},
			CookYield:   Span{Low: yield - spread, Mid: yield, High: yield + spread},
			TypicalKG:   r.Num("kg"),
			LowKG:       r.Num("kg_low"),
			HighKG:      r.Num("kg_high"),
			Sealed:      r["sealed"],
			Block:       r.Num("block"),
			Surface:     r.Num("surface"),
			NativeSalt:  r.Num("salt"),
			Also:        strings.Split(r["other_names"], ";"),
			PitC:        r.Num("pit_c"),
			RestMin:     r.Num("rest_min"),
			Wrap:        r["wrap"],
			TenderH:     r.Num("tender_h"),
		}
		for _, f := range strings.Split(r["finishes"], ";") {
			c.Finishes = append(c.Finishes, Finish(f))
		}
		c.Finish = c.Finishes[0]
		c.YieldC = c.DoneC()
		all = append(all, c)
		byID[c.ID] = c
	}
}
