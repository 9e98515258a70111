/** How what is pressed is called where there is no keyboard: fingers, and the hand bar. */
const words: readonly [RegExp, string][] = [
  [/\bSpace drag\b/, 'two fingers'],
  [/^wheel$/, 'pinch'],
  [/\bhold V\b/, 'hold “lift reference”'],
  [/\bhold C\b/, 'hold “lift lines”'],
  [/\bhold X\b/, 'hold “before”'],
  [/\bdouble-click\b/, 'tap twice'],
  [/\bclick\b/, 'tap'],
  [/\bpress and drag\b/, 'drag'],
  [/\bAlt\b/, '“free” and'],
  [/\bShift\b/, '“constrain” and'],
  [/\bCtrl\b(?! A)/, '“keep to nothing” and'],
  [/^Enter$/, '“end”'],
  [/^Backspace$/, '“take back”'],
  [/^Delete$/, '“delete”'],
];

/** The keys of a hint as a hand without them has it: "“free” and tap". */
export const touchWords = (keys: string): string =>
  words.reduce((text, [key, word]) => text.replace(key, word), keys).replace(/ and$/, '');
