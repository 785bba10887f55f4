// The analyses, stage by stage, their results and their words.
import '../readings/refusals.js';
export { type StatisticId } from '../road/statistic-settings.js';
export { formatStatistic } from '../road/formatted.js';
export { type DistributionRequest, type Question, QUESTIONS } from './distributions/distribution-request.js';
export { DISTRIBUTION_FIGURES } from './distributions/distribution-figures.js';
export type { DistributionResult } from './distributions/distribution-result.js';
export { complementSentence, readingsSentence } from './distributions/distribution-words.js';
export {
  distributionPicture,
  type DistributionPicture,
  type DistributionView,
} from './distributions/distribution-picture.js';
export { distributionAnalysis } from './distributions/distribution.js';
export { TEST_COLUMNS, normalityDetails, normalityFigures, normalityTable, PLOT_FIGURES } from './fit/fit-figures.js';
export { compareFamiliesAnalysis } from './fit/compare-families.js';
export type { CompareFamiliesResult } from './fit/compare-families-result.js';
export { comparedRows, comparedTable } from './fit/compare-families-words.js';
export type { CountFitResult } from './fit/count-fit-result.js';
export { cellWords, COUNT_FIT_FIGURES, countTable } from './fit/count-fit-words.js';
export { countHint } from './fit/count-hint.js';
export { countFitAnalysis } from './fit/count-fit.js';
export { FAMILY_PARTS } from './fit/family-settings.js';
export { fittedTestDetails, fittedTestFigures, fittedTestTable } from './fit/goodness-of-fit-figures.js';
export { galleryAnalysis, type GalleryPicture, type GalleryResult, type GallerySample } from './fit/gallery.js';
export type { GoodnessOfFitResult } from './fit/goodness-of-fit-result.js';
export { goodnessOfFitAnalysis } from './fit/goodness-of-fit.js';
export { lawFigures, type ReadOff, readOff, readOffWords } from './fit/law-figures.js';
export type { LineUpResult } from './fit/line-up-result.js';
export { LINE_UP_FIGURES } from './fit/line-up-words.js';
export { lineUpAnalysis } from './fit/line-up.js';
export type { NormalityResult } from './fit/normality-result.js';
export { agreementSentence, missedSentence } from './fit/normality-words.js';
export { normalityAnalysis } from './fit/normality.js';
export { partsFigures, partsTests, seriesLawFigures, PARTS_COLUMNS } from './fit/parts-figures.js';
export { plotPicture, type PlotAxisRange, type PlotPicture, plotTable } from './fit/plot-picture.js';
export { expectedReadings } from './fit/plot-ranges.js';
export { type PlotSeries, plotSeries, seriesTable } from './fit/plot-series.js';
export { noShapeWords, shapeWords } from './fit/plot-shapes.js';
export type { PowerResult } from './fit/power-result.js';
export { departureFacts, POWER_COLUMNS, powerFigures, powerTable } from './fit/power-words.js';
export { powerAnalysis } from './fit/power.js';
export { readPlot } from './fit/plot-result.js';
export { probabilityPlotAnalysis, type ProbabilityPlotResult } from './fit/probability-plot.js';
export { type ScreenRow, screenRows, screenTable } from './fit/screen-words.js';
export { screenAnalysis } from './fit/screen.js';
export type { TransformOffer, TransformResult } from './fit/transform-result.js';
export {
  lambdaFigures,
  outsideFigures,
  TRANSFORM_COLUMNS,
  transformFigures,
  transformTable,
  transformWords,
} from './fit/transform-words.js';
export { transformAnalysis } from './fit/transform.js';
export type { TwoSamplesResult } from './fit/two-samples-result.js';
export { TWO_SAMPLES_COLUMNS, twoSamplesFigures, twoSamplesTable, twoSamplesTests } from './fit/two-samples-words.js';
export { twoSamplesAnalysis } from './fit/two-samples.js';
export { type OutliersResult, studyTest } from './outliers/outliers-result.js';
export {
  extremeRows,
  extremesTable,
  extremeWords,
  type ExtremeRow,
  influenceTable,
  ruleRows,
  rulesTable,
} from './outliers/outliers-figures.js';
export { WITHOUT_COLUMNS, withoutFigures } from './outliers/without-figures.js';
export { FAR_PARTS, MOST_NAMED, ruleFields } from './outliers/outliers-settings.js';
export { causeWords } from './outliers/outliers-words.js';
export { outliersAnalysis } from './outliers/outliers.js';
export type { OutlierRulesResult } from './outliers/outlier-rules-result.js';
export { ARRANGEMENT_WORDS, outlierRulesTable, ruleAtWorkRows } from './outliers/outlier-rules-words.js';
export { outlierRulesAnalysis, SHIFTS } from './outliers/outlier-rules.js';
export { type OutlierScreenRow, outlierScreenRows, outlierScreenTable } from './outliers/outlier-screen-words.js';
export { outlierScreenAnalysis } from './outliers/outlier-screen.js';
export type { OutlyingGroupsResult } from './outliers/outlying-groups-result.js';
export {
  GROUP_TEST_COLUMNS,
  groupCauseWords,
  groupRows,
  groupTestFigures,
  outlyingGroupsTable,
} from './outliers/outlying-groups-words.js';
export { outlyingGroupsAnalysis } from './outliers/outlying-groups.js';
export { RULE_FACTS } from './outliers/rule-facts.js';
export type { Arrangement } from '../outliers/rule-trials.js';
export { hasLevel, type Rule } from '../outliers/rules.js';
export { advance, ANALYSES, analysisById, inThisThread, UnknownAnalysis } from './registry.js';
export { boxAnalysis, type BoxPart, type BoxResult } from './shape/box.js';
export type { Described, DescribeResult } from './shape/describe-result.js';
export { quantileChoice, resultParagraph } from './shape/describe-words.js';
export { describeAnalysis } from './shape/describe.js';
export { dotsAnalysis, type DotsResult } from './shape/dots.js';
export { empiricalAnalysis, type EmpiricalResult } from './shape/empirical.js';
export { histogramAnalysis, type HistogramResult } from './shape/histogram.js';
export { inOrderAnalysis, type InOrderResult } from './shape/in-order.js';
export type { FittedCurve, Picture, Scores } from './shape/picture.js';
export { sharesAnalysis, type SharesRequest, type SharesResult, stretchWords } from './shape/shares.js';
export { SHARES_FIGURES } from './shape/shares-figures.js';
export { leafWords, stemAndLeafAnalysis, type StemAndLeafResult, stemText } from './shape/stem-and-leaf.js';
export { type SheetCell } from '../probability-plot/sheet-cell.js';
export { PLACES } from '../probability-plot/line-up.js';
export { binHeights, inBins } from '../describe/histogram.js';
export { smallBins } from '../describe/small-bins.js';
export { QUANTILE_TYPES, type QuantileType } from '../describe/quantiles.js';
export type { Figure } from './shape/figure.js';
export {
  COUNT_FIGURE,
  FIGURE_GROUPS,
  FIGURES,
  otherPercentiles,
  otherQuantiles,
  percentileFigures,
} from './shape/figure-list.js';
export {
  CELL_COLUMNS,
  cellFigures,
  claimFigures,
  claimTable,
  PAIR_COLUMNS,
  pairFigures,
} from './claims/claim-figures.js';
export { claimDrawsAnalysis, type ClaimDrawsResult } from './claims/claim-draws.js';
export type { ClaimCell, ClaimGroup, ClaimResult, LawPicture } from './claims/claim-result.js';
export { formatExpected, formatQuantity, formatInterval } from '../road/formatted.js';
export { CLAIM_ANALYSES } from './claims/index.js';
export { missedWords, pWords, readBack } from './claims/claim-words.js';
export { claimOffers, usualClaim, type Looked } from './claims/claims-offered.js';
export { CLAIM_PARTS, type ClaimId } from './claims/claim-parts.js';
export { toleranceAnalysis, toleranceFigures, toleranceTable, type ToleranceResult } from './claims/tolerance.js';
export { readShares, readTyped, TYPED_FIELDS } from './claims/typed-texts.js';
export { type TypedField } from '../road/typed-texts.js';
export { claimScreenAnalysis } from './claims/claim-screen.js';
export { claimScreenRows, claimScreenTable, type ClaimScreenRow } from './claims/claim-screen-words.js';
export { BOOTSTRAP, bootstrapAnalysis } from './resample/bootstrap.js';
export type { BootstrapResult, ResampledHead } from './resample/bootstrap-result.js';
export { besideWords, INTERVAL_NAMED } from './resample/bootstrap-words.js';
export { statisticOffers, usualStatistic, type LookedAt, type Resampling } from './resample/looked-at.js';
export { permutationAnalysis } from './resample/permutation.js';
export { PERMUTATION } from './resample/permutation-settings.js';
export type { PermutationResult } from './resample/permutation-result.js';
export { conventionWords } from './resample/permutation-words.js';
export { PLANS, plansAnalysis, type PlansResult } from './resample/plans.js';
export { replicateAnalysis, type ReplicateResult } from './resample/replicate.js';
export {
  bootstrapFigures,
  distributionTable,
  INTERVAL_COLUMNS,
  intervalFigures,
  permutationFigures,
  PLAN_COLUMNS,
  plansFigures,
  plansTable,
} from './resample/resample-figures.js';
export { COUNT_FIELDS, readCounts } from './resample/typed-counts.js';
export { INTERVAL_NAMES } from '../resampling/intervals.js';
export { curvesAnalysis } from './simulate/curves.js';
export type { CurvesResult } from './simulate/curves-result.js';
export {
  inputNames,
  MOST_INPUTS,
  PROPAGATE,
  readCorrelations,
  type InputAsked,
} from './simulate/propagate-settings.js';
export { propagateAnalysis } from './simulate/propagate.js';
export type { PropagateResult } from './simulate/propagate-result.js';
export {
  CONTRIBUTION_COLUMNS,
  contributionFigures,
  firstOrderWords,
  propagateFigures,
  propagateTable,
  formatResult,
} from './simulate/propagate-words.js';
export { QUANTITY_LEADS, REPEATED } from './simulate/asked-settings.js';
export { CURVES } from './simulate/curves-settings.js';
export {
  ALONG_WORDS,
  crossingWords,
  curvesColumns,
  curvesFigures,
  curvesTable,
  knownShare,
  placeWords,
} from './simulate/curves-words.js';
export { oneSampleAnalysis, type OneSampleResult } from './simulate/one-sample.js';
export { planAnalysis } from './simulate/plan.js';
export type { PlanResult } from './simulate/plan-result.js';
export { PLANNED_COLUMNS, planFigures, planTable } from './simulate/plan-words.js';
export { PLAN } from './simulate/plan-settings.js';
export { MIXING, POPULATION, POPULATION_FIELDS } from './simulate/population-settings.js';
export { populationAnalysis, type PopulationResult } from './simulate/population.js';
export { SIMULATE, simulateAnalysis } from './simulate/simulate.js';
export { groupWords, simulateFigures, simulateTable } from './simulate/simulate-figures.js';
export type { SimulateResult } from './simulate/simulate-result.js';
export { knownWords } from './simulate/simulate-words.js';
export { thingsToLookAt, type Look } from './simulate/things-to-look-at.js';
