import { expect, test, type APIRequestContext } from '@playwright/test';

const document = {
	format: 'zygaster project',
	version: 1,
	name: 'Api test',
	masses: [
		{
			id: 'm',
			name: 'Drum',
			form: {
				kind: 'revolved',
				profile: {
					points: [
						[4000, 0],
						[3000, 3000]
					],
					joins: 'line'
				}
			}
		}
	]
};
const turn = (value: number | string) => ({
	kind: 'do',
	label: `turn ${value}`,
	edits: [{ do: 'set', path: 'masses/m/form/turn', value }]
});

async function created(request: APIRequestContext): Promise<string> {
	const answer = await request.post('/api/projects', { data: { document } });
	expect(answer.status()).toBe(201);
	return ((await answer.json()) as { id: string }).id;
}
const save = (request: APIRequestContext, id: string, base: number, ...commands: unknown[]) =>
	request.post(`/api/projects/${id}/edits`, { data: { base, commands } });

test('commands make a revision each; an old base is told what came meanwhile, and nothing is lost', async ({
	request
}) => {
	const id = await created(request);
	expect(await (await save(request, id, 0, turn(300), turn(270))).json()).toEqual({ revision: 2 });
	const late = await save(request, id, 0, turn(90));
	expect(late.status()).toBe(409);
	const told = (await late.json()) as { revision: number; since: { label: string }[] };
	expect(told.revision).toBe(2);
	expect(told.since.map((edit) => edit.label)).toEqual(['turn 300', 'turn 270']);
	const opened = (await (await request.get(`/api/projects/${id}`)).json()) as {
		revision: number;
		document: { masses: { form: { turn: number } }[] };
		history: { label: string; inverse: unknown }[];
	};
	expect(opened.document.masses[0]!.form.turn).toBe(270);
	expect(opened.history.map((edit) => edit.label)).toEqual(['turn 300', 'turn 270']);
	expect(opened.history[0]!.inverse).toEqual([{ do: 'set', path: 'masses/m/form/turn', value: 360 }]);
	await request.delete(`/api/projects/${id}`);
});

test('of two windows that save at once one wins and the other is told', async ({ request }) => {
	const id = await created(request);
	const answers = await Promise.all([100, 200, 300].map((value) => save(request, id, 0, turn(value))));
	expect(answers.map((answer) => answer.status()).sort()).toEqual([200, 409, 409]);
	await request.delete(`/api/projects/${id}`);
});

test('a command that does not fit is refused whole, in a sentence', async ({ request }) => {
	const id = await created(request);
	const refused = await save(request, id, 0, turn(200), turn('much'));
	expect(refused.status()).toBe(422);
	expect(((await refused.json()) as { message: string }).message).toContain('form/turn');
	const opened = (await (await request.get(`/api/projects/${id}`)).json()) as { revision: number };
	expect(opened.revision).toBe(0);
	const unread = await request.post(`/api/projects/${id}/edits`, { data: { base: 'x' } });
	expect(unread.status()).toBe(400);
	await request.delete(`/api/projects/${id}`);
});

test('a hundred and more revisions keep the newest document and the whole history', async ({ request }) => {
	const id = await created(request);
	const commands = Array.from({ length: 130 }, (_, k) => turn(100 + k));
	expect((await save(request, id, 0, ...commands)).status()).toBe(200);
	const opened = (await (await request.get(`/api/projects/${id}`)).json()) as {
		revision: number;
		document: { masses: { form: { turn: number } }[] };
		history: unknown[];
	};
	expect(opened.revision).toBe(130);
	expect(opened.document.masses[0]!.form.turn).toBe(229);
	expect(opened.history.length).toBe(130);
	await request.delete(`/api/projects/${id}`);
});

test('a deleted project is gone from the list and comes back; unknown ones are told', async ({ request }) => {
	const id = await created(request);
	const listed = async () =>
		((await (await request.get('/api/projects')).json()) as { id: string }[]).some((one) => one.id === id);
	expect(await listed()).toBe(true);
	expect((await request.delete(`/api/projects/${id}`)).status()).toBe(204);
	expect(await listed()).toBe(false);
	expect((await request.get(`/api/projects/${id}`)).status()).toBe(404);
	expect((await request.post(`/api/projects/${id}/restore`)).ok()).toBe(true);
	expect(await listed()).toBe(true);
	expect((await request.get('/api/projects/no-such-id')).status()).toBe(404);
	await request.delete(`/api/projects/${id}`);
});
