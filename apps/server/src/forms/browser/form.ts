import { arrivesInParts, checkAnswers, formWords, isQuestion, type Answers, type FormItem } from '@haycart/core/form';

/**
 * A hosted form in the browser: what is asked follows what was answered, answers are checked as they are given and step
 * by step, what was typed is kept over a reload, and a page around it hears its height. All of it is checked again on
 * the server, with the same code.
 */
const form = document.querySelector<HTMLFormElement>('form[data-form]');
/** How the name of a window begins that keeps what was typed. */
const KEPT = 'haycart ';
/** The most pixels that free code gets. */
const HIGHEST_FRAME = 4_000;

function sayHeight(): void {
  if (parent === window) return;
  const height = Math.ceil(document.documentElement.getBoundingClientRect().height);
  parent.postMessage({ haycart: 'height', height }, '*');
}

// Free code stands in frames of its own, which say how high they are.
addEventListener('message', ({ source, data }: MessageEvent<{ haycart?: string; height?: number } | null>) => {
  const frame = [...document.querySelectorAll<HTMLIFrameElement>('iframe.code')].find(
    ({ contentWindow }) => contentWindow === source,
  );
  if (frame && data?.haycart === 'height' && Number.isFinite(data.height))
    frame.style.height = `${Math.min(Math.ceil(data.height!), HIGHEST_FRAME)}px`;
});

if (form) run(form);
// Where colleagues enter one after the other, the first question is ready as soon as this page has its turn.
if (form?.elements.namedItem('_entry')) {
  const begin = () =>
    form
      .querySelector<HTMLElement>('.question input:not([type=hidden]), .question select, .question textarea')
      ?.focus();
  if (document.hasFocus()) begin();
  addEventListener('focus', () => {
    if (document.activeElement === document.body) begin();
  });
}
if (document.querySelector('[data-sent="true"], [data-sent=""]') || document.querySelector('.said'))
  parent.postMessage({ haycart: 'sent' }, '*');
document.getElementById('refused')?.focus();
new ResizeObserver(sayHeight).observe(document.body);

/** A number that begins with a calling code chooses its country, unless one with that code is chosen. */
function followCode(number: HTMLInputElement): void {
  const countries = number.parentElement?.querySelector<HTMLSelectElement>('select');
  const typed = /^(?:\+|00)([\d\s]+)/.exec(number.value)?.[1]?.replace(/\s/g, '');
  if (!countries || !typed) return;
  const fits = ({ dataset: { code } }: HTMLOptionElement) => code !== undefined && typed.startsWith(code);
  if (countries.selectedOptions[0] && fits(countries.selectedOptions[0])) return;
  const fitting = [...countries.options].filter(fits);
  const country = fitting.find(({ dataset: { first } }) => first !== undefined) ?? fitting[0];
  if (country) countries.value = country.value;
}

