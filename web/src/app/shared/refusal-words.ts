/** Why an edit can't be made, in a sentence. */
import { FASTEST_BPM, type Refusal } from '@wild-needle/core/riff';

export function refusalWords(refusal: Refusal): string {
  switch (refusal.kind) {
    case 'too-few-bars':
      return 'There are too few bars to halve.';
    case 'too-many-bars-to-double':
      return 'There would be more bars than a song can have.';
    case 'too-late-to-double':
      return 'The last beat is too near to the hour at which a song ends: its half would lie behind it.';
    case 'too-fast-to-double':
      return `Its beats would come more than ${FASTEST_BPM} times a minute: nobody counts so fast.`;
    case 'odd-bars':
      return `Riff ${refusal.letter} has an odd number of bars: two of them can't become one.`;
    case 'starts-inside-bar':
      return `“${refusal.section}” begins in the middle of a longer bar.`;
    case 'ends-inside-bar':
      return `“${refusal.section}” ends in the middle of a longer bar.`;
    case 'uneven-bars':
      return `Bars ${refusal.bar} and ${refusal.bar + 1} do not make one even bar.`;
    case 'no-bars-here':
      return 'There are no bars here.';
    case 'no-gap-here':
      return 'There is no gap between the bars here.';
    case 'no-bars-on-side':
      return `There are no bars ${refusal.side === 'before' ? 'before' : 'behind'} this place.`;
    case 'is-played-here':
      return `“${refusal.section}” is played here: shorten or move it first.`;
    case 'no-beats':
      return 'There are no beats yet.';
    case 'has-pick-up':
      return `There is one, of ${refusal.beats === 1 ? 'a beat' : `${refusal.beats} beats`}.`;
    case 'pick-up-beats':
      return `A pick-up has from 1 to ${refusal.beats} beats.`;
    case 'too-few-beats-before':
      return 'The recording has too few beats before the first bar.';
    case 'no-section':
      return 'No section is chosen.';
    case 'not-inside':
      return `The needle is not inside of “${refusal.section}”.`;
    case 'begins-anew':
      return `“${refusal.section}” begins the riff anew: they can't be one.`;
    case 'begins-already':
      return `“${refusal.section}” begins here already.`;
    case 'no-next-section':
      return 'There is no section behind this one.';
    case 'other-riff':
      return `“${refusal.section}” plays another riff.`;
    case 'too-many-passes':
      return 'Together they would have too many passes.';
    case 'other-height':
      return `“${refusal.section}” plays the riff at another height.`;
    case 'bars-between':
      return `There ${refusal.bars === 1 ? 'is a bar' : `are ${refusal.bars} bars`} between them.`;
    case 'too-long-to-double':
      return `Riff ${refusal.letter} is too long to have twice as many bars.`;
    case 'odd-passes':
      return `“${refusal.section}” plays it ${refusal.passes} times: an odd pass would be left over.`;
    case 'not-two-riffs':
      return 'Choose two riffs.';
    case 'unequal-riffs':
      return `Riff ${refusal.letters[0]} and riff ${refusal.letters[1]} are not equally long.`;
  }
}
