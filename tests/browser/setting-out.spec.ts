import { type Locator, type Page } from '@playwright/test';
import { accessible, cellCount, expect, openDemo, saved, settled, test, visit } from './app';

const problems: string[] = [];
test.beforeEach(({ page }) => {
	problems.length = 0;
	page.on('pageerror', (error) => problems.push(error.message));
});
test.afterEach(() => expect(problems).toEqual([]));

interface Zone {
	id: string;
	settingOut: Record<string, unknown>;
	pattern: Record<string, unknown>;
	rules: { id: string; where: unknown }[];
	exceptions: { put: unknown; sites: { id: string; place: number[] | null }[] }[];
}
interface Document {
	zones: Zone[];
	tiles: { id: string; polygons: { slot: string; points: number[][] }[] }[];
	guides: { id: string; on: string; points: number[][] }[];
}
const documentOf = async (page: Page, id: string) =>
	((await (await page.request.get(`/api/projects/${id}`)).json()) as { document: Document }).document;
const zoneOf = async (page: Page, id: string, zone: string) =>
	(await documentOf(page, id)).zones.find((one) => one.id === zone)!;

async function type(page: Page, text: string): Promise<void> {
	await page.keyboard.press('Control+A');
	await page.keyboard.type(text);
	await page.keyboard.press('Enter');
	await settled(page);
}
async function choosePattern(page: Page, zone: string, label: string): Promise<void> {
	const clause = page.locator(`[data-clause="zones/${zone}/pattern"]`);
	await clause.getByRole('combobox', { name: /^Pattern/ }).click();
	await page.getByRole('option', { name: label, exact: true }).click();
	await settled(page);
}
async function more(page: Page, zone: string, label: string): Promise<void> {
	const clause = page.locator(`[data-clause="zones/${zone}/pattern"]`);
	await clause.hover();
	await clause.getByRole('button', { name: /^More for clause/ }).click();
	await page.getByRole('menuitem', { name: label }).click();
}

test('a storey rhythm is typed, levels are followed, lines are moved; a list that does not fit is told', async ({
	page
}) => {
	const id = await openDemo(page);
	const up = page.locator('[data-clause="zones/street/settingOut/up"]');
	await up.getByRole('combobox', { name: 'How courses are divided' }).click();
	await page.getByRole('option', { name: 'sizes of a list' }).click();
	await settled(page);
	await up.getByRole('button', { name: /^Sizes of courses/ }).click();
	await type(page, '1200, 450');
	await saved(page);
	expect((await zoneOf(page, id, 'street')).settingOut['up']).toMatchObject({
		by: 'list',
		sizes: [1200, 450]
	});
	const rhythm = await cellCount(page);
	await up.getByRole('combobox', { name: 'How the sizes run' }).click();
	await page.getByRole('option', { name: 'once, then the rest' }).click();
	await settled(page);
	expect(await cellCount(page)).toBeLessThan(rhythm);
	await up.getByRole('button', { name: /^Sizes of courses/ }).click();
	await type(page, '9 m, 9 m');
	await expect(up.getByRole('alert')).toContainText(
		/the list comes to .* and reaches .* beyond the belt line/
	);
	await page.keyboard.press('Control+z');
	await settled(page);
	await expect(up.getByRole('alert')).toHaveCount(0);
	const across = page.locator('[data-clause="zones/street/settingOut/across"]');
	await expect(across).toContainText(/Balance: \d+ × /);
	await across.getByRole('button', { name: /^Balance/ }).click();
	await settled(page);
	await expect(across).not.toContainText('Balance');
});

