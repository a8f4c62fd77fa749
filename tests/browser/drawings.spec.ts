import { readFileSync } from 'node:fs';
import { accessible, documentOf, expect, openDemo, saved, settled, test, visit } from './app';

test('sheets are looked at, paper is changed, and written: one as PDF and SVG, a group as DXF', async ({
	page
}) => {
	const problems: string[] = [];
	page.on('pageerror', (error) => problems.push(error.message));
	const id = await openDemo(page);
	await visit(page, `/project/${id}/drawings`);
	const sheet = page.getByTestId('sheet');
	const list = page.getByRole('navigation', { name: 'Sheets' });
	await expect(sheet).toHaveAttribute('data-drawn', 'A-01 Cover');
	await expect(sheet.getByRole('img', { name: 'A-01 Cover' })).toContainText('Tidal Lido copy');
	await accessible(page);

	// By keys from sheet to sheet; what is drawn has its marks.
	await list.getByRole('button', { name: /^U-02/ }).click();
	await expect(sheet).toHaveAttribute('data-drawn', 'U-02 Street screen, unrolled');
	await expect(sheet.getByRole('img')).toContainText('C01-B02');
	await page.keyboard.press('ArrowUp');
	await expect(sheet).toHaveAttribute('data-drawn', 'U-01 Gull roof, unrolled');

	// A list on several sheets is leafed through.
	await list.getByRole('button', { name: /^B-001/ }).click();
	await expect(sheet).toHaveAttribute('data-drawn', /^B-001 Bars: cut lengths and ends, 1 of \d+$/);
	await page.getByRole('button', { name: 'Sheet after' }).click();
	await expect(sheet).toHaveAttribute('data-drawn', /^B-002/);
	// And bars are drawn one by one.
	await list.getByRole('button', { name: /^BD-001/ }).click();
	await expect(sheet.getByRole('img')).toContainText('from outside and from the side');

	const write = async (name: RegExp) => {
		await page.getByRole('button', { name: 'Write sheets' }).click();
		const [file] = await Promise.all([
			page.waitForEvent('download'),
			page.getByRole('menuitem', { name }).click()
		]);
		return { name: file.suggestedFilename(), content: readFileSync(await file.path()) };
	};
	await list.getByRole('button', { name: /^P-001/ }).click();
	await expect(sheet).toHaveAttribute('data-drawn', /^P-001/);
	const pdf = await write(/^P-001 .* PDF$/);
	expect(pdf.name).toBe('tidal-lido-copy-p-001.pdf');
	expect(pdf.content.subarray(0, 8).toString()).toBe('%PDF-1.7');
	const svg = await write(/^P-001 .* SVG$/);
	expect(svg.content.toString()).toContain('<title>P-001 Piece A1</title>');
	await list.getByRole('button', { name: /^U-01/ }).click();
	await expect(sheet).toHaveAttribute('data-drawn', /^U-01/);
	const dxf = await write(/^Unrolled, 4 sheets DXF$/);
	expect(dxf.content.toString()).toContain('HEADS');

	// A section through the middle, moved in its sentence.
	await page.getByRole('button', { name: 'Section', exact: true }).click();
	await page.getByRole('menuitem', { name: 'looking north' }).click();
	await expect(sheet).toHaveAttribute('data-drawn', /^S-01 Section at y = .* mm, looking north$/);
	await page.getByRole('button', { name: /^Place of the cut/ }).focus();
	await page.keyboard.press('Enter');
	await page.keyboard.type('2500');
	await page.keyboard.press('Enter');
	await expect(sheet).toHaveAttribute('data-drawn', /^S-01 Section at y = 2\s500 mm/);
	await saved(page);
	expect((await documentOf(page, id)).drawings.sections).toEqual([
		{ id: 'section', looking: 'north', at: 2500 }
	]);

	// Other paper: the sheet follows, as one named step.
	await page.getByRole('combobox', { name: /^Paper/ }).click();
	await page.getByRole('option', { name: 'A1' }).click();
	await expect(sheet.getByRole('img')).toHaveAttribute('viewBox', '0 0 841 594');
	await expect(page.getByTestId('undo-label')).toHaveText('drawings on A1');
	await saved(page);
	expect((await documentOf(page, id)).drawings.paper).toBe('A1');
	expect(problems).toEqual([]);
});

test('writing all sheets tells how far it is, and is cancelled without a file', async ({ page }) => {
	const id = await openDemo(page);
	await visit(page, `/project/${id}/drawings`);
	await expect(page.getByTestId('sheet')).toHaveAttribute('data-drawn', 'A-01 Cover');
	await page.getByRole('button', { name: 'Write sheets' }).click();
	await page.getByRole('menuitem', { name: /^All, .* PDF$/ }).click();
	await expect(page.getByRole('status').filter({ hasText: /Writing, \d+ % done/ })).toBeVisible();
	await page.getByRole('button', { name: 'Cancel', exact: true }).click();
	await expect(page.getByText('Writing was ended; no file was made')).toBeVisible();
	await expect(page.getByRole('button', { name: 'Write sheets' })).toBeEnabled();
	await visit(page, `/project/${id}?plain`);
	await settled(page);
});

