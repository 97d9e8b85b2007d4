/**
 * What the ear decides about places of passes, written into the song: what is written stands, what was heard takes its place in the
 * riff or as a variation of this pass, or it stays in doubt. The places count as settled afterwards.
 */
import { writtenVoicings, type StringFret, type Tuning } from '../guitar';
import {
  barOf,
  barStartsTicks,
  changeRiff,
  keepVariation,
  NOTHING_WRITTEN,
  passesOf,
  PLAIN_STRUM,
  riffOfPass,
  riffTicks,
  setTrust,
  settle,
  settledAt,
  signatureOf,
  SIXTEENTH,
  strumNotes,
  variationOf,
  type PlaceInPass,
  type Riff,
  type Section,
  type SettledAnswer,
  type SongDocument,
  type Strum,
  type Variation,
} from '../riff';
import type { MidiNote, Ticks } from '../units';

/** A place of a pass, with a strum or without one. */
export interface AskedPlace {
  readonly sectionId: string;
  readonly pass: number;
  readonly ticks: Ticks;
  /** Null where nothing is written. */
  readonly strumId: string | null;
}

/** What sounds at a place, at the height that the riff is written at. */
export interface HeardThere {
  readonly midi: readonly MidiNote[];
  readonly palmMuted: boolean;
  readonly dead: boolean;
}

/** What takes the place of what is written there. */
export interface Instead {
  /** Null: nothing is struck there. */
  readonly heard: HeardThere | null;
  /** Where it is struck: the place itself, or one beside it. */
  readonly ticks: Ticks;
}

/** A fret along the neck, and a string across, weigh so much against the effort of a grip: as between strums, see `guitar`. */
const PER_FRET = 0.3;
const PER_STRING = 0.3;

/** The frets of these notes nearest to where the hand is; empty where the tuning has none. */
export function fretsNear(
  midi: readonly MidiNote[],
  hand: readonly StringFret[],
  tuning: Tuning,
): readonly StringFret[] {
  const pressed = hand.map((f) => f.fret).filter((fret) => fret > 0);
  const lowest = Math.max(...hand.map((f) => f.string));
  const [best] = writtenVoicings(midi, tuning)
    .map(({ frets, effort, position }) => {
      const along = position === null || pressed.length === 0 ? 0 : Math.abs(position - Math.min(...pressed));
      const across = hand.length === 0 ? 0 : Math.abs(Math.max(...frets.map((f) => f.string)) - lowest);
      return { frets, cost: effort + PER_FRET * along + PER_STRING * across };
    })
    .sort((a, b) => a.cost - b.cost);
  return best?.frets ?? [];
}

interface Found {
  readonly section: Section;
  readonly riff: Riff;
  /** The riff as the pass plays it. */
  readonly played: Riff;
  readonly strum: Strum | null;
}

function find(document: SongDocument, { sectionId, pass, strumId }: AskedPlace): Found | null {
  const section = document.sections.find((s) => s.id === sectionId);
  const riff = document.riffs.find((r) => r.id === section?.riffId);
  const there = section && riff && passesOf(section, riff, document.grid)[pass];
  if (!there) return null;
  const played = riffOfPass(riff, section, there);
  const strum = played.strums.find((s) => s.id === strumId) ?? null;
  return strumId !== null && !strum ? null : { section, riff, played, strum };
}

/** What stands at the place once it is written. */
function strumInstead(
  { played, strum }: Found,
  { heard, ticks }: Instead,
  tuning: Tuning,
  id: string,
): Strum | null {
  if (!heard) return null;
  const others = played.strums.filter((s) => s !== strum);
  const before = others.findLast((s) => s.startTicks < ticks && s.frets.length > 0);
  const next = others.find((s) => s.startTicks > ticks)?.startTicks ?? riffTicks(played);
  const isSame = strum !== null && strumNotes(strum, tuning).join() === heard.midi.join();
  const hand = strum && strum.frets.length > 0 ? strum.frets : (before?.frets ?? []);
  const frets = heard.dead || isSame ? (strum?.frets ?? []) : fretsNear(heard.midi, hand, tuning);
  return {
    ...(strum ?? { ...PLAIN_STRUM, durationTicks: Math.max(SIXTEENTH, next - ticks) }),
    ...(frets === strum?.frets ? {} : { writtenAs: null }),
    id,
    startTicks: ticks,
    frets: [...frets].sort((a, b) => b.string - a.string),
    dead: heard.dead,
    rest: false,
    palmMute: heard.palmMuted && !heard.dead,
    trust: 'checked',
  };
}