test('a tile is drawn: told what is not covered, laid when it is, and rules take its slots', async ({
	page
}) => {
	const id = await openDemo(page);
	await choosePattern(page, 'street', 'rectangles');
	await more(page, 'street', 'Draw a tile of its own …');
	const drawer = page.getByTestId('tile-drawer');
	await expect(drawer.getByTestId('tile-faults')).toContainText('It covers the plane once');
	await accessible(page, '[data-testid=tile-drawer]');
	await drawer.getByRole('button', { name: /^Tile across/ }).click();
	await type(page, '2');
	await expect(drawer.getByTestId('tile-faults')).toContainText('1 of 2 steps are covered by no polygon');
	await drawer.getByRole('button', { name: 'Draw a polygon' }).click();
	// The tile has a step of room around it: corners of the second step, in shares of the drawing.
	const lattice = (await drawer.getByTestId('tile-lattice').boundingBox())!;
	const scale = Math.min(430 / 4, 380 / 3) * (lattice.width / 430);
	const at = (x: number, y: number) =>
		[lattice.x + (x + 1) * scale, lattice.y + (1 + 1 - y) * scale] as const;
	for (const [x, y] of [
		[1, 0],
		[2, 0],
		[2, 1],
		[1, 1]
	] as const)
		await page.mouse.click(...at(x, y));
	await page.keyboard.press('Enter');
	await expect(drawer.getByTestId('tile-faults')).toContainText('It covers the plane once');
	await drawer.getByRole('button', { name: 'Slot of polygon 2: rectangle' }).click();
	await type(page, 'second');
	await page.keyboard.press('Escape');
	await expect(drawer).toHaveCount(0);
	await settled(page);
	await saved(page);
	const { tiles } = await documentOf(page, id);
	expect(tiles.at(-1)!.polygons.map(({ slot }) => slot)).toEqual(['rectangle', 'second']);
	const rule = page.locator('[data-clause="zones/street/rules/lower"]');
	const before = Number(await rule.locator('[data-effect]').innerText());
	await rule.getByRole('button', { name: 'and where …' }).click();
	await page.getByRole('menuitem', { name: 'a slot of the pattern' }).click();
	await expect(rule.locator('[data-effect]')).toHaveText(String(before / 2));
	await rule.getByRole('combobox', { name: 'Slots: rectangle' }).click();
	await page.getByRole('option', { name: 'second' }).click();
	await page.keyboard.press('Escape');
	await expect(rule.locator('[data-effect]')).toHaveText(String(before));
});

test('scattered cells follow a guide drawn on the map; the layout report says what became of addresses', async ({
	page
}) => {
	const id = await openDemo(page);
	await page.getByRole('button', { name: 'Zone · Street screen' }).click();
	await settled(page);
	await page.getByRole('button', { name: 'Draw a guide' }).click();
	const map = (await page.getByTestId('map').boundingBox())!;
	for (const x of [0.4, 0.5, 0.6]) await page.mouse.click(map.x + map.width * x, map.y + map.height * 0.5);
	await page.keyboard.press('Enter');
	await saved(page);
	const [guide] = (await documentOf(page, id)).guides;
	expect(guide).toMatchObject({ on: 'map' });
	expect(guide!.points.length).toBe(3);
	await choosePattern(page, 'street', 'Voronoi cells');
	await expect(page.getByTestId('layout-report')).toContainText(
		/Street screen: \d+ addresses kept, \d+ new, \d+ gone/
	);
	const clause = page.locator('[data-clause="zones/street/pattern"]');
	await clause.getByRole('button', { name: '… more' }).click();
	await clause.getByRole('combobox', { name: 'Guide that cells follow' }).click();
	await page.getByRole('option', { name: 'Guide 1' }).click();
	await settled(page);
	await saved(page);
	expect((await zoneOf(page, id, 'street')).pattern).toMatchObject({
		kind: 'voronoi',
		near: { guide: guide!.id }
	});
	await expect(page.getByTestId('sheet').getByRole('alert')).toHaveCount(0);

	// The web between them is sheets: a part is put on them at once, and the cells fade through a field.
	await clause.getByRole('combobox', { name: 'What is between them' }).click();
	await page.getByRole('option', { name: 'sheets', exact: true }).click();
	await settled(page);
	await saved(page);
	const pierced = await zoneOf(page, id, 'street');
	expect(pierced.pattern).toMatchObject({ sheet: { per: { bays: 3, courses: 2 }, plain: 60 }, margin: 20 });
	const [rule] = pierced.rules;
	expect(rule!.where).toEqual({ is: 'all', of: [{ is: 'slot', of: ['sheet'] }] });
	const sheets = page.locator(`[data-clause="zones/street/rules/${rule!.id}"]`);
	await expect(sheets).toContainText('Pierced sheet');
	await sheets.getByRole('button', { name: '16: choose them' }).click();
	const card = page.getByTestId('card');
	await expect(card).toContainText(/Openings\s*\d+, \d+ % open/);
	await page.keyboard.press('Escape');
	await clause.hover();
	await clause.getByRole('button', { name: /^More for clause/ }).click();
	await page.getByRole('menuitem', { name: 'Let the size of cells follow something' }).click();
	await settled(page);
	await saved(page);
	expect((await zoneOf(page, id, 'street')).pattern).toMatchObject({ size: { is: 'follows', field: 'up' } });
	await clause.getByRole('combobox', { name: 'What size follows' }).click();
	await page.getByRole('option', { name: `distance from ${guide!.id}` }).click();
	await settled(page);
	await saved(page);
	// Cells come before the guides that they follow: the sentence waits for these.
	await page.reload();
	await settled(page);
	await expect(clause).toContainText(/here [^)]* mm to [^)]* mm, in colour/);
	await expect(page.getByTestId('sheet').getByRole('alert')).toHaveCount(0);
});

