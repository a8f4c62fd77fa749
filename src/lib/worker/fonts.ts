import type { DrawingFonts } from '$core/exchange/pdf/write';

const fetched = async (asset: Promise<{ readonly default: string }>) =>
	new Uint8Array(await (await fetch((await asset).default)).arrayBuffer());

/** The letters of drawings, as they ship with the application; where they lie is known when they are asked for. */
export async function drawingFonts(): Promise<DrawingFonts> {
	const [regular, bold] = await Promise.all([
		fetched(import('@expo-google-fonts/archivo/400Regular/Archivo_400Regular.ttf?url')),
		fetched(import('@expo-google-fonts/archivo/600SemiBold/Archivo_600SemiBold.ttf?url'))
	]);
	return { regular, bold };
}
