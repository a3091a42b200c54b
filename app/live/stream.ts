import { services } from "~/server/context";
import { jobIdByNumber } from "~store/jobs";
import type { Route } from "./+types/stream";

const BEAT_MS = 15_000;

/** Says that a job has more facts, as server-sent events: what they are is asked for with `facts?after=`. */
export const loader = async ({ context, request, params }: Route.LoaderArgs): Promise<Response> => {
  const { pool, live } = context.get(services);
  const job = await jobIdByNumber(pool, Number(params.number));
  if (!job) return new Response("There is no such job.", { status: 404 });
  let end = (): void => {};
  const body = new ReadableStream<string>({
    start(controller) {
      const write = (text: string): void => {
        try {
          controller.enqueue(text);
        } catch {
          end();
        }
      };
      const leave = live.watch(job, () => write("data: more\n\n"));
      // Keeps what lies between from closing a quiet connection, and finds out that a tablet has gone.
      const beat = setInterval(() => write(": here\n\n"), BEAT_MS);
      end = () => {
        leave();
        clearInterval(beat);
      };
      request.signal.addEventListener("abort", () => end());
      write("retry: 1000\ndata: listening\n\n");
    },
    cancel: () => end(),
  });
  return new Response(body.pipeThrough(new TextEncoderStream()), {
    headers: { "Content-Type": "text/event-stream", "Cache-Control": "no-store" },
  });
};
