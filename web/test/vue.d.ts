/** Components are checked by vue-tsc; here it is enough that they are some. */
declare module '*.vue' {
  import type { Component } from 'vue';
  const component: Component;
  export default component;
}
