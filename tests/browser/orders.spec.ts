import { accessible, documentOf, expect, openDemo, openList, saved, settled, test, visit } from './app';

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
	await openList(page, 'Lengths');
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

	await openList(page, 'Sheets');
	await expect(page.getByLabel('Cut from')).toContainText('Glass, sheets of');
});

test('a list is read another way, kept as a layout and come back to; columns of its own are reckoned and written', async ({
	page
}) => {
	const id = await openDemo(page);
	await visit(page, `/project/${id}/schedule`);
	await settled(page);
	await page.getByRole('button', { name: 'Another column' }).click();
	await page.getByRole('menuitem', { name: 'reckoned by a formula' }).click();
	const formula = page.getByRole('button', { name: /^Formula of Column 1/ });
	await formula.focus();
	await page.keyboard.press('Enter');
	await page.keyboard.press('ControlOrMeta+A');
	await page.keyboard.type('area + mass');
	await page.keyboard.press('Enter');
	await expect(page.getByText(/mixes an area with a mass/)).toBeVisible();
	await page.keyboard.press('ControlOrMeta+A');
	await page.keyboard.type('area * 2');
	await page.keyboard.press('Enter');
	const table = page.getByRole('table', { name: 'Panels' });
	await expect(table.getByRole('columnheader', { name: /Column 1/ })).toContainText('m²');
	await page.getByRole('button', { name: 'Another column' }).click();
	await page.getByRole('menuitem', { name: 'written by hand' }).click();
	await table.getByRole('button', { name: 'Column 2: empty' }).first().click();
	await page.keyboard.type('crate 7');
	await page.keyboard.press('Enter');
	await expect(table.getByRole('button', { name: 'Column 2: crate 7' })).toHaveCount(1);
	// Filters are joined; what is read otherwise can be kept.
	await page.getByRole('combobox', { name: 'Filter by: anything' }).click();
	await page.getByRole('option', { name: 'column 2' }).click();
	await page.getByRole('button', { name: /^Filter value/ }).click();
	await page.keyboard.type('crate');
	await page.keyboard.press('Enter');
	await expect(page.getByTestId('row-count')).toHaveText(/^1 of/);
	await page.getByRole('combobox', { name: /^And by/ }).click();
	await page.getByRole('option', { name: 'area', exact: true }).click();
	await page.getByRole('button', { name: 'Filter value: …' }).click();
	await page.keyboard.type('many');
	await page.keyboard.press('Enter');
	await expect(page.getByText('a number is accepted, in m²')).toBeVisible();
	await page.keyboard.press('ControlOrMeta+A');
	await page.keyboard.type('1000');
	await page.keyboard.press('Enter');
	await expect(page.getByTestId('row-count')).toHaveText(/^0 of/);
	await page.getByRole('button', { name: 'keep as a layout' }).click();
	await page.getByRole('button', { name: 'rename' }).click();
	await page.getByRole('textbox', { name: 'Name of the layout' }).fill('Crates');
	await page.keyboard.press('Enter');
	await page.getByRole('combobox', { name: 'Layout: Crates' }).click();
	await page.getByRole('option', { name: 'as it opens' }).click();
	await expect(page.getByTestId('row-count')).not.toHaveText(/^0 of/);
	await saved(page);
	const { schedules } = await documentOf(page, id);
	expect(schedules.layouts).toMatchObject([
		{
			name: 'Crates',
			list: 'panels',
			filters: [
				{ key: 'own column_2', is: 'contains', value: 'crate' },
				{ key: 'area', is: 'at least', value: 1e9 }
			]
		}
	]);
	expect(schedules.columns[1]!.by).toMatchObject({ is: 'hand', values: [{ value: 'crate 7' }] });
	// It is there for whoever comes next.
	await visit(page, `/project/${id}/schedule`);
	await settled(page);
	await page.getByRole('combobox', { name: 'Layout: as it opens' }).click();
	await page.getByRole('option', { name: 'Crates' }).click();
	await expect(page.getByTestId('row-count')).toHaveText(/^0 of/);
	await page.getByRole('tab', { name: /^Kinds/ }).click();
	await expect(page.getByRole('table', { name: 'Kinds' }).locator('svg').first()).toBeVisible();
	await openList(page, 'Materials');
	await expect(page.getByRole('table', { name: 'Materials' })).toContainText('Glass');
	await accessible(page);
});

test('pieces are marked by a pattern, the marks are frozen and found; a pattern that tells nobody apart is refused', async ({
	page
}) => {
	const id = await openDemo(page);
	await visit(page, `/project/${id}/schedule`);
	await settled(page);
	const marks = page.getByRole('region', { name: 'Marks' });
	await marks.getByRole('combobox', { name: /^How pieces are marked/ }).click();
	await page.getByRole('option', { name: 'by a pattern' }).click();
	const table = page.getByRole('table', { name: 'Panels' });
	await expect(table.getByRole('button', { name: /^GR-[A-Z]\d+-001$/ }).first()).toBeVisible();
	await marks.getByRole('button', { name: /^Pattern of the marks/ }).focus();
	await page.keyboard.press('Enter');
	await page.keyboard.press('ControlOrMeta+A');
	await page.keyboard.insertText('(colour)');
	await page.keyboard.press('Enter');
	await expect(marks.getByText(/is nothing that is known of a piece/)).toBeVisible();
	await page.keyboard.press('ControlOrMeta+A');
	await page.keyboard.insertText('(zone)-(course)');
	await page.keyboard.press('Enter');
	await expect(marks.getByRole('alert')).toContainText('add (number)');
	await expect(table.getByRole('button', { name: /^GR-C01-B0/ }).first()).toBeVisible();
	await marks.getByRole('button', { name: /^Pattern of the marks/ }).focus();
	await page.keyboard.press('Enter');
	await page.keyboard.press('ControlOrMeta+A');
	await page.keyboard.insertText('(zone)-P(number 4)');
	await page.keyboard.press('Enter');
	await expect(table.getByRole('button', { name: 'GR-P0001' })).toBeVisible();
	await marks.getByRole('button', { name: 'Freeze the marks' }).click();
	await expect(marks).toContainText(/marks are frozen. No piece came later/);
	// It is found by what it is called now, and known by it in the model.
	await page.keyboard.press('ControlOrMeta+k');
	await page.getByRole('combobox').last().fill('gr-p0002');
	await page.getByRole('option', { name: /GR-P0002/ }).click();
	await saved(page);
	await visit(page, `/project/${id}/schedule`);
	await settled(page);
	await expect(marks).toContainText(/marks are frozen/);
	const { marks: kept } = await documentOf(page, id);
	expect(kept.frozen!.some((line) => line.endsWith(' GR-P0002'))).toBe(true);
	await accessible(page);
});
