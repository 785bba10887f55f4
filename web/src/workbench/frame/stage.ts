import type { Bounds, Evidence, Study } from '@verdict/contract';
import type { Component, InjectionKey } from 'vue';
import type { Drawn } from '../../charts/picture.js';
import type { Ask } from './ask.js';
import { folderOf, type AnalysisFolder } from './folder-of.js';

/** A kept result as a picture, for the sheet of the verdict. */
export interface KeptPicture {
  title: string;
  panels: Drawn;
}
/** Draws the kept results of one analysis; null where a result has no picture. */
export interface Drawing {
  analysis: string;
  draw: (item: Evidence, bounds: Bounds | null) => KeptPicture | null;
}

/** A place on the page that a key and a link at the top lead to. */
export interface Landmark {
  id: string;
  title: string;
  /** The letter that goes there. */
  key: string;
  /** What in it takes the focus; the place itself by default. */
  begin?: string;
}

/** The places of the frame that stages share. */
export const FRAME_LANDMARKS: readonly Landmark[] = [
  { id: 'picture', title: 'the picture', key: 'p', begin: 'canvas, div[tabindex="0"]' },
  { id: 'finding', title: 'the finding', key: 'f' },
  { id: 'sentence', title: 'the sentence', key: 's', begin: 'input' },
];

/** The description of a stage: its place on the path, its page, and which evidence it can draw. */
export interface Stage {
  /** The name of its route. */
  name: string;
  title: string;
  /** Its part of the address; its name by default. */
  path?: string;
  view: () => Promise<{ default: Component }>;
  /** The questions that it answers, where they are several. */
  asks?: readonly Ask[];
  /** True where the subject can be split: the bar asks by what. */
  splits?: true;
  /** True where columns of labels can be looked at as well. */
  takesLabels?: true;
  /** Stands beside the path, not on it. */
  beside?: true;
  /** Takes up blocks of readings that were pasted where they do not belong. */
  takesPastes?: true;
  /** The component at the right of the subject bar, instead of resolution and limits. */
  bar?: () => Promise<{ default: Component }>;
  /** Its places that can be gone to; those of the shared frame by default. */
  landmarks?: readonly Landmark[];
  /** The folder of its analyses in the core: their evidence is the stage's own. */
  analyses?: AnalysisFolder;
  /** How the sheet draws their results. */
  drawings?: () => Promise<readonly Drawing[]>;
  /** True once the stage holds something, where that is not evidence. */
  holds?: (study: Study) => boolean;
}

/** The list of stages, for what draws the evidence of all of them. */
export const allStages: InjectionKey<readonly Stage[]> = Symbol('stages');

/** The stage that an analysis belongs to. */
export const stageOf = (stages: readonly Stage[], analysis: string): Stage | undefined =>
  stages.find(({ analyses }) => analyses !== undefined && analyses === folderOf(analysis));
