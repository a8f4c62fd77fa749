import {
	accessible,
	cellCount,
	documentOf,
	expect,
	openDemo,
	openDocument,
	saved,
	settled,
	test
} from './app';

test('louvers are clipped at the oculus: what would be lost is told before, they are one click away and taken back by one', async ({
	page
}) => {
	const problems: string[] = [];
	page.on('pageerror', (error) => problems.push(error.message));
	const id = await openDemo(page);
	const rule = page.locator('[data-clause="zones/gull/rules/cut"]');
	await rule.scrollIntoViewIfNeeded();
	const effect = rule.locator('[data-effect]');
	const cut = Number(await effect.innerText());
	await rule.getByRole('combobox', { name: /^What rule/ }).click();
	await page.getByRole('option', { name: 'Blade stack' }).first().click();
	await settled(page);
	// What is left of some cells has four corners.
	const fit = Number(await effect.innerText());
	expect(fit).toBeLessThan(cut);
	await expect(rule).toContainText(`Passes over ${cut - fit} cells`);
	const clip = rule.getByRole('button', { name: /^Clip it on/ });
	await expect(clip).toContainText(/[\d.]+ m² of [\d.]+ m² would be cut away/);
	await accessible(page);
	await clip.click();
	await settled(page);
	await expect(rule).toContainText('clipped where trims cut');
	const clipped = Number(await effect.innerText());
	expect(clipped).toBeGreaterThan(fit);
	await saved(page);
	const put = async () => (await documentOf(page, id)).zones[0]!.rules.find((one) => one.id === 'cut')!.put;
	expect(await put()).toMatchObject({ cut: 'clip' });

	await page.keyboard.press('Control+z');
	await settled(page);
	await expect(rule).not.toContainText('clipped where trims cut');
	await saved(page);
	expect(await put()).not.toHaveProperty('cut');
	expect(problems).toEqual([]);
});

test('two masses are joined: each ends where they meet, the other way round by a word, and as they were by one key', async ({
	page
}) => {
	const zone = (id: string, face: string) => ({
		id,
		code: id.toUpperCase(),
		name: id,
		faces: [{ mass: id, face }],
		settingOut: { across: { by: 'count', count: 12 }, up: { by: 'count', count: 6 } },
		pattern: { kind: 'rectangles' }
	});
	const id = await openDocument(page, {
		name: 'Hall and dome',
		masses: [
			{
				id: 'hall',
				name: 'Hall',
				form: {
					kind: 'prism',
					outline: { shape: 'rectangle', width: 14000, depth: 9000, rounding: 0 },
					at: [0, 0],
					foot: 0,
					head: 6000
				}
			},
			{
				id: 'dome',
				name: 'Dome',
				form: { kind: 'dome', radii: [5000, 5000, 5000], at: [6000, -3500], foot: 0, cut: 0 }
			}
		],
		zones: [zone('hall', 'south'), zone('dome', 'shell')]
	});
	const before = await cellCount(page);
	const hall = page.locator('[data-clause="masses/hall"]');
	if (!(await hall.isVisible()))
		await page
			.getByRole('button', { name: /^Masses/ })
			.first()
			.click();
	await hall.hover();
	await hall.getByRole('button', { name: /^More for clause/ }).click();
	await page.getByRole('menuitem', { name: 'Join it with' }).press('ArrowRight');
	await page.getByRole('menuitem', { name: 'Dome' }).press('Enter');
	await settled(page);
	await expect.poll(() => cellCount(page)).toBeLessThan(before);
	const joined = await cellCount(page);
	await saved(page);
	const { masses } = await documentOf(page, id);
	expect(masses.map(({ trims }) => trims.map((trim) => trim.by === 'mass' && trim.mass))).toEqual([
		['dome'],
		['hall']
	]);

	await hall.getByRole('combobox', { name: 'Side that is kept' }).click();
	await page.getByRole('option', { name: 'What is within' }).click();
	await settled(page);
	await expect.poll(() => cellCount(page)).toBeLessThan(joined);
	await page.keyboard.press('Control+z');
	await page.keyboard.press('Control+z');
	await settled(page);
	await expect.poll(() => cellCount(page)).toBe(before);
});
