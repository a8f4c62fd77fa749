import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ locals }) => ({ projects: await locals.projects.list() });
