/** Made from the folders of the core while the page is built: web/plugins/analyses.ts. */
declare module 'virtual:analyses' {
  import type { AnalysisFolder } from './folder-of.js';
  const folders: Readonly<Record<string, AnalysisFolder>>;
  export default folders;
}
