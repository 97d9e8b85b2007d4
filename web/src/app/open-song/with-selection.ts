/** What is chosen in the open song: guitar, riff, section, strums, place and string, and the song as it is seen so. */
import { computed, type Signal } from '@angular/core';
import { patchState, signalStoreFeature, type, withComputed, withMethods, withState } from '@ngrx/signals';
import {
  asGuitar,
  passesOf,
  withVariation,
  type GuitarNumber,
  type SongDocument,
} from '@wild-needle/core/riff';

interface SelectionState {
  readonly riffId: string | null;
  readonly sectionId: string | null;
  readonly strumId: string | null;
  /** Other end of a selection of several strums; null while one is chosen. */
  readonly anchorId: string | null;
  /** Strums that were picked besides, one by one. */
  readonly pickedIds: ReadonlySet<string>;
  /** A place without a strum that is written next, in ticks of the riff; then no strum is chosen. */
  readonly placeTicks: number | null;
  /** Shown and written in place of the part of the riff that it stands for. */
  readonly variationId: string | null;
  /** Whose tab is shown. */
  readonly guitar: GuitarNumber;
  /** String that digits are written on, 1 = highest. */
  readonly string: number | null;
}

const NOTHING_SELECTED: SelectionState = {
  riffId: null,
  sectionId: null,
  strumId: null,
  anchorId: null,
  pickedIds: new Set(),
  placeTicks: null,
  variationId: null,
  guitar: 1,
  string: null,
};

export function withSelection() {
  return signalStoreFeature(
    { state: type<{ readonly document: SongDocument | null }>() },
    withState(NOTHING_SELECTED),
    withComputed(({ document, riffId, sectionId, strumId, anchorId, pickedIds, variationId, guitar }) => {
      /** The song as the shown guitar plays it. */
      const written: Signal<SongDocument | null> = computed(() => {
        const d = document();
        return d && asGuitar(d, guitar());
      });
      const variation = computed(
        () =>
          written()
            ?.riffs.find((r) => r.id === riffId())
            ?.variations.find((v) => v.id === variationId()) ?? null,
      );
      /** The chosen riff, with the chosen variation in its place. */
      const riff = computed(() => {
        const plain = written()?.riffs.find((r) => r.id === riffId()) ?? null;
        return plain && withVariation(plain, variation());
      });
      const section = computed(() => document()?.sections.find((s) => s.id === sectionId()) ?? null);
      return {
        written,
        variation,
        riff,
        section,
        /** Ids of the chosen strums. */
        selectedIds: computed((): ReadonlySet<string> => {
          const strums = riff()?.strums ?? [];
          const ends = [strumId(), anchorId() ?? strumId()].map((id) => strums.findIndex((s) => s.id === id));
          const picked = pickedIds();
          if (Math.min(...ends) < 0 && picked.size === 0) return new Set();
          const [from, to] = [Math.min(...ends), Math.max(...ends)];
          const isChosen = (id: string, i: number): boolean =>
            picked.has(id) || (from >= 0 && i >= from && i <= to);
          return new Set(strums.filter((s, i) => isChosen(s.id, i)).map((s) => s.id));
        }),
        /** Passes of the chosen section. */
        passes: computed(() => {
          const [d, s, r] = [document(), section(), riff()];
          // A part without a riff has none, whatever riff is shown.
          if (!d || !s || !r) return [];
          return r.id === s.riffId ? passesOf(s, r, d.grid) : [];
        }),
        strum: computed(() => riff()?.strums.find((s) => s.id === strumId()) ?? null),
      };
    }),
    withMethods((store) => {
      /** Chooses riff, section and strum; what the document does not have falls back to its first. */
      function selectRiff(riffId: string | null, sectionId: string | null = null): void {
        const document = store.written();
        const plain = document?.riffs.find((r) => r.id === riffId) ?? document?.riffs[0] ?? null;
        const variation = plain?.variations.find((v) => v.id === store.variationId()) ?? null;
        const riff = plain && withVariation(plain, variation);
        const ofRiff = document?.sections.filter((s) => s.riffId === riff?.id) ?? [];
        // A part without a riff is chosen by itself; the riff that is shown stays.
        const free = document?.sections.find((s) => s.id === sectionId && s.riffId === null);
        const section = free ?? ofRiff.find((s) => s.id === sectionId) ?? ofRiff[0] ?? null;
        const keepStrum = riff?.strums.some((s) => s.id === store.strumId());
        const strum = keepStrum ? null : (riff?.strums[0] ?? null);
        const keepPlace = riff?.id === store.riffId() && store.placeTicks() !== null;
        const isEmpty = riff?.strums.length === 0;
        patchState(store, {
          riffId: riff?.id ?? null,
          sectionId: section?.id ?? null,
          variationId: variation?.id ?? null,
          ...(keepStrum || keepPlace
            ? {}
            : {
                strumId: strum?.id ?? null,
                anchorId: null,
                pickedIds: new Set(),
                placeTicks: isEmpty ? 0 : null,
                string: strum?.frets[0]?.string ?? null,
              }),
        });
      }

      /** After the document has changed: what is chosen stays, as far as it is still there. */
      function keepSelection(): void {
        selectRiff(store.riffId(), store.sectionId());
      }

      return {
        selectRiff,
        keepSelection,

        /** Another song is opened. */
        dropSelection(): void {
          patchState(store, NOTHING_SELECTED);
        },

        /** Chooses a strum; those that were picked stay with it where that `keepsPicked`. */
        selectStrum(strumId: string, keepsPicked = false): void {
          const strum = store.riff()?.strums.find((s) => s.id === strumId);
          if (!strum) return;
          const keepsString = strum.frets.some((f) => f.string === store.string());
          patchState(store, {
            strumId,
            anchorId: null,
            placeTicks: null,
            ...(keepsPicked ? {} : { pickedIds: new Set() }),
            string: keepsString ? store.string() : (strum.frets[0]?.string ?? store.string()),
          });
        },

        selectString(string: number): void {
          patchState(store, { string });
        },

        /** Picks strums, or lets go of them where all are picked already. */
        pick(ids: readonly string[]): void {
          const picked = store.pickedIds();
          const isTaking = ids.some((id) => !picked.has(id));
          const rest = [...picked].filter((id) => !ids.includes(id));
          patchState(store, { pickedIds: new Set(isTaking ? [...rest, ...ids] : rest) });
        },

        /** Chooses all strums from the one that was chosen first to this one. */
        selectTo(strumId: string): void {
          if (store.strumId() === null) return;
          patchState(store, { anchorId: store.anchorId() ?? store.strumId(), strumId });
        },

        selectAll(): void {
          const strums = store.riff()?.strums ?? [];
          if (strums.length > 0)
            patchState(store, { anchorId: strums[0].id, strumId: strums.at(-1)!.id, placeTicks: null });
        },

        /** Chooses a place where nothing is written yet. */
        selectPlace(placeTicks: number): void {
          patchState(store, { placeTicks, strumId: null, anchorId: null, pickedIds: new Set() });
        },

        /** Lets go of the chosen strum: the neck then shows what the needle stands on. */
        selectNothing(): void {
          patchState(store, { placeTicks: null, strumId: null, anchorId: null, pickedIds: new Set() });
        },

        selectVariation(variationId: string | null): void {
          patchState(store, { variationId });
          keepSelection();
        },

        selectGuitar(guitar: GuitarNumber): void {
          patchState(store, {
            guitar: store.document()?.guitar2 ? guitar : 1,
            anchorId: null,
            pickedIds: new Set(),
            placeTicks: null,
          });
          keepSelection();
        },
      };
    }),
  );
}
