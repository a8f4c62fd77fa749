import { checkDriver } from '../driver/check';
import type { Named } from '../named/named-values';
import type { SiteKind } from '../field/site-kind';
import type { Followable } from '../field/followed';
import { asksForSun } from '../field/sun';
import type { Driver, SpelledDriver } from '../project/driver-schema';
import { compileFormulas, compilePart, elementsOf } from '../part/compile/compile';
import { makesSolids } from '../part/block/solids';
import { isClipped } from './assign';
import { PartError } from '../part/compile/fault';
import { inputKind, kernelValue } from '../part/inputs';
import { shippedParts } from '../part/kit';
import { shippedMaterials } from '../part/materials';
import type { Program } from '../part/program';
import type { Material } from '../project/material-schema';
import type { ElementDefinition, PartDefinition, PartInput } from '../project/part-definition';
import { stepsWithin } from '../project/part/steps-within';
import type { Project, Variant } from '../project/schema';
import type { NumberKind } from '../units/dimension';
import { FormulaError } from '../units/formula/expression';
import { refuse } from '../units/problem';
import { same } from '../units/same';
import { formatQuantity } from '../units/quantity';
import { pathTo } from '../project/typed-path';

/** A variant with its part, its inputs in kernel units, and what its elements are made of. */
export interface ReadyVariant {
	readonly variant: Variant;
	readonly part: PartDefinition;
	/** Shared values by input name: mm, rad, plain. */
	readonly inputs: ReadonlyMap<string, number>;
	/** What it makes, sub-parts included, and the material of each. */
	readonly elements: readonly ElementDefinition[];
	readonly materials: readonly Material[];
	/** The part's own definition and those of the parts within it: what its pieces hang on. */
	readonly definitions: readonly PartDefinition[];
	/** They ask where the sun stands. */
	readonly underSun: boolean;
}

/**
 * The project's own parts, then the ones that ship.
 *
 * ```ts
 * const panels = partsOf(project).filter(({ role }) => role === 'panel');
 * ```
 */
export function partsOf(project: Project): readonly PartDefinition[] {
	const own = new Set(project.parts.map((part) => part.id));
	return [...project.parts, ...shippedParts.filter((part) => !own.has(part.id))];
}

/**
 * The project's own materials, then the ones that ship.
 *
 * ```ts
 * const glass = materialsOf(project).find(({ id }) => id === 'glass');
 * ```
 */
export function materialsOf(project: Project): readonly Material[] {
	const own = new Set(project.materials.map(({ id }) => id));
	return [...project.materials, ...shippedMaterials.filter(({ id }) => !own.has(id))];
}

/**
 * Whether any part is clipped, has its ends cut, fits blocks or joins tubes, itself or by a part within it: their solids need `loadSolids`.
 *
 * ```ts
 * if (usesSolids(project)) await loadSolids();
 * ```
 */
export function usesSolids(project: Project): boolean {
	const puts = project.zones.flatMap(({ rules, exceptions }) => [...rules, ...exceptions]);
	if (puts.some(({ put }) => isClipped(put))) return true;
	if (project.zones.some(({ runs }) => runs.some(({ ends }) => ends))) return true;
	const parts = partsOf(project);
	const used = new Set(project.variants.map(({ part }) => part));
	const found = new Set<PartDefinition>();
	for (const part of parts) if (used.has(part.id)) withSubParts(part, parts, found);
	return [...found].some(makesSolids);
}

/** Definitions of the parts that one is made of, its own first. */
function withSubParts(
	part: PartDefinition,
	library: readonly PartDefinition[],
	found: Set<PartDefinition>
): void {
	if (found.has(part)) return;
	found.add(part);
	for (const step of stepsWithin(part.steps)) {
		const sub = step.do === 'part' && library.find(({ id }) => id === step.part);
		if (sub) withSubParts(sub, library, found);
	}
}

interface Compiled {
	readonly definitions: readonly PartDefinition[];
	readonly program: Program;
}
/** Programs by their part and number of corners, the newest first: those of a part that is being changed differ. */
const compiled = new Map<string, Compiled[]>();
const MOST_OF_A_PART = 8;

/**
 * The program of a part for a number of corners, compiled once per definition.
 *
 * ```ts
 * const { root } = programOf(ready, 4, rulePath);
 * ```
 * @throws ProblemError
 */
export function programOf(
	{ part, definitions }: Pick<ReadyVariant, 'part' | 'definitions'>,
	corners: number,
	at: string
): Program {
	const name = `${part.id} ${corners}`;
	const known = compiled.get(name) ?? [];
	const found = known.find((one) => same(one.definitions, definitions));
	if (found) return found.program;
	try {
		const program = compilePart(part, corners, definitions);
		compiled.set(name, [{ definitions, program }, ...known].slice(0, MOST_OF_A_PART));
		return program;
	} catch (error) {
		if (error instanceof PartError)
			refuse(
				at,
				`the part ${part.label} cannot be used: ${error.faults.map((f) => `${f.step}: ${f.text}`).join('; ')}`
			);
		throw error;
	}
}

