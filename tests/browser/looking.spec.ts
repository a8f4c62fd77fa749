import { type Page } from '@playwright/test';
import type { Form } from '../../src/core/project/form-schema';
import { revolved, sheet } from '../faces';
import {
	accessible,
	copyDemo,
	documentOf,
	expect,
	newContext,
	openDemo,
	openDocument,
	postDocument,
	saved,
	settled,
	test,
	visit
} from './app';

const problems: string[] = [];
test.beforeEach(({ page }) => {
	problems.length = 0;
	page.on('pageerror', (error) => problems.push(error.message));
});
test.afterEach(() => expect(problems).toEqual([]));

const model = (page: Page) => page.getByLabel('Model in 3D');
const hover = (page: Page) => page.getByTestId('hover');

/** Put the pointer on a place of the model, given by shares of its width and height. */
async function point(page: Page, across: number, down: number): Promise<{ x: number; y: number }> {
	const box = (await model(page).boundingBox())!;
	const at = { x: box.x + across * box.width, y: box.y + down * box.height };
	await page.mouse.move(at.x, at.y);
	return at;
}

/** A face with so many cells and no part on them. */
function bare(form: Form, face: string, bays: number, courses: number): object {
	const by = (count: number) => ({ by: 'count', count });
	const settingOut = { across: by(bays), up: by(courses) };
	const faces = [{ mass: 'm', face }];
	const pattern = { kind: 'rectangles' };
	return {
		name: 'Bare',
		masses: [{ id: 'm', name: 'Mass', form }],
		zones: [{ id: 'z', code: 'Z', name: 'Zone', faces, settingOut, pattern }]
	};
}

test('the first picture that is drawn has cells on it', async ({ page }) => {
	const id = await copyDemo(page);
	await visit(page, '/');
	await page.evaluate(() => {
		const { clear, drawElements } = WebGL2RenderingContext.prototype;
		const done: string[] = [];
		const taking = { clear, drawElements };
		for (const name of ['clear', 'drawElements'] as const)
			WebGL2RenderingContext.prototype[name] = function (this: WebGL2RenderingContext, ...given: never[]) {
				if (document.querySelector('[data-testid=model]')?.contains(this.canvas as Node)) done.push(name);
				return (taking[name] as (...given: never[]) => void).apply(this, given);
			};
		Object.assign(window, { done, putBack: () => Object.assign(WebGL2RenderingContext.prototype, taking) });
	});
	await visit(page, `/project/${id}?plain`);
	await settled(page);
	const done = await page.evaluate(() => {
		const { done, putBack } = window as unknown as { done: string[]; putBack: () => void };
		putBack();
		return done;
	});
	expect(done.slice(0, 2)).toEqual(['clear', 'drawElements']);
});

test('what a click would take is told, and stays under the pointer as the eye comes nearer', async ({
	page
}) => {
	await openDemo(page);
	/** What is told of a place; nothing where there is an opening. */
	const markAt = async (x: number, y: number) => {
		await page.mouse.move(x + 1, y);
		await page.mouse.move(x, y);
		const told = hover(page).filter({ hasText: 'Gull roof' }).locator('.figures');
		return told.textContent({ timeout: 2000 }).catch(() => null);
	};
	// A place well within a cell: what is beside it is the same.
	let at = { x: 0, y: 0 };
	let mark: string | null = null;
	for (let across = 0.4; mark === null && across < 0.6; across += 0.01) {
		at = await point(page, across, 0.45);
		const found = await markAt(at.x, at.y);
		const beside = [await markAt(at.x - 4, at.y), await markAt(at.x + 4, at.y), await markAt(at.x, at.y - 3)];
		if (beside.every((one) => one === found)) mark = found;
		await page.mouse.move(at.x, at.y);
	}
	expect(mark).not.toBeNull();
	for (let k = 0; k < 5; k++) await page.mouse.wheel(0, -240);
	await settled(page);
	await page.mouse.move(at.x + 1, at.y);
	await expect(hover(page).locator('.figures')).toHaveText(mark!);
	await page.mouse.click(at.x, at.y);
	await expect(page.getByTestId('card-mark')).toHaveText(mark!);
});

