import { type Page } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { accessible, copyDemo, expect, openDemo, saved, settled, test, visit } from './app';

async function exported(page: Page, item: RegExp): Promise<{ name: string; bytes: Buffer }> {
	await page.getByRole('button', { name: 'Export' }).click();
	const [download] = await Promise.all([
		page.waitForEvent('download'),
		page.getByRole('menuitem', { name: item }).click()
	]);
	return { name: download.suggestedFilename(), bytes: readFileSync((await download.path())!) };
}

/** What every page of a project offers by its keys. */
async function expectKeys(page: Page): Promise<void> {
	const list = page.getByRole('dialog', { name: 'Keys' });
	await page.keyboard.press('Control+k');
	await expect(page.getByRole('dialog').getByRole('combobox')).toBeFocused();
	await accessible(page, '[role=dialog]');
	await page.keyboard.type('Keys');
	await page.keyboard.press('Enter');
	await expect(list).toContainText('Undo; with Shift, redo');
	await page.keyboard.press('Escape');
	await expect(list).toHaveCount(0);
	await page.keyboard.press('Shift+?');
	await expect(list).toContainText('Walk from cell to cell');
	await accessible(page, '[role=dialog]');
	await page.keyboard.press('Escape');
	await expect(list).toHaveCount(0);
}

test('the schedule: sorted, grouped, filtered; a row and the model choose each other; CSV', async ({
	page
}) => {
	const id = await copyDemo(page);
	await visit(page, `/project/${id}/schedule?plain`);
	await settled(page);
	await expect(page.getByTestId('row-count')).toHaveText('739 of 739');
	await expect(page.getByRole('row').nth(1)).toContainText('GR-C01-B01a');
	await accessible(page);
	await expectKeys(page);
	await page.getByRole('columnheader', { name: /^Area/ }).getByRole('button').click();
	await expect(page.getByRole('row').nth(1)).not.toContainText('GR-C01-B01a');
	await page.getByRole('combobox', { name: 'Filter by: anything' }).click();
	await page.getByRole('option', { name: 'cell', exact: true }).click();
	await page.getByRole('button', { name: /^Filter value/ }).click();
	await page.keyboard.press('Control+A');
	await page.keyboard.type('edge');
	await page.keyboard.press('Enter');
	await expect(page.getByTestId('row-count')).toHaveText('52 of 739');
	await page.getByRole('combobox', { name: 'Group by: building order' }).click();
	await page.getByRole('option', { name: 'course' }).click();
	await expect(page.getByRole('row').nth(1)).toContainText('Course 1');
	const [download] = await Promise.all([
		page.waitForEvent('download'),
		page.getByRole('button', { name: 'CSV' }).click()
	]);
	const lines = readFileSync((await download.path())!, 'utf8')
		.trim()
		.split('\r\n');
	expect(lines.length).toBe(53);
	expect(lines[0]).toContain('Area (m2)');

	const row = page.getByRole('row').nth(3);
	const mark = (await row.getByRole('button').textContent())!.trim();
	await row.getByRole('button').click();
	await page.getByRole('button', { name: 'Show in the model' }).click();
	await expect(page.getByTestId('card-mark')).toHaveText(mark);
	await expectKeys(page);
});

test('elements are listed by what they are cut from, and what parts measure colours the model', async ({
	page
}) => {
	const id = await copyDemo(page);
	await visit(page, `/project/${id}/schedule?plain`);
	await settled(page);
	// What parts measure is there for those who ask for it.
	await page.getByRole('combobox', { name: /^Columns/ }).click();
	await page.getByRole('option', { name: 'Clear opening' }).click();
	await page.keyboard.press('Escape');
	await expect(page.getByRole('columnheader', { name: /^Clear opening/ })).toHaveCount(1);
	await page.getByRole('tab', { name: /^Elements/ }).click();
	await expect(page.getByTestId('row-count')).toHaveText('5 216 of 5 216');
	await page.getByRole('combobox', { name: /^Group by/ }).click();
	await page.getByRole('option', { name: 'stock' }).click();
	// 220 blades of 28 × 190, in metres and kilograms.
	await expect(page.getByRole('row').nth(1)).toContainText('Stock flat 28 × 190 220 rows length 315.599 m');

	await visit(page, `/project/${id}?plain`);
	await settled(page);
	await page.keyboard.press('4');
	const check = page.getByTestId('check');
	await check.getByRole('combobox', { name: /^Measure/ }).click();
	await page.getByRole('option', { name: 'clear opening' }).click();
	await expect(check).toContainText('739 cells have it');
});

