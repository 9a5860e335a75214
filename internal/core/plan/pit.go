package plan

import "verjuice/internal/core/gear"

// UnknownPit is the pit of a cook who has named none: it burns as the usual one, and how much it holds is not
// known.
func UnknownPit() Pit {
	kind, _ := gear.UsualPit("")
	kind.RoomDM2 = 0
	return Pit{Pit: kind}
}
