import type { Model } from '../../cladding/model';
import { add, cross, pointAt, scale, subtract, unit, type Vector } from '../../geometry/vector';
import { prismOf, type Prism } from '../../part/prism';
import { bodiesOf, madePieces, type MadePiece } from '../piece-bodies';
import { headerOf, productOf } from './product';
import { DERIVED, enumeration, text, type StepRef } from './text';
import { StepWriter } from './writer';

/** A flat side of a body: rings of its corners, counter-clockwise from without, then openings the other way. */
interface Side {
	readonly rings: readonly (readonly number[])[];
	readonly normal: Vector;
}

/** A body of flat sides. */
interface Solid {
	/** mm */
	readonly corners: readonly Vector[];
	readonly sides: readonly Side[];
}

/** What one outline drawn along one direction has for sides: both ends, and one for each edge. */
function solidOf({ origin, along, normal, loops, way }: Prism): Solid {
	const across = cross(normal, along);
	const place = (x: number, y: number, z: number) =>
		add(origin, add(scale(along, x), add(scale(across, y), scale(normal, z))));
	const to = subtract(place(...way), origin);
	const corners: Vector[] = [];
	const near: number[][] = [];
	for (const loop of loops) {
		const ring: number[] = [];
		for (let k = 0; k < loop.length; k += 2) ring.push(corners.push(place(loop[k]!, loop[k + 1]!, 0)) - 1);
		near.push(ring);
	}
	const count = corners.length;
	for (let k = 0; k < count; k++) corners.push(add(corners[k]!, to));
	const far = near.map((ring) => ring.map((k) => k + count));
	const sides: Side[] = [
		{ rings: near.map((ring) => [...ring].reverse()), normal: scale(normal, -1) },
		{ rings: far, normal }
	];
	for (const ring of near)
		ring.forEach((a, k) => {
			const b = ring[(k + 1) % ring.length]!;
			sides.push({
				rings: [[a, b, b + count, a + count]],
				normal: unit(cross(subtract(corners[b]!, corners[a]!), to))
			});
		});
	return { corners, sides };
}

/** A body by its triangles; those without an area have no side. */
function solidOfTriangles(places: ArrayLike<number>, triangles: ArrayLike<number>): Solid {
	const corners = Array.from({ length: places.length / 3 }, (_, k) => pointAt(places, k));
	const sides: Side[] = [];
	for (let t = 0; t < triangles.length; t += 3) {
		const ring = [triangles[t]!, triangles[t + 1]!, triangles[t + 2]!];
		const [a, b, c] = ring.map((k) => corners[k]!) as [Vector, Vector, Vector];
		sides.push({ rings: [ring], normal: unit(cross(subtract(b, a), subtract(c, a))) });
	}
	return { corners, sides };
}

const TRUE = enumeration('T');
const FALSE = enumeration('F');
const NAMELESS = "''";
/** mm to a millionth; directions to nine decimals. */
const PLACE_DECIMALS = 6;
const DIRECTION_DECIMALS = 9;

class SolidWriter {
	constructor(private readonly step: StepWriter) {}

	private direction(to: Vector): StepRef {
		return this.step.addTuple('DIRECTION', to, DIRECTION_DECIMALS, NAMELESS);
	}

	/** @param origin that its corners are seen from (mm) */
	write(name: string, { corners, sides }: Solid, origin: Vector): StepRef {
		const { step } = this;
		const points = corners.map((at) =>
			step.addTuple('CARTESIAN_POINT', add(at, origin), PLACE_DECIMALS, NAMELESS)
		);
		const vertices = points.map((point) => step.add('VERTEX_POINT', NAMELESS, point));
		const edges = new Map<number, StepRef>();
		/** Each edge is of two sides, which run along it both ways. */
		const edge = (a: number, b: number): StepRef => {
			const [from, to] = a < b ? [a, b] : [b, a];
			const key = from * corners.length + to;
			let known = edges.get(key);
			if (!known) {
				const way = this.direction(unit(subtract(corners[to]!, corners[from]!)));
				const line = step.add('LINE', NAMELESS, points[from]!, step.add('VECTOR', NAMELESS, way, '1.'));
				known = step.add('EDGE_CURVE', NAMELESS, vertices[from]!, vertices[to]!, line, TRUE);
				edges.set(key, known);
			}
			return step.add('ORIENTED_EDGE', NAMELESS, DERIVED, DERIVED, known, a < b ? TRUE : FALSE);
		};
		const faces = sides.map(({ rings, normal }) => {
			const bounds = rings.map((ring, k) => {
				const loop = ring.map((a, n) => edge(a, ring[(n + 1) % ring.length]!));
				return step.add(
					k ? 'FACE_BOUND' : 'FACE_OUTER_BOUND',
					NAMELESS,
					step.add('EDGE_LOOP', NAMELESS, loop),
					TRUE
				);
			});
			const [first, second] = rings[0] as [number, number];
			const axes = step.add(
				'AXIS2_PLACEMENT_3D',
				NAMELESS,
				points[first]!,
				this.direction(normal),
				this.direction(unit(subtract(corners[second]!, corners[first]!)))
			);
			const plane = step.add('PLANE', NAMELESS, axes);
			return step.add('ADVANCED_FACE', NAMELESS, bounds, plane, TRUE);
		});
		const shell = step.add('CLOSED_SHELL', NAMELESS, faces);
		return step.add('MANIFOLD_SOLID_BREP', text(name), shell);
	}

	/** The bodies of a piece, each called by its mark and element. */
	piece({ clause, row, mark, origin }: MadePiece): StepRef[] {
		const { elements } = clause.group.ready;
		return bodiesOf(clause, row).map(({ element, places, triangles }) => {
			const prism = prismOf(places, triangles);
			const solid = prism ? solidOf(prism) : solidOfTriangles(places, triangles);
			return this.write(`${mark} ${elements[element]!.label}`, solid, origin);
		});
	}
}

/**
 * All pieces as solids (ISO 10303-21, AP242), in millimetres: what is one outline drawn along one direction, as flat plates
 * and straight bars are, with the sides that it has; other bodies by their triangles.
 * @param written the file's time stamp, ISO 8601
 */
export function writeStepSolids(model: Model, written: string): readonly Uint8Array<ArrayBuffer>[] {
	const { name } = model.project;
	const step = new StepWriter(headerOf('Pieces as solids', `${name}-pieces.stp`, written));
	const shapeIs = productOf(step, name);
	const writer = new SolidWriter(step);
	const solids: StepRef[] = [];
	for (const piece of madePieces(model)) solids.push(...writer.piece(piece));
	shapeIs('ADVANCED_BREP_SHAPE_REPRESENTATION', solids);
	return step.file();
}
