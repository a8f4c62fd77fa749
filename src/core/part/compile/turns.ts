import type { Each } from '../../project/part-definition';
import type { PointRegisters, Register } from '../builder';
import { StepFault } from './fault';
import { alongPath } from '../steps/points';
import { numberValue, piecesOf, type Value, type ValueOf, type Vectors } from '../values';

type Names = [string, Value][];

/** What steps know of one piece of a path that begins so far along it (mm). */
export function pieceNames(
	v: Vectors,
	path: readonly PointRegisters[],
	begins: Register,
	size: Register,
	turn: Register
): Names {
	const [from, to] = [begins, v.b.add(begins, size)].map((distance) => alongPath(v, path, distance));
	return [
		['piece', { is: 'path', points: [from!, to!] }],
		['from', { is: 'point', at: from! }],
		['to', { is: 'point', at: to! }],
		['turn', numberValue(turn, 'count')]
	];
}

/** What steps know of each of the lines that meet in a node. */
function turnsOfWays(v: Vectors, { ways }: ValueOf<'ways'>): Names[] {
	/** Of each with those after it. */
	const angles = ways.map(({ direction }, k) =>
		ways.map((other, n) => (n > k ? v.angle(direction, other.direction) : null))
	);
	return ways.map(({ direction, far, across, deep, middle }, k): Names => {
		const others = ways.flatMap((_, n) => (n === k ? [] : [angles[Math.min(k, n)]![Math.max(k, n)]!]));
		// Beside a line that is alone there is none but the other way.
		const next = ways.length > 1 ? ways[(k + 1) % ways.length]!.direction : v.negate(direction);
		return [
			['way', { is: 'direction', at: direction }],
			['next', { is: 'direction', at: next }],
			['far', { is: 'point', at: far }],
			[
				'apart',
				numberValue(
					[v.b.constant(Math.PI), ...others].reduce((p, q) => v.b.apply('min', p, q)),
					'angle'
				)
			],
			['across', numberValue(across, 'length')],
			['deep', numberValue(deep, 'length')],
			['middle', numberValue(middle, 'length')],
			['turn', numberValue(v.b.constant(k), 'count')]
		];
	});
}

/** What steps know in each of their turns. @throws StepFault when there is nothing to go over */
export function turnsOf(v: Vectors, step: Each, of: ValueOf<'ring' | 'path' | 'ways'>): Names[] {
	const { b } = v;
	if (step.over === 'ways' || of.is === 'ways') {
		if (step.over === 'ways' && of.is === 'ways') return turnsOfWays(v, of);
		throw new StepFault(
			of.is === 'ways'
				? `"${step.of}" are the ways from a node; they have no ${step.over}`
				: `"${step.of}" is a ${of.is}; ways are those of a node`
		);
	}
	const count = (name: string, value: number): Names[number] => [
		name,
		numberValue(b.constant(value), 'count')
	];
	const { points } = of;
	const n = points.length;
	switch (step.over) {
		case 'edges':
			return piecesOf(of).map(([from, to], k): Names => [
				['edge', { is: 'path', points: [from, to] }],
				['from', { is: 'point', at: from }],
				['to', { is: 'point', at: to }],
				count('turn', k)
			]);
		case 'corners':
			if (of.is !== 'ring') throw new StepFault(`"${step.of}" is a path; corners are those of a ring`);
			return points.map((at, k): Names => [
				['corner', { is: 'point', at }],
				['before', { is: 'point', at: points[(k + n - 1) % n]! }],
				['after', { is: 'point', at: points[(k + 1) % n]! }],
				count('turn', k)
			]);
		case 'small rings': {
			const { across = 2, up = 2 } = step;
			if (of.is !== 'ring' || n !== 4)
				throw new StepFault(
					`"${step.of}" is a ${of.is} of ${n} points; small rings are made of a ring of four`
				);
			const on = (s: number, t: number) =>
				v.weighted(points, [(1 - s) * (1 - t), s * (1 - t), s * t, (1 - s) * t]);
			return Array.from({ length: across * up }, (_, k): Names => {
				const [column, row] = [k % across, Math.floor(k / across)];
				const [s, t, s1, t1] = [column / across, row / up, (column + 1) / across, (row + 1) / up];
				return [
					['small', { is: 'ring', points: [on(s, t), on(s1, t), on(s1, t1), on(s, t1)] }],
					count('column', column),
					count('row', row),
					['odd', numberValue(b.constant((column + row) % 2), 'switch')],
					count('turn', k)
				];
			});
		}
	}
}