test('the eye comes nearer to cells that have no part yet, and never through them', async ({ page }) => {
	const drum = revolved([
		[6000, 0],
		[6000, 9000]
	]);
	await openDocument(page, bare(drum, 'shell', 24, 6));
	const at = await point(page, 0.47, 0.5);
	const mark = await hover(page).locator('.figures').textContent();
	// Near enough to stand within the drum, if it were for the middle of it.
	for (let k = 0; k < 10; k++) await page.mouse.wheel(0, -240);
	await settled(page);
	await page.mouse.move(at.x + 1, at.y);
	await expect(hover(page).locator('.figures')).toHaveText(mark!);
});

test('what a lens says along the top of the picture takes nothing away at its foot', async ({
	browser
}, worker) => {
	// Pictures that are drawn plainly are not put together in the same way.
	const context = await newContext(browser, worker);
	const page = await context.newPage();
	const id = await postDocument(page, bare(sheet(60_000, 60_000), 'wall', 2, 2));
	await page.goto(`/project/${id}`);
	await settled(page);
	await page.keyboard.press('1');
	await point(page, 0.55, 0.6);
	for (let k = 0; k < 8; k++) await page.mouse.wheel(0, -300);
	await expect(page.getByTestId('model')).toHaveAttribute('data-fine', 'true');
	const { x, y, width, height } = (await model(page).boundingBox())!;
	// All of the page: a part of it would be drawn anew by itself.
	const png = (await page.screenshot()).toString('base64');
	const places = [0.7, 0.99].map((down): [number, number] => [
		Math.round(x + 0.6 * width),
		Math.round(y + down * height)
	]);
	/** How blue it is: the wall is less so than the paper. */
	const [middle, foot] = await page.evaluate(
		async ([text, at]) => {
			const bytes = Uint8Array.from(atob(text), (one) => one.charCodeAt(0));
			const bitmap = await createImageBitmap(new Blob([bytes], { type: 'image/png' }));
			const pen = new OffscreenCanvas(bitmap.width, bitmap.height).getContext('2d')!;
			pen.drawImage(bitmap, 0, 0);
			return at.map(([px, py]) => pen.getImageData(px, py, 1, 1).data[2]!);
		},
		[png, places] as const
	);
	expect(Math.abs(foot! - middle!)).toBeLessThan(8);
	await context.close();
});

test('elevations are drawn to a scale, and a line that is measured is as long as its card says', async ({
	page
}) => {
	const id = await openDemo(page);
	await expect(page.getByTestId('scale-bar')).toHaveCount(0);
	await page.getByRole('button', { name: 'South' }).click();
	const bar = page.getByTestId('scale-bar');
	await expect(bar).toBeVisible();

	await point(page, 0.45, 0.45);
	await page.getByRole('button', { name: 'Around' }).click();
	const at = await point(page, 0.45, 0.45);
	await page.mouse.click(at.x, at.y);
	await expect(page.getByTestId('card-mark')).toBeVisible();
	await page.keyboard.press('f');
	await page.keyboard.press('l');
	await settled(page);
	const corner = (text: string) => page.getByTestId('label').getByText(text, { exact: true });
	await expect(corner('1')).toBeVisible();
	const places = await Promise.all(
		['1', '2'].map(async (text) => {
			const box = (await corner(text).boundingBox())!;
			return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
		})
	);
	await page.keyboard.press('l');
	await page.keyboard.press('d');
	for (const place of places) {
		await page.mouse.move(place.x, place.y);
		await settled(page);
		await page.mouse.click(place.x, place.y);
	}
	const kept = page.getByTestId('measuring').getByRole('listitem');
	await expect(kept).toHaveCount(1);
	const length = parseFloat((await kept.locator('.figures').textContent())!.replace(/\s/g, ''));
	await saved(page);
	const { notes } = await documentOf(page, id);
	expect(notes).toHaveLength(1);
	// The card of the cell is there again when measuring is left.
	await page.keyboard.press('d');
	const edges = await page
		.getByLabel('Cell with corners numbered and edge lengths')
		.locator('text')
		.allTextContents();
	expect(edges.map((text) => text.replace(/\s/g, ''))).toContain(String(Math.round(length)));
	await page.keyboard.press('d');
	// It is taken back like anything else, and leaving takes one thing at a time.
	await page.keyboard.press('Control+z');
	await expect(kept).toHaveCount(0);
	await page.keyboard.press('Escape');
	await expect(page.getByTestId('measuring')).toHaveCount(0);
});

