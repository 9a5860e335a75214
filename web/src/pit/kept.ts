/** What this device keeps of the pit side, to open it while the program does not answer. */
export const kept = {
	assets: "verjuice-assets",
	pages: "verjuice-pages",
	page: /^\/cooks\/[^/]+\/pit(\/|$)/,
};

/** Keeps the page that is open, with all that it is made of, and lets go of what it no longer uses. */
export async function keepPage() {
	if (!("serviceWorker" in navigator) || !("caches" in window)) return;
	try {
		await navigator.serviceWorker.register("/sw.js");
		await navigator.serviceWorker.ready;
		const used = performance
			.getEntriesByType("resource")
			.map((r) => r.name)
			.filter((name) => new URL(name).pathname.startsWith("/assets/"));
		const assets = await caches.open(kept.assets);
		const there = await assets.keys();
		await assets.addAll(used.filter((name) => !there.some((r) => r.url === name)));
		await Promise.all(there.filter((r) => !used.includes(r.url)).map((r) => assets.delete(r)));
		const pages = await caches.open(kept.pages);
		await pages.add(window.location.href);
	} catch {
		// Without a worker the page works as long as the program does.
	}
}
