import { readFileSync } from 'node:fs';
import { accessible, cellCount, documentOf, expect, openDemo, saved, settled, test, visit } from './app';

const problems: string[] = [];
test.beforeEach(({ page }) => {
	problems.length = 0;
	page.on('pageerror', (error) => problems.push(error.message));
});
test.afterEach(() => expect(problems).toEqual([]));

test('lengths are shown in mm, m or feet and inches, and the document stays the same', async ({ page }) => {
	const id = await openDemo(page);
	const size = page.locator('[data-part="zone street"]').getByRole('button', { name: /^Size of bays: / });
	const document = async () =>
		((await (await page.request.get(`/api/projects/${id}`)).json()) as { document: { zones: unknown } })
			.document;
	const before = (await document()).zones;
	for (const [choice, shown] of [
		['m', '1.5 m'],
		['ft-in', '4 ft 11 1/16 in'],
		['mm', '1 500 mm']
	] as const) {
		await page.getByRole('combobox', { name: /^Lengths shown in/ }).click();
		await page.getByRole('option', { name: choice, exact: true }).click();
		await expect(size).toHaveText(shown);
	}
	// A value typed in another unit than the one that is shown.
	await size.click();
	await page.keyboard.press('Control+A');
	await page.keyboard.type('5 ft');
	await page.keyboard.press('Enter');
	await expect(size).toHaveText('1 524 mm');
	await page.keyboard.press('Escape');
	await page.keyboard.press('Control+z');
	await expect(size).toHaveText('1 500 mm');
	await saved(page);
	expect((await document()).zones).toEqual(before);
});

test('no line of a sentence begins with a comma, however wide it is', async ({ page }) => {
	await openDemo(page);
	const begun = await page.evaluate(() => {
		const found: string[] = [];
		const sentences = [...document.querySelectorAll<HTMLElement>('.clause .sentence')];
		for (let width = 180; width < 340; width += 3)
			for (const sentence of sentences) {
				sentence.style.width = `${width}px`;
				const texts = document.createTreeWalker(sentence, NodeFilter.SHOW_TEXT);
				for (let text = texts.nextNode(); text; text = texts.nextNode()) {
					const [begins] = /^[,;:]/.exec((text as Text).data) ?? [];
					if (!begins) continue;
					const range = document.createRange();
					range.setStart(text, 0);
					range.setEnd(text, 1);
					const { left, width: wide } = range.getBoundingClientRect();
					if (wide && left - sentence.getBoundingClientRect().left < 5)
						found.push(`${sentence.innerText} at ${width}`);
				}
			}
		for (const sentence of sentences) sentence.style.width = '';
		return { found, sentences: sentences.length };
	});
	expect(begun.sentences).toBeGreaterThan(8);
	expect(begun.found).toEqual([]);
});

test('an exception by hand on several cells, and the chosen pieces shown alone', async ({ page }) => {
	await openDemo(page);
	const map = (await page.getByTestId('map').locator('canvas').boundingBox())!;
	await page.mouse.click(map.x + map.width / 2 - 100, map.y + map.height / 2 - 12);
	await page.keyboard.press('Shift+ArrowRight');
	await page.keyboard.press('Shift+ArrowRight');
	await page.keyboard.press('x');
	await page.getByRole('option', { name: 'left open' }).click();
	await settled(page);
	await expect(page.getByTestId('card')).toContainText('Open cell');
	await expect(page.getByTestId('card-why')).toContainText('sets it by hand');
	await expect(page.getByTestId('undo-label')).toContainText('and 2 more by hand');
	const pieces = () => page.getByTestId('status').innerText();
	expect(await pieces()).toContain('780 pieces');
	await page.keyboard.press('x');
	await page.getByRole('option', { name: 'as the rules say' }).click();
	await settled(page);
	expect(await pieces()).toContain('783 pieces');

	await page.keyboard.press('i');
	await expect(page.getByTestId('status')).toContainText('3 shown alone');
	// Escape leaves one thing at a time: what is shown alone, then what is chosen.
	await page.keyboard.press('Escape');
	await expect(page.getByTestId('status')).not.toContainText('shown alone');
	await expect(page.getByTestId('card')).toBeVisible();
	await page.keyboard.press('i');
	await page.getByRole('button', { name: 'Show all' }).click();
	await expect(page.getByTestId('status')).not.toContainText('shown alone');
	await page.keyboard.press('Escape');
	await expect(page.getByTestId('card')).toHaveCount(0);
});

