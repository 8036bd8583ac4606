<script setup lang="ts">
/** The quotations of a note that do not stand on their pages as they are written, each with what would mend it. */
import { computed } from 'vue';
import type { CheckedQuotation } from '@pandecta/contract';
import { placeWritten } from '@pandecta/core/page-numbers';
import KitButton from '../../kit/KitButton.vue';

const props = defineProps<{ checked: CheckedQuotation[] }>();
const emit = defineEmits<{ mend: [place: number, to: { words?: string; page?: number; cited?: string }] }>();
const off = computed(() => props.checked.filter((c) => c.stands === 'nearly' || c.stands === 'no'));
</script>

<template>
  <section v-if="off.length" aria-label="Quotations to look at">
    <h3 class="heading mb-0.5">Quotations to look at</h3>
    <ul>
      <li v-for="c in off" :key="c.place" class="border-b border-line py-1.5 text-fine last:border-0">
        <p>
          Quotation {{ c.place + 1 }}:
          <template v-if="c.elsewhere"
            >its words stand on {{ placeWritten(c.citedElsewhere) }}, not on the page it names.</template
          >
          <template v-else-if="c.stands === 'no'">its words do not stand on the page it names.</template>
          <template v-else>some words differ from the page.</template>
        </p>
        <ul v-if="c.differences.length" class="ml-3">
          <li v-for="(d, i) in c.differences.slice(0, 6)" :key="i">
            <template v-if="d.quoted && d.page"
              ><del class="text-madder">{{ d.quoted }}</del> on the page:
              <ins class="text-verdigris no-underline">{{ d.page }}</ins></template
            >
            <template v-else-if="d.page"
              >left out: <ins class="text-verdigris no-underline">{{ d.page }}</ins></template
            >
            <template v-else
              >not on the page: <del class="text-madder">{{ d.quoted }}</del></template
            >
            <span v-if="d.misread" class="text-muted"> · perhaps a fault of recognition</span>
          </li>
        </ul>
        <KitButton
          v-if="c.elsewhere"
          look="word"
          class="min-h-6"
          @click="emit('mend', c.place, { page: c.elsewhere, cited: c.citedElsewhere })"
          >Name that page</KitButton
        >
        <KitButton
          v-else-if="c.asThere"
          look="word"
          class="min-h-6"
          @click="emit('mend', c.place, { words: c.asThere })"
          >Quote it as it stands there</KitButton
        >
      </li>
    </ul>
  </section>
</template>
