import { accessible, documentOf, expect, openDemo, saved, settled, test, visit } from './app';

const problems: string[] = [];
test.beforeEach(({ page }) => {
	problems.length = 0;
	page.on('pageerror', (error) => problems.push(error.message));
});
test.afterEach(() => expect(problems).toEqual([]));

test('zones and kinds of pieces are left out, shown alone and locked; it is said, remembered and kept in views', async ({
	page
}) => {
	const id = await openDemo(page);
	const geometry = () => page.getByTestId('status').textContent();
	await page.getByRole('button', { name: 'Shown', exact: true }).click();
	const menu = page.getByLabel('What is shown');
	await menu.getByRole('button', { name: 'Show Street screen alone' }).first().click();
	await expect(page.getByTestId('status')).toContainText('3 left out of the picture');
	await menu.getByRole('button', { name: 'Show Panels', exact: true }).click();
	await menu.getByRole('button', { name: 'Lock Street screen' }).first().click();
	await accessible(page);
	await page.keyboard.press('Escape');
	expect(await geometry()).toContain('4 left out of the picture');

	// Nothing of the roof can be met where it stood; the screen cannot be chosen or changed.
	const box = (await page.getByLabel('Model in 3D').boundingBox())!;
	for (const [x, y] of [
		[0.45, 0.45],
		[0.5, 0.4],
		[0.4, 0.62]
	] as const)
		await page.mouse.click(box.x + x * box.width, box.y + y * box.height);
	await expect(page.getByTestId('card')).toHaveCount(0);
	const street = page.locator('[data-part="zone street"]');
	await street.getByRole('button', { name: /^Size of bays: / }).focus();
	await page.keyboard.press('ArrowUp');
	await expect(page.getByText('Street screen is locked')).toBeVisible();
	await page.getByRole('button', { name: 'Unlock' }).click();
	await street.getByRole('button', { name: /^Size of bays: / }).focus();
	await page.keyboard.press('ArrowUp');
	await expect(page.getByTestId('undo-label')).toContainText('Street screen size of bays');

	await page.getByRole('button', { name: 'Look and views' }).click();
	await page.getByRole('menuitem', { name: 'Keep this view' }).click();
	await saved(page);
	const [view] = (await documentOf(page, id)).views;
	expect(view!.hidden.kinds).toEqual(['panel']);
	expect(view!.hidden.zones).toHaveLength(3);
	await page.getByRole('button', { name: 'Show all' }).click();
	await expect(page.getByTestId('status')).not.toContainText('left out');
	await visit(page, `/project/${id}/schedule`);
	await visit(page, `/project/${id}?view=${view!.id}`);
	await settled(page);
	await expect(page.getByTestId('status')).toContainText('4 left out of the picture');
});

test('the sheet folds, keeps to three lines, follows what is chosen; Find leads to clauses by their words', async ({
	page
}) => {
	const id = await openDemo(page);
	const part = page.locator('[data-part="zone plunge"]');
	await page.getByRole('button', { name: 'Clauses of Plunge drum' }).click();
	await expect(part.locator('[data-clause]')).toHaveCount(0);
	// A long sentence is cut at three lines, and read on.
	const shaft = page.locator('[data-clause="masses/shaft"]');
	const height = async () => (await shaft.boundingBox())!.height;
	const short = await height();
	await shaft.getByRole('button', { name: '… more' }).click();
	expect(await height()).toBeGreaterThan(short + 20);
	await shaft.getByRole('button', { name: 'less' }).click();
	expect(await height()).toBe(short);

	// From another page, to a clause that is folded away.
	await visit(page, `/project/${id}/schedule`);
	await page.keyboard.press('Control+k');
	await page.keyboard.type('plunge drum marked');
	await page.keyboard.press('Enter');
	await settled(page);
	await expect(part.locator('.active')).toBeVisible();

	// Sentences are told as they read, without what is offered in them.
	await page.keyboard.press('Control+k');
	await page.keyboard.type('along diagonals');
	await expect(page.getByRole('option').first()).toContainText('along diagonals and rims.');
	await page.keyboard.press('Escape');

	// What is chosen brings its clause.
	await page.keyboard.press('Control+k');
	await page.keyboard.type('GR-C05-B14');
	await page.keyboard.press('Enter');
	await expect(page.getByTestId('card-mark')).toHaveText('GR-C05-B14');
	await expect(page.locator('[data-part="zone gull"] [data-clause*="/rules/"].active')).toBeInViewport();
	await expect(page.getByRole('button', { name: 'Go to Gull roof' })).toHaveAttribute(
		'aria-current',
		'location'
	);
});

