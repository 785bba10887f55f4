import { useFullscreen } from '@vueuse/core';
import { ElMessage } from 'element-plus';
import type { Ref } from 'vue';
import { saveFile } from '../../files/save-file.js';

/** A picture that can leave the page, under a title. */
export interface Leaving {
  toPng(title: string): Promise<Blob>;
  toSvg(title: string): string;
}

export const SAVE_FORMS = [
  { id: 'png', title: 'as PNG (double size)' },
  { id: 'svg', title: 'as SVG' },
] as const;

/** What can be done with every picture: copied, saved as PNG at twice its size or as SVG, enlarged. */
export function usePictureActions(
  card: Ref<HTMLElement | undefined>,
  picture: Ref<Leaving | undefined>,
  title: () => string,
) {
  const { toggle: enlarge, isFullscreen } = useFullscreen(card);
  /** A file name without what file systems refuse. */
  const fileName = () =>
    title()
      .replace(/[/\\:*?"<>|]+/g, ' ')
      .trim() || 'picture';

  async function copy(): Promise<void> {
    try {
      const png = await picture.value!.toPng(title());
      await navigator.clipboard.write([new ClipboardItem({ 'image/png': png })]);
      ElMessage.success('The picture was copied.');
    } catch {
      ElMessage.warning('The browser does not allow copying a picture here. Use Save instead.');
    }
  }
  async function save(form: string): Promise<void> {
    if (form === 'svg') saveFile(`${fileName()}.svg`, picture.value!.toSvg(title()), 'image/svg+xml');
    else saveFile(`${fileName()}.png`, await picture.value!.toPng(title()), 'image/png');
  }

  return { copy, save, enlarge, isFullscreen };
}
