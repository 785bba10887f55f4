import { h, type FunctionalComponent } from 'vue';

/** A picture as the SVG that our own hand has drawn: every text in it was escaped there, and nothing else gets in. */
export const DrawnSvg: FunctionalComponent<{ svg: string; title: string }> = ({ svg, title }) =>
  h('div', { role: 'img', 'aria-label': title, innerHTML: svg });
DrawnSvg.props = ['svg', 'title'];
