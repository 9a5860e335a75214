import { createContext, useCallback, useContext, useSyncExternalStore } from "react";
import type { Offer } from "../api/client";
import { at } from "./pointer";
import type { Typing } from "./store";

/** The record that the fields of a page write, and what is wrong with it. */
export interface Written {
	typing: Typing<unknown>;
	/** What is wrong at a JSON pointer. */
	wrong: (pointer: string) => string | undefined;
	/** What may have been meant there. */
	offers: (pointer: string) => Offer[] | undefined;
}

export const WrittenContext = createContext<Written | null>(null);

/** Takes an offer: types what it says, where it says. */
export function useTake() {
	const written = useContext(WrittenContext);
	return (offer: Offer | undefined) => {
		for (const e of offer?.edits ?? []) written?.typing.put(e.pointer, e.value);
	};
}

/** A field of the record by its JSON pointer: what is typed, how to type, and what is wrong. */
export function useField(pointer: string) {
	const written = useContext(WrittenContext);
	if (!written) throw new Error("outside a record");
	const { typing, wrong, offers } = written;
	const value = useSyncExternalStore(typing.subscribe, () => at(typing.now.doc, pointer));
	return {
		value,
		text: value === undefined || value === null ? "" : String(value),
		set: useCallback((v: unknown) => typing.put(pointer, v), [typing, pointer]),
		wrong: wrong(pointer),
		offers: offers(pointer),
		take: useCallback(
			(offer: Offer) => {
				for (const e of offer.edits) typing.put(e.pointer, e.value);
			},
			[typing],
		),
	};
}