test('a sheet is laid out by hand: views are added, moved and sized, measured in, taken back and written', async ({
	page
}) => {
	const problems: string[] = [];
	page.on('pageerror', (error) => problems.push(error.message));
	const id = await openDemo(page);
	await visit(page, `/project/${id}/drawings`);
	const paper = page.getByTestId('sheet');
	await page.getByRole('button', { name: 'Sheet by hand' }).click();
	await expect(paper).toHaveAttribute('data-drawn', 'L-01 Sheet 1');
	await expect(page.getByText('Nothing lies on this sheet yet')).toBeVisible();
	await expect(page.getByRole('button', { name: 'Measure' })).toBeDisabled();

	const lies = page.getByRole('group', { name: 'What lies on the sheet' });
	const add = async (name: RegExp) => {
		await page.getByRole('button', { name: 'View', exact: true }).click();
		await page.getByRole('menuitem', { name }).click();
	};
	await add(/^Street screen, laid flat$/);
	const street = lies.getByRole('button', { name: /^Street screen, unrolled/ });
	await expect(street).toHaveAttribute('aria-pressed', 'true');
	const ownSheet = async () => {
		await saved(page);
		return (await documentOf(page, id)).drawings.sheets[0]!;
	};
	const before = (await ownSheet()).views[0]!;

	// By keys: an arrow is 5 mm; then dragged, and sized in its sentence.
	await street.focus();
	await page.keyboard.press('ArrowDown');
	await expect.poll(async () => (await ownSheet()).views[0]!.at[1]).toBeCloseTo(before.at[1] - 5, 6);
	const box = (await street.boundingBox())!;
	await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
	await page.mouse.down();
	await page.mouse.move(box.x + box.width / 2 + 20, box.y + box.height / 2 - 40, { steps: 4 });
	await page.mouse.up();
	await expect.poll(async () => (await ownSheet()).views[0]!.at[1]).toBeGreaterThan(before.at[1] + 5);
	await page.getByRole('button', { name: /^Scale/ }).focus();
	await page.keyboard.press('Enter');
	await page.keyboard.type('20');
	await page.keyboard.press('Enter');
	await expect(
		page.getByText(/But it is larger than the sheet at 1 : 20; at 1 : \d+ it has room/)
	).toBeVisible();
	await page.getByRole('button', { name: /^Undo/ }).click();
	await expect(page.getByText(/But it is larger/)).toHaveCount(0);

	// Measured between two nodes: click, click, and where its line lies.
	await page.keyboard.press('Escape');
	await lies.click({ position: { x: 5, y: 5 } });
	await page.getByRole('button', { name: 'Measure' }).click();
	const now = (await street.boundingBox())!;
	const [left, foot] = [now.x + 3, now.y + now.height - 3];
	await page.mouse.move(left, foot);
	await expect(page.getByTestId('point-near')).toBeVisible();
	await page.mouse.click(left, foot);
	await expect(page.getByText('click its second point')).toBeVisible();
	await page.mouse.click(now.x + now.width - 3, foot);
	await expect(page.getByText('click where its line lies')).toBeVisible();
	await page.mouse.click(now.x + now.width / 2, foot + 24);
	await expect.poll(async () => (await ownSheet()).dimensions.length).toBe(1);
	await page.getByRole('button', { name: 'Done' }).click();
	const { dimensions } = await ownSheet();
	expect(dimensions[0]!.from).toMatch(/^street\/.*\/N\/C01\/B01$/);
	await expect(paper.getByRole('img')).toContainText(/\d{4,5}/);

	// The same by keys alone: between points that are said by their addresses.
	await page.getByRole('button', { name: 'Dimensions: one dimension' }).click();
	await page.getByRole('button', { name: '+ Dimension' }).click();
	await expect.poll(async () => (await ownSheet()).dimensions.length).toBe(2);
	await page.keyboard.press('Escape');
	await page.getByRole('button', { name: /^Undo/ }).click();

	// One that has lost its point is told, and said anew.
	await page.getByRole('button', { name: 'Dimensions: one dimension' }).click();
	await page.getByRole('button', { name: /^Point it is measured to/ }).click();
	await page.keyboard.press('Control+a');
	await page.keyboard.type('street/nothing/N/C01/B99');
	await page.keyboard.press('Enter');
	await expect(page.getByText('One of these points is there no more')).toBeVisible();
	await page.keyboard.press('Escape');
	await page.getByRole('button', { name: /^Undo/ }).click();
	await expect(page.getByRole('button', { name: 'Dimensions: one dimension', exact: true })).toBeVisible();
	await accessible(page);

	// A view that goes takes what is measured in it; one undo brings both back.
	await street.focus();
	await page.keyboard.press('Delete');
	await expect(page.getByText('Nothing lies on this sheet yet')).toBeVisible();
	expect((await ownSheet()).dimensions).toEqual([]);
	await page.getByRole('button', { name: /^Undo/ }).click();
	await expect(street).toBeVisible();
	expect((await ownSheet()).dimensions).toHaveLength(1);

	await page.getByRole('button', { name: 'Write sheets' }).click();
	const [file] = await Promise.all([
		page.waitForEvent('download'),
		page.getByRole('menuitem', { name: /^L-01 .* PDF$/ }).click()
	]);
	expect(file.suggestedFilename()).toBe('tidal-lido-copy-l-01.pdf');
	expect(problems).toEqual([]);
});
