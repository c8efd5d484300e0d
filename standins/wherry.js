// The page of the messaging stand-in: shows what was said, and says what is typed.
const to = document.body.dataset.to
const me = (localStorage.wherry ||= Math.random().toString(36).slice(2, 10))
const log = document.querySelector('ol')
const choices = document.querySelector('#choices')
const box = document.querySelector('textarea')
let seen = -1

async function say(body) {
  await fetch('/say', { method: 'POST', body: JSON.stringify({ to, me, ...body }) })
  await look()
}

async function look() {
  const said = await (await fetch(`/talk.json?me=${me}`)).json()
  if (said.messages.length === seen) return
  seen = said.messages.length
  log.replaceChildren(
    ...said.messages.map((one) => {
      const row = document.createElement('li')
      row.className = one.from
      row.textContent = one.text
      return row
    }),
  )
  log.scrollTop = log.scrollHeight
  choices.replaceChildren(
    ...said.choices.map((one) => {
      const made = document.createElement('button')
      made.textContent = one.label
      made.onclick = () => say({ choice: one.id, text: one.label })
      return made
    }),
  )
}

document.querySelector('form').addEventListener('submit', (event) => {
  event.preventDefault()
  if (box.value.trim()) void say({ text: box.value })
  box.value = ''
})
void look()
setInterval(() => void look().catch(() => undefined), 1000)
