/** A seed that nobody has chosen and no page has shown. */
export const randomSeed = (): number => crypto.getRandomValues(new Uint32Array(1))[0]!;
