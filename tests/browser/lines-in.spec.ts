import { slab } from '../ifc-slab';
import { expect, openDocument, documentOf, saved, settled, test } from './app';

/** A drawing as other programs write them: pairs of code and value. */
const dxf = (...entities: readonly (readonly (string | number)[])[]) =>
	[
		0,
		'SECTION',
		2,
		'HEADER',
		9,
		'$INSUNITS',
		70,
		6,
		0,
		'ENDSEC',
		0,
		'SECTION',
		2,
		'ENTITIES',
		...entities.flat(),
		0,
		'ENDSEC',
		0,
		'EOF'
	].join('\n');
const line = (layer: string, x1: number, y1: number, x2: number, y2: number) => [
	...[0, 'LINE', 8, layer, 10, x1, 20, y1, 30, 0, 11, x2, 21, y2, 31, 0]
];
const file = (name: string, text: string) => ({ name, mimeType: 'text/plain', buffer: Buffer.from(text) });

test('lines of a drawing and points of a table come in as guides and masses', async ({ page }) => {
	const problems: string[] = [];
	page.on('pageerror', (error) => problems.push(error.message));
	const id = await openDocument(page, { name: 'Lines', masses: [], zones: [] });
	const drawing = dxf(
		...[
			[0, 0, 9, 0],
			[9, 5, 9, 0],
			[9, 5, 0, 5],
			[0, 0, 0, 5]
		].map(([a, b, c, d]) => line('HALL', a!, b!, c!, d!)),
		line('AXIS', -2, 2.5, 11, 2.5)
	);
	const mass = page.getByLabel('File of a mass').first();
	await mass.setInputFiles(file('plan.dxf', drawing));
	await expect(page.getByText('One mass taken from plan.dxf')).toBeVisible();
	await settled(page);
	await mass.setInputFiles(
		file(
			'sail.csv',
			'row,x (m),y (m),z (m)\n' +
				[0, 1, 2]
					.flatMap((j) => [0, 3, 6].map((i) => `row ${j},${i},${9 + 2 * j},${3 + ((i * j) % 2)}`))
					.join('\n')
		)
	);
	await expect(page.getByText('One mass taken from sail.csv')).toBeVisible();
	await settled(page);
	await mass.setInputFiles(
		file(
			'deck.ifc',
			slab(
				[
					[0, 20],
					[9, 20],
					[9, 26],
					[0, 26]
				],
				[]
			)
		)
	);
	await expect(page.getByText('6 faces taken from deck.ifc')).toBeVisible();
	await settled(page);
	const guides = page.getByLabel('File of guides');
	await guides.setInputFiles(file('plan.dxf', drawing));
	await expect(page.getByText('2 guides taken from plan.dxf')).toBeVisible();
	await guides.setInputFiles(file('bad.dxf', 'solid nothing'));
	await expect(page.getByText(/^bad.dxf cannot be taken: /)).toBeVisible();
	await saved(page);
	const document = await documentOf(page, id);
	expect(document.masses.map(({ name, form }) => [name, form.kind])).toEqual([
		['HALL', 'prism'],
		['sail', 'net'],
		['deck', 'imported']
	]);
	expect(document.masses[0]!.form).toMatchObject({
		outline: { points: expect.arrayContaining([[9000, 5000]]) },
		foot: 0
	});
	expect(document.masses[1]!.form).toMatchObject({ degrees: [2, 2], points: 'through' });
	expect(document.guides.map(({ name, closed, points }) => [name, closed, points.length])).toEqual([
		['HALL', true, 4],
		['AXIS', false, 2]
	]);
	// Taken back as one step.
	await page.getByRole('button', { name: /^Undo/ }).click();
	await saved(page);
	expect((await documentOf(page, id)).guides).toEqual([]);
	expect(problems).toEqual([]);
});
