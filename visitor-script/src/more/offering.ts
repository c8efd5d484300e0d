const MOST = 3
const LEAST_LETTERS = 3
const ENOUGH = 0.5

const words = (text: string): string[] =>
  (text.toLowerCase().match(/[\p{L}\p{N}_]+/gu) ?? []).filter((word) => [...word].length >= LEAST_LETTERS)

/**
 * The questions, at most three and the best first, that hold at least half of the words typed; as the server's
 * own rule has it, so that nothing that is not sent yet leaves the page.
 */
export function offered<T extends { question: string }>(questions: readonly T[], typed: string): T[] {
  const wanted = [...new Set(words(typed))]
  if (!wanted.length) return []
  return questions
    .map((one) => {
      const known = words(one.question)
      const hits = wanted.filter((word) =>
        known.some((each) => each.startsWith(word) || word.startsWith(each)),
      )
      return { one, hits: hits.length, size: known.length }
    })
    .filter(({ hits }) => hits / wanted.length >= ENOUGH)
    .sort((a, b) => b.hits - a.hits || a.size - b.size)
    .slice(0, MOST)
    .map(({ one }) => one)
}
