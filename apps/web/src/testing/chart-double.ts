import { Component, EventEmitter } from '@angular/core';

/** Stands where a chart would be, which jsdom cannot draw: it writes its label. */
@Component({
  selector: 'pt-chart',
  template: '{{ label }}',
  inputs: ['options', 'rows', 'label'],
  outputs: ['picked', 'brushed'],
})
export class Chart {
  options: unknown;
  rows: readonly (readonly (string | number)[])[] | null = null;
  label = '';
  readonly picked = new EventEmitter<{ dataIndex: number }>();
  readonly brushed = new EventEmitter<unknown>();
}
