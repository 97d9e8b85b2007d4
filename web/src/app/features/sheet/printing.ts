/**
 * The pages of the sheet on paper. For the time of printing copies of them stand alone in the window, at their own size: whatever way it
 * was asked for, by the button, by the browser's menu, or from outside.
 */
import { DestroyRef, DOCUMENT, inject, Injectable } from '@angular/core';
import { PAPERS, type PaperName } from '@wild-needle/core/sheet';

const HATCH = 'hatch-on-paper';

@Injectable()
export class Printing {
  private readonly page = inject(DOCUMENT);
  private host: HTMLElement | null = null;
  private style: HTMLStyleElement | null = null;
  /** The pages as they are on screen, and the paper that they are for. */
  source: () => {
    readonly pages: readonly HTMLElement[];
    readonly paper: PaperName;
    readonly isUpright: boolean;
  } = () => ({
    pages: [],
    paper: 'a4',
    isUpright: false,
  });

  constructor() {
    const view = this.page.defaultView;
    const [put, clear] = [() => this.put(), () => this.clear()];
    view?.addEventListener('beforeprint', put);
    view?.addEventListener('afterprint', clear);
    inject(DestroyRef).onDestroy(() => {
      view?.removeEventListener('beforeprint', put);
      view?.removeEventListener('afterprint', clear);
      this.clear();
    });
  }

  print(): void {
    this.page.defaultView?.print();
  }

  private put(): void {
    this.clear();
    const { pages, paper, isUpright } = this.source();
    this.host = this.page.createElement('div');
    this.host.className = 'on-paper';
    this.host.append(...pages.map((page) => page.cloneNode(true)));
    // What a hidden element defines is not painted: the copies get hatching of their own.
    this.host.querySelectorAll('pattern').forEach((pattern) => (pattern.id = HATCH));
    this.host
      .querySelectorAll<SVGElement>('.mute .block')
      .forEach((block) => (block.style.fill = `url(#${HATCH})`));
    this.page.body.append(this.host);
    this.style = this.page.createElement('style');
    this.style.textContent = `@page { size: ${PAPERS[paper].css} ${isUpright ? 'portrait' : 'landscape'}; margin: 0 }`;
    this.page.head.append(this.style);
  }

  private clear(): void {
    this.host?.remove();
    this.style?.remove();
    this.host = this.style = null;
  }
}
