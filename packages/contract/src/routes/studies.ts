import * as z from 'zod';
import { OpeningStudy, Study, StudyList, StudyName } from '../study';
import { Bytes, routeTable } from './route';

const Named = z.object({ name: StudyName });
const ZIP = new Bytes(['application/zip']);
const STEP_FAILED = { 409: 'The step was not done.' };

export const studyRoutes = routeTable({
  studies: {
    method: 'get',
    path: '/studies',
    summary: 'All studies, and those that were deleted or archived and can be taken back.',
    answer: StudyList,
  },
  createStudy: {
    method: 'post',
    path: '/studies',
    summary: 'Begins a study.',
    body: Named,
    answer: Study,
    status: 201,
    problems: STEP_FAILED,
  },
  study: { method: 'get', path: '/studies/{study}', summary: 'One study.', answer: Study },
  renameStudy: {
    method: 'patch',
    path: '/studies/{study}',
    summary: 'Renames a study.',
    body: Named,
    answer: Study,
    problems: STEP_FAILED,
  },
  deleteStudy: {
    method: 'delete',
    path: '/studies/{study}',
    summary: 'Deletes a study; it can be restored.',
    problems: STEP_FAILED,
  },
  restoreStudy: {
    method: 'post',
    path: '/studies/{study}/restore',
    summary: 'Takes a deleted study back.',
    answer: Study,
    problems: STEP_FAILED,
  },
  removeStudy: {
    method: 'delete',
    path: '/studies/{study}/for-good',
    summary: 'Removes a study for good that was deleted, archived, or cannot be opened.',
  },
  openFile: {
    method: 'post',
    path: '/studies/open',
    summary:
      'Takes a study that was saved as one file and makes a study for it; the step open-study takes it in.',
    body: new Bytes(['application/octet-stream']),
    answer: OpeningStudy,
    status: 201,
    problems: { 413: 'The file is too large.', 422: 'It is no saved study, or was changed.' },
  },
  openAgain: {
    method: 'post',
    path: '/studies/{study}/open-again',
    summary: 'The same for a study in the archive.',
    answer: OpeningStudy,
    status: 201,
    problems: { 422: 'Its archive was changed.' },
  },
  savedStudy: {
    method: 'get',
    path: '/studies/{study}/saved/{step}',
    summary: 'The file that the step save-study wrote, once.',
    answer: ZIP,
  },
});
