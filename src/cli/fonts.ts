import { readFile } from 'node:fs/promises';
import { fileURLToPath } from 'node:url';
import type { DrawingFonts } from '../core/exchange/pdf/write';

const read = (name: string) =>
	readFile(fileURLToPath(import.meta.resolve(`@expo-google-fonts/archivo/${name}`)));

/** The letters of drawings. */
export async function drawingFonts(): Promise<DrawingFonts> {
	const [regular, bold] = await Promise.all([
		read('400Regular/Archivo_400Regular.ttf'),
		read('600SemiBold/Archivo_600SemiBold.ttf')
	]);
	return { regular, bold };
}
