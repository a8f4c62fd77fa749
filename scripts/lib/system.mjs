// What this machine has, and how to get what is missing.
import { spawn, spawnSync } from 'node:child_process';
import { closeSync, existsSync, mkdirSync, openSync, readFileSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = fileURLToPath(new URL('../../', import.meta.url));
export const isRoot = process.getuid?.() === 0;
/** Everything this machine keeps for the project: the database, logs, backups. */
export const data = process.env.ZYGASTER_DATA ?? join(root, '.data');
export const verbose = process.argv.includes('--verbose') || process.env.ZYGASTER_VERBOSE === '1';

/** A failure that the person can put right: printed without a stack. */
export class SetUpError extends Error {}

export function say(text) {
	console.log(`· ${text}`);
}

/** The log file of a step, made anew or added to. */
export function logFile(name, flags = 'w') {
	mkdirSync(join(data, 'log'), { recursive: true });
	const path = join(data, 'log', `${name}.log`);
	return { path, handle: openSync(path, flags) };
}

/** The end of a log, for when something has failed. */
export function tail(path, lines = 20) {
	return readFileSync(path, 'utf8').trimEnd().split('\n').slice(-lines).join('\n');
}

/** Run a command to its end, its output shown; throws when it fails. */
export function run(command, args, options = {}) {
	const result = spawnSync(command, args, { stdio: 'inherit', cwd: root, ...options });
	if (result.error) throw new SetUpError(`${command} cannot be run: ${result.error.message}`);
	if (result.status !== 0)
		throw new SetUpError(`${command} ${args.join(' ')} failed (${result.status ?? result.signal})`);
}

/** Run a command to its end, its output in a log that is shown when it fails (or all of it with --verbose). */
export function runQuietly(name, command, args, options = {}) {
	if (verbose) return run(command, args, options);
	const { path, handle } = logFile(name);
	try {
		run(command, args, { ...options, stdio: ['ignore', handle, handle] });
	} catch (error) {
		error.message += `; the end of ${path}:\n${tail(path)}`;
		throw error;
	} finally {
		closeSync(handle);
	}
}

/** The same without holding this process up. */
export async function runAside(name, command, args, options = {}) {
	const { path, handle } = logFile(name);
	const child = spawn(command, args, {
		cwd: root,
		...options,
		stdio: verbose ? 'inherit' : ['ignore', handle, handle]
	});
	closeSync(handle);
	const why = await new Promise((resolve) => {
		child.once('error', (error) => resolve(error.message));
		child.once('exit', (code, signal) => resolve(signal ?? code));
	});
	if (why !== 0)
		throw new SetUpError(`${command} ${args.join(' ')} failed (${why}); the end of ${path}:\n${tail(path)}`);
}

/** Start a command and let it run. */
export function start(command, args, options = {}) {
	return spawn(command, args, { stdio: 'inherit', cwd: root, ...options });
}

/** Debian packages by apt-get when root; otherwise the exact command to give. */
export function installDebian(packages, why) {
	if (!isRoot)
		throw new SetUpError(
			`${why} is missing. Install it with: sudo apt-get update && sudo apt-get install -y ${packages.join(' ')}`
		);
	say(`installing ${packages.join(', ')} (${why})`);
	const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
	// An installation that was killed is brought to its end first.
	runQuietly('apt', 'dpkg', ['--configure', '-a'], { env });
	const wait = ['-o', 'DPkg::Lock::Timeout=120'];
	runQuietly('apt', 'apt-get', [...wait, 'update', '-qq'], { env });
	runQuietly('apt', 'apt-get', [...wait, 'install', '-y', '-qq', '--no-install-recommends', ...packages], {
		env
	});
}

/** node_modules as the lock file wants them. */
export function ensurePackages() {
	const installed = join(root, 'node_modules/.package-lock.json');
	const lock = join(root, 'package-lock.json');
	const current =
		existsSync(installed) &&
		statSync(installed).mtimeMs >= statSync(lock).mtimeMs - 1 &&
		sameVersions(installed, lock);
	if (current) return;
	say('installing packages');
	runQuietly('packages', 'npm', ['ci', '--no-audit', '--no-fund']);
}

/** Whether what is installed is what the lock file names, whatever the files' times say. */
function sameVersions(installed, lock) {
	const have = JSON.parse(readFileSync(installed, 'utf8')).packages ?? {};
	const want = JSON.parse(readFileSync(lock, 'utf8')).packages ?? {};
	return Object.entries(want).every(
		([name, entry]) => !name || entry.optional || entry.peer || have[name]?.version === entry.version
	);
}

export const CHROMIUM = '/usr/bin/chromium';
export function ensureChromium() {
	if (!existsSync(CHROMIUM))
		installDebian(['chromium', 'fonts-liberation'], 'Chromium for the browser tests');
}

/** The mesher whose geometry kernel reads our STEP files in the reference tests. */
export function ensureGmsh() {
	if (!existsSync('/usr/bin/gmsh')) installDebian(['gmsh'], 'gmsh for the STEP check');
}

/** Programs that read our workbooks in the reference tests: one looks into them, the other reckons them anew. */
export function ensureSheetReaders() {
	const isThere = existsSync('/usr/bin/ssconvert') && existsSync('/usr/lib/python3/dist-packages/openpyxl');
	if (!isThere) installDebian(['gnumeric', 'python3-openpyxl'], 'readers for the workbook check');
}

/** Programs that read our drawings in the reference tests. */
export function ensureDrawingReaders() {
	const programs = ['qpdf', 'pdftotext', 'rsvg-convert', 'xmllint'];
	const isThere =
		programs.every((name) => existsSync(`/usr/bin/${name}`)) &&
		existsSync('/usr/lib/python3/dist-packages/ezdxf');
	if (!isThere)
		installDebian(
			['qpdf', 'poppler-utils', 'librsvg2-bin', 'libxml2-utils', 'python3-ezdxf'],
			'readers for the drawings check'
		);
}

/** Report a failure the way a person can use, and leave. */
export function fail(error) {
	console.error(error instanceof SetUpError ? `✗ ${error.message}` : error);
	process.exit(1);
}
