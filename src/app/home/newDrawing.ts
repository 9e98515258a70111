import { ask, askJson, sendPicture } from '@/bench/state/api';

export type Page = { width: number; height: number; unit: 'px' | 'mm' | 'in'; dpi: number };

/** Pages to begin with. */
export const pages: Record<string, { label: string; page: Page }> = {
  postcard: { label: 'Postcard, 148 x 105 mm', page: { width: 148, height: 105, unit: 'mm', dpi: 300 } },
  'small sheet': { label: 'Small sheet, 148 x 210 mm', page: { width: 148, height: 210, unit: 'mm', dpi: 300 } },
  'letter sheet': { label: 'Sheet, 210 x 297 mm', page: { width: 210, height: 297, unit: 'mm', dpi: 300 } },
  screen: { label: 'Screen, 1600 x 1000 px', page: { width: 1600, height: 1000, unit: 'px', dpi: 96 } },
};

export const makeDrawing = (title: string, page: Page): Promise<{ id: string }> =>
  askJson('/api/drawings', 'POST', { title, page });

/**
 * A drawing with a picture under it. The page is as large as the picture in print, when the file tells its dpi by
 * looking like a scan; else its longer side is 200 mm. When the picture is refused, no drawing is left behind.
 */
export async function makeFromPicture(file: File): Promise<{ id: string }> {
  const title =
    file.name
      .replace(/\.[^.]+$/, '')
      .replace(/[-_]+/g, ' ')
      .trim()
      .slice(0, 200) || 'Untitled';
  const { width, height } = await uprightSize(file);
  const k = 200 / Math.max(width, height);
  const mm = (px: number) => Math.max(1, Math.round(px * k * 100) / 100);
  const { id } = await makeDrawing(title, { width: mm(width), height: mm(height), unit: 'mm', dpi: 300 });
  try {
    await sendPicture(id, file, file.name || 'pasted picture', true);
    return { id };
  } catch (error) {
    await ask(`/api/drawings/${id}`, { method: 'DELETE' });
    await ask(`/api/drawings/${id}?forever=1`, { method: 'DELETE' });
    throw error;
  }
}

/** The size of a picture as it will be seen; that of a square when the browser cannot read it, for the server to tell why. */
async function uprightSize(file: File): Promise<{ width: number; height: number }> {
  const url = URL.createObjectURL(file);
  try {
    const image = new Image();
    image.src = url;
    await image.decode();
    return { width: image.naturalWidth, height: image.naturalHeight };
  } catch {
    return { width: 1, height: 1 };
  } finally {
    URL.revokeObjectURL(url);
  }
}
