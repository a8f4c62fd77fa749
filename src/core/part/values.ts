import { LENGTH, type NumberKind, dimensionOf } from '../units/dimension';
import type { GeometryFunction } from '../units/formula/check';
import { numberOf, type FormulaType } from '../units/formula/expression';
import type { Recipe } from './block/recipe';
import type { Cap } from './caps';
import type {
	CutSection,
	DomainBuilder,
	FittedBlock,
	PiercedSheet,
	PointRegisters,
	Register
} from './builder';
import type { Stock } from './stock';
import type { TubeJoint } from './tubes/joint';

interface At<Is extends string> {
	readonly is: Is;
	readonly at: PointRegisters;
}
interface Through<Is extends string> {
	readonly is: Is;
	readonly points: readonly PointRegisters[];
}

/** A local frame: unit directions square to each other. */
export interface Frame {
	readonly origin: PointRegisters;
	readonly right: PointRegisters;
	readonly up: PointRegisters;
	readonly normal: PointRegisters;
}

/** Faces without thickness; every facet a loop of vertices, anticlockwise from outside. */
export interface Sheet {
	readonly vertices: readonly PointRegisters[];
	readonly facets: readonly (readonly number[])[];
}

/** A line that leaves a node, and the bar on it as far as there is one (mm). */
export interface Way {
	readonly direction: PointRegisters;
	/** Where it goes: the node at its other end. */
	readonly far: PointRegisters;
	/** How wide the bar is beside its line, and how deep square to the face; 0 where there is none. */
	readonly across: Register;
	readonly deep: Register;
	/** How far the middle of its depth lies outside the node. */
	readonly middle: Register;
}

/** What a name in a part stands for. */
export type Value =
	| { readonly is: 'number'; readonly register: Register; readonly type: FormulaType }
	| At<'point'>
	| At<'direction'>
	/** One direction for each corner. */
	| Through<'directions'>
	| Through<'ring'>
	| Through<'path'>
	/** Rings of one step that was made for every turn. */
	| { readonly is: 'rings'; readonly rings: readonly (readonly PointRegisters[])[] }
	/** Lengths of one step that was made for every turn. */
	| { readonly is: 'lengths'; readonly lengths: readonly Register[] }
	/** The lines that leave a node, counter-clockwise. */
	| { readonly is: 'ways'; readonly ways: readonly Way[] }
	| { readonly is: 'plane'; readonly frame: Frame }
	| { readonly is: 'sheet'; readonly sheet: Sheet }
	| { readonly is: 'solid'; readonly solids: readonly Solid[]; readonly stock: Stock<Register> | null }
	/** How it is made in the unit box; its numbers are registers. */
	| { readonly is: 'block'; readonly recipe: Recipe }
	| { readonly is: 'fitted block'; readonly fitted: FittedBlock }
	| { readonly is: 'pierced sheet'; readonly filling: PiercedSheet }
	| { readonly is: 'joined tubes'; readonly joint: TubeJoint<PointRegisters, Register> };
export type ValueOf<Is extends Value['is']> = Extract<Value, { is: Is }>;

/** A cap whose triangles are found for each piece, where `when` is not 0, or everywhere. */
export interface LookedCap {
	readonly cap: Cap;
	readonly when: Register | null;
	/** The flag of pieces that cannot be made, since its loops meet; null where the plain triangles do then. */
	readonly crossed: number | null;
}

/** Points of a solid, those of its sections after the others. */
export const pointsOfSolid = (v: Vectors, { vertices, sections = [] }: Solid): PointRegisters[] => [
	...vertices,
	...sections.flatMap(({ at, x, y, corners }) =>
		corners.map(([across, along]) => v.along(v.along(at, x, across), y, along))
	)
];

/** How many points a solid has. */
export const sizeOfSolid = ({ vertices, sections = [] }: Solid): number =>
	sections.reduce((sum, { corners }) => sum + corners.length, vertices.length);

/** A mesh and what it measures. Volume mm³; area is a plate's face, length a bar's, or 0. */
export interface Solid {
	readonly vertices: readonly PointRegisters[];
	/** More vertices, numbered after these: too many to be reckoned one by one. */
	readonly sections?: readonly CutSection[];
	readonly triangles: readonly number[];
	readonly caps: readonly LookedCap[];
	readonly volume: Register;
	readonly area: Register;
	readonly length: Register;
}

export function numberValue(register: Register, kind: NumberKind): Value {
	const type: FormulaType = kind === 'switch' ? { is: 'switch' } : numberOf(dimensionOf(kind));
	return { is: 'number', register, type };
}

