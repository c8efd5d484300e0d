import { describe, expect, it } from 'vitest'
import { DRAFT, keepingDraft } from '@/testing/draft'
import { open, screen, sentTo, shows, user, waitFor, within } from '@/testing/open'
import { answering, api, refused, sent } from '@/testing/server'

const edit = async (side?: string) => {
  const now = keepingDraft()
  await open('/touchpoints/2')
  await screen.findByRole('tab', { name: 'Content' })
  if (side) await user.click(screen.getByRole('tab', { name: side }))
  return now
}
const kept = async () => {
  await waitFor(() => expect(sent.filter((one) => one.path === `${DRAFT}/draft`)).not.toHaveLength(0))
  await shows(/^Saved/)
}
/** Unfolds one of the groups of a form. */
const unfold = async (words: string | RegExp) => {
  const summary = (await screen.findAllByText(words)).map((one) => one.closest('summary')).find(Boolean)
  await user.click(summary!)
}

describe('the parts', () => {
  it('are changed where they stand, and a run of changes goes back and comes again', async () => {
    const now = await edit()
    await user.click(await screen.findByRole('button', { name: /^Headline/ }))
    const words = screen.getByLabelText('Words')
    await user.clear(words)
    await user.type(words, 'Another headline')
    await kept()
    const headline = () => JSON.stringify(now().document).includes('Another headline')
    await waitFor(() => expect(headline()).toBe(true))
    await user.click(screen.getByRole('button', { name: 'Undo' }))
    await waitFor(() => expect(headline()).toBe(false))
    await user.click(await screen.findByRole('button', { name: 'Redo' }))
    await waitFor(() => expect(headline()).toBe(true))
  })

  it.each([
    ['Text', 'text'],
    ['Price', 'price'],
    ['Countdown', 'countdown'],
    ['Name field', 'field'],
    ['Line', 'line'],
    ['Foreign markup', 'markup'],
    ['Opening hours', 'hours'],
    ['Contact channels', 'channels'],
  ])('of the kind %s are added, doubled and taken out', async (name, kind) => {
    const now = await edit()
    const count = () => now().document.steps[0]!.parts.filter((one) => one.kind === kind).length
    const before = count()
    await user.click(screen.getByRole('button', { name: '+ Add a part' }))
    const item = (await screen.findAllByRole('menuitem')).find((one) => one.textContent?.trim().startsWith(name))
    if (!item) return expect(screen.getAllByRole('menuitem').map((one) => one.textContent?.trim())).not.toContain(name)
    await user.click(item)
    await waitFor(() => expect(count()).toBe(before + 1))
    await user.click(screen.getByRole('button', { name: /^duplicate/ }))
    await waitFor(() => expect(count()).toBe(before + 2))
    for (const left of [1, 0]) {
      await user.click(screen.getAllByRole('button', { name: /^Remove/ }).at(-1)!)
      await waitFor(() => expect(count()).toBe(before + left))
      const again = screen.queryAllByRole('button', { name: new RegExp(`^${name}`) }).at(-1)
      if (left && again) await user.click(again)
    }
  }, 40_000)

  it('hidden leave the stage and stay in the list', async () => {
    const now = await edit()
    await user.click(await screen.findByRole('button', { name: /^Headline/ }))
    await user.click(screen.getByRole('checkbox', { name: 'hidden' }))
    await waitFor(() => expect(now().document.steps[0]!.parts.some((one) => one.hidden)).toBe(true))
    expect((await screen.findByRole('button', { name: /^Headline.*hidden/ }))).toBeTruthy()
  })
})

describe('the look', () => {
  it('of each kind is sent as a value of its own', async () => {
    const now = await edit('Look')
    const width = await screen.findByLabelText('Width')
    await user.clear(width)
    await user.type(width, '640')
    await user.tab()
    await waitFor(() => expect(now().document.look.width).toBe(640))
    await user.selectOptions(screen.getByLabelText('Stands'), 'top')
    await waitFor(() => expect(now().document.look.place).toBe('top'))
    await unfold('Colours')
    const colour = screen.getByLabelText('Button')
    await user.clear(colour)
    await user.type(colour, '#a32d1e')
    await user.tab()
    await waitFor(() => expect(now().document.look.colours.button).toBe('#a32d1e'))
  })

  it('departs on the phone, and goes back', async () => {
    const now = await edit('Look')
    await user.click(await screen.findByRole('button', { name: 'On phones' }))
    await unfold('Colours')
    const card = screen.getByLabelText('Card')
    await user.clear(card)
    await user.type(card, '#102030')
    await user.tab()
    const phone = () => (now().document.look.phone as { colours?: { card?: string | null } }).colours?.card
    await waitFor(() => expect(phone()).toBe('#102030'))
    await user.click(await screen.findByRole('button', { name: 'Card: back to what the desktop has' }))
    await waitFor(() => expect(phone() ?? null).toBeNull())
  })

  it('has a close sign, a backdrop, type and spacing', async () => {
    const now = await edit('Look')
    await unfold('How it is closed')
    await user.selectOptions(screen.getByRole('combobox', { name: 'Close sign' }), 'a word')
    await user.type(await screen.findByLabelText('Word to close'), 'Not now')
    await user.tab()
    await waitFor(() => expect(JSON.stringify(now().document.look)).toContain('Not now'))
    for (const words of [/^Background and/, /^Type/, /^Spacing/, /^Comes and goes|^Arrival/, /Own CSS/]) {
      const summary = screen.queryAllByText(words).map((one) => one.closest('summary')).find(Boolean)
      if (summary) await user.click(summary)
    }
    expect(screen.getByLabelText(/Only meets this touchpoint/)).toBeTruthy()
  })
})

