import type { JoinedFaces } from '../cladding/join-rims';
import { lineNet } from '../cladding/line-net';
import { nodeName } from '../cladding/address';
import type { FaceModel, SetOutFace } from '../cladding/model';
import { distance, pointAt } from '../geometry/vector';
import { walkOn } from '../grid/chain-walk';
import { mirroredStrand, turned, type Strand } from '../grid/turned-copies';
import { woven } from '../grid/weave';
import { edgeDirections } from '../pattern/edges';
import { LineList } from '../pattern/line-list';
import type { Zone } from '../project/schema';
import type { StandingOf } from '../project/standing-schema';
import { pathTo } from '../project/typed-path';
import { refuse } from '../units/problem';
import { formatNumber } from '../units/quantity';
import { inRadians } from '../units/scale';
import type { Kept } from './memo';
import { zoneNamed } from './other-zones';
import type { Run } from './stage';

const GAP = edgeDirections.indexOf('gap');
/** Copies of one chain at most. */
const MOST_COPIES = 2000;
/** What a circle may be off by, and close all the same (degrees). */
const CLOSED = 1e-6;

/** The nodes of a chain on the first face, with what is to be said of them. @throws ProblemError */
function nodesOn(face: FaceModel, { through }: StandingOf<'chains'>, at: string) {
	const { grid } = face;
	const said: string[] = [];
	if (through.by === 'hand') {
		const places = new Map(
			Array.from({ length: grid.positions.length / 3 }, (_, n) => [nodeName(grid, n), n] as const)
		);
		const gone = through.nodes.filter((name) => !places.has(name));
		if (gone.length)
			said.push(
				`${gone.join(', ')} ${gone.length === 1 ? 'is' : 'are'} not there any more: the chain is released from ${gone.length === 1 ? 'it' : 'them'} and goes on without`
			);
		const nodes = through.nodes.flatMap((name) => places.get(name) ?? []);
		return { nodes, closed: false, said };
	}
	const { from, step, most } = through;
	if (!step[0] && !step[1]) refuse(`${at}/step`, 'a step of no bay and no course goes nowhere');
	const { columns, rows } = grid;
	if (from[0] < 1 || from[1] < 1 || from[0] > columns || from[1] > rows)
		refuse(
			`${at}/from`,
			`there is no node on bay line ${from[0]}, course line ${from[1]}; 1 to ${columns} and 1 to ${rows} are`
		);
	const walk = walkOn(grid, [from[0] - 1, from[1] - 1], step, most ?? Infinity);
	if (most !== null && walk.nodes.length < most)
		said.push(
			`${formatNumber(most)} nodes are asked for; ${formatNumber(walk.nodes.length)} are there before the rim`
		);
	return { ...walk, said };
}

/** The strand and its turned and mirrored copies. @throws ProblemError */
function copiesOf(
	strand: Strand,
	{ copies }: StandingOf<'chains'>,
	at: string
): { strands: Strand[]; said: string[] } {
	if (!copies) return { strands: [strand], said: [] };
	const { count, by, about, mirrored } = copies;
	if (count < 1 || count > MOST_COPIES)
		refuse(
			`${at}/count`,
			`${formatNumber(count)} chains cannot be made; 1 to ${formatNumber(MOST_COPIES)} can`
		);
	const each = by === 'full circle' ? 360 / count : by;
	const said: string[] = [];
	const open = Math.abs(Math.round((each * count) / 360) * 360 - each * count);
	if (by !== 'full circle' && count > 2 && open > CLOSED && open < Math.abs(each))
		said.push(
			`${formatNumber(count)} chains at ${formatNumber(each, 3)}° come to ${formatNumber(each * count, 3)}°: the circle does not close; ${formatNumber((Math.max(1, Math.round((each * count) / 360)) * 360) / count, 4)}° would`
		);
	const ways = mirrored ? [strand, mirroredStrand(strand, about)] : [strand];
	const strands = ways.flatMap((one) =>
		Array.from({ length: count }, (_, k) => (k ? turned(one, about, inRadians(k * each)) : one))
	);
	return { strands, said };
}

/** Chains through nodes of another zone. @throws ProblemError */
export async function layOutChains(
	run: Run,
	zone: Zone,
	on: StandingOf<'chains'>,
	layOut: (other: Zone) => Promise<Kept<JoinedFaces>>
): Promise<Kept<SetOutFace>[]> {
	const at = `${pathTo('zones', zone.id)}/on`;
	const of = zoneNamed(run, on.of, `${at}/of`);
	if (of.on.is !== 'faces' && of.on.is !== 'layer')
		refuse(
			`${at}/of`,
			`${of.name} has no grid whose nodes could be followed; choose a zone on faces, or one behind`
		);
	const laid = await layOut(of);
	const made = run.memo.use(['chains', zone.id], [laid, on], () =>
		run.timed('grid', () => {
			const face = laid.value.faces[0]!;
			const { nodes, closed, said } = nodesOn(face, on, `${at}/through`);
			if (laid.value.faces.length > 1)
				said.push(`chains go through the nodes of the first face of ${of.name}, ${face.address}, alone`);
			if (nodes.length < 2)
				refuse(
					`${at}/through`,
					`a chain goes through two nodes at least; ${nodes.length === 1 ? 'one is' : 'none is'} there`
				);
			const ring = closed ? [...nodes, nodes[0]!] : nodes;
			const strand = {
				points: ring.map((node) => pointAt(face.grid.positions, node)),
				normals: ring.map((node) => pointAt(face.grid.normals, node))
			};
			const copies = copiesOf(strand, on, `${at}/copies`);
			const { strands, outOfTurn } = woven(copies.strands, on.over);
			if (outOfTurn)
				copies.said.push(
					`at ${formatNumber(outOfTurn)} crossings a chain cannot be over and under in turn: an odd number of them lies on its way round`
				);
			return net(strands, zone.id, [...said, ...copies.said], run.memo.nextSerial());
		})
	);
	return [made];
}

/** Strands as nodes and lines, each a chain. */
function net(
	strands: readonly Strand[],
	address: string,
	said: readonly string[],
	serial: number
): SetOutFace {
	const points = strands.flatMap((strand) => strand.points);
	const normals = strands.flatMap((strand) => strand.normals);
	const lines = new LineList();
	const chains: number[][] = [];
	let first = 0;
	for (const strand of strands) {
		const count = strand.points.length;
		chains.push(Array.from({ length: count }, (_, n) => first + n));
		for (let n = 0; n + 1 < count; n++)
			if (distance(strand.points[n]!, strand.points[n + 1]!) > 0)
				lines.push(first + n, first + n + 1, chains.length, n + 1, GAP);
		first += count;
	}
	return lineNet(
		{
			address,
			positions: Float64Array.from(points.flat()),
			normals: Float64Array.from(normals.flat()),
			lines: lines.made(),
			spread: null,
			chains,
			said
		},
		serial
	);
}
