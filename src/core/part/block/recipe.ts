/**
 * How a block is made in the unit box: x across, y up and z outward, each 0 to 1. Lengths are shares of the
 * box. Numbers stand for places in a list of values, so that a recipe is the same whatever its inputs are.
 */
export type Place = readonly [number, number, number];
export type Axis = 'across' | 'up' | 'out';

export type Recipe =
	| { readonly is: 'box'; readonly from: Place; readonly to: Place }
	| { readonly is: 'sphere'; readonly centre: Place; readonly radius: number }
	/** An outline swept along an axis, its own coordinates being the two others in their order. */
	| {
			readonly is: 'sweep';
			readonly along: Axis;
			readonly outline: Outline;
			readonly from: number;
			readonly to: number;
	  }
	| { readonly is: 'mesh'; readonly mesh: RawMesh }
	/** An open mesh with a thickness, a share of the largest of its sizes; see `shellOf`. */
	| {
			readonly is: 'sheet';
			readonly mesh: RawMesh;
			readonly sizes: readonly number[];
			readonly thickness: number;
	  }
	| { readonly is: 'union' | 'intersection'; readonly of: readonly Recipe[] }
	| { readonly is: 'difference'; readonly from: Recipe; readonly by: readonly Cutter[] };

export type Outline =
	| { readonly shape: 'circle'; readonly centre: readonly [number, number]; readonly radius: number }
	/** Its corners themselves, not places in a list. */
	| { readonly shape: 'drawn'; readonly points: readonly (readonly [number, number])[] };

/** What is taken away, by the name of its step. */
export interface Cutter {
	readonly name: string;
	readonly recipe: Recipe;
}

/** A mesh: x y z of every vertex, and its triangles, outward. */
export interface RawMesh {
	readonly vertices: readonly number[];
	readonly triangles: readonly number[];
}

/** The mesh of a file, in the unit box; of an open one, a sheet, with the sizes of the box it was drawn in. */
export interface BroughtMesh extends RawMesh {
	readonly open: null | readonly [number, number, number];
}

/** How many different blocks one run may make: each is a boolean of solids. */
export const MOST_SHAPES = 256;

/** A recipe with each of its numbers replaced. */
export function mapNumbers(recipe: Recipe, map: (value: number) => number): Recipe {
	const three = ([x, y, z]: Place): Place => [map(x), map(y), map(z)];
	const inner = (one: Recipe) => mapNumbers(one, map);
	switch (recipe.is) {
		case 'box':
			return { ...recipe, from: three(recipe.from), to: three(recipe.to) };
		case 'sphere':
			return { ...recipe, centre: three(recipe.centre), radius: map(recipe.radius) };
		case 'sweep': {
			const { outline } = recipe;
			const drawn =
				outline.shape === 'circle'
					? {
							...outline,
							centre: [map(outline.centre[0]), map(outline.centre[1])] as const,
							radius: map(outline.radius)
						}
					: outline;
			return { ...recipe, outline: drawn, from: map(recipe.from), to: map(recipe.to) };
		}
		case 'mesh':
			return recipe;
		case 'sheet':
			return { ...recipe, thickness: map(recipe.thickness) };
		case 'union':
		case 'intersection':
			return { ...recipe, of: recipe.of.map(inner) };
		case 'difference':
			return {
				...recipe,
				from: inner(recipe.from),
				by: recipe.by.map((cutter) => ({ ...cutter, recipe: inner(cutter.recipe) }))
			};
	}
}

/** The names of all cutters, in their order. */
export function cuttersOf(recipe: Recipe): string[] {
	switch (recipe.is) {
		case 'union':
		case 'intersection':
			return recipe.of.flatMap(cuttersOf);
		case 'difference':
			return [...cuttersOf(recipe.from), ...recipe.by.flatMap((one) => [...cuttersOf(one.recipe), one.name])];
		default:
			return [];
	}
}
