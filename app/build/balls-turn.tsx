import { FaceMap } from "~/look/face-map";
import { useSay } from "~/say/use-say";
import { useJobView } from "~/view/view";
import { pictureIn } from "~core/book";
import type { Asked, BuildStep } from "~core/build";
import type { CodeOf, LAID } from "~core/fact";
import { lengthText } from "~core/quantity";
import { Large, useGo } from "./large";

/** Check balls counted into their places, side by side as the plate shows them: each touched as it is laid, or seen once it is turned over. */
export function BallsTurn({ turn, one }: { turn: Asked; one: BuildStep }) {
  const { applied, unit } = useJobView();
  const say = useSay();
  const there = new Set(turn.fact?.body.kind === "laid" ? turn.fact.body.balls : []);
  const tell = (balls: readonly string[]): void =>
    say({
      kind: "laid",
      step: one.step.id,
      round: turn.subject as CodeOf<typeof LAID>,
      balls: [...balls],
    });
  const next = one.balls.find(({ id }) => !there.has(id));
  useGo(next && (() => tell([...there, next.id])));
  // Each side is a face of its own, and so is each picture.
  const faceOf = ({ side = "", picture = "" }: (typeof one.balls)[number]): string => `${side}|${picture}`;
  const faces = [...new Set(one.balls.map(faceOf))];
  const touch = (id: string): void =>
    tell(there.has(id) ? [...there].filter((each) => each !== id) : [...there, id]);
  return (
    <>
      <span className="stamp quiet">
        {turn.name}, {there.size} of {one.balls.length}
      </span>
      <Large>
        {next ? `${next.name ?? next.id.replaceAll("-", " ")}, ${lengthText(next.size, unit)}` : "All in"}
      </Large>
      {next && (next.material ?? next.side) && (
        <p className="text-xl">{[next.material, next.side].filter(Boolean).join(" · ")}</p>
      )}
      <div className="mt-2 grid gap-3 sm:grid-cols-2">
        {faces.map((face) => {
          const balls = one.balls.filter((ball) => faceOf(ball) === face);
          const { side, picture } = balls[0] ?? {};
          return (
            <figure key={face}>
              {side && <figcaption className="stamp">{side}</figcaption>}
              <FaceMap
                group={{ name: side ? `check balls, ${side}` : "check balls", places: balls }}
                picture={pictureIn(applied.present, picture)}
                next={next ? balls.indexOf(next) : null}
                isOn={(i) => there.has(balls[i]?.id ?? "")}
                isFull={(i) => there.has(balls[i]?.id ?? "")}
                isDashed={() => false}
                words={(i) => `, ${balls[i]?.name ?? balls[i]?.id ?? ""}`}
                onTouch={(i) => touch(balls[i]?.id ?? "")}
              />
            </figure>
          );
        })}
        <div className="flex flex-col gap-2">
          <button
            type="button"
            className="btn btn-primary btn-lg touch text-xl"
            onClick={() => next && tell([...there, next.id])}
          >
            {turn.subject === "laid" ? "It lies there" : "It is still there"} <kbd className="key">d</kbd>
          </button>
          <button type="button" className="btn touch" onClick={() => tell(one.balls.map(({ id }) => id))}>
            All {one.balls.length} counted
          </button>
          {there.size > 0 && <p className="text-lg">{turn.words}</p>}
        </div>
      </div>
    </>
  );
}
