/** `docs/accuracy.md` is written by several benchmarks, each a section of its own. */
import { execFileSync } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

const ROOT = join(import.meta.dirname, '../..');
const PATH = join(ROOT, 'docs/accuracy.md');

/** What other benchmarks have written, to be kept: all sections but those of these headings. */
export function sectionsBut(headings) {
  const [, ...sections] = readFileSync(PATH, 'utf8').split(/^(?=## )/m);
  return sections
    .filter((section) => !headings.some((heading) => section.startsWith(`## ${heading}\n`)))
    .join('');
}

/** Puts a section in place of the one with its heading, or at the end. */
export function writeSection(heading, text) {
  const [head, ...sections] = readFileSync(PATH, 'utf8').split(/^(?=## )/m);
  const section = `## ${heading}\n\n${text}\n\n`;
  const at = sections.findIndex((one) => one.startsWith(`## ${heading}\n`));
  if (at === -1)
    sections.push(`${sections.length > 0 && !sections.at(-1).endsWith('\n\n') ? '\n' : ''}${section}`);
  else sections[at] = section;
  writeFileSync(PATH, `${[head, ...sections].join('').trimEnd()}\n`);
  execFileSync('npx', ['--no-install', 'prettier', '--write', PATH], { cwd: ROOT, stdio: 'ignore' });
}
