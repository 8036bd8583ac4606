<script setup lang="ts">
/** What is done with the document that is open: how it is marked, where one goes in it, how it is shown. */
import { Minus, Plus, TableOfContents } from '@lucide/vue';
import { computed, ref, useTemplateRef } from 'vue';
import { routes, type DocumentReply } from '@pandecta/contract';
import {
  isOnWords,
  SHAPE_NAMES,
  SHAPES,
  type MarkFilter as Filter,
  type Sense,
  type Shape,
} from '@pandecta/core/marks';
import type { CitedPages } from '@pandecta/core/page-numbers';
import { addressOf } from '../api/client.ts';
import KitButton from '../kit/KitButton.vue';
import KitCheck from '../kit/KitCheck.vue';
import KitMenu, { type MenuEntry } from '../kit/KitMenu.vue';
import KitPopover from '../kit/KitPopover.vue';
import KitSelect from '../kit/KitSelect.vue';
import { useSession } from '../session/store.ts';
import { FILL } from './colours.ts';
import MarkFilter from './MarkFilter.vue';
import OutlineTree, { type Heading } from './OutlineTree.vue';
import PageField from './PageField.vue';
import RecogniseSheet from './correcting/RecogniseSheet.vue';
import SensesSheet from './SensesSheet.vue';
import type { useWithin } from './within.ts';
import WithinBar from './WithinBar.vue';

const props = defineProps<{
  shows: 'flow' | 'picture' | 'pages';
  /** Whether another document stands beside. */
  narrow?: boolean | undefined;
  document: DocumentReply | null;
  offered: Sense[];
  within: { [K in 'words' | 'hits' | 'total' | 'at' | 'error']: ReturnType<typeof useWithin>[K]['value'] };
  page: number;
  pages: number;
  numbers: CitedPages;
  labelOf: (page: number) => string;
  scale: number;
  outline: Heading[];
}>();
const sense = defineModel<string>('sense', { required: true });
const shape = defineModel<Shape>('shape', { required: true });
const personal = defineModel<boolean>('personal', { required: true });
const filter = defineModel<Filter>('filter', { required: true });
const words = defineModel<string>('words', { required: true });
/** Whether the text is shown set anew, and whether it is corrected line by line. */
const plain = defineModel<boolean>('plain', { required: true });
const correcting = defineModel<boolean>('correcting', { required: true });
/** Whether all pages are shown as small pictures. */
const sheet = defineModel<boolean>('sheet', { required: true });
const emit = defineEmits<{
  mark: [sense: string];
  search: [];
  step: [by: number];
  go: [page: number];
  follow: [dest: string | unknown[]];
  number: [number: string | undefined];
  zoom: [factor: number];
  fit: [];
  turn: [by: 90 | -90];
  print: [];
}>();
const session = useSession();
const withinBar = useTemplateRef<{ focus(): void }>('withinBar');
const pageField = useTemplateRef<{ focus(): void }>('pageField');
defineExpose({ focusSearch: () => withinBar.value?.focus(), focusPage: () => pageField.value?.focus() });

/** A picture has no words to stand on, a text that flows no fixed place. */
const shapes = computed(() =>
  SHAPES.filter((s) => (props.shows === 'flow' ? isOnWords(s) : props.shows === 'picture' ? !isOnWords(s) : true)).map(
    (value) => ({ value, name: SHAPE_NAMES[value] }),
  ),
);
const shown = computed({
  get: () => (shapes.value.some((s) => s.value === shape.value) ? shape.value : shapes.value[0]!.value),
  set: (value) => (shape.value = value),
});
const arranging = ref(false);
const recognising = ref(false);
/** Whether its words were recognised, or are still to be. */
const isScan = computed(() => props.document?.corrected !== undefined || props.document?.state === 'image only');
const hasText = computed(() => props.shows === 'pages' && props.document?.state === 'text');
function saveHocr(): void {
  const { sourceId: source, fileId: file } = props.document!;
  location.assign(addressOf(routes.files.hocr, { source, file }));
}
/** @param personal with those nobody else sees */
function save(personal: 'yes' | 'no'): void {
  const { sourceId: source, fileId: file } = props.document!;
  location.assign(addressOf(routes.marks.annotated, { source, file, query: { personal } }));
}
const more = computed<MenuEntry[]>(() => [
  { name: 'Fit to the width', run: () => emit('fit') },
  ...(props.shows === 'pages'
    ? [
        { name: 'Turn right', run: () => emit('turn', 90) },
        { name: 'Turn left', run: () => emit('turn', -90) },
        { name: 'Print…', run: () => emit('print') },
        { name: 'Plain reading', checked: plain.value, run: () => (plain.value = !plain.value) },
        { name: 'Correct the text', checked: correcting.value, run: () => (correcting.value = !correcting.value) },
      ]
    : []),
  ...(props.document?.mediaType === 'application/pdf'
    ? [
        { name: 'Save the PDF with its marks', run: () => save('no') },
        ...(props.document.marks.some((m) => m.personal)
          ? [{ name: 'Save it with your own marks too', run: () => save('yes') }]
          : []),
      ]
    : []),
  ...(hasText.value ? [{ name: 'Save its text with places (hOCR)', run: saveHocr }] : []),
  ...(isScan.value && session.may('edit')
    ? [{ name: 'Recognise the text anew…', run: () => (recognising.value = true) }]
    : []),
  ...(props.shows === 'pages' ? [{ name: 'Contact sheet', run: () => (sheet.value = true) }] : []),
  ...(session.may('arrange') ? [{ name: 'Senses of marks…', run: () => (arranging.value = true) }] : []),
]);
</script>

