import { StepFault } from '../compile/fault';
import type { Sheet, Value } from '../values';
import { refuseNothing, type Makers } from './context';

const sheetOf = (sheet: Sheet): Value => ({ is: 'sheet', sheet });

export const sheetSteps: Makers<
	'flat sheet' | 'fan sheet' | 'ruled sheet' | 'band sheet' | 'bowed sheet' | 'pierced sheet'
> = {
	'flat sheet'(step, { lookup }) {
		const vertices = lookup(step.ring, 'ring').points;
		return sheetOf({ vertices, facets: [vertices.map((_, k) => k)] });
	},
	'fan sheet'(step, { lookup }) {
		const ring = lookup(step.ring, 'ring', 'path');
		const n = ring.points.length;
		const count = ring.is === 'ring' ? n : n - 1;
		return sheetOf({
			vertices: [...ring.points, lookup(step.to, 'point').at],
			facets: Array.from({ length: count }, (_, k) => [k, (k + 1) % n, n])
		});
	},
	'ruled sheet'(step, { lookup }) {
		const [first, second] = [lookup(step.first, 'path').points, lookup(step.second, 'path').points];
		if (first.length !== second.length)
			throw new StepFault(
				`${step.first} has ${first.length} points and ${step.second} ${second.length}; they need the same number`
			);
		const n = first.length;
		return sheetOf({
			vertices: [...first, ...second],
			facets: Array.from({ length: n - 1 }, (_, k) => [k, k + 1, n + k + 1, n + k])
		});
	},
	'band sheet'(step, { lookup }) {
		const [outer, inner] = [lookup(step.outer, 'ring').points, lookup(step.inner, 'ring').points];
		if (outer.length !== inner.length)
			throw new StepFault(
				`${step.outer} has ${outer.length} corners and ${step.inner} ${inner.length}; they need the same number`
			);
		const n = outer.length;
		return sheetOf({
			vertices: [...outer, ...inner],
			facets: outer.map((_, k) => [k, (k + 1) % n, n + ((k + 1) % n), n + k])
		});
	},
	'bowed sheet'(step, { v, lookup, number }) {
		const { points } = lookup(step.ring, 'ring');
		if (points.length !== 4)
			throw new StepFault(`${step.ring} has ${points.length} corners; a bowed sheet needs four`);
		const along = v.unit(lookup(step.along, 'direction').at);
		const rise = number(step.rise, 'length');
		const m = step.pieces;
		const vertices = Array.from({ length: (m + 1) * (m + 1) }, (_, k) => {
			const [s, t] = [(k % (m + 1)) / m, Math.floor(k / (m + 1)) / m];
			const on = v.weighted(points, [(1 - s) * (1 - t), s * (1 - t), s * t, (1 - s) * t]);
			// A parabola each way, the full rise in the middle and none on the rim.
			const share = 16 * s * (1 - s) * t * (1 - t);
			return share === 0 ? on : v.along(on, along, v.b.multiply(rise, v.b.constant(share)));
		});
		const facets = Array.from({ length: m * m }, (_, k) => {
			const at = Math.floor(k / m) * (m + 1) + (k % m);
			return [at, at + 1, at + m + 2, at + m + 1];
		});
		return sheetOf({ vertices, facets });
	},
	'pierced sheet'(step, { v: { b }, number, anchor }) {
		if (anchor?.kind !== 'ring' && anchor?.kind !== 'double ring')
			throw new StepFault(
				'it fills a cell with the openings there are in it; a part on cells is wanted, and not one within another'
			);
		const thickness = number(step.thickness, 'length');
		refuseNothing(b, thickness, 'could not be made: its thickness is nothing');
		const [out, joint] = [number(step.out, 'length'), number(step.joint, 'length')];
		return { is: 'pierced sheet', filling: { thickness, out, joint } };
	}
};