describe('what comes after', () => {
  it('is sent where it belongs', async () => {
    const now = await edit('After')
    await user.click(await screen.findByLabelText(/^Asks for follow-up/))
    await waitFor(() => expect(now().document.after.follow_up).toBe(true))
    const tags = screen.getByLabelText('They get these tags')
    await user.clear(tags)
    await user.type(tags, 'spring, boats, spring')
    await user.tab()
    await waitFor(() => expect(now().document.after.tags).toEqual(['spring', 'boats']))
    await user.selectOptions(screen.getByLabelText('Code'), 'each')
    await waitFor(() => expect(JSON.stringify(now().document.after)).toContain('each'))
    const page = screen.getByLabelText('They go to a page instead of the thanks step')
    await user.type(page, 'thank-you')
    await user.tab()
    await waitFor(() => expect(JSON.stringify(now().document.after)).toContain('thank-you'))
  })

  it('has codes that are added from lines', async () => {
    answering(
      api.post('/api/touchpoints/{touchpoint_id}/codes', ({ response }) =>
        response(200).json({ total: 2, left: 2 } as never),
      ),
    )
    await edit('After')
    await user.selectOptions(await screen.findByLabelText('Code'), 'each')
    await user.type(await screen.findByLabelText(/^More codes/), 'A1{Enter}A2{Enter}A1')
    await user.click(screen.getByRole('button', { name: 'Add these' }))
    expect(await sentTo('POST', `${DRAFT}/codes`)).toMatchObject({ text: 'A1\nA2\nA1' })
  })
})

describe('the show sentence', () => {
  it('holds what its panels say', async () => {
    const now = await edit()
    const show = within(await screen.findByRole('group', { name: 'Show sentence' }))
    const first = () => now().document.show.sentences[0]!
    await waitFor(() => expect(show.getAllByRole('button').length).toBeGreaterThan(3))
    await user.click(show.getAllByRole('button')[0]!)
    await user.type(await screen.findByLabelText('Only on these pages: add'), '/lessons{Enter}')
    await waitFor(() => expect(JSON.stringify(first())).toContain('/lessons'))
    await user.type(screen.getByLabelText('But not on: add'), '/trips/sunrise{Enter}')
    await waitFor(() => expect(JSON.stringify(first())).toContain('/trips/sunrise'))
    await user.keyboard('{Escape}')
    await user.click(show.getAllByRole('button')[1]!)
    await user.click(await screen.findByLabelText('on a tablet'))
    await waitFor(() => expect(JSON.stringify(now().document.show)).not.toContain('tablet'))
    await user.selectOptions(screen.getByLabelText('Add something about them'), 'been')
    await waitFor(() => expect(JSON.stringify(now().document.show)).toContain('been'))
    await user.keyboard('{Escape}')
    await user.click(show.getByRole('button', { name: /^or also/ }))
    await waitFor(() => expect(now().document.show.sentences).toHaveLength(2))
    await user.click(await screen.findByRole('button', { name: 'Leave out sentence 2' }))
    await waitFor(() => expect(now().document.show.sentences).toHaveLength(1))
  }, 40_000)
})

describe('keeping', () => {
  it('of what somebody else has changed meanwhile is a question, and nothing is lost', async () => {
    await edit()
    let tries = 0
    answering(
      api.put('/api/touchpoints/{touchpoint_id}/draft', ({ response }) => {
        tries += 1
        return tries === 1
          ? refused(409, 'Jory Tregenza has changed this touchpoint meanwhile.')
          : (response(200).json(keepingDraft()()) as never)
      }),
    )
    await user.click(await screen.findByRole('button', { name: /^Headline/ }))
    const words = screen.getByLabelText('Words')
    await user.clear(words)
    await user.type(words, 'Mine')
    expect((await screen.findAllByRole('alert')).map((one) => one.textContent).join()).toContain('meanwhile')
    expect((screen.getByLabelText('Words') as HTMLInputElement).value).toBe('Mine')
  })

  it('of a name, a purpose and a stance goes out by itself', async () => {
    const now = await edit()
    const name = screen.getByLabelText('Name of the touchpoint')
    await user.clear(name)
    await user.type(name, 'Tides')
    await user.tab()
    expect(await sentTo('PUT', `${DRAFT}/name`)).toMatchObject({ name: 'Tides' })
    answering(
      api.post('/api/touchpoints/{touchpoint_id}/turn-into', ({ response }) => response(200).json(now())),
    )
    await user.selectOptions(screen.getByLabelText('How it stands'), 'bar')
    expect(await sentTo('POST', `${DRAFT}/turn-into`)).toMatchObject({ stance: 'bar' })
  })

  it('looks back at what there was, and goes there', async () => {
    const now = await edit()
    answering(
      api.post('/api/touchpoints/{touchpoint_id}/revisions/{number}/return', ({ response }) =>
        response(200).json(now()),
      ),
    )
    await user.click(screen.getByRole('button', { name: 'Look back' }))
    const dialog = within(await screen.findByRole('dialog'))
    const versions = await dialog.findAllByRole('button', { name: /From the starter|Version|version/ })
    expect(versions.length).toBeGreaterThan(0)
  })

  it('puts live only after what will change was said', async () => {
    await edit()
    answering(
      api.post('/api/touchpoints/{touchpoint_id}/off', ({ response }) => response(200).json(keepingDraft()())),
    )
    await user.click(screen.getByRole('button', { name: 'Turn off' }))
    await sentTo('POST', `${DRAFT}/off`)
  })
})
