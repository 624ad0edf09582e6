/**
 * Observes what a tester does on a page and reports it into their session of exploring. It does nothing before it is paired: by a link
 * that ends in `#lucid-step=` and the code of the session, or by a bookmark that brings it along. It has no effect on the page beyond a
 * badge that says that it observes, and never reads what is private (docs/observing.md).
 */
import { watchActs, watchTrouble } from './acts';
import { showBadge } from './badge';
import { followPages } from './pages';
import { attempt, keep, on, read, startReport, type Act, type State } from './report';

const LONGEST = 500;
const BEGUN = Symbol.for('lucid-step');
const script = document.currentScript as HTMLScriptElement | null;
const base = new URL('.', script?.src ?? location.href).href;

/** The code in the address goes before the application sees it. */
function given(): string {
  const found = /^(.*)[#&:]lucid-step=([A-Za-z0-9-]{8,40})$/.exec(location.hash);
  if (!found) return script?.dataset.code ?? '';
  const rest = location.pathname + location.search + (found[1] === '' || found[1] === '#' ? '' : found[1]);
  history.replaceState(history.state, '', rest);
  return found[2]!.toUpperCase();
}

/** A frame whose page above is observed is seen from there. */
function isSeenFromAbove(): boolean {
  return attempt(() => window.top !== window && BEGUN in window.top!.document, false);
}

function begin(code: string, begun: boolean): void {
  Object.defineProperty(document, BEGUN, { value: true });
  const isPaused = (): boolean => read('off') !== '';
  let over = false;
  let visit: Act | null = null;
  let trouble = { words: '', at: 0 };
  const badge = showBadge(isPaused, (on) => keep('off', on ? '1' : ''));
  const entitle = (): void => {
    if (visit) visit.words = document.title.slice(0, LONGEST);
  };
  const told = (state: State, charter: string, waiting: number): void => {
    if (state === 'stopped' || state === 'refused') {
      over = true;
      keep('code', '');
      badge.end(state === 'stopped' ? 'The session is over' : 'No session listens any more');
    } else if (state === 'away')
      badge.say(`Lucid Step is not reached, or does not list this address: ${waiting} wait`);
    else badge.say(state === 'paused' ? `${charter} is paused` : `Lucid Step observes for ${charter}`);
  };
  const add = (of: Pick<Act, 'kind'> & Partial<Act>): Act => {
    const { tab, page } = pages.kept;
    const act = { id: crypto.randomUUID(), at: Date.now(), n: pages.next(), tab, page, ...of };
    if (!over && !isPaused()) report.add(act);
    return act;
  };
  const acts = watchActs(
    add,
    (via, link) => pages.did(via, link),
    (event) => event.composedPath().includes(badge.host),
  );
  const pages = followPages((of) => {
    acts.flush();
    entitle();
    visit = add(of);
    entitle();
  }, begun);
  const report = startReport(`${base}api/v1/observations`, code, pages.kept.tab, told);
  acts.watch(document);
  watchTrouble((words) => {
    // The same again and again is said once a second.
    if (words === trouble.words && Date.now() - trouble.at < 1000) return;
    trouble = { words, at: Date.now() };
    add({ kind: 'trouble', words: words.slice(0, LONGEST) });
  }, base);
  pages.begin();
  document.addEventListener('DOMContentLoaded', entitle);
  on('load', entitle);
  on('pagehide', () => {
    acts.flush();
    entitle();
    void report.send();
  });
  document.addEventListener('visibilitychange', () => void report.send());
  void report.send();
}

const brought = given();
if (brought) {
  keep('code', brought);
  keep('off', '');
}
const code = brought || read('code');
if (code && !(BEGUN in document) && !isSeenFromAbove()) begin(code, brought !== '');
