import "@fontsource-variable/archivo/wght.css";
import "./base.css";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import Button from "antd/es/button";
import ConfigProvider from "antd/es/config-provider";
import { lazy, type ReactNode, StrictMode, Suspense } from "react";
import { createRoot } from "react-dom/client";
import { createBrowserRouter, Outlet, RouterProvider } from "react-router";
import { ApiError } from "./api/client";
import { CookList } from "./cooks/cook-list";
import { Masthead } from "./masthead";
import { PrefsProvider, usePrefs } from "./prefs";
import { startClock } from "./shared/clock";
import { Messages } from "./shared/messages";
import { Nothing } from "./shared/nothing";
import { antTheme, paint } from "./theme";

/** A page that is fetched when it is opened. */
const page = (name: keyof typeof import("./pages")) =>
	lazy(async () => ({ default: (await import("./pages"))[name] as () => ReactNode }));

const BenchPage = page("BenchPage");
const FormulaPage = page("FormulaPage");
const FormulaCard = page("FormulaCard");
const ComparePage = page("ComparePage");
const LabelPage = page("LabelPage");
const JarsPage = page("JarsPage");
const LarderPage = page("LarderPage");
const ReadPage = page("ReadPage");
const GuessPage = page("GuessPage");
const CardPage = page("CardPage");
const CookPage = page("CookPage");
const PitPage = page("PitPage");
const NowPage = page("NowPage");
const AfterPage = page("AfterPage");
const LogPage = page("LogPage");
const TermsPage = page("TermsPage");
const PastPage = page("PastPage");
const MealPage = page("MealPage");
const MealsPage = page("MealsPage");
const FindPage = page("FindPage");
const BinPage = page("BinPage");
const FilesPage = page("FilesPage");
const LogComparePage = page("LogComparePage");

const queries = new QueryClient({
	defaultOptions: {
		queries: {
			staleTime: 5_000,
			// The program is on this machine or network, whatever the browser thinks of the internet.
			networkMode: "always",
			// A refused request would be refused again; only one without an answer is retried.
			retry: (count, error) => count < 2 && !(error instanceof ApiError && error.status < 500),
		},
		mutations: { networkMode: "always" },
	},
});

const nonce = document.querySelector<HTMLMetaElement>('meta[name="csp-nonce"]')?.content;

// The table of the library measures scroll bars with a style that it gives no nonce; without
// one the page's policy refuses it.
const create = document.createElement.bind(document);
document.createElement = (tag: string, options?: ElementCreationOptions) => {
	const made = create(tag, options);
	if (nonce && made instanceof HTMLStyleElement) made.nonce = nonce;
	return made;
};

/** What stands around every page; at the pit there is nothing but the page. */
function Frame({ bare }: { bare?: boolean }) {
	const [prefs] = usePrefs();
	return (
		<ConfigProvider theme={antTheme(prefs.mode)} csp={{ nonce }} wave={{ disabled: true }}>
			<Messages>
				{!bare && <Masthead />}
				<main id="main" tabIndex={-1}>
					<Suspense fallback={<p className="loading">Opening…</p>}>
						<Outlet />
					</Suspense>
				</main>
			</Messages>
		</ConfigProvider>
	);
}

/** What stands in the frame when a page cannot be fetched or fails. */
function Broken() {
	return (
		<Nothing title="This page cannot be shown">
			<p>The program did not send it, or something in it failed. What you typed is kept on this device.</p>
			<Button type="primary" size="large" onClick={() => window.location.reload()}>
				Try again
			</Button>
		</Nothing>
	);
}

const router = createBrowserRouter([
	{
		element: <Frame bare />,
		children: [
			{ errorElement: <Broken />, children: [{ path: "/cooks/:id/pit/:piece?", element: <PitPage /> }] },
		],
	},
	{
		element: <Frame />,
		children: [
			{
				errorElement: <Broken />,
				children: [
					{ path: "/", element: <CookList /> },
					{ path: "/cooks/:id/after", element: <AfterPage /> },
					{ path: "/cooks/:id/card", element: <CardPage /> },
					{ path: "/cooks/:id/:stage?/:piece?", element: <CookPage /> },
					{ path: "/bench", element: <BenchPage /> },
					{ path: "/bench/:id", element: <FormulaPage /> },
					{ path: "/bench/:id/card", element: <FormulaCard /> },
					{ path: "/compare", element: <ComparePage /> },
					{ path: "/label", element: <LabelPage /> },
					{ path: "/jars", element: <JarsPage /> },
					{ path: "/larder", element: <LarderPage /> },
					{ path: "/read", element: <ReadPage /> },
					{ path: "/log", element: <LogPage /> },
					{ path: "/log/compare", element: <LogComparePage /> },
					{ path: "/past", element: <PastPage /> },
					{ path: "/meals", element: <MealsPage /> },
					{ path: "/meals/:id", element: <MealPage /> },
					{ path: "/terms", element: <TermsPage /> },
					{ path: "/now", element: <NowPage /> },
					{ path: "/find", element: <FindPage /> },
					{ path: "/bin", element: <BinPage /> },
					{ path: "/files", element: <FilesPage /> },
					{ path: "/guess", element: <GuessPage /> },
					{ path: "*", element: <Nothing title="There is no page at this address" /> },
				],
			},
		],
	},
]);

paint("day");
startClock();
createRoot(document.getElementById("root") as HTMLElement).render(
	<StrictMode>
		<QueryClientProvider client={queries}>
			<PrefsProvider>
				<RouterProvider router={router} />
			</PrefsProvider>
		</QueryClientProvider>
	</StrictMode>,
);