test('a guide is drawn in the model: on what is clicked, and back again', async ({ page }) => {
	const id = await openDemo(page);
	await page.keyboard.press('2');
	await settled(page);
	// The sheet may still be on its way to the lens's clauses: a click that it moves away under does nothing.
	await expect(async () => {
		await page.locator('[data-clause="guides"]').getByRole('button', { name: 'in the model' }).click();
		await expect(page.getByTestId('model-drawing')).toBeVisible({ timeout: 2000 });
	}).toPass();
	const model = (await page.getByTestId('model').boundingBox())!;
	const click = (x: number, y: number) =>
		page.mouse.click(model.x + model.width * x, model.y + model.height * y);
	for (const x of [0.4, 0.5, 0.6, 0.7]) await click(x, 0.5);
	const circles = page.getByTestId('model-drawing').locator('circle[fill="#fff"]');
	await expect(circles).toHaveCount(4);
	await page.keyboard.press('Backspace');
	await expect(circles).toHaveCount(3);
	await page.keyboard.press('Enter');
	await expect(page.getByTestId('model-drawing')).toHaveCount(0);
	await saved(page);
	const [guide] = (await documentOf(page, id)).guides;
	expect(guide).toMatchObject({ on: 'space' });
	expect(guide!.points).toHaveLength(3);
	// Over the building's own extent, and not all in one place.
	const spread = [0, 1, 2].map((k) => {
		const values = guide!.points.map((point) => point[k]!);
		return Math.max(...values) - Math.min(...values);
	});
	expect(Math.hypot(...spread)).toBeGreaterThan(1000);
	expect(Math.hypot(...spread)).toBeLessThan(200_000);
	await page.keyboard.press('Control+z');
	await saved(page);
	expect((await documentOf(page, id)).guides).toHaveLength(0);
});

test('more than a million cells are asked for before they are made', async ({ page }) => {
	const id = await openDemo(page);
	const zone = (await documentOf(page, id)).zones[0]!.id;
	const clause = (key: string) => page.locator(`[data-clause="zones/${zone}/settingOut/${key}"]`);
	await clause('across').getByRole('button', { name: /^Bays/ }).click();
	await type(page, '60');
	const cells = await cellCount(page);
	// What cannot be at all is told with the nearest that can, and that is more than a million cells.
	await clause('up')
		.getByRole('button', { name: /^Courses/ })
		.click();
	await type(page, '50000');
	await page.getByRole('button', { name: /20\s000 courses/ }).click();
	const alert = page
		.getByTestId('sheet')
		.getByRole('alert')
		.filter({ hasText: /make .* cells, more than/ });
	await expect(alert).toContainText(/make 1\s200\s000 cells, more than 1\s000\s000/);
	await expect(alert.getByRole('button', { name: /1\s200\s000 cells/ })).toBeVisible();
	// Nothing has been made meanwhile; the last good model stays.
	expect(await cellCount(page)).toBe(cells);
	await page.keyboard.press('Control+z');
	await page.keyboard.press('Control+z');
	await expect(alert).toHaveCount(0);
	await settled(page);
	await saved(page);
	expect((await zoneOf(page, id, zone)).settingOut['up']).toMatchObject({ by: 'count', count: 14 });
});

