import type { Database } from '$lib/server/database';
import type { StoredFiles } from '$lib/server/files';
import type { Projects } from '$lib/server/projects';
import type { Releases } from '$lib/server/releases';
import type { Saving } from '$lib/server/saving';

declare global {
	namespace App {
		interface Locals {
			db: Database;
			files: StoredFiles;
			projects: Projects;
			releases: Releases;
			saving: Saving;
		}
		interface Error {
			message: string;
		}
	}
}

export {};
