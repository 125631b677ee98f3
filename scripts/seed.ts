import fc from 'fast-check';

/**
 * Random designs and boards are the same in every run of the tests, so that a red run means a change
 * and not luck. SADDLEBAG_SEED=7 explores others.
 */
fc.configureGlobal({ seed: Number(process.env.SADDLEBAG_SEED ?? 1789) });
