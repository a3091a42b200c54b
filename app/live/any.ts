/** What the stream says when it may be any job that has more facts: at its beginning, and when nobody listened for a while. */
export const ANY = "any";
