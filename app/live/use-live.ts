import { useEffect, useState } from "react";
import { ask } from "~/look/ask";
import type { Fact } from "~core/fact";
import { live } from "./shared";

interface Heard {
  job: number;
  facts: Fact[];
  seq: number;
}

/**
 * Facts that others have added to a job since its page was loaded, as they come. When the server was away, what was missed is asked for
 * as soon as it answers again.
 *
 * @param id the job's.
 * @param seq place of the last fact that the page was loaded with.
 */
export function useLive(id: string, job: number, seq: number): Fact[] {
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
    return live.watch((which) => {
      if (which === null || which === id) void look();
    });
  }, [id, job, seq]);
  return heard.job === job ? heard.facts : [];
}
