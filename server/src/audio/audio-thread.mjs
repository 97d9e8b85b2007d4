/** Worker threads of Node 20 do not inherit the TypeScript loader: it is registered here before the entry. */
import { register } from 'tsx/esm/api';

register();
await import('./audio-thread.ts');
