/**
 * Tunings offered by name: sounding MIDI notes, lowest string first.
 * Source: standard tuning E2 A2 D3 G3 B3 E4 as in any guitar method; the others are common practice among
 * rock players and follow from their names (drop = lowest string a whole tone under standard, "fifths" =
 * root and fifth only). `prior` is how readily a player would assume the tuning before hearing anything,
 * common practice in rock, largest = most usual. A label carries both names where players use both.
 */
export const TUNINGS = [
  { name: 'standard', label: 'Standard', strings: [40, 45, 50, 55, 59, 64], prior: 1 },
  {
    name: 'half-step-down',
    label: 'Eb standard (half a step down)',
    strings: [39, 44, 49, 54, 58, 63],
    prior: 0.6,
  },
  {
    name: 'd-standard',
    label: 'D standard (a whole step down)',
    strings: [38, 43, 48, 53, 57, 62],
    prior: 0.4,
  },
  { name: 'c#-standard', label: 'C# standard (−3 frets)', strings: [37, 42, 47, 52, 56, 61], prior: 0.2 },
  { name: 'c-standard', label: 'C standard (−4 frets)', strings: [36, 41, 46, 51, 55, 60], prior: 0.25 },
  { name: 'b-standard', label: 'B standard (baritone)', strings: [35, 40, 45, 50, 54, 59], prior: 0.15 },
  { name: 'drop-d', label: 'Drop D', strings: [38, 45, 50, 55, 59, 64], prior: 0.7 },
  { name: 'drop-c#', label: 'Drop C# or Db', strings: [37, 44, 49, 54, 58, 63], prior: 0.4 },
  { name: 'drop-c', label: 'Drop C', strings: [36, 43, 48, 53, 57, 62], prior: 0.4 },
  { name: 'drop-b', label: 'Drop B', strings: [35, 42, 47, 52, 56, 61], prior: 0.2 },
  { name: 'double-drop-d', label: 'Double drop D', strings: [38, 45, 50, 55, 59, 62], prior: 0.1 },
  { name: 'open-d', label: 'Open D', strings: [38, 45, 50, 54, 57, 62], prior: 0.1 },
  { name: 'open-g', label: 'Open G', strings: [38, 43, 50, 55, 59, 62], prior: 0.05 },
  { name: 'open-fifth-d', label: 'Open fifths on D', strings: [38, 45, 50, 57, 62, 69], prior: 0.12 },
  { name: 'open-fifth-c', label: 'Open fifths on C', strings: [36, 43, 48, 55, 60, 67], prior: 0.12 },
  { name: 'seven-string', label: 'Seven strings', strings: [35, 40, 45, 50, 55, 59, 64], prior: 0.1 },
] as const;
