import type { NumberKind } from '../units/dimension';
import type { FlagCode, FlagLevel } from '../units/flag';
import { applyArithmetic } from '../units/formula/evaluate';
import type { Arithmetic } from '../units/formula/expression';
import { cuttersOf, mapNumbers, MOST_SHAPES, type Recipe } from './block/recipe';
import type { FlagList, Said } from './flag-list';
import { joinProducts, type Register } from './products';
import { allotSlots } from './slots';
import { mapJoint, numbersOfJoint, type TubeJoint } from './tubes/joint';
import type { Stock } from './stock';
import type { BlockFlags, Domain, ElementOutput, PointSlots, Program } from './program';

export type { Register };
export interface PointRegisters {
	readonly x: Register;
	readonly y: Register;
	readonly z: Register;
}

/** The section of a bar as a plane cuts it: an affine image of its corners, at + across x + along y. */
export interface CutSection {
	readonly at: PointRegisters;
	readonly x: PointRegisters;
	readonly y: PointRegisters;
	readonly corners: readonly (readonly [across: Register, along: Register])[];
}

/** A block in its space: which mesh that is shows when its numbers are known. */
export interface FittedBlock {
	readonly recipe: Recipe;
	readonly lie: { readonly turns: Register; readonly flip: Register; readonly mirror: Register };
	/** Corners of the space, those inside first. */
	readonly corners: readonly PointRegisters[];
}

/** A sheet that fills its cell as it is: mm. */
export interface PiercedSheet {
	readonly thickness: Register;
	readonly out: Register;
	readonly joint: Register;
}

interface Draft {
	readonly elements: {
		readonly element: number;
		readonly firstTurn: number;
		readonly solids: readonly {
			readonly vertices: readonly PointRegisters[];
			readonly sections?: readonly CutSection[];
			readonly triangles: readonly number[];
			readonly caps: ElementOutput['caps'];
		}[];
		readonly volume: Register;
		readonly area: Register;
		readonly length: Register;
		readonly stock: Stock<Register> | null;
	}[];
	readonly blocks: {
		readonly element: number;
		readonly firstTurn: number;
		readonly fitted: FittedBlock;
		readonly flags: BlockFlags;
	}[];
	readonly sheets: {
		readonly element: number;
		readonly firstTurn: number;
		readonly filling: PiercedSheet;
		readonly flat: number;
		readonly narrower: number;
	}[];
	readonly tubes: {
		readonly element: number;
		readonly firstTurn: number;
		readonly joint: TubeJoint<PointRegisters, Register>;
	}[];
	readonly flags: { readonly when: Register; readonly flag: number }[];
	readonly results: { readonly name: string; readonly register: Register }[];
	readonly turnResults: { readonly name: string; readonly register: Register }[];
	readonly groups: { readonly times: Register; readonly builder: DomainBuilder }[];
}

/** A recipe whose numbers are places in a list of registers, and the list. */
function numbered(recipe: Recipe): { readonly recipe: Recipe; readonly registers: readonly Register[] } {
	const registers: Register[] = [];
	const placed = mapNumbers(recipe, (register) => {
		const known = registers.indexOf(register);
		return known >= 0 ? known : registers.push(register) - 1;
	});
	return { recipe: placed, registers };
}

