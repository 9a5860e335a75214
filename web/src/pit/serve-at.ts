import { api } from "../api/client";

/** Puts the serving time of a cook-out at another time; returns why it could not be, or nothing. */
export async function serveAt(cook: string, at: string): Promise<string> {
	const path = { path: { id: cook } };
	try {
		const { data } = await api.GET("/api/cooks/{id}", { params: path });
		if (!data) return "The serving time could not be changed: this cook-out is gone.";
		const { error } = await api.PUT("/api/cooks/{id}", {
			params: { ...path, header: { "If-Match": `"${data.version}"` } },
			body: { ...data.cook, serve_at: at },
		});
		return error
			? "The serving time could not be changed: somebody else changed this cook-out. Press again."
			: "";
	} catch {
		return "The serving time cannot be changed while the program is away.";
	}
}
