import type { FormAnswer } from "~/view/form-answer";
import { isDecided } from "~core/book";
import type { SeatState, Worksheet } from "~core/measure";
import type { LengthUnit } from "~core/quantity";
import type { Stock } from "~core/select";

export interface Loaded {
  stock: Stock[];
  /** What was put aside for the job’s seats, by what it is called among the candidates. */
  aside: Readonly<Record<string, string>>;
  leads: { id: string; name: string }[];
  ids: { choice: string; reading: string; waiver: string };
}

/** What every tab of a figure’s page is given. */
export interface TabProps {
  sheet: Worksheet;
  unit: LengthUnit;
  closed: boolean;
  ids: Loaded["ids"];
  leads: Loaded["leads"];
  actionData: FormAnswer | undefined;
}

/** Which of its seats is chosen for: the one that was asked for, else the first that waits for a decision. */
export function seatAt({ seats }: Worksheet, asked: string | null): SeatState | undefined {
  const known = seats.filter(({ fitted }) => fitted);
  const decided = known.filter(({ link }) => isDecided(link));
  return (
    known.find(({ link }) => link.id === asked) ??
    decided.find(({ choice }) => !choice) ??
    decided[0] ??
    known[0]
  );
}
