package plan

import "time"

// PitKind is a kind of pit: what it asks of the cook.
type PitKind struct {
	ID      string        `json:"id"`
	Name    string        `json:"name"`
	Preheat time.Duration `json:"-"` // from lighting to settled
	Alone   time.Duration `json:"-"` // that it runs unattended
	Holds   bool          `json:"holds" doc:"It can be left to keep meat warm by itself"`
	RoomDM2 float64       `json:"room_dm2" doc:"Usual grate, dm²"`
}

// Pits are the kinds of pit. Figures are field experience in round numbers.
var Pits = []PitKind{
	{"pellet", "pellet cabinet", 20 * time.Minute, 10 * time.Hour, true, 42},
	{"cabinet", "charcoal cabinet", 50 * time.Minute, 8 * time.Hour, true, 60},
	{"kettle", "kettle with a fuse", 35 * time.Minute, 6 * time.Hour, false, 20},
	{"drum", "drum", 40 * time.Minute, 6 * time.Hour, false, 26},
	{"ceramic", "ceramic cooker", 45 * time.Minute, 14 * time.Hour, true, 16},
	{"offset", "offset", 60 * time.Minute, 45 * time.Minute, false, 50},
	{"gas", "gas or electric cabinet", 20 * time.Minute, 24 * time.Hour, true, 34},
	{"oven", "kitchen oven", 15 * time.Minute, 24 * time.Hour, true, 18},
}

// FindPit returns the kind of that id.
func FindPit(id string) (PitKind, bool) {
	for _, p := range Pits {
		if p.ID == id {
			return p, true
		}
	}
	return PitKind{}, false
}

// UnknownPit is the pit of a cook who has named none: it burns like a cabinet, and
// how much it holds is not known.
func UnknownPit() Pit {
	kind, _ := FindPit("cabinet")
	kind.RoomDM2 = 0
	return Pit{PitKind: kind}
}

// before is what is seen to before a pit is lit, by its kind.
var before = map[string][]string{
	"pellet":  {"ash", "pellets", "tray", "grate", "probes", "shelter"},
	"cabinet": {"ash", "charcoal", "tray", "water", "grate", "probes", "shelter"},
	"kettle":  {"ash", "charcoal", "tray", "grate", "probes", "shelter"},
	"drum":    {"ash", "charcoal", "grate", "probes", "shelter"},
	"ceramic": {"ash", "charcoal", "grate", "probes"},
	"offset":  {"ash", "wood", "water", "grate", "probes", "shelter"},
	"gas":     {"gas", "tray", "water", "grate", "probes", "shelter"},
	"oven":    {"tray", "probes"},
}

// Before is what is seen to before a pit of that kind is lit, by id.
func Before(kind string) []string { return before[kind] }
