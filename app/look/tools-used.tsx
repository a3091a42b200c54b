import { BookPicture } from "~/pictures/shown";
import { pictureIn, type Book } from "~core/book";

/** The tools of a step, with what they must not be asked to do, and the drawings of those made here. */
export function ToolsUsed({ ids = [], present }: { ids?: readonly string[] | undefined; present: Book }) {
  const tools = ids.flatMap((id) => present.tools?.find((tool) => tool.id === id) ?? []);
  if (tools.length === 0) return null;
  return (
    <>
      <p className="mt-1">
        <span className="stamp quiet mr-2">Tools</span>
        {tools.map(({ name, limit }) => `${name}${limit ? ` (${limit})` : ""}`).join(", ")}
      </p>
      {tools.map(({ id, name, picture }) => (
        <BookPicture key={id} picture={pictureIn(present, picture)} words={name} />
      ))}
    </>
  );
}
