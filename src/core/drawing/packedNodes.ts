import type { Point } from '../geometry/point';
import { isPlace, isRadius, nodeKinds } from './nodes';
import type { Node, Run } from './schema';

/**
 * Nodes as numbers: float64 for each its point, its handles as far as it has them, its radius if it has one; and a byte for
 * each with its kind (place in `nodeKinds`) and bits for what it has.
 */
const [HAS_IN, HAS_OUT, HAS_RADIUS, KIND] = [8, 16, 32, 7];

/** So many numbers a node has at most. */
const MOST_NUMBERS = 7;

/** Writes nodes one after the other. -0 comes back as 0 (as from JSON). */
export class NodeWriter {
  private allNumbers = new Float64Array(64);
  private allFlags = new Uint8Array(16);
  private number = 0;
  private node = 0;

  get numbers(): Float64Array {
    return this.allNumbers.subarray(0, this.number);
  }

  get flags(): Uint8Array {
    return this.allFlags.subarray(0, this.node);
  }

  put(nodes: readonly Node[]): void {
    this.makeRoom(nodes.length);
    for (const { point, in: into, out, kind, radius } of nodes) {
      this.allFlags[this.node++] =
        nodeKinds.indexOf(kind) | (into ? HAS_IN : 0) | (out ? HAS_OUT : 0) | (radius === undefined ? 0 : HAS_RADIUS);
      this.write(point.x);
      this.write(point.y);
      for (const handle of [into, out]) {
        if (!handle) continue;
        this.write(handle.x);
        this.write(handle.y);
      }
      if (radius !== undefined) this.write(radius);
    }
  }

  /** The same of some that are numbers already, and moved since: `flags` of each, and all their numbers. */
  putPacked(flags: Uint8Array, numbers: Float64Array, { x, y }: Point): void {
    this.makeRoom(flags.length);
    let at = 0;
    for (const has of flags) {
      this.allFlags[this.node++] = has;
      this.write(numbers[at++] + x);
      this.write(numbers[at++] + y);
      for (const end = at + numbersBeside(has); at < end; at++) this.write(numbers[at]);
    }
  }

  private write(v: number): void {
    this.allNumbers[this.number++] = v || 0;
  }

  private makeRoom(count: number): void {
    const [nodes, numbers] = [this.node + count, this.number + count * MOST_NUMBERS];
    if (nodes > this.allFlags.length) {
      const more = new Uint8Array(2 * nodes);
      more.set(this.allFlags);
      this.allFlags = more;
    }
    if (numbers > this.allNumbers.length) {
      const more = new Float64Array(2 * numbers);
      more.set(this.allNumbers);
      this.allNumbers = more;
    }
  }
}

/** How many numbers a node has beside its place. */
const numbersBeside = (has: number): number =>
  (has & HAS_IN ? 2 : 0) + (has & HAS_OUT ? 2 : 0) + (has & HAS_RADIUS ? 1 : 0);

/** Takes a node's place and where its handles end; a handle that it does not have ends at its place. */
type TakePlaces = (x: number, y: number, inX: number, inY: number, outX: number, outY: number) => void;

/** Hands out nodes in the order in which they were written. */
export class NodeReader {
  private number = 0;
  private node = 0;

  constructor(
    private readonly numbers: Float64Array,
    private readonly flags: Uint8Array,
  ) {}

  get isAtEnd(): boolean {
    return this.number === this.numbers.length && this.node === this.flags.length;
  }

  /** @throws RangeError when there are not so many. */
  take(count: number): PackedNodes {
    const { numbers, flags, number, node } = this;
    for (let i = 0; i < count; i++) {
      this.number += 2 + numbersBeside(flags[this.node++]);
    }
    if (this.node > flags.length || this.number > numbers.length)
      throw new RangeError('the drawing is damaged: nodes are missing');
    return new PackedNodes(numbers, flags, number, node, count);
  }
}

/** Some nodes among many, maybe moved; made into objects when they are first asked for. */
export class PackedNodes {
  private nodes: readonly Node[] | null = null;

  constructor(
    private readonly numbers: Float64Array,
    private readonly flags: Uint8Array,
    private readonly number: number,
    private readonly node: number,
    readonly count: number,
    private readonly byX = 0,
    private readonly byY = 0,
  ) {}

  /** The same nodes elsewhere: as exact as moving each of them, where their places and all offsets lie on the grid. */
  moved({ x, y }: Point): PackedNodes {
    return new PackedNodes(this.numbers, this.flags, this.number, this.node, this.count, this.byX + x, this.byY + y);
  }

  /** Writes them behind others, as they are by now. */
  putInto(writer: NodeWriter): void {
    const flags = this.flags.subarray(this.node, this.node + this.count);
    writer.putPacked(flags, this.numbers.subarray(this.number), { x: this.byX, y: this.byY });
  }

  unpacked(): readonly Node[] {
    return (this.nodes ??= this.made());
  }

