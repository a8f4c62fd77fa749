import type { Format } from '$core/exchange/formats';
import type { Desk } from '$lib/state/desk.svelte';

/** Give a file to the browser. */
export function saveFile(name: string, content: string | Uint8Array, type: string): void {
	const url = URL.createObjectURL(new Blob([content as BlobPart], { type }));
	const link = document.createElement('a');
	link.href = url;
	link.download = name;
	link.click();
	setTimeout(() => URL.revokeObjectURL(url), 10_000);
}

export function fileStem(name: string): string {
	return (
		name
			.toLowerCase()
			.replace(/[^a-z0-9]+/g, '-')
			.replace(/^-|-$/g, '') || 'project'
	);
}

/** Write the open project in a format, in the worker, and download it. */
export async function exportProject(desk: Desk, { id, ending, type }: Format): Promise<void> {
	saveFile(`${fileStem(desk.project.document.name)}${ending}`, await desk.model.service.write(id), type);
}
