import { useQuery } from "@tanstack/react-query";
import { useCallback, useEffect, useState, useSyncExternalStore } from "react";
import type { ApiError } from "../api/client";
import { left } from "./leaving";
import { type Saved, type Typed, Typing } from "./store";
import { findDraft } from "./tab";

/** The version of a record that is saved over. */
interface Over {
	id: string;
	version: number;
}

/** Records of a kind: how they begin, are read and are saved. */
export interface Kind<T> {
	name: string;
	/** Whether an address is that of a new one. */
	begins: (id: string) => boolean;
	/** A new one. */
	fresh: () => Promise<T>;
	load: (id: string) => Promise<Saved<T>>;
	/**
	 * Saves what is typed as the version after the given one, or as a new one under a key, once however often it is
	 * sent; beyond lets it outlive the page.
	 */
	save: (doc: T, over: Over | { key: string }, beyond?: boolean) => Promise<Saved<T>>;
}

/**
 * A record that is being written: as it is saved, and over that what is typed on this
 * screen, which a reload, another tab or an outage does not touch.
 */
export function useRecord<T>(kind: Kind<T>, id: string) {
	const [typing, setTyping] = useState<Typing<T>>();
	const [latest, setLatest] = useState(0);
	const [round, setRound] = useState(0);
	// A new one gets its id a moment before the address changes.
	const typed = useTyped(typing);
	const open = typing !== undefined && (typed?.id === id || typing.address === id);
	const loaded = useQuery({
		queryKey: ["record", kind.name, id, round],
		enabled: !open,
		staleTime: 0,
		gcTime: 0,
		queryFn: async () => {
			if (kind.begins(id)) {
				const draft = await findDraft<T>(`${kind.name}.${id}`);
				return { saved: { id: "", version: 0, doc: await kind.fresh() }, draft };
			}
			await left(id);
			const saved = await kind.load(id);
			return { saved, draft: await findDraft<T>(`${kind.name}.${saved.id}`) };
		},
	});
	const data = loaded.data;
	useEffect(() => {
		if (!data || open) return;
		const next = new Typing(kind.name, data.saved.id || id, data.saved, data.draft);
		if (data.draft) next.catchUp(data.saved);
		else next.forget();
		setTyping(next);
		setLatest(data.saved.version);
	}, [data, open, kind, id]);

	// What was typed in the last moment before the page goes is kept on this device.
	useEffect(() => {
		if (!typing) return;
		window.addEventListener("pagehide", typing.keep);
		return () => {
			window.removeEventListener("pagehide", typing.keep);
			typing.keep();
		};
	}, [typing]);

	/** Replaces what is on this screen by what is saved. */
	const reload = useCallback(() => {
		typing?.giveUp();
		setTyping(undefined);
		setRound((n) => n + 1);
	}, [typing]);
	return {
		typing: open ? typing : undefined,
		typed: open ? typed : undefined,
		/** What is typed was typed over an older version than is saved now. */
		outdated: open && (typed?.version ?? 0) < latest,
		reload,
		failure: loaded.error as ApiError | null,
	};
}

const nothing = () => () => {};

/** What is typed of a record, as it changes. */
export function useTyped<T>(typing: Typing<T> | undefined): Typed<T> | undefined {
	return useSyncExternalStore(typing?.subscribe ?? nothing, () => typing?.now);
}
