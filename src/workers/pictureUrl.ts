/** Where the server has a picture, in one of the sizes that it makes. */
export const pictureUrl = (hash: string, size: 'original' | 'screen' | 'half' | 'quarter' | 'thumb'): string =>
  `/api/pictures/${hash}?size=${size}`;
