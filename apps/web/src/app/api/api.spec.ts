import { HttpErrorResponse, HttpEventType, provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed } from '@angular/core/testing';
import { exampleStudy } from '../../testing/examples';
import { Api, refusalOf, toProblem } from './api';

describe('Api', () => {
  let api: Api;
  let server: HttpTestingController;

  beforeEach(() => {
    TestBed.configureTestingModule({ providers: [provideHttpClient(), provideHttpClientTesting()] });
    api = TestBed.inject(Api);
    server = TestBed.inject(HttpTestingController);
  });
  afterEach(() => server.verify());

  it('gives what the contract knows', () => {
    const seen = jest.fn();
    api.study({ study: 'x' }).subscribe(seen);
    server.expectOne('/api/v1/studies/x').flush(exampleStudy);
    expect(seen).toHaveBeenCalledWith(exampleStudy);
  });

  it('fails on an answer that is against the contract, rather than showing half of it', () => {
    const failed = jest.fn();
    api.study({ study: 'x' }).subscribe({ error: failed });
    server.expectOne('/api/v1/studies/x').flush({ ...exampleStudy, messages: 'many' });
    expect(failed).toHaveBeenCalled();
  });

  it('sends only the parts of a filter that are set', () => {
    api
      .timeline({ study: 'x' }, { text: 'lamp', author: '', kind: undefined, by: 'none' })
      .subscribe({ error: () => undefined });
    const { request } = server.expectOne((r) => r.url === '/api/v1/studies/x/timeline');
    expect(request.params.keys()).toEqual(['text', 'by']);
  });

  it('names a file in a header that can hold any name', () => {
    api.transfer('x', new File(['a'], 'Übersicht 1.csv')).subscribe();
    const { request } = server.expectOne('/api/v1/studies/x/uploads');
    expect(decodeURIComponent(request.headers.get('x-file-name')!)).toBe('Übersicht 1.csv');
  });

  it('sends bytes as they are, and gives bytes as they came', () => {
    const seen = jest.fn();
    const bytes = new Float32Array([1, 2]).buffer;
    api.sendBytes({ study: 'x' }, { bytes }).subscribe();
    const sent = server.expectOne('/api/v1/studies/x/bytes').request;
    expect([sent.body, sent.headers.has('x-file-name')]).toEqual([bytes, false]);
    api.positions({ study: 'x', network: 'n' }).subscribe(seen);
    const asked = server.expectOne('/api/v1/studies/x/networks/n/positions');
    asked.flush(bytes);
    expect([asked.request.responseType, seen.mock.calls]).toEqual(['arraybuffer', [[bytes]]]);
  });

  it('says how far a file is on its way, and what was found in it', () => {
    const seen: unknown[] = [];
    api.transfer('x', new File(['a'], 'a.csv')).subscribe((transfer) => seen.push(transfer));
    const asked = server.expectOne('/api/v1/studies/x/uploads');
    asked.event({ type: HttpEventType.UploadProgress, loaded: 1, total: 4 });
    const answer = { uploads: [], refused: [{ file: 'a.csv', reason: 'It is empty.', row: null }] };
    asked.flush(answer);
    expect(seen).toEqual([
      { share: 0, answer: null },
      { share: 0.25, answer: null },
      { share: 1, answer },
    ]);
  });
});

describe('toProblem', () => {
  it('puts file and line before the reason', () => {
    const error = new HttpErrorResponse({
      status: 422,
      error: {
        type: 'about:blank',
        title: 'Not read',
        status: 422,
        detail: 'The date cannot be read.',
        file: 'a.csv',
        row: 3,
        kept: 'Nothing was stored.',
      },
    });
    expect(toProblem(error).message).toBe('a.csv, line 3: The date cannot be read. Nothing was stored.');
  });

  it('gives the place apart from the reason, where it is shown beside a list of files', () => {
    const problem = {
      type: 'about:blank',
      title: 'x',
      status: 422,
      detail: 'It is no table.',
      file: 'a.csv',
    };
    expect(refusalOf('a.csv', new HttpErrorResponse({ status: 422, error: { ...problem, row: 3 } }))).toEqual(
      {
        file: 'a.csv',
        row: 3,
        reason: 'It is no table.',
      },
    );
    expect(refusalOf('b.csv', new Error('x'))).toEqual({ file: 'b.csv', row: null, reason: 'x' });
  });

  it('reads a problem that came as text or bytes, and says so when nothing answers', () => {
    const text = JSON.stringify({ type: 'about:blank', title: 'x', status: 400, detail: 'Too long.' });
    expect(toProblem(new HttpErrorResponse({ status: 400, error: text })).message).toBe('Too long.');
    const bytes = new TextEncoder().encode(text).buffer;
    expect(toProblem(new HttpErrorResponse({ status: 410, error: bytes })).message).toBe('Too long.');
    expect(toProblem(new HttpErrorResponse({ status: 502, url: 'http://127.0.0.1/x' })).message).toBe(
      'The application answered in a way that was not expected (502).',
    );
    expect(toProblem(new HttpErrorResponse({ status: 0 })).message).toContain('does not answer');
    expect(toProblem(new Error('x')).message).toBe('x');
    expect(toProblem('y').message).toBe('y');
  });
});
