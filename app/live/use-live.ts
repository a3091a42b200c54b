import { useEffect, useState } from "react";
import { ask } from "~/look/ask";
import type { Fact } from "~core/fact";

const AGAIN_MS = 5_000;

interface Heard {
  job: number;
  facts: Fact[];
  seq: number;
}

/**
 * Facts that others have added to a job since its page was loaded, as they come. When the server was away, what was missed is asked for
 * as soon as it answers again.
 *
 * @param seq place of the last fact that the page was loaded with.
 */
export function useLive(job: number, seq: number): Fact[] {
  const [heard, setHeard] = useState<Heard>({ job, facts: [], seq });
  useEffect(() => {
    let at = seq;
    let facts: Fact[] = [];
    let asking = false;
    let again = false;
    const look = async (): Promise<void> => {
      if (asking) return void (again = true);
      asking = true;
      do {
        again = false;
        const answer = await ask<{ facts: Fact[]; seq: number }>(`/jobs/${job}/facts?after=${at}`);
        if (answer && answer.facts.length > 0) {
          at = answer.seq;
          facts = [...facts, ...answer.facts];
          setHeard({ job, facts, seq: at });
        }
      } while (again);
      asking = false;
    };
    let events: EventSource;
    let timer: ReturnType<typeof setTimeout> | undefined;
    const listen = (): void => {
      events = new EventSource(`/jobs/${job}/live`);
      // The first message says that somebody listens: what was missed meanwhile is asked for.
      events.onmessage = () => void look();
      events.onerror = () => {
        // The browser tries again by itself after a lost connection, and never after a refusal, as when somebody must sign in again.
        if (events.readyState === EventSource.CLOSED) timer = setTimeout(listen, AGAIN_MS);
      };
    };
    listen();
    return () => {
      clearTimeout(timer);
      events.close();
    };
  }, [job, seq]);
  return heard.job === job ? heard.facts : [];
}