/** Several meshes as one. */
function joined(
	solids: Draft['elements'][number]['solids'],
	point: (p: PointRegisters) => PointSlots,
	slot: (register: Register) => number
): Pick<ElementOutput, 'vertices' | 'sections' | 'verticesEach' | 'triangles' | 'caps'> {
	const plain = solids.reduce((sum, { vertices }) => sum + vertices.length, 0);
	let [before, beforeOfSections] = [0, plain];
	const triangles: number[] = [];
	const caps: ElementOutput['caps'][number][] = [];
	for (const { vertices, sections = [], triangles: own, caps: ownCaps } of solids) {
		const [first, firstOfSections] = [before, beforeOfSections - vertices.length];
		const later = (vertex: number) => vertex + (vertex < vertices.length ? first : firstOfSections);
		for (const { cap, when, crossed } of ownCaps)
			caps.push({
				cap: { ...cap, corners: cap.corners.map(later), at: cap.at + triangles.length },
				when: when === null ? null : slot(when),
				crossed
			});
		for (const vertex of own) triangles.push(later(vertex));
		before += vertices.length;
		beforeOfSections += sections.reduce((sum, { corners }) => sum + corners.length, 0);
	}
	return {
		vertices: solids.flatMap((solid) => solid.vertices.map(point)),
		sections: solids.flatMap(({ sections = [] }) =>
			sections.map(({ at, x, y, corners }) => ({
				at: point(at),
				x: point(x),
				y: point(y),
				corners: corners.map(([across, along]) => [slot(across), slot(along)] as const)
			}))
		),
		verticesEach: beforeOfSections,
		triangles,
		caps
	};
}

/**
 * Builds one domain. Equal operations on equal operands give the same register, so steps may ask for an
 * edge's direction or a length as often as they like.
 */
export class DomainBuilder {
	private readonly operations: { op: Arithmetic; a: Register; b: Register; c: Register; out: Register }[] =
		[];
	private readonly constants = new Map<Register, number>();
	private readonly columns = new Map<string, Register>();
	private readonly imports = new Map<Register, Register>();
	private readonly known = new Map<string, Register>();
	private registers = 0;
	private indexRegister: Register | null = null;
	private readonly draft: Draft = {
		elements: [],
		blocks: [],
		sheets: [],
		tubes: [],
		flags: [],
		results: [],
		turnResults: [],
		groups: []
	};

	/** @param isRoot whether its rows are the pieces themselves */
	constructor(
		readonly flagList: FlagList,
		private readonly isRoot = true
	) {}

	private once(key: string, make: () => Register): Register {
		this.flagList.countAsked();
		const known = this.known.get(key);
		if (known !== undefined) return known;
		const register = make();
		this.known.set(key, register);
		return register;
	}

	constant(value: number): Register {
		return this.once(`=${Object.is(value, -0) ? 0 : value}`, () => {
			this.constants.set(this.registers, value);
			return this.registers++;
		});
	}

	column(name: string): Register {
		return this.once(`@${name}`, () => {
			this.columns.set(name, this.registers);
			return this.registers++;
		});
	}

	/** The turn of a repeated group: 0, 1, 2 … */
	index(): Register {
		this.indexRegister ??= this.registers++;
		return this.indexRegister;
	}

	/** Take over a register of the enclosing domain. */
	import(from: Register): Register {
		return this.once(`^${from}`, () => {
			this.imports.set(from, this.registers);
			return this.registers++;
		});
	}

	apply(op: Arithmetic, a: Register, b: Register = a, c: Register = a): Register {
		const values = [a, b, c].map((register) => this.constants.get(register));
		if (values.every((value) => value !== undefined)) {
			const folded = applyArithmetic(op, values[0]!, values[1]!, values[2]!);
			if (Number.isFinite(folded)) return this.constant(folded);
		}
		const zero = this.constants.get(b);
		if ((op === 'add' || op === 'subtract') && zero === 0) return a;
		if ((op === 'multiply' || op === 'divide') && zero === 1) return a;
		return this.once(`${op} ${a} ${b} ${c}`, () => {
			this.flagList.countOperation();
			const out = this.registers++;
			this.operations.push({ op, a, b, c, out });
			return out;
		});
	}

	add = (a: Register, b: Register) => this.apply('add', a, b);
	subtract = (a: Register, b: Register) => this.apply('subtract', a, b);
	multiply = (a: Register, b: Register) => this.apply('multiply', a, b);
	divide = (a: Register, b: Register) => this.apply('divide', a, b);
	/** By halves, so that no addition waits for all the others. */
	sum = (terms: readonly Register[]): Register => {
		if (terms.length < 2) return terms[0] ?? this.constant(0);
		const half = terms.length >> 1;
		return this.add(this.sum(terms.slice(0, half)), this.sum(terms.slice(half)));
	};

