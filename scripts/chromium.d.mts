export const chromiumPath: () => string;
