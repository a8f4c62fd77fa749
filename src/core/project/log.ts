import { z } from 'zod';
import { applyEdits, commandSchema, MOST_LABEL, type Applied } from './commands';
import type { Edit } from './edits';
import { CommandError } from './faults';
import { pathsMeet } from './paths';
import type { Project } from './schema';

/**
 * The log of a project: every command in the order it was carried out, and what undo and redo mean in it when
 * several windows write. Browser and server carry commands out by the same functions.
 */

const uuid = z.uuid();

/**
 * A command with its name for good, made when it is done. Undo and redo name the command they take back (an undo
 * takes back a *do* or a *redo*, a redo takes back an *undo*); what that means is reckoned where it is carried out.
 */
export const sentSchema = z.discriminatedUnion('kind', [
	commandSchema.extend({ kind: z.literal('do'), id: uuid, window: uuid }),
	z.strictObject({
		kind: z.enum(['undo', 'redo']),
		id: uuid,
		window: uuid,
		of: uuid,
		label: z.string().min(1).max(MOST_LABEL)
	})
]);
export type SentCommand = z.infer<typeof sentSchema>;

/** What must be known of a command that was carried out, to take it back. */
export interface Done {
	readonly id: string;
	readonly window: string;
	readonly label: string;
	readonly inverse: readonly Edit[];
	readonly touched: readonly string[];
}

/**
 * Undo would take back what another window has decided since.
 *
 * ```ts
 * if (error instanceof Overtaken) tell(error.message); // another window decided the same since
 * ```
 */
export class Overtaken extends CommandError {
	override readonly code = 'command.overtaken';
}

/** What an undo or redo can see of the log. */
export interface Past {
	/** The command that is taken back. */
	find(id: string): Done | undefined;
	/** The paths that other windows have decided after it. */
	decidedSince(command: Done): Iterable<readonly string[]>;
}

const takesBack = (kind: SentCommand['kind']) => (kind === 'redo' ? 'done again' : 'taken back');

/**
 * Carry out a command of the log.
 *
 * ```ts
 * const { project: next } = carryOut(project, sent, past);
 * ```
 * @throws CommandError when it does not fit, Overtaken when another window has decided the same since, DocumentError
 */
export function carryOut(
	project: Project,
	command: SentCommand,
	past: Past
): Applied & { edits: readonly Edit[] } {
	if (command.kind === 'do') return { ...applyEdits(project, command.edits), edits: command.edits };
	const of = past.find(command.of);
	if (!of)
		throw new CommandError(
			`“${command.label}” cannot be ${takesBack(command.kind)}: it is not in the project's history`
		);
	for (const paths of past.decidedSince(of))
		if (anyMeet(paths, of.touched))
			throw new Overtaken(
				`“${command.label}” cannot be ${takesBack(command.kind)}: another window has changed the same since`
			);
	return { ...applyEdits(project, of.inverse), edits: of.inverse };
}

/**
 * Whether a path of one command lies at or below a path of the other.
 *
 * ```ts
 * anyMeet(['zones/gull/name'], ['zones/gull']); // true
 * ```
 */
export function anyMeet(some: readonly string[], others: readonly string[]): boolean {
	return some.some((one) => others.some((other) => pathsMeet(one, other)));
}