test('GLB, IFC, CSV and the project file come out of the page; the project goes in again', async ({
	page
}) => {
	await openDemo(page);
	const glb = await exported(page, /GLB/);
	expect(glb.bytes.subarray(0, 4).toString()).toBe('glTF');
	expect(glb.bytes.includes('GR-C01-B01a')).toBe(true);
	const ifc = await exported(page, /IFC4/);
	const text = ifc.bytes.toString();
	expect(text.startsWith('ISO-10303-21;')).toBe(true);
	expect(text.match(/=IFCPLATE\(/g)?.length).toBe(739);
	expect(text.match(/=IFCMEMBER\(/g)?.length).toBe(1618);
	const bars = await exported(page, /^Bars/);
	expect(bars.bytes.toString().trim().split('\r\n').length).toBe(1619);
	const json = await exported(page, /^Project file/);
	expect(JSON.parse(json.bytes.toString()).zones.length).toBe(4);
	// What was written is listed, the newest first.
	await page.getByRole('button', { name: 'Export' }).click();
	const written = page.getByTestId('written').locator('p');
	await expect(written).toHaveCount(4);
	await expect(written.first()).toHaveText(/\.json.*kB · \d\d:\d\d$/);
	await accessible(page);
	await page.keyboard.press('Escape');

	await visit(page, '/');
	await page
		.locator('input[type=file]')
		.setInputFiles({ name: 'again.json', mimeType: 'application/json', buffer: json.bytes });
	await page.waitForURL(/project/);
	await settled(page);
	await expect(page.getByTestId('cell-count')).toHaveText('783 cells');
	await visit(page, '/');
	await page.locator('input[type=file]').setInputFiles({
		name: 'bad.json',
		mimeType: 'application/json',
		buffer: Buffer.from('{"format":"zygaster project","version":1,"name":"x","colour":2}')
	});
	await expect(page.getByText('colour: this key is not known here')).toBeVisible();
});

test('projects: new with a first mass, duplicate, delete with confirmation, bring back', async ({ page }) => {
	await visit(page, '/');
	await page.getByRole('button', { name: 'New project' }).click();
	const name = `Pavilion ${Date.now() % 1e6}`;
	await page.getByLabel('Name', { exact: true }).fill(name);
	await page.getByRole('button', { name: 'Create' }).click();
	await page.waitForURL(/project/);
	await expect(page.getByText('Nothing stands yet')).toBeVisible();
	await page.getByRole('button', { name: 'Mass', exact: true }).click();
	await page.getByRole('menuitem', { name: /^Revolved/ }).click();
	await expect(page.getByTestId('cell-count')).not.toHaveText('0 cells');
	await page.getByRole('combobox', { name: 'A part for the cells that wait' }).click();
	await page.getByRole('option', { name: 'Framed glass' }).click();
	await expect(page.getByTestId('status')).not.toContainText(' 0 pieces');
	await saved(page);
	await visit(page, '/');
	await page.getByRole('button', { name: `Duplicate ${name}` }).click();
	await expect(page.getByRole('heading', { name: `${name} (copy)` })).toBeVisible();
	await page.getByRole('button', { name: `Delete ${name} (copy)` }).click();
	await page.getByRole('button', { name: 'Delete', exact: true }).click();
	await expect(page.getByRole('heading', { name: `${name} (copy)` })).toHaveCount(0);
	await page.getByRole('button', { name: 'Bring it back' }).click();
	await expect(page.getByRole('heading', { name: `${name} (copy)` })).toBeVisible();
});
