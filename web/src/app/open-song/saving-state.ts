/** What is known of saving: how far the server has the song, why it has not, and what else is kept of it. */
import type { Recording } from '@wild-needle/contract';
import type { Analysis } from '@wild-needle/core/analysis';
import type { HandField, SongDocument } from '@wild-needle/core/riff';
import type { ApiError } from '../api/api';
import type { LeftCopy, UnreadableCopy } from './unsaved-copies';

/**
 * 'failing': the server does not answer and is tried again; 'refused': it does not take the document as it is; 'removed': there
 * is no such song any more.
 */
export type SaveStatus = 'saved' | 'unsaved' | 'saving' | 'failing' | 'refused' | 'conflict' | 'removed';

/** In these the server has not everything, and may never have. */
export const IN_TROUBLE: readonly SaveStatus[] = ['failing', 'refused', 'conflict', 'removed'];

export interface Version {
  readonly revision: number;
  readonly document: SongDocument;
}

interface SavingState {
  readonly songId: string | null;
  readonly status: 'closed' | 'opening' | 'open' | 'failed';
  /** Why it can't be opened, in words. */
  readonly problem: string | null;
  /** The one that the tab is written to. */
  readonly recording: Recording | null;
  /** All of the song. */
  readonly recordings: readonly Recording[];
  readonly analysis: Analysis | null;
  /** Newest revision that this window knows; its changes build on it. */
  readonly revision: number;
  readonly saveStatus: SaveStatus;
  /** Why the server refuses the document, in words; null while it does not. */
  readonly refusal: string | null;
  /** What the other window saved, while the choice is open. */
  readonly theirs: Version | null;
  /** Why it is failing. */
  readonly failure: ApiError['code'] | null;
  /** Whether what is unsaved is kept on this computer; false where the browser has no room or forbids it. */
  readonly isKept: boolean;
  /** Unsaved versions that other windows have left, beside the one that is shown. */
  readonly left: readonly LeftCopy[];
  /** Unsaved copies of before that can't be shown. */
  readonly unreadable: readonly UnreadableCopy[];
  /** What the draft of the analysis has left as it was set by hand, until it was read. */
  readonly keptFromDraft: readonly HandField[];
}

export const NOTHING_OPEN: SavingState = {
  songId: null,
  status: 'closed',
  problem: null,
  recording: null,
  recordings: [],
  analysis: null,
  revision: 0,
  saveStatus: 'saved',
  refusal: null,
  theirs: null,
  failure: null,
  isKept: true,
  left: [],
  unreadable: [],
  keptFromDraft: [],
};

/** The server has answered that it won't, and will answer the same the next time. */
export function isRefusal({ code }: ApiError): boolean {
  return code === 'invalid-request' || code === 'forbidden';
}

/** Whoever asks is answered again as soon as the server, or its database, is back. */
export function isAway(error: ApiError): boolean {
  return error.code === 'unreachable' || error.code === 'unavailable';
}
