import { v7 as newId } from "uuid";
import { useJobView } from "~/view/view";
import { useSay } from "~/say/use-say";
import { placesOf } from "./places";

/** Where what comes off is laid; the last place is taken until another is picked. */
export function GoesTo({ place, onPick }: { place: string; onPick: (place: string) => void }) {
  const { job } = useJobView();
  const say = useSay();
  const places = placesOf(job);
  const trays = places.filter(({ sort }) => sort === "tray").length;
  const add = (): void => {
    const id = newId().slice(-8);
    say({ kind: "place", place: id, sort: "tray", name: `Tray ${trays + 1}` });
    onPick(id);
  };
  return (
    <div className="flex flex-wrap items-center gap-2" role="group" aria-label="Goes to">
      <span className="stamp quiet">Goes to</span>
      {places.map(({ id, name }) => (
        <button
          key={id}
          type="button"
          aria-pressed={id === place}
          className={`btn touch ${id === place ? "btn-secondary" : ""}`}
          onClick={() => onPick(id)}
        >
          {name}
        </button>
      ))}
      <button type="button" className="btn btn-ghost touch" onClick={add}>
        + tray
      </button>
    </div>
  );
}
