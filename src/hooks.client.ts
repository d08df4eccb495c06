import '$lib/jitless';
