/** Made from the doc comments of the core while the page is built: web/plugins/methods.ts. */
declare module 'virtual:methods' {
  const methods: import('./methods.js').Methods;
  export default methods;
}
