import { sheet } from '../faces';
import { cellCount, expect, listed, openDocument, settled, test, visit } from './app';

test('fifty thousand framed units are opened, listed and sorted', async ({ page }) => {
	const problems: string[] = [];
	page.on('pageerror', (error) => problems.push(error.message));
	const id = await openDocument(page, {
		name: 'Fifty thousand',
		masses: [{ id: 'm', name: 'Mass', form: sheet(250 * 1500, 200 * 1300) }],
		zones: [
			{
				id: 'z',
				code: 'Z',
				name: 'Zone',
				faces: [{ mass: 'm', face: 'wall' }],
				settingOut: { across: { by: 'count', count: 250 }, up: { by: 'count', count: 200 } },
				pattern: { kind: 'rectangles' },
				rules: [{ id: 'all', put: { variant: 'unit' } }]
			}
		],
		variants: [{ id: 'unit', name: 'Unit', part: 'framed-glass', values: {} }]
	});
	expect(await cellCount(page)).toBe(50_000);
	await visit(page, `/project/${id}/schedule`);
	const table = await listed(page, 'Panels');
	await expect(table).toHaveAttribute('aria-rowcount', '50000');
	await expect(table.getByRole('row').nth(1)).toContainText('Z-C01-B01');
	// By its mark once, and the other way round: numbers in it count as numbers.
	await table.getByRole('columnheader', { name: /^Mark/ }).getByRole('button').click();
	await table.getByRole('columnheader', { name: /^Mark/ }).getByRole('button').click();
	await expect(table.getByRole('row').nth(1)).toContainText('Z-C200-B250');
	await visit(page, `/project/${id}?plain`);
	await settled(page);
	// More triangles than such a picture is drawn of: what is far is drawn plainly, and picked all the same.
	const said = page.getByTestId('status').getByTitle(/drawn as their cells until you come near/);
	await expect(said.first()).toBeVisible();
	await page.getByTestId('model').click({ position: { x: 300, y: 200 } });
	await expect(page.getByTestId('card')).toContainText('Framed glass');
	expect(problems).toEqual([]);
});
