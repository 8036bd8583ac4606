<script setup lang="ts">
/** The record, editable in place. The fields follow the kind; each is saved when it is left. */
import { computed, ref, watch } from 'vue';
import type { Changed, SourceDetail } from '@pandecta/contract';
import { ALL_KINDS, KINDS, same, variableLabel, type Kind, type Variable } from '@pandecta/core/source';
import { api } from '../api/client.ts';
import { useChanges } from '../app/changes.ts';
import { fieldsOf, fieldToText, hintOf, linesOf, textToField, troubleOf } from './fields.ts';

const props = defineProps<{ source: SourceDetail }>();
const emit = defineEmits<{ close: [] }>();
const changes = useChanges();
const drafts = ref<Record<string, string>>({});
watch(
  () => props.source.id,
  () => (drafts.value = {}),
);

const record = computed(() => props.source.record);
const fields = computed(() => fieldsOf(record.value, record.value.type));
const textOf = (v: Variable): string => drafts.value[v] ?? fieldToText(v, record.value[v]);
const kinds = ALL_KINDS.map((k) => ({ id: k, name: KINDS[k].name })).sort((a, b) => a.name.localeCompare(b.name));

async function save(variable: Variable | 'type', value: unknown): Promise<void> {
  const before = (record.value as Record<string, unknown>)[variable] ?? null;
  if (same(before, value)) {
    delete drafts.value[variable];
    return;
  }
  const done = await changes.change(() =>
    api.patch<Changed>(`/sources/${props.source.id}`, { fields: { [variable]: value }, version: props.source.version }),
  );
  if (done) delete drafts.value[variable];
}

const leave = (v: Variable): void =>
  void (drafts.value[v] !== undefined && save(v, textToField(v, drafts.value[v], record.value[v])));

function fromWhere(v: string): string {
  const p = props.source.provenance[v];
  return p && p.from !== 'person' && p.from !== 'import' ? `from ${p.from}, ${Math.round(p.sure * 100)} % sure` : '';
}
</script>

<template>
  <section aria-label="Edit the record" @keydown.esc.stop="emit('close')">
    <div class="mb-2 flex items-center justify-between">
      <h3 class="heading">Record</h3>
      <button class="btn" @click="emit('close')">Done</button>
    </div>
    <div class="grid grid-cols-[8.5rem_minmax(0,1fr)] items-start gap-x-3 gap-y-1.5">
      <label class="pt-1 text-muted" for="field-type">Kind</label>
      <select
        id="field-type"
        class="field"
        :value="record.type"
        @change="save('type', ($event.target as HTMLSelectElement).value as Kind)"
      >
        <option v-for="k in kinds" :key="k.id" :value="k.id">{{ k.name }}</option>
      </select>
      <template v-for="v in fields" :key="v">
        <label class="pt-1 text-muted" :for="`field-${v}`">{{ variableLabel(v) }}</label>
        <div>
          <textarea
            :id="`field-${v}`"
            class="field block resize-y"
            :class="v === 'title' && 'font-serif'"
            :rows="linesOf(v, textOf(v))"
            :value="textOf(v)"
            :placeholder="hintOf(v)"
            spellcheck="false"
            @input="drafts[v] = ($event.target as HTMLTextAreaElement).value"
            @blur="leave(v)"
            @keydown.ctrl.enter="leave(v)"
          />
          <span v-if="troubleOf(v, textOf(v))" class="text-[11.5px] text-ochre" role="status">{{
            troubleOf(v, textOf(v))
          }}</span>
          <span v-if="fromWhere(v)" class="text-[11.5px] text-muted">{{ fromWhere(v) }}</span>
        </div>
      </template>
    </div>
    <p v-if="record.custom" class="mt-2 text-[12.5px] text-muted">
      Kept from the import as well, and written back on export: {{ Object.keys(record.custom).join(', ') }} fields.
    </p>
  </section>
</template>
