import type { useDialog } from "~/look/use-dialog";

/** Every key, as they are printed on the controls they work for. */
export function KeySheet({
  sheet: { dialog, drawn },
  footKey,
}: {
  sheet: Pick<ReturnType<typeof useDialog>, "dialog" | "drawn">;
  footKey: string;
}) {
  return (
    <dialog ref={dialog} className="plate text-base-content m-auto p-6" aria-label="Keys">
      {drawn && <Keys footKey={footKey} />}
    </dialog>
  );
}

function Keys({ footKey }: { footKey: string }) {
  const keys: [string, string][] = [
    ["Enter", "store the reading typed; a gauge that types does this by itself"],
    ["Space", `open the air, then take the reading (also ${footKey}, the foot switch)`],
    [
      "Esc",
      "leave the field; where a figure is awaited a letter works at once, and a digit goes into its field",
    ],
    ["t f n g", "read by typing, feeler, numbers, gauge"],
    ["a i r l", "a pack: as found, trial, ring, as built"],
    ["[ ]", "pack before, pack after"],
    ["u", "show millimetres or inches"],
    ["x", "axis of the job"],
    ["/", "find a figure in the book, from anywhere in a job or a book"],
    ["b", "build sheet"],
    ["d f", "tear down: step done, every bolt of it out"],
    ["d n", `build: yes to what is asked now, or no (yes also ${footKey}, the foot switch)`],
    ["a o", "inspect: all of them in good order, this one in good order and on"],
    ["j k", "inspect: the part below, the part above"],
    ["m", "bench: pick up the part in focus, arrows carry it, again lays it down"],
    ["?", "this sheet"],
  ];
  return (
    <>
      <h2 className="mb-3 text-xl font-bold">Keys</h2>
      <table>
        <tbody>
          {keys.map(([key, what]) => (
            <tr key={key}>
              <th scope="row" className="py-1 pr-5 text-left">
                {key.split(" ").map((one) => (
                  <kbd key={one} className="key mr-1 text-base">
                    {one}
                  </kbd>
                ))}
              </th>
              <td>{what}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <form method="dialog" className="mt-4">
        <button className="btn btn-primary touch">Close</button>
      </form>
    </>
  );
}
