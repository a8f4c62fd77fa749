import type { ColumnReader } from '../field/column';
import { turnedOver } from '../geometry/triangulate';
import { MAP, type ElementShape } from '../part/element-table';
import type { PartRun } from '../part/run';

/**
 * How a part lies on its cell: by how many corners it is turned on, whether its outside looks in, and whether it is
 * its own mirror image, right for left.
 */
export interface Lie {
	readonly turn: number;
	readonly flip: boolean;
	readonly mirror: boolean;
}

/** As its cell has it. */
export const AS_DRAWN: Lie = { turn: 0, flip: false, mirror: false };

/**
 * A lie in words; nothing for one as it is drawn.
 *
 * ```ts
 * lieText({ turn: 1, flip: false, mirror: true }); // turned by 1 corner, opposite hand
 * ```
 */
export const lieText = ({ turn, flip, mirror }: Lie): string =>
	[
		...(turn ? [`turned by ${turn} ${turn === 1 ? 'corner' : 'corners'}`] : []),
		...(flip ? ['inside out'] : []),
		...(mirror ? ['opposite hand'] : [])
	].join(', ');

/**
 * Which corner of its cell a part takes for one of its own, counted from 0: turned on by so many, and the other way
 * round where it is flipped or mirrored, so that its foot stays the foot.
 *
 * ```ts
 * cornerTaken({ turn: 1, flip: false, mirror: false }, 4, 3); // 0
 * ```
 */
export function cornerTaken({ turn, flip, mirror }: Lie, corners: number, corner: number): number {
	const own = flip !== mirror ? corners + 1 - corner : corner;
	return (own + turn) % corners;
}

/**
 * The number, from 1, that a part has for a corner of its cell, counted from 0.
 *
 * ```ts
 * numberOfCorner({ turn: 1, flip: false, mirror: false }, 4, 0); // 4
 * ```
 */
export function numberOfCorner(lie: Lie, corners: number, corner: number): number {
	let own = 0;
	while (cornerTaken(lie, corners, own) !== corner) own++;
	return own + 1;
}

/**
 * The columns of sites as a part that lies so takes them. A mirrored part is made on the mirror image of its cell,
 * where right and left are as it was drawn, and mirrored back when it is made.
 *
 * ```ts
 * const column = lying(AS_DRAWN, 4, 0, () => arrayColumn(heights));
 * ```
 * @param corners of the cells @param middle x of the plane that it is mirrored in (mm)
 */
export function lying(
	lie: Lie,
	corners: number,
	middle: number,
	given: (name: string) => ColumnReader
): (name: string) => ColumnReader {
	const { flip, mirror } = lie;
	return (name) => {
		const [, of, number, axis] = name.match(/^(corner|normal|far)(\d+)\.([xyz])$/) ?? [];
		const taken = number ? `${of}${cornerTaken(lie, corners, Number(number) - 1) + 1}.${axis}` : name;
		const column = given(taken);
		const isNormal = /^normal\d*\.[xyz]$/.test(name);
		const isPlace = /^(corner\d+|far\d+|centre|face_centre)\.x$/.test(name);
		let sign = isNormal && flip ? -1 : 1;
		let from = 0;
		if (mirror && isNormal && name.endsWith('.x')) sign = -sign;
		if (mirror && isPlace) [sign, from] = [-1, 2 * middle];
		// Aside is to the other side in a mirror.
		if (mirror && name === 'plan_angle') sign = -1;
		if (sign === 1) return column;
		return (out, first, end) => {
			column(out, first, end);
			for (let r = 0; r < end - first; r++) out[r] = from - out[r]!;
		};
	};
}

function mirrored(shape: ElementShape): ElementShape {
	const opposite = (places: Float32Array) => {
		for (let k = 0; k < places.length; k += 3) places[k] = -places[k]!;
		return places;
	};
	switch (shape.is) {
		case 'made':
			return { ...shape, positions: opposite(shape.positions), triangles: turnedOver(shape.triangles) };
		case 'own': {
			const triangles = shape.triangles.slice();
			for (let k = 0; k < triangles.length; k += 3) {
				const corner = triangles[k + 1]!;
				triangles[k + 1] = triangles[k + 2]!;
				triangles[k + 2] = corner;
			}
			return { ...shape, positions: opposite(shape.positions), triangles };
		}
		case 'placed': {
			const maps = shape.maps.slice();
			for (let k = 0; k < maps.length; k += MAP / 8) maps[k] = -maps[k]!;
			return { ...shape, maps, mirrored: shape.mirrored.map((one) => 1 - one) };
		}
	}
}

/**
 * What was made on mirror images of cells, back on the cells themselves: its meshes turned right for left about the
 * origin of the run, outward still. Nothing else may hold what it was.
 *
 * ```ts
 * const onCells = mirroredBack(run);
 * ```
 */
export const mirroredBack = (run: PartRun): PartRun => ({
	...run,
	elements: run.elements.map((table) => ({ ...table, shape: mirrored(table.shape) }))
});