/** The tuning has frets for it, and the riff the place. */
function canWrite(riff: Riff, { heard, ticks }: Instead, now: Strum | null): boolean {
  const isPlayable = !heard || heard.dead || (now?.frets.length ?? 0) > 0;
  return isPlayable && ticks >= 0 && ticks < riffTicks(riff);
}

/** In order of time, with one strum in place of another, which may be none; whatever stands where it goes gives way. */
function exchanged(strums: readonly Strum[], old: Strum | null, now: Strum | null): Strum[] {
  const others = strums.filter((s) => s.id !== old?.id && s.startTicks !== now?.startTicks);
  return (now ? [...others, now] : others).sort((a, b) => a.startTicks - b.startTicks);
}

/** What is written at the place from now on. */
function signatureAt(document: SongDocument, place: AskedPlace, ticks: Ticks): PlaceInPass {
  const { sectionId, pass } = place;
  const strum = find(document, { ...place, strumId: null })?.played.strums.find(
    (s) => s.startTicks === ticks,
  );
  const written = strum && !strum.rest ? signatureOf(strum, document.tuning) : NOTHING_WRITTEN;
  return { sectionId, pass, ticks, written };
}

function settlePlaces(
  document: SongDocument,
  places: readonly AskedPlace[],
  ticksOf: (place: AskedPlace) => readonly Ticks[],
  answer: SettledAnswer,
): SongDocument {
  const asked = places.flatMap((place) => ticksOf(place).map((ticks) => signatureAt(document, place, ticks)));
  return settle(document, asked, answer);
}

/**
 * What is written stands, in all of these places. A strum that no pass leaves open any more counts as checked; `agrees` says where the
 * recording bears it out by itself.
 */
export function keepWritten(
  document: SongDocument,
  places: readonly AskedPlace[],
  agrees: (place: AskedPlace) => boolean,
): SongDocument {
  const settled = settlePlaces(document, places, ({ ticks }) => [ticks], 'kept');
  return places.reduce((song, place) => {
    const found = find(song, place);
    if (!found?.strum) return song;
    const isSettled = placesOfStrum(song, found.riff.id, found.strum.id).every(
      (one) => agrees(one) || isKept(song, one),
    );
    return isSettled ? setTrust(song, found.riff.id, new Set([found.strum.id]), 'checked') : song;
  }, settled);
}

function isKept(document: SongDocument, place: AskedPlace): boolean {
  const section = document.sections.find((s) => s.id === place.sectionId);
  return !!section && settledAt(section, signatureAt(document, place, place.ticks))?.answer === 'kept';
}

/** Where a strum is played: every pass that does not play something else instead. */
export function placesOfStrum(document: SongDocument, riffId: string, strumId: string): AskedPlace[] {
  const riff = document.riffs.find((r) => r.id === riffId);
  if (!riff) return [];
  return document.sections
    .filter((s) => s.riffId === riffId)
    .flatMap((section) =>
      passesOf(section, riff, document.grid).flatMap((pass) => {
        const strum = riffOfPass(riff, section, pass).strums.find((s) => s.id === strumId);
        return strum ? [{ sectionId: section.id, pass: pass.index, ticks: strum.startTicks, strumId }] : [];
      }),
    );
}

