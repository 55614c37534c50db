import { HttpClient, HttpErrorResponse, HttpHeaders, HttpParams } from '@angular/common/http';
import { inject, Injectable } from '@angular/core';
import {
  AccountPage,
  CollectEstimate,
  CollectRun,
  CollectRunList,
  type DataExport,
  DecisionList,
  ItemPage,
  KnownServiceList,
  Logbook,
  MessageOverview,
  MessagePage,
  MessageTies,
  Network,
  NetworkList,
  GroupTitles,
  Portrait,
  Preview,
  Problem,
  type RefusedFile,
  SavedFilterList,
  SavedReadingList,
  SavedMap,
  SmallPicture,
  SentBytes,
  ServiceDescription,
  SourceList,
  Step,
  Study,
  StudyList,
  SuggestionList,
  Thread,
  TidyPage,
  Timeline,
  UploadAnswer,
  WeaveEstimate,
  type Decision,
  type Suggestion,
  type TidyQuery,
  type TidySort,
  type Weave,
  type AccountQuery,
  type CollectPlan,
  type EvidenceQuery,
  type ItemQuery,
  type KnownService,
  type NewRun,
  type RunCommand,
  type ServiceAccess,
  type Source,
  type MessageFilter,
  type Reading,
  type SavedFilter,
  type SavedReading,
  type StepKind,
  type StepParameters,
  type TimelinePart,
  type KeptLook,
  type NodePicture,
  NodePictureList,
  KeptLookList,
  type Deleted,
  DeletedList,
  OpeningStudy,
} from '@pebble/contract';
import { catchError, map, throwError, type Observable } from 'rxjs';

const BASE = '/api/v1';

/** An error of the server in words for the person at the screen. */
export class ApiProblem extends Error {
  /** Why, and what was kept, without the place. */
  readonly reason: string;

  constructor(readonly problem: Problem) {
    const place = [problem.file, problem.row === undefined ? null : `line ${problem.row}`]
      .filter((part) => part)
      .join(', ');
    const reason = [problem.detail, problem.kept].filter((part) => part).join(' ');
    super(place ? `${place}: ${reason}` : reason);
    this.reason = reason;
  }
}

/** The part of a schema that is needed here; asking for less than all of it keeps the compiler quick. */
interface Shape<T> {
  parse(value: unknown): T;
}

/** Which network, and of which study. */
export type NetworkPlace = Pick<Network, 'study' | 'id'>;

const placeOf = ({ study, id }: NetworkPlace): string => `/studies/${study}/networks/${id}`;

/** The HTTP API; every answer is checked against the contract. */
@Injectable({ providedIn: 'root' })
export class Api {
  private readonly http = inject(HttpClient);

  studies = (): Observable<StudyList> => this.get('/studies', StudyList);
  study = (id: string): Observable<Study> => this.get(`/studies/${id}`, Study);
  createStudy = (name: string): Observable<Study> => this.post('/studies', { name }, Study);
  renameStudy = (id: string, name: string): Observable<Study> =>
    this.checked(this.http.patch(`${BASE}/studies/${id}`, { name }), Study);
  deleteStudy = (id: string): Observable<unknown> => this.plain(this.http.delete(`${BASE}/studies/${id}`));
  restoreStudy = (id: string): Observable<Study> => this.post(`/studies/${id}/restore`, {}, Study);

  /** Makes a study for a file; the step `open-study` takes it in. */
  openFile(file: File): Observable<OpeningStudy> {
    const headers = new HttpHeaders({
      'content-type': 'application/octet-stream',
      'x-file-name': encodeURIComponent(file.name),
    });
    return this.checked(this.http.post(`${BASE}/studies/open`, file, { headers }), OpeningStudy);
  }
  /** The same for one that was archived. */
  openAgain = (id: string): Observable<OpeningStudy> =>
    this.post(`/studies/${id}/open-again`, {}, OpeningStudy);
  savedAddress = (study: string, step: number): string => `${BASE}/studies/${study}/saved/${step}`;
  /** Of a study that was deleted, or cannot be opened. */
  removeStudy = (id: string): Observable<unknown> =>
    this.plain(this.http.delete(`${BASE}/studies/${id}/for-good`));
  deleted = (study: string): Observable<Deleted[]> => this.get(`/studies/${study}/deleted`, DeletedList);

