// A backup: PostgreSQL's own archive, and the number of every project's document to check it by.
import { execFile } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { binaries } from './postgres.mjs';
import { writeWhole } from './processes.mjs';
import { programFile } from './programs.mjs';
import { root, SetUpError } from './system.mjs';

const execute = promisify(execFile);
const MAGIC = 'zygaster backup 1\n';

async function tool(name, url, args) {
	// The password goes by the environment: the list of processes is for everybody to read.
	const { username, password, hostname, port, pathname } = new URL(url);
	const env = {
		...process.env,
		PGUSER: username,
		PGPASSWORD: password,
		PGHOST: hostname,
		PGPORT: port,
		PGDATABASE: pathname.slice(1)
	};
	const { stdout } = await execute(join(binaries() ?? '', name), args, {
		env,
		maxBuffer: 2 ** 30,
		encoding: 'buffer'
	}).catch((error) => {
		throw new SetUpError(`${name} failed: ${String(error.stderr || error.message).trim()}`);
	});
	return stdout;
}

/** The projects of a database: id, name, revision and the number of the document at it. */
export async function projectNumbers(url) {
	const env = { ...process.env, DATABASE_URL: url };
	const { stdout } = await execute(process.execPath, [await programFile('project-numbers')], {
		cwd: root,
		maxBuffer: 2 ** 28,
		env
	}).catch((error) => {
		throw new SetUpError(`the projects cannot be read: ${String(error.stderr || error.message).trim()}`);
	});
	return JSON.parse(stdout);
}

/** Write a backup. @returns its projects */
export async function writeBackup(url, file) {
	// Numbers before and after the archive: they are the same unless somebody writes meanwhile; then once more.
	for (let tries = 0; tries < 5; tries++) {
		const before = await projectNumbers(url);
		const archive = await tool('pg_dump', url, [
			'--format=custom',
			'--no-owner',
			'--no-privileges',
			'--schema=public'
		]);
		if (JSON.stringify(before) !== JSON.stringify(await projectNumbers(url))) continue;
		const head = Buffer.from(`${MAGIC}${JSON.stringify(before)}\n`);
		writeWhole(file, Buffer.concat([head, archive]));
		return before;
	}
	throw new SetUpError('the projects are being changed all the time; try again when it is quieter');
}

/** Put a database back to a backup. @returns its projects @throws SetUpError when they are not the same as then */
export async function readBackup(url, file) {
	const content = readFileSync(file);
	const end = content.indexOf('\n', MAGIC.length);
	if (content.subarray(0, MAGIC.length).toString() !== MAGIC || end < 0)
		throw new SetUpError(`${file} is not a backup of Zygaster`);
	const wanted = JSON.parse(content.subarray(MAGIC.length, end).toString());
	const folder = mkdtempSync(join(tmpdir(), 'zygaster-restore-'));
	const archive = join(folder, 'archive');
	try {
		writeFileSync(archive, content.subarray(end + 1), { mode: 0o600 });
		const { pathname } = new URL(url);
		await tool('pg_restore', url, [
			'--clean',
			'--if-exists',
			'--no-owner',
			'--no-privileges',
			'--single-transaction',
			`--dbname=${pathname.slice(1)}`,
			archive
		]);
	} finally {
		rmSync(folder, { recursive: true });
	}
	const { default: pg } = await import('pg');
	const client = new pg.Client({ connectionString: url });
	await client.connect();
	// Windows that hold what came after the backup find another epoch, and say so.
	await client.query(
		'insert into database_epoch (id, began_at) values (gen_random_uuid(), clock_timestamp())'
	);
	await client.end();
	const found = await projectNumbers(url);
	if (JSON.stringify(found) !== JSON.stringify(wanted))
		throw new SetUpError('the projects are not the same as when the backup was made; what was there is kept');
	return found;
}
