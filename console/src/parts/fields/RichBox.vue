<script setup lang="ts" generic="S extends string = string">
import { Node } from '@tiptap/core'
import StarterKit from '@tiptap/starter-kit'
import { EditorContent, useEditor } from '@tiptap/vue-3'
import { ref, watch } from 'vue'
import { pictureOf, type Asset } from '@/api/library'
import AddressBox from './AddressBox.vue'
import LibraryPicker from './LibraryPicker.vue'
import { runsOf, type Run } from './runs'

/** Words with slots that stand as marks; `plain` leaves out bold, lists and links. */
const props = defineProps<{
  label: string
  html: string
  slots?: Partial<Record<S, string>>
  plain?: boolean
  pictures?: boolean
}>()
const choosing = ref(false)
const emit = defineEmits<{ html: [value: string]; runs: [value: Run<S>[]] }>()

const Slot = Node.create({
  name: 'slot',
  group: 'inline',
  inline: true,
  atom: true,
  addAttributes: () => ({
    slot: {
      default: 'first_name',
      parseHTML: (element: HTMLElement) => element.dataset.slot,
      renderHTML: (attributes: Record<string, string>) => ({ 'data-slot': attributes.slot }),
    },
  }),
  parseHTML: () => [{ tag: 'span[data-slot]' }],
  renderHTML: ({ HTMLAttributes }) => [
    'span',
    { ...HTMLAttributes, class: 'chip' },
    props.slots?.[HTMLAttributes['data-slot'] as S] ?? '',
  ],
})
const Picture = Node.create({
  name: 'picture',
  group: 'inline',
  inline: true,
  atom: true,
  addAttributes: () => ({ src: { default: '' }, alt: { default: '' } }),
  parseHTML: () => [{ tag: 'img[src]' }],
  renderHTML: ({ HTMLAttributes }) => ['img', { ...HTMLAttributes, class: 'inline-block max-h-32' }],
})
function putPicture(asset: Asset) {
  choosing.value = false
  const attrs = { src: pictureOf(asset.public_id, 960), alt: asset.description }
  editor.value?.chain().focus().insertContent({ type: 'picture', attrs }).run()
}
const off = props.plain
  ? ({
      bold: false,
      italic: false,
      bulletList: false,
      orderedList: false,
      listItem: false,
      link: false,
    } as const)
  : { link: { openOnClick: false, defaultProtocol: 'https', protocols: ['tel', 'sms'] } }
const editor = useEditor({
  // Its styles would be inline ones, which the console does not allow.
  injectCSS: false,
  content: props.html,
  extensions: [
    StarterKit.configure({
      heading: false,
      blockquote: false,
      code: false,
      codeBlock: false,
      strike: false,
      underline: false,
      horizontalRule: false,
      ...off,
    }),
    Slot,
    ...(props.pictures ? [Picture] : []),
  ],
  editorProps: {
    attributes: {
      class:
        'input min-h-16 [&_p]:my-0.5 [&_ul]:list-disc [&_ul]:pl-5 [&_ol]:list-decimal [&_ol]:pl-5 [&_a]:underline',
      'aria-label': props.label,
      role: 'textbox',
      'aria-multiline': 'true',
    },
  },
  onUpdate: ({ editor: now }) => {
    emit('html', now.isEmpty ? '' : now.getHTML())
    emit('runs', runsOf(now.getJSON() as Parameters<typeof runsOf>[0]) as Run<S>[])
  },
})
watch(
  () => props.html,
  (fresh) => {
    const now = editor.value
    if (now && !now.isFocused && fresh !== now.getHTML())
      now.commands.setContent(fresh, { emitUpdate: false })
  },
)
const linking = ref<string | null>(null)
const link = () =>
  (linking.value = linking.value === null ? String(editor.value?.getAttributes('link').href ?? '') : null)
function lead(address: string, kind: string) {
  if (!kind && address) return
  const chain = editor.value?.chain().focus().extendMarkRange('link')
  const href =
    kind === 'mail'
      ? `mailto:${address}`
      : kind === 'phone'
        ? `tel:${address.replace(/[^\d+]/g, '')}`
        : address
  // Where no words are chosen, the address itself is written.
  if (address && editor.value?.state.selection.empty && !editor.value.isActive('link')) {
    chain?.insertContent({ type: 'text', text: address, marks: [{ type: 'link', attrs: { href } }] }).run()
  } else if (address) chain?.setLink({ href }).run()
  else chain?.unsetLink().run()
  linking.value = null
}
const put = (slot: string) =>
  editor.value?.chain().focus().insertContent({ type: 'slot', attrs: { slot } }).run()
</script>

<template>
  <div>
    <div
      class="mb-1 flex flex-wrap items-center gap-1"
      role="toolbar"
      :aria-label="`${label}: how it is written`"
    >
      <template v-if="!plain">
        <button
          type="button"
          class="btn min-h-6! px-2! py-0! font-bold"
          aria-label="Bold"
          @click="editor?.chain().focus().toggleBold().run()"
        >
          B
        </button>
        <button
          type="button"
          class="btn min-h-6! px-2! py-0! italic"
          aria-label="Italic"
          @click="editor?.chain().focus().toggleItalic().run()"
        >
          I
        </button>
        <button
          type="button"
          class="btn min-h-6! px-2! py-0!"
          aria-label="List"
          @click="editor?.chain().focus().toggleBulletList().run()"
        >
          • List
        </button>
        <button
          type="button"
          class="btn min-h-6! px-2! py-0!"
          :aria-expanded="linking !== null"
          @click="link"
        >
          Link
        </button>
        <button v-if="pictures" type="button" class="btn min-h-6! px-2! py-0!" @click="choosing = true">
          Picture
        </button>
      </template>
      <button
        v-for="(name, slot) in slots"
        :key="slot"
        type="button"
        class="btn min-h-6! px-2! py-0! text-xs font-normal"
        @click="put(String(slot))"
      >
        + {{ name }}
      </button>
    </div>
    <div v-if="linking !== null" class="mb-1 flex items-start gap-2 rounded-md border border-line p-2">
      <AddressBox
        class="min-w-0 flex-1"
        label="Where the link leads"
        placeholder="a page of your site, or example.org"
        :value="linking"
        @set="lead"
      />
      <button v-if="linking" type="button" class="btn-link mt-5" @click="lead('', '')">Take it away</button>
    </div>
    <LibraryPicker v-if="choosing" kind="picture" @close="choosing = false" @pick="putPicture" />
    <EditorContent :editor="editor" />
  </div>
</template>
