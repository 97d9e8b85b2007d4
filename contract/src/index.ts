export type AudioProblemCode = 'no-file'|'not-audio'|'empty'|'too-long'|'cut-off'|'silent'|'too-large';
