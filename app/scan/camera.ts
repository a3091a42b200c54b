/** How often the camera is looked through, in milliseconds. */
const LOOK_MS = 150;

/**
 * Shows what the camera sees and reads the codes held before it.
 *
 * @param video where the picture is shown.
 * @param read called with each code, as often as it is seen.
 * @returns switches the camera off.
 * @throws where there is no camera, or none that may be used.
 */
export async function watch(video: HTMLVideoElement, read: (text: string) => void): Promise<() => void> {
  // Loaded when it is first wanted: it is large, and most benches have a scanner that types.
  const { codeSeen } = await import("./seen");
  const stream = await navigator.mediaDevices.getUserMedia({ video: { facingMode: "environment" } });
  const canvas = document.createElement("canvas");
  const context = canvas.getContext("2d", { willReadFrequently: true });
  const look = (): void => {
    if (video.videoWidth === 0) return;
    canvas.width = video.videoWidth;
    canvas.height = video.videoHeight;
    try {
      context?.drawImage(video, 0, 0);
      const seen = context && codeSeen(context.getImageData(0, 0, canvas.width, canvas.height));
      if (seen) read(seen);
    } catch {
      // No picture yet. The next one may have it.
    }
  };
  const looking = setInterval(look, LOOK_MS);
  const off = (): void => {
    clearInterval(looking);
    for (const track of stream.getTracks()) track.stop();
    video.srcObject = null;
  };
  video.srcObject = stream;
  // Where the picture is slow to come, it is looked for all the same.
  video.play().catch(() => {});
  return off;
}
