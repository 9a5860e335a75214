/** The cold blue-grey hatch that always means salt. Put once in an SVG; fill with url(#id). */
export function Hatch({ id }: { id: string }) {
	return (
		<defs>
			<pattern id={id} width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
				<rect width="7" height="7" className="hatch-ground" />
				<rect width="2" height="7" className="hatch-line" />
			</pattern>
		</defs>
	);
}
