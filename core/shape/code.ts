/** Words as the code that stands for them: how what was stored as words before finds its code. */
export const codeFor = (words: string): string =>
  words
    .toLowerCase()
    .replaceAll(/[’'`]/g, "")
    .replaceAll(/[^a-z0-9]+/g, "-")
    .replaceAll(/^-|-$/g, "");
