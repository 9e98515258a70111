import { touchWords } from './touchWords';

test.each([
  ['click', 'tap'],
  ['Alt click an open end', '“free” and tap an open end'],
  ['Alt press and drag', '“free” and drag'],
  ['Shift', '“constrain”'],
  ['Ctrl', '“keep to nothing”'],
  ['hold V', 'hold “lift reference”'],
  ['Space drag', 'two fingers'],
  ['wheel', 'pinch'],
  ['Enter', '“end”'],
  ['drag inwards', 'drag inwards'],
])('%s is %s by touch', (keys, words) => expect(touchWords(keys)).toBe(words));
