import { accessible, documentOf, expect, openDemo, saved, settled, test } from './app';

test('pieces that reach into each other are found, walked, and kept as intended', async ({ page }) => {
	const problems: string[] = [];
	page.on('pageerror', (error) => problems.push(error.message));
	const id = await openDemo(page);
	await page.keyboard.press('4');
	await page.getByRole('button', { name: 'Clashes' }).click();
	const panel = page.getByTestId('clashes');
	await expect(panel.getByRole('status')).toContainText(/\d clashes/, { timeout: 60_000 });
	const list = panel.getByRole('list', { name: 'Parts that clash' });
	const before = await list.getByRole('listitem').count();
	expect(before).toBeGreaterThan(1);
	await accessible(page, '[data-testid=clashes]');

	const first = list.getByRole('listitem').first();
	await first.getByRole('button').first().click();
	await expect(first).toContainText('1 of');
	await expect(page.getByTestId('card')).toContainText('and 1 more');
	const mark = await page.getByTestId('card-mark').innerText();
	await first.getByRole('button', { name: 'The next clash' }).click();
	await expect(first).toContainText('2 of');
	await expect(page.getByTestId('card-mark')).not.toHaveText(mark);

	await first.getByRole('button', { name: 'intended' }).click();
	await expect(list.getByRole('listitem')).toHaveCount(before - 1);
	await expect(panel.getByRole('list', { name: /meant/ }).getByRole('listitem')).toHaveCount(1);
	await settled(page);
	await expect(panel.getByRole('status')).not.toContainText('changed');
	await saved(page);
	expect((await documentOf(page, id)).clashes.intended).toHaveLength(1);

	await page.keyboard.press('Control+z');
	await expect(list.getByRole('listitem')).toHaveCount(before);

	// What is changed is not what was searched.
	await panel.getByRole('button', { name: /^Depth: / }).click();
	await page.keyboard.type('20');
	await page.keyboard.press('Enter');
	await saved(page);
	await panel.getByRole('button', { name: 'Look again' }).click();
	await expect.poll(() => list.getByRole('listitem').count(), { timeout: 60_000 }).toBeLessThan(before);
	expect(problems).toEqual([]);
});
