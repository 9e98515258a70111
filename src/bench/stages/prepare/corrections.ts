import type { CorrectionKind } from '@/core';

/** What each correction is called, and what it is for. */
export const correctionNames: Record<CorrectionKind, { name: string; what: string }> = {
  lens: { name: 'Lens', what: 'Straight lines that the lens has bent' },
  crop: { name: 'Crop', what: 'Cut off what is not needed' },
  turn: { name: 'Turn', what: 'Lay it straight' },
  straighten: { name: 'Straighten', what: 'See the page from straight above, by its four corners' },
  light: { name: 'Even light', what: 'Take shadows off the paper' },
  levels: { name: 'Ink and paper', what: 'What is darker is ink, what is lighter is paper' },
  denoise: { name: 'Denoise', what: 'Take out grain' },
  apart: { name: 'Set apart', what: 'Dim all but a thing' },
  simplify: { name: 'Simplify', what: 'Smooth texture away, but no edges' },
  steps: { name: 'Steps', what: 'Bring it down to a few tones or colours' },
  blur: { name: 'Blur', what: 'Smooth it' },
  grey: { name: 'Grey', what: 'Without colour' },
  threshold: { name: 'Threshold', what: 'Black or white, nothing between' },
  invert: { name: 'Invert', what: 'Light for dark' },
  tint: { name: 'Tint', what: 'In one colour' },
  twoTone: { name: 'Two colours', what: 'One for what is dark, one for the rest' },
};
