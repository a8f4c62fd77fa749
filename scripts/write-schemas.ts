// Write the JSON Schemas of the documents, and lists of what ships, to docs/; a test holds them current.
import { readFileSync, writeFileSync } from 'node:fs';
import { documentSchemas } from '../src/core/project/json-schema';
import { messageStructures } from '../src/core/partner/message-schema';
import { releaseFileStructure } from '../src/core/release/file-schema';
import { withLists } from './doc-lists';

const schemas = { ...documentSchemas(), release: releaseFileStructure(), ...messageStructures() };
for (const [name, schema] of Object.entries(schemas))
	writeFileSync(
		new URL(`../docs/${name}.schema.json`, import.meta.url),
		`${JSON.stringify(schema, null, '\t')}\n`
	);

const page = new URL('../docs/project-format.md', import.meta.url);
writeFileSync(page, withLists(readFileSync(page, 'utf8')));
