export { writeRiffTab, writeTextTab } from './text-tab/write';
export {
  parseLabelTrack,
  sectionsFromLabels,
  writeLabelTrack,
  writeSectionCsv,
} from './section-chart/section-chart';
