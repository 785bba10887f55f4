import folders from 'virtual:analyses';

/** The folders of analyses in the core. */
export type AnalysisFolder = 'shape' | 'fit' | 'outliers' | 'claims' | 'resample' | 'simulate' | 'distributions';

/** The folder of an analysis, known without loading any of them. */
export const folderOf = (analysis: string): AnalysisFolder | undefined => folders[analysis];
