import type { Projects } from '$lib/server/projects';

declare global {
	namespace App {
		interface Locals {
			projects: Projects;
		}
		interface Error {
			message: string;
		}
	}
}

export {};
