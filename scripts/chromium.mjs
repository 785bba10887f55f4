/** Which Chromium the browser tests, benches and screenshots drive. */
import { existsSync } from 'node:fs';

/** The shell without windows needs a third less time than the whole browser, from the same source package of Debian. */
export const SHELL = 'chromium-headless-shell';
export const WHOLE = 'chromium';

const path = (name) => `/usr/bin/${name}`;

export const chromiumPath = () => path(existsSync(path(SHELL)) ? SHELL : WHOLE);
