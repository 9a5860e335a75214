package quantity

// Numeric is anything that a Range can be of.
type Numeric interface{ ~float64 | ~int64 }

// Range is a value with its likely range: about one in ten lies below Low and one
// in ten above High. It is the only type for spreads; between steps of
// a computation it is not passed on where the steps are not independent.
type Range[T Numeric] struct {
	Low  T `json:"low"`
	Mid  T `json:"mid"`
	High T `json:"high"`
}

// Exactly is a Range without a spread.
func Exactly[T Numeric](v T) Range[T] { return Range[T]{v, v, v} }

// Within is v give or take share of it.
func Within[T ~float64](v, share T) Range[T] { return Range[T]{v * (1 - share), v, v * (1 + share)} }

// Between is the range from low to high, with its middle.
func Between[T ~float64](low, high T) Range[T] { return Range[T]{low, (low + high) / 2, high} }

// Times is r with all of it multiplied by f.
func Times[T ~float64](r Range[T], f T) Range[T] { return Range[T]{r.Low * f, r.Mid * f, r.High * f} }

// Floats is r in plain numbers, its lower end first.
func Floats[T ~float64](r Range[T]) Range[float64] {
	low, high := float64(r.Low), float64(r.High)
	return Range[float64]{Low: min(low, high), Mid: float64(r.Mid), High: max(low, high)}
}
