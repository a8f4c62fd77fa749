import { accessible, documentOf, expect, openDemo, saved, settled, test, visit } from './app';

test('a project is released, changed, and compared with what was released', async ({ page }, info) => {
	const problems: string[] = [];
	page.on('pageerror', (error) => problems.push(error.message));
	const id = await openDemo(page);
	await visit(page, `/project/${id}/releases`);
	await expect(page.getByText('What differs from a release stands here once there is one.')).toBeVisible();
	await accessible(page);
	await page.getByLabel('What the next release is for').fill('Issued for tender');
	await page.getByRole('checkbox', { name: 'Freeze all marks from then on' }).check();
	await page.getByRole('button', { name: 'Release as it stands' }).click();
	const release = page.getByRole('button', { name: /^Release 1/ });
	await expect(release).toContainText('Issued for tender');
	await expect(page.getByText('Nothing differs: every piece is as it was released.')).toBeVisible();

	// Its marks stay from now on.
	await expect(page.getByTestId('undo-label')).toHaveText(/marks frozen$/);
	await saved(page);
	expect((await documentOf(page, id)).marks.frozen!.length).toBeGreaterThan(700);

	// A course more on the screen.
	await visit(page, `/project/${id}?plain`);
	await page.getByRole('button', { name: 'Go to Street screen' }).click();
	await page.getByRole('button', { name: 'Courses: 4' }).focus();
	await page.keyboard.press('Enter');
	await page.keyboard.type('5');
	await page.keyboard.press('Enter');
	await settled(page);
	await saved(page);
	await visit(page, `/project/${id}/releases`);
	const compared = page.getByTestId('compared');
	await expect(compared).toHaveText(
		/^[1-9][\d\s]* added · 0 removed · [1-9][\d\s]* changed · [1-9][\d\s]* the same$/
	);
	const table = page.getByRole('region', { name: 'Differences' });
	await page.getByRole('combobox', { name: /^Listed/ }).click();
	await page.getByRole('option', { name: /^added/ }).click();
	const added = table.getByRole('row').filter({ hasText: 'added' });
	await expect(added.first()).toContainText('SS-C05-B01');
	expect(await table.getByRole('row').count()).toBe((await added.count()) + 1);
	await accessible(page);

	// The list as a workbook; a mark leads to its piece.
	const [file] = await Promise.all([
		page.waitForEvent('download'),
		page.getByRole('button', { name: 'Write XLSX' }).click()
	]);
	expect(file.suggestedFilename()).toBe('tidal-lido-copy-release-1-today.xlsx');
	await file.saveAs(info.outputPath('differences.xlsx'));
	const many = await added.count();
	await page.getByRole('button', { name: 'Choose these in the model' }).click();
	await expect(page.getByText(`and ${many - 1} more`).first()).toBeVisible();
	await visit(page, `/project/${id}/releases`);
	await page.getByRole('combobox', { name: /^Listed/ }).click();
	await page.getByRole('option', { name: /^added/ }).click();
	await added.first().getByRole('button').click();
	await expect(page).toHaveURL(new RegExp(`/project/${id}$`));
	await expect(page.getByText('SS-C05-B01').first()).toBeVisible();

	// The same on drawings, as clouds; without them when they are not wanted.
	await visit(page, `/project/${id}/releases`);
	await page.getByRole('button', { name: 'Clouds on drawings' }).click();
	await page.getByRole('button', { name: /^E-01/ }).click();
	const sheet = page.getByRole('img', { name: /^E-01/ });
	await expect(sheet).toContainText(/clouded: \d+ places where it differs from release 1/);
	await page.getByRole('combobox', { name: /^Clouds/ }).click();
	await page.getByRole('option', { name: 'no clouds' }).click();
	await expect(sheet).not.toContainText('clouded');
	expect(problems).toEqual([]);
});
