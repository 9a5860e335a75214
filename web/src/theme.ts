import type { ThemeConfig } from "antd";

/** Paper and ink by day, coal and chalk by night. The one home of every colour. */
const palettes = {
	day: {
		paper: "#f6f0e2",
		raised: "#fffbf1",
		ink: "#23211c",
		muted: "#645f52",
		line: "#d8cfb8",
		action: "#5c680b",
		"action-soft": "#e4e7bd",
		"on-action": "#fffdf3",
		ember: "#b8431a",
		"ember-bar": "#e08b66",
		salt: "#8ba6b6",
		"salt-soft": "#d7e2e8",
		"salt-ink": "#3a5a6e",
		meat: "#e3d6c1",
		amber: "#8a5600",
		brick: "#a3331b",
		quiet: "#ece4d0",
	},
	night: {
		paper: "#171813",
		raised: "#21221c",
		ink: "#f3eddd",
		muted: "#b3ac9a",
		line: "#3d3d33",
		action: "#c6d25c",
		"action-soft": "#343a1a",
		"on-action": "#1a1c0c",
		ember: "#f58a61",
		"ember-bar": "#a9522f",
		salt: "#6f8fa2",
		"salt-soft": "#2a3a45",
		"salt-ink": "#a9c6d6",
		meat: "#4a4034",
		amber: "#e5ad4d",
		brick: "#f48871",
		quiet: "#1f201a",
	},
} as const;

export type Mode = keyof typeof palettes;

/** Sizes of text, px: the one home of every size. */
const scale = {
	tiny: 12,
	small: 14,
	text: 16,
	large: 19,
	lead: 23,
	head: 31,
	figure: 46,
	giant: 86,
} as const;

/** Puts the palette on the page as custom properties, for the style sheets. */
export function paint(mode: Mode) {
	const root = document.documentElement;
	for (const [name, value] of Object.entries(palettes[mode])) root.style.setProperty(`--${name}`, value);
	for (const [name, px] of Object.entries(scale)) root.style.setProperty(`--${name}`, `${px / 16}rem`);
	root.dataset.mode = mode;
	root.style.colorScheme = mode === "night" ? "dark" : "light";
	document.querySelector('meta[name="theme-color"]')?.setAttribute("content", palettes[mode].paper);
}

/** The same palette as Ant Design tokens. */
export function antTheme(mode: Mode): ThemeConfig {
	const c = palettes[mode];
	return {
		token: {
			colorPrimary: c.action,
			// The lighter shades that a press would get are too faint to read.
			colorPrimaryHover: c.action,
			colorPrimaryActive: c.action,
			colorInfo: c.action,
			colorLink: c.action,
			colorLinkHover: c.action,
			colorLinkActive: c.action,
			colorSuccess: c.action,
			colorWarning: c.amber,
			colorError: c.brick,
			colorBgBase: c.paper,
			colorBgContainer: c.paper,
			colorBgElevated: c.raised,
			colorBgLayout: c.paper,
			colorTextBase: c.ink,
			colorText: c.ink,
			colorTextSecondary: c.muted,
			colorTextTertiary: c.muted,
			colorTextQuaternary: c.muted,
			colorTextPlaceholder: c.muted,
			colorTextLightSolid: c["on-action"],
			colorBorder: c.line,
			colorBorderSecondary: c.line,
			colorSplit: c.line,
			controlItemBgActive: c["action-soft"],
			controlItemBgHover: c.quiet,
			fontFamily: '"Archivo Variable", system-ui, sans-serif',
			fontSize: scale.text,
			fontSizeSM: scale.small,
			fontSizeLG: scale.large,
			controlHeight: 44,
			borderRadius: 6,
			lineWidth: 1,
			wireframe: false,
			// Buttons answer at once, without animation.
			motion: false,
		},
		components: {
			Button: { primaryShadow: "none", defaultShadow: "none", fontWeight: 600, contentFontSize: scale.text },
			Input: { activeShadow: "none", paddingInline: 0 },
			Select: { optionHeight: 44, optionPadding: "10px 12px", optionSelectedColor: c.ink },
			Popover: { titleMinWidth: 240 },
			Form: { itemMarginBottom: 0, verticalLabelPadding: 0, labelColor: c.muted, labelFontSize: scale.small },
			Radio: { radioSize: 20 },
			Checkbox: { controlInteractiveSize: 26 },
			Alert: { colorErrorBg: c.raised, colorErrorBorder: c.brick },
			Table: {
				headerBg: c.paper,
				headerColor: c.muted,
				headerSplitColor: "transparent",
				rowHoverBg: c.quiet,
				cellPaddingInline: 12,
				cellPaddingBlock: 10,
			},
			DatePicker: { cellHeight: 26, cellWidth: 44 },
		},
	};
}

/** Colours of a mix's layers, by kind of ingredient; salt is always the hatch. */
const layers: Record<string, readonly string[]> = {
	pepper: ["#3b362d", "#57503f"],
	spice: ["#b4643a", "#cf9c4c", "#8d573d", "#dfbb66", "#a4432c", "#c58468"],
	herb: ["#74843c", "#98ab5c", "#52643a"],
	sugar: ["#ecdcae", "#dcc48a"],
	starch: ["#efe7d3"],
	acid: ["#d9d06a"],
	liquid: ["#c8b185", "#a98d62"],
	fat: ["#f1e2ae"],
	cure: ["#d98a94"],
};

/** The fill of each of a mix's ingredients, in order; "salt" stands for the hatch. */
export function layerFills(kinds: string[]): string[] {
	const seen: Record<string, number> = {};
	return kinds.map((kind) => {
		const row = layers[kind];
		if (!row) return "salt";
		const n = seen[kind] ?? 0;
		seen[kind] = n + 1;
		return row[n % row.length] as string;
	});
}
