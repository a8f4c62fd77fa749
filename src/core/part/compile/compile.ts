import { NOTHING_TO_FOLLOW, type Followable } from '../../field/followed';
import { fieldsOver } from '../../field/fields';
import type { ElementDefinition, PartDefinition } from '../../project/part-definition';
import { NOTHING_NAMED, type Named } from '../../named/named-values';
import type { NumberKind } from '../../units/dimension';
import { columnSource, givenNames, siteOf } from '../anchors';
import { DomainBuilder } from '../builder';
import { FlagList } from '../flag-list';
import { typeOfKind } from '../inputs';
import type { Program } from '../program';
import { Vectors, numberValue } from '../values';
import { Compiler, type Shared } from './compiler';
import { listElements } from './elements';
import { PartError, PartTooLarge } from './fault';
import { lower, readFormula } from './lower';
import type { Watcher } from './lowering';
import { Scope } from './scope';

/**
 * All elements of a part, those of its groups and sub-parts included, in the order written.
 *
 * ```ts
 * const labels = elementsOf(part, partsOf(project)).map(({ label }) => label);
 * ```
 */
export function elementsOf(
	definition: PartDefinition,
	library: readonly PartDefinition[] = []
): readonly ElementDefinition[] {
	return listElements(definition, library).all;
}

/**
 * Check a part and lower it for anchors of a given number of corners (2 for a pair).
 *
 * ```ts
 * const program = compilePart(part, 4, partsOf(project));
 * ```
 * @param library the parts that it may use
 * @throws PartError with every fault found
 */
export function compilePart(
	definition: PartDefinition,
	corners: number,
	library: readonly PartDefinition[] = []
): Program {
	const { program, faults } = checkPart(definition, corners, library);
	if (faults.length) throw new PartError(faults);
	return program;
}

/** The same without stopping at faults: the program makes what could be lowered. */
export function checkPart(
	definition: PartDefinition,
	corners: number,
	library: readonly PartDefinition[],
	watcher: Watcher | null = null
): { program: Program; faults: PartError['faults'] } {
	const builder = new DomainBuilder(new FlagList());
	const shared: Shared = { library, faults: [], made: new Map(), watcher };
	try {
		const scope = new Scope(builder, null);
		const names = givenNames(new Vectors(builder), definition.anchor, corners, columnSource(builder));
		for (const [name, value] of names) scope.set(name, value);
		const compiler = new Compiler(definition, listElements(definition, library), shared, '', []);
		const measures = compiler.lower(scope, ({ name }) => builder.column(`input.${name}`));
		for (const [name, { register }] of measures) builder.result(name, register);
		return { program: builder.finish(), faults: shared.faults };
	} catch (error) {
		if (!(error instanceof PartTooLarge)) throw error;
		return {
			program: new DomainBuilder(new FlagList()).finish(),
			faults: [...shared.faults, ...error.faults]
		};
	}
}

/**
 * Formulas over the names an anchor gives, as a program whose results carry the formulas' names.
 *
 * ```ts
 * const program = compileFormulas([{ name: 'depth', text: 'height / 10', kind: 'length' }], part.anchor, 4);
 * ```
 * @throws FormulaError
 */
export function compileFormulas(
	formulas: readonly { readonly name: string; readonly text: string; readonly kind: NumberKind }[],
	anchor: PartDefinition['anchor'],
	corners: number,
	things: Followable = NOTHING_TO_FOLLOW,
	named: Named = NOTHING_NAMED
): Program {
	const builder = new DomainBuilder(new FlagList());
	const scope = new Scope(builder, null);
	const names = givenNames(new Vectors(builder), anchor, corners, columnSource(builder));
	for (const [name, value] of names) scope.set(name, value);
	const over = siteOf({ anchor });
	for (const { name, kind } of fieldsOver(over, things)) {
		const value = numberValue(builder.column(name), kind);
		if (!names.has(name)) scope.set(name, value);
		// What the part knows by this name itself is told by the kind of its site.
		if (!name.includes('.') && !names.has(`${over}.${name}`)) scope.set(`${over}.${name}`, value);
	}
	for (const [name, { type, value }] of named)
		if (!scope.peek(name)) scope.set(name, { is: 'number', register: builder.constant(value), type });
	for (const { name, text, kind } of formulas)
		builder.result(name, lower(readFormula(scope, text, typeOfKind(kind)), scope));
	return builder.finish();
}
