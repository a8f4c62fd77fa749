import { proxy } from 'comlink';
import { toast } from 'svelte-sonner';
import { fileStem, saveFile } from '$lib/components/save-file';
import type { Page } from '$core/drawing/drawing';
import type { Desk } from '$lib/state/desk.svelte';
import type { DrawingFormat } from '$lib/worker/drawings';

const types: Record<DrawingFormat, string> = {
	pdf: 'application/pdf',
	dxf: 'image/vnd.dxf'
};

/** Sheets on their way into a file. */
export class SheetWriter {
	/** How much of them is done; null while nothing is written. */
	share = $state<number | null>(null);

	constructor(private readonly desk: Desk) {}

	/** @param name what the file is called after the project */
	async write(numbers: readonly string[], format: DrawingFormat, name: string): Promise<void> {
		if (this.share !== null) return;
		this.share = 0;
		const file = `${fileStem(this.desk.project.document.name)}-${name}.${format}`;
		try {
			const written = await this.desk.model.service.writeSheets(
				[...numbers],
				format,
				proxy((share: number) => (this.share = share))
			);
			if (written === null) {
				toast('Writing was ended; no file was made');
				return;
			}
			const { content, failed } = written;
			saveFile(file, content, types[format]);
			if (failed.length)
				toast.error(
					`${failed.length === 1 ? 'One sheet is' : `${failed.length} sheets are`} not in ${file}: ${failed.slice(0, 3).join('; ')}`,
					{ duration: 20_000 }
				);
			toast(`${file} written: ${numbers.length === 1 ? 'sheet' : 'sheets'} ${told(numbers)}`);
		} catch (error) {
			toast.error(`${file} could not be written: ${(error as Error).message}`);
		} finally {
			this.share = null;
		}
	}

	/** The page that is looked at as SVG. */
	async writePage(page: Page): Promise<void> {
		const { writeSvg } = await import('$core/exchange/svg/write');
		const file = `${fileStem(this.desk.project.document.name)}-${fileStem(page.title)}.svg`;
		saveFile(file, writeSvg(page), 'image/svg+xml');
		toast(`${file} written`);
	}

	end(): void {
		void this.desk.model.service.endSearch('drawings');
	}
}

/** The first and the last of them. */
const told = (numbers: readonly string[]) =>
	numbers.length > 1 ? `${numbers[0]} to ${numbers.at(-1)}` : (numbers[0] ?? '');
