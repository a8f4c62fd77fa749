import { toast } from 'svelte-sonner';
import type { Content, Format } from '$core/exchange/formats';
import { counted } from '$core/units/counted';
import { formatNumber } from '$core/units/quantity';
import { blobOf, fileStem, saveFile } from '$lib/components/save-file';
import type { Desk } from '$lib/state/desk.svelte';

/** What is in a file that was written, in a few words. */
function sizeOf(content: Content, type: string): string {
	const bytes = blobOf(content, type).size;
	const size =
		bytes < 1e6 ? `${formatNumber(Math.ceil(bytes / 1000))} kB` : `${formatNumber(bytes / 1e6, 1)} MB`;
	if (type !== 'text/csv' || typeof content !== 'string') return size;
	// The first line names the columns.
	const rows = content.trimEnd().split('\n').length - 1;
	return `${counted(rows, 'row')}, ${size}`;
}

/** Write the open project in a format, in the worker, download it, and say what was written or why it was not. */
export async function exportProject(desk: Desk, { id, ending, type, label }: Format): Promise<void> {
	const name = `${fileStem(desk.project.document.name)}${ending}`;
	const writing = desk.model.service.write(id).then((content) => {
		saveFile(name, content, type);
		const size = sizeOf(content, type);
		desk.written = [{ name, size, at: new Date() }, ...desk.written];
		return size;
	});
	toast.promise(writing, {
		loading: `Writing ${name} …`,
		success: (size) => `${name} written: ${label}, ${size}`,
		error: (error) => `${name} could not be written: ${(error as Error).message}`
	});
	await writing.catch(() => null);
}
