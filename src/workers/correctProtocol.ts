/** `preview` answers while a hand is moving; `whole` is what is shown at rest. */
export type CorrectionSize = 'preview' | 'whole';
