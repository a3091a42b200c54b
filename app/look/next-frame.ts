/** A frame that comes later than this is not waited for. */
const LATEST_MS = 150;

/**
 * Runs something once, with the next frame; soon at any rate, since a page that is hidden, or a machine too busy to draw, has no frames.
 *
 * @returns how to leave it.
 */
export function nextFrame(run: () => void): () => void {
  const leave = (): void => {
    cancelAnimationFrame(frame);
    clearTimeout(timer);
  };
  const once = (): void => {
    leave();
    run();
  };
  const frame = requestAnimationFrame(once);
  const timer = setTimeout(once, LATEST_MS);
  return leave;
}
