// Where the names of rooms lead, for the check of imports.
import { resolve } from 'node:path';

const src = (room) => resolve('src', room);
export default { resolve: { alias: { $core: src('core'), $lib: src('lib') } } };
