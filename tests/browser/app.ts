import { expect, type Page } from '@playwright/test';

/** Open the demo project in a copy of its own, so that tests do not meet; wait until it stands. */
export async function openDemo(page: Page): Promise<string> {
	const list = (await (await page.request.get('/api/projects')).json()) as { id: string; name: string }[];
	const demo = list.find((project) => project.name === 'Tidal Lido')!;
	const copy = (await (
		await page.request.post(`/api/projects/${demo.id}/duplicate`, { data: {} })
	).json()) as {
		id: string;
	};
	await page.goto(`/project/${copy.id}?plain`);
	await settled(page);
	return copy.id;
}

/** The model has caught up with the document, and the picture is drawn. */
export async function settled(page: Page): Promise<void> {
	await expect(page.getByTestId('status')).toHaveAttribute('data-behind', 'false');
	if (await page.getByTestId('model').count())
		await expect(page.getByTestId('model')).toHaveAttribute('data-settled', 'true');
}

export const saved = (page: Page) => expect(page.getByTestId('save-state')).toHaveText('saved');

export async function cellCount(page: Page): Promise<number> {
	const text = (await page.getByTestId('cell-count').textContent()) ?? '';
	return Number(text.replace(/[^0-9]/g, ''));
}
