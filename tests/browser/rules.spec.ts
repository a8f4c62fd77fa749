import type { Page } from '@playwright/test';
import { accessible, documentOf, expect, openDemo, openRoof, saved, settled, test } from './app';

const clause = (page: Page, path: string) => page.locator(`[data-clause="${path}"]`);

test('a rule is written from what is offered: joined, turned round, in brackets; its count chooses, its cells light', async ({
	page
}) => {
	const id = await openRoof(page);
	const rule = clause(page, 'zones/gull/rules/all');
	const effect = rule.locator('[data-effect]');
	const all = Number(await effect.innerText());
	await expect(rule).toContainText('on every cell');

	await rule.getByRole('button', { name: 'Only where …' }).click();
	await accessible(page, '[role=menu]');
	await page.getByRole('menuitem', { name: 'whole, edge, strip or cut' }).click();
	await expect(effect).not.toHaveText(String(all));
	const whole = Number(await effect.innerText());
	await expect(page.getByText(`${all - whole} cells wait for a part`)).toBeVisible();

	await rule.getByRole('button', { name: 'and where …' }).click();
	await page.getByRole('menuitem', { name: 'some courses' }).click();
	await settled(page);
	// "From 1 to 14" takes all of them; from 10 on it is fewer.
	await rule.getByRole('button', { name: /^At least: / }).click();
	await page.keyboard.type('10');
	await page.keyboard.press('Enter');
	await expect(effect).not.toHaveText(String(whole));
	const upper = Number(await effect.innerText());
	await rule.locator('[data-condition="1"]').hover();
	await rule.getByRole('button', { name: 'More for condition 2' }).click();
	await page.getByRole('menuitem', { name: 'Not this' }).click();
	await expect(effect).toHaveText(String(whole - upper));
	await expect(rule).toContainText('and not');

	// One or the other: all whole cells, and those of the upper courses, which are among them.
	await rule.getByRole('button', { name: 'and: change to or' }).click();
	await settled(page);
	await saved(page);
	const document = await documentOf(page, id);
	expect(document.zones[0]!.rules[0]!.where).toEqual({
		is: 'any',
		of: [
			{ is: 'kind', of: ['whole', 'strip'] },
			{ is: 'none', of: [{ is: 'range', field: 'course', at_least: 10, at_most: 14 }] }
		]
	});
	const chosen = Number(await effect.innerText());
	expect(chosen).toBeGreaterThan(whole);
	await effect.click();
	await expect(page.getByTestId('card')).toContainText(`and ${chosen - 1} more`);
	await expect(page.getByTestId('card-why')).toContainText('Since it is whole or strip');
	await accessible(page);

	// Those chosen are walked through, and all of them stay chosen.
	const mark = await page.getByTestId('card-mark').innerText();
	await page.getByRole('button', { name: 'The next of what is chosen' }).click();
	await expect(page.getByTestId('card-mark')).not.toHaveText(mark);
	await page.getByRole('button', { name: 'The one before of what is chosen' }).click();
	await expect(page.getByTestId('card-mark')).toHaveText(mark);
	await expect(page.getByTestId('card')).toContainText(`and ${chosen - 1} more`);

	// Undo is named after the rule and leads back step by step.
	await expect(page.getByTestId('undo-label')).toContainText('one of them');
	await page.keyboard.press('Control+z');
	await expect(effect).toHaveText(String(whole - upper));
});

test('a border member runs along the rims that are chosen', async ({ page }) => {
	const id = await openDemo(page);
	const { zones } = await documentOf(page, id);
	const zone = zones.find(({ runs }) => runs.some(({ lines }) => lines.includes('rim')))!;
	const own = zone.runs.find(({ lines }) => lines.includes('rim'))!;
	const run = clause(page, `zones/${zone.id}/runs/${own.id}`);
	await run.scrollIntoViewIfNeeded();
	const countOf = async () =>
		Number((await run.locator('[data-effect]').innerText()).split(' · ')[0]!.replace(/\D/g, ''));
	const all = await countOf();
	await run.getByRole('button', { name: 'Only where …' }).click();
	await page.getByRole('menuitem', { name: 'on some of the rims' }).click();
	await settled(page);
	const atFoot = await countOf();
	expect(atFoot).toBeGreaterThan(0);
	expect(atFoot).toBeLessThan(all);
	await run.getByRole('combobox', { name: /^Which rims/ }).click();
	await page.getByRole('option', { name: 'at the head' }).click();
	await page.keyboard.press('Escape');
	await settled(page);
	expect(await countOf()).toBe(2 * atFoot);
	await saved(page);
	const changed = (await documentOf(page, id)).zones.find((one) => one.id === zone.id)!;
	expect(changed.runs.find((one) => one.id === own.id)!.where).toEqual({
		is: 'all',
		of: [{ is: 'rim', of: ['foot', 'head'] }]
	});
});

