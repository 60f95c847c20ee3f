/** Input that can't be used, with the sentences that say why. */
export type Refused = { readonly sentences: readonly string[] };

/** Refuse input, in sentences. */
export const refuse = (...sentences: readonly string[]): Refused => ({ sentences });
