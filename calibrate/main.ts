/**
 * `npm run calibrate`: simulations that are too long for a test run. Each prints how often a procedure says something of samples that have nothing to show,
 * beside the level it was asked for, and whether the two agree within four errors.
 */
import { calibrateClaims } from './claims.ts';
import { calibrateCountsAndSamples } from './counts-and-samples.ts';
import { calibrateEngines } from './engines.ts';
import { calibrateHeldClaims } from './held-claims.ts';
import { calibrateOutliers } from './outliers.ts';
import { calibrateResampling } from './resampling.ts';
import { calibrateSimulation } from './simulation.ts';
import { calibrateStatements } from './statements.ts';
import { calibrateTests } from './tests.ts';
import { calibrateTransformations } from './transformations.ts';
import { calibrateFitted } from './fitted-families.ts';
import { calibrateNormality } from './normality.ts';
import { calibrateRounded } from './rounded-normality.ts';

const CALIBRATIONS: Record<string, () => boolean | Promise<boolean>> = {
  engines: calibrateEngines,
  claims: calibrateClaims,
  normality: calibrateNormality,
  'rounded-normality': calibrateRounded,
  'fitted-families': calibrateFitted,
  'counts-and-samples': calibrateCountsAndSamples,
  transformations: calibrateTransformations,
  outliers: calibrateOutliers,
  'held-claims': calibrateHeldClaims,
  resampling: calibrateResampling,
  simulation: calibrateSimulation,
  statements: calibrateStatements,
  tests: calibrateTests,
};

const wanted = process.argv.slice(2);
let held = true;
for (const [name, run] of Object.entries(CALIBRATIONS))
  if (wanted.length === 0 || wanted.includes(name)) held = (await run()) && held;
process.exitCode = held ? 0 : 1;
