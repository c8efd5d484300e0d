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

  it('are added, doubled and taken out', async () => {
    const now = await edit()
    const count = () => now().document.steps[0]!.parts.filter((one) => one.kind === 'text').length
    const before = count()
    await user.click(screen.getByRole('button', { name: '+ Add a part' }))
    const items = await screen.findAllByRole('menuitem')
    await user.click(items.find((one) => one.textContent?.trim().startsWith('Text'))!)
    await waitFor(() => expect(count()).toBe(before + 1))
    await user.click(screen.getByRole('button', { name: 'duplicate Text' }))
    await waitFor(() => expect(count()).toBe(before + 2))
    await user.click(screen.getByRole('button', { name: 'Remove Text' }))
    await waitFor(() => expect(count()).toBe(before + 1))
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
    expect(await sentTo('POST', `${DRAFT}/codes`)).toMatchObject({ codes: 'A1\nA2\nA1' })
  })
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
      api.post('/api/touchpoints/{touchpoint_id}/off', ({ response }) =>
        response(200).json(keepingDraft()()),
      ),
    )
    await user.click(screen.getByRole('button', { name: 'Turn off' }))
    await sentTo('POST', `${DRAFT}/off`)
  })
})
