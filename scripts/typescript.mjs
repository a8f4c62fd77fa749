// Lets Node run the project's TypeScript, with its path aliases, from any directory.
import { fileURLToPath } from 'node:url';

process.env.TSX_TSCONFIG_PATH = fileURLToPath(new URL('./tsconfig.node.json', import.meta.url));
await import('tsx');