/** The place is left for later; its strum says so wherever it is seen. */
export function leaveDoubtful(document: SongDocument, place: AskedPlace): SongDocument {
  const found = find(document, place);
  if (!found) return document;
  const settled = settlePlaces(document, [place], ({ ticks }) => [ticks], 'doubtful');
  return found.strum ? setTrust(settled, found.riff.id, new Set([found.strum.id]), 'doubtful') : settled;
}

/**
 * What was heard is written where the strum stands, in the riff or in the variation that the pass plays: all passes that play it play that.
 * A stroke of the riff that falls under the variation is written there too, or this pass would not play it.
 */
export function changeRiffTo(
  document: SongDocument,
  place: AskedPlace,
  instead: Instead,
  newId: () => string,
): SongDocument {
  const found = find(document, place);
  if (!found) return document;
  const { riff, section, strum } = found;
  const now = strumInstead(found, instead, document.tuning, strum?.id ?? newId());
  if (!canWrite(riff, instead, now)) return document;
  const variation = variationOf(riff, section, place.pass);
  const isUnder =
    variation !== null && instead.ticks >= variation.fromTicks && instead.ticks < variation.toTicks;
  const isVaried = strum ? (variation?.strums ?? []).some((s) => s.id === strum.id) : isUnder;
  const copy = now && isUnder ? { ...now, id: newId() } : null;
  const changed = changeRiff(document, riff.id, (r) => ({
    ...r,
    strums: isVaried ? r.strums : exchanged(r.strums, strum, now),
    variations: r.variations.map((v) => {
      if (v.id !== variation?.id) return v;
      return { ...v, strums: isVaried ? exchanged(v.strums, strum, now) : exchanged(v.strums, null, copy) };
    }),
  }));
  return settlePlaces(changed, [place], ({ ticks }) => [ticks, instead.ticks], 'kept');
}

/** The bar of the place, and what the pass plays otherwise already. */
function spanOfVariation(
  riff: Riff,
  varied: Variation | null,
  { ticks }: AskedPlace,
  instead: Instead,
): [Ticks, Ticks] {
  const starts = [...barStartsTicks(riff), riffTicks(riff)];
  const places = [ticks, instead.ticks].map((t) =>
    barOf(riff, Math.min(Math.max(0, t), riffTicks(riff) - 1)),
  );
  const from = starts[Math.min(...places)];
  const to = starts[Math.max(...places) + 1];
  return varied ? [Math.min(from, varied.fromTicks), Math.max(to, varied.toTicks)] : [from, to];
}

/** What was heard is played in this pass alone: a variation of its bar. The riff stays as it is. */
export function changePassTo(
  document: SongDocument,
  place: AskedPlace,
  instead: Instead,
  { name, newId }: { readonly name: string; readonly newId: () => string },
): SongDocument {
  const found = find(document, place);
  if (!found) return document;
  const { riff, section, strum } = found;
  const now = strumInstead(found, instead, document.tuning, newId());
  if (!canWrite(riff, instead, now)) return document;
  const varied = variationOf(riff, section, place.pass);
  const [fromTicks, toTicks] = spanOfVariation(riff, varied, place, instead);
  // A pass that is cut plays a part of the riff; its variation is one of the whole.
  const whole = riffOfPass(riff, section, {
    ...passesOf(section, riff, document.grid)[place.pass],
    fromTicks: 0,
    toTicks: riffTicks(riff),
  });
  const isInside = (s: Strum): boolean => s.startTicks >= fromTicks && s.startTicks < toTicks;
  const copies = (strums: readonly Strum[]): Strum[] =>
    strums.filter(isInside).map((s) => (s.id === now?.id ? s : { ...s, id: newId() }));
  const variation: Variation = {
    id: newId(),
    name,
    fromTicks,
    toTicks,
    strums: copies(exchanged(whole.strums, strum, now)),
    guitar2: copies(whole.guitar2),
  };
  const changed = keepVariation(document, section.id, place.pass, variation);
  if (changed === document) return document;
  return settlePlaces(changed, [place], ({ ticks }) => [ticks, instead.ticks], 'kept');
}
