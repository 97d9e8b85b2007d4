import { mkdtempSync } from 'node:fs';
import { strangers } from './strangers';
strangers(mkdtempSync('/tmp/str-'), '/tmp/real/a');
