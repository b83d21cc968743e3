const LONGEST = 200;

/**
 * A function of a text that remembers what it answered, for work that is asked for again and again: the same names, domains
 * and addresses stand in many records. When it remembers `most` answers it forgets them all and begins anew. Long texts are
 * not remembered.
 */
export function remembered<Answer>(work: (text: string) => Answer, most = 20_000): (text: string) => Answer {
  const known = new Map<string, Answer>();
  return (text) => {
    const before = known.get(text);
    if (before !== undefined) return before;
    const answer = work(text);
    if (text.length > LONGEST) return answer;
    if (known.size >= most) known.clear();
    known.set(text, answer);
    return answer;
  };
}
