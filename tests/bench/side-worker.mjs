// A thread does not read TypeScript because the one that starts it does.
import { register } from 'tsx/esm/api';

register();
await import('./side-worker.ts');
