/** What an action of the pack page answers: which form it was, what is wrong at which field, and what was typed. */
export interface FormAnswer {
  intent?: string;
  problems?: Record<string, string>;
  typed?: Record<string, string>;
}
