/**
 * Changes to a document. Each takes a document and returns a new one that shares what did not change; what
 * can't be done returns the same document. No change reads a clock or makes ids: the caller brings them.
 */
import { MAX_FRET, type StringFret } from '../guitar';
import type { StringNumber, Ticks } from '../units';
import type { NamedLoop, Riff, SongDocument, Strum } from './document';
import { riffTicks } from './grid';

function changeRiff(document: SongDocument, riffId: string, change: (riff: Riff) => Riff): SongDocument {
  const riff = document.riffs.find((r) => r.id === riffId);
  if (!riff) return document;
  const changed = change(riff);
  if (changed === riff) return document;
  return { ...document, riffs: document.riffs.map((r) => (r === riff ? changed : r)) };
}

function changeStrum(
  document: SongDocument,
  riffId: string,
  strumId: string,
  change: (strum: Strum) => Strum,
): SongDocument {
  return changeRiff(document, riffId, (riff) => {
    const strum = riff.strums.find((s) => s.id === strumId);
    if (!strum) return riff;
    const changed = change(strum);
    return changed === strum
      ? riff
      : { ...riff, strums: riff.strums.map((s) => (s === strum ? changed : s)) };
  });
}

function withFret(frets: readonly StringFret[], string: StringNumber, fret: number): StringFret[] {
  return [...frets.filter((f) => f.string !== string), { string, fret }].sort((a, b) => b.string - a.string);
}

/** Writes a fret on one string of a strum. A dead stroke becomes a played one. */
export function setFret(
  document: SongDocument,
  riffId: string,
  strumId: string,
  { string, fret }: StringFret,
): SongDocument {
  if (fret < 0 || fret > MAX_FRET || string < 1 || string > document.tuning.stringsMidi.length)
    return document;
  return changeStrum(document, riffId, strumId, (strum) =>
    !strum.dead && strum.frets.some((f) => f.string === string && f.fret === fret)
      ? strum
      : { ...strum, frets: withFret(strum.frets, string, fret), dead: false, trust: 'checked' },
  );
}

/** Takes a string out of a strum; the last one takes the strum with it. */
export function clearFret(
  document: SongDocument,
  riffId: string,
  strumId: string,
  string: StringNumber,
): SongDocument {
  const strum = document.riffs.find((r) => r.id === riffId)?.strums.find((s) => s.id === strumId);
  if (!strum?.frets.some((f) => f.string === string)) return document;
  if (strum.frets.length === 1) return removeStrum(document, riffId, strumId);
  return changeStrum(document, riffId, strumId, (s) => ({
    ...s,
    frets: s.frets.filter((f) => f.string !== string),
    trust: 'checked',
  }));
}

/** Replaces all strings of a strum, as when another voicing is chosen. */
export function setFrets(
  document: SongDocument,
  riffId: string,
  strumId: string,
  frets: readonly StringFret[],
): SongDocument {
  return changeStrum(document, riffId, strumId, (strum) => ({
    ...strum,
    frets: [...frets].sort((a, b) => b.string - a.string),
    dead: false,
    trust: 'checked',
  }));
}

/** A muted strum is not dead, and the other way round; the frets are kept for turning it back. */
export function togglePalmMute(document: SongDocument, riffId: string, strumId: string): SongDocument {
  return changeStrum(document, riffId, strumId, (s) => ({
    ...s,
    palmMute: !s.palmMute,
    dead: s.palmMute ? s.dead : false,
    trust: 'checked',
  }));
}

export function toggleDead(document: SongDocument, riffId: string, strumId: string): SongDocument {
  return changeStrum(document, riffId, strumId, (s) => ({
    ...s,
    dead: !s.dead,
    palmMute: s.dead ? s.palmMute : false,
    trust: 'checked',
  }));
}

export function markChecked(document: SongDocument, riffId: string, strumId: string): SongDocument {
  return changeStrum(document, riffId, strumId, (s) =>
    s.trust === 'checked' ? s : { ...s, trust: 'checked' },
  );
}

export function removeStrum(document: SongDocument, riffId: string, strumId: string): SongDocument {
  return changeRiff(document, riffId, (riff) => {
    const strums = riff.strums.filter((s) => s.id !== strumId);
    return strums.length === riff.strums.length ? riff : { ...riff, strums };
  });
}

/** Adds a strum; one that stands at the same place keeps its place and the new one is refused. */
export function addStrum(document: SongDocument, riffId: string, strum: Strum): SongDocument {
  return changeRiff(document, riffId, (riff) => {
    const taken = riff.strums.some((s) => s.startTicks === strum.startTicks || s.id === strum.id);
    if (taken || strum.startTicks < 0 || strum.startTicks >= riffTicks(riff)) return riff;
    const strums = [...riff.strums, strum].sort((a, b) => a.startTicks - b.startTicks);
    return { ...riff, strums };
  });
}

/** Keeps a loop under its name; one of the same name is moved. */
export function keepLoop(document: SongDocument, loop: NamedLoop): SongDocument {
  const others = document.loops.filter((l) => l.name !== loop.name && l.id !== loop.id);
  return { ...document, loops: [...others, loop].sort((a, b) => a.startS - b.startS) };
}

export function removeLoop(document: SongDocument, id: string): SongDocument {
  const loops = document.loops.filter((l) => l.id !== id);
  return loops.length === document.loops.length ? document : { ...document, loops };
}

/** Moves a strum in time; it keeps out of places where another one stands, and inside of the riff. */
export function moveStrum(document: SongDocument, riffId: string, strumId: string, by: Ticks): SongDocument {
  return changeRiff(document, riffId, (riff) => {
    const strum = riff.strums.find((s) => s.id === strumId);
    const startTicks = (strum?.startTicks ?? 0) + by;
    const isTaken = riff.strums.some((s) => s.startTicks === startTicks);
    if (!strum || isTaken || startTicks < 0 || startTicks >= riffTicks(riff)) return riff;
    const strums = riff.strums.map((s) => (s === strum ? { ...s, startTicks } : s));
    return { ...riff, strums: strums.sort((a, b) => a.startTicks - b.startTicks) };
  });
}

/** The first place behind a strum on a grid of `step`, before the next strum; null when there is none. */
export function placeBehind(riff: Riff, strumId: string, step: Ticks): Ticks | null {
  const index = riff.strums.findIndex((s) => s.id === strumId);
  if (index < 0) return riff.strums.length === 0 ? 0 : null;
  const end = riff.strums[index + 1]?.startTicks ?? riffTicks(riff);
  const place = (Math.floor(riff.strums[index].startTicks / step) + 1) * step;
  return place < end ? place : null;
}

export function setTuneTo(document: SongDocument, tuneTo: SongDocument['tuneTo']): SongDocument {
  return document.tuneTo === tuneTo ? document : { ...document, tuneTo };
}

/** How far the recording is off, as the user says. */
export function setReferenceCents(document: SongDocument, referenceOffsetCents: number): SongDocument {
  return { ...document, referenceOffsetCents };
}

export function setTitle(document: SongDocument, title: string, artist: string): SongDocument {
  return { ...document, title, artist };
}

/** Where a strum ends on screen and in tab: its written end, at the latest the next strum. */
export function soundingEndTicks(riff: Riff, index: number): Ticks {
  const strum = riff.strums[index];
  const next = riff.strums[index + 1]?.startTicks ?? riffTicks(riff);
  return Math.min(strum.startTicks + strum.durationTicks, next);
}
