import { ChangeDetectionStrategy, Component, EventEmitter, Input, Output } from '@angular/core';

/** Stands where a chart would be, which jsdom cannot draw: it writes its label. */
@Component({
  selector: 'pt-chart',
  template: '{{ label }}',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Chart {
  @Input() options: unknown;
  @Input() rows: readonly (readonly (string | number)[])[] | null = null;
  @Input() label = '';
  @Output() readonly picked = new EventEmitter<{ dataIndex: number }>();
  @Output() readonly brushed = new EventEmitter<unknown>();
}
