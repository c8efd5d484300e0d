import { fireEvent } from '@testing-library/dom'
import { describe, expect, it } from 'vitest'
import { keepingDraft } from '@/testing/draft'
import { gone, open, screen, shows, user, waitFor, within } from '@/testing/open'
import { answering, api } from '@/testing/server'

const edit = async (side?: string, says?: Parameters<typeof keepingDraft>[0]) => {
  const now = keepingDraft(says)
  await open('/touchpoints/2')
  await screen.findByRole('tab', { name: 'Content' })
  if (side) await user.click(screen.getByRole('tab', { name: side }))
  return now
}
const names = () =>
  within(screen.getByRole('list', { name: 'Parts of this step' }))
    .getAllByRole('button')
    .filter((one) => one.hasAttribute('data-handle'))
    .map((one) => one.querySelector('span')?.textContent)
const hidden = (now: ReturnType<typeof keepingDraft>) =>
  now()
    .document.steps[0]!.parts.filter((one) => one.hidden)
    .map((one) => one.kind)
const type = async (label: string | RegExp, words: string) => {
  const box = await screen.findByLabelText(label)
  await user.clear(box)
  await user.type(box, words)
  await user.tab()
}
/** What is pasted, or chosen from a field of colours. */
const put = async (label: string, value: string) => {
  const box = await screen.findByLabelText(label)
  fireEvent.input(box, { target: { value } })
  fireEvent.change(box)
}

describe('a part', () => {
  it('says an amount as it was read, moves by keys, is for one kind of screen, and goes', async () => {
    answering(
      api.get('/api/money', ({ response }) =>
        response(200).json({ amount: '32.50', currency: 'GBP', words: '£32.50' }),
      ),
    )
    const now = await edit()
    const price = () => now().document.steps[0]!.parts.find((one) => one.kind === 'price')
    await user.click(screen.getByRole('button', { name: '+ Add a part' }))
    const items = await screen.findAllByRole('menuitem')
    await user.click(items.find((one) => one.textContent?.trim().startsWith('Price'))!)
    await type('Now', '32,50')
    await waitFor(() => expect(price()).toMatchObject({ now: '32.50' }))
    const before = names().indexOf('Price')
    const handle = screen
      .getAllByRole('button', { name: /^Price/ })
      .find((one) => one.hasAttribute('data-handle'))!
    handle.focus()
    await user.keyboard('{Alt>}{ArrowUp}{/Alt}')
    await waitFor(() => expect(names().indexOf('Price')).toBe(before - 1))
    expect(document.activeElement?.textContent).toContain('Price')
    await user.click(screen.getAllByLabelText('phone')[0]!)
    await waitFor(() => expect(price()).toMatchObject({ on: ['desktop'] }))
    await shows('desktop only')
    await user.keyboard('{Escape}')
    handle.focus()
    await user.keyboard('{Delete}')
    await waitFor(() => expect(price()).toBeUndefined())
    ;(document.activeElement as HTMLElement).blur()
    await user.keyboard('{Control>}z{/Control}')
    await waitFor(() => expect(names()).toContain('Price'))
    await user.keyboard('{Control>}{Shift>}z{/Shift}{/Control}')
    await waitFor(() => expect(names()).not.toContain('Price'))
  })

  it('that is hidden stays in the list, and says so', async () => {
    const now = await edit()
    await user.click(screen.getByRole('button', { name: /^Text/ }))
    await user.click(await screen.findByRole('checkbox', { name: 'hidden' }))
    await waitFor(() => expect(hidden(now)).toEqual(['text', 'field']))
    await user.click(screen.getByRole('button', { name: /^Text/ }))
    await screen.findByRole('button', { name: /^Text.*hidden/ })
  })

  it('of two that are changed while both are being kept has what was said last', async () => {
    const waiting: (() => void)[] = []
    const now = await edit(undefined, () => new Promise<void>((go) => waiting.push(go)))
    await user.click(screen.getByRole('button', { name: /^Text/ }))
    await user.click(await screen.findByRole('checkbox', { name: 'hidden' }))
    await waitFor(() => expect(waiting).toHaveLength(1))
    await user.click(screen.getByRole('button', { name: /^Picture/ }))
    await user.click(screen.getByRole('button', { name: 'Remove Picture' }))
    await waitFor(() => {
      waiting.splice(0).forEach((go) => go())
      expect(now().document.steps[0]!.parts.some((one) => one.kind === 'picture')).toBe(false)
      expect(hidden(now)).toEqual(['text', 'field'])
    })
  })
})

