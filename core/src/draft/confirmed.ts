/**
 * What a document has confirmed, for hearing its recording again: every strum that was checked by ear counts as certain
 * in the first pass of its riff, and a pass in which all strums are checked has no others. The hearing carries it to the
 * other passes; they may differ, so they are not taken for confirmed.
 */
import type { Confirmed, ConfirmedStrum } from '../mir';
import { passesOf, passTicksToSeconds, riffOfPass, strumNotes, type SongDocument } from '../riff';
import { EARLY_S } from '../units';

export function confirmedIn(document: SongDocument): Confirmed {
  const { riffs, sections, grid, tuning } = document;
  const spans: Confirmed['spans'][number][] = [];
  const strums: ConfirmedStrum[] = [];
  for (const riff of riffs) {
    const section = sections.find((s) => s.riffId === riff.id);
    const pass = section && passesOf(section, riff, grid)[0];
    if (!pass) continue;
    // What the other guitar plays sounds too and is not confirmed by this one.
    const played = riffOfPass(riff, section, pass).strums.filter((s) => !s.rest);
    const checked = played.filter((s) => s.trust === 'checked');
    for (const strum of checked) {
      const { startTicks, palmMute, dead } = strum;
      strums.push({
        timeS: passTicksToSeconds(pass, grid, startTicks),
        midi: strumNotes(strum, tuning).map((note) => note + pass.transpose),
        palmMuted: palmMute,
        dead,
      });
    }
    if (checked.length > 0 && checked.length === played.length && riff.guitar2.length === 0) {
      spans.push({ startS: pass.startS - EARLY_S, endS: pass.endS - EARLY_S });
    }
  }
  strums.sort((a, b) => a.timeS - b.timeS);
  return { referenceCents: document.referenceOffsetCents, spans, strums };
}
