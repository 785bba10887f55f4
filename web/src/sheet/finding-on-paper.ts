import type { Piece } from '@verdict/core/road';
import { h, type FunctionalComponent } from 'vue';

/** A finding, its strong pieces strong; every text as the sheet writes it. */
export const FindingOnPaper: FunctionalComponent<{ finding: readonly Piece[]; said: (text: string) => string }> = ({
  finding,
  said,
}) =>
  h(
    'p',
    { class: 'finding' },
    finding.map(({ text, strong }) => (strong ? h('strong', said(text)) : said(text))),
  );
FindingOnPaper.props = ['finding', 'said'];
