import { DownloadOutlined, UploadOutlined } from "@ant-design/icons";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Button } from "antd";
import { api, need } from "../api/client";
import { ChooseFile } from "../shared/choose-file";

/** All that is on record, out as one file and in again. */
export function Carry() {
	const queries = useQueryClient();
	const take = useMutation({
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
	const far = useQuery({
		queryKey: ["taking"],
		enabled: take.isPending,
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
					<Button size="large" icon={<UploadOutlined />} loading={take.isPending}>
						Take a book in
					</Button>
				</ChooseFile>
			</p>
			{take.isPending && (
				<p role="status">
					Reading the book{far.data?.share ? `: ${Math.floor(far.data.share * 100)} %` : ""}. A large one
					takes minutes; nothing of it counts until all is in.
				</p>
			)}
			{take.data && (
				<p role="status">
					Taken in: {take.data.added} lines that are new; {take.data.here} were here already.
				</p>
			)}
			{take.error && (
				<p className="typed-error" role="alert">
					{take.error.message}
				</p>
			)}
		</section>
	);
}
