import { HttpClient, provideHttpClient, withInterceptors } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed } from '@angular/core/testing';
import { Leaving } from './leaving';
import { keptAlive } from './kept-alive';

/** Whether a request with such a body outlives its page when it is sent as the page is left. */
function outlives(body: object): boolean {
  const sent = TestBed.inject(HttpTestingController);
  TestBed.inject(HttpClient).post('/step', body).subscribe();
  return sent.expectOne('/step').request.keepalive;
}

it('outlives its page what is sent when that is left, where it is small enough', () => {
  TestBed.configureTestingModule({
    providers: [provideHttpClient(withInterceptors([keptAlive])), provideHttpClientTesting()],
  });
  const said: boolean[] = [];
  TestBed.runInInjectionContext(() => {
    TestBed.inject(Leaving).do(() => {
      said.push(outlives({ held: [1] }), outlives({ held: 'é'.repeat(30_000) }));
      said.push(outlives(new ArrayBuffer(1000)), outlives(new ArrayBuffer(60_000)), outlives(new FormData()));
      return true;
    });
  });
  window.dispatchEvent(new Event('pagehide'));
  expect(said).toEqual([true, false, true, false, false]);
  expect(outlives({ held: [1] })).toBe(false);
});
