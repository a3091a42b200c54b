import { about, flag, maybeWords, object, oneOf, optional, tuple, uuid, whole, words } from "../../shape";
import { kind } from "../kind";

export const photo = kind("photo", object({ photo: uuid, caption: maybeWords(300), of: words(1, 80) }), {
  onCard: false,
  means: "a picture, and what it is of",
  about: ({ photo: id }) => id,
  sentence: ({ caption }) => `picture${caption ? `: ${caption}` : ""}`,
});

/** In thousandths of the picture's width and height. */
const point = tuple([whole(0, 1000), whole(0, 1000)]);
export const photoMark = kind(
  "photo-mark",
  object({
    photo: uuid,
    shape: oneOf("arrow", "circle"),
    from: point,
    to: point,
    there: flag,
    mark: about("The mark that is taken back.", optional(uuid)),
  }),
  {
    onCard: false,
    means: "an arrow or circle drawn on a picture, or taken back; in thousandths of its width and height",
    about: null,
    sentence: ({ shape, there }) => `${shape} ${there ? "drawn on" : "taken off"} a picture`,
  },
);
