import { layers, type Fill, type Inked, type Page } from '../../drawing/drawing';
import { xmlText } from '../xml';

const anchors = { left: 'start', middle: 'middle', right: 'end' } as const;
/** Hundredths of a millimetre of paper are as fine as is printed. */
const mm = (value: number) => String(Math.round(value * 100) / 100);

/**
 * Lines of a page as the path of one stroke.
 *
 * ```ts
 * strokeOf(Float64Array.of(0, 0, 10, 0, 10, 0, 10, 5), 20); // M0 20L10 20L10 15
 * ```
 * @param height of the page (mm): y is down here
 */
export function strokeOf(lines: Float64Array, height: number): string {
	let path = '';
	let [x, y] = ['', ''];
	for (let k = 0; k < lines.length; k += 4) {
		const [x1, y1] = [mm(lines[k]!), mm(height - lines[k + 1]!)];
		// Lines that go on from one another are one stroke.
		if (x1 !== x || y1 !== y) path += `M${x1} ${y1}`;
		[x, y] = [mm(lines[k + 2]!), mm(height - lines[k + 3]!)];
		path += `L${x} ${y}`;
	}
	return path;
}

/**
 * Rings of an area as a path to be filled by even and odd.
 *
 * ```ts
 * areaOf([Float64Array.of(0, 0, 10, 0, 10, 5)], 20); // M0 20L10 20L10 15Z
 * ```
 * @param height of the page (mm): y is down here
 */
export function areaOf(rings: Fill, height: number): string {
	let path = '';
	for (const ring of rings) {
		for (let k = 0; k < ring.length; k += 2)
			path += `${k ? 'L' : 'M'}${mm(ring[k]!)} ${mm(height - ring[k + 1]!)}`;
		path += 'Z';
	}
	return path;
}

function group({ layer, fills, lines, texts }: Inked, height: number): string {
	const { name, pen, colour } = layers[layer];
	const path = strokeOf(lines, height);
	const areas = fills.map((rings) => areaOf(rings, height)).join('');
	const words = texts.map((text) => {
		const [tx, ty] = [mm(text.x), mm(height - text.y)];
		const turned = text.turn ? ` transform="rotate(${mm((-text.turn * 180) / Math.PI)} ${tx} ${ty})"` : '';
		const bold = text.bold ? ' font-weight="600"' : '';
		return `<text x="${tx}" y="${ty}" font-size="${mm(text.size)}" text-anchor="${anchors[text.from]}"${bold}${turned}>${xmlText(text.text)}</text>`;
	});
	return (
		`<g id="${name}">` +
		(areas && `<path d="${areas}" fill="${colour}" fill-rule="evenodd"/>`) +
		(path &&
			`<path d="${path}" fill="none" stroke="${colour}" stroke-width="${pen}" stroke-linecap="round" stroke-linejoin="round"/>`) +
		(words.length ? `<g fill="${colour}">${words.join('')}</g>` : '') +
		`</g>`
	);
}

/** A page as SVG 1.1, mm of paper, a group for each layer. */
export function writeSvg({ title, width, height, inked }: Page): string {
	return (
		`<svg xmlns="http://www.w3.org/2000/svg" width="${width}mm" height="${height}mm" viewBox="0 0 ${width} ${height}" font-family="'Archivo Variable', Archivo, sans-serif">` +
		`<title>${xmlText(title)}</title><rect width="${width}" height="${height}" fill="#ffffff"/>` +
		`${inked.map((one) => group(one, height)).join('')}</svg>\n`
	);
}
