import { useInside } from "~/door/inside";
import { nameIn, type Book } from "~core/book";
import { kindOf, type Disagreement, type Fact, type Job } from "~core/fact";
import { useSayOf } from "~/say/use-say";

/** Where two people said different things without knowing of each other: until somebody says which holds, both stand here. */
export function Disagreements({ job, book, number }: { job: Job; book: Book; number: number }) {
  const say = useSayOf(number);
  if (job.disagreements.length === 0) return null;
  return (
    <section
      role="status"
      aria-label="Two words on one thing"
      className="plate border-warning no-print mb-2 border-2 px-4 py-2"
    >
      {job.disagreements.map((one) => (
        <div key={`${one.kind} ${one.key}`} className="py-1" data-disagreement={one.kind}>
          <p className="font-semibold">
            Two said different things without knowing of each other. Which is so?
          </p>
          <span className="mt-1 flex flex-wrap gap-2">
            {[one.holds, ...one.others].map((fact) => (
              <Word
                key={fact.id}
                fact={fact}
                book={book}
                holds={fact === one.holds}
                closed={job.closed !== null}
                onSay={() => say(fact.body)}
                kind={one.kind}
              />
            ))}
          </span>
        </div>
      ))}
    </section>
  );
}

function Word({
  fact,
  book,
  kind,
  holds,
  closed,
  onSay,
}: {
  fact: Fact;
  book: Book;
  kind: Disagreement["kind"];
  holds: boolean;
  closed: boolean;
  onSay: () => void;
}) {
  const { staff } = useInside();
  const { sentence, who, bench } = kindOf(kind);
  const words = sentence(fact.body, (id) => nameIn(book, id));
  const mayNot = closed || bench === false || (who !== undefined && !who.includes(staff.role));
  const said = (
    <>
      {words}
      <span className="quiet ml-1 font-normal">
        {fact.by}
        {holds && ", holds for now"}
      </span>
    </>
  );
  return mayNot ? (
    <b className="px-2 py-1">{said}</b>
  ) : (
    <button type="button" className="btn touch h-auto px-3 py-1" onClick={onSay}>
      {said}
    </button>
  );
}
