import fc from 'fast-check';

// Property tests try the same cases in every run, so that what passes here passes everywhere. To look for new ones:
// HAYCART_SEED=random ./haycart test unit
const { HAYCART_SEED: seed = '20261125' } = process.env;
if (seed !== 'random') fc.configureGlobal({ seed: Number(seed) });
