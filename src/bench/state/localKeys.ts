/** The names under which the browser keeps what the page reads before any of the program has come. */
export const preferencesKey = 'yellow-quill-preferences';
export const LAST_SEEN = 'yellow-quill:last-seen:';
export const SESSION = 'yellow-quill:session:';
