// The two short names for folders, for the dependency rule's resolver (svelte.config.js has them for the build).
const { join } = require('node:path');
module.exports = { resolve: { alias: { $core: join(__dirname, 'src/core'), $lib: join(__dirname, 'src/lib') } } };
