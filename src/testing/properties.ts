import fc from 'fast-check';

/**
 * What properties draw is the same in every run of the checks, so that a run says something about the change and not
 * about chance. `PROPERTY_SEED=random` draws anew (a failure prints its seed), `PROPERTY_SEED=123` draws as then.
 */
const wanted = process.env.PROPERTY_SEED ?? '20261';
if (wanted !== 'random') fc.configureGlobal({ ...fc.readConfigureGlobal(), seed: Number(wanted) });
