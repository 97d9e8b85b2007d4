export { chordBoxes } from './chord-boxes';
export type { ChordBox } from './chord-boxes';
export { withEnding } from './endings';
export type { Bracket, WithEnding } from './endings';
export { paginate, paperOf, PAPERS, systemsOf } from './pages';
export type { Paper, PaperName, System } from './pages';
export { makeVersion, SHEET_VERSIONS, standardFor } from './versions';
export type { SheetVersion, VersionedSong } from './versions';