  overview = (study: string): Observable<MessageOverview> =>
    this.get(`/studies/${study}/overview`, MessageOverview);
  sources = (study: string): Observable<Source[]> => this.get(`/studies/${study}/sources`, SourceList);
  timeline = (study: string, query: MessageFilter & { by: TimelinePart }): Observable<Timeline> =>
    this.get(`/studies/${study}/timeline`, Timeline, query);
  thread = (study: string, message: number): Observable<Thread> =>
    this.get(`/studies/${study}/messages/${message}/thread`, Thread);
  decisions = (study: string): Observable<Decision[]> => this.get(`/studies/${study}/tidy`, DecisionList);
  tidy = (study: string, sort: TidySort, query: Partial<TidyQuery>): Observable<TidyPage> =>
    this.get(`/studies/${study}/tidy/${sort}`, TidyPage, query);
  suggestions = (study: string, sort: TidySort): Observable<Suggestion[]> =>
    this.get(`/studies/${study}/tidy/${sort}/suggestions`, SuggestionList);
  pictures = (study: string): Observable<NodePicture[]> =>
    this.get(`/studies/${study}/pictures`, NodePictureList);
  looks = (): Observable<KeptLook[]> => this.get('/looks', KeptLookList);
  filters = (study: string): Observable<SavedFilter[]> =>
    this.get(`/studies/${study}/filters`, SavedFilterList);
  accounts = (study: string, query: Partial<AccountQuery>): Observable<AccountPage> =>
    this.get(`/studies/${study}/accounts`, AccountPage, query);
  items = (study: string, query: Partial<ItemQuery>): Observable<ItemPage> =>
    this.get(`/studies/${study}/items`, ItemPage, query);
  messages = (
    study: string,
    query: MessageFilter & { offset: number; limit: number },
  ): Observable<MessagePage> => this.get(`/studies/${study}/messages`, MessagePage, query);

  upload(study: string, file: File): Observable<unknown> {
    const headers = new HttpHeaders({
      'content-type': 'application/octet-stream',
      'x-file-name': encodeURIComponent(file.name),
    });
    return this.http.post(`${BASE}/studies/${study}/uploads`, file, {
      headers,
      reportProgress: true,
      observe: 'events',
    });
  }
  parseUploads = (body: unknown): UploadAnswer => UploadAnswer.parse(body);
  previewAgain = (
    study: string,
    upload: string,
    file: string,
    reading: Partial<Reading>,
  ): Observable<Preview> =>
    this.post(`/studies/${study}/uploads/${upload}/preview`, { file, reading }, Preview);
  saveReading = (name: string, reading: Reading): Observable<SavedReading[]> =>
    this.post('/readings', { name, reading }, SavedReadingList);
  dropUpload = (study: string, upload: string): Observable<unknown> =>
    this.plain(this.http.delete(`${BASE}/studies/${study}/uploads/${upload}`));
  sendBytes(study: string, bytes: ArrayBuffer): Observable<{ id: string }> {
    const headers = new HttpHeaders({ 'content-type': 'application/octet-stream' });
    return this.checked(this.http.post(`${BASE}/studies/${study}/uploads`, bytes, { headers }), SentBytes);
  }

  services = (): Observable<KnownService[]> => this.get('/services', KnownServiceList);
  describeService = (access: ServiceAccess): Observable<ServiceDescription> =>
    this.post('/services/describe', access, ServiceDescription);
  estimatePlan = (access: ServiceAccess, plan: CollectPlan): Observable<CollectEstimate> =>
    this.post('/services/estimate', { access, plan }, CollectEstimate);
  runs = (study: string): Observable<CollectRun[]> => this.get(`/studies/${study}/runs`, CollectRunList);
  beginRun = (study: string, run: NewRun): Observable<CollectRun> =>
    this.post(`/studies/${study}/runs`, run, CollectRun);
  runCommand = ({ study, id }: CollectRun, command: RunCommand): Observable<CollectRun> =>
    this.post(`/studies/${study}/runs/${id}/${command}`, {}, CollectRun);

