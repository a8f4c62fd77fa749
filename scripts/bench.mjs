// npm run bench: what the chain takes, stage by stage.
import { programFile } from './lib/programs.mjs';

await import(await programFile('bench'));