	flag(when: Register, said: Said): void {
		this.draft.flags.push({ when, flag: this.flagList.indexOf(said) });
	}

	/** A flag with its numbers, where each row has one of them. */
	flagBeyond(
		when: Register,
		said: Said,
		{ kind, value, bound }: { kind: NumberKind | null; value: Register; bound: Register }
	): void {
		const flag = this.flagList.indexOf(said, this.isRoot ? kind : null);
		this.draft.flags.push({ when, flag });
		const named = this.flagList.flags[flag]!;
		if (named.value === null || named.bound === null) return;
		this.result(named.value, value);
		this.result(named.bound, bound);
	}

	element(element: Draft['elements'][number]): void {
		this.draft.elements.push(element);
	}

	/** A thing that is made of a block; @param name of the step, for what is to be told of it */
	block(element: number, firstTurn: number, fitted: FittedBlock, name: string): void {
		const flag = (code: FlagCode, level: FlagLevel, text: string) =>
			this.flagList.indexOf({ code, level, subject: name, says: `${name}: ${text}` });
		this.draft.blocks.push({
			element,
			firstTurn,
			fitted,
			flags: {
				nothingLeft: flag('block.nothing-left', 'failed', 'nothing is left of the block'),
				reachesOut: flag('block.reaches-out', 'flagged', 'the block reaches out of its box'),
				tooMany: flag(
					'block.too-many-shapes',
					'failed',
					`there are more than ${MOST_SHAPES} different shapes of it`
				),
				idle: new Map(
					cuttersOf(fitted.recipe).map((cutter) => [
						cutter,
						flag('block.idle-cutter', 'flagged', `${cutter} cuts nothing away`)
					])
				)
			}
		});
	}

	/** A sheet that fills a cell as it is; @param name of the step, for what is to be told of it */
	sheet(element: number, firstTurn: number, filling: PiercedSheet, name: string): void {
		const flag = (code: FlagCode, level: FlagLevel, text: string) =>
			this.flagList.indexOf({ code, level, subject: name, says: `${name}: ${text}` });
		const flat = flag('sheet.no-area', 'failed', 'there is no area to fill');
		const narrower = flag(
			'sheet.narrow-joint',
			'flagged',
			'its joint is narrower than was asked for, where its rim is sharp or its openings are near'
		);
		this.draft.sheets.push({ element, firstTurn, filling, flat, narrower });
	}

	/** A smooth body of round arms. */
	tubes(output: Draft['tubes'][number]): void {
		this.draft.tubes.push(output);
	}

	result(name: string, register: Register): void {
		this.draft.results.push({ name, register });
	}

	/** A value of every turn, kept turn by turn. */
	turnResult(name: string, register: Register): void {
		this.draft.turnResults.push({ name, register });
	}

	group(times: Register): DomainBuilder {
		const builder = new DomainBuilder(this.flagList, false);
		this.draft.groups.push({ times, builder });
		return builder;
	}

	finish(): Program {
		return { root: this.domain().domain, flags: this.flagList.flags };
	}

