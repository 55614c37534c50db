import * as contract from '@pebble/contract';
import { z } from 'zod';

interface Operation {
  readonly path: string;
  readonly method: 'get' | 'post' | 'patch' | 'delete';
  readonly summary: string;
  readonly answers?: z.ZodType;
  readonly takes?: z.ZodType;
}

const Named = z.object({ name: contract.StudyName });

const operations: readonly Operation[] = [
  { path: '/health', method: 'get', summary: 'Answers when the application is ready.' },
  {
    path: '/studies',
    method: 'get',
    summary: 'All studies, and the deleted ones that can be taken back.',
    answers: contract.StudyList,
  },
  { path: '/studies', method: 'post', summary: 'Begins a study.', takes: Named, answers: contract.Study },
  { path: '/studies/{study}', method: 'get', summary: 'One study.', answers: contract.Study },
  {
    path: '/studies/{study}',
    method: 'patch',
    summary: 'Renames a study.',
    takes: Named,
    answers: contract.Study,
  },
  { path: '/studies/{study}', method: 'delete', summary: 'Deletes a study; it can be restored.' },
  {
    path: '/studies/{study}/restore',
    method: 'post',
    summary: 'Takes a deleted study back.',
    answers: contract.Study,
  },
  {
    path: '/studies/{study}/for-good',
    method: 'delete',
    summary: 'Removes a study for good that was deleted, archived, or cannot be opened.',
  },
  {
    path: '/studies/open',
    method: 'post',
    summary:
      'Takes a study that was saved as one file (application/octet-stream, its name in x-file-name) and makes a study for it; the step open-study takes it in.',
    answers: contract.OpeningStudy,
  },
  {
    path: '/studies/{study}/open-again',
    method: 'post',
    summary: 'The same for a study in the archive.',
    answers: contract.OpeningStudy,
  },
  {
    path: '/studies/{study}/saved/{step}',
    method: 'get',
    summary: 'The file that the step save-study wrote, once.',
  },
  {
    path: '/studies/{study}/deleted',
    method: 'get',
    summary:
      'Networks that were deleted and sources that were taken out, with the day until which they can be taken back.',
    answers: contract.DeletedList,
  },
  {
    path: '/studies/{study}/uploads',
    method: 'post',
    summary:
      'Takes a file as it is (application/octet-stream, its name in x-file-name) and looks at it; of an archive at every file.',
    answers: contract.UploadAnswer,
  },
  {
    path: '/studies/{study}/uploads/{upload}/preview',
    method: 'post',
    summary: 'Looks at an uploaded file again with corrected settings.',
    answers: contract.Preview,
  },
  {
    path: '/readings',
    method: 'post',
    summary: 'Keeps a way to read a table under a name.',
    takes: contract.NewReading,
    answers: z.array(contract.SavedReading),
  },
  { path: '/readings/{reading}', method: 'delete', summary: 'Forgets a kept reading.' },
  {
    path: '/studies/{study}/sources',
    method: 'get',
    summary: 'What the messages came from, with reports.',
    answers: contract.SourceList,
  },
  {
    path: '/studies/{study}/messages',
    method: 'get',
    summary: 'A page of messages.',
    takes: contract.MessageQuery,
    answers: contract.MessagePage,
  },
  {
    path: '/studies/{study}/networks/{network}/figure.svg',
    method: 'get',
    summary: 'The map as it was last arranged and described, with legend and caption; letters are shapes.',
    takes: contract.FigureQuery,
  },
  {
    path: '/studies/{study}/networks/{network}/figure.png',
    method: 'get',
    summary: 'The same in points.',
    takes: contract.FigureQuery,
  },
  {
    path: '/studies/{study}/export/{file}',
    method: 'get',
    summary:
      'Messages, accounts, items, decisions or the logbook as a file: "messages.csv", "logbook.jsonl" and so on, with the same filters as their lists.',
  },
  {
    path: '/studies/{study}/messages/{message}/thread',
    method: 'get',
    summary: 'The conversation that a message stands in.',
    answers: contract.Thread,
  },
  {
    path: '/studies/{study}/reports/{step}',
    method: 'get',
    summary: 'The report of an import, to download.',
  },
  {
    path: '/looks',
    method: 'get',
    summary: 'Looks of maps that were kept by name.',
    answers: contract.KeptLookList,
  },
  {
    path: '/studies/{study}/pictures',
    method: 'get',
    summary: 'Small pictures for nodes, by the name of the node.',
    answers: contract.NodePictureList,
  },
  {
    path: '/studies/{study}/filters',
    method: 'get',
    summary: 'Kept filters of the reading list.',
    answers: contract.SavedFilterList,
  },
  {
    path: '/studies/{study}/accounts',
    method: 'get',
    summary: 'A page of the table of accounts.',
    takes: contract.AccountQuery,
    answers: contract.AccountPage,
  },
  {
    path: '/studies/{study}/items',
    method: 'get',
    summary: 'A page of the table of items.',
    takes: contract.ItemQuery,
    answers: contract.ItemPage,
  },
  {
    path: '/studies/{study}/timeline',
    method: 'get',
    summary: 'Messages over time, by choice parted by source, kind or language.',
    takes: contract.TimelineQuery,
    answers: contract.Timeline,
  },
  {
    path: '/studies/{study}/overview',
    method: 'get',
    summary: 'Counts of a study.',
    answers: contract.MessageOverview,
  },
  {
    path: '/studies/{study}/tidy',
    method: 'get',
    summary: 'The tidy decisions that hold.',
    answers: contract.DecisionList,
  },
  {
    path: '/studies/{study}/tidy/{sort}',
    method: 'get',
    summary: 'What was found of a sort, the most used first, and how far its review is.',
    takes: contract.TidyQuery,
    answers: contract.TidyPage,
  },
  {
    path: '/studies/{study}/tidy/{sort}/suggestions',
    method: 'get',
    summary: 'Pairs that may be the same thing.',
    answers: contract.SuggestionList,
  },
  {
    path: '/studies/{study}/estimate',
    method: 'post',
    summary: 'How large a weave would be.',
    takes: contract.Weave,
    answers: contract.WeaveEstimate,
  },
  {
    path: '/studies/{study}/networks',
    method: 'get',
    summary: 'The networks of a study.',
    answers: contract.NetworkList,
  },
  {
    path: '/studies/{study}/logbook',
    method: 'get',
    summary: 'All steps, the newest first.',
    answers: contract.Logbook,
  },
  {
    path: '/studies/{study}/steps',
    method: 'post',
    summary: 'Runs a step; answers when it has ended.',
    takes: contract.StepRequest,
    answers: contract.Step,
  },
  { path: '/studies/{study}/steps/{step}/cancel', method: 'post', summary: 'Stops a running step.' },
  {
    path: '/studies/{study}/events',
    method: 'get',
    summary: 'Progress and ends of steps as server-sent events.',
    answers: contract.StepEvent,
  },
  {
    path: '/studies/{study}/networks/{network}',
    method: 'get',
    summary: 'One network.',
    answers: contract.Network,
  },
  {
    path: '/studies/{study}/networks/{network}/nodes.arrow',
    method: 'get',
    summary: 'Its node table as an Apache Arrow file.',
  },
  {
    path: '/studies/{study}/networks/{network}/edges.arrow',
    method: 'get',
    summary: 'Its edge table as an Apache Arrow file.',
  },
  {
    path: '/studies/{study}/networks/{network}/map',
    method: 'get',
    summary: 'How its map is drawn.',
    answers: contract.SavedMap,
  },
  {
    path: '/studies/{study}/networks/{network}/positions',
    method: 'get',
    summary: 'x and y of every node as 32-bit floats.',
  },
  {
    path: '/studies/{study}/networks/{network}/small-picture',
    method: 'get',
    summary:
      'The map made small: places, sizes and colours of its larger nodes; null for one that was never arranged.',
    answers: contract.SmallPicture.nullable(),
  },
  {
    path: '/studies/{study}/networks/{network}/evidence',
    method: 'get',
    summary: 'The messages behind a node, a tie or a community.',
    answers: contract.MessagePage,
  },
  {
    path: '/studies/{study}/networks/{network}/portrait/{community}',
    method: 'get',
    summary: 'The profile of a community.',
    answers: contract.Portrait,
  },
  {
    path: '/studies/{study}/networks/{network}/moments.arrow',
    method: 'get',
    summary: 'How many messages each tie has on each day (edge, day, messages), as an Apache Arrow file.',
  },
  {
    path: '/studies/{study}/networks/{network}/titles',
    method: 'get',
    summary: 'Titles for the groups of a column that suggest themselves by what is typical of each.',
    answers: contract.GroupTitles,
  },
  {
    path: '/studies/{study}/networks/{network}/message-ties/{message}',
    method: 'get',
    summary: 'The ties that a message made.',
    answers: contract.MessageTies,
  },
  {
    path: '/studies/{study}/networks/{network}/export/{format}',
    method: 'get',
    summary: 'The network as graphml, csv-nodes or csv-ties.',
  },
  {
    path: '/studies/{study}/uploads/{upload}',
    method: 'delete',
    summary: 'Forgets an uploaded file that was not taken in.',
  },
  {
    path: '/studies/{study}/skipped/{step}',
    method: 'get',
    summary: 'The rows that a step could not read, as CSV: line, field and reason.',
  },
  {
    path: '/services',
    method: 'get',
    summary: 'The services that can be collected from; secrets are never told.',
  },
  {
    path: '/services/describe',
    method: 'post',
    summary: 'Asks a service what it is and what it allows.',
    takes: contract.ServiceAccess,
    answers: contract.ServiceDescription,
  },
  {
    path: '/services/estimate',
    method: 'post',
    summary: 'What a plan of collecting costs at most.',
    takes: z.object({ access: contract.ServiceAccess, plan: contract.CollectPlan }),
    answers: contract.CollectEstimate,
  },
  {
    path: '/studies/{study}/runs',
    method: 'get',
    summary: 'The collecting runs of a study.',
    answers: z.array(contract.CollectRun),
  },
  {
    path: '/studies/{study}/runs',
    method: 'post',
    summary: 'Begins a collecting run.',
    takes: contract.NewRun,
    answers: contract.CollectRun,
  },
  {
    path: '/studies/{study}/runs/{run}/{command}',
    method: 'post',
    summary: 'Pauses a collecting run, or goes on with it, cancels it, runs it again or forgets it.',
    answers: contract.CollectRun,
  },
];

