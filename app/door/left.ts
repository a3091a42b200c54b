/** The cookie a page sets when somebody signs out, also with the server away: the next request ends its session. */
export const LEFT = "yard-key-left";
