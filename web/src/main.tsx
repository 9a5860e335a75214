import "@fontsource-variable/archivo/wght.css";
import "./base.css";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { App as AntApp, Button, ConfigProvider } from "antd";
import { lazy, StrictMode, Suspense } from "react";
import { createRoot } from "react-dom/client";
import { createBrowserRouter, Outlet, RouterProvider } from "react-router";
import { ApiError } from "./api/client";
import { CookList } from "./cooks/cook-list";
import { Masthead } from "./masthead";
import { PrefsProvider, usePrefs } from "./prefs";
import { startClock } from "./shared/clock";
import { Nothing } from "./shared/nothing";
import { antTheme, paint } from "./theme";

const BenchPage = lazy(() => import("./bench/bench-page"));
const FormulaPage = lazy(() => import("./bench/formula-page"));
const ComparePage = lazy(() => import("./bench/compare-page"));
const LabelPage = lazy(() => import("./bench/label-page"));
const JarsPage = lazy(() => import("./jars/jars-page"));
const LarderPage = lazy(() => import("./larder/larder-page"));
const ReadPage = lazy(() => import("./exchange/read-page"));
const GuessPage = lazy(() => import("./guess/guess-page"));
const CardPage = lazy(() => import("./card/card-page"));
const CookPage = lazy(() => import("./cook/cook-page"));

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

function Frame() {
	const [prefs] = usePrefs();
	return (
		<ConfigProvider theme={antTheme(prefs.mode)} csp={{ nonce }} wave={{ disabled: true }}>
			<AntApp message={{ maxCount: 1 }}>
				<Masthead />
				<main id="main">
					<Suspense fallback={<p className="loading">Opening…</p>}>
						<Outlet />
					</Suspense>
				</main>
			</AntApp>
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
		element: <Frame />,
		children: [
			{
				errorElement: <Broken />,
				children: [
					{ path: "/", element: <CookList /> },
					{ path: "/cooks/:id/card", element: <CardPage /> },
					{ path: "/cooks/:id/:stage?/:piece?", element: <CookPage /> },
					{ path: "/bench", element: <BenchPage /> },
					{ path: "/bench/:id", element: <FormulaPage /> },
					{ path: "/compare", element: <ComparePage /> },
					{ path: "/label", element: <LabelPage /> },
					{ path: "/jars", element: <JarsPage /> },
					{ path: "/larder", element: <LarderPage /> },
					{ path: "/read", element: <ReadPage /> },
					{ path: "/guess", element: <GuessPage /> },
					{ path: "*", element: <Nothing title="There is nothing at this address" /> },
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
