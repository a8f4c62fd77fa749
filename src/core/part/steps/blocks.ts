import { isInFile } from '../../project/stored';
import { flawOf } from '../block/closed';
import type { AnyStep } from '../../project/part-definition';
import type { Axis, RawMesh, Recipe } from '../block/recipe';
import type { PointRegisters, Register } from '../builder';
import { StepFault } from '../compile/fault';
import type { Value, Vectors } from '../values';
import type { Makers, StepContext } from './context';

const block = (recipe: Recipe): Value => ({ is: 'block', recipe });

/** Shares of the box up to this are nothing. */
const LEAST = 1e-3;

/** Volumes up to this (mm³) are no space. */
const LEAST_VOLUME = 1;

/** Shares of the box. */
const shares =
	({ number }: StepContext) =>
	(text: string): Register =>
		number(text, 'ratio');

function refuseThin({ v: { b } }: StepContext, size: Register, name: string): void {
	b.flag(b.apply('less', size, b.constant(LEAST)), {
		code: 'block.thin',
		level: 'failed',
		subject: name,
		says: `${name} is thinner than ${LEAST} of its box`
	});
}

function sweep(
	context: StepContext,
	{ name, axis, low, high }: { name: string; axis: Axis; low: string; high: string },
	outline: Extract<Recipe, { is: 'sweep' }>['outline']
): Value {
	const share = shares(context);
	const [from, to] = [share(low), share(high)];
	refuseThin(context, context.v.b.subtract(to, from), name);
	return block({ is: 'sweep', along: axis, outline, from, to });
}

/** Twice the area within a drawn outline, positive when it runs anticlockwise. */
const doubleArea = (points: readonly (readonly [number, number])[]) =>
	points.reduce((sum, [x, y], k) => {
		const [nextX, nextY] = points[(k + 1) % points.length]!;
		return sum + x * nextY - nextX * y;
	}, 0);

function several({ lookup }: StepContext, names: readonly string[]): Recipe[] {
	return names.map((name) => lookup(name, 'block').recipe);
}

/** Where corners of a space have no room: the three edges that meet in each make no volume. */
function tellFolded(v: Vectors, corners: readonly PointRegisters[], name: string): void {
	const { b } = v;
	const volumes = corners.map((p, k) => {
		const [ring, n] = [k - (k % 4), k % 4];
		const next = v.subtract(corners[ring + ((n + 1) % 4)]!, p);
		const before = v.subtract(corners[ring + ((n + 3) % 4)]!, p);
		const across = v.subtract(corners[(k + 4) % 8]!, p);
		const volume = v.dot(v.cross(next, before), across);
		return k < 4 ? volume : b.apply('negate', volume);
	});
	const [least, most] = (['min', 'max'] as const).map((op) =>
		volumes.reduce((p, q) => b.apply(op, p, q))
	) as [Register, Register];
	b.flag(b.apply('lessOrEqual', most, b.constant(LEAST_VOLUME)), {
		code: 'block.no-space',
		level: 'failed',
		subject: name,
		says: `${name}: there is no space to fill`
	});
	b.flag(b.apply('lessOrEqual', least, b.constant(0)), {
		code: 'block.folds-over',
		level: 'flagged',
		subject: name,
		says: `${name}: the space it fills folds over`
	});
}

/** The mesh of a step, when it is there and sound. */
function meshOf(
	{ source, vertices, triangles }: Extract<AnyStep, { do: 'block mesh' | 'block sheet' }>,
	mayEnd: boolean
): RawMesh {
	if (isInFile(vertices) || isInFile(triangles))
		throw new StepFault(`the mesh${source && ` of ${source}`} has not come from the server yet`);
	const count = vertices.length / 3;
	if (triangles.some((vertex) => vertex >= count))
		throw new StepFault(`a triangle has a vertex beyond the ${count} that the mesh has`);
	const flaw = flawOf(triangles, mayEnd);
	if (flaw) throw new StepFault(flaw.text);
	return { vertices, triangles };
}

export const blockSteps: Makers<
	| 'block box'
	| 'block sphere'
	| 'block cylinder'
	| 'block outline'
	| 'block mesh'
	| 'block sheet'
	| 'block union'
	| 'block intersection'
	| 'block difference'
	| 'fit block'
> = {
	'block box'(step, context) {
		const share = shares(context);
		const from = step.from.map(share) as [Register, Register, Register];
		const to = step.to.map(share) as [Register, Register, Register];
		from.forEach((low, k) => refuseThin(context, context.v.b.subtract(to[k]!, low), step.name));
		return block({ is: 'box', from, to });
	},
	'block sphere'(step, context) {
		const share = shares(context);
		const radius = share(step.radius);
		refuseThin(context, radius, step.name);
		return block({ is: 'sphere', centre: step.centre.map(share) as [Register, Register, Register], radius });
	},
	'block cylinder'(step, context) {
		const share = shares(context);
		const radius = share(step.radius);
		refuseThin(context, radius, step.name);
		const centre = step.middle.map(share) as [Register, Register];
		return sweep(context, step, { shape: 'circle', centre, radius });
	},
	'block outline'(step, context) {
		const area = doubleArea(step.outline);
		if (Math.abs(area) < LEAST) throw new StepFault('the outline encloses nothing');
		const points = area > 0 ? step.outline : step.outline.toReversed();
		return sweep(context, step, { shape: 'drawn', points });
	},
	'block mesh'(step) {
		return block({ is: 'mesh', mesh: meshOf(step, false) });
	},
	'block sheet'(step, context) {
		const mesh = meshOf(step, true);
		if (!step.sizes.every((size) => size > 0))
			throw new StepFault('the box of the mesh is flat; sizes above 0 are accepted');
		const thickness = shares(context)(step.thickness);
		refuseThin(context, thickness, step.name);
		return block({ is: 'sheet', mesh, sizes: step.sizes, thickness });
	},
	'block union'(step, context) {
		return block({ is: 'union', of: several(context, step.of) });
	},
	'block intersection'(step, context) {
		return block({ is: 'intersection', of: several(context, step.of) });
	},
	'block difference'(step, context) {
		const by = step.less.map((name) => ({ name, recipe: context.lookup(name, 'block').recipe }));
		return block({ is: 'difference', from: context.lookup(step.whole, 'block').recipe, by });
	},
	'fit block'(step, context) {
		const { v, lookup, number, condition } = context;
		const { recipe } = lookup(step.block, 'block');
		const [first, second] = [lookup(step.first, 'ring').points, lookup(step.second, 'ring').points];
		for (const [name, ring] of [
			[step.first, first],
			[step.second, second]
		] as const)
			if (ring.length !== 4)
				throw new StepFault(
					`"${name}" has ${ring.length} corners; a block fills the space between two of four`
				);
		const outward = v.dot(v.subtract(v.centre(second), v.centre(first)), v.vectorArea(first));
		const swapped = v.b.apply('less', outward, v.b.constant(0));
		const inside = first.map((p, k) => v.choose(swapped, second[k]!, p));
		const outside = second.map((p, k) => v.choose(swapped, first[k]!, p));
		const corners = [...inside, ...outside];
		tellFolded(v, corners, step.name);
		return {
			is: 'fitted block',
			fitted: {
				recipe,
				corners,
				lie: {
					turns: number(step.turns, 'count'),
					flip: condition(step.flip),
					mirror: condition(step.mirror)
				}
			}
		};
	}
};
