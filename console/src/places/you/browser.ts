/** What kind of thing a browser runs on, by what it says of itself: "Phone (Linux; Android 14)". */
export function browserOf(agent: string): string {
  const kind = /ipad|tablet/i.test(agent) ? 'Tablet' : /mobi|phone/i.test(agent) ? 'Phone' : 'Computer'
  const system = /\(([^)]+)\)/.exec(agent)?.[1]?.split(';').slice(0, 2).join(';').trim()
  if (!system) return agent ? agent.slice(0, 60) : 'A browser that does not say what it is'
  return `${kind} (${system})`
}
