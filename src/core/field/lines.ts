import { gather, reckon } from './column';
import { field, type Field, type FieldSource } from './field';

const endsOf = ({ edges, grid: { positions } }: Pick<FieldSource, 'edges' | 'grid'>, a: number, e: number) =>
	[positions[3 * edges.from[e]! + a]!, positions[3 * edges.to[e]! + a]!] as const;

export const lineFields: readonly Field[] = [
	field('line', 'length', 'length', 'length', ['edges', 'grid'], (source, sites) =>
		reckon(sites, (e) => {
			const across = (a: number) => {
				const [from, to] = endsOf(source, a, e);
				return to - from;
			};
			return Math.hypot(across(0), across(1), across(2));
		})
	),
	field('line', 'height', 'height', 'length', ['edges', 'grid'], (source, sites) =>
		reckon(sites, (e) => {
			const [from, to] = endsOf(source, 2, e);
			return (from + to) / 2;
		})
	),
	field('line', 'slope', 'slope', 'angle', ['edges', 'grid'], (source, sites) =>
		reckon(sites, (e) => {
			const across = (a: number) => {
				const [from, to] = endsOf(source, a, e);
				return to - from;
			};
			return Math.atan2(Math.abs(across(2)), Math.hypot(across(0), across(1)));
		})
	),
	field('line', 'fold', 'fold', 'angle', ['folds'], ({ folds }, sites) => gather(sites, folds)),
	field('line', 'course', 'course', 'count', ['edges'], ({ edges }, sites) => gather(sites, edges.course)),
	field('line', 'bay', 'bay', 'count', ['edges'], ({ edges }, sites) => gather(sites, edges.bay))
];
