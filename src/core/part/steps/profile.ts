import { polygonArea } from '../../geometry/polygon';
import { triangulate } from '../../geometry/triangulate';
import type { Profile, StepOf } from '../../project/part-definition';
import type { Register } from '../builder';
import { StepFault } from '../compile/fault';
import { fanOf } from '../solids';
import { sizeNames, type Stock } from '../stock';
import { refuseNothing, type StepContext } from './context';
import { circle } from './round';

/** A corner of a section: across, and along the depth (mm). */
export type SectionCorner = readonly [across: Register, along: Register];

/** The section of a bar, anticlockwise seen against its run. */
export interface Section {
	readonly outer: readonly SectionCorner[];
	/** Of a hollow one, as many corners. */
	readonly inner: readonly SectionCorner[] | null;
	/** Triangles of a solid one by its corners. */
	readonly cap: readonly number[];
	/** mm², and the middle of it. */
	readonly area: Register;
	readonly centre: SectionCorner;
}

/** Where the section stands along its depth: its lowest corner, as a share of the depth. */
const lowOf = { middle: -0.5, behind: -1, before: 0 } as const;

/** Corners in order, as shares of a width and a depth, and of a wall beside. */
type Terms = readonly (readonly [width: number, wall: number, depth: number, wallUp: number])[];
const angle: Terms = [
	[-0.5, 0, 0, 0],
	[0.5, 0, 0, 0],
	[0.5, 0, 0, 1],
	[-0.5, 1, 0, 1],
	[-0.5, 1, 1, 0],
	[-0.5, 0, 1, 0]
];
const tee: Terms = [
	[0, -0.5, 0, 0],
	[0, 0.5, 0, 0],
	[0, 0.5, 1, -1],
	[0.5, 0, 1, -1],
	[0.5, 0, 1, 0],
	[-0.5, 0, 1, 0],
	[-0.5, 0, 1, -1],
	[0, -0.5, 1, -1]
];

/** The section as it is ordered. */
export function stockOf(profile: Profile, { number }: StepContext): Stock<Register> {
	const formulas = profile as Readonly<Record<string, unknown>>;
	const given = sizeNames[profile.shape].filter((name) => formulas[name] !== undefined);
	return { shape: profile.shape, sizes: given.map((name) => number(String(formulas[name]), 'length')) };
}

