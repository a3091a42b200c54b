import { Delete } from "lucide-react";

const KEYS = ["1", "2", "3", "4", "5", "6", "7", "8", "9", ".", "0"];

/** A number pad for gloves: each key a good finger wide. Keeps the focus where it was, so that keys still work beside it. */
export function Pad({ onKey, onDelete }: { onKey: (key: string) => void; onDelete: () => void }) {
  const stay = (event: { preventDefault: () => void }): void => event.preventDefault();
  return (
    <div className="mt-2 grid grid-cols-3 gap-1.5" role="group" aria-label="Number pad">
      {KEYS.map((key) => (
        <button
          key={key}
          type="button"
          tabIndex={-1}
          className="btn touch text-2xl font-bold"
          onPointerDown={stay}
          onMouseDown={stay}
          onClick={() => onKey(key)}
        >
          {key}
        </button>
      ))}
      <button
        type="button"
        tabIndex={-1}
        className="btn touch"
        aria-label="Delete the last character"
        onPointerDown={stay}
        onMouseDown={stay}
        onClick={onDelete}
      >
        <Delete size={24} />
      </button>
    </div>
  );
}
