import { spawnSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { accessible, documentOf, expect, openDemo, saved, settled, test, visit } from './app';

/** Somebody opens the workbook elsewhere, changes the second and third piece, and saves it. */
const EDIT = `
import sys, openpyxl
book = openpyxl.load_workbook(sys.argv[1])
sheet = book['Louvers']
heads = [cell.value for cell in sheet[1]]
sheet.cell(3, heads.index('Angle (deg)') + 1).value = 12
sheet.cell(4, heads.index('Angle (deg)') + 1).value = 'steep'
sheet.cell(2, heads.index('Area (m2)') + 1).value = 99
book.save(sys.argv[1])
print(sheet.cell(3, 1).value)
`;

test('a list goes out as a workbook, is edited elsewhere and comes back: seen first, taken in one step, taken back', async ({
	page
}, info) => {
	const id = await openDemo(page);
	await visit(page, `/project/${id}/schedule?plain`);
	await page.getByRole('tab', { name: /^Louvers/ }).click();
	await expect(page.getByTestId('row-count')).toHaveText(/^[1-9]\d* of/);
	await accessible(page);
	const [download] = await Promise.all([
		page.waitForEvent('download'),
		page.getByRole('button', { name: 'XLSX' }).click()
	]);
	const path = info.outputPath('louvers.xlsx');
	await download.saveAs(path);
	const { stdout, stderr } = spawnSync('/usr/bin/python3', ['-c', EDIT, path], { encoding: 'utf8' });
	expect(stderr).toBe('');
	const mark = stdout.trim();

	const before = (await documentOf(page, id)).zones;
	await page.getByLabel('An edited list').setInputFiles(path);
	const dialog = page.getByTestId('edited');
	await expect(dialog.getByRole('list', { name: 'What would change' })).toHaveText(
		new RegExp(`^\\s*${mark}\\s*Angle 12°\\s*$`)
	);
	await expect(dialog.getByRole('list', { name: 'What is not taken' })).toContainText(
		'Angle cannot be "steep"; a number is wanted'
	);
	await expect(dialog).toContainText('Area differs from the model in 1 row');
	await accessible(page);
	await dialog.getByRole('button', { name: 'Take 1 value of 1 piece' }).click();
	await expect(dialog).toHaveCount(0);
	await settled(page);
	await saved(page);
	const byHand = (await documentOf(page, id)).zones.flatMap(({ exceptions }) => exceptions);
	expect(byHand.map(({ put }) => put)).toContainEqual(
		expect.objectContaining({ values: expect.objectContaining({ angle: '12 deg' }) as unknown })
	);
	await page.keyboard.press('Control+z');
	await saved(page);
	expect((await documentOf(page, id)).zones).toEqual(before);
	// What is no list says so, and nothing else happens.
	const other = info.outputPath('other.csv');
	writeFileSync(other, 'Name,Age\nsomebody,40\n');
	await page.getByLabel('An edited list').setInputFiles(other);
	await expect(page.getByText('other.csv cannot be taken: no column of it is headed Mark')).toBeVisible();
});