/** @throws StepFault when an own outline crosses itself or runs clockwise */
export function sectionOf(
	profile: Profile,
	placed: StepOf<'bar'>['placed'],
	{ v: { b }, number }: StepContext
): Section {
	const low = lowOf[placed];
	const length = (text: string, what: string): Register => {
		const register = number(text, 'length');
		refuseNothing(b, register, `the ${what} is nothing or less`);
		return register;
	};
	const times = (register: Register, factor: number) => b.multiply(register, b.constant(factor));
	const tooThick = (size: Register, wall: Register) =>
		b.flag(b.apply('lessOrEqual', size, wall), {
			code: 'part.walls-too-thick',
			level: 'failed',
			subject: 'the section',
			says: 'the walls are thicker than the section allows'
		});
	const solid = (outer: SectionCorner[], cap = fanOf(outer.length)): Section => ({
		outer,
		inner: null,
		cap,
		...measured(outer)
	});
	/** Area and middle of a polygon, by the triangles from its first corner. */
	function measured(corners: readonly SectionCorner[]): Pick<Section, 'area' | 'centre'> {
		const [x0, y0] = corners[0]!;
		const parts = corners.slice(1, -1).map(([x1, y1], k) => {
			const [x2, y2] = corners[k + 2]!;
			const [ax, ay, bx, by] = [
				b.subtract(x1, x0),
				b.subtract(y1, y0),
				b.subtract(x2, x0),
				b.subtract(y2, y0)
			];
			const twice = b.subtract(b.multiply(ax, by), b.multiply(ay, bx));
			return { twice, x: b.multiply(twice, b.add(ax, bx)), y: b.multiply(twice, b.add(ay, by)) };
		});
		const twice = b.sum(parts.map((part) => part.twice));
		const mean = (values: Register[], from: Register) =>
			b.add(from, b.divide(b.sum(values), times(twice, 3)));
		return {
			area: times(twice, 0.5),
			centre: [
				mean(
					parts.map(({ x }) => x),
					x0
				),
				mean(
					parts.map(({ y }) => y),
					y0
				)
			]
		};
	}
	const box = (width: Register, depth: Register, wall: Register): SectionCorner[] => {
		const right = b.subtract(times(width, 0.5), wall);
		const left = b.apply('negate', right);
		const near = b.add(times(depth, low), wall);
		const far = b.subtract(times(depth, low + 1), wall);
		return [
			[left, near],
			[right, near],
			[right, far],
			[left, far]
		];
	};
	const boxed = (width: Register, depth: Register): Section => ({
		outer: box(width, depth, b.constant(0)),
		inner: null,
		cap: fanOf(4),
		area: b.multiply(width, depth),
		centre: [b.constant(0), times(depth, low + 0.5)]
	});

	switch (profile.shape) {
		case 'box':
			return boxed(length(profile.width, 'width'), length(profile.depth, 'depth'));
		case 'blade':
			return boxed(length(profile.thickness, 'thickness'), length(profile.depth, 'depth'));
		case 'tube': {
			const [width, depth] = [length(profile.width, 'width'), length(profile.depth, 'depth')];
			const wall = length(profile.wall, 'wall');
			const twice = times(wall, 2);
			tooThick(b.apply('min', width, depth), twice);
			const gross = boxed(width, depth);
			const hollow = b.multiply(b.subtract(width, twice), b.subtract(depth, twice));
			return { ...gross, inner: box(width, depth, wall), area: b.subtract(gross.area, hollow) };
		}
		case 'round': {
			const diameter = length(profile.diameter, 'diameter');
			const middle = times(diameter, low + 0.5);
			const round = (size: Register) =>
				circle.map(([x, y]): SectionCorner => [times(size, x), b.add(middle, times(size, y))]);
			const disc = (size: Register) => times(b.multiply(size, size), Math.PI / 4);
			const centre: SectionCorner = [b.constant(0), middle];
			const outer = round(diameter);
			if (profile.wall === undefined)
				return { outer, inner: null, cap: fanOf(outer.length), area: disc(diameter), centre };
			const wall = length(profile.wall, 'wall');
			const bore = b.subtract(diameter, times(wall, 2));
			tooThick(diameter, times(wall, 2));
			return { outer, inner: round(bore), cap: [], area: b.subtract(disc(diameter), disc(bore)), centre };
		}
		case 'angle':
		case 'tee': {
			const [width, depth] = [length(profile.width, 'width'), length(profile.depth, 'depth')];
			const wall = length(profile.wall, 'wall');
			tooThick(b.apply('min', width, depth), wall);
			const terms = profile.shape === 'angle' ? angle : tee;
			const cap = triangulate(terms.map(([w, t, d, u]) => [10 * w + t, 10 * d + u]));
			return solid(
				terms.map(([w, t, d, u]): SectionCorner => [
					b.add(times(width, w), times(wall, t)),
					b.add(times(depth, d + low), times(wall, u))
				]),
				cap
			);
		}
		case 'own': {
			const { outline } = profile;
			if (!(polygonArea(outline) > 0))
				throw new StepFault('the outline runs clockwise or has no area; corners anticlockwise are accepted');
			const ys = outline.map(([, y]) => y);
			const [least, most] = [Math.min(...ys), Math.max(...ys)];
			const up = (low + 0.5) * (most - least) - (least + most) / 2;
			return solid(
				outline.map(([x, y]): SectionCorner => [b.constant(x), b.constant(y + up)]),
				triangulate(outline)
			);
		}
	}
}
