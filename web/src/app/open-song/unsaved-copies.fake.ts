/** Copies in memory, for tests of what uses them. */
import type { LeftCopies, LeftCopy, UnreadableCopy, UnsavedCopies, UnsavedCopy } from './unsaved-copies';

/** Outlives the page that a test closes. */
export class FakeCopies implements Pick<UnsavedCopies, 'keep' | 'drop' | 'left' | 'forget'> {
  private page = 1;
  private readonly copies = new Map<string, UnsavedCopy>();
  hasRoom = true;
  unreadable: UnreadableCopy[] = [];

  /** The page is closed and another one opened. */
  nextPage(): void {
    this.page++;
  }

  /** What is kept, by page. */
  all(): UnsavedCopy[] {
    return [...this.copies.values()];
  }

  keep(_songId: string, copy: UnsavedCopy): Promise<boolean> {
    if (this.hasRoom) this.copies.set(String(this.page), copy);
    return Promise.resolve(this.hasRoom);
  }

  drop(): Promise<void> {
    return this.forget('', String(this.page));
  }

  left(): Promise<LeftCopies> {
    const readable = [...this.copies]
      .filter(([page]) => page !== String(this.page))
      .map(([page, copy], i): LeftCopy => ({ page, keptAt: i + 1, ...copy }))
      .reverse();
    return Promise.resolve({ readable, unreadable: this.unreadable });
  }

  forget(_songId: string, page: string): Promise<void> {
    this.copies.delete(page);
    this.unreadable = this.unreadable.filter((copy) => copy.page !== page);
    return Promise.resolve();
  }
}
