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
