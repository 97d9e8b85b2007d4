/**
 * `npm run bench:screen -- correcting`: three songs that fluidsynth plays, put right on the screen until every pass of the tab is
 * what was played; the keys and clicks that took are written to `bench/screen/correcting.json`. A hand that knows what is
 * played goes from left to right: it picks what needs a mark, takes out what is too much, writes what is missing.
 */
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, type Page } from '@playwright/test';
import { openSongSchema, type OpenSong } from '@wild-needle/contract';
import { passesOf, riffOfPass, strumNotes, variationOf, type Pass } from '@wild-needle/core/riff';
import { test } from '../../e2e/support/app';
import { chordOf, renderRiff, strumsOf, type Arrangement } from '../../e2e/support/fluidsynth-riff';
import { Shelf } from '../../e2e/support/pages';
import { SONGS_TO_CORRECT } from './songs-to-correct';

type Document = OpenSong['document'];
type Riff = Document['riffs'][number];
type Strum = Riff['strums'][number];

/** Ticks of a beat, and how far a written strum may lie from where it was played. */
const BEAT = 960;
const SAME = 60;
const TITLE_OF = ({ name }: Arrangement): string => name.charAt(0).toUpperCase() + name.slice(1);

interface Wanted {
  readonly ticks: number;
  readonly notes: readonly number[];
  readonly muted: boolean;
}

class Hand {
  keys = 0;
  clicks = 0;
  constructor(
    private readonly page: Page,
    private readonly url: string,
    private readonly song: Arrangement,
  ) {}

  async press(...keys: string[]): Promise<void> {
    for (const key of keys) await this.page.keyboard.press(key);
    this.keys += keys.length;
  }

  private async click(strum: Strum, modifiers: 'Control'[] = []): Promise<void> {
    await this.turnTo(strum.startTicks);
    await this.page.locator(`#strum-${strum.id}`).click({ modifiers });
    this.clicks++;
  }

  async saved(): Promise<Document> {
    // A change is told a frame after its key.
    await this.page.waitForTimeout(300);
    await expect(this.page.locator('wn-header').getByText('Saved', { exact: true })).toBeVisible();
    const songId = new URL(this.page.url()).pathname.split('/')[2];
    const answer = await this.page.request.get(`${this.url}/api/songs/${songId}`);
    return openSongSchema.parse(await answer.json()).document;
  }

  /** What is played in the bars from one on, in ticks from there. */
  wanted(startS: number, bars: number): Wanted[] {
    const firstBar = Math.round((startS - 60 / this.song.bpm) / (240 / this.song.bpm));
    return strumsOf(this.song.bars)
      .map((s) => ({ ticks: (s.beat - 4 * firstBar) * BEAT, notes: chordOf(s.root), muted: s.muted }))
      .filter(({ ticks }) => ticks > -SAME && ticks < 4 * bars * BEAT - SAME);
  }

  /** The shown strums become what is wanted. */
  async correct(written: readonly Strum[], wanted: readonly Wanted[], document: Document): Promise<void> {
    const { tuning } = document;
    const partner = (w: Wanted): Strum | undefined =>
      written.find((s) => Math.abs(s.startTicks - w.ticks) < SAME);
    const pairs = wanted.map((w) => ({ w, s: partner(w) }));
    const known = new Set(pairs.map(({ s }) => s?.id));
    for (const s of written.filter(({ id }) => !known.has(id))) {
      await this.click(s);
      await this.press('Delete');
    }
    for (const { w, s } of pairs) {
      const notes = s ? strumNotes(s, tuning) : [];
      const tooMany = notes.filter((note) => !w.notes.includes(note));
      if (s && !s.dead && w.notes.every((note) => notes.includes(note))) {
        for (const note of tooMany) {
          const { string } = s.frets.find((f) => strumNotes({ ...s, frets: [f] }, tuning)[0] === note)!;
          await this.clickString(s, string);
          await this.press('Backspace');
        }
        continue;
      }
      // The chord anew, from its lowest note on the lowest string that has it.
      const open = tuning.stringsMidi[0] + tuning.capo;
      const [string, fret] = w.notes[0] - open <= 9 ? [6, w.notes[0] - open] : [5, w.notes[0] - open - 5];
      if (s) await this.clickString(s, string);
      else await this.clickPlace(w.ticks, string);
      await this.press(...String(fret).split(''), 'Shift+Digit2');
    }
    // Marks last, picked one by one and set by one key.
    const now = await this.shown();
    const other = wanted.flatMap((w) => {
      const s = now.find((one) => Math.abs(one.startTicks - w.ticks) < SAME);
      return s && s.palmMute !== w.muted ? [s] : [];
    });
    for (const muted of [false, true]) {
      const alike = other.filter((s) => s.palmMute === muted);
      for (const [i, s] of alike.entries()) await this.click(s, i === 0 ? [] : ['Control']);
      if (alike.length > 0) await this.press('m');
    }
  }

