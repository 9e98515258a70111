import type { NoteKind } from '@/core/check/note';

/** Each kind of note for a person: one, several, and what is meant. */
export const noteWords: Record<NoteKind, { one: string; many: string; meaning: string }> = {
  gap: { one: 'gap', many: 'gaps', meaning: 'An end that nearly meets a line' },
  overhang: { one: 'overhang', many: 'overhangs', meaning: 'An end that sticks out beyond a line' },
  kink: { one: 'kink', many: 'kinks', meaning: 'A small turn where a curve should be smooth' },
  crumb: { one: 'crumb', many: 'crumbs', meaning: 'A line too short to be meant' },
  doubled: { one: 'doubled line', many: 'doubled lines', meaning: 'A line that runs along another' },
  stray: { one: 'stray node', many: 'stray nodes', meaning: 'A single node without a line' },
  needless: { one: 'needless node', many: 'needless nodes', meaning: 'The line is the same without it' },
  wild: { one: 'wild handle', many: 'wild handles', meaning: 'A handle longer than the way to the next node' },
  crossing: { one: 'self-crossing', many: 'self-crossings', meaning: 'A line that crosses itself' },
  outside: { one: 'line off the page', many: 'lines off the page', meaning: 'A line that leaves the page' },
};
