import { BellFilled, BellOutlined } from "@ant-design/icons";
import { Button } from "antd";
import { useEffect, useRef, useState } from "react";
import type { Live } from "./use-live";
import type { Say } from "./use-say";

const ringEvery = 20_000;

/** Two short tones, made here: nothing has to be fetched to ring. */
function ring(context: AudioContext) {
	for (const [at, pitch] of [
		[0, 880],
		[0.25, 660],
	] as const) {
		const tone = context.createOscillator();
		const loud = context.createGain();
		tone.frequency.value = pitch;
		loud.gain.setValueAtTime(0.4, context.currentTime + at);
		loud.gain.exponentialRampToValueAtTime(0.001, context.currentTime + at + 0.22);
		tone.connect(loud).connect(context.destination);
		tone.start(context.currentTime + at);
		tone.stop(context.currentTime + at + 0.25);
	}
}

/** Rings and notifies for each alarm, once it is switched on on this screen. */
export function useBell(alarms: Live["alarms"]) {
	const [context, setContext] = useState<AudioContext>();
	const told = useRef(new Set<string>());
	const ids = alarms.map((a) => a.id).join(" ");
	// biome-ignore lint/correctness/useExhaustiveDependencies: the same alarms are told once
	useEffect(() => {
		for (const a of alarms) {
			if (told.current.has(a.id)) continue;
			told.current.add(a.id);
			if (context && "Notification" in window && Notification.permission === "granted")
				new Notification(a.label, { body: a.note, tag: a.id });
		}
		if (!context || alarms.length === 0) return;
		ring(context);
		const timer = setInterval(() => ring(context), ringEvery);
		return () => clearInterval(timer);
	}, [ids, context]);
	const switchOn = async () => {
		const made = new AudioContext();
		await made.resume();
		setContext(made);
		ring(made);
		if ("Notification" in window && Notification.permission === "default")
			await Notification.requestPermission().catch(() => undefined);
	};
	return { on: context !== undefined, switchOn };
}

/** Whether this screen rings, and when it cannot. */
export function Bell({ bell }: { bell: ReturnType<typeof useBell> }) {
	return (
		<p className="pit-bell">
			{bell.on ? (
				"This screen rings for alarms, only while this page is open and awake. When it is closed, what rings is the plan in your calendar."
			) : (
				<Button size="large" icon={<BellOutlined aria-hidden />} onClick={bell.switchOn}>
					Ring on this screen
				</Button>
			)}
		</p>
	);
}

/** What somebody is called for: each once, until it is silenced for all or is over. */
export function Alarms({ live, say }: { live: Live; say: Say }) {
	return (
		<section className="pit-alarms" aria-label="Alarms">
			{live.alarms.map((a) => (
				<div key={a.id} className="pit-alarm" role="alert">
					<p>
						<BellFilled aria-hidden /> <b>{a.label}</b>
						{a.note && <small>{a.note}</small>}
					</p>
					<Button
						size="large"
						aria-label={`Silence: ${a.label}`}
						onClick={() => say.fact(`Silence: ${a.label}`, { kind: "ticked", what: a.id })}
					>
						Silence
					</Button>
				</div>
			))}
		</section>
	);
}
