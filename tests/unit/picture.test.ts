import { expect } from 'chai';
import { Chain } from '../../src/core/chain/chain';
import { writePicture } from '../../src/core/exchange/picture/write';
import { projectOf, sheet } from '../faces';

const counted = (across: number, up: number) => ({
	across: { by: 'count' as const, count: across },
	up: { by: 'count' as const, count: up }
});

/** The polygons of a picture. */
function polygons(svg: string): [number, number][][] {
	return Array.from(svg.matchAll(/<path d="M([^Z]*)Z"/g), ([, path]) =>
		path!.split('L').map((point) => point.split(' ').map(Number) as [number, number])
	);
}

function areaOf(ring: readonly [number, number][]): number {
	let twice = 0;
	for (const [k, [x, y]] of ring.entries()) {
		const [nx, ny] = ring[(k + 1) % ring.length]!;
		twice += x * ny - nx * y;
	}
	return Math.abs(twice / 2);
}

const areaIn = (svg: string) => polygons(svg).reduce((sum, ring) => sum + areaOf(ring), 0);

async function pictureOf(across: number, up: number, pattern: string): Promise<string> {
	const project = projectOf(sheet(60_000, 40_000), counted(across, up), {
		pattern: { kind: pattern }
	} as never);
	return writePicture(await new Chain().run(project));
}

describe('small pictures of models', () => {
	for (const pattern of ['rectangles', 'triangles', 'diamonds'])
		it(`${pattern}: of many cells some are drawn for all, as large as what they stand for`, async () => {
			const [few, many] = [await pictureOf(30, 20, pattern), await pictureOf(250, 200, pattern)];
			expect(polygons(few).length).to.be.above(300);
			expect(polygons(many).length).to.be.within(900, 3500);
			expect(many.length).to.be.below(300_000);
			expect(areaIn(many) / areaIn(few)).to.be.within(0.97, 1.03);
			expect(many).not.to.include('NaN');
		});

	it('a row of cells is drawn, however long; so is a small zone beside a large one', async () => {
		const row = await pictureOf(1, 9000, 'rectangles');
		expect(polygons(row).length).to.be.within(1000, 3000);
		const project = projectOf(sheet(60_000, 40_000), counted(250, 200));
		const [zone] = project.zones;
		const model = await new Chain().run({
			...project,
			zones: [
				zone!,
				{ ...zone!, id: 'small', code: 'S', settingOut: { ...zone!.settingOut, ...counted(4, 3) } }
			]
		} as typeof project);
		const tones = new Set(Array.from(writePicture(model).matchAll(/fill="([^"]*)"/g), ([, fill]) => fill));
		expect(tones.size).to.equal(2);
		expect(polygons(writePicture(model)).length).to.be.below(3500);
	});
});
