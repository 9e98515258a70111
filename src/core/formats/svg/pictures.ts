import { sha256 } from '@noble/hashes/sha2';
import { bytesToHex } from '@noble/hashes/utils';
import { imageSize } from 'image-size';
import type { Picture } from '../../drawing/schema';

/** A picture that lies in an SVG, as it lies there. */
export type PictureBytes = {
  readonly hash: string;
  readonly mime: 'image/png' | 'image/jpeg';
  readonly bytes: Uint8Array;
  /** Its size once it stands upright, px. */
  readonly width: number;
  readonly height: number;
};

/** A picture is no larger than this, bytes; nor its sides, px. */
const MOST_BYTES = 60_000_000;
const MOST_SIDE = 60_000;

/** The picture of a `data:` address (RFC 2397), a PNG or JPEG; null for anything else, or what is none. */
export function pictureOf(href: string): PictureBytes | null {
  const head = /^\s*data:image\/[a-z+.-]{1,20}(?:;[^,;]{0,60}){0,4};base64,/i.exec(href.slice(0, 400));
  if (!head || href.length > MOST_BYTES * 1.4) return null;
  const bytes = decoded(href.slice(head[0].length));
  const mime = bytes && mimeOf(bytes);
  if (!bytes || !mime) return null;
  try {
    const { width, height, orientation = 1 } = imageSize(bytes);
    if (!(width > 0 && height > 0) || Math.max(width, height) > MOST_SIDE) return null;
    const isTurned = orientation >= 5;
    const upright = isTurned ? { width: height, height: width } : { width, height };
    return { hash: bytesToHex(sha256(bytes)), mime, bytes, ...upright };
  } catch {
    return null;
  }
}

function decoded(base64: string): Uint8Array | null {
  try {
    const text = atob(base64.replace(/%([0-9a-f]{2})/gi, (_, h: string) => String.fromCharCode(parseInt(h, 16))));
    const bytes = new Uint8Array(text.length);
    for (let i = 0; i < bytes.length; i++) bytes[i] = text.charCodeAt(i);
    return bytes;
  } catch {
    return null;
  }
}

function mimeOf(b: Uint8Array): PictureBytes['mime'] | null {
  if (b[0] === 0x89 && b[1] === 0x50 && b[2] === 0x4e && b[3] === 0x47) return 'image/png';
  return b[0] === 0xff && b[1] === 0xd8 && b[2] === 0xff ? 'image/jpeg' : null;
}

const brought = new WeakMap<object, PictureBytes>();

/** Notes which picture a placed one came with, so that it can be written again without a store to look in. */
export const keepBytes = (placed: Picture, bytes: PictureBytes): void => void brought.set(placed, bytes);
/** The picture that a placed one came with, if it came in an SVG and is still as it was. */
export const bytesOf = (placed: object): PictureBytes | undefined => brought.get(placed);

/** A picture's bytes as a `data:` address; an empty text for what is neither PNG nor JPEG. */
export function dataAddress(bytes: Uint8Array): string {
  const mime = mimeOf(bytes);
  if (!mime) return '';
  let text = '';
  for (let i = 0; i < bytes.length; i += 0x8000) text += String.fromCharCode(...bytes.subarray(i, i + 0x8000));
  return `data:${mime};base64,${btoa(text)}`;
}
