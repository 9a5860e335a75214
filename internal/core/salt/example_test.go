package salt_test

import (
	"fmt"
	"time"

	"verjuice/internal/core/cut"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/salt"
)

// A shoulder of 3.6 kg with 30 g of salt from its rub and 8 g from an injection.
func ExampleTally() {
	shoulder := salt.Piece{Green: 3.6, BoneShare: 0.13, Yield: quantity.Between(0.57, 0.67)}
	ledger, err := salt.Tally(shoulder, []salt.Source{
		{ID: "rub", Salt: 0.030, Stays: quantity.Between(0.75, 0.95), Place: salt.Surface},
		{ID: "inject", Salt: 0.008, Stays: quantity.Between(0.75, 0.95), Place: salt.Pockets},
	})
	if err != nil {
		panic(err)
	}
	fmt.Printf(
		"%.2f %% (%.2f–%.2f %%) of the raw meat\n",
		ledger.PercentRaw.Mid,
		ledger.PercentRaw.Low,
		ledger.PercentRaw.High,
	)
	fmt.Printf("%s\n", salt.BandOf(ledger.PercentRaw.Mid).Name)
	// Output:
	// 1.03 % (0.93–1.13 %) of the raw meat
	// seasoned
}

// How deep the salt of a coat is after a night in the fridge.
func ExampleDryBrine() {
	loin, _ := cut.Find("pork-loin")
	geometry, err := cut.New(loin, 2, 0)
	if err != nil {
		panic(err)
	}
	course := salt.DryBrine(salt.Brine{Load: 0.15, Path: geometry.Path(false), Temperature: 4, Wait: 12 * time.Hour})
	fmt.Printf("%.0f mm deep after %.0f h\n", course.End.Depth.MM(), course.End.At.Hours())
	fmt.Printf("drawn in after %.0f min\n", course.TakenUp.Minutes())
	// Output:
	// 10 mm deep after 12 h
	// drawn in after 29 min
}

// Legs in a cold bath of 6 % salt.
func ExampleBath_Course() {
	leg, _ := cut.Find("chicken-leg")
	geometry, err := cut.New(leg, 0.3, 0)
	if err != nil {
		panic(err)
	}
	bath := salt.Bath{Water: 0.47, Salt: 0.03, Meat: 0.22, Path: geometry.Path(false), Temperature: 4}
	for _, m := range bath.Course(2*time.Hour, 8*time.Hour) {
		fmt.Printf("%.1f %% after %.0f h\n", 100*m.Mean, m.At.Hours())
	}
	fmt.Printf("%.1f %% in the end\n", 100*bath.AtInfinity())
	// Output:
	// 0.8 % after 2 h
	// 1.4 % after 8 h
	// 3.5 % in the end
}
