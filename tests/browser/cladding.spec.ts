import type { Page } from '@playwright/test';
import { deflateSync, crc32 } from 'node:zlib';
import { accessible, documentOf, expect, openDemo, openRoof, saved, settled, test } from './app';

const clause = (page: Page, path: string) => page.locator(`[data-clause="${path}"]`);
async function type(page: Page, text: string): Promise<void> {
	await page.keyboard.press('Control+a');
	await page.keyboard.type(text);
	await page.keyboard.press('Enter');
}
/** What the status line says of pieces. */
const pieces = async (page: Page) =>
	(await page.getByTestId('status').innerText()).match(/([\d\s]+) pieces/)![1]!.trim();

test('a rule is written from pictures: seen in the model before it is chosen; its variant is made silently', async ({
	page
}) => {
	const problems: string[] = [];
	page.on('pageerror', (error) => problems.push(error.message));
	const id = await openRoof(page);
	const rule = clause(page, 'zones/gull/rules/all');
	const before = await pieces(page);
	const chip = rule.getByRole('combobox', { name: /^What rule/ });
	await chip.click();
	const open = page.getByRole('option', { name: 'nothing: leave open' });
	// Pictures come one after the other.
	await expect(page.getByRole('option', { name: 'Framed glass' }).locator('img')).toHaveCount(1);
	await accessible(page);
	await open.hover();
	await expect.poll(() => pieces(page)).toBe('0');
	await page.keyboard.press('Escape');
	await expect.poll(() => pieces(page)).toBe(before);
	expect((await documentOf(page, id)).variants.map(({ part }) => part)).toEqual(['flat-panel']);

	await chip.click();
	await page.getByRole('option', { name: 'Pyramid', exact: true }).click();
	await settled(page);
	await saved(page);
	const { variants, zones } = await documentOf(page, id);
	expect(variants.map(({ part, name }) => [part, name])).toEqual([
		['flat-panel', 'Panel'],
		['pyramid', 'plain']
	]);
	expect(zones[0]!.rules[0]!.put).toEqual({ variant: variants[1]!.id, values: {} });
	// Of a part with one variant nobody has to know its name; undo takes both back at once.
	await expect(chip).toHaveText('Pyramid');
	await page.keyboard.press('Control+z');
	await saved(page);
	expect((await documentOf(page, id)).variants.length).toBe(1);

	// Patterns in the same way.
	await clause(page, 'zones/gull/pattern').getByRole('combobox', { name: 'Pattern: diamonds' }).click();
	await page.getByRole('option', { name: 'rectangles', exact: true }).click();
	await settled(page);
	await saved(page);
	expect((await documentOf(page, id)).zones[0]!.pattern).toEqual({ kind: 'rectangles' });
	expect(problems).toEqual([]);
});

test('blades keep out the sun: its hour is changed and they turn; hours of sun colour the model', async ({
	page
}) => {
	const id = await openDemo(page);
	const rule = clause(page, 'zones/street/rules/upper');
	await rule.scrollIntoViewIfNeeded();
	await rule.getByRole('combobox', { name: /^How angle is set/ }).click();
	await page.getByRole('option', { name: 'keeps out the sun' }).click();
	await settled(page);
	await saved(page);
	const put = (await documentOf(page, id)).zones[1]!.rules[0]!.put as { values: Record<string, object> };
	// Its blades are as deep and as far apart as the variant says.
	expect(put.values['angle']).toMatchObject({ is: 'keeps out', blades: 'lying', depth: 190, spacing: 240 });
	await rule.locator('[data-effect]').click();
	const why = page.getByTestId('card-why');
	await expect(why).toContainText('keeps out the sun, which this face sees at');
	const noon = await why.innerText();
	const sun = clause(page, 'sun');
	await sun.getByRole('button', { name: 'Hour: 12:00' }).click();
	await type(page, '9:30');
	await settled(page);
	await expect.poll(() => why.innerText()).not.toBe(noon);
	await sun.getByRole('button', { name: /^Latitude/ }).click();
	await type(page, '95');
	await expect(sun).toContainText('−90° to 90° is accepted');
	await page.keyboard.press('Escape');
	await sun.getByRole('button', { name: 'light the model so' }).click();
	await expect(sun.getByRole('button', { name: 'light as before' })).toBeVisible();
	await sun.getByRole('button', { name: 'light as before' }).click();

	await page.getByRole('tab', { name: /Check/ }).click();
	await page.getByRole('combobox', { name: /^Measure/ }).click();
	await page.getByRole('option', { name: 'hours of sun' }).click();
	await expect(page.getByTestId('check')).toContainText('783 cells have it');
});

