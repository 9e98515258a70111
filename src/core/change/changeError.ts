/** A change that does not fit the drawing it was meant for. The drawing is as it was. */
export class ChangeError extends Error {
  override name = 'ChangeError';
}
