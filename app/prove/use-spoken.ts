import { useEffect } from "react";

/** Says a line aloud when it comes, by the browser’s own voice; nothing where there is none. */
export function useSpoken(line: string): void {
  useEffect(() => {
    if (!line || !("speechSynthesis" in globalThis)) return;
    speechSynthesis.cancel();
    speechSynthesis.speak(new SpeechSynthesisUtterance(line));
    return () => speechSynthesis.cancel();
  }, [line]);
}
