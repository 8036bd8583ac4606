<script setup lang="ts">
/** The text of a note: written, formatted, with its quotations and what `@` offers. */
import { Bold, Heading2, Italic, List, ListOrdered } from '@lucide/vue';
import { Editor } from '@tiptap/core';
import {
  computed,
  onBeforeUnmount,
  onMounted,
  shallowRef,
  triggerRef,
  useId,
  useTemplateRef,
  watch,
  type Component,
} from 'vue';
import { HOW_NAMES, HOWS, type DocNode } from '@pandecta/core/notes';
import { useBeside } from '../../kit/floating.ts';
import KitButton from '../../kit/KitButton.vue';
import KitMenu, { type MenuEntry } from '../../kit/KitMenu.vue';
import KitSelect from '../../kit/KitSelect.vue';
import OfferList from '../../kit/OfferList.vue';
import { extensionsFor, retell, type Told } from './nodes.ts';
import { makeOffering, type Target } from './offering.ts';

const props = defineProps<{
  text: DocNode;
  editable: boolean;
  told: (place: number, attrs: Record<string, unknown>) => Told;
}>();
const emit = defineEmits<{ change: []; go: [to: string] }>();
const box = useTemplateRef<HTMLElement>('box');
const editor = shallowRef<Editor | null>(null);
const offering = makeOffering();
const offers = useTemplateRef<HTMLElement>('offers');
const offersAt = useBeside(
  computed(() => offering.at && { getBoundingClientRect: () => offering.at?.() ?? new DOMRect() }),
  offers,
);
/** A text as the server and the editor write it: without attributes that say nothing. */
const sound = (node: DocNode): DocNode => {
  const attrs = Object.fromEntries(Object.entries(node.attrs ?? {}).filter(([, v]) => v !== null && v !== ''));
  const origin = node.type === 'quotation' || node.type === 'reference';
  return {
    type: node.type,
    ...(origin ? { attrs: node.attrs } : Object.keys(attrs).length ? { attrs } : {}),
    ...(node.text !== undefined && { text: node.text }),
    ...(node.marks?.length && {
      marks: node.marks.map((m) =>
        m.type === 'link' ? { type: 'link', attrs: { href: m.attrs?.href } } : { type: m.type },
      ),
    }),
    ...(node.content?.length && { content: node.content.map(sound) }),
  };
};
const readNow = (): DocNode => (editor.value ? sound(editor.value.getJSON() as DocNode) : props.text);

onMounted(() => {
  editor.value = new Editor({
    element: box.value!,
    editable: props.editable,
    content: props.text,
    extensions: extensionsFor({
      told: (place, attrs) => props.told(place, attrs),
      offering,
      placeholder: 'Write, or type @ to link a note, heading or source',
      go: (to) => emit('go', to),
    }),
    editorProps: {
      attributes: { role: 'textbox', 'aria-multiline': 'true', 'aria-label': 'Text of the note', class: 'note-text' },
    },
    onUpdate: () => emit('change'),
    onTransaction: () => triggerRef(editor),
  });
});
onBeforeUnmount(() => editor.value?.destroy());
watch(
  () => props.editable,
  (may) => editor.value?.setEditable(may, false),
);
watch(
  () => props.told,
  () => editor.value && retell(editor.value),
);

/** How many characters stand before a place; a reference and a break count as one. */
const countTo = (pos: number): number =>
  editor.value!.state.doc.textBetween(0, pos, '', (node) => (node.isInline ? '\uFFFC' : '')).length;
/** The stretch that is chosen, or from the cursor to the end. */
function stretch(): { start: number; end: number } {
  const { state } = editor.value!;
  const { from, to, empty } = state.selection;
  return { start: countTo(from), end: countTo(empty ? state.doc.content.size : to) };
}
defineExpose({
  read: readNow,
  stretch,
  /** Takes another text; where it is the same already, the cursor stays. */
  put(text: DocNode): void {
    if (editor.value && JSON.stringify(sound(text)) !== JSON.stringify(readNow())) editor.value.commands.setContent(text, { emitUpdate: false }); // prettier-ignore
  },
  /** Replaces the words of a quotation, or the page it names. */
  mend(place: number, to: { words?: string; page?: number; cited?: string }): void {
    let at = -1;
    editor.value!.state.doc.descendants((node, pos) => {
      if (node.type.name !== 'quotation') return true;
      at += 1;
      if (at !== place) return false;
      const { words, ...attrs } = to;
      const changed = { ...node.toJSON(), attrs: { ...node.attrs, ...attrs }, ...(words && { content: [{ type: 'text', text: words }] }) }; // prettier-ignore
      editor
        .value!.chain()
        .insertContentAt({ from: pos, to: pos + node.nodeSize }, changed)
        .run();
      return false;
    });
  },
  /** At once: the editor's own command waits for a frame, and the next key would be lost to it. */
  focus: (): void => editor.value?.view.focus(),
});

