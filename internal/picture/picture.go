// Package picture makes photographs small and plain: turned upright, at most 1600
// pixels on the longer side, encoded anew as JPEG, so that nothing but the picture
// is left of the file (no place, no device, no date).
package picture

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"image"
	_ "image/gif" // formats that are read
	"image/jpeg"
	_ "image/png"

	"github.com/bep/imagemeta"
	"golang.org/x/image/draw"
	"golang.org/x/image/math/f64"
	"golang.org/x/sync/semaphore"
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

// atOnce bounds how many photographs are in memory at a time: one of 60 megapixels takes a
// quarter of a gigabyte.
var atOnce = semaphore.NewWeighted(2)

// PlainIn is Plain once fewer than two others are being made, or the error of ctx.
func PlainIn(ctx context.Context, file []byte) (Picture, error) {
	if err := atOnce.Acquire(ctx, 1); err != nil {
		return Picture{}, err
	}
	defer atOnce.Release(1)
	return Plain(file)
}

// Plain makes a photograph small and plain. The error says in words why it cannot.
func Plain(file []byte) (Picture, error) {
	if len(file) > MaxBytes {
		return Picture{}, fmt.Errorf("the photograph is larger than %d MB", MaxBytes>>20)
	}
	head, format, err := image.DecodeConfig(bytes.NewReader(file))
	if err != nil {
		return Picture{}, ErrUnreadable
	}
	// A small file may claim to be a picture that fills the memory.
	if float64(head.Width)*float64(head.Height) > maxPixels {
		return Picture{}, fmt.Errorf("the photograph has %d × %d pixels, more than can be handled", head.Width, head.Height)
	}
	img, _, err := image.Decode(bytes.NewReader(file))
	if err != nil {
		return Picture{}, ErrUnreadable
	}
	plain := upright(img, orientation(file, format))
	var out bytes.Buffer
	if err := jpeg.Encode(&out, plain, &jpeg.Options{Quality: quality}); err != nil {
		return Picture{}, err
	}
	return Picture{JPEG: out.Bytes(), Width: plain.Bounds().Dx(), Height: plain.Bounds().Dy()}, nil
}

// IsPlain reports whether a file is a picture as Plain makes them, and how large it is, in pixels.
func IsPlain(file []byte) (width, height int, ok bool) {
	head, format, err := image.DecodeConfig(bytes.NewReader(file))
	if err != nil || format != "jpeg" || len(file) > MaxBytes {
		return 0, 0, false
	}
	return head.Width, head.Height, head.Width > 0 && head.Height > 0 && max(head.Width, head.Height) <= longSide
}

// orientation is how a file says that its picture is to be turned, 1 to 8 as EXIF
// numbers them; 1 when it does not say.
func orientation(file []byte, format string) int {
	out := 1
	if format != "jpeg" {
		return out
	}
	// What cannot be read of it says nothing.
	_, _ = imagemeta.Decode(imagemeta.Options{
		R: bytes.NewReader(file), ImageFormat: imagemeta.JPEG, Sources: imagemeta.EXIF,
		HandleTag: func(t imagemeta.TagInfo) error {
			if n, ok := t.Value.(uint16); ok && t.Tag == "Orientation" && n >= 1 && n <= 8 {
				out = int(n)
			}
			return nil
		},
	})
	return out
}

// turns say where the points (x, y) of a picture of width 1 and height 1 go when it is
// turned, by its orientation: x' = a·x + b·y + c, y' = d·x + e·y + f. EXIF 2.32, 4.6.4.
var turns = [9][6]float64{
	1: {1, 0, 0, 0, 1, 0}, 2: {-1, 0, 1, 0, 1, 0}, 3: {-1, 0, 1, 0, -1, 1}, 4: {1, 0, 0, 0, -1, 1},
	5: {0, 1, 0, 1, 0, 0}, 6: {0, -1, 1, 1, 0, 0}, 7: {0, -1, 1, -1, 0, 1}, 8: {0, 1, 0, -1, 0, 1},
}

// upright is a picture turned as it is meant to be seen, on white, its longer side at
// most longSide. It is halved until it is near its size, each point the mean of four: a
// filter over all of it at once takes hundreds of megabytes.
func upright(img image.Image, orientation int) image.Image {
	b := img.Bounds()
	scale := min(1, longSide/float64(max(b.Dx(), b.Dy())))
	w, h := max(1, int(float64(b.Dx())*scale+0.5)), max(1, int(float64(b.Dy())*scale+0.5))
	for b.Dx() >= 2*w && b.Dy() >= 2*h {
		img = sized(img, b.Dx()/2, b.Dy()/2)
		b = img.Bounds()
	}
	small := sized(img, w, h)
	if orientation == 1 {
		return small
	}
	out := image.NewRGBA(image.Rect(0, 0, w, h))
	if orientation >= 5 {
		out = image.NewRGBA(image.Rect(0, 0, h, w))
	}
	t := turns[orientation]
	ow, oh := float64(out.Bounds().Dx()), float64(out.Bounds().Dy())
	// Of the same size, so that each point goes to one point.
	draw.NearestNeighbor.Transform(
		out,
		f64.Aff3{t[0], t[1], t[2] * ow, t[3], t[4], t[5] * oh},
		small,
		small.Bounds(),
		draw.Src,
		nil,
	)
	return out
}

// sized is a picture in another size, on white.
func sized(img image.Image, w, h int) *image.RGBA {
	out := image.NewRGBA(image.Rect(0, 0, w, h))
	draw.Draw(out, out.Bounds(), image.White, image.Point{}, draw.Src)
	draw.ApproxBiLinear.Scale(out, out.Bounds(), img, img.Bounds(), draw.Over, nil)
	return out
}