function readInput(input: PartInput, kind: NumberKind, variant: Variant): number {
	const at = pathTo('variants', variant.id, 'values', input.name);
	const given = variant.values[input.name] ?? input.default;
	const { options } = input;
	if (options) {
		if (!options.some(({ name }) => name === given))
			refuse(
				at,
				`${input.label} of ${variant.name} is ${JSON.stringify(given)}; ${options.map(({ name }) => name).join(', ')} are accepted`
			);
		return kernelValue(input, given);
	}
	if (kind === 'switch') return kernelValue(input, given);
	if (typeof given !== 'number')
		refuse(at, `${input.label} of ${variant.name} is ${JSON.stringify(given)}; a number is wanted`);
	const { min = -Infinity, max = Infinity } = input;
	if (given < min || given > max) {
		const shown = (value: number) => formatQuantity(kernelValue(input, value), kind);
		const range =
			max === Infinity
				? `at least ${shown(min)}`
				: min === -Infinity
					? `at most ${shown(max)}`
					: `${shown(min)} to ${shown(max)}`;
		const nearest = Math.min(max, Math.max(min, given));
		refuse(at, `${input.label} of ${variant.name} is ${shown(given)}; ${range} is accepted`, [
			{ label: shown(nearest), path: at, value: nearest }
		]);
	}
	return kernelValue(input, given);
}

/**
 * @throws ProblemError when the variant, its part or one of its values cannot be used
 *
 * ```ts
 * const { part, inputs } = readyVariant(project, 'framed-roof', pathTo('zones', zone.id, 'rules', 'whole'));
 * ```
 */
export function readyVariant(project: Project, id: string, at: string): ReadyVariant {
	const variant = project.variants.find((one) => one.id === id);
	if (!variant) {
		const known = project.variants.map((one) => one.id).join(', ') || 'none yet';
		return refuse(at, `the variant "${id}" is not in the kit; known: ${known}`);
	}
	const parts = partsOf(project);
	const part = parts.find((one) => one.id === variant.part);
	if (!part)
		return refuse(
			pathTo('variants', variant.id),
			`the part "${variant.part}" is not in the kit; known: ${parts.map((one) => one.id).join(', ')}`
		);
	for (const name of Object.keys(variant.values))
		if (!part.inputs.some((input) => input.name === name))
			refuse(
				pathTo('variants', variant.id, 'values'),
				`${part.label} has no input "${name}"; it has ${part.inputs.map((input) => input.name).join(', ')}`
			);
	const inputs = new Map(
		part.inputs.flatMap((input) => {
			const kind = inputKind(input);
			return kind ? [[input.name, readInput(input, kind, variant)] as const] : [];
		})
	);
	const elements = elementsOf(part, parts);
	const known = materialsOf(project);
	const materials = elements.map((element) => elementMaterial(element, part, variant, known));
	const definitions = new Set<PartDefinition>();
	withSubParts(part, parts, definitions);
	const underSun = asksForSun([...definitions].map((one) => JSON.stringify(one)));
	return { variant, part, inputs, elements, materials, definitions: [...definitions], underSun };
}

function elementMaterial(
	element: ElementDefinition,
	part: PartDefinition,
	variant: Variant,
	known: readonly Material[]
): Material {
	const input = part.inputs.find((one) => one.kind === 'material' && one.name === element.material);
	const id = input ? String(variant.values[input.name] ?? input.default) : element.material;
	return (
		known.find((one) => one.id === id) ??
		refuse(
			pathTo('variants', variant.id, 'values'),
			`the material "${id}" is not known; known: ${known.map((one) => one.id).join(', ')}`
		)
	);
}

/** An input that a clause sets piece by piece. @throws ProblemError when the part has none such */
function perPieceInput(
	ready: ReadyVariant,
	name: string,
	at: string
): { input: PartInput; kind: NumberKind } {
	const input = ready.part.inputs.find((one) => one.name === name);
	const kind = input && inputKind(input);
	if (!input || !kind) return refuse(at, `${ready.part.label} has no input "${name}"`);
	if (input.scope !== 'per piece')
		return refuse(
			at,
			`${input.label} is shared by the variant ${ready.variant.name}; only per-piece inputs can be set by a rule`
		);
	return { input, kind };
}

/**
 * What a clause sets piece by piece: formulas over the fields of sites as a program, and drivers that are spelled out,
 * all checked against the part's inputs.
 *
 * ```ts
 * const { program, spelled } = perPiece(ready, { depth: 'height / 10' }, 'cell', 4, NOTHING_TO_FOLLOW, NOTHING_NAMED, rulePath);
 * ```
 * @param things of the project that formulas may name @param at where the clause says its values
 * @throws ProblemError
 */
export function perPiece(
	ready: ReadyVariant,
	values: Readonly<Record<string, Driver>>,
	over: SiteKind,
	corners: number,
	things: Followable,
	named: Named,
	at: string
): {
	readonly program: Program | null;
	readonly spelled: readonly {
		readonly input: PartInput;
		readonly kind: NumberKind;
		readonly driver: SpelledDriver;
	}[];
} {
	const formulas: { name: string; text: string; kind: NumberKind }[] = [];
	const spelled = Object.entries(values).flatMap(([name, driver]) => {
		const { input, kind } = perPieceInput(ready, name, at);
		if (typeof driver === 'string') {
			formulas.push({ name, text: driver, kind });
			return [];
		}
		checkDriver(driver, input, kind, over, things, named, `${at}/${name}`);
		return [{ input, kind, driver }];
	});
	try {
		const program = formulas.length
			? compileFormulas(formulas, ready.part.anchor, corners, things, named)
			: null;
		return { program, spelled };
	} catch (error) {
		if (error instanceof FormulaError) refuse(at, error.message);
		throw error;
	}
}
