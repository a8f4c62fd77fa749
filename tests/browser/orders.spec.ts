import { accessible, documentOf, expect, openDemo, saved, settled, test, visit } from './app';

test('rates come to costs of zones; settings are compared by them; the wind tells which bars bend too far', async ({
	page
}) => {
	const id = await openDemo(page);
	await page.getByRole('button', { name: 'Go to Costs' }).click();
	await page.getByRole('button', { name: 'Rate', exact: true }).click();
	await page.getByRole('menuitem', { name: 'Glass', exact: true }).click();
	const rate = page.locator('[data-clause="cost/rates/rate"]');
	await rate.getByRole('button', { name: /^Rate of Glass/ }).focus();
	await page.keyboard.press('Enter');
	await page.keyboard.type('4');
	await page.keyboard.press('Enter');
	// So many kg, four times.
	await expect(rate.locator('[data-effect]')).toHaveText(/^[\d\s]+€$/);
	const number = (text: string) => Number(text.replace(/[^\d.]/g, ''));
	const cost = number(await rate.locator('[data-effect]').innerText());
	const kilograms = number(/(\d[\d\s.]*) kg/.exec(await rate.innerText())![1]!);
	expect(Math.abs(cost - 4 * kilograms)).toBeLessThan(1);
	const zones = page.getByLabel('Costs by zone');
	await expect(zones).toContainText('€/m²');
	await accessible(page);

	await page.getByRole('button', { name: /^Go to Street/ }).click();
	await page.locator('[data-clause="zones/street/pattern"]').getByRole('button', { name: 'compare' }).click();
	const now = page.getByRole('region', { name: 'Setting 1' });
	await expect(now.getByLabel(/^With all that is put on it/)).toContainText(/Pieces\s*\d+.*Cost/s);
	await accessible(page, '[data-testid=compare]');
	await page.keyboard.press('Escape');

	await page.getByRole('button', { name: 'Go to Limits' }).click();
	const limit = page.locator('[data-clause="limits/bar-deflection"]');
	await expect(limit).toContainText('waits for the wind');
	await page.getByRole('button', { name: 'a wind', exact: true }).click();
	await expect(page.getByRole('button', { name: /^Wind: 1 kN/ })).toBeVisible();
	const wind = page.getByRole('button', { name: /^Wind: / });
	await wind.focus();
	await page.keyboard.press('Enter');
	await page.keyboard.type('6');
	await page.keyboard.press('Enter');
	await settled(page);
	await expect(limit).toContainText(/\d+ beyond/);
	await limit.getByRole('combobox').first().focus();
	await expect(limit).toContainText('5 mm + L/300 up to 7.5 m');
	// One of them tells on its card what it came to, and by which formula.
	await limit.locator('button[data-effect]').click();
	const reckoned = page.getByTestId('reckoned');
	await reckoned.getByRole('button', { name: /^All figures/ }).click();
	const share = reckoned.getByRole('button', { name: /^deflection of the bar as a share/i });
	await expect(share).toContainText(/[1-9]\.\d+|[2-9]/);
	await share.click();
	await expect(reckoned).toContainText('EN 13830, from memory');
	await accessible(page);
	await saved(page);
	const { loads, cost: kept } = await documentOf(page, id);
	expect(loads.wind).toBe(6);
	expect(kept.rates.at(-1)).toMatchObject({ material: 'glass', per: 'mass', rate: 4 });
});

test('bars are packed into stock lengths; rows are walked with keys, chosen together and copied', async ({
	page,
	context
}) => {
	await context.grantPermissions(['clipboard-read', 'clipboard-write']);
	const id = await openDemo(page);
	await visit(page, `/project/${id}/schedule?plain`);
	await settled(page);
	await page.getByRole('tab', { name: /^Lengths/ }).click();
	const table = page.getByRole('table', { name: 'Lengths' });
	await expect(table.getByRole('row').nth(1)).toBeVisible();
	const many = async () =>
		Number((await page.getByTestId('row-count').innerText()).replace(/ of .*$/s, '').replace(/\D/g, ''));
	const before = await many();
	const steel = page.getByLabel('Cut from').getByRole('button', { name: /^Length of Aluminium bars/ });
	await steel.focus();
	await page.keyboard.press('Enter');
	await page.keyboard.type('3 m');
	await page.keyboard.press('Enter');
	await settled(page);
	await expect.poll(many).toBeGreaterThan(before);
	await accessible(page);

	await table.focus();
	await page.keyboard.press('ArrowDown');
	await page.keyboard.press('ArrowDown');
	await page.keyboard.press('Shift+ArrowDown');
	await expect(table.locator('[aria-selected="true"]')).toHaveCount(2);
	await page.keyboard.press('Control+c');
	await expect(page.getByText('2 rows copied as text')).toBeVisible();
	const lines = (await page.evaluate(() => navigator.clipboard.readText())).split('\n');
	expect(lines).toHaveLength(3);
	expect(lines[0]).toContain('Left over (mm)');
	expect(new Set(lines.map((line) => line.split('\t').length)).size).toBe(1);

	await page.getByRole('tab', { name: /^Sheets/ }).click();
	await expect(page.getByLabel('Cut from')).toContainText('Glass, sheets of');
});
