// The two short names for folders, for the dependency rule's resolver (svelte.config.js has them for the build).
module.exports = { resolve: { alias: { $core: `${__dirname}/src/core`, $lib: `${__dirname}/src/lib` } } };