function run(form: HTMLFormElement): void {
  const { items, language } = JSON.parse(form.dataset.form ?? '{}') as { items: FormItem[]; language: string };
  const setting = { words: formWords(language) };
  const steps = [...form.querySelectorAll<HTMLElement>('.step')];
  let at = 0;
  let sent = false;

  const answers = (): Answers => {
    const all: Record<string, string[]> = {};
    for (const [name, value] of new FormData(form)) {
      const text = typeof value === 'string' ? value : value.name;
      (all[name] ??= []).push(text);
    }
    return Object.fromEntries(
      items.filter(isQuestion).map((question) => {
        const { name, type } = question;
        const given = arrivesInParts(question) ? all[`${name}[]`] : all[name];
        if (type === 'address') return [name, given?.join('\n').trim()];
        if (type === 'several-of') return [name, given];
        // Of a country and a number the number is what was answered.
        return [name, given?.at(-1)];
      }),
    );
  };

  /** Shows what is asked now, and answers what is wrong. */
  const follow = () => {
    const checked = checkAnswers({ items }, answers(), setting);
    for (const element of form.querySelectorAll<HTMLElement>('[data-item]')) {
      const hidden = !checked.shown.has(element.dataset.item!);
      if (element.hidden !== hidden) element.hidden = hidden;
      // What is not asked is not sent: its answer is kept here, should it be asked again.
      for (const control of element.querySelectorAll<HTMLInputElement>('input, select, textarea'))
        control.disabled = hidden;
    }
    return checked;
  };

  const say = (name: string, message: string | null) => {
    const error = document.getElementById(`e-${name}`);
    const control = document.getElementById(`q-${name}`) ?? form.querySelector(`[name="${name}"]`);
    if (!error || !control) return;
    error.textContent = message ?? '';
    error.hidden = message === null;
    if (message === null) control.removeAttribute('aria-invalid');
    else {
      control.setAttribute('aria-invalid', 'true');
      const described = control.getAttribute('aria-describedby')?.split(' ') ?? [];
      if (!described.includes(error.id)) control.setAttribute('aria-describedby', [...described, error.id].join(' '));
    }
  };

  /** Checks the questions among these elements; focuses the first that is wrong. */
  const takes = (within: ParentNode): boolean => {
    const { refused } = follow();
    const named = new Set(
      [...within.querySelectorAll<HTMLElement>('[data-item]')].map((element) => element.dataset.item),
    );
    const wrong = refused.filter(({ name }) => named.has(name));
    for (const name of named) say(name!, wrong.find((one) => one.name === name)?.message ?? null);
    if (wrong[0]) document.getElementById(`q-${wrong[0].name}`)?.focus();
    return wrong.length === 0;
  };

  /** The places of the steps that are asked now. */
  const openSteps = (): number[] => {
    const { shown } = checkAnswers({ items }, answers(), setting);
    return steps.flatMap(({ dataset: { step } }, place) => (!step || shown.has(step) ? [place] : []));
  };

  const showStep = (index: number, focus: boolean) => {
    at = index;
    const open = openSteps();
    steps.forEach((element, one) => (element.hidden = one !== at));
    const line = steps[at]!.querySelector('.progress');
    if (line)
      line.textContent = setting.words.step
        .replace('{n}', String(open.indexOf(at) + 1))
        .replace('{all}', String(open.length));
    form.querySelector<HTMLElement>('.send')!.hidden = open[open.length - 1] !== at;
    form.style.setProperty('--done', String((open.indexOf(at) + 1) / open.length));
    if (focus) {
      steps[at]!.tabIndex = -1;
      steps[at]!.focus();
      scrollTo({ top: 0 });
    }
    sayHeight();
  };

  const go = (by: 1 | -1) => {
    if (by === 1 && !takes(steps[at]!)) return;
    const open = openSteps();
    const next = by === 1 ? open.find((place) => place > at) : open.findLast((place) => place < at);
    if (next === undefined) return;
    showStep(next, true);
    keep();
  };

  // What was typed is kept in the name of this window, which browsers clear when it goes to another site: no cookie, no
  // storage, which a page with an origin of its own does not have, and gone with the window.
  const keep = () => {
    const typed: [string, string][] = [];
    for (const [name, value] of new FormData(form))
      if (typeof value === 'string' && !name.startsWith('_')) typed.push([name, value]);
    window.name = KEPT + JSON.stringify({ path: location.pathname, typed, at });
  };

  const takeUp = () => {
    const state = window.name.startsWith(KEPT)
      ? (JSON.parse(window.name.slice(KEPT.length)) as { path: string; typed: [string, string][]; at: number })
      : null;
    if (state?.path !== location.pathname || document.getElementById('refused')) return;
    const typed = new Map<string, string[]>();
    for (const [name, value] of state.typed) typed.set(name, [...(typed.get(name) ?? []), value]);
    for (const control of form.elements) {
      const { name, type } = control as HTMLInputElement;
      const values = typed.get(name);
      if (!name || name.startsWith('_') || type === 'hidden' || type === 'file' || !values) continue;
      if (type === 'checkbox' || type === 'radio')
        (control as HTMLInputElement).checked = values.includes((control as HTMLInputElement).value);
      else (control as HTMLInputElement).value = values.length > 1 ? values.shift()! : values[0]!;
    }
    at = Math.min(state.at, steps.length - 1);
  };

  // What is done here is counted, by the question and not by the person.
  let last = '';
  const tell = (did: 'start' | 'stop', more: object = {}) => {
    if (form.dataset.seen)
      navigator.sendBeacon(form.dataset.seen, JSON.stringify({ did, from: location.search.slice(1), ...more }));
  };
  addEventListener('pagehide', () => {
    if (last && !sent) tell('stop', { item: last });
  });

  takeUp();
  follow();
  if (steps.length > 1) {
    form.classList.add('stepped');
    steps.forEach((element, index) => {
      const bar = document.createElement('div');
      bar.className = 'steps';
      const button = (text: string, by: 1 | -1) => {
        const made = document.createElement('button');
        made.type = 'button';
        made.textContent = text;
        made.className = by === 1 ? 'next' : 'back';
        made.addEventListener('click', () => go(by));
        bar.append(made);
      };
      if (index > 0) button(setting.words.back, -1);
      if (index < steps.length - 1) button(setting.words.next, 1);
      element.append(bar);
    });
    const wrong = steps.findIndex((element) => element.querySelector('[aria-invalid="true"]'));
    showStep(wrong === -1 ? at : wrong, false);
  }

  form.addEventListener('input', ({ target }) => {
    if (target instanceof HTMLInputElement && target.type === 'tel') followCode(target);
    if (!last) tell('start');
    last = (target as HTMLElement).closest<HTMLElement>('[data-item]')?.dataset.item ?? last;
    follow();
    if (steps.length > 1) showStep(at, false);
    keep();
  });
  // A message moves what stands beneath it, so it waits while a pointer is down: what is being pressed stays in its place.
  let pressing = false;
  const waiting = new Set<string>();
  const sayWaiting = () => {
    const { refused } = follow();
    for (const item of waiting) say(item, refused.find(({ name }) => name === item)?.message ?? null);
    waiting.clear();
    sayHeight();
  };
  addEventListener('pointerdown', () => (pressing = true), true);
  for (const end of ['pointerup', 'pointercancel'])
    addEventListener(end, () => {
      pressing = false;
      setTimeout(sayWaiting);
    });
  form.addEventListener('change', ({ target }) => {
    const item = (target as HTMLElement).closest<HTMLElement>('[data-item]')?.dataset.item;
    if (item) waiting.add(item);
    if (!pressing) sayWaiting();
  });

  // In the editor: the step of what is chosen there.
  form.addEventListener('haycart:show', (event) => {
    const step = steps.findIndex((element) => element.contains((event as CustomEvent<Element>).detail));
    if (steps.length > 1 && step !== -1) showStep(step, false);
  });
  form.addEventListener('submit', (event) => {
    const last = openSteps().at(-1)!;
    if (at !== last && steps.length > 1) {
      event.preventDefault();
      go(1);
    } else if (!takes(form) || form.dataset.preview !== undefined || sent) event.preventDefault();
    else {
      sent = true;
      window.name = '';
    }
  });
  addEventListener('pageshow', () => (sent = false));
}
