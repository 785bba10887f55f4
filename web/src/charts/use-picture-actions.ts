import { useFullscreen } from '@vueuse/core';
import { ElMessage } from 'element-plus';
import type { Ref } from 'vue';
import { saveFile } from '../files/save-file.js';

/** What can be done with every picture: copied, saved as PNG at twice its size, enlarged. */
export function usePictureActions(
  card: Ref<HTMLElement | undefined>,
  picture: Ref<{ toPng(): Promise<Blob> } | undefined>,
  fileName: () => string,
) {
  const { toggle: enlarge, isFullscreen } = useFullscreen(card);

  async function copy(): Promise<void> {
    try {
      const png = await picture.value!.toPng();
      await navigator.clipboard.write([new ClipboardItem({ 'image/png': png })]);
      ElMessage.success('The picture is on the clipboard.');
    } catch {
      ElMessage.warning('The browser does not allow copying a picture here; use Save.');
    }
  }
  async function save(): Promise<void> {
    saveFile(`${fileName()}.png`, await picture.value!.toPng(), 'image/png');
  }

  return { copy, save, enlarge, isFullscreen };
}
