/** How many samples a test of a level or of a coverage draws: few beside all other tests, the whole number with `npm run calibrate -- tests`. */
export const drawn = (few: number, all: number): number => (process.env.VERDICT_THOROUGH === '1' ? all : few);