  private made(): Node[] {
    const { numbers, flags, count, byX, byY } = this;
    const nodes = new Array<Node>(count);
    let at = this.number;
    for (let i = 0; i < count; i++) {
      const has = flags[this.node + i];
      const point = { x: numbers[at++] + byX, y: numbers[at++] + byY };
      const into = has & HAS_IN ? { x: numbers[at++], y: numbers[at++] } : null;
      const out = has & HAS_OUT ? { x: numbers[at++], y: numbers[at++] } : null;
      const node = { point, in: into, out, kind: nodeKinds[has & KIND] };
      nodes[i] = has & HAS_RADIUS ? { ...node, radius: numbers[at++] } : node;
    }
    return nodes;
  }

  /** Goes through the places that they say. Written out, for it is done for very many at once. */
  eachPlace(take: TakePlaces): void {
    const { numbers, flags, node, count, byX, byY } = this;
    let at = this.number;
    for (let i = node; i < node + count; i++) {
      const has = flags[i];
      const x = numbers[at++] + byX;
      const y = numbers[at++] + byY;
      const inAt = at;
      if (has & HAS_IN) at += 2;
      const outAt = at;
      if (has & HAS_OUT) at += 2;
      const inX = inAt < outAt ? x + numbers[inAt] : x;
      const inY = inAt < outAt ? y + numbers[inAt + 1] : y;
      const outX = outAt < at ? x + numbers[outAt] : x;
      const outY = outAt < at ? y + numbers[outAt + 1] : y;
      if (has & HAS_RADIUS) at++;
      take(x, y, inX, inY, outX, outY);
    }
  }

  /** Whether any of them says a radius. */
  get saysRadius(): boolean {
    for (let i = this.node; i < this.node + this.count; i++) if (this.flags[i] & HAS_RADIUS) return true;
    return false;
  }

  /** Whether each of them is sound, as the schema has it. */
  areSound(): boolean {
    const { numbers, flags, node, count, byX, byY } = this;
    let at = this.number;
    for (let i = node; i < node + count; i++) {
      const has = flags[i];
      if ((has & KIND) >= nodeKinds.length) return false;
      if (!isPlace(numbers[at++] + byX) || !isPlace(numbers[at++] + byY)) return false;
      const end = at + (has & HAS_IN ? 2 : 0) + (has & HAS_OUT ? 2 : 0);
      for (; at < end; at++) if (!isPlace(numbers[at])) return false;
      if (has & HAS_RADIUS && !isRadius(numbers[at++])) return false;
    }
    return true;
  }

  /** Whether all that says where they are passes: their points and handles, each way. */
  everyPlace(passes: (v: number) => boolean): boolean {
    const { numbers, flags, node, count } = this;
    if (!passes(this.byX) || !passes(this.byY)) return false;
    let at = this.number;
    for (let i = node; i < node + count; i++) {
      const has = flags[i];
      const end = at + 2 + (has & HAS_IN ? 2 : 0) + (has & HAS_OUT ? 2 : 0);
      for (; at < end; at++) if (!passes(numbers[at])) return false;
      if (has & HAS_RADIUS) at++;
    }
    return true;
  }
}

/** Where a run keeps them. It is no part of the run: neither copied, nor compared, nor written. */
const PACKED = Symbol('packed nodes');
type WithPacked = { [PACKED]?: PackedNodes };

/** One for all runs, so that they are of one kind for the engine. */
const nodesSide: PropertyDescriptor & ThisType<WithPacked> = {
  enumerable: true,
  configurable: true,
  get() {
    return this[PACKED]!.unpacked();
  },
};

/** Something like `raw` whose nodes are these: in a drawing of very many lines those of most are not asked for at first. */
export function withPackedNodes<T extends object>(raw: T, packed: PackedNodes): T {
  const made = {} as T;
  Object.defineProperty(made, PACKED, { value: packed });
  for (const side in raw)
    if (side === 'nodes') Object.defineProperty(made, side, nodesSide);
    else made[side] = raw[side];
  return made;
}

/** Goes through the places that a run's nodes say, in their order. */
export function eachPlace(run: Run, take: TakePlaces): void {
  const packed = packedNodesOf(run);
  if (packed) return packed.eachPlace(take);
  for (const { point: p, in: into, out } of run.nodes)
    take(
      p.x,
      p.y,
      into ? p.x + into.x : p.x,
      into ? p.y + into.y : p.y,
      out ? p.x + out.x : p.x,
      out ? p.y + out.y : p.y,
    );
}

/** Whether any corner of a run is rounded off. */
export const isRounded = (run: Run): boolean =>
  packedNodesOf(run)?.saysRadius !== false && run.nodes.some((n) => n.radius);

/** How many nodes a run has. */
export const nodesIn = (run: Run): number => packedNodesOf(run)?.count ?? run.nodes.length;

/** A run's nodes as numbers, where it came so and has not been another since. */
export const packedNodesOf = (run: Run): PackedNodes | undefined => (run as WithPacked)[PACKED];