	/** Give every register a slot, reusing the slots of values that are no longer needed. */
	private domain(): { domain: Domain; imported: Map<Register, number> } {
		const groups = this.draft.groups.map((group) => ({ ...group, built: group.builder.domain() }));
		const made = this.draft.elements.flatMap(({ solids, volume, area, length, stock }) => [
			...(stock?.sizes ?? []),
			...solids
				.flatMap(({ vertices, sections = [] }) => [
					...vertices,
					...sections.flatMap(({ at, x, y }) => [at, x, y])
				])
				.flatMap(({ x, y, z }) => [x, y, z]),
			...solids.flatMap(({ sections = [] }) => sections.flatMap(({ corners }) => corners.flat())),
			volume,
			area,
			length
		]);
		const blocks = this.draft.blocks.map((block) => ({ ...block, ...numbered(block.fitted.recipe) }));
		const ofBlocks = blocks.flatMap(({ fitted, registers }) => [
			...fitted.corners.flatMap(({ x, y, z }) => [x, y, z]),
			...Object.values(fitted.lie),
			...registers
		]);
		const ofSheets = this.draft.sheets.flatMap(({ filling }) => Object.values<Register>({ ...filling }));
		const ofTubes = this.draft.tubes.flatMap(({ joint }) => numbersOfJoint(joint));
		const wanted = [
			...new Set([...made, ...ofBlocks, ...ofSheets, ...ofTubes, ...groups.map(({ times }) => times)])
		];
		// Nought times what is not finite is NaN, and a sum with NaN stays NaN.
		const finite = this.multiply(this.sum(wanted), this.constant(0));
		const kept = new Set([...wanted, finite]);
		this.draft.flags.forEach(({ when }) => kept.add(when));
		for (const { solids } of this.draft.elements)
			for (const { when } of solids.flatMap(({ caps }) => caps)) if (when !== null) kept.add(when);
		for (const { register } of [...this.draft.results, ...this.draft.turnResults]) kept.add(register);
		for (const group of groups) for (const from of group.built.imported.keys()) kept.add(from);

		const needed = new Set(kept);
		const wantedOnly = this.operations
			.toReversed()
			.filter(({ out, a, b, c }) => needed.has(out) && [a, b, c].every((r) => needed.add(r)))
			.reverse();
		const live = joinProducts(wantedOnly, kept);
		const used = <Key>(entries: Map<Key, Register>) =>
			[...entries].filter(([, register]) => needed.has(register));
		const constants = [...this.constants].filter(([register]) => needed.has(register));
		const columns = used(this.columns);
		const imports = used(this.imports);

		const fixed = [
			...constants.map(([register]) => register),
			...columns.map(([, register]) => register),
			...imports.map(([, register]) => register),
			...(this.indexRegister === null ? [] : [this.indexRegister])
		];
		const { slotOf, slots, operations } = allotSlots(live, fixed, kept);

		const slot = (register: Register) => slotOf.get(register)!;
		const point = (p: PointRegisters) => ({ x: slot(p.x), y: slot(p.y), z: slot(p.z) });
		const domain: Domain = {
			operations,
			slots,
			constants: constants.map(([register, value]) => ({ slot: slot(register), value })),
			columns: columns.map(([name, register]) => ({ name, slot: slot(register) })),
			imports: [],
			index: this.indexRegister === null ? null : slot(this.indexRegister),
			elements: this.draft.elements.map((element) => ({
				element: element.element,
				firstTurn: element.firstTurn,
				...joined(element.solids, point, slot),
				volume: slot(element.volume),
				area: slot(element.area),
				length: slot(element.length),
				stock: element.stock && { shape: element.stock.shape, sizes: element.stock.sizes.map(slot) }
			})),
			blocks: blocks.map(({ element, firstTurn, fitted, flags, recipe, registers }) => ({
				element,
				firstTurn,
				flags,
				recipe,
				values: registers.map(slot),
				lie: {
					turns: slot(fitted.lie.turns),
					flip: slot(fitted.lie.flip),
					mirror: slot(fitted.lie.mirror)
				},
				corners: fitted.corners.map(point)
			})),
			sheets: this.draft.sheets.map(({ element, firstTurn, filling, flat, narrower }) => ({
				element,
				firstTurn,
				thickness: slot(filling.thickness),
				out: slot(filling.out),
				joint: slot(filling.joint),
				flat,
				narrower
			})),
			tubes: this.draft.tubes.map((one) => ({ ...one, joint: mapJoint(one.joint, point, slot) })),
			finite: slot(finite),
			flags: this.draft.flags.map(({ when, flag }) => ({ when: slot(when), flag })),
			results: this.draft.results.map(({ name, register }) => ({ name, slot: slot(register) })),
			turnResults: this.draft.turnResults.map(({ name, register }) => ({ name, slot: slot(register) })),
			groups: groups.map(({ times, built }) => ({
				times: slot(times),
				domain: {
					...built.domain,
					imports: [...built.imported].map(([from, to]) => ({ from: slot(from), to }))
				}
			}))
		};
		const imported = new Map(imports.map(([from, register]) => [from, slot(register)]));
		return { domain, imported };
	}
}
