import { filesIn, type Files } from '$core/project/files';

const ANSWER_MS = 60_000;

/** Files that are asked for already. */
const underWay = new Map<string, Promise<string | null>>();

async function fetchText(hash: string): Promise<string | null> {
	try {
		const answer = await fetch(`/api/files/${hash}`, { signal: AbortSignal.timeout(ANSWER_MS) });
		return answer.ok ? await answer.text() : null;
	} catch {
		return null;
	} finally {
		underWay.delete(hash);
	}
}

async function fetchFile(files: Files, hash: string): Promise<void> {
	const fetching = underWay.get(hash) ?? fetchText(hash);
	underWay.set(hash, fetching);
	const text = await fetching;
	try {
		if (text !== null) files.take(hash, text);
	} catch {
		// What names it says at its clause that it has not come; it is asked for at the next change.
	}
}

/** Fetch the files that a value names and that are not at hand. @returns whether any has come */
export async function fetchFiles(files: Files, value: unknown): Promise<boolean> {
	const missing = [...filesIn(value).keys()].filter((hash) => !files.has(hash));
	await Promise.all(missing.map((hash) => fetchFile(files, hash)));
	return missing.some((hash) => files.has(hash));
}
