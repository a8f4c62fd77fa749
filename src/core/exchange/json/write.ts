import type { Project } from '../../project/schema';

/** The project file: the document as it is kept, indented for people. */
export function projectJson(project: Project): string {
	return `${JSON.stringify(project, null, '\t')}\n`;
}