test('settings are compared side by side and one is taken', async ({ page }) => {
	const id = await openDemo(page);
	await more(page, 'street', 'Compare settings …');
	const dialog = page.getByTestId('compare');
	const second = dialog.getByRole('region', { name: 'Setting 2' });
	/** What a setting comes to, as it stands under the word for it. */
	const told = (setting: Locator, word: string) =>
		setting.getByText(word, { exact: true }).locator('xpath=following-sibling::dd[1]');
	const number = async (figure: Locator) => Number((await figure.innerText()).replace(/\s/g, ''));
	await expect(told(second, 'Cells')).toBeVisible();
	await accessible(page, '[data-testid=compare]');
	// Steps of an exact size leave strips: they are cells too, and are said.
	const now = dialog.getByRole('region', { name: 'Setting 1' });
	const parts = (await told(now, 'whole · edge · strip · cut').innerText()).split('·').map(Number);
	expect(parts[2]).toBeGreaterThan(0);
	expect(parts.reduce((sum, one) => sum + one)).toBe(await number(told(now, 'Cells')));
	await expect(page.locator('[data-part="zone street"] header')).toContainText(
		`${await number(told(now, 'Cells'))} cells`
	);
	await second.getByRole('button', { name: /^Across in setting 2/ }).click();
	await page.keyboard.press('Control+A');
	await page.keyboard.type('18');
	await page.keyboard.press('Enter');
	await second.getByRole('combobox', { name: /^Pattern of setting 2/ }).click();
	await page.getByRole('option', { name: 'tall hexagons' }).click();
	await expect(told(second, 'Cells')).toBeVisible();
	const cells = await number(told(second, 'Cells'));
	await second.getByRole('button', { name: 'Take this one' }).click();
	await expect(dialog).toHaveCount(0);
	await settled(page);
	await saved(page);
	const zone = await zoneOf(page, id, 'street');
	expect(zone.pattern).toEqual({ kind: 'hexagons', sides: 'upright' });
	expect(zone.settingOut['across']).toEqual({ by: 'count', count: 18 });
	const header = page.locator('[data-part="zone street"] header');
	await expect(header).toContainText(`${cells} cells`);
});

test('cells are painted on the map and find their place again when counts change; labels are read', async ({
	page
}) => {
	const id = await openDemo(page);
	await page.getByRole('button', { name: 'Zone · Street screen' }).click();
	await settled(page);
	const map = (await page.getByTestId('map').boundingBox())!;
	await page.getByRole('button', { name: 'Paint', exact: true }).click();
	await page.getByRole('combobox', { name: 'What is painted' }).click();
	await page.getByRole('option', { name: 'nothing: open' }).click();
	await page.mouse.move(map.x + map.width * 0.4, map.y + map.height * 0.5);
	await page.mouse.down();
	for (let k = 1; k <= 12; k++)
		await page.mouse.move(map.x + map.width * (0.4 + 0.01 * k), map.y + map.height * 0.5);
	await page.mouse.up();
	await settled(page);
	await saved(page);
	await page.getByRole('button', { name: 'Done' }).click();
	const painted = (await zoneOf(page, id, 'street')).exceptions;
	// One stroke of the brush is one choice.
	expect(painted).toHaveLength(1);
	expect(painted[0]!.sites.length).toBeGreaterThan(1);
	for (const one of painted[0]!.sites) expect(one.place).toHaveLength(2);
	const across = page.locator('[data-clause="zones/street/settingOut/across"]');
	await across.getByRole('combobox', { name: 'How bays are divided' }).click();
	await page.getByRole('option', { name: 'exactly', exact: true }).click();
	await settled(page);
	await across.getByRole('button', { name: /^Bays/ }).click();
	await type(page, '11');
	const clause = page.locator('[data-clause="zones/street/exceptions"]');
	await expect(clause).toContainText('By hand');
	await expect(page.getByTestId('layout-report')).toContainText(/gone/);
	// A cell chosen with labels on shows its mark, its corners and its nodes' lines in the model.
	await page.mouse.click(map.x + map.width * 0.5, map.y + map.height * 0.6);
	// From far its labels would lie on one another: then its mark alone is written.
	await page.keyboard.press('l');
	await expect(page.getByTestId('model').getByText(/^SS-/).first()).toBeVisible();
	await page.keyboard.press('f');
	await expect(
		page
			.getByTestId('model')
			.getByText(/^\d\d\/\d\d$/)
			.first()
	).toBeVisible();
});

