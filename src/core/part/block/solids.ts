import type { Manifold, ManifoldToplevel } from 'manifold-3d';
import { meshOfSolid, solidOf, solidLibrary } from '../../geometry/solid/library';
import type { PartDefinition } from '../../project/part-definition';
import { stepsWithin } from '../../project/part/steps-within';
import { MOST_SHAPES, type Axis, type Cutter, type Outline, type Place, type Recipe } from './recipe';
import { shellOf } from './shell';
import { unitMesh, type UnitMesh } from './unit-mesh';

/** Solids of the unit box and what is made of them, by a library of robust booleans. */

/**
 * Whether a part's own steps, those in groups included, make a thing by the library of solids.
 *
 * ```ts
 * if (makesSolids(part)) await loadSolids();
 * ```
 */
export const makesSolids = (part: PartDefinition): boolean =>
	[...stepsWithin(part.steps)].some((step) => step.do === 'fit block' || step.do === 'joined tubes');

/** Corners of a full circle; a multiple of four, so that quarters are alike. */
const ROUND = 32;

/** What came of a recipe: its mesh, or nothing, and the cutters that took nothing away. */
export interface MadeBlock {
	/** Null when nothing is left. */
	readonly mesh: UnitMesh | null;
	readonly idle: readonly string[];
	/** Some of it lies outside the unit box. */
	readonly reachesOut: boolean;
}

/** A volume (of the box's 1) that counts as nothing. */
const NOTHING = 1e-7;

/** Shares of the box up to this do not reach out of it. */
const OUTSIDE = 1e-4;

/** Makes one recipe; what the library made is given back to it at the end. */
class Maker {
	private readonly made: Manifold[] = [];
	readonly idle: string[] = [];

	constructor(
		private readonly solids: ManifoldToplevel,
		private readonly values: ArrayLike<number>
	) {}

	private keep(solid: Manifold): Manifold {
		this.made.push(solid);
		return solid;
	}

	private value = (index: number): number => this.values[index]!;
	private place = (place: Place): [number, number, number] => [
		this.value(place[0]),
		this.value(place[1]),
		this.value(place[2])
	];

	make(recipe: Recipe): Manifold {
		const { Manifold: Solid } = this.solids;
		switch (recipe.is) {
			case 'box': {
				const [from, to] = [this.place(recipe.from), this.place(recipe.to)];
				const size = to.map((value, k) => value - from[k]!) as [number, number, number];
				return this.keep(this.keep(Solid.cube(size)).translate(from));
			}
			case 'sphere':
				return this.keep(
					this.keep(this.ball(this.value(recipe.radius))).translate(this.place(recipe.centre))
				);
			case 'sweep':
				return this.sweep(recipe);
			case 'mesh':
				return this.keep(solidOf(recipe.mesh));
			case 'sheet':
				return this.keep(solidOf(shellOf(recipe.mesh, recipe.sizes, this.value(recipe.thickness))));
			case 'union':
			case 'intersection':
				return this.keep(Solid[recipe.is](recipe.of.map((one) => this.make(one))));
			case 'difference':
				return this.cut(this.make(recipe.from), recipe.by);
		}
	}

	/** With the volume of the sphere it stands for, and alike in all eight octants. */
	private ball(radius: number): Manifold {
		const rough = this.keep(this.solids.Manifold.sphere(1, ROUND));
		return rough.scale(radius * Math.cbrt((4 * Math.PI) / 3 / rough.volume()));
	}

	private sweep({ along, outline, from, to }: Extract<Recipe, { is: 'sweep' }>): Manifold {
		const [low, high] = [this.value(from), this.value(to)];
		const upright = this.keep(this.solids.Manifold.extrude([this.corners(outline)], high - low));
		return this.keep(this.keep(upright.translate([0, 0, low])).transform(turned(along)));
	}

	/** A circle by corners a little outside it, so that its area is the circle's. */
	private corners(outline: Outline): [number, number][] {
		if (outline.shape === 'drawn') return outline.points.map(([x, y]) => [x, y]);
		const [x, y] = outline.centre.map(this.value) as [number, number];
		const step = (2 * Math.PI) / ROUND;
		const radius = this.value(outline.radius) * Math.sqrt(step / Math.sin(step));
		return Array.from({ length: ROUND }, (_, k) => [
			x + radius * Math.cos(k * step),
			y + radius * Math.sin(k * step)
		]);
	}

	private cut(whole: Manifold, cutters: readonly Cutter[]): Manifold {
		let left = whole;
		for (const { name, recipe } of cutters) {
			const next = this.keep(left.subtract(this.make(recipe)));
			if (left.volume() - next.volume() < NOTHING) this.idle.push(name);
			left = next;
		}
		return left;
	}

	free(): void {
		for (const solid of this.made) solid.delete();
	}
}

/** From a sweep's own axes (its outline's two, then the way it is swept) to those of the box, by columns. */
function turned(along: Axis): Parameters<Manifold['transform']>[0] {
	const [x, y, z, none] = [
		[1, 0, 0, 0],
		[0, 1, 0, 0],
		[0, 0, 1, 0],
		[0, 0, 0, 1]
	] as const;
	const columns = { across: [y, z, x], up: [x, z, y], out: [x, y, z] }[along];
	return [...columns, none].flat() as unknown as Parameters<Manifold['transform']>[0];
}

function unitMeshOf(solid: Manifold): UnitMesh {
	const { vertices, triangles } = meshOfSolid(solid);
	return unitMesh(vertices, [...triangles]);
}

/** Make a block. @throws Error when `loadSolids` has not been awaited */
function make(recipe: Recipe, values: ArrayLike<number>): MadeBlock {
	const maker = new Maker(solidLibrary(), values);
	try {
		const solid = maker.make(recipe);
		const mesh = solid.isEmpty() || solid.volume() < NOTHING ? null : unitMeshOf(solid);
		const reachesOut = mesh?.vertices.some((value) => value < -OUTSIDE || value > 1 + OUTSIDE) ?? false;
		return { mesh, idle: maker.idle, reachesOut };
	} finally {
		maker.free();
	}
}

const kept = new WeakMap<Recipe, Map<string, MadeBlock>>();

/**
 * A block in the unit box; its solids are made once for each set of values, however many pieces have it.
 * @param values what the recipe's numbers stand for
 */
export function blockOf(recipe: Recipe, values: ArrayLike<number>): MadeBlock {
	let shapes = kept.get(recipe);
	if (!shapes) kept.set(recipe, (shapes = new Map<string, MadeBlock>()));
	const key = Array.prototype.join.call(values, ' ');
	let known = shapes.get(key);
	if (!known) {
		if (shapes.size >= MOST_SHAPES) shapes.clear();
		shapes.set(key, (known = make(recipe, values)));
	}
	return known;
}
