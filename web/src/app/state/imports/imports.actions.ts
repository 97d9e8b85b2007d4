import { createActionGroup, props } from '@ngrx/store';
import type { ImportAnswer } from '@wild-needle/contract';

export const importActions = createActionGroup({
  source: 'Import',
  events: {
    /** The bytes stay in the import service under this id; state holds no files. */
    'File Chosen': props<{ importId: string; fileName: string; songId: string | null }>(),
    'Import Cancelled': props<{ importId: string }>(),
    'Message Dismissed': props<{ importId: string }>(),
  },
});

export const importsApiActions = createActionGroup({
  source: 'Imports API',
  events: {
    'Bytes Sent': props<{ importId: string; share: number }>(),
    'Import Done': props<{ importId: string; answer: ImportAnswer }>(),
    'Import Failed': props<{ importId: string; message: string }>(),
  },
});
