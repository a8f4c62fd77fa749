import { checkCondition, type Askable } from '../condition/check';
import { holds, type Held } from '../condition/holds';
import { namedBy } from '../condition/named';
import type { AskedSites, Surroundings } from '../condition/sites';
import type { FaceModel } from '../cladding/model';
import type { GridSite } from '../cladding/sites';
import type { FaceSun } from '../field/field';
import { followableIn } from '../field/followed';
import { asksForSun } from '../field/sun';
import { namedIn } from '../named/named-values';
import type { Condition, Joining } from '../project/condition-schema';
import type { Driver } from '../project/driver-schema';
import type { Zone } from '../project/schema';
import { pathTo } from '../project/typed-path';
import { followedIn, underFollowed } from './followed';
import type { Run } from './stage';

/** The clauses of a zone that ask something of their sites. */
const conditioned = [
	['cell', 'rules'],
	['line', 'runs'],
	['node', 'nodes']
] as const;

/** The sun over each face, by its address. */
export type Suns = ReadonlyMap<string, FaceSun>;
const NO_SUNS: Suns = new Map();

/** What the conditions of a zone's clauses of one kind hang on. */
export interface Asking {
	readonly around: Surroundings;
	/** The same as values to be kept under, with what says whether places matter. */
	readonly under: readonly unknown[];
	readonly places: boolean;
}

export function surroundingsOf(
	run: Run,
	over: GridSite,
	clauses: readonly { readonly muted: boolean; readonly where: Condition }[],
	faces: readonly FaceModel[],
	suns: Suns
): Asking {
	const { project } = run;
	const conditions = clauses.filter(({ muted }) => !muted).map(({ where }) => where);
	const named = namedBy(over, conditions, project.guides);
	const followed = followedIn(run, named.texts, named.guides);
	const levels = project.levels.filter(({ id }) => named.levels.includes(id));
	const values = namedIn(named.texts, run.named);
	const asked = asksForSun(named.texts) ? suns : NO_SUNS;
	const around = { followed, levels, slots: faces[0]?.slots ?? [], named: values, suns: asked };
	return { around, under: [underFollowed(followed), levels, [...values], [...asked]], places: named.places };
}

/** @throws ProblemError at a clause whose conditions cannot be asked */
export function checkConditions({ project, named }: Run, zone: Zone, faces: readonly FaceModel[]): void {
	const known: Askable = {
		faces: faces.map(({ address }) => address),
		variants: project.variants.map(({ id }) => id),
		things: followableIn(project),
		guides: project.guides,
		levels: project.levels,
		named,
		slots: faces.flatMap(({ slots }) => slots)
	};
	for (const [over, list] of conditioned)
		for (const { id, where } of zone[list])
			checkCondition(where, over, known, pathTo('zones', zone.id, list, id, 'where'));
}

/**
 * Where the conditions of clauses over lines or nodes hold on a face; null where they ask nothing.
 * @param on the variant on each cell of the face
 */
export function asks(
	run: Run,
	over: 'line' | 'node',
	list: Zone['runs'] | Zone['nodes'],
	face: FaceModel,
	on: (cell: number) => string | null
) {
	const { around } = surroundingsOf(run, over, list, [face], NO_SUNS);
	const sites: AskedSites = { over, count: countOf(face, over), source: face, beside: { face, on }, around };
	return ({ where }: { readonly where: Joining }): Held | null =>
		where.of.length ? holds(where, sites) : null;
}

/** The texts of drivers, which may name a guide or a value of the project. */
export const textsOf = (values: Readonly<Record<string, Driver>>): string[] =>
	Object.values(values).flatMap((driver) => {
		if (typeof driver === 'string') return [driver];
		const amounts = driver.is === 'alternates' ? driver.values : driver.to;
		const more =
			driver.is === 'follows'
				? [driver.field, ...driver.from]
				: driver.is === 'keeps out'
					? ['profile_angle', driver.depth, driver.spacing]
					: [];
		return [...amounts, ...more].map(String);
	});

/** How many sites of a kind a face has. */
function countOf({ cells, edges, grid, chains }: FaceModel, over: GridSite): number {
	if (over === 'cell') return cells.count;
	if (over === 'chain') return chains.start.length - 1;
	return over === 'line' ? edges.count : grid.positions.length / 3;
}

/**
 * All sites of a kind on a face, with what drivers name, as they are looked at for the pieces on some of them.
 * @param underSun the part itself asks where the sun stands
 */
export function drivenSites(
	run: Run,
	over: GridSite,
	values: Readonly<Record<string, Driver>>,
	face: FaceModel,
	suns: Suns,
	underSun: boolean
): AskedSites {
	const texts = textsOf(values);
	const asked = underSun || asksForSun(texts) ? suns : NO_SUNS;
	const followed = followedIn(run, texts);
	const named = namedIn(texts, run.named);
	return {
		over,
		count: countOf(face, over),
		source: face,
		around: { followed, levels: [], slots: face.slots, named, suns: asked }
	};
}
