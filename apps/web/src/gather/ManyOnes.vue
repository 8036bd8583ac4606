<script setup lang="ts">
/** Those that can be decided on together, each with its tick: the complete ones, or those that are here for certain. */
import { computed, ref } from 'vue';
import { routes } from '@pandecta/contract';
import { belowOf, withoutMarkup, type SourceRecord } from '@pandecta/core/source';
import { formatNumber } from '@pandecta/core/wording';
import { ask } from '../api/client.ts';
import { useAsked } from '../data/asked.ts';
import { concerns } from '../data/live.ts';
import KitButton from '../kit/KitButton.vue';
import KitCheck from '../kit/KitCheck.vue';
import KitNotice from '../kit/KitNotice.vue';
import StampMark from '../kit/StampMark.vue';
import { useIntake } from './intake.ts';

const props = defineProps<{ which: 'complete' | 'certain' }>();
const emit = defineEmits<{ close: [] }>();
const intake = useIntake();
const left = ref(new Set<string>());
const { data: ones, error } = useAsked({
  question: () => props.which,
  fetch: (which, signal) => ask(routes.intake[which], { signal }),
  concerns: (touched) => concerns(touched, ['source']),
});
const ticked = computed(() => (ones.value?.rows ?? []).filter((r) => !left.value.has(r.id)).map((r) => r.id));
const titleOf = (record: SourceRecord): string => withoutMarkup(record.title ?? 'Untitled');
const more = computed(() => (ones.value ? ones.value.total - ones.value.rows.length : 0));
const does = computed(() => {
  const n = formatNumber(ticked.value.length);
  return props.which === 'complete' ? `Take in ${n}` : `Join ${n}`;
});

function toggle(id: string): void {
  const now = new Set(left.value);
  if (!now.delete(id)) now.add(id);
  left.value = now;
}

async function decide(): Promise<void> {
  const ids = ticked.value;
  if (props.which === 'complete') await intake.takeIn({ ids }, true);
  else await intake.joinCertain({ ids });
  emit('close');
}
</script>

<template>
  <section
    class="flex min-h-0 flex-1 flex-col"
    :aria-label="which === 'complete' ? 'Complete ones' : 'Here for certain'"
  >
    <header class="flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-line px-4 pb-2 pt-3">
      <h1 class="font-serif text-title font-semibold">
        {{ which === 'complete' ? 'The complete ones' : 'Those that are here for certain' }}
      </h1>
      <div class="ml-auto flex gap-2">
        <KitButton @click="emit('close')">Back to the intake</KitButton>
        <KitButton look="main" :disabled="!ticked.length" @click="decide">{{ does }}</KitButton>
      </div>
      <p class="w-full text-muted">
        {{
          which === 'complete'
            ? 'These are complete, were read reliably, are not here yet and appear once. Untick any that should keep waiting.'
            : 'Each adds its collections, tags and files to its source and fills empty fields there. Untick any that should keep waiting.'
        }}
        <template v-if="more > 0"
          >These are the first {{ formatNumber(ones!.rows.length) }}; {{ formatNumber(more) }} more come after
          them.</template
        >
      </p>
    </header>
    <KitNotice v-if="error" tone="bad" class="m-4">{{ error }}</KitNotice>
    <p v-else-if="!ones" class="p-4 text-muted">Looking…</p>
    <p v-else-if="!ones.total" class="p-4 text-muted">There is none any more.</p>
    <ul v-else class="min-h-0 flex-1 overflow-auto">
      <li
        v-for="one in ones.rows"
        :key="one.id"
        class="grid grid-cols-[auto_26px_minmax(0,1fr)_minmax(0,14rem)] items-baseline gap-x-[11px] border-b border-line px-4 py-1"
        :class="left.has(one.id) && 'text-muted'"
      >
        <KitCheck :checked="!left.has(one.id)" :label="titleOf(one.record)" @check="toggle(one.id)" />
        <StampMark :kind="one.record.type" />
        <div class="min-w-0">
          <p class="truncate font-serif text-read leading-[1.28]">{{ titleOf(one.record) }}</p>
          <p class="truncate text-fine text-muted">{{ belowOf(one.record) }}</p>
        </div>
        <p class="truncate text-right text-fine text-muted" :title="one.to ?? one.batch">
          {{ one.to ? `to “${one.to}”` : one.batch }}
        </p>
      </li>
    </ul>
  </section>
</template>
