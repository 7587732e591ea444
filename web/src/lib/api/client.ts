import createClient from 'openapi-fetch';
import { chosen } from './chosen.svelte';
import { link } from './link.svelte';
import type { components, paths } from './schema';

type Schemas = components['schemas'];
export type Workspace = Schemas['Workspace'];
export type PlanInfo = Schemas['PlanInfo'];
export type Person = Schemas['Person'];
export type LoadInfo = Schemas['LoadInfo'];
export type Holding = Schemas['Holding'];
export type Absent = Schemas['Absent'];
export type Put = Schemas['Put'];
export type Added = Schemas['Added'];
export type Radio = Schemas['Radio'];
export type Ledger = Schemas['Ledger'];
export type Row = Schemas['Row'];
export type Reading = Schemas['Reading'];
export type Word = Schemas['Word'];
export type Match = Schemas['Match'];
export type Finding = Schemas['Finding'];
export type Fix = Finding['fixes'][number];
export type Channel = Schemas['Channel'];
export type Evidence = Schemas['Evidence'];
export type Leg = Schemas['Leg'];
export type Cell = Schemas['Cell'];
export type Key = Schemas['Key'];
export type Ribbon = Schemas['Ribbon'];
export type KeypadSheet = Schemas['KeypadSheet'];
export type Handset = Schemas['Handset'];
export type HandsetDisplay = Schemas['HandsetDisplay'];
export type Verdict = Schemas['Verdict'];
export type Problem = Schemas['Problem'];
export type Settings = Schemas['Settings'];
export type Follows = Schemas['Follows'];
export type Region = Schemas['Region'];
export type RadioInfo = Schemas['RadioInfo'];
export type RadioForm = Schemas['RadioForm'];
export type Preview = Schemas['Preview'];
export type Loss = Schemas['Loss'];
export type Rule = Schemas['Rule'];
export type Found = Schemas['Found'];
export type FoundRepeater = Schemas['FoundRepeater'];
export type PublishedRecord = Schemas['PublishedRecord'];
export type StatementID = Schemas['StatementID'];
export type ChartSpot = Schemas['ChartSpot'];
export type Around = Schemas['Around'];
export type FoundLook = Schemas['FoundLook'];
export type FindGroup = Schemas['FindGroup'];
export type Completion = Schemas['Completion'];
export type ImportPreview = Schemas['ImportPreview'];
export type ImportState = Schemas['ImportState'];
export type PublishedSource = Schemas['PublishedSource'];
export type Rejects = Schemas['Rejects'];
export type UpdateRequest = Schemas['UpdateRequest'];
export type Arrangement = Schemas['Arrangement'];
export type Pasted = Schemas['Pasted'];
export type Kind = Schemas['Kind'];
export type OfferedFix = Schemas['OfferedFix'];
export type Task = Schemas['Task'];
export type Nearest = Schemas['Nearest'];
export type Sets = Schemas['Sets'];
export type SetInfo = Schemas['SetInfo'];
export type History = Schemas['History'];
export type Snapshot = Schemas['Snapshot'];
export type ColumnTemplate = Schemas['ColumnTemplate'];
export type KeptTemplate = Schemas['KeptTemplate'];
export type TemplateColumn = Schemas['TemplateColumn'];
export type TemplateField = Schemas['TemplateField'];
export type Comparison = Schemas['Comparison'];
export type ListenReport = Schemas['ListenReport'];
export type Diary = Schemas['Diary'];
export type TestCard = Schemas['TestCard'];
export type RelayView = Schemas['RelayView'];
export type BeaconView = Schemas['BeaconView'];
export type BeaconTrip = Schemas['BeaconTrip'];
export type LogBook = Schemas['LogBook'];
export type FitReport = Schemas['FitReport'];
export type FitItem = Schemas['FitItem'];
export type Walk = Schemas['Walk'];
export type WalkStop = Schemas['WalkStop'];
export type SheetStep = Schemas['SheetStep'];
export type SheetAct = Schemas['SheetAct'];
export type WrongShown = Schemas['WrongShown'];

/** Asks, and notes whether there was an answer. */
async function heard(request: Request): Promise<Response> {
  try {
    const answer = await fetch(request);
    link.back();
    return answer;
  } catch (e) {
    if (!request.signal.aborted) link.lost();
    throw e;
  }
}

export const api = createClient<paths>({
  baseUrl: '/',
  querySerializer: { array: { style: 'form', explode: false } },
  fetch: heard,
});

api.use({
  async onRequest({ request }) {
    if (chosen.person !== 0 && !request.headers.has('Mnemos-Person'))
      request.headers.set('Mnemos-Person', String(chosen.person));
    const url = new URL(request.url);
    if (chosen.plan === 0 || url.searchParams.has('plan')) return undefined;
    if (!/^\/api\/(workspace|settings|radios|imports|sources|find)\b/.test(url.pathname)) return undefined;
    url.searchParams.set('plan', String(chosen.plan));
    // A body that is passed on as a stream needs HTTP/2: it is read first.
    const { method, headers, signal } = request;
    const body = method === 'GET' || method === 'HEAD' ? null : await request.blob();
    return new Request(url, { method, headers, signal, body });
  },
});

/** An answer that was a problem; it keeps what the server said. */
export class ApiError extends Error {
  constructor(readonly problem: Problem) {
    super(problem.errors?.map((e) => e.message).join(' ') ?? problem.detail ?? problem.title);
  }
}

/** Unwraps an answer of the client, or throws what was wrong. */
export function must<T>(answer: { data?: T; error?: Problem }): T {
  if (answer.data !== undefined) return answer.data;
  throw new ApiError(answer.error ?? { type: 'about:blank', title: 'The application does not answer', status: 0 });
}

/** Passes an answer without content, or throws what was wrong. */
export function did(answer: { error?: Problem }): void {
  if (answer.error !== undefined) throw new ApiError(answer.error);
}
