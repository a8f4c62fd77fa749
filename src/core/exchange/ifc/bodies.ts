import type { ClauseGroup } from '../../cladding/model';
import type { Vector } from '../../geometry/vector';
import { instancesOf } from '../../part/element-table';
import { prismOf, type Prism } from '../../part/prism';
import { enumeration, NONE, real, text, told, type StepRef } from '../step/text';
import type { StepWriter } from '../step/writer';
import type { Frame, LikeBodies, LikeBody } from '../like-bodies';
import { bodiesOf, type PartBody } from '../piece-bodies';
import type { SharedThings } from './shared';

const faceLists = new WeakMap<ArrayLike<number>, string>();
/** Triangles as the format counts them, from 1; instances with the same ones share the text. */
function facesOf(triangles: ArrayLike<number>): string {
	let faces = faceLists.get(triangles);
	if (!faces) {
		const texts: string[][] = [];
		for (let t = 0; t < triangles.length; t += 3)
			texts.push([0, 1, 2].map((k) => String(triangles[t + k]! + 1)));
		faces = told(texts);
		faceLists.set(triangles, faces);
	}
	return faces;
}

/** Corners of outlines are told to a hundredth of a millimetre: so bars of one section share it. */
const SECTION_DECIMALS = 2;
/** Directions have so many decimals: over ten metres they are exact to a hundredth of a millimetre. */
const DIRECTION_DECIMALS = 9;

/** The bodies of pieces: what is one outline drawn along is written so, what several pieces have is written once. */
export class BodyWriter {
	private readonly maps = new Map<LikeBody, StepRef>();
	private origin: StepRef | null = null;

	/** @param context of the bodies */
	constructor(
		private readonly step: StepWriter,
		private readonly shared: SharedThings,
		private readonly context: StepRef,
		private readonly like: LikeBodies
	) {}

	/** The shape of a piece; null where it has none. */
	shapeOf(clause: ClauseGroup, row: number): StepRef | null {
		const { step } = this;
		const alike = this.like.get(clause, row);
		if (!alike) return this.representation(clause, bodiesOf(clause, row));
		const map = this.maps.get(alike.body) ?? this.map(alike.body);
		this.maps.set(alike.body, map);
		const item = step.add('IFCMAPPEDITEM', map, this.target(alike.frame));
		return this.shape('MappedRepresentation', [item]);
	}

	private map({ clause, parts }: LikeBody): StepRef {
		const { step } = this;
		this.origin ??= step.add('IFCAXIS2PLACEMENT3D', this.point([0, 0, 0]), NONE, NONE);
		return step.add('IFCREPRESENTATIONMAP', this.origin, this.representation(clause, parts)!);
	}

	private target({ origin, x, y, z }: Frame): StepRef {
		return this.step.add(
			'IFCCARTESIANTRANSFORMATIONOPERATOR3D',
			this.direction(x),
			this.direction(y),
			this.point(origin),
			real(1),
			this.direction(z)
		);
	}

	private shape(kind: string, items: readonly StepRef[]): StepRef {
		return this.step.add('IFCSHAPEREPRESENTATION', this.context, text('Body'), text(kind), items);
	}

	private representation({ group }: ClauseGroup, parts: readonly PartBody[]): StepRef | null {
		if (!parts.length) return null;
		const { step } = this;
		const prisms = parts.map(({ places, triangles }) => prismOf(places, triangles));
		// A shape is of one kind: outlines drawn along, or triangles.
		const isSwept = prisms.every((prism) => prism !== null);
		const items = parts.map((part, k) => {
			const item = isSwept ? this.swept(prisms[k]!, group.over === 'line') : this.triangles(part);
			const style = this.shared.style(group.ready.materials[part.element]!);
			step.add('IFCSTYLEDITEM', item, [style], NONE);
			return item;
		});
		return this.shape(isSwept ? 'SweptSolid' : 'Tessellation', items);
	}

	private triangles({ places, triangles }: PartBody): StepRef {
		const points = this.step.addPoints('IFCCARTESIANPOINTLIST3D', places, 3);
		return this.step.add('IFCTRIANGULATEDFACESET', points, NONE, enumeration('T'), facesOf(triangles), NONE);
	}

	/** @param isBar its outline is that of many */
	private swept({ origin, along, normal, loops, way }: Prism, isBar: boolean): StepRef {
		const { step } = this;
		const [outside, ...openings] = loops.map((loop) => this.outline(loop, isBar));
		const [area, nobody] = [enumeration('AREA'), NONE];
		const add = isBar ? step.once.bind(step) : step.add.bind(step);
		const profile = openings.length
			? add('IFCARBITRARYPROFILEDEFWITHVOIDS', area, nobody, outside!, openings)
			: add('IFCARBITRARYCLOSEDPROFILEDEF', area, nobody, outside!);
		const place = step.add(
			'IFCAXIS2PLACEMENT3D',
			this.point(origin),
			this.direction(normal),
			this.direction(along)
		);
		const depth = Math.hypot(...way);
		const to = way.map((one) => one / depth) as unknown as Vector;
		return step.add('IFCEXTRUDEDAREASOLID', profile, place, this.direction(to), real(depth));
	}

	private outline(loop: Float64Array, isBar: boolean): StepRef {
		const { step } = this;
		const closed = new Float64Array(loop.length + 2);
		closed.set(loop);
		closed.set(loop.subarray(0, 2), loop.length);
		if (!isBar)
			return step.add(
				'IFCINDEXEDPOLYCURVE',
				step.addPoints('IFCCARTESIANPOINTLIST2D', closed, 2),
				NONE,
				enumeration('F')
			);
		const points: string[] = [];
		for (let k = 0; k < closed.length; k += 2)
			points.push(`(${real(closed[k]!, SECTION_DECIMALS)},${real(closed[k + 1]!, SECTION_DECIMALS)})`);
		return step.once(
			'IFCINDEXEDPOLYCURVE',
			step.once('IFCCARTESIANPOINTLIST2D', points),
			NONE,
			enumeration('F')
		);
	}

	private point(at: Vector): StepRef {
		return this.step.addTuple('IFCCARTESIANPOINT', at, 6);
	}

	private direction(to: Vector): StepRef {
		return this.step.addTuple('IFCDIRECTION', to, DIRECTION_DECIMALS);
	}
}

/** m³ */
export function volumeOf(clause: ClauseGroup, row: number): number {
	let sum = 0;
	for (const table of clause.group.run.elements) {
		const own = instancesOf(table).of(row);
		for (let n = 0; n < own.length; n++) sum += table.volume[own[n]!]!;
	}
	return sum / 1e9;
}
