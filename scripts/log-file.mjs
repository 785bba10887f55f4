/** A log that rotates, and that never ends a program: what cannot be written is counted and said later. */
import { appendFileSync, existsSync, renameSync, rmSync, statSync } from 'node:fs';

const MOST_BYTES = 10 * 1024 * 1024;
const KEPT = 3;

const sizeOf = (file) => (existsSync(file) ? statSync(file).size : 0);

/** server.log becomes server.log.1, that server.log.2, and so on; the last one goes. */
function rotate(file, kept) {
  rmSync(`${file}.${kept - 1}`, { force: true });
  for (let i = kept - 2; i >= 1; i--) if (existsSync(`${file}.${i}`)) renameSync(`${file}.${i}`, `${file}.${i + 1}`);
  renameSync(file, `${file}.1`);
}

/**
 * Opens a log for lines; `write` appends one at once.
 * @param {string} file
 * @param {{ most?: number, kept?: number, onFailure?: (error: Error) => void }} [options] `most`: bytes of a file; `kept`: files in all; `onFailure`:
 *   told of the first line of each row of lines that cannot be written
 */
export function openLog(file, { most = MOST_BYTES, kept = KEPT, onFailure = () => {} } = {}) {
  let lost = 0;
  let size = null;
  const append = (text) => {
    size ??= sizeOf(file);
    if (size > 0 && size + Buffer.byteLength(text) > most) {
      rotate(file, kept);
      size = 0;
    }
    appendFileSync(file, text, { mode: 0o600 });
    size += Buffer.byteLength(text);
  };
  return {
    write(text) {
      try {
        if (lost > 0)
          append(`${JSON.stringify({ level: 40, time: Date.now(), lost, msg: 'lines could not be written' })}\n`);
        append(text);
        lost = 0;
      } catch (error) {
        // A part may have been written: the size is read anew.
        size = null;
        if (lost === 0) onFailure(error);
        lost++;
      }
    },
  };
}
