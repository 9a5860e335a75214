import type { Formula } from "../api/client";
import { api, etag, type FormulaRecord, need } from "../api/client";
import type { Saved } from "../record/store";
import type { Kind } from "../record/use-record";
import { whole } from "./formula";

const saved = (r: FormulaRecord): Saved<Formula> => ({ id: r.id, version: r.version, doc: whole(r.doc) });

/** Whether an address is that of a formula on record. */
export const onRecord = (id: string) => /^([0-9a-f]{8}-[0-9a-f-]{27}|\d+)$/.test(id);

/** How a formula begins, is read and is saved; begin is what a new one begins as. */
export const formulaKind = (begin: () => Formula): Kind<Formula> => ({
	name: "formula",
	begins: (id) => !onRecord(id),
	fresh: async () => begin(),
	load: async (id) =>
		saved(need(await api.GET("/api/formulas/{id}", { params: { path: { id } } })) as FormulaRecord),
	save: async (body, over) =>
		saved(
			need(
				"id" in over
					? await api.PUT("/api/formulas/{id}", {
							params: { path: { id: over.id }, header: { "If-Match": etag(over.version) } },
							body,
						})
					: await api.POST("/api/formulas", { params: { header: { "Idempotency-Key": over.key } }, body }),
			) as FormulaRecord,
		),
});