test('a section is dragged, moved by keys and stays; a view is kept with it and comes back by its address', async ({
	page
}) => {
	const id = await openDemo(page);
	await page.keyboard.press('c');
	const handle = page.getByTestId('section-handle');
	await expect(handle).toBeVisible();
	const height = async () => Number(await handle.getAttribute('aria-valuenow'));
	const before = await height();
	await handle.focus();
	await page.keyboard.press('ArrowUp');
	expect(await height()).toBe(before + 100);
	const box = (await handle.boundingBox())!;
	await page.mouse.move(box.x + 8, box.y + 8);
	await page.mouse.down();
	await page.mouse.move(box.x + 8, box.y + 28, { steps: 3 });
	await page.mouse.up();
	const dragged = await height();
	expect(dragged).toBeLessThan(before - 300);

	await page.getByRole('button', { name: 'East', exact: true }).click();
	await page.getByRole('button', { name: 'Look and views' }).click();
	await accessible(page, '[role=menu]');
	await page.getByRole('menuitem', { name: 'Keep this view' }).click();
	await expect(page).toHaveURL(/\?.*view=view/);
	await saved(page);
	const [view] = (await documentOf(page, id)).views;
	expect(view).toMatchObject({
		flat: true,
		turn: 90,
		rise: 0,
		section: { axis: 'z', at: dragged, keeps: 'low' }
	});

	await page.getByRole('button', { name: 'Around' }).click();
	await page.keyboard.press('c');
	await expect(page).not.toHaveURL(/view=/);
	await expect(page.getByTestId('scale-bar')).toHaveCount(0);
	await page.goto(`/project/${id}?plain&view=view`);
	await settled(page);
	await expect(page.getByTestId('scale-bar')).toBeVisible();
	expect(await height()).toBe(dragged);
	await page.getByRole('button', { name: /^Name of this view/ }).click();
	await page.keyboard.type('East, cut');
	await page.keyboard.press('Enter');
	await saved(page);
	expect((await documentOf(page, id)).views[0]!.name).toBe('East, cut');
});

test('a picture of the view is written as large as it is asked for', async ({ page }) => {
	await openDemo(page);
	await page.getByRole('button', { name: 'Look and views' }).click();
	const [download] = await Promise.all([
		page.waitForEvent('download'),
		page.getByRole('menuitem', { name: /1920 px wide/ }).click()
	]);
	const { readFile } = await import('node:fs/promises');
	const bytes = await readFile((await download.path())!);
	// A PNG says its size in its first chunk.
	expect(bytes.subarray(1, 4).toString()).toBe('PNG');
	expect(bytes.readUInt32BE(16)).toBe(1920);
	expect(bytes.length).toBeGreaterThan(50_000);
});

