/** Saves that go on after their page was left, by cook. */
const leaving = new Map<string, Promise<void>>();

/** Lets a save go on after its page was left; one that fails leaves the draft on this device. */
export function leave(id: string, save: () => Promise<void>) {
	const going = save()
		.catch(() => undefined)
		.finally(() => {
			if (leaving.get(id) === going) leaving.delete(id);
		});
	leaving.set(id, going);
}

/** Resolves when nothing of a cook is being saved by a page that was left. */
export async function left(id: string): Promise<void> {
	await leaving.get(id);
}
