/** What is still to be typed before a grey button can be pressed; nothing once all of it is. */
export function Missing({ typed }: { typed: Record<string, string> }) {
	const left = Object.entries(typed).filter(([, text]) => !text.trim());
	if (left.length === 0) return null;
	return <p className="says">Still missing: {left.map(([what]) => what).join(", ")}.</p>;
}
