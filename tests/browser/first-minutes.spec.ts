import { type Page } from '@playwright/test';
import { accessible, documentOf, expect, openRoof, saved, settled, test, visit } from './app';

const problems: string[] = [];
test.beforeEach(({ page }) => {
	problems.length = 0;
	page.on('pageerror', (error) => problems.push(error.message));
});
test.afterEach(() => expect(problems).toEqual([]));

const named = (text: string) => `${text} ${Date.now() % 1e6}`;
const next = (page: Page) => page.getByRole('status', { name: 'Next' });

test('from nothing to a schedule with panels, mullions and a border member, in under 25 actions', async ({
	page
}) => {
	let actions = 0;
	const act = async (doing: Promise<void>) => {
		actions++;
		await doing;
	};
	await visit(page, '/');
	await act(page.getByRole('button', { name: 'New project' }).click());
	await act(page.getByLabel('Name', { exact: true }).fill(named('Screen')));
	await act(page.getByRole('button', { name: 'Create' }).click());
	await expect(page.getByRole('region', { name: 'Ways to start' })).toBeVisible();
	await accessible(page);
	await act(page.getByRole('button', { name: /^Ruled/ }).click());
	await expect(next(page)).toContainText(/\d+ cells wait for a part/);
	await act(next(page).getByRole('combobox').click());
	await act(page.getByRole('option', { name: 'Framed glass' }).click());
	await expect(next(page)).toContainText('lines between them are bare');
	await act(next(page).getByRole('combobox').click());
	await act(page.getByRole('option', { name: 'Box mullion' }).click());
	await settled(page);
	// The rims are given to a member of their own.
	await act(page.getByRole('combobox', { name: /^Which lines/ }).click());
	await act(page.getByRole('option', { name: 'rims' }).click());
	await act(page.keyboard.press('Escape'));
	await act(page.getByRole('combobox', { name: 'A part along lines' }).click());
	await act(page.getByRole('option', { name: 'Tube edge' }).click());
	await settled(page);
	await act(page.keyboard.press('t'));
	await page.waitForURL(/schedule/);
	await expect(page.getByTestId('row-count')).toHaveText(/^(\d{2,}) of \1$/);
	await act(page.getByRole('tab', { name: /^Bars/ }).click());
	const grid = page.getByRole('grid').or(page.getByRole('table')).first();
	await expect(grid).toContainText('Box mullion');
	await act(page.getByRole('combobox', { name: 'Filter by' }).click());
	await act(page.getByRole('option', { name: 'part', exact: true }).click());
	await act(page.getByRole('button', { name: /^Filter value/ }).click());
	await act(page.keyboard.type('tube'));
	await act(page.keyboard.press('Enter'));
	await expect(grid).not.toContainText('Box mullion');
	await expect(grid).toContainText('Tube edge');
	expect(actions).toBeLessThan(25);
});

test('the main chain without a mouse: a mass, its cells, its lines, the schedule, a file', async ({
	page
}) => {
	await visit(page, '/');
	await page.getByRole('button', { name: 'New project' }).focus();
	await page.keyboard.press('Enter');
	await expect(page.getByRole('textbox', { name: 'Name' })).toBeFocused();
	await page.keyboard.type(named('Keys'));
	await page.keyboard.press('Enter');
	await expect(page.getByRole('region', { name: 'Ways to start' })).toBeVisible();
	// Over what comes before, straight to a part of the page.
	const skip = page.getByRole('button', { name: 'Build sheet', exact: true });
	await skip.focus();
	await expect(page.getByRole('navigation', { name: 'Skip to a part of the page' })).toHaveCSS(
		'opacity',
		'1'
	);
	await page.keyboard.press('Enter');
	await expect(page.getByTestId('sheet').locator(':focus')).toHaveCount(1);
	await page.keyboard.press('g');
	await page.keyboard.press('Enter');
	await settled(page);
	await expect(next(page)).toContainText('cells wait for a part');
	for (const part of ['Framed glass', 'Box mullion']) {
		await page.keyboard.press('g');
		await page.keyboard.press('Enter');
		await expect(page.getByRole('option', { name: part })).toBeVisible();
		// The first letters lead to it.
		await page.keyboard.type(part.split(' ')[0]!);
		await page.keyboard.press('Enter');
		await settled(page);
		await expect(page.getByTestId('undo-label')).toContainText(part);
	}
	// A cell is walked to, its clause gone to, a value of it changed.
	await page.keyboard.press('Escape');
	await page.keyboard.press('ArrowRight');
	await page.keyboard.press('ArrowUp');
	await expect(page.getByTestId('card-mark')).toBeVisible();
	await page.keyboard.press('b');
	await expect(page.locator('[data-clause*="/rules/"] :focus')).toHaveCount(1);
	await page.keyboard.press('Control+k');
	await page.keyboard.type('export panels');
	const download = page.waitForEvent('download');
	await page.keyboard.press('Enter');
	expect((await download).suggestedFilename()).toMatch(/-panels\.csv$/);
	await expect(page.getByText(/written: Panels, \d+ rows/)).toBeVisible();
	await page.locator('body').evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
	await page.keyboard.press('t');
	await page.waitForURL(/schedule/);
	await expect(page.getByTestId('row-count')).not.toHaveText('0 of 0');
});

