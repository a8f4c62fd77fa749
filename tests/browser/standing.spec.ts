import type { Page } from '@playwright/test';
import { accessible, documentOf, expect, openDemo, openRoof, saved, settled, test, visit } from './app';

const part = (page: Page, zone: string) => page.locator(`[data-part="zone ${zone}"]`);
/** Make a zone from another by what is offered at its end. */
async function make(page: Page, zone: string, offer: RegExp): Promise<void> {
	await part(page, zone).getByRole('button', { name: '+ behind or along' }).click();
	await page.getByRole('menuitem', { name: offer }).click();
	await settled(page);
}
/** Put a part there by the offer at the end of a zone. */
async function put(page: Page, zone: string, offer: string, what: RegExp): Promise<void> {
	await part(page, zone).getByRole('combobox', { name: offer }).click();
	await page.getByRole('option', { name: what }).first().click();
	await settled(page);
}
const effect = (page: Page, path: string) => page.locator(`[data-clause="${path}"] [data-effect]`);

test('a space truss by clauses: a grid behind, shifted, its bars, and the web to it', async ({ page }) => {
	const id = await openRoof(page);
	const grid = part(page, 'gull-grid');
	// Either side is seen in the model before it is taken, by pointer or by keys; left, nothing has been done.
	await part(page, 'gull').getByRole('button', { name: '+ behind or along' }).click();
	// The list takes the keys a moment after it is there, and an offer from whatever the pointer is on.
	await expect(page.getByRole('menu')).toBeFocused();
	await page.getByRole('menuitem', { name: /A grid behind it/ }).hover();
	await expect(grid).toContainText('-600 mm');
	await page.keyboard.press('ArrowDown');
	await expect(grid).toContainText('Grid before');
	await expect(grid).not.toContainText('-600 mm');
	await page.getByRole('menuitem', { name: /A grid before it/ }).hover();
	await page.mouse.move(400, 300);
	await expect(grid).toHaveCount(0);
	await page.keyboard.press('ArrowDown');
	await expect(grid).toContainText('-600 mm');
	await page.keyboard.press('Escape');
	await expect(grid).toHaveCount(0);
	expect((await documentOf(page, id)).zones).toHaveLength(1);
	await make(page, 'gull', /A grid behind it/);
	await expect(grid).toContainText('lies along the normals of');
	await grid.getByRole('combobox', { name: /^Whether it is shifted/ }).click();
	await page.getByRole('option', { name: 'shifted by half a step' }).click();
	await grid.getByRole('combobox', { name: /^Pattern/ }).click();
	await page.getByRole('option', { name: 'rectangles', exact: true }).click();
	await settled(page);
	await put(page, 'gull-grid', 'A part along lines', /^Tube edge/);
	await accessible(page);

	await make(page, 'gull-grid', /A web to the grid it stands on/);
	const web = part(page, 'gull-grid-web');
	await expect(web).toContainText('joins the nodes of');
	await put(page, 'gull-grid-web', 'A part along lines', /^Tube edge/);
	await saved(page);
	const document = await documentOf(page, id);
	expect(document.zones.map(({ on }) => on.is)).toEqual(['faces', 'layer', 'web']);
	// Each of its lines carries one bar.
	const run = document.zones[2]!.runs[0]!.id;
	const lines = await effect(page, 'zones/gull-grid-web/on').innerText();
	await expect(effect(page, `zones/gull-grid-web/runs/${run}`)).toContainText(lines.split(' ')[0]!);

	// Balls of the grid behind know the bars of the web too: at its inner nodes more lines meet than the four of its own.
	await put(page, 'gull-grid', 'A part on nodes', /^Node ball/);
	const balls = grid.locator('[data-clause*="/nodes/"]');
	await balls.getByRole('combobox', { name: /^How many lines meet/ }).click();
	await page.getByRole('option', { name: '4 lines meet' }).click();
	await settled(page);
	const count = balls.locator('[data-effect]');
	await expect(count).not.toHaveText('0');
	const ownFour = await count.innerText();
	await balls.getByRole('combobox', { name: /^Whether webs meet/ }).click();
	await page.getByRole('option', { name: 'webs too' }).click();
	await settled(page);
	await expect(count).not.toHaveText(ownFour);
	await saved(page);
	expect((await documentOf(page, id)).zones[1]).toMatchObject({ meetsWebs: true });
	await page.keyboard.press('Control+z');
	await settled(page);
	await expect(count).toHaveText(ownFour);

	// What others stand on is not taken from under them without a word.
	await page.locator('[data-clause="zones/gull/faces"]').hover();
	await page
		.locator('[data-clause="zones/gull/faces"]')
		.getByRole('button', { name: /^More for/ })
		.click();
	await page.getByRole('menuitem', { name: 'Remove the zone' }).click();
	await expect(page.getByText(/Gull roof is used by/)).toBeVisible();
	await page.getByRole('button', { name: 'Remove them too' }).click();
	await saved(page);
	expect((await documentOf(page, id)).zones).toEqual([]);
});

test('posts along a rim: stations at most so far apart, a tube through all of them', async ({ page }) => {
	const id = await openRoof(page);
	await make(page, 'gull', /Stations along a rim/);
	const path = part(page, 'gull-path');
	await expect(path).toContainText('Divide it into');
	await expect(
		page.getByText('Gull roof path has lines and no cells: it is seen in the model.')
	).toBeVisible();
	const stations = Number((await path.locator('header').innerText()).match(/(\d+) stations/)![1]);
	await put(page, 'gull-path', 'A part on nodes', /^Standing post/);
	await put(page, 'gull-path', 'A part through all of its nodes', /^Woven tube/);
	await saved(page);
	const document = await documentOf(page, id);
	const [zone] = document.zones.filter(({ on }) => on.is === 'path');
	await expect(effect(page, `zones/gull-path/nodes/${zone!.nodes[0]!.id}`)).toHaveText(String(stations));
	await expect(effect(page, `zones/gull-path/runs/${zone!.runs[0]!.id}`)).toContainText('1 · ');
	// Half as far apart are twice as many gaps, less what rounding up took before.
	await path.getByRole('button', { name: /^Size of gaps: / }).click();
	await page.keyboard.type('750');
	await page.keyboard.press('Enter');
	await settled(page);
	const more = Number((await path.locator('header').innerText()).match(/(\d+) stations/)![1]);
	expect(more).toBeGreaterThan(2 * (stations - 2));
	expect(more).toBeLessThanOrEqual(2 * stations - 1);
});

test('a weave round a drum: chains both ways, over and under, one tube through each', async ({ page }) => {
	const id = await openDemo(page);
	await page.getByRole('button', { name: 'Go to Plunge drum' }).click();
	await make(page, 'plunge', /Chains through its nodes/);
	const chains = part(page, 'plunge-chains');
	await expect(chains).toContainText('follows the nodes of');
	const counted = await chains.locator('header').innerText();
	expect(counted).toContain('24 chains');
	await put(page, 'plunge-chains', 'A part through all of its nodes', /^Woven tube/);
	await saved(page);
	const document = await documentOf(page, id);
	const zone = document.zones.find(({ on }) => on.is === 'chains')!;
	await expect(effect(page, `zones/plunge-chains/runs/${zone.runs[0]!.id}`)).toContainText('24 · ');

	await visit(page, `/project/${id}/schedule?plain`);
	await page.getByRole('tab', { name: 'structure' }).click();
	await expect(page.getByText(/^PL\d*-K01$/).first()).toBeVisible();
});
