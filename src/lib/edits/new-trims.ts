import type { Edit } from '$core/project/edits';
import { EVERY_FACE, type Mass, type TrimInput, type TrimKind } from '$core/project/form-schema';
import { insertAt, pathTo } from '$core/project/typed-path';
import type { ShapeView } from '$lib/worker/views';
import { freshId } from './fresh-id';

/** Trims that can be made on a face by itself. */
export type NewTrim = Exclude<TrimKind, 'mass'> | 'open curve';

/** What is said of each way to trim a face, for the list of what can be added. */
export const newTrimWords: readonly { kind: NewTrim; label: string }[] = [
	{ kind: 'outline', label: 'Add an opening' },
	{ kind: 'map', label: 'Add an opening on the flat map' },
	{ kind: 'curve', label: 'Add an opening by a closed curve' },
	{ kind: 'open curve', label: 'Cut it off along a curve' },
	{ kind: 'level', label: 'Cut it off at a height' },
	{ kind: 'plane', label: 'Cut it off by a plane' }
];

type Vector = [number, number, number];

/** Middle of a face (mm) and its outside there. */
function middleOf(face: ShapeView): { at: Vector; normal: Vector } {
	const node = 3 * (Math.floor(face.rows / 2) * face.columns + Math.floor(face.columns / 2));
	const pick = (list: Float32Array) => [0, 1, 2].map((k) => list[node + k]!) as Vector;
	const own = pick(face.positions);
	return {
		at: own.map((value, k) => Math.round(value + face.origin[k]!)) as Vector,
		normal: pick(face.normals)
	};
}

/** Points over the middle of a face from its left rim to its right one (mm). */
function acrossMiddle({ rows, columns, positions, origin }: ShapeView): Vector[] {
	const row = Math.floor(rows / 2) * columns;
	const points = 5;
	return Array.from({ length: points }, (_, n) => {
		const node = 3 * (row + Math.round((n * (columns - 1)) / (points - 1)));
		return origin.map((value, k) => Math.round(value + positions[node + k]!)) as Vector;
	});
}

/** A trim of a face of a sensible size about its middle, as a value for the document. */
export function newTrim(kind: NewTrim, face: ShapeView, mass: Mass): TrimInput {
	const { at, normal } = middleOf(face);
	const isOpening = kind === 'outline' || kind === 'map' || kind === 'curve';
	const common = {
		id: freshId(isOpening ? 'opening' : 'end', mass.trims),
		face: face.name
	};
	const radius = Math.max(10, Math.round(Math.min(face.across, face.up) / 60) * 10);
	const outline = { shape: 'circle' as const, radius };
	switch (kind) {
		case 'outline': {
			// Along the axis that looks most like the way into the face.
			const most = normal.reduce((best, v, k) => (Math.abs(v) > Math.abs(normal[best]!) ? k : best), 0);
			const direction = normal.map((value, k) => (k === most ? -Math.sign(value) || 1 : 0)) as Vector;
			const before = at.map((value, k) => value - 1000 * direction[k]!) as Vector;
			return { by: kind, ...common, outline, at: before, direction };
		}
		case 'map':
			return { by: kind, ...common, outline, at: [0, Math.round(face.up / 2)] };
		case 'curve': {
			// A ring about the outside in the middle, in the plane that touches the face there.
			const level: Vector = Math.abs(normal[2]) > 0.9 ? [1, 0, 0] : [-normal[1], normal[0], 0];
			const size = Math.hypot(...level);
			const x = level.map((value) => value / size) as Vector;
			const y: Vector = [
				normal[1] * x[2] - normal[2] * x[1],
				normal[2] * x[0] - normal[0] * x[2],
				normal[0] * x[1] - normal[1] * x[0]
			];
			const points = Array.from({ length: 8 }, (_, k) => {
				const [c, s] = [radius * Math.cos((k * Math.PI) / 4), radius * Math.sin((k * Math.PI) / 4)];
				return at.map((value, n) => Math.round(value + c * x[n]! + s * y[n]!)) as Vector;
			});
			return { by: kind, ...common, curve: { points, joins: 'smooth' } };
		}
		case 'open curve':
			return {
				by: 'curve',
				...common,
				keep: 'inside',
				curve: { points: acrossMiddle(face), joins: 'smooth', closed: false }
			};
		case 'level':
			return { by: kind, ...common, height: at[2] };
		case 'plane': {
			const upright = Math.abs(normal[2]) < 0.7;
			return { by: kind, ...common, at, normal: upright ? [0, 0, -1] : [-1, 0, 0] };
		}
	}
}

const byMass = (mass: Mass, other: Mass, keep: 'outside' | 'inside') =>
	insertAt(pathTo('masses', mass.id, 'trims'), mass.trims.length, {
		by: 'mass',
		id: freshId(`by-${other.id}`.slice(0, 100), mass.trims),
		face: EVERY_FACE,
		within: 5,
		keep,
		mass: other.id
	});

/** How two masses can be made one of, or one taken from another: what is done to each of them. */
export const cutsOfTwo: readonly {
	readonly label: string;
	readonly said: (mass: string, other: string) => string;
	readonly edits: (mass: Mass, other: Mass) => Edit[];
}[] = [
	{
		label: 'Cut it where it meets',
		said: (mass, other) => `${mass} ends at ${other}`,
		edits: (mass, other) => [byMass(mass, other, 'outside')]
	},
	{
		label: 'Join it with',
		said: (mass, other) => `${mass} and ${other} are joined`,
		edits: (mass, other) => [byMass(mass, other, 'outside'), byMass(other, mass, 'outside')]
	},
	{
		label: 'Take out of it',
		said: (mass, other) => `${other} is taken out of ${mass}`,
		edits: (mass, other) => [byMass(mass, other, 'outside'), byMass(other, mass, 'inside')]
	}
];
