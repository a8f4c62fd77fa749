import { setOut } from '$core/grid/set-out';
import { massFaces } from '$core/mass/faces';
import { layPattern } from '$core/pattern/lay-cells';
import { massSchema } from '$core/project/form-schema';
import type { PatternChoice, TileDefinition } from '$core/project/pattern-schema';
import { settingOutSchema } from '$core/project/setting-out-schema';
import { pathTo } from '$core/project/typed-path';

/** A sheet of 6 m by 4 m in steps of a metre: patterns are drawn on it as they are laid on faces. */
const [ACROSS, UP, STEP] = [6, 4, 1000];
/** Millimetres to a unit of the picture, which is 60 wide and 40 high. */
const SCALE = 100;

function sheet() {
	const line = (z: number) => ({
		points: [
			[0, 0, z],
			[ACROSS * STEP, 0, z]
		],
		joins: 'line',
		closed: false
	});
	const mass = massSchema.parse({
		id: 'sheet',
		name: 'Sheet',
		form: { kind: 'ruled', foot: line(0), head: line(UP * STEP) }
	});
	const [face] = massFaces(mass);
	const settingOut = settingOutSchema.parse({
		across: { by: 'count', count: ACROSS },
		up: { by: 'count', count: UP }
	});
	return { face: face!, grid: setOut(face!, settingOut, 'sheet') };
}
let laidSheet: ReturnType<typeof sheet> | null = null;
const drawn = new Map<string, string>();

/** Values of a pattern that show it well on so small a sheet. */
function small(choice: PatternChoice): PatternChoice {
	if (choice.kind === 'voronoi')
		return { ...choice, count: 24, smallest: 0, margin: 0, near: null, size: 1, sheet: null };
	if (choice.kind === 'random splits') return { ...choice, smallest: 300 };
	return choice.kind === 'undulating' ? { ...choice, bays: ACROSS, rise: 0.6 } : choice;
}

/** The cells of a pattern as lines in a box of 60 by 40; nothing for one that cannot be laid. */
export function patternLines(choice: PatternChoice, tiles: TileDefinition[]): string {
	const key = JSON.stringify([choice, choice.kind === 'tile' ? tiles : null]);
	const known = drawn.get(key);
	if (known !== undefined) return known;
	let lines = '';
	try {
		laidSheet ??= sheet();
		const { face, grid } = laidSheet;
		const means = { tiles, guides: new Map(), sizesOn: null };
		const laid = layPattern(face, grid, small(choice), means, pathTo('zones', 'sheet'));
		const { cells } = laid;
		const { positions } = laid.grid;
		const at = (node: number) =>
			`${(positions[3 * node]! / SCALE).toFixed(1)} ${(UP * 10 - positions[3 * node + 2]! / SCALE).toFixed(1)}`;
		for (let c = 0; c < cells.count; c++)
			lines += `M${Array.from(cells.corners.subarray(cells.start[c]!, cells.start[c + 1]!), at).join('L')}Z`;
	} catch {
		// What is wrong with it is said where it is used.
	}
	drawn.set(key, lines);
	return lines;
}
