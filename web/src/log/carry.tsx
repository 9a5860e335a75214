import { DownloadOutlined, UploadOutlined } from "@ant-design/icons";
import {
	type MutationState,
	useMutation,
	useMutationState,
	useQuery,
	useQueryClient,
} from "@tanstack/react-query";
import { Button } from "antd";
import { api, need } from "../api/client";
import type { components } from "../api/schema";
import { ChooseFile } from "../shared/choose-file";

type Taken = components["schemas"]["TakenIn"];
const taking = ["take-book"];

/** All that is on record, out as one file and in again. */
export function Carry() {
	const queries = useQueryClient();
	const take = useMutation({
		mutationKey: taking,
		mutationFn: async (file: File) =>
			need(
				await api.POST("/api/book", {
					body: { book: file as never },
					bodySerializer: () => {
						const form = new FormData();
						form.append("book", file);
						return form;
					},
				}),
			),
		onSuccess: () => queries.invalidateQueries(),
	});
	// What came of the last one stays to be read when the page is another after it, as of an empty logbook.
	const last = useMutationState({
		filters: { mutationKey: taking },
		select: (m) => m.state as MutationState<Taken, Error, File>,
	}).at(-1);
	const pending = last?.status === "pending";
	const far = useQuery({
		queryKey: ["taking"],
		enabled: pending,
		refetchInterval: 1000,
		gcTime: 0,
		queryFn: async () => need(await api.GET("/api/book/taking")),
	});
	return (
		<section className="carry" aria-label="Carry it all away">
			<h2>Carry it all away</h2>
			<p className="says">
				Everything on record in one file of open formats: cook-outs, readings, formulas, photographs. Taken in
				again, here or elsewhere, it is the same book; what is there already stays as it is.
			</p>
			<p className="carry-acts">
				<Button size="large" icon={<DownloadOutlined />} href="/api/book" download>
					Download the whole book
				</Button>
				<ChooseFile label="A book to take in" accept=".zip,application/zip" onChoose={take.mutate}>
					<Button size="large" icon={<UploadOutlined />} loading={pending}>
						Take a book in
					</Button>
				</ChooseFile>
			</p>
			{pending && (
				<p role="status">
					Reading the book{far.data?.share ? `: ${Math.floor(far.data.share * 100)} %` : ""}. A large one
					takes minutes; nothing of it counts until all is in.
				</p>
			)}
			{last?.data && (
				<p role="status">
					Added {last.data.added} entries; {last.data.here} were here already.
				</p>
			)}
			{last?.error && (
				<p className="typed-error" role="alert">
					{last.error.message}
				</p>
			)}
		</section>
	);
}
