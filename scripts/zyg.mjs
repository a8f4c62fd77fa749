// npm run -s zyg -- …: the command line.
import { programFile } from './lib/programs.mjs';

await import(await programFile('zyg'));
