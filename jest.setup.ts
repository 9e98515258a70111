import fc from 'fast-check';

// The same cases in every run; another seed (FAST_CHECK_SEED) goes looking for others.
fc.configureGlobal({ seed: Number(process.env.FAST_CHECK_SEED ?? 20261) });
