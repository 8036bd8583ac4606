<script setup lang="ts">
/** The glosses of one page, each level with its mark, none over another. */
import { computed, nextTick, ref, watch } from 'vue';
import { offeredSenses, SHAPE_NAMES, type Sense, type Shape } from '@pandecta/core/marks';
import { placeWritten } from '@pandecta/core/page-numbers';
import BothValues from '../kit/BothValues.vue';
import KitButton from '../kit/KitButton.vue';
import KitField from '../kit/KitField.vue';
import KitSelect from '../kit/KitSelect.vue';
import { FILL } from './colours.ts';
import SenseChooser from './SenseChooser.vue';
import type { GlossedMark } from './document.ts';

const props = defineProps<{
  marks: GlossedMark[];
  senses: Sense[];
  scale: number;
  page: number;
  active: string | null;
  mayMark: boolean;
}>();
const emit = defineEmits<{
  activate: [id: string | null];
  gloss: [id: string, text: string, seen: string];
  edit: [id: string, to: { sense?: string; shape?: Shape }];
  /** To all members. */
  share: [id: string];
  copy: [id: string];
  /** Another's gloss stays, and one's own is let go. */
  yield: [id: string];
  remove: [id: string];
}>();
/** One's own may be altered by any member. */
const mayAlter = (mark: GlossedMark): boolean => props.mayMark || mark.personal;
/** The senses to choose from: those offered for new marks, and the mark's own even where it is retired. */
const choices = (mark: GlossedMark): Sense[] => {
  const offered = offeredSenses(props.senses);
  const own = props.senses.find((s) => s.id === mark.sense);
  return own && !offered.includes(own) ? [...offered, own] : offered;
};
const shapes = (['highlight', 'underline', 'strike'] as const).map((value) => ({ value, name: SHAPE_NAMES[value] }));
const draft = ref('');
const editor = ref<InstanceType<typeof KitField>[]>([]);
const CHARACTERS = 34;
let sent: string | undefined;
/** The gloss one began with. */
let seen = '';

watch(
  () => props.active,
  async (id) => {
    const mark = props.marks.find((m) => m.id === id);
    if (!mark) return;
    draft.value = seen = mark.gloss;
    sent = undefined;
    await nextTick();
    editor.value[0]?.focus({ preventScroll: true });
  },
  { immediate: true },
);

/** Where each gloss stands: level with its mark, or below the one before it. */
const placed = computed(() => {
  let free = 0;
  return [...props.marks]
    .sort((a, b) => (a.rects[0]?.y0 ?? 0) - (b.rects[0]?.y0 ?? 0))
    .map((mark) => {
      const top = Math.max(free, (mark.rects[0]?.y0 ?? 0) * props.scale - 4);
      const open = mark.id === props.active;
      const text = mark.gloss || mark.quote.exact.slice(0, 60) || SHAPE_NAMES[mark.shape];
      free = top + (mark.met ? 190 : open ? 250 : 28 + Math.ceil(text.length / CHARACTERS) * 19 + 10);
      return { mark, top, open, sense: props.senses.find((s) => s.id === mark.sense) };
    });
});

/** Sends the gloss once, however it was left. */
function send(mark: GlossedMark): void {
  if (draft.value === seen || draft.value === sent) return;
  sent = draft.value;
  emit('gloss', mark.id, draft.value, seen);
}

function keep(mark: GlossedMark): void {
  send(mark);
  emit('activate', null);
}
</script>

<template>
  <div class="relative h-full" :aria-label="`Glosses of page ${page}`" role="group">
    <article
      v-for="{ mark, top, open, sense } in placed"
      :key="mark.id"
      class="absolute inset-x-0 border-t border-edge pt-1"
      :class="open && 'z-10 rounded-b bg-card p-2 shadow-lg'"
      :style="{ top: `${top}px` }"
    >
      <BothValues
        v-if="mark.met"
        :by="mark.met.by"
        :theirs="String(mark.met.theirs)"
        :yours="String(mark.met.yours)"
        @theirs="emit('yield', mark.id)"
        @yours="emit('gloss', mark.id, String(mark.met.yours), String(mark.met.theirs))"
      />
      <KitButton v-else-if="!open" look="bare" class="block w-full text-left" @click="emit('activate', mark.id)">
        <span class="flex items-center gap-1.5 font-mono text-label font-semibold"
          ><span
            class="inline-block h-[15px] w-[15px] rounded-[2px] text-center text-label leading-[15px] text-[#1f262d]"
            :class="FILL[sense?.colour ?? 'straw']"
            aria-hidden="true"
            >{{ sense?.key }}</span
          >{{ sense?.name }} · {{ placeWritten(mark.cited) }}</span
        >
        <span v-if="mark.gloss" class="block font-serif text-body">{{ mark.gloss }}</span>
        <span v-else class="line-clamp-2 block text-fine italic text-muted">{{
          mark.quote.exact || SHAPE_NAMES[mark.shape]
        }}</span>
        <span v-if="mark.personal" class="block text-label text-muted">Yours alone</span>
      </KitButton>
      <div v-else>
        <SenseChooser
          :senses="choices(mark)"
          :chosen="mark.sense"
          :disabled="!mayAlter(mark)"
          @choose="emit('edit', mark.id, { sense: $event })"
        />
        <KitSelect
          v-if="mark.quote.exact && mayAlter(mark)"
          low
          class="mb-1 w-32"
          label="Shape of the mark"
          :options="shapes"
          :model-value="mark.shape"
          @update:model-value="emit('edit', mark.id, { shape: $event })"
        />
        <KitField
          v-if="mayAlter(mark)"
          ref="editor"
          v-model="draft"
          :lines="4"
          class="font-serif"
          placeholder="Your gloss"
          :label="`Gloss on “${mark.quote.exact.slice(0, 60)}”`"
          @keydown.ctrl.enter.prevent="keep(mark)"
          @keydown.esc.stop="emit('activate', null)"
          @blur="send(mark)"
        />
        <p v-else class="font-serif">{{ mark.gloss || mark.quote.exact }}</p>
        <div class="mt-1 flex items-center justify-between text-fine text-muted">
          <span>{{ mark.by }}{{ mark.personal ? ' · yours alone' : '' }}</span
          ><span v-if="mayAlter(mark)" class="flex flex-wrap justify-end gap-2"
            ><KitButton v-if="mark.personal && mayMark" look="word" @click="emit('share', mark.id)"
              >Show to all</KitButton
            ><KitButton v-if="mark.quote.exact" look="word" @click="emit('copy', mark.id)">Copy quotation</KitButton
            ><KitButton look="warn" @click="emit('remove', mark.id)">Remove mark</KitButton
            ><KitButton look="word" class="font-semibold" @click="keep(mark)">Save</KitButton></span
          ><KitButton v-else look="quiet" @click="emit('activate', null)">Close</KitButton>
        </div>
      </div>
    </article>
  </div>
</template>
