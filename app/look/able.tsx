import { abilityOf, type Book } from "~core/book";

/** What the book can do, and what it cannot yet; nothing of one that can do all. */
export function Able({ book }: { book: Book }) {
  const { can, cannot } = abilityOf(book);
  if (cannot.length === 0) return null;
  return (
    <p className="border-accent mb-3 border-l-4 pl-3 text-lg" data-able={can.length}>
      <b>Can:</b> {can.join(", ") || "keep jobs under its name"}. <b>Cannot yet:</b> {cannot.join(", ")}. A
      lead writes it into a draft, under Revisions.
    </p>
  );
}
