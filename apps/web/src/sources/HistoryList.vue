<script setup lang="ts">
import { computed } from 'vue';
import { routes } from '@pandecta/contract';
import {
  dateToEdtf,
  isDateVariable,
  isNameVariable,
  nameInverted,
  variableLabel,
  type DateValue,
  type Name,
} from '@pandecta/core/source';
import { ask } from '../api/client.ts';
import { useChanges } from '../act/changes.ts';
import { useAsked } from '../data/asked.ts';
import { concerns } from '../data/live.ts';
import KitButton from '../kit/KitButton.vue';
import KitNotice from '../kit/KitNotice.vue';
import TimeText from '../kit/TimeText.vue';
import { useSession } from '../session/store.ts';

const props = defineProps<{ source: string }>();
const changes = useChanges();
const { data: history, error } = useAsked({
  question: () => props.source,
  fetch: (source, signal) => ask(routes.changes.history, { source, signal }),
  concerns: (touched, source) => concerns(touched, ['source'], source),
});
const entries = computed(() => history.value?.entries ?? null);
const session = useSession();

function shown(field: string, value: unknown): string {
  if (value === null || value === undefined) return '—';
  if (isNameVariable(field)) return (value as Name[]).map(nameInverted).join('; ');
  if (isDateVariable(field)) return dateToEdtf(value as DateValue);
  return typeof value === 'string' ? value : JSON.stringify(value);
}

const list = computed(() =>
  (entries.value ?? []).map((e) => ({
    ...e,
    fields:
      e.change.do === 'edit' && 'fields' in e.change
        ? Object.entries(e.change.fields).map(([f, v]) => ({
            name: variableLabel(f),
            before: shown(f, v.before),
            after: shown(f, v.after),
          }))
        : [],
  })),
);
</script>

<template>
  <section aria-label="History">
    <KitNotice v-if="error" tone="bad">{{ error }}</KitNotice>
    <p v-else-if="!entries" class="text-muted">Reading the history…</p>
    <ol class="space-y-2">
      <li v-for="e in list" :key="e.id" class="border-b border-line pb-2">
        <div class="flex items-baseline gap-2">
          <span class="flex-1" :class="e.undone && 'text-muted line-through'">{{ e.says }}</span>
          <KitButton v-if="session.may('edit') && !e.undone && !e.undoes" look="word" @click="changes.undoOne(e.id)"
            >Undo</KitButton
          >
        </div>
        <p v-for="f in e.fields" :key="f.name" class="text-fine">
          {{ f.name }}: <del class="text-madder">{{ f.before }}</del> →
          <ins class="text-verdigris no-underline">{{ f.after }}</ins>
        </p>
        <p class="text-fine text-muted">
          {{ e.by }}, <TimeText :at="e.at" /><template v-if="e.undone"> · undone</template>
        </p>
      </li>
    </ol>
  </section>
</template>
