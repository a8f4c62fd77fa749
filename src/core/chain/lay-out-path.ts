import type { JoinedFaces } from '../cladding/join-rims';
import { lineNet } from '../cladding/line-net';
import type { FaceModel, SetOutFace } from '../cladding/model';
import { divide } from '../grid/spacing';
import { lengthOfLine, movedLine, stationsOn } from '../grid/stations';
import { pointAt, type Vector } from '../geometry/vector';
import { rimLines, sectionLines, type SurfaceLine } from '../mass/rim-lines';
import { towardsFaces } from '../mass/towards-faces';
import { edgeDirections } from '../pattern/edges';
import { LineList } from '../pattern/line-list';
import type { Zone } from '../project/schema';
import type { StandingOf } from '../project/standing-schema';
import { pathTo } from '../project/typed-path';
import { refuse } from '../units/problem';
import { formatNumber } from '../units/quantity';
import type { FaceOfZone } from './lay-out-face';
import { guidesNamed } from './masses';
import type { Kept } from './memo';
import { rootOf, zoneNamed } from './other-zones';
import type { Run } from './stage';

/** What a path is found on. */
export interface PathMeans {
	readonly facesOf: (zone: Zone) => readonly FaceOfZone[];
	readonly laidOf: (zone: Zone) => Promise<Kept<JoinedFaces>>;
}

const UP: Vector = [0, 0, 1];
const GAP = edgeDirections.indexOf('gap');

/** A line of a face's grid, from 0; nothing where some of its nodes are not there. */
function gridLine({ grid }: FaceModel, along: 'course' | 'bay', line: number): SurfaceLine[] {
	const { columns, rows, absent } = grid;
	const nodes =
		along === 'course'
			? Array.from({ length: columns }, (_, i) => line * columns + i)
			: Array.from({ length: rows }, (_, j) => j * columns + line);
	if (nodes.length < 2 || nodes.some((node) => absent?.[node])) return [];
	return [
		{
			points: nodes.map((node) => pointAt(grid.positions, node)),
			normals: nodes.map((node) => pointAt(grid.normals, node)),
			closed: along === 'course' ? grid.across.closed : grid.up.closed
		}
	];
}

/** The lines that a path runs along. @throws ProblemError */
async function linesOf(
	run: Run,
	{ along }: StandingOf<'path'>,
	at: string,
	{ facesOf, laidOf }: PathMeans
): Promise<Kept<readonly SurfaceLine[]>> {
	const { memo, timed, project } = run;
	switch (along.is) {
		case 'guide': {
			const points = guidesNamed(run, [along.guide]).get(along.guide);
			if (!points) return refuse(`${at}/guide`, `the guide "${along.guide}" is not there; choose another`);
			if (points.length < 2)
				refuse(`${at}/guide`, 'a path needs a guide of at least two points; this one is a single point');
			const { closed } = project.guides.find(({ id }) => id === along.guide)!;
			// A closed guide comes back to its first point.
			const own = closed ? points.slice(0, -1) : points;
			const drawn = { points: own, normals: own.map(() => UP), closed };
			const { towards } = along;
			const root = towards && rootOf(project, zoneNamed(run, towards.of, `${at}/towards/of`));
			if (towards && !root)
				return refuse(`${at}/towards/of`, 'that zone does not stand on faces; choose one that does');
			const found = root ? facesOf(root) : [];
			return memo.use(
				['path on guide', at],
				[own, closed, towards, root?.faces, found.map(({ faces }) => faces)],
				() =>
					timed('grid', () => [
						towards
							? towardsFaces(
									drawn,
									found.map(({ face }) => face),
									towards.share
								)
							: drawn
					])
			);
		}
		case 'rim': {
			const zone = zoneNamed(run, along.of, `${at}/of`);
			const root = rootOf(project, zone);
			if (!root) return refuse(`${at}/of`, `${zone.name} does not stand on faces, and has no rims`);
			const found = facesOf(root);
			return memo.use(['path on rim', at], [found.map(({ faces }) => faces), root.faces, along.side], () =>
				timed('grid', () =>
					rimLines(
						found.map(({ face }) => face),
						along.side
					)
				)
			);
		}
		case 'section': {
			const zone = zoneNamed(run, along.of, `${at}/of`);
			const root = rootOf(project, zone);
			if (!root) return refuse(`${at}/of`, `${zone.name} does not stand on faces, and cannot be cut`);
			const level = project.levels.find(({ id }) => id === along.level);
			if (along.level !== null && !level)
				refuse(`${at}/level`, `the level "${along.level}" is not there any more; choose another`);
			const height = (level?.height ?? 0) + along.plus;
			const found = facesOf(root);
			return memo.use(['path on section', at], [found.map(({ faces }) => faces), root.faces, height], () =>
				timed('grid', () =>
					sectionLines(
						found.map(({ face }) => face),
						height
					)
				)
			);
		}
		case 'line': {
			const zone = zoneNamed(run, along.of, `${at}/of`);
			if (zone.on.is !== 'faces' && zone.on.is !== 'layer')
				refuse(`${at}/of`, `${zone.name} has no lines of a grid; choose a zone on faces, or one behind them`);
			const laid = await laidOf(zone);
			return memo.use(['path on line', at], [laid, along], () =>
				laid.value.faces.flatMap((face) => {
					const count = along.along === 'course' ? face.grid.rows : face.grid.columns;
					const line = along.number > 0 ? along.number - 1 : count + along.number;
					if (line < 0 || line >= count || along.number === 0)
						refuse(
							`${at}/number`,
							`there is no ${along.along} line ${along.number}; 1 to ${count}, or -1 to -${count} from the other end, are`
						);
					return gridLine(face, along.along, line);
				})
			);
		}
	}
}

