import { Chain } from '../../src/core/chain/chain';
import { scheduleCsv } from '../../src/core/exchange/csv/write';
import { writeGlb } from '../../src/core/exchange/glb/write';
import { writeIfc } from '../../src/core/exchange/ifc/write';
import { writePicture } from '../../src/core/exchange/picture/write';
import { writeStep } from '../../src/core/exchange/step/write';
import { textOf } from '../written';
import { DocumentError } from '../../src/core/project/faults';
import { readProject } from '../../src/core/project/read';
import type { Project } from '../../src/core/project/schema';
import { summarise } from '../../src/core/schedule/summary';
import { scheduleNames } from '../../src/core/project/schedules-schema';
import { cellsOf } from '../../src/core/schedule/column';
import { makeSchedule } from '../../src/core/schedule/table';
import { randomFrom } from '../saving/wardrobe';
import { documents, mutated } from './documents';

/** What is wrong with what became of a document; null: nothing, refused or made. */
export type Outcome = { readonly number: number; readonly made: boolean; readonly fault: string | null };

const bases = documents();
/** So many of them begin from one that takes seconds. */
const SLOW = 0.01;

/** The document of a number: always the same one. */
export function documentOf(number: number): unknown {
	const random = randomFrom(number * 7919 + 13);
	const from = random() < SLOW ? bases.slow : bases.quick;
	return mutated(from[number % from.length]!, random);
}

const NOT_A_NUMBER = /\bNaN\b|\bInfinity\b|\bundefined\b|\[object/;

function notFinite(value: unknown, at: string): string | null {
	if (typeof value === 'number') return Number.isFinite(value) ? null : at;
	if (typeof value === 'string') return NOT_A_NUMBER.test(value) ? `${at}: ${value.slice(0, 200)}` : null;
	if (ArrayBuffer.isView(value)) {
		const list = value as Float64Array;
		for (let k = 0; k < list.length; k++) if (!Number.isFinite(list[k])) return `${at}/${k}`;
		return null;
	}
	if (Array.isArray(value)) {
		for (let k = 0; k < value.length; k++) {
			const found = notFinite(value[k], at);
			if (found) return `${found} (${k})`;
		}
		return null;
	}
	if (typeof value !== 'object' || value === null) return null;
	for (const [key, one] of Object.entries(value)) {
		const found = notFinite(one, `${at}/${key}`);
		if (found) return found;
	}
	return null;
}

export async function faultOf(document: unknown): Promise<{ made: boolean; fault: string | null }> {
	let project: Project;
	try {
		project = readProject(document);
	} catch (error) {
		if (error instanceof DocumentError) return { made: false, fault: notFinite(error.message, 'refusal') };
		throw error;
	}
	const model = await new Chain().run(project);
	const unknown = model.problems.find(({ text }) => text.includes('does not know'));
	if (unknown) return { made: false, fault: `${unknown.at}: ${unknown.text}` };
	const told = notFinite(
		model.problems.map(({ text }) => text),
		'problems'
	);
	if (told) return { made: false, fault: told };
	const when = '2026-01-01T00:00:00';
	const outputs: Record<string, () => unknown> = {
		summary: () => ({ ...summarise(model), like_sets: 0 }),
		picture: () => writePicture(model),
		ifc: () => textOf(writeIfc(model, when)),
		step: () => textOf(writeStep(model, when)),
		measures: () =>
			model.zones.map((zone) => zone.model?.faces.map(({ measures, grid }) => [measures, grid.positions])),
		meshes: () => model.zones.map((zone) => zone.model?.groups.map(({ group }) => group.run.elements))
	};
	for (const name of scheduleNames)
		outputs[`schedule ${name}`] = () => {
			const schedule = makeSchedule(model, name);
			return [schedule.columns.map(cellsOf), scheduleCsv(schedule.columns)];
		};
	writeGlb(model);
	// One after the other, so that none is held while the next is made.
	for (const [name, output] of Object.entries(outputs)) {
		const found = notFinite(output(), name);
		if (found) return { made: true, fault: `not finite: ${found}` };
	}
	return { made: model.problems.length === 0, fault: null };
}

async function main(from: number, to: number): Promise<void> {
	for (let number = from; number < to; number++) {
		process.send!({ number, begins: true });
		let outcome: Outcome;
		try {
			outcome = { number, ...(await faultOf(documentOf(number))) };
		} catch (error) {
			outcome = { number, made: false, fault: `thrown: ${(error as Error).stack?.slice(0, 700) ?? error}` };
		}
		process.send!(outcome);
	}
	process.disconnect();
}

const [from, to] = process.argv.slice(2).map(Number);
if (process.send && from !== undefined && to !== undefined) void main(from, to);