test('a storey is changed once and everything follows: levels upon levels, made in one step', async ({
	page
}) => {
	const id = await openRoof(page);
	const named = clause(page, 'named');
	await named.getByRole('button', { name: 'value', exact: true }).click();
	const levels = clause(page, 'levels');
	await levels.getByRole('button', { name: 'storeys' }).click();
	await type(page, '3 × storey');
	await settled(page);
	await saved(page);
	const heights = async () => (await documentOf(page, id)).levels.map(({ height }) => height);
	const first = await heights();
	const top = first.at(-4)!;
	expect(first.slice(-3)).toEqual([1, 2, 3].map((n) => top + 3600 * n));
	await named.getByRole('button', { name: 'Value of storey: 3600 mm' }).click();
	await type(page, '3.2 m');
	await settled(page);
	await saved(page);
	expect((await heights()).slice(-3)).toEqual([1, 2, 3].map((n) => top + 3200 * n));
	await page.keyboard.press('Control+z');
	await saved(page);
	expect(await heights()).toEqual(first);
	// A number of a clause is bound where it is typed, and set free by a plain number.
	const joint = clause(page, 'zones/gull/along')
		.or(page.locator('[data-clause^="zones/gull/settingOut"]'))
		.first();
	await joint
		.getByRole('button', { name: /^Bays: / })
		.first()
		.click();
	await type(page, 'round(storey / 150 mm)');
	await settled(page);
	await saved(page);
	const across = async () => (await documentOf(page, id)).zones[0]!.settingOut.across;
	expect(await across()).toEqual({ by: 'count', count: 24 });
});

test('values and lies are painted by hand, listed, survive a change of the mass, and are taken back', async ({
	page
}) => {
	const id = await openDemo(page);
	await clause(page, 'zones/street/rules/upper').locator('[data-effect]').click();
	const card = page.getByTestId('card');
	await card.getByRole('button', { name: 'course', exact: true }).click();
	await card
		.getByRole('button', { name: 'Angle by hand: ' })
		.or(card.getByRole('button', { name: /^Angle by hand/ }))
		.first()
		.click();
	await type(page, '5 deg');
	await settled(page);
	await card.getByRole('button', { name: 'Mirror', exact: true }).click();
	await settled(page);
	await saved(page);
	const exceptions = async () => (await documentOf(page, id)).zones[1]!.exceptions;
	expect((await exceptions()).map(({ put, sites }) => [put, sites.length])).toEqual([
		[{ as: 'the rules say', values: { angle: '5 deg' }, mirror: true }, 22]
	]);
	await expect(page.getByTestId('card-why')).toContainText('It lies opposite hand.');
	await expect(page.getByTestId('card-why')).toContainText('by hand');
	const byHand = clause(page, 'zones/street/exceptions');
	await expect(byHand).toContainText('22 cells: angle 5 deg, the opposite hand');

	// The screen grows: cells are made anew, and the choices stay where they were.
	await clause(page, 'zones/street/settingOut/up')
		.getByRole('button', { name: /^Courses: 4/ })
		.click();
	await type(page, '5');
	await settled(page);
	await expect(byHand).toContainText('22 cells are treated otherwise');
	await byHand.getByRole('button', { name: 'take back' }).click();
	await settled(page);
	await saved(page);
	expect(await exceptions()).toEqual([]);
});

