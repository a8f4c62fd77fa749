// Write the JSON Schemas of the documents to docs/; a test holds them current.
import { writeFileSync } from 'node:fs';
import { documentSchemas } from '../src/core/project/json-schema';

for (const [name, schema] of Object.entries(documentSchemas()))
	writeFileSync(
		new URL(`../docs/${name}.schema.json`, import.meta.url),
		`${JSON.stringify(schema, null, '\t')}\n`
	);
