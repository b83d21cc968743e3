/** Chinese family names of two characters. */
const PAIRED = new Set(words('欧阳 歐陽 司马 司馬 诸葛 諸葛 上官 夏侯 东方 東方 皇甫 尉迟 남궁 황보 선우 제갈 독고'));
/** Japanese family names of two characters that are common. */
const JAPANESE = new Set(
  words(
    '佐藤 鈴木 高橋 田中 伊藤 渡辺 渡邊 山本 中村 小林 加藤 吉田 山田 佐々 山口 松本 井上 木村 清水 斎藤 斉藤 山崎 阿部 池田 橋本 石川 前田 小川 藤田 岡田 後藤 村上 近藤 石井 坂本 遠藤 青木 藤井 西村 福田 太田 三浦 藤原 岡本 松田 中島 中川 原田 小野 田村 竹内 金子 和田 中山 石田 上田 森田 柴田 酒井 工藤 横山 宮崎 宮本 内田 高木 安藤 島田 谷口 大野 高田 丸山 今井 河野 藤本 村田 武田 上野 杉山 増田 平野 大塚 千葉 久保 松井 岩崎 桜井 野口 松尾 野村 木下 菊地 佐野 大西 杉本 新井 浜田 菅原 市川 古川 水野 小松 島崎 川口 本田 川村 飯田 西川 吉川 片山 熊谷',
  ),
);

const HAN = /^\p{Script=Han}{2,5}$/u;
const HANGUL = /^\p{Script=Hangul}{2,4}$/u;
/** Written family name first, with a space between. */
const SPACED =
  /^[\p{Script=Han}\p{Script=Hangul}\p{Script=Hiragana}\p{Script=Katakana}ー々]+(?:\s[\p{Script=Han}\p{Script=Hangul}\p{Script=Hiragana}\p{Script=Katakana}ー々]+)+$/u;

/** A name in Han characters, kana or Hangul, which is written family name first; `null` for any other. */
export function hanName(name: string): { family: string; given: string } | null {
  if (SPACED.test(name)) {
    const [family, ...given] = name.split(' ');
    return { family: family!, given: given.join(' ') };
  }
  if (!HAN.test(name) && !HANGUL.test(name)) return null;
  const characters = [...name];
  const two = characters.slice(0, 2).join('');
  const isTwo =
    characters.length > 2 && (PAIRED.has(two) || JAPANESE.has(two) || (HAN.test(name) && characters.length > 3));
  const long = isTwo ? 2 : 1;
  return { family: characters.slice(0, long).join(''), given: characters.slice(long).join('') };
}

function words(text: string): string[] {
  return text.split(' ');
}