test('an edit brings the lens that shows it, unless the lens is pinned', async ({ page }) => {
	await openDemo(page);
	await page.keyboard.press('2');
	const rule = page.locator('[data-part="zone gull"] [data-clause*="/rules/"]').first();
	const mute = async () => {
		await rule.hover();
		await rule.getByRole('button', { name: /^More for clause/ }).click();
		await page.getByRole('menuitem', { name: /^(Mute|Unmute)/ }).click();
	};
	const lens = (name: string) => page.getByRole('tab', { name });
	await page.keyboard.press('p');
	await mute();
	await expect(lens('2 Set out')).toHaveAttribute('aria-selected', 'true');
	await page.getByRole('button', { name: 'Stay in this lens' }).click();
	await mute();
	await expect(lens('3 Clad')).toHaveAttribute('aria-selected', 'true');
});

test('what is flagged is walked from the worst on, or chosen all at once, and each says why', async ({
	page
}) => {
	await openDemo(page);
	const flags = page.getByRole('button', { name: /flags: to the worst/ });
	const count = Number((await flags.textContent())!.split(' ')[0]);
	await flags.click();
	const card = page.getByTestId('card');
	await expect(page.getByTestId('card-told')).toBeVisible();
	await page.getByRole('button', { name: 'Choose all flagged pieces' }).click();
	await expect(card).toContainText(`and ${count - 1} more`);
	for (let k = 0; k < 3; k++) {
		await expect(page.getByTestId('card-told')).toBeVisible();
		await card.getByRole('button', { name: 'The next of what is chosen' }).click();
	}
});

test('a length measured on the map is as long as the card says, and is kept', async ({ page }) => {
	const id = await openDemo(page);
	await page.getByRole('button', { name: 'Zone · Street screen' }).click();
	await page.keyboard.press('ArrowRight');
	await page.keyboard.press('l');
	await page.getByRole('button', { name: 'Nearer' }).click();
	const card = page.getByTestId('card');
	const edge = Number(
		(await card.locator('svg text').allTextContents())
			.join(' ')
			.replace(/\u202f/g, '')
			.match(/\d{3,}/)![0]
	);
	expect(edge).toBeGreaterThan(100);
	await page.keyboard.press('d');
	const map = page.getByTestId('map-measuring');
	const box = (await map.boundingBox())!;
	// Nearer brings the chosen cell to the middle; its corners are sought by the dots that snap to them.
	const dots = page.getByTestId('map-lengths').locator('circle');
	const found: { x: number; y: number }[] = [];
	for (let y = box.height / 2 - 90; y < box.height / 2 + 90 && found.length < 4; y += 12)
		for (let x = box.width / 2 - 100; x < box.width / 2 + 100; x += 12) {
			await page.mouse.move(box.x + x, box.y + y);
			if (!(await dots.count())) continue;
			const at = {
				x: Number(await dots.first().getAttribute('cx')),
				y: Number(await dots.first().getAttribute('cy'))
			};
			if (!found.some((one) => Math.hypot(one.x - at.x, one.y - at.y) < 1)) found.push(at);
		}
	const [a] = found;
	const b = found.find((one) => Math.abs(one.y - a!.y) < 4 && one.x > a!.x + 20);
	for (const { x, y } of [a!, b!]) await page.mouse.click(box.x + x, box.y + y);
	await saved(page);
	const { notes } = await documentOf(page, id);
	expect(notes).toHaveLength(1);
	const far = Math.hypot(...notes[0]!.from.map((value, k) => value - notes[0]!.to[k]!));
	expect(Math.abs(far - edge)).toBeLessThan(1);
	await expect(page.getByTestId('map-lengths').locator('text')).toHaveCount(1);
});
