import boldUrl from '@expo-google-fonts/archivo/600SemiBold/Archivo_600SemiBold.ttf?url';
import regularUrl from '@expo-google-fonts/archivo/400Regular/Archivo_400Regular.ttf?url';
import type { DrawingFonts } from '$core/exchange/pdf/write';

const fetched = async (url: string) => new Uint8Array(await (await fetch(url)).arrayBuffer());

/** The letters of drawings, as they ship with the application. */
export async function drawingFonts(): Promise<DrawingFonts> {
	const [regular, bold] = await Promise.all([fetched(regularUrl), fetched(boldUrl)]);
	return { regular, bold };
}
