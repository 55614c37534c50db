import type { CollectPlan, ServiceKind } from '@pebble/contract';

/** What a form of a plan holds: everything as it is typed. */
export interface PlanForm {
  readonly what: CollectPlan['what'];
  readonly query: string;
  readonly language: string;
  readonly from: number | null;
  readonly until: number | null;
  /** Accounts or items, one a line or with commas between them. */
  readonly names: string;
  readonly mailboxes: readonly string[];
  readonly order: 'rating' | 'time';
  readonly details: boolean;
  readonly most: number;
}

export const EMPTY_FORM: PlanForm = {
  what: 'search',
  query: '',
  language: '',
  from: null,
  until: null,
  names: '',
  mailboxes: [],
  order: 'rating',
  details: true,
  most: 400,
};

/** What can be collected from each kind of service, in words. */
export const WHATS: Readonly<Record<ServiceKind, readonly { what: CollectPlan['what']; name: string }[]>> = {
  hub: [
    { what: 'search', name: 'messages that fit a search' },
    { what: 'posts', name: 'the posts of accounts' },
    { what: 'comments', name: 'the comments under items' },
    { what: 'followers', name: 'the followers of accounts' },
    { what: 'details', name: 'details of accounts' },
  ],
  mail: [{ what: 'mail', name: 'emails' }],
};

/** Names in a text field, one a line or with commas or spaces between them; each once. */
export function namesIn(typed: string): string[] {
  return [...new Set(typed.split(/[\s,;]+/).filter((name) => name !== ''))];
}

/** The plan that a form makes, or what it lacks. */
export function planOf(form: PlanForm): CollectPlan | { lacks: string } {
  const most = Math.trunc(form.most);
  if (form.what !== 'details' && !(most >= 1)) return { lacks: 'Say how many at most.' };
  const names = namesIn(form.names);
  switch (form.what) {
    case 'search':
      return form.query.trim() === ''
        ? { lacks: 'Say what to search for.' }
        : {
            what: 'search',
            query: form.query.trim(),
            language: form.language.trim(),
            from: form.from,
            until: form.until,
            most,
          };
    case 'comments':
      return names.length === 0
        ? { lacks: 'Paste ids or addresses of videos, pages or posts.' }
        : { what: 'comments', items: names, most, order: form.order };
    case 'posts':
      return names.length === 0
        ? { lacks: 'Name at least one account.' }
        : { what: 'posts', accounts: names, most };
    case 'followers':
      return names.length === 0
        ? { lacks: 'Name at least one account.' }
        : { what: 'followers', accounts: names, most, details: form.details };
    case 'details':
      return names.length === 0
        ? { lacks: 'Name at least one account.' }
        : { what: 'details', accounts: names };
    case 'mail':
      return {
        what: 'mail',
        mailboxes: [...form.mailboxes],
        text: form.query.trim(),
        from: form.from,
        until: form.until,
        most,
      };
  }
}

/** The name that a run gets where none is typed. */
export function runName(plan: CollectPlan): string {
  switch (plan.what) {
    case 'search':
      return `Search for ${plan.query}`.slice(0, 80);
    case 'comments':
      return `Comments under ${plan.items.length} items`;
    case 'details':
      return `Details of ${plan.accounts.length} accounts`;
    case 'mail':
      return 'Emails';
    default: {
      const [first, ...others] = plan.accounts;
      const more = others.length > 0 ? ` and ${others.length} more` : '';
      return `${plan.what === 'posts' ? 'Posts' : 'Followers'} of ${first}${more}`.slice(0, 80);
    }
  }
}
