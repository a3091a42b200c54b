/** Two short tones, and a dot on the app’s own mark where the browser has one: something is ready. */
export function call(): void {
  void navigator.setAppBadge?.().catch(() => undefined);
  document.documentElement.dataset.called = String(Date.now());
  if (typeof AudioContext === "undefined") return;
  const audio = new AudioContext();
  [0, 0.25].forEach((at) => {
    const tone = audio.createOscillator();
    const loudness = audio.createGain();
    tone.frequency.value = 880;
    loudness.gain.value = 0.2;
    tone.connect(loudness).connect(audio.destination);
    tone.start(audio.currentTime + at);
    tone.stop(audio.currentTime + at + 0.15);
  });
  setTimeout(() => void audio.close(), 1000);
}
