import { Link } from "react-router";

/** The tools the depths of work ask for, before a job starts; which of them the shop has is kept on the book's Service page. */
export function ToolsNeeded({
  unit,
  tools,
  depths,
  owned = [],
}: {
  unit: string;
  tools: readonly { id: string; name: string; depth?: string[] }[];
  depths: readonly string[];
  /** As `unit/tool`. */
  owned?: readonly string[];
}) {
  const needed = tools.filter((tool) => tool.depth?.some((one) => depths.includes(one)) ?? true);
  const missing = needed.filter(({ id }) => !owned.includes(`${unit}/${id}`));
  if (needed.length === 0) return null;
  return (
    <p className="border-accent mb-4 border-l-4 pl-3" role="status">
      {missing.length === 0 ? (
        <>All {needed.length} tools for this depth are here.</>
      ) : (
        <>
          <b>
            {missing.length} of {needed.length} tools not noted as here:
          </b>{" "}
          {missing.map(({ name }) => name).join(", ")}.{" "}
          <Link to={`/books/${unit}/service#tools`} className="underline underline-offset-4">
            What serves instead
          </Link>
        </>
      )}
    </p>
  );
}
