/** Made from the doc comments of the core while the page is built: web/plugins/methods.ts. */
declare module 'virtual:methods' {
  const methods: unknown;
  export default methods;
}
