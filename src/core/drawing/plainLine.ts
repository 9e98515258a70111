import { caps, joins, type Run } from './line';
import { areNodes } from './nodes';
import { packedNodesOf } from './packedNodes';
import { hasOnly, isId } from './values';

/**
 * Whether a value is surely a sound line, of the kind that most are: inked in a colour or a swatch, with width marks or
 * without. There are very many of them: this sees it at once. What else may be sound is for the schema to say.
 */
export function isPlainLine(value: unknown): boolean {
  if (!hasOnly(value, LINE)) return false;
  const { id, runs, style, marks } = value;
  return isId(id) && isList(runs, 1, isRun) && isPlainStyle(style) && (!('marks' in value) || isList(marks, 0, isMark));
}

const LINE = new Set(['id', 'runs', 'style', 'marks']);
const RUN = new Set(['closed', 'nodes']);
const STYLE = new Set(['stroke', 'width', 'cap', 'join', 'fill']);
const MARK = new Set(['at', 'left', 'right', 'sharp']);
const SWATCH = new Set(['swatch']);
const SOLID = /^#[0-9a-f]{6}([0-9a-f]{2})?$/;
const MOST = 2_000;
const MOST_NODES = 20_000;

const isList = (value: unknown, least: number, isSound: (v: unknown) => boolean): boolean =>
  Array.isArray(value) && value.length >= least && value.length <= MOST && value.every(isSound);

const isWithin = (v: unknown, most: number): boolean => typeof v === 'number' && v >= 0 && v <= most;

function isRun(value: unknown): boolean {
  if (!hasOnly(value, RUN) || typeof value.closed !== 'boolean') return false;
  // Those that nobody has asked for yet are seen to be sound as the numbers that they are.
  const packed = packedNodesOf(value as Run);
  if (packed) return packed.count >= 1 && packed.count <= MOST_NODES && packed.areSound();
  return areNodes(value.nodes, 1, MOST_NODES);
}

const isPlainStyle = (value: unknown): boolean =>
  hasOnly(value, STYLE) &&
  isPlainPaint(value.stroke) &&
  (value.fill === null || isPlainPaint(value.fill)) &&
  isWithin(value.width, 10_000) &&
  caps.includes(value.cap as never) &&
  joins.includes(value.join as never);

const isPlainPaint = (value: unknown): boolean =>
  typeof value === 'string' ? SOLID.test(value) : hasOnly(value, SWATCH) && isId(value.swatch);

const isMark = (value: unknown): boolean =>
  hasOnly(value, MARK) &&
  isWithin(value.at, 1) &&
  isWithin(value.left, 10_000) &&
  isWithin(value.right, 10_000) &&
  (!('sharp' in value) || typeof value.sharp === 'boolean');
