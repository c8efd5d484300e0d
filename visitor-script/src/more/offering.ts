const MOST = 3
const LEAST_LETTERS = 3
const ENOUGH = 3
const SEVERAL = 3

const words = (text: string): string[] =>
  (text.toLowerCase().match(/[\p{L}\p{N}_]+/gu) ?? []).filter((word) => [...word].length >= LEAST_LETTERS)

const has = (known: string[], word: string): boolean =>
  known.some((one) => one.startsWith(word) || word.startsWith(one))

/**
 * The questions, at most three and the best first, that are much like what is typed; as the server's own rule has
 * it, so that nothing that is not sent yet leaves the page.
 */
export function offered<T extends { question: string }>(questions: readonly T[], typed: string): T[] {
  const known = questions.map((one) => words(one.question))
  const telling = [...new Set(words(typed))]
    .map((word) => known.map((one) => has(one, word)))
    .filter((hits) => {
      const count = hits.filter(Boolean).length
      return count && (known.length < SEVERAL || 2 * count <= known.length)
    })
  return questions
    .map((one, at) => ({
      one,
      hits: telling.filter((hits) => hits[at]).length,
      size: known[at]?.length ?? 0,
    }))
    .filter(({ hits }) => hits && ENOUGH * hits >= telling.length)
    .sort((a, b) => b.hits - a.hits || a.size - b.size)
    .slice(0, MOST)
    .map(({ one }) => one)
}
