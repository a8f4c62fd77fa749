import type { Database } from '$lib/server/database';
import type { StoredFiles } from '$lib/server/files';
import type { Outbox } from '$lib/server/partners/outbox';
import type { Papers } from '$lib/server/papers';
import type { Sendings } from '$lib/server/partners/sendings';
import type { Projects } from '$lib/server/projects';
import type { Releases } from '$lib/server/releases';
import type { Saving } from '$lib/server/saving';

declare global {
	namespace App {
		interface Locals {
			db: Database;
			files: StoredFiles;
			outbox: Outbox;
			papers: Papers;
			projects: Projects;
			releases: Releases;
			saving: Saving;
			sendings: Sendings;
		}
		interface Error {
			message: string;
		}
	}
}

export {};