test('rules are put in another order by dragging and by keys; named values are used and changed', async ({
	page
}) => {
	const id = await openDemo(page);
	const rules = async () => (await documentOf(page, id)).zones[0]!.rules.map((rule) => rule.id);
	expect(await rules()).toEqual(['whole', 'edge', 'cut']);
	const cut = clause(page, 'zones/gull/rules/cut');
	await cut.scrollIntoViewIfNeeded();
	const handle = (await cut.getByRole('button', { name: /^Clause .*: moved by/ }).boundingBox())!;
	const first = (await clause(page, 'zones/gull/rules/whole').boundingBox())!;
	await page.mouse.move(handle.x + 12, handle.y + 10);
	await page.mouse.down();
	await page.mouse.move(first.x + 40, first.y + 30);
	await page.mouse.move(first.x + 40, first.y + 12);
	await page.mouse.up();
	await settled(page);
	await saved(page);
	expect(await rules()).toEqual(['cut', 'whole', 'edge']);
	await cut.getByRole('button', { name: /^Clause .*: moved by/ }).focus();
	await page.keyboard.press('Alt+ArrowDown');
	await settled(page);
	await saved(page);
	expect(await rules()).toEqual(['whole', 'cut', 'edge']);

	const named = clause(page, 'named');
	await named.getByRole('button', { name: 'value', exact: true }).click();
	await expect(named).toContainText('(not used)');
	const blades = clause(page, 'zones/street/rules/upper');
	await blades.getByRole('button', { name: /^To: / }).click();
	await page.keyboard.press('Control+a');
	await page.keyboard.type('storey + 1 m');
	await page.keyboard.press('Enter');
	await expect(blades).toContainText('storey + 1 m');
	await expect(named).not.toContainText('(not used)');
	await settled(page);
	await named.getByRole('button', { name: 'Value of storey: 3600 mm' }).click();
	await page.keyboard.press('Control+a');
	await page.keyboard.type('storey / 2');
	await page.keyboard.press('Enter');
	await expect(named.getByText('"storey" in "storey / 2" is not known', { exact: false })).toBeVisible();
	await page.keyboard.press('Escape');
	await named.getByRole('button', { name: 'Value of storey: 3600 mm' }).click();
	await page.keyboard.press('Control+a');
	await page.keyboard.type('2.9 m');
	await page.keyboard.press('Enter');
	await settled(page);
	await saved(page);
	expect((await documentOf(page, id)).named).toEqual([{ id: 'storey', value: '2.9 m' }]);
});

test('a rule that never matches is told, and what others before it have is told with them', async ({
	page
}) => {
	await openRoof(page);
	await page.getByRole('combobox', { name: 'Another part on cells' }).click();
	await page.getByRole('option', { name: 'Flat panel', exact: true }).click();
	await settled(page);
	const second = page.locator('[data-clause^="zones/gull/rules/"]').nth(1);
	await expect(second.getByRole('note')).toContainText(
		'that it asks for are taken by rules before it, first by the first one'
	);
	await second.getByRole('button', { name: 'Only where …' }).click();
	await page.getByRole('menuitem', { name: 'so many corners' }).click();
	await settled(page);
	await second.getByRole('button', { name: 'How many corners: 4' }).click();
	await page.keyboard.type('9');
	await page.keyboard.press('Enter');
	await expect(second.getByRole('note')).toContainText('no cell is as it asks');
});

test('a value follows a field along a curve drawn in place, then alternates; the card says why', async ({
	page
}) => {
	const id = await openDemo(page);
	const rule = clause(page, 'zones/street/rules/upper');
	await rule.scrollIntoViewIfNeeded();
	const angle = rule.locator('[data-driver="angle"]');
	await expect(angle).toContainText('follows');
	await angle.getByRole('combobox', { name: 'What angle follows: height' }).click();
	await page.getByRole('option', { name: 'share of the way across' }).click();
	await settled(page);
	await expect(angle).toContainText('here 0.0');
	await angle.getByRole('button', { name: 'How angle goes from one to the other' }).click();
	const curve = page.getByRole('application');
	await curve.dblclick({ position: { x: 90, y: 160 } });
	await settled(page);
	await page.keyboard.press('Escape');
	await saved(page);
	const put = async () =>
		(await documentOf(page, id)).zones[1]!.rules[0]!.put as unknown as { values: { angle: object } };
	expect((await put()).values.angle).toMatchObject({ is: 'follows', field: 'across', outside: 'held' });

	await rule.locator('[data-effect]').click();
	await expect(page.getByTestId('card-why')).toContainText('follows share of the way across, 0.9');
	await angle.getByRole('combobox', { name: 'How angle is set: follows' }).click();
	await page.getByRole('option', { name: 'alternates' }).click();
	await settled(page);
	await angle.getByRole('button', { name: /^Values of angle/ }).click();
	await page.keyboard.press('Control+a');
	await page.keyboard.type('20 deg, 50 deg');
	await page.keyboard.press('Enter');
	await settled(page);
	await saved(page);
	expect((await put()).values.angle).toMatchObject({
		is: 'alternates',
		values: ['20 deg', '50 deg'],
		by: 'bays'
	});
	await expect(page.getByTestId('card-why')).toContainText('alternates by bays');
	await expect(page.getByTestId('card-why')).toContainText('50°');
});
