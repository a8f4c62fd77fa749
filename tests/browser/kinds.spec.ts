import { accessible, expect, openRoof, settled, test } from './app';

test('how many different panels there are stands at the pattern; kinds are listed, chosen, and fewer with more tolerance', async ({
	page
}) => {
	const problems: string[] = [];
	page.on('pageerror', (error) => problems.push(error.message));
	await openRoof(page);
	const pattern = page.locator('[data-clause="zones/gull/pattern"] [data-effect]');
	await expect(pattern).toHaveText(/^\d+ cells, \d+ kinds$/);
	const said = Number(/, (\d+)/.exec(await pattern.innerText())![1]);
	await page.keyboard.press('4');
	await page.getByRole('button', { name: 'Kinds', exact: true }).click();
	const panel = page.getByTestId('kinds');
	await expect(panel).toContainText(`${said} kinds`);
	await accessible(page);

	const first = panel.getByRole('list', { name: 'Kinds of pieces' }).getByRole('button').first();
	await first.click();
	await expect(first).toHaveAttribute('aria-pressed', 'true');
	await expect(page.getByTestId('card')).toBeVisible();

	const tolerance = panel.getByRole('button', { name: /^Tolerance/ });
	await tolerance.focus();
	await page.keyboard.press('Enter');
	await page.keyboard.type('40 mm');
	await page.keyboard.press('Enter');
	await settled(page);
	await expect
		.poll(async () => Number(/(\d+) kinds/.exec(await panel.innerText())?.[1] ?? said))
		.toBeLessThan(said);
	// A kind of several tells how far they are spread.
	await expect(first).toContainText('±');
	await page.keyboard.press('Control+z');
	await expect(pattern).toHaveText(new RegExp(`, ${said} kinds$`));
	await panel.getByRole('button', { name: 'Close the kinds' }).click();
	await expect(panel).toHaveCount(0);
	expect(problems).toEqual([]);
});
