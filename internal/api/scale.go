package api

import (
	"context"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/sse"

	"verjuice/internal/core/field"
	"verjuice/internal/core/formula"
	"verjuice/internal/core/quantity"
	"verjuice/internal/sheet"
)

// readEvery is how often a scale is read.
const readEvery = 200 * time.Millisecond

// ScaleAsked is what a scale is watched for.
type ScaleAsked struct {
	Measure
	Target  float64 `query:"target" minimum:"0" maximum:"1000000" doc:"g that are wanted"`
	Weighed float64 `query:"weighed" minimum:"0" maximum:"1000000" doc:"g that were weighed before"`
}

func (s *server) registerScale(a huma.API) {
	sse.Register(
		a,
		op(
			http.MethodGet,
			"/api/scale",
			"streamScale",
			"Stream what the scale of this program shows, as server-sent events: each program has one of its own", endless),
		map[string]any{"reading": sheet.OnScale{}},
		func(ctx context.Context, in *ScaleAsked, send sse.Sender) {
			tick := time.NewTicker(readEvery)
			defer tick.Stop()
			for {
				r := s.Scale.Read(time.Now())
				out := sheet.WriteOnScale(r.Grams, in.Weighed, in.Target, r.Stable, r.Overload, in.Units)
				if err := send.Data(out); err != nil {
					return
				}
				select {
				case <-ctx.Done():
					return
				case <-s.Stopping:
					return
				case <-tick.C:
				}
			}
		},
	)
	huma.Register(a, op(http.MethodPost, "/api/scale/tare", "tareScale", "Tare the scale"),
		func(context.Context, *struct{}) (*struct{}, error) {
			s.Scale.Tare()
			return nil, nil
		})
	huma.Register(
		a,
		op(http.MethodPost, "/api/scale/put", "putOnScale", "Put something on the simulated scale, or take it off"),
		func(_ context.Context, in *struct {
			Body struct {
				Grams float64 `json:"grams" minimum:"-10000" maximum:"10000"`
			}
		}) (*struct{}, error) {
			s.Scale.Put(in.Body.Grams)
			return nil, nil
		},
	)
	huma.Register(a, op(http.MethodPost, "/api/scale/clear", "clearScale", "Clear the simulated scale"),
		func(context.Context, *struct{}) (*struct{}, error) {
			s.Scale.Clear()
			return nil, nil
		})
	s.registerWeighing(a)
}

// registerWeighing serves what is told of a weigh-out.
func (s *server) registerWeighing(a huma.API) {
	huma.Register(
		a,
		op(http.MethodPost, "/api/calc/weighing", "calcWeighing", "Check how far a weigh-out is, and what to do next", patiently),
		func(_ context.Context, in *struct {
			Measure
			Body WeighingRequest
		}) (*body[sheet.WeighOut], error) {
			if err := formula.CheckWeights(in.Body.Targets, in.Body.Weighed).Err(); err != nil {
				return nil, problemOf(err)
			}
			r := in.Body
			stand := formula.Weighing(r.Targets, r.Weighed, r.Rescale)
			weighed := r.Weighed
			if r.Put != 0 || r.Level {
				weighed = formula.Put(r.Targets, r.Weighed, stand.Next, r.Put)
			}
			if r.Level && stand.Next < len(stand.Steps) {
				weighed[stand.Next] = formula.Kept(stand.Steps[stand.Next].Target)
			}
			stand = formula.Weighing(r.Targets, weighed, r.Rescale)
			return answer(sheet.WriteWeighing(stand, weighed, in.Units)), nil
		},
	)
	huma.Register(
		a,
		op(http.MethodPost, "/api/calc/weight", "calcWeight", "Read a weight as it is typed: a bare number is grams", patiently),
		func(_ context.Context, in *struct {
			Measure
			Body WeightTyped
		}) (*body[WeightRead], error) {
			g, err := quantity.ParseWeighed(in.Body.Typed)
			if err != nil {
				var errs field.Errors
				errs.Take("/typed", err)
				return nil, problemOf(errs.Err())
			}
			return answer(WeightRead{g.Grams()}), nil
		},
	)
}

// WeightTyped is a weight as it is typed.
type WeightTyped struct {
	Typed string `json:"typed" maxLength:"80" example:"4 oz"`
}

// WeightRead is what a typed weight is.
type WeightRead struct {
	Grams float64 `json:"grams"`
}

// WeighingRequest is a weigh-out so far.
type WeighingRequest struct {
	Targets []float64 `json:"targets" nullable:"false" maxItems:"40" doc:"g of each ingredient"`
	Weighed []float64 `json:"weighed" nullable:"false" maxItems:"40" doc:"g weighed of each so far"`
	Rescale bool      `json:"rescale" doc:"Make the batch so much bigger that nothing is over"`
	Put     float64   `json:"put,omitempty" required:"false" minimum:"-10000" maximum:"10000" doc:"g that are put to what is next"`
	Level   bool      `json:"level,omitempty" required:"false" doc:"What is over of what is next was taken out: it is at its target"`
}
