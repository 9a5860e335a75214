package picture

import (
	"bytes"
	"image"
	"image/color"
	"image/jpeg"
	"image/png"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// sideways is a JPEG with a red left half, told by its EXIF to stand upright when
// turned, and with a place written into it.
func sideways(t *testing.T) []byte { return turned(t, 6, 2000) }

// turned is the same with another orientation.
func turned(t *testing.T, orientation byte, wide int) []byte {
	img := image.NewRGBA(image.Rect(0, 0, wide, wide/2))
	for x := range wide {
		for y := range wide / 2 {
			img.Set(x, y, map[bool]color.Color{true: color.RGBA{200, 0, 0, 255}, false: color.RGBA{0, 0, 200, 255}}[x < wide/2])
		}
	}
	var raw bytes.Buffer
	require.NoError(t, jpeg.Encode(&raw, img, nil))
	// EXIF: one entry, orientation (0x0112) = 6: turn a quarter to the right.
	exif := append([]byte("Exif\x00\x00MM\x00\x2a\x00\x00\x00\x08\x00\x01\x01\x12\x00\x03\x00\x00\x00\x01\x00"), orientation, 0, 0, 0, 0, 0, 0)
	exif = append(exif, []byte("SECRET PLACE")...)
	out := append([]byte{0xff, 0xd8, 0xff, 0xe1, byte((len(exif) + 2) >> 8), byte(len(exif) + 2)}, exif...)
	return append(out, raw.Bytes()[2:]...)
}

func TestOnlyThePictureIsLeft(t *testing.T) {
	p, err := Plain(sideways(t))
	require.NoError(t, err)
	assert.Equal(t, []int{800, 1600}, []int{p.Width, p.Height}, "upright, and small")
	assert.NotContains(t, string(p.JPEG), "SECRET")
	assert.NotContains(t, string(p.JPEG), "Exif")
	img, err := jpeg.Decode(bytes.NewReader(p.JPEG))
	require.NoError(t, err)
	r, _, b, _ := img.At(400, 100).RGBA()
	assert.Greater(t, r, b, "what was left is now on top")
}

// The eight ways in which a camera may have been held.
func TestEveryOrientation(t *testing.T) {
	for orientation, red := range map[byte][2]float64{1: {0.1, 0.5}, 2: {0.9, 0.5}, 3: {0.9, 0.5}, 4: {0.1, 0.5}, 5: {0.5, 0.1}, 6: {0.5, 0.1}, 7: {0.5, 0.9}, 8: {0.5, 0.9}} {
		p, err := Plain(turned(t, orientation, 200))
		require.NoError(t, err)
		assert.Equal(t, orientation >= 5, p.Height > p.Width, orientation)
		img, err := jpeg.Decode(bytes.NewReader(p.JPEG))
		require.NoError(t, err)
		r, _, b, _ := img.At(int(red[0]*float64(p.Width)), int(red[1]*float64(p.Height))).RGBA()
		assert.Greater(t, r, b, orientation)
		r, _, b, _ = img.At(int((1-red[0])*float64(p.Width)), int((1-red[1])*float64(p.Height))).RGBA()
		assert.Less(t, r, b, orientation)
	}
}

func TestBadPictures(t *testing.T) {
	var huge bytes.Buffer
	require.NoError(t, png.Encode(&huge, image.NewGray(image.Rect(0, 0, 9000, 7000))))
	for name, file := range map[string][]byte{
		"nothing": nil, "text": []byte("<svg onload=alert(1)>"), "half": sideways(t)[:2000], "too large": make([]byte, MaxBytes+1), "a bomb": huge.Bytes(),
	} {
		_, err := Plain(file)
		assert.Error(t, err, name)
	}
}
