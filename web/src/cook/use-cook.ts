import { keepPreviousData, useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import { ApiError, api, type Cook, type CookRecord, etag, need, type Sheet } from "../api/client";
import { usePrefs } from "../prefs";
import { leave, left } from "./leaving";
import { useFacts } from "./use-facts";

/** How what is on the screen stands to what is on record. */
export type Standing = "saved" | "saving" | "waiting" | "mistakes" | "conflict" | "unreachable";

interface Page {
	id: string;
	cook: Cook;
	version: number;
	/** The saved cook, as JSON; empty for a new one. */
	recorded: string;
	servedAt: string;
}

const draftKey = (id: string) => `verjuice.draft.${id}`;

function readDraft(id: string): { cook: Cook; version: number } | undefined {
	try {
		return JSON.parse(localStorage.getItem(draftKey(id)) ?? "null") ?? undefined;
	} catch {
		return undefined;
	}
}

/** A page as text with its keys in order and empty fields left out, to tell two apart. */
function canonical(value: unknown): string {
	return JSON.stringify(value, (_, v) => {
		if (v === "" || v === false || v === 0 || v === null) return undefined;
		if (Array.isArray(v)) return v.length === 0 ? undefined : v;
		if (typeof v === "object")
			return Object.fromEntries(Object.entries(v).sort(([a], [b]) => (a < b ? -1 : 1)));
		return v;
	});
}

/** Saves a page as the version after the given one; beyond lets it outlive the page. */
async function put(page: Page, version: number, beyond = false): Promise<CookRecord> {
	const body = page.cook;
	return need(
		page.id === "new"
			? await api.POST("/api/cooks", { body, keepalive: beyond })
			: await api.PUT("/api/cooks/{id}", {
					params: { path: { id: Number(page.id) }, header: { "If-Match": etag(version) } },
					body,
					keepalive: beyond,
				}),
	) as CookRecord;
}

function useDebounced<T>(value: T, ms: number): T {
	const [late, setLate] = useState(value);
	useEffect(() => {
		const timer = setTimeout(() => setLate(value), ms);
		return () => clearTimeout(timer);
	}, [value, ms]);
	return late;
}

/**
 * A cook being written: what is typed, the figures that follow from it, and
 * saving. What is typed is kept on this screen at once and put on record as soon
 * as nothing in it is a mistake.
 */
export function useCook(id: string, onCreated: (id: string) => void) {
	const queries = useQueryClient();
	const [prefs] = usePrefs();
	const [page, setPage] = useState<Page>();
	const [standing, setStanding] = useState<Standing>("saved");
	/** The save that is going on; resolves with the version it made. */
	const saving = useRef<Promise<number | undefined> | undefined>(undefined);
	// A new cook has its number a moment before the address changes.
	const open = page !== undefined && (page.id === id || id === "new");

	const loaded = useQuery({
		queryKey: ["cook", id],
		enabled: !open,
		staleTime: 0,
		gcTime: 0,
		queryFn: async (): Promise<CookRecord> => {
			if (id === "new") {
				const zone = Intl.DateTimeFormat().resolvedOptions().timeZone;
				const query = { zone, units: prefs.units, spoons: prefs.spoons };
				const cook = need(await api.GET("/api/new/cook", { params: { query } })) as Cook;
				return { id: 0, version: 0, updated: "", cook };
			}
			if (!/^\d+$/.test(id)) throw new ApiError(404);
			await left(id);
			return need(await api.GET("/api/cooks/{id}", { params: { path: { id: Number(id) } } })) as CookRecord;
		},
	});

	const record = loaded.data;
	useEffect(() => {
		if (!record || open) return;
		let draft = readDraft(id);
		// The page was left while it was being saved: the draft is the saved version.
		if (draft && canonical(draft.cook) === canonical(record.cook)) {
			localStorage.removeItem(draftKey(id));
			draft = undefined;
		}
		const cook = draft?.cook ?? record.cook;
		setPage({
			id,
			cook,
			version: draft?.version ?? record.version,
			recorded: id === "new" ? "" : JSON.stringify(record.cook),
			servedAt: record.cook.serve_at,
		});
		setStanding(draft && draft.version !== record.version ? "conflict" : "saved");
	}, [record, id, open]);

	const json = page ? JSON.stringify(page.cook) : "";
	const dirty = page !== undefined && json !== page.recorded;
	const asked = useDebounced(json, 90);
	const happened = useFacts(page?.id ?? "");
	const servedAt = page?.recorded ? page.servedAt : "";
	const preview = useQuery({
		queryKey: ["sheet", asked, happened.facts, prefs.units, prefs.spoons, servedAt],
		enabled: asked !== "" && happened.ready,
		placeholderData: keepPreviousData,
		gcTime: 30_000,
		// A server that is away is asked until it is back.
		retry: (_, error) => !(error instanceof ApiError && error.status > 0 && error.status < 500),
		retryDelay: 1_000,
		queryFn: async ({ signal }): Promise<Sheet> =>
			need(
				await api.POST("/api/sheet", {
					params: { query: { units: prefs.units, spoons: prefs.spoons, served_at: servedAt } },
					body: { ...JSON.parse(asked), facts: happened.facts },
					signal,
				}),
			),
	});
	const sheet = preview.data;
	const current = sheet !== undefined && !preview.isPlaceholderData && asked === json;
	const sound = current && sheet.errors.length === 0;

	const change = useCallback((edit: (cook: Cook) => void) => {
		setPage((old) => {
			if (!old) return old;
			const cook = structuredClone(old.cook);
			edit(cook);
			localStorage.setItem(draftKey(old.id), JSON.stringify({ cook, version: old.version }));
			return { ...old, cook };
		});
	}, []);

	/** Saves the page; over is the version to replace after a conflict. */
	const save = useCallback(
		async (over?: number) => {
			if (!page || saving.current) return;
			setStanding("saving");
			try {
				const body = page.cook;
				const isNew = page.id === "new";
				const going = put(page, over ?? page.version);
				saving.current = going.then(
					(r) => r.version,
					() => undefined,
				);
				const done = await going;
				const savedId = String(done.id);
				const sent = JSON.stringify(body);
				localStorage.removeItem(draftKey(page.id));
				setPage((now) => {
					if (!now) return now;
					if (JSON.stringify(now.cook) !== sent) {
						localStorage.setItem(
							draftKey(savedId),
							JSON.stringify({ cook: now.cook, version: done.version }),
						);
					} else {
						localStorage.removeItem(draftKey(savedId));
					}
					return { ...now, id: savedId, version: done.version, recorded: sent, servedAt: body.serve_at };
				});
				setStanding("saved");
				queries.invalidateQueries({ queryKey: ["cooks"] });
				if (isNew) onCreated(savedId);
			} catch (error) {
				const status = error instanceof ApiError ? error.status : 0;
				setStanding(status === 412 ? "conflict" : status === 422 ? "mistakes" : "unreachable");
			} finally {
				saving.current = undefined;
			}
		},
		[page, queries, onCreated],
	);

	useEffect(() => {
		if (!dirty || !sound || standing === "conflict" || standing === "saving") return;
		const timer = setTimeout(() => save(), standing === "unreachable" ? 1000 : 600);
		return () => clearTimeout(timer);
	}, [dirty, sound, standing, save]);

	// A page that is left within a moment of typing saves, too.
	const last = useRef({ page, unsaved: false });
	last.current = { page, unsaved: dirty && standing !== "conflict" };
	useEffect(() => {
		const go = () => {
			const { page: now, unsaved } = last.current;
			if (!now || !unsaved || localStorage.getItem(draftKey(now.id)) === null) return;
			last.current.unsaved = false;
			leave(now.id, async () => {
				const version = (await saving.current) ?? now.version;
				await put(now, version, true);
				localStorage.removeItem(draftKey(now.id));
				queries.invalidateQueries({ queryKey: ["cooks"] });
			});
		};
		window.addEventListener("pagehide", go);
		return () => {
			window.removeEventListener("pagehide", go);
			go();
		};
	}, [queries]);

	useEffect(() => {
		const onKey = (e: KeyboardEvent) => {
			if ((e.ctrlKey || e.metaKey) && e.key === "s") {
				e.preventDefault();
				if (dirty && sound && standing !== "conflict") save();
			}
		};
		window.addEventListener("keydown", onKey);
		return () => window.removeEventListener("keydown", onKey);
	}, [dirty, sound, standing, save]);

	/** Replaces what is on this screen by what is saved. */
	const reload = useCallback(() => {
		localStorage.removeItem(draftKey(id));
		setPage(undefined);
		queries.removeQueries({ queryKey: ["cook", id] });
	}, [id, queries]);

	/** Saves what is on this screen over the other version. */
	const overwrite = useCallback(async () => {
		const now = need(await api.GET("/api/cooks/{id}", { params: { path: { id: Number(id) } } }));
		await save(now.version);
	}, [id, save]);

	const error = useCallback(
		(pointer: string) => sheet?.errors.find((e) => e.pointer === pointer)?.message,
		[sheet?.errors],
	);

	let shown: Standing = standing;
	if (dirty && standing === "saved") shown = current && !sound ? "mistakes" : "waiting";
	if (preview.isError || preview.failureCount > 1) shown = "unreachable";
	return {
		cook: open ? page.cook : undefined,
		sheet,
		change,
		error,
		standing: shown,
		mistakes: current ? sheet.errors : [],
		reload,
		overwrite,
		failure: loaded.error as ApiError | null,
		isNew: page?.id === "new",
		facts: happened.facts,
		say: happened.say,
	};
}

export type CookInHand = ReturnType<typeof useCook>;
