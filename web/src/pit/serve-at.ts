import { api, etag, type Problem } from "../api/client";
import { applied, type Edit } from "../record/pointer";

/** Changes a serving time of a cook-out; returns why it could not be, or nothing. */
export async function serveAt(cook: string, edits: Edit[]): Promise<string> {
	const path = { path: { id: cook } };
	const why = (problem: Problem | undefined, status: number) => {
		if (status === 404) return "this cook-out is gone.";
		if (status === 412) return "somebody else changed this cook-out. Press again.";
		return problem?.errors?.[0]?.message ?? problem?.detail ?? "Verjuice could not save it. Press again.";
	};
	const could = (reason: string) => `The serving time could not be changed: ${reason}`;
	try {
		const asked = await api.GET("/api/cooks/{id}", { params: path });
		if (!asked.data) return could(why(asked.error, asked.response.status));
		const saved = await api.PUT("/api/cooks/{id}", {
			params: { ...path, header: { "If-Match": etag(asked.data.version) } },
			body: applied(asked.data.doc, edits),
		});
		return saved.error ? could(why(saved.error, saved.response.status)) : "";
	} catch {
		return could("Verjuice is not responding.");
	}
}
