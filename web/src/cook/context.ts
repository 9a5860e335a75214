import { createContext, useContext } from "react";
import type { Catalogue, Cook, Fact, Piece, PieceSheet, Sheet } from "../api/client";
import type { NewFact } from "./use-facts";

/** What every stage of the cook sheet works on. */
export interface InHand {
	cook: Cook;
	sheet?: Sheet;
	catalogue: Catalogue;
	/** Makes a change of several parts, and returns what takes that one change back. */
	change: (edit: (cook: Cook) => void) => () => void;
	error: (pointer: string) => string | undefined;
	isNew: boolean;
	/** The query of what is on record of it: its id, empty for a new one. */
	onRecord: { cook: string };
	facts: Fact[];
	/** Notes something that has happened. */
	say: (fact: NewFact) => void;
	/** Says that something was taken away, with a button that brings it back. */
	undoable: (what: string, back: () => void) => void;
	goto: (stage: string, piece?: number) => void;
}

export const CookContext = createContext<InHand | null>(null);

export function useInHand(): InHand {
	const value = useContext(CookContext);
	if (!value) throw new Error("outside a cook sheet");
	return value;
}

/** The piece numbered index: as typed, computed, and a function that edits it. */
export function usePiece(index: number) {
	const hand = useInHand();
	const piece = hand.cook.pieces[index] as Piece;
	const figures: PieceSheet | undefined = hand.sheet?.pieces[index];
	return {
		...hand,
		piece,
		figures,
		/** How many there are, as far as it is known. */
		count: figures?.count ?? (Number(piece.count) || 1),
		/** Where a field of the piece is in the record. */
		at: (field: string) => `/pieces/${index}/${field}`,
		edit: (fn: (p: Piece) => void) => hand.change((c) => fn(c.pieces[index] as Piece)),
		wrong: (field: string) => hand.error(`/pieces/${index}/${field}`),
	};
}
