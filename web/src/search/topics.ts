/** Words that people bring with them, and the page that does what they mean. */
export interface Topic {
  words: readonly string[];
  /** Where it is done, in words: "Claims, one claim". */
  where: string;
  /** The stage of an open study, and what is asked there. */
  stage?: string;
  query?: Readonly<Record<string, string>>;
  /** The analysis whose help explains it where no study is open; or the page itself where none is needed. */
  analysis?: string;
  path?: string;
}

const claim = (id: string, ...words: string[]): Topic => ({
  words,
  where: 'Claims, one claim',
  stage: 'claims',
  query: { claim: id },
  analysis: id,
});
const shape = (picture: string, ...words: string[]): Topic => ({
  words,
  where: 'Shape, pictures',
  stage: 'shape',
  query: { picture },
  analysis: picture,
});
const asked = (stage: string, ask: string, analysis: string, where: string, ...words: string[]): Topic => ({
  ...{ words, where, stage, query: { ask }, analysis },
});

export const TOPICS: readonly Topic[] = [
  {
    words: [
      ...['descriptive statistics', 'summary statistics', 'average', 'arithmetic mean', 'geometric mean', 'mode'],
      ...['variance', 'percentile', 'quantile', 'quartile', 'IQR', 'interquartile range', 'range'],
      ...['coefficient of variation', 'CV', 'relative standard deviation', 'RSD', 'standard error of the mean', 'SEM'],
      ...['median absolute deviation', 'MAD', 'skewness', 'kurtosis', 'confidence interval of the mean'],
    ],
    ...{ where: 'Shape, figures', stage: 'shape', analysis: 'describe' },
  },
  {
    words: ['out of specification', 'OOS', 'within specification', 'proportion outside limits', 'three sigma limits'],
    ...{ where: 'Shape, proportions within limits', stage: 'shape', analysis: 'shares' },
  },
  shape('histogram', 'frequency distribution', 'bins'),
  shape('box', 'box-and-whisker plot', 'whiskers'),
  shape('stem-and-leaf', 'stem plot'),
  shape('empirical', 'ECDF', 'cumulative frequency', 'cumulative distribution of the readings'),
  shape('dots', 'strip chart'),
  shape('in-order', 'trend', 'drift', 'run chart', 'time series', 'order of the readings'),
  {
    words: [
      ...['Q–Q plot', 'QQ plot', 'quantile–quantile plot', 'normal plot', 'probability paper', 'Gaussian'],
      ...['bell curve', 'distribution fitting', 'lifetime', 'reliability', 'censored readings', 'detection limit'],
      ...['limit of detection', 'LOD', 'limit of quantification', 'LOQ'],
    ],
    ...{ where: 'Fit, plot and test', stage: 'fit', analysis: 'probability-plot' },
  },
  {
    words: ['normality test', 'test of normality', 'is it normal', 'normally distributed'],
    ...{ where: 'Fit, plot and test', stage: 'fit', analysis: 'normality' },
  },
  {
    words: ['goodness of fit', 'Kolmogorov–Smirnov test', 'chi-square goodness of fit', 'AIC', 'best distribution'],
    ...{ where: 'Fit, plot and test', stage: 'fit', analysis: 'goodness-of-fit' },
  },
  asked('fit', 'line-up', 'line-up', 'Fit, line-up', 'visual inference'),
  asked('fit', 'missed', 'power', 'Fit, power', 'power of a normality test', 'type II error'),
  asked(
    'fit',
    'counts',
    'count-fit',
    'Fit, counts',
    'overdispersion',
    'dispersion test',
    'zero inflation',
    'Poisson test',
  ),
  asked('fit', 'transformed', 'transform', 'Fit, transformation', 'log transformation', 'Yeo–Johnson', 'normalise'),
  asked('fit', 'many', 'screen', 'Fit, many columns', 'multiple testing', 'Bonferroni', 'screening of columns'),
  asked('fit', 'two', 'two-samples', 'Fit, two samples', 'two-sample Kolmogorov–Smirnov test', 'compare distributions'),
  {
    words: [
      ...['outlier test', 'Dixon’s Q test', 'Q test', 'Rosner test', 'z-score', 'modified z-score', 'Tukey fences'],
      ...['extreme value', 'influential reading', 'typing error', 'reject a reading'],
    ],
    ...{ where: 'Outliers', stage: 'outliers', analysis: 'outliers' },
  },
  asked(
    'outliers',
    'which',
    'outlier-rules',
    'Outliers, compare rules',
    'false-alarm rate',
    'power of an outlier test',
  ),
  asked(
    ...(['outliers', 'groups', 'outlying-groups', 'Outliers, groups'] as const),
    ...['Cochran’s test', 'interlaboratory comparison', 'proficiency test', 'h and k statistics', 'ISO 5725'],
  ),
  claim(
    ...(['mean-claim', 't test', 'one-sample t test', 'Student’s t test', 'z test', 'hypothesis test'] as const),
    ...['significance test', 'null hypothesis', 'bias', 'trueness', 'TOST', 'equivalence test', 'effect size'],
  ),
  claim('spread-claim', 'chi-square test of a variance', 'test of the standard deviation', 'repeatability'),
  claim('median-claim', 'sign test', 'signed rank test', 'Wilcoxon', 'nonparametric test'),
  claim('mean-and-sd-claim', 'certificate', 'certified value', 'reference material'),
  claim('share-claim', 'binomial test', 'test of a proportion', 'defect rate', 'fraction defective'),
  claim('rate-claim', 'Poisson rate', 'events per hour', 'rate of events'),
  claim('counts-claim', 'chi-square test', 'expected frequencies', 'multinomial test'),
  claim('table-claim', 'contingency table', 'cross table', 'independence', 'association', 'Cramér’s V'),
  claim('tolerance', 'tolerance limits', 'coverage of the population', 'statistical tolerance'),
  claim(
    ...(['two-means', 'two-sample t test', 'paired t test', 'Welch’s t test', 'compare two groups'] as const),
    ...['before and after', 'difference of means', 'compare gauges'],
  ),
  claim('two-medians', 'Mann–Whitney test', 'rank sum test', 'Wilcoxon rank sum'),
  claim('two-spreads', 'F test', 'Levene test', 'Brown–Forsythe test', 'equal variances', 'homogeneity of variance'),
  claim('two-shares', 'Fisher’s exact test', 'two proportions', 'relative risk', 'odds ratio'),
  claim('several-means', 'ANOVA', 'analysis of variance', 'one-way', 'Tukey test', 'post hoc', 'multiple comparisons'),
  claim('several-medians', 'Kruskal–Wallis'),
  asked(
    'resample',
    'redraw',
    'bootstrap',
    'Resample, bootstrap',
    'resampling',
    'standard error of a median',
    'jackknife',
  ),
  asked(
    'resample',
    'shuffle',
    'permutation',
    'Resample, permutation test',
    'randomisation test',
    'correlation',
    'slope',
  ),
  asked('resample', 'plans', 'bootstrap-plans', 'Resample, larger samples', 'precision', 'how many replicates'),
  asked(
    ...(['simulate', 'samples', 'simulate', 'Simulate samples', 'sampling distribution'] as const),
    ...['central limit theorem', 'type I error', 'coverage of an interval', 'repeated sampling'],
  ),
  asked('simulate', 'curves', 'power-curves', 'Simulate, power curves', 'operating characteristic', 'power of a test'),
  asked('simulate', 'plan', 'plan', 'Simulate, sample size', 'sample size', 'how many readings', 'power analysis'),
  asked(
    ...(['simulate', 'propagate', 'propagate', 'Simulate, uncertainty propagation', 'uncertainty'] as const),
    ...['measurement uncertainty', 'GUM', 'error propagation', 'uncertainty budget', 'coverage interval', 'JCGM 101'],
  ),
  {
    words: ['probability', 'critical value', 'normal table', 't table', 'inverse distribution', 'density'],
    ...{ where: 'Distributions', path: '/distributions' },
  },
  {
    words: [
      ...['import', 'paste', 'spreadsheet', 'CSV', 'calculated column', 'formula', 'standard scores', 'ranks'],
      ...['specification limits', 'LSL', 'USL', 'target', 'missing values', 'decimal comma', 'exclude a reading'],
    ],
    ...{ where: 'Readings', stage: 'readings', path: '/' },
  },
  { words: ['conclusion', 'decision', 'sign-off', 'cautions'], where: 'Verdict', stage: 'verdict', path: '/' },
  { words: ['print', 'PDF', 'certificate of the study'], where: 'Report', stage: 'sheet', path: '/' },
];
