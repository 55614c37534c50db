import { FOLLOWING, type Step, type StepParameters } from '@pebble/contract';
import { madeBy, routineTrait } from './traits';

/** Of steps that take each other's place, the last one on each thing, and each that a plate shows which was kept before the next. */
export function withoutReplaced(steps: readonly Step[], leave: (step: Step, why: string) => void): Step[] {
  return steps.filter((step, i) => {
    const trait = routineTrait(step.kind);
    if (!('isReplaced' in trait) || !trait.isReplaced) return true;
    const onSame = steps
      .slice(i + 1)
      .filter(({ parameters }) => parameters['network'] === step.parameters['network']);
    const next = onSame.find(({ kind }) => kind === step.kind || kind === 'keep-plate');
    const isReplaced = next !== undefined && next.kind === step.kind;
    if (isReplaced) leave(step, 'A later step of its kind took its place.');
    return !isReplaced;
  });
}

/** Whether all decisions of a step were taken back. */
export function wasTakenBack({ result }: Step, done: readonly Step[]): boolean {
  const decisions = (result?.['decisions'] as number[] | undefined) ?? [];
  const back = new Set(
    done
      .filter(({ kind }) => kind === 'take-back-tidy')
      .flatMap(({ parameters }) => (parameters as StepParameters<'take-back-tidy'>).decisions),
  );
  return decisions.length > 0 && decisions.every((id) => back.has(id));
}

/** Whether a step is the first of its kind on its network, and of those kinds that follow without being asked for. */
export function cameByItself({ id, kind, parameters }: Step, logbook: readonly Step[]): boolean {
  if (!FOLLOWING.has(kind)) return false;
  return !logbook.some(
    (one) => one.kind === kind && one.id < id && one.parameters['network'] === parameters['network'],
  );
}

/** Whether the source that an import made was taken out, and not taken back. */
export function wasRemoved(step: Step, done: readonly Step[]): boolean {
  if (step.kind !== 'import-source') return false;
  const source = madeBy(step);
  const last = done.findLast(
    ({ kind, parameters }) =>
      (kind === 'remove-source' || kind === 'restore-source') && parameters['source'] === source,
  );
  return last?.kind === 'remove-source';
}
