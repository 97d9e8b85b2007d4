/**
 * Properties are tried on the same cases in every run, so that a run that fails tells of a change and not of luck.
 * `WN_SEED=7 npm run test:unit` tries others.
 */
import fc from 'fast-check';

fc.configureGlobal({ seed: Number(process.env['WN_SEED'] ?? 1) });
