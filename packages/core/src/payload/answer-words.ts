import type { JsonValue } from '../json';
import { remembered } from '../remembered';

/** How senders call the properties of an answer, without capitals and punctuation. */
export const LABELS = nameSet(
  'label title question name caption prompt heading questiontext questiontitle questionlabel fieldlabel fieldname fieldtitle',
);
export const IDS = nameSet(
  'id key ref slug code fieldid questionid qid uuid uid identifier variable fieldkey fieldref questionkey questionref',
);
/** What holds nothing but what was answered. */
export const ANSWERS = nameSet('value values answer answers response responses result reply val');
/** What holds what was answered, unless something else does. */
export const VALUES = nameSet([...ANSWERS].join(' '), 'text content selected choice choices selection data');
/** What holds the question where it is an object of its own. */
export const QUESTIONS = nameSet('question field element property control item prompt q');
/** What says something about the answer and is none. */
export const ABOUT = nameSet(
  'type kind required position order index sort page section description hint help options score points format datatype',
  'createdat updatedat answeredat timestamp status visible category group other placeholder locale language',
  'version versions revision confidence verified valid',
);
/** What lists the options of a question. */
export const OPTIONS = nameSet('options choices items values enum alternatives');
/** What stands for the whole of an answer that is an object, the first that is there. */
export const INNER = nameSet(
  'text value values label labels answer answers content full title name url fileurl email number boolean date phonenumber',
);
/** What holds questions by id, as `{"labels": {"q1": "Your name"}}`. */
export const LABEL_MAPS = nameSet(
  'labels label questions titles headers captions prompts names fieldlabels fieldnames questiontexts',
);
/** What lists the questions to a row of answers beside it. */
export const HEADERS = nameSet('header headers columns columnnames names questions labels fields titles keys headings');
/** What holds the row. */
export const ROWS = nameSet('row rows values value data answers cells record records responses');

/** A property without capitals and punctuation. Remembered, since the same few come again and again. */
export const folded = remembered((property) => property.toLowerCase().replace(/[^a-z0-9]/g, ''));

export function isScalar(value: JsonValue | undefined): value is string | number | boolean {
  return value !== null && value !== undefined && typeof value !== 'object';
}

export function isScalarOrNull(value: JsonValue): value is string | number | boolean | null {
  return value === null || isScalar(value);
}

export function scalarText(value: string | number | boolean): string {
  return String(value).trim();
}

function nameSet(...lists: string[]): ReadonlySet<string> {
  return new Set(lists.flatMap((list) => list.split(' ')));
}
