import { caps, joins } from './line';
import { areNodes } from './nodes';
import { isId } from './values';

/**
 * Whether a value is surely a sound line, of the kind that most are: inked in a colour or a swatch, with width marks or
 * without. There are very many of them: this sees it at once. What else may be sound is for the schema to say.
 */
export function isPlainLine(value: unknown): boolean {
  if (!hasOnly(value, LINE)) return false;
  const { id, runs, style, marks } = value;
  return isId(id) && isList(runs, 1, isRun) && isPlainStyle(style) && (!('marks' in value) || isList(marks, 0, isMark));
}

type Sides = Record<string, unknown>;
const LINE = new Set(['id', 'runs', 'style', 'marks']);
const RUN = new Set(['closed', 'nodes']);
const STYLE = new Set(['stroke', 'width', 'cap', 'join', 'fill']);
const MARK = new Set(['at', 'left', 'right', 'sharp']);
const SWATCH = new Set(['swatch']);
const SOLID = /^#[0-9a-f]{6}([0-9a-f]{2})?$/;
const MOST = 2_000;

function hasOnly(value: unknown, sides: ReadonlySet<string>): value is Sides {
  if (typeof value !== 'object' || value === null || Array.isArray(value)) return false;
  for (const side in value) if (!sides.has(side)) return false;
  return true;
}

const isList = (value: unknown, least: number, isSound: (v: unknown) => boolean): boolean =>
  Array.isArray(value) && value.length >= least && value.length <= MOST && value.every(isSound);

const isWithin = (v: unknown, most: number): boolean => typeof v === 'number' && v >= 0 && v <= most;

const isRun = (value: unknown): boolean =>
  hasOnly(value, RUN) && typeof value.closed === 'boolean' && areNodes(value.nodes, 1, 20_000);

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
