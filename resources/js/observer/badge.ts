import { keep, read } from './report';

const STYLE = `:host{all:initial}
div{position:fixed;z-index:2147483647;display:flex;gap:10px;align-items:center;padding:6px 8px 6px 12px;font:13px/1.3 system-ui,sans-serif;
color:#1d2a2e;background:#fffdf6;box-shadow:0 2px 8px #0003;cursor:move;user-select:none;max-width:22rem;touch-action:none}
div,button{border:1px solid #5d6a6c;border-radius:5px}
button{font:inherit;color:inherit;background:none;padding:3px 8px;cursor:pointer;white-space:nowrap}
@media print{div{display:none}}`;

export interface Badge {
  host: HTMLElement;
  say: (words: string) => void;
  /** It is over: the badge can be closed. */
  end: (words: string) => void;
}

/** What a person sees of it: that it observes, where one can move it out of the way and pause it. */
export function showBadge(isPaused: () => boolean, pause: (on: boolean) => void): Badge {
  const host = document.createElement('lucid-step-observer');
  const box = document.createElement('div');
  const words = document.createElement('span');
  const button = document.createElement('button');
  let said = '';
  let over = false;

  const draw = (): void => {
    words.textContent = over || !isPaused() ? said || 'Lucid Step observes' : 'Lucid Step does not look';
    button.textContent = over ? 'Close' : isPaused() ? 'Go on' : 'Pause';
  };
  const place = (x: number, y: number): void => {
    const { style } = box;
    style.right = style.bottom = 'auto';
    style.left = `${Math.max(0, Math.min(x, innerWidth - 120))}px`;
    style.top = `${Math.max(0, Math.min(y, innerHeight - 40))}px`;
  };
  box.addEventListener('pointerdown', (from) => {
    if (from.target === button) return;
    const { left, top } = box.getBoundingClientRect();
    const drag = (to: PointerEvent): void =>
      place(left + to.clientX - from.clientX, top + to.clientY - from.clientY);
    addEventListener('pointermove', drag);
    addEventListener(
      'pointerup',
      () => {
        removeEventListener('pointermove', drag);
        const now = box.getBoundingClientRect();
        keep('at', `${Math.round(now.left)},${Math.round(now.top)}`);
      },
      { once: true },
    );
  });
  button.addEventListener('click', () => {
    if (over) host.remove();
    else pause(!isPaused());
    draw();
  });

  const root = host.attachShadow({ mode: 'closed' });
  const sheet = new CSSStyleSheet();
  sheet.replaceSync(STYLE);
  root.adoptedStyleSheets = [sheet];
  button.type = 'button';
  box.role = 'region';
  box.ariaLabel = 'Lucid Step';
  words.role = 'status';
  box.append(words, button);
  root.append(box);
  const [x, y] = read('at').split(',');
  if (x && y) place(Number(x), Number(y));
  else Object.assign(box.style, { right: '12px', bottom: '12px' });
  draw();
  document.documentElement.append(host);
  return {
    host,
    say: (text) => {
      said = text;
      draw();
    },
    end: (text) => {
      over = true;
      said = text;
      draw();
    },
  };
}
