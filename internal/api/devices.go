package api

import (
	"context"
	"net/http"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"verjuice/internal/core/facts"
	"verjuice/internal/core/field"
	"verjuice/internal/store"
)

// DeviceNamed is what a device is called.
type DeviceNamed struct {
	Name string `json:"name" maxLength:"60" doc:"What measures" example:"kitchen probe"`
}

// DeviceLine is something that measures at a cook.
type DeviceLine struct {
	ID      string `json:"id"`
	Name    string `json:"name"`
	Created string `json:"created" doc:"RFC 3339"`
	Key     string `json:"key,omitempty" doc:"Told once, when it is made: sent as Authorization: Bearer KEY"`
}

func deviceLine(d store.Device, key string) DeviceLine {
	return DeviceLine{d.ID, d.Name, d.CreatedAt.Format(time.RFC3339), key}
}

// Keyed is a hand-in that may come with the key of a device.
type Keyed struct {
	Authorization string `header:"Authorization" maxLength:"200" doc:"Bearer and the key of a device of this cook; what a page hands in needs none"`
}

// device is the name of the device that hands something in; given is what it calls itself without
// a key.
func (s *server) device(ctx context.Context, cook string, k Keyed, given string) (string, error) {
	if k.Authorization == "" {
		return given, nil
	}
	scheme, key, _ := strings.Cut(strings.TrimSpace(k.Authorization), " ")
	if !strings.EqualFold(scheme, "Bearer") { // RFC 7235: in any case
		return "", problemOf(store.ErrKey)
	}
	d, err := s.Store.DeviceOf(ctx, cook, strings.TrimSpace(key))
	return d.Name, problemOf(err)
}

func (s *server) registerDevices(a huma.API) {
	begin := op(
		http.MethodPost,
		"/api/cooks/{id}/devices",
		"createCookDevice",
		"Give a cook something that measures, with a key of its own", making)
	huma.Register(a, begin, func(ctx context.Context, in *struct {
		ByID
		Body DeviceNamed
	}) (*body[DeviceLine], error) {
		name := strings.TrimSpace(in.Body.Name)
		var errs field.Errors
		if name == "" {
			errs.Add("/name", "device.unnamed")
		}
		errs.Text("/name", name, store.MostDeviceName)
		if err := errs.Err(); err != nil {
			return nil, problemOf(err)
		}
		d, key, err := s.Store.AddDevice(ctx, in.ID, name)
		if err != nil {
			return nil, problemOf(err)
		}
		return answer(deviceLine(d, key)), nil
	})
	huma.Register(a, op(http.MethodGet, "/api/cooks/{id}/devices", "listCookDevices", "List what measures at a cook"),
		func(ctx context.Context, in *ByID) (*body[ListPage[DeviceLine]], error) {
			if _, err := s.Store.Cooks().Get(ctx, in.ID); err != nil {
				return nil, problemOf(err)
			}
			all, err := s.Store.Devices(ctx, in.ID)
			if err != nil {
				return nil, problemOf(err)
			}
			out := make([]DeviceLine, len(all))
			for i, d := range all {
				out[i] = deviceLine(d, "")
			}
			return onePage(out), nil
		})
	gone := op(
		http.MethodDelete,
		"/api/cooks/{id}/devices/{device}",
		"deleteCookDevice",
		"Take a device away from a cook: its key is worth nothing any more",
	)
	huma.Register(a, gone, func(ctx context.Context, in *struct {
		ByID
		Device string `path:"device" maxLength:"60"`
	}) (*struct{}, error) {
		return nil, problemOf(s.Store.RemoveDevice(ctx, in.ID, in.Device))
	})
}

// handedBy is a hand-in with the name of the device whose key came with it.
func (s *server) handedBy(ctx context.Context, cook string, k Keyed, h facts.HandIn) (*body[HandedIn], error) {
	name, err := s.device(ctx, cook, k, h.Device)
	if err != nil {
		return nil, err
	}
	h.Device = name
	return s.handIn(ctx, cook, h)
}