  estimate = (study: string, weave: Weave): Observable<WeaveEstimate> =>
    this.post(`/studies/${study}/estimate`, weave, WeaveEstimate);
  networks = (study: string): Observable<Network[]> => this.get(`/studies/${study}/networks`, NetworkList);
  network = (network: NetworkPlace): Observable<Network> => this.get(placeOf(network), Network);
  /** Null for a map that was never arranged. */
  smallPicture = (network: NetworkPlace): Observable<SmallPicture | null> =>
    this.get(`${placeOf(network)}/small-picture`, SmallPicture.nullable());
  savedMap = (network: NetworkPlace): Observable<SavedMap> => this.get(`${placeOf(network)}/map`, SavedMap);
  table = (network: NetworkPlace, table: 'nodes' | 'edges'): Observable<ArrayBuffer> =>
    this.bytes(`${placeOf(network)}/${table}.arrow`);
  moments = (network: NetworkPlace): Observable<ArrayBuffer> =>
    this.bytes(`${placeOf(network)}/moments.arrow`);
  positions = (network: NetworkPlace): Observable<ArrayBuffer> => this.bytes(`${placeOf(network)}/positions`);
  evidence = (network: NetworkPlace, query: Partial<EvidenceQuery>): Observable<MessagePage> =>
    this.get(`${placeOf(network)}/evidence`, MessagePage, query);
  portrait = (network: NetworkPlace, community: number): Observable<Portrait> =>
    this.get(`${placeOf(network)}/portrait/${community}`, Portrait);
  groupTitles = (network: NetworkPlace, column: string, least: number): Observable<GroupTitles> =>
    this.get(`${placeOf(network)}/titles`, GroupTitles, { column, least });
  messageTies = (network: NetworkPlace, message: number): Observable<MessageTies> =>
    this.get(`${placeOf(network)}/message-ties/${message}`, MessageTies);
  exportAddress = (network: NetworkPlace, format: string): string =>
    `${BASE}${placeOf(network)}/export/${format}`;
  dataAddress = (study: string, { what, format, filter }: DataExport): string => {
    const asked = Object.entries(filter).filter(([, value]) => value !== undefined && value !== '');
    const query = new URLSearchParams(asked.map(([name, value]) => [name, String(value)]));
    return `${BASE}/studies/${study}/export/${what}.${format}?${query.toString()}`;
  };
  skippedAddress = (study: string, step: number): string => `${BASE}/studies/${study}/skipped/${step}`;
  reportAddress = (study: string, step: number): string => `${BASE}/studies/${study}/reports/${step}`;
  eventsAddress = (study: string): string => `${BASE}/studies/${study}/events`;

  logbook = (study: string): Observable<Logbook> => this.get(`/studies/${study}/logbook`, Logbook);
  /** Runs a step; the answer comes when it has ended. */
  step = <K extends StepKind>(study: string, kind: K, parameters: StepParameters<K>): Observable<Step> =>
    this.post(`/studies/${study}/steps`, { kind, parameters }, Step);
  cancelStep = (study: string, step: number): Observable<unknown> =>
    this.plain(this.http.post(`${BASE}/studies/${study}/steps/${step}/cancel`, {}));

  private get<T>(path: string, shape: Shape<T>, query: object = {}): Observable<T> {
    let params = new HttpParams();
    for (const [name, value] of Object.entries(query))
      if (value !== undefined && value !== null && value !== '') params = params.set(name, String(value));
    return this.checked(this.http.get(BASE + path, { params }), shape);
  }

  private post<T>(path: string, body: unknown, shape: Shape<T>): Observable<T> {
    return this.checked(this.http.post(BASE + path, body), shape);
  }

  private bytes(path: string): Observable<ArrayBuffer> {
    return this.plain(this.http.get(BASE + path, { responseType: 'arraybuffer' }));
  }

  private checked<T>(answer: Observable<unknown>, shape: Shape<T>): Observable<T> {
    return this.plain(answer).pipe(map((body) => shape.parse(body)));
  }

  private plain<T>(answer: Observable<T>): Observable<T> {
    return answer.pipe(catchError((error: unknown) => throwError(() => toProblem(error))));
  }
}

/** What is said while the application cannot be reached. */
export const OFFLINE = 'The application does not answer. Is it still running? What you did before is kept.';

/** Any failure of a request as an ApiProblem. */
export function toProblem(error: unknown): Error {
  if (!(error instanceof HttpErrorResponse)) return error instanceof Error ? error : new Error(String(error));
  // What was asked for as text or bytes comes so when it is a problem, too.
  const sent: unknown = isBytes(error.error)
    ? new TextDecoder().decode(new Uint8Array(error.error))
    : error.error;
  const body = typeof sent === 'string' ? tryJson(sent) : sent;
  const problem = Problem.safeParse(body);
  if (problem.success) return new ApiProblem(problem.data);
  const detail =
    error.status === 0
      ? OFFLINE
      : `The application answered in a way that was not expected (${error.status}).`;
  return new ApiProblem({ type: 'about:blank', title: 'No answer', status: error.status, detail });
}

/** Also for bytes that were made in another frame or thread. */
function isBytes(value: unknown): value is ArrayBuffer {
  return Object.prototype.toString.call(value) === '[object ArrayBuffer]';
}

/** What is said in a list of files of one that was not taken. */
export function refusalOf(file: string, error: unknown): RefusedFile {
  const problem = toProblem(error);
  if (!(problem instanceof ApiProblem)) return { file, row: null, reason: problem.message };
  return { file, row: problem.problem.row ?? null, reason: problem.reason };
}

function tryJson(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return text;
  }
}
