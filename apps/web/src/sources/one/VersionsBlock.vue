<script setup lang="ts">
/** The record as it stood earlier, beside today's: what differs, and the way to take an earlier value back. */
import { computed, ref, watch } from 'vue';
import { routes, type RecordVersion, type SourceDetail } from '@pandecta/contract';
import { same, variableLabel } from '@pandecta/core/source';
import { useChanges } from '../../act/changes.ts';
import { ask } from '../../api/client.ts';
import { useAsked } from '../../data/asked.ts';
import { concerns } from '../../data/live.ts';
import KitButton from '../../kit/KitButton.vue';
import KitNotice from '../../kit/KitNotice.vue';
import KitTable from '../../kit/KitTable.vue';
import TimeText from '../../kit/TimeText.vue';
import { useSession } from '../../session/store.ts';
import { inOrder, valueInWords } from '../values.ts';

const props = defineProps<{ source: SourceDetail }>();
const { change } = useChanges();
const session = useSession();
const chosen = ref<string | null>(null);
const { data: reply, error } = useAsked({
  question: () => props.source.id,
  fetch: (source, signal) => ask(routes.changes.versions, { source, signal }),
  concerns: (touched, source) => concerns(touched, ['source'], source),
});
watch(
  () => props.source.id,
  () => (chosen.value = null),
);
const versions = computed(() => reply.value?.versions ?? []);
const version = computed<RecordVersion | undefined>(() => versions.value.find((v) => v.changeId === chosen.value));
const valueOf = (record: object, field: string): unknown => (record as Record<string, unknown>)[field] ?? null;
const differing = computed(() => {
  const then = version.value?.record;
  if (!then) return [];
  const now = props.source.record;
  const fields = [...new Set([...Object.keys(then), ...Object.keys(now)])].filter((f) => f !== 'custom');
  return inOrder(fields, now)
    .filter((f) => !same(valueOf(then, f), valueOf(now, f)))
    .map((field) => ({
      field,
      name: variableLabel(field),
      then: valueInWords(field, valueOf(then, field)),
      now: valueInWords(field, valueOf(now, field)),
    }));
});
const takeBack = (field: string): unknown =>
  change(() =>
    ask(routes.sources.edit, {
      source: props.source.id,
      body: {
        fields: { [field]: valueOf(version.value!.record, field) },
        seen: { [field]: valueOf(props.source.record, field) },
      },
    }),
  );
</script>

<template>
  <section aria-label="Earlier versions">
    <KitNotice v-if="error" tone="bad">{{ error }}</KitNotice>
    <p v-else-if="!reply" class="text-muted">Reading the versions…</p>
    <p v-else-if="!versions.length" class="text-muted">The record has not changed since it was added.</p>
    <ul v-else>
      <li v-for="v in versions" :key="v.changeId" class="border-b border-line py-1">
        <KitButton
          look="bare"
          class="w-full text-left"
          :aria-expanded="chosen === v.changeId"
          @click="chosen = chosen === v.changeId ? null : v.changeId"
          ><span :class="chosen === v.changeId && 'font-semibold text-verdigris'"
            >Before {{ v.by }} altered {{ v.fields.map((f) => variableLabel(f).toLowerCase()).join(', ') }}</span
          ><span class="ml-2 text-fine text-muted"><TimeText :at="v.at" /></span
        ></KitButton>
        <template v-if="chosen === v.changeId">
          <p v-if="!differing.length" class="py-1 text-fine text-muted">Same as today.</p>
          <KitTable
            v-else
            class="my-1 text-fine"
            heads
            label="What differs from today"
            :columns="[
              { key: 'name', name: 'Field', class: 'w-32 text-muted' },
              { key: 'then', name: 'Then', class: 'break-words font-serif' },
              { key: 'now', name: 'Today', class: 'break-words font-serif' },
              { key: 'deed', name: '', class: 'w-24 text-right' },
            ]"
            :rows="differing"
            ><template #name="{ row }">{{ row.name }}</template
            ><template #then="{ row }">{{ row.then || '—' }}</template
            ><template #now="{ row }">{{ row.now || '—' }}</template
            ><template #deed="{ row }"
              ><KitButton
                v-if="session.may('edit')"
                look="word"
                :name="`Take ${row.name} back to what it was`"
                @click="takeBack(row.field)"
                >Take back</KitButton
              ></template
            ></KitTable
          >
        </template>
      </li>
    </ul>
  </section>
</template>
