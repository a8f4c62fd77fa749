import type { ClauseGroup } from '../../cladding/model';
import { instancesOf } from '../../part/element-table';
import { placesOf, trianglesOf } from '../../part/places';
import { enumeration, list, NONE, real, type StepValue } from '../step/text';
import type { IfcFile } from './file';
import type { SharedThings } from './shared';

const faceLists = new WeakMap<ArrayLike<number>, StepValue>();
/** Triangles as the format counts them, from 1; instances with the same ones share the text. */
function facesOf(triangles: ArrayLike<number>): StepValue {
	let faces = faceLists.get(triangles);
	if (!faces) {
		const texts: StepValue[] = [];
		for (let t = 0; t < triangles.length; t += 3)
			texts.push(list([0, 1, 2].map((k) => String(triangles[t + k]! + 1))));
		faces = list(texts);
		faceLists.set(triangles, faces);
	}
	return faces;
}

/** The tessellated bodies of a piece. */
export function bodiesOf(
	{ step }: IfcFile,
	shared: SharedThings,
	clause: ClauseGroup,
	row: number
): StepValue[] {
	const { materials } = clause.group.ready;
	return clause.group.run.elements.flatMap((table) => {
		return (instancesOf(table).get(row) ?? []).map((k) => {
			const points: StepValue[] = [];
			const places = placesOf(table.shape, k);
			for (let o = 0; o < places.length; o += 3)
				points.push(`(${real(places[o]!, 3)},${real(places[o + 1]!, 3)},${real(places[o + 2]!, 3)})`);
			const item = step.add(
				'IFCTRIANGULATEDFACESET',
				step.add('IFCCARTESIANPOINTLIST3D', list(points)),
				NONE,
				enumeration('T'),
				facesOf(trianglesOf(table.shape, k)),
				NONE
			);
			step.add('IFCSTYLEDITEM', item, list([shared.style(materials[table.element]!)]), NONE);
			return item;
		});
	});
}

/** m³ */
export function volumeOf(clause: ClauseGroup, row: number): number {
	let sum = 0;
	for (const table of clause.group.run.elements)
		for (const k of instancesOf(table).get(row) ?? []) sum += table.volume[k]!;
	return sum / 1e9;
}
