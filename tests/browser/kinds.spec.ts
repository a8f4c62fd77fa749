import { readFileSync } from 'node:fs';
import { accessible, expect, openDemo, openDocument, openRoof, settled, test } from './app';

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

	// They are painted on the map: it is another picture than that of a measure.
	const map = page.getByTestId('map').locator('canvas').first();
	const inKinds = await map.screenshot();
	await page.getByRole('button', { name: 'Close the kinds' }).click();
	await expect.poll(async () => inKinds.equals(await map.screenshot())).toBe(false);
	await page.getByRole('button', { name: 'Kinds', exact: true }).click();

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
	// At other tolerances there are no more of them the larger these are; one is taken with a click.
	await panel.getByRole('button', { name: 'With more or less tolerance' }).click();
	const curve = panel.getByRole('list', { name: 'Kinds over tolerance' }).getByRole('button');
	await expect(curve).toHaveCount(8);
	const counts = await Promise.all(
		(await curve.all()).map(async (one) =>
			Number(/^(\d+) kinds/.exec((await one.getAttribute('aria-label'))!)![1])
		)
	);
	expect([...counts].sort((a, b) => b - a)).toEqual(counts);
	await curve.nth(2).click();
	await expect(pattern).toHaveText(new RegExp(`, ${said} kinds$`));
	await page.keyboard.press('Control+z');
	await page.keyboard.press('Control+z');
	await expect(pattern).toHaveText(new RegExp(`, ${said} kinds$`));
	await panel.getByRole('button', { name: 'Close the kinds' }).click();
	await expect(panel).toHaveCount(0);
	expect(problems).toEqual([]);
});

test('bars have kinds too; one is chosen with all of its bars', async ({ page }) => {
	await openDemo(page);
	await page.keyboard.press('4');
	await page.getByRole('button', { name: 'Kinds', exact: true }).click();
	const panel = page.getByTestId('kinds');
	await panel.getByRole('combobox', { name: /^Kinds of/ }).click();
	await page.getByRole('option', { name: 'Bars' }).click();
	await expect(panel).toContainText(/\d kinds among\s[\s\d]+bars/);
	const first = panel.getByRole('list', { name: 'Kinds of pieces' }).getByRole('button').first();
	const size = Number(/(\d+)(?=\D*$)/.exec((await first.innerText()).split('±')[0]!)![1]);
	expect(size).toBeGreaterThan(1);
	await first.click();
	await expect(page.getByTestId('card')).toContainText(`and ${size - 1} more`);
	await accessible(page);
});

test('what is looked for in a large model holds up neither its next edit nor the project that is opened after it', async ({
	page
}) => {
	const lido = JSON.parse(readFileSync('tests/lido.json', 'utf8')) as {
		masses: { id: string }[];
		zones: { id: string }[];
	};
	const by = (count: number) => ({ by: 'count', count });
	await openDocument(page, {
		name: 'Many small cells',
		masses: lido.masses.filter(({ id }) => id === 'gull'),
		zones: lido.zones
			.filter(({ id }) => id === 'gull')
			.map((zone) => ({
				...zone,
				rules: [],
				runs: [],
				settingOut: { across: by(400), up: by(300), along: 'true length' }
			})),
		like: { tolerance: 40, mirrored: 'together' }
	});
	const bays = page.getByRole('button', { name: /^Bays/ });
	await bays.focus();
	await page.keyboard.press('ArrowDown');
	await settled(page);
	await openDemo(page);
	await expect(page.locator('[data-clause="zones/gull/pattern"] [data-effect]')).toContainText('kinds');
});
