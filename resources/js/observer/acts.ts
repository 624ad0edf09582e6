import { FIELDS, groupOf, nameOf } from './names';
import { isCardNumber, isPrivateField } from './privacy';
import { attempt, on as listen, type Act } from './report';

type Done = Pick<Act, 'kind'> & Partial<Act>;
const ROLES = ['button', 'link', 'tab', 'menuitem', 'option'];
const BUTTONS = ['submit', 'button', 'reset', 'image'];
const PRESSED = [
  'button,a[href],summary',
  ...BUTTONS.map((type) => `input[type=${type}]`),
  ...ROLES.map((role) => `[role=${role}]`),
].join();
const NOT_PRESSED = `${FIELDS},label,option`;
const CHOSEN = 'select,[type=checkbox],[type=radio],[type=file]';
const LONGEST = 500;
/** Who types nothing for so long has typed what is to be seen. */
const RESTS = 2000;
/** A press that sends a form sends it within this time. */
const AT_ONCE = 500;

/** @returns what it was typed or chosen in, cut; null where it is never read */
const valueOf = (el: Element, control: string, text: string): string | null =>
  isPrivateField(el, control) || isCardNumber(text) ? null : text.slice(0, LONGEST);

/**
 * Sees what a person does in a document, its frames of the same origin and its open shadow roots. It listens, and changes nothing.
 * @param add   writes an act down
 * @param did   that may lead to another page
 * @param isOurs an event of the badge
 */
export function watchActs(
  add: (act: Done) => Act,
  did: (via: 'press' | 'submit', link: string | null) => void,
  isOurs: (event: Event) => boolean,
): { watch: (root: Document | ShadowRoot) => void; flush: () => void } {
  const watched = new WeakSet<Node>();
  /** What was typed and not left yet. */
  let typed: Element | null = null;
  let resting: ReturnType<typeof setTimeout>;
  /** What was said of it last. */
  let said: { el: Element; text: string } | null = null;
  let pressed: { act: Done; by: Element; at: number } | null = null;

  /** What was typed is said before anything else happens. */
  function flush(): void {
    const el = typed;
    typed = null;
    clearTimeout(resting);
    if (!el) return;
    const control = nameOf(el);
    const text = 'value' in el ? String((el as HTMLInputElement).value) : (el.textContent ?? '');
    if (said?.el === el && said.text === text) return;
    said = { el, text };
    add({ kind: 'type', control, value: valueOf(el, control, text) });
  }
  function input(el: Element): void {
    const field = el.matches('input,textarea')
      ? el
      : el.closest('[contenteditable]:not([contenteditable=false])');
    if (el.matches(CHOSEN) || !field) return;
    if (typed !== field) flush();
    typed = field;
    clearTimeout(resting);
    resting = setTimeout(flush, RESTS);
  }
  function changed(el: Element): void {
    const field = el as HTMLInputElement;
    const say = (control: string, kind: 'choose' | 'tick', value: string): void => {
      flush();
      add({ kind, control, value: valueOf(el, control, value) });
    };
    if (el.matches('select'))
      say(
        nameOf(el),
        'choose',
        [...(el as HTMLSelectElement).selectedOptions].map((o) => o.label.trim()).join(', '),
      );
    else if (field.type === 'checkbox') say(nameOf(el), 'tick', field.checked ? 'on' : '');
    else if (field.type === 'radio') say(groupOf(field), 'choose', nameOf(el));
    else if (field.type === 'file')
      say(nameOf(el), 'choose', [...(field.files ?? [])].map((f) => f.name).join(', '));
    else if (el.matches('input,textarea')) {
      typed = el;
      flush();
    }
  }
  function click(event: MouseEvent, el: Element): void {
    if (el.closest(NOT_PRESSED) && !el.closest(PRESSED)) return;
    const by =
      (event.composedPath() as Element[]).find((at) => at.nodeType === 1 && at.matches(PRESSED)) ??
      (getComputedStyle(el).cursor === 'pointer' ? el : null);
    if (!by) return;
    flush();
    said = null;
    const link = by.closest<HTMLAnchorElement>('a[href]');
    const apart = link && (link.target === '_blank' || event.ctrlKey || event.metaKey || event.button === 1);
    pressed = { act: add({ kind: 'press', control: nameOf(by) }), by, at: Date.now() };
    did('press', apart ? link.href : null);
  }
  function submit(event: SubmitEvent, form: HTMLFormElement): void {
    flush();
    const { submitter } = event;
    const isNamed = form.matches('[aria-label],[aria-labelledby]');
    // The press that sent it, and the sending, are one act.
    if (pressed && pressed.by === submitter && Date.now() - pressed.at < AT_ONCE) pressed.act.kind = 'submit';
    else add({ kind: 'submit', control: submitter ? nameOf(submitter) : isNamed ? nameOf(form) : '' });
    pressed = null;
    did('submit', form.target === '_blank' ? form.action : null);
  }
  /** One of another origin is not looked into. */
  function frame(of: EventTarget | null): void {
    const inner = attempt(() => (of as HTMLIFrameElement | null)?.contentDocument, null);
    if (inner) watch(inner);
  }
  function watch(root: Document | ShadowRoot): void {
    if (watched.has(root)) return;
    watched.add(root);
    const on = (name: string, act: (event: Event, target: Element) => void): void =>
      root.addEventListener(
        name,
        (event) => {
          const path = event.composedPath();
          const target = path[0] as Element | undefined;
          // What a script did is not what a person did. In a shadow root it is seen there alone.
          if (!event.isTrusted || target?.nodeType !== 1 || isOurs(event)) return;
          for (const at of path) if (at instanceof ShadowRoot) watch(at);
          if (target.getRootNode() === root) act(event, target);
        },
        { capture: true, passive: true },
      );
    on('input', (_, el) => input(el));
    on('change', (_, el) => changed(el));
    // What was a password stays one when a button makes it visible.
    on('focusin', (_, el) => isPrivateField(el, ''));
    on('click', (event, el) => click(event as MouseEvent, el));
    on('auxclick', (event, el) => (event as MouseEvent).button === 1 && click(event as MouseEvent, el));
    on('submit', (event, el) => submit(event as SubmitEvent, el as HTMLFormElement));
    root.addEventListener('load', (event) => frame(event.target), true);
    root.querySelectorAll('iframe').forEach(frame);
  }
  return { watch, flush };
}

/**
 * Says what goes wrong on the page: errors of scripts, and requests that failed, with their status.
 * @param own the address of Lucid Step, of which nothing is said
 */
export function watchTrouble(say: (words: string) => void, own: string): void {
  listen('error', (event) => event.message && say(event.message));
  listen('unhandledrejection', ({ reason }) =>
    say(reason instanceof Error ? `${reason.name}: ${reason.message}` : String(reason)),
  );
  // Where the browser tells no status, failed requests are not seen.
  attempt(() => {
    new PerformanceObserver((list) => {
      for (const entry of list.getEntries() as PerformanceResourceTiming[]) {
        const status = entry.responseStatus ?? 0;
        if (status < 400 || entry.name.startsWith(own)) continue;
        const url = new URL(entry.name);
        say(`${url.origin === location.origin ? '' : url.origin}${url.pathname} answered ${status}`);
      }
    }).observe({ type: 'resource', buffered: true });
  }, undefined);
}
