import { mkdir, readFile, writeFile } from 'node:fs/promises';
import { basename, join } from 'node:path';
import { parseArgs } from 'node:util';
import { Chain } from '../core/chain/chain';
import type { Model } from '../core/cladding/model';
import { formatGroups, formats, writtenAt } from '../core/exchange/formats';
import { DocumentError } from '../core/project/faults';
import { readProjectText } from '../core/project/read';
import { summarise } from '../core/schedule/summary';
import { CodedError } from '../core/units/coded-error';
import { drawingFonts } from './fonts';
import { quickPacking } from './packing';

const USAGE = `Usage:
  zyg build FILE.json --out DIR [--formats ${formatGroups.join(',')}]   write the model and its schedules
      [--at 2026-11-27T10:00:00] [--released TEXT]                  the moment that files tell, the release in title blocks
  zyg summary FILE.json                                             print counts and totals as JSON`;

/** Something the person has to put right; printed without a stack, exit code 2. */
class UserError extends CodedError {
	readonly code = 'command-line';
}

/** The model of a project file; what is to be known of it is said. */
async function buildModel(file: string, { complain }: Console): Promise<Model> {
	let content: string;
	try {
		content = await readFile(file, 'utf8');
	} catch {
		throw new UserError(`${file}: this file cannot be read`);
	}
	let model: Model;
	try {
		model = await new Chain().run(readProjectText(content));
	} catch (error) {
		if (error instanceof DocumentError)
			throw new UserError(error.faults.map((fault) => `${file}: ${fault}`).join('\n'));
		throw error;
	}
	const sentences = (remark: boolean) =>
		model.problems
			.filter((problem) => (problem.remark ?? false) === remark)
			.map((problem) => `${file}: ${problem.at}: ${problem.text}`);
	const refusals = sentences(false);
	if (refusals.length) throw new UserError(refusals.join('\n'));
	sentences(true).forEach(complain);
	return model;
}

/** Where the command line writes. */
export interface Console {
	print(line: string): void;
	complain(line: string): void;
}

const MOMENT = /^\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d$/;

async function carryOut(args: readonly string[], console: Console): Promise<void> {
	const { print } = console;
	let parsed;
	try {
		parsed = parseArgs({
			args: [...args],
			allowPositionals: true,
			options: {
				out: { type: 'string' },
				formats: { type: 'string', default: formatGroups.join(',') },
				at: { type: 'string', default: writtenAt() },
				released: { type: 'string' }
			}
		});
	} catch (error) {
		throw new UserError(`${(error as Error).message}\n${USAGE}`);
	}
	const [command, file, ...rest] = parsed.positionals;
	const { out, formats: list, at, released = null } = parsed.values;
	if (!file || rest.length > 0) throw new UserError(USAGE);
	if (command === 'summary') {
		const model = await buildModel(file, console);
		print(JSON.stringify(summarise(model), null, 2));
		return;
	}
	if (command !== 'build') throw new UserError(`"${command}" is not a command.\n${USAGE}`);
	if (!out) throw new UserError(`build needs --out DIR.\n${USAGE}`);
	const wanted = list.split(',').filter(Boolean);
	const unknown = wanted.filter((group) => !formatGroups.includes(group));
	if (unknown.length || !wanted.length)
		throw new UserError(
			`--formats ${list}: ${unknown.join(', ') || 'nothing'} cannot be written; ${formatGroups.join(', ')} can`
		);
	if (!MOMENT.test(at)) throw new UserError(`--at ${at}: a moment is wanted, as in 2026-11-27T10:00:00`);
	const model = await buildModel(file, console);
	await mkdir(out, { recursive: true });
	const of = { model, project: model.project, at, released, fonts: drawingFonts, packing: quickPacking };
	for (const format of formats)
		if (wanted.includes(format.group)) {
			const path = join(out, `${basename(file, '.json')}${format.ending}`);
			await writeFile(path, await format.write(of));
			print(path);
		}
}

/** Run the command line. @returns its exit code: 2 when the person has to put something right */
export async function main(args: readonly string[], console: Console): Promise<number> {
	try {
		await carryOut(args, console);
		return 0;
	} catch (error) {
		if (!(error instanceof UserError)) throw error;
		console.complain(error.message);
		return 2;
	}
}
