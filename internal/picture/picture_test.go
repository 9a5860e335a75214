package picture

import (
	"bytes"
	"context"
	"image"
	"image/color"
	"image/gif"
	"image/jpeg"
	"image/png"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// quarters is a picture whose corners are red, green, blue and white, clockwise from the upper
// left.
func quarters(w, h int) image.Image {
	out := image.NewRGBA(image.Rect(0, 0, w, h))
	for y := range h {
		for x := range w {
			c := color.RGBA{255, 0, 0, 255}
			switch {
			case x >= w/2 && y < h/2:
				c = color.RGBA{0, 255, 0, 255}
			case x >= w/2:
				c = color.RGBA{0, 0, 255, 255}
			case y >= h/2:
				c = color.RGBA{255, 255, 255, 255}
			}
			out.SetRGBA(x, y, c)
		}
	}
	return out
}

// corner is the colour near a corner: r, g, b or w.
func corner(img image.Image, right, low bool) string {
	b := img.Bounds()
	x, y := b.Dx()/8, b.Dy()/8
	if right {
		x = b.Dx() - x
	}
	if low {
		y = b.Dy() - y
	}
	r, g, bl, _ := img.At(x, y).RGBA()
	switch {
	case r > 0xc000 && g > 0xc000 && bl > 0xc000:
		return "w"
	case r > 0xc000:
		return "r"
	case g > 0xc000:
		return "g"
	}
	return "b"
}

func corners(img image.Image) string {
	return corner(img, false, false) + corner(img, true, false) + corner(img, true, true) + corner(img, false, true)
}

// Each orientation that a camera writes is turned as it is meant to be seen, and the shape of
// the picture with it.
func TestPicturesAreTurnedUpright(t *testing.T) {
	stored := quarters(400, 200)
	for orientation, want := range map[int]string{1: "rgbw", 2: "grwb", 3: "bwrg", 4: "wbgr", 5: "rwbg", 6: "wrgb",
		7: "bgrw", 8: "gbwr"} {
		got := upright(stored, orientation)
		assert.Equal(t, want, corners(got), "orientation %d", orientation)
		wide := got.Bounds().Dx() > got.Bounds().Dy()
		assert.Equal(t, orientation < 5, wide, "orientation %d", orientation)
	}
}

// A picture of any size and kind keeps its proportions, is at most so large, and is never made
// larger; what is see-through lies on white.
func TestPicturesAreMadeSmall(t *testing.T) {
	for _, size := range [][2]int{{1, 1}, {3, 2000}, {1600, 1600}, {1601, 5}, {3199, 3201}, {6400, 3000}, {123, 77}} {
		var file bytes.Buffer
		require.NoError(t, png.Encode(&file, quarters(size[0], size[1])))
		p, err := PlainIn(context.Background(), file.Bytes())
		require.NoError(t, err)
		assert.LessOrEqual(t, max(p.Width, p.Height), longSide)
		assert.LessOrEqual(t, p.Width, size[0])
		assert.LessOrEqual(t, p.Height, size[1])
		scale := min(1, longSide/float64(max(size[0], size[1])))
		assert.InDelta(t, float64(size[0])*scale, float64(p.Width), 1)
		assert.InDelta(t, float64(size[1])*scale, float64(p.Height), 1)
		made, err := jpeg.Decode(bytes.NewReader(p.JPEG))
		require.NoError(t, err)
		assert.Equal(t, image.Pt(p.Width, p.Height), made.Bounds().Size())
		if min(size[0], size[1]) > 50 {
			assert.Equal(t, "rgbw", corners(made), "%v", size)
		}
	}
	var clear bytes.Buffer
	require.NoError(t, png.Encode(&clear, image.NewNRGBA(image.Rect(0, 0, 100, 100))))
	p, err := Plain(clear.Bytes())
	require.NoError(t, err)
	made, err := jpeg.Decode(bytes.NewReader(p.JPEG))
	require.NoError(t, err)
	assert.Equal(t, "wwww", corners(made), "what is see-through lies on white")
	var moving bytes.Buffer
	require.NoError(t, gif.Encode(&moving, quarters(80, 80), nil))
	_, err = Plain(moving.Bytes())
	assert.NoError(t, err)
}

// A file that is no picture, or too much of one, is refused in words before it is read; who has
// left is not waited for.
func TestFilesThatAreNone(t *testing.T) {
	for _, file := range [][]byte{nil, []byte("GIF"), bytes.Repeat([]byte{0xff}, 4000), []byte("<svg onload=alert(1)>")} {
		_, err := Plain(file)
		assert.ErrorIs(t, err, ErrUnreadable)
	}
	_, err := Plain(make([]byte, MaxBytes+1))
	assert.ErrorContains(t, err, "larger than 15 MB")
	ctx, cancel := context.WithCancel(context.Background())
	require.NoError(t, atOnce.Acquire(ctx, 2))
	cancel()
	_, err = PlainIn(ctx, []byte("GIF"))
	assert.ErrorIs(t, err, context.Canceled)
	atOnce.Release(2)
}

// Whatever a file says it is, it is read or refused, and what is read is small and plain.
func FuzzPlain(f *testing.F) {
	var a, b, c bytes.Buffer
	_ = png.Encode(&a, quarters(20, 10))
	_ = jpeg.Encode(&b, quarters(20, 10), nil)
	_ = gif.Encode(&c, quarters(20, 10), nil)
	for _, file := range [][]byte{a.Bytes(), b.Bytes(), c.Bytes(), []byte("\x89PNG\r\n\x1a\n"), {0xff, 0xd8, 0xff, 0xe1}} {
		f.Add(file)
	}
	f.Fuzz(func(t *testing.T, file []byte) {
		if head, _, err := image.DecodeConfig(bytes.NewReader(file)); err == nil && head.Width*head.Height > 4e6 {
			return // refused, or slow to make
		}
		p, err := Plain(file)
		if err == nil && (p.Width < 1 || p.Height < 1 || max(p.Width, p.Height) > longSide) {
			t.Errorf("%d × %d", p.Width, p.Height)
		}
	})
}