/** A grey ramp from left to right as a PNG. */
function ramp(width: number, height: number): Buffer {
	const chunk = (kind: string, data: Buffer) => {
		const body = Buffer.concat([Buffer.from(kind), data]);
		const [size, sum] = [Buffer.alloc(4), Buffer.alloc(4)];
		size.writeUInt32BE(data.length);
		sum.writeUInt32BE(crc32(body));
		return Buffer.concat([size, body, sum]);
	};
	const head = Buffer.alloc(13);
	head.writeUInt32BE(width, 0);
	head.writeUInt32BE(height, 4);
	head.set([8, 0, 0, 0, 0], 8);
	const row = Buffer.from([
		0,
		...Array.from({ length: width }, (_, x) => Math.round((255 * x) / (width - 1)))
	]);
	const rows = Buffer.concat(Array.from({ length: height }, () => row));
	const signature = Buffer.from([0x89, 0x50, 0x4e, 0x47, 13, 10, 26, 10]);
	return Buffer.concat([
		signature,
		chunk('IHDR', head),
		chunk('IDAT', deflateSync(rows)),
		chunk('IEND', Buffer.alloc(0))
	]);
}

test('a picture and a table are brought in and followed; what cannot be read is told', async ({ page }) => {
	const id = await openDemo(page);
	const brought = clause(page, 'pictures');
	const bring = async (what: string, name: string, buffer: Buffer) => {
		const [chooser] = await Promise.all([
			page.waitForEvent('filechooser'),
			brought.getByRole('button', { name: what, exact: true }).click()
		]);
		await chooser.setFiles({ name, mimeType: 'application/octet-stream', buffer });
	};
	await bring('picture', 'Ramp.png', ramp(64, 16));
	await expect(brought).toContainText('picture.ramp');
	await bring('picture', 'broken.png', Buffer.from('no picture'));
	await expect(page.getByText('broken.png cannot be taken: it is neither a PNG nor a JPEG')).toBeVisible();
	await bring('table', 'batches.csv', Buffer.from('Mark,Batch\nSS-C03-B01,4\nSS-C03-B02,5\nSS-C09-B99,6\n'));
	await expect(brought).toContainText('2 of 3 rows name a cell; not there: SS-C09-B99');
	await saved(page);
	const document = await documentOf(page, id);
	expect(document.pictures[0]).toMatchObject({
		id: 'ramp',
		columns: 64,
		rows: 16,
		lies: 'face',
		reads: 'lightness'
	});
	expect(document.tables[0]).toMatchObject({ by: 'mark', columns: [{ id: 'batch', label: 'Batch' }] });

	const rule = clause(page, 'zones/street/rules/upper');
	const angle = rule.locator('[data-driver="angle"]');
	await angle.getByRole('combobox', { name: /^What angle follows/ }).click();
	await page.getByRole('option', { name: 'picture ramp' }).click();
	await settled(page);
	await rule.locator('[data-effect]').click();
	await expect(page.getByTestId('card-why')).toContainText('follows picture ramp');
	// What is followed stays: it cannot be taken out.
	await brought.hover();
	await brought.getByRole('button', { name: /^More for clause/ }).click();
	await expect(page.getByRole('menuitem', { name: 'Remove Ramp' })).toHaveAttribute('aria-disabled', 'true');
	await page.keyboard.press('Escape');
});

test('rails end at the uprights of another clause, in a sentence; which bars count is a word in it', async ({
	page
}) => {
	const id = await openDemo(page);
	const rails = clause(page, 'zones/street/runs/rails');
	await rails.scrollIntoViewIfNeeded();
	await rails.hover();
	await rails.getByRole('button', { name: /^More for clause/ }).click();
	await page.getByRole('menuitem', { name: 'Cut its ends where lines meet' }).click();
	await settled(page);
	await expect(rails).toContainText(/ends\s*mitred\s*where\s*any bars\s*meet/);
	const which = rails.getByRole('combobox', { name: /^Bars that ends meet/ });
	await which.focus();
	await page.keyboard.press('Enter');
	await page.getByRole('option', { name: 'bars of this clause' }).click();
	await settled(page);
	await saved(page);
	const ends = async () => (await documentOf(page, id)).zones[1]!.runs.find(({ id }) => id === 'rails')!.ends;
	expect(await ends()).toEqual({ is: 'mitred', others: false });
	await page.keyboard.press('Control+z');
	await saved(page);
	expect(await ends()).toEqual({ is: 'mitred', others: true });
});
