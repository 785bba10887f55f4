/** Made from the folders of the core while the page is built: web/plugins/analyses.ts. */
declare module 'virtual:analyses' {
  const folders: Readonly<Record<string, string>>;
  export default folders;
}
