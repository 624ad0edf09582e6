import { withoutKeys } from './privacy';
import { attempt, keep, on, read, type Act } from './report';

type Reached =
  'typed' | 'press' | 'submit' | 'redirect' | 'reload' | 'back' | 'pressed_tab' | 'hand_made_tab';
/** What the Navigation API tells, where the browser has it. */
interface NavigateEvent extends Event {
  readonly navigationType: string;
  readonly userInitiated: boolean;
}
interface Kept {
  tab: string;
  n: number;
  page: string;
  /** What was done last that may lead to a page, and when. */
  via: '' | 'press' | 'submit';
  viaAt: number;
  /** The page is there: a new tab with the same means that it was copied from this one. */
  alive: boolean;
}
export interface Pages {
  kept: Kept;
  /** Says which page is open. */
  begin: () => void;
  /** @returns which of the tab's acts comes next */
  next: () => number;
  /** Something was done that may lead to a page, here or, by a link, in a tab of its own. */
  did: (via: 'press' | 'submit', link: string | null) => void;
}

const KEY = 'lucid-step';
const OPENED = 'opened';
/** A page that comes later than this after a press came by itself. */
const FOLLOWS = 10_000;
const LONGEST = 1000;

const load = (): Kept | null =>
  attempt(() => JSON.parse(sessionStorage.getItem(KEY) ?? 'null') as Kept | null, null);

/** From which tab a link was opened in this one, where the browser hands nothing on. */
const openedBy = (): string | null =>
  attempt(() => {
    const opened = JSON.parse(read(OPENED) || 'null') as { link: string; tab: string; at: number } | null;
    if (opened?.link !== location.href || Date.now() - opened.at > FOLLOWS) return null;
    keep(OPENED, '');
    return opened.tab;
  }, null);

/**
 * Follows which page is open in this tab, and how it was reached; survives page changes.
 * @param begun whether observing was begun on this very page
 */
export function followPages(
  visited: (act: Pick<Act, 'kind' | 'reached' | 'opener'>) => void,
  begun: boolean,
): Pages {
  const before = load();
  const isCopy = before?.alive === true;
  const isKnown = before !== null && !isCopy;
  const opener = isKnown ? null : isCopy ? before.tab : openedBy();
  const kept: Kept = isKnown
    ? { ...before, alive: true }
    : { tab: Math.random().toString(36).slice(2, 12), n: 0, page: '', via: '', viaAt: 0, alive: true };
  let seen = location.href;
  let way: { type: string; byPerson: boolean } | null = null;

  /** Where that cannot be, each page is a tab of its own. */
  const save = (): void => attempt(() => sessionStorage.setItem(KEY, JSON.stringify(kept)), undefined);
  const via = (): Kept['via'] => (Date.now() - kept.viaAt < FOLLOWS ? kept.via : '');
  const come = (reached: Reached): void => {
    seen = location.href;
    kept.page = withoutKeys(location.pathname + location.search + location.hash).slice(0, LONGEST);
    kept.via = '';
    save();
    visited({ kind: 'visit', reached, ...(opener ? { opener } : {}) });
  };
  const arrival = (): Reached => {
    const entry = performance.getEntriesByType('navigation')[0] as PerformanceNavigationTiming | undefined;
    if (opener) return 'pressed_tab';
    if (!isKnown) return begun ? 'typed' : 'hand_made_tab';
    if (entry?.type === 'reload') return 'reload';
    if (entry?.type === 'back_forward') return 'back';
    return via() || (document.referrer.startsWith(`${location.origin}/`) ? 'redirect' : 'typed');
  };
  const arrived = arrival();
  save();

  // Pages that change without being loaded.
  const look = (): void => {
    if (location.href === seen) return;
    const was = new URL(seen);
    const of = way;
    way = null;
    // A search that writes itself into the address as one types is no other page.
    if (of?.type === 'replace' && !via() && was.pathname === location.pathname && was.hash === location.hash)
      seen = location.href;
    else if (of?.type === 'traverse' || (!of && !via())) come('back');
    else come(via() || (of?.byPerson ? 'typed' : 'redirect'));
  };
  const { navigation } = window as unknown as { navigation?: EventTarget };
  navigation?.addEventListener('navigate', (event) => {
    const e = event as NavigateEvent;
    way = { type: e.navigationType, byPerson: e.userInitiated };
  });
  navigation?.addEventListener('currententrychange', look);
  on('popstate', () => setTimeout(look));
  on('hashchange', look);
  setInterval(look, 300);
  on('pagehide', () => {
    kept.alive = false;
    save();
  });
  on('pageshow', (event) => {
    if (!event.persisted) return;
    Object.assign(kept, load(), { alive: true });
    come('back');
  });
  return {
    kept,
    begin: () => come(arrived),
    next: () => {
      kept.n++;
      save();
      return kept.n;
    },
    did: (by, link) => {
      kept.via = by;
      kept.viaAt = Date.now();
      save();
      if (link) keep(OPENED, JSON.stringify({ link, tab: kept.tab, at: kept.viaAt }));
    },
  };
}
