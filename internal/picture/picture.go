// Package picture makes photographs small and plain: turned upright, at most 1600
// pixels on the longer side, encoded anew as JPEG, so that nothing but the picture
// is left of the file (no place, no device, no date).
package picture

import (
	"bytes"
	"errors"
	"fmt"
	"image"
	_ "image/gif" // formats that are read
	_ "image/png"

	"github.com/disintegration/imaging"
)

// Limits on what is read.
const (
	MaxBytes  = 15 << 20
	maxPixels = 60e6
	longSide  = 1600
	quality   = 82
)

// Picture is a photograph made plain.
type Picture struct {
	JPEG          []byte
	Width, Height int
}

// ErrUnreadable is a file that is not a photograph we can read.
var ErrUnreadable = errors.New("this is not a photograph that can be read here: JPEG, PNG or GIF")

// Plain makes a photograph small and plain. The error says in words why it cannot.
func Plain(file []byte) (Picture, error) {
	if len(file) > MaxBytes {
		return Picture{}, fmt.Errorf("the photograph is larger than %d MB", MaxBytes>>20)
	}
	head, _, err := image.DecodeConfig(bytes.NewReader(file))
	if err != nil {
		return Picture{}, ErrUnreadable
	}
	// A small file may claim to be a picture that fills the memory.
	if float64(head.Width)*float64(head.Height) > maxPixels {
		return Picture{}, fmt.Errorf("the photograph has %d × %d pixels, more than can be handled", head.Width, head.Height)
	}
	img, err := imaging.Decode(bytes.NewReader(file), imaging.AutoOrientation(true))
	if err != nil {
		return Picture{}, ErrUnreadable
	}
	if b := img.Bounds(); b.Dx() > longSide || b.Dy() > longSide {
		img = imaging.Fit(img, longSide, longSide, imaging.Lanczos)
	}
	var out bytes.Buffer
	if err := imaging.Encode(&out, img, imaging.JPEG, imaging.JPEGQuality(quality)); err != nil {
		return Picture{}, err
	}
	return Picture{JPEG: out.Bytes(), Width: img.Bounds().Dx(), Height: img.Bounds().Dy()}, nil
}