export function typeOf(value: Value): FormulaType {
	return value.is === 'number' ? value.type : { is: 'geometry', of: value.is };
}

/** Vector arithmetic on registers. */
export class Vectors {
	constructor(readonly b: DomainBuilder) {}

	private each(op: (axis: 'x' | 'y' | 'z') => Register): PointRegisters {
		return { x: op('x'), y: op('y'), z: op('z') };
	}

	add = (p: PointRegisters, q: PointRegisters) => this.each((k) => this.b.add(p[k], q[k]));
	subtract = (p: PointRegisters, q: PointRegisters) => this.each((k) => this.b.subtract(p[k], q[k]));
	scale = (p: PointRegisters, s: Register) => this.each((k) => this.b.multiply(p[k], s));
	/** p + q s */
	along = (p: PointRegisters, q: PointRegisters, s: Register) => this.add(p, this.scale(q, s));
	mix = (p: PointRegisters, q: PointRegisters, t: Register) => this.along(p, this.subtract(q, p), t);
	dot = (p: PointRegisters, q: PointRegisters) =>
		this.b.sum([this.b.multiply(p.x, q.x), this.b.multiply(p.y, q.y), this.b.multiply(p.z, q.z)]);
	cross = (p: PointRegisters, q: PointRegisters): PointRegisters => {
		const { b } = this;
		return {
			x: b.subtract(b.multiply(p.y, q.z), b.multiply(p.z, q.y)),
			y: b.subtract(b.multiply(p.z, q.x), b.multiply(p.x, q.z)),
			z: b.subtract(b.multiply(p.x, q.y), b.multiply(p.y, q.x))
		};
	};
	length = (p: PointRegisters) => this.b.apply('sqrt', this.dot(p, p));
	/** Between two directions of any length, 0 to π. */
	angle = (p: PointRegisters, q: PointRegisters) =>
		this.b.apply('atan2', this.length(this.cross(p, q)), this.dot(p, q));
	distance = (p: PointRegisters, q: PointRegisters) => this.length(this.subtract(p, q));
	unit = (p: PointRegisters) => {
		// One division and three products: a division costs several of them.
		const inverse = this.b.divide(this.b.constant(1), this.length(p));
		return this.each((k) => this.b.multiply(p[k], inverse));
	};
	sum = (points: readonly PointRegisters[]) => points.reduce(this.add);
	centre = (points: readonly PointRegisters[]) =>
		this.scale(this.sum(points), this.b.constant(1 / points.length));
	/** Points outside for a counter-clockwise ring: of four corners by its diagonals, of others as a fan. */
	vectorArea = (ring: readonly PointRegisters[]) => {
		const half = this.b.constant(0.5);
		if (ring.length === 4) {
			const [p, q, r, s] = ring as [PointRegisters, PointRegisters, PointRegisters, PointRegisters];
			return this.scale(this.cross(this.subtract(r, p), this.subtract(s, q)), half);
		}
		const origin = ring[0]!;
		const parts = ring
			.slice(1, -1)
			.map((p, k) => this.cross(this.subtract(p, origin), this.subtract(ring[k + 2]!, origin)));
		return this.scale(this.sum(parts), half);
	};
	negate = (p: PointRegisters) => this.each((k) => this.b.apply('negate', p[k]));
	/** p where the condition is not 0, q elsewhere. */
	choose = (when: Register, p: PointRegisters, q: PointRegisters) =>
		this.each((k) => this.b.apply('choose', when, p[k], q[k]));
	/** What is left of p square to a unit direction, made a unit. */
	squareTo = (p: PointRegisters, unit: PointRegisters) =>
		this.unit(this.subtract(p, this.scale(unit, this.dot(p, unit))));
	/** The unit normal of a ring. */
	normalOf = (ring: readonly PointRegisters[]) => this.unit(this.vectorArea(ring));
	/** A sum of points by constant weights. */
	weighted = (points: readonly PointRegisters[], weights: readonly number[]) =>
		this.sum(
			points.flatMap((p, k) => (weights[k] === 0 ? [] : [this.scale(p, this.b.constant(weights[k]!))]))
		);
	pathLength = (path: readonly PointRegisters[]) =>
		this.b.sum(path.slice(1).map((p, k) => this.distance(path[k]!, p)));
	/** The gap between the diagonals of four points. */
	gap = (ring: readonly PointRegisters[]) => {
		const [p, q, r, s] = ring as [PointRegisters, PointRegisters, PointRegisters, PointRegisters];
		const normal = this.cross(this.subtract(r, p), this.subtract(s, q));
		const height = this.b.apply('abs', this.dot(this.subtract(q, p), normal));
		return this.b.divide(height, this.length(normal));
	};
}

