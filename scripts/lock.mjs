/** One start at a time on a directory: running.json says which. */
import { linkSync, readFileSync, renameSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

const fileOf = (home) => join(home, 'running.json');

/** When a process was started, in ticks since the machine was; null where there is no such process. With its number it names a process for good. */
function startOf(pid) {
  try {
    const stat = readFileSync(`/proc/${pid}/stat`, 'utf8');
    // The name of the program, in brackets, may hold blanks.
    return stat.slice(stat.lastIndexOf(')') + 2).split(' ')[19];
  } catch {
    return null;
  }
}

/** The process that a lock names, while it lives. A file that is empty, cut off or of a process that is no more was left by a crash. */
function holderIn(file) {
  try {
    const { pid, started, url } = JSON.parse(readFileSync(file, 'utf8'));
    return Number.isInteger(pid) && started === startOf(pid) ? { pid, url } : null;
  } catch {
    return null;
  }
}

/** Who runs on this directory; null where nobody does. */
export const lockHolder = (home) => holderIn(fileOf(home));

/** Written beside as a whole; the name tells the process. */
function written(home, url) {
  const file = `${fileOf(home)}.${process.pid}`;
  writeFileSync(file, JSON.stringify({ pid: process.pid, started: startOf(process.pid), url }));
  return file;
}

/** Takes the lock: null, or who has it. Of several at once just one gets it, for a link is made in one step or not at all. */
export function takeLock(home) {
  const own = written(home, null);
  try {
    for (;;) {
      if (linked(own, fileOf(home))) return null;
      const holder = lockHolder(home);
      if (holder) return holder;
      removeLeft(own, fileOf(home));
    }
  } finally {
    rmSync(own, { force: true });
  }
}

function linked(own, file) {
  try {
    linkSync(own, file);
    return true;
  } catch (error) {
    if (error.code !== 'EEXIST') throw error;
    return false;
  }
}

/** Tells one file of this name from the next; null where there is none. */
function identityOf(file) {
  const at = statSync(file, { bigint: true, throwIfNoEntry: false });
  return at ? `${at.ino}-${at.mtimeNs}` : null;
}

/**
 * Removes a lock that was left over. Only the holder of a second lock, on this very file, may do so: otherwise a slow start would remove the lock of the one
 * that has taken it over meanwhile. A second lock that was left over itself is removed in the same way.
 */
function removeLeft(own, file) {
  const identity = identityOf(file);
  if (identity === null || holderIn(file)) return;
  const claim = `${file}.left.${identity}`;
  if (linked(own, claim)) {
    if (identityOf(file) === identity) rmSync(file, { force: true });
    rmSync(claim, { force: true });
  } else if (holderIn(claim)) Atomics.wait(new Int32Array(new SharedArrayBuffer(4)), 0, 0, 5);
  else removeLeft(own, claim);
}

/** The address under which the holder answers, for who starts a second time. */
export function tellAddress(home, url) {
  renameSync(written(home, url), fileOf(home));
}

export function releaseLock(home) {
  if (lockHolder(home)?.pid === process.pid) rmSync(fileOf(home), { force: true });
}
