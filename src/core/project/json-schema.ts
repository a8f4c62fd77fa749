import { z } from 'zod';
import { partSchema } from './part-definition';
import { projectSchema } from './schema';

/** The documents' structure as JSON Schema, for other programs. What has a default may be left out. */
export function documentSchemas(): Record<'project' | 'part', object> {
	return {
		project: z.toJSONSchema(projectSchema, { io: 'input' }),
		part: z.toJSONSchema(partSchema, { io: 'input' })
	};
}
