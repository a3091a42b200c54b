import type { ShownPicture } from "~core/book";

/** Where a book’s picture is shown from. */
export const pictureAt = (digest: string): string => `/pictures/${digest}`;

/** A picture of the book, as wide as its place; touched it opens whole. */
export function BookPicture({ picture, words }: { picture: ShownPicture | null; words?: string }) {
  if (!picture) return null;
  return (
    <a
      href={pictureAt(picture.digest)}
      target="_blank"
      rel="noreferrer"
      className="mt-2 inline-block max-w-full"
      data-picture={picture.digest.slice(0, 8)}
    >
      <img
        src={pictureAt(picture.digest)}
        alt={words ?? picture.name}
        className="border-base-300 block max-h-[40vh] max-w-full rounded border-2"
      />
    </a>
  );
}

/** The face itself, under what is drawn on it: as wide as it is told, and as high as the picture then is. */
export const FacePicture = ({ picture, wide }: { picture: ShownPicture; wide: number }) => (
  <image
    href={pictureAt(picture.digest)}
    width={wide}
    height={wide * picture.ratio}
    preserveAspectRatio="none"
    data-picture={picture.digest.slice(0, 8)}
  />
);