  /** A string of a strum: its digit, or the strum and then by keys. */
  private async clickString(strum: Strum, string: number): Promise<void> {
    await this.turnTo(strum.startTicks);
    const digits = this.page.locator(`#strum-${strum.id} text.digit`);
    const heights = await digits.evaluateAll((all) => all.map((d) => d.getBoundingClientRect().top));
    // The highest string lies on top.
    const strings = strum.frets.map((f) => f.string).sort((a, b) => a - b);
    const at = strings.indexOf(string);
    if (at !== -1) await digits.nth(heights.indexOf(heights.toSorted((a, b) => a - b)[at])).click();
    else await this.page.locator(`#strum-${strum.id}`).click();
    this.clicks++;
    const from = at === -1 ? strum.frets[0].string : string;
    const key = string < from ? 'Shift+ArrowUp' : 'Shift+ArrowDown';
    await this.press(...Array<string>(Math.abs(string - from)).fill(key));
  }

  /** Turns to the bar in which a place is, where it is not in view; answers the first bar in view, and how many. */
  private async turnTo(ticks: number): Promise<readonly [first: number, count: number]> {
    const inView = async (): Promise<number[]> =>
      (await this.page.locator('.bar-number').allInnerTexts()).map((text) => Number(text) - 1);
    const bar = Math.floor((ticks + SAME) / (4 * BEAT));
    if (!(await inView()).includes(bar)) {
      await this.page.getByRole('button', { name: `Bar ${bar + 1}`, exact: true }).click();
      this.clicks++;
    }
    const bars = await inView();
    return [bars[0], bars.length];
  }

  private async clickPlace(ticks: number, string: number): Promise<void> {
    const [first, count] = await this.turnTo(ticks);
    const row = this.page.getByRole('grid', { name: 'Written riff' }).locator('svg');
    const box = (await row.boundingBox())!;
    const y = await row
      .locator('line.string')
      .nth(string - 1)
      .getAttribute('y1');
    const x = ((ticks - first * 4 * BEAT) / (count * 4 * BEAT)) * box.width;
    await row.click({ position: { x: Math.max(1, x), y: Number(y) } });
    this.clicks++;
  }

  /** Strums of the shown riff or variation. */
  private async shown(): Promise<readonly Strum[]> {
    const { riffs } = await this.saved();
    const ids = await this.page
      .getByRole('grid', { name: 'Written riff' })
      .getByRole('gridcell')
      .evaluateAll((cells) => cells.map(({ id }) => id.slice('strum-'.length)));
    const all = riffs.flatMap((r) => [...r.strums, ...r.variations.flatMap((v) => v.strums)]);
    return ids.flatMap((id) => all.filter((s) => s.id === id));
  }

  /** A pass that plays something else, as a variation of its own. */
  async keepPass({ section, riff, pass }: WrongPass, before: Document): Promise<void> {
    await this.showRiff(riff.letter);
    if (!variationOf(riff, section, pass.index)) {
      const asked = this.page.getByRole('group', { name: `Pass ${pass.index + 1}: ` });
      if (await asked.isVisible()) await this.press('v');
      else {
        await this.page.getByRole('button', { name: `Decide on pass ${pass.index + 1}` }).click();
        await this.page.getByRole('menuitem', { name: 'Plays what was heard' }).click();
        this.clicks += 2;
      }
    }
    const document = await this.saved();
    const now = document.riffs.find((r) => r.id === riff.id)!;
    const at = document.sections.find((s) => s.id === section.id)!;
    const variation = variationOf(now, at, pass.index);
    if (!variation)
      throw new Error(`pass ${pass.index + 1} could not be kept: ${JSON.stringify(before.sections)}`);
    const wanted = this.wanted(pass.startS, pass.bars);
    const written = riffOfPass(now, at, pass).strums;
    await this.page.getByRole('radiogroup', { name: 'Variation' }).getByText(variation.name).click();
    this.clicks++;
    await this.correct(written, wanted, document);
  }

