import type { AnyStep, PartDefinition } from '../project/part-definition';
import type { NumberKind } from '../units/dimension';
import { shortNames } from '../units/formula/check';
import { kindOfType } from './inputs';
import { checkPart } from './compile/compile';
import type { Watcher } from './compile/lowering';
import { type PartError } from './compile/fault';
import type { PointRegisters, Register } from './builder';
import type { Program } from './program';
import { fanOf } from './solids';
import type { Scope } from './compile/scope';
import { pointsOfSolid, sizeOfSolid, Vectors, type Value } from './values';

/** What one step of a part makes, and what it can see: for showing it, and for offering names. */
export interface StepView {
	/** "ring of 4", "point", "2 solids"; empty when it has not been made. */
	readonly makes: string;
	readonly is: Value['is'] | null;
	/** Names of the program's results that hold its points (three each) or its number. */
	readonly points: readonly string[];
	/** Lines through those points, by their places among them; closed ones end where they begin. */
	readonly loops: readonly (readonly number[])[];
	/** Of sheets and solids: triangles, three places each. */
	readonly triangles: readonly number[];
	/** Within a repeat: its points are kept turn by turn, and lines and triangles are those of one turn. */
	readonly repeated: boolean;
	readonly number: string | null;
	/** Of a fitted block: names of the results that hold its quarter turns, whether it is turned over, mirrored. */
	readonly lie: readonly string[];
	/** What kind of number it makes. */
	readonly kind: NumberKind | null;
	/** Names that it can use, with their types. */
	readonly sees: ReadonlyMap<string, Value['is']>;
}

export interface Inspection {
	/** Makes what could be lowered, and every step's points as results. */
	readonly program: Program;
	readonly faults: PartError['faults'];
	readonly steps: ReadonlyMap<string, StepView>;
}

function pointsOf(value: Value, v: Vectors): readonly PointRegisters[] {
	switch (value.is) {
		case 'point':
			return [value.at];
		case 'ring':
		case 'path':
			return value.points;
		case 'rings':
			return value.rings.flat();
		case 'plane':
			return [value.frame.origin];
		case 'sheet':
			return value.sheet.vertices;
		case 'solid':
			return value.solids.flatMap((solid) => pointsOfSolid(v, solid));
		case 'fitted block':
			return value.fitted.corners;
		case 'joined tubes': {
			const { centre, ways, reach } = value.joint;
			return [centre, ...ways.map(({ direction }) => v.along(centre, direction, reach))];
		}
		default:
			return [];
	}
}

const upTo = (count: number) => Array.from({ length: count }, (_, k) => k);
const closed = (count: number) => [...upTo(count), 0];
const shifted = (places: readonly number[], by: number) => places.map((place) => place + by);

/** How the points of a value hang together: lines through them and triangles between them. */
function shapeOf(value: Value): Pick<StepView, 'loops' | 'triangles'> {
	switch (value.is) {
		case 'ring':
			return { loops: [closed(value.points.length)], triangles: [] };
		case 'path':
			return { loops: [upTo(value.points.length)], triangles: [] };
		case 'rings': {
			let before = 0;
			const loops = value.rings.map(({ length }) => {
				const loop = shifted(closed(length), before);
				before += length;
				return loop;
			});
			return { loops, triangles: [] };
		}
		case 'sheet':
			return {
				loops: value.sheet.facets.map((facet) => [...facet, facet[0]!]),
				triangles: value.sheet.facets.flatMap((facet) => fanOf(facet.length).map((k) => facet[k]!))
			};
		case 'solid': {
			let before = 0;
			const triangles = value.solids.flatMap((solid) => {
				const own = shifted(solid.triangles, before);
				before += sizeOfSolid(solid);
				return own;
			});
			return { loops: [], triangles };
		}
		case 'fitted block': {
			const four = value.fitted.corners.length / 2;
			const walls = upTo(four).map((k) => [k, k + four]);
			return { loops: [closed(four), shifted(closed(four), four), ...walls], triangles: [] };
		}
		case 'joined tubes':
			return { loops: value.joint.ways.map((_, k) => [0, k + 1]), triangles: [] };
		default:
			return { loops: [], triangles: [] };
	}
}

function inWords(value: Value): string {
	switch (value.is) {
		case 'ring':
			return `ring of ${value.points.length}`;
		case 'path':
			return value.points.length === 2 ? 'line' : `path of ${value.points.length}`;
		case 'rings':
			return `${value.rings.length} rings`;
		case 'lengths':
			return `${value.lengths.length} lengths`;
		case 'ways':
			return `${value.ways.length} ways`;
		case 'sheet':
			return value.sheet.facets.length === 1 ? 'sheet' : `sheet of ${value.sheet.facets.length}`;
		case 'solid':
			return value.solids.length === 1 ? '1 solid' : `${value.solids.length} solids`;
		case 'number':
			return value.type.is === 'switch' ? 'yes or no' : 'number';
		default:
			return value.is;
	}
}

/**
 * Lower a part so that every one of its own steps can be looked at.
 *
 * ```ts
 * const { steps, faults } = inspectPart(part, 4, partsOf(project));
 * ```
 */
export function inspectPart(
	definition: PartDefinition,
	corners: number,
	library: readonly PartDefinition[]
): Inspection {
	const steps = new Map<string, StepView>();
	let results = 0;
	let root: Scope['builder'] | null = null;
	const watcher: Watcher = {
		before({ name }, scope) {
			root ??= scope.builder;
			const sees = new Map(shortNames(scope.names()).map((known) => [known, scope.peek(known)!.is]));
			if (!steps.has(name))
				steps.set(name, {
					makes: '',
					is: null,
					points: [],
					loops: [],
					triangles: [],
					repeated: false,
					number: null,
					lie: [],
					kind: null,
					sees
				});
		},
		after({ name }: AnyStep, scope, value) {
			const known = steps.get(name)!;
			const kind = value.is === 'number' ? kindOfType(value.type) : null;
			const repeated = scope.builder !== root;
			const fresh = { ...known, makes: inWords(value), is: value.is, kind, repeated };
			const points = pointsOf(value, new Vectors(scope.builder)).map((p) => {
				const result = `#${results++}`;
				for (const axis of ['x', 'y', 'z'] as const)
					if (repeated) scope.builder.turnResult(`${result}.${axis}`, p[axis]);
					else scope.builder.result(`${result}.${axis}`, p[axis]);
				return result;
			});
			const kept = (register: Register) => {
				const result = `#${results++}`;
				scope.builder.result(result, register);
				return result;
			};
			// A number of every turn is none that could be told in a line.
			const number = value.is === 'number' && !repeated ? kept(value.register) : null;
			const lie = value.is === 'fitted block' && !repeated ? Object.values(value.fitted.lie).map(kept) : [];
			// A step made for every edge has the points of all its turns.
			const before = known.points.length;
			const shape = shapeOf(value);
			const loops = [...known.loops, ...shape.loops.map((loop) => shifted(loop, before))];
			const triangles = [...known.triangles, ...shifted(shape.triangles, before)];
			steps.set(name, { ...fresh, points: [...known.points, ...points], loops, triangles, number, lie });
		}
	};
	const { program, faults } = checkPart(definition, corners, library, watcher);
	return { program, faults, steps };
}
