import type { Fact } from "./fact";

/** `yard-key/job@1`: everything of one job that another Yard Key needs to have it. */
export const JOB_FORMAT = "yard-key/job@1";

export interface JobDocument {
  format: typeof JOB_FORMAT;
  /** The id made when the job was opened: importing twice keeps one. */
  id: string;
  number: number;
  opened: string;
  /** The book revision the job is pinned to, whole. */
  book: unknown;
  facts: Fact[];
  /** Its pictures as JPEG in base64; absent where there is none. */
  pictures?: { id: string; width: number; height: number; large: string; small: string }[];
}

export const jobDocument = (job: Omit<JobDocument, "format">): JobDocument => ({
  format: JOB_FORMAT,
  ...job,
});