type Lowering = (vectors: Vectors, args: readonly Value[]) => Register;
/** A ring's edges or a path's pieces, as pairs of points. */
export const piecesOf = ({ is, points }: ValueOf<'ring' | 'path'>) =>
	points
		.slice(is === 'ring' ? 0 : 1)
		.map((p, k): [PointRegisters, PointRegisters] =>
			is === 'ring' ? [p, points[(k + 1) % points.length]!] : [points[k]!, p]
		);

const isGeometry = (type: FormulaType | undefined, ...of: string[]) =>
	type?.is === 'geometry' && of.includes(type.of);

const points = (value: Value | undefined) => (value && 'points' in value ? value.points : []);
const at = (value: Value | undefined) => (value && 'at' in value ? value.at : undefined)!;

/** The nearest points of two straight lines through the ends of paths. */
export function nearest(
	v: Vectors,
	first: readonly PointRegisters[],
	second: readonly PointRegisters[]
): [PointRegisters, PointRegisters] {
	const { b } = v;
	const [p, q] = [first[0]!, second[0]!];
	const [d, e] = [v.subtract(first.at(-1)!, p), v.subtract(second.at(-1)!, q)];
	const between = v.subtract(q, p);
	const n = v.cross(d, e);
	const size = v.dot(n, n);
	const along = (other: PointRegisters) => b.divide(v.dot(v.cross(between, other), n), size);
	return [v.along(p, d, along(e)), v.along(q, e, along(d))];
}

/** A function of lengths that were gathered. */
const ofLengths = (
	lower: (v: Vectors, lengths: readonly Register[]) => Register
): GeometryFunction & { lower: Lowering } => ({
	takes: 'gathered lengths',
	result: ([a]) => (isGeometry(a, 'lengths') ? numberOf(LENGTH) : undefined),
	// A point without ways has none.
	lower: (v, [a]) => (a?.is === 'lengths' && a.lengths.length ? lower(v, a.lengths) : v.b.constant(0))
});

/** Functions on geometry that formulas may use, with their meaning. */
export const geometryFunctions: Readonly<Record<string, GeometryFunction & { lower: Lowering }>> = {
	length: {
		takes: 'one path or ring',
		result: ([a]) => (isGeometry(a, 'path', 'ring') ? numberOf(LENGTH) : undefined),
		lower: (v, [a]) => {
			const along = points(a);
			return v.pathLength(a!.is === 'ring' ? [...along, along[0]!] : along);
		}
	},
	distance: {
		takes: 'two points',
		result: ([a, b]) => (isGeometry(a, 'point') && isGeometry(b, 'point') ? numberOf(LENGTH) : undefined),
		lower: (v, [a, b]) => v.distance(at(a), at(b))
	},
	angle: {
		takes: 'two directions',
		result: ([a, b]) =>
			isGeometry(a, 'direction') && isGeometry(b, 'direction') ? numberOf(dimensionOf('angle')) : undefined,
		lower: (v, [a, b]) => v.angle(at(a), at(b))
	},
	area: {
		takes: 'one ring, or several gathered ones',
		result: ([a]) => (isGeometry(a, 'ring', 'rings') ? numberOf(dimensionOf('area')) : undefined),
		lower: (v, [a]) => {
			const rings = a?.is === 'rings' ? a.rings : [points(a)];
			return v.b.sum(rings.map((ring) => v.length(v.vectorArea(ring))));
		}
	},
	miss: {
		takes: 'two paths',
		result: ([a, b]) => (isGeometry(a, 'path') && isGeometry(b, 'path') ? numberOf(LENGTH) : undefined),
		lower: (v, [a, b]) => v.distance(...nearest(v, points(a), points(b)))
	},
	gap: {
		takes: 'one ring of four corners',
		result: ([a]) => (isGeometry(a, 'ring') ? numberOf(LENGTH) : undefined),
		lower: (v, [a]) => (points(a).length === 4 ? v.gap(points(a)) : v.b.constant(0))
	},
	largest: ofLengths((v, lengths) => lengths.reduce((p, q) => v.b.apply('max', p, q))),
	smallest: ofLengths((v, lengths) => lengths.reduce((p, q) => v.b.apply('min', p, q))),
	total: ofLengths((v, lengths) => v.b.sum(lengths)),
	height: {
		takes: 'one point',
		result: ([a]) => (isGeometry(a, 'point') ? numberOf(LENGTH) : undefined),
		lower: (_, [a]) => at(a).z
	}
};
