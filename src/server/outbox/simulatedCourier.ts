import { createHash } from 'node:crypto';
import { mkdir, readdir, writeFile } from 'node:fs/promises';
import path from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import sharp from 'sharp';
import { folder } from '../place';
import { LineBroke, Refused, type Courier, type HandInPlace, type Manifest, type Receipt } from './place';

const PRINT_DPI = 300;
const MOST_WEB = 2_000_000;
const [FRIDAY, HOUR, DAY_MS] = [5, 17, 86_400_000];
/** A file goes over in so many steps, of so many ms each on a plain line. */
const [STEPS, STEP_MS] = [20, 40];
const SLOW = 5;

type Simulated = Omit<HandInPlace, 'deadline'> & {
  deadline(now: number): number | null;
  slowness: number;
  /** Breaks half way at the first try. */
  isPoor?: boolean;
  /** Why a file is not taken; null where it is. */
  refusal(manifest: Manifest, file: Buffer): Promise<string | null>;
};

const kindOf = ({ name }: Manifest): string => name.split('.').at(-1) ?? '';

/** Friday at five, UTC: of this week, or of the next when that is over. */
function nextFriday(now: number): number {
  const at = new Date(now);
  at.setUTCHours(HOUR, 0, 0, 0);
  let time = at.getTime() + ((FRIDAY - at.getUTCDay() + 7) % 7) * DAY_MS;
  if (time <= now) time += 7 * DAY_MS;
  return time;
}

const places: readonly Simulated[] = [
  {
    id: 'catalogue',
    name: 'Seed catalogue, for print',
    takes: `PDF, or TIFF of ${PRINT_DPI} dpi and more`,
    formats: ['pdf', 'tiff'],
    deadline: nextFriday,
    slowness: 1,
    async refusal(manifest, file) {
      if (kindOf(manifest) === 'pdf') return null;
      const { density = 72 } = await sharp(file).metadata();
      return density < PRINT_DPI
        ? `A picture of ${density} dpi is too coarse for print; ${PRINT_DPI} are needed.`
        : null;
    },
  },
  {
    id: 'shop',
    name: 'Seed shop, for the web',
    takes: 'SVG, PNG, JPEG, WebP or AVIF up to 2 MB, over a slow line',
    formats: ['svg', 'png', 'jpeg', 'webp', 'avif'],
    deadline: () => null,
    slowness: SLOW,
    refusal: async ({ bytes }) => (bytes > MOST_WEB ? 'It is larger than 2 MB, which is too heavy for a page.' : null),
  },
  {
    id: 'mill',
    name: 'Mill press, out in the hills',
    takes: 'any kind; its line breaks now and then',
    formats: ['svg', 'pdf', 'png', 'jpeg', 'webp', 'avif', 'tiff'],
    deadline: () => null,
    slowness: 1,
    isPoor: true,
    refusal: async () => null,
  },
  {
    id: 'fair',
    name: 'Autumn fair, posters',
    takes: 'PDF',
    formats: ['pdf'],
    deadline: () => Date.UTC(2026, 9, 31, HOUR),
    slowness: 1,
    refusal: async () => null,
  },
];

/**
 * The way to made-up places, each a folder on this machine: what arrives is checked against its manifest and lies there with its
 * receipt.
 */
export class SimulatedCourier implements Courier {
  /** `pace`: how long a step takes beside the usual; tests hurry it. */
  constructor(private readonly pace = 1) {}

  places = async (): Promise<readonly HandInPlace[]> =>
    places.map(({ id, name, takes, formats, deadline }) => ({
      id,
      name,
      takes,
      formats,
      deadline: deadline(Date.now()),
    }));

  async send(
    id: string,
    manifest: Manifest,
    file: Buffer,
    { tries, onSent, signal }: Parameters<Courier['send']>[3],
  ): Promise<Receipt> {
    const place = places.find((p) => p.id === id);
    if (!place) throw new Refused('There is no such place.');
    for (let i = 1; i <= STEPS; i++) {
      await wait(STEP_MS * place.slowness * this.pace, undefined, { signal });
      if (place.isPoor && tries === 1 && i > STEPS / 2)
        throw new LineBroke('The line broke half way. Nothing arrived.');
      onSent(Math.round((file.length * i) / STEPS));
    }
    const at = Date.now();
    const deadline = place.deadline(at);
    if (deadline !== null && at > deadline)
      throw new Refused(`It closed on ${new Date(deadline).toISOString().slice(0, 10)}; nothing is taken any more.`);
    if (!place.formats.some((f) => f === kindOf(manifest)))
      throw new Refused(`A .${kindOf(manifest)} is not taken here, but ${place.takes}.`);
    if (createHash('sha256').update(file).digest('hex') !== manifest.sha256)
      throw new LineBroke('What arrived is not what was sent.');
    const reason = await place.refusal(manifest, file);
    if (reason) throw new Refused(reason);
    return kept(id, manifest, file, at);
  }
}

/** What was taken, in a folder of its own under the number of its receipt. */
async function kept(place: string, manifest: Manifest, file: Buffer, at: number): Promise<Receipt> {
  const tray = folder('handed-in', place);
  for (let count = (await readdir(tray)).length + 1; ; count++) {
    const number = `${place.slice(0, 2).toUpperCase()}-${new Date(at).getUTCFullYear()}-${String(count).padStart(4, '0')}`;
    const own = path.join(tray, number);
    // Two that arrive at once do not get one number.
    const isFree = await mkdir(own).then(
      () => true,
      () => false,
    );
    if (!isFree) continue;
    const receipt = { number, at };
    await writeFile(path.join(own, `file.${kindOf(manifest)}`), file);
    await writeFile(path.join(own, 'manifest.json'), JSON.stringify(manifest, null, 1));
    await writeFile(path.join(own, 'receipt.json'), JSON.stringify(receipt, null, 1));
    return receipt;
  }
}