describe('a step', () => {
  it('is led to by a choice, and what led to it leads on when it goes', async () => {
    const now = await edit()
    await user.click(screen.getByRole('button', { name: '+ Step' }))
    await user.click(screen.getByText('This step'))
    await type('Name of the step', 'A third way')
    const third = () => now().document.steps.find((one) => one.name === 'A third way')
    await waitFor(() => expect(third()).toBeDefined())
    await user.click(screen.getByRole('button', { name: 'Ask' }))
    await user.click(screen.getByRole('button', { name: /^Button that sends/ }))
    const leads = await screen.findByLabelText('The step that comes next')
    await user.selectOptions(leads, within(leads).getByRole('option', { name: /A third way/ }))
    const led = () => JSON.stringify(now().document.steps[0])
    await waitFor(() => expect(led()).toContain(`"next":"${third()!.id}"`))
    const id = third()!.id
    await user.click(screen.getByRole('button', { name: 'A third way' }))
    await user.click(screen.getByRole('button', { name: 'Remove' }))
    await waitFor(() => expect(third()).toBeUndefined())
    expect(led()).not.toContain(`"next":"${id}"`)
  })
})

describe('the look', () => {
  it('departs on the phone, and goes back in one click', async () => {
    const now = await edit('Look')
    await user.click(await screen.findByRole('button', { name: 'On phones' }))
    await user.click(screen.getByText('Colours'))
    await put('Card', '#102030')
    await waitFor(() => expect(JSON.stringify(now().document.look.phone)).toContain('#102030'))
    await user.click(screen.getByRole('button', { name: 'Card: back to what the desktop has' }))
    await waitFor(() => expect(JSON.stringify(now().document.look.phone)).not.toContain('#102030'))
  })

  it('says what of our own CSS is refused, and keeps the rest', async () => {
    const words = 'This reaches outside and cannot be used here.'
    const now = await edit(
      'Look',
      ({ look }) => look.css.includes('url') && { refused: { 'look.css': words } },
    )
    await user.click(screen.getByText('Own CSS'))
    const css = 'Only meets this touchpoint'
    await put(css, 'h2{background:url(https://x.example/t.png)}')
    await shows(words)
    await put(css, 'h2{text-transform:uppercase}')
    await waitFor(() => expect(now().document.look.css).toContain('uppercase'))
    await gone(() => screen.queryByText(words))
  })

  it('that is being typed stands while something else is kept', async () => {
    const now = await edit('Look')
    const width = await screen.findByLabelText<HTMLInputElement>('Width')
    await user.selectOptions(screen.getByLabelText('Stands'), 'top')
    await user.clear(width)
    await user.type(width, '64')
    await waitFor(() => expect(now().document.look.place).toBe('top'))
    await shows(/^Saved/)
    expect(width.value).toBe('64')
    await user.type(width, '0')
    await user.tab()
    await waitFor(() => expect(now().document.look.width).toBe(640))
  })

  it('is changed while a new name is under way, and both are kept', async () => {
    const now = await edit('Look')
    let go = () => {}
    answering(
      api.put('/api/touchpoints/{touchpoint_id}/name', async () => {
        await new Promise<void>((free) => (go = free))
        return undefined as never
      }),
    )
    await type('Name of the touchpoint', 'Another name')
    await type('Width', '444')
    go()
    await waitFor(() => {
      expect(now().name).toBe('Another name')
      expect(now().document.look.width).toBe(444)
    })
    expect((screen.getByLabelText('Width') as HTMLInputElement).value).toBe('444')
  })
})

describe('the show sentence', () => {
  it('is joined to another by “or”, and goes again', async () => {
    const now = await edit()
    const show = within(await screen.findByRole('group', { name: 'Show sentence' }))
    await user.click(show.getByRole('button', { name: /^or also/ }))
    await waitFor(() => expect(now().document.show.sentences).toHaveLength(2))
    await user.click(await screen.findByRole('button', { name: 'Leave out sentence 2' }))
    await waitFor(() => expect(now().document.show.sentences).toHaveLength(1))
  })
})

describe('what stops it', () => {
  it('is said before it is turned on, and leads to its place', async () => {
    await edit(undefined, ({ steps }) => {
      const { id } = steps[0]!.parts.find((one) => one.kind === 'button')!
      return { findings: [{ level: 'stops', place: id, message: 'A button has no words.' }] }
    })
    await user.click(screen.getByRole('button', { name: /^Headline/ }))
    await type('Words', 'Anything else')
    const line = await screen.findByRole('button', { name: /A button has no words/ })
    await user.click(line)
    await screen.findByRole('button', { name: `Remove Button that sends` })
  })
})
