import { CameraOutlined, CloseOutlined, WarningFilled } from "@ant-design/icons";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Button } from "antd";
import { useParams } from "react-router";
import { api, need } from "../api/client";
import { ChooseFile } from "./choose-file";
import { useMessage } from "./messages";
import { useUndo } from "./use-undo";
import "./photos.css";

interface Props {
	/** Key of the piece. */
	piece: string;
	/** What the piece is called. */
	title: string;
	/** The cook-out is not on record yet. */
	unsaved?: boolean;
}

/** Photographs of a piece. They are made small and lose everything but the picture. */
export function Photos({ piece, title, unsaved }: Props) {
	const { id = "" } = useParams();
	const queries = useQueryClient();
	const undo = useUndo();
	const message = useMessage();
	const refresh = () => queries.invalidateQueries({ queryKey: ["photos", id] });
	const list = useQuery({
		queryKey: ["photos", id],
		enabled: !unsaved,
		queryFn: async () => need(await api.GET("/api/cooks/{id}/photos", { params: { path: { id } } })).items,
	});
	const add = useMutation({
		mutationFn: async (one: File) =>
			need(
				await api.POST("/api/cooks/{id}/photos", {
					params: { path: { id }, query: { piece } },
					body: one as never,
					bodySerializer: (b) => b as never,
					headers: { "Content-Type": "application/octet-stream" },
				}),
			),
		onSuccess: refresh,
	});
	const remove = useMutation({
		mutationFn: async (photo: number) => {
			const { error, response } = await api.DELETE("/api/photos/{id}", { params: { path: { id: photo } } });
			if (error) need({ error, response });
		},
		onSuccess: (_, photo) => {
			refresh();
			undo("The photograph is gone.", async () => {
				await api.POST("/api/photos/{id}/restore", { params: { path: { id: photo } } });
				refresh();
			});
		},
		onError: (e) => message.error(e.message),
	});
	return (
		<section className="photos" aria-label="Photographs">
			{(list.data ?? [])
				.filter((p) => p.piece === piece)
				.map((p) => (
					<figure key={p.id}>
						<img src={`/api/photos/${p.id}`} alt={`Of ${title}`} />
						<Button
							type="text"
							icon={<CloseOutlined />}
							aria-label="Take this photograph away"
							onClick={() => remove.mutate(p.id)}
						/>
					</figure>
				))}
			<ChooseFile label="Photograph" accept="image/jpeg,image/png,image/gif" onChoose={add.mutate}>
				<Button icon={<CameraOutlined />} disabled={unsaved} loading={add.isPending}>
					Add a photograph
				</Button>
			</ChooseFile>
			{add.error && (
				<p className="typed-error" role="alert">
					<WarningFilled aria-hidden /> {add.error.message}
				</p>
			)}
		</section>
	);
}
