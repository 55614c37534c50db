import { Pipe, type PipeTransform } from '@angular/core';
import { formatCount } from '@pebble/core/first';

/** A number with its digits in groups of three: 12,345. */
@Pipe({ name: 'count' })
export class CountPipe implements PipeTransform {
  transform(value: number): string {
    return formatCount(value);
  }
}
