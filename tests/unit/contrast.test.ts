import { readFileSync } from 'node:fs';
import { expect } from 'chai';

/** Colours of the interface by their names, as the style sheet says them. */
const tokens = new Map(
	[...readFileSync('src/app.css', 'utf8').matchAll(/--color-([\w-]+): (#[0-9a-f]{6});/g)].map(
		([, name, hex]) => [name!, hex!] as const
	)
);

/** Relative luminance and contrast: W3C, Web Content Accessibility Guidelines 2.2, section 5.2. */
function luminance(hex: string): number {
	const [r, g, b] = [1, 3, 5].map((at) => {
		const c = parseInt(hex.slice(at, at + 2), 16) / 255;
		return c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4;
	}) as [number, number, number];
	return 0.2126 * r + 0.7152 * g + 0.0722 * b;
}
function contrast(a: string, b: string): number {
	const [low, high] = [luminance(a), luminance(b)].sort((x, y) => x - y) as [number, number];
	return (high + 0.05) / (low + 0.05);
}

/** What text is written in, and what it is written on. */
const texts = ['ink', 'ink-2', 'ink-3', 'patina', 'patina-deep', 'oxide', 'oxide-deep'];
const grounds = ['sheet', 'paper'];
const tinted: readonly [string, string][] = [
	['ink', 'wash'],
	['ink-2', 'wash'],
	['patina-deep', 'wash'],
	['ink', 'gold-wash'],
	['ink-2', 'gold-wash'],
	['patina-deep', 'gold-wash'],
	['oxide-deep', 'oxide-wash'],
	['ink', 'oxide-wash']
];

describe('contrast of the interface', () => {
	it('the reckoning itself: black on white is 21 to 1, a colour on itself 1', () => {
		expect(contrast('#000000', '#ffffff')).to.be.closeTo(21, 1e-9);
		expect(contrast('#777777', '#ffffff')).to.be.closeTo(4.48, 0.01);
		expect(contrast('#1f7a6b', '#1f7a6b')).to.equal(1);
	});

	it('every text is read on every ground it stands on: 4.5 to 1 or more', () => {
		const pairs = [...texts.flatMap((text) => grounds.map((ground) => [text, ground] as const)), ...tinted];
		for (const [text, ground] of pairs)
			expect(contrast(tokens.get(text)!, tokens.get(ground)!), `${text} on ${ground}`).to.be.at.least(4.5);
	});

	it('what is chosen and what is flagged is told from the ground by 3 to 1 where it is a line', () => {
		for (const line of ['patina', 'oxide', 'ink-3'])
			for (const ground of grounds)
				expect(contrast(tokens.get(line)!, tokens.get(ground)!), `${line} on ${ground}`).to.be.at.least(3);
	});
});
