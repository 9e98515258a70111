/** Where the server has a picture, in one of the sizes that it makes. */
export const pictureUrl = (hash: string, size: 'original' | 'screen' | 'half' | 'quarter' | 'thumb'): string =>
  `/api/pictures/${hash}?size=${size}`;

/** The picture that is there. Rejects where it cannot be had. */
export async function fetchedPicture(url: string): Promise<ImageBitmap> {
  const response = await fetch(url);
  if (!response.ok) throw new Error(String(response.status));
  return createImageBitmap(await response.blob());
}