test('a full turn is written as a clip that a browser plays; stopped, nothing is written', async ({
	page
}) => {
	await openDemo(page);
	const choose = async () => {
		await page.getByRole('button', { name: 'Look and views' }).click();
		await page.getByRole('menuitem', { name: /^Full turn as MP4 1280 px/ }).click();
	};
	await choose();
	await page.getByRole('button', { name: 'Stop' }).click();
	await expect(page.getByText('The clip was stopped; nothing was written')).toBeVisible();
	const [download] = await Promise.all([page.waitForEvent('download', { timeout: 100_000 }), choose()]);
	expect(download.suggestedFilename()).toMatch(/\.mp4$/);
	const { readFile } = await import('node:fs/promises');
	const bytes = await readFile((await download.path())!);
	// Played by a page of its own: those of the application play nothing that is not theirs.
	const player = await page.context().newPage();
	const played = await player.evaluate(async (base64) => {
		const video = document.createElement('video');
		video.muted = true;
		video.src = `data:video/mp4;base64,${base64}`;
		const once = (event: string) =>
			new Promise((go, fail) => {
				video.addEventListener(event, go, { once: true });
				video.addEventListener('error', () => fail(new Error(video.error?.message)), { once: true });
			});
		await once('loadeddata');
		const { videoWidth: width, videoHeight: height, duration } = video;
		const at = async (second: number) => {
			const sought = once('seeked');
			video.currentTime = second;
			await sought;
			const pen = new OffscreenCanvas(width, height).getContext('2d')!;
			pen.drawImage(video, 0, 0);
			return pen.getImageData(0, 0, width, height).data;
		};
		const [start, quarter, whole] = [await at(0.1), await at(duration / 4), await at(duration - 0.05)];
		// Of all points the share that is another colour.
		const differing = (one: Uint8ClampedArray, other: Uint8ClampedArray) => {
			let count = 0;
			for (let k = 0; k < one.length; k += 4) if (Math.abs(one[k]! - other[k]!) > 24) count++;
			return (4 * count) / one.length;
		};
		return {
			width,
			height,
			duration,
			turned: differing(start, quarter),
			round: differing(start, whole)
		};
	}, bytes.toString('base64'));
	expect([played.width, played.height % 2, Math.round(played.duration)]).toEqual([1280, 0, 8]);
	// A quarter turn on it looks otherwise; at its end it comes round to where it began, but for a step.
	expect(played.turned).toBeGreaterThan(0.02);
	expect(played.round).toBeLessThan(played.turned);
});

test('cells are chosen in a box and within a line, in the model as on the map; again, they are let go', async ({
	page
}) => {
	await openDemo(page);
	const box = (await model(page).boundingBox())!;
	const around = async (key: 'Shift' | 'Alt', also?: 'Control') => {
		const places = [
			[0.36, 0.2],
			[0.9, 0.2],
			[0.9, 0.8],
			[0.36, 0.8]
		].map(([x, y]) => ({ x: box.x + x! * box.width, y: box.y + y! * box.height }));
		await page.keyboard.down(key);
		await page.mouse.move(places[0]!.x, places[0]!.y);
		await page.mouse.down();
		for (const { x, y } of key === 'Shift' ? [places[2]!] : places.slice(1))
			await page.mouse.move(x, y, { steps: 3 });
		if (also) await page.keyboard.down(also);
		await page.mouse.up();
		if (also) await page.keyboard.up(also);
		await page.keyboard.up(key);
	};
	const more = page.getByTestId('card').getByText(/and \d+ more/);
	const count = async () => Number((await more.textContent())!.match(/and (\d+) more/)![1]);
	await around('Shift');
	await expect(more).toBeVisible();
	const seen = await count();
	await around('Shift');
	await expect(page.getByTestId('card')).toHaveCount(0);
	await around('Alt');
	await expect(more).toBeVisible();
	// Within the same corners there are the same cells, whichever way they are drawn round.
	expect(await count()).toBe(seen);
	await page.keyboard.press('Escape');
	await around('Shift', 'Control');
	await expect(more).toBeVisible();
	expect(await count()).toBeGreaterThan(seen);
});

test('the map takes all of the room and gives it back; parts of the page are as large as one drags them', async ({
	page
}) => {
	await openDemo(page);
	const map = page.getByTestId('map');
	const height = async () => Math.round((await map.boundingBox())!.height);
	const before = await height();
	await page.keyboard.press('Shift+M');
	await expect(page.getByTestId('model')).toBeHidden();
	expect(await height()).toBeGreaterThan(2 * before);
	await page.keyboard.press('Shift+M');
	await expect(page.getByTestId('model')).toBeVisible();
	expect(await height()).toBe(before);
	const line = (await page.getByRole('separator', { name: 'Height of the flat map' }).boundingBox())!;
	await page.mouse.move(line.x + 300, line.y);
	await page.mouse.down();
	await page.mouse.move(line.x + 300, line.y - 90, { steps: 4 });
	await page.mouse.up();
	expect(await height()).toBeGreaterThan(before + 70);
	const dragged = await height();
	await page.reload();
	await settled(page);
	await expect.poll(height).toBe(dragged);
	await page.evaluate(() => localStorage.clear());
});