test('a schedule of 20,000 rows opens, sorts and scrolls to its end with few rows on the page', async ({
	page
}) => {
	const demo = JSON.parse(readFileSync('tests/lido.json', 'utf8')) as {
		zones: { id: string; settingOut: Record<string, unknown>; runs: unknown[] }[];
	};
	const zone = demo.zones.find((one) => one.id === 'plunge')!;
	zone.settingOut = {
		across: { by: 'count', count: 160 },
		up: { by: 'count', count: 64 },
		along: 'true length'
	};
	zone.runs = [];
	const made = await page.request.post('/api/projects', {
		data: { document: { ...demo, name: 'Many rows', zones: [zone] } }
	});
	const { id } = (await made.json()) as { id: string };
	await visit(page, `/project/${id}/schedule`);
	await expect(page.getByTestId('row-count')).toHaveText('20 480 of 20 480');
	const rows = page.getByRole('row');
	expect(await rows.count()).toBeLessThan(80);
	await expect(rows.nth(1)).toContainText('PD-C01-B01a');
	const table = page.getByRole('table');
	await table.evaluate((node) => node.scrollTo(0, node.scrollHeight));
	await expect(rows.last()).toContainText('PD-C64-B160b');
	expect(await rows.count()).toBeLessThan(80);
	await page.getByRole('columnheader', { name: /^Area/ }).getByRole('button').click();
	await table.evaluate((node) => node.scrollTo(0, 0));
	await expect(rows.nth(1)).not.toContainText('PD-C01-B01a');
	await page.request.delete(`/api/projects/${id}`);
});

test('a coordinate of a profile is typed, the model follows and undo brings it back', async ({ page }) => {
	await openDemo(page);
	await page.keyboard.press('1');
	await page.getByRole('button', { name: /^Plunge drum profile/ }).click();
	const before = await page.getByTestId('status').getAttribute('data-runs');
	await page.getByRole('application', { name: /^Point 3:/ }).focus();
	await page
		.getByRole('button', { name: /^Plunge drum profile point 3/ })
		.first()
		.click();
	await page.keyboard.press('Control+A');
	await page.keyboard.type('4.2 m');
	await page.keyboard.press('Enter');
	await settled(page);
	expect(Number(await page.getByTestId('status').getAttribute('data-runs'))).toBeGreaterThan(Number(before));
	await page.keyboard.press('Escape');
	await expect(page.getByTestId('undo-label')).toContainText('3900 → 4200');
	expect(await cellCount(page)).toBeGreaterThan(0);
});

test('parts stand on nodes: put by a clause, picked in the model, listed, counted', async ({ page }) => {
	const id = await openDemo(page);
	const street = page.locator('[data-part="zone street"]');
	await street.getByRole('combobox', { name: 'A part on nodes' }).click();
	await page.getByRole('option', { name: 'Node ball' }).click();
	await settled(page);
	const clause = street.locator('[data-clause="zones/street/nodes/nodes"]');
	// 22 bays by 4 courses have 23 by 5 nodes.
	await expect(clause).toContainText('115');
	await expect(page.getByTestId('status')).toContainText('898 pieces');
	await clause.getByRole('combobox', { name: 'Which nodes' }).click();
	await page.getByRole('option', { name: 'inner nodes' }).click();
	await settled(page);
	await expect(clause).toContainText(String(21 * 3));
	await clause.getByRole('combobox', { name: 'How many lines meet' }).click();
	await page.getByRole('option', { name: '3 lines meet' }).click();
	await settled(page);
	await expect(clause.getByText('0', { exact: true })).toBeVisible();
	await page.keyboard.press('Control+z');
	await settled(page);
	await clause.hover();
	await clause
		.getByRole('button', { name: /Actions|More|menu/i })
		.first()
		.click();
	await page.getByRole('menuitem', { name: `Select its ${21 * 3} pieces` }).click();
	const card = page.getByTestId('card');
	await expect(card).toContainText('Node ball');
	await expect(card).toContainText('Lines that meet');
	await expect(page.getByTestId('card-why')).toContainText('put it where 4 lines meet');
	const mark = await page.getByTestId('card-mark').innerText();
	expect(mark).toMatch(/^SS-N-C04-B22$/);
	await saved(page);
	await visit(page, `/project/${id}/schedule`);
	await page
		.getByRole('tab', { name: /Connectors/ })
		.or(page.getByRole('button', { name: /Connectors/ }))
		.first()
		.click();
	await expect(page.getByText(`${21 * 3} of ${21 * 3}`)).toBeVisible();
	// What was chosen last is come to.
	await expect(page.getByText('SS-N-C04-B22')).toBeVisible();
});

test('a clause is copied to all zones that have places for it, in one edit', async ({ page }) => {
	const id = await openDemo(page);
	const before = (await documentOf(page, id)).zones;
	await page.getByRole('button', { name: 'Go to Street screen' }).click();
	const run = before.find((zone) => zone.id === 'street')!.runs[0]!;
	const clause = page.locator(`[data-clause="zones/street/runs/${run.id}"]`);
	await clause.hover();
	await clause.getByRole('button', { name: /^More for clause/ }).click();
	await page.getByRole('menuitem', { name: 'Copy to' }).click();
	await accessible(page, '[role=menu]');
	await page.getByRole('menuitem', { name: 'all 3 of these' }).click();
	await saved(page);
	const after = (await documentOf(page, id)).zones;
	for (const [k, { runs }] of after.entries())
		expect(runs.length).toBe(before[k]!.runs.length + (before[k]!.id === 'street' ? 0 : 1));
	await page.keyboard.press('Control+z');
	await saved(page);
	expect((await documentOf(page, id)).zones).toEqual(before);
});
