import { useEffect, useRef, useState } from "react";
import { useScripted } from "~/look/use-scripted";

interface Heard {
  results: ArrayLike<ArrayLike<{ transcript: string }>>;
}
interface Listener {
  lang: string;
  onresult: ((heard: Heard) => void) | null;
  onend: (() => void) | null;
  onerror: (() => void) | null;
  start: () => void;
  abort: () => void;
}
type Listening = new () => Listener;

const listening = (): Listening | undefined => {
  const own = window as unknown as { SpeechRecognition?: Listening; webkitSpeechRecognition?: Listening };
  return own.SpeechRecognition ?? own.webkitSpeechRecognition;
};

/**
 * Words spoken instead of typed, by the browser’s own ear, where it has one: only when somebody asks, and one sentence at a time.
 *
 * @returns null where the browser cannot.
 */
export function useDictated(
  onHeard: (words: string) => void,
): { hears: boolean; hear: () => void; deaf: boolean } | null {
  const scripted = useScripted();
  const [hears, setHears] = useState(false);
  const [deaf, setDeaf] = useState(false);
  const ear = useRef<Listener | null>(null);
  useEffect(() => () => ear.current?.abort(), []);
  if (!scripted || !listening()) return null;
  const hear = (): void => {
    const Ear = listening();
    if (!Ear) return;
    ear.current?.abort();
    const own = new Ear();
    ear.current = own;
    own.lang = "en";
    own.onresult = ({ results }) => onHeard(results[0]?.[0]?.transcript ?? "");
    own.onend = () => setHears(false);
    // It may have no microphone, or ask somebody who is not to be reached.
    own.onerror = () => {
      setHears(false);
      setDeaf(true);
    };
    setDeaf(false);
    setHears(true);
    own.start();
  };
  return { hears, hear, deaf };
}