interface Look {
  name: string;
  icon: Component;
  is: boolean;
  run: () => void;
}
const looks = computed<Look[]>(() => {
  const e = editor.value;
  if (!e) return [];
  const chain = () => e.chain().focus();
  return [
    { name: 'Bold', icon: Bold, is: e.isActive('bold'), run: () => chain().toggleBold().run() },
    { name: 'Italic', icon: Italic, is: e.isActive('italic'), run: () => chain().toggleItalic().run() },
    {
      name: 'Heading',
      icon: Heading2,
      is: e.isActive('heading'),
      run: () => chain().toggleHeading({ level: 2 }).run(),
    },
    { name: 'List', icon: List, is: e.isActive('bulletList'), run: () => chain().toggleBulletList().run() },
    {
      name: 'Numbered list',
      icon: ListOrdered,
      is: e.isActive('orderedList'),
      run: () => chain().toggleOrderedList().run(),
    },
  ];
});
const more = computed<MenuEntry[]>(() => {
  const e = editor.value;
  if (!e) return [];
  const chain = () => e.chain().focus();
  return [
    { name: 'Quote without a source', run: () => chain().toggleBlockquote().run() },
    { name: 'Code', run: () => chain().toggleCodeBlock().run() },
    { name: 'Struck through', run: () => chain().toggleStrike().run() },
    { name: 'Rule', run: () => chain().setHorizontalRule().run() },
    { name: 'Table', run: () => chain().insertTable({ rows: 3, cols: 3, withHeaderRow: true }).run() },
    ...(e.isActive('table')
      ? [
          { name: 'Add a row', run: () => chain().addRowAfter().run() },
          { name: 'Add a column', run: () => chain().addColumnAfter().run() },
          { name: 'Remove the row', run: () => chain().deleteRow().run() },
          { name: 'Remove the column', run: () => chain().deleteColumn().run() },
          { name: 'Remove the table', run: () => chain().deleteTable().run() },
        ]
      : []),
  ];
});
/** Of the link that is chosen: how it is linked. */
const reference = computed(() =>
  editor.value?.isActive('reference') ? editor.value.getAttributes('reference') : null,
);
const hows = [{ value: '', name: 'only named' }, ...HOWS.map((value) => ({ value, name: HOW_NAMES[value] }))];
const setHow = (how: string): void =>
  void editor.value
    ?.chain()
    .updateAttributes('reference', { how: how || null })
    .focus()
    .run();
const take = (target: Target): void => offering.take?.(target);
const offersId = useId();
</script>

<template>
  <div>
    <div v-if="editable" class="mb-1 flex flex-wrap items-center gap-0.5" role="toolbar" aria-label="Form of the text">
      <KitButton
        v-for="l in looks"
        :key="l.name"
        look="icon"
        class="rounded"
        :class="l.is && 'bg-verdtint text-ink'"
        :name="l.name"
        :aria-pressed="l.is"
        @mousedown.prevent
        @click="l.run"
        ><component :is="l.icon" :size="14" aria-hidden="true"
      /></KitButton>
      <KitMenu :entries="more" look="quiet" class="ml-1 min-h-6">More form</KitMenu>
      <KitSelect
        v-if="reference"
        class="ml-2 w-40"
        label="How it is linked"
        :options="hows"
        :model-value="(reference.how as string | null) ?? ''"
        @update:model-value="setHow(String($event))"
      />
    </div>
    <div ref="box" />
    <div
      v-if="offering.entries.length"
      ref="offers"
      class="z-50 w-80 overflow-auto rounded-md border border-line bg-card py-1 text-body shadow-lg"
      :style="offersAt"
    >
      <OfferList
        :id="offersId"
        :active="offering.active"
        label="What can be linked"
        :entries="offering.entries"
        @update:active="offering.active = $event"
        @take="take"
      />
    </div>
  </div>
</template>

<style>
.note-text {
  min-height: 5rem;
  outline: none;
  font-family: var(--font-serif);
  font-size: var(--text-read);
  line-height: 1.5;
}
.note-text:focus-visible {
  outline: none;
}
.note-text > * + * {
  margin-top: 0.5em;
}
.note-text h1,
.note-text h2,
.note-text h3 {
  font-weight: 600;
  line-height: 1.25;
}
.note-text h1 {
  font-size: var(--text-title);
}
.note-text ul {
  list-style: disc;
  padding-left: 1.3em;
}
.note-text ol {
  list-style: decimal;
  padding-left: 1.5em;
}
.note-text blockquote {
  border-left: 3px solid var(--color-line);
  padding-left: 0.8em;
}
.note-text blockquote[data-quotation] {
  border-left-color: var(--color-mist);
}
.note-text blockquote footer {
  display: flex;
  gap: 0.6em;
  font-family: var(--font-sans);
  font-size: var(--text-fine);
  color: var(--color-muted);
}
.note-text blockquote footer a {
  display: inline-flex;
  align-items: center;
  min-height: 24px;
}
.note-text blockquote footer a,
.note-text a {
  color: var(--color-verdigris);
  text-decoration: underline;
  text-underline-offset: 2px;
  cursor: pointer;
}
.note-text blockquote footer .is-off {
  color: var(--color-ochre);
}
.note-text a .how {
  color: var(--color-muted);
  font-style: italic;
}
.note-text .ProseMirror-selectednode {
  background: var(--color-verdtint);
}
.note-text code {
  font-family: var(--font-mono);
  font-size: 0.88em;
}
.note-text pre {
  overflow-x: auto;
  border: 1px solid var(--color-line);
  background: var(--color-panel);
  padding: 0.5em 0.7em;
}
.note-text table {
  border-collapse: collapse;
  width: 100%;
}
.note-text th,
.note-text td {
  border: 1px solid var(--color-line);
  padding: 2px 6px;
  text-align: left;
  vertical-align: top;
}
.note-text th {
  background: var(--color-panel);
  font-weight: 600;
}
.note-text hr {
  border-top: 1px solid var(--color-line);
}
.note-text p.is-editor-empty:first-child::before {
  content: attr(data-placeholder);
  float: left;
  height: 0;
  color: var(--color-muted);
  pointer-events: none;
}
</style>