/**
 * Stations along lines, and the gaps between them; every line by itself.
 *
 * @throws ProblemError
 */
export async function layOutPath(
	run: Run,
	zone: Zone,
	on: StandingOf<'path'>,
	means: PathMeans
): Promise<Kept<SetOutFace>[]> {
	const { memo, timed } = run;
	const at = pathTo('zones', zone.id) + '/on';
	const lines = await linesOf(run, on, `${at}/along`, means);
	if (!lines.value.length)
		refuse(`${at}/along`, `nothing lies there that a path could run along: ${nothingThere(on)}`);
	const { across } = zone.settingOut;
	return lines.value.map((line, k) =>
		memo.use(['path', zone.id, k], [lines, on, across], () =>
			timed('grid', () => {
				// What stands upright is lifted upright too.
				const stood = on.turned === 'upright' ? { ...line, normals: line.normals.map(() => UP) } : line;
				const moved = movedLine(stood, on);
				const whole = lengthOfLine(moved);
				const spacing = pathTo('zones', zone.id, 'settingOut', 'across');
				const lengths = { belt: whole, longest: whole };
				const division = divide(across, lengths, spacing, 'gaps');
				const { fractions } = division;
				if (moved.closed && fractions.length < 4)
					refuse(spacing, `a closed path needs at least 3 gaps; ${fractions.length - 1} is too few`);
				const { positions, normals } = stationsOn(moved, fractions);
				const count = positions.length / 3;
				const gaps = new LineList();
				for (let n = 0; n + 1 < fractions.length; n++) gaps.push(n, (n + 1) % count, 1, n + 1, GAP);
				return lineNet(
					{
						address: lines.value.length > 1 ? `${zone.id}.${k + 1}` : zone.id,
						positions,
						normals,
						lines: gaps.made(),
						chains: [Array.from({ length: fractions.length }, (_, n) => n % count)],
						spread: { steps: fractions.length - 1, division, lengths, closed: moved.closed },
						said: []
					},
					memo.nextSerial()
				);
			})
		)
	);
}

function nothingThere({ along }: StandingOf<'path'>): string {
	if (along.is === 'rim')
		return along.side === 'trim'
			? 'the faces have no openings'
			: `the faces come round, and have no ${along.side}`;
	if (along.is === 'section') return 'no face is as high or as low as that';
	return `${formatNumber(along.is === 'line' ? along.number : 0)} is a line with nodes that are not there`;
}
