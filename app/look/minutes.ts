/** `5 h 20`, `40 min`. */
export const minutesWords = (minutes: number): string =>
  minutes < 60
    ? `${minutes} min`
    : `${Math.floor(minutes / 60)} h${minutes % 60 > 0 ? ` ${String(minutes % 60).padStart(2, "0")}` : ""}`;
