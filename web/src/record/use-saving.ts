import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import { ApiError } from "../api/client";
import { leave } from "./leaving";
import { same } from "./pointer";
import type { Typing } from "./store";
import type { Kind } from "./use-record";

/** How what is on the screen stands to what is on record. */
export type Standing = "saved" | "saving" | "waiting" | "unnamed" | "mistakes" | "conflict" | "unreachable";

interface Options {
	/** Nothing in what is typed is a mistake. */
	sound: boolean;
	/** What is typed is other than what is on record. */
	dirty: boolean;
	/** It was typed over an older version than is saved now. */
	outdated: boolean;
	/** Called with the id that a new record was given. */
	onMade: (id: string) => void;
	/** The list that shows these records, to be read again. */
	list: string;
}

/** Puts what is typed on record: a moment after the last letter, and when the page is left. */
export function useSaving<T>(kind: Kind<T>, typing: Typing<T> | undefined, o: Options) {
	const queries = useQueryClient();
	const [standing, setStanding] = useState<Standing>("saved");
	/** The save that is going on. */
	const going = useRef<Promise<unknown> | undefined>(undefined);
	const { sound, dirty, outdated, onMade, list } = o;
	const now: Standing = outdated && standing === "saved" ? "conflict" : standing;

	/** Saves what is typed; over is the version to replace after a conflict. */
	const save = useCallback(
		async (over?: number) => {
			if (!typing || going.current) return;
			setStanding("saving");
			const { doc: sent, id, version } = typing.now;
			const isNew = id === "";
			try {
				const before = isNew && typing.sends();
				const saving = kind.save(sent, isNew ? { key: typing.key } : { id, version: over ?? version });
				going.current = saving;
				const done = await saving;
				typing.saved(before ? done.doc : sent, done);
				setStanding("saved");
				queries.invalidateQueries({ queryKey: [list] });
				if (isNew) onMade(done.id);
			} catch (error) {
				const status = error instanceof ApiError ? error.status : 0;
				if (status === 412 && (await caughtUp(kind, typing))) return setStanding("saved");
				setStanding(status === 412 ? "conflict" : status === 422 ? "mistakes" : "unreachable");
			} finally {
				going.current = undefined;
			}
		},
		[typing, kind, list, onMade, queries],
	);

	useEffect(() => {
		if (!dirty || !sound || now === "conflict" || now === "saving") return;
		const timer = setTimeout(() => save(), now === "unreachable" ? 1000 : 600);
		return () => clearTimeout(timer);
	}, [dirty, sound, now, save]);

	// A page that is left within a moment of typing saves, too.
	useEffect(() => {
		if (!typing) return;
		let gone = false;
		const go = () => {
			typing.keep();
			if (gone || same(typing.now.doc, typing.now.base) || conflicted.current) return;
			gone = true;
			leave(typing.now.id || "new", async () => {
				await going.current?.catch(() => {});
				const { doc: sent, base, id, version } = typing.now;
				if (same(sent, base)) return;
				const before = !id && typing.sends();
				const done = await kind.save(sent, id ? { id, version } : { key: typing.key }, true);
				typing.saved(before ? done.doc : sent, done);
				queries.invalidateQueries({ queryKey: [list] });
			});
		};
		const back = () => {
			gone = false;
		};
		window.addEventListener("pagehide", go);
		window.addEventListener("pageshow", back);
		return () => {
			window.removeEventListener("pagehide", go);
			window.removeEventListener("pageshow", back);
			go();
		};
	}, [typing, kind, list, queries]);
	const conflicted = useRef(false);
	conflicted.current = now === "conflict";

	useEffect(() => {
		const onKey = (e: KeyboardEvent) => {
			if ((e.ctrlKey || e.metaKey) && e.key === "s") {
				e.preventDefault();
				if (dirty && sound && now !== "conflict") save();
			}
		};
		window.addEventListener("keydown", onKey);
		return () => window.removeEventListener("keydown", onKey);
	}, [dirty, sound, now, save]);

	return { standing: now, save, settled: useCallback(() => setStanding("saved"), []) };
}

/** Whether the newer version on record is this page's own, and it is what is typed over now. */
async function caughtUp<T>(kind: Kind<T>, typing: Typing<T>): Promise<boolean> {
	try {
		return typing.catchUp(await kind.load(typing.now.id));
	} catch {
		return false;
	}
}
