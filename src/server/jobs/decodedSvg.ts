import { gunzipSync } from 'node:zlib';

/** Packed or not, an SVG has no more bytes than this. */
const MOST_BYTES = 120_000_000;
/** What says how a text is written stands within so many bytes. */
const HEAD = 200;

/**
 * An SVG's text, in the encoding that it says it has (XML 1.0, 4.3.3 and appendix F); packed ones (svgz) too.
 * @throws RangeError for one that is packed badly or too large, or written in an encoding that is not known.
 */
export function decodedSvg(packed: Uint8Array): string {
  const bytes = packed[0] === 0x1f && packed[1] === 0x8b ? unpacked(packed) : packed;
  const label = encodingOf(bytes);
  let decoder: TextDecoder;
  try {
    decoder = new TextDecoder(label);
  } catch {
    throw new RangeError(`the SVG is written in an encoding that is not known: ${label.slice(0, 40)}`);
  }
  return decoder.decode(bytes);
}

function unpacked(bytes: Uint8Array): Uint8Array {
  try {
    return gunzipSync(bytes, { maxOutputLength: MOST_BYTES });
  } catch (error) {
    const isTooLarge = (error as { code?: string }).code === 'ERR_BUFFER_TOO_LARGE';
    throw new RangeError(isTooLarge ? 'the SVG is too long to be read' : 'the packed SVG is damaged or cut short');
  }
}

function encodingOf(b: Uint8Array): string {
  if (b[0] === 0xff && b[1] === 0xfe) return 'utf-16le';
  if (b[0] === 0xfe && b[1] === 0xff) return 'utf-16be';
  // Without a mark, by what `<?` is written as.
  if (b[0] === 0x3c && b[1] === 0) return 'utf-16le';
  if (b[0] === 0 && b[1] === 0x3c) return 'utf-16be';
  const head = new TextDecoder('latin1').decode(b.subarray(0, HEAD));
  return /^[^<]{0,3}<\?xml[^>]{0,150}encoding\s{0,5}=\s{0,5}["']([\w.:-]{1,40})["']/.exec(head)?.[1] ?? 'utf-8';
}
