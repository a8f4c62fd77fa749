import fontkit from '@pdf-lib/fontkit';
import { strToU8, zlibSync } from 'fflate';
import { PDFDocument, PDFHexString, PDFName, type PDFFont, type PDFRef } from 'pdf-lib';
import { layers, type Inked, type Page } from '../../drawing/drawing';

/** The letters of drawings, as TrueType files. */
export interface DrawingFonts {
	readonly regular: Uint8Array;
	readonly bold: Uint8Array;
}

/** Sheets that are told under one head among the bookmarks. */
export interface Chapter {
	readonly title: string;
	readonly pages: Iterable<Page>;
}

/** Points of 1/72 inch to a millimetre: ISO 32000-1, 8.3.2.3. */
const POINTS = 72 / 25.4;
/** How hard the content of sheets is packed, of 9: harder takes twice as long for a fifteenth less. */
const PACKED = 4;
/** Hundredths of a millimetre of paper are as fine as is printed. */
const mm = (value: number) => String(Math.round(value * 100) / 100);

const parts = (colour: string) =>
	[1, 3, 5].map((k) => (parseInt(colour.slice(k, k + 2), 16) / 255).toFixed(3)).join(' ');

/**
 * Fonts whose letters stand one for each sign. Shaping a text would move letters nearer to each other, which is not
 * written, and take most of the time of a file.
 */
const letterByLetter: typeof fontkit = {
	create(data, name) {
		const font = fontkit.create(data, name);
		font.layout = (text) => {
			const glyphs = font.glyphsForString(text);
			const advanceWidth = glyphs.reduce((sum, glyph) => sum + glyph.advanceWidth, 0);
			const run = { script: 'latn', language: null, direction: 'ltr', features: {} } as const;
			return { ...run, glyphs, positions: [], advanceWidth, advanceHeight: 0, bbox: font.bbox };
		};
		return font;
	}
};

/** A font of the file, with what it has letters for. */
class Letters {
	private readonly known: ReadonlySet<number>;
	/** What has been written before: marks stand on many sheets. */
	private readonly before = new Map<string, { readonly code: string; readonly width: number }>();

	constructor(readonly font: PDFFont) {
		this.known = new Set(font.getCharacterSet());
	}

	/** Spaces of other widths are spaces; what there is no letter for is a question mark. */
	private said(text: string): string {
		return Array.from(text.replace(/[\u2000-\u200a\u202f\u00a0]/g, ' '), (letter) =>
			this.known.has(letter.codePointAt(0)!) ? letter : '?'
		).join('');
	}

	/** A text in the codes of the font, and its width at a size of 1. */
	shown(text: string): { readonly code: string; readonly width: number } {
		const known = this.before.get(text);
		if (known) return known;
		const said = this.said(text);
		const shown = {
			code: this.font.encodeText(said).toString(),
			width: this.font.widthOfTextAtSize(said, 1)
		};
		this.before.set(text, shown);
		return shown;
	}
}

/** What is painted for a layer: ISO 32000-1, 8.5 (paths) and 9.4 (text). */
function painted({ layer, fills, lines, texts }: Inked, regular: Letters, bold: Letters): string {
	const { pen, colour } = layers[layer];
	const out: string[] = [`${parts(colour)} RG ${parts(colour)} rg ${pen} w`];
	for (const rings of fills) {
		for (const ring of rings) {
			for (let k = 0; k < ring.length; k += 2)
				out.push(`${mm(ring[k]!)} ${mm(ring[k + 1]!)} ${k ? 'l' : 'm'}`);
			out.push('h');
		}
		out.push('f*');
	}
	let [x, y] = ['', ''];
	for (let k = 0; k < lines.length; k += 4) {
		const [x1, y1] = [mm(lines[k]!), mm(lines[k + 1]!)];
		if (x1 !== x || y1 !== y) out.push(`${x1} ${y1} m`);
		[x, y] = [mm(lines[k + 2]!), mm(lines[k + 3]!)];
		out.push(`${x} ${y} l`);
	}
	if (lines.length) out.push('S');
	for (const { text, size, bold: isBold, from, turn, x: tx, y: ty } of texts) {
		const { code, width } = (isBold ? bold : regular).shown(text);
		const back = { left: 0, middle: 0.5, right: 1 }[from] * width * size;
		const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
		const [ox, oy] = [tx - back * cos, ty - back * sin];
		const matrix = [cos, sin, -sin, cos].map((one) => one.toFixed(5)).join(' ');
		out.push(
			`BT /${isBold ? 'F2' : 'F1'} ${mm(size)} Tf ${matrix} ${ox.toFixed(3)} ${oy.toFixed(3)} Tm ${code} Tj ET`
		);
	}
	return out.join('\n');
}

