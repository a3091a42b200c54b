import { services, signedIn } from "~/server/context";
import { sessionStaff } from "~store/staff";
import { ANY } from "./any";
import type { Route } from "./+types/stream";

const BEAT_MS = 15_000;

/**
 * Says which job has more facts, as server-sent events, all jobs of the shop in one stream: what they are is asked for with `facts?after=`. It
 * ends with the session that asked for it.
 */
export const loader = ({ context, request }: Route.LoaderArgs): Response => {
  const { pool, live } = context.get(services);
  const { sessionId } = context.get(signedIn);
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
      const leave = live.watch((job) => write(`data: ${job ?? ANY}\n\n`));
      // Keeps what lies between from closing a quiet connection, and finds out that a tablet has gone or its session is over.
      const beat = setInterval(() => {
        write(": here\n\n");
        sessionStaff(pool, sessionId).then(
          (staff) => staff === null && (end(), controller.close()),
          () => {},
        );
      }, BEAT_MS);
      end = () => {
        leave();
        clearInterval(beat);
      };
      request.signal.addEventListener("abort", () => end());
      write(`retry: 1000\ndata: ${ANY}\n\n`);
    },
    cancel: () => end(),
  });
  return new Response(body.pipeThrough(new TextEncoderStream()), {
    headers: { "Content-Type": "text/event-stream", "Cache-Control": "no-store" },
  });
};
