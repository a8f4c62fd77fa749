import { accessible, documentOf, expect, openDemo, saved, settled, test } from './app';

test('nodes are moved so that cells are flat, and so that fewer kinds are left; both are taken back', async ({
	page
}) => {
	const id = await openDemo(page);
	await page.getByRole('button', { name: /^Go to Street/ }).click();
	const pattern = page.locator('[data-clause="zones/street/pattern"]');
	const offer = async (label: string) => {
		await pattern.hover();
		await pattern.getByRole('button', { name: /^More for clause/ }).click();
		await page.getByRole('menuitem', { name: 'Move nodes so that …' }).press('ArrowRight');
		await page.getByRole('menuitem', { name: label }).click();
	};
	await offer('cells are flatter');
	const flat = page.locator('[data-clause="zones/street/moves/moves"]');
	await expect(flat).toContainText(/The largest warp was [\d.]+ mm and is [\d.]+ mm/);
	await expect(flat).toContainText('where the face curves both ways');
	await flat.getByRole('button', { name: /^How far nodes may move/ }).focus();
	await page.keyboard.press('Enter');
	await page.keyboard.type('1000 mm');
	await page.keyboard.press('Enter');
	// What was found before stands until it is asked for anew.
	await flat.getByRole('button', { name: 'Find them anew' }).click();
	await expect(flat).toContainText(/largest warp was 36\.7 mm and is [\d.]+ mm.*moved by up to [\d\s]+ mm/);
	await settled(page);
	await saved(page);
	const { zones } = await documentOf(page, id);
	const street = zones.find(({ id }) => id === 'street')!;
	expect(street.moves[0]!.faces[0]!.nodes.length).toBeGreaterThan(200);
	await accessible(page);

	await offer('fewer kinds of cells are left');
	const alike = page.locator('[data-clause="zones/street/moves/moves-2"]');
	await expect(alike).toContainText(/kinds before|No node is moved/);
	for (const clause of [alike, flat]) await expect(clause).toBeVisible();
	while (await page.locator('[data-clause^="zones/street/moves/"]').count()) {
		await page.keyboard.press('Control+z');
		await settled(page);
	}
	await saved(page);
	expect((await documentOf(page, id)).zones.find(({ id }) => id === 'street')!.moves).toEqual([]);
});
