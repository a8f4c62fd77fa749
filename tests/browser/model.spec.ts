import { type Page } from '@playwright/test';
import {
	accessible,
	cellCount,
	copyDemo,
	documentOf,
	expect,
	newContext,
	openDemo,
	openRoof,
	saved,
	settled,
	test,
	visit
} from './app';

const problems: string[] = [];
test.beforeEach(({ page }) => {
	problems.length = 0;
	page.on('pageerror', (error) => problems.push(error.message));
});
test.afterEach(() => expect(problems).toEqual([]));

const bays = (page: Page) => page.locator('[data-part="zone gull"]').getByRole('button', { name: /^Bays: / });

test('a count changes by keyboard, by typing and by scrubbing; undo; reload shows the same', async ({
	page
}) => {
	await openDemo(page);
	const before = await cellCount(page);
	await bays(page).focus();
	await page.keyboard.press('ArrowUp');
	await page.keyboard.press('ArrowUp');
	await expect(bays(page)).toHaveText('34');
	await settled(page);
	// Two more bays by 14 courses of diamonds: 14 halves more of each row.
	expect(await cellCount(page)).toBeGreaterThan(before);

	await bays(page).click();
	await page.keyboard.press('Control+A');
	await page.keyboard.type('4200/105');
	await page.keyboard.press('Enter');
	await expect(bays(page)).toHaveText('40');
	// Digits typed on the chip are the value, and no keys of the page.
	await page.keyboard.type('42');
	await page.keyboard.press('Enter');
	await expect(bays(page)).toHaveText('42');
	await expect(page.getByRole('tab', { name: /Clad/ })).toHaveAttribute('aria-selected', 'true');
	await page.keyboard.press('Control+z');
	await expect(bays(page)).toHaveText('40');
	// The project is renamed where its name stands.
	await page.getByRole('button', { name: /^Name of the project/ }).click();
	await page.keyboard.type('Spring Lido');
	await page.keyboard.press('Enter');
	await expect(page).toHaveTitle('Spring Lido · Zygaster');
	await page.keyboard.press('Control+z');
	await expect(page).toHaveTitle(/^Tidal Lido/);

	const box = (await bays(page).boundingBox())!;
	await page.mouse.move(box.x + 8, box.y + 8);
	await page.mouse.down();
	await page.mouse.move(box.x + 8 - 24, box.y + 8, { steps: 6 });
	await page.mouse.up();
	await expect(bays(page)).toHaveText('34');
	await expect(page.getByTestId('undo-label')).toHaveText('Gull roof bays 40 → 34');
	await page.keyboard.press('Escape');
	await page.keyboard.press('Control+z');
	await expect(bays(page)).toHaveText('40');
	await page.keyboard.press('Control+Shift+z');
	await expect(bays(page)).toHaveText('34');
	for (let k = 0; k < 4; k++) await page.keyboard.press('Control+z');
	await expect(bays(page)).toHaveText('32');
	await settled(page);
	expect(await cellCount(page)).toBe(before);
	await page.keyboard.press('Control+Shift+z');
	await saved(page);
	await page.reload();
	await settled(page);
	await expect(bays(page)).toHaveText('33');
	// Undo goes on where it was before the reload.
	await page.keyboard.press('Control+z');
	await expect(bays(page)).toHaveText('32');
});

test('an impossible value is refused in words; an odd ring offers the two counts and takes one', async ({
	page
}) => {
	await openDemo(page);
	await bays(page).click();
	await page.keyboard.press('Control+A');
	await page.keyboard.type('0');
	await page.keyboard.press('Enter');
	await expect(page.getByRole('alert')).toContainText('at least 1');
	await page.keyboard.press('Escape');
	await expect(bays(page)).toHaveText('32');

	const drum = page.locator('[data-part="zone plunge"]');
	const before = await cellCount(page);
	await drum.getByRole('button', { name: 'Bays: 24' }).focus();
	await page.keyboard.press('ArrowUp');
	await expect(drum.getByRole('alert')).toContainText('divides by 2; 25 does not. 24 and 26 do');
	expect(await cellCount(page)).toBe(before);
	await drum.getByRole('button', { name: 'Take 26 bays' }).click();
	await expect(drum.getByRole('button', { name: 'Bays: 26' })).toBeVisible();
	await settled(page);
	await expect(drum.getByRole('alert')).toHaveCount(0);
	expect(await cellCount(page)).toBe(before + 28);

	// Two zones of one code would share their marks.
	await drum.getByRole('button', { name: /^Code of the marks/ }).click();
	await page.keyboard.press('Control+A');
	await page.keyboard.type('GR');
	await page.keyboard.press('Enter');
	await expect(drum.getByRole('alert')).toContainText('GR is the code of Gull roof already');
	await drum.getByRole('button', { name: 'Take GR2' }).click();
	await settled(page);
	await expect(drum.getByRole('alert')).toHaveCount(0);
});

test('the make-up of every start line shows before one is taken', async ({ page }) => {
	await openDemo(page);
	await page.getByRole('combobox', { name: 'Start line of bays: middle' }).click();
	await expect(page.getByRole('option', { name: /^left/ })).toContainText('make-up');
	await expect(page.getByRole('option', { name: /^middle/ })).toContainText('make-up 2 ×');
	await page.getByRole('option', { name: /^right/ }).click();
	await expect(page.getByRole('combobox', { name: 'Start line of bays: right' })).toBeVisible();
});

