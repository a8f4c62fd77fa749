// Where the names of rooms lead, for the check of imports.
const { resolve } = require('node:path');

const src = (room) => resolve('src', room);
module.exports = { resolve: { alias: { $core: src('core'), $lib: src('lib') } } };
