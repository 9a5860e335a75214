import createClient from "openapi-fetch";
import { uuid } from "../shared/uuid";
import type { components, paths } from "./schema";

/** How long a save waits for its answer, ms: it can be sent again, since it names its version. */
const patience = 15_000;

/** The typed client of the program's own API. */
export const api = createClient<paths>({
	baseUrl: "/",
	fetch: (asked) => {
		asked.headers.set("Prefer", `units=${reader.units}`);
		return asked.method === "PUT"
			? fetch(asked, { signal: AbortSignal.any([asked.signal, AbortSignal.timeout(patience)]) })
			: asked.method === "POST"
				? once(asked)
				: fetch(asked);
	},
});

/** Who reads what is wrong with something that is sent: in these units. */
export const reader = { units: "metric" };

/** Keys of what is being made, or was within these ms: a second press, and a retry without an answer, have the same. */
const settles = 2_000;
const keys = new Map<string, string>();

/** Sends a request under a key by which what it makes is made once. */
async function once(asked: Request): Promise<Response> {
	const header = "Idempotency-Key";
	// What is only worked out makes nothing.
	if (asked.headers.has(header) || /\/api\/(calc|page)\b/.test(asked.url)) return fetch(asked);
	const type = asked.headers.get("content-type");
	if (type && !type.includes("json")) return fetch(asked); // a file is known by what is in it
	const body = type ? await asked.clone().text() : "";
	const what = `${asked.url} ${body}`;
	const key = keys.get(what) ?? uuid();
	keys.set(what, key);
	asked.headers.set(header, key);
	const answer = await fetch(asked);
	setTimeout(() => keys.delete(what), settles);
	return answer;
}

type Schemas = components["schemas"];

/** Every optional field of a typed page filled in: the page always sends all of them. */
type Full<T> = T extends (infer U)[]
	? Full<U>[]
	: T extends object
		? { [K in keyof T as K extends "spoons" ? never : K]-?: Full<NonNullable<T[K]>> } & {
				[K in keyof T as K extends "spoons" ? K : never]?: string;
			}
		: T;

/** What the API leaves out of a page when it is empty. */
type MayLack<T, K extends keyof T> = Full<Omit<T, K>> & { [P in K]?: Full<T[P]> };
export type Bath = MayLack<Schemas["Bath"], "salt">;
export type Injection = MayLack<Schemas["Injection"], "amount">;
export type Move = Schemas["Move"];
export type MoveLine = Schemas["MoveLine"];
export type Layer = Full<Schemas["Layer"]>;
export type Piece = MayLack<
	Omit<Schemas["Piece"], "bath" | "inject" | "layers" | "choices" | "fire" | "when" | "moves">,
	"weighed" | "key" | "grain" | "trim_note" | "each"
> & {
	when?: Record<string, string>;
	moves?: Move[];
	bath?: Bath;
	inject?: Injection;
	layers?: Layer[];
	choices?: Record<string, string>;
	fire: MayLack<Schemas["Fire"], "on" | "done" | "guess">;
};
export type Wish = Full<Schemas["Wish"]>;
export type Fact = Schemas["Fact"];
export type Pit = MayLack<Schemas["Pit"], "id" | "sets">;
export type Cook = MayLack<
	Omit<Schemas["Cook"], "pieces" | "pits">,
	"children" | "appetite" | "leftovers" | "quiet" | "hands" | "plan" | "wishes" | "spoons" | "probe"
> & { pieces: Piece[]; pits?: Pit[] };
export type Plan = Schemas["PlanSheet"];
export type Outlook = Schemas["OutlookSheet"];
export type TaskLine = Schemas["TaskLine"];
export type DecisionSheet = Schemas["DecisionSheet"];
export type PhotoLine = Schemas["PhotoLine"];
export type BathSheet = Schemas["BathSheet"];
export type InjectionSheet = Schemas["InjectionSheet"];
export type Row = Full<Schemas["Row"]>;
/** A formula as the API tells it: fields that are empty may be absent. */
export type FormulaTold = Schemas["Formula"];
export type Formula = Full<Schemas["Formula"]>;
/** A record as every kind of them is answered. */
export interface Doc<T> {
	id: string;
	version: number;
	updated: string;
	doc: T;
}
export type CookRecord = Doc<Cook>;
export type OpenedCook = Omit<Schemas["OpenedCook"], "record"> & { record: CookRecord };
export type Overwritten = Schemas["Overwritten"];
export type PageAnswer = Schemas["PageAnswer"];
export type Where = Schemas["Where"];
export type CookSummary = Schemas["CookSummary"];
export type Sheet = Schemas["Sheet"];
export type PieceSheet = Schemas["PieceSheet"];
export type Figure = Schemas["Figure"];
export type Catalogue = Schemas["Catalogue"];
export type Problem = Schemas["Problem"];
export type Mistake = Schemas["Mistake"];
export type Offer = Schemas["Offer"];
export type Caution = Schemas["Caution"];
export type Depth = Schemas["DepthSheet"];
export type Season = Schemas["SeasonSheet"];
export type FormulaRecord = Doc<Formula>;
export type FormulaSummary = Schemas["FormulaSummary"];
export type FormulaSheet = Schemas["FormulaSheet"];
export type Batch = Full<Schemas["Batch"]>;
export type Total = Schemas["Total"];
export type Ledger = Schemas["LedgerSheet"];
export type Clock = Schemas["ClockSheet"];
export type JarLine = Schemas["JarLine"];
export type OwnIngredient = Schemas["OwnIngredient"];
export type Dose = Full<Schemas["Dose"]>;
export type Found = Schemas["Found"];
export type GuessQuestion = Schemas["GuessQuestion"];
export type GuessAnswer = Schemas["GuessAnswer"];
export type Cost = Schemas["CostSheet"];
export type ShopLine = Schemas["ShopLine"];

/** A failed request, with the problem the server told. */
export class ApiError extends Error {
	readonly status: number;
	readonly problem?: Problem;
	constructor(status: number, problem?: Problem) {
		super(problem?.detail ?? "The program does not answer. Is it still running?");
		this.status = status;
		this.problem = problem;
	}
}

/** What is wrong in one sentence: the first mistake that was pointed at, or what happened. */
export const said = (e: Error) => (e instanceof ApiError && e.problem?.errors?.[0]?.message) || e.message;

/** Unwraps an answer, or throws the ApiError it stands for. */
export function need<T>(answer: { data?: T; error?: unknown; response: Response }): T {
	if (answer.error !== undefined || answer.data === undefined) {
		throw new ApiError(answer.response.status, answer.error as Problem | undefined);
	}
	return answer.data;
}

/** The ETag of a version, for If-Match. */
export const etag = (version: number) => [`"${version}"`];
