import { ApiError, api, type Cook, type CookRecord, etag, need, type OpenedCook } from "../api/client";
import type { Prefs } from "../prefs";
import type { Saved } from "../record/store";
import type { Kind } from "../record/use-record";

const saved = (r: CookRecord): Saved<Cook> => ({ id: r.id, version: r.version, doc: r.doc });

/** How a cook begins, is read and is saved. What was read with it is told to opened. */
export function cookKind(prefs: Prefs, opened: (cook: OpenedCook) => void): Kind<Cook> {
	return {
		name: "cook",
		begins: (id) => id === "new",
		fresh: async () => {
			const zone = Intl.DateTimeFormat().resolvedOptions().timeZone;
			const query = { zone, units: prefs.units, spoons: prefs.spoons };
			return need(await api.GET("/api/new/cook", { params: { query } })) as Cook;
		},
		load: async (id) => {
			if (!/^[0-9a-f-]{1,36}$/.test(id)) throw new ApiError(404);
			const all = need(await api.GET("/api/cooks/{id}/opened", { params: { path: { id } } })) as OpenedCook;
			opened(all);
			return saved(all.record);
		},
		save: async (body, over, beyond = false) =>
			saved(
				need(
					"id" in over
						? await api.PUT("/api/cooks/{id}", {
								params: { path: { id: over.id }, header: { "If-Match": etag(over.version) } },
								body,
								keepalive: beyond,
							})
						: await api.POST("/api/cooks", {
								params: { header: { "Idempotency-Key": over.key } },
								body,
								keepalive: beyond,
							}),
				) as CookRecord,
			),
	};
}