test('setting-out points go out as CSV with their addresses and normals', async ({ page }) => {
	await openDemo(page);
	await page.getByRole('button', { name: 'Export' }).click();
	const [download] = await Promise.all([
		page.waitForEvent('download'),
		page.getByRole('menuitem', { name: /Setting-out points/ }).click()
	]);
	const lines = (await (await download.createReadStream()).toArray()).join('').split('\r\n');
	expect(lines[0]).toBe(
		'Mark,Address,Zone,Course line,Bay line,x (mm),y (mm),z (mm),Normal x,Normal y,Normal z'
	);
	const row = lines.find((line) => line.includes('street/screen.wall/N/C01/B01'))!.split(',');
	const normal = row.slice(-3).map(Number);
	expect(Math.hypot(...normal)).toBeCloseTo(1, 3);
});

test('100,000 cells: the map pans; half a million are cancelled, and the model before stays', async ({
	page
}) => {
	const made = await page.request.post('/api/projects', { data: { name: 'Large map' } });
	const { id } = (await made.json()) as { id: string };
	await visit(page, `/project/${id}?plain`);
	await settled(page);
	await page.getByRole('button', { name: 'Mass', exact: true }).click();
	await page.getByRole('menuitem', { name: /^Net/ }).click();
	await settled(page);
	await page.keyboard.press('1');
	for (const [direction, count] of [
		['across', 400],
		['up', 250]
	] as const) {
		const clause = page.locator(`[data-clause="zones/canopy/settingOut/${direction}"]`);
		const what = direction === 'across' ? 'bays' : 'courses';
		await clause.getByRole('combobox', { name: `How ${what} are divided` }).click();
		await page.getByRole('option', { name: 'exactly', exact: true }).click();
		await settled(page);
		await clause.getByRole('button', { name: direction === 'across' ? /^Bays/ : /^Courses/ }).click();
		await type(page, String(count));
	}
	expect(await cellCount(page)).toBe(100_000);
	const map = (await page.getByTestId('map').boundingBox())!;
	const before = await page.getByTestId('map').screenshot();
	await page.mouse.move(map.x + map.width / 2, map.y + map.height / 2);
	await page.mouse.down();
	await page.mouse.move(map.x + map.width / 2 + 120, map.y + map.height / 2 + 30, { steps: 30 });
	await page.mouse.up();
	await expect
		.poll(async () => before.equals(await page.getByTestId('map').screenshot({ timeout: 20_000 })))
		.toBe(false);

	const across = page.locator('[data-clause="zones/canopy/settingOut/across"]');
	await across.getByRole('button', { name: /^Bays/ }).click();
	await page.keyboard.press('Control+A');
	await page.keyboard.type('2000');
	// Pressed in the moment it is there: a mouse that waits for two still frames may come after a fast machine has ended.
	await page.getByTestId('status').evaluate((status) => {
		const watch = new MutationObserver(() => {
			const cancel = [...status.querySelectorAll('button')].find((one) => one.textContent === 'Cancel');
			if (!cancel) return;
			watch.disconnect();
			cancel.click();
		});
		watch.observe(status, { childList: true, subtree: true });
	});
	await page.keyboard.press('Enter');
	await expect(page.getByTestId('status')).toContainText('Cancelled; the model shown is the one before');
	expect(await cellCount(page)).toBe(100_000);
	// What is shown can be had, though the thread that made it was ended.
	await page.keyboard.press('Escape');
	await expect(async () => {
		await page.getByRole('button', { name: 'Export' }).click();
		const [download] = await Promise.all([
			page.waitForEvent('download', { timeout: 3000 }),
			page.getByRole('menuitem', { name: /^Faces of the masses/ }).click()
		]);
		expect(download.suggestedFilename()).toBe('large-map.stp');
	}).toPass();
	await page.keyboard.press('Control+z');
	await settled(page);
	await expect(page.getByTestId('status')).toContainText('up to date');
	expect(await cellCount(page)).toBe(100_000);
	await page.request.delete(`/api/projects/${id}`);
});
