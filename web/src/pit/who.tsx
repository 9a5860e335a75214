import { Input } from "antd";
import { useId, useState } from "react";
import { person } from "./use-say";

/** Whose name stands on what is pressed on this screen. */
export function Who({ label = "Your name, on what you press here" }: { label?: string }) {
	const id = useId();
	const [name, setName] = useState(person.get);
	return (
		<div className="pit-asked">
			<p>
				<label htmlFor={id}>{label}</label>
				<Input
					id={id}
					variant="underlined"
					maxLength={40}
					autoComplete="off"
					value={name}
					onChange={(e) => {
						setName(e.target.value);
						person.set(e.target.value);
					}}
				/>
			</p>
		</div>
	);
}
