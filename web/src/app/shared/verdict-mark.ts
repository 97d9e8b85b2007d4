/** Whether a written strum and the recording agree, as one of five shapes; see `verdict-paths`. */
import type { Verdict } from '@wild-needle/core/draft';
import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';

import { verdictPath } from './verdict-paths';

@Component({
  selector: 'wn-verdict',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { role: 'img', '[attr.aria-label]': 'verdict()' },
  template: `
    <svg viewBox="0 0 16 16" aria-hidden="true"><path [class]="'verdict-' + verdict()" [attr.d]="d()" /></svg>
  `,
  styles: `
    :host {
      display: inline-flex;
    }
    svg {
      width: 16px;
      height: 16px;
    }
  `,
})
export class VerdictMark {
  readonly verdict = input.required<Verdict>();
  protected readonly d = computed(() => verdictPath(this.verdict(), 8, 8));
}
