import { checkAnswer } from '@haycart/core/form';
import type { Question } from '@haycart/core';

/** Checks a hosted form in the browser, with the code that checks it again on the server. */
for (const form of document.querySelectorAll<HTMLFormElement>('form[data-questions]')) {
  const questions = JSON.parse(form.dataset.questions ?? '[]') as Question[];

  const check = (question: Question): boolean => {
    const control = form.elements.namedItem(question.name) as HTMLInputElement;
    const answer = control.type === 'checkbox' ? (control.checked ? control.value : '') : control.value;
    const refused = checkAnswer(question, answer);
    const error = document.getElementById(`e-${question.name}`)!;
    error.textContent = refused?.message ?? '';
    error.hidden = refused === null;
    control.toggleAttribute('aria-invalid', refused !== null);
    if (refused) {
      control.setAttribute('aria-invalid', 'true');
      control.setAttribute('aria-describedby', error.id);
    }
    return refused === null;
  };

  for (const question of questions) {
    const control = form.elements.namedItem(question.name);
    if (control instanceof Element) control.addEventListener('change', () => check(question));
  }

  form.addEventListener('submit', (event) => {
    const wrong = questions.filter((question) => !check(question));
    if (!wrong.length) return;
    event.preventDefault();
    (form.elements.namedItem(wrong[0]!.name) as HTMLElement).focus();
  });
}

document.getElementById('refused')?.focus();
