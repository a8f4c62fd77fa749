import type { Format } from '$core/exchange/formats';
import { fileStem, saveFile } from '$lib/components/save-file';
import type { Desk } from '$lib/state/desk.svelte';

/** Write the open project in a format, in the worker, and download it. */
export async function exportProject(desk: Desk, { id, ending, type }: Format): Promise<void> {
	saveFile(`${fileStem(desk.project.document.name)}${ending}`, await desk.model.service.write(id), type);
}
