import { benchAnalyses } from './analyses.js';
import { benchAndersonDarling } from './anderson-darling.js';
import { benchBand } from './band.js';
import { benchClaims } from './claims.js';
import { benchCommandLine } from './command-line.js';
import { benchDistributions } from './distributions.js';
import { benchFit } from './fit.js';
import { benchFitQuestions } from './fit-questions.js';
import { benchNormality } from './normality.js';
import { benchOutliers } from './outliers.js';
import { benchReadings } from './readings.js';
import { benchRecord } from './record.js';
import { benchResampleInBrowser } from './resample-in-browser.js';
import { benchResample } from './resample.js';
import { benchSimulateInBrowser } from './simulate-in-browser.js';
import { benchSimulate } from './simulate.js';
import { benchShapeInBrowser } from './shape-in-browser.js';
import { benchShape } from './shape.js';
import { benchStudyFile } from './study-file.js';
import { benchTable } from './table.js';
import { benchWhole } from './whole.js';

/** `npm run bench -- table`: only the named ones. */
const BENCHES: Record<string, () => Promise<void> | void> = {
  analyses: benchAnalyses,
  'anderson-darling': benchAndersonDarling,
  band: benchBand,
  claims: benchClaims,
  'command-line': benchCommandLine,
  distributions: benchDistributions,
  fit: benchFit,
  'fit-questions': benchFitQuestions,
  normality: benchNormality,
  outliers: benchOutliers,
  readings: benchReadings,
  record: benchRecord,
  resample: benchResample,
  'resample-in-browser': benchResampleInBrowser,
  shape: benchShape,
  'shape-in-browser': benchShapeInBrowser,
  simulate: benchSimulate,
  'simulate-in-browser': benchSimulateInBrowser,
  'study-file': benchStudyFile,
  table: benchTable,
  whole: benchWhole,
};
const wanted = process.argv.slice(2);
for (const [name, run] of Object.entries(BENCHES)) if (wanted.length === 0 || wanted.includes(name)) await run();
