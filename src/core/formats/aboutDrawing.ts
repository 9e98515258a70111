/** Where a packed drawing is sent, what else there is to say of it stands in this header, as JSON, percent-encoded. */
export const ABOUT_DRAWING = 'x-drawing';
