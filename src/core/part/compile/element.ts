import type { ElementDefinition } from '../../project/part-definition';
import { type Register } from '../builder';
import { MOST_TURNS } from '../flag-list';
import { sheetMesh } from '../solids';
import type { Stock } from '../stock';
import { Vectors, type Solid, type Value } from '../values';
import { StepFault } from './fault';
import type { Lowering } from './lowering';
import type { Scope } from './scope';

/** What is made by itself, with a mesh of its own. */
const alone = ['fitted block', 'pierced sheet', 'joined tubes'] as const;

/**
 * Make an element of what its names stand for.
 * @throws StepFault when some of it is ordered twice, or it cannot be made of such things
 */
export function lowerElement(c: Lowering, scope: Scope, element: ElementDefinition): void {
	const b = scope.builder;
	const thickness = element.thickness ? c.number(scope, element.thickness, 'length') : b.constant(0);
	const values = element.of.map((name) => c.lookup(scope, name, 'solid', 'sheet', ...alone));
	for (const [k, value] of values.entries()) {
		const other = c.order(value, element);
		if (other)
			throw new StepFault(
				`"${element.of[k]}" is in the element "${other}" already, and would be ordered twice; take it out of one of them`
			);
	}
	const index = c.indexOf(element);
	const nextTurn = () => {
		const before = c.nextTurn(index);
		return scope.repeats ? before * MOST_TURNS : before;
	};
	const [first] = values;
	if (first?.is === 'fitted block' && values.length === 1)
		return b.block(index, nextTurn(), first.fitted, c.named(element.of[0]!));
	if (first?.is === 'pierced sheet' && values.length === 1)
		return b.sheet(index, nextTurn(), first.filling, c.named(element.of[0]!));
	if (first?.is === 'joined tubes' && values.length === 1)
		return b.tubes({ element: index, firstTurn: nextTurn(), joint: first.joint });
	const solids = values.flatMap((value): readonly Solid[] => {
		if (value.is === 'solid') return value.solids;
		if (value.is !== 'sheet')
			throw new StepFault(`a ${value.is} is an element by itself; give what else there is one of its own`);
		return [sheetMesh(new Vectors(b), value.sheet, thickness)];
	});
	const stock = commonStock(values, element.thickness ? thickness : null);
	for (const one of element.each ? solids.map((solid) => [solid]) : [solids])
		b.element({
			element: index,
			firstTurn: nextTurn(),
			solids: one,
			volume: b.sum(one.map((solid) => solid.volume)),
			area: b.sum(one.map((solid) => solid.area)),
			length: b.sum(one.map((solid) => solid.length)),
			stock
		});
}

/**
 * What all values that an element is made of are cut from; null where they differ or it is not said.
 * @param thickness of sheets (mm), or null
 */
function commonStock(values: readonly Value[], thickness: Register | null): Stock<Register> | null {
	const stocks = values.map((value): Stock<Register> | null => {
		if (value.is === 'sheet') return thickness === null ? null : { shape: 'plate', sizes: [thickness] };
		return value.is === 'solid' ? value.stock : null;
	});
	const [first] = stocks;
	return first && stocks.every((one) => JSON.stringify(one) === JSON.stringify(first)) ? first : null;
}
