/**
 * Decodes pictures that come from anywhere, in a process of its own that can be ended: what makes the decoder fail, hang or
 * swell takes nobody else along. One picture at a time.
 */
import sharp from 'sharp';
import workerpool from 'workerpool';

const MOST_MEMORY = 1_200 * 1024 * 1024;
const LOOK_MS = 50;
/** When it rests with more than this it is ended, and another begun. */
const MOST_AT_REST = 400 * 1024 * 1024;

sharp.concurrency(1);
sharp.cache(false);
// The decoder works beside this thread, so that this is looked at all the while.
setInterval(() => process.memoryUsage.rss() > MOST_MEMORY && process.exit(9), LOOK_MS).unref();

/**
 * Looks at a picture, decodes all of it, and writes it upright and no longer than `longest` px to `to`, as PNG where it lets
 * something through, else as JPEG. Gives what it is, or why it is refused.
 */
async function take(file, to, longest, mostPixels) {
  const header = await sharp(file, { limitInputPixels: false })
    .metadata()
    .catch(() => null);
  if (!header) return { refused: 'kind' };
  const { format, compression, width, height, density, autoOrient, hasAlpha } = header;
  if (format === 'svg' || (format === 'heif' && compression !== 'av1')) return { refused: 'kind' };
  if (width * height > mostPixels) return { refused: 'pixels', pixels: width * height };
  try {
    const upright = sharp(file, { limitInputPixels: mostPixels, failOn: 'truncated' })
      .autoOrient()
      .resize({ width: longest, height: longest, fit: 'inside', withoutEnlargement: true })
      .toColourspace('srgb');
    const encoded = hasAlpha
      ? upright.png({ compressionLevel: 3 })
      : upright.jpeg({ quality: 92, chromaSubsampling: '4:4:4' });
    await encoded.toFile(to);
  } catch {
    return { refused: 'broken' };
  }
  return { format, width: autoOrient.width, height: autoOrient.height, density };
}

/** Whether a picture decodes without a fault: what is shown all the same may make others fail that read the file. */
async function isClean(file) {
  return sharp(file, { limitInputPixels: false, failOn: 'error' })
    .stats()
    .then(
      () => true,
      () => false,
    );
}

workerpool.worker({
  isClean: async (file) => ({ isClean: await isClean(file), isSwollen: process.memoryUsage.rss() > MOST_AT_REST }),
  take: async (...args) => ({ ...(await take(...args)), isSwollen: process.memoryUsage.rss() > MOST_AT_REST }),
});
