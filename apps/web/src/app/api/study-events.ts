import { addressOf, ROUTES, StepEvent } from '@pebble/contract';
import { Observable } from 'rxjs';

/** The event stream of a study; the browser connects again by itself when it breaks, which is told. */
export function studyEvents(study: string): Observable<StepEvent | 'connected again'> {
  return new Observable((observer) => {
    const source = new EventSource(addressOf(ROUTES.events, { study }));
    let isBroken = false;
    source.onerror = () => (isBroken = true);
    source.onopen = () => {
      if (isBroken) observer.next('connected again');
      isBroken = false;
    };
    source.onmessage = ({ data }: MessageEvent<string>) => observer.next(StepEvent.parse(JSON.parse(data)));
    return () => source.close();
  });
}
