export { writeRiffTab, writeTextTab } from './text-tab/write';
