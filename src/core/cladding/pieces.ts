import type { AskedSites } from '../condition/sites';
import { drive } from '../driver/drive';
import type { Driver } from '../project/driver-schema';
import { arrayColumn, constantColumn, type ColumnReader } from '../field/column';
import { FLAGGED, NOT_FINITE } from '../part/flag-list';
import type { Program } from '../part/program';
import { runProgram, type PartRun } from '../part/run';
import type { ProgramRunner } from '../part/threads/program-runner';
import { plainFlag, type Flag } from '../units/flag';
import { refuse } from '../units/problem';
import { AS_DRAWN, lying, mirroredBack, type Lie } from './lie';
import { followable } from '../field/followed';
import { SOME_SUN } from '../field/sun';
import { SHARP } from '../geometry/jointed';
import { givenColumn, type CladFace } from './given-columns';
import { perPiece, programOf, type ReadyVariant } from './kit';
import { siteSheets } from './site-sheets';
import { PieceFlags } from './piece-flags';
import type { GridSite } from './sites';

/** Pieces of one variant on anchors with one number of corners, made by one clause. */
export interface PieceGroup {
	readonly ready: ReadyVariant;
	readonly program: Program;
	/** Of the cells they hang on; lines that meet at the nodes they hang on. */
	readonly corners: number;
	/** What they hang on, and the site of each. */
	readonly over: GridSite;
	readonly sites: Uint32Array;
	readonly run: PartRun;
	/** Values the clause set piece by piece, in kernel units. */
	readonly perPiece: ReadonlyMap<string, Float64Array>;
	readonly flags: PieceFlags;
	/** How its pieces lie on their sites. */
	readonly lie: Lie;
	/** The lines of each piece, where several are joined to one; null where each has its own. */
	readonly bars: readonly (readonly number[])[] | null;
	/**
	 * Of bars whose ends are cut: how far the cuts of the first end and of the second are off square (rad), two each, less
	 * than nought towards the right seen from outside along what leaves the node; NaN where there is none; null where
	 * none is cut.
	 */
	readonly endAngles: Float64Array | null;
	/** How much of each is left of what was made for a whole cell, by volume; null where none is clipped. */
	readonly left: Float64Array | null;
}

/**
 * Hang a part on sites that are all alike: cells with as many corners, nodes where as many lines meet.
 *
 * ```ts
 * const on = { over: 'cell', sites, corners: 4 } as const;
 * const { run, flags } = await clad(inThisThread, ready, faceModel, on, { depth: 'height / 10' }, askedSites, rulePath, rulePath);
 * ```
 * @param runner runs what its part comes to @param asked all sites of the face, which drivers look at
 * @param at the path of the clause @param valuesAt that of its values @param lie how the part lies on its sites
 * @throws ProblemError
 */
export async function clad(
	runner: ProgramRunner,
	ready: ReadyVariant,
	face: CladFace,
	{ over, sites, corners }: Pick<PieceGroup, 'over' | 'sites' | 'corners'>,
	values: Readonly<Record<string, Driver>>,
	asked: AskedSites,
	at: string,
	valuesAt: string,
	lie: Lie = AS_DRAWN
): Promise<PieceGroup> {
	if (ready.part.anchor.kind === 'double ring') refuseWithoutSpace(ready.part.label, face, sites, at);
	const { followed, named, suns } = asked.around;
	const sun = suns.get(face.address) ?? SOME_SUN;
	const given = givenColumn(face, over, sites, { ...followed, sun });
	const { origin } = face;
	const program = programOf(ready, corners, at);
	const set = perPiece(ready, values, over, corners, followable(followed), named, valuesAt);
	const reckoned = set.program && runProgram(set.program, given, sites.length, origin);
	const driven = set.spelled.map(({ input, kind, driver }) => ({
		name: input.name,
		...drive(driver, input, kind, asked, sites)
	}));
	const ofPieces = new Map<string, Float64Array>([
		...(reckoned?.results ?? []),
		...driven.map(({ name, values }) => [name, values] as const)
	]);
	const ofSites = lie === AS_DRAWN ? given : lying(lie, corners, face.origin[0], given);
	const column = (name: string): ColumnReader => {
		if (!name.startsWith('input.')) return ofSites(name);
		const input = name.slice('input.'.length);
		const own = ofPieces.get(input);
		return own ? arrayColumn(own) : constantColumn(ready.inputs.get(input)!);
	};
	const sheetOf = siteSheets(face, sites, lie);
	const made = await runner.run({ program, column, count: sites.length, origin, sheetOf });
	const run = lie.mirror ? mirroredBack(made) : made;
	const more = new Map<number, Flag[]>();
	const tell = (row: number, told: readonly Flag[]) => more.set(row, [...(more.get(row) ?? []), ...told]);
	for (const { flags } of driven) for (const [row, flag] of flags) tell(row, [flag]);
	const { inputs, measures } = ready.part;
	for (const [unusable, named] of [
		[reckoned?.unusable, inputs],
		[run.unusable, measures]
	] as const)
		for (const [name, rows] of unusable ?? []) {
			if (name.startsWith(FLAGGED)) continue;
			const label = named.find((one) => one.name === name)?.label ?? name;
			for (const row of rows)
				// What could not be made at all says so itself.
				if ((run.flags[row]! & (1 << NOT_FINITE)) === 0) tell(row, [unusableValue(label)]);
		}
	if (over === 'cell')
		sites.forEach((c, row) => {
			const told = face.flags.get(c);
			if (told) tell(row, told);
			if (face.joint > 0 && face.measures.smallestAngle[c]! < SHARP) tell(row, [sharpJoint]);
		});
	const flags = new PieceFlags(program, run, more);
	return {
		flags,
		ready,
		program,
		corners,
		over,
		sites,
		run,
		perPiece: ofPieces,
		lie,
		bars: null,
		endAngles: null,
		left: null
	};
}

/** A space needs a node behind each corner. @throws ProblemError */
function refuseWithoutSpace(
	label: string,
	{ layer, cells, grid }: CladFace,
	sites: Uint32Array,
	at: string
): void {
	const behind = (layer?.positions.length ?? 0) / 3;
	const has = (c: number) =>
		cells.corners.subarray(cells.start[c]!, cells.start[c + 1]!).every((node) => node < behind);
	if (behind < grid.columns * grid.rows)
		refuse(
			at,
			`${label} fills the space between the cells and a second grid; give the zone a layer that is not shifted`
		);
	if (!sites.every(has))
		refuse(
			at,
			`${label} fills the space between the cells and a second grid, which has no nodes where a trim cuts; clip it there`
		);
}

const unusableValue = (label: string): Flag =>
	plainFlag('value.unusable', 'flagged', label, `${label} has no usable value here; 0 stands for it`);
const sharpJoint = plainFlag(
	'cell.sharp-joint',
	'flagged',
	'the cell',
	'a corner sharper than 26°, where the joint is narrower than was asked for'
);
