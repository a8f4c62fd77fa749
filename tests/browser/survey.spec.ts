import { accessible, documentOf, expect, openDemo, saved, test } from './app';

test('points that were measured are brought in, seen in colour, and the model fitted to them', async ({
	page
}) => {
	const problems: string[] = [];
	page.on('pageerror', (error) => problems.push(error.message));
	const id = await openDemo(page);
	await page.getByRole('tab', { name: /Check/ }).click();
	await page.getByRole('button', { name: 'Survey' }).click();
	const panel = page.getByTestId('survey');
	const bring = (name: string, lines: readonly string[]) =>
		panel
			.getByLabel('A survey')
			.setInputFiles({ name, mimeType: 'text/csv', buffer: Buffer.from(lines.join('\n')) });
	await bring('odd.csv', ['point,x,y', 'a,1,2']);
	await expect(panel.getByRole('alert')).toHaveText(
		/^odd\.csv cannot be taken: no column is headed z; its first line is to be like/
	);

	// The two feet of the screen, one of them a little high; one point of nothing.
	await bring('survey.csv', [
		'point,x (m),y (m),z (m)',
		'west foot,-16,-12.6,0.012',
		'east foot,16,-12.6,0',
		'spare,0,0,900'
	]);
	await expect(panel).toContainText('2 points are at nodes, the furthest 12 mm away');
	await expect(panel).toContainText('1 is at no node within the distance: spare.');
	await expect(panel).toContainText(
		'No cell has two measured corners: whether what was made fits cannot be told.'
	);
	await accessible(page);
	await panel.getByRole('button', { name: /^up to 20 mm/ }).click();
	await expect(page.getByTestId('card')).toContainText('SS-C01-B01');
	await panel.getByRole('button', { name: 'Fit the model to the survey' }).click();
	await expect(page.getByTestId('undo-label')).toHaveText('fitted to a survey');
	await expect(panel).toContainText('the furthest 0 mm away');
	await expect(panel.getByRole('button', { name: 'Fit the model to the survey' })).toBeDisabled();
	await saved(page);
	const zone = (await documentOf(page, id)).zones.find(({ name }) => name === 'Street screen')!;
	await expect(page.getByText('Nodes stand where they were measured.')).toHaveCount(1);
	expect(zone.moves).toHaveLength(1);
	expect(problems).toEqual([]);
});
