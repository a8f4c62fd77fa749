import { projectJson } from '$core/exchange/json/write';
import type { ScheduleName } from '$core/schedule/table';
import type { Desk } from '$lib/state/desk.svelte';

export type ExportFormat = 'glb' | 'ifc' | 'step' | 'json' | ScheduleName;

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
export async function exportProject(desk: Desk, format: ExportFormat): Promise<void> {
	const { service } = desk.model;
	const { document } = desk.project;
	const stem = fileStem(document.name);
	switch (format) {
		case 'glb':
			return saveFile(`${stem}.glb`, await service.glb(), 'model/gltf-binary');
		case 'ifc':
			return saveFile(`${stem}.ifc`, await service.ifc(), 'application/x-step');
		case 'step':
			return saveFile(`${stem}.stp`, await service.step(), 'application/x-step');
		case 'json':
			return saveFile(`${stem}.json`, projectJson(document), 'application/json');
		default:
			return saveFile(`${stem}-${format}.csv`, await service.csv(format), 'text/csv');
	}
}