test('the pattern switches, and a cell is chosen in the model, on the map and by arrow keys', async ({
	page
}) => {
	await openDemo(page);
	await page.getByRole('combobox', { name: 'Pattern: diamonds' }).click();
	await page.getByRole('option', { name: 'rectangles', exact: true }).click();
	await expect(page.getByRole('combobox', { name: 'Pattern: rectangles' }).first()).toBeVisible();
	await settled(page);
	await expect(
		page.locator('[data-part="zone gull"] [data-clause="zones/gull/pattern"] [data-effect]')
	).toHaveText(/^442 cells/);

	const map = (await page.getByTestId('map').locator('canvas').boundingBox())!;
	await page.mouse.click(map.x + map.width / 2 - 100, map.y + map.height / 2);
	const mark = page.getByTestId('card-mark');
	await expect(mark).toHaveText(/^GR-C\d\d-B\d\d$/);
	const first = await mark.textContent();
	await page.keyboard.press('ArrowRight');
	await expect(mark).not.toHaveText(first!);
	await page.keyboard.press('ArrowLeft');
	await expect(mark).toHaveText(first!);
	await expect(page.getByTestId('card-why')).toContainText('took this whole cell');
	// The clause is named as the sheet numbers it.
	const number = await page.getByTestId('card-why').getByRole('button').first().innerText();
	const clause = page.locator('[data-clause="zones/gull/rules/whole"]');
	await expect(clause).toHaveAttribute('aria-label', `Clause ${number}`);
	await page.keyboard.press('Escape');
	await expect(page.getByTestId('card')).toHaveCount(0);

	const model = (await page.getByTestId('model').boundingBox())!;
	await page.mouse.click(model.x + model.width * 0.45, model.y + model.height * 0.45);
	await expect(mark).toHaveText(/^(GR|SS|PD)-/);
});

test('the check lens colours by a measure, and a bar of its histogram selects cells', async ({ page }) => {
	await openDemo(page);
	await page.keyboard.press('4');
	const check = page.getByTestId('check');
	await check.getByRole('combobox', { name: 'Measure: warp' }).click();
	await page.getByRole('option', { name: 'smallest angle' }).click();
	await settled(page);
	const bar = check
		.getByRole('listitem')
		.filter({ hasNotText: /^0 cells/ })
		.last();
	const many = Number((await bar.textContent())!.trim().split(' ')[0]);
	await bar.getByRole('button').focus();
	await page.keyboard.press('Enter');
	await expect(page.getByTestId('card')).toContainText(many > 1 ? `and ${many - 1} more` : '/');
});

test('two windows: the second is told what came meanwhile, and nothing is lost', async ({
	page,
	context
}) => {
	const id = await openDemo(page);
	const other = await context.newPage();
	await other.goto(`/project/${id}?plain`);
	await settled(other);
	await bays(page).focus();
	await page.keyboard.press('ArrowUp');
	await saved(page);
	await other
		.getByRole('button', { name: /^Courses: 14/ })
		.first()
		.focus();
	await other.keyboard.press('ArrowUp');
	await expect(other.getByText('Changed in another window: Gull roof bays 32 → 33')).toBeVisible();
	await saved(other);
	await expect(bays(other)).toHaveText('33');
	await page.reload();
	await settled(page);
	await expect(bays(page)).toHaveText('33');
	await expect(page.getByRole('button', { name: /^Courses: 15/ }).first()).toBeVisible();
});

test('accessibility: nothing serious on any page', async ({ page }) => {
	const id = await copyDemo(page);
	for (const path of [
		`/project/${id}?plain`,
		`/project/${id}/schedule`,
		`/project/${id}/part/framed-glass?plain`,
		`/project/${id}/kit?plain`,
		'/'
	]) {
		await visit(page, path);
		if (path.includes('/part/'))
			await expect(page.getByTestId('stage')).toHaveAttribute('data-settled', 'true');
		else if (path.includes('/kit')) await expect(page.getByTestId('kit')).toBeVisible();
		else if (path !== '/') await settled(page);
		await accessible(page);
	}
});

test('accessibility: schedules that wait for their model', async ({ page, browser }, worker) => {
	const id = await copyDemo(page);
	const context = await newContext(browser, worker);
	const waiting = await context.newPage();
	await context.route('**/chain.worker*', () => undefined);
	await waiting.goto(`/project/${id}/schedule`);
	await expect(waiting.getByText('Computing the model …')).toBeVisible();
	await accessible(waiting);
	await context.close();
});

test('a heavy project is held: edits are collected, the last model stays, and is run when one likes', async ({
	page
}) => {
	const id = await openRoof(page);
	const cells = page.getByTestId('cell-count');
	const before = await cells.innerText();
	await page.getByRole('button', { name: 'hold', exact: true }).click();
	const across = page.locator('[data-clause="zones/gull/settingOut/across"]');
	for (const bays of ['20', '24']) {
		await across.getByRole('button', { name: /^Bays: / }).click();
		await page.keyboard.type(bays);
		await page.keyboard.press('Enter');
	}
	await saved(page);
	// The document goes on, and the model says how far it is behind.
	expect((await documentOf(page, id)).zones[0]!.settingOut.across).toEqual({ by: 'count', count: 24 });
	await expect(page.getByTestId('status')).toContainText('held: 2 edits wait');
	await expect(cells).toHaveText(before);
	await page.getByRole('button', { name: 'Run', exact: true }).click();
	await expect(cells).not.toHaveText(before);
	await expect(page.getByTestId('status')).toContainText('held: edits are collected');
	await page.getByRole('button', { name: 'Go on by itself' }).click();
	const held = await cells.innerText();
	await across.getByRole('button', { name: /^Bays: / }).click();
	await page.keyboard.type('12');
	await page.keyboard.press('Enter');
	await expect(cells).not.toHaveText(held);
});
