import { plainName } from './plain-name';

/*
 * Names whose family name comes first are told by words that are common in them: nothing else says it. Who is not among
 * them is read given name first, as most are.
 */

const VIETNAMESE = nameSet(
  'nguyen tran le pham hoang huynh phan vu vo dang bui do ho ngo duong ly truong dinh mai dao',
);
/** Letters that only Vietnamese has. */
const VIETNAMESE_LETTERS = /[\u01a0\u01a1\u01af\u01b0\u0110\u0111\u0102\u0103\u1ea0-\u1ef9]/;
const VIETNAMESE_MIDDLE = nameSet('van thi huu duc minh');

const HUNGARIAN_GIVEN = nameSet(
  'laszlo istvan jozsef janos zoltan sandor gabor ferenc attila peter tamas zsolt tibor andras csaba imre lajos gyorgy balazs gyula mihaly karoly robert bela adam akos bence mate levente ödön odon kristof daniel miklos szabolcs gergely',
  'maria erzsebet katalin ilona eva anna zsuzsanna margit judit agnes andrea ildiko erika krisztina eszter julianna edit gabriella piroska aniko orsolya reka tunde zsofia dora nora emese boglarka hajnalka',
);
const HUNGARIAN_LETTERS = /[őűŐŰ]/;
const HUNGARIAN_FAMILY = nameSet(
  'nagy kovacs toth szabo horvath varga kiss molnar nemeth farkas balogh papp takacs juhasz lakatos meszaros olah simon racz fekete szilagyi torok feher balazs gal kis szucs kocsis pinter fodor orsos szalai sipos magyar lukacs gulyas biro kiraly katona laszlo fazekas kosa boros somogyi hegedus',
);

const CHINESE_FAMILY = nameSet(
  'wang li zhang liu chen yang huang zhao wu zhou xu sun zhu guo lin ma gao luo zheng liang xie song tang deng feng cao peng zeng xiao',
);
/** One or two syllables of Pinyin (ISO 7098), without tones. */
const PINYIN =
  /^(?:(?:zh|ch|sh|[bpmfdtnlgkhjqxrzcsyw])?(?:iang|iong|uang|ang|eng|ong|ian|iao|uai|uan|ing|ai|ei|ao|ou|an|en|ia|ie|iu|in|ua|uo|ui|un|ue|a|o|e|i|u)['-]?){1,2}$/;

const KOREAN_FAMILY = nameSet(
  'kim lee park choi jung jeong kang cho yoon jang lim han shin seo kwon hwang ahn song yoo hong bae baek oh moon yang son noh ryu',
);
const KOREAN_GIVEN = /^\p{L}{1,6}-\p{L}{1,6}$/u;

/** Fathers' names, which stand after the given name (`Пётр Сергеевич`). */
const PATRONYMIC = /(?:ович|евич|ьич|мич|кич|овна|евна|ична|йович|івна|ївна|ovich|evich|ovna|evna|ichna)$/iu;

/** Whether the first of the words of a name is the family's. */
export function isFamilyFirst(words: readonly string[]): boolean {
  if (words.length < 2) return false;
  const plain = words.map(plainName);
  const [first = '', second = ''] = plain;
  const last = plain.at(-1)!;
  if (words.length === 3 && isPatronymic(words[2]!) && !isPatronymic(words[1]!)) return true;
  if (VIETNAMESE.has(first))
    return (
      (words.length > 2 && VIETNAMESE_MIDDLE.has(second)) ||
      (!VIETNAMESE.has(last) && words.some((word) => VIETNAMESE_LETTERS.test(word)))
    );
  if (words.length !== 2) return false;
  if (HUNGARIAN_GIVEN.has(last) && !HUNGARIAN_GIVEN.has(first))
    return HUNGARIAN_FAMILY.has(first) || words.some((word) => HUNGARIAN_LETTERS.test(word));
  if (KOREAN_FAMILY.has(first) && KOREAN_GIVEN.test(words[1]!)) return true;
  return CHINESE_FAMILY.has(first) && !CHINESE_FAMILY.has(second) && PINYIN.test(second);
}

/** Whether the second of three words is the father's name: then both before the last are given. */
export function isPatronymic(word: string): boolean {
  return PATRONYMIC.test(word);
}

function nameSet(...lists: string[]): ReadonlySet<string> {
  return new Set(lists.flatMap((list) => list.split(' ').map(plainName)));
}
