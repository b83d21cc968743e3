import { answerText, isJsonObject, payloadFields, questionsOf, shorten, type FormDefinition } from '@haycart/core';
import type { SubmissionDetail } from '@haycart/api';
import { joined, markup, type Html } from '../forms/html';

const MOST_ANSWERS = 200;
const LONGEST_ANSWER = 4_000;

/** All that was sent, what a yes would do, and the two answers. */
export function approvalForm({
  would,
  submission,
  form,
}: {
  would: readonly string[];
  submission: SubmissionDetail;
  form: FormDefinition | null;
}): Html {
  const answers = answersOf(submission, form);
  const more = answers.length - MOST_ANSWERS;
  return markup`<h2>A yes writes</h2>
<ul>${joined(would.map((one) => markup`<li>${one}</li>`))}</ul>
<h2>What was sent</h2>
<dl class="answers">${joined(
    answers.slice(0, MOST_ANSWERS).map(({ label, text }) => markup`<dt>${label}</dt><dd>${text}</dd>`),
    '\n',
  )}</dl>
${more > 0 && markup`<p>And ${more} more.</p>`}
<form method="post"><label for="note">Reason, kept with the run if you give one</label>
<textarea id="note" name="note" maxlength="1000" rows="3"></textarea>
<div class="send"><button type="submit" name="answer" value="yes">Yes, write it</button><button type="submit" class="plain" name="answer" value="no">No</button></div></form>`;
}

function answersOf({ payload, raw }: SubmissionDetail, form: FormDefinition | null): { label: string; text: string }[] {
  if (!isJsonObject(payload)) return [{ label: 'As it came', text: shorten(raw, LONGEST_ANSWER) }];
  const labels = new Map((form ? questionsOf(form) : []).map(({ name, label }) => [name, label]));
  const answers = new Map<string, { label: string; text: string }>();
  for (const { key, label, value } of payloadFields(payload)) {
    const text = shorten(answerText(value), LONGEST_ANSWER);
    if (text === '') continue;
    // What was chosen of several is one answer.
    const name = key.replace(/\[\d+\]$/, '');
    const before = labels.has(name) ? answers.get(name) : undefined;
    if (before) before.text += `, ${text}`;
    else answers.set(labels.has(name) ? name : key, { label: labels.get(name) || label || key, text });
  }
  return [...answers.values()];
}
