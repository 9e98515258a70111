import { nodeKinds, type Node } from '../drawing/line';
import {
  nodesIn,
  NodeReader,
  NodeWriter,
  packedNodesOf,
  withPackedNodes,
  type PackedNodes,
} from '../drawing/packedNodes';
import type { Drawing, Item, Run } from '../drawing/schema';
import { upgradedDrawing } from '../drawing/upgrade';

/**
 * A drawing packed into bytes, to be kept and read in a fraction of the time that its JSON takes. Little-endian:
 *
 * | bytes | what |
 * | --- | --- |
 * | 4 | `YQD1` |
 * | 3 × 4 | unsigned integers: how many nodes, how many numbers, and how many bytes of text follow |
 * | 8 each | float64: numbers of the nodes (`drawing/packedNodes`) |
 * | 1 each | of each node its kind, and what it has |
 * | the rest | the drawing as JSON (UTF-8), where `nodes` is how many of the nodes above stand in its place, in their order |
 */
const MAGIC = 0x31445159;
const HEAD = 16;

/** Packs a drawing, or items. Numbers come back as they are, but for -0, which comes back as 0 (as from JSON). */
export function packed(whole: Drawing | readonly Item[]): Uint8Array {
  const writer = new NodeWriter();
  const text = new TextEncoder().encode(JSON.stringify(emptied(whole, writer)));
  const { numbers, flags } = writer;
  const bytes = new Uint8Array(HEAD + 8 * numbers.length + flags.length + text.length);
  new Uint32Array(bytes.buffer, 0, 4).set([MAGIC, flags.length, numbers.length, text.length]);
  new Float64Array(bytes.buffer, HEAD, numbers.length).set(numbers);
  bytes.set(flags, HEAD + 8 * numbers.length);
  bytes.set(text, HEAD + 8 * numbers.length + flags.length);
  return bytes;
}

/** The same with counts where there were nodes, which are written. */
function emptied(value: unknown, writer: NodeWriter): unknown {
  if (typeof value !== 'object' || value === null) return value;
  if (Array.isArray(value)) return value.map((side) => emptied(side, writer));
  const made: Record<string, unknown> = {};
  for (const key in value)
    made[key] =
      (key === 'nodes' ? countOf(value as Run, writer) : null) ?? emptied(value[key as keyof typeof value], writer);
  return made;
}

/** How many nodes something has, which are written then; null where there is more to them, or they are no nodes. */
function countOf(run: Run, writer: NodeWriter): number | null {
  const packedNodes = packedNodesOf(run);
  if (packedNodes) packedNodes.putInto(writer);
  else if (Array.isArray(run.nodes) && run.nodes.every(isPlainNode)) writer.put(run.nodes);
  else return null;
  return nodesIn(run);
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
export const unpacked = (bytes: Uint8Array): Drawing => upgradedDrawing(whatIsIn(bytes));

/**
 * The same without what lies on its sheets, in a fraction of the time: its page, and what lies under the work.
 * @throws RangeError says that the bytes are damaged, or what an upgrade says.
 */
export const unpackedBare = (bytes: Uint8Array): Drawing =>
  upgradedDrawing({ ...(JSON.parse(textIn(bytes, partsOf(bytes).textAt)) as object), sheets: [] });

/** The items in bytes that `packed` made in this program. @throws RangeError says that the bytes are damaged. */
export const unpackedItems = (bytes: Uint8Array): readonly Item[] => whatIsIn(bytes) as readonly Item[];

/** Where the parts of it begin. */
function partsOf(bytes: Uint8Array): { count: number; flagsAt: number; textAt: number } {
  if (!isPacked(bytes)) throw new RangeError('the drawing is damaged: it does not begin as one');
  const [nodes, count, textLength] = [4, 8, 12].map((at) =>
    new DataView(bytes.buffer, bytes.byteOffset).getUint32(at, true),
  );
  const flagsAt = HEAD + 8 * count;
  const textAt = flagsAt + nodes;
  if (bytes.length !== textAt + textLength) throw new RangeError('the drawing is damaged: it has not its length');
  return { count, flagsAt, textAt };
}

const textIn = (bytes: Uint8Array, at: number): string => new TextDecoder().decode(bytes.subarray(at));

function whatIsIn(given: Uint8Array): unknown {
  const { count, flagsAt, textAt } = partsOf(given);
  // Nodes are read later on: from a copy, whatever becomes of what was given.
  const bytes = given.slice();
  const numbers = new Float64Array(bytes.buffer, bytes.byteOffset + HEAD, count);
  const flags = bytes.subarray(flagsAt, textAt);
  const reader = new NodeReader(numbers, flags);
  const raw = filled(JSON.parse(textIn(bytes, textAt)), reader);
  if (!reader.isAtEnd) throw new RangeError('the drawing is damaged: nodes are left over');
  return raw;
}

/** Puts nodes back in their places, in the order in which they were taken out. */
function filled(value: unknown, reader: NodeReader): unknown {
  if (typeof value !== 'object' || value === null) return value;
  if (Array.isArray(value)) {
    for (let i = 0; i < value.length; i++) value[i] = filled(value[i], reader);
    return value;
  }
  const object = value as Record<string, unknown>;
  let nodes: PackedNodes | null = null;
  for (const key in object) {
    const side = object[key];
    if (key === 'nodes' && typeof side === 'number') nodes = reader.take(side);
    else if (typeof side === 'object') object[key] = filled(side, reader);
  }
  return nodes ? withPackedNodes(object, nodes) : object;
}