test('projects are searched, sorted, renamed; what is chosen there is the same everywhere', async ({
	page
}) => {
	const name = named('Sorting');
	const made = await page.request.post('/api/projects', { data: { name } });
	const { id } = (await made.json()) as { id: string };
	await visit(page, '/');
	await page.getByLabel('Search projects').fill(name.toLowerCase());
	await expect(page.getByRole('listitem')).toHaveCount(1);
	await page.getByRole('button', { name: `Rename ${name}` }).click();
	await page.keyboard.type(`${name} anew`);
	await page.keyboard.press('Enter');
	await expect(page.getByRole('heading', { name: `${name} anew` })).toBeVisible();
	expect((await documentOf(page, id)).name).toBe(`${name} anew`);
	await page.getByLabel('Search projects').fill('');
	await page.getByRole('combobox', { name: 'Sorted by' }).click();
	await page.getByRole('option', { name: 'name' }).click();
	const names = await page.getByRole('heading', { level: 2 }).allTextContents();
	expect(names).toEqual(
		[...names].sort(new Intl.Collator('en', { numeric: true, sensitivity: 'base' }).compare)
	);
	await page.getByLabel('Search projects').fill('no project is called so');
	await expect(page.getByText('No project is called that')).toBeVisible();
	await accessible(page);
});

test('what is in use says so when it is to go, and goes with what uses it', async ({ page }) => {
	const id = await openRoof(page);
	const part = page.locator('[data-part="kit"]');
	await part.locator('[data-clause="variants/panel"]').hover();
	await part.getByRole('button', { name: /^More for clause/ }).click();
	await page.getByRole('menuitem', { name: 'Remove' }).click();
	await expect(page.getByText(/Flat panel · Panel is used by 2\.\d+ Gull roof/)).toBeVisible();
	await page.getByRole('button', { name: 'Show', exact: true }).click();
	await expect(page.locator('[data-clause="zones/gull/rules/all"].active')).toBeVisible();
	await page.locator('[data-clause="masses/gull"]').hover();
	await page.getByRole('button', { name: 'More for clause 1.1' }).click();
	await page.getByRole('menuitem', { name: 'Remove', exact: true }).click();
	await page.getByRole('button', { name: 'Remove its zone too' }).click();
	await saved(page);
	const { masses, zones } = await documentOf(page, id);
	expect([masses, zones]).toEqual([[], []]);
	// An undo brings back both.
	await page.keyboard.press('Control+z');
	await settled(page);
	await saved(page);
	expect((await documentOf(page, id)).zones).toHaveLength(1);
});

test('memory does not grow over 200 edits, and a model that is left holds nothing', async ({ page }) => {
	test.slow();
	const id = await openRoof(page);
	const held = async () => {
		await settled(page);
		const model = page.getByTestId('model');
		return [await model.getAttribute('data-geometries'), await model.getAttribute('data-textures')].map(
			Number
		);
	};
	const bays = page.locator('[data-part="zone gull"]').getByRole('button', { name: /^Bays: / });
	await bays.focus();
	const edit = async (times: number) => {
		for (let k = 0; k < times; k++) await page.keyboard.press(k % 2 ? 'ArrowDown' : 'ArrowUp');
	};
	await edit(20);
	const before = await held();
	expect(before[0]).toBeGreaterThan(0);
	await edit(180);
	expect(await held()).toEqual(before);
	await visit(page, `/project/${id}/schedule`);
	const left = await page.evaluate(
		() =>
			(
				performance.getEntriesByName('model left') as (PerformanceMark & { detail: { geometries: number } })[]
			).at(-1)?.detail
	);
	expect(left).toMatchObject({ geometries: 0 });
});
