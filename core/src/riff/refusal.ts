/** Why an edit can't be made: a code with what a sentence about it needs. The interface has the sentences. */
export type Refusal =
  | {
      readonly kind:
        | 'too-few-bars'
        | 'too-many-bars-to-double'
        | 'too-late-to-double'
        | 'too-fast-to-double'
        | 'no-bars-here'
        | 'no-gap-here'
        | 'no-beats'
        | 'too-few-beats-before';
    }
  | { readonly kind: 'no-bars-on-side'; readonly side: 'before' | 'behind' }
  | { readonly kind: 'no-section' | 'no-next-section' | 'too-many-passes' | 'not-two-riffs' }
  /** Two bars of it can't become one. */
  | { readonly kind: 'odd-bars' | 'too-long-to-double'; readonly letter: string }
  | {
      readonly kind:
        | 'starts-inside-bar'
        | 'ends-inside-bar'
        | 'other-riff'
        | 'other-height'
        | 'is-played-here'
        | 'not-inside'
        | 'begins-anew'
        | 'begins-already';
      readonly section: string;
    }
  /** Bars that do not make one, counted from 1. */
  | { readonly kind: 'uneven-bars'; readonly bar: number }
  | { readonly kind: 'has-pick-up' | 'pick-up-beats'; readonly beats: number }
  | { readonly kind: 'bars-between'; readonly bars: number }
  | { readonly kind: 'odd-passes'; readonly section: string; readonly passes: number }
  | { readonly kind: 'unequal-riffs'; readonly letters: readonly [string, string] };
