/** Pictures of pixels that a drawing can be made into. */
export const rasterFormats = ['png', 'jpeg', 'webp', 'avif', 'tiff'] as const;
export type RasterFormat = (typeof rasterFormats)[number];
export const fileFormats = ['svg', 'pdf', ...rasterFormats] as const;
export type FileFormat = (typeof fileFormats)[number];

export const isRaster = (format: FileFormat): format is RasterFormat => rasterFormats.some((f) => f === format);

/** How the kinds of files are told on the net (IANA media types). */
export const mimeOf: Readonly<Record<FileFormat, string>> = {
  svg: 'image/svg+xml; charset=utf-8',
  pdf: 'application/pdf',
  png: 'image/png',
  jpeg: 'image/jpeg',
  webp: 'image/webp',
  avif: 'image/avif',
  tiff: 'image/tiff',
};
