import { nodeKinds, type Node } from '../drawing/line';
import type { Drawing } from '../drawing/schema';
import { upgradedDrawing } from '../drawing/upgrade';

/**
 * A drawing packed into bytes, to be kept and read in a fraction of the time that its JSON takes. Little-endian:
 *
 * | bytes | what |
 * | --- | --- |
 * | 4 | `YQD1` |
 * | 3 × 4 | unsigned integers: how many nodes, how many numbers, and how many bytes of text follow |
 * | 8 each | float64: of each node its point, its handles as far as it has them, its radius if it has one |
 * | 1 each | of each node its kind (place in `nodeKinds`), and bits for what it has |
 * | the rest | the drawing as JSON (UTF-8), where `nodes` is how many of the nodes above stand in its place, in their order |
 */
const MAGIC = 0x31445159;
const HEAD = 16;
const [HAS_IN, HAS_OUT, HAS_RADIUS, KIND] = [8, 16, 32, 7];

/** Packs a drawing. Numbers come back as they are, but for -0, which comes back as 0 (as from JSON). */
export function packed(drawing: Drawing): Uint8Array {
  const numbers: number[] = [];
  const flags: number[] = [];
  const put = (node: Node): void => {
    flags.push(
      nodeKinds.indexOf(node.kind) |
        (node.in ? HAS_IN : 0) |
        (node.out ? HAS_OUT : 0) |
        (node.radius === undefined ? 0 : HAS_RADIUS),
    );
    numbers.push(node.point.x || 0, node.point.y || 0);
    if (node.in) numbers.push(node.in.x || 0, node.in.y || 0);
    if (node.out) numbers.push(node.out.x || 0, node.out.y || 0);
    if (node.radius !== undefined) numbers.push(node.radius || 0);
  };
  const text = new TextEncoder().encode(
    JSON.stringify(drawing, (key, value: unknown) => {
      if (key !== 'nodes' || !Array.isArray(value) || !value.every(isPlainNode)) return value;
      for (const node of value) put(node);
      return value.length;
    }),
  );
  const bytes = new Uint8Array(HEAD + 8 * numbers.length + flags.length + text.length);
  new Uint32Array(bytes.buffer, 0, 4).set([MAGIC, flags.length, numbers.length, text.length]);
  new Float64Array(bytes.buffer, HEAD, numbers.length).set(numbers);
  bytes.set(flags, HEAD + 8 * numbers.length);
  bytes.set(text, HEAD + 8 * numbers.length + flags.length);
  return bytes;
}

/** Whether all that a node says has its place above. */
function isPlainNode(value: unknown): value is Node {
  const node = value as Node;
  let sides = 0;
  for (const _ in node) sides++;
  return sides === (node.radius === undefined ? 4 : 5) && nodeKinds.includes(node.kind);
}

/** Whether bytes begin as a packed drawing does. */
export const isPacked = (bytes: Uint8Array): boolean =>
  bytes.length >= HEAD && new DataView(bytes.buffer, bytes.byteOffset).getUint32(0, true) === MAGIC;

/**
 * The drawing in bytes that `packed` made, in whichever program; upgraded, and taken for sound.
 * @throws RangeError says that the bytes are damaged, or what an upgrade says.
 */
export function unpacked(given: Uint8Array): Drawing {
  if (!isPacked(given)) throw new RangeError('the drawing is damaged: it does not begin as one');
  const bytes = given.byteOffset % 8 === 0 ? given : given.slice();
  const [, nodes, count, textLength] = new Uint32Array(bytes.buffer, bytes.byteOffset, 4);
  const flagsAt = HEAD + 8 * count;
  if (bytes.length !== flagsAt + nodes + textLength)
    throw new RangeError('the drawing is damaged: it has not its length');
  const numbers = new Float64Array(bytes.buffer, bytes.byteOffset + HEAD, count);
  const flags = bytes.subarray(flagsAt, flagsAt + nodes);
  const raw = JSON.parse(new TextDecoder().decode(bytes.subarray(flagsAt + nodes))) as unknown;
  const reader = new NodeReader(numbers, flags);
  reader.fill(raw);
  if (!reader.isAtEnd) throw new RangeError('the drawing is damaged: nodes are left over');
  return upgradedDrawing(raw);
}

/** Puts nodes back in their places, in the order in which they were taken out. */
class NodeReader {
  private number = 0;
  private node = 0;

  constructor(
    private readonly numbers: Float64Array,
    private readonly flags: Uint8Array,
  ) {}

  get isAtEnd(): boolean {
    return this.number === this.numbers.length && this.node === this.flags.length;
  }

  fill(value: unknown): void {
    if (typeof value !== 'object' || value === null) return;
    if (Array.isArray(value)) {
      for (const item of value) this.fill(item);
      return;
    }
    const object = value as Record<string, unknown>;
    for (const key in object) {
      const side = object[key];
      if (key === 'nodes' && typeof side === 'number') object.nodes = this.take(side);
      else if (typeof side === 'object') this.fill(side);
    }
  }

  private take(count: number): Node[] {
    if (this.node + count > this.flags.length) throw new RangeError('the drawing is damaged: nodes are missing');
    const nodes = new Array<Node>(count);
    for (let i = 0; i < count; i++) {
      const flags = this.flags[this.node++];
      const point = this.offset();
      const node = {
        point,
        in: flags & HAS_IN ? this.offset() : null,
        out: flags & HAS_OUT ? this.offset() : null,
        kind: nodeKinds[flags & KIND],
      };
      nodes[i] = flags & HAS_RADIUS ? { ...node, radius: this.numbers[this.number++] } : node;
    }
    return nodes;
  }

  private offset(): { x: number; y: number } {
    return { x: this.numbers[this.number++], y: this.numbers[this.number++] };
  }
}
