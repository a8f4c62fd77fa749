import { accessible, documentOf, expect, listed, openDemo, saved, settled, test, visit } from './app';

test('a limit is set in a sentence: what goes beyond it is counted, walked from the worst on, muted and taken back', async ({
	page
}) => {
	const problems: string[] = [];
	page.on('pageerror', (error) => problems.push(error.message));
	const id = await openDemo(page);
	const limits = page.locator('[data-part="limits"]');
	const status = page.getByTestId('status');
	await page.getByRole('button', { name: 'Go to Limits' }).click();
	await expect(limits).toContainText('long side of the sheet');
	await accessible(page);

	// A new one, of a measure that is chosen from all there are.
	await limits.getByRole('button', { name: 'Limit', exact: true }).click();
	await page.getByRole('menuitem', { name: 'area', exact: true }).click();
	await settled(page);
	const own = page.locator('[data-clause="limits/limit"]');
	const effect = own.locator('[data-effect]');
	await own.getByRole('button', { name: /^Bound of area/ }).focus();
	await page.keyboard.press('Enter');
	await page.keyboard.type('2.4 m^2');
	await page.keyboard.press('Enter');
	await saved(page);
	await settled(page);
	expect((await documentOf(page, id)).limits).toMatchObject([{ id: 'limit', of: 'cell.area', bound: 2.4e6 }]);
	await expect(effect).toHaveText(/^\d+ beyond$/);
	const beyond = Number((await effect.innerText()).split(' ')[0]);

	// Of one zone alone there are fewer.
	await own.getByRole('combobox', { name: /^Whose/ }).click();
	await page.getByRole('option', { name: 'pieces of Gull roof' }).click();
	await settled(page);
	await expect.poll(async () => Number((await effect.innerText()).split(' ')[0]) || 0).toBeLessThan(beyond);
	await page.keyboard.press('Control+z');
	await settled(page);
	await expect(effect).toHaveText(`${beyond} beyond`);

	// Its count chooses them; the card tells by how much the worst of them goes beyond.
	await effect.click();
	const card = page.getByTestId('card');
	await expect(card).toContainText(/the area is beyond its limit \(.* m²; at most 2.4 m²\)/);

	// They are counted under the clauses that put them there, and chosen from there.
	const under = page.locator('[data-part="zone gull"]').getByRole('button', { name: /flagged in clause/ });
	const flagged = parseInt(await under.first().innerText());
	await under.first().click();
	await expect(card).toContainText(flagged > 1 ? `and ${flagged - 1} more` : 'beyond its limit');
	await effect.click();

	// What would bring them inside is tried, and taken; undo brings the limit's breaches back.
	await page
		.getByTestId('bring-inside')
		.getByRole('button', { name: /^What would bring the area/ })
		.click();
	const fixes = page.getByRole('list', { name: 'What would bring the area inside' });
	const works = fixes
		.getByRole('listitem')
		.filter({ hasText: /^[^.]*\b0 of \d+ left beyond/ })
		.first();
	await expect(works).toBeVisible();
	await accessible(page);
	await works.getByRole('button', { name: 'Take it' }).click();
	await settled(page);
	await expect.poll(async () => Number((await effect.innerText()).split(' ')[0]) || 0).toBeLessThan(beyond);
	await page.keyboard.press('Control+z');
	await settled(page);
	await expect(effect).toHaveText(`${beyond} beyond`);
	await effect.click();

	// Where its measure colours the model its limit is told; the ten worst are one click away, the worst on the card.
	await page.keyboard.press('4');
	const check = page.getByTestId('check');
	await check.getByRole('combobox', { name: 'Measure' }).click();
	await page.getByRole('option', { name: 'area', exact: true }).click();
	await expect(check.locator('canvas')).toHaveAttribute('aria-label', /^area in m².*; limit at .*2\.40? m²/);
	await check.getByRole('button', { name: 'Choose the ten largest' }).click();
	const largest = Number(/([\d.]+) m²/.exec(await card.innerText())![1]);
	await check.getByRole('button', { name: 'Choose the ten smallest' }).click();
	await expect(card).toContainText('m²');
	expect(Number(/([\d.]+) m²/.exec(await card.innerText())![1])).toBeLessThan(largest);
	await page.keyboard.press('3');

	// Flags are walked, the worst first, and back.
	await page.locator('main, body').first().press('Escape');
	await status.getByRole('button', { name: /flags: to the worst/ }).click();
	await expect(status).toContainText('1');
	const first = await card.innerText();
	await page.keyboard.press(']');
	await expect(card).not.toHaveText(first);
	await page.keyboard.press('[');
	await expect.poll(() => card.innerText()).toBe(first);
	// The sheet goes along to what put them there, also from a clause that is being edited.
	await own.getByRole('button', { name: /^Bound of area/ }).focus();
	await page.keyboard.press(']');
	await expect(page.locator('.clause.active')).toHaveAttribute('data-clause', /^zones\//);

	await own.hover();
	await own.getByRole('button', { name: /^More for clause/ }).click();
	await page.getByRole('menuitem', { name: 'Mute' }).click();
	await settled(page);
	await expect(own).toContainText('(muted)');
	await own.hover();
	await own.getByRole('button', { name: /^More for clause/ }).click();
	await page.getByRole('menuitem', { name: 'Remove' }).click();
	await expect(own).toHaveCount(0);

	// One that ships is changed, and is as it ships again.
	const lift = page.locator('[data-clause="limits/lift"]');
	await lift.getByRole('button', { name: /^Bound of mass/ }).focus();
	await page.keyboard.press('Enter');
	await page.keyboard.type('20');
	await page.keyboard.press('Enter');
	await settled(page);
	await expect(lift.locator('[data-effect]')).toHaveText(/^\d+ beyond$/);
	await lift.hover();
	await lift.getByRole('button', { name: /^More for clause/ }).click();
	await page.getByRole('menuitem', { name: 'As it ships' }).click();
	await settled(page);
	await expect(lift).toContainText('800 kg');
	await saved(page);
	expect((await documentOf(page, id)).limits).toEqual([]);
	expect(problems).toEqual([]);
});

test('a number of a list is opened to what it is reckoned from; a material tells its limits, and leads to them', async ({
	page
}) => {
	const id = await openDemo(page);
	await visit(page, `/project/${id}/schedule`);
	const table = await listed(page, 'Panels');
	const at = await table.getByRole('columnheader').allInnerTexts();
	const mass = at.findIndex((head) => head.startsWith('Mass'));
	await table.getByRole('row').nth(3).getByRole('cell').nth(mass).dblclick();
	const figures = page.getByRole('list', { name: 'All figures' });
	await expect(figures).toContainText('the volumes of its elements, as they are drawn');
	await expect(figures).toContainText(/Glass of 2\s500 kg\/m³/);
	await accessible(page);
	await visit(page, `/project/${id}/kit`);
	const limits = page.getByRole('list', { name: 'Limits of Zinc sheet' });
	await limits.getByRole('button', { name: /^warp of the plate/ }).click();
	await expect(page).toHaveURL(new RegExp(`/project/${id}$`));
	await settled(page);
	await expect(
		page.locator('[data-clause="limits/metal-warp"], [data-clause^="limits/"]').first()
	).toBeVisible();
});