<template>
  <div
    class="flex shrink-0 flex-wrap items-center gap-x-2 gap-y-1 border-b border-line bg-paper px-4 py-[7px] text-body"
  >
    <template v-if="session.may('own')">
      <span class="text-muted">Mark as</span>
      <KitButton
        v-for="s in offered"
        :key="s.id"
        class="!py-[3px]"
        :aria-pressed="sense === s.id"
        :class="sense === s.id && 'outline-2 outline-verdigris'"
        :title="s.says || undefined"
        @mousedown.prevent
        @click="emit('mark', s.id)"
      >
        <span
          class="inline-block h-[15px] w-[15px] rounded-[3px] text-center font-mono text-label font-semibold leading-[15px] text-[#1f262d]"
          :class="FILL[s.colour]"
          >{{ s.key ?? '' }}</span><span :class="narrow && 'sr-only'">{{ s.name }}</span>
      </KitButton>
      <KitSelect v-model="shown" class="w-28" label="Shape of marks" :options="shapes" />
      <label class="flex items-center gap-1.5 text-fine whitespace-nowrap"
        ><KitCheck
          :checked="personal"
          label="For yourself alone"
          :disabled="!session.may('mark')"
          @check="personal = !personal"
        />For yourself alone</label
      >
    </template>
    <span v-if="document?.state === 'image only'" class="text-ochre"
      >These pages are pictures; their words cannot be selected or found.</span
    >
    <div class="ml-auto flex flex-wrap items-center gap-1.5">
      <WithinBar
        v-if="shows !== 'picture'"
        ref="withinBar"
        v-model="words"
        :found="within.hits.length"
        :total="within.total"
        :at="within.at"
        :error="within.error"
        @search="emit('search')"
        @step="emit('step', $event)"
      />
      <MarkFilter v-if="document?.marks.length" v-model="filter" :marks="document.marks" :senses="document.senses" />
      <span class="flex items-center gap-1.5">
        <span class="mx-1 h-5 border-l border-line" />
        <KitPopover v-if="outline.length" look="quiet" name="Contents of the document"
          ><template #button><TableOfContents :size="15" /></template
          ><template #default="{ close }"
            ><OutlineTree class="w-80 p-2" :headings="outline" @follow="(emit('follow', $event), close())" /></template
        ></KitPopover>
        <PageField
          v-if="pages && shows === 'pages'"
          ref="pageField"
          :page="page"
          :pages="pages"
          :numbers="numbers"
          :label-of="labelOf"
          :may-edit="session.may('edit')"
          @go="emit('go', $event)"
          @number="emit('number', $event)"
        />
        <KitButton class="!px-1.5" name="Smaller" @click="emit('zoom', 1 / 1.15)"><Minus :size="14" /></KitButton>
        <KitButton
          look="bare"
          class="w-12 text-center font-mono text-fine"
          title="Fit to the width"
          :aria-label="`Zoom ${Math.round(scale * 100)} %: fit to the width`"
          @click="emit('fit')"
          >{{ Math.round(scale * 100) }} %</KitButton
        >
        <KitButton class="!px-1.5" name="Larger" @click="emit('zoom', 1.15)"><Plus :size="14" /></KitButton>
        <KitMenu :entries="more" look="quiet" at="bottom-end" name="More about the document">More</KitMenu>
      </span>
    </div>
  </div>
  <RecogniseSheet
    v-if="document"
    v-model:open="recognising"
    :source="document.sourceId"
    :file="document.fileId"
    :corrected="document.corrected ?? 0"
  />
  <SensesSheet v-model:open="arranging" :senses="document?.senses ?? []" />
</template>
