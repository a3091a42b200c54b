/** How a disposition is coloured; its word always stands beside it. */
export const TONES = {
  reuse: "text-success",
  clean: "text-success",
  "measure-first": "text-warning",
  machine: "text-warning",
  upgrade: "text-error",
  replace: "text-error",
} as const;
