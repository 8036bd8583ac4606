<script setup lang="ts">
/** The record, editable in place. The fields follow the kind; each is saved when it is left. */
import { computed, ref, watch } from 'vue';
import type { SourceDetail } from '@pandecta/contract';
import { KINDS, same, variableLabel, withoutMarkup, type Kind, type Variable } from '@pandecta/core/source';
import { useUnsent } from '../act/unsent.ts';
import BothValues from '../kit/BothValues.vue';
import KitButton from '../kit/KitButton.vue';
import KitField from '../kit/KitField.vue';
import KitSelect from '../kit/KitSelect.vue';
import { asksOf, fieldsOf, fieldToText, hintOf, linesOf, textToField, troubleOf } from './fields.ts';
import ReportsField from './ReportsField.vue';
import { KIND_CHOICES } from './values.ts';

const props = defineProps<{ source: SourceDetail }>();
const emit = defineEmits<{ close: [] }>();
const unsent = useUnsent();
const drafts = ref<Record<string, string>>({});
/** What each field held when one began to write in it. */
const seen = ref<Record<string, unknown>>({});
/** Fields that met another's newer value: one's own waits until one has chosen. */
const met = computed(() =>
  Object.fromEntries(unsent.ofRecord(props.source.id).flatMap((one) => (one.met ? [[one.edit.field, one.met]] : []))),
);
/** What was saved since the record came: it holds until the record comes anew, so that one's own is no other's. */
const saved = ref<Record<string, unknown>>({});
watch(
  () => props.source.id,
  (id) => {
    const waiting = unsent.ofRecord(id);
    drafts.value = Object.fromEntries(waiting.map(({ edit, text }) => [edit.field, text]));
    seen.value = Object.fromEntries(waiting.map(({ edit }) => [edit.field, edit.before]));
  },
  { immediate: true },
);
watch(
  () => props.source.record,
  () => (saved.value = {}),
);

// What could not be saved is saved by and by, or let go.
watch(
  () => unsent.saved,
  (one) => one?.edit.of === 'record' && one.edit.source === props.source.id && stands(one.edit, one.text),
  { flush: 'sync' },
);
watch(
  () => unsent.ofRecord(props.source.id),
  (now, before) => {
    for (const { edit, text } of before)
      if (!now.some((n) => n.edit.field === edit.field) && edit.source === props.source.id)
        if (drafts.value[edit.field] === text) letGo(edit.field);
  },
);

const record = computed(() => props.source.record);
const fields = computed(() => fieldsOf(record.value, record.value.type));
const textOf = (v: Variable): string => drafts.value[v] ?? fieldToText(v, (held(v) ?? undefined) as never);

const held = (variable: string): unknown =>
  variable in saved.value ? saved.value[variable] : ((record.value as Record<string, unknown>)[variable] ?? null);

async function save(variable: Variable | 'type', value: unknown, before: unknown): Promise<void> {
  const { id } = props.source;
  const edit = { of: 'record' as const, source: id, field: variable, value, before };
  if (same(before, value)) return keepTheirs(variable);
  const text = drafts.value[variable] ?? '';
  const says = `${variable === 'type' ? 'Kind' : variableLabel(variable)} of “${withoutMarkup(record.value.title ?? 'Untitled')}”`;
  await unsent.save({ edit, text, says, to: `/sources?at=${id}` });
}

/** It is saved: what was written on meanwhile waits until it is left. */
function stands({ field, value }: { field: string; value: unknown }, text: string): void {
  saved.value[field] = value;
  if ((drafts.value[field] ?? '') === text) letGo(field);
  else seen.value[field] = value;
}

function letGo(variable: string): void {
  delete drafts.value[variable];
  delete seen.value[variable];
}
/** What stands there stays, and what one wrote is let go. */
function keepTheirs(field: string): void {
  unsent.letGo({ of: 'record', source: props.source.id, field });
  letGo(field);
}

function write(v: Variable, text: string): void {
  if (!(v in seen.value)) seen.value[v] = held(v);
  drafts.value[v] = text;
}

const leave = (v: Variable): void =>
  void (
    drafts.value[v] !== undefined &&
    !met.value[v] &&
    save(v, textToField(v, drafts.value[v], seen.value[v] as never), seen.value[v])
  );

const shown = (v: Variable | 'type', value: unknown): string =>
  v === 'type' ? (KINDS[value as Kind]?.name ?? '') : value === null ? '' : fieldToText(v, value as never);

function fromWhere(v: string): string {
  const p = props.source.provenance[v];
  return p && p.from !== 'person' && p.from !== 'import' ? `from ${p.from}, ${Math.round(p.sure * 100)} % sure` : '';
}
</script>

<template>
  <section aria-label="Edit the record" @keydown.esc.stop="emit('close')">
    <div class="mb-2 flex items-center justify-between">
      <h3 class="heading">Record</h3>
      <KitButton @click="emit('close')">Done</KitButton>
    </div>
    <div class="grid grid-cols-[clamp(4.5rem,26cqw,8.5rem)_minmax(0,1fr)] items-start gap-x-3 gap-y-1.5">
      <label class="pt-1 text-muted" for="field-type">Kind</label>
      <KitSelect
        id="field-type"
        :model-value="record.type"
        :options="KIND_CHOICES"
        @update:model-value="(kind) => save('type', kind, record.type)"
      />
      <BothValues
        v-if="met.type"
        class="col-start-2"
        :by="met.type.by"
        :theirs="shown('type', met.type.theirs)"
        :yours="shown('type', met.type.yours)"
        @theirs="keepTheirs('type')"
        @yours="save('type', met.type!.yours, met.type!.theirs)"
      />
      <template v-for="v in fields" :key="v">
        <label class="pt-1 text-muted" :for="`field-${v}`">{{ variableLabel(v) }}</label>
        <div>
          <ReportsField
            v-if="v === 'parallel'"
            :id="`field-${v}`"
            :model-value="textOf(v)"
            @update:model-value="write(v, $event)"
            @leave="leave(v)"
          />
          <KitField
            v-else
            :id="`field-${v}`"
            :class="v === 'title' && 'font-serif'"
            :lines="linesOf(v, textOf(v))"
            :model-value="textOf(v)"
            :placeholder="hintOf(v, record.type)"
            :error="asksOf(v, textOf(v)).length ? '' : troubleOf(v, textOf(v))"
            :hint="fromWhere(v)"
            spellcheck="false"
            data-work
            @update:model-value="write(v, String($event))"
            @blur="leave(v)"
            @keydown.ctrl.enter="leave(v)"
          />
          <p
            v-if="asksOf(v, textOf(v)).length"
            class="mt-0.5 flex flex-wrap items-center gap-1.5 text-fine"
            role="status"
          >
            Which is meant?
            <KitButton
              v-for="a in asksOf(v, textOf(v))"
              :key="a.value"
              @click="save(v, textToField(v, a.value), held(v))"
              >{{ a.says }}</KitButton
            >
          </p>
          <BothValues
            v-if="met[v]"
            :by="met[v].by"
            :theirs="shown(v, met[v].theirs)"
            :yours="shown(v, met[v].yours)"
            @theirs="keepTheirs(v)"
            @yours="save(v, met[v]!.yours, met[v]!.theirs)"
          />
        </div>
      </template>
    </div>
    <p v-if="record.custom" class="mt-2 text-fine text-muted">
      Kept from the import as well, and written back on export: {{ Object.keys(record.custom).join(', ') }} fields.
    </p>
  </section>
</template>