  async showRiff(letter: string): Promise<void> {
    const riff = this.page.getByRole('radio', { name: `Riff ${letter}` });
    if (await riff.isChecked()) return;
    await riff.click();
    this.clicks++;
  }
}

interface WrongPass {
  readonly section: Document['sections'][number];
  readonly riff: Riff;
  readonly pass: Pass;
  readonly words: string;
}

/** Passes of the song that are not written as they are played. */
function wrongPasses(document: Document, hand: Hand): WrongPass[] {
  return document.sections.flatMap((section) => {
    const riff = document.riffs.find((r) => r.id === section.riffId)!;
    return passesOf(section, riff, document.grid).flatMap((pass) => {
      const told = (list: readonly Wanted[]): string =>
        list.map((w) => `${Math.round(w.ticks / 120)}:${w.notes.join('.')}${w.muted ? 'm' : ''}`).join(' ');
      const written = riffOfPass(riff, section, pass).strums.map((s) => ({
        ticks: s.startTicks,
        notes: strumNotes(s, document.tuning),
        muted: s.palmMute,
      }));
      const wanted = hand.wanted(pass.startS, pass.bars);
      const words = `${section.name}, pass ${pass.index + 1}: ${told(written)} / ${told(wanted)}`;
      return told(written) === told(wanted) ? [] : [{ section, riff, pass, words }];
    });
  });
}

/** Keys and clicks that somebody needed who put three songs right on an earlier screen, from the hardest to the easiest. */
const BEFORE = [
  { keys: 86, clicks: 16 },
  { keys: 49, clicks: 56 },
  { keys: 26, clicks: 5 },
];

interface Result {
  readonly keys: number;
  readonly clicks: number;
  readonly before: { readonly keys: number; readonly clicks: number };
  readonly passesHeardWrongly: number;
  readonly wrong: readonly string[];
}

test('puts three songs right', async ({ app, page }, info) => {
  test.setTimeout(300_000);
  page.setDefaultTimeout(10_000);
  const results: Record<string, Result> = {};
  for (const [i, song] of SONGS_TO_CORRECT.entries()) {
    const shelf = new Shelf(page);
    await shelf.open(app.url);
    await shelf.choose(renderRiff(info.outputDir, { arrangement: song }));
    await expect(shelf.song(TITLE_OF(song)).getByText(/next: as it was heard/)).toBeVisible({
      timeout: 120_000,
    });
    const riffs = await shelf.openSong(TITLE_OF(song));
    await riffs.ready();
    const hand = new Hand(page, app.url, song);
    let document = await hand.saved();
    const heardWrongly = wrongPasses(document, hand).length;

    // Bars of half the length: the tempo was heard twice as fast.
    const { beatsS } = document.grid;
    const ratio = (60 / song.bpm / (beatsS[9] - beatsS[1])) * 8;
    if (ratio > 1.5) {
      await page.getByRole('tab', { name: 'Sections' }).click();
      await expect(page.getByText(`, ${document.grid.bars.length} bars`)).toBeVisible();
      await hand.press('h');
      await expect(page.getByText(`, ${document.grid.bars.length} bars`)).toBeHidden();
      await page.getByRole('tab', { name: 'Riffs' }).click();
      await expect(riffs.grid).toBeVisible();
      hand.clicks += 2;
      document = await hand.saved();
    }
    for (const { id, letter } of document.riffs) {
      const section = document.sections.find((s) => s.riffId === id);
      if (!section) continue;
      await hand.showRiff(letter);
      const riff = document.riffs.find((r) => r.id === id)!;
      const [pass] = passesOf(section, riff, document.grid);
      await hand.correct(riff.strums, hand.wanted(pass.startS, pass.bars), document);
      document = await hand.saved();
    }
    // What is left are passes that play something else: kept as variations, and put right in them.
    for (const left of wrongPasses(document, hand)) {
      await hand.keepPass(left, document);
      document = await hand.saved();
    }
    results[song.name] = {
      keys: hand.keys,
      clicks: hand.clicks,
      before: BEFORE[i],
      passesHeardWrongly: heardWrongly,
      wrong: wrongPasses(document, hand).map(({ words }) => words),
    };
  }
  // A song that is left wrong proves nothing.
  for (const { wrong } of Object.values(results)) expect(wrong).toEqual([]);
  writeFileSync(join(import.meta.dirname, 'correcting.json'), `${JSON.stringify(results, null, 2)}\n`);
});