/** Bookmarks, those of a chapter under its head: ISO 32000-1, 12.3.3. */
function addBookmarks(
	document: PDFDocument,
	chapters: readonly { readonly title: string; readonly pages: readonly (readonly [string, PDFRef])[] }[]
): void {
	const { context } = document;
	const root = context.nextRef();
	/** @returns the first and the last */
	const row = (
		parent: PDFRef,
		items: readonly {
			readonly title: string;
			readonly to: PDFRef;
			readonly below: readonly (readonly [string, PDFRef])[];
		}[]
	): [PDFRef, PDFRef] => {
		const refs = items.map(() => context.nextRef());
		items.forEach(({ title, to, below }, k) => {
			const inside = below.length
				? row(
						refs[k]!,
						below.map(([name, page]) => ({ title: name, to: page, below: [] }))
					)
				: null;
			context.assign(
				refs[k]!,
				context.obj({
					Title: PDFHexString.fromText(title),
					Parent: parent,
					Dest: [to, 'Fit'],
					...(k > 0 && { Prev: refs[k - 1]! }),
					...(k + 1 < refs.length && { Next: refs[k + 1]! }),
					// Closed: those below are counted with a minus.
					...(inside && { First: inside[0], Last: inside[1], Count: -below.length })
				})
			);
		});
		return [refs[0]!, refs.at(-1)!];
	};
	const filled = chapters.filter(({ pages }) => pages.length);
	if (!filled.length) return;
	const [first, last] = row(
		root,
		filled.map(({ title, pages }) => ({ title, to: pages[0]![1], below: pages.length > 1 ? pages : [] }))
	);
	context.assign(root, context.obj({ Type: 'Outlines', First: first, Last: last, Count: filled.length }));
	document.catalog.set(PDFName.of('Outlines'), root);
}

/**
 * Sheets as PDF 1.7, in vectors, with the fonts in the file and a bookmark for each sheet. The same sheets at the same
 * moment are the same file.
 * @param at as in 2026-11-27T10:00:00
 * @param done is told how many sheets have been written
 */
export async function writePdf(
	title: string,
	chapters: Iterable<Chapter>,
	fonts: DrawingFonts,
	at: string,
	done?: (sheets: number) => Promise<void>
): Promise<Uint8Array> {
	const document = await PDFDocument.create({ updateMetadata: false });
	document.registerFontkit(letterByLetter);
	const [regular, bold] = await Promise.all(
		(['regular', 'bold'] as const).map(
			async (which) =>
				new Letters(await document.embedFont(fonts[which], { subset: true, customName: `Archivo-${which}` }))
		)
	);
	const moment = new Date(`${at}Z`);
	document.setTitle(title);
	document.setCreator('Zygaster');
	document.setProducer('Zygaster');
	document.setCreationDate(moment);
	document.setModificationDate(moment);
	const { context } = document;
	const resources = context.register(context.obj({ Font: { F1: regular!.font.ref, F2: bold!.font.ref } }));
	const written: { title: string; pages: [string, PDFRef][] }[] = [];
	let count = 0;
	for (const chapter of chapters) {
		const pages: [string, PDFRef][] = [];
		written.push({ title: chapter.title, pages });
		for (const { title: name, width, height, inked } of chapter.pages) {
			const page = document.addPage([width * POINTS, height * POINTS]);
			const content = [
				`${POINTS.toFixed(6)} 0 0 ${POINTS.toFixed(6)} 0 0 cm 1 J 1 j`,
				...inked.map((one) => painted(one, regular!, bold!))
			].join('\n');
			const packed = zlibSync(strToU8(content), { level: PACKED });
			const stream = context.stream(packed, { Filter: 'FlateDecode' });
			page.node.set(PDFName.of('Contents'), context.register(stream));
			page.node.set(PDFName.of('Resources'), resources);
			pages.push([name, page.ref]);
			await done?.(++count);
		}
	}
	addBookmarks(document, written);
	return document.save({ updateFieldAppearances: false, objectsPerTick: 500 });
}
