import fc from 'fast-check';

/**
 * The same values in every run, so that a red run can be had again and a green commit stays green.
 * New ones are looked for with PROPERTY_SEED=$RANDOM npm run test:unit; what they find goes in as an example.
 */
fc.configureGlobal({ seed: Number(process.env['PROPERTY_SEED'] ?? 20261125) });
