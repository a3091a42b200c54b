import { Loop, type DrawnLink } from "~/look/loop";
import { seatWord, type SeatLink } from "~core/book";
import type { Piece } from "~core/chain";
import type { Worksheet } from "~core/measure";
import { lengthText, type LengthUnit, type Nm } from "~core/quantity";
import { thickness } from "~core/select";
import { pieceText } from "./piece-text";

/** Colours that marks go by, as they are drawn; another is told in words alone. */
const COLOURS: Readonly<Record<string, string>> = {
  white: "#f4f2ea",
  yellow: "#e3b93c",
  red: "#b8402f",
  blue: "#3d6aa8",
  green: "#4c8a55",
  black: "#2b2b2b",
  brown: "#7a5637",
  brass: "#b6903f",
  grey: "#8b8f94",
};

/** A figure that is no pack's: its links as they add up, with what is in its seats, and a picture of each piece. */
export function ChainDrawing({
  sheet,
  result,
  unit,
  swaps = new Map(),
}: {
  sheet: Worksheet;
  /** What it comes to; null before anything was read. */
  result: Nm | null;
  unit: LengthUnit;
  /** What goes in instead, by seat. */
  swaps?: ReadonlyMap<string, Piece>;
}) {
  const { chain } = sheet.applied;
  const pieceOf = (id: string): Piece | null =>
    swaps.get(id) ?? sheet.seats.find(({ link }) => link.id === id)?.fitted ?? null;
  const selectives = chain.links.filter(([, kind]) => kind === "seat" || kind === "series");
  const links = chain.links.map((drawn): DrawnLink => {
    const [sign, , name, nominal] = drawn;
    const seatAt = selectives.indexOf(drawn);
    if (seatAt < 0) return { sign, words: name, size: nominal ?? null, implied: true, selective: false };
    const link = sheet.seats[seatAt]?.link;
    const piece = link && pieceOf(link.id);
    const is = piece && thickness(piece, link.tolerance);
    return { sign, words: link ? seatWord(link) : name, size: is?.value ?? null, selective: true };
  });
  // What was measured closes the loop: what is not a piece is as long as it has to be for that.
  const known = links.reduce((sum, { sign, size }) => sum + (sign === "+" ? 1 : -1) * (size ?? 0), 0);
  const open = links.findIndex(({ selective }) => !selective);
  const shown = links.map((link, i) =>
    i === open && result !== null
      ? { ...link, size: ((link.size ?? 0) + (link.sign === "+" ? 1 : -1) * (result - known)) as Nm }
      : link,
  );
  return (
    <div className="pb-2">
      <Loop chain={chain} links={shown} unit={unit} />
      <div className="flex flex-wrap gap-3">
        {sheet.seats.map(({ link }) => (
          <PiecePicture key={link.id} link={link} piece={pieceOf(link.id)} unit={unit} />
        ))}
      </div>
    </div>
  );
}

/** One piece as it is told: its kind, its colour, its tabs, its mark; and what it must not be confused with. */
export function PiecePicture({
  link,
  piece,
  unit,
}: {
  link: SeatLink;
  piece: Piece | null;
  unit: LengthUnit;
}) {
  const size = link.sizes.find(({ part, mark }) => (part ? part === piece?.part : mark === piece?.mark));
  const told = [size?.colour, size?.tabs === undefined ? "" : tabsText(size.tabs)].filter(Boolean).join(", ");
  const words = piece ? pieceText(piece, unit) : "not known";
  return (
    <figure className="flex items-center gap-3">
      <svg
        viewBox="-50 -50 100 100"
        className="w-20 shrink-0"
        role="img"
        aria-label={`${seatWord(link)}: ${words}`}
      >
        <Shape link={link} colour={COLOURS[size?.colour ?? ""]} tabs={size?.tabs ?? 0} />
      </svg>
      <figcaption className="text-sm leading-tight">
        <b className="block text-base">{words}</b>
        {told && <span className="block">{told}</span>}
        {piece?.measured !== undefined && piece.size !== undefined && (
          <span className="quiet block">marked {lengthText(piece.size, unit)}</span>
        )}
        {link.seat?.beside && <span className="text-warning block">not {link.seat.beside}</span>}
      </figcaption>
    </figure>
  );
}

const tabsText = (tabs: number): string => (tabs === 0 ? "no tab" : tabs === 1 ? "one tab" : `${tabs} tabs`);

function Shape({
  link: { kind },
  colour,
  tabs,
}: {
  link: SeatLink;
  colour: string | undefined;
  tabs: number;
}) {
  const fill = colour ? "stroke-ink" : "fill-brass stroke-ink";
  switch (kind) {
    case "pin":
      return (
        <g className={fill} strokeWidth="2" fill={colour}>
          <rect x="-8" y="-42" width="16" height="84" rx="6" />
          <path className="stroke-ink fill-none" d="M-8 26H8M-8 32H8" />
        </g>
      );
    case "screw":
      return (
        <g className="fill-brass stroke-ink" strokeWidth="2">
          <rect x="-7" y="-44" width="14" height="88" />
          <path className="fill-none" d="M-7 -34l14 5M-7 -24l14 5M-7 20l14 5M-7 30l14 5" />
          <path d="M-22 -8L-12 -16H12L22 -8V6L12 14H-12L-22 6z" />
        </g>
      );
    case "gear":
      return (
        <g className={fill} strokeWidth="2" fill={colour}>
          {Array.from({ length: 12 }, (_, i) => (
            <rect key={i} x="-5" y="-46" width="10" height="14" transform={`rotate(${i * 30})`} />
          ))}
          <circle r="36" />
          <circle r="16" className="fill-paper stroke-ink" />
        </g>
      );
    case "snap ring":
    case "groove":
      return (
        <path
          className="stroke-brass fill-none"
          strokeWidth="9"
          d="M-10 -36A37 37 0 1 0 10 -36M-10 -36l-4 12M10 -36l4 12"
        />
      );
    case "cut":
      return (
        <g className="fill-steel stroke-ink" strokeWidth="2">
          <rect x="-40" y="-10" width="80" height="34" />
          <path className="stroke-error fill-none" strokeDasharray="6 4" d="M-44 -22H44" />
        </g>
      );
    default:
      return (
        <g className={fill} strokeWidth="2" fill={colour}>
          {Array.from({ length: tabs }, (_, i) => (
            <rect key={i} x="-7" y="-48" width="14" height="18" transform={`rotate(${(i * 360) / tabs})`} />
          ))}
          <circle r="38" />
          <circle r="22" className="fill-paper stroke-ink" />
        </g>
      );
  }
}
