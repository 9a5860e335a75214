import { api, etag, need } from "../api/client";
import type { components } from "../api/schema";
import type { Saved } from "../record/store";
import type { Kind } from "../record/use-record";
import { hereZone } from "../shared/clock";

export type Meal = components["schemas"]["Meal"];
export type MealItem = Meal["items"][number];
export type MealSheet = components["schemas"]["MealSheet"];

const saved = (r: components["schemas"]["DocRecordMeal"]): Saved<Meal> => ({
	id: r.id,
	version: r.version,
	doc: r.doc,
});

/** How a later meal begins, is read and is saved; a new one may be from a piece of a cook-out. */
export const mealKind = (from: { cook: string; piece: string }, units: "metric" | "us"): Kind<Meal> => ({
	name: "meal",
	begins: (id) => id === "new",
	fresh: async () =>
		need(await api.GET("/api/new/meal", { params: { query: { ...from, units, zone: hereZone() } } })),
	load: async (id) => saved(need(await api.GET("/api/meals/{id}", { params: { path: { id } } }))),
	save: async (body, over, beyond = false) =>
		saved(
			need(
				"id" in over
					? await api.PUT("/api/meals/{id}", {
							params: { path: { id: over.id }, header: { "If-Match": etag(over.version) } },
							body,
							keepalive: beyond,
						})
					: await api.POST("/api/meals", {
							params: { header: { "Idempotency-Key": over.key } },
							body,
							keepalive: beyond,
						}),
			),
		),
});
