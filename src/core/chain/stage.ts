import type { StageName } from '../cladding/model';
import type { Named } from '../named/named-values';
import type { Files } from '../project/files';
import type { Project } from '../project/schema';
import type { ProgramRunner } from '../part/threads/program-runner';
import type { Sun } from '../project/sun-schema';
import type { Memo } from './memo';

/** What every stage of a run is given. */
export interface Run {
	/** Masses name their files; parts are whole. */
	readonly project: Project;
	/** Values of the whole project. */
	readonly named: Named;
	/** The sun of the project, or the last that could stand. */
	readonly sun: Sun;
	readonly files: Files;
	readonly memo: Memo;
	/** Runs what parts come to. */
	readonly runner: ProgramRunner;
	/** Do a piece of work whose time is told under a stage. */
	timed<T>(stage: StageName, act: () => T): T;
	/** The same of work that is waited for. */
	timedLater<T>(stage: StageName, act: () => Promise<T>): Promise<T>;
	/**
	 * Between two pieces of work: lets the outside in, which may give the run up by throwing.
	 * @param share of what goes on that is done
	 */
	pause(share?: number): Promise<void>;
}
