<script setup lang="ts">
/** Which page one is at, by the number it is cited by; a number written there goes to its page. Says what a number is from. */
import { ref, useTemplateRef, watch } from 'vue';
import { pageNamed, type CitedPages, type NumberOrigin } from '@pandecta/core/page-numbers';
import { formatNumber } from '@pandecta/core/wording';
import KitButton from '../kit/KitButton.vue';
import KitField from '../kit/KitField.vue';
import KitPopover from '../kit/KitPopover.vue';

const props = defineProps<{
  /** Counted from 1. */
  page: number;
  pages: number;
  numbers: CitedPages;
  labelOf: (page: number) => string;
  mayEdit: boolean;
}>();
const emit = defineEmits<{ go: [page: number]; number: [number: string | undefined] }>();
const field = useTemplateRef<InstanceType<typeof KitField>>('field');
defineExpose({ focus: () => field.value?.focus() });
const written = ref('');
const isWrong = ref(false);
const printed = ref('');

watch(
  [() => props.page, () => props.labelOf(props.page)],
  ([, label]) => {
    written.value = label;
    isWrong.value = false;
  },
  { immediate: true },
);
function go(): void {
  const page = pageNamed(props.numbers, written.value, props.pages);
  isWrong.value = !page;
  if (page) emit('go', page);
}

const ORIGINS: Record<NumberOrigin, string> = {
  'by hand': 'Set by hand.',
  labels: 'From the page labels of the file.',
  printed: 'Read from the numbers printed on the pages.',
  record: 'Counted from the pages in the record of the source.',
  counted: 'Counted from the first page of the file.',
};
</script>

<template>
  <span class="flex items-center gap-1.5 whitespace-nowrap">
    <KitField
      ref="field"
      v-model="written"
      class="w-16 text-center"
      label="Go to page"
      :title="isWrong ? `There is no page “${written}”` : 'Go to page'"
      :aria-invalid="isWrong || undefined"
      :class="isWrong && 'text-madder'"
      @keydown.enter="go"
      @focus="($event.target as HTMLInputElement).select()"
    />
    <KitPopover look="quiet" focus :name="`of ${formatNumber(pages)}: page numbers`" @open="printed = labelOf(page)"
      ><template #button>of {{ formatNumber(pages) }}</template
      ><template #default="{ close }">
        <form
          class="flex w-72 flex-col gap-2 p-3"
          @submit.prevent="(emit('number', printed.trim() || undefined), close())"
        >
          <p class="text-fine text-muted">
            Page {{ labelOf(page) }} is page {{ formatNumber(page) }} of {{ formatNumber(pages) }} in the file.
            {{ ORIGINS[numbers.origin] }} Marks, hits and citations use this number.
          </p>
          <template v-if="mayEdit">
            <KitField
              v-model="printed"
              above
              label="Number of this page in print"
              placeholder="12, xii or A-3"
              maxlength="40"
            />
            <p class="flex justify-end gap-2">
              <KitButton v-if="numbers.origin === 'by hand'" @click="(emit('number', undefined), close())"
                >Remove the number set by hand</KitButton
              >
              <KitButton look="main" type="submit" :disabled="!printed.trim()">Set</KitButton>
            </p>
          </template>
        </form></template
      ></KitPopover
    >
    <span class="sr-only" role="status">{{ isWrong ? `There is no page “${written}”` : '' }}</span>
  </span>
</template>