/** The API as an OpenAPI 3.1 document, with the schemas of the contract. */
export function openApiDocument(): Record<string, unknown> {
  const paths: Record<string, Record<string, unknown>> = {};
  for (const operation of operations) {
    const parameters = [...operation.path.matchAll(/\{(\w+)\}/g)].map(([, name]) => ({
      name,
      in: 'path',
      required: true,
      schema: { type: 'string' },
    }));
    const json = (type: z.ZodType, io: 'input' | 'output'): unknown => ({
      'application/json': { schema: z.toJSONSchema(type, { io, unrepresentable: 'any' }) },
    });
    (paths[operation.path] ??= {})[operation.method] = {
      summary: operation.summary,
      ...(operation.path === '/health' ? { security: [] } : {}),
      parameters,
      ...(operation.takes && operation.method !== 'get'
        ? { requestBody: { content: json(operation.takes, 'input') } }
        : {}),
      responses: {
        '200': {
          description: 'Done.',
          ...(operation.answers ? { content: json(operation.answers, 'output') } : {}),
        },
        default: {
          description: 'An error, by RFC 9457.',
          content: { 'application/problem+json': { schema: z.toJSONSchema(contract.Problem) } },
        },
      },
    };
  }
  return {
    openapi: '3.1.0',
    info: {
      title: 'Pebble Thread',
      version: '0.1.0',
      description: 'Networks of conversations, with the messages behind every tie.',
    },
    servers: [{ url: '/api/v1' }],
    // The key stands in the file access-token of the data folder.
    components: { securitySchemes: { key: { type: 'http', scheme: 'bearer' } } },
    security: [{ key: [] }],
    paths,
  };
}
