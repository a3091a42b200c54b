import jsQR from "jsqr";

/** @returns what the code in a picture says; null where there is none. Codes of labels are dark on white: the other way round is not looked for, which takes half the time. */
export const codeSeen = ({
  data,
  width,
  height,
}: Pick<ImageData, "data" | "width" | "height">): string | null =>
  jsQR(data, width, height, { inversionAttempts: "dontInvert" })?.data ?? null;
