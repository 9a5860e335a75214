import { describe, expect, it } from "vitest";
import { find } from "./find-select";

const all = [
	{ value: "salt", label: "garlic salt, fine", names: ["garlic salt"] },
	{ value: "garlic", label: "garlic, granulated", names: ["garlic", "garlic powder"] },
	{ value: "mustard", label: "prepared mustard, liquid", names: ["prepared mustard", "yellow mustard"] },
	{
		value: "stock",
		label: "ready stock, liquid",
		names: ["ready stock", "broth", "chicken broth", "bouillon"],
	},
	{ value: "pepper", label: "black pepper, coarse", names: ["black pepper", "pepper"] },
	{ value: "hot", label: "hot pepper sauce, liquid", names: ["hot pepper sauce", "hot sauce"] },
];
const first = (typed: string) => find(all, typed)[0]?.value;

describe("find", () => {
	it("takes a name that is just that before longer ones", () => {
		expect(first("garlic")).toBe("garlic");
		expect(first("Garlic")).toBe("garlic");
		expect(first("pepper")).toBe("pepper");
		expect(first("garlic salt")).toBe("salt");
	});
	it("takes a whole word before the beginning of one, as nobody means salted butter by salt", () => {
		const salts = [
			{ value: "butter", label: "salted butter, soft", names: ["salted butter"] },
			{ value: "sea", label: "sea salt, fine", names: ["sea salt"] },
		];
		expect(find(salts, "salt")[0]?.value).toBe("sea");
	});
	it("finds by every name, by parts of names, by words in any order, and in the plural", () => {
		expect(first("bouillon")).toBe("stock");
		expect(first("broth")).toBe("stock");
		expect(first("mustard yellow")).toBe("mustard");
		expect(first("granul")).toBe("garlic");
		expect(first("peppers")).toBe("pepper");
	});
	it("finds nothing that goes by no such name", () => {
		expect(find(all, "fish sauce")).toEqual([]);
		expect(find(all, " ")).toHaveLength(all.length);
	});
});
